// The history of a world's edits on disk.
//
// Idea. Each edit is a file with the bytes of what it changes, before and after; a state file holds which edit is
// current and which is being written, so that an interrupted edit is finished by the next session.

#include "journal_internal.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>
#include <nlohmann/json.hpp>

#include "dryground/files.hpp"
#include "dryground/pack_parts.hpp"
#include "dryground/work.hpp"

namespace dryground {

namespace fs = std::filesystem;

namespace work {

namespace {

using Json = nlohmann::json;
constexpr const char* edit_format = "dryground/edit/1";

Json bytes_of(const std::optional<std::string>& bytes) {
    if (!bytes) return nullptr;
    return Json::binary({bytes->begin(), bytes->end()});
}
std::optional<std::string> bytes_in(const Json& json) {
    if (!json.is_binary()) return std::nullopt;
    return std::string(json.get_binary().begin(), json.get_binary().end());
}

}   // namespace

Journal::Journal(const std::string& folder, const std::string& world_file) {
    if (folder.empty()) return;
    std::error_code error;
    world_ = fs::weakly_canonical(fs::absolute(world_file, error), error).generic_string();
    if (world_.empty()) return;
    folder_ = (fs::path(folder) / content_hash(world_)).generic_string();
}

std::string Journal::path(int number) const { return fmt::format("{}/{:06}.edit", folder_, number); }

State Journal::state() const {
    State state;
    if (!kept()) return state;
    const Result<std::string> file = read_file(folder_ + "/state.json");
    const Json json = file ? Json::parse(*file, nullptr, false) : Json();
    if (!json.is_object() || json.value("world", "") != world_) return state;
    state.done = json.value("done", 0);
    state.pending = json.value("pending", 0);
    state.back = json.value("back", false);
    return state;
}

std::vector<int> Journal::numbers() const {
    std::vector<int> numbers;
    std::error_code error;
    if (!kept() || state().done < 0) return numbers;
    for (fs::directory_iterator i(folder_, error), end; !error && i != end; i.increment(error)) {
        const std::string stem = i->path().stem().string();
        if (i->path().extension() == ".edit" && stem.size() >= 6 && stem.size() <= 9 &&
            stem.find_first_not_of("0123456789") == std::string::npos)
            numbers.push_back(std::stoi(stem));
    }
    std::sort(numbers.begin(), numbers.end());
    return numbers;
}

std::optional<Entry> Journal::entry(int number) const {
    const Result<std::string> file = kept() ? read_file(path(number)) : Failure{};
    if (!file) return std::nullopt;
    const Json json = Json::from_cbor(*file, true, false);
    if (!json.is_object() || json.value("format", "") != edit_format || json.value("world", "") != world_)
        return std::nullopt;
    Entry entry{number, json.value("name", ""), json.value("seconds", std::int64_t{0}), {}};
    const auto files = json.find("files");
    if (files == json.end() || !files->is_array()) return std::nullopt;
    for (const Json& one : *files) {
        if (!one.is_object() || !one.contains("before") || !one.contains("after")) return std::nullopt;
        entry.files.push_back({one.value("file", ""), bytes_in(one["before"]), bytes_in(one["after"])});
        const fs::path inside = fs::path(entry.files.back().file).lexically_normal();
        if (inside.empty() || inside.is_absolute() || *inside.begin() == "..") return std::nullopt;
    }
    return entry;
}

Result<void> Journal::set_state(const State& state) const {
    if (!kept()) return {};
    const Json json = {{"world", world_}, {"done", state.done}, {"pending", state.pending}, {"back", state.back}};
    return write_file(folder_ + "/state.json", json.dump(2) + "\n");
}

Result<void> Journal::add(const Entry& entry) const {
    if (!kept()) return {};
    std::error_code error;
    fs::create_directories(folder_, error);
    if (error) return Failure{fmt::format("{}: {}", folder_, error.message())};
    fs::permissions(folder_, fs::perms::owner_all, error);   // its content may be private, as the world's files are
    Json files = Json::array();
    for (const FileChange& change : entry.files)
        files.push_back(
            {{"file", change.file}, {"before", bytes_of(change.before)}, {"after", bytes_of(change.after)}});
    const Json json = {{"format", edit_format},
                       {"world", world_},
                       {"name", entry.name},
                       {"seconds", entry.seconds},
                       {"files", std::move(files)}};
    const std::vector<std::uint8_t> bytes = Json::to_cbor(json);
    return write_file(path(entry.number), std::string_view(reinterpret_cast<const char*>(bytes.data()), bytes.size()));
}

void Journal::forget_after(int number) const {
    std::error_code error;
    for (const int one : numbers())
        if (one > number) fs::remove(path(one), error);
}

void Journal::forget_old(std::size_t most_edits, std::size_t most_bytes) const {
    const std::vector<int> all = numbers();
    std::size_t edits = 0, bytes = 0;
    std::error_code error;
    for (auto one = all.rbegin(); one != all.rend(); ++one) {
        const std::uintmax_t size = fs::file_size(path(*one), error);
        bytes += error ? 0 : static_cast<std::size_t>(size);
        if (++edits > 1 && (edits > most_edits || bytes > most_bytes)) fs::remove(path(*one), error);
    }
}

}   // namespace work

std::string history_folder() {
    const auto said = [](const char* name) {
        const char* value = std::getenv(name);
        return value == nullptr ? std::string() : std::string(value);
    };
    if (const std::string cache = said("XDG_CACHE_HOME"); fs::path(cache).is_absolute())
        return cache + "/dryground/history";
    if (const std::string home = said("HOME"); fs::path(home).is_absolute()) return home + "/.cache/dryground/history";
    return {};
}

}   // namespace dryground

// Finds the world that a path given by a user belongs to.

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>

#include "assumed_world_internal.hpp"
#include "format_key_internal.hpp"
#include "reading_internal.hpp"
#include "text_tables_internal.hpp"
#include "toml_text_internal.hpp"
#include "toml_words_internal.hpp"

namespace dryground {

namespace fs = std::filesystem;

namespace files {

std::string sort_of_format(const std::string& format, int& version) {
    for (const Format& one : formats) {
        const std::string prefix = fmt::format("dryground/{}/", one.sort);
        if (format.rfind(prefix, 0) != 0) continue;
        const std::string number = format.substr(prefix.size());
        if (number.empty() || number.size() > 6 || number.find_first_not_of("0123456789") != std::string::npos)
            return {};
        version = std::stoi(number);
        return one.sort;
    }
    return {};
}

namespace {

// The format of a file and, for a map, its name.
struct Glance {
    std::string sort, name, fault;
    Report report;
};

Glance glance(const fs::path& path) {
    Glance result;
    const Result<std::string> file = read_file(path);
    if (!file) {
        result.fault = file.fault();
        return result;
    }
    const Source source{path.filename().generic_string(), {}, result.report};
    if (!is_text(source, *file)) return result;
    const toml::parse_result parsed = toml::parse(std::string_view(*file));
    if (!parsed) {
        report_syntax(source, parsed.error(), *file);
        return result;
    }
    int version = 0;
    result.sort = sort_of_format(parsed.table()["format"].value_or(std::string()), version);
    result.name = parsed.table()["name"].value_or(std::string());
    if (result.sort.empty())
        source.add(Rule::missing_key, {source.file, 1, 1, {}}, {"the file", "format"},
                   Hint{"the first line declares what a file is", "format = \"dryground/world/1\""});
    return result;
}

// Reads it without parsing: folders of maps hold thousands of files.
bool may_be_world(const fs::path& path) {
    const Result<std::string> file = read_file(path);
    return file && file->find("dryground/world/") != std::string::npos;
}

std::vector<fs::path> worlds_in(const fs::path& folder) {
    std::vector<fs::path> found;
    std::error_code error;
    for (fs::directory_iterator i(folder, error), end; !error && i != end; i.increment(error))
        if (i->path().extension() == ".toml" && may_be_world(i->path()) && glance(i->path()).sort == "world")
            found.push_back(i->path());
    std::sort(found.begin(), found.end());
    return found;
}

// Returns the world's text with one more file in the list `key`; nothing if it is listed already, or the text is not
// TOML.
std::optional<std::string> listed_too(const std::string& text, const char* key, const std::string& file, Place& place) {
    const toml::parse_result parsed = toml::parse(text);
    if (!parsed) return std::nullopt;
    TextEdits edits(text);
    if (const toml::node* node = parsed.table().get(key)) place.line = static_cast<int>(node->source().begin.line);
    if (!enter_in_list(edits, parsed.table(), key, file)) return std::nullopt;
    return edits.result();
}

// Reads a map or a tile set beside a world that does not list it.
void read_besides(const fs::path& file, const char* key, FoundWorld& found, Report& report) {
    const fs::path world = found.world;
    const std::string name = file.lexically_relative(world.parent_path()).generic_string();
    const Result<std::string> bytes = read_file(world);
    Finding finding;
    finding.rule = Rule::not_in_world;
    finding.severity = rule_text(finding.rule).severity;
    finding.place = {world.filename().generic_string(), 1, 1, {}};
    const auto text = bytes ? listed_too(*bytes, key, name, finding.place) : std::nullopt;
    if (!text) return;
    finding.arguments = {std::string(key) == "maps" ? "map" : "tile set", name};
    finding.hint = Hint{fmt::format("add to its `{}`", key), toml_text::in_quotes(name)};
    finding.map = found.map;
    report.add(std::move(finding));
    found.reader = [world, with_it = *text](const std::string& path) {
        return fs::path(path) == world ? Result<std::string>(with_it) : read_file(path);
    };
}

Failure ambiguous(fmt::format_string<std::string, std::string> words, const std::vector<fs::path>& worlds) {
    return Failure{fmt::format(words, worlds[0].filename().generic_string(), worlds[1].filename().generic_string())};
}

}   // namespace

}   // namespace files

Result<FoundWorld> find_world(const std::string& path) {
    FoundWorld found;
    if (std::error_code error; fs::is_directory(path, error)) {
        const std::vector<fs::path> worlds = files::worlds_in(path);
        if (worlds.empty()) return Failure{"there is no world in this folder"};
        if (worlds.size() > 1) return files::ambiguous("it holds {} and {}: name the world instead", worlds);
        found.world = worlds[0];
        return found;
    }
    files::Glance file = files::glance(path);
    if (!file.fault.empty() || file.sort.empty()) return Failure{file.fault, std::move(file.report)};
    if (file.sort == "world") found.world = path;
    if (file.sort == "map") found.map = file.name;
    if (file.sort == "tiles") found.tileset = file.name;
    if (file.sort == "world") return found;
    Report report;
    std::error_code error;
    const fs::path whole = fs::weakly_canonical(fs::absolute(path, error), error);
    fs::path folder = whole.parent_path();
    for (;; folder = folder.parent_path()) {
        const std::vector<fs::path> worlds = files::worlds_in(folder);
        if (worlds.size() > 1) return files::ambiguous("it could belong to {} or {}: name the world instead", worlds);
        if (worlds.size() == 1) {
            found.world = worlds[0];
            files::read_besides(whole, file.sort == "map" ? "maps" : "tilesets", found, report);
            return {std::move(found), std::move(report)};
        }
        if (folder == folder.parent_path()) break;
    }
    // None: it is opened without a world.
    if (const auto assumed = files::assume_world(whole, file.sort)) {
        found.world = assumed->file.generic_string();
        Finding finding;
        finding.rule = Rule::not_in_world;
        finding.severity = rule_text(finding.rule).severity;
        finding.place = {whole.lexically_relative(assumed->file.parent_path()).generic_string(), 1, 1, {}};
        finding.arguments = {file.sort == "map" ? "map" : "tile set", finding.place.file};
        finding.details.push_back("there is no world in its folder or above: it is looked at by itself");
        if (!assumed->assumed.empty())
            finding.details.push_back(fmt::format("assumed: {}", fmt::join(assumed->assumed, "; ")));
        finding.hint = Hint{"`dryground new` makes a world to put it into", ""};
        finding.map = found.map;
        report.add(std::move(finding));
        found.reader = [world = found.world, text = assumed->text](const std::string& name) {
            return fs::path(name) == fs::path(world) ? Result<std::string>(text) : read_file(name);
        };
        return {std::move(found), std::move(report)};
    }
    return Failure{"no world is in its folder or above: name the world instead"};
}

std::size_t count_maps(const FoundWorld& found) {
    const Result<std::string> file = found.reader(found.world);
    if (!file) return 0;
    const toml::parse_result parsed = toml::parse(std::string_view(*file));
    const toml::array* maps = parsed ? parsed.table()["maps"].as_array() : nullptr;
    return maps == nullptr ? 0 : maps->size();
}

}   // namespace dryground

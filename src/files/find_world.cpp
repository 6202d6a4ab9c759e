// From a path that a user gives to the world that it belongs to.

#include <fmt/format.h>

#include <algorithm>
#include <filesystem>

#include "assumed_world_internal.hpp"
#include "format_key_internal.hpp"
#include "reading_internal.hpp"
#include "text_tables_internal.hpp"
#include "toml_text_internal.hpp"

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

// The sort of a file and, of a map, its name.
struct Glance {
    std::string sort, name, fault;
    Report report;
};

Glance glance(const fs::path& path) {
    Glance result;
    const FileBytes file = read_file(path);
    if (!file.bytes) {
        result.fault = file.fault;
        return result;
    }
    const Source source{path.filename().generic_string(), {}, result.report};
    if (!is_text(source, *file.bytes)) return result;
    const toml::parse_result parsed = toml::parse(std::string_view(*file.bytes));
    if (!parsed) {
        source.add(Rule::syntax, source.at(parsed.error().source().begin), {std::string(parsed.error().description())});
        return result;
    }
    int version = 0;
    result.sort = sort_of_format(parsed.table()["format"].value_or(std::string()), version);
    result.name = parsed.table()["name"].value_or(std::string());
    if (result.sort.empty())
        source.add(Rule::missing_key, {source.file, 1, 1, {}}, {"the file", "format"},
                   Hint{"a file says what it is in its first line", "format = \"dryground/world/1\""});
    return result;
}

// Without parsing it: folders of maps hold thousands of files.
bool may_be_world(const fs::path& path) {
    const FileBytes file = read_file(path);
    return file.bytes && file.bytes->find("dryground/world/") != std::string::npos;
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

// The world's text with one more file in the list `key`; nothing where it is in it already, or the text is no TOML.
std::optional<std::string> listed_too(const std::string& text, const char* key, const std::string& file, Place& place) {
    const toml::parse_result parsed = toml::parse(text);
    if (!parsed) return std::nullopt;
    TextEdits edits(text);
    if (const toml::node* node = parsed.table().get(key)) place.line = static_cast<int>(node->source().begin.line);
    if (!enter_in_list(edits, parsed.table(), key, file)) return std::nullopt;
    return edits.result();
}

// Reads a map or a tile set beside the world that does not list it.
void read_besides(const fs::path& file, const char* key, FoundWorld& found) {
    const fs::path world = found.world;
    const std::string name = file.lexically_relative(world.parent_path()).generic_string();
    const FileBytes bytes = read_file(world);
    Finding finding;
    finding.rule = Rule::not_in_world;
    finding.severity = rule_text(finding.rule).severity;
    finding.place = {world.filename().generic_string(), 1, 1, {}};
    const auto text = bytes.bytes ? listed_too(*bytes.bytes, key, name, finding.place) : std::nullopt;
    if (!text) return;
    finding.arguments = {std::string(key) == "maps" ? "map" : "tile set", name};
    finding.hint = Hint{fmt::format("add to its `{}`", key), toml_text::in_quotes(name)};
    finding.map = found.map;
    found.unlisted.add(std::move(finding));
    found.reader = [world, with_it = *text](const std::string& path) {
        return fs::path(path) == world ? FileBytes{with_it, {}} : read_file(path);
    };
}

}   // namespace

}   // namespace files

FoundWorld find_world(const std::string& path) {
    FoundWorld result;
    if (std::error_code error; fs::is_directory(path, error)) {
        const std::vector<fs::path> worlds = files::worlds_in(path);
        if (worlds.size() == 1)
            result.world = worlds[0];
        else
            result.fault = worlds.empty() ? std::string("there is no world in this folder")
                                          : fmt::format("it holds {} and {}: name the world instead",
                                                        worlds[0].filename().generic_string(),
                                                        worlds[1].filename().generic_string());
        return result;
    }
    const files::Glance file = files::glance(path);
    result.fault = file.fault;
    result.report = file.report;
    if (file.sort == "world") result.world = path;
    if (!result.fault.empty() || file.sort == "world" || file.sort.empty()) return result;
    if (file.sort == "map") result.map = file.name;
    if (file.sort == "tiles") result.tileset = file.name;
    std::error_code error;
    const fs::path whole = fs::weakly_canonical(fs::absolute(path, error), error);
    fs::path folder = whole.parent_path();
    for (;; folder = folder.parent_path()) {
        const std::vector<fs::path> worlds = files::worlds_in(folder);
        if (worlds.size() == 1) {
            result.world = worlds[0];
            files::read_besides(whole, file.sort == "map" ? "maps" : "tilesets", result);
        }
        if (worlds.size() > 1)
            result.fault = fmt::format("it could belong to {} or {}: name the world instead",
                                       worlds[0].filename().generic_string(), worlds[1].filename().generic_string());
        if (!worlds.empty()) return result;
        if (folder == folder.parent_path()) break;
    }
    // None: it is taken by itself.
    if (const auto assumed = files::assume_world(whole, file.sort)) {
        result.world = assumed->file.generic_string();
        Finding finding;
        finding.rule = Rule::not_in_world;
        finding.severity = rule_text(finding.rule).severity;
        finding.place = {whole.lexically_relative(assumed->file.parent_path()).generic_string(), 1, 1, {}};
        finding.arguments = {file.sort == "map" ? "map" : "tile set", finding.place.file};
        finding.details.push_back("there is no world in its folder or above: it is looked at by itself");
        if (!assumed->assumed.empty())
            finding.details.push_back(fmt::format("assumed: {}", fmt::join(assumed->assumed, "; ")));
        finding.hint = Hint{"`dryground new` makes a world to put it into", ""};
        finding.map = result.map;
        result.unlisted.add(std::move(finding));
        result.reader = [world = result.world, text = assumed->text](const std::string& name) {
            return fs::path(name) == fs::path(world) ? FileBytes{text, {}} : read_file(name);
        };
        return result;
    }
    result.fault = "no world is in its folder or above: name the world instead";
    return result;
}

std::size_t count_maps(const FoundWorld& found) {
    const FileBytes file = found.reader(found.world);
    if (!file.bytes) return 0;
    const toml::parse_result parsed = toml::parse(std::string_view(*file.bytes));
    const toml::array* maps = parsed ? parsed.table()["maps"].as_array() : nullptr;
    return maps == nullptr ? 0 : maps->size();
}

}   // namespace dryground

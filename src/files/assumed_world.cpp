// A world for a map or a tile set that has none: everything that the file names is declared with the least that it
// needs.

#include "assumed_world_internal.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <set>

#include "dryground/files.hpp"
#include "format_key_internal.hpp"
#include "keys/listing_internal.hpp"
#include "toml_internal.hpp"
#include "toml_text_internal.hpp"

namespace dryground::files {

namespace fs = std::filesystem;

namespace {

using NamesBySort = std::map<std::string, std::set<std::string>>;   // by sort: "barrier"

std::optional<toml::table> tree_of(const fs::path& file) {
    const Result<std::string> bytes = read_file(file.generic_string());
    if (!bytes) return std::nullopt;
    toml::parse_result parsed = toml::parse(*bytes);
    if (!parsed) return std::nullopt;
    return std::move(parsed).table();
}

// Returns what the keys of that name refer to, as the lists of keys define, if that is the same for all things that
// have it.
const std::map<std::string, std::string>& sorts_by_key() {
    static const std::map<std::string, std::string> sorts = [] {
        std::map<std::string, std::string> all;
        for (const keys::Thing& thing : keys::all_things())
            for (const keys::Entry& entry : thing.entries)
                if (!entry.key.refers.empty())
                    if (auto& sort = all.emplace(entry.key.name, entry.key.refers).first->second;
                        sort != entry.key.refers)
                        sort.clear();
        return all;
    }();
    return sorts;
}

void add_name(const std::string& sort, const std::string& name, NamesBySort& names) {
    const bool own = (sort == "barrier" && name == "open") || (sort == "storey" && name == "ground") ||
                     (sort == "kind" &&
                      (name == "spawn" || name == "trigger" || name == "link" || name == "solid" || name == "entity"));
    if (!own && !name.empty()) names[sort].insert(name);
}

// Collects all that a tree names, and how far up its paths lead.
void look_at(const std::string& key, const toml::node& node, NamesBySort& names, std::size_t& up) {
    const auto sort = sorts_by_key().find(key);
    if (const auto text = node.value<std::string>()) {
        std::size_t here = 0;
        while (text->compare(3 * here, 3, "../") == 0) ++here;
        up = std::max(up, here);
        if (sort != sorts_by_key().end() && !sort->second.empty()) add_name(sort->second, *text, names);
    } else if (const toml::array* list = node.as_array()) {
        for (const toml::node& item : *list) look_at(key, item, names, up);
    } else if (const toml::table* table = node.as_table()) {
        for (const auto& [inner, value] : *table) look_at(std::string(inner.str()), value, names, up);
    }
}

// Finds tile sets by their names, in a folder and those below it.
std::map<std::string, fs::path> tilesets_below(const fs::path& folder) {
    constexpr int most_files = 2000, deepest = 4;
    std::map<std::string, fs::path> found;
    std::error_code error;
    int seen = 0;
    for (fs::recursive_directory_iterator i(folder, fs::directory_options::skip_permission_denied, error), end;
         !error && i != end && ++seen < most_files; i.increment(error)) {
        if (i.depth() >= deepest) i.disable_recursion_pending();
        if (i->path().extension() != ".toml" || !i->is_regular_file(error)) continue;
        const auto tree = tree_of(i->path());
        int version = 0;
        if (tree && sort_of_format((*tree)["format"].value_or(std::string()), version) == "tiles")
            found.emplace((*tree)["name"].value_or(std::string()), i->path());
    }
    return found;
}

// Returns a table with an entry for each name.
std::string named(const char* table, const std::set<std::string>& names, const char* each) {
    std::string text;
    for (const std::string& name : names) text += fmt::format("{} = {}\n", toml_text::key(name), each);
    return text.empty() ? text : fmt::format("\n[{}]\n{}", table, text);
}

}   // namespace

std::optional<AssumedWorld> assume_world(const fs::path& file, const std::string& sort) {
    const auto tree = tree_of(file);
    if (!tree) return std::nullopt;
    NamesBySort names;
    std::size_t up = 0;
    look_at("", *tree, names, up);
    std::vector<fs::path> sets, maps;
    (sort == "map" ? maps : sets).push_back(file);
    fs::path folder = file.parent_path();
    if (sort == "map") {
        const std::set<std::string> wanted = names["tileset"];
        // Looks beside the map, or where maps and tile sets have folders beside each other.
        for (std::size_t step = 0; step < 2 && sets.size() < wanted.size(); ++step) {
            sets.clear();
            const fs::path from = step == 0 ? folder : folder.parent_path();
            const std::map<std::string, fs::path> found = tilesets_below(from);
            for (const std::string& name : wanted)
                if (const auto set = found.find(name); set != found.end()) sets.push_back(set->second);
            if (step == 1 && !sets.empty()) up = std::max<std::size_t>(up, 1);
        }
        for (const fs::path& set : sets)
            if (const auto inner = tree_of(set)) look_at("", *inner, names, up);
    }
    for (std::size_t i = 0; i < up && folder.has_relative_path(); ++i) folder = folder.parent_path();
    AssumedWorld world{folder / "world.toml", "format = \"dryground/world/1\"\ntitle = \"no world\"\n", {}};
    const auto list = [&](const char* key, const std::vector<fs::path>& files) {
        std::vector<std::string> items;
        for (const fs::path& one : files)
            items.push_back(toml_text::in_quotes(one.lexically_relative(folder).generic_string()));
        world.text += fmt::format("{} = {}\n", key, toml_text::list(items));
    };
    list("tilesets", sets);
    list("maps", maps);
    for (const auto& [table, one, each] :
         {std::tuple{"barriers", "barrier", "{}"}, std::tuple{"flags", "flag", "\"\""},
          std::tuple{"facts", "fact", "\"\""}, std::tuple{"events", "event", "\"\""},
          std::tuple{"kinds", "kind", "{ role = \"entity\" }"},
          std::tuple{"storeys", "storey", "{ base_px = 32, height_px = 32 }"},
          std::tuple{"movers", "mover", "{ body = { box = [10, 14], at = [0, -7] } }"}}) {
        world.text += named(table, names[one], each);
        if (!names[one].empty()) world.assumed.push_back(fmt::format("{} {}", table, fmt::join(names[one], ", ")));
    }
    world.text += "\n[check]                                     # only a whole world has these\n";
    for (const char* rule : {"start-missing", "map-unlinked", "fact-unread", "fact-never-true", "event-unused",
                             "barrier-unmet", "link-target", "link-without-return", "tile-unused", "kind-field",
                             "carve-nothing", "flags-always-equal", "states-gap"})
        world.text += fmt::format("{} = \"off\"\n", rule);
    return world;
}

}   // namespace dryground::files

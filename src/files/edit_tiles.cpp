// Tiles of a set, in its file.

#include <fmt/format.h>

#include "dryground/text.hpp"
#include "edit_world_internal.hpp"
#include "text_tables_internal.hpp"

namespace dryground::files {

namespace {

const TileSetDraft& find_set(const OpenWorld& world, const std::string& name) {
    return find_draft(world.builder.tileset_drafts(), "tile set", name);
}

std::string what_tile(const std::string& tile) { return fmt::format("tile '{}'", tile); }

// Changes each tile that matches; throws EditFault if none does.
template <class Action>
std::size_t each_tile(const toml::table& tree, const std::string& set, const std::string& pattern, Action action) {
    std::size_t matches = 0, count = 0;
    std::vector<std::string> names;
    if (const toml::table* tiles = tree["tiles"].as_table())
        for (const auto& [name, node] : *tiles) {
            names.emplace_back(name.str());
            if (!node.is_table() || !matches_pattern(pattern, names.back())) continue;
            count += action(names.back(), *node.as_table());
            ++matches;
        }
    if (matches > 0) return count;
    if (pattern.find('*') == std::string::npos) unknown_name(fmt::format("tile set '{}'", set), "tile", pattern, names);
    throw EditFault(fmt::format("tile set '{}' has no tile that matches '{}'", set, pattern));
}

}   // namespace

void edit(OpenWorld& world, const AddTile& add) {
    const TileSetDraft& set = find_set(world, add.tileset);
    change_file(world, set.place.file, [&](TextEdits& text, const toml::table& tree) -> std::size_t {
        const toml::table* tiles = tree["tiles"].as_table();
        if (tiles != nullptr && tiles->contains(add.tile))
            throw EditFault(fmt::format("tile set '{}' has a tile '{}' already", add.tileset, add.tile));
        std::string lines =
            fmt::format("[tiles.{}]\n{}", toml_text::key(add.tile),
                        new_keys("tile", what_tile(add.tile), properties_of(set.fields), add.values, false).lines());
        lines.pop_back();
        const std::vector<TextSpan> parts = TextTables(text, tree).parts({"tiles"});
        insert_part(text, parts.empty() ? text.text().size() : parts.back().end, with_line_breaks(text, lines));
        return 1;
    });
}

void edit(OpenWorld& world, const GiveTiles& give) {
    const TileSetDraft& set = find_set(world, give.tileset);
    change_file(world, set.place.file, [&](TextEdits& text, const toml::table& tree) {
        return each_tile(tree, give.tileset, give.pattern, [&](const std::string& tile, const toml::table& table) {
            return set_keys(text, table, "tile", what_tile(tile), properties_of(set.fields), give.values);
        });
    });
}

void edit(OpenWorld& world, const DropTiles& drop) {
    const TileSetDraft& set = find_set(world, drop.tileset);
    change_file(world, set.place.file, [&](TextEdits& text, const toml::table& tree) {
        return each_tile(tree, drop.tileset, drop.pattern, [&](const std::string& tile, const toml::table&) {
            if (!drop_named(text, tree, "tiles", tile))
                throw EditFault(
                    fmt::format("{} is written in lines among those of others: remove it by hand", what_tile(tile)));
            return std::size_t{1};
        });
    });
}

}   // namespace dryground::files

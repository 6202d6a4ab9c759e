// The files that a world lists: maps and tile sets that are added or removed.

#include <fmt/format.h>

#include <algorithm>

#include "edit_world_internal.hpp"
#include "format_key_internal.hpp"
#include "text_tables_internal.hpp"
#include "writing_internal.hpp"

namespace dryground::files {

namespace fs = std::filesystem;

namespace {

void enter(OpenWorld& world, const char* list, const std::string& file) {
    change_file(world, world.file, [&](TextEdits& text, const toml::table& tree) -> std::size_t {
        return enter_in_list(text, tree, list, file) ? 1 : 0;
    });
}

void leave(OpenWorld& world, const char* list, const std::string& file) {
    change_file(world, world.file, [&](TextEdits& text, const toml::table& tree) -> std::size_t {
        if (const toml::array* items = tree[list].as_array())
            for (const toml::node& item : *items)
                if (fs::path(item.value_or(std::string())).lexically_normal() == fs::path(file).lexically_normal()) {
                    drop_item(text, item);
                    return 1;
                }
        throw EditFault(fmt::format("'{}' is not in the world's list `{}`", file, list));
    });
}

// Makes it like the world's first map unless given; with every tile set whose cells have the same size.
MapDraft new_map(const OpenWorld& world, const AddMap& add) {
    MapDraft map;
    map.name = Name(add.map);
    map.size.value = {add.columns, add.rows};
    if (!world.builder.map_drafts().empty()) {
        const MapDraft& first = world.builder.map_drafts().front();
        map.grid = first.grid;
        map.cell = first.cell;
        map.rim = first.rim;
        map.player = first.player;
        map.cell_parts = first.cell_parts;
    } else if (!world.builder.tileset_drafts().empty()) {
        map.cell = world.builder.tileset_drafts().front().cell;
    }
    for (const TileSetDraft& set : world.builder.tileset_drafts())
        if (set.cell.value == map.cell.value) map.tilesets.push_back(Name(set.name.value));
    LayerDraft ground, objects;
    ground.name = Name("ground");
    const std::string row(static_cast<std::size_t>(add.columns), '.');
    ground.rows.assign(static_cast<std::size_t>(add.rows), Located<std::string>(row));
    objects.name = Name("objects");
    objects.holds_objects = true;
    map.layers = {std::move(ground), std::move(objects)};
    return map;
}

}   // namespace

void edit(OpenWorld& world, const AddMap& add) {
    if (add.columns < 1 || add.rows < 1) throw EditFault("a map has at least one column and one row");
    if (std::int64_t{add.columns} * add.rows > std::int64_t{1} << 26)
        throw EditFault("a map has at most 67,108,864 cells");
    const auto& maps = world.builder.map_drafts();
    for (const MapDraft& map : maps)
        if (map.name.value == add.map) throw EditFault(fmt::format("the world has a map '{}' already", add.map));
    const fs::path beside = maps.empty() ? fs::path("maps") : fs::path(maps.front().place.file).parent_path();
    const std::string folder = beside.empty() ? "" : beside.generic_string() + "/";
    const std::string name = add.map + ".map.toml", file = folder + name;
    if (world.reader(world.folder / file)) throw EditFault(fmt::format("there is a file '{}' already", file));
    std::vector<NamedBytes> files = map_files(new_map(world, add), folder, name);
    for (NamedBytes& one : files) {
        if (one.file == file) {
            TextEdits text(one.bytes);
            const toml::table tree = parsed(one.bytes, file);
            set_keys(text, tree, "map", fmt::format("map '{}'", add.map),
                     properties_of(world.builder.world_draft().map_fields), add.values);
            one.bytes = text.result();
        }
        world.result.files.push_back(std::move(one));
    }
    enter(world, "maps", file);
}

void edit(OpenWorld& world, const DropMap& drop) {
    leave(world, "maps", find_draft(world.builder.map_drafts(), "map", drop.map).place.file);
}

void edit(OpenWorld& world, const DropTileSet& drop) {
    leave(world, "tilesets", find_draft(world.builder.tileset_drafts(), "tile set", drop.tileset).place.file);
}

void edit(OpenWorld& world, const AddFile& add) {
    const std::string file = fs::path(add.file).lexically_normal().generic_string();
    int version = 0;
    const std::string sort = sort_of_format(parsed(world.read(file), file)["format"].value_or(std::string()), version);
    if (sort != "map" && sort != "tiles")
        throw EditFault(fmt::format("'{}' is neither a map nor a tile set, by its first line", file));
    enter(world, sort == "map" ? "maps" : "tilesets", file);
}

}   // namespace dryground::files

// A pack's tile sets.

#include <fmt/format.h>

#include "../model/words_internal.hpp"
#include "pack_internal.hpp"

namespace dryground::files {

namespace {

constexpr std::array<const char*, 4> side_names{"top", "right", "bottom", "left"};

// Of a whole cell: the box around it, wherever a turn has put its first corner.
Json area_of(const Shape& shape) {
    const auto box = shape.whole_cell ? bounds(shape.area) : std::nullopt;
    return area_json(box ? Regions{box_region(box->least, box->most)} : shape.area);
}

Json shape_json(const World& world, const Shape& shape) {
    return {{"cell", shape.whole_cell},
            {"area", area_of(shape)},
            {"line", ring_json(shape.line)},
            {"one_way", name_of(shape.one_way)},
            {"barrier", name_or_null(world.barriers(), shape.barrier)},
            {"trigger", shape.trigger},
            {"surface", surface_json(shape.surface)}};
}

// What is drawn for a tile: a file, a box of it, and the place of its corner from the cell's.
Json image_json(const TileSet& set, const Tile& tile) {
    const std::optional<TileImage> art = image_of(set, tile);
    if (!art) return nullptr;
    return {{"file", art->file},
            {"box", Json::array({art->left, art->top, art->width, art->height})},
            {"at", Json::array({art->x, art->y})}};
}

Json tile_json(const World& world, const TileSet& set, const Tile& tile) {
    Json shapes = Json::array(), carves = Json::array(), reacts = Json::array();
    for (const Shape& shape : tile.shapes)
        if (shape.fault == ShapeFault::none) shapes.push_back(shape_json(world, shape));
    for (const Carve& carve : tile.carves)
        if (carve.shape.fault == ShapeFault::none)
            carves.push_back({{"barrier", name_or_null(world.barriers(), carve.barrier)},
                              {"cell", carve.shape.whole_cell},
                              {"area", area_of(carve.shape)}});
    for (const Reaction& reaction : tile.reacts) reacts.push_back(reaction_json(world, set, reaction));
    Json sides = nullptr;
    if (tile.sides) {
        sides = Json::object();
        for (std::size_t side = 0; side < 4; ++side) sides[side_names[side]] = name_of(tile.sides->of[side]);
    }
    return {{"name", tile.name},
            {"art", tile.art ? Json(*tile.art) : Json(nullptr)},
            {"art_at", tile.at ? Json(*tile.at) : Json(nullptr)},
            {"band", tile.band ? Json(word_of(*tile.band)) : Json(nullptr)},
            {"picture", picture_json(tile.picture)},
            {"image", image_json(set, tile)},
            {"unseen", tile.unseen},
            {"overhang", tile.overhang},
            {"tags", tile.tags},
            {"decided", tile.decided},
            {"shapes", std::move(shapes)},
            {"carves", std::move(carves)},
            {"flags", tile.flags ? flags_json(world, *tile.flags) : Json(nullptr)},
            {"sides", std::move(sides)},
            {"stands_for", name_or_null(world.kinds(), tile.stands_for)},
            {"leads", name_or_null(world.storeys(), tile.leads)},
            {"needs", names_of(world.facts(), tile.needs)},
            {"gives", names_of(world.facts(), tile.gives)},
            {"reacts", std::move(reacts)},
            {"props", properties_json(tile.props)}};
}

}   // namespace

Json reaction_json(const World& world, const TileSet& set, const Reaction& reaction) {
    Json from = Json::array();
    for (std::size_t side = 0; side < 4; ++side)
        if (reaction.from[side]) from.push_back(side_names[side]);
    const Json turns = reaction.then == Reaction::Then::stays ? Json(nullptr)
                       : reaction.then == Reaction::Then::goes
                           ? Json("")
                           : Json(set.tiles[static_cast<std::size_t>(reaction.turns_into)].name);
    return {{"fires", name_of(reaction.fires)},
            {"from", std::move(from)},
            {"by", names_of(world.movers(), reaction.by)},
            {"once", reaction.once},
            {"every_s", reaction.every_s},
            {"needs", names_of(world.facts(), reaction.needs)},
            {"gives", names_of(world.facts(), reaction.gives)},
            {"runs", name_or_null(world.events(), reaction.runs)},
            {"turns_into", turns}};
}

bool flags_are_numbers(const World& world) { return world.flags().size() <= 53; }

Json flags_number(const World& world, FlagSet flags) {
    return flags_are_numbers(world) ? Json(flags) : Json(fmt::format("0x{:x}", flags));
}

Json tileset_json(const World& world, const TileSet& set) {
    Json tiles = Json::array(), sheet = nullptr;
    for (const Tile& tile : set.tiles) tiles.push_back(tile_json(world, set, tile));
    if (set.sheet) {
        const auto& clear = set.sheet->clear;
        sheet = {{"file", set.sheet->file},
                 {"size", Json::array({set.sheet->width, set.sheet->height})},
                 {"margin", set.sheet->margin},
                 {"gap", set.sheet->gap},
                 {"cut", set.sheet->cut ? Json(*set.sheet->cut) : Json(nullptr)},
                 {"at", set.sheet->at},
                 {"clear", clear ? Json(fmt::format("#{:02x}{:02x}{:02x}", clear->red, clear->green, clear->blue))
                                 : Json(nullptr)}};
    }
    return {{"name", set.name},
            {"cell", Json::array({set.cell_width, set.cell_height})},
            {"sheet", std::move(sheet)},
            {"fields", fields_json(set.fields)},
            {"tiles", std::move(tiles)}};
}

}   // namespace dryground::files

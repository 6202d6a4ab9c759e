// A pack's tile sets and maps.

#include <fmt/format.h>

#include "../ground/ground_internal.hpp"
#include "../model/words_internal.hpp"
#include "number_rows_internal.hpp"
#include "pack_internal.hpp"
#include "place_numbers_internal.hpp"

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

Json palette_json(const World& world, const Map& map) {
    Json palette = Json::array();
    for (const Placed& placed : map.palette) {
        if (placed.tile < 0) {
            palette.push_back(nullptr);
            continue;
        }
        const Orientation& way = placed.orientation;
        palette.push_back(
            {{"tile", world.tilesets()[static_cast<std::size_t>(placed.tileset)].name + "/" + world.tile(placed).name},
             {"flip_x", way.flip_x},
             {"flip_y", way.flip_y},
             {"turn", way.turn}});
    }
    return palette;
}

Json rows_json(const Map& map, const Layer& layer) {
    Json rows = Json::array();
    std::vector<std::uint64_t> row(static_cast<std::size_t>(map.columns));
    for (int r = 0; r < map.rows; ++r) {
        for (int c = 0; c < map.columns; ++c) row[static_cast<std::size_t>(c)] = map.number(layer, c, r);
        rows.push_back(row_text(row));
    }
    return rows;
}

Json growth_json(const Growth& grow) {
    if (grow.by == 0) return nullptr;
    return {{"px", to_px(grow.by)}, {"corners", word_of(grow.corners)}, {"within_px", grow.within_px}};
}

Json layer_json(const World& world, const Map& map, const Layer& layer) {
    Json sink = Json::array();
    for (const std::int32_t steps : layer.sink) sink.push_back(to_px(steps));
    return {{"name", layer.name},
            {"holds", layer.holds_objects ? "objects" : "cells"},
            {"decor", layer.decor},
            {"shown", layer.shown},
            {"storey", name_or_null(world.storeys(), layer.storey)},
            {"band", word_of(layer.band)},
            {"order", layer.order},
            {"opacity", layer.opacity},
            {"barrier", name_or_null(world.barriers(), layer.barrier)},
            {"trigger", layer.trigger},
            {"reaction", layer.reaction ? reaction_json(world, {}, *layer.reaction) : Json(nullptr)},
            {"surface", surface_json(layer.surface)},
            {"one_way", name_of(layer.one_way)},
            {"flags", layer.flags ? flags_json(world, *layer.flags) : Json(nullptr)},
            {"offset", point_json(layer.offset)},
            {"shape_offset", point_json(layer.shape_offset)},
            {"sink", std::move(sink)},
            {"grow", growth_json(layer.grow)},
            {"fill_holes", layer.fill_px2},
            {"when", names_of(world.facts(), layer.when)},
            {"unless", names_of(world.facts(), layer.unless)},
            {"tags", layer.tags},
            {"props", properties_json(layer.props)},
            {"rows", layer.holds_objects ? Json(nullptr) : rows_json(map, layer)}};
}

Json link_json(const World& world, const Object& object) {
    if (object.role != Role::link) return nullptr;
    return {{"to", object.link.to},
            {"one_way", object.link.one_way},
            {"arrival_runs", name_or_null(world.events(), object.link.arrival_runs)}};
}

// What an object covers, and where its picture's corner is, as the file's merged ground is told.
Json placed_json(const World& world, const Map& map, const Object& object, const PackOutput& output) {
    const PlaceNumbers numbers(world, map, output.unit, output.y, output.plane);
    Json regions = Json::array();
    for (const Region& region : object.area) {
        std::vector<Ring> holes;
        for (const Ring& hole : region.holes) holes.push_back(numbers.on_plane(hole));
        regions.push_back(
            {{"outline", numbers.ring(numbers.on_plane(region.outline))}, {"holes", numbers.rings(holes)}});
    }
    Json line = Json::array();
    for (const Point p : object.line) line.push_back(numbers.point(numbers.on_plane(p)));
    const Kind& kind = world.kind(object.kind);
    const MoverId mover = body_of(world, map, object);
    const std::optional<Picture> picture = kind.picture             ? kind.picture
                                           : mover != MoverId::none ? world.mover(mover).picture
                                                                    : std::nullopt;
    Json origin = nullptr;   // pictures are drawn on the screen: on the ground laid flat they have no corner
    if (picture && numbers.is_as_drawn())
        origin = numbers.point(moved(object.position, {to_steps(picture->x), to_steps(picture->y)}));
    return {{"at", numbers.point(numbers.on_plane(object.position))},
            {"middle", numbers.point(numbers.on_plane(object.middle))},
            // A box that is turned or sheared as diamonds are laid flat has no size of its own there.
            {"size",
             numbers.is_as_drawn() ? Json::array({numbers.x(object.size.x), numbers.y(object.size.y)}) : Json(nullptr)},
            {"area", std::move(regions)},
            {"line", std::move(line)},
            {"drawn_from", std::move(origin)}};
}

Json object_json(const World& world, const Map& map, const Object& object, const PackOutput& output) {
    Json carves = Json::array();
    for (const auto& [barrier, area] : object.carves)
        carves.push_back({{"barrier", name_or_null(world.barriers(), barrier)}, {"area", area_json(area)}});
    const double metre = world.per_metre() * steps_per_px;
    const double y = object.position.y / metre;
    Json json{{"name", object.name},
              {"kind", name_or_null(world.kinds(), object.kind)},
              {"role", name_of(object.role)},
              {"layer", map.layers[static_cast<std::size_t>(object.layer)].name},
              {"at_px", point_json(object.position)},
              {"at_m", Json::array({object.position.x / metre, output.y == YAxis::up ? 0.0 - y : y})},
              {"cell", object.cell ? Json(*object.cell) : Json(nullptr)},
              {"drawn", object.drawn},
              {"turn", object.turn},
              {"middle_px", point_json(object.middle)},
              {"size_px", point_json(object.size)},
              {"placed", placed_json(world, map, object, output)},
              {"area", area_json(object.area)},
              {"line", ring_json(object.line)},
              {"hollow", object.hollow},
              {"carves", std::move(carves)},
              {"storey", name_or_null(world.storeys(), object.storey)},
              {"barrier", name_or_null(world.barriers(), object.barrier)},
              {"tags", object.tags},
              {"fires", name_of(object.fires)},
              {"by", names_of(world.movers(), object.by)},
              {"once", object.once},
              {"every_s", object.every_s},
              {"needs", names_of(world.facts(), object.needs)},
              {"gives", names_of(world.facts(), object.gives)},
              {"when", names_of(world.facts(), object.when)},
              {"unless", names_of(world.facts(), object.unless)},
              {"runs", name_or_null(world.events(), object.runs)},
              {"link", link_json(world, object)},
              {"props", properties_json(object.props)}};
    if (object.surface) json["surface"] = surface_json(object.surface);
    return json;
}

std::uint64_t sides_number(const Sides& sides) {
    std::uint64_t number = 0;
    for (std::size_t side = 4; side-- > 0;) number = 4 * number + static_cast<std::uint64_t>(sides.of[side]);
    return number;
}

Json passability_json(const World& world, const Map& map, const Facts& facts) {
    Json list = Json::array();
    for (const StoreyId storey : ground::storeys_of(map)) {
        Json flags = Json::array(), sides = Json::array();
        std::vector<std::uint64_t> flag_row(static_cast<std::size_t>(map.columns)), side_row(flag_row.size());
        for (int r = 0; r < map.rows; ++r) {
            for (int c = 0; c < map.columns; ++c) {
                const Passability say = passability(world, map, c, r, storey, facts);
                flag_row[static_cast<std::size_t>(c)] = say.flags;
                side_row[static_cast<std::size_t>(c)] = sides_number(say.sides);
            }
            flags.push_back(row_text(flag_row, !flags_are_numbers(world)));
            sides.push_back(row_text(side_row));
        }
        list.push_back({{"storey", name_or_null(world.storeys(), storey)},
                        {"flags", std::move(flags)},
                        {"sides", std::move(sides)}});
    }
    return list;
}

// For the barriers, and for every mover.
template <class Merged, class MergeOne>
std::vector<Merged> merged_for_all(const World& world, MergeOptions options, MergeOne merge_one) {
    std::vector<Merged> merges{merge_one(options)};
    for (const MoverId mover : ids<MoverId>(world.movers())) {
        options.mover = mover;
        merges.push_back(merge_one(options));
    }
    return merges;
}

// A map's ground while certain facts hold.
Json merge_json(const World& world, const Map& map, const PackOutput& output, const Facts& facts, Holes& holes) {
    MergeOutput forms;
    forms.unit = output.unit;
    forms.y = output.y;
    ask_for(forms, world.merging().forms);
    MergeOptions options = options_for(forms);
    options.plane = output.plane, options.facts = facts;
    if (output.chunk_cells == 0)
        return merged_json(
            world, merged_for_all<Merge>(world, options, [&](const MergeOptions& o) { return merge(world, map, o); }),
            forms, holes);
    return merged_json(
        world,
        merged_for_all<ChunkedMerge>(
            world, options, [&](const MergeOptions& o) { return merge_chunks(world, map, output.chunk_cells, o); }),
        forms, holes);
}

// A tree with its holes filled.
Json filled(Json tree, const Holes& holes) {
    if (Holes::is_hole(tree)) return holes.fill(tree);
    if (tree.is_structured())
        for (Json& item : tree) item = filled(std::move(item), holes);
    return tree;
}

// For each state of the facts that shape the ground but that in which none holds. Of chunks only those that differ from
// `base`, the ground of that state, where its surfaces are the same.
Json variants_json(const World& world, const Map& map, const PackOutput& output, const Json& base) {
    const Facts shaping = facts_of_ground(world, map);
    Json variants = Json::array();
    if (shaping.size() > static_cast<std::size_t>(output.variants)) return variants;
    for (unsigned state = 1; state < 1u << shaping.size(); ++state) {
        Facts facts;
        for (std::size_t i = 0; i < shaping.size(); ++i)
            if ((state >> i & 1) != 0) facts.push_back(shaping[i]);
        Holes holes;
        Json merged = filled(merge_json(world, map, output, facts, holes), holes);
        if (output.chunk_cells > 0 && merged["surfaces"] == base["surfaces"]) {
            Json others = Json::array();
            for (std::size_t c = 0; c < merged["chunks"].size(); ++c)
                if (merged["chunks"][c] != base["chunks"][c]) others.push_back(std::move(merged["chunks"][c]));
            merged["chunks"] = std::move(others);
        }
        variants.push_back({{"facts", names_of(world.facts(), facts)},
                            {"passability", passability_json(world, map, facts)},
                            {"merge", std::move(merged)}});
    }
    return variants;
}

}   // namespace

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

void make_holes(Json& map, Holes& holes) {
    const auto hole = [&](Json& value) {
        if (!Holes::is_hole(value)) value = holes.add([made = std::move(value)] { return made; });
    };
    Json& merged = map["merge"];
    for (Json& part : merged[merged.contains("chunks") ? "chunks" : "groups"]) hole(part);
    hole(merged["stats"]);
    if (map.contains("variants"))
        for (Json& variant : map["variants"]) hole(variant);
}

Json packed_map_json(const World& world, const Map& map, const PackOutput& output, Holes& holes) {
    Json layers = Json::array(), objects = Json::array(), tilesets = Json::array();
    for (const int set : map.tilesets) tilesets.push_back(world.tilesets()[static_cast<std::size_t>(set)].name);
    for (const Layer& layer : map.layers) layers.push_back(layer_json(world, map, layer));
    for (const Object& object : map.objects) objects.push_back(object_json(world, map, object, output));
    Json merged, variants = Json::array();
    if (output.variants > 0) {   // which are compared with it
        Holes own;
        merged = filled(merge_json(world, map, output, {}, own), own);
        variants = variants_json(world, map, output, merged);
    } else {
        merged = merge_json(world, map, output, {}, holes);
    }
    Json json{{"name", map.name},
              {"title", map.title},
              {"grid", word_of(map.grid)},
              {"cell", Json::array({map.cell_width, map.cell_height})},
              {"size", Json::array({map.columns, map.rows})},
              {"first", Json::array({map.first_column, map.first_row})},
              {"rim", map.rim == RimSort::none   ? Json(nullptr)
                      : map.rim == RimSort::open ? Json("open")
                                                 : name_or_null(world.barriers(), map.rim_barrier)},
              {"player", name_or_null(world.movers(), map.player)},
              {"tilesets", std::move(tilesets)},
              {"seed", static_cast<std::int64_t>(map.seed)},
              {"cell_parts", map.cell_parts},
              {"props", properties_json(map.props)},
              {"palette", palette_json(world, map)},
              {"layers", std::move(layers)},
              {"objects", std::move(objects)},
              {"passability", passability_json(world, map, {})},
              {"merge", std::move(merged)}};
    if (output.variants > 0) json["variants"] = std::move(variants);
    make_holes(json, holes);
    return json;
}

}   // namespace dryground::files

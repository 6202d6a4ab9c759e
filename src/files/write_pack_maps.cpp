// A pack's maps: layers, passability, merged ground and its variants.

#include <fmt/format.h>

#include "../ground/ground_internal.hpp"
#include "../model/words_internal.hpp"
#include "number_rows_internal.hpp"
#include "pack_internal.hpp"
#include "place_numbers_internal.hpp"

namespace dryground::files {

namespace {

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
                const Passability say = passability(world, map, {c, r}, storey, facts);
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
    MergeOutput written;
    written.unit = output.unit;
    written.y = output.y;
    written.forms = forms_named(world.merging().forms);
    MergeOptions options;
    options.forms = written.forms;
    options.plane = output.plane, options.facts = facts;
    if (output.chunk_cells == 0)
        return merged_json(
            world, merged_for_all<Merge>(world, options, [&](const MergeOptions& o) { return merge(world, map, o); }),
            written, holes);
    return merged_json(
        world,
        merged_for_all<ChunkedMerge>(
            world, options, [&](const MergeOptions& o) { return merge_chunks(world, map, output.chunk_cells, o); }),
        written, holes);
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
    for (const TileSetId set : map.tilesets) tilesets.push_back(world.tilesets()[static_cast<std::size_t>(set)].name);
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

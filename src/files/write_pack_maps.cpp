// A pack's maps: passability, merged ground and its variants are made by hand, the rest by the lists of keys.

#include <fmt/format.h>

#include "../ground/ground_internal.hpp"
#include "number_rows_internal.hpp"
#include "write_pack_internal.hpp"

namespace dryground::files {

namespace {

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
        list.push_back(
            {{"storey", world.storey(storey).name}, {"flags", std::move(flags)}, {"sides", std::move(sides)}});
    }
    return list;
}

// Merges for the barriers, and for every mover.
template <class Merged, class MergeOne>
std::vector<Merged> merged_for_all(const World& world, MergeOptions options, MergeOne merge_one) {
    std::vector<Merged> merges{merge_one(options)};
    for (const MoverId mover : ids<MoverId>(world.movers())) {
        options.mover = mover;
        merges.push_back(merge_one(options));
    }
    return merges;
}

// Returns a map's ground while certain facts hold.
Json merge_json(const World& world, const Map& map, const PackOutput& output, const Facts& facts, Holes& holes) {
    MergeOutput written;
    written.unit = output.unit;
    written.y = output.y;
    written.forms = world.merging().forms;
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

// Returns a tree with its holes filled.
Json filled(Json tree, const Holes& holes) {
    if (Holes::is_hole(tree)) return holes.fill(tree);
    if (tree.is_structured())
        for (Json& item : tree) item = filled(std::move(item), holes);
    return tree;
}

// Returns the ground for each state of the facts that shape it, except that in which none holds. Of chunks only those
// that differ from `base`, the ground of that state, if its surfaces are the same.
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
        Json names = Json::array();
        for (const FactId fact : facts) names.push_back(world.fact(fact).name);
        variants.push_back({{"facts", std::move(names)},
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
    packed::MapGround ground;
    ground.passability = passability_json(world, map, {});
    if (output.variants > 0) {   // which are compared with it
        Holes own;
        ground.merge = filled(merge_json(world, map, output, {}, own), own);
        ground.variants = variants_json(world, map, output, ground.merge);
    } else {
        ground.merge = merge_json(world, map, output, {}, holes);
    }
    const TileSet of_layers;   // whose reactions name no tiles
    Json json = packed::Writer({world, output, &of_layers, &map, &ground}).table(map);
    make_holes(json, holes);
    return json;
}

}   // namespace dryground::files

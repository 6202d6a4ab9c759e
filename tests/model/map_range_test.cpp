// The largest maps, and what stands far out on them: found when a world is made, and merged right up to the edge.
// Also tests src/merge: ground_plane
#include <catch2/catch.hpp>

#include "chance.hpp"
#include "dryground/builder.hpp"
#include "dryground/merge.hpp"
#include "merge/cells/stacking_internal.hpp"
#include "oracles.hpp"

using namespace dryground;

namespace {

constexpr std::array diamond{258, 130};   // 124 columns and rows are the most: 125 * lcm(258, 130) px reach 2^29 steps

struct Draft {
    MapDraft map;
    TileDraft tile;
};

Draft draft_of(int columns, int rows, std::array<int, 2> cell = diamond) {
    Draft draft;
    draft.tile = {.name = "peat", .unseen = true, .barrier = "earth", .shapes = {{{WholeCell{}}}}};
    draft.map = {.name = "flat",
                 .grid = std::string("isometric"),
                 .cell = cell,
                 .size = std::array{columns, rows},
                 .rim = "earth",
                 .tilesets = {"marsh"},
                 .legend = {{.key = "#", .tile = "peat"}}};
    chance::Dice dice(1);
    LayerDraft ground{.name = "ground"};
    for (int r = 0; r < rows; ++r) {
        std::string row;
        for (int c = 0; c < columns; ++c) row += dice.once_in(3) ? '#' : '.';
        ground.rows.emplace_back(row);
    }
    draft.map.layers = {ground};
    return draft;
}

Result<World> built(const Draft& draft) {
    WorldBuilder builder;
    builder.world({.title = "Sedge Point", .barriers = {{.name = "earth"}}});
    builder.tileset({.name = "marsh", .cell = draft.map.cell, .tiles = {draft.tile}});
    builder.map(draft.map);
    return builder.build();
}

void check_merge(const World& world) {
    const Map& map = world.map("flat");
    const detail::Stacking stacking = detail::stack_up(world, map, {});
    const Merge merged = merge(world, map, {});
    const Regions slow = detail::merge_generally(map, stacking.plans.begin()->second).regions;
    CHECK(merged.group("earth").regions == slow);
    Regions joined;
    for (const Chunk& chunk : merge_chunks(world, map, 7).chunks)
        for (const Group& group : chunk.groups) joined.insert(joined.end(), group.regions.begin(), group.regions.end());
    CHECK(unite(joined) == slow);
    const Merge flat = merge(world, map, {.plane = Plane::ground});
    CHECK(oracle::geos_fault(flat.group("earth").regions) == "");
    CHECK(flat.group("earth").regions.size() == slow.size());
}

std::string found(const Result<World>& loaded) { return text(loaded.report()); }

}   // namespace

TEST_CASE("the largest map of odd diamonds merges as the general boolean does", "[limits]") {
    const Result<World> loaded = built(draft_of(124, 124));
    REQUIRE(loaded);
    check_merge(*loaded);
}

TEST_CASE("far from cell (0, 0) the edge of the range is as near", "[limits]") {
    Draft draft = draft_of(10, 10);
    draft.map.first = {114, -124};
    const Result<World> loaded = built(draft);
    REQUIRE(loaded);
    check_merge(*loaded);
    draft.map.first = {115, -124};
    CHECK(found(built(draft)).find("'size' is [10, 10], but should be at most 124 columns and rows from cell (0, 0)") !=
          std::string::npos);
}

TEST_CASE("a map of diamonds too large is out of range, with the largest that works", "[limits]") {
    CHECK(found(built(draft_of(125, 3)))
              .find("at most 124 columns and rows from cell (0, 0), with diamonds of 258 x 130 px") !=
          std::string::npos);
    CHECK(found(built(draft_of(3, 125))).find("[out-of-range]") != std::string::npos);
    CHECK(found(built(draft_of(488, 1, {130, 66}))).find("at most 487 columns") != std::string::npos);
    CHECK(built(draft_of(487, 1, {130, 66})));
    CHECK(built(draft_of(500, 3, {256, 128})));
}

TEST_CASE("what reaches too far out of a large map is too large", "[limits]") {
    Draft draft = draft_of(120, 3);
    draft.map.layers[0].offset = {32, 64};
    CHECK(built(draft));
    draft.map.layers[0].offset = {400, 0};
    CHECK(found(built(draft)).find("layer 'ground' is 400 px out of cells of map 'flat'") != std::string::npos);
    draft.map.layers[0].offset = {0, 0};
    draft.tile.overhang = true;
    draft.tile.shapes = {{{BoxPx{0, 0, 60'000, 8}}}};
    CHECK(found(built(draft)).find("tile 'peat' is 59742 px out of cells of map 'flat'") != std::string::npos);

    draft = draft_of(3, 3);
    LayerDraft walls{.name = "walls", .holds_objects = true};
    walls.objects = {{.name = "groyne", .kind = "solid", .form = BoxPx{40'000, 0, 16, 16}, .barrier = "earth"}};
    draft.map.layers.push_back(walls);
    CHECK(
        found(built(draft)).find("its area is out of the range of coordinates, but the most is 10810 px on this map") !=
        std::string::npos);
    draft.map.layers[1].objects[0].form = BoxPx{16'000, 0, 16, 16};
    const Result<World> loaded = built(draft);
    REQUIRE(loaded);
    check_merge(*loaded);
}

// From which side one-way lines stop.
#include <catch2/catch.hpp>

#include "dryground/play.hpp"
#include "ground/ground_internal.hpp"
#include "worlds.hpp"

using namespace dryground;

TEST_CASE("a slope that is passed one way stops from its side: what falls onto it, and what walks up on it",
          "[ground]") {
    CHECK(ground::stopped_side({0, 16}, {16, 0}, OneWay::up) == Point{-16, -16});
    CHECK(ground::stopped_side({16, 0}, {0, 16}, OneWay::left) == Point{-16, -16});
    CHECK(ground::stopped_side({16, 0}, {0, 16}, OneWay::down) == Point{16, 16});
    CHECK(ground::stopped_side({0, 4}, {16, 4}, OneWay::none) == Point{0, 0});
    CHECK(ground::stopped_side({3, 16}, {3, 0}, OneWay::up) == ground::stopped_side({3, 0}, {3, 16}, OneWay::up));
    worlds::Files files = worlds::small_world();
    files = worlds::with(files, "flat.toml", "......\n......\n..../#\n######\n", "......\n..,...\n......\n######\n");
    files = worlds::with(files, "flat.toml", "\"/\" = \"bank\"", "\"/\" = \"bank\", \",\" = \"ramp\"");
    files = worlds::with(files, "marsh.toml", "[tiles.brine]",
                         "[tiles.ramp]\nunseen = true\nbarrier = \"earth\"\nshapes = [{ line = [[0, 16], [16, 0]], "
                         "one_way = \"up\" }]\n[tiles.brine]");
    const World world = worlds::world_of(files);
    const Play play(world, "flat");
    const auto is_stopped = [&](PointPx from, PointPx to) {
        return play.blocked(MoverId{0}, from, to).by != Blocked::By::nothing;
    };
    CHECK(is_stopped({24, 30}, {56, 30}));         // to the right, up the slope
    CHECK_FALSE(is_stopped({56, 30}, {24, 30}));   // to the left, from below it
    CHECK(is_stopped({40, 15}, {40, 46}));
    CHECK_FALSE(is_stopped({40, 47}, {40, 15}));
}

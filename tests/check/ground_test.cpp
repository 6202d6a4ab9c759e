// Does a body fit? Compared with the exact intersection, position by position.
#include <catch2/catch.hpp>

#include "chance.hpp"
#include "check/rules_internal.hpp"
#include "worlds.hpp"

using namespace dryground;
using check_rules::Ground;

namespace {

constexpr std::int32_t px = steps_per_px;

Regions random_ground(chance::Dice& dice) {
    Regions shapes;
    for (int i = dice.in(1, 8); i > 0; --i) {
        const Point at{dice.in(-40, 80) * px, dice.in(-40, 80) * px};
        if (dice.once_in(2))
            shapes.push_back(box_region(at, {at.x + dice.in(1, 40) * px, at.y + dice.in(1, 40) * px}));
        else
            shapes.push_back({{at,
                               {at.x + dice.in(5, 60) * px, at.y + dice.in(-9, 9) * px},
                               {at.x + dice.in(-9, 9) * px, at.y + dice.in(12, 60) * px}},
                              {}});
    }
    return unite(shapes);
}

const Regions bodies[] = {
    {box_region({-5 * px, -14 * px}, {5 * px, 0})},
    {{ellipse_ring({0, 0}, 6 * px, 6 * px, 0.25), {}}},
    {{capsule_ring({-4 * px, -16 * px}, {4 * px, 0}, 0.25), {}}},
};

}   // namespace

TEST_CASE("a body is free exactly where it shares no area with the ground") {
    for (int round = 0; round < 60; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(80'000 + static_cast<std::uint64_t>(round));
        const Regions blocked = random_ground(dice);
        const Ground ground(blocked);
        const Regions& body = bodies[round % 3];
        for (int i = 0; i < 60; ++i) {
            const Point at{dice.in(-60, 120) * px + (dice.once_in(3) ? dice.in(-1, 1) : 0), dice.in(-60, 120) * px};
            const Regions shared = intersect(blocked, moved(body, at));
            CAPTURE(to_text(blocked), at.x, at.y);
            // Off the lattice an overlap thinner than a step may be rounded to nothing; never the other way around.
            if (!shared.empty()) {
                REQUIRE_FALSE(ground.free(body, at));
                const Bounds box = *bounds(shared);
                REQUIRE(ground.depth(body, at) == std::min(box.most.x - box.least.x, box.most.y - box.least.y));
            } else {
                REQUIRE(ground.depth(body, at) <= 1);
                REQUIRE((ground.free(body, at) || ground.depth(body, at) == 1));
            }
        }
    }
}

TEST_CASE("touching is free, one step inside is not") {
    const Ground ground(Regions{box_region({0, 0}, {100 * px, 10 * px})});
    CHECK(ground.free(bodies[0], {50 * px, 0}));
    CHECK_FALSE(ground.free(bodies[0], {50 * px, 1}));
    CHECK(ground.depth(bodies[0], {50 * px, 1}) == 1);
    CHECK(ground.free(bodies[0], {-5 * px, 5 * px}));
    CHECK_FALSE(ground.free(bodies[0], {-5 * px + 1, 5 * px}));
    CHECK(Ground(Regions{}).free(bodies[0], {0, 0}));
}

TEST_CASE("a body as wide as a passage fits it") {
    const Ground ground(
        Regions{box_region({0, 0}, {10 * px, 100 * px}), box_region({20 * px, 0}, {30 * px, 100 * px})});
    CHECK(ground.free(bodies[0], {15 * px, 50 * px}));
    CHECK_FALSE(ground.free(bodies[0], {15 * px + 1, 50 * px}));
    CHECK_FALSE(ground.free(bodies[0], {15 * px - 1, 50 * px}));
}

TEST_CASE("the nearest free place is as near as a search of all whole px finds") {
    for (int round = 0; round < 12; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(81'000 + static_cast<std::uint64_t>(round));
        std::string rows;
        for (int r = 0; r < 4; ++r, rows += "\n")
            for (int c = 0; c < 6; ++c) rows += "#/.."[dice.in(0, 3)];
        const worlds::Files files =
            worlds::with(worlds::small_world(), "flat.toml", "......\n......\n..../#\n######\n", rows);
        const Result<World> loaded = worlds::load(files);
        REQUIRE((loaded || worlds::of_rule(loaded.report(), Rule::legend_unused).size() > 0));
        check_rules::Grounds grounds(*loaded);
        const Map& map = loaded->map("flat");
        const Regions& body = loaded->movers()[0].body;
        const Point wanted{dice.in(0, 96) * px, dice.in(0, 64) * px};
        const check_rules::Standing standing =
            check_rules::stand(*loaded, grounds, MapId{0}, MoverId{0}, StoreyId::ground, wanted);
        std::optional<std::int64_t> least;
        for (int y = 0; y <= 64; ++y)
            for (int x = 0; x <= 96; ++x) {
                const Point at{x * px, y * px};
                const Bounds box = *bounds(moved(body, at));
                if (box.least.x < 0 || box.least.y < 0 || box.most.x > map.most().x || box.most.y > map.most().y ||
                    !grounds.of(MapId{0}, MoverId{0}, StoreyId::ground).free(body, at))
                    continue;
                const std::int64_t dx = x - wanted.x / px, dy = y - wanted.y / px, distance = dx * dx + dy * dy;
                if (!least || distance < *least) least = distance;
            }
        CAPTURE(rows, wanted.x / px, wanted.y / px);
        if (standing.depth_px == 0) {
            CHECK(least == 0);
            continue;
        }
        REQUIRE(standing.nearest_free.has_value() == least.has_value());
        if (!least) continue;
        const std::int64_t dx = standing.nearest_free->x / px - wanted.x / px,
                           dy = standing.nearest_free->y / px - wanted.y / px;
        CHECK(dx * dx + dy * dy == *least);
    }
}

// Places at the corners of the range, out of it, and no numbers at all, asked of a running game.
#include <catch2/catch.hpp>

#include <cmath>
#include <limits>

#include "chance.hpp"
#include "dryground/play.hpp"
#include "dryground/triggers.hpp"
#include "far_worlds.hpp"

using namespace dryground;
using far_worlds::far_cells;
using far_worlds::world_at;

namespace {

PointPx moved(PointPx p, PointPx by) { return {p.x + by.x, p.y + by.y}; }

}   // namespace

TEST_CASE("a map at a corner of the range plays as it does at the origin", "[play][limits]") {
    const Play near(world_at({0, 0}), "flat");
    chance::Dice dice(1);
    for (const int x : {-far_cells, far_cells})
        for (const int y : {-far_cells, far_cells}) {
            INFO("first cell " << x << ", " << y);
            const Play far(world_at({x, y}), "flat");
            const PointPx by{16.0 * x, 16.0 * y};
            int touches = 0, stops = 0;
            for (int round = 0; round < 300; ++round) {
                const auto place = [&] { return PointPx{dice.in(-40, 800) / 4.0, dice.in(-40, 540) / 4.0}; };
                const PointPx p = place(), q = place(), normal{dice.in(-2, 2) * 1.0, dice.in(-2, 2) * 1.0};
                const Touches here = near.touched(Contact{.point = p, .normal = normal});
                const Touches there = far.touched(Contact{.point = moved(p, by), .normal = normal});
                REQUIRE(here.size() == there.size());
                for (std::size_t i = 0; i < here.size(); ++i) {
                    CHECK(there[i].cell.column - x == here[i].cell.column);
                    CHECK(there[i].cell.row - y == here[i].cell.row);
                    CHECK(there[i].side == here[i].side);
                }
                touches += here.empty() ? 0 : 1;
                const Blocked stopped = near.blocked(MoverId{0}, p, q),
                              also = far.blocked(MoverId{0}, moved(p, by), moved(q, by));
                CHECK(stopped.by == also.by);
                CHECK(std::abs(stopped.at - also.at) < 1e-6);
                stops += stopped ? 1 : 0;
                CHECK(near.overlaps(MoverId{0}, p).size() == far.overlaps(MoverId{0}, moved(p, by)).size());
                const Cell cell = near.cell_at(p), other = far.cell_at(moved(p, by));
                CHECK(other == Cell{cell.column + x, cell.row + y});
            }
            CHECK(touches > 20);
            CHECK(stops > 100);
        }
}

TEST_CASE("places out of range, and no numbers, hit nothing and stop nothing from being asked", "[play][limits]") {
    Play play(world_at({0, 0}), "flat");
    TriggerTracker tracker(play);
    const double none = std::numeric_limits<double>::quiet_NaN(), endless = std::numeric_limits<double>::infinity();
    const std::array odd{none, endless, -endless, 1e300, -1e300, 1e10, -1e10, 2'097'152.0, -2'097'152.0, 2'097'153.0};
    for (const double x : odd)
        for (const double y : {8.0, none, -1e300, 2'097'152.0}) {
            INFO(x << ", " << y);
            CHECK(play.touched(Contact{.point = {x, y}, .normal = {0, -1}}).empty());
            CHECK(play.touched(Contact{.point = {y, x}, .normal = {x, y}, .body = BoxPx{x, y, 10, 14}}).empty());
            CHECK(play.overlaps(MoverId{0}, {x, y}).empty());
            const Blocked way = play.blocked(MoverId{0}, {40, 60}, {x, y});
            CHECK((way.at >= 0 && way.at <= 1));
            (void)play.blocked(MoverId{0}, {x, y}, {40, 60});
            CHECK_FALSE(play.route(MoverId{0}, {40, 60}, {x, y}));
            CHECK_FALSE(play.route(MoverId{0}, {x, y}, {40, 60}));
            CHECK_FALSE(play.has(play.cell_at({x, y})));
            CHECK_FALSE(play.has(play.standing_cell({x, y})));
            CHECK(play.overlay({x, y, 100, 100}).lines.empty());
            const BodyNow body{1, MoverId{0}, {x, y}};
            CHECK(tracker.update(0.1, std::span(&body, 1)).empty());
        }
}

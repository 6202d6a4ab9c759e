// The ways of movers that step and that go freely, beside what a running game says of each of them.
// Also tests src/travel: ways_by_steps ways_free overlaps funnel deeds
#include "travel/ways_internal.hpp"

#include <catch2/catch.hpp>

#include <set>

#include "dryground/play.hpp"
#include "rambles.hpp"
#include "random_worlds.hpp"
#include "travel/funnel_internal.hpp"

using namespace dryground;

namespace {

// All places that can be got to from one.
std::set<int> from(travel::Ways& ways, int place) {
    std::set<int> found{place};
    std::vector<int> open{place};
    while (!open.empty()) {
        const int now = open.back();
        open.pop_back();
        for (const travel::Move& move : ways.moves(now))
            if (found.insert(move.to).second) open.push_back(move.to);
    }
    return found;
}

template <class Action>
void each_world(Moves moves, Action action) {
    for (std::uint64_t round = 0; round < static_cast<std::uint64_t>(chance::rounds(150)); ++round) {
        const Result<World> loaded = random_worlds::make(round).build();
        if (!loaded) continue;
        const World& world = *loaded;
        for (const MoverId mover : ids<MoverId>(world.movers()))
            if (world.mover(mover).moves == moves)
                for (const Map& map : world.maps()) action(round, world, map, mover);
    }
}

}   // namespace

TEST_CASE("who steps gets from cell to cell as a running game lets it", "[travel]") {
    std::size_t steps = 0, refused = 0;
    each_world(Moves::steps, [&](std::uint64_t round, const World& world, const Map& map, MoverId mover) {
        const std::vector<travel::Target> none;
        const auto ways = travel::ways_by_steps({world, map, mover, {}, none});
        const Play play(world, map.name);
        const auto place = [&](const Cell& cell) {
            const PointPx p = play.middle_of(cell);
            return ways->find_place(StoreyId::ground, {to_steps(p.x), to_steps(p.y)});
        };
        for (int r = 0; r < map.rows; ++r)
            for (int c = 0; c < map.columns; ++c) {
                const Cell cell = map.cell({c, r});
                const int here = place(cell);
                if (here < 0) continue;
                const std::set<int> reached = from(*ways, here);
                for (int dr = -1; dr <= 1; ++dr)
                    for (int dc = -1; dc <= 1; ++dc) {
                        const Cell to{cell.column + dc, cell.row + dr};
                        if (!play.has(to) || (dc == 0 && dr == 0)) continue;
                        INFO("round " << round << " map " << map.name << " from " << cell.column << "," << cell.row
                                      << " to " << to.column << "," << to.row);
                        const bool may = play.may_step(mover, cell, to);
                        const int there = place(to);
                        if (may) CHECK(reached.count(there) == 1);
                        if (there < 0) CHECK_FALSE(may);
                        ++(may ? steps : refused);
                    }
            }
    });
    CHECK(steps > static_cast<std::size_t>(chance::rounds(500)));
    CHECK(refused > static_cast<std::size_t>(chance::rounds(500)));
}

TEST_CASE("who goes freely gets everywhere that it can go straight to in a running game", "[travel]") {
    std::size_t free = 0, routes = 0;
    each_world(Moves::free, [&](std::uint64_t round, const World& world, const Map& map, MoverId mover) {
        const std::vector<travel::Target> none;
        const auto ways = travel::ways_free({world, map, mover, {}, none});
        const Play play(world, map.name);
        chance::Dice dice(round * 31 + 7);
        const Point least = map.least(), most = map.most();
        const auto some = [&]() -> Point { return {dice.in(least.x, most.x), dice.in(least.y, most.y)}; };
        for (int k = 0; k < 40; ++k) {
            const Point a = some(), b = some();
            const int here = ways->find_place(StoreyId::ground, a), there = ways->find_place(StoreyId::ground, b);
            if (here < 0) continue;
            const auto px = [](Point p) { return PointPx{to_px(p.x), to_px(p.y)}; };
            INFO("round " << round << " map " << map.name << " from " << to_px(a.x) << "," << to_px(a.y) << " to "
                          << to_px(b.x) << "," << to_px(b.y));
            const auto inside = [&](Point p) {
                const auto [c, r] = map.data_cell_at(p);
                return map.has(c, r);
            };
            if (inside(a) && inside(b) && !play.blocked(mover, px(a), px(b))) {
                CHECK(there >= 0);
                CHECK(from(*ways, here).count(there) == 1);
                ++free;
            }
            if (there != here) continue;
            const Ring way = ways->way_within(here, a, b);
            REQUIRE(way.size() >= 2);
            CHECK(way.front() == a);
            CHECK(way.back() == b);
            ++routes;
            // It touches what it goes around, for a body a hair narrower: a hair to some side it is free but at its
            // ends.
            for (std::size_t i = 0; i + 1 < way.size(); ++i) {
                const PointPx p = px(way[i]), q = px(way[i + 1]);
                bool is_free = false;
                for (const auto& [dx, dy] :
                     {std::pair{0, 0}, std::pair{1, 0}, std::pair{-1, 0}, std::pair{0, 1}, std::pair{0, -1},
                      std::pair{1, 1}, std::pair{-1, -1}, std::pair{1, -1}, std::pair{-1, 1}}) {
                    const double x = dx / 32.0, y = dy / 32.0;
                    const Blocked blocked = play.blocked(mover, {p.x + x, p.y + y}, {q.x + x, q.y + y});
                    const double left = std::hypot(q.x - blocked.place.x, q.y - blocked.place.y),
                                 gone = std::hypot(p.x - blocked.place.x, p.y - blocked.place.y);
                    is_free = is_free || !blocked || std::min(left, gone) < 0.2;
                }
                CHECK(is_free);
            }
        }
    });
    CHECK(free > static_cast<std::size_t>(chance::rounds(300)));
    CHECK(routes > static_cast<std::size_t>(chance::rounds(300)));
}

TEST_CASE("a tall body goes through several planks at once, in their direction", "[travel]") {
    rambles::Figures tall;
    tall.moves = "free", tall.more = "", tall.body = "{ box = [10, 40] }";
    const auto from_to = [&](int from, int to) {
        const World world = worlds::world_of(rambles::one_map(
            {"######", "#....#", "#....#", "#....#", "#____#", "#____#", "#____#", "#....#", "#....#", "#....#",
             "######"},
            fmt::format("{{ name = \"landing\", kind = \"spawn\", at = [48, {}] }},\n"
                        "{{ name = \"shell\", kind = \"thing\", at = [48, {}], gives = [\"found\"] }},\n",
                        from, to),
            tall, "found = \"\""));
        return reach(world).reached(MapId{0}, world.maps()[0].find_object("shell"));
    };
    CHECK(from_to(136, 40) == Reached::yes);
    CHECK(from_to(40, 136) == Reached::not_decided);   // the most generous reading knows no direction of lines
}

TEST_CASE("the way inside of an area is taut", "[travel]") {
    const auto area = [](const char* text) { return regions_from_text(text)->front(); };
    // around a corner, and around a hole by the shorter side
    CHECK(travel::way_inside(area("[(0,0 100,0 100,100 60,100 60,40 0,40)]"), {10, 20}, {80, 90}) ==
          Ring{{10, 20}, {60, 40}, {80, 90}});
    CHECK(travel::way_inside(area("[(0,0 100,0 100,100 0,100) (40,20 40,90 60,90 60,20)]"), {10, 50}, {90, 50}) ==
          Ring{{10, 50}, {40, 20}, {60, 20}, {90, 50}});
    CHECK(travel::way_inside(area("[(0,0 100,0 100,100 0,100)]"), {10, 50}, {90, 50}) == Ring{{10, 50}, {90, 50}});
    CHECK(travel::way_inside(area("[(0,0 100,0 100,100 0,100)]"), {10, 50}, {190, 50}).empty());
}

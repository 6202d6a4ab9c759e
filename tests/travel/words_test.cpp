// Routes in words.
#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>

#include "dryground/travel.hpp"
#include "rambles.hpp"

using namespace dryground;

TEST_CASE("a route in words has no line for a hair of a walk", "[travel]") {
    const World world = worlds::world_of(
        rambles::one_map({"........", "########"}, "{ name = \"hook\", kind = \"thing\", at = [40, 16] },"));
    const auto step = [](Going going, PointPx from, PointPx to) {
        RouteStep made;
        made.going = going, made.mover = MoverId{0};
        made.from = {MapId{0}, StoreyId::ground, from}, made.to = {MapId{0}, StoreyId::ground, to};
        made.way = {from, to}, made.px = std::hypot(to.x - from.x, to.y - from.y);
        return made;
    };
    RouteStep enters = step(Going::does, {40, 16}, {40, 16});
    enters.object = ObjectId{0}, enters.fires = Fires::enter;
    const Route route{step(Going::starts, {16, 16}, {16, 16}),
                      step(Going::walks, {16, 16}, {16.1, 16}),
                      step(Going::jumps, {16.1, 16}, {30, 16}),
                      step(Going::walks, {30, 16}, {30.2, 16}),
                      enters,
                      step(Going::walks, {40, 16}, {40.3, 16})};
    CHECK(text(world, route) ==
          "warden starts on flat at (16, 16)\n"
          "  1  flat  jumps 14 px across to (30, 16)\n"
          "  2  flat  enters 'hook'\n");
    CHECK(line_numbers(route) == std::vector<int>{0, 1, 1, 2, 2, 2});
}

TEST_CASE("no route in words has a line of 0 px", "[travel]") {
    std::size_t lines = 0;
    for (std::uint64_t round = 0; round < static_cast<std::uint64_t>(chance::rounds(40)); ++round) {
        DRYGROUND_ROUND(round);
        const World world = worlds::world_of(rambles::random_side(round));
        const Reach found = reach(world);
        for (const TravelPlace& place : found.places()) {
            if (place.reached != Reached::yes || place.line.empty()) continue;
            const PointPx a = place.line[0], b = place.line[1];
            const auto route = found.route_to({place.map, place.storey, {(a.x + b.x) / 2, (a.y + b.y) / 2}});
            REQUIRE(route.has_value());
            const std::string words = text(world, *route);
            CHECK(words.find(" 0 px") == std::string::npos);
            REQUIRE(static_cast<int>(std::count(words.begin(), words.end(), '\n')) == line_numbers(*route).back() + 1);
            lines += route->size();
        }
    }
    CHECK(lines > static_cast<std::size_t>(chance::rounds(400)));
}

// Results of walking are tried out in a physics engine: routes are followed by a real body, and places that are called
// out of reach are attacked by bodies that jump about at random.
// Also tests src/travel: reach route search
#include <chipmunk/chipmunk.h>

#include <catch2/catch.hpp>

#include <cmath>

#include "dryground/chipmunk.hpp"
#include "dryground/dryground.hpp"
#include "rambles.hpp"
#include "walker.hpp"

using namespace dryground;
using replays::Walker;

namespace {

// Follows a route on one map. Returns what went wrong; empty if nothing did.
std::string replay(const World& world, const Route& route) {
    std::unique_ptr<Walker> walker;
    MapId map = MapId::none;
    Carrier carrier;   // where the step before ended
    for (const RouteStep& step : route) {
        if (step.from.map != map) {
            map = step.from.map;
            walker = std::make_unique<Walker>(world, world.map(map), step.mover, step.from.at);
        }
        if (step.going == Going::link || step.going == Going::stairs) walker->put(step.to.at);
        // What it gets onto or leaves waits; but who has taken hold of a net climbs on when that has gone.
        if (step.going != Going::rides)
            walker->set_carrier(world.map(map),
                                step.carrier == Carrier{} && step.going != Going::climbs ? carrier : step.carrier);
        carrier = step.carrier;
        if (step.way.empty()) continue;
        for (const PointPx p : step.way) step.going == Going::rides ? walker->ride(p, 0.5) : walker->toward(p, 0.5);
        const PointPx now = walker->at();
        if (std::hypot(now.x - step.to.at.x, now.y - step.to.at.y) > 1)
            return fmt::format("{} from ({}, {}) to ({}, {}) ended at ({}, {})", name_of(step.going), step.from.at.x,
                               step.from.at.y, step.to.at.x, step.to.at.y, now.x, now.y);
    }
    return {};
}

PointPx somewhere_in(const TravelPlace& place) {
    if (place.line.empty()) {
        const Triangle triangle = triangles(place.area).front();
        return {to_px((triangle[0].x + triangle[1].x + triangle[2].x) / 3),
                to_px((triangle[0].y + triangle[1].y + triangle[2].y) / 3)};
    }
    const PointPx a = place.line.front(), b = place.line[1];
    return {(a.x + b.x) / 2, (a.y + b.y) / 2};
}

}   // namespace

TEST_CASE("the walker of these tests is stopped by ground, and passes planks from below", "[replay]") {
    const World world = worlds::world_of(rambles::one_map({"......", "...__.", "...__.", "..#...", "..#...", "######"},
                                                          "{ name = \"landing\", kind = \"spawn\", at = [16, 80] },"));
    Walker walker(world, world.maps()[0], MoverId{0}, {16, 80});
    walker.toward({60, 80}, 0.5);
    CHECK(walker.at().x == Approx(27).margin(0.1));   // half a body before the wall
    walker.toward({16, 90}, 0.5);
    CHECK(walker.at().y == Approx(80).margin(0.1));
    walker.put({64, 70});
    walker.toward({64, 15}, 0.5);
    CHECK(walker.at().y == Approx(15).margin(0.1));
    walker.toward({64, 70}, 0.5);
    CHECK(walker.at().y == Approx(16).margin(0.1));
}

TEST_CASE("a body follows the routes to all places that are reached", "[replay]") {
    const int rounds = chance::rounds(200);
    std::size_t routes = 0;
    double decided = 0, undecided = 0;   // px of stands
    for (int round = 0; round < rounds; ++round) {
        const worlds::Files files = rambles::random_side(static_cast<std::uint64_t>(round));
        const World world = worlds::world_of(files);
        const Reach found = reach(world);
        INFO("round " << round << "\n" << files.at("flat.toml") << files.at("world.toml"));
        if (!found.begins()) continue;
        for (const TravelPlace& place : found.places()) {
            if (!place.line.empty())
                (place.reached == Reached::not_decided ? undecided : decided) +=
                    place.line.back().x - place.line.front().x;
            if (place.reached != Reached::yes) continue;
            const auto route = found.route_to({place.map, place.storey, somewhere_in(place)});
            REQUIRE(route.has_value());
            ++routes;
            INFO(text(world, *route));
            CHECK(replay(world, *route) == "");
        }
    }
    CHECK(routes > static_cast<std::size_t>(rounds));
    WARN(fmt::format("{} routes; of {:.0f} px of stands {:.2f} % are not decided", routes, decided + undecided,
                     100 * undecided / (decided + undecided)));
}

TEST_CASE("a body follows routes over solids that move", "[replay]") {
    const int rounds = chance::rounds(60);
    std::size_t rides = 0, rode = 0;
    for (int round = 0; round < rounds; ++round) {
        const worlds::Files files = rambles::random_lifts(static_cast<std::uint64_t>(round));
        const World world = worlds::world_of(files);
        const Reach found = reach(world);
        INFO("round " << round << "\n" << files.at("flat.toml") << files.at("world.toml"));
        if (!found.begins()) continue;
        for (const TravelPlace& place : found.places()) {
            if (place.reached != Reached::yes) continue;
            const auto route = found.route_to({place.map, place.storey, somewhere_in(place)});
            REQUIRE(route.has_value());
            const auto here = std::count_if(route->begin(), route->end(),
                                            [](const RouteStep& step) { return step.going == Going::rides; });
            rides += static_cast<std::size_t>(here), rode += here > 0 ? 1 : 0;
            INFO(text(world, *route));
            CHECK(replay(world, *route) == "");
        }
    }
    CHECK(rode > static_cast<std::size_t>(2 * rounds));
    WARN(fmt::format("{} rides in {} routes", rides, rode));
}

namespace {

// A body jumps about on a map at random, and rides on what moves. Returns how often it stood; checks each time that the
// place is not one that was called out of reach.
std::size_t attack(const World& world, const Reach& found, int round) {
    const Mover& mover = world.movers()[0];
    const Map& map = world.maps()[0];
    const Object& landing = map.objects[0];
    const PointPx start{to_px(landing.position.x), to_px(landing.position.y)};
    // A flight takes half a second.
    const double flight = 0.5, gravity = 8 * *mover.jump_px / (flight * flight),
                 takes_off = 4 * *mover.jump_px / flight, fastest = *mover.leap_px / flight;
    chance::Dice dice(static_cast<std::uint64_t>(round) + 5000);
    Walker walker(world, map, MoverId{0}, start);
    std::size_t stood = 0;
    double vx = 0, vy = 0, top = start.y;
    bool holds = false;
    int rides_until = 0;   // a step
    const auto is_climbed = [&](PointPx at) {
        const auto [c, r] = map.data_cell_at(
            {static_cast<std::int32_t>(at.x * steps_per_px), static_cast<std::int32_t>(at.y * steps_per_px)});
        return map.has(c, r) && (passability(world, map, {c, r}, StoreyId::ground).flags & mover.climbs) != 0;
    };
    for (int steps = 0; steps < 12000; ++steps) {
        if (dice.once_in(60)) vx = dice.in(-4, 4) * fastest / 4;
        // In a net it holds on, climbs about, lets go or jumps off.
        const bool was = holds;
        holds = is_climbed(walker.at()) && (holds ? !dice.once_in(200) : dice.once_in(10));
        if (holds && (!was || dice.once_in(60))) vy = dice.in(-4, 4) * fastest / 4;
        if (was && !holds) vy = dice.once_in(2) ? -takes_off * dice.in(1, 4) / 4 : 0;
        const PointPx carried = walker.move_lifts(map, steps * Walker::dt);
        const bool is_carried = carried.x != 0 || carried.y != 0;
        if (is_carried && steps >= rides_until && dice.once_in(20)) rides_until = steps + dice.in(100, 2000);
        const bool rides = is_carried && steps < rides_until;
        const bool stands = walker.fall(rides ? carried.x : vx + carried.x, vy, holds ? 0 : gravity);
        const PointPx now = walker.at();
        if (holds) top = now.y;
        const bool too_deep = mover.drop_px && now.y - top > *mover.drop_px + 0.5;
        if (too_deep || walker.is_crushed() || now.y > to_px(map.most().y) + 16) {   // dead: begin anew
            walker.put(start);
            vx = vy = 0, top = start.y;
            continue;
        }
        if (!stands) continue;
        for (const TravelPlace& place : found.places())
            for (std::size_t i = 0; place.reached == Reached::no && i + 1 < place.line.size(); ++i) {
                const PointPx a = place.line[i], b = place.line[i + 1];
                if (now.x < a.x + 0.2 || now.x > b.x - 0.2) continue;
                const double y = a.y + (b.y - a.y) * (now.x - a.x) / (b.x - a.x);
                CHECK(std::abs(now.y - y) > 0.2);
            }
        ++stood;
        top = now.y;
        if (!rides && dice.once_in(12)) vy = -takes_off * dice.in(1, 4) / 4;
    }
    return stood;
}

}   // namespace

TEST_CASE("bodies that jump about never stand in a place that is out of reach", "[replay]") {
    std::size_t stood = 0;
    for (const bool lifts : {false, true})
        for (int round = 0; round < chance::rounds(60); ++round) {
            const auto number = static_cast<std::uint64_t>(round);
            const worlds::Files files = lifts ? rambles::random_lifts(number) : rambles::random_side(number);
            const World world = worlds::world_of(files);
            const Reach found = reach(world);
            if (!found.begins()) continue;
            INFO("round " << round << "\n" << files.at("flat.toml") << files.at("world.toml"));
            stood += attack(world, found, round);
        }
    CHECK(stood > static_cast<std::size_t>(chance::rounds(2000)));
}

TEST_CASE("the demo's walk is followed by a body", "[replay]") {
    const Result<World> loaded = load_world(std::string(DRYGROUND_SOURCE) + "/demo/world.toml");
    REQUIRE(loaded);
    const Reach found = reach(*loaded);
    const auto route = found.tour();
    REQUIRE(route.has_value());
    INFO(text(*loaded, *route));
    CHECK(replay(*loaded, *route) == "");
}

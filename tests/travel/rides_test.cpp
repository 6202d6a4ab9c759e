// Solids that move along a path: not part of the ground, ridden on, and not in the way.
// Also tests src/travel: moving_solids side_rides
#include <catch2/catch.hpp>

#include "dryground/merge.hpp"
#include "dryground/play.hpp"
#include "dryground/travel.hpp"
#include "rambles.hpp"

using namespace dryground;

namespace {

constexpr const char* start_below = "{ name = \"landing\", kind = \"spawn\", at = [16, 96] },\n";

World with_lift(const std::vector<std::string>& rows, const std::string& lift, const std::string& more = "",
                const std::string& figures = "jump_px = 20\nleap_px = 20\nkerb_px = 2\n") {
    rambles::Figures mover;
    mover.more = figures;
    return worlds::world_of(rambles::one_map(rows, start_below + lift + more, mover));
}
std::string walk(const World& world, const char* object) {
    const Map& map = world.maps()[0];
    const Reach found = reach(world);
    const ObjectId id = map.find_object(object);
    REQUIRE(id != ObjectId::none);
    const auto route = found.route_to(MapId{0}, id);
    return route ? text(world, *route) : fmt::format("{}", name_of(found.reached(MapId{0}, id)));
}

const std::vector<std::string> high_ledge{"........", ".....###", "........", "........",
                                          "........", "........", "########"};
constexpr const char* shell = "{ name = \"shell\", kind = \"thing\", at = [104, 16] },\n";

}   // namespace

TEST_CASE("a lift is not part of the ground, wherever it is drawn", "[rides]") {
    const World world =
        with_lift(high_ledge, "{ kind = \"lift\", box = [40, 88, 24, 8], props = { stops = [[52, 20]] } },\n");
    const World without = with_lift(high_ledge, "");
    CHECK(merge(world, world.maps()[0]).groups == merge(without, without.maps()[0]).groups);
    // What stands still is.
    const World still = with_lift(high_ledge, "{ kind = \"solid\", barrier = \"earth\", box = [40, 88, 24, 8] },\n");
    CHECK(merge(still, still.maps()[0]).groups != merge(without, without.maps()[0]).groups);
}

TEST_CASE("a lift carries up to a ledge that is too high to jump to", "[rides]") {
    CHECK(walk(with_lift(high_ledge, "", shell), "shell") == "no");
    CHECK(walk(with_lift(high_ledge,
                         "{ name = \"hoist\", kind = \"lift\", box = [40, 88, 24, 8], props = { stops = "
                         "[[52, 20]] } },\n",
                         shell),
               "shell") ==
          "warden starts on flat at (16, 96)\n"
          "  1  flat  walks 19 px to (35, 96)\n"
          "  2  flat  jumps 8 px up to 'hoist' at (43, 88)\n"
          "  3  flat  walks 9 px to (52, 88)\n"
          "  4  flat  rides 'hoist' 72 px to (52, 16)\n"
          "  5  flat  walks 17 px to (69, 16)\n"
          "  6  flat  jumps 6 px across to (75, 16)\n"
          "  7  flat  walks 29 px to 'shell'\n");
}

TEST_CASE("one gets onto a lift from where it is nearest, at the place where it is drawn", "[rides]") {
    rambles::Figures mover;
    mover.more = "jump_px = 20\nleap_px = 20\nkerb_px = 2\n";
    // The bank at the left is the first edge of the ground; start_below and shell are to the right of the lift.
    CHECK(walk(worlds::world_of(rambles::one_map(
                   {"........", ".....###", "........", "........", "........", "#\\......", "########"},
                   "{ name = \"landing\", kind = \"spawn\", at = [110, 96] },\n"
                   "{ name = \"hoist\", kind = \"lift\", box = [40, 88, 24, 8], props = { stops = [[52, 20]] } },\n" +
                       std::string(shell),
                   mover)),
               "shell") ==
          "warden starts on flat at (110, 96)\n"
          "  1  flat  walks 41 px to (69, 96)\n"
          "  2  flat  jumps 8 px up to 'hoist' at (61, 88)\n"
          "  3  flat  walks 9 px to (52, 88)\n"
          "  4  flat  rides 'hoist' 72 px to (52, 16)\n"
          "  5  flat  walks 17 px to (69, 16)\n"
          "  6  flat  jumps 6 px across to (75, 16)\n"
          "  7  flat  walks 29 px to 'shell'\n");
}

TEST_CASE("a raft carries over a pit that is too wide to jump", "[rides]") {
    const std::vector<std::string> pit{"............", "............", "............", "............", "............",
                                       "............", "###......###", "#..........#", "#..........#", "############"};
    const char* far = "{ name = \"shell\", kind = \"thing\", at = [180, 96] },\n";
    const std::string raft =
        "{ name = \"raft\", kind = \"lift\", box = [52, 96, 24, 8], props = { stops = [[128, 100]] } },\n";
    CHECK(walk(with_lift(pit, "", far), "shell") == "no");
    CHECK(walk(with_lift(pit, raft, far), "shell") ==
          "warden starts on flat at (16, 96)\n"
          "  1  flat  walks 37 px to (53, 96)\n"
          "  2  flat  walks 11 px to 'raft' at (64, 96)\n"
          "  3  flat  rides 'raft' 64 px to (128, 96)\n"
          "  4  flat  walks 17 px to (145, 96)\n"
          "  5  flat  walks 34 px to 'shell'\n");
    // Where it has to stand is said with each step that ends on it.
    const World world = with_lift(pit, raft, far);
    const auto route = reach(world).route_to(MapId{0}, world.maps()[0].find_object("shell"));
    REQUIRE(route.has_value());
    const ObjectId id = world.maps()[0].find_object("raft");
    std::vector<Carrier> carriers;
    for (const RouteStep& step : *route) carriers.push_back(step.carrier);
    CHECK(carriers == std::vector<Carrier>{{}, {}, Carrier{id, {64, 100}}, Carrier{id, {128, 100}}, {}, {}, {}});
    CHECK((*route)[3].object == id);
}

TEST_CASE("a raft whose way is walled off carries no further; who could jump there may be there", "[rides]") {
    const std::vector<std::string> walled{".....#......", ".....#......", ".....#......", ".....#......",
                                          ".....#......", ".....#......", "###..#...###", "#..........#",
                                          "#..........#", "############"};
    const char* far = "{ name = \"shell\", kind = \"thing\", at = [180, 96] },\n";
    CHECK(
        walk(with_lift(walled, "{ kind = \"lift\", box = [52, 96, 24, 8], props = { stops = [[128, 100]] } },\n", far),
             "shell") == "not_decided");
    // One that never comes near changes nothing.
    CHECK(
        walk(with_lift(walled, "{ kind = \"lift\", box = [100, 10, 24, 8], props = { stops = [[150, 14]] } },\n", far),
             "shell") == "no");
}

TEST_CASE("a solid that moves blocks nothing, and one that only code moves carries nothing", "[rides]") {
    const std::vector<std::string> hall{"############", "............", "............", "############"};
    const auto world = [&](const std::string& lift) {
        return worlds::world_of(
            rambles::one_map(hall, "{ name = \"landing\", kind = \"spawn\", at = [16, 48] },\n" + lift +
                                       "{ name = \"shell\", kind = \"thing\", at = [180, 48] },\n"));
    };
    CHECK(walk(world("{ kind = \"solid\", barrier = \"earth\", box = [80, 16, 16, 32] },\n"), "shell") == "no");
    CHECK(walk(world("{ kind = \"lift\", box = [80, 16, 16, 32], props = { stops = [[88, 0]] } },\n"), "shell") !=
          "no");
    CHECK(walk(with_lift(high_ledge, "{ kind = \"lift\", box = [40, 88, 24, 8] },\n", shell), "shell") == "no");
}

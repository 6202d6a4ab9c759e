// Where a body that is seen from the side can stand, beside what its positions allow.
// Also tests src/travel: obstacles
#include "travel/stands_internal.hpp"

#include <catch2/catch.hpp>

#include "geometry/boolean_internal.hpp"
#include "rambles.hpp"

using namespace dryground;
using travel::Obstacles;
using travel::Stand;

namespace {

Obstacles obstacles_of(const World& world) {
    MergeOptions options;
    options.mover = MoverId{0};
    return {merge(world, world.maps()[0], options).groups, StoreyId::ground, world.movers()[0]};
}

// Returns whether a place is inside together with all within two steps of it: corners are rounded to the lattice.
bool is_deep_in(const Regions& regions, Point p) {
    for (std::int32_t dy = -2; dy <= 2; ++dy)
        for (std::int32_t dx = -2; dx <= 2; ++dx)
            if (locate(regions, {p.x + dx, p.y + dy}) != Side::inside) return false;
    return true;
}

std::string in_px(const std::vector<Stand>& stands, bool slides = false) {
    std::string text;
    for (const Stand& stand : stands) {
        if (stand.slides != slides || to_px(stand.points.front().y) < 0) continue;   // not the rim's
        text += text.empty() ? "" : " ";
        for (const Point p : stand.points) text += fmt::format("({:.0f},{:.0f})", to_px(p.x), to_px(p.y));
    }
    return text;
}
std::string stands_on(const std::vector<std::string>& rows, double slope = 1.05, int kerb_px = 2, bool slides = false) {
    const World world =
        worlds::world_of(rambles::one_map(rows, "{ name = \"landing\", kind = \"spawn\", at = [8, 16] },"));
    return in_px(travel::stands_of(obstacles_of(world), {slope, kerb_px * steps_per_px}), slides);
}

}   // namespace

TEST_CASE("floors end where the body would hang over, and at walls", "[travel]") {
    CHECK(stands_on({"......", "......", "..##..", "######"}) == "(5,48)(27,48) (27,32)(69,32) (69,48)(91,48)");
    // exactly as wide as the body is a pit that it fits into
    CHECK(stands_on({"....", "....", "#..#", "####"}).find("(21,48)(43,48)") != std::string::npos);
}

TEST_CASE("slopes are walked as far as they are not too steep", "[travel]") {
    CHECK(stands_on({"....", "....", "../#", "####"}) == "(5,48)(27,48)(43,32)(59,32)");
    CHECK(stands_on({"....", "....", "../#", "####"}, 0.9) == "(5,48)(27,48) (43,32)(59,32)");
    CHECK(stands_on({"....", "....", "../#", "####"}, 0.9, 2, true) == "(27,48)(43,32)");
}

TEST_CASE("over a kerb the body walks on, over a step it does not", "[travel]") {
    CHECK(stands_on({"....", "....", ".hh.", "####"}, 1.05, 8) == "(5,48)(11,48)(11,40)(53,40)(53,48)(59,48)");
    CHECK(stands_on({"....", "....", ".hh.", "####"}, 1.05, 7) == "(5,48)(11,48) (11,40)(53,40) (53,48)(59,48)");
}

TEST_CASE("planks are stood on where the body has room", "[travel]") {
    CHECK(stands_on({"....", "....", ".__.", "....", "####"}) == "(5,64)(59,64) (11,32)(53,32)");
    CHECK(stands_on({"....", ".#..", ".__.", "....", "####"}).find("(37,32)(53,32)") != std::string::npos);
}

TEST_CASE("stands are where the position can be, and just below it cannot", "[travel]") {
    std::size_t stands = 0;
    for (std::uint64_t round = 0; round < static_cast<std::uint64_t>(chance::rounds(80)); ++round) {
        const World world = worlds::world_of(rambles::random_side(round));
        const Obstacles obstacles = obstacles_of(world);
        const Regions closed = detail::wound_around(obstacles.closed());
        INFO("round " << round);
        for (const Stand& stand : travel::stands_of(obstacles, {1.05, 2 * steps_per_px})) {
            ++stands;
            REQUIRE(stand.points.size() >= 2);
            for (std::size_t i = 0; i + 1 < stand.points.size(); ++i) {
                const Point a = stand.points[i], b = stand.points[i + 1];
                const Point middle{a.x + (b.x - a.x) / 2, a.y + (b.y - a.y) / 2};
                CHECK_FALSE(is_deep_in(closed, a));
                CHECK(obstacles.may_be(a));
                // The middle of a slanted edge is rounded to the lattice.
                if (b.x - a.x <= 8 || std::abs(b.y - a.y) > 1.1 * (b.x - a.x)) continue;   // of a kerb
                CHECK(locate(closed, {middle.x, middle.y - 2}) != Side::inside);
                if (!stand.on_line) CHECK(locate(closed, {middle.x, middle.y + 2}) == Side::inside);
            }
        }
    }
    CHECK(stands > static_cast<std::size_t>(chance::rounds(500)));
}

TEST_CASE("a place may be where it is not inside of what is closed; and ways are free that touch it at most",
          "[travel]") {
    chance::Dice dice(3);
    int in = 0, free = 0;
    for (std::uint64_t round = 0; round < static_cast<std::uint64_t>(chance::rounds(40)); ++round) {
        const World world = worlds::world_of(rambles::random_side(round));
        const Obstacles obstacles = obstacles_of(world);
        const Regions closed = detail::wound_around(obstacles.closed());
        const auto some = [&]() -> Point {
            if (dice.once_in(3)) {   // a corner, or beside one
                const Ring& ring =
                    closed[static_cast<std::size_t>(dice.in(0, static_cast<int>(closed.size()) - 1))].outline;
                const Point p = ring[static_cast<std::size_t>(dice.in(0, static_cast<int>(ring.size()) - 1))];
                return {p.x + dice.in(-1, 1), p.y + dice.in(-1, 1)};
            }
            return {dice.in(0, 24 * 16 * steps_per_px), dice.in(0, 14 * 16 * steps_per_px)};
        };
        for (int k = 0; k < 200; ++k) {
            const Point a = some(), b = some();
            const bool inside = locate(closed, a) == Side::inside;
            if (!inside) CHECK(obstacles.may_be(a));
            if (is_deep_in(closed, a)) CHECK_FALSE(obstacles.may_be(a));
            in += inside ? 1 : 0;
            if (inside || locate(closed, b) == Side::inside) continue;
            // Along the way, at many places, it is nowhere well inside.
            bool meets = false;
            for (int i = 1; i < 400 && !meets; ++i) {
                const Point p{a.x + static_cast<std::int32_t>((std::int64_t{b.x} - a.x) * i / 400),
                              a.y + static_cast<std::int32_t>((std::int64_t{b.y} - a.y) * i / 400)};
                meets = is_deep_in(closed, p);
            }
            const bool is_free = obstacles.free_before(a, b) == 1;
            if (is_free) CHECK_FALSE(meets);
            free += is_free ? 1 : 0;
        }
    }
    CHECK(in > chance::rounds(500));
    CHECK(free > chance::rounds(200));
}

TEST_CASE("what runs through the inside of a convex ring", "[travel]") {
    const Ring box = box_ring({0, 0}, {100, 100});
    CHECK_FALSE(travel::inside_of(box, {-10, 0}, {110, 0}));     // along a side
    CHECK_FALSE(travel::inside_of(box, {-50, 50}, {50, -50}));   // through a corner
    CHECK_FALSE(travel::inside_of(box, {-50, 50}, {0, 50}));     // up to it
    const auto through = travel::inside_of(box, {-100, 50}, {300, 50});
    REQUIRE(through);
    CHECK(through->from == Approx(0.25));
    CHECK(through->to == Approx(0.5));
    CHECK(travel::inside_of(box, {50, 50}, {50, 50}));
}

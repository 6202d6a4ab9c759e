// Also tests src/geometry: crowds reach swept
#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>
#include <limits>
#include <stdexcept>

#include "chance.hpp"
#include "dryground/geometry.hpp"
#include "oracles.hpp"

using namespace dryground;

namespace {

constexpr std::int32_t px = steps_per_px;

Regions random_land(chance::Dice& dice) {
    Regions shapes, gaps;
    for (int i = dice.in(1, 6); i > 0; --i) {
        std::vector<Point> points;
        for (int p = dice.in(3, 9); p > 0; --p) points.push_back({dice.in(0, 60 * px), dice.in(0, 60 * px)});
        if (Ring hull = convex_hull(points); hull.size() >= 3) (dice.once_in(3) ? gaps : shapes).push_back({hull, {}});
    }
    return subtract(shapes, gaps);
}

double distance(Point p, Point a, Point b) {
    const double dx = double{0} + b.x - a.x, dy = double{0} + b.y - a.y, px_ = double{0} + p.x - a.x,
                 py = double{0} + p.y - a.y;
    const double t = std::clamp((px_ * dx + py * dy) / (dx * dx + dy * dy), 0.0, 1.0);
    return std::hypot(px_ - t * dx, py - t * dy);
}

// Steps from a point to the nearest edge.
double distance(const Regions& regions, Point p) {
    double least = 1e12;
    const auto look = [&](const Ring& ring) {
        for (std::size_t i = 0; i < ring.size(); ++i)
            least = std::min(least, distance(p, ring[i], ring[(i + 1) % ring.size()]));
    };
    for (const Region& region : regions) {
        look(region.outline);
        for (const Ring& hole : region.holes) look(hole);
    }
    return least;
}

bool has_corner_inside(const Regions& of, const Regions& in) {
    return std::any_of(of.begin(), of.end(), [&](const Region& region) {
        return std::any_of(region.outline.begin(), region.outline.end(),
                           [&](Point p) { return locate(in, p) == Side::inside; });
    });
}

// A star of many small tips.
Regions ragged(chance::Dice& dice, Point middle, int radius, int vertices) {
    Ring ring;
    for (int i = 0; i < vertices; ++i) {
        const double angle = 2 * 3.14159265358979 * i / vertices, r = radius * dice.in(80, 120) / 100.0;
        ring.push_back({middle.x + static_cast<std::int32_t>(r * std::cos(angle)),
                        middle.y + static_cast<std::int32_t>(r * std::sin(angle))});
    }
    return {{ring, {}}};
}

}   // namespace

TEST_CASE("round growing reaches just the points within its distance") {
    for (int round = 0; round < chance::rounds(120); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(340'000 + static_cast<std::uint64_t>(round));
        const Regions land = random_land(dice);
        if (land.empty()) continue;
        const std::int32_t by = dice.in(1, 12 * px) * (dice.once_in(2) ? 1 : -1);
        CAPTURE(to_text(land), by);
        const Regions grown_land = grown(land, by, Corners::round);
        REQUIRE(oracle::broken_promise(grown_land) == "");
        const double tolerance = 0.25 * px + 3;
        for (int i = 0; i < 60; ++i) {
            const Point p{dice.in(-20 * px, 80 * px), dice.in(-20 * px, 80 * px)};
            const double away = distance(land, p), outside = locate(land, p) == Side::inside ? -away : away;
            const Side side = locate(grown_land, p);
            INFO("point (" << p.x << ", " << p.y << "), " << outside << " steps outside");
            if (outside < by - tolerance) REQUIRE(side == Side::inside);
            if (outside > by + tolerance) REQUIRE(side == Side::outside);
        }
    }
}

TEST_CASE("round growing far beyond the length of edges reaches just the points within its distance") {
    for (int round = 0; round < chance::rounds(40); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(350'000 + static_cast<std::uint64_t>(round));
        Regions land = ragged(dice, {0, 0}, 100 * px, dice.in(200, 1000)), gaps;
        for (int i = dice.in(0, 20); i > 0; --i)
            for (Region& gap : ragged(dice, {dice.in(-90 * px, 90 * px), dice.in(-90 * px, 90 * px)},
                                      dice.in(px / 4, 8 * px), dice.in(8, 120)))
                gaps.push_back(std::move(gap));
        land = subtract(land, gaps);
        const std::int32_t by = dice.in(2 * px, 60 * px) * (dice.once_in(2) ? 1 : -1);
        const Regions result = grown(land, by, Corners::round);
        CAPTURE(by, land.size());
        REQUIRE(oracle::broken_promise(result) == "");
        const double tolerance = 0.25 * px + 8;
        for (int i = 0; i < 100; ++i) {
            const Point p{dice.in(-190 * px, 190 * px), dice.in(-190 * px, 190 * px)};
            const double away = distance(land, p), outside = locate(land, p) == Side::inside ? -away : away;
            const Side side = locate(result, p);
            INFO("point (" << p.x << ", " << p.y << "), " << outside << " steps outside");
            if (outside < by - tolerance) REQUIRE(side == Side::inside);
            if (outside > by + tolerance) REQUIRE(side == Side::outside);
        }
        for (const Region& region : result)   // every corner of it stands where it should
            for (std::size_t i = 0; i < region.outline.size(); i += 1 + region.outline.size() / 100)
                REQUIRE(std::abs(distance(land, region.outline[i]) - std::abs(by)) < tolerance);
    }
}

TEST_CASE("round growing far beyond the length of edges says when it leaves the range") {
    chance::Dice dice(360'000);
    Regions land = unite(ragged(dice, {0, 0}, 100 * px, 3000));
    const std::int32_t by = 60 * px, space = coordinate_limit - bounds(land)->most.x - by;
    for (Region& region : land)
        for (Point& p : region.outline) p.x += space;
    const Bounds reached = *bounds(grown(land, by, Corners::round));
    CHECK(reached.most.x > coordinate_limit - 0.25 * px - 8);
    for (Region& region : land)
        for (Point& p : region.outline) ++p.x;
    CHECK_THROWS_AS(grown(land, by, Corners::round), std::out_of_range);
    CHECK(bounds(grown(land, -by, Corners::round))->most.x < coordinate_limit - by);
}

TEST_CASE("corners are grown as requested") {
    const Regions box{box_region({0, 0}, {10 * px, 10 * px})};
    const auto area_px = [](const Regions& regions) { return static_cast<double>(twice_area(regions)) / 2 / px / px; };
    CHECK(grown(box, 2 * px, Corners::mitre) == Regions{box_region({-2 * px, -2 * px}, {12 * px, 12 * px})});
    CHECK(grown(box, 2 * px, Corners::box) == Regions{box_region({-2 * px, -2 * px}, {12 * px, 12 * px})});
    CHECK(area_px(grown(box, 2 * px, Corners::bevel)) == Approx(196 - 8));
    CHECK(area_px(grown(box, 2 * px, Corners::round)) == Approx(100 + 80 + 3.14159 * 4).margin(2));
    CHECK(grown(box, -2 * px, Corners::round) == Regions{box_region({2 * px, 2 * px}, {8 * px, 8 * px})});
    CHECK(grown(box, -5 * px, Corners::round).empty());
    CHECK(grown(box, 0, Corners::round) == box);
    // a mitre longer than four times the distance becomes a bevel
    const Regions needle{{{{0, 0}, {100 * px, 2 * px}, {0, 4 * px}}, {}}};
    CHECK(bounds(grown(needle, px, Corners::mitre))->most.x < 102 * px);
}

TEST_CASE("mitres leave no vertex too many: a convex shape keeps its corners") {
    const Regions slanted{{{{0, 0}, {8192, 1024}, {2048, 6144}}, {}}};
    CHECK(grown(slanted, 512, Corners::mitre)[0].outline.size() == 3);
    for (int round = 0; round < chance::rounds(300); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        std::vector<Point> points;
        for (int n = dice.in(3, 12); n > 0; --n) points.push_back({dice.in(-9000, 9000), dice.in(-9000, 9000)});
        const Ring hull = convex_hull(std::move(points));
        if (hull.size() < 3 || twice_area(hull) == 0) continue;
        std::size_t most = 0;   // a corner that is too sharp for a mitre has two
        for (std::size_t i = 0; i < hull.size(); ++i) {
            const Point a = hull[i], b = hull[(i + 1) % hull.size()], c = hull[(i + 2) % hull.size()];
            const double turned = std::atan2(c.y - b.y, c.x - b.x) - std::atan2(b.y - a.y, b.x - a.x);
            const double half = std::abs(std::remainder(turned, 2 * 3.14159265358979)) / 2;
            most += 1 / std::cos(half) > 3.99 ? 2 : 1;
        }
        for (const std::int32_t by : {1, 77, 300, 5000}) {
            const Regions result = grown(Regions{{hull, {}}}, by, Corners::mitre);
            REQUIRE(result.size() == 1);
            INFO(to_text(Regions{{hull, {}}}) << " by " << by);
            CHECK(result[0].holes.empty());
            CHECK(result[0].outline.size() <= most);
            CHECK(oracle::broken_promise(result) == "");
        }
    }
}

TEST_CASE("narrow gaps close and thin walls vanish cleanly") {
    const Regions two{box_region({0, 0}, {10 * px, 10 * px}), box_region({12 * px, 0}, {20 * px, 10 * px})};
    CHECK(grown(two, px, Corners::mitre).size() == 1);
    CHECK(grown(two, px - 1, Corners::mitre).size() == 2);
    const Regions wall = unite(Regions{box_region({0, 0}, {10 * px, 10 * px})},
                               Regions{box_region({10 * px, 4 * px}, {30 * px, 5 * px})});
    CHECK(grown(wall, -px, Corners::mitre) == Regions{box_region({px, px}, {9 * px, 9 * px})});
}

TEST_CASE("growing and shrinking hold at the corners of the range", "[limits]") {
    const std::int32_t far = coordinate_limit;
    const Regions whole{box_region({-far, -far}, {far, far})};
    for (const Corners corners : {Corners::round, Corners::bevel, Corners::mitre, Corners::box}) {
        for (const std::int32_t by :
             {1, 200'000'000, 400'000'000, far, 2 * far - 1, std::numeric_limits<std::int32_t>::max()}) {
            INFO(by);
            const Regions less = grown(whole, -by, corners);
            CHECK(less == (by < far ? Regions{box_region({by - far, by - far}, {far - by, far - by})} : Regions{}));
            CHECK_THROWS_AS(grown(whole, by, corners), std::out_of_range);
        }
        CHECK(grown(whole, std::numeric_limits<std::int32_t>::min(), corners).empty());
        const Regions most{box_region({-400'000'000, -400'000'000}, {400'000'000, 400'000'000})};
        CHECK(grown(most, -260'000'000, corners) ==
              Regions{box_region({-140'000'000, -140'000'000}, {140'000'000, 140'000'000})});
        CHECK(oracle::broken_promise(grown(most, far - 400'000'000, corners)) == "");
        // With a hole near the edge of the range, and a slanted outline.
        const Regions holed =
            subtract(Regions{{{{-far, -far}, {far, -far}, {far - 7, far}, {-far, far}}, {}}},
                     Regions{{{{far - 900, far - 900}, {far - 20, far - 800}, {far - 500, far - 11}}, {}}});
        for (const std::int32_t by : {5, 300, 5000}) CHECK(oracle::broken_promise(grown(holed, -by, corners)) == "");
    }
    CHECK_THROWS_AS(reach(whole, box_ring({-1, -1}, {1, 1})), std::out_of_range);
    CHECK_THROWS_AS(reach(whole, box_ring({-far, -far}, {far, far})), std::out_of_range);
    CHECK_NOTHROW(reach(Regions{box_region({1 - far, 1 - far}, {far - 1, far - 1})}, box_ring({-1, -1}, {1, 1})));
}

TEST_CASE("round corners ask for a deviation above 0") {
    const Regions box{box_region({0, 0}, {px, px})};
    for (const double within : {0.0, -1.0, std::numeric_limits<double>::quiet_NaN()})
        CHECK_THROWS_AS(grown(box, px, Corners::round, within), std::invalid_argument);
    CHECK_NOTHROW(grown(box, px, Corners::bevel, 0));
}

TEST_CASE("a body's reach is where it overlaps the ground") {
    for (int round = 0; round < chance::rounds(120); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(350'000 + static_cast<std::uint64_t>(round));
        const Regions land = random_land(dice);
        std::vector<Point> points;
        for (int p = dice.in(3, 8); p > 0; --p) points.push_back({dice.in(-9 * px, 9 * px), dice.in(-14 * px, 9 * px)});
        const Ring body = dice.once_in(2) ? box_ring({-5 * px, -14 * px}, {5 * px, 0}) : convex_hull(points);
        if (land.empty() || body.size() < 3) continue;
        CAPTURE(to_text(land), to_text(body));
        const Regions result = reach(land, body);
        REQUIRE(oracle::broken_promise(result) == "");
        for (int i = 0; i < 25; ++i) {
            const Point p{dice.in(-20 * px, 80 * px), dice.in(-20 * px, 80 * px)};
            const Regions there = moved({{body, {}}}, p);
            // A tip that is thinner than a step overlaps too, though rounding leaves nothing of it.
            const bool overlaps =
                !intersect(land, there).empty() || has_corner_inside(land, there) || has_corner_inside(there, land);
            const Side side = locate(result, p);
            INFO("at (" << p.x << ", " << p.y << ")");
            // where they overlap by less than rounding moves things, either may be said
            if (side == Side::outside) REQUIRE(std::abs(twice_area(intersect(land, there))) < 200'000);
            if (side == Side::inside && distance(result, p) > 2) REQUIRE(overlaps);
        }
    }
}

namespace {

// One convex piece for each edge, which needs no care about windings.
Regions by_pieces(const Regions& land, const Ring& body) {
    Regions pieces = moved(land, {-body[0].x, -body[0].y});
    const auto add = [&](const Ring& ring) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            std::vector<Point> points;
            for (const Point p : body)
                for (const Point end : {ring[i], ring[(i + 1) % ring.size()]})
                    points.push_back({end.x - p.x, end.y - p.y});
            pieces.push_back({convex_hull(std::move(points)), {}});
        }
    };
    for (const Region& region : land) {
        add(region.outline);
        for (const Ring& hole : region.holes) add(hole);
    }
    return unite(pieces);
}

}   // namespace

TEST_CASE("a body that is rolled around the ground sweeps as much as its edges do") {
    int differ = 0;
    for (int round = 0; round < chance::rounds(300); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(360'000 + static_cast<std::uint64_t>(round));
        Regions land = random_land(dice);
        // Holes of all sizes beside the body's.
        for (int h = dice.in(0, 6); h > 0; --h) {
            const Point at{dice.in(0, 60 * px), dice.in(0, 60 * px)};
            land = subtract(land, Regions{box_region(at, {at.x + dice.in(1, 16 * px), at.y + dice.in(1, 16 * px)})});
        }
        std::vector<Point> points;
        for (int p = dice.in(1, 8); p > 0; --p) points.push_back({dice.in(-9 * px, 9 * px), dice.in(-14 * px, 9 * px)});
        const Ring body = convex_hull(points);
        if (land.empty() || body.size() < 3) continue;
        CAPTURE(to_text(land), to_text(body));
        const Regions rolled = reach(land, body), swept = by_pieces(land, body);
        REQUIRE(oracle::broken_promise(rolled) == "");
        // Each may round where edges cross.
        const Regions only_one = unite(subtract(rolled, swept), subtract(swept, rolled));
        differ += only_one.empty() ? 0 : 1;
        for (const Region& region : only_one) REQUIRE(std::abs(twice_area({&region, 1})) < 2 * 40 * px);
    }
    CHECK(differ < chance::rounds(300) / 2);
}

TEST_CASE("a body that is a point, or a line, is rolled like any other") {
    const Regions land{{{{0, 0}, {100, 0}, {100, 100}, {0, 100}}, {{{40, 40}, {40, 60}, {60, 60}, {60, 40}}}}};
    CHECK(reach(land, Ring{}) == land);
    CHECK(reach(land, Ring{{5, -7}}) == moved(land, {-5, 7}));
    CHECK(reach(land, Ring{{0, 0}, {10, 0}}) ==
          Regions{{{{-10, 0}, {100, 0}, {100, 100}, {-10, 100}}, {{{40, 40}, {40, 60}, {50, 60}, {50, 40}}}}});
}

TEST_CASE("a hole as small as the body is no place for it") {
    const Regions frame = subtract(Regions{box_region({0, 0}, {30, 30})}, Regions{box_region({10, 10}, {20, 20})});
    const Ring exact = box_ring({0, 0}, {10, 10}), small = box_ring({0, 0}, {9, 9});
    CHECK(reach(frame, exact) == Regions{box_region({-10, -10}, {30, 30})});   // it fits, in one place, touching
    REQUIRE(reach(frame, small).size() == 1);
    CHECK(reach(frame, small)[0].holes == std::vector<Ring>{{{10, 10}, {10, 11}, {11, 11}, {11, 10}}});
}

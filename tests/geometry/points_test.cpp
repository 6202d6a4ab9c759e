// Also tests src/geometry: inspect
#include <catch2/catch.hpp>

#include <algorithm>
#include <limits>

#include "chance.hpp"
#include "dryground/geometry.hpp"
#include "oracles.hpp"

using namespace dryground;

TEST_CASE("turn keeps its laws, at the corners of the range too", "[limits]") {
    constexpr int far = coordinate_limit;
    std::vector<Point> points;
    for (const int x : {-far, -1, 0, 1, far - 1, far})
        for (const int y : {-far, 0, 1, far}) points.push_back({x, y});
    for (const Point a : points)
        for (const Point b : points)
            for (const Point c : points) {
                const Turn t = turn(a, b, c);
                REQUIRE(t == turn(b, c, a));                // law 1
                REQUIRE(t == turn(c, a, b));                // law 1
                REQUIRE(t == opposite(turn(b, a, c)));      // law 2
                REQUIRE(turn(a, a, c) == Turn::straight);   // law 3
            }
}

TEST_CASE("px become steps and back without loss, halves away from zero") {
    CHECK(to_steps(1) == 256);
    CHECK(to_steps(0.001953125) == 1);   // half a step
    CHECK(to_steps(-0.001953125) == -1);
    CHECK(to_px(to_steps(-12.25)) == -12.25);
    CHECK(in_range(2'097'152.0));
    CHECK_FALSE(in_range(2'097'152.5));
    CHECK_FALSE(in_range(std::numeric_limits<double>::quiet_NaN()));
    CHECK_FALSE(in_range(-std::numeric_limits<double>::infinity()));
}

TEST_CASE("inspect reports what is wrong with a drawn ring, and where") {
    struct Row {
        Ring ring;
        RingFault fault;
        Point where;
    };
    const auto row =
        GENERATE(Row{{{0, 0}, {4, 0}, {4, 4}}, RingFault::none, {}},
                 Row{{{0, 0}, {4, 0}}, RingFault::too_few_points, {0, 0}}, Row{{}, RingFault::too_few_points, {}},
                 Row{{{0, 0}, {4, 0}, {4, 0}, {4, 4}}, RingFault::repeated_point, {4, 0}},
                 Row{{{0, 0}, {4, 4}, {8, 8}}, RingFault::no_area, {0, 0}},
                 Row{{{0, 0}, {4, 4}, {4, 0}, {0, 4}}, RingFault::crosses_itself, {2, 2}},
                 Row{{{0, 0}, {8, 0}, {4, 0}, {4, 4}}, RingFault::crosses_itself, {4, 0}},
                 Row{{{0, 0}, {8, 0}, {8, 8}, {4, 0}, {0, 8}}, RingFault::crosses_itself, {4, 0}});
    const RingVerdict verdict = inspect(row.ring);
    CHECK(verdict.fault == row.fault);
    CHECK(verdict.where == row.where);
    Ring back = row.ring;
    std::reverse(back.begin(), back.end());
    CHECK(inspect(back).fault == row.fault);
}

TEST_CASE("locate agrees with winding around random polygons") {
    for (int round = 0; round < 50; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(40'000 + static_cast<std::uint64_t>(round));
        Regions boxes;
        for (int i = 0; i < 6; ++i) {
            const Point at{dice.in(0, 10), dice.in(0, 10)};
            boxes.push_back(box_region(at, {at.x + dice.in(1, 6), at.y + dice.in(1, 6)}));
        }
        const Regions land = unite(boxes);
        for (int y = -1; y < 18; ++y)
            for (int x = -1; x < 18; ++x) {
                int covered = 0;   // of the four unit squares around the point
                for (const auto& [dx, dy] : {std::pair{0, 0}, {-1, 0}, {0, -1}, {-1, -1}})
                    covered += std::any_of(boxes.begin(), boxes.end(), [&, dx = dx, dy = dy](const Region& box) {
                        return x + dx >= box.outline[0].x && x + dx < box.outline[2].x && y + dy >= box.outline[0].y &&
                               y + dy < box.outline[2].y;
                    });
                const Side expected = covered == 4 ? Side::inside : covered == 0 ? Side::outside : Side::edge;
                REQUIRE(locate(land, {x, y}) == expected);
            }
    }
}

TEST_CASE("round rings stay within tolerance, are symmetric, and touch their extremes") {
    const auto [rx, ry, within] =
        GENERATE(std::tuple{1536, 1536, 0.25}, std::tuple{256, 256, 0.25}, std::tuple{5120, 2304, 0.25},
                 std::tuple{256000, 256000, 0.05}, std::tuple{3, 3, 0.25});
    const Ring ring = ellipse_ring({100, -50}, rx, ry, within);
    CHECK(inspect(ring).fault == RingFault::none);
    CHECK(twice_area(ring) > 0);
    for (const Point extreme : {Point{100 + rx, -50}, {100 - rx, -50}, {100, -50 + ry}, {100, -50 - ry}})
        CHECK(std::count(ring.begin(), ring.end(), extreme) == 1);
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point p = ring[i], q = ring[(i + 1) % ring.size()];
        CHECK(std::count(ring.begin(), ring.end(), Point{200 - p.x, p.y}) == 1);
        CHECK(std::count(ring.begin(), ring.end(), Point{p.x, -100 - p.y}) == 1);
        // the middle of a chord, scaled to the unit circle, is off by the tolerance and the rounding at most
        const double x = ((p.x + q.x) / 2.0 - 100) / rx, y = ((p.y + q.y) / 2.0 + 50) / ry;
        CHECK(std::abs(std::hypot(x, y) - 1) * std::min(rx, ry) <= within * steps_per_px + 1.5);
    }
}

TEST_CASE("capsules fill their box") {
    const Ring ring = capsule_ring({0, 0}, {2560, 4096}, 0.25);
    CHECK(inspect(ring).fault == RingFault::none);
    const auto box = *bounds(Regions{{ring, {}}});
    CHECK(box.least == Point{0, 0});
    CHECK(box.most == Point{2560, 4096});
}

TEST_CASE("the notation is lossless and refuses what is no geometry") {
    const std::string text = "[(0,0 9,0 9,9 0,9) (3,3 3,6 6,6 6,3)] [(-5,20 7,21 0,33)]";
    CHECK(to_text(*regions_from_text(text)) == text);
    for (const char* bad : {"[", "(0,0)", "[(0,0 1)]", "[(0,0 1,1]", "[(0,999999999999 1,1 2,2)]", "x"})
        CHECK_FALSE(regions_from_text(bad));
}

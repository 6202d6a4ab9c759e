// Laws that hold for any input: hard shapes stay valid against GEOS, and what is done to the input is done to the
// result.
#include <catch2/catch.hpp>

#include <functional>

#include "chance.hpp"
#include "dryground/geometry.hpp"
#include "oracles.hpp"

using namespace dryground;

namespace {

constexpr std::int32_t limit = coordinate_limit;

Regions changed(const Regions& regions, const std::function<Point(Point)>& change) {
    Regions result = regions;
    for (Region& region : result) {
        for (Point& p : region.outline) p = change(p);
        for (Ring& hole : region.holes)
            for (Point& p : hole) p = change(p);
    }
    return result;
}

// A band that winds inward, as one ring.
Ring spiral(int turns, std::int32_t step) {
    Ring out, back;
    for (int t = 0; t < turns; ++t) {
        const std::int32_t r = (turns - t) * step, s = r - step / 2, inner = r - step / 4, next = s - step / 4;
        out.insert(out.end(), {{-r, -r}, {r, -r}, {r, r}, {-s, r}});
        back.insert(back.begin(), {{-next, inner}, {inner, inner}, {inner, -inner}, {-inner, -inner}});
    }
    out.insert(out.end(), back.begin(), back.end());
    return out;
}

Regions comb(int teeth, std::int32_t width, std::int32_t length) {
    Regions all{box_region({0, 0}, {teeth * 2 * width, width})};
    for (int t = 0; t < teeth; ++t) all.push_back(box_region({2 * t * width, 0}, {(2 * t + 1) * width, length}));
    return all;
}

Regions nested_rings(int count) {
    Regions all;
    for (int i = 0; i < count; ++i) {
        const std::int32_t r = (count - i) * 200;
        all = i % 2 == 0 ? unite(all, Regions{box_region({-r, -r}, {r, r})})
                         : subtract(all, Regions{{{{0, -r}, {r, 0}, {0, r}, {-r, 0}}, {}}});
    }
    return all;
}

Regions checkerboard(int side, std::int32_t cell, Point at) {
    Regions all;
    for (int r = 0; r < side; ++r)
        for (int c = (r % 2); c < side; c += 2)
            all.push_back(
                box_region({at.x + c * cell, at.y + r * cell}, {at.x + (c + 1) * cell, at.y + (r + 1) * cell}));
    return all;
}

// Thin triangles from nearby points to nearby points, near-parallel and overlapping.
Regions slivers(chance::Dice& dice, int count, std::int32_t far) {
    Regions all;
    for (int i = 0; i < count; ++i) {
        const Ring ring{{dice.in(-3, 3), dice.in(-3, 3)}, {far, dice.in(-40, 40)}, {far, dice.in(-40, 40) + 1}};
        if (inspect(ring).fault == RingFault::none) all.push_back({ring, {}});
    }
    return all;
}

}   // namespace

TEST_CASE("spirals, combs, nested rings and checkerboards have just the area that one counts") {
    for (const int turns : {2, 3, 9}) {
        const Regions band{{spiral(turns, 4000), {}}};
        REQUIRE(oracle::geos_fault(unite(band)) == "");
        CHECK(std::abs(twice_area(unite(band))) == std::abs(twice_area(band[0].outline)));
        CHECK(unite(unite(band)) == unite(band));
    }
    const Regions teeth = unite(comb(50, 300, 9000));
    CHECK(teeth.size() == 1);
    CHECK(twice_area(teeth) == 2 * (100 * 300 * 300 + 50 * 300 * (9000 - 300)));
    CHECK(teeth[0].outline.size() == 4 * 50 + 2);   // the spine is longer than the last tooth by a gap
    const Regions rings = nested_rings(12);
    CHECK(oracle::broken_promise(rings) == "");
    CHECK(oracle::geos_fault(rings) == "");
    const Regions board = unite(checkerboard(16, 256, {0, 0}));
    CHECK(board.size() == 128);   // corners touch, and do not join
    CHECK(twice_area(board) == 2LL * 128 * 256 * 256);
    CHECK(oracle::geos_fault(board) == "");
}

TEST_CASE("soups of slivers stay valid, at any size") {
    for (int round = 0; round < chance::rounds(150); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(700'000 + static_cast<std::uint64_t>(round));
        const Regions soup = slivers(dice, dice.in(2, 14), dice.once_in(2) ? 5000 : dice.in(100'000, 400'000'000));
        const Regions other = slivers(dice, dice.in(1, 8), 3000);
        CAPTURE(to_text(soup), to_text(other));
        for (const Regions& result : {unite(soup, other), subtract(soup, other), intersect(soup, other)}) {
            REQUIRE(oracle::broken_promise(result) == "");
            REQUIRE(oracle::geos_fault(result) == "");
        }
    }
}

TEST_CASE("everything works at the limits of the coordinates") {
    const Regions whole{box_region({-limit, -limit}, {limit, limit})};
    const Regions plus =
        unite(Regions{box_region({-limit, -1}, {limit, 1})}, Regions{box_region({-1, -limit}, {1, limit})});
    CHECK(plus.size() == 1);
    CHECK(plus[0].outline.size() == 12);
    const Regions quarters = subtract(whole, plus);
    CHECK(quarters.size() == 4);
    CHECK(twice_area(quarters) + twice_area(plus) == twice_area(whole));
    const Regions diagonal{{{{-limit, -limit}, {limit, limit - 1}, {limit, limit}}, {}}};
    CHECK(unite(diagonal) == diagonal);
    CHECK(oracle::broken_promise(subtract(whole, diagonal)) == "");
    CHECK(twice_area(subtract(whole, diagonal)) == twice_area(whole) - twice_area(diagonal));
    CHECK(checkerboard(4, 1000, {limit - 4000, limit - 4000}).size() ==
          unite(checkerboard(4, 1000, {limit - 4000, limit - 4000})).size());
    std::int64_t area = 0;
    const Mesh mesh = delaunay_triangles(quarters);
    for (const auto& t : mesh.triangles) area += cross(mesh.points[t[0]], mesh.points[t[1]], mesh.points[t[2]]);
    CHECK(area == twice_area(quarters));
    CHECK(least_boxes(plus).boxes.size() == 3);
}

TEST_CASE("moved, flipped and turned input gives the moved, flipped and turned result") {
    const std::vector<std::function<Point(Point)>> changes{[](Point p) {
                                                               return Point{p.x + 12'345, p.y - 98'765};
                                                           },
                                                           [](Point p) {
                                                               return Point{-p.x, p.y};
                                                           },
                                                           [](Point p) {
                                                               return Point{p.x, -p.y};
                                                           },
                                                           [](Point p) {
                                                               return Point{-p.y, p.x};
                                                           },
                                                           [](Point p) {
                                                               return Point{-p.x, -p.y};
                                                           },
                                                           [](Point p) {
                                                               return Point{p.y, p.x};
                                                           }};
    for (int round = 0; round < chance::rounds(200); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(710'000 + static_cast<std::uint64_t>(round));
        Regions sides[2];   // upright, level and 45 degrees on a coarse lattice: exact results
        for (Regions& side : sides)
            for (int i = dice.in(1, 7); i > 0; --i) {
                const int x = 64 * dice.in(0, 20), y = 64 * dice.in(0, 20), s = 64 * dice.in(1, 6);
                side.push_back(dice.once_in(2)
                                   ? box_region({x, y}, {x + s, y + 2 * s})
                                   : Region{{{x + s, y}, {x + 2 * s, y + s}, {x + s, y + 2 * s}, {x, y + s}}, {}});
            }
        for (const auto& change : changes) {
            const Regions a = changed(sides[0], change), b = changed(sides[1], change);
            // doing nothing more to a result than to unite it puts directions and order right
            REQUIRE(unite(a, b) == unite(changed(unite(sides[0], sides[1]), change)));
            REQUIRE(subtract(a, b) == unite(changed(subtract(sides[0], sides[1]), change)));
            REQUIRE(intersect(a, b) == unite(changed(intersect(sides[0], sides[1]), change)));
            REQUIRE(least_boxes(unite(a)).rests.empty() == least_boxes(unite(sides[0])).rests.empty());
        }
    }
}

TEST_CASE("the order of what is united does not matter, and areas add up as sets do") {
    for (int round = 0; round < chance::rounds(200); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(720'000 + static_cast<std::uint64_t>(round));
        Regions shapes;
        for (int i = dice.in(2, 9); i > 0; --i) {
            std::vector<Point> points;
            for (int p = dice.in(3, 6); p > 0; --p) points.push_back({64 * dice.in(0, 30), 64 * dice.in(0, 30)});
            if (Ring hull = convex_hull(points); hull.size() > 2) shapes.push_back({hull, {}});
        }
        Regions reversed(shapes.rbegin(), shapes.rend());
        REQUIRE(unite(shapes) == unite(reversed));
        const Regions boxes{box_region({300, 300}, {900, 1200}), box_region({700, 100}, {1500, 800})};
        const Regions other{box_region({640, 640}, {1280, 1600})};
        REQUIRE(twice_area(unite(boxes, other)) + twice_area(intersect(boxes, other)) ==
                twice_area(unite(boxes)) + twice_area(other));
        REQUIRE(twice_area(subtract(boxes, other)) == twice_area(unite(boxes)) - twice_area(intersect(boxes, other)));
    }
}

TEST_CASE("points one step apart are distinguished") {
    const Regions two{box_region({0, 0}, {10, 10}), box_region({11, 0}, {20, 10})};
    CHECK(unite(two).size() == 2);
    CHECK(unite(two, Regions{box_region({10, 4}, {11, 5})}).size() == 1);
    CHECK(twice_area(subtract(two, Regions{box_region({1, 1}, {2, 2})})) == twice_area(two) - 2);
    const Regions thin{{{{0, 0}, {1000, 1}, {1000, 2}}, {}}};
    CHECK(twice_area(unite(thin)) == twice_area(thin));
    CHECK(locate(thin, {1000, 1}) == Side::edge);
    CHECK(locate(thin, {999, 1}) != Side::outside);
}

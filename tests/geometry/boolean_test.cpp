// Also tests src/geometry: arrangement rings sweep notation
#include <catch2/catch.hpp>

#include <algorithm>

#include "chance.hpp"
#include "dryground/geometry.hpp"
#include "oracles.hpp"

using namespace dryground;

namespace {

Regions regions(const std::string& text) {
    const auto parsed = regions_from_text(text);
    REQUIRE(parsed);
    return *parsed;
}

// Random triangles and boxes on a small board: many touch, overlap, share edges and corners.
Regions random_soup(chance::Dice& dice, int count, int size) {
    Regions soup;
    while (static_cast<int>(soup.size()) < count) {
        const auto point = [&] { return Point{dice.in(0, size), dice.in(0, size)}; };
        Ring ring{point(), point(), point()};
        if (dice.once_in(2)) ring = box_ring(ring[0], {ring[0].x + dice.in(1, size), ring[0].y + dice.in(1, size)});
        if (inspect(ring).fault == RingFault::none) soup.push_back({ring, {}});
    }
    return soup;
}

// Cells of a board, each full, empty, or cut along a diagonal: all crossings on the lattice.
Regions random_cells(chance::Dice& dice, int columns, int rows) {
    Regions cells;
    for (int r = 0; r < rows; ++r)
        for (int c = 0; c < columns; ++c) {
            const int x = c * 16, y = r * 16;
            switch (dice.in(0, 5)) {
                case 0:
                case 1:
                    cells.push_back(box_region({x, y}, {x + 16, y + 16}));
                    break;
                case 2:
                    cells.push_back({{{x, y + 16}, {x + 16, y}, {x + 16, y + 16}}, {}});
                    break;
                case 3:
                    cells.push_back({{{x, y}, {x + 16, y}, {x, y + 16}}, {}});
                    break;
                default:
                    break;
            }
        }
    return cells;
}

double area(const Regions& r) { return static_cast<double>(twice_area(r)) / 2; }

}   // namespace

TEST_CASE("booleans give the regions that a person would draw") {
    struct Row {
        const char *name, *a, *b, *united, *less, *common;
    };
    const auto row =
        GENERATE(Row{"nothing at all", "", "", "", "", ""},
                 Row{"two boxes side by side are one", "[(0,0 4,0 4,4 0,4)]", "[(4,0 8,0 8,4 4,4)]",
                     "[(0,0 8,0 8,4 0,4)]", "[(0,0 4,0 4,4 0,4)]", ""},
                 Row{"solids that meet at a corner are two", "[(0,0 2,0 2,2 0,2)]", "[(2,2 4,2 4,4 2,4)]",
                     "[(0,0 2,0 2,2 0,2)] [(2,2 4,2 4,4 2,4)]", "[(0,0 2,0 2,2 0,2)]", ""},
                 Row{"a box inside a box", "[(0,0 9,0 9,9 0,9)]", "[(3,3 6,3 6,6 3,6)]", "[(0,0 9,0 9,9 0,9)]",
                     "[(0,0 9,0 9,9 0,9) (3,3 3,6 6,6 6,3)]", "[(3,3 6,3 6,6 3,6)]"},
                 Row{"a hole that touches its outline stays a hole", "[(0,0 8,0 8,8 0,8)]", "[(4,0 6,4 4,6 2,4)]",
                     "[(0,0 8,0 8,8 0,8)]", "[(0,0 8,0 8,8 0,8) (4,0 2,4 4,6 6,4)]", "[(4,0 6,4 4,6 2,4)]"},
                 Row{"either direction of a ring will do", "[(0,0 0,4 4,4 4,0)]", "[(2,0 6,0 6,4 2,4)]",
                     "[(0,0 6,0 6,4 0,4)]", "[(0,0 2,0 2,4 0,4)]", "[(2,0 4,0 4,4 2,4)]"});
    INFO(row.name);
    const Regions a = regions(row.a), b = regions(row.b);
    CHECK(to_text(unite(a, b)) == row.united);
    CHECK(to_text(subtract(a, b)) == row.less);
    CHECK(to_text(intersect(a, b)) == row.common);
}

TEST_CASE("a wall of ten thousand tiles is four vertices") {
    Regions wall;
    for (int i = 0; i < 10'000; ++i) wall.push_back(box_region({i * 16, 0}, {i * 16 + 16, 16}));
    CHECK(to_text(unite(wall)) == "[(0,0 160000,0 160000,16 0,16)]");
}

TEST_CASE("two gaps that touch at a corner are two holes") {
    Regions ring;
    for (int r = 0; r < 4; ++r)
        for (int c = 0; c < 4; ++c)
            if (!(r == 1 && c == 1) && !(r == 2 && c == 2)) ring.push_back(box_region({c, r}, {c + 1, r + 1}));
    CHECK(to_text(unite(ring)) == "[(0,0 4,0 4,4 0,4) (1,1 1,2 2,2 2,1) (2,2 2,3 3,3 3,2)]");
}

TEST_CASE("an island enclosed by gaps that touch at corners is a region of its own") {
    const Regions sea = subtract(regions("[(0,0 8,0 8,8 0,8)]"), regions("[(4,1 5,3 4,4 3,3)] [(4,4 5,5 4,7 3,5)]"));
    CHECK(oracle::broken_promise(sea).empty());
    CHECK(sea.size() == 1);
    CHECK(sea[0].holes.size() == 2);
    // four gaps in a closed ring: sides of the island's square, each gap touching the next at a corner
    const Regions closed =
        subtract(regions("[(0,0 8,0 8,8 0,8)]"),
                 regions("[(2,2 4,1 6,2 4,3)] [(6,2 7,4 6,6 5,4)] [(6,6 4,7 2,6 4,5)] [(2,6 1,4 2,2 3,4)]"));
    CHECK(oracle::broken_promise(closed).empty());
    CHECK(closed.size() == 2);
}

TEST_CASE("unions of cells with lattice crossings are exact, against Boost.Polygon and GEOS") {
    for (int round = 0; round < 150; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        const Regions cells = random_cells(dice, dice.in(1, 14), dice.in(1, 14));
        const Regions united = unite(cells);
        CAPTURE(to_text(cells));
        REQUIRE(oracle::broken_promise(united) == "");
        REQUIRE(area(united) == oracle::boost_union_area(cells));
        const oracle::Tally tally = oracle::geos_union(cells);
        REQUIRE(area(united) == tally.area);
        REQUIRE(united.size() == tally.regions);
        std::size_t holes = 0;
        for (const Region& region : united) holes += region.holes.size();
        REQUIRE(holes == tally.holes);
    }
}

TEST_CASE("a soup of polygons with crossings off the lattice stays valid and true") {
    for (int round = 0; round < 400; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(1000 + static_cast<std::uint64_t>(round));
        const int size = dice.once_in(2) ? dice.in(3, 12) : dice.in(40, 4000);
        const Regions a = random_soup(dice, dice.in(1, 12), size), b = random_soup(dice, dice.in(1, 6), size);
        CAPTURE(to_text(a), to_text(b));
        const Regions united = unite(a, b), less = subtract(a, b), common = intersect(a, b);
        REQUIRE(oracle::broken_promise(united) == "");
        REQUIRE(oracle::broken_promise(less) == "");
        REQUIRE(oracle::broken_promise(common) == "");
        // Vertices move by at most half a step, so areas differ by no more than the length of all edges.
        Regions all = a;
        all.insert(all.end(), b.begin(), b.end());
        double perimeter = 0;
        for (const Region& region : all) {
            const auto box = *bounds(std::span(&region, 1));
            perimeter += 3.0 * (box.most.x - box.least.x + box.most.y - box.least.y);
        }
        REQUIRE(std::abs(area(united) - oracle::geos_union(all).area) <= perimeter);
        REQUIRE(std::abs(area(less) + area(common) - area(unite(a))) <= perimeter);
        REQUIRE(oracle::geos_difference(united, all) <= perimeter);
    }
}

TEST_CASE("the order of the input does not matter") {
    for (int round = 0; round < 60; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(5000 + static_cast<std::uint64_t>(round));
        Regions soup = random_soup(dice, 12, 60);
        const Regions first = unite(soup);
        std::reverse(soup.begin(), soup.end());
        for (Region& region : soup) std::reverse(region.outline.begin(), region.outline.end());
        REQUIRE(unite(soup) == first);
    }
}

TEST_CASE("booleans hold at the corners of the range", "[limits]") {
    const int far = coordinate_limit;
    const Regions whole{box_region({-far, -far}, {far, far})};
    const Regions cross{{{{-far, -far}, {far, far - 1}, {far, far}}, {}}};
    CHECK(oracle::broken_promise(subtract(whole, cross)) == "");
    CHECK(to_text(unite(whole, cross)) == to_text(whole));
    CHECK(to_text(intersect(whole, cross)) == to_text(unite(cross)));
    const Regions x{{{{-far, -far}, {far, far}, {far - 3, far}}, {}},
                    {{{-far, far}, {far, -far}, {far, -far + 5}}, {}}};
    CHECK(oracle::broken_promise(unite(x)) == "");
}

TEST_CASE("crossings on the lattice leave edges that pass near vertices as they were drawn") {
    // The long edge passes within half a step of the small box's corner (50,1) without touching it.
    const Regions united = unite(regions("[(0,0 1000,19 0,19)] [(50,-3 60,-3 60,0 50,0)]"));
    CHECK(to_text(united) == "[(50,-3 60,-3 60,0 50,0)] [(0,0 1000,19 0,19)]");
}

TEST_CASE("a stack applies its layers in order and says what shows at each edge") {
    const std::vector<PaintLayer> coats{{true, 1, regions("[(0,0 8,0 8,4 0,4)]")},
                                        {false, 0, regions("[(2,-1 6,-1 6,2 2,2)]")},
                                        {true, 2, regions("[(8,0 12,0 12,4 8,4)] [(3,0 4,0 4,1 3,1)]")}};
    const Stacked result = stack(coats);
    CHECK(to_text(result.regions) == "[(0,0 2,0 2,2 6,2 6,0 12,0 12,4 0,4)] [(3,0 4,0 4,1 3,1)]");
    REQUIRE(result.rings.size() == 2);
    CHECK(to_text(result.rings[0].points) == "(0,0 2,0 2,2 6,2 6,0 8,0 12,0 12,4 8,4 0,4)");
    CHECK(result.rings[0].labels == std::vector<int>{1, 1, 1, 1, 1, 2, 2, 2, 1, 1});
}

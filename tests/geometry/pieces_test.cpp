// Also tests src/geometry: triangulate
#include <catch2/catch.hpp>

#include <map>
#include <set>

#include "chance.hpp"
#include "dryground/geometry.hpp"
#include "optimum.hpp"
#include "oracles.hpp"

using namespace dryground;

namespace {

Regions random_tiles(chance::Dice& dice) {
    Regions shapes;
    const int columns = dice.in(1, 12), rows = dice.in(1, 12);
    for (int r = 0; r < rows; ++r)
        for (int c = 0; c < columns; ++c) {
            const int x = c * 16, y = r * 16, sort = dice.in(0, 5);
            if (sort < 3)
                shapes.push_back(box_region({x, y}, {x + 16, y + 16}));
            else if (sort == 3)
                shapes.push_back({{{x, y + 16}, {x + 16, y}, {x + 16, y + 16}}, {}});
        }
    // gaps whose corners touch the middle of straight edges, and free shapes with crossings off the lattice
    Regions gaps;
    for (int i = dice.in(0, 4); i > 0; --i) {
        const int x = 16 * dice.in(0, 10), y = 16 * dice.in(0, 10), s = dice.in(1, 20);
        gaps.push_back({{{x + s, y}, {x + 2 * s, y + s}, {x + s, y + 2 * s}, {x, y + s}}, {}});
    }
    return subtract(shapes, gaps);
}

std::set<Point> vertices(const Regions& regions) {
    std::set<Point> points;
    for (const Region& region : regions) {
        points.insert(region.outline.begin(), region.outline.end());
        for (const Ring& hole : region.holes) points.insert(hole.begin(), hole.end());
    }
    return points;
}

template <class Rings>
Regions as_regions(const Rings& rings) {
    Regions regions;
    for (const auto& ring : rings) regions.push_back({{ring.begin(), ring.end()}, {}});
    return regions;
}

}   // namespace

TEST_CASE("triangles cover regions exactly, edge to edge, from the regions' own vertices") {
    for (int round = 0; round < 300; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(20'000 + static_cast<std::uint64_t>(round));
        const Regions land = random_tiles(dice);
        CAPTURE(to_text(land));
        const std::vector<Triangle> cut = triangles(land);
        const std::set<Point> corners = vertices(land);
        std::int64_t area = 0;
        std::map<std::pair<Point, Point>, int> edges;
        for (const Triangle& triangle : cut) {
            REQUIRE(twice_area(triangle) > 0);
            area += twice_area(triangle);
            for (std::size_t i = 0; i < 3; ++i) {
                REQUIRE(corners.count(triangle[i]) == 1);
                REQUIRE(++edges[{triangle[i], triangle[(i + 1) % 3]}] == 1);
            }
        }
        REQUIRE(area == twice_area(land));
        REQUIRE(unite(as_regions(cut)) == land);
    }
}

TEST_CASE("pieces are convex, few enough in vertices, and cover regions exactly") {
    for (int round = 0; round < 300; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(30'000 + static_cast<std::uint64_t>(round));
        const Regions land = random_tiles(dice);
        const int most = dice.in(3, 9);
        CAPTURE(to_text(land), most);
        const std::vector<Ring> pieces = convex_pieces(land, most);
        const std::set<Point> corners = vertices(land);
        std::int64_t area = 0;
        for (const Ring& piece : pieces) {
            REQUIRE(piece.size() <= static_cast<std::size_t>(most));
            area += twice_area(piece);
            for (std::size_t i = 0; i < piece.size(); ++i) {
                REQUIRE(turn(piece[i], piece[(i + 1) % piece.size()], piece[(i + 2) % piece.size()]) == Turn::left);
                REQUIRE(corners.count(piece[i]) == 1);
            }
        }
        REQUIRE(area == twice_area(land));
        REQUIRE(unite(as_regions(pieces)) == land);
        REQUIRE(pieces.size() <= triangles(land).size());
        REQUIRE(std::is_sorted(pieces.begin(), pieces.end()));
    }
}

TEST_CASE("simple shapes need the pieces that one expects") {
    const auto count = [](const char* text, int most) { return convex_pieces(*regions_from_text(text), most).size(); };
    CHECK(count("[(0,0 8,0 8,4 0,4)]", 8) == 1);
    CHECK(count("[(0,0 8,0 8,4 0,4)]", 3) == 2);
    CHECK(count("[(0,0 4,0 4,4 8,4 8,8 0,8)]", 8) == 2);
    CHECK(count("[(0,0 9,0 9,9 0,9) (3,3 3,6 6,6 6,3)]", 8) == 4);
    CHECK(count("", 8) == 0);
}

TEST_CASE("pieces are nearly as few as possible") {
    std::size_t ours = 0;
    int least = 0, polygons = 0;
    for (int round = 0; round < chance::rounds(400); ++round) {
        chance::Dice dice(25'000 + static_cast<std::uint64_t>(round));
        for (const Region& region : random_tiles(dice)) {
            if (!region.holes.empty() || region.outline.size() > 26 || region.outline.size() < 6) continue;
            const std::vector<Ring> pieces = convex_pieces({&region, 1}, 64);
            const int optimum = optimum::LeastPieces(region.outline).run();
            CAPTURE(to_text(region.outline));
            REQUIRE(static_cast<int>(pieces.size()) >= optimum);
            ours += pieces.size();
            least += optimum;
            ++polygons;
        }
    }
    REQUIRE(polygons > 25);
    INFO(ours << " pieces where " << least << " would do, in " << polygons << " polygons");
    CHECK(static_cast<double>(ours) <= 1.08 * least);
}

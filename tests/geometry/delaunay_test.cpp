#include <catch2/catch.hpp>

#include <cmath>
#include <map>

#include "chance.hpp"
#include "dryground/geometry.hpp"
#include "oracles.hpp"

using namespace dryground;

namespace {

Regions random_drawing(chance::Dice& dice) {
    Regions shapes, gaps;
    for (int i = dice.in(1, 8); i > 0; --i) {
        std::vector<Point> points;
        for (int p = dice.in(3, 12); p > 0; --p) points.push_back({dice.in(0, 4000), dice.in(0, 4000)});
        if (Ring hull = convex_hull(points); hull.size() >= 3) (dice.once_in(3) ? gaps : shapes).push_back({hull, {}});
    }
    return subtract(shapes, gaps);
}

// In floating point, with room for its errors: whether d lies clearly inside the circle through a, b, c.
bool clearly_inside(Point a, Point b, Point c, Point d) {
    const auto x = [&](Point p) { return static_cast<long double>(p.x) - d.x; };
    const auto y = [&](Point p) { return static_cast<long double>(p.y) - d.y; };
    const auto squared = [&](Point p) { return x(p) * x(p) + y(p) * y(p); };
    const long double det = squared(a) * (x(b) * y(c) - y(b) * x(c)) + squared(b) * (x(c) * y(a) - y(c) * x(a)) +
                            squared(c) * (x(a) * y(b) - y(a) * x(b));
    return det > 0.5L;
}

}   // namespace

TEST_CASE("Delaunay triangles cover regions exactly, edge to edge, and no neighbour's corner lies in a circle") {
    for (int round = 0; round < 300; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(330'000 + static_cast<std::uint64_t>(round));
        const Regions land = random_drawing(dice);
        CAPTURE(to_text(land));
        const Mesh mesh = delaunay_triangles(land);
        std::int64_t area = 0;
        std::map<std::pair<std::uint32_t, std::uint32_t>, std::uint32_t> third;   // of each directed edge
        for (const auto& t : mesh.triangles) {
            const std::int64_t one = cross(mesh.points[t[0]], mesh.points[t[1]], mesh.points[t[2]]);
            REQUIRE(one > 0);
            area += one;
            for (std::size_t i = 0; i < 3; ++i)
                REQUIRE(third.emplace(std::pair{t[i], t[(i + 1) % 3]}, t[(i + 2) % 3]).second);
        }
        REQUIRE(area == twice_area(land));
        for (const auto& [edge, corner] : third) {
            const auto other = third.find({edge.second, edge.first});
            if (other == third.end()) continue;
            REQUIRE(!clearly_inside(mesh.points[edge.first], mesh.points[edge.second], mesh.points[corner],
                                    mesh.points[other->second]));
        }
    }
}

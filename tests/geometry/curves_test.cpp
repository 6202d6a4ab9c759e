#include <catch2/catch.hpp>

#include <cmath>
#include <numbers>
#include <set>

#include "chance.hpp"
#include "dryground/geometry.hpp"

using namespace dryground;

namespace {

// How far a ring strays from an ellipse about the origin, inside and outside, in steps: seen from many of its points.
double farthest(const Ring& ring, double rx, double ry) {
    double most = 0;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point a = ring[i], b = ring[(i + 1) % ring.size()];
        for (int part = 0; part < 40; ++part) {
            const double x = a.x + (double{0} + b.x - a.x) * part / 40, y = a.y + (double{0} + b.y - a.y) * part / 40;
            double least = 1e12, angle = std::atan2(y / ry, x / rx);
            for (double wide = 0.8; wide > 1e-7; wide /= 2) {   // the curve's nearest point, far along it at times
                double best = angle;
                for (int k = -6; k <= 6; ++k) {
                    const double t = angle + wide * k / 6;
                    const double d = std::hypot(x - rx * std::cos(t), y - ry * std::sin(t));
                    if (d < least) least = d, best = t;
                }
                angle = best;
            }
            most = std::max(most, least);
        }
    }
    return most;
}

}   // namespace

TEST_CASE("round shapes stay within the tolerance, are symmetric and touch their box") {
    for (int round = 0; round < 120; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(360'000 + static_cast<std::uint64_t>(round));
        const std::int32_t rx = dice.in(2 * 256, 60 * 256), ry = dice.once_in(2) ? rx : dice.in(2 * 256, 60 * 256);
        const double within = dice.in(1, 16) / 16.0;
        const Ring ring = ellipse_ring({0, 0}, rx, ry, within);
        CAPTURE(rx, ry, within, to_text(ring));
        REQUIRE(farthest(ring, rx, ry) <= within * 256 + 0.75);
        const std::set<Point> points(ring.begin(), ring.end());
        REQUIRE(points.size() == ring.size());
        for (const Point p : ring) {
            REQUIRE(points.count({-p.x, p.y}) == 1);
            REQUIRE(points.count({p.x, -p.y}) == 1);
            REQUIRE(std::abs(p.x) <= rx);
            REQUIRE(std::abs(p.y) <= ry);
        }
        for (const Point p : {Point{rx, 0}, Point{-rx, 0}, Point{0, ry}, Point{0, -ry}}) REQUIRE(points.count(p) == 1);
        for (std::size_t i = 0; i < ring.size(); ++i)
            REQUIRE(turn(ring[i], ring[(i + 1) % ring.size()], ring[(i + 2) % ring.size()]) == Turn::left);
    }
}

TEST_CASE("a circle has the fewest vertices that its tolerance allows") {
    // Between extreme points: one edge sags by r (1 - cos 45 degrees); two reach as far as two tangents' half angles.
    CHECK(ellipse_ring({0, 0}, 256, 256, 0.5).size() == 4);
    CHECK(ellipse_ring({0, 0}, 8 * 256, 8 * 256, 0.25).size() == 12);     // vertices on the curve would take 16
    CHECK(ellipse_ring({0, 0}, 64 * 256, 64 * 256, 0.25).size() == 28);   // and here 40
}

TEST_CASE("a capsule between two points holds both ends and is convex") {
    const Ring ring = capsule_ring({0, 0}, {3000, 1000}, 500, 0.25);
    const Regions capsule{{ring, {}}};
    CHECK(locate(capsule, {3400, 1100}) == Side::inside);
    CHECK(locate(capsule, {-400, -100}) == Side::inside);
    CHECK(locate(capsule, {1500, 1100}) == Side::outside);
    CHECK(bounds(capsule)->least == Point{-500, -500});
    CHECK(bounds(capsule)->most == Point{3500, 1500});
    CHECK(capsule_ring({0, 0}, {0, 0}, 500, 0.25) == ellipse_ring({0, 0}, 500, 500, 0.25));
}

TEST_CASE("a hull is convex, least and holds all points") {
    CHECK(convex_hull({{0, 0}, {4, 0}, {2, 0}, {4, 4}, {2, 2}, {0, 4}, {0, 0}}) ==
          Ring{{0, 0}, {4, 0}, {4, 4}, {0, 4}});
    CHECK(convex_hull({{1, 1}}).size() == 1);
    for (int round = 0; round < 200; ++round) {
        chance::Dice dice(370'000 + static_cast<std::uint64_t>(round));
        std::vector<Point> points;
        for (int i = dice.in(3, 30); i > 0; --i) points.push_back({dice.in(0, 20), dice.in(0, 20)});
        const Ring hull = convex_hull(points);
        if (hull.size() < 3) continue;
        for (std::size_t i = 0; i < hull.size(); ++i) {
            REQUIRE(turn(hull[i], hull[(i + 1) % hull.size()], hull[(i + 2) % hull.size()]) == Turn::left);
            for (const Point p : points) REQUIRE(turn(hull[i], hull[(i + 1) % hull.size()], p) != Turn::right);
        }
    }
}

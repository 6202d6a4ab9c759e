// Edges grown by a body, beside the hull of all sums of points; and ground that changes, beside the same made anew.
#include "travel/sums_internal.hpp"

#include <catch2/catch.hpp>

#include <algorithm>

#include "chance.hpp"
#include "geometry/ring_internal.hpp"

using namespace dryground;
using travel::GroundSums;
using travel::SolidEdge;
using travel::Sum;

namespace {

Ring random_body(chance::Dice& dice) {
    if (dice.once_in(3)) return box_ring({-dice.in(3, 900), -dice.in(3, 900)}, {dice.in(3, 900), dice.in(0, 900)});
    std::vector<Point> points;
    for (int corners = dice.in(5, 12); corners > 0; --corners)
        points.push_back({dice.in(-800, 800), dice.in(-1200, 300)});
    return convex_hull(std::move(points));
}

Ring starting_at_least(Ring ring) {
    detail::start_at_least(ring);
    return ring;
}

// Boxes and triangles by chance.
Regions random_shapes(chance::Dice& dice, int most) {
    Regions shapes;
    for (int left = dice.in(1, most); left > 0; --left) {
        const Point p{dice.in(0, 20) * 700, dice.in(0, 20) * 700};
        const std::int32_t r = dice.in(1, 4) * 700;
        if (dice.once_in(2))
            shapes.push_back(box_region(p, moved(p, {r, dice.in(1, 4) * 700})));
        else
            shapes.push_back({{p, moved(p, {r, r}), moved(p, {0, r})}, {}});
    }
    return shapes;
}

std::vector<SolidEdge> edges_of(const Regions& ground) {
    std::vector<SolidEdge> edges;
    detail::each_edge(ground, [&](Point a, Point b) { edges.push_back({a, b}); });
    return edges;
}

std::vector<std::pair<std::array<Point, 2>, Ring>> near(const GroundSums& sums, const Bounds& box) {
    std::vector<std::pair<std::array<Point, 2>, Ring>> all;
    (void)sums.any_near(box, [&](const Sum& sum) {
        all.emplace_back(sum.line, Ring(sum.ring.begin(), sum.ring.end()));
        return false;
    });
    std::sort(all.begin(), all.end());
    return all;
}

}   // namespace

TEST_CASE("an edge grown by a body is the hull of all sums of points", "[travel]") {
    for (int round = 0; round < chance::rounds(4000); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        const Ring body = random_body(dice);
        if (body.size() < 3) continue;
        const auto some = [&] { return dice.once_in(3) ? 0 : dice.in(-2000, 2000); };
        Point a{some(), some()}, b{some(), some()};
        if (dice.once_in(4)) {   // along one of the body's edges
            const std::size_t k = static_cast<std::size_t>(dice.in(0, static_cast<int>(body.size()) - 1));
            b = moved(a, {body[(k + 1) % body.size()].x - body[k].x, body[(k + 1) % body.size()].y - body[k].y});
            if (dice.once_in(2)) std::swap(a, b);
        }
        const std::array<travel::Line, 2> lines{travel::Line{{a, b}},
                                                travel::Line{{a, b}, dice.once_in(2) ? OneWay::up : OneWay::left}};
        const travel::Sums sums(lines, body);
        REQUIRE(sums.all().size() == 2);
        for (const Sum& sum : sums.all()) {
            REQUIRE(starting_at_least({sum.ring.begin(), sum.ring.end()}) ==
                    starting_at_least(travel::sum_with(std::array{a, b}, body)));
            REQUIRE(sum.box == detail::box_around(sum.ring));
        }
    }
}

TEST_CASE("sums of ground that changes are those of the ground as it is", "[travel]") {
    std::size_t inside = 0, found = 0;
    for (int round = 0; round < chance::rounds(100); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        const Ring body = random_body(dice);
        if (body.size() < 3) continue;
        Regions shapes = random_shapes(dice, 60);
        GroundSums following(edges_of(unite(shapes)), body, nullptr);
        for (int change = 0; change < 8; ++change) {
            if (dice.once_in(2))
                shapes.push_back(random_shapes(dice, 1).front());
            else
                shapes.erase(shapes.begin() + dice.in(0, static_cast<int>(shapes.size()) - 1));
            if (shapes.empty() || dice.once_in(6)) shapes = random_shapes(dice, 60);
            const Regions ground = unite(shapes);
            following = GroundSums(edges_of(ground), body, &following);
            const GroundSums anew(edges_of(ground), body, nullptr);
            for (int k = 0; k < 30; ++k) {
                const Point p{dice.in(-2000, 18000), dice.in(-2000, 18000)};
                const Bounds box{p, moved(p, {dice.in(0, 3000), dice.in(0, 3000)})};
                const auto all = near(anew, box);
                found += all.size();
                REQUIRE(near(following, box) == all);
                const Point in_body = body[static_cast<std::size_t>(k) % body.size()];
                const Side side = locate(ground, moved(p, in_body));
                if (side == Side::edge) continue;
                inside += side == Side::inside ? 1 : 0;
                REQUIRE(following.is_in_ground(p, in_body) == (side == Side::inside));
            }
        }
    }
    CHECK(inside > static_cast<std::size_t>(chance::rounds(1000)));
    CHECK(found > static_cast<std::size_t>(chance::rounds(10000)));
}

// What closed paths wind around, band by band, against the same at once; and bands that are taken over.
#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>

#include "chance.hpp"
#include "geometry/bands_internal.hpp"
#include "geometry/boolean_internal.hpp"
#include "geometry/ring_internal.hpp"

using namespace dryground;
using detail::WoundInBands;

namespace {

Ring polygon(chance::Dice& dice, std::int32_t step) {
    const auto at = [&](int most) { return dice.in(0, most) * step; };
    const Point p{at(60), at(60)};
    const std::int32_t r = (1 + dice.in(0, 9)) * step;
    switch (dice.in(0, 3)) {
        case 0:
            return box_ring(p, moved(p, {r, (1 + dice.in(0, 30)) * step}));
        case 1:
            return {p, moved(p, {r, r}), moved(p, {0, r})};
        case 2:
            return {moved(p, {0, -r}), moved(p, {r, 0}), moved(p, {0, r}), moved(p, {-r, 0})};
        default:   // with a hole that lies on its right
            return {p,
                    moved(p, {8 * r, 0}),
                    moved(p, {8 * r, 8 * r}),
                    moved(p, {0, 8 * r}),
                    p,
                    moved(p, {r, r}),
                    moved(p, {r, 5 * r}),
                    moved(p, {4 * r, 5 * r}),
                    moved(p, {4 * r, r}),
                    moved(p, {r, r})};
    }
}

std::vector<Ring> paths(chance::Dice& dice, std::int32_t step) {
    std::vector<Ring> ways;
    for (int wanted = dice.in(0, 60); wanted > 0; --wanted) ways.push_back(polygon(dice, step));
    return ways;
}

std::vector<Ring> at_once(const std::vector<Ring>& ways) {
    std::vector<Ring> rings = detail::rings_of(detail::wound_around(ways));
    std::sort(rings.begin(), rings.end());
    return rings;
}

std::int64_t twice_area_of(const std::vector<Ring>& rings) {
    std::int64_t area = 0;
    for (const Ring& ring : rings) area += twice_area(ring);
    return area;
}

}   // namespace

TEST_CASE("bands have the rings that paths wind around at once, for bands of any height") {
    for (int round = 0; round < chance::rounds(150); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        const std::vector<Ring> ways = paths(dice, 512);
        for (const std::int32_t height : {1 << 20, 4096, 700, 512, 96}) {
            CAPTURE(height);
            REQUIRE(WoundInBands(ways, height).rings() == at_once(ways));
        }
    }
}

TEST_CASE("bands of slopes that are rounded have about the area that they wind around at once") {
    for (int round = 0; round < chance::rounds(150); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        std::vector<Ring> ways = paths(dice, 512);
        double length = 1;
        for (Ring& way : ways) {
            const Point by{dice.in(0, 400), dice.in(0, 400)};
            // Stretched, so that crossings do not lie on the lattice.
            for (Point& p : way) p = {p.x + p.y / 3 + by.x, p.y + p.x / 7 + by.y};
            detail::each_edge_of_ring(way, [&](Point a, Point b) { length += std::hypot(b.x - a.x, b.y - a.y); });
        }
        const double area = static_cast<double>(twice_area_of(at_once(ways)));
        for (const std::int32_t height : {5000, 1024, 300}) {
            CAPTURE(height);
            const double in_bands = static_cast<double>(twice_area_of(WoundInBands(ways, height).rings()));
            REQUIRE(std::abs(in_bands - area) <= 2 * length);
        }
    }
}

TEST_CASE("bands that follow a change are those that are made anew") {
    for (int round = 0; round < chance::rounds(200); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        std::vector<Ring> ways = paths(dice, round % 2 == 0 ? 512 : 509);
        WoundInBands following(ways, 2000);
        for (int change = 0; change < 6; ++change) {
            if (ways.empty() || dice.once_in(2))
                ways.push_back(polygon(dice, 500));
            else
                ways.erase(ways.begin() + dice.in(0, static_cast<int>(ways.size()) - 1));
            if (!ways.empty()) std::rotate(ways.begin(), ways.begin() + 1, ways.end());
            following = WoundInBands(ways, 2000, &following);
            REQUIRE(following.rings() == WoundInBands(ways, 2000).rings());
        }
    }
}

TEST_CASE("paths across the whole range, in bands of a step, are still found") {
    const std::vector<Ring> ways{box_ring({-coordinate_limit, -coordinate_limit}, {0, coordinate_limit}),
                                 box_ring({-5, -5}, {5, 5})};
    REQUIRE(WoundInBands(ways, 1).rings() == at_once(ways));
    REQUIRE(WoundInBands({}, 1).rings().empty());
}

TEST_CASE("what paths wind around in regions is what they wind around, cut", "[geometry]") {
    for (int round = 0; round < chance::rounds(300); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        const std::vector<Ring> ways = paths(dice, 64);
        Regions regions;
        for (int left = dice.in(0, 4); left > 0; --left) regions.push_back({polygon(dice, 64), {}});
        const Regions cut = unite(regions);
        CHECK(detail::wound_around_in(ways, cut) == intersect(detail::wound_around(ways), cut));
    }
}

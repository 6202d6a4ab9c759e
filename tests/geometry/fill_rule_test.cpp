// What rings cover, however they are written: in either direction, crossing themselves, repeated, holes anywhere.
// Also tests src/geometry: boolean
#include <catch2/catch.hpp>

#include <algorithm>
#include <cmath>

#include "chance.hpp"
#include "dryground/geometry.hpp"
#include "oracles.hpp"

using namespace dryground;

namespace {

Regions read(const std::string& text) {
    const auto parsed = regions_from_text(text);
    REQUIRE(parsed);
    return *parsed;
}

double covered_area(const Regions& of) { return static_cast<double>(twice_area(of)) / 2; }

int winding_at(const Ring& ring, double x, double y) {
    int windings = 0;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point a = ring[i], b = ring[(i + 1) % ring.size()];
        if ((a.y <= y) == (b.y <= y)) continue;
        const double at = a.x + (y - a.y) / (double{0} + b.y - a.y) * (double{0} + b.x - a.x);
        if (at < x) windings += a.y <= y ? 1 : -1;
    }
    return windings;
}

// The rule as the header states it.
bool is_covered(const Regions& all, double x, double y) {
    return std::any_of(all.begin(), all.end(), [&](const Region& region) {
        return winding_at(region.outline, x, y) != 0 &&
               std::none_of(region.holes.begin(), region.holes.end(),
                            [&](const Ring& hole) { return winding_at(hole, x, y) != 0; });
    });
}

bool lies_near(const Regions& all, Point p, double distance) {
    const auto near = [&](const Ring& ring) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i], b = ring[(i + 1) % ring.size()];
            const double dx = double{0} + b.x - a.x, dy = double{0} + b.y - a.y, length = dx * dx + dy * dy;
            const double t =
                length == 0
                    ? 0
                    : std::clamp(((double{0} + p.x - a.x) * dx + (double{0} + p.y - a.y) * dy) / length, 0.0, 1.0);
            if (std::hypot(a.x + t * dx - p.x, a.y + t * dy - p.y) <= distance) return true;
        }
        return false;
    };
    return std::any_of(all.begin(), all.end(), [&](const Region& region) {
        return near(region.outline) || std::any_of(region.holes.begin(), region.holes.end(), near);
    });
}

Ring odd_ring(chance::Dice& dice, int size) {
    Ring ring;
    for (int i = dice.in(3, 7); i > 0; --i) ring.push_back({64 * dice.in(0, size), 64 * dice.in(0, size)});
    if (dice.once_in(6)) ring.insert(ring.end(), ring.begin(), ring.end());   // around twice
    return ring;
}

Regions odd_figure(chance::Dice& dice) {
    Regions figure;
    for (int i = dice.in(1, 3); i > 0; --i) {
        Region region{odd_ring(dice, 12), {}};
        if (dice.once_in(4)) region.outline = box_ring({0, 0}, {64 * dice.in(1, 12), 64 * dice.in(1, 12)});
        for (int h = dice.in(0, 3); h > 0; --h) {
            region.holes.push_back(odd_ring(dice, 12));
            if (dice.once_in(4)) region.holes.push_back(region.holes.back());
        }
        figure.push_back(std::move(region));
    }
    return figure;
}

// The same area, written otherwise.
Regions rewritten(chance::Dice& dice, Regions figure) {
    const auto rewrite = [&](Ring& ring) {
        if (dice.once_in(2)) std::reverse(ring.begin(), ring.end());
        std::rotate(ring.begin(), ring.begin() + dice.in(0, static_cast<int>(ring.size()) - 1), ring.end());
    };
    for (Region& region : figure) {
        rewrite(region.outline);
        for (Ring& hole : region.holes) rewrite(hole);
        std::reverse(region.holes.begin(), region.holes.end());
        if (!region.holes.empty() && dice.once_in(3)) region.holes.push_back(region.holes.front());
    }
    if (dice.once_in(3)) figure.push_back(figure.front());
    if (dice.once_in(2)) std::reverse(figure.begin(), figure.end());
    return figure;
}

}   // namespace

TEST_CASE("what odd rings cover") {
    // Two in one operand or in two.
    const Regions square = read("[(0,0 10,0 10,10 0,10)]"), across = read("[(6,-2 12,-2 12,12 6,12)]");
    Regions both = square;
    both.push_back(across.front());
    CHECK(unite(both) == unite(square, across));
    // A bow-tie, alone and beside what covers one half of it.
    const Regions tie = read("[(0,0 10,10 10,0 0,10)]");
    CHECK(covered_area(unite(tie)) == 50);
    both = read("[(5,-5 20,-5 20,15 5,15)]");
    both.push_back(tie.front());
    CHECK(covered_area(unite(both)) == 15 * 20 + 25);
    CHECK(covered_area(subtract(square, tie)) == 50);
    // A hole that crosses itself, the other way round, given twice, outside, across the edge, around the outline.
    for (const char* text :
         {"[(0,0 12,0 12,12 0,12) (2,2 10,10 10,2 2,10)]", "[(0,0 12,0 12,12 0,12) (2,10 10,2 10,10 2,2)]",
          "[(0,12 12,12 12,0 0,0) (2,2 10,10 10,2 2,10) (2,2 10,10 10,2 2,10)]"})
        CHECK(covered_area(unite(read(text))) == 112);
    CHECK(covered_area(unite(read("[(0,0 4,0 4,4 0,4) (6,6 8,6 8,8 6,8)]"))) == 16);
    CHECK(covered_area(unite(read("[(0,0 4,0 4,4 0,4) (6,6 8,6 8,8 6,8)] [(5,5 9,5 9,9 5,9)]"))) ==
          32);   // it is the other's
    CHECK(covered_area(unite(read("[(0,0 4,0 4,4 0,4) (2,2 8,2 8,8 2,8)]"))) == 12);
    CHECK(unite(read("[(0,0 4,0 4,4 0,4) (-1,-1 8,-1 8,8 -1,8)]")).empty());
    CHECK(covered_area(unite(read("[(0,0 8,0 8,8 0,8) (1,1 4,1 4,4 1,4) (3,3 6,3 6,6 3,6)]"))) == 64 - 17);
    CHECK(covered_area(unite(read("[(0,0 8,0 8,8 0,8 0,0 8,0 8,8 0,8) (1,1 4,1 4,4 1,4)]"))) == 64 - 9);
    // Nothing at all.
    CHECK(unite(read("[(0,0 4,4 8,8)] [(1,1 1,1 1,1)]")).empty());
}

TEST_CASE("a place is inside of overlapping regions where it is inside of one") {
    const Regions twice = read("[(0,0 8,0 8,8 0,8)] [(0,0 8,0 8,8 0,8)] [(4,4 12,4 12,12 4,12)]");
    CHECK(locate(twice, {2, 2}) == Side::inside);
    CHECK(locate(twice, {6, 6}) == Side::inside);
    CHECK(locate(twice, {8, 6}) == Side::inside);   // on an edge of one, within another
    CHECK(locate(twice, {0, 2}) == Side::edge);
    CHECK(locate(twice, {12, 6}) == Side::edge);
    CHECK(locate(twice, {20, 6}) == Side::outside);
}

TEST_CASE("every way of writing a figure gives the same bytes, and covers what the rule says") {
    for (int round = 0; round < chance::rounds(10'000); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        const Regions figure = odd_figure(dice);
        INFO(to_text(figure));
        const Regions united = unite(figure);
        if (round % 16 == 0) REQUIRE(oracle::geos_fault(united) == "");
        for (int i = 0; i < 3; ++i) REQUIRE(unite(rewritten(dice, figure)) == united);
        REQUIRE(unite({figure.data(), 1}, {figure.data() + 1, figure.size() - 1}) == united);
        REQUIRE(subtract(united, rewritten(dice, figure)) == subtract(united, figure));
        for (int i = 0; i < 12; ++i) {
            const Point p{dice.in(-8, 12 * 64 + 8), dice.in(-8, 12 * 64 + 8)};
            if (lies_near(figure, p, 2)) continue;   // rounding may move edges by a step
            REQUIRE((locate(united, p) == Side::inside) == is_covered(figure, p.x, p.y));
        }
    }
}

// Moved, mirrored, turned and scaled twins of an input give the same of the output.
#include <catch2/catch.hpp>

#include <algorithm>
#include <functional>

#include "chance.hpp"
#include "dryground/geometry.hpp"
#include "oracles.hpp"

using namespace dryground;

namespace {

using Change = std::function<Point(Point)>;

Regions changed_by(Regions regions, const Change& change) {
    for (Region& region : regions) {
        for (Point& p : region.outline) p = change(p);
        for (Ring& hole : region.holes)
            for (Point& p : hole) p = change(p);
    }
    return regions;
}

// Slopes, halves and boxes of a cell board: all crossings lie on the lattice, so that twins must agree to the step.
Regions random_board(chance::Dice& dice) {
    Regions shapes;
    for (int r = 0; r < 8; ++r)
        for (int c = 0; c < 8; ++c) {
            const int x = c * 16, y = r * 16;
            switch (dice.in(0, 7)) {
                case 0:
                case 1:
                    shapes.push_back(box_region({x, y}, {x + 16, y + 16}));
                    break;
                case 2:
                    shapes.push_back({{{x, y + 16}, {x + 16, y}, {x + 16, y + 16}}, {}});
                    break;
                case 3:
                    shapes.push_back({{{x, y}, {x + 16, y}, {x + 16, y + 16}}, {}});
                    break;
                case 4:
                    shapes.push_back(box_region({x, y + 8}, {x + 16, y + 16}));
                    break;
                default:
                    break;
            }
        }
    return shapes;
}

}   // namespace

TEST_CASE("twins of a board give twins of its regions") {
    struct Row {
        const char* name;
        Change change;
    };
    const auto row = GENERATE(Row{"moved",
                                  [](Point p) {
                                      return Point{p.x + 7777, p.y - 31};
                                  }},
                              Row{"mirrored",
                                  [](Point p) {
                                      return Point{-p.x, p.y};
                                  }},
                              Row{"upside down",
                                  [](Point p) {
                                      return Point{p.x, -p.y};
                                  }},
                              Row{"turned",
                                  [](Point p) {
                                      return Point{-p.y, p.x};
                                  }},
                              Row{"at the limit",
                                  [](Point p) {
                                      return Point{p.x + coordinate_limit - 128, p.y + coordinate_limit - 128};
                                  }},
                              Row{"scaled to the limit", [](Point p) {
                                      return Point{p.x * 4'000'000 - 256'000'000, p.y * 4'000'000 - 256'000'000};
                                  }});
    INFO(row.name);
    for (int round = 0; round < 40; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(70'000 + static_cast<std::uint64_t>(round));
        const Regions board = random_board(dice);
        // the same regions; their first points and order are made anew by a union of what is already united
        const Regions expected = unite(changed_by(unite(board), row.change));
        REQUIRE(unite(changed_by(board, row.change)) == expected);
        const Regions pieces_of = changed_by(unite(board), row.change);
        std::int64_t area = 0;
        for (const Ring& piece : convex_pieces(expected, 6)) area += twice_area(piece);
        REQUIRE(area == twice_area(expected));
        REQUIRE(pieces_of.size() == expected.size());
    }
}

TEST_CASE("what a boolean gives is not changed by doing it again") {
    for (int round = 0; round < 60; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(71'000 + static_cast<std::uint64_t>(round));
        const Regions a = unite(random_board(dice)), b = unite(random_board(dice));
        REQUIRE(unite(a, a) == a);
        REQUIRE(intersect(a, a) == a);
        REQUIRE(subtract(a, a).empty());
        REQUIRE(unite(a, b) == unite(b, a));
        REQUIRE(intersect(a, b) == intersect(b, a));
        REQUIRE(unite(subtract(a, b), intersect(a, b)) == a);
        REQUIRE(subtract(unite(a, b), b) == subtract(a, b));
    }
}

TEST_CASE("slivers, near parallels and points one step apart stay valid") {
    for (int round = 0; round < 200; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(72'000 + static_cast<std::uint64_t>(round));
        Regions slivers;
        for (int i = dice.in(2, 14); i > 0; --i) {
            // long and thin, all through nearly the same place
            const Point from{dice.in(-3, 3), dice.in(-3, 3)}, to{100'000 + dice.in(-3, 3), dice.in(-9, 9)};
            const Ring ring{from, to, {to.x + dice.in(-2, 2), to.y + dice.in(1, 3)}, {from.x, from.y + dice.in(1, 2)}};
            if (inspect(ring).fault == RingFault::none) slivers.push_back({ring, {}});
        }
        CAPTURE(to_text(slivers));
        const Regions united = unite(slivers);
        REQUIRE(oracle::broken_promise(united) == "");
        const Regions cut =
            subtract(std::span(slivers).first(slivers.size() / 2), std::span(slivers).subspan(slivers.size() / 2));
        REQUIRE(oracle::broken_promise(cut) == "");
        std::int64_t area = 0;
        for (const Triangle& triangle : triangles(united)) area += twice_area(triangle);
        REQUIRE(area == twice_area(united));
    }
}

TEST_CASE("spirals, combs and nested rings come out as they went in") {
    Regions comb{box_region({0, 0}, {400, 10})};
    for (int i = 0; i < 40; ++i) comb.push_back(box_region({i * 10, 10}, {i * 10 + 5, 200}));
    CHECK(unite(comb).size() == 1);
    CHECK(unite(comb)[0].outline.size() ==
          4 + 2 * 39 + 2 * 40);   // two outer corners above, the teeth and their gaps below

    Regions nested;
    for (int i = 0; i < 20; i += 2) {
        const Regions frame = subtract(std::vector<Region>{box_region({i, i}, {100 - i, 100 - i})},
                                       std::vector<Region>{box_region({i + 1, i + 1}, {99 - i, 99 - i})});
        nested.insert(nested.end(), frame.begin(), frame.end());
    }
    const Regions united = unite(nested);
    CHECK(united.size() == 10);
    for (const Region& region : united) CHECK(region.holes.size() == 1);
    CHECK(oracle::broken_promise(united) == "");
}

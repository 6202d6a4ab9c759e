// Laws of the geometry on random shapes; what breaks one is reported with as few polygons as still break it.
#include <catch2/catch.hpp>

#include "chance.hpp"
#include "dryground/geometry.hpp"
#include "oracles.hpp"

using namespace dryground;

namespace {

// Coordinates near each other, so that shapes meet, and now and then at the limits.
std::int32_t coordinate(chance::Dice& dice) {
    const int sort = dice.in(1, 16);
    if (sort <= 12) return dice.in(-40, 40);
    if (sort <= 15) return dice.in(-9, 9) * 256;
    return dice.once_in(2) ? coordinate_limit : -coordinate_limit;
}

// Polygons that may overlap each other, each valid by itself.
Regions polygons(chance::Dice& dice) {
    Regions regions;
    for (int wanted = dice.in(0, 12); wanted > 0; --wanted) {
        Ring ring;
        for (int corners = dice.in(0, 9); corners > 0; --corners) {
            const std::int32_t x = coordinate(dice), y = coordinate(dice);
            ring.push_back({x, y});
        }
        if (inspect(ring).fault == RingFault::none) regions.push_back({std::move(ring), {}});
    }
    return regions;
}

// On a grid of 45 degrees, where all crossings are on the lattice.
Regions exact_polygons(chance::Dice& dice) {
    Regions regions;
    for (int wanted = dice.in(0, 40); wanted > 0; --wanted) {
        const int x = dice.in(0, 29) * 512, y = dice.in(0, 29) * 512, r = dice.in(1, 8) * 512;
        switch (dice.in(0, 2)) {
            case 0:
                regions.push_back(box_region({x, y}, {x + r, y + r}));
                break;
            case 1:
                regions.push_back({{{x, y}, {x + r, y + r}, {x, y + r}}, {}});
                break;
            default:
                regions.push_back({{{x, y - r}, {x + r, y}, {x, y + r}, {x - r, y}}, {}});
        }
    }
    return regions;
}

// What is wrong with two lists of polygons under a law; empty when the law holds.
using Law = std::string (*)(const Regions& a, const Regions& b);

// Takes out polygons of `of` one by one as long as the law stays broken.
void shrink(Regions& of, const Regions& a, const Regions& b, Law law) {
    for (std::size_t i = of.size(); i-- > 0;) {
        const Region taken = of[i];
        of.erase(of.begin() + static_cast<std::ptrdiff_t>(i));
        if (law(a, b).empty()) of.insert(of.begin() + static_cast<std::ptrdiff_t>(i), taken);
    }
}

void holds(const std::string& name, Regions (*make)(chance::Dice& dice), Law law) {
    for (int round = 0; round < chance::rounds(300); ++round) {
        chance::Dice dice(static_cast<std::uint64_t>(round));
        Regions a = make(dice), b = make(dice);
        if (law(a, b).empty()) continue;
        shrink(a, a, b, law);
        shrink(b, a, b, law);
        DRYGROUND_ROUND(round);
        FAIL(name << ": " << law(a, b) << "\na: " << to_text(a) << "\nb: " << to_text(b));
    }
}

std::string broken_unless(bool holds, const char* words) { return holds ? "" : words; }

// That regions keep all promises, by our own check of each and by GEOS.
std::string broken_promise(const Regions& regions) {
    std::string broken = oracle::broken_promise(regions);
    return broken.empty() ? oracle::geos_fault(regions) : broken;
}

Regions each_point(Regions regions, Point (*change)(Point)) {
    for (Region& region : regions) {
        for (Point& p : region.outline) p = change(p);
        for (Ring& hole : region.holes)
            for (Point& p : hole) p = change(p);
    }
    return regions;
}

template <class Rings>
std::int64_t twice_area_of(const Rings& rings) {
    std::int64_t twice = 0;
    for (const auto& ring : rings) twice += twice_area(ring);
    return twice;
}

}   // namespace

TEST_CASE("whatever the polygons, results keep their promises") {
    holds("united", polygons, [](const Regions& a, const Regions&) { return broken_promise(unite(a)); });
    holds("subtracted", polygons, [](const Regions& a, const Regions& b) { return broken_promise(subtract(a, b)); });
    holds("intersected", polygons, [](const Regions& a, const Regions& b) { return broken_promise(intersect(a, b)); });
}

TEST_CASE("booleans obey the laws of sets") {
    holds("the order does not matter", polygons, [](const Regions& a, const Regions& b) {
        return broken_unless(unite(a, b) == unite(b, a) && intersect(a, b) == intersect(b, a), "it does");
    });
    holds("once more changes nothing", polygons, [](const Regions& some, const Regions&) {
        const Regions a = unite(some);
        return broken_unless(unite(a, a) == a && intersect(a, a) == a && subtract(a, a).empty(), "it does");
    });
    holds("where crossings are on the lattice, parts make up the whole", exact_polygons,
          [](const Regions& a, const Regions& b) {
              const Regions both = intersect(a, b), rest = subtract(a, b), all = unite(a, b);
              return broken_unless(twice_area(both) + twice_area(rest) == twice_area(unite(a)) &&
                                       twice_area(rest) + twice_area(unite(b)) == twice_area(all) &&
                                       unite(both, rest) == unite(a),
                                   "they do not");
          });
}

TEST_CASE("where crossings are on the lattice, areas are those of other libraries") {
    holds("the union", exact_polygons, [](const Regions& a, const Regions&) {
        const double ours = static_cast<double>(twice_area(unite(a))) / 2;
        return broken_unless(ours == oracle::boost_union_area(a) && ours == oracle::geos_union(a).area, "other areas");
    });
    holds("the difference", exact_polygons, [](const Regions& a, const Regions& b) {
        const double ours = static_cast<double>(twice_area(subtract(a, b))) / 2;
        return broken_unless(ours == oracle::boost_difference_area(a, b), "another area");
    });
}

TEST_CASE("moved, turned or flipped shapes give moved, turned or flipped results") {
    holds("moved", exact_polygons, [](const Regions& a, const Regions&) {
        const auto away = [](Point p) { return Point{p.x + 7777, p.y - 3333}; };
        return broken_unless(unite(each_point(a, away)) == each_point(unite(a), away), "another result");
    });
    holds("turned by a quarter, back and forth", exact_polygons, [](const Regions& a, const Regions&) {
        const auto turned = [](Point p) { return Point{-p.y, p.x}; };
        const auto back = [](Point p) { return Point{p.y, -p.x}; };
        return broken_unless(unite(each_point(unite(each_point(a, turned)), back)) == unite(a), "another result");
    });
}

TEST_CASE("pieces, boxes and triangles cover any region exactly") {
    holds("their areas add up", exact_polygons, [](const Regions& some, const Regions& other) -> std::string {
        const Regions a = unite(some);
        const int most = 3 + static_cast<int>(other.size() % 9);
        if (twice_area_of(convex_pieces(a, most)) != twice_area(a)) return "pieces";
        if (twice_area_of(triangles(a)) != twice_area(a)) return "triangles";
        if (triangles(a).size() != delaunay_triangles(a).triangles.size()) return "the number of Delaunay triangles";
        const Boxes boxes = least_boxes(a, most);
        std::int64_t twice = twice_area_of(boxes.rests);
        for (const Bounds& box : boxes.boxes)
            twice += 2 * (std::int64_t{box.most.x} - box.least.x) * (std::int64_t{box.most.y} - box.least.y);
        return broken_unless(twice == twice_area(a), "boxes");
    });
}

// Laws of the geometry on random shapes that shrink: what fails is reported as its smallest form.
#include <rapidcheck.h>
#include <catch2/catch.hpp>

#include <sstream>

#include "chance.hpp"
#include "dryground/geometry.hpp"
#include "oracles.hpp"

using namespace dryground;

namespace {

// Coordinates near each other, so that shapes meet, and now and then at the limits.
rc::Gen<std::int32_t> coordinate() {
    return rc::gen::weightedOneOf<std::int32_t>(
        {{12, rc::gen::inRange(-40, 41)},
         {3, rc::gen::map(rc::gen::inRange(-9, 10), [](int n) { return n * 256; })},
         {1, rc::gen::element(-coordinate_limit, coordinate_limit)}});
}
rc::Gen<Point> point() { return rc::gen::construct<Point>(coordinate(), coordinate()); }

// Polygons that may overlap each other, each valid by itself.
rc::Gen<Regions> polygons() {
    const auto ring = rc::gen::map(rc::gen::resize(9, rc::gen::container<Ring>(point())), [](Ring points) {
        return inspect(points).fault == RingFault::none ? std::move(points) : Ring{};
    });
    return rc::gen::map(rc::gen::resize(12, rc::gen::container<std::vector<Ring>>(ring)), [](std::vector<Ring> rings) {
        Regions regions;
        for (Ring& one : rings)
            if (!one.empty()) regions.push_back({std::move(one), {}});
        return regions;
    });
}
// On a grid of 45 degrees, where all crossings are on the lattice.
rc::Gen<Regions> exact_polygons() {
    const auto corner = rc::gen::map(rc::gen::inRange(0, 30), [](int n) { return n * 512; });
    const auto box = rc::gen::map(rc::gen::tuple(corner, corner, rc::gen::inRange(1, 9), rc::gen::inRange(0, 3)),
                                  [](const std::tuple<int, int, int, int>& t) {
                                      const auto [x, y, half, sort] = t;
                                      const int r = half * 512;
                                      if (sort == 0) return box_region({x, y}, {x + r, y + r});
                                      if (sort == 1) return Region{{{x, y}, {x + r, y + r}, {x, y + r}}, {}};
                                      return Region{{{x, y - r}, {x + r, y}, {x, y + r}, {x - r, y}}, {}};
                                  });
    return rc::gen::container<Regions>(box);
}

// RapidCheck finds and shrinks what breaks a law, Catch tells it.
template <class Law>
void holds(const std::string& name, Law law) {
    rc::detail::TestParams how;
    how.seed = chance::seed();
    how.maxSuccess = chance::rounds(300);
    const auto result = rc::detail::checkTestable(law, rc::detail::TestMetadata{name, name}, how);
    std::ostringstream told;
    rc::detail::printResultMessage(result, told);
    INFO(name << ": " << told.str());
    CHECK(result.template is<rc::detail::SuccessResult>());
}

// That regions keep all promises, by our own check of each and by GEOS.
void keeps_promises(const Regions& regions) {
    RC_ASSERT(oracle::broken_promise(regions) == "");
    RC_ASSERT(oracle::geos_fault(regions) == "");
}

Regions each_point(Regions regions, Point (*change)(Point)) {
    for (Region& region : regions) {
        for (Point& p : region.outline) p = change(p);
        for (Ring& hole : region.holes)
            for (Point& p : hole) p = change(p);
    }
    return regions;
}

}   // namespace

TEST_CASE("whatever the polygons, results keep their promises") {
    holds("united", [] { keeps_promises(unite(*polygons())); });
    holds("subtracted", [] { keeps_promises(subtract(*polygons(), *polygons())); });
    holds("intersected", [] { keeps_promises(intersect(*polygons(), *polygons())); });
}

TEST_CASE("booleans obey the laws of sets") {
    holds("the order does not matter", [] {
        const Regions a = *polygons(), b = *polygons();
        RC_ASSERT(unite(a, b) == unite(b, a));
        RC_ASSERT(intersect(a, b) == intersect(b, a));
    });
    holds("once more changes nothing", [] {
        const Regions a = unite(*polygons());
        RC_ASSERT(unite(a, a) == a);
        RC_ASSERT(intersect(a, a) == a);
        RC_ASSERT(subtract(a, a).empty());
    });
    holds("where crossings are on the lattice, parts make up the whole", [] {
        const Regions a = *exact_polygons(), b = *exact_polygons();
        const Regions both = intersect(a, b), rest = subtract(a, b), all = unite(a, b);
        RC_ASSERT(twice_area(both) + twice_area(rest) == twice_area(unite(a)));
        RC_ASSERT(twice_area(rest) + twice_area(unite(b)) == twice_area(all));
        RC_ASSERT(unite(both, rest) == unite(a));
    });
}

TEST_CASE("where crossings are on the lattice, areas are those of other libraries") {
    holds("the union", [] {
        const Regions a = *exact_polygons();
        RC_ASSERT(static_cast<double>(twice_area(unite(a))) / 2 == oracle::boost_union_area(a));
        RC_ASSERT(static_cast<double>(twice_area(unite(a))) / 2 == oracle::geos_union(a).area);
    });
    holds("the difference", [] {
        const Regions a = *exact_polygons(), b = *exact_polygons();
        RC_ASSERT(static_cast<double>(twice_area(subtract(a, b))) / 2 == oracle::boost_difference_area(a, b));
    });
}

TEST_CASE("moved, turned or flipped shapes give moved, turned or flipped results") {
    holds("moved", [] {
        const Regions a = *exact_polygons();
        const auto away = [](Point p) { return Point{p.x + 7777, p.y - 3333}; };
        RC_ASSERT(unite(each_point(a, away)) == each_point(unite(a), away));
    });
    holds("turned by a quarter, back and forth", [] {
        const auto turned = [](Point p) { return Point{-p.y, p.x}; };
        const auto back = [](Point p) { return Point{p.y, -p.x}; };
        const Regions a = *exact_polygons();
        RC_ASSERT(unite(each_point(unite(each_point(a, turned)), back)) == unite(a));
    });
}

TEST_CASE("pieces, boxes and triangles cover any region exactly") {
    holds("their areas add up", [] {
        const Regions a = unite(*exact_polygons());
        const auto sum = [](const std::vector<Ring>& rings) {
            std::int64_t twice = 0;
            for (const Ring& ring : rings) twice += twice_area(ring);
            return twice;
        };
        const int most = *rc::gen::inRange(3, 12);
        RC_ASSERT(sum(convex_pieces(a, most)) == twice_area(a));
        RC_ASSERT(sum(triangles(a)) == twice_area(a));
        RC_ASSERT(triangles(a).size() == delaunay_triangles(a).triangles.size());
        const Boxes boxes = least_boxes(a, most);
        std::int64_t twice = sum(boxes.rests);
        for (const Bounds& box : boxes.boxes)
            twice += 2 * (std::int64_t{box.most.x} - box.least.x) * (std::int64_t{box.most.y} - box.least.y);
        RC_ASSERT(twice == twice_area(a));
    });
}

// Feet that stand in the grass, and walls that keep bodies away: what a layer makes of its solids, all together.
//
// Idea. A place stays if, moved by each of the layer's sinks, it is still in what the solids cover together; so nothing
// is drawn in between neighbours. What is left is added to a polygon of lattice points (of a circle, or a square) by
// Minkowski sum: exact, and the sum of many is the union of the sums, so that ground may be grown piece by piece,
// whatever stands elsewhere. So only what lies nearer than the greatest sink and the growth together matters.

#include <algorithm>
#include <cmath>

#include "../geometry/boolean_internal.hpp"
#include "../geometry/box_index_internal.hpp"
#include "../geometry/ring_internal.hpp"
#include "ground_internal.hpp"

namespace dryground::ground {

namespace {

bool sinks(const Layer& layer) { return layer.sink != std::array<std::int32_t, 4>{}; }

Regions drawn_in(const Layer& layer, const Regions& all) {
    const auto& [left, top, right, bottom] = layer.sink;
    Regions rest = all;
    for (const Point by : {Point{left, 0}, Point{0, top}, Point{-right, 0}, Point{0, -bottom}})
        if (by != Point{}) rest = detail::intersect_proper(rest, moved(all, by));
    return rest;
}

// Returns the shape that each point becomes; symmetric, so that it does not matter that `reach` mirrors bodies.
Ring grown_point(const Growth& grow) {
    if (grow.corners == Growth::Corner::box)
        return {{-grow.by, -grow.by}, {grow.by, -grow.by}, {grow.by, grow.by}, {-grow.by, grow.by}};
    return ellipse_ring({0, 0}, grow.by, grow.by, grow.within_px);
}

// In steps: longer holes are left, so that nothing farther away has a say.
std::int32_t longest_hole(const Layer& layer) {
    return static_cast<std::int32_t>(std::ceil(4 * std::sqrt(layer.fill_px2) * steps_per_px));
}

// Crossings of edges off the lattice are rounded: a vertex of a hole lies so near to what it is a corner of, in steps.
constexpr std::int32_t touching = 2;

bool is_near(Point p, Point a, Point b) {
    const double wx = double{0} + b.x - a.x, wy = double{0} + b.y - a.y, px = double{0} + p.x - a.x,
                 py = double{0} + p.y - a.y;
    const double length = wx * wx + wy * wy;
    const double t = length == 0 ? 0 : std::clamp((px * wx + py * wy) / length, 0.0, 1.0);
    return std::hypot(px - t * wx, py - t * wy) <= touching;
}

template <class Test>   // of each vertex of a region, until it gives true
bool any_vertex(const Region& region, Test test) {
    return std::any_of(region.outline.begin(), region.outline.end(), test) ||
           std::any_of(region.holes.begin(), region.holes.end(),
                       [&](const Ring& ring) { return std::any_of(ring.begin(), ring.end(), test); });
}

// The edges of regions, to ask which holes they stand around.
class Outlines {
public:
    explicit Outlines(const Regions& regions) {
        detail::each_edge(regions, [&](Point a, Point b) { edges_.push_back({a, b}); });
        std::vector<Bounds> boxes;
        for (const auto& edge : edges_) boxes.push_back(detail::box_around(edge));
        near_ = detail::BoxIndex(std::move(boxes));
    }
    [[nodiscard]] bool stand_around(const Region& hole) const {
        return any_vertex(hole, [&](Point p) {
            return near_.any_near(detail::grown({p, p}, touching),
                                  [&](std::size_t i) { return is_near(p, edges_[i][0], edges_[i][1]); });
        });
    }

private:
    std::vector<std::array<Point, 2>> edges_;
    detail::BoxIndex near_;
};

}   // namespace

bool directs_lines(const Layer& layer) { return layer.one_way != OneWay::none; }

bool fills_holes(const Layer& layer) { return layer.fill_px2 > 0; }

bool reshapes(const Layer& layer) { return sinks(layer) || layer.grow.by > 0 || fills_holes(layer); }

std::int32_t growth_reach(const Layer& layer, bool with_holes) {
    return layer.grow.by + (with_holes ? longest_hole(layer) : 0);
}

std::int32_t reshaping_reach(const Layer& layer, bool with_holes) {
    return *std::max_element(layer.sink.begin(), layer.sink.end()) + growth_reach(layer, with_holes);
}

Regions drawn_and_grown(const Layer& layer, const Regions& own, const Regions& all, bool alone) {
    const Regions left_of_all = drawn_in(layer, all);
    Regions left = alone ? left_of_all : detail::intersect_proper(own, left_of_all);
    if (layer.grow.by == 0 || left.empty()) return left;
    Regions sum = reach(left, grown_point(layer.grow));
    if (alone) return sum;
    const Regions more = detail::subtract_proper(sum, left_of_all);
    left.insert(left.end(), more.begin(), more.end());
    return detail::unite_proper(left);
}

bool stands_around(std::span<const Point> ring, const Region& hole) {
    return any_vertex(hole, [&](Point p) {
        bool inside = true;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i], b = ring[(i + 1) % ring.size()];
            if (is_near(p, a, b)) return true;
            inside = inside && turn(a, b, p) != Turn::right;
        }
        return inside;
    });
}

Regions small_holes(const Layer& layer, const Regions& shaped) {
    const std::int64_t most = std::llround(2 * layer.fill_px2 * steps_per_px * steps_per_px);
    const std::int32_t longest = longest_hole(layer);
    std::vector<Bounds> boxes;
    for (const Region& region : shaped) boxes.push_back(detail::box_around(region.outline));
    const detail::BoxIndex islands(boxes);
    Regions small;
    for (const Region& region : shaped)
        for (const Ring& ring : region.holes) {
            const Bounds box = detail::box_around(ring);
            if (box.most.x - box.least.x > longest || box.most.y - box.least.y > longest) continue;
            const Regions hole{{Ring(ring.rbegin(), ring.rend()), {}}};
            Regions inside;   // what stands in it
            islands.each_near(box, [&](std::size_t i) {
                if (&shaped[i] != &region) inside.push_back(shaped[i]);
            });
            for (const Region& open : inside.empty() ? hole : detail::subtract_proper(hole, inside))
                if (twice_area(Regions{open}) <= most) small.push_back(open);
        }
    return small;
}

Regions reshaped(const Layer& layer, const Regions& own, const Regions& all, bool alone) {
    Regions shaped = drawn_and_grown(layer, own, all, alone);
    if (!fills_holes(layer) || shaped.empty()) return shaped;
    Regions holes = small_holes(layer, alone ? shaped : drawn_and_grown(layer, all, all, true));
    if (!alone) {
        const Outlines outlines(shaped);
        std::erase_if(holes, [&](const Region& hole) { return !outlines.stand_around(hole); });
    }
    if (holes.empty()) return shaped;
    shaped.insert(shaped.end(), holes.begin(), holes.end());
    return detail::unite_proper(shaped);
}

}   // namespace dryground::ground

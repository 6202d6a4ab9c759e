// Feet that stand in the grass, and walls that keep bodies away: what a layer makes of its solids, all together.
//
// Idea. A place stays when, moved by each of the layer's sinks, it is still in what the solids cover together; so that
// nothing is drawn in between neighbours. What is left grows by the sum with a polygon of lattice points (a circle's,
// or a square): exact, and the sum of many is the sum of each, so that ground may be grown piece by piece, whatever
// stands elsewhere. So only what lies nearer than the greatest sink and the growth together has a say.

#include <algorithm>

#include "../geometry/boolean_internal.hpp"
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

// What each point becomes; symmetric, so that it does not matter that `reach` mirrors bodies.
Ring grown_point(const Growth& grow) {
    if (grow.corners == Growth::Corner::box)
        return {{-grow.by, -grow.by}, {grow.by, -grow.by}, {grow.by, grow.by}, {-grow.by, grow.by}};
    return ellipse_ring({0, 0}, grow.by, grow.by, grow.within_px);
}

}   // namespace

bool directs_lines(const Layer& layer) { return layer.one_way != OneWay::none; }

bool reshapes(const Layer& layer) { return sinks(layer) || layer.grow.by > 0; }

std::int32_t growth_reach(const Layer& layer) { return layer.grow.by; }

std::int32_t reshaping_reach(const Layer& layer) {
    return *std::max_element(layer.sink.begin(), layer.sink.end()) + growth_reach(layer);
}

Regions reshaped(const Layer& layer, const Regions& own, const Regions& all, bool alone) {
    const Regions left_of_all = drawn_in(layer, all);
    Regions left = alone ? left_of_all : detail::intersect_proper(own, left_of_all);
    if (layer.grow.by == 0 || left.empty()) return left;
    const Regions sum = reach(left, grown_point(layer.grow));
    if (alone) return sum;
    const Regions more = detail::subtract_proper(sum, left_of_all);
    left.insert(left.end(), more.begin(), more.end());
    return detail::unite_proper(left);
}

}   // namespace dryground::ground

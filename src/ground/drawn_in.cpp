// Feet that stand in the grass: what stays of a layer's solids when they are drawn in.
//
// Idea. A place stays when, moved by each of the layer's sinks, it is still in what the solids cover together; so that
// nothing is drawn in between neighbours, and only what lies nearer than the greatest sink has a say.

#include <algorithm>

#include "../geometry/boolean_internal.hpp"
#include "ground_internal.hpp"

namespace dryground::ground {

bool directs_lines(const Layer& layer) { return layer.one_way != OneWay::none; }

bool sinks(const Layer& layer) { return layer.sink != std::array<std::int32_t, 4>{}; }

std::int32_t sink_reach(const Layer& layer) { return *std::max_element(layer.sink.begin(), layer.sink.end()); }

Regions drawn_in(const Layer& layer, const Regions& all) {
    const auto& [left, top, right, bottom] = layer.sink;
    Regions rest = all;
    for (const Point by : {Point{left, 0}, Point{0, top}, Point{-right, 0}, Point{0, -bottom}})
        if (by != Point{}) rest = detail::intersect_proper(rest, moved(all, by));
    return rest;
}

}   // namespace dryground::ground

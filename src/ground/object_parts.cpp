// What an object puts on the ground, and the rim around a map.
//
// An object's area holds its layer's `offset` already; `shape_offset` is added here.

#include "ground_internal.hpp"

namespace dryground::ground {

namespace {

// Returns the map's area with the ring of its rim around it.
Regions with_rim(const Map& map) { return {{map.block_ring(-1, -1, map.columns + 2, map.rows + 2), {}}}; }

}   // namespace

Parts parts_of(const Map& map, const Object& object) {
    Parts result;
    for (const auto& [barrier, area] : object.carves)
        result.parts.push_back({false, barrier, {}, OneWay::none, {}, area, {}});
    if (object.role != Role::solid) return result;
    if ((object.area.empty() && object.line.empty()) || object.barrier == BarrierId::none) {
        ++result.left_out;
        return result;
    }
    const Layer& layer = map.layer(object.layer);
    Part part{true, object.barrier, {}, OneWay::none, object.surface ? object.surface : layer.surface, {}, object.line};
    for (Point& p : part.line) p = moved(p, layer.shape_offset);
    if (part.line.empty()) {
        part.area = moved(object.area, layer.shape_offset);
        if (object.hollow) part.area = subtract(with_rim(map), part.area);
    } else {
        part.one_way = layer.one_way;
    }
    result.parts.push_back(std::move(part));
    return result;
}

bool fills_shape(const Object& object) { return !object.hollow; }

bool says_edge(const Map& map) { return map.rim != RimSort::none; }

bool has_rim(const Map& map) { return map.rim == RimSort::barrier; }

BarrierId rim_barrier(const Map& map) { return map.rim_barrier; }

Part rim_of(const Map& map) {
    Part rim;
    rim.barrier = map.rim_barrier;
    rim.area = subtract(with_rim(map), Regions{{map.block_ring(0, 0, map.columns, map.rows), {}}});
    return rim;
}

}   // namespace dryground::ground

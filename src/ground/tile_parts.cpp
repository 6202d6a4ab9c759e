// What a tile puts on the ground where it stands.
//
// A tile's shapes are declared from the corner of its cell; flips, turns and the layer's offsets are applied here, once
// for each entry of the palette.

#include <algorithm>

#include "../geometry/bounds_internal.hpp"
#include "../model/orientation_internal.hpp"
#include "ground_internal.hpp"

namespace dryground::ground {

namespace {

Point negated(Point p) { return {-p.x, -p.y}; }

// A tile as it stands in a layer: relative to the corner of its cell, offsets included.
class Standing {
public:
    Standing(const Map& map, const Layer& layer, const Orientation& orientation)
        : orientation_(orientation),
          width_(map.cell_width * steps_per_px),
          height_(map.cell_height * steps_per_px),
          shift_(moved(layer.offset, layer.shape_offset)),
          box_(moved(moved(map.box_corner(0, 0), negated(map.corner(0, 0))), shift_)),
          cell_(map.cell_ring(0, 0)) {
        for (Point& p : cell_) p = moved(p, moved(shift_, negated(map.corner(0, 0))));
    }
    [[nodiscard]] Regions area(const Shape& shape) const {
        if (shape.whole_cell) return {{cell_, {}}};
        return moved(detail::oriented(shape.area, width_, height_, orientation_), box_);
    }
    [[nodiscard]] Ring line(const Shape& shape) const {
        Ring line = detail::oriented_line(shape.line, width_, height_, orientation_);
        for (Point& p : line) p = moved(p, box_);
        return line;
    }

private:
    Orientation orientation_;
    std::int32_t width_, height_;
    Point shift_, box_;
    Ring cell_;
};

}   // namespace

Bounds box_of(const Part& part) { return part.line.empty() ? *bounds(part.area) : detail::box_around(part.line); }

bool keeps_to_cell(const Map& map, const Regions& area) {
    const Point origin = map.corner(0, 0);
    const auto corner = [&](int column, int row) {
        return Point{map.corner(column, row).x - origin.x, map.corner(column, row).y - origin.y};
    };
    const Point right = corner(1, 0), down = corner(0, 1), far = corner(1, 1);
    for (const Region& region : area)
        for (const Point p : region.outline)
            if (turn({0, 0}, right, p) == Turn::right || turn(down, far, p) == Turn::left ||
                turn({0, 0}, down, p) == Turn::left || turn(right, far, p) == Turn::right)
                return false;
    return true;
}

Bounds reach_of(const Map& map, const Bounds& from_corner) {
    const Bounds box = detail::moved(from_corner, map.corner(0, 0)), cell = map.cell_box(0, 0);
    return {{std::min(box.least.x - cell.least.x, 0), std::min(box.least.y - cell.least.y, 0)},
            {std::max(box.most.x - cell.most.x, 0), std::max(box.most.y - cell.most.y, 0)}};
}

bool is_open(const Tile& tile, const Facts& facts) {
    return !tile.needs.empty() && std::all_of(tile.needs.begin(), tile.needs.end(), [&](FactId fact) {
        return std::binary_search(facts.begin(), facts.end(), fact);
    });
}

std::vector<Meaning> meanings_of(const Tile& tile) {
    std::vector<Meaning> meanings;
    for (const Carve& carve : tile.carves)
        meanings.push_back({&carve.shape, false, carve.barrier, {}, OneWay::none, {}});
    for (const Shape& shape : tile.shapes)
        meanings.push_back({&shape, true, shape.trigger.empty() ? shape.barrier : BarrierId::none, shape.trigger,
                            shape.one_way, shape.surface});
    return meanings;
}

std::vector<Meaning> meanings_of(const Tile& tile, const Layer& layer, const Orientation& orientation) {
    std::vector<Meaning> meanings = meanings_of(tile);
    for (Meaning& meaning : meanings) {
        if (!meaning.adds) continue;
        if (meaning.trigger.empty()) meaning.trigger = layer.trigger;
        if (!meaning.trigger.empty()) {
            meaning.barrier = BarrierId::none;
            meaning.surface.reset();
        } else {
            if (meaning.barrier == BarrierId::none) meaning.barrier = layer.barrier;
            if (!meaning.surface) meaning.surface = layer.surface;
        }
        // The layer's direction refers to the map, whatever flips and turns its tiles have.
        if (!meaning.shape->line.empty())
            meaning.one_way =
                meaning.one_way == OneWay::none ? layer.one_way : detail::oriented(meaning.one_way, orientation);
    }
    return meanings;
}

Parts parts_of(const World& world, const Map& map, const Layer& layer, const Placed& placed, const Facts& facts) {
    Parts result;
    const Tile& tile = world.tile(placed);
    if (tile.stands_for != KindId::none) return result;   // an object stands in its place
    const Standing standing(map, layer, placed.orientation);
    const bool open = is_open(tile, facts);
    for (Meaning& meaning : meanings_of(tile, layer, placed.orientation)) {
        const bool senses = !meaning.trigger.empty();
        if (meaning.adds && open && !senses) continue;
        if (meaning.shape->fault != ShapeFault::none || (!senses && meaning.barrier == BarrierId::none)) {
            if (meaning.adds) ++result.left_out;
            continue;
        }
        Part part{meaning.adds, meaning.barrier, std::move(meaning.trigger), meaning.one_way, meaning.surface, {}, {}};
        if (meaning.shape->line.empty())
            part.area = standing.area(*meaning.shape);
        else
            part.line = standing.line(*meaning.shape);
        result.parts.push_back(std::move(part));
    }
    return result;
}

Bounds changed_by(const World& world, const Map& map, const Layer& layer, const Placed& placed) {
    Bounds box = detail::moved(map.cell_box(0, 0), negated(map.corner(0, 0)));
    if (placed.tile >= 0)
        for (const Part& part : parts_of(world, map, layer, placed, {}).parts) box = detail::both(box, box_of(part));
    return detail::grown(box, reshaping_reach(layer));
}

}   // namespace dryground::ground

namespace dryground {

Regions placed_area(const Map& map, const Layer& layer, const Shape& shape, int column, int row) {
    return moved(ground::Standing(map, layer, map.placed(layer, column, row).orientation).area(shape),
                 map.corner(column, row));
}

Ring placed_line(const Map& map, const Layer& layer, const Shape& shape, int column, int row) {
    Ring line = ground::Standing(map, layer, map.placed(layer, column, row).orientation).line(shape);
    for (Point& p : line) p = moved(p, map.corner(column, row));
    return line;
}

}   // namespace dryground

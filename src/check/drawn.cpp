// Rules about outlines as they are drawn: edges with saw teeth, corners a hair beside those of cells.

#include <fmt/format.h>

#include <algorithm>

#include "../geometry/ring_internal.hpp"
#include "rules_internal.hpp"

namespace dryground::check_rules {

namespace {

// ---- saw teeth ----

struct Teeth {
    std::size_t edges = 0;
    Point from, to;   // the straight line that they run along
};

// Returns whether all vertices from i on lie within a px of the straight line from the first to the last.
bool is_nearly_straight(const Ring& ring, std::size_t i, std::size_t edges) {
    const std::size_t n = ring.size();
    const Point a = ring[i], b = ring[(i + edges) % n];
    const double dx = double{0} + b.x - a.x, dy = double{0} + b.y - a.y, length = std::hypot(dx, dy);
    if (length == 0) return false;
    for (std::size_t k = 1; k < edges; ++k) {
        const Point p = ring[(i + k) % n];
        const double beside = (dx * (double{0} + p.y - a.y) - dy * (double{0} + p.x - a.x)) / length;
        if (std::abs(beside) > steps_per_px) return false;
    }
    return true;
}

// Returns the longest run of short edges that zigzag along a straight line; cost: O(n) runs, each proportional to its
// length.
Teeth teeth_of(const Ring& ring) {
    constexpr std::size_t least_edges = 5;
    constexpr double longest = 6.0 * steps_per_px;
    const std::size_t n = ring.size();
    Teeth worst;
    if (n < least_edges + 2) return worst;
    const auto at = [&](std::size_t i) { return ring[i % n]; };
    const auto short_edge = [&](std::size_t i) {
        return std::hypot(double{0} + at(i + 1).x - at(i).x, double{0} + at(i + 1).y - at(i).y) <= longest;
    };
    for (std::size_t i = 0; i < n; ++i) {
        std::size_t edges = 0;
        while (edges < n - 1 && short_edge(i + edges)) {
            const bool goes_on = edges < 2 || turn(at(i + edges - 2), at(i + edges - 1), at(i + edges)) ==
                                                  opposite(turn(at(i + edges - 1), at(i + edges), at(i + edges + 1)));
            if (edges >= 2 && !goes_on) break;
            ++edges;
        }
        while (edges >= least_edges && !is_nearly_straight(ring, i, edges)) --edges;
        if (edges >= least_edges && edges > worst.edges) worst = {edges, at(i), at(i + edges)};
    }
    return worst;
}

Teeth teeth_of(const Regions& area) {
    Teeth worst;
    const auto look = [&](const Ring& ring) {
        if (const Teeth here = teeth_of(ring); here.edges > worst.edges) worst = here;
    };
    detail::each_ring(area, look);
    return worst;
}

Hint mend_of(const Teeth& teeth, bool traced) {
    return traced ? Hint{"trace it more loosely", "within_px = 0.75"}
                  : Hint{fmt::format("draw the straight edge from {} to {}", at_px(teeth.from), at_px(teeth.to)), ""};
}

// ---- corners beside those of cells ----

struct Beside {
    Point is, should_be;
};

std::int32_t nearest(std::int32_t value, std::int32_t step) {
    const std::int32_t rest = ((value % step) + step) % step;
    return rest * 2 < step ? value - rest : value - rest + step;
}

std::vector<Point> corners_of(const Object& object) {
    constexpr std::size_t most = 24;   // more are a curve
    std::vector<Point> corners = object.line;
    detail::each_vertex(object.area, [&](Point p) { corners.push_back(p); });
    return corners.size() <= most ? corners : std::vector<Point>();
}

void check_near_cells(const World& world, const Map& map, std::size_t layer, Findings& findings) {
    const std::int32_t wide = map.cell_width * steps_per_px / map.cell_parts;
    const std::int32_t high = map.cell_height * steps_per_px / map.cell_parts;
    if (map.grid != GridSort::square || wide < 4 * steps_per_px || high < 4 * steps_per_px) return;
    std::size_t on = 0, all = 0;
    std::vector<std::pair<const Object*, Beside>> beside;   // of each object the first
    for (const Object& object : map.objects) {
        if (object.layer != id_of<LayerId>(layer) || !object.drawn || object.fault != ShapeFault::none) continue;
        const std::vector<Point> corners = corners_of(object);
        std::size_t here = 0;
        std::optional<Beside> first;
        for (const Point p : corners) {
            const Point cell{nearest(p.x, wide), nearest(p.y, high)};
            if (p == cell) ++here;
            const bool near = std::abs(p.x - cell.x) < steps_per_px && std::abs(p.y - cell.y) < steps_per_px;
            if (p != cell && near && !first) first = Beside{p, cell};
        }
        if (2 * here < corners.size()) continue;   // a curve, or drawn freely
        on += here, all += corners.size();
        if (first) beside.emplace_back(&object, *first);
    }
    if (all < 4 || 2 * on <= all) return;
    for (const auto& [object, corner] : beside) {
        Finding finding = start_object(findings, Rule::near_cell, map, *object, object->place_of_position,
                                       {words_of(world, *object), at_px(corner.is)});
        finding.hint = Hint{"on the cell", at_px(corner.should_be)};
        findings.add(std::move(finding));
    }
}

}   // namespace

void check_drawn(const World& world, Findings& findings) {
    for (const TileSet& set : world.tilesets())
        for (const Tile& tile : set.tiles)
            for (const Shape& shape : tile.shapes) {
                const Teeth teeth = teeth_of(shape.area);
                if (teeth.edges == 0) continue;
                Finding finding = findings.start(
                    Rule::saw_teeth, shape.place, thing_of(set, tile),
                    {fmt::format("{} of tile '{}'", shape.words, tile.name), fmt::format("{}", teeth.edges)});
                finding.hint = mend_of(teeth, shape.words == "trace");
                findings.add(std::move(finding));
            }
    for (const Map& map : world.maps()) {
        for (const Object& object : map.objects) {
            const Teeth teeth = object.drawn && object.role != Role::trigger ? teeth_of(object.area) : Teeth{};
            if (teeth.edges == 0) continue;
            Finding finding = start_object(findings, Rule::saw_teeth, map, object, object.place_of_position,
                                           {words_of(world, object), fmt::format("{}", teeth.edges)});
            finding.hint = mend_of(teeth, false);
            findings.add(std::move(finding));
        }
        for (std::size_t l = 0; l < map.layers.size(); ++l) check_near_cells(world, map, l, findings);
    }
}

}   // namespace dryground::check_rules

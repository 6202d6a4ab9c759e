// Where a mover's body fits, by ground alone.
//
// Idea. The ground grown by the mirrored body is where the body's position cannot be (geometry/reach.cpp); the parts of
// what is left are where it fits. Cost: see fitting_internal.hpp.

#include "fitting_internal.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "../geometry/boolean_internal.hpp"
#include "funnel_internal.hpp"
#include "obstacles_internal.hpp"

namespace dryground::travel {

namespace {

// Where a body that touches the ground is beside it: tried in this order.
constexpr std::array on_or_beside{Point{0, 0}, Point{0, -2}, Point{0, 2}, Point{-2, 0}, Point{2, 0}};

std::optional<Point> place_in(const Region& region, Point p) {
    for (const Point by : on_or_beside)
        if (locate({&region, 1}, moved(p, by)) == Side::inside) return moved(p, by);
    return std::nullopt;
}

// Returns the nearest corner of what lies outside a region of positions.
std::optional<Point> nearest_outside(const Region& region, const Ring& overlaps_map, Point from) {
    std::optional<Point> best;
    double nearest = 1e300;
    for (const Region& part : subtract(Regions{region}, Regions{{overlaps_map, {}}}))
        for (const Point p : part.outline) {
            const double far = std::hypot(double{0} + p.x - from.x, double{0} + p.y - from.y);
            if (far < nearest) nearest = far, best = p;
        }
    return best;
}

}   // namespace

Regions fitting(const Regions& positions, const Regions& ground, const Mover& mover) {
    if (positions.empty() || ground.empty()) return positions;
    return subtract(positions, reach(ground, with_play(mover.body.front().outline)));
}

std::optional<Point> way_out(const Map& map, const Regions& ground, std::span<const Ring> lines, const Mover& mover,
                             const std::vector<Point>& from) {
    const Ring body = with_play(mover.body.front().outline);
    std::vector<Ring> ways = detail::ways_around(ground, body);
    for (const Ring& line : lines)
        for (std::size_t i = 0; i + 1 < line.size(); ++i) ways.push_back(sum_with(std::span(line).subspan(i, 2), body));
    const Ring overlaps_map = sum_with(map.block_ring(0, 0, map.columns, map.rows), body);
    const Bounds frame = detail::grown(detail::box_around(overlaps_map), 8 * steps_per_px);
    const Regions free = subtract(Regions{box_region(frame.least, frame.most)}, detail::wound_around(ways));
    for (const Point start : from)
        for (const Region& region : free) {
            const std::optional<Point> first = place_in(region, start);
            if (!first) continue;
            const std::optional<Point> last = nearest_outside(region, overlaps_map, *first);
            if (!last) break;
            const Ring way = way_inside(region, *first, *last);
            for (std::size_t i = 0; i + 1 < way.size(); ++i) {
                const auto inside = inside_of(overlaps_map, way[i], way[i + 1]);
                if (inside && inside->to >= 1) continue;
                const double t = inside ? inside->to : 0;
                return Point{
                    way[i].x + static_cast<std::int32_t>(std::lround(t * (double{0} + way[i + 1].x - way[i].x))),
                    way[i].y + static_cast<std::int32_t>(std::lround(t * (double{0} + way[i + 1].y - way[i].y)))};
            }
            return *last;
        }
    return std::nullopt;
}

std::optional<std::int32_t> falls(const Regions& ground, const std::vector<Ring>& lines, const Mover& mover, Point from,
                                  std::int32_t lowest) {
    if (from.y >= lowest) return std::nullopt;
    Group area, from_above;
    area.regions = unite(ground);   // comes in pieces
    from_above.lines = lines, from_above.one_way = OneWay::up;
    const std::array<Group, 2> groups{std::move(area), std::move(from_above)};
    const double free = Obstacles(groups, StoreyId::ground, mover).free_before(from, {from.x, lowest});
    if (free == 1) return std::nullopt;
    return static_cast<std::int32_t>(std::lround(free * (double{0} + lowest - from.y)));
}

}   // namespace dryground::travel

// Px, steps, areas, bounds, and on which side of regions a point lies.
//
// Guarantee: exact. Cost: O(points).

#include "dryground/geometry.hpp"
#include "ring_internal.hpp"

#include <algorithm>
#include <cmath>

namespace dryground {

bool in_range(double px) {
    return std::abs(px) <= to_px(coordinate_limit);   // false for NaN
}

std::int32_t to_steps(double px) { return static_cast<std::int32_t>(std::lround(px * steps_per_px)); }

std::int32_t step_at(double px) {
    const double step = std::floor(px * steps_per_px);
    if (!(step < double{coordinate_limit})) return coordinate_limit;
    return step < -double{coordinate_limit} ? -coordinate_limit : static_cast<std::int32_t>(step);
}

std::int64_t twice_area(std::span<const Point> ring) {
    // Sums may wrap on the way; the end result of a ring that does not cross itself is at most 2^61, so that
    // arithmetic modulo 2^64 gives it exactly.
    std::uint64_t sum = 0;
    for (std::size_t i = 1; i + 1 < ring.size(); ++i)
        sum += static_cast<std::uint64_t>(cross(ring[0], ring[i], ring[i + 1]));
    return static_cast<std::int64_t>(sum);
}

std::int64_t twice_area(std::span<const Region> regions) {
    std::int64_t sum = 0;
    detail::each_ring(regions, [&](const Ring& ring) { sum += twice_area(ring); });
    return sum;
}

std::optional<Bounds> bounds(std::span<const Region> regions) {
    std::optional<Bounds> result;
    for (const Region& region : regions)
        for (const Point p : region.outline) {
            if (!result) result = Bounds{p, p};
            result->least = {std::min(result->least.x, p.x), std::min(result->least.y, p.y)};
            result->most = {std::max(result->most.x, p.x), std::max(result->most.y, p.y)};
        }
    return result;
}

Ring box_ring(Point least, Point most) { return {least, {most.x, least.y}, most, {least.x, most.y}}; }

Region box_region(Point least, Point most) { return {box_ring(least, most), {}}; }

Regions moved(Regions regions, Point by) {
    for (Region& region : regions) {
        for (Point& p : region.outline) p = moved(p, by);
        for (Ring& hole : region.holes)
            for (Point& p : hole) p = moved(p, by);
    }
    return regions;
}

namespace {

// Counts how often the ray from p toward smaller x meets the ring, by exact side tests; sets `on_edge`.
bool crossed_oddly(std::span<const Point> ring, Point p, bool& on_edge) {
    bool odd = false;
    detail::each_edge_of_ring(ring, [&](Point a, Point b) {
        if (a.y > b.y) std::swap(a, b);
        const Turn side = turn(a, b, p);
        if (side == Turn::straight && p.y >= a.y && p.y <= b.y && p.x >= std::min(a.x, b.x) &&
            p.x <= std::max(a.x, b.x))
            on_edge = true;
        if (a.y <= p.y && p.y < b.y && side == Turn::right) odd = !odd;
    });
    return odd;
}

}   // namespace

Side locate(std::span<const Region> regions, Point p) {
    bool on_any_edge = false;
    for (const Region& region : regions) {
        bool on_edge = false;
        bool inside = crossed_oddly(region.outline, p, on_edge);
        for (const Ring& hole : region.holes)
            if (crossed_oddly(hole, p, on_edge)) inside = false;
        if (inside && !on_edge) return Side::inside;
        on_any_edge = on_any_edge || on_edge;
    }
    return on_any_edge ? Side::edge : Side::outside;
}

}   // namespace dryground

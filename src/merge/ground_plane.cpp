// Geometry laid flat on the ground, in flat coordinates (grid_internal.hpp).
//
// Rings get new first points, and lists a new order, since both are defined by the coordinates. Exact; cost: O(n log n)
// for sorting.

#include "ground_plane_internal.hpp"

#include <algorithm>
#include <stdexcept>

#include "../geometry/arrangement_internal.hpp"
#include "../geometry/ring_internal.hpp"

namespace dryground::detail {

namespace {

void lay_flat(const Grid& grid, Ring& points) {
    for (Point& p : points) p = grid.flat(p);
}

}   // namespace

void test_flat_range(const Map& map, std::int32_t grow) {
    const Grid grid(map);
    for (const Point corner : map.block_ring(0, 0, map.columns, map.rows)) {
        const Point p = grid.flat(corner);
        if (std::max(std::abs(std::int64_t{p.x}), std::abs(std::int64_t{p.y})) +
                std::int64_t{std::max(0, grow)} * grid.factor() >
            coordinate_limit)
            throw std::length_error("merge: on the ground plane, this map leaves the range of coordinates");
    }
}

void lay_flat(const Grid& grid, Regions& regions) {
    const auto ring = [&](Ring& points) {
        lay_flat(grid, points);
        start_at_least(points);
    };
    for (Region& region : regions) {
        ring(region.outline);
        for (Ring& hole : region.holes) ring(hole);
        std::sort(region.holes.begin(), region.holes.end());
    }
    std::sort(regions.begin(), regions.end(), [](const Region& a, const Region& b) { return a.outline < b.outline; });
}

void lay_flat(const Grid& grid, std::vector<Chain>& chains) {
    for (Chain& chain : chains) {
        lay_flat(grid, chain.points);
        if (chain.before) chain.before = grid.flat(*chain.before);
        if (chain.after) chain.after = grid.flat(*chain.after);
        if (!chain.closed) continue;
        start_at_least(chain.points, chain.surfaces);
    }
    std::sort(chains.begin(), chains.end(), [](const Chain& a, const Chain& b) { return a.points < b.points; });
}

void lay_flat(const Grid& grid, std::vector<JoinedLine>& lines) {
    for (JoinedLine& line : lines) lay_flat(grid, line.points);
}

}   // namespace dryground::detail

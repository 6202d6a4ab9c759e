// Regions raised to closed meshes.
//
// Idea. Each region is cut into triangles once; they are its floor and, reversed, its cap. Each edge of a ring becomes
// a wall of two triangles. Coordinates of merged ground have the solid on their left with y down, so that triangles as
// they are look away from where y or z points: down from the floor, as they should. Regions are raised one by one,
// since two that touch at a corner are two solids.
//
// Cost: that of the triangles, O(n log n).

#include "dryground/raise.hpp"

#include <algorithm>
#include <cmath>
#include <stdexcept>
#include <utility>

#include "../geometry/ring_internal.hpp"
#include "../model/grid_internal.hpp"

namespace dryground {

namespace {

class Raiser {
public:
    Raiser(const Frame& frame, const Heights& heights) : frame_(frame), heights_(heights) {}

    void add(const Region& region) {
        const Mesh mesh = delaunay_triangles({&region, 1});
        const auto first = static_cast<std::uint32_t>(solid_.points.size());
        for (const Point p : mesh.points) {   // sorted
            solid_.points.push_back(frame_.place(p, heights_.base));
            solid_.points.push_back(frame_.place(p, heights_.base + heights_.height));
        }
        for (const auto& [a, b, c] : mesh.triangles) {
            solid_.triangles.push_back({first + 2 * a, first + 2 * b, first + 2 * c});
            solid_.triangles.push_back({first + 2 * a + 1, first + 2 * c + 1, first + 2 * b + 1});
        }
        add_walls(region.outline, mesh.points, first);
        for (const Ring& hole : region.holes) add_walls(hole, mesh.points, first);
    }

    Solid take() { return std::move(solid_); }

private:
    void add_walls(const Ring& ring, const std::vector<Point>& points, std::uint32_t first) {
        const auto number = [&](Point p) {
            return first +
                   2 * static_cast<std::uint32_t>(std::lower_bound(points.begin(), points.end(), p) - points.begin());
        };
        detail::each_edge_of_ring(ring, [&](Point from, Point to) {
            const std::uint32_t a = number(from), b = number(to);
            solid_.triangles.push_back({b, a, a + 1});
            solid_.triangles.push_back({b, a + 1, b + 1});
        });
    }

    const Frame& frame_;
    const Heights& heights_;
    Solid solid_;
};

}   // namespace

Frame frame_of(const World& world, const Map& map, Pose pose, Plane merged_on) {
    if (pose == Pose::upright && merged_on == Plane::ground)
        throw std::invalid_argument("frame_of: a map that stands upright is merged on the screen's plane");
    const double per_metre = world.per_metre();
    Frame frame;
    frame.pose = pose;
    frame.across = frame.down = steps_per_px * per_metre;
    frame.px = {per_metre, 0, 0, per_metre};
    if (pose == Pose::upright || map.grid != GridSort::isometric) return frame;
    const detail::Grid grid(map);
    if (merged_on == Plane::screen) {
        const Point x = grid.flat({1, 0}), y = grid.flat({0, 1});
        frame.laid = {x.x, y.x, x.y, y.y};
    }
    const double side_m = map.cell_width / std::sqrt(2.0) / per_metre;   // of a cell
    frame.across = grid.width() / side_m, frame.down = grid.height() / side_m;
    // A column is half a diamond to the lower right, a row half a diamond to the lower left.
    const double x = map.cell_width / 2.0 / side_m, y = map.cell_height / 2.0 / side_m;
    frame.px = {x, -x, y, y};
    return frame;
}

Heights heights_of(const World& world, StoreyId storey, std::optional<double> height_px) {
    const Storey& of = world.storeys().at(index(storey));
    return {of.base_px / world.per_metre(), height_px.value_or(of.height_px) / world.per_metre()};
}

Solid raised(std::span<const Region> regions, const Frame& frame, const Heights& heights) {
    if (!(heights.height > 0)) throw std::invalid_argument("raised: the height must be above 0");
    Raiser raiser(frame, heights);
    for (const Region& region : regions) raiser.add(region);
    return raiser.take();
}

Solid turned_inward(Solid solid) {
    for (auto& [a, b, c] : solid.triangles) std::swap(b, c);
    return solid;
}

}   // namespace dryground

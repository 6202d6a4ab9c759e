// Inside the files room: how a file for games gives places: in its unit, with its direction of y, on its plane.
#pragma once

#include <fmt/format.h>

#include <cmath>
#include <stdexcept>

#include "../model/grid_internal.hpp"
#include "dryground/files.hpp"
#include "json_internal.hpp"

namespace dryground::files {

class PlaceNumbers {
public:
    // Throws std::invalid_argument for metres on the ground plane of an isometric map.
    PlaceNumbers(const World& world, const Map& map, Unit unit, YAxis y, Plane plane)
        : grid_(map), map_(map), plane_(plane), up_(y == YAxis::up) {
        px_ = unit == Unit::m ? world.per_metre() : 1;
        across_ = down_ = steps_per_px * px_;
        if (plane != Plane::ground) return;
        if (unit == Unit::m && map.grid == GridSort::isometric)
            throw std::invalid_argument(fmt::format(
                "on the ground plane, the isometric map '{}' is measured in cells, not in metres", map.name));
        if (unit == Unit::m) return;
        px_ = map.cell_width / (map.grid == GridSort::isometric ? std::sqrt(2.0) : 1);
        across_ = grid_.width(), down_ = grid_.height();
    }

    // Return coordinates of merged ground, which lie on the file's plane already. Whole numbers of steps are exact in a
    // double; one division rounds once.
    [[nodiscard]] double x(std::int32_t steps) const { return steps / across_; }
    [[nodiscard]] double y(std::int32_t steps) const { return steps / down_; }
    [[nodiscard]] bool up() const { return up_; }
    [[nodiscard]] double area(double square_steps) const { return square_steps / across_ / down_; }
    // Converts heights and lengths that the map gives in px. A diamond's width is the diagonal of a cell on the ground.
    [[nodiscard]] double length(double px) const { return px / px_; }

    [[nodiscard]] Json point(Point p) const {
        return Json::array({number_json(x(p.x)), number_json(up_ ? -y(p.y) : y(p.y))});
    }
    // Returns a ring with the solid on its left by the numbers: with y up it is reversed, its first point staying
    // first.
    [[nodiscard]] Json ring(const Ring& points) const {
        Json result = Json::array();
        const std::size_t n = points.size();
        for (std::size_t i = 0; i < n; ++i) result.push_back(point(points[up_ ? (n - i) % n : i]));
        return result;
    }
    [[nodiscard]] Json rings(const std::vector<Ring>& all) const {
        Json result = Json::array();
        for (const Ring& one : all) result.push_back(ring(one));
        return result;
    }
    [[nodiscard]] Json box(const Bounds& box) const {
        const std::int32_t wide = box.most.x - box.least.x, high = box.most.y - box.least.y;
        return Json::array({number_json(x(box.least.x)), number_json(up_ ? -y(box.most.y) : y(box.least.y)),
                            number_json(x(wide)), number_json(y(high))});
    }

    // Converts steps of the map to the plane of the file.
    [[nodiscard]] Point on_plane(Point steps) const { return plane_ == Plane::ground ? grid_.flat(steps) : steps; }
    [[nodiscard]] Ring on_plane(Ring ring) const {
        for (Point& p : ring) p = on_plane(p);
        return ring;
    }
    [[nodiscard]] bool is_as_drawn() const { return plane_ == Plane::screen || map_.grid == GridSort::square; }

private:
    detail::Grid grid_;
    const Map& map_;
    Plane plane_;
    bool up_;
    double px_ = 1, across_ = 1, down_ = 1;   // px, and coordinates, to one of the file's unit
};

}   // namespace dryground::files

// Inside the model room: together with Map, the only code that knows the shape of a grid.
//
// Both grids have flat coordinates in which cells are boxes and rows run across: those of the square grid are lattice
// steps themselves; those of the isometric grid are whole numbers that steps turn into exactly, and back. Range: those
// of all that stands on a map lie within ±coordinate_limit, like steps (map_range.cpp ensures it).
#pragma once

#include <algorithm>
#include <cstdlib>
#include <numeric>

#include "dryground/world.hpp"

namespace dryground::detail {

// Return how many cells a map can hold, and whether one of so many columns and rows is possible.
inline constexpr std::int64_t most_cells = std::int64_t{1} << 26;
[[nodiscard]] constexpr bool can_hold_cells(int columns, int rows) {
    return columns >= 1 && rows >= 1 && std::int64_t{columns} * rows <= most_cells;
}

class Grid {
public:
    explicit Grid(const Map& map)
        : isometric_(map.grid == GridSort::isometric),
          divisor_(std::gcd(map.cell_width, map.cell_height)),
          across_(map.cell_width / divisor_),
          down_(map.cell_height / divisor_) {
        width_ = (isometric_ ? map.cell_width * down_ : map.cell_width) * steps_per_px;
        height_ = isometric_ ? width_ : map.cell_height * steps_per_px;
    }

    // Returns a cell's box in flat coordinates.
    [[nodiscard]] std::int32_t width() const { return width_; }
    [[nodiscard]] std::int32_t height() const { return height_; }

    [[nodiscard]] Point flat(Point p) const {
        return isometric_ ? Point{p.x * down_ + p.y * across_, p.y * across_ - p.x * down_} : p;
    }
    // Returns the greater absolute value of the coordinates of any point.
    [[nodiscard]] std::int64_t flat_reach(Point p) const {
        const std::int64_t x = std::int64_t{p.x} * (isometric_ ? down_ : 1),
                           y = std::int64_t{p.y} * (isometric_ ? across_ : 1);
        return isometric_ ? std::abs(x) + std::abs(y) : std::max(std::abs(x), std::abs(y));
    }
    // Converts back. Requires a point that `flat` made.
    [[nodiscard]] Point steps(Point p) const {
        return isometric_ ? Point{(p.x - p.y) / (2 * down_), (p.x + p.y) / (2 * across_)} : p;
    }
    [[nodiscard]] bool is_flat() const { return !isometric_; }
    // Returns by which factor flat coordinates can exceed steps.
    [[nodiscard]] std::int32_t factor() const { return isometric_ ? across_ + down_ : 1; }

private:
    bool isometric_;
    std::int32_t divisor_, across_, down_, width_ = 0, height_ = 0;
};

}   // namespace dryground::detail

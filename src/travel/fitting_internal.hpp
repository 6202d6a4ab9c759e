// Inside the travel room: where a mover's body fits, by ground alone, whatever way it moves.
#pragma once

#include <optional>
#include <span>
#include <vector>

#include "dryground/world.hpp"

namespace dryground::travel {

// Returns the parts of an area of positions in which the body overlaps no ground. Ground that is not near may be left
// out; it may be given in several regions. Positions where the body fits exactly count.
[[nodiscard]] Regions fitting(const Regions& positions, const Regions& ground, const Mover& mover);

// Finds a way out of a map, from positions inside it, past ground and lines that stop both ways: returns the first
// position on it at which all of the body is outside; nothing if it cannot get out. Exact. Cost: booleans of all
// ground.
[[nodiscard]] std::optional<Point> way_out(const Map& map, const Regions& ground, std::span<const Ring> lines,
                                           const Mover& mover, const std::vector<Point>& from);

// Returns how far a body falls straight down, in steps, until ground or a line that stops it from above is under it;
// nothing if it gets below a level. Ground and lines that are not near its way may be left out.
[[nodiscard]] std::optional<std::int32_t> falls(const Regions& ground, const std::vector<Ring>& lines,
                                                const Mover& mover, Point from, std::int32_t lowest);

}   // namespace dryground::travel

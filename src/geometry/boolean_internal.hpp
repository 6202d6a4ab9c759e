// Inside the library: booleans of regions that are known to be proper, such as those that booleans return. They skip
// the inspection of each ring that the public functions of the same names do.
#pragma once

#include "dryground/geometry.hpp"

namespace dryground::detail {

// Returns regions whose windings can be added up: no ring crosses itself, each hole lies inside its own outline, and
// holes do not overlap. They cover the same area, possibly with more or other regions. O(n log n).
[[nodiscard]] Regions proper(std::span<const Region> regions);

// Unites proper regions, which may overlap each other.
[[nodiscard]] Regions unite_proper(std::span<const Region> regions);
[[nodiscard]] Regions subtract_proper(std::span<const Region> a, std::span<const Region> b);
[[nodiscard]] Regions intersect_proper(std::span<const Region> a, std::span<const Region> b);

// Returns what of proper regions that do not overlap lies under none of some pieces. The same as subtract_proper, but
// edges that regions and pieces have in common cancel, as happens for pieces swept from the regions' edges.
[[nodiscard]] Regions not_under(std::span<const Region> regions, std::span<const Region> pieces);

// Returns closed paths that wind around `reach` of regions and a body: around a place as often as the body there meets
// the regions in parts.
[[nodiscard]] std::vector<Ring> ways_around(std::span<const Region> regions, std::span<const Point> body);
// Returns what closed paths wind around, all together: windings to the left minus windings to the right.
[[nodiscard]] Regions wound_around(std::span<const Ring> ways);
// Returns what of proper regions they wind around.
[[nodiscard]] Regions wound_around_in(std::span<const Ring> ways, std::span<const Region> regions);

}   // namespace dryground::detail

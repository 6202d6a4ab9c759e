// Inside the library: booleans of regions that are known to be proper, as those that booleans return are. They save the
// look at each ring that the public ones of the same names take.
#pragma once

#include "dryground/geometry.hpp"

namespace dryground::detail {

// Regions over which windings can be added up: no ring crosses itself, each hole lies inside of its own outline, and
// holes do not overlap. Whatever was covered is covered, by more or other regions maybe. O(n log n).
[[nodiscard]] Regions proper(std::span<const Region> regions);

// Proper regions may overlap each other.
[[nodiscard]] Regions unite_proper(std::span<const Region> regions);
[[nodiscard]] Regions subtract_proper(std::span<const Region> a, std::span<const Region> b);
[[nodiscard]] Regions intersect_proper(std::span<const Region> a, std::span<const Region> b);

// What of proper regions that do not overlap lies under none of some pieces. As subtract_proper, but edges that the
// regions and pieces have in common cancel, as those of pieces that are swept from the regions' edges do.
[[nodiscard]] Regions not_under(std::span<const Region> regions, std::span<const Region> pieces);

// `reach` of regions and a body, united with other proper regions, which are not grown.
[[nodiscard]] Regions reach_and(std::span<const Region> regions, std::span<const Point> body,
                                std::span<const Region> others);

// What closed ways wind around, all of them together: to the left, less what they wind around to the right.
[[nodiscard]] Regions wound_around(std::span<const Ring> ways);

}   // namespace dryground::detail

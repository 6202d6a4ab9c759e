// Inside the travel room: the shortest way of a point inside an area.
#pragma once

#include "dryground/geometry.hpp"

namespace dryground::travel {

// Returns the way around corners of the area, both ends included; empty if they are not in it. Requires an area as
// booleans return it. Through the triangles between the two ends the way is the shortest; these triangles are found by
// the way between their middles. Cost: O(n log n) in the area's corners.
[[nodiscard]] Ring way_inside(const Region& area, Point from, Point to);

}   // namespace dryground::travel

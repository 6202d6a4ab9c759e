// Inside the geometry room: triangles before they become separate rings.
#pragma once

#include <vector>

#include "dryground/geometry.hpp"

namespace dryground::detail {

// Returns the same as `triangles`, of one region, in the order in which they are cut off.
[[nodiscard]] std::vector<Triangle> triangulated(const Region& region);

}   // namespace dryground::detail

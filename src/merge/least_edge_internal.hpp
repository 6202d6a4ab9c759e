// Inside the merge room: outlines without edges that are too short for a physics engine.
#pragma once

#include "dryground/merge.hpp"

namespace dryground::detail {

// Fuses neighbouring vertices that are closer than `least` steps, the shortest edge first: of the two vertices that one
// goes whose absence changes the area less, unless another vertex would end up on the other side of the outline, so
// that results cross nothing that they did not cross before. What is left with fewer than three vertices goes. Vertices
// that touch others and those for which `keeps` is true stay. What is left may still hold a short edge where any fusing
// would cross. Labels are those of the edge that stays. O(n) for each fused vertex.
void fuse_short_edges(std::vector<LabelledRing>& rings, std::int32_t least, const std::function<bool(Point)>& keeps);

// The same of regions. Holes go with the outline that they are in.
[[nodiscard]] Regions without_short_edges(const Regions& regions, std::int32_t least);

}   // namespace dryground::detail

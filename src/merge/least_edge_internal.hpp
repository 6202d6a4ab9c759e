// Inside the merge room: outlines without edges that are too short for a physics engine.
#pragma once

#include "dryground/merge.hpp"

namespace dryground::detail {

// Fuses neighbouring vertices that are closer than `least` steps, the shortest edge first: of the two vertices that one
// goes whose absence changes the area less, unless another vertex would end up on the other side of the outline, so
// that results cross nothing that they did not cross before. Rings left with fewer than three vertices are removed.
// Vertices that touch others and those for which `keeps` is true stay. A short edge may remain where any fusing would
// cause a crossing. Labels are those of the edge that stays. O(n) for each fused vertex.
void fuse_short_edges(std::vector<LabelledRing>& rings, std::int32_t least, const std::function<bool(Point)>& keeps);

// Does the same for regions. Holes are removed with the outline that they are in.
[[nodiscard]] Regions without_short_edges(const Regions& regions, std::int32_t least);

}   // namespace dryground::detail

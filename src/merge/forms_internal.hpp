// Inside the merge room: from what a group covers to the forms that are asked for.
#pragma once

#include "cells/stacking_internal.hpp"
#include "lines/lines_internal.hpp"

namespace dryground::detail {

// A group with the names of its key.
[[nodiscard]] Group named_group(const World& world, const GroupKey& key);

// The world's merging setting, in steps: chains and pieces have no shorter edges where that can be helped.
[[nodiscard]] std::int32_t least_edge(const World& world);

// The rings of the regions, of no surface.
void add_plain_rings(Stacked& stacked);

// Pieces, boxes and triangles of the group's regions.
void add_area_forms(Group& group, const World& world, const MergeOptions& options);

// Of each convex piece of a group, which of its regions it is cut from.
using PieceRegions = std::vector<std::size_t>;
// The same for a group that was `before`: a region that it had before keeps its pieces. `of_pieces` tells of the pieces
// before, and then of those now. Cost: that of the new regions, and O(n log n) in regions and pieces.
void renew_area_forms(Group& group, const Group& before, PieceRegions& of_pieces, const World& world,
                      const MergeOptions& options);

// Lines, and their chains if asked for, which go on along what is beside their ends.
void add_line_forms(Group& group, const std::vector<JoinedLine>& lines, const Neighbours& neighbours, bool chains);

}   // namespace dryground::detail

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

// Lines, and their chains if asked for, which may go on along other edges.
void add_line_forms(Group& group, const std::vector<JoinedLine>& lines, const LineEdges& others, bool chains);

}   // namespace dryground::detail

// Inside the merge room: computes the requested forms from what a group covers.
#pragma once

#include <optional>
#include <vector>

#include "cells/stacking_internal.hpp"
#include "lines/lines_internal.hpp"

namespace dryground::detail {

// Returns a group with the names of its key.
[[nodiscard]] Group named_group(const World& world, const GroupKey& key);

// Returns the world's merging setting, in steps: chains and pieces have no shorter edges where possible.
[[nodiscard]] std::int32_t least_edge(const World& world);

// Adds the rings of the regions, without a surface.
void add_plain_rings(Stacked& stacked);

// Adds pieces, boxes and triangles of the group's regions.
void add_area_forms(Group& group, const World& world, const MergeOptions& options);

// For each convex piece of a group, the region that it is cut from.
using PieceRegions = std::vector<std::size_t>;
// For each region of a group before, its number among the current ones, or -1 if it is not the same as any.
using RegionNumbers = std::vector<int>;
// Does the same for a group that was `before`: an unchanged region keeps its pieces, which are taken from there.
// `of_pieces` refers to the pieces before, and on return to the new ones. Without `numbers`
// regions are compared. Cost: that of the new regions, and O(n log n) in regions and pieces.
void renew_area_forms(Group& group, Group& before, PieceRegions& of_pieces, const std::optional<RegionNumbers>& numbers,
                      const World& world, const MergeOptions& options);

// Adds lines and, if requested, their chains, which continue along what is beside their ends.
void add_line_forms(Group& group, const std::vector<JoinedLine>& lines, const Neighbours& neighbours, bool chains);

}   // namespace dryground::detail

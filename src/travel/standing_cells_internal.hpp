// Inside the travel room: in the middle of which cells a body can be.
#pragma once

#include <span>
#include <vector>

#include "../merge/cells/stacking_internal.hpp"

namespace dryground::travel {

// Returns for each cell of a block inside a map, row by row, whether a body whose position is in its middle overlaps no
// ground: 1 or 0. The body is convex. `grounds` may overlap each other, and hold all that is near the block. Cost: the
// cells, and for each edge the rows that it crosses and the cells from whose middle the body meets the box around it.
[[nodiscard]] std::vector<char> standing_cells(const Map& map, const detail::Block& block,
                                               std::span<const Regions* const> grounds, const Ring& body);

// Returns the middle of a cell.
[[nodiscard]] Point middle_of(const Map& map, int column, int row);

}   // namespace dryground::travel

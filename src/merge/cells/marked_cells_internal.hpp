// Inside the merge room: the area of some cells of a map.
#pragma once

#include <cstdint>
#include <functional>

#include "stacking_internal.hpp"

namespace dryground::detail {

// Returns the area of the marked cells of a block. `mark(row, bits)` sets bit c for column c of the block, for each of
// its rows; all bits are 0 before. Cost: 1/64 of the block's cells, and the outline.
[[nodiscard]] Regions area_of_marked(const Map& map, const Block& block,
                                     const std::function<void(int row, std::uint64_t* bits)>& mark);

}   // namespace dryground::detail

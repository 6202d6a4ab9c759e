// Inside the merge room: merges what lies in a block of cells alone.
#pragma once

#include <vector>

#include "cells/stacking_internal.hpp"

namespace dryground::detail {

// Returns what of a map's barriers lies in a block of cells while facts hold, without forms: groups with regions, and
// others with lines. Cost: O(palette and objects), and that of merging the block.
[[nodiscard]] std::vector<Group> groups_in(const World& world, const Map& map, const Facts& facts, const Block& block);

}   // namespace dryground::detail

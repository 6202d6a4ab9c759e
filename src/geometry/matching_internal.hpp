// Inside the geometry room: the largest set of things of two sorts no two of which conflict.
#pragma once

#include <cstddef>
#include <vector>

namespace dryground::detail {

// Conflicts lie between things of the first sort and of the second only: conflicts[a] lists those of thing a of the
// first sort. Gives back which things of the first sort, then which of the second, are in the set.
struct Independent {
    std::vector<bool> first, second;
};
// Cost: O(conflicts * sqrt(things)).
[[nodiscard]] Independent largest_independent_set(const std::vector<std::vector<std::size_t>>& conflicts,
                                                  std::size_t second_count);

}   // namespace dryground::detail

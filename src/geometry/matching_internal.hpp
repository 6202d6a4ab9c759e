// Inside the geometry room: the most segments along the axes no two of which meet.
#pragma once

#include <compare>
#include <cstdint>
#include <span>
#include <vector>

namespace dryground::detail {

// A level segment at y = at, from x = from to x = to; or an upright one, x and y swapped.
struct AxisSegment {
    std::int32_t at, from, to;
    friend auto operator<=>(const AxisSegment&, const AxisSegment&) = default;
};

// Which level segments, then which upright ones, are in the set.
struct Independent {
    std::vector<bool> levels, uprights;
};
// Segments meet where they cross, or share a point. No two level ones may meet, nor two upright ones. Of the largest
// sets it is always the same one. Cost: O(n^1.5 log^2 n) for n segments, however often they meet; mostly few of the
// n^0.5 rounds are needed. Memory: O(n log n).
[[nodiscard]] Independent largest_independent_set(std::span<const AxisSegment> levels,
                                                  std::span<const AxisSegment> uprights);

}   // namespace dryground::detail

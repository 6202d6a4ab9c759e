// Inside the geometry room: the largest set of axis-parallel segments no two of which meet.
#pragma once

#include <compare>
#include <cstdint>
#include <span>
#include <vector>

namespace dryground::detail {

// A horizontal segment at y = at, from x = from to x = to; or a vertical one, with x and y swapped.
struct AxisSegment {
    std::int32_t at, from, to;
    friend auto operator<=>(const AxisSegment&, const AxisSegment&) = default;
};

// Which horizontal segments, then which vertical ones, are in the set.
struct Independent {
    std::vector<bool> levels, uprights;
};
// Returns a largest set, always the same one. Segments meet if they cross or share a point. No two horizontal ones may
// meet, nor two vertical ones. Cost: O(n^1.5 log^2 n) for n segments, however often they meet; usually few of the n^0.5
// rounds are needed. Memory: O(n log n).
[[nodiscard]] Independent largest_independent_set(std::span<const AxisSegment> levels,
                                                  std::span<const AxisSegment> uprights);

}   // namespace dryground::detail

// Inside the travel room: where a body overlaps lines that stop one way only.
#pragma once

#include <span>
#include <vector>

#include "sums_internal.hpp"

namespace dryground::travel {

// Positions from which certain lines are overlapped, and no others.
struct Overlap {
    std::vector<int> lines;   // sorted
    Regions area;
};

// What was returned before a change, and for which lines; and boxes: what lies in none of them has not changed.
struct OverlapsBefore {
    std::span<const Sum> lines;
    std::span<const Overlap> overlaps;
    std::vector<Bounds> changed;
};

// Returns where lines are overlapped, outside of closed area: rings with it on their left; sorted by the first of their
// lines. `before`: null, or to take over what is away from the change. Cost: one cut of the closed area, then for each
// line what is near it, times the parts that come of it.
[[nodiscard]] std::vector<Overlap> overlaps_of(std::span<const Sum> lines, std::span<const Ring> closed,
                                               const OverlapsBefore* before = nullptr);

[[nodiscard]] inline Ring ring_of(const Sum& sum) { return {sum.ring.begin(), sum.ring.end()}; }

}   // namespace dryground::travel

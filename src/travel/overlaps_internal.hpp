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

// Returns where lines are overlapped, outside of closed area: rings with it on their left. Cost: one cut of the closed
// area, then for each line what is near it, times the parts that come of it.
[[nodiscard]] std::vector<Overlap> overlaps_of(std::span<const Sum> lines, std::span<const Ring> closed);

[[nodiscard]] inline Ring ring_of(const Sum& sum) { return {sum.ring.begin(), sum.ring.end()}; }

}   // namespace dryground::travel

// Inside the travel room: what a mover that is seen from the side may get to through the air, by the most generous
// reading.
#pragma once

#include <algorithm>
#include <vector>

#include "side_ground_internal.hpp"

namespace dryground::travel {

// Places, targets, and levels on which a moving solid is touched; each once.
struct Perhaps {
    std::vector<int> places, targets, with_solid;
};
inline void add_once(std::vector<int>& to, int id) {
    if (std::find(to.begin(), to.end(), id) == to.end()) to.push_back(id);
}
// Returns what may be reached from an edge of a place, without the place itself, and without what it is known to lead
// to. Adds to `known` only where it has looked.
[[nodiscard]] Perhaps perhaps_from(const SideGround& ground, const SideLevel& level, int place, Point a, Point b,
                                   bool jumps, SideWaysOn& known);

}   // namespace dryground::travel

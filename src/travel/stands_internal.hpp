// Inside the travel room: runs of ground on which a body that is seen from the side can stand.
#pragma once

#include <vector>

#include "obstacles_internal.hpp"

namespace dryground::travel {

// Positions from left to right. Between `walked` ones the body walks along; over a kerb it steps.
struct Stand {
    Ring points;
    bool on_line = false;   // on lines that stop it from above, and not on ground
    bool slides = false;    // too steep to stand on: it slides down
};

struct Footing {
    double steepest = 1;     // rise for each step to the side
    std::int32_t kerb = 0;   // steps
};

[[nodiscard]] Footing footing_of(const Mover& mover);

// Returns the stands of ground that is closed to the position (its lower edges; steep ones are slides), then those on
// one-way lines, as far as the position can be there. Ends meet where one walks on from one stand to the next. Level
// ground that goes on over a corner of two areas that only touch is parted there. Of a thing that stands there for a
// while: its own, less what the rest covers, and without slides. Cost: O(n) in the edges of the ground, and for lines
// in what is near them.
[[nodiscard]] std::vector<Stand> stands_of(const Obstacles& obstacles, const Footing& footing);

}   // namespace dryground::travel

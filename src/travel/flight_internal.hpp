// Inside the travel room: how a body that is seen from the side moves through the air.
//
// Time counts in flights: one is how long a jump as high as can be takes on level ground. Gravity is then 8 heights of
// such a jump, the fastest way to the side one leap. Lower jumps are shorter.
#pragma once

#include <optional>
#include <span>
#include <vector>

#include "dryground/world.hpp"

namespace dryground::travel {

struct Flight {
    double jump = 0;   // steps up at most, and to the side on level ground
    double leap = 0;
    std::optional<double> drop;   // steps down at most; nothing: any depth
    double within = 64;           // steps by which a curve may be off when it is made straight

    // Returns how long a jump with its apex `high` above the take-off (0 or more) is in the air until it comes down to
    // a height, no higher than the apex. Requires jump > 0.
    [[nodiscard]] double time_down_to(double high, double up) const;
    // Returns whether a place so far to the side, and up, can be on a curve of any jump; down to the deepest fall.
    [[nodiscard]] bool can_be(double aside, double up) const;
    // Returns how much too high a place is at such a distance to the side: 0 or less if it can be reached.
    [[nodiscard]] double too_high(double aside, double up) const;
};

// When the body moves to the side: all the time, as late as it can, or as early.
enum class Steer { evenly, late, early };

// Returns the way of a jump from one place to another that comes down on it, straight from point to point, both ends
// included; nothing if its apex is too low or it is too far.
[[nodiscard]] std::optional<Ring> curve(const Flight& flight, Point from, Point to, double high, Steer steer);

}   // namespace dryground::travel

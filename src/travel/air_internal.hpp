// Inside the travel room: all places that a body may get to through the air, however it steers.
#pragma once

#include <functional>
#include <optional>
#include <vector>

#include "flight_internal.hpp"
#include "obstacles_internal.hpp"
#include "spans_internal.hpp"

namespace dryground::travel {

// By how much rounding to the lattice, and a body that is a hair narrower than it is, may change a place.
inline constexpr int rounding_steps = 12;

// A moment of a jump: where the body may be then, between two heights.
struct Moment {
    double top = 0, bottom = 0;   // y, steps; the body is between them from this moment to the next
    double far = 0;               // how far beyond the spans it may be until the next
    bool falls = false;           // down: else it rises all the time
    Spans spans{};                // sorted; one or more
};

// Returns the box around where the body may be between a moment and the next.
[[nodiscard]] Bounds box_of(const Moment& moment);

// Jumps of one height, from a horizontal way, or a point. Between two moments the body moves where a whole strip is
// free, so that every way found is free.
class SureAir {
public:
    // Makes the moments. Requires flight.jump > 0. `high`: of the apex.
    SureAir(const Obstacles& obstacles, const Flight& flight, Point a, Point b, double high, std::int32_t lowest);

    [[nodiscard]] const std::vector<Moment>& moments() const { return moments_; }
    // Returns a way that comes down on an edge at a moment, or one that is in a convex ring then.
    [[nodiscard]] std::optional<Ring> to_edge(std::size_t moment, Point c, Point d) const;
    [[nodiscard]] std::optional<Ring> into(std::size_t moment, const Ring& target) const;

private:
    [[nodiscard]] std::optional<Ring> back_from(std::size_t moment, Point end) const;

    const Obstacles& obstacles_;
    std::int32_t start_y_;
    std::vector<Moment> moments_;
};

// Calls see(moment) for all moments of jumps of all heights from a way, or of falls from it; a moment is gone after the
// call: all places that a body may get to, and perhaps a little more.
// Solid area stops it if it fills all that lies between two moments; a one-way line stops it only if it is horizontal
// and the body was above it all the time. Requires flight.jump > 0. Cost: in proportion to the heights that it passes,
// and what is in the way there.
void maybe_air(const Obstacles& obstacles, const Flight& flight, Point a, Point b, bool jumps, std::int32_t lowest,
               const std::function<void(const Moment&)>& see);
// Returns whether a body may land on an edge at a moment, or touch a convex ring.
[[nodiscard]] bool may_land_on(const Moment& moment, Point c, Point d);
[[nodiscard]] bool may_touch(const Moment& moment, const Ring& target);

}   // namespace dryground::travel

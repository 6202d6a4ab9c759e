// Inside the geometry room: what is kept of a part of the outline of pixels.
#pragma once

#include <cstddef>
#include <vector>

#include "dryground/geometry.hpp"

namespace dryground::detail {

// A vertex, or a place on a long edge where a straight line along stairs may end: that need not be a pixel's corner.
struct TraceCandidate {
    Point at;
    bool stays = false;
    bool is_vertex = true;   // else it goes again where ways lead straight on through it
};

// A part of a ring, from one that stays to the next.
using RingPart = std::vector<TraceCandidate>;

// Returns the candidates that are kept of a part, ends included: the fewest vertices, and of such choices the best one
// (trace_ways.cpp). Skips at most `most_skipped` of them at a time. `within`: steps.
[[nodiscard]] RingPart fewest_of(const RingPart& part, double within, std::size_t most_skipped);
// Returns the same such that mirrored parts give mirrored results: walked from the upper end. If both ends are at the
// same height, the better of two walks is taken; of a part that is its own mirror image, half is walked.
[[nodiscard]] RingPart fewest_either_way(const RingPart& part, double within, std::size_t most_skipped);

}   // namespace dryground::detail

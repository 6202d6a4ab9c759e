// Inside the travel room: spans of x at one height, or between two.
#pragma once

#include <array>
#include <optional>
#include <span>
#include <vector>

#include "dryground/geometry.hpp"

namespace dryground::travel {

using Span = std::array<double, 2>;   // from the least to the most, steps
using Spans = std::vector<Span>;

// Sorts spans and joins those that meet.
void sort_and_join(Spans& spans);
[[nodiscard]] bool any_meets(const Spans& spans, const Span& other);
// Finds where a body may be that was in one of the spans and has moved to either side by at most `far`, through none
// that is barred. Disjoint and sorted. The barred ones may overlap; they are sorted and joined.
void spread(const Spans& spans, Spans& barred, double far, Spans& reached);

// Returns where a convex ring is, between two heights or at one; nothing if it only touches them.
[[nodiscard]] std::optional<Span> between(std::span<const Point> convex, double top, double bottom);
// Returns where it fills all that lies between two heights.
[[nodiscard]] std::optional<Span> filled_between(std::span<const Point> convex, double top, double bottom);
// Returns the part of an edge that lies between two heights.
[[nodiscard]] std::optional<Span> part_between(Point c, Point d, double top, double bottom);

}   // namespace dryground::travel

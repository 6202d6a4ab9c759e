// Inside the geometry room: edges with the change of winding they mean, before and after they are cut at each other.
#pragma once

#include <functional>
#include <span>
#include <vector>

#include "dryground/geometry.hpp"

namespace dryground::detail {

// An edge of one operand from a to b, with a < b. Its left by the numbers is called the side before it, its right the
// side after it, as a sweep down the y axis meets them along its line. `delta` is the winding number of the operand
// after the edge less that before it.
struct Edge {
    Point a, b;
    int operand = 0;
    int delta = 0;
};

// Appends the edges of a ring, treated as if it was given with its inside on the left (or on the right for a hole).
void add_ring(std::vector<Edge>& edges, std::span<const Point> ring, int operand, bool hole);
// Appends the edges of a closed path that has its inside on the left, or on the right if it is turned, even if its area
// suggests otherwise: loops of it may be larger than the rest.
void add_way(std::vector<Edge>& edges, std::span<const Point> ring, int operand, bool turned);
void add_regions(std::vector<Edge>& edges, std::span<const Region> regions, int operand);

// Sorts edges by a, then by direction from before to after, then by b and operand; adds up the deltas of equal ones and
// drops those that sum to zero.
void normalise(std::vector<Edge>& edges);

// Cuts edges at each other, so that in the result two edges meet at most in common end points or are the same edge
// of several operands. Normalised. See arrangement.cpp for rounding.
[[nodiscard]] std::vector<Edge> arrange(std::vector<Edge> edges);

// Returns whether edges of one region meet anywhere except in their common end points, two at each. O(n log n).
[[nodiscard]] bool meets_itself(const Region& region);

// What covers a face, from the operands that wind around it, sorted by number: a label of 0 or more, or `nothing`.
struct Winding {
    int operand;
    int number;   // how often, not 0
};
inline constexpr int nothing = -1;
using Classify = std::function<int(std::span<const Winding> windings)>;

// An edge between covered and uncovered area: the covered side is on the left when going from `from` to `to`.
struct BoundaryEdge {
    Point from, to;
    int label = 0;
    int before = -1;   // index of the nearest boundary edge before it along the sweep line; -1 for none
};

// Returns the boundary of what is covered, in sweep order. Requires arranged edges.
[[nodiscard]] std::vector<BoundaryEdge> sweep(std::span<const Edge> edges, const Classify& classify);

// The order of edges (anything with ends a < b) along a sweep line that crosses both, from before to after, and of
// edges and a point of the line. Compared edges do not cross, so the one that starts later decides the order.
struct AlongSweepLine {
    using is_transparent = void;
    template <class E, class F>
    requires requires(E e, F f) { e.a, f.a; }
    bool operator()(const E& e, const F& f) const {
        if (e.a == f.a) return turn(e.a, e.b, f.b) == Turn::right;
        if (e.a < f.a) return turn(e.a, e.b, f.a) == Turn::right;
        return turn(f.a, f.b, e.a) == Turn::left;
    }
    template <class E>
    bool operator()(const E& e, Point p) const {
        return turn(e.a, e.b, p) == Turn::right;
    }
    template <class E>
    bool operator()(Point p, const E& e) const {
        return turn(e.a, e.b, p) == Turn::left;
    }
};

// Links boundary edges to rings, separates rings that touch themselves, assigns holes to their outlines, and drops
// vertices in straight runs.
[[nodiscard]] Stacked link(std::span<const BoundaryEdge> edges);

}   // namespace dryground::detail

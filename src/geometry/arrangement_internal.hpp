// Inside the geometry room: edges with the change of winding they mean, before and after they are cut at each other.
#pragma once

#include <cstdint>
#include <functional>
#include <limits>
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

// Returns the boundary of what is covered, in sweep order. Requires arranged edges. `first_row`: edges that do not
// reach it (they end at a smaller y) are left out, and may be missing; those that begin above it and reach it are
// whole.
[[nodiscard]] std::vector<BoundaryEdge> sweep(std::span<const Edge> edges, const Classify& classify,
                                              std::int32_t first_row = std::numeric_limits<std::int32_t>::min());

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

// How boundary edges, or runs of them, follow each other around solids.
struct Followers {
    std::vector<int> next;      // for each edge, the one that follows it around its solid; -1: unknown
    std::vector<char> parted;   // whether it leaves from a vertex that others leave from, too
};
// `first_row`, `last_row`: vertices above or below them (y) are not looked at.
[[nodiscard]] Followers followers(std::span<const BoundaryEdge> edges,
                                  std::int32_t first_row = std::numeric_limits<std::int32_t>::min(),
                                  std::int32_t last_row = std::numeric_limits<std::int32_t>::max());
using Walk = std::vector<int>;   // edges of a simple ring, in order
// Follows edges around and splits a walk where it comes back to a vertex. `from`: where each begins; of runs that begin
// where no other does, any point that no other has.
[[nodiscard]] std::vector<Walk> simple_walks(const Followers& followers, std::span<const Point> from);

// Links boundary edges to rings, separates rings that touch themselves, assigns holes to their outlines, and drops
// vertices in straight runs.
[[nodiscard]] Stacked link(std::span<const BoundaryEdge> edges);

}   // namespace dryground::detail

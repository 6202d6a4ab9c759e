// Inside the merge room: one cell as its neighbours, and walks along its edges, see it.
//
// Coordinates are flat (see grid_internal.hpp): the cell is the box from (0, 0) to (width, height).
#pragma once

#include <array>
#include <cstdint>
#include <vector>

#include "dryground/geometry.hpp"

namespace dryground::detail {

enum class Filling : std::uint8_t { empty, full, mixed };
enum CellSide { top_side, right_side, bottom_side, left_side };
inline constexpr int uncovered = -1;

// A covered part of a side, from the lesser x or y to the greater, and its label.
struct Stretch {
    std::int32_t from = 0, to = 0;
    int label = 0;
    friend auto operator<=>(const Stretch&, const Stretch&) = default;
};

// An edge of the covered area that does not lie on a side of the cell; the area is on its left.
struct InnerEdge {
    Point from, to;
    int label = 0;
    int from_spot = -1, to_spot = -1;   // inner vertices at its ends; -1: the end lies on a side
    friend auto operator<=>(const InnerEdge&, const InnerEdge&) = default;
};

// A vertex of the covered area that lies on no side of the cell.
struct Spot {
    Point at;
    bool straight = false;     // only the label changes here
    bool starts_gap = false;   // the least point of a gap, as far as its neighbours tell
    bool pinched = false;      // there are others at this place
    friend auto operator<=>(const Spot&, const Spot&) = default;
};

// Return, of two directions from a place, neither zero: whether a is reached first when turning from the x axis
// counterclockwise by the numbers; and whether a direction leads to a later point.
[[nodiscard]] bool sooner_around(Point a, Point b);
[[nodiscard]] bool leads_later(Point way);

// Computes the in and out edges of spots where edges meet, so that each edge that leaves goes with the one that comes
// in across its own solid sector, and how they turn. Requires from_spot and to_spot, one spot for each edge that
// leaves.
void turn_spots(std::vector<Spot>& spots, std::vector<InnerEdge>& edges);

struct Cover {
    Filling filling = Filling::empty;
    int label = 0;   // of a full cell
    std::array<std::vector<Stretch>, 4> sides;
    std::vector<InnerEdge> edges;
    std::vector<Spot> spots;
    // Of a cell that is part of a larger whole: which edge of that whole each edge is. Such edges may reach out of the
    // cell, and have no spots.
    std::vector<int> of_whole;
    // Bit s is set if something ends on side s between its corners.
    std::uint8_t middles = 0;

    [[nodiscard]] bool has_middles(CellSide side) const { return (middles >> side & 1) != 0; }

    // Returns what covers the cell just before or after a place on a side: a label, or `uncovered`.
    [[nodiscard]] int label_before(CellSide side, std::int32_t place) const;
    [[nodiscard]] int label_after(CellSide side, std::int32_t place) const;

    friend auto operator<=>(const Cover&, const Cover&) = default;
};

[[nodiscard]] Cover empty_cover();
[[nodiscard]] Cover full_cover(int label);

// Makes a cover from rings that lie in the box (0, 0) to (width, height), as `stack` makes them.
[[nodiscard]] Cover make_cover(const std::vector<LabelledRing>& rings, std::int32_t width, std::int32_t height);

// Sets `middles`.
void note_middles(Cover& cover, std::int32_t width, std::int32_t height);

// Returns the inner edge that a ray from a point to the left meets first, just below the point's height; -1 for none.
// Edges that start or end in the point do not count. O(edges).
[[nodiscard]] int edge_to_the_left(const Cover& cover, Point p);

}   // namespace dryground::detail

// Inside the travel room: the areas that ground leaves free, separated without a boolean.
#pragma once

#include <cstdint>
#include <span>
#include <vector>

#include "../geometry/box_index_internal.hpp"

namespace dryground::travel {

// What a point could move in, from one place to another, without passing through a corner where solids meet.
//
// The edges of valid regions are linked anew, at corners where several meet so that what is free stays together. Each
// resulting ring goes around a free area, or around solids that touch one another. A place's area is known from the
// nearest edge to its left. Cost: building O(n log n) in edges, a query is proportional to the edges near the way to
// that edge.
class FreeSpace {
public:
    // Takes all rings of the ground, with solids on their left.
    explicit FreeSpace(std::span<const Ring> ground);

    static constexpr int outside = -1, in_ground = -2;
    // Returns the number of the closed area that holds a point, or one of the above. For points on an edge: one of its
    // sides.
    [[nodiscard]] int area_at(Point p) const;

    [[nodiscard]] int areas() const { return static_cast<int>(areas_.size()); }   // that are closed all around
    [[nodiscard]] Region area(int number) const;
    // Returns the ring around an area, with that on its right.
    [[nodiscard]] const Ring& outline(int number) const { return areas_[static_cast<std::size_t>(number)]; }
    [[nodiscard]] std::int64_t twice_size(int number) const;

private:
    struct Edge {
        Point from, to;
        bool ends_ring = false;   // the last one of its ring, as long as edges stand in the order of rings
        int ring = -1;            // areas by their number, solids from -1 down
    };
    void add(const Ring& ring);
    bool split();
    void link();
    void trace(std::size_t first, const std::vector<std::uint32_t>& next);
    void put_in_index();
    void nest();
    [[nodiscard]] const Edge* left_of(Point p, double before) const;
    [[nodiscard]] int area_beside(const Edge& edge) const {
        return edge.ring >= 0 ? edge.ring : around_[static_cast<std::size_t>(-1 - edge.ring)];
    }

    std::vector<Ring> areas_;                   // with what is free on their right
    std::vector<Ring> solids_;                  // likewise: around what touches
    std::vector<int> around_;                   // by solid: the area it lies in
    std::vector<std::vector<int>> solids_in_;   // by area
    std::vector<Edge> edges_;
    detail::BoxIndex near_;   // of the edges
};

}   // namespace dryground::travel

// Inside the check room: the areas that ground leaves free, told apart without any boolean.
#pragma once

#include <array>
#include <vector>

#include "dryground/geometry.hpp"

namespace dryground::check_rules {

// What a point could move in. Around valid regions each free area either lies in one of their holes, around whatever
// other regions lie in that hole, or is the one outside of them all. The regions must outlive it.
//
// A place's area is known from the nearest edge to its left: the ring that the edge is of bounds the area. Edges are
// found in the buckets of a grid. Cost: building O(edges), asking about the edges of the buckets from the place to that
// edge.
class FreeSpace {
public:
    explicit FreeSpace(const Regions& ground);

    static constexpr int outside = -1, in_ground = -2;
    // Which area holds a point: the number of a hole, or one of the above. Of points on an edge that of one of its sides.
    [[nodiscard]] int area_at(Point p) const;

    [[nodiscard]] int holes() const { return static_cast<int>(holes_.size()); }
    [[nodiscard]] const Ring& hole(int number) const { return *holes_[static_cast<std::size_t>(number)]; }
    // The area of a hole: its ring turned around, with the outlines of the regions in it as its holes. Touches of rings
    // in single points stay.
    [[nodiscard]] Region area(int number) const;
    [[nodiscard]] std::int64_t twice_size(int number) const;

private:
    struct Edge {
        Point from, to;
        int bounds;   // of a hole: its number; of an outline: -1 - the number of its region
    };
    void add(const Ring& ring, int bounds);
    void put_in_buckets();
    [[nodiscard]] const Edge* left_of(Point p) const;
    [[nodiscard]] int resolved(int bounds) const { return bounds >= 0 ? bounds : around_[static_cast<std::size_t>(-1 - bounds)]; }

    std::vector<const Ring*> holes_;
    std::vector<const Ring*> outlines_;
    std::vector<int> around_;                    // by region: the area around it
    std::vector<std::vector<int>> regions_in_;   // by hole
    std::vector<Edge> edges_;
    std::vector<std::uint32_t> begins_, in_buckets_;
    Point least_{0, 0};
    std::int32_t bucket_ = 1;
    int columns_ = 0, rows_ = 0;
};

}   // namespace dryground::check_rules

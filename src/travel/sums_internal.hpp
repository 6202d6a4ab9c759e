// Inside the travel room: edges and lines grown by a body.
#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <optional>
#include <span>
#include <vector>

#include "../geometry/box_index_internal.hpp"
#include "dryground/merge.hpp"
#include "left_of_internal.hpp"

namespace dryground::travel {

// The part of a straight way, from 0 to 1, that runs through the inside of a convex ring; nothing if it only
// touches it. The decision is exact, the two numbers are rounded.
struct Stretch {
    double from = 0, to = 0;
};
[[nodiscard]] std::optional<Stretch> inside_of(std::span<const Point> convex, Point a, Point b);
// Returns whether a way that begins outside of a convex ring, or on its edge, gets in over an edge that faces a side;
// at a corner: over either. `away`: as the sine of an angle, edges that are turned away from it by less count, too.
[[nodiscard]] bool enters_from(Point side, std::span<const Point> convex, Point a, Point b, double away = 0);

// Returns the positions from which a body overlaps something convex: the sum of its points and the mirrored body.
[[nodiscard]] Ring sum_with(std::span<const Point> convex, const Ring& body);

// Where a body overlaps an edge of the ground, or a line.
struct Sum {
    std::span<const Point> ring;        // convex
    Bounds box;                         // around it
    std::array<Point, 2> line;          // the edge, or line; of ground with the solid on its left
    Point stops_from{0, 0};             // of a line that stops one way only: ground::stopped_side
    std::span<const Point> catches{};   // of such a line: where the rear half of the body overlaps it

    [[nodiscard]] bool is_one_way() const { return stops_from != Point{0, 0}; }
    // Returns whether a one-way line stops a body that comes along a way from outside. Around the ends of a slope
    // an engine may find either side.
    [[nodiscard]] bool is_entered(Point a, Point b) const {
        const bool is_slope = stops_from.x != 0 && stops_from.y != 0;
        return enters_from(stops_from, ring, a, b, is_slope ? 0.99 : 0);
    }
    [[nodiscard]] bool stops_above() const { return stops_from.y < 0; }   // one way
};
// A line to grow, and in which direction it may be passed.
struct Line {
    std::array<Point, 2> ends;
    OneWay passes = OneWay::none;
};

// Lines grown by a body, and which of them are near a place.
class Sums {
public:
    Sums() = default;
    Sums(std::span<const Line> lines, const Ring& body);
    // They refer to the corners.
    Sums(const Sums&) = delete;
    Sums& operator=(const Sums&) = delete;
    Sums(Sums&&) = default;
    Sums& operator=(Sums&&) = default;
    ~Sums() = default;

    [[nodiscard]] const std::vector<Sum>& all() const { return all_; }
    [[nodiscard]] const detail::BoxIndex& near() const { return near_; }

private:
    [[nodiscard]] std::span<const Point> grown(Point a, Point b, const Ring& body, const Ring& mirrored);

    std::vector<Sum> all_;
    std::vector<Point> corners_;   // never more than were reserved, so that they stay where they are
    detail::BoxIndex near_;
};

// The edges of ground grown by a body. After a change of the ground only the edges that it did not have before are
// grown, as long as they are few.
class GroundSums {
public:
    GroundSums() = default;
    // `before`: of the same body, or null. Cost: with it, that of comparing the edges.
    GroundSums(std::vector<SolidEdge> edges, const Ring& body, const GroundSums* before);

    // Calls test(sum) for those near a box until it returns true.
    template <class Test>
    bool any_near(const Bounds& box, Test test) const {
        return (base_ &&
                base_->near().any_near(box, [&](std::size_t i) { return gone_[i] == 0 && test(base_->all()[i]); })) ||
               added_.near().any_near(box, [&](std::size_t i) { return test(added_.all()[i]); });
    }
    // Returns whether a point of the body lies in the ground, or on an edge of it. `in_body`: any, from its position.
    [[nodiscard]] bool is_in_ground(Point p, Point in_body) const;

private:
    void take_over(const GroundSums& before);

    static constexpr std::uint32_t is_added = ~0U;
    std::vector<SolidEdge> edges_;         // in the order of the ground
    std::vector<std::uint32_t> in_base_;   // by edge: its number there, or `is_added`
    std::shared_ptr<const Sums> base_;     // of the ground as it once was
    std::vector<char> gone_;               // by number in the base
    Sums added_;
};

}   // namespace dryground::travel

// Inside the travel room: what is in a mover's way on one storey of a map, told for the place of its position.
#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <span>
#include <vector>

#include "../geometry/bands_internal.hpp"
#include "../geometry/box_index_internal.hpp"
#include "dryground/merge.hpp"

namespace dryground::travel {

// Of bands of closed area: most changes lie in one or two.
inline constexpr std::int32_t band_height = 128 * steps_per_px;

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

// Returns a body a hair narrower and lower, its feet where they were: so that it fits where it fits exactly.
[[nodiscard]] Ring with_play(const Ring& body);

// Where a position can be and how it can move. Everything that stops the mover is grown by its body: along each edge of
// the ground, and around each line, the convex sum of the edge and the mirrored body (Lozano-Perez 1983). A way is free
// when it runs through none of them. What stops from one side only counts for ways that get into its sum over an edge
// that faces that side, as an engine decides by the normal of the first contact; and for ways from that side that begin
// in it with the rear half of the body on the line: a body that has come half-way through a plank stands on it when the
// jump ends; one that has not falls back.
class Obstacles {
public:
    // Makes what stops a mover, merged for it: its groups on one storey; and where else its position cannot be.
    // `before`: the same before a change of the ground; what is closed costs about what the change touches then.
    Obstacles(std::span<const Group> groups, StoreyId storey, const Mover& mover, const Regions& also_closed = {},
              const Obstacles* before = nullptr);
    // Makes it from ground alone, for a body as it is: only to query where it may be.
    Obstacles(const Regions& ground, const Ring& body);
    // Makes the same with one more thing that stands there for a while. `rest` must outlive it. `closed` and `sums` are
    // those of the thing alone.
    Obstacles(const Obstacles& rest, std::span<const Group> thing, const Mover& mover);

    Obstacles(const Obstacles&) = delete;
    Obstacles& operator=(const Obstacles&) = delete;
    Obstacles(Obstacles&&) = default;
    Obstacles& operator=(Obstacles&&) = default;
    ~Obstacles() = default;

    [[nodiscard]] const Ring& body() const { return body_; }
    [[nodiscard]] bool is_thing() const { return rest_ != nullptr; }
    // Returns the rings around where the position cannot be, with that on their left. Empty if it was made from ground
    // alone.
    [[nodiscard]] const std::vector<Ring>& closed() const { return closed_.rings(); }

    // Returns whether any line stops one way only: of the thing or of the rest.
    [[nodiscard]] bool has_one_way() const { return has_one_way_ || (rest_ != nullptr && rest_->has_one_way()); }

    // O(what is near the place, or the way).
    [[nodiscard]] bool may_be(Point p) const;
    [[nodiscard]] bool is_free(Point a, Point b) const;
    // Returns how much of a way is free: 0 to 1; 1 for all of it.
    [[nodiscard]] double free_before(Point a, Point b) const;

    struct Sum {
        std::span<const Point> ring;        // convex
        Bounds box;                         // around it
        std::array<Point, 2> line;          // the edge, or line; of ground with the solid on its left
        bool is_ground;                     // an edge of it
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
    [[nodiscard]] const std::vector<Sum>& sums() const { return sums_; }
    // Returns whether anything may be in the way in a box.
    [[nodiscard]] bool any_near(const Bounds& box) const {
        return near_.any_near(box, [](std::size_t) { return true; }) || (rest_ != nullptr && rest_->any_near(box));
    }
    // Calls action(sum) for those near a box, also those of the rest.
    template <class Action>
    void each_near(const Bounds& box, Action action) const {
        near_.each_near(box, [&](std::size_t i) { action(sums_[i]); });
        if (rest_ != nullptr) rest_->each_near(box, action);
    }

private:
    void begin(std::size_t edges);
    void add(const Regions& ground);
    void add(Point a, Point b, OneWay passes, bool is_ground);
    void index();
    [[nodiscard]] std::span<const Point> sum_of(Point a, Point b);
    [[nodiscard]] Ring rear_half(Point stops_from) const;
    [[nodiscard]] bool is_in_ground(Point p) const;

    const Obstacles* rest_ = nullptr;
    Ring body_;
    detail::WoundInBands closed_;
    std::vector<Sum> sums_;
    std::vector<Point> corners_;   // of the sums: never more than were reserved, so that they stay where they are
    Ring mirrored_;                // the body
    detail::BoxIndex near_;
    Point inside_body_{0, 0};
    bool has_one_way_ = false;
};

// Returns from where on a sum stops a straight way: 0 to 1; nothing if it does not.
[[nodiscard]] std::optional<double> stops_at(const Obstacles::Sum& sum, Point a, Point b);
// Returns whether a way comes from the side from which a line stops.
[[nodiscard]] bool runs_against(Point a, Point b, Point stops_from);

}   // namespace dryground::travel

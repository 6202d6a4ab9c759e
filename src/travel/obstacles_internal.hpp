// Inside the travel room: what is in a mover's way on one storey of a map, told for the place of its position.
#pragma once

#include <optional>
#include <span>
#include <vector>

#include "../geometry/bands_internal.hpp"
#include "sums_internal.hpp"

namespace dryground::travel {

// Of bands of closed area: most changes lie in one or two.
inline constexpr std::int32_t band_height = 128 * steps_per_px;

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
    // Makes the same with one more thing that stands there for a while. `rest` must outlive it. `closed` and `lines`
    // are those of the thing alone.
    Obstacles(const Obstacles& rest, std::span<const Group> thing, const Mover& mover);

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

    // Returns the lines, grown.
    [[nodiscard]] const std::vector<Sum>& lines() const { return lines_.all(); }
    // Returns whether anything may be in the way in a box.
    [[nodiscard]] bool any_near(const Bounds& box) const {
        const auto any = [](const auto&) { return true; };
        return ground_.any_near(box, any) || lines_.near().any_near(box, any) ||
               (rest_ != nullptr && rest_->any_near(box));
    }
    // Calls action(sum) for those near a box, also those of the rest.
    template <class Action>
    void each_near(const Bounds& box, Action action) const {
        (void)ground_.any_near(box, [&](const Sum& sum) {
            action(sum);
            return false;
        });
        lines_.near().each_near(box, [&](std::size_t i) { action(lines_.all()[i]); });
        if (rest_ != nullptr) rest_->each_near(box, action);
    }

private:
    const Obstacles* rest_ = nullptr;
    Ring body_;
    detail::WoundInBands closed_;
    GroundSums ground_;
    Sums lines_;
    bool has_one_way_ = false;
};

// Returns from where on a sum stops a straight way: 0 to 1; nothing if it does not.
[[nodiscard]] std::optional<double> stops_at(const Sum& sum, Point a, Point b);
// Returns whether a way comes from the side from which a line stops.
[[nodiscard]] bool runs_against(Point a, Point b, Point stops_from);

}   // namespace dryground::travel

// What a mover may get to through the air: of all moments of all jumps (`maybe_air`) what may be landed on or touched.
//
// Idea: a few moments that follow each other are looked at together, for they are near each other; what is known by
// then is not looked at again.

#include "perhaps_internal.hpp"

#include <algorithm>
#include <array>

#include "air_internal.hpp"

namespace dryground::travel {

namespace {

constexpr std::int32_t highest_piece = steps_per_px;
constexpr int most_pieces = 8;
constexpr std::size_t moments_together = 8;

class Looking {
public:
    Looking(const SideGround& ground, const SideLevel& level, int place, SideWaysOn& known, Perhaps& found)
        : ground_(ground), level_(level), place_(place), known_(known), found_(found) {}

    void look_from(Point a, Point b, bool jumps) {
        lowest_without_jump_ = std::min(a.y, b.y) + 2 * rounding_steps;
        jumps_ = jumps;
        maybe_air(level_.obstacles, ground_.flight, a, b, jumps, ground_.map.most().y, [this](const Moment& moment) {
            moments_[count_] = moment, boxes_[count_] = box_of(moment);
            if (++count_ == moments_together) look();
        });
        if (count_ > 0) look();
    }

private:
    [[nodiscard]] bool is_new(int place) const {
        return place != place_ && std::find(found_.places.begin(), found_.places.end(), place) == found_.places.end() &&
               !known_.leads_to(place);
    }
    void look() {
        Bounds box = boxes_[0];
        for (std::size_t i = 1; i < count_; ++i) box = detail::both(box, boxes_[i]);
        known_.look_at(box);
        level_.each_edge_near(box, [this](const SideLevel::Edge& edge) { look_at(edge); });
        level_.each_climbed_near(box, [this](const SideLevel::Climbed& cell) {
            const auto is_new_place = [this](int climb) { return is_new(climb); };
            if (std::any_of(cell.places.begin(), cell.places.end(), is_new_place) && is_touched(cell.ring))
                for (const int climb : cell.places)
                    if (is_new(climb)) found_.places.push_back(climb);
        });
        level_.each_target_near(box, [this](int target, const Ring& ring) {
            if (!known_.has_touched(target) && is_touched(ring)) add_once(found_.targets, target);
        });
        level_.each_swept_near(box, [this](std::size_t number) {
            const SideLevel& own = ground_.levels[ground_.places[static_cast<std::size_t>(place_)].level];
            const bool is_own = own.has_solid() && ground_.levels[number].solid == own.solid;
            if (!is_own && is_touched(ground_.levels[number].swept))
                add_once(found_.with_solid, static_cast<int>(number));
        });
        count_ = 0;
    }
    void look_at(const SideLevel::Edge& edge) {
        const auto [c, d] = ground_.ends(edge);
        // A body that slides falls, and does not get onto the stand at whose end it slides.
        if (!jumps_ && std::max(c.y, d.y) <= lowest_without_jump_) return;
        const auto lands = [c = c, d = d](const Moment& moment) { return may_land_on(moment, c, d); };
        if (is_new(edge.stand) && std::any_of(moments_.begin(), moments_.begin() + count_, lands))
            found_.places.push_back(edge.stand);
    }
    [[nodiscard]] bool is_touched(const Ring& ring) const {
        const Bounds box = detail::box_around(ring);
        for (std::size_t i = 0; i < count_; ++i)
            if (detail::meet(boxes_[i], box) && may_touch(moments_[i], ring)) return true;
        return false;
    }

    const SideGround& ground_;
    const SideLevel& level_;
    int place_;
    SideWaysOn& known_;
    Perhaps& found_;
    bool jumps_ = true;
    std::int32_t lowest_without_jump_ = 0;
    std::array<Moment, moments_together> moments_{};
    std::array<Bounds, moments_together> boxes_{};
    std::size_t count_ = 0;
};

}   // namespace

// Splits a slope into pieces, each hardly higher at one end than at the other.
Perhaps perhaps_from(const SideGround& ground, const SideLevel& level, int place, Point a, Point b, bool jumps,
                     SideWaysOn& known) {
    Perhaps found;
    const int pieces = std::clamp(std::abs(b.y - a.y) / highest_piece + 1, 1, most_pieces);
    const auto at = [&](int i) {
        return i == pieces ? b : on_edge(a, b, static_cast<std::int32_t>(a.x + (std::int64_t{b.x} - a.x) * i / pieces));
    };
    Looking looking(ground, level, place, known, found);
    for (int i = 0; i < pieces; ++i) looking.look_from(at(i), at(i + 1), jumps);
    return found;
}

}   // namespace dryground::travel

// Inside the travel room: what a mover that is seen from the side finds on a map: where it can stand, what is in its
// way, how it jumps.
#pragma once

#include <array>
#include <deque>
#include <optional>
#include <vector>

#include "flight_internal.hpp"
#include "moving_solids_internal.hpp"
#include "stands_internal.hpp"
#include "ways_internal.hpp"

namespace dryground::travel {

// A storey of the map; or the same while a moving solid stands at one of its stops, which adds its own edges.
struct SideLevel {
    StoreyId storey;
    std::size_t number;   // among all levels
    Obstacles obstacles;
    const SideLevel* storey_level = nullptr;   // of one with a moving solid: the storey without it
    std::size_t solid = 0, stop = 0;           // then: which one stands where,
    Ring swept{};                              // where it is touched from there to its next stop,
    std::optional<Bounds> jumps_from{};        // and from where one jumps: at some stops, for those that follow, too
    struct Edge {
        int stand;           // a place
        std::size_t begin;   // position of its first point
    };
    std::vector<Edge> edges{};
    detail::BoxIndex near{};
    // Cells that are climbed in, and which places to climb in lie in them.
    struct Climbed {
        Ring ring;
        std::vector<int> places;
    };
    std::vector<Climbed> climbed{};
    detail::BoxIndex near_climbed{};
    std::vector<int> targets{};   // for each of their rings
    std::vector<const Ring*> rings{};
    detail::BoxIndex near_targets{};
    std::vector<std::size_t> with_solid{};   // levels of the same storey with a moving solid
    detail::BoxIndex near_swept{};           // of those

    // What a moving solid does not change is stored with the storey.
    [[nodiscard]] const SideLevel& fixed() const { return storey_level != nullptr ? *storey_level : *this; }
    [[nodiscard]] bool has_solid() const { return storey_level != nullptr; }
    // Calls action(edge) for those near a box, or stops at the first for which it returns true.
    template <class Action>
    void each_edge_near(const Bounds& box, Action action) const {
        near.each_near(box, [&](std::size_t e) { action(edges[e]); });
        if (has_solid()) storey_level->each_edge_near(box, action);
    }
    template <class Test>
    [[nodiscard]] bool any_edge_near(const Bounds& box, Test test) const {
        return near.any_near(box, [&](std::size_t e) { return test(edges[e]); }) ||
               (has_solid() && storey_level->any_edge_near(box, test));
    }
    // Call action(target, ring), and action(cell).
    template <class Action>
    void each_target_near(const Bounds& box, Action action) const {
        fixed().near_targets.each_near(box, [&](std::size_t r) { action(fixed().targets[r], *fixed().rings[r]); });
    }
    template <class Action>
    void each_climbed_near(const Bounds& box, Action action) const {
        fixed().near_climbed.each_near(box, [&](std::size_t i) { action(fixed().climbed[i]); });
    }
    // Calls action(level) by number for those on which the solid may touch a box.
    template <class Action>
    void each_swept_near(const Bounds& box, Action action) const {
        fixed().near_swept.each_near(box, [&](std::size_t i) { action(fixed().with_solid[i]); });
    }
};

// A stand, a slide, a place to climb in, or a point in the air where a body comes into being or arrives.
struct SidePlace {
    Stand stand;   // of a place to climb in: without points
    std::size_t level;
    bool in_air = false;
    int climb = -1;   // its number among those
    // Where one gets on from a stand to a place to climb in, and back.
    struct Grip {
        int place;   // the other one
        Point here, there;
    };
    std::vector<Grip> grips{};

    [[nodiscard]] bool is_stood_on() const { return !in_air && !stand.slides && climb < 0; }
};

class SideGround {
public:
    // `before`: the same before the map changed, from which is taken what did not.
    explicit SideGround(const WaysOf& of, const SideGround* before = nullptr);

    [[nodiscard]] const Stand& stand(int place) const { return places[static_cast<std::size_t>(place)].stand; }
    [[nodiscard]] std::array<Point, 2> ends(const SideLevel::Edge& edge) const {
        const Ring& points = stand(edge.stand).points;
        return {points[edge.begin], points[edge.begin + 1]};
    }
    // Returns null if the map has no such storey.
    [[nodiscard]] const SideLevel* level(StoreyId storey) const;
    // Returns the stand, or slide, that a position is on, within a step or two; -1 for none.
    [[nodiscard]] int stand_at(const SideLevel& level, Point p, bool slides) const;
    // Returns the stands on moving solids, at any of their stops, that a position is on.
    [[nodiscard]] std::vector<int> stands_on_solids(const SideLevel& level, Point p) const;

    // Returns the place to climb in that holds a position; -1 for none.
    [[nodiscard]] int climb_at(StoreyId storey, Point p) const;
    [[nodiscard]] int place_of_climb(int climb) const { return first_climb + climb; }

    const Map& map;
    Flight flight;
    Footing footing;
    bool knows_jump = false;
    std::deque<SideLevel> levels;   // storeys, then those with a moving solid at a stop
    std::vector<SidePlace> places;
    std::vector<MovingSolid> solids;
    std::vector<std::vector<std::size_t>> levels_of_solids;   // by solid: its levels in the order of its stops
    std::unique_ptr<Ways> climbing;                           // null where nothing is climbed
    int first_climb = 0;                                      // its first place, among all

private:
    void add_climbing(const WaysOf& of, const SideGround* before);
    void add_grips(int climb_place, const Region& area, SideLevel& level, const Ring& cell);
    void add_level(SideLevel level, std::vector<Stand> stands);
    void add_moving(const WaysOf& of);
    void add_stops(std::size_t solid, const SideLevel& storey, const Mover& mover);
    void index(const std::vector<Target>& targets);
};

// Returns the point of an edge that is nearest to an x.
[[nodiscard]] Point on_edge(Point a, Point b, std::int32_t x);
// Returns the steps between two boxes along the axis on which they are further apart; 0 if they meet.
[[nodiscard]] double apart(const Bounds& a, const Bounds& b);
// Returns whether a body at the end of an edge gets on along it: a line that stops in one direction may cover it.
[[nodiscard]] bool is_let_onto(const SideLevel& level, Point a, Point b, Point p);
[[nodiscard]] bool is_free(const SideLevel& level, const Ring& way);

// What is known of a place.
struct SideWaysOn {
    std::vector<Move> moves;
    std::vector<Touched> touched;
    std::vector<Point> falls_out;
    // Through the air, by the most generous reading: places and targets, each once.
    std::vector<int> perhaps_to, perhaps_touched;
    std::vector<int> perhaps_with_solid;   // levels on which a moving solid is touched
    std::optional<Bounds> looked_at{};     // around all that decided about it: the place, and where it gets from there

    void look_at(const Bounds& box) { looked_at = looked_at ? detail::both(*looked_at, box) : box; }

    // Goes once to each place in each way of moving.
    void add(Move move);
    [[nodiscard]] bool leads_to(int place) const;
    [[nodiscard]] bool has_touched(int target) const;
};
[[nodiscard]] SideWaysOn side_ways_on(const SideGround& ground, int place);
// Adds what leads through the air: what may be, and jumps to where nothing leads yet; and jumps onto a moving solid on
// its level.
void add_through_air(const SideGround& ground, int place, SideWaysOn& known);
void add_jumps_onto_solid(const SideGround& ground, const SideLevel& level, int place, SideWaysOn& known);
// Adds what leads on from a place on a level, without jumps: of its own level, or of one with a moving solid.
void add_without_jumps(const SideGround& ground, const SideLevel& level, int place, SideWaysOn& known);
// Adds ways onto moving solids, and rides on them.
void add_moving_solids(const SideGround& ground, int place, SideWaysOn& known);

// Where a fall ends.
struct Fall {
    int stand = -1;     // -1: nowhere to stand
    bool out = false;   // out of the map
    Ring way;
};
[[nodiscard]] Fall fall_from(const SideGround& ground, const SideLevel& level, Point p);

}   // namespace dryground::travel

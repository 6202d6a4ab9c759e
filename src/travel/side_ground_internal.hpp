// Inside the travel room: what a mover that is seen from the side has before it on a map: where it can stand, what is
// in its way, how it jumps.
#pragma once

#include <array>
#include <optional>
#include <vector>

#include "flight_internal.hpp"
#include "stands_internal.hpp"
#include "ways_internal.hpp"

namespace dryground::travel {

struct SideLevel {
    StoreyId storey;
    Obstacles obstacles;
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
    explicit SideGround(const WaysOf& of);

    [[nodiscard]] const Stand& stand(int place) const { return places[static_cast<std::size_t>(place)].stand; }
    [[nodiscard]] std::array<Point, 2> ends(const SideLevel::Edge& edge) const {
        const Ring& points = stand(edge.stand).points;
        return {points[edge.begin], points[edge.begin + 1]};
    }
    // Null where the map has no such storey.
    [[nodiscard]] const SideLevel* level(StoreyId storey) const;
    // The stand, or slide, that a position is on, within a step or two; -1: none.
    [[nodiscard]] int stand_at(const SideLevel& level, Point p, bool slides) const;

    // The place to climb in that holds a position; -1: none.
    [[nodiscard]] int climb_at(StoreyId storey, Point p) const;
    [[nodiscard]] int place_of_climb(int climb) const { return first_climb + climb; }

    const Map& map;
    Flight flight;
    Footing footing;
    bool knows_jump = false;
    std::vector<SideLevel> levels;
    std::vector<SidePlace> places;
    std::unique_ptr<Ways> climbing;   // null where nothing is climbed
    int first_climb = 0;              // its first place, among all

private:
    void add_climbing(const WaysOf& of);
    void add_grips(int climb_place, const Region& area, SideLevel& level, const Ring& cell);
    void add_level(SideLevel level, std::vector<Stand> stands);
    void index(const std::vector<Target>& targets);
};

// The point of an edge that is nearest to an x.
[[nodiscard]] Point on_edge(Point a, Point b, std::int32_t x);
// Whether who comes to the end of an edge gets on along it: a line that stops in one direction may cover it.
[[nodiscard]] bool is_let_onto(const SideLevel& level, Point a, Point b, Point p);
[[nodiscard]] bool is_free(const SideLevel& level, const Ring& way);

// What is known of a place.
struct SideWaysOn {
    std::vector<Move> moves;
    std::vector<Touched> touched;
    std::vector<Point> falls_out;
    // Through the air, by the most generous reading: places and targets, each once.
    std::vector<int> perhaps_to, perhaps_touched;

    // Once to each place in each way of going.
    void add(Move move);
    [[nodiscard]] bool leads_to(int place) const;
    [[nodiscard]] bool has_touched(int target) const;
};
[[nodiscard]] SideWaysOn side_ways_on(const SideGround& ground, int place);
// Adds what the air has: jumps to where nothing leads yet, and what may be.
void add_through_air(const SideGround& ground, int place, SideWaysOn& known);

// Where a fall ends.
struct Fall {
    int stand = -1;     // -1: nowhere to stand
    bool out = false;   // out of the map
    Ring way;
};
[[nodiscard]] Fall fall_from(const SideGround& ground, const SideLevel& level, Point p);

}   // namespace dryground::travel

// Finds where a mover can get to in a whole world: over which links, picking up what, opening what; and what is out of
// reach, and why.
//
//     const dg::Reach reach = dg::reach(world);
//     for (const dg::GoalReached& goal : reach.goals()) …            // whether the world can be finished
//     if (const auto route = reach.route_to(map, object)) …          // step by step
//
// Two answers are certain. `yes` comes with a route that a body can follow, free of everything that stops it. `no`
// means that it is out of reach under the most generous assumptions: the highest jumps, steered at will, and all that
// can ever open, open. Anything in between is `not_decided`.
//
// Solids of moving kinds are not part of the ground. In a route they stand wherever needed along the places of their
// kind's `path`, and carry the mover; `no` assumes that they block nothing, and carry it anywhere along that path.
// Their speed is unknown: jumps from them are as long as from the ground.
//
// Maps that extend further than 2^28 steps (a million px) from cell (0, 0) are not analysed.
//
// Places are in px, y down. Results are values that refer to the world, which must outlive them. Threads: uses none of
// its own; the same input gives the same result. If a precondition is violated (an id that does not exist),
// std::out_of_range names it.
#pragma once

#include <cstddef>
#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "dryground/ground.hpp"

namespace dryground {

enum class Reached { yes, no, not_decided };

// The kind of a step of a route. `goes` is for movers that move freely, `steps` for those that step from cell to cell;
// `rides` is on a solid that moves along its path.
enum class Going { starts, walks, drops, jumps, climbs, goes, steps, rides, stairs, link, does };

// A place on a map.
struct Spot {
    MapId map = MapId::none;
    StoreyId storey = StoreyId::ground;
    PointPx at{};

    friend bool operator==(const Spot&, const Spot&) = default;
};

// A solid that moves along its path, and the position at which it is needed. None: the ground.
struct Carrier {
    ObjectId object = ObjectId::none;
    PointPx at{};

    friend bool operator==(const Carrier&, const Carrier&) = default;
};

struct RouteStep {
    Going going = Going::walks;
    MoverId mover = MoverId::none;      // which mover: the player may be another one on another map
    Spot from, to;                      // positions of the mover
    std::vector<PointPx> way{};         // from `from` to `to`; the curve of a jump as straight pieces
    double px = 0;                      // length of `way`
    ObjectId object = ObjectId::none;   // what it follows or triggers: an object of the map of `from`, or a tile
    LayerId layer = LayerId::none;
    Cell cell{};                  // of the tile
    Fires fires = Fires::enter;   // how that is triggered
    Facts needs{}, gained{};      // facts that the step needs, and that hold from then on
    // What it stands on at the end, if that is a moving solid: it waits there, or has carried it there.
    Carrier carrier{};
};

// The first step begins at the start; each other one begins where the previous one ends.
using Route = std::vector<RouteStep>;

// A place where a mover can be: seen from the side, a line to stand on or an area to climb in; otherwise an area.
struct TravelPlace {
    MapId map = MapId::none;
    StoreyId storey = StoreyId::ground;
    Reached reached = Reached::no;
    std::vector<PointPx> line{};   // from left to right
    Regions area{};                // steps
};

// A goal, and whether it is reached.
struct GoalReached {
    MapId map = MapId::none;
    ObjectId object = ObjectId::none;   // an object; none: a fact
    FactId fact = FactId::none;
    Reached reached = Reached::no;
};

// The first obstacle on the way to something.
struct InTheWay {
    enum class Sort {
        nothing,
        needs_fact,
        fact_never_given,
        behind_itself,
        too_high,
        too_far,
        too_narrow,
        closed,
        nowhere
    };
    Sort sort = Sort::nothing;
    MapId map = MapId::none;   // of what needs the fact: an object or a tile
    ObjectId object = ObjectId::none;
    LayerId layer = LayerId::none;
    Cell cell{};
    FactId fact = FactId::none;
    Spot from{};        // the nearest place reached
    double by_px = 0;   // how much is missing, px
};

struct ReachOptions {
    MoverId mover = MoverId::none;   // none: the player of each map
    std::optional<Spot> from{};      // omitted: the start of the world
    Facts given{};                   // facts that hold at the beginning: sorted ids
    std::size_t states = 100000;     // most states searched for facts that also close something
};

class Reach {
public:
    ~Reach();
    Reach(Reach&&) noexcept;
    Reach& operator=(Reach&&) noexcept;

    // Whether there is a place to begin at: false for a world without a start, or with one inside the ground.
    [[nodiscard]] bool begins() const;
    [[nodiscard]] const std::vector<GoalReached>& goals() const;   // in the order of the world
    // Returns all places of the maps that are or may be reached, with the most facts that can hold there together.
    [[nodiscard]] const std::vector<TravelPlace>& places() const;

    // Returns whether the mover can touch an object (for a point: come within its px), be at a place, gain a fact.
    [[nodiscard]] Reached reached(MapId map, ObjectId object) const;
    [[nodiscard]] Reached reached(const Spot& place) const;
    [[nodiscard]] Reached gained(FactId fact) const;
    // Returns whether anything leads into a map.
    [[nodiscard]] Reached map_reached(MapId map) const;
    // Returns the places of dead ends, from which no goal and no start can be reached: see the rule dead-end.
    [[nodiscard]] const std::vector<Spot>& dead_ends() const;
    // Returns places where a body seen from the side falls out of a map.
    [[nodiscard]] const std::vector<Spot>& bottomless() const;

    // Return a route, in order; nothing if the target is not reached. Cost: that of searching each step.
    [[nodiscard]] std::optional<Route> route_to(MapId map, ObjectId object) const;
    [[nodiscard]] std::optional<Route> route_to(const Spot& place) const;
    [[nodiscard]] std::optional<Route> route_to_fact(FactId fact) const;
    // Returns a route to all reached goals, one after another; nothing if no goal is reached, or if going to one of
    // them shuts the mover out of another.
    [[nodiscard]] std::optional<Route> tour() const;

    // Return why something is not reached.
    [[nodiscard]] InTheWay in_the_way(MapId map, ObjectId object) const;
    [[nodiscard]] InTheWay in_the_way_of_fact(FactId fact) const;

    // Follows changes of a map: afterwards everything is as `reach` would find it with the map as it is `now`, that of
    // a `Play` or of an edited world. Its cells may differ from before, and which objects are gone; all else is the
    // same. It is copied; what was returned by reference before is no longer valid. Throws std::invalid_argument if it
    // has other layers or another size. Cost: comparing the cells, what the changed ones touch, and searching again;
    // for movers that do not step from cell to cell that of reaching this map anew. Other maps are not merged again.
    void update(MapId map, const Map& now);

    struct Parts;   // internal

private:
    friend Reach reach(const World&, const ReachOptions&);
    explicit Reach(std::unique_ptr<Parts> parts);
    std::unique_ptr<Parts> parts_;
};

// Computes all of this. Cost: merging each reached map for its mover, once for each occurring set of facts that shapes
// its ground; seen from the side in addition proportional to stands times neighbours in jump range.
[[nodiscard]] Reach reach(const World& world, const ReachOptions& options = {});

// Returns the places that an object moves to, one after another, from its position: those in the property named by
// `path` of its kind. Empty if it names no property.
[[nodiscard]] std::vector<PointPx> path_of(const World& world, const Object& object);
// Returns the solids of a map that move without a path: only the game's code knows where they are, so here they block
// and carry nothing. O(objects).
[[nodiscard]] std::vector<ObjectId> moved_by_code(const World& world, const Map& map);

// Returns a route in words: a numbered line for each step, with the names of maps.
[[nodiscard]] std::string text(const World& world, const Route& route);
// Returns the number of the line of that text for each step; 0: the first line, without a number.
[[nodiscard]] std::vector<int> line_numbers(const Route& route);
// Returns the obstacle in a few words: "needs has_hatch_key, which …".
[[nodiscard]] std::string text(const World& world, const InTheWay& in_the_way);
[[nodiscard]] std::string_view name_of(Reached reached);   // "yes", "no", "not_decided"
[[nodiscard]] std::string_view name_of(Going going);

}   // namespace dryground

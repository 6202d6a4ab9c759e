// Where a mover can get to in a whole world: over which links, picking up what, opening what; and what stays out of
// reach, and why.
//
//     const dg::Reach reach = dg::reach(world);
//     for (const dg::GoalReached& goal : reach.goals()) …            // whether the world can be finished
//     if (const auto route = reach.route_to(map, object)) …          // step by step
//
// There are two honest answers. `yes` comes with a route that a body can follow, its way free of everything that stops
// it. `no` is said when not even the most generous reading gets there: the highest jumps, steered at will, everything
// that needs facts open that may ever open. What lies between is `not_decided`.
//
// Solids whose kind moves are not part of the ground. In a route they stand wherever they are needed along the places
// that their kind's `path` names, and carry the mover; `no` assumes that they block nothing, and carry it anywhere
// along that path. Their speed is unknown: jumps from them are as long as from ground.
//
// Maps that reach further than 2^28 steps (a million px) from cell (0, 0) are not walked on.
//
// Places are in px, y down. Ids are positions in the world's and the maps' lists. Results are values that refer to the
// world, which must outlive them. Threads: none of its own; the same question has the same answer. Where a caller's
// promise is broken (an id that is not there) std::out_of_range says which.
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

// How a step of a route is made. `goes` is for movers that move freely, `steps` for those that step from cell to cell.
// It `rides` on a solid that moves along its path.
enum class Going { starts, walks, drops, jumps, climbs, goes, steps, rides, stairs, link, does };

// A place on a map.
struct Spot {
    MapId map = MapId::none;
    StoreyId storey = StoreyId::ground;
    PointPx at{};

    friend bool operator==(const Spot&, const Spot&) = default;
};

// A solid that moves along its path, and its position when somebody needs it to stand there. None: the ground itself.
struct Carrier {
    ObjectId object = ObjectId::none;
    PointPx at{};

    friend bool operator==(const Carrier&, const Carrier&) = default;
};

struct RouteStep {
    Going going = Going::walks;
    MoverId mover = MoverId::none;      // who goes: the player may be another mover on another map
    Spot from, to;                      // positions of the mover
    std::vector<PointPx> way{};         // from the first to the last; a jump's curve made straight
    double px = 0;                      // how long that is
    ObjectId object = ObjectId::none;   // what it follows or sets off: an object of from's map, or a tile
    LayerId layer = LayerId::none;
    Cell cell{};                  // of the tile
    Fires fires = Fires::enter;   // how that is set off
    Facts needs{}, gained{};      // facts that this needs, and that hold from now on
    // What it stands on at the end, where that is a solid that moves: it waits there, or has carried it there.
    Carrier carrier{};
};

// The first step begins where the mover starts; each begins where the one before ends.
using Route = std::vector<RouteStep>;

// A place where a mover can be: of those seen from the side a line to stand on, or an area to climb in; of others an
// area.
struct TravelPlace {
    MapId map = MapId::none;
    StoreyId storey = StoreyId::ground;
    Reached reached = Reached::no;
    std::vector<PointPx> line{};   // from left to right
    Regions area{};                // steps
};

// Something that must be reached.
struct GoalReached {
    MapId map = MapId::none;
    ObjectId object = ObjectId::none;   // an object, or else
    FactId fact = FactId::none;
    Reached reached = Reached::no;
};

// The first thing that is in the way of something.
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
    MapId map = MapId::none;   // what needs the fact: an object, or a tile
    ObjectId object = ObjectId::none;
    LayerId layer = LayerId::none;
    Cell cell{};
    FactId fact = FactId::none;
    Spot from{};        // the nearest place that can be reached
    double by_px = 0;   // how much is missing
};

struct ReachOptions {
    MoverId mover = MoverId::none;   // none: each map's player
    std::optional<Spot> from{};      // nothing: where the world starts
    Facts given{};                   // facts that hold from the beginning: sorted ids
    std::size_t states = 100000;     // how many states of facts that also close something are looked at
};

class Reach {
public:
    ~Reach();
    Reach(Reach&&) noexcept;
    Reach& operator=(Reach&&) noexcept;

    // Whether there is a place to begin at: a world without a start, or one in the ground, has none.
    [[nodiscard]] bool begins() const;
    [[nodiscard]] const std::vector<GoalReached>& goals() const;   // as the world lists them
    // All places of the maps that can be reached, or may be: as they are with the most facts that come together there.
    [[nodiscard]] const std::vector<TravelPlace>& places() const;

    // Whether the mover can touch an object, or be inside of a point's px; and be at a place.
    [[nodiscard]] Reached reached(MapId map, ObjectId object) const;
    [[nodiscard]] Reached reached(const Spot& place) const;
    [[nodiscard]] Reached gained(FactId fact) const;
    // Maps that something leads into.
    [[nodiscard]] Reached map_reached(MapId map) const;
    // Objects that can be touched from where there is no way back to any goal or start: see check's dead-end.
    [[nodiscard]] const std::vector<Spot>& dead_ends() const;
    // Where a body that is seen from the side falls out of a map.
    [[nodiscard]] const std::vector<Spot>& bottomless() const;

    // What to do, in order; nothing where it is not reached. Cost: that of the steps, looked for one after another.
    [[nodiscard]] std::optional<Route> route_to(MapId map, ObjectId object) const;
    [[nodiscard]] std::optional<Route> route_to(const Spot& place) const;
    [[nodiscard]] std::optional<Route> route_to_fact(FactId fact) const;
    // To all goals that are reached, one after another; nothing where there is none, or where going to one of them
    // shuts the mover out of another.
    [[nodiscard]] std::optional<Route> tour() const;

    // Why something is not reached.
    [[nodiscard]] InTheWay in_the_way(MapId map, ObjectId object) const;
    [[nodiscard]] InTheWay in_the_way_of_fact(FactId fact) const;

    struct Parts;   // inside the library

private:
    friend Reach reach(const World&, const ReachOptions&);
    explicit Reach(std::unique_ptr<Parts> parts);
    std::unique_ptr<Parts> parts_;
};

// Works it all out. Cost: merging each map that is reached, for its mover, once for each set of facts that shapes its
// ground and is met; seen from the side in proportion to stands times neighbours in jump range.
[[nodiscard]] Reach reach(const World& world, const ReachOptions& options = {});

// The places that an object moves to, one after another, from its position: those of the property that its kind's
// `path` names. Empty where it names none.
[[nodiscard]] std::vector<PointPx> path_of(const World& world, const Object& object);
// Solids of a map that move and have no path: only the game's code knows where they are, so that here they block and
// carry nothing. O(objects).
[[nodiscard]] std::vector<ObjectId> moved_by_code(const World& world, const Map& map);

// A route in words: a line for each step, numbered, on maps by their names.
[[nodiscard]] std::string text(const World& world, const Route& route);
// Which line of that text each step is in; 0: the first one, without a number.
[[nodiscard]] std::vector<int> line_numbers(const Route& route);
// What is in the way in a few words: "needs has_hatch_key, which …".
[[nodiscard]] std::string text(const World& world, const InTheWay& in_the_way);
[[nodiscard]] std::string_view name_of(Reached reached);   // "yes", "no", "not_decided"
[[nodiscard]] std::string_view name_of(Going going);

}   // namespace dryground

// Inside the travel room: the places of one map, for one mover, while certain facts hold; and the ways between them.
#pragma once

#include <map>
#include <memory>
#include <vector>

#include "dryground/travel.hpp"
#include "obstacles_internal.hpp"

namespace dryground::travel {

// Positions from which a mover does something, or touches something: convex rings, whose inside counts.
struct Target {
    StoreyId storey = StoreyId::ground;
    std::vector<Ring> rings;
};

// A move from one place to another. The way's first point is in the one, its last in the other.
struct Move {
    int to = -1;
    Going going = Going::walks;
    Ring way;
    ObjectId on = ObjectId::none;   // the moving solid of a ride
};
// Returns whether a mover moves on without interruption, its body held: not by a leap, a fall or a door.
[[nodiscard]] inline bool is_even(Going going) {
    return going == Going::walks || going == Going::climbs || going == Going::goes || going == Going::steps;
}
// A target that is touched from a place: at the way's last point. Afterwards the mover is in the place `to`.
struct Touched {
    int target = -1;
    Move move;
};

// What may have been reached by the most generous reading.
struct MayBe {
    std::vector<char> places, targets;   // by their numbers; the former may be too short
    std::vector<int> open;               // places that have not been gone on from

    [[nodiscard]] bool has(int place) const {
        return static_cast<std::size_t>(place) < places.size() && places[static_cast<std::size_t>(place)] != 0;
    }
    void add(int place) {
        if (has(place)) return;
        if (places.size() <= static_cast<std::size_t>(place)) places.resize(static_cast<std::size_t>(place) + 1);
        places[static_cast<std::size_t>(place)] = 1;
        open.push_back(place);
    }
    void touch(int target) { targets[static_cast<std::size_t>(target)] = 1; }
};

struct WaysOf;

class Ways {
public:
    Ways() = default;
    Ways(const Ways&) = delete;
    Ways& operator=(const Ways&) = delete;
    virtual ~Ways() = default;

    // Follows a change of the map, in these boxes; places get other numbers. Returns false if it cannot: then they are
    // to be made anew. `of` is what they were made of, with the map as it is now; `other_targets`: these differ, too.
    [[nodiscard]] virtual bool follow(const WaysOf&, const std::vector<Bounds>&, bool /*other_targets*/) {
        return false;
    }
    // Returns how many places are known; `place_at` may add more.
    [[nodiscard]] virtual int places() const = 0;
    // Returns the place of a body that is put there: -1 if a body cannot be there.
    [[nodiscard]] virtual int place_at(StoreyId storey, Point p) = 0;
    // Returns the place that holds a position, without making one; -1 for none.
    [[nodiscard]] virtual int find_place(StoreyId storey, Point p) const = 0;
    // Returns all places that hold it: several if moving solids may stand below it. The one that `find_place` returns
    // comes first.
    [[nodiscard]] virtual std::vector<int> find_places(StoreyId storey, Point p) const {
        const int place = find_place(storey, p);
        return place < 0 ? std::vector<int>{} : std::vector<int>{place};
    }
    // Return moves that are free all along; and what is touched from a place, or on the way of those moves.
    [[nodiscard]] virtual const std::vector<Move>& moves(int place) = 0;
    [[nodiscard]] virtual const std::vector<Touched>& touched(int place) = 0;
    // Adds all that may be reached from a place, or touched, and is not there yet.
    virtual void add_may_be(int place, MayBe& may_be) = 0;
    // Returns the way from one position to another of the same place, both ends included.
    [[nodiscard]] virtual Ring way_within(int place, Point from, Point to) = 0;
    // Returns the shape of a place, without map and `reached`. For a place in the air: neither line nor area.
    [[nodiscard]] virtual TravelPlace shape(int place) const = 0;
    // Returns where a body falls out of the map from a place; nothing if it does not.
    [[nodiscard]] virtual std::vector<Point> falls_out(int) { return {}; }
    // Returns the moving solid that a place is on, and where that stands then.
    [[nodiscard]] virtual Carrier carrier(int) const { return {}; }
    // Returns how the mover moves inside a place.
    [[nodiscard]] virtual Going going(int place) const = 0;
};

struct WaysOf {
    const World& world;
    const Map& map;
    MoverId mover;
    const Facts& facts;
    const std::vector<Target>& targets;   // must outlive the ways
    const Mover* like = nullptr;          // another body, or other figures, than the mover's own
    std::vector<const Map*> also{};       // the map as it may be at other times: what can be stood on there counts, too

    [[nodiscard]] const Mover& figures() const { return like != nullptr ? *like : world.mover(mover); }
};
[[nodiscard]] std::unique_ptr<Ways> ways_by_steps(const WaysOf& of);
[[nodiscard]] std::unique_ptr<Ways> ways_free(const WaysOf& of);
[[nodiscard]] std::unique_ptr<Ways> ways_from_side(const WaysOf& of);
// The rings of cells that a mover climbs in, by storey; of storeys that have any.
using ClimbedCells = std::map<StoreyId, std::vector<Ring>>;
[[nodiscard]] ClimbedCells climbed_cells(const WaysOf& of);
// Returns where a mover climbs, its feet in those cells: to all sides. `before`: what this returned before the map
// changed, or null.
[[nodiscard]] std::unique_ptr<Ways> ways_climbing(const WaysOf& of, const ClimbedCells& cells, const Ways* before);
[[nodiscard]] std::unique_ptr<Ways> ways_of(const WaysOf& of);   // as the mover moves

// Returns what stops a mover on a map, by storey and direction.
[[nodiscard]] std::vector<Group> groups_of(const WaysOf& of);

// Return whether a box is so near to the lattice's middle that it can be grown by bodies and jumps; and whether a body
// is small enough.
[[nodiscard]] bool is_walked(const Bounds& box);
[[nodiscard]] bool is_small(const Bounds& body);

// Returns where a mover's position is when its body is in one of some boxes, or as near to it as a number of steps.
[[nodiscard]] std::vector<Bounds> positions_near(const std::vector<Bounds>& boxes, const Mover& mover,
                                                 std::int32_t near);

// Returns the length of a way, px.
[[nodiscard]] double length_px(const Ring& way);
// Return the nearest lattice point of a place, and a place of one.
[[nodiscard]] Point steps_of(PointPx p);
[[nodiscard]] PointPx px_of(Point p);

// Returns a route from one position to another of a storey by the fewest leaps, then the fewest moves; nothing if none
// leads there. Steps along the same place come between them.
[[nodiscard]] std::optional<Route> way_between(Ways& ways, MoverId mover, const Spot& from, const Spot& to);

}   // namespace dryground::travel

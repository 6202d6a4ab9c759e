// What fires: triggers, links, entities and tiles that react, for the bodies of a running game.
//
//     dg::TriggerTracker tracker(play);
//     for (const dg::Firing& firing : tracker.update(seconds, bodies)) …   // run firing.event, follow firing.link
//
// What is given belongs to the caller: it outlasts whatever is called while it is gone through. Threads: one at a time,
// with its Play. Allocates nothing in frames in which nothing fires.
#pragma once

#include <cstdint>
#include <memory>
#include <span>
#include <vector>

#include "dryground/play.hpp"

namespace dryground {

struct Firing {
    Fires fires = Fires::enter;
    std::uint64_t body = 0;             // 0 with no body: what fires at the start
    ObjectId object = ObjectId::none;   // of the present map; none: a tile
    LayerId layer = LayerId::none;      // of the tile, and its cell; or whose own trigger it is
    Cell cell{};
    Placed tile{}, became{};   // what stood there, and what stands there now; no tile where it is a layer's own trigger
    // Of the object, of the tile that stood there, or of the layer. They live as long as the Play's world.
    const Properties* properties = nullptr;
    EventId event = EventId::none;   // to run
    // To follow, of links that lead somewhere: it says the map and object to arrive at, and an event to run there.
    // Lives as long as the Play's world: also when the Play goes to that map.
    const Link* link = nullptr;
    StoreyId to_storey =
        StoreyId::none;     // of stairs: where the body is from now on; theirs there fire when it has left the cell
    EditResult changed{};   // facts that it gave, tiles that it turned into others: done already
};

// Follows bodies over the present map of a Play: what they get into, stay in, leave and use. Overlapping is what
// counts, not touching; a mover that moves by steps is in the cell that holds its position. What needs facts fires when
// all of them hold; what is there only `when` some hold senses nothing else, and is there as facts were when the call
// began: of two states of a switch one use sets off one. `once` is remembered by the Play, and
// saved.
class TriggerTracker {
public:
    explicit TriggerTracker(Play& play);   // which must outlive it
    ~TriggerTracker();
    TriggerTracker(TriggerTracker&&) noexcept;
    TriggerTracker& operator=(TriggerTracker&&) noexcept;

    // A frame: `seconds` have passed since the last. A body that is not told of any more has left. The first call for a
    // map also tells what fires at its start.
    std::vector<Firing> update(double seconds, std::span<const BodyNow> bodies);

    // What only the game knows: a body bumped into a tile or object from a side; an object was defeated.
    std::vector<Firing> bumped(const BodyNow& body, const Touch& touch);
    std::vector<Firing> defeated(ObjectId object, std::uint64_t body = 0);

private:
    struct Parts;
    std::unique_ptr<Parts> parts_;
};

}   // namespace dryground

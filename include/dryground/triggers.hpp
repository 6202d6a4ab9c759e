// Fires triggers, links, entities and reacting tiles for the bodies of a running game.
//
//     dg::TriggerTracker tracker(play);
//     for (const dg::Firing& firing : tracker.update(seconds, bodies)) …   // run firing.event, follow firing.link
//
// Results belong to the caller and stay valid whatever is called meanwhile. Threads: one at a time, together with its
// Play. Does not allocate in frames in which nothing fires.
#pragma once

#include <cstdint>
#include <memory>
#include <span>
#include <vector>

#include "dryground/play.hpp"

namespace dryground {

struct Firing {
    Fires fires = Fires::enter;
    std::uint64_t body = 0;             // 0: none, for what fires at the start
    ObjectId object = ObjectId::none;   // of the current map; none: a tile
    LayerId layer = LayerId::none;      // and cell of the tile; or the layer whose trigger fired
    Cell cell{};
    Placed tile{}, became{};   // the tile before, and after; empty for the trigger of a layer
    // Of the object, of the tile before, or of the layer. Valid as long as the world of the Play.
    const Properties* properties = nullptr;
    EventId event = EventId::none;   // to be run
    // To be followed, for links with a target: the map and object to arrive at, and an event to run there. Valid as
    // long as the world of the Play, also after the Play has changed to that map.
    const Link* link = nullptr;
    StoreyId to_storey =
        StoreyId::none;     // of stairs: the body's storey from now on; stairs there fire after it has left the cell
    EditResult changed{};   // facts and tiles that it changed, already done
};

// Follows bodies over the current map of a Play: what they enter, stay in, leave and use. Overlapping counts, not
// touching; a mover that moves by steps is in the cell of its position. What needs facts fires only while all of them
// hold; things with `when` and `unless` are present by the facts at the beginning of the call, so one use triggers only
// one of two states of a switch. The Play remembers and saves what fired `once`.
class TriggerTracker {
public:
    explicit TriggerTracker(Play& play);   // must outlive it
    ~TriggerTracker();
    TriggerTracker(TriggerTracker&&) noexcept;
    TriggerTracker& operator=(TriggerTracker&&) noexcept;

    // Advances by a frame of `seconds`. Bodies that are missing have left. The first call for a map also fires what
    // fires at its start.
    std::vector<Firing> update(double seconds, std::span<const BodyNow> bodies);

    // Report what only the game knows: a body bumped into a tile or object; an object was defeated.
    std::vector<Firing> bumped(const BodyNow& body, const Touch& touch);
    std::vector<Firing> defeated(ObjectId object, std::uint64_t body = 0);

private:
    struct Parts;
    std::unique_ptr<Parts> parts_;
};

}   // namespace dryground

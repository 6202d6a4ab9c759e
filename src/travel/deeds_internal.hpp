// Inside the travel room: what a mover can touch, take, use or set off on a map, and from where.
#pragma once

#include <vector>

#include "ways_internal.hpp"

namespace dryground::travel {

// An object, or one thing that a tile on a cell does. Its targets are in the same order.
struct Deed {
    ObjectId object = ObjectId::none;
    LayerId layer = LayerId::none;
    DataCell cell{};
    Fires fires = Fires::enter;
    bool does = false;   // this mover sets it off; else it is only something to get to
    Facts needs, gives;
    StoreyId leads = StoreyId::none;   // storey, of stairs
    const Link* link = nullptr;        // of links that lead somewhere
};
struct Deeds {
    std::vector<Deed> deeds;
    std::vector<Target> targets;
};
[[nodiscard]] Deeds deeds_of(const World& world, const Map& map, MoverId mover);
// Returns whether a tile in a layer is or may be part of a deed.
[[nodiscard]] bool does_something(const World& world, const Layer& layer, const Placed& placed);

// Returns whether the mover, or the map's start, sets it off. What is to be defeated has to be touched, with whatever
// the game has for it.
[[nodiscard]] bool fires(const Deed& deed);

// Returns whether it is present while exactly these facts hold.
[[nodiscard]] bool is_there(const Map& map, const Deed& deed, const Facts& facts);

[[nodiscard]] bool all_hold(const Facts& needs, const Facts& held);

}   // namespace dryground::travel

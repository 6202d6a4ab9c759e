// Inside the travel room: which facts may close something when they come true.
#pragma once

#include <vector>

#include "dryground/travel.hpp"

namespace dryground::travel {

// Marks the facts of a map that may close something to a mover there: an object that may be touched disappears, ground
// appears where the mover could be, or, seen from the side, ground disappears that it stood on. A door that opens
// closes nothing: what a mover cannot enter with a fact is compared with what it cannot enter without it, for every
// state of the facts that decide about something near. Where these are many, or the area is large, the fact counts as
// one that may close something. `turns`: the map has tiles that turn into others. Adds to `closing`. Cost: that of
// merging what lies around all that a fact decides about, twice for each state.
void add_closing_facts(const World& world, const Map& map, MoverId mover, bool turns, std::vector<char>& closing);

}   // namespace dryground::travel

// Inside the travel room: which facts may close something when they come true.
#pragma once

#include <vector>

#include "dryground/travel.hpp"

namespace dryground::travel {

// Marks the facts of a map that may close something to a mover there: an object that may be touched disappears, or
// ground appears where the mover could be. A door that opens closes nothing: where movers are seen from above, what
// they cannot enter with a fact is compared with what they cannot enter without it, for every state of the other facts,
// on maps that are not too large for that. For a mover seen from the side all ground that appears or disappears may
// close something, since it stands on it. `turns`: the map has tiles that turn into others. Adds to `closing`. Cost:
// that of merging the map for the mover, twice for each fact and state.
void add_closing_facts(const World& world, const Map& map, MoverId mover, bool turns, std::vector<char>& closing);

}   // namespace dryground::travel

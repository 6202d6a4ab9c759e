// What is present on a map while certain facts hold, and what its cells grant.
//
// Units: lattice steps, y down (geometry.hpp). Threads: free functions without shared state.
#pragma once

#include <vector>

#include "dryground/world.hpp"

namespace dryground {

// Fact ids, sorted.
using Facts = std::vector<FactId>;

// Returns whether a layer, or an object with its layer, is present while exactly these facts are true.
[[nodiscard]] bool is_there(const Layer& layer, const Facts& facts = {});
[[nodiscard]] bool is_there(const Map& map, const Object& object, const Facts& facts = {});

// Return the shape of a tile on a cell of a layer, an area or a line, in steps of the map, with flips, turns and
// offsets applied.
[[nodiscard]] Regions placed_area(const Map& map, const Layer& layer, const Shape& shape, int column, int row);
[[nodiscard]] Ring placed_line(const Map& map, const Layer& layer, const Shape& shape, int column, int row);

// Returns the facts that change ground, triggers or flags and sides of cells of a map: sorted ids.
[[nodiscard]] Facts facts_of_ground(const World& world, const Map& map);

// The flags and sides of a cell on a storey, as decided by the topmost tiles that declare them.
struct Passability {
    FlagSet flags = 0;
    Sides sides;
    LayerId flags_layer = LayerId::none,
            sides_layer = LayerId::none;   // the layers that decide; none: no layer does
};
[[nodiscard]] Passability passability(const World& world, const Map& map, DataCell cell, StoreyId storey,
                                      const Facts& facts = {});

}   // namespace dryground

// What stands on a map while certain facts hold, and what its cells grant.
//
// Units: lattice steps, y down (geometry.hpp). Threads: free functions without shared state.
#pragma once

#include <vector>

#include "dryground/world.hpp"

namespace dryground {

// Fact ids, sorted.
using Facts = std::vector<FactId>;

// Whether a layer, or an object with its layer, is there when just these facts are true.
[[nodiscard]] bool is_there(const Layer& layer, const Facts& facts = {});
[[nodiscard]] bool is_there(const Map& map, const Object& object, const Facts& facts = {});

// A tile's shape as it stands on a cell of a layer: steps of the map, flips, turns and offsets applied.
[[nodiscard]] Regions placed_area(const Map& map, const Layer& layer, const Shape& shape, int column, int row);
[[nodiscard]] Ring placed_line(const Map& map, const Layer& layer, const Shape& shape, int column,
                               int row);   // of a line

// The facts with which something of a map's ground, triggers or cells' flags and sides comes or goes: sorted ids.
[[nodiscard]] Facts facts_of_ground(const World& world, const Map& map);

// The flags and sides of a cell on a storey, as the topmost tile that says them decides.
struct Passability {
    FlagSet flags = 0;
    Sides sides;
    LayerId flags_layer = LayerId::none,
            sides_layer = LayerId::none;   // which layer decided; none: no layer says anything
};
[[nodiscard]] Passability passability(const World& world, const Map& map, DataCell cell, StoreyId storey,
                                      const Facts& facts = {});

}   // namespace dryground

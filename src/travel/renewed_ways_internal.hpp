// Inside the travel room: ways that follow the changes of a map.
#pragma once

#include <memory>
#include <vector>

#include "ways_internal.hpp"

namespace dryground::travel {

// Returns the box of all that may differ on a map when a tile on a cell of a layer is another one.
[[nodiscard]] Bounds changed_box(const World& world, const Map& map, LayerId layer, DataCell cell, const Placed& before,
                                 const Placed& now);

// A difference between two states of a map's cells.
struct ChangedCell {
    LayerId layer{};
    DataCell cell{};
    Placed before, now;
};
// Returns all of them. O(cells). Throws std::invalid_argument if they are not the same map: if its size or its layers
// differ.
[[nodiscard]] std::vector<ChangedCell> changed_cells(const Map& before, const Map& now);

// Has ways follow changes inside boxes, or makes them anew where they cannot, or where much has changed.
// `other_targets`: their targets differ as well.
void renew(std::unique_ptr<Ways>& ways, const WaysOf& of, const std::vector<Bounds>& changed,
           bool other_targets = false);

}   // namespace dryground::travel

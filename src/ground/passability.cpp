// Decides whether a cell may be entered: the topmost tile that declares something decides, separately for flags and for
// sides.
//
// Cost: O(layers) per cell.

#include <algorithm>

#include "../model/orientation_internal.hpp"
#include "ground_internal.hpp"

namespace dryground {

bool ground::has_sides(const World& world, const Map& map, StoreyId storey, const Facts& facts) {
    return std::any_of(map.layers.begin(), map.layers.end(),
                       [&](const Layer& layer) {
                           return !layer.holds_objects && layer.storey == storey && counts(layer, facts);
                       }) &&
           std::any_of(map.palette.begin(), map.palette.end(),
                       [&](const Placed& placed) { return placed.tile >= 0 && world.tile(placed).sides; });
}

Passability passability(const World& world, const Map& map, DataCell cell, StoreyId storey, const Facts& facts) {
    Passability say;
    for (std::size_t l = map.layers.size(); l-- > 0;) {
        const Layer& layer = map.layers[l];
        if (layer.holds_objects || layer.storey != storey || !ground::counts(layer, facts)) continue;
        const Placed& placed = map.placed(layer, cell);
        if (placed.tile < 0) continue;
        const Tile& tile = world.tile(placed);
        const std::optional<FlagSet>& flags = tile.flags ? tile.flags : layer.flags;
        if (say.flags_layer == LayerId::none && flags) {
            say.flags = *flags;
            say.flags_layer = id_of<LayerId>(l);
        }
        if (say.sides_layer == LayerId::none && tile.sides) {
            say.sides = detail::oriented(*tile.sides, placed.orientation);
            say.sides_layer = id_of<LayerId>(l);
        }
    }
    return say;
}

}   // namespace dryground

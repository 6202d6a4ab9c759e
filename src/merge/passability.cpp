// What is there as facts have it, and who decides whether a cell may be entered: the topmost tile that says so, flags
// and sides apart.

#include <algorithm>

#include "../model/orientation_internal.hpp"
#include "dryground/merge.hpp"

namespace dryground {

namespace {

bool holds(const std::vector<int>& when, const std::vector<int>& unless, const Facts& facts) {
    const auto is_true = [&](int fact) { return std::binary_search(facts.begin(), facts.end(), fact); };
    return std::all_of(when.begin(), when.end(), is_true) && std::none_of(unless.begin(), unless.end(), is_true);
}

}   // namespace

bool is_there(const Layer& layer, const Facts& facts) { return holds(layer.when, layer.unless, facts); }

bool is_there(const Map& map, const Object& object, const Facts& facts) {
    return holds(object.when, object.unless, facts) &&
           is_there(map.layers[static_cast<std::size_t>(object.layer)], facts);
}

CellSay passability(const World& world, const Map& map, int column, int row, int storey, const Facts& facts) {
    CellSay say;
    for (std::size_t l = map.layers.size(); l-- > 0;) {
        const Layer& layer = map.layers[l];
        if (layer.decor || layer.holds_objects || layer.storey != storey || !is_there(layer, facts)) continue;
        const Placed& placed = map.placed(layer, column, row);
        if (placed.tile < 0) continue;
        const Tile& tile = world.tile(placed);
        const std::optional<FlagSet>& flags = tile.flags ? tile.flags : layer.flags;
        if (say.flags_layer < 0 && flags) {
            say.flags = *flags;
            say.flags_layer = static_cast<int>(l);
        }
        if (say.sides_layer < 0 && tile.sides) {
            say.sides = detail::oriented(*tile.sides, placed.orientation);
            say.sides_layer = static_cast<int>(l);
        }
    }
    return say;
}

}   // namespace dryground

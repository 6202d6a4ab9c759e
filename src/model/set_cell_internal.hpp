// The outline of a tile set's cell, as its tiles' shapes count: a diamond where only isometric maps use it, else a box.
#pragma once

#include <algorithm>

#include "dryground/world.hpp"

namespace dryground::detail {

[[nodiscard]] inline bool has_diamonds(const World& world, const TileSet& set) {
    const int id = static_cast<int>(&set - world.tilesets().data());
    bool diamonds = false, boxes = false;
    for (const Map& map : world.maps())
        if (std::find(map.tilesets.begin(), map.tilesets.end(), id) != map.tilesets.end())
            (map.grid == GridSort::isometric ? diamonds : boxes) = true;
    return diamonds && !boxes;
}

[[nodiscard]] inline Ring set_cell(const World& world, const TileSet& set) {
    const std::int32_t w = set.cell_width * steps_per_px, h = set.cell_height * steps_per_px;
    if (has_diamonds(world, set)) return {{w / 2, 0}, {w, h / 2}, {w / 2, h}, {0, h / 2}};
    return box_ring({0, 0}, {w, h});
}

}   // namespace dryground::detail

// The cell of a tile set: its outline, and where art stands on it.
#pragma once

#include <algorithm>

#include "dryground/world.hpp"

namespace dryground::detail {

[[nodiscard]] inline bool has_diamonds(const World& world, const TileSet& set) {
    const auto id = id_of<TileSetId>(static_cast<std::size_t>(&set - world.tilesets().data()));
    bool diamonds = false, boxes = false;
    for (const Map& map : world.maps())
        if (std::find(map.tilesets.begin(), map.tilesets.end(), id) != map.tilesets.end())
            (map.grid == GridSort::isometric ? diamonds : boxes) = true;
    return diamonds && !boxes;
}

// Returns the outline of a tile set's cell as its tiles' shapes see it: a diamond if only isometric maps use it, else a
// box.
[[nodiscard]] inline Ring set_cell(const World& world, const TileSet& set) {
    const std::int32_t w = set.cell_width * steps_per_px, h = set.cell_height * steps_per_px;
    if (has_diamonds(world, set)) return {{w / 2, 0}, {w, h / 2}, {w / 2, h}, {0, h / 2}};
    return box_ring({0, 0}, {w, h});
}

// Returns where the top-left corner of art lies that stands on a cell, px from the corner of (the box around) the cell:
// the middle of its lower edge is on the middle of the cell's, which is the lower corner of a diamond.
[[nodiscard]] inline std::pair<double, double> standing_corner(std::array<int, 2> cell, std::array<int, 2> art) {
    const int across = cell[0] - art[0];
    return {across >= 0 ? across / 2 : (across - 1) / 2, cell[1] - art[1]};
}

}   // namespace dryground::detail

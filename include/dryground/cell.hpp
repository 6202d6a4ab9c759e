// Cells of a map, counted in two ways that must not be mixed up: from cell (0, 0), as designers count and files say,
// and from the top-left corner of the data that a map holds. `Map::cell` and `Map::data_cell` (map.hpp) turn one into
// the other.
#pragma once

#include <compare>

namespace dryground {

// Counted from the map's cell (0, 0): may be negative, and need not be one of the map's.
struct Cell {
    int column = 0, row = 0;
    friend auto operator<=>(const Cell&, const Cell&) = default;
};

// Counted from the data's top-left: of a map's cells 0 or more each, less than its columns and rows.
struct DataCell {
    int column = 0, row = 0;
    friend auto operator<=>(const DataCell&, const DataCell&) = default;
};

}   // namespace dryground

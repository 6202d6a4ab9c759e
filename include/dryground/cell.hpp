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

// A block of cells: the one at its top-left, and how many.
struct CellArea {
    int column = 0, row = 0, columns = 0, rows = 0;
    friend bool operator==(const CellArea&, const CellArea&) = default;
};

// All cells from the first to the last column and row, both included; none where the last lies before the first.
struct DataCells {
    int first_column = 0, first_row = 0, last_column = -1, last_row = -1;
};

}   // namespace dryground

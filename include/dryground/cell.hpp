// Cells of a map, counted in two ways that must not be mixed up: from cell (0, 0), as designers count and as files are
// written, and from the top-left corner of the map's data. `Map::cell` and `Map::data_cell` (map.hpp) convert.
#pragma once

#include <compare>

namespace dryground {

// Counted from the map's cell (0, 0): may be negative, and may lie outside the map.
struct Cell {
    int column = 0, row = 0;
    friend auto operator<=>(const Cell&, const Cell&) = default;
};

// Counted from the top-left of the data: for cells of the map from 0 to less than its columns and rows.
struct DataCell {
    int column = 0, row = 0;
    friend auto operator<=>(const DataCell&, const DataCell&) = default;
};

// A block of cells: its top-left cell and its size.
struct CellArea {
    int column = 0, row = 0, columns = 0, rows = 0;
    friend bool operator==(const CellArea&, const CellArea&) = default;
};

// All cells from the first to the last column and row, both included; empty if the last comes before the first.
struct DataCells {
    int first_column = 0, first_row = 0, last_column = -1, last_row = -1;
};

}   // namespace dryground

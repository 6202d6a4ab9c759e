// A map's size, and all its content moved by cells.

#include <fmt/format.h>

#include "edit_internal.hpp"
#include "writing_internal.hpp"

namespace dryground::files {

namespace {

std::string pair_toml(int a, int b) { return fmt::format("[{}, {}]", a, b); }

// Says `first`, which need not have been said: below the size then.
void write_first(OpenMap& map, int column, int row) {
    if (const toml::node* first = map.tree.get("first")) {
        map.text.replace(*first, pair_toml(column, row));
    } else if (column != 0 || row != 0) {
        const std::size_t end = map.text.line_end(map.text.offset(map.tree.get("size")->source().end));
        map.text.insert(end, fmt::format("{}first = {}", map.text.line_break(), pair_toml(column, row)));
    }
}

template <class Action>
void each_cell_layer(OpenMap& map, Action action) {
    for (std::size_t layer = 0; layer < map.draft.layers.size(); ++layer)
        if (!map.draft.layers[layer].holds_objects && !map.draft.layers[layer].unread) {
            CellGrid grid(map, layer);
            action(grid);
            grid.write();
        }
}

}   // namespace

void edit(OpenMap& map, const ResizeMap& resize) {
    if (resize.columns < 1 || resize.rows < 1) throw EditFault("a map has at least one column and one row");
    if (std::int64_t{resize.columns} * resize.rows > std::int64_t{1} << 26)
        throw EditFault("a map has at most 67,108,864 cells");
    const auto [columns, rows] = map.draft.size.value;
    if (columns == resize.columns && rows == resize.rows) return;
    const bool right = resize.keep == Keep::top_right || resize.keep == Keep::bottom_right;
    const bool bottom = resize.keep == Keep::bottom_left || resize.keep == Keep::bottom_right;
    const int column = right ? resize.columns - columns : 0, row = bottom ? resize.rows - rows : 0;
    each_cell_layer(map, [&](CellGrid& grid) { grid.resize(resize.columns, resize.rows, column, row); });
    const toml::node* size = map.tree.get("size");
    if (size == nullptr) throw EditFault("the map does not say its size");
    map.text.replace(*size, pair_toml(resize.columns, resize.rows));
    write_first(map, map.draft.first[0] - column, map.draft.first[1] - row);
    ++map.count;
}

void edit(OpenMap& map, const ShiftMap& shift) {
    if (shift.columns == 0 && shift.rows == 0) return;
    const int columns = map.draft.size.value[0], rows = map.draft.size.value[1];
    each_cell_layer(map, [&](CellGrid& grid) {
        const std::uint32_t nothing = grid.key_for("");
        std::vector<std::uint32_t> old;
        for (int r = 0; r < rows; ++r)
            for (int c = 0; c < columns; ++c) old.push_back(grid.at(c, r));
        for (int r = 0; r < rows; ++r)
            for (int c = 0; c < columns; ++c) {
                const int from_column = c - shift.columns, from_row = r - shift.rows;
                grid.set(c, r,
                         grid.has(from_column, from_row)
                             ? old[static_cast<std::size_t>(from_row) * static_cast<std::size_t>(columns) +
                                   static_cast<std::size_t>(from_column)]
                             : nothing);
            }
    });
    const auto [width, height] = map.draft.cell.value;
    const PointPx by =
        map.draft.grid.value == "isometric"
            ? PointPx{(shift.columns - shift.rows) * width / 2.0, (shift.columns + shift.rows) * height / 2.0}
            : PointPx{0.0 + shift.columns * width, 0.0 + shift.rows * height};
    for (std::size_t layer = 0; layer < map.draft.layers.size(); ++layer)
        for (const char* key : {"objects", "except"})
            if (const toml::array* list = map.layer_tree(layer)[key].as_array())
                for (const toml::node& item : *list)
                    if (item.is_table()) {
                        move_numbers(map, *item.as_table(), by, {shift.columns, shift.rows});
                        ++map.count;
                    }
}

}   // namespace dryground::files

// A map's size, and all its content moved by cells.

#include <fmt/format.h>

#include "edit_internal.hpp"
#include "writing_internal.hpp"

namespace dryground::files {

namespace {

std::string pair_toml(int a, int b) { return fmt::format("[{}, {}]", a, b); }

// Sets `first`, which may not be in the file yet: then below the size.
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

PointPx px_of(const OpenMap& map, int columns, int rows) {
    const auto [width, height] = map.draft.cell.value;
    return map.draft.grid.value == "isometric"
               ? PointPx{(columns - rows) * width / 2.0, (columns + rows) * height / 2.0}
               : PointPx{0.0 + columns * width, 0.0 + rows * height};
}

// Lists the cells that are cut off, by layer, in `map.lost`; `stays(column, row)` of the data.
template <class Stays>
void tell_lost_cells(OpenMap& map, const CellGrid& grid, Stays stays) {
    const auto [columns, rows] = map.draft.size.value;
    std::map<std::string, std::size_t> lost;
    std::size_t count = 0;
    for (int r = 0; r < rows; ++r)
        for (int c = 0; c < columns; ++c)
            if (const std::string& meaning = grid.meaning(grid.at(c, r)); !meaning.empty() && !stays(c, r))
                ++lost[meaning], ++count;
    if (count == 0) return;
    std::vector<std::string> parts;
    for (const auto& [meaning, number] : lost) parts.push_back(fmt::format("{} {}", number, meaning));
    if (parts.size() > 8) parts.resize(8), parts.emplace_back("…");
    map.lost.push_back(fmt::format("{} {} of layer '{}': {}", count, count == 1 ? "cell" : "cells",
                                   grid.draft().name.value, fmt::join(parts, ", ")));
}

// Lists properties that are places on this map.
void move_places(OpenMap& map, const toml::table& object, const std::string& kind, const PointPx& by) {
    const toml::table* props = object["props"].as_table();
    if (props == nullptr) return;
    const PropertyTypes types = properties_of(map.world, kind);
    for (const auto& [name, node] : *props)
        if (const auto type = types.find(std::string(name.str())); type != types.end() && holds_places(*type->second))
            move_points(map, node, by);
}

void move_everything(OpenMap& map, const ShiftMap& shift) {
    const PointPx by = px_of(map, shift.columns, shift.rows);
    for (std::size_t l = 0; l < map.draft.layers.size(); ++l) {
        const LayerDraft& layer = map.draft.layers[l];
        const std::string standard = layer.kind ? layer.kind->value : std::string();
        for (const char* key : {"objects", "except"})
            if (const toml::array* list = map.layer_tree(l)[key].as_array())
                for (const toml::node& item : *list)
                    if (const toml::table* table = item.as_table()) {
                        move_numbers(map, *table, by, {shift.columns, shift.rows});
                        move_places(map, *table, (*table)["kind"].value_or(standard), by);
                        ++map.count;
                    }
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
    each_cell_layer(map, [&](CellGrid& grid) {
        tell_lost_cells(map, grid, [&](int c, int r) {
            return c + column >= 0 && r + row >= 0 && c + column < resize.columns && r + row < resize.rows;
        });
        grid.resize(resize.columns, resize.rows, column, row);
    });
    const toml::node* size = map.tree.get("size");
    if (size == nullptr) throw EditFault("the map has no size");
    map.text.replace(*size, pair_toml(resize.columns, resize.rows));
    write_first(map, map.draft.first.column - column, map.draft.first.row - row);
    ++map.count;
}

void edit(OpenMap& map, const ShiftMap& shift) {
    if (shift.columns == 0 && shift.rows == 0) return;
    const int columns = map.draft.size.value[0], rows = map.draft.size.value[1];
    each_cell_layer(map, [&](CellGrid& grid) {
        tell_lost_cells(map, grid, [&](int c, int r) { return grid.has(c + shift.columns, r + shift.rows); });
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
    move_everything(map, shift);
}

}   // namespace dryground::files

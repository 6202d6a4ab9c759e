// Painting: cells of lines, boxes and rings, fills, replacing one thing by another, copies.

#include <map>

#include "edit_internal.hpp"

namespace dryground {

std::vector<Cell> cells_of_line(Cell from, Cell to) {
    std::vector<Cell> cells;
    const int across = std::abs(to.column - from.column), down = -std::abs(to.row - from.row);
    const int step_x = from.column < to.column ? 1 : -1, step_y = from.row < to.row ? 1 : -1;
    for (int error = across + down;;) {
        cells.push_back(from);
        if (from == to) return cells;
        const int twice = 2 * error;
        if (twice >= down) error += down, from.column += step_x;
        if (twice <= across) error += across, from.row += step_y;
    }
}

std::vector<Cell> cells_of_box(const CellArea& box) {
    std::vector<Cell> cells;
    for (int r = 0; r < box.rows; ++r)
        for (int c = 0; c < box.columns; ++c) cells.push_back({box.column + c, box.row + r});
    return cells;
}

std::vector<Cell> cells_of_ring(const CellArea& box) {
    std::vector<Cell> cells = cells_of_box(box);
    const auto inside = [&](const Cell& cell) {
        return cell.column > box.column && cell.row > box.row && cell.column < box.column + box.columns - 1 &&
               cell.row < box.row + box.rows - 1;
    };
    cells.erase(std::remove_if(cells.begin(), cells.end(), inside), cells.end());
    return cells;
}

namespace files {

void edit(OpenMap& map, const PaintCells& paint) {
    CellGrid grid(map, map.layer(paint.layer, false));
    const std::uint32_t key = grid.key_for(paint.tile);
    for (const auto& [column, row] : paint.cells)
        grid.set(column - map.draft.first.column, row - map.draft.first.row, key);
    grid.write();
}

void edit(OpenMap& map, const FillCells& fill) {
    CellGrid grid(map, map.layer(fill.layer, false));
    const std::uint32_t key = grid.key_for(fill.tile);
    std::vector<Cell> open{{fill.cell.column - map.draft.first.column, fill.cell.row - map.draft.first.row}};
    const std::string old = grid.meaning(grid.at(open[0].column, open[0].row));
    if (old == grid.meaning(key)) return;
    while (!open.empty()) {
        const auto [column, row] = open.back();
        open.pop_back();
        if (!grid.has(column, row) || grid.meaning(grid.at(column, row)) != old) continue;
        grid.set(column, row, key);
        open.insert(open.end(), {{column + 1, row}, {column - 1, row}, {column, row + 1}, {column, row - 1}});
    }
    grid.write();
}

void edit(OpenMap& map, const ReplaceTile& replace) {
    CellGrid grid(map, map.layer(replace.layer, false));
    const std::string from = grid.meaning_of(replace.from);
    const std::uint32_t key = grid.key_for(replace.to);
    const auto [columns, rows] = map.draft.size.value;
    const auto [first_column, first_row] = map.draft.first;
    for (const auto& [c, r] : cells_of_box(replace.area.value_or(CellArea{first_column, first_row, columns, rows})))
        if (const int column = c - first_column, row = r - first_row; grid.meaning(grid.at(column, row)) == from)
            grid.set(column, row, key);
    grid.write();
}

void edit(OpenMap& map, const CopyCells& copy) {
    const std::size_t from_layer = map.layer(copy.layer, false);
    const std::size_t to_layer = copy.to_layer.empty() ? from_layer : map.layer(copy.to_layer, false);
    CellGrid from(map, from_layer);
    std::optional<CellGrid> other;
    if (to_layer != from_layer) other.emplace(map, to_layer);
    CellGrid& to = other ? *other : from;
    const auto [first_column, first_row] = map.draft.first;
    const std::vector<Cell> cells = cells_of_box(copy.area);
    std::vector<std::uint32_t> keys;
    for (const auto& [c, r] : cells) keys.push_back(from.at(c - first_column, r - first_row));
    if (copy.move) {
        const std::uint32_t nothing = from.key_for("");
        for (const auto& [c, r] : cells) from.set(c - first_column, r - first_row, nothing);
    }
    std::map<std::uint32_t, std::uint32_t> there;   // the other layer's keys for this one's
    for (std::size_t i = 0; i < cells.size(); ++i) {
        auto [key, is_new] = there.emplace(keys[i], keys[i]);
        if (is_new && other) key->second = to.key_for_meaning(from.meaning(keys[i]));
        to.set(cells[i].column - copy.area.column + copy.to.column - first_column,
               cells[i].row - copy.area.row + copy.to.row - first_row, key->second);
    }
    from.write();
    if (other) other->write();
}

}   // namespace files

}   // namespace dryground

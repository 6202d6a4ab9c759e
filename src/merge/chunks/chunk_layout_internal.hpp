// Inside the merge room: which cells each chunk of a map is made of, and which chunks lie beside it.
#pragma once

#include <algorithm>
#include <vector>

#include "../cells/stacking_internal.hpp"

namespace dryground::detail {

// Makes the layout. Chunks are counted row by row. Outer ones reach `margin` cells beyond the map.
struct ChunkLayout {
    ChunkLayout(const Map& m, int chunk_cells) : map(m), cells(std::max(1, chunk_cells)) {
        first_column = floored(map.first_column, cells);
        first_row = floored(map.first_row, cells);
        columns = floored(map.first_column + map.columns - 1, cells) - first_column + 1;
        rows = floored(map.first_row + map.rows - 1, cells) - first_row + 1;
    }

    [[nodiscard]] std::size_t size() const {
        return static_cast<std::size_t>(columns) * static_cast<std::size_t>(rows);
    }
    [[nodiscard]] Block block_of(std::size_t chunk) const {
        const int column = static_cast<int>(chunk) % columns, row = static_cast<int>(chunk) / columns;
        const int c0 = column == 0 ? -margin : (first_column + column) * cells - map.first_column,
                  r0 = row == 0 ? -margin : (first_row + row) * cells - map.first_row,
                  c1 = column + 1 == columns ? map.columns + margin
                                             : (first_column + column + 1) * cells - map.first_column,
                  r1 = row + 1 == rows ? map.rows + margin : (first_row + row + 1) * cells - map.first_row;
        return {c0, r0, c1 - c0, r1 - r0};
    }
    [[nodiscard]] Ring ring_of(std::size_t chunk) const {
        const Block block = block_of(chunk);
        return map.block_ring(block.column, block.row, block.columns, block.rows);
    }
    // Returns the chunk of a cell of the map, counted from the data's top-left.
    [[nodiscard]] std::size_t chunk_of(int column, int row) const {
        const int c = floored(map.first_column + column, cells) - first_column,
                  r = floored(map.first_row + row, cells) - first_row;
        return static_cast<std::size_t>(r) * static_cast<std::size_t>(columns) + static_cast<std::size_t>(c);
    }
    // Returns the chunk so many columns and rows away; -1 beyond the edge of the map.
    [[nodiscard]] int beside(std::size_t chunk, int dc, int dr) const {
        const int column = static_cast<int>(chunk) % columns + dc, row = static_cast<int>(chunk) / columns + dr;
        return column < 0 || row < 0 || column >= columns || row >= rows ? -1 : row * columns + column;
    }
    // Returns the chunk behind a side (top, right, bottom, left; of diamonds starting at the top right).
    [[nodiscard]] int behind(std::size_t chunk, std::size_t side) const {
        static constexpr int dc[]{0, 1, 0, -1}, dr[]{-1, 0, 1, 0};
        return beside(chunk, dc[side], dr[side]);
    }
    // Returns those that share a side or a corner with it.
    [[nodiscard]] std::vector<std::size_t> around(std::size_t chunk) const {
        std::vector<std::size_t> result;
        for (int dr = -1; dr <= 1; ++dr)
            for (int dc = -1; dc <= 1; ++dc)
                if (const int other = beside(chunk, dc, dr); other >= 0 && (dc != 0 || dr != 0))
                    result.push_back(static_cast<std::size_t>(other));
        return result;
    }
    // Returns those that reach to a box: outer ones reach to everything beyond the map on their side.
    [[nodiscard]] std::vector<std::size_t> near(const Bounds& box) const {
        const auto [c0, r0, c1, r1] = map.cells_near(box);
        const auto chunk = [&](int column, int row) {
            return static_cast<int>(chunk_of(std::clamp(column, 0, map.columns - 1), std::clamp(row, 0, map.rows - 1)));
        };
        const int first = chunk(c0, r0), last = chunk(c1, r1);
        std::vector<std::size_t> result;
        for (int r = first / columns; r <= last / columns; ++r)
            for (int c = first % columns; c <= last % columns; ++c)
                result.push_back(static_cast<std::size_t>(r * columns + c));
        return result;
    }

    const Map& map;
    int cells;
    int first_column = 0, first_row = 0, columns = 0, rows = 0;   // of chunks
    int margin = 0;

private:
    static int floored(int a, int b) { return a / b - (a % b < 0 ? 1 : 0); }
};

}   // namespace dryground::detail

// Cells joined by steps that can be taken to and fro.
//
// Idea. Union-find, which Galler and Fischer gave in 1964: cells of a block are joined row by row with those to the
// left and above, then the parts of blocks across their common sides.

#include "joined_cells_internal.hpp"

#include <algorithm>
#include <bit>

namespace dryground::travel {

namespace {

// Returns the least number that one belongs to. Each leads to a lesser one that it belongs to, or to itself.
int root(std::vector<int>& joined, int of) {
    const auto next = [&](int at) -> int& { return joined[static_cast<std::size_t>(at)]; };
    while (next(of) != of) of = next(of) = next(next(of));
    return of;
}

int unite_roots(std::vector<int>& joined, int a, int b) {
    a = root(joined, a), b = root(joined, b);
    joined[static_cast<std::size_t>(std::max(a, b))] = std::min(a, b);
    return std::min(a, b);
}

// Returns whether a step leads to a cell and back. `before` is the cell to the left (way 0) or above (way 1).
bool leads_both_ways(const StepCells& cells, std::size_t before, std::size_t cell, unsigned way) {
    return (cells.leads(before) >> way & cells.leads(cell) >> (way + 2) & 1) != 0;
}

}   // namespace

JoinedCells::JoinedCells(const StepCells& cells, int columns, int rows)
    : columns_(columns),
      rows_(rows),
      blocks_across_((columns + block_cells - 1) / block_cells),
      blocks_down_((rows + block_cells - 1) / block_cells),
      part_(static_cast<std::size_t>(columns) * static_cast<std::size_t>(rows)),
      blocks_(static_cast<std::size_t>(blocks_across_) * static_cast<std::size_t>(blocks_down_)) {
    for (int r = 0; r < blocks_down_; ++r)
        for (int c = 0; c < blocks_across_; ++c) join(cells, c, r);
    join_blocks(cells);
}

void JoinedCells::follow(const StepCells& cells, const detail::Block& changed) {
    // With blocks whose steps lead into what changed.
    const int first_column = std::max(0, changed.column - 1) / block_cells,
              first_row = std::max(0, changed.row - 1) / block_cells,
              last_column = std::min(columns_ - 1, changed.column + changed.columns) / block_cells,
              last_row = std::min(rows_ - 1, changed.row + changed.rows) / block_cells;
    for (int r = first_row; r <= last_row; ++r)
        for (int c = first_column; c <= last_column; ++c) join(cells, c, r);
    join_blocks(cells);
}

detail::Block JoinedCells::cells_of(int block_column, int block_row) const {
    const int column = block_column * block_cells, row = block_row * block_cells;
    return {column, row, std::min(block_cells, columns_ - column), std::min(block_cells, rows_ - row)};
}

void JoinedCells::join(const StepCells& cells, int block_column, int block_row) {
    const detail::Block block = cells_of(block_column, block_row);
    std::vector<int> joined;   // provisional numbers
    for (int r = block.row; r < block.row + block.rows; ++r) {
        std::size_t cell = index(block.column, r);
        for (int c = block.column; c < block.column + block.columns; ++c, ++cell) {
            part_[cell] = 0;
            if (!cells.has_stand(cell)) continue;
            int part = -1;
            if (c > block.column && leads_both_ways(cells, cell - 1, cell, 0)) part = part_[cell - 1] - 1;
            if (const std::size_t above = cells.next(cell, 3); r > block.row && leads_both_ways(cells, above, cell, 1))
                part = part < 0 ? part_[above] - 1 : unite_roots(joined, part, part_[above] - 1);
            if (part < 0) joined.push_back(part = static_cast<int>(joined.size()));
            part_[cell] = static_cast<std::uint16_t>(part + 1);
        }
    }
    JoinedBlock& of = blocks_[static_cast<std::size_t>(block_row) * static_cast<std::size_t>(blocks_across_) +
                              static_cast<std::size_t>(block_column)];
    of.parts.clear(), of.ways_out.clear();
    number_parts(block, joined, of.parts);
    if (cells.may_lead_one_way(block)) find_one_way(cells, block, of.ways_out);
}

// Gives parts their numbers, in the order of their first cells.
void JoinedCells::number_parts(const detail::Block& block, std::vector<int>& joined, std::vector<Part>& parts) {
    for (std::size_t i = 0, count = 0; i < joined.size(); ++i)   // now: the number of the part
        joined[i] =
            joined[i] == static_cast<int>(i) ? static_cast<int>(count++) : joined[static_cast<std::size_t>(joined[i])];
    for (int r = block.row; r < block.row + block.rows; ++r) {
        std::size_t cell = index(block.column, r);
        for (int c = block.column; c < block.column + block.columns; ++c, ++cell) {
            if (part_[cell] == 0) continue;
            const auto number = static_cast<std::size_t>(joined[part_[cell] - std::size_t{1}]);
            part_[cell] = static_cast<std::uint16_t>(number + 1);
            if (number == parts.size()) parts.push_back({cell, {c, r}, {c, r}});
            Part& part = parts[number];
            part.least.column = std::min(part.least.column, c);
            part.most = {std::max(part.most.column, c), r};
        }
    }
}

void JoinedCells::find_one_way(const StepCells& cells, const detail::Block& block, std::vector<Step>& into) const {
    for (int r = block.row; r < block.row + block.rows; ++r)
        for (int c = block.column; c < block.column + block.columns; ++c)
            for (unsigned ways = cells.leads(index(c, r)); ways != 0; ways &= ways - 1) {
                const auto way = static_cast<unsigned>(std::countr_zero(ways));
                if ((cells.leads(cells.next(index(c, r), way)) >> step_back(way) & 1) == 0)
                    into.push_back({index(c, r), way});
            }
}

void JoinedCells::join_blocks(const StepCells& cells) {
    int parts = 0;
    for (JoinedBlock& block : blocks_) block.first_part = parts, parts += static_cast<int>(block.parts.size());
    std::vector<int> joined(static_cast<std::size_t>(parts));
    for (int i = 0; i < parts; ++i) joined[static_cast<std::size_t>(i)] = i;
    const auto join_across = [&](int column, int row, unsigned way) {   // from the cell before
        const std::size_t cell = index(column, row), before = cells.next(cell, way + 2);
        if (!leads_both_ways(cells, before, cell, way)) return;
        const JoinedBlock &own = block_at(column, row),
                          &other = way == 0 ? block_at(column - 1, row) : block_at(column, row - 1);
        unite_roots(joined, own.first_part + part_[cell] - 1, other.first_part + part_[before] - 1);
    };
    for (int c = block_cells; c < columns_; c += block_cells)
        for (int r = 0; r < rows_; ++r) join_across(c, r, 0);
    for (int r = block_cells; r < rows_; r += block_cells)
        for (int c = 0; c < columns_; ++c) join_across(c, r, 1);
    number_places(joined);
}

void JoinedCells::number_places(std::vector<int>& joined) {
    struct Place {
        std::size_t first;
        int root;
        DataCell least, most;
    };
    std::vector<Place> places;
    place_of_part_.assign(joined.size(), -1);   // until they are sorted: by root, where it stands in the list
    int number = 0;
    for (const JoinedBlock& block : blocks_)
        for (const Part& part : block.parts) {
            const int at = root(joined, number++);
            int& known = place_of_part_[static_cast<std::size_t>(at)];
            if (known < 0) {
                known = static_cast<int>(places.size());
                places.push_back({part.first, at, part.least, part.most});
                continue;
            }
            Place& place = places[static_cast<std::size_t>(known)];
            place.first = std::min(place.first, part.first);
            place.least = {std::min(place.least.column, part.least.column), std::min(place.least.row, part.least.row)};
            place.most = {std::max(place.most.column, part.most.column), std::max(place.most.row, part.most.row)};
        }
    std::sort(places.begin(), places.end(), [](const Place& a, const Place& b) { return a.first < b.first; });
    places_.clear();
    for (const Place& place : places) {
        place_of_part_[static_cast<std::size_t>(place.root)] = static_cast<int>(places_.size());
        places_.push_back({place.least.column, place.least.row, place.most.column - place.least.column + 1,
                           place.most.row - place.least.row + 1});
    }
    for (std::size_t part = 0; part < joined.size(); ++part)
        place_of_part_[part] = place_of_part_[static_cast<std::size_t>(root(joined, static_cast<int>(part)))];
}

}   // namespace dryground::travel

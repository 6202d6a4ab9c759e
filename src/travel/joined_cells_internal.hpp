// Inside the travel room: cells joined by steps that can be taken to and fro.
#pragma once

#include <cstdint>
#include <vector>

#include "step_cells_internal.hpp"

namespace dryground::travel {

// Each set of joined cells is a place (each such step past a corner has two that go around it). A change joins the
// cells of blocks anew, then blocks.
class JoinedCells {
public:
    JoinedCells(const StepCells& cells, int columns, int rows);
    // Follows changed steps of some cells. Cost: that of the blocks that hold them, and the sides of all blocks.
    void follow(const StepCells& cells, const detail::Block& changed);

    [[nodiscard]] int places() const { return static_cast<int>(places_.size()); }
    // Returns the place of a cell, numbered in the order of their first cells; -1 where it cannot stand.
    [[nodiscard]] int place_of(int column, int row) const {
        const JoinedBlock& block = block_at(column, row);
        const int part = part_[index(column, row)];
        return part == 0 ? -1 : place_of_part_[static_cast<std::size_t>(block.first_part + part - 1)];
    }
    // A block that holds all cells of a place.
    [[nodiscard]] const detail::Block& around(int place) const { return places_[static_cast<std::size_t>(place)]; }
    // Calls action(cell, way) for steps that may lead to a place without leading back.
    template <class Action>
    void each_one_way(Action action) const {
        for (const JoinedBlock& block : blocks_)
            for (const Step& step : block.ways_out) action(step.cell, step.way);
    }

private:
    static constexpr int block_cells = 32;
    // Joined cells of one block.
    struct Part {
        std::size_t first;   // cell
        DataCell least, most;
    };
    struct Step {
        std::size_t cell;
        unsigned way;
    };
    struct JoinedBlock {
        std::vector<Part> parts{};
        std::vector<Step> ways_out{};
        int first_part = 0;   // among those of all blocks
    };

    [[nodiscard]] std::size_t index(int column, int row) const {
        return static_cast<std::size_t>(row) * static_cast<std::size_t>(columns_) + static_cast<std::size_t>(column);
    }
    [[nodiscard]] const JoinedBlock& block_at(int column, int row) const {
        return blocks_[static_cast<std::size_t>(row / block_cells) * static_cast<std::size_t>(blocks_across_) +
                       static_cast<std::size_t>(column / block_cells)];
    }
    [[nodiscard]] detail::Block cells_of(int block_column, int block_row) const;
    void join(const StepCells& cells, int block_column, int block_row);
    void number_parts(const detail::Block& block, std::vector<int>& joined, std::vector<Part>& parts);
    void find_one_way(const StepCells& cells, const detail::Block& block, std::vector<Step>& into) const;
    void join_blocks(const StepCells& cells);
    void number_places(std::vector<int>& joined);

    int columns_, rows_, blocks_across_, blocks_down_;
    std::vector<std::uint16_t> part_;   // by cell: its number in its block from 1 on; 0: it cannot stand there
    std::vector<JoinedBlock> blocks_;
    std::vector<int> place_of_part_;
    std::vector<detail::Block> places_;
};

}   // namespace dryground::travel

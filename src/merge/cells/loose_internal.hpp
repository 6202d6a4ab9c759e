// Inside the merge room: area that extends beyond its cells.
#pragma once

#include <optional>

#include "../../model/grid_internal.hpp"
#include "outline_internal.hpp"
#include "stacking_internal.hpp"

namespace dryground::detail {

struct OwnCover {
    int column;
    std::uint32_t cover;   // index into LooseArea::covers
};

// What a plan's loose steps mean for the cells of a block.
struct LooseArea {
    std::vector<std::vector<OwnCover>> rows;   // cells with covers of their own, by row and column; may end early
    std::vector<Cover> covers;
    SpanningArea whole;

    struct Run {
        int first, last;   // columns from first until before last
    };
    // Returns the cells of a row that a loose step covers wholly, or carves wholly, except those with covers of their
    // own.
    [[nodiscard]] const std::vector<Run>& runs_of(std::size_t step, int row) const {
        return runs[step][static_cast<std::size_t>(row)];
    }
    std::vector<std::vector<std::vector<Run>>> runs;   // by step and row; none for steps of cells
};

// Makes the area of the map with as many cells around it as loose steps extend beyond it, given the area of each step
// (empty for steps of cells). Returns nothing if that is so far that merging by cells is not practical.
[[nodiscard]] std::optional<Block> block_around(const Map& map, const Grid& grid, const Plan& plan,
                                                const std::vector<Regions>& areas);
// Makes it for a block of such cells, or any inside it; the areas must be correct there.
[[nodiscard]] LooseArea loose_area(const Map& map, const Grid& grid, const Plan& plan,
                                   const std::vector<Regions>& areas, const Block& block);

}   // namespace dryground::detail

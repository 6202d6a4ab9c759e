// Inside the merge room: area that does not keep to its cells.
#pragma once

#include <optional>

#include "../model/grid_internal.hpp"
#include "outline_internal.hpp"
#include "stacking_internal.hpp"

namespace dryground::detail {

struct OwnCover {
    int column;
    std::uint32_t cover;   // index into LooseArea::covers
};

// What a plan's loose steps mean for the cells of the extended grid: the map's, with a margin on every side.
struct LooseArea {
    int margin = 0;
    std::vector<std::vector<OwnCover>> rows;   // cells with covers of their own, by row and column; may end early
    std::vector<Cover> covers;
    Whole whole;

    struct Run {
        int first, last;   // columns from first until before last
    };
    // The cells of a row that a loose step covers wholly, or carves wholly, those with covers of their own apart.
    [[nodiscard]] const std::vector<Run>& runs_of(std::size_t step, int row) const {
        return runs[step][static_cast<std::size_t>(row)];
    }
    std::vector<std::vector<std::vector<Run>>> runs;   // by step and row; none for steps of cells
};

// Nothing when the area reaches so far out of the map that cells are no way to merge it.
[[nodiscard]] std::optional<LooseArea> loose_area(const Map& map, const Grid& grid, const Plan& plan);

}   // namespace dryground::detail

// The area of some cells of a map, by the outline that ground is traced with.

#include "marked_cells_internal.hpp"

#include "../../model/grid_internal.hpp"
#include "outline_internal.hpp"
#include "rings_before_internal.hpp"

namespace dryground::detail {
namespace {

class MarkedRows final : public CellRows {
public:
    MarkedRows(const Map& map, const Grid& grid, const Block& block,
               const std::function<void(int, std::uint64_t*)>& mark)
        : mark_(mark) {
        columns = block.columns;
        rows = block.rows;
        corner = grid.flat(map.corner(block.column, block.row));
        width = grid.width();
        height = grid.height();
    }
    void fill(int row, std::uint64_t* full, std::uint64_t*, std::uint32_t*) override { mark_(row, full); }
    [[nodiscard]] const Cover& cover(std::uint32_t) const override { return none_; }   // all cells are full or empty
    [[nodiscard]] const SpanningArea& whole() const override { return whole_; }

private:
    const std::function<void(int, std::uint64_t*)>& mark_;
    Cover none_ = empty_cover();
    SpanningArea whole_;
};

}   // namespace

Regions area_of_marked(const Map& map, const Block& block, const std::function<void(int, std::uint64_t*)>& mark) {
    const Grid grid(map);
    MarkedRows rows(map, grid, block, mark);
    Programs programs;
    Outline outline;
    trace_outline(rows, programs, outline);
    RingsBefore none;
    return rings_of(outline, grid, false, none).regions;
}

}   // namespace dryground::detail

// The area of marked cells, beside the union of their boxes or diamonds.
#include "merge/cells/marked_cells_internal.hpp"

#include <catch2/catch.hpp>

#include "chance.hpp"

using namespace dryground;

TEST_CASE("the area of marked cells is that of the cells, united") {
    for (int round = 0; round < chance::rounds(300); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(580'000 + static_cast<std::uint64_t>(round));
        Map map;
        map.grid = dice.once_in(2) ? GridSort::isometric : GridSort::square;
        map.cell_width = 2 * dice.in(1, 20), map.cell_height = 2 * dice.in(1, 20);
        map.columns = dice.once_in(5) ? dice.in(60, 140) : dice.in(1, 9), map.rows = dice.in(1, 9);
        map.first_column = dice.in(-3, 3), map.first_row = dice.in(-3, 3);
        const detail::Block block{dice.in(0, map.columns - 1), dice.in(0, map.rows - 1), dice.in(1, map.columns),
                                  dice.in(1, map.rows)};
        const int chance = dice.in(1, 4);
        Regions cells;
        const Regions area = detail::area_of_marked(map, block, [&](int row, std::uint64_t* bits) {
            for (int c = 0; c < block.columns; ++c)
                if (dice.once_in(chance)) {
                    bits[c / 64] |= std::uint64_t{1} << c % 64;
                    cells.push_back({map.block_ring(block.column + c, block.row + row, 1, 1), {}});
                }
        });
        CHECK(to_text(area) == to_text(unite(cells)));
    }
}

// Every board of 4 x 4 cells, full or empty: what a flood fill counts is what the union has.
#include <catch2/catch.hpp>

#include <array>
#include <bitset>

#include "chance.hpp"
#include "dryground/geometry.hpp"
#include "oracles.hpp"

using namespace dryground;

namespace {

constexpr int board_side = 4, framed = board_side + 2;   // the flood fill runs on a board with an empty frame around

struct Count {
    std::size_t solids = 0, holes = 0;
};

using Labels = std::array<int, framed * framed>;   // of cells and the frame around them; 0: not yet

bool full(unsigned board, int column, int row) {
    return column >= 0 && row >= 0 && column < board_side && row < board_side &&
           (board >> (row * board_side + column) & 1u) != 0;
}

// Labels the cells that are connected by sides to a cell and for which a test gives the same.
template <class Test>
void flood(Labels& labels, int label, int column, int row, Test same) {
    std::vector<std::pair<int, int>> waiting{{column, row}};
    while (!waiting.empty()) {
        const auto [c, r] = waiting.back();
        waiting.pop_back();
        if (c < -1 || r < -1 || c > board_side || r > board_side || !same(c, r)) continue;
        int& mark = labels[static_cast<std::size_t>((r + 1) * framed + c + 1)];
        if (mark != 0) continue;
        mark = label;
        for (const auto& [dc, dr] : {std::pair{1, 0}, {-1, 0}, {0, 1}, {0, -1}}) waiting.emplace_back(c + dc, r + dr);
    }
}

template <class Action>
void each_unlabelled(const Labels& labels, Action action) {
    for (int r = -1; r <= board_side; ++r)
        for (int c = -1; c <= board_side; ++c)
            if (labels[static_cast<std::size_t>((r + 1) * framed + c + 1)] == 0) action(c, r);
}

// Solids are what is connected by sides; the holes of a solid are the parts into which it cuts everything else, less
// the one around it.
Count count_by_flooding(unsigned board) {
    Count count;
    Labels solids{};
    each_unlabelled(solids, [&](int c, int r) {
        if (full(board, c, r))
            flood(solids, static_cast<int>(++count.solids), c, r, [&](int x, int y) { return full(board, x, y); });
    });
    for (int solid = 1; solid <= static_cast<int>(count.solids); ++solid) {
        const auto outside = [&](int x, int y) {
            return solids[static_cast<std::size_t>((y + 1) * framed + x + 1)] != solid;
        };
        Labels rest{};
        int parts = 0;
        each_unlabelled(rest, [&](int c, int r) {
            if (outside(c, r)) flood(rest, ++parts, c, r, outside);
        });
        count.holes += static_cast<std::size_t>(parts) - 1;
    }
    return count;
}

// Sanitized builds are slow: they look at one board in some.
constexpr unsigned stride = chance::sanitized ? 29 : 1;

}   // namespace

TEST_CASE("every small board has the regions, holes and area that flooding counts") {
    for (unsigned board = 0; board < 1u << (board_side * board_side); board += stride) {
        Regions cells;
        for (int r = 0; r < board_side; ++r)
            for (int c = 0; c < board_side; ++c)
                if (full(board, c, r)) cells.push_back(box_region({c, r}, {c + 1, r + 1}));
        const Regions land = unite(cells);
        std::size_t holes = 0;
        for (const Region& region : land) holes += region.holes.size();
        const Count count = count_by_flooding(board);
        const bool good =
            land.size() == count.solids && holes == count.holes &&
            twice_area(land) == 2 * static_cast<std::int64_t>(std::bitset<board_side * board_side>(board).count());
        if (!good) {
            CAPTURE(board, to_text(land), count.solids, count.holes);
            REQUIRE(good);
        }
        if (board % 97 == 0) REQUIRE(oracle::broken_promise(land) == "");
    }
}

TEST_CASE("every small board is cut to pieces that cover it") {
    for (unsigned board = 1; board < 1u << (board_side * board_side); board += 7 * stride) {
        Regions cells;
        for (int r = 0; r < board_side; ++r)
            for (int c = 0; c < board_side; ++c)
                if (full(board, c, r)) cells.push_back(box_region({c, r}, {c + 1, r + 1}));
        const Regions land = unite(cells);
        std::int64_t area = 0;
        for (const Ring& piece : convex_pieces(land, 8)) area += twice_area(piece);
        if (area != twice_area(land)) {
            CAPTURE(board, to_text(land));
            REQUIRE(area == twice_area(land));
        }
    }
    SUCCEED();
}

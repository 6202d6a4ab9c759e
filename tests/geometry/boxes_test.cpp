#include <catch2/catch.hpp>

#include <functional>
#include <map>

#include "chance.hpp"
#include "dryground/geometry.hpp"
#include "oracles.hpp"

using namespace dryground;

namespace {

// A random set of unit cells, merged. Corners that touch come often.
struct Cells {
    int columns, rows;
    std::vector<char> solid;
    [[nodiscard]] bool at(int c, int r) const {
        return c >= 0 && r >= 0 && c < columns && r < rows && solid[static_cast<std::size_t>(r * columns + c)] != 0;
    }
    [[nodiscard]] Regions merged() const {
        Regions all;
        for (int r = 0; r < rows; ++r)
            for (int c = 0; c < columns; ++c)
                if (at(c, r)) all.push_back(box_region({c * 16, r * 16}, {c * 16 + 16, r * 16 + 16}));
        return unite(all);
    }
};

Cells random_grid(chance::Dice& dice, int most_columns, int most_rows) {
    Cells cells{dice.in(1, most_columns), dice.in(1, most_rows), {}};
    const int percent = dice.in(20, 95);
    for (int i = 0; i < cells.columns * cells.rows; ++i) cells.solid.push_back(dice.in(1, 100) <= percent);
    return cells;
}

// The least number of boxes by trying everything: the first uncovered cell is the corner of some box.
class BruteForce {
public:
    explicit BruteForce(const Cells& cells) : cells_(cells), left_(cells.solid) {}
    int run(int most) {
        best_ = most;
        search(0, 0);
        return best_;
    }

private:
    void search(std::size_t from, int used) {
        while (from < left_.size() && left_[from] == 0) ++from;
        if (from == left_.size()) {
            best_ = std::min(best_, used);
            return;
        }
        if (used + 1 >= best_) return;
        const int c = static_cast<int>(from) % cells_.columns, r = static_cast<int>(from) / cells_.columns;
        int widest = cells_.columns;
        for (int high = 1; r + high <= cells_.rows; ++high) {
            int wide = 0;
            while (wide < widest && c + wide < cells_.columns && left(c + wide, r + high - 1)) ++wide;
            widest = wide;
            if (widest == 0) return;
            for (int w = widest; w >= 1; --w) {
                mark(c, r, w, high, 0);
                search(from, used + 1);
                mark(c, r, w, high, 1);
            }
        }
    }
    [[nodiscard]] bool left(int c, int r) const { return left_[static_cast<std::size_t>(r * cells_.columns + c)] != 0; }
    void mark(int c, int r, int wide, int high, char to) {
        for (int y = r; y < r + high; ++y)
            for (int x = c; x < c + wide; ++x) left_[static_cast<std::size_t>(y * cells_.columns + x)] = to;
    }

    const Cells& cells_;
    std::vector<char> left_;
    int best_ = 0;
};

Regions all_parts(const Boxes& boxes) {
    Regions parts;
    for (const Bounds& box : boxes.boxes) parts.push_back(box_region(box.least, box.most));
    for (const Ring& rest : boxes.rests) parts.push_back({rest, {}});
    return parts;
}

}   // namespace

TEST_CASE("the least boxes are as few as trying everything finds") {
    for (int round = 0; round < chance::rounds(1500); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(300'000 + static_cast<std::uint64_t>(round));
        const Cells cells = random_grid(dice, 6, 5);
        const Regions land = cells.merged();
        CAPTURE(to_text(land));
        const Boxes boxes = least_boxes(land);
        REQUIRE(boxes.rests.empty());
        const Regions parts = all_parts(boxes);
        REQUIRE(twice_area(parts) == twice_area(land));   // so that, covering it, they do not overlap
        REQUIRE(unite(parts) == land);
        REQUIRE(static_cast<int>(parts.size()) == BruteForce(cells).run(static_cast<int>(parts.size()) + 1));
    }
}

TEST_CASE("boxes cover large right-angled regions exactly") {
    for (int round = 0; round < 30; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(310'000 + static_cast<std::uint64_t>(round));
        const Regions land = random_grid(dice, 60, 60).merged();
        const Regions parts = all_parts(least_boxes(land));
        REQUIRE(twice_area(parts) == twice_area(land));
        REQUIRE(unite(parts) == land);
    }
}

TEST_CASE("where edges slant, boxes and convex rests cover exactly") {
    for (int round = 0; round < 150; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(320'000 + static_cast<std::uint64_t>(round));
        Regions land = random_grid(dice, 10, 8).merged();
        for (int i = dice.in(1, 6); i > 0; --i) {
            const int x = 16 * dice.in(0, 9), y = 16 * dice.in(0, 7);
            const Regions slope{{{{x, y + 16}, {x + 16, y}, {x + 16, y + 16}}, {}}};
            land = dice.once_in(2) ? subtract(land, slope) : unite(land, slope);
        }
        CAPTURE(to_text(land));
        const Boxes boxes = least_boxes(land);
        const Regions parts = all_parts(boxes);
        REQUIRE(twice_area(parts) == twice_area(land));
        REQUIRE(unite(parts) == land);
        for (const Ring& rest : boxes.rests)
            for (std::size_t i = 0; i < rest.size(); ++i)
                REQUIRE(turn(rest[i], rest[(i + 1) % rest.size()], rest[(i + 2) % rest.size()]) == Turn::left);
    }
}

TEST_CASE("a frame takes four boxes, an L two") {
    CHECK(least_boxes(subtract(Regions{box_region({0, 0}, {30, 30})}, Regions{box_region({10, 10}, {20, 20})}))
              .boxes.size() == 4);
    const Boxes corner =
        least_boxes(unite(Regions{box_region({0, 0}, {10, 30})}, Regions{box_region({0, 20}, {30, 30})}));
    CHECK(corner.boxes.size() == 2);
    CHECK(least_boxes(Regions{}).boxes.empty());
}

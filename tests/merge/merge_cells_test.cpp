// The fast way against the slow one: merging cell by cell gives, byte by byte, what the general boolean gives.
// Also tests src/merge: cover merge_generally outline outline_rings site stacks
#include <catch2/catch.hpp>

#include "chance.hpp"
#include "merge/cells/stacking_internal.hpp"
#include "oracles.hpp"

using namespace dryground;
using dryground::detail::Part;
using dryground::detail::Plan;
using dryground::detail::Step;

namespace {

constexpr std::int32_t cell = 16 * steps_per_px;

// Shapes whose edges are upright, level or at 45 degrees, on a lattice so coarse that all crossings fall on ours. On
// isometric grids the same drawn on the ground: from the unit square to the diamond.
class Shapes {
public:
    explicit Shapes(GridSort grid) : grid_(grid) {}

    Regions some(chance::Dice& dice) const {
        const int e = 8;
        switch (dice.in(0, 11)) {
            case 0:
            case 1:
                return ring({{0, 0}, {e, 0}, {e, e}, {0, e}});
            case 2:
                return box(dice.in(0, 3), dice.in(0, 3), dice.in(5, e), dice.in(5, e));
            case 3:
                return ring({{0, e}, {e, 0}, {e, e}});
            case 4:
                return ring({{0, 0}, {e, 0}, {0, e}});
            case 5:
                return ring({{4, 0}, {e, 4}, {4, e}, {0, 4}});
            case 6: {   // a frame
                Regions frame = ring({{0, 0}, {e, 0}, {e, e}, {0, e}});
                frame[0].holes = {ring({{2, 2}, {2, 6}, {6, 6}, {6, 2}})[0].outline};
                return frame;
            }
            case 7: {   // two that touch in the middle
                Regions both = box(0, 0, 4, 4), other = box(4, 4, e, e);
                both.push_back(other[0]);
                return both;
            }
            case 8:
                return ring({{2, 2}, {6, 2}, {4, 4}});
            case 9:
                return ring({{0, 4}, {4, 0}, {e, 0}, {e, 4}, {4, e}, {0, e}});
            default: {
                const int x = dice.in(0, 7), y = dice.in(0, 7);
                return box(x, y, dice.in(x + 1, e), dice.in(y + 1, e));
            }
        }
    }

private:
    [[nodiscard]] Point at(int x, int y) const {
        if (grid_ == GridSort::square) return {x * cell / 8, y * cell / 8};
        return {(x - y) * cell / 8, (x + y) * cell / 16};   // twice as wide as high
    }
    [[nodiscard]] Regions ring(const std::vector<std::array<int, 2>>& points) const {
        Region region;
        for (const auto& [x, y] : points) region.outline.push_back(at(x, y));
        return {region};
    }
    [[nodiscard]] Regions box(int x0, int y0, int x1, int y1) const {
        return ring({{x0, y0}, {x1, y0}, {x1, y1}, {x0, y1}});
    }

    GridSort grid_;
};

// A random map, and what each group-step makes of its palette.
struct Case {
    Map map;
    Plan plan;
};

void random_case(Case& made, chance::Dice& dice, GridSort grid, int most_side) {
    Map& map = made.map;
    map.grid = grid;
    map.cell_width = grid == GridSort::square ? 16 : 32;
    map.cell_height = 16;
    map.columns = dice.in(1, most_side);
    map.rows = dice.in(1, most_side);
    map.first_column = dice.in(-3, 3);
    map.first_row = dice.in(-3, 3);
    const Shapes shapes(grid);
    const int layers = dice.in(1, 3), sorts = dice.in(1, 6), surfaces = dice.in(1, 3);
    map.palette.resize(static_cast<std::size_t>(sorts) + 1);
    map.layers.resize(static_cast<std::size_t>(layers));
    for (int l = 0; l < layers; ++l) {
        Layer& layer = map.layers[static_cast<std::size_t>(l)];
        const int filled = dice.in(1, 100);
        for (int i = 0; i < map.columns * map.rows; ++i)
            layer.cells.push_back(dice.in(1, 100) <= filled ? static_cast<std::uint32_t>(dice.in(1, sorts)) : 0);
        for (int pass = 0; pass < 2; ++pass) {   // carves, then what is added
            if (pass == 0 && (l == 0 || dice.once_in(2))) continue;
            Step step;
            step.layer = &layer;
            step.meaning.assign(map.palette.size(), 0);
            for (std::size_t number = 1; number < map.palette.size(); ++number) {
                if (dice.once_in(4)) continue;
                std::vector<Part> parts;
                for (int p = dice.in(1, 2); p > 0; --p)
                    parts.push_back({pass == 1, pass == 1 ? dice.in(0, surfaces - 1) : 0, shapes.some(dice)});
                std::stable_sort(parts.begin(), parts.end(),
                                 [](const Part& a, const Part& b) { return a.label < b.label; });
                step.parts.push_back(std::move(parts));
                step.meaning[number] = static_cast<std::uint32_t>(step.parts.size());
            }
            made.plan.steps.push_back(std::move(step));
        }
    }
    made.plan.holds_rim = dice.once_in(3);
}

std::string in_words(const std::vector<LabelledRing>& rings) {
    std::string words;
    for (const LabelledRing& ring : rings) {
        words += to_text(ring.points);
        for (const int label : ring.labels) words += ' ' + std::to_string(label);
        words += '\n';
    }
    return words;
}

// Area that keeps to no cell, between the steps of layers: boxes and 45 degree slopes over cells and out of the map,
// or (where results need not be equal) anything.
void add_loose_steps(Case& random, chance::Dice& dice, bool on_lattice) {
    const Map& map = random.map;
    const std::int32_t unit = cell / 8;
    for (int count = dice.in(1, 3); count > 0; --count) {
        Step step;
        step.loose.adds = !dice.once_in(3);
        step.loose.label = dice.in(0, 2);
        Regions area;
        for (int shapes = dice.in(1, 4); shapes > 0; --shapes) {
            const Point c = map.corner(dice.in(-1, map.columns), dice.in(-1, map.rows));
            const std::int32_t x = c.x + unit * dice.in(-4, 12), y = c.y + unit * dice.in(-4, 12),
                               s = unit * dice.in(1, 30);
            const auto any = [&] { return dice.in(-4 * cell, 4 * cell); };
            std::vector<Point> points;
            if (!on_lattice)
                for (int i = dice.in(3, 7); i > 0; --i) points.push_back({x + any(), y + any()});
            else if (dice.once_in(2))
                points = box_ring({x, y}, {x + s, y + unit * dice.in(1, 30)});
            else
                points = {{x, y + s}, {x + s, y}, {x + 2 * s, y + s}, {x + s, y + 2 * s}};
            if (Ring hull = convex_hull(points); hull.size() >= 3) area.push_back({std::move(hull), {}});
        }
        step.loose.add_objects(unite(area));
        if (dice.once_in(2)) {   // and tiles that reach out of their cells
            const std::int32_t x = unit * dice.in(-10, 4), y = unit * dice.in(-10, 4), s = unit * dice.in(1, 12);
            step.loose.add_tile(map, map.layers[0], 1, {{box_ring({x, y}, {x + s, y + s}), {}}});
        }
        const auto place = dice.in(0, static_cast<int>(random.plan.steps.size()));
        random.plan.steps.insert(random.plan.steps.begin() + place, std::move(step));
    }
}

void compare(GridSort grid, int rounds, std::uint64_t first_round, int most_side, bool loose = false) {
    for (int round = 0; round < chance::rounds(rounds); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(first_round + static_cast<std::uint64_t>(round));
        Case random;
        random_case(random, dice, grid, most_side);
        if (loose) add_loose_steps(random, dice, true);
        const Stacked slow = detail::merge_generally(random.map, random.plan);
        const Stacked fast = detail::merge_cells(random.map, random.plan, true);
        CAPTURE(random.map.columns, random.map.rows);
        REQUIRE(to_text(fast.regions) == to_text(slow.regions));
        REQUIRE(oracle::broken_promise(fast.regions) == "");
        REQUIRE(in_words(fast.rings) == in_words(slow.rings));
        // any block of it, out of the map too, is the whole, cut
        const detail::Block block{dice.in(-3, random.map.columns), dice.in(-3, random.map.rows), dice.in(1, 6),
                                  dice.in(1, 6)};
        const Ring frame = random.map.block_ring(block.column, block.row, block.columns, block.rows);
        const Regions cut = detail::CellMerger(random.map, random.plan).block(block, true).regions;
        REQUIRE(to_text(cut) == to_text(intersect(slow.regions, Regions{{frame, {}}})));
    }
}

}   // namespace

TEST_CASE("cell by cell, small square maps merge as by the general boolean") {
    compare(GridSort::square, 600, 200'000, 5);
}

TEST_CASE("cell by cell, larger square maps merge as by the general boolean") {
    compare(GridSort::square, 25, 210'000, 70);
}

TEST_CASE("cell by cell, isometric maps merge as by the general boolean") {
    compare(GridSort::isometric, 300, 220'000, 6);
    compare(GridSort::isometric, 20, 230'000, 40);
}

TEST_CASE("area that keeps to no cell merges with cells as by the general boolean") {
    compare(GridSort::square, 400, 240'000, 6, true);
    compare(GridSort::square, 12, 250'000, 40, true);
}

TEST_CASE("drawn area off the lattice merges with cells to valid regions, at most a rounding apart") {
    for (int round = 0; round < chance::rounds(250); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(260'000 + static_cast<std::uint64_t>(round));
        Case random;
        random_case(random, dice, dice.once_in(3) ? GridSort::isometric : GridSort::square, 7);
        add_loose_steps(random, dice, false);
        const Stacked slow = detail::merge_generally(random.map, random.plan);
        const Stacked fast = detail::merge_cells(random.map, random.plan, true);
        REQUIRE(oracle::broken_promise(fast.regions) == "");
        std::size_t vertices = 0;
        for (const LabelledRing& ring : fast.rings) vertices += ring.points.size();
        REQUIRE(oracle::geos_difference(fast.regions, slow.regions) <= 2.0 * cell * static_cast<double>(vertices + 4));
    }
}

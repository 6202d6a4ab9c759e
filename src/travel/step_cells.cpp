// In which cells a mover that steps can stand, and where each step leads.
//
// Idea. What a change concerns is known by its box: cells in whose middle the body meets it may be stood in or no
// longer, steps of those beside them may lead elsewhere, and past corners those of one cell more.

#include "step_cells_internal.hpp"

#include <algorithm>
#include <map>

#include "../geometry/bounds_internal.hpp"
#include "../ground/ground_internal.hpp"
#include "../merge/lines/lines_internal.hpp"
#include "standing_cells_internal.hpp"

namespace dryground::travel {

namespace {

const Ring& body_of(const WaysOf& of) { return of.figures().body.front().outline; }

// Returns how many cells a body reaches beyond the cell that it stands in, and beyond the middle of that.
int cells_reached(const Map& map, const Ring& body) {
    const Bounds box = detail::box_around(body);
    const std::int64_t far = std::max({std::int64_t{box.most.x} - box.least.x, std::int64_t{box.most.y} - box.least.y,
                                       std::int64_t{std::abs(box.least.x)}, std::int64_t{std::abs(box.least.y)},
                                       std::int64_t{std::abs(box.most.x)}, std::int64_t{std::abs(box.most.y)}}),
                       least = std::int64_t{std::min(map.cell_width, map.cell_height)} * steps_per_px,
                       cell = map.grid == GridSort::isometric ? least / 2 : least;   // from row to row
    return 2 + static_cast<int>(2 * far / cell);
}

// Calls action(column, row) for each cell of a block, row by row.
template <class Action>
void each_cell(const detail::Block& block, Action action) {
    for (int r = block.row; r < block.row + block.rows; ++r)
        for (int c = block.column; c < block.column + block.columns; ++c) action(c, r);
}

}   // namespace

detail::Block block_in(const Map& map, detail::Block block, int more) {
    const int first_column = std::max(0, block.column - more), first_row = std::max(0, block.row - more),
              end_column = std::min(map.columns, block.column + block.columns + more),
              end_row = std::min(map.rows, block.row + block.rows + more);
    return {first_column, first_row, std::max(0, end_column - first_column), std::max(0, end_row - first_row)};
}

StepCells::StepCells(const WaysOf& of, StoreyId storey, const std::vector<Group>& groups)
    : map_(&of.map), storey_(storey), body_(body_of(of)) {
    for (std::size_t way = 0; way < steps_around.size(); ++way)
        away_[way] =
            static_cast<std::size_t>(std::int64_t{steps_around[way].row} * map_->columns + steps_around[way].column);
    const std::size_t cells = static_cast<std::size_t>(map_->columns) * static_cast<std::size_t>(map_->rows);
    stands_.resize(cells), leads_.resize(cells);
    const std::vector<const Group*> own = stopping(of, groups);
    add_lines(own);
    index_lines();
    const detail::Block whole{0, 0, map_->columns, map_->rows};
    find_stands(of, whole, own);
    find_steps(whole);
}

StepCells::Near StepCells::near(const WaysOf& of, const Bounds& changed) {
    const Bounds body = detail::box_around(body_of(of));
    const Bounds meeting{{changed.least.x - std::max(0, body.most.x), changed.least.y - std::max(0, body.most.y)},
                         {changed.most.x - std::min(0, body.least.x), changed.most.y - std::min(0, body.least.y)}};
    const auto [c0, r0, c1, r1] = of.map.cells_near(detail::grown(meeting, 2));
    Near near{{c0, r0, c1 - c0 + 1, r1 - r0 + 1}, {}, {}};
    if (near.stands.columns <= 0 || near.stands.rows <= 0) return {};
    near.steps = block_in(of.map, near.stands, 2);
    const int around = cells_reached(of.map, body_of(of));
    near.ground = {near.steps.column - around, near.steps.row - around, near.steps.columns + 2 * around,
                   near.steps.rows + 2 * around};
    return near;
}

void StepCells::follow(const WaysOf& of, const Near& near, const std::vector<Group>& groups) {
    map_ = &of.map;
    const std::vector<const Group*> own = stopping(of, groups);
    replace_lines(own, near.ground);
    find_stands(of, near.stands, own);
    find_steps(block_in(*map_, near.stands, 1));
}

// Returns what stops the mover on the storey.
std::vector<const Group*> StepCells::stopping(const WaysOf& of, const std::vector<Group>& groups) const {
    const std::vector<BarrierId>& by = of.figures().stopped_by;
    std::vector<const Group*> own;
    for (const Group& group : groups)
        if (group.storey_id == storey_ && group.barrier_id != BarrierId::none &&
            std::binary_search(by.begin(), by.end(), group.barrier_id))
            own.push_back(&group);
    return own;
}

// ---- lines ----

StepCells::Line StepCells::line_of(Point from, Point to, OneWay passes) const {
    return {from, to, passes, ground::stopped_side(from, to, passes), sum_with(std::array{from, to}, body_)};
}

void StepCells::add_lines(const std::vector<const Group*>& groups) {
    for (const Group* const group : groups)
        for (const Ring& line : group->lines)
            for (std::size_t i = 0; i + 1 < line.size(); ++i)
                lines_.push_back(line_of(line[i], line[i + 1], group->one_way));
}

// Replaces what lies in a block of cells.
void StepCells::replace_lines(const std::vector<const Group*>& groups, const detail::Block& ground) {
    const Ring ring = map_->block_ring(ground.column, ground.row, ground.columns, ground.rows);
    const Bounds box = detail::box_around(ring);
    std::map<OneWay, std::vector<detail::LinePiece>> near;
    const std::size_t before = lines_.size();
    std::erase_if(lines_, [&](const Line& line) {
        const bool is_near = detail::meet(detail::box_around(std::array{line.from, line.to}), box);
        if (is_near) near[line.passes].push_back({line.from, line.to, 0});
        return is_near;
    });
    const bool any_before = lines_.size() < before;
    for (auto& [passes, pieces] : near)
        for (const detail::LinePiece& piece : detail::cut_lines(std::move(pieces), Regions{{ring, {}}}))
            lines_.push_back(line_of(piece.from, piece.to, passes));
    const std::size_t outside = lines_.size();
    add_lines(groups);
    if (any_before || lines_.size() > outside) index_lines();
}

void StepCells::index_lines() {
    std::vector<Bounds> boxes;
    for (const Line& line : lines_) boxes.push_back(detail::box_around(line.sum));
    has_lines_.assign(lines_.empty() ? 0 : stands_.size(), 0);
    const std::int32_t around_cell = std::max(map_->cell_width, map_->cell_height) * steps_per_px;
    for (const Bounds& box : boxes) {
        const auto [c0, r0, c1, r1] = map_->cells_near(detail::grown(box, around_cell));
        each_cell({c0, r0, c1 - c0 + 1, r1 - r0 + 1}, [&](int c, int r) { has_lines_[index(c, r)] = 1; });
    }
    near_lines_ = detail::BoxIndex(std::move(boxes));
}

// Returns whether lines allow a step to a neighbouring cell. A body in a line that stops both ways is stopped where its
// middle would get across it; in one that stops one way only, nowhere.
bool StepCells::passes(const DataCell& from, unsigned way) const {
    if (has_lines_.empty() || has_lines_[index(from.column, from.row)] == 0) return true;
    const Point a = middle_of(*map_, from.column, from.row),
                b = middle_of(*map_, from.column + steps_around[way].column, from.row + steps_around[way].row);
    const Bounds box = detail::box_around(body_);
    const Point of_body{(box.least.x + box.most.x) / 2, (box.least.y + box.most.y) / 2};
    return !near_lines_.any_near(detail::box_around(std::array{a, b}), [&](std::size_t i) {
        const Line& line = lines_[i];
        const bool stops_both_ways = line.passes == OneWay::none;
        if (!inside_of(line.sum, a, a))
            return inside_of(line.sum, a, b) && (stops_both_ways || enters_from(line.stops_from, line.sum, a, b));
        if (!stops_both_ways) return false;
        const Point p = moved(a, of_body), q = moved(b, of_body);
        return turn(line.from, line.to, p) != turn(line.from, line.to, q) &&
               turn(p, q, line.from) != turn(p, q, line.to);
    });
}

// ---- cells ----

// Finds in which cells of a block it can stand; where tiles say so, their sides are kept.
void StepCells::find_stands(const WaysOf& of, const detail::Block& block, const std::vector<const Group*>& groups) {
    std::vector<const Regions*> grounds;
    for (const Group* const group : groups) grounds.push_back(&group->regions);
    const std::vector<char> free = standing_cells(*map_, block, grounds, body_);
    std::size_t i = 0;
    each_cell(block, [&](int c, int r) { stands_[index(c, r)] = free[i++]; });
    const FlagSet needs = of.figures().needs;
    if (sides_.empty() && needs == 0 && !ground::has_sides(of.world, *map_, storey_, of.facts)) return;
    sides_.resize(stands_.size());
    each_cell(block, [&](int c, int r) {
        const Passability says = passability(of.world, *map_, {c, r}, storey_, of.facts);
        sides_[index(c, r)] = says.sides;
        if (needs != 0 && (says.flags & needs) == 0) stands_[index(c, r)] = 0;
    });
}

// Returns whether the sides of a cell and of its neighbour are open to a step.
bool StepCells::lets_through(const DataCell& from, unsigned way) const {
    if (sides_.empty()) return true;
    constexpr std::array<std::size_t, 4> side_of{1, 2, 3, 0};   // top, right, bottom, left, as in Sides
    const std::size_t side = side_of[way];
    const std::size_t cell = index(from.column, from.row);
    const Passage leave = sides_[cell].of[side], enter = sides_[next(cell, way)].of[(side + 2) % 4];
    return (leave == Passage::open || leave == Passage::out) && (enter == Passage::open || enter == Passage::in);
}

bool StepCells::may_lead_one_way(const detail::Block& block) const {
    if (!sides_.empty()) return true;
    if (has_lines_.empty()) return false;
    bool any = false;
    each_cell(block_in(*map_, block, 1), [&](int c, int r) { any = any || has_lines_[index(c, r)] != 0; });
    return any;
}

unsigned StepCells::straight_steps(int column, int row) const {
    const std::size_t cell = index(column, row);
    if (stands_[cell] == 0) return 0;
    const std::array beside{column + 1 < map_->columns && stands_[next(cell, 0)] != 0,
                            row + 1 < map_->rows && stands_[next(cell, 1)] != 0,
                            column > 0 && stands_[next(cell, 2)] != 0, row > 0 && stands_[next(cell, 3)] != 0};
    unsigned leads = 0;
    for (unsigned way = 0; way < 4; ++way)
        if (beside[way] && lets_through({column, row}, way) && passes({column, row}, way)) leads |= 1U << way;
    return leads;
}

// Past a corner: by both ways around. What leads to a cell stays in the map.
unsigned StepCells::corner_steps(std::size_t cell) const {
    const auto may = [&](std::size_t from, unsigned way) { return (leads_[from] >> way & 1) != 0; };
    unsigned leads = 0;
    for (unsigned way = 4; way < 8; ++way) {
        const unsigned across = steps_around[way].column > 0 ? 0 : 2, down = steps_around[way].row > 0 ? 1 : 3;
        if (may(cell, across) && may(cell, down) && may(next(cell, across), down) && may(next(cell, down), across))
            leads |= 1U << way;
    }
    return leads;
}

void StepCells::find_steps(const detail::Block& block) {
    each_cell(block, [&](int c, int r) { leads_[index(c, r)] = static_cast<std::uint8_t>(straight_steps(c, r)); });
    each_cell(block_in(*map_, block, 1), [&](int c, int r) {
        std::uint8_t& leads = leads_[index(c, r)];
        leads &= 15;
        if (leads != 0) leads |= static_cast<std::uint8_t>(corner_steps(index(c, r)));
    });
}

}   // namespace dryground::travel

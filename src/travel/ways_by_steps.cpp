// The ways of a mover that steps from cell to cell. Places are cells joined by steps that can be taken to and fro;
// where one can only go one way, a move leads on.

#include <algorithm>
#include <bit>
#include <set>
#include <tuple>

#include "../ground/ground_internal.hpp"
#include "../merge/cells/marked_cells_internal.hpp"
#include "../merge/merge_block_internal.hpp"
#include "joined_cells_internal.hpp"
#include "standing_cells_internal.hpp"
#include "ways_internal.hpp"

namespace dryground::travel {

namespace {

class StepWays : public Ways {
public:
    explicit StepWays(const WaysOf& of) : map_(&of.map) {
        MergeOptions options;
        options.forms = {};
        options.facts = of.facts;
        const std::vector<Group> groups = merge(of.world, of.map, options).groups;
        for (const StoreyId storey : ground::storeys_of(of.map)) {
            StepCells cells(of, storey, groups);
            JoinedCells joined(cells, of.map.columns, of.map.rows);
            levels_.push_back({std::move(cells), std::move(joined), 0});
        }
        number(of.targets);
    }
    [[nodiscard]] bool follow(const WaysOf& of, const std::vector<Bounds>& changed, bool) override {
        map_ = &of.map;
        for (const Bounds& box : changed) {
            const StepCells::Near near = StepCells::near(of, box);
            if (near.stands.columns == 0) continue;
            const std::vector<Group> groups = detail::groups_in(of.world, of.map, of.facts, near.ground);
            for (Level& level : levels_) {
                level.cells.follow(of, near, groups);
                level.joined.follow(level.cells, near.steps);
            }
        }
        number(of.targets);
        return true;
    }
    [[nodiscard]] int places() const override { return static_cast<int>(moves_.size()); }
    [[nodiscard]] Going going(int) const override { return Going::steps; }
    [[nodiscard]] int place_at(StoreyId storey, Point p) override { return find_place(storey, p); }
    [[nodiscard]] int find_place(StoreyId storey, Point p) const override {
        const auto [column, row] = map_->data_cell_at(p);
        const Level* level = find_level(storey);
        return level == nullptr || !map_->has(column, row) ? -1 : level->place_of(column, row);
    }
    [[nodiscard]] const std::vector<Move>& moves(int place) override { return moves_[static_cast<std::size_t>(place)]; }
    [[nodiscard]] const std::vector<Touched>& touched(int place) override {
        return touched_[static_cast<std::size_t>(place)];
    }
    void add_may_be(int place, MayBe& may_be) override {
        for (const Move& move : moves(place)) may_be.add(move.to);
        for (const Touched& touch : touched(place)) may_be.targets[static_cast<std::size_t>(touch.target)] = 1;
    }
    [[nodiscard]] Ring way_within(int place, Point from, Point to) override;
    [[nodiscard]] TravelPlace shape(int place) const override;

private:
    struct Level {
        StepCells cells;
        JoinedCells joined;
        int first_place;

        [[nodiscard]] int place_of(int column, int row) const {
            const int place = joined.place_of(column, row);
            return place < 0 ? -1 : first_place + place;
        }
    };

    [[nodiscard]] std::size_t index(int column, int row) const {
        return static_cast<std::size_t>(row) * static_cast<std::size_t>(map_->columns) +
               static_cast<std::size_t>(column);
    }
    [[nodiscard]] DataCell cell_at(std::size_t index) const {
        const auto columns = static_cast<std::size_t>(map_->columns);
        return {static_cast<int>(index % columns), static_cast<int>(index / columns)};
    }
    [[nodiscard]] Point middle(DataCell cell) const { return middle_of(*map_, cell.column, cell.row); }
    [[nodiscard]] const Level* find_level(StoreyId storey) const {
        for (const Level& level : levels_)
            if (level.cells.storey() == storey) return &level;
        return nullptr;
    }
    [[nodiscard]] const Level& level_of(int place) const {
        auto level = levels_.begin();
        while (place >= level->first_place + level->joined.places()) ++level;
        return *level;
    }
    void number(const std::vector<Target>& targets);
    void add_moves(const Level& level);
    void touch(const std::vector<Target>& targets);

    const Map* map_;
    std::vector<Level> levels_;
    std::vector<std::vector<Move>> moves_;   // by place
    std::vector<std::vector<Touched>> touched_;
};

// Numbers the places of all levels, and finds what leads on from them.
void StepWays::number(const std::vector<Target>& targets) {
    int places = 0;
    for (Level& level : levels_) level.first_place = places, places += level.joined.places();
    moves_.clear(), touched_.clear();
    moves_.resize(static_cast<std::size_t>(places)), touched_.resize(static_cast<std::size_t>(places));
    for (const Level& level : levels_) add_moves(level);
    touch(targets);
}

void StepWays::add_moves(const Level& level) {
    std::set<std::tuple<int, int>> known;
    level.joined.each_one_way([&](std::size_t cell, unsigned way) {
        const DataCell from = cell_at(cell), to = cell_at(level.cells.next(cell, way));
        const int place = level.place_of(from.column, from.row), other = level.place_of(to.column, to.row);
        if (other == place || !known.insert({place, other}).second) return;
        moves_[static_cast<std::size_t>(place)].push_back({other, Going::steps, {middle(from), middle(to)}});
    });
}

void StepWays::touch(const std::vector<Target>& targets) {
    for (std::size_t t = 0; t < targets.size(); ++t) {
        const Level* level = find_level(targets[t].storey);
        if (level == nullptr) continue;
        for (const Ring& ring : targets[t].rings) {
            const auto [c0, r0, c1, r1] = map_->cells_near(detail::box_around(ring));
            for (int r = r0; r <= r1; ++r)
                for (int c = c0; c <= c1; ++c) {
                    const int place = level->place_of(c, r);
                    const Point p = middle({c, r});
                    if (place >= 0 && inside_of(ring, p, p))
                        touched_[static_cast<std::size_t>(place)].push_back(
                            {static_cast<int>(t), {place, Going::steps, {p}}});
                }
        }
    }
}

Ring StepWays::way_within(int place, Point from, Point to) {
    const Level& level = level_of(place);
    const DataCell begin = map_->data_cell_at(from), end = map_->data_cell_at(to);
    // Searches breadth first; `came` holds by which step a cell was entered.
    constexpr std::uint8_t here = 8, not_yet = 9;
    std::vector<std::uint8_t> came(static_cast<std::size_t>(map_->columns) * static_cast<std::size_t>(map_->rows),
                                   not_yet);
    std::vector<DataCell> open{begin};
    came[index(begin.column, begin.row)] = here;
    for (std::size_t i = 0; i < open.size() && came[index(end.column, end.row)] == not_yet; ++i) {
        const auto [c, r] = open[i];
        for (unsigned way = 0; way < 8; ++way) {
            if ((level.cells.leads(index(c, r)) >> way & 1) == 0) continue;
            const int nc = c + steps_around[way].column, nr = r + steps_around[way].row;
            if (came[index(nc, nr)] != not_yet || level.place_of(nc, nr) != place) continue;
            came[index(nc, nr)] = static_cast<std::uint8_t>(way);
            open.push_back({nc, nr});
        }
    }
    Ring way;
    DataCell at = end;
    for (std::uint8_t by = came[index(at.column, at.row)]; by != not_yet; by = came[index(at.column, at.row)]) {
        way.push_back(middle(at));
        if (by == here) break;
        const DataCell& step = steps_around[by];
        at = {at.column - step.column, at.row - step.row};
    }
    std::reverse(way.begin(), way.end());
    return way;
}

TravelPlace StepWays::shape(int place) const {
    const Level& level = level_of(place);
    const detail::Block& block = level.joined.around(place - level.first_place);
    TravelPlace shape;
    shape.storey = level.cells.storey();
    shape.area = detail::area_of_marked(*map_, block, [&](int row, std::uint64_t* bits) {
        for (int c = 0; c < block.columns; ++c)
            if (level.place_of(block.column + c, block.row + row) == place) bits[c / 64] |= std::uint64_t{1} << c % 64;
    });
    return shape;
}

}   // namespace

std::unique_ptr<Ways> ways_by_steps(const WaysOf& of) { return std::make_unique<StepWays>(of); }

}   // namespace dryground::travel

// The ways of a mover that steps from cell to cell: it stands in the middle of cells that grant what it needs, where no
// ground bars it; between cells beside each other lines and shut sides may stop it. Past corners it goes where both
// ways around are free, as `Play::may_step` does by default; a test holds the two against each other.
//
// Places are cells joined by steps that can be taken to and fro; where one can only go one way, a move leads on.

#include <algorithm>
#include <array>
#include <bit>
#include <map>
#include <set>

#include "../ground/ground_internal.hpp"
#include "../merge/cells/marked_cells_internal.hpp"
#include "standing_cells_internal.hpp"
#include "ways_internal.hpp"

namespace dryground::travel {

namespace {

// Right and down, then back: the four neighbouring cells, and those past the corners.
constexpr std::array<DataCell, 8> around{{{1, 0}, {0, 1}, {-1, 0}, {0, -1}, {1, 1}, {-1, 1}, {-1, -1}, {1, -1}}};

class StepWays : public Ways {
public:
    explicit StepWays(const WaysOf& of) : of_(of), map_(of.map), body_(of.figures().body.front().outline) {
        for (std::size_t way = 0; way < 8; ++way)
            away_[way] = static_cast<std::size_t>(std::int64_t{around[way].row} * map_.columns + around[way].column);
        MergeOptions options;
        options.forms = {};
        options.facts = of.facts;
        const std::vector<Group> groups = merge(of.world, of.map, options).groups;
        for (const StoreyId storey : ground::storeys_of(map_)) add_storey(groups, storey);
        touch(of.targets);
    }
    [[nodiscard]] int places() const override { return static_cast<int>(places_.size()); }
    [[nodiscard]] Going going(int) const override { return Going::steps; }
    [[nodiscard]] int place_at(StoreyId storey, Point p) override { return find_place(storey, p); }
    [[nodiscard]] int find_place(StoreyId storey, Point p) const override {
        const auto [column, row] = map_.data_cell_at(p);
        const Level* level = find_level(storey);
        return level == nullptr || !map_.has(column, row) ? -1 : level->place[index(column, row)];
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
    struct Line {
        Point from, to;
        OneWay passes;
        Ring sum;   // with the mirrored body
    };
    struct Level {
        StoreyId storey;
        std::vector<Line> lines{};
        detail::BoxIndex near_lines{};
        std::vector<char> has_lines{};       // by cell: whether any is near its middle or those around it
        std::vector<Sides> sides{};          // by cell; empty: all are open
        std::vector<int> place{};            // by cell; -1 where it cannot stand
        std::vector<std::uint8_t> leads{};   // by cell: which of the eight steps can be taken
    };

    [[nodiscard]] std::size_t index(int column, int row) const {
        return static_cast<std::size_t>(row) * static_cast<std::size_t>(map_.columns) +
               static_cast<std::size_t>(column);
    }
    [[nodiscard]] DataCell cell_at(std::size_t index) const {
        const auto columns = static_cast<std::size_t>(map_.columns);
        return {static_cast<int>(index % columns), static_cast<int>(index / columns)};
    }
    // Returns the cell that a way leads to. Requires that it is one of the map.
    [[nodiscard]] std::size_t next(std::size_t cell, unsigned way) const { return cell + away_[way]; }
    [[nodiscard]] Point middle(int column, int row) const { return middle_of(map_, column, row); }
    [[nodiscard]] const Level* find_level(StoreyId storey) const {
        for (const Level& level : levels_)
            if (level.storey == storey) return &level;
        return nullptr;
    }
    void add_storey(const std::vector<Group>& groups, StoreyId storey);
    void add_lines(Level& level, const Group& group) const;
    void index_lines(Level& level) const;
    [[nodiscard]] std::vector<char> find_stands(Level& level, const std::vector<const Regions*>& grounds) const;
    void find_steps(Level& level, const std::vector<char>& stands) const;
    [[nodiscard]] bool lets_through(const Level& level, const DataCell& from, std::size_t way) const;
    [[nodiscard]] bool passes(const Level& level, const DataCell& from, std::size_t way) const;
    void join(Level& level, std::size_t number);
    void number_places(Level& level, std::size_t number, std::vector<int>& joined);
    void add_moves(const Level& level);
    void touch(const std::vector<Target>& targets);

    WaysOf of_;
    const Map& map_;
    const Ring& body_;
    std::array<std::size_t, 8> away_{};   // how far each step leads among the cells; back to those before: it wraps
    std::vector<Level> levels_;
    struct Place {
        std::size_t level;
        DataCell least, most;   // around its cells
    };
    std::vector<Place> places_;
    std::vector<std::vector<Move>> moves_;
    std::vector<std::vector<Touched>> touched_;
};

void StepWays::add_lines(Level& level, const Group& group) const {
    for (const Ring& line : group.lines)
        for (std::size_t i = 0; i + 1 < line.size(); ++i)
            level.lines.push_back(
                {line[i], line[i + 1], group.one_way, sum_with(std::array{line[i], line[i + 1]}, body_)});
}

void StepWays::index_lines(Level& level) const {
    if (level.lines.empty()) return;
    std::vector<Bounds> boxes;
    for (const Line& line : level.lines) boxes.push_back(detail::box_around(line.sum));
    level.has_lines.resize(level.place.size());
    const std::int32_t around_cell = std::max(map_.cell_width, map_.cell_height) * steps_per_px;
    for (const Bounds& box : boxes) {
        const auto [c0, r0, c1, r1] = map_.cells_near(detail::grown(box, around_cell));
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c) level.has_lines[index(c, r)] = 1;
    }
    level.near_lines = detail::BoxIndex(std::move(boxes));
}

// Returns whether the sides of a cell and of its neighbour are open to a step.
bool StepWays::lets_through(const Level& level, const DataCell& from, std::size_t way) const {
    if (level.sides.empty()) return true;
    constexpr std::array<std::size_t, 4> side_of{1, 2, 3, 0};   // top, right, bottom, left, as in Sides
    const std::size_t side = side_of[way];
    const Passage leave = level.sides[index(from.column, from.row)].of[side],
                  enter = level.sides[index(from.column + around[way].column, from.row + around[way].row)]
                              .of[(side + 2) % 4];
    return (leave == Passage::open || leave == Passage::out) && (enter == Passage::open || enter == Passage::in);
}

// Returns whether lines allow a step to a neighbouring cell. A body in a line that stops both ways is stopped where its
// middle would get across it; in one that stops one way only, nowhere.
bool StepWays::passes(const Level& level, const DataCell& from, std::size_t way) const {
    if (level.lines.empty() || level.has_lines[index(from.column, from.row)] == 0) return true;
    const Point a = middle(from.column, from.row),
                b = middle(from.column + around[way].column, from.row + around[way].row);
    const Bounds box = detail::box_around(body_);
    const Point of_body{(box.least.x + box.most.x) / 2, (box.least.y + box.most.y) / 2};
    return !level.near_lines.any_near(detail::box_around(std::array{a, b}), [&](std::size_t i) {
        const Line& line = level.lines[i];
        if (line.passes != OneWay::none && !runs_against(a, b, line.passes)) return false;
        if (!inside_of(line.sum, a, a)) return inside_of(line.sum, a, b).has_value();
        if (line.passes != OneWay::none) return false;
        const Point p = moved(a, of_body), q = moved(b, of_body);
        return turn(line.from, line.to, p) != turn(line.from, line.to, q) &&
               turn(p, q, line.from) != turn(p, q, line.to);
    });
}

// Returns in which cells it can stand; where tiles say so, their sides are kept.
std::vector<char> StepWays::find_stands(Level& level, const std::vector<const Regions*>& grounds) const {
    const Mover& mover = of_.figures();
    std::vector<char> stands = standing_cells(map_, grounds, body_);
    if (mover.needs == 0 && !ground::has_sides(of_.world, map_, level.storey, of_.facts)) return stands;
    level.sides.resize(stands.size());
    for (int r = 0; r < map_.rows; ++r)
        for (int c = 0; c < map_.columns; ++c) {
            const Passability says = passability(of_.world, map_, {c, r}, level.storey, of_.facts);
            level.sides[index(c, r)] = says.sides;
            if (mover.needs != 0 && (says.flags & mover.needs) == 0) stands[index(c, r)] = 0;
        }
    return stands;
}

void StepWays::add_storey(const std::vector<Group>& groups, StoreyId storey) {
    const Mover& mover = of_.figures();
    Level level{storey};
    level.place.resize(static_cast<std::size_t>(map_.columns) * static_cast<std::size_t>(map_.rows));
    std::vector<const Regions*> grounds;
    for (const Group& group : groups) {
        if (group.storey_id != storey || group.barrier_id == BarrierId::none ||
            !std::binary_search(mover.stopped_by.begin(), mover.stopped_by.end(), group.barrier_id))
            continue;
        grounds.push_back(&group.regions);
        add_lines(level, group);
    }
    index_lines(level);
    const std::vector<char> stands = find_stands(level, grounds);
    find_steps(level, stands);
    for (std::size_t i = 0; i < stands.size(); ++i) level.place[i] = stands[i] == 0 ? -2 : -1;   // numbered by `join`
    join(level, levels_.size());
    levels_.push_back(std::move(level));
}

void StepWays::find_steps(Level& level, const std::vector<char>& stands) const {
    const auto columns = static_cast<std::size_t>(map_.columns);
    level.leads.assign(stands.size(), 0);
    std::size_t i = 0;
    for (int r = 0; r < map_.rows; ++r)
        for (int c = 0; c < map_.columns; ++c, ++i) {
            if (stands[i] == 0) continue;
            const std::array beside{c + 1 < map_.columns && stands[i + 1] != 0,
                                    r + 1 < map_.rows && stands[i + columns] != 0, c > 0 && stands[i - 1] != 0,
                                    r > 0 && stands[i - columns] != 0};
            unsigned leads = 0;
            for (std::size_t way = 0; way < 4; ++way)
                if (beside[way] && lets_through(level, {c, r}, way) && passes(level, {c, r}, way)) leads |= 1U << way;
            level.leads[i] = static_cast<std::uint8_t>(leads);
        }
    // Past a corner: by both ways around. What leads to a cell stays in the map.
    const auto may = [&](std::size_t cell, unsigned way) { return (level.leads[cell] >> way & 1) != 0; };
    for (std::size_t cell = 0; cell < stands.size(); ++cell) {
        if (level.leads[cell] == 0) continue;
        unsigned leads = 0;
        for (unsigned way = 4; way < 8; ++way) {
            const unsigned across = around[way].column > 0 ? 0 : 2, down = around[way].row > 0 ? 1 : 3;
            if (may(cell, across) && may(cell, down) && may(next(cell, across), down) && may(next(cell, down), across))
                leads |= 1U << way;
        }
        level.leads[cell] |= static_cast<std::uint8_t>(leads);
    }
}

// Joins cells by steps that also lead back (each such step past a corner has two that go around it); the others are
// moves. Runs are numbered row by row, and joined with those above by union-find, which Galler and Fischer gave in
// 1964.
void StepWays::join(Level& level, std::size_t number) {
    std::vector<int> joined;   // by provisional number: a lesser one that it belongs to, or itself
    const auto root = [&](int of) {
        while (joined[static_cast<std::size_t>(of)] != of)
            of = joined[static_cast<std::size_t>(of)] =
                joined[static_cast<std::size_t>(joined[static_cast<std::size_t>(of)])];
        return of;
    };
    const auto columns = static_cast<std::size_t>(map_.columns);
    bool any_lead_one_way = false;
    const auto leads_both_ways = [&](std::size_t cell, std::size_t before, unsigned way) {
        const bool forth = (level.leads[before] >> way & 1) != 0, back = (level.leads[cell] >> (way + 2) & 1) != 0;
        any_lead_one_way = any_lead_one_way || forth != back;
        return forth && back;
    };
    std::size_t cell = 0;
    for (int r = 0; r < map_.rows; ++r)
        for (int c = 0; c < map_.columns; ++c, ++cell) {
            int& place = level.place[cell];
            if (place < -1) continue;
            if (c > 0 && leads_both_ways(cell, cell - 1, 0)) place = level.place[cell - 1];
            if (r > 0 && leads_both_ways(cell, cell - columns, 1)) {
                const int above = root(level.place[cell - columns]);
                const int own = place < 0 ? above : root(place);
                joined[static_cast<std::size_t>(std::max(own, above))] = std::min(own, above);
                place = std::min(own, above);
            }
            if (place < 0) joined.push_back(place = static_cast<int>(joined.size()));
        }
    number_places(level, number, joined);
    moves_.resize(places_.size());
    touched_.resize(places_.size());
    if (any_lead_one_way) add_moves(level);
}

// Gives places their numbers, in the order of their first cells. `joined` leads to lesser ones only.
void StepWays::number_places(Level& level, std::size_t number, std::vector<int>& joined) {
    for (std::size_t i = 0; i < joined.size(); ++i)   // now: the number of the place
        if (joined[i] == static_cast<int>(i)) {
            joined[i] = places();
            places_.push_back({number, {map_.columns, map_.rows}, {-1, -1}});
        } else {
            joined[i] = joined[static_cast<std::size_t>(joined[i])];
        }
    std::size_t cell = 0;
    for (int r = 0; r < map_.rows; ++r)
        for (int c = 0; c < map_.columns; ++c, ++cell) {
            int& place = level.place[cell];
            if (place >= 0) place = joined[static_cast<std::size_t>(place)];
            place = std::max(place, -1);
            if (place < 0) continue;
            Place& of = places_[static_cast<std::size_t>(place)];
            of.least = {std::min(of.least.column, c), std::min(of.least.row, r)};
            of.most = {std::max(of.most.column, c), r};
        }
}

void StepWays::add_moves(const Level& level) {
    std::set<std::array<int, 2>> known;
    for (std::size_t cell = 0; cell < level.place.size(); ++cell)
        for (unsigned ways = level.leads[cell]; ways != 0; ways &= ways - 1) {
            const std::size_t to = next(cell, static_cast<unsigned>(std::countr_zero(ways)));
            const int place = level.place[cell], other = level.place[to];
            if (other == place || !known.insert({place, other}).second) continue;
            const auto [c, r] = cell_at(cell);
            const auto [nc, nr] = cell_at(to);
            moves_[static_cast<std::size_t>(place)].push_back({other, Going::steps, {middle(c, r), middle(nc, nr)}});
        }
}

void StepWays::touch(const std::vector<Target>& targets) {
    for (std::size_t t = 0; t < targets.size(); ++t) {
        const Level* level = find_level(targets[t].storey);
        if (level == nullptr) continue;
        for (const Ring& ring : targets[t].rings) {
            const auto [c0, r0, c1, r1] = map_.cells_near(detail::box_around(ring));
            for (int r = r0; r <= r1; ++r)
                for (int c = c0; c <= c1; ++c) {
                    const int place = level->place[index(c, r)];
                    const Point p = middle(c, r);
                    if (place >= 0 && inside_of(ring, p, p))
                        touched_[static_cast<std::size_t>(place)].push_back(
                            {static_cast<int>(t), {place, Going::steps, {p}}});
                }
        }
    }
}

Ring StepWays::way_within(int place, Point from, Point to) {
    const Level& level = levels_[places_[static_cast<std::size_t>(place)].level];
    const DataCell begin = map_.data_cell_at(from), end = map_.data_cell_at(to);
    // Searches breadth first; `came` holds by which step a cell was entered.
    std::vector<int> came(level.place.size(), -1);
    std::vector<DataCell> open{begin};
    came[index(begin.column, begin.row)] = 8;
    for (std::size_t i = 0; i < open.size() && came[index(end.column, end.row)] < 0; ++i) {
        const auto [c, r] = open[i];
        for (std::size_t way = 0; way < 8; ++way) {
            const int nc = c + around[way].column, nr = r + around[way].row;
            if ((level.leads[index(c, r)] >> way & 1) == 0 || level.place[index(nc, nr)] != place ||
                came[index(nc, nr)] >= 0)
                continue;
            came[index(nc, nr)] = static_cast<int>(way);
            open.push_back({nc, nr});
        }
    }
    Ring way;
    DataCell at = end;
    for (int by = came[index(at.column, at.row)]; by >= 0; by = came[index(at.column, at.row)]) {
        way.push_back(middle(at.column, at.row));
        if (by == 8) break;
        at = {at.column - around[static_cast<std::size_t>(by)].column,
              at.row - around[static_cast<std::size_t>(by)].row};
    }
    std::reverse(way.begin(), way.end());
    return way;
}

TravelPlace StepWays::shape(int place) const {
    const Place& of = places_[static_cast<std::size_t>(place)];
    const Level& level = levels_[of.level];
    TravelPlace shape;
    shape.storey = level.storey;
    const detail::Block block{of.least.column, of.least.row, of.most.column - of.least.column + 1,
                              of.most.row - of.least.row + 1};
    shape.area = detail::area_of_marked(map_, block, [&](int row, std::uint64_t* bits) {
        const int* const places = &level.place[index(block.column, block.row + row)];
        for (int c = 0; c < block.columns; ++c)
            if (places[c] == place) bits[c / 64] |= std::uint64_t{1} << c % 64;
    });
    return shape;
}

}   // namespace

std::unique_ptr<Ways> ways_by_steps(const WaysOf& of) { return std::make_unique<StepWays>(of); }

}   // namespace dryground::travel

// The ways of a mover that steps from cell to cell: it stands in the middle of cells that grant what it needs, where no
// ground bars it; between cells beside each other lines and shut sides may stop it. Past corners it goes where both
// ways around are free, as `Play::may_step` does by default; a test holds the two against each other.
//
// Places are cells joined by steps that can be taken to and fro; where one can only go one way, a move leads on.

#include <algorithm>
#include <array>
#include <map>
#include <set>

#include "../ground/ground_internal.hpp"
#include "ways_internal.hpp"

namespace dryground::travel {

namespace {

// Right and down, then back: the four neighbouring cells, and those past the corners.
constexpr std::array<DataCell, 8> around{{{1, 0}, {0, 1}, {-1, 0}, {0, -1}, {1, 1}, {-1, 1}, {-1, -1}, {1, -1}}};

class StepWays : public Ways {
public:
    explicit StepWays(const WaysOf& of) : of_(of), map_(of.map), body_(of.figures().body.front().outline) {
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
        std::vector<int> place{};            // by cell; -1 where it cannot stand
        std::vector<std::uint8_t> leads{};   // by cell: which of the eight steps can be taken
    };

    [[nodiscard]] std::size_t index(int column, int row) const {
        return static_cast<std::size_t>(row) * static_cast<std::size_t>(map_.columns) +
               static_cast<std::size_t>(column);
    }
    [[nodiscard]] Point middle(int column, int row) const {
        const Bounds box = map_.cell_box(column, row);
        return {box.least.x + (box.most.x - box.least.x) / 2, box.least.y + (box.most.y - box.least.y) / 2};
    }
    [[nodiscard]] const Level* find_level(StoreyId storey) const {
        for (const Level& level : levels_)
            if (level.storey == storey) return &level;
        return nullptr;
    }
    void add_storey(const std::vector<Group>& groups, StoreyId storey);
    void add_line(Level& level, Point from, Point to, OneWay passes) const;
    [[nodiscard]] bool passes(const Level& level, const DataCell& from, std::size_t way) const;
    void join(Level& level, std::size_t number);
    void touch(const std::vector<Target>& targets);

    WaysOf of_;
    const Map& map_;
    const Ring& body_;
    std::vector<Level> levels_;
    struct Place {
        std::size_t level;
        DataCell least, most;   // around its cells
    };
    std::vector<Place> places_;
    std::vector<std::vector<Move>> moves_;
    std::vector<std::vector<Touched>> touched_;
};

void StepWays::add_line(Level& level, Point from, Point to, OneWay passes) const {
    level.lines.push_back({from, to, passes, sum_with(std::array{from, to}, body_)});
}

// Returns whether sides and lines allow a step to a neighbouring cell. A body in a line that stops both ways is stopped
// where its middle would get across it; in one that stops one way only, nowhere.
bool StepWays::passes(const Level& level, const DataCell& from, std::size_t way) const {
    const DataCell to{from.column + around[way].column, from.row + around[way].row};
    constexpr std::array<std::size_t, 4> side_of{1, 2, 3, 0};   // top, right, bottom, left, as in Sides
    const std::size_t side = side_of[way];
    const Passability here = passability(of_.world, map_, from, level.storey, of_.facts),
                      there = passability(of_.world, map_, to, level.storey, of_.facts);
    const Passage leave = here.sides.of[side], enter = there.sides.of[(side + 2) % 4];
    if ((leave != Passage::open && leave != Passage::out) || (enter != Passage::open && enter != Passage::in))
        return false;
    const Point a = middle(from.column, from.row), b = middle(to.column, to.row);
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

void StepWays::add_storey(const std::vector<Group>& groups, StoreyId storey) {
    const Mover& mover = of_.figures();
    Level level{storey};
    Regions ground;
    int grounds = 0;
    for (const Group& group : groups) {
        if (group.storey_id != storey || group.barrier_id == BarrierId::none ||
            !std::binary_search(mover.stopped_by.begin(), mover.stopped_by.end(), group.barrier_id))
            continue;
        grounds += group.regions.empty() ? 0 : 1;
        ground.insert(ground.end(), group.regions.begin(), group.regions.end());
        for (const Ring& line : group.lines)
            for (std::size_t i = 0; i + 1 < line.size(); ++i) add_line(level, line[i], line[i + 1], group.one_way);
    }
    std::vector<Bounds> boxes;
    for (const Line& line : level.lines) boxes.push_back(detail::box_around(line.sum));
    level.near_lines = detail::BoxIndex(std::move(boxes));
    const std::size_t cells = static_cast<std::size_t>(map_.columns) * static_cast<std::size_t>(map_.rows);
    const Obstacles obstacles(grounds > 1 ? unite(ground) : ground, body_);
    std::vector<char> stands(cells);
    for (int r = 0; r < map_.rows; ++r) {
        bool may_be = false;
        for (int c = 0; c < map_.columns; ++c) {
            const Point p = middle(c, r);
            if (c == 0 || obstacles.any_near(detail::box_around(std::array{middle(c - 1, r), p})))
                may_be = obstacles.may_be(p);   // else as in the cell before: nothing lies between
            const bool granted =
                mover.needs == 0 || (passability(of_.world, map_, {c, r}, storey, of_.facts).flags & mover.needs) != 0;
            stands[index(c, r)] = granted && may_be ? 1 : 0;
        }
    }
    level.leads.assign(cells, 0);
    const auto beside = [&](int c, int r, std::size_t way) {
        const int column = c + around[way].column, row = r + around[way].row;
        return map_.has(column, row) && stands[index(column, row)] != 0;
    };
    for (int r = 0; r < map_.rows; ++r)
        for (int c = 0; c < map_.columns; ++c) {
            if (stands[index(c, r)] == 0) continue;
            for (std::size_t way = 0; way < 4; ++way)
                if (beside(c, r, way) && passes(level, {c, r}, way))
                    level.leads[index(c, r)] |= static_cast<std::uint8_t>(1u << way);
        }
    const auto may = [&](int c, int r, std::size_t way) { return (level.leads[index(c, r)] >> way & 1) != 0; };
    const auto way_of = [](int dc, int dr) -> std::size_t { return dc > 0 ? 0 : dr > 0 ? 1 : dc < 0 ? 2 : 3; };
    for (int r = 0; r < map_.rows; ++r)
        for (int c = 0; c < map_.columns; ++c)
            for (std::size_t way = 4; way < 8; ++way) {
                const auto [dc, dr] = around[way];
                const std::size_t across = way_of(dc, 0), down = way_of(0, dr);
                if (stands[index(c, r)] != 0 && beside(c, r, way) && may(c, r, across) && may(c + dc, r, down) &&
                    may(c, r, down) && may(c, r + dr, across))
                    level.leads[index(c, r)] |= static_cast<std::uint8_t>(1u << way);
            }
    level.place.assign(cells, -1);
    for (std::size_t i = 0; i < cells; ++i)
        if (stands[i] == 0) level.place[i] = -2;   // until places are numbered
    join(level, levels_.size());
    levels_.push_back(std::move(level));
}

// Fills areas by steps that also lead back; the others are moves.
void StepWays::join(Level& level, std::size_t number) {
    std::vector<DataCell> open;
    const auto back = [](std::size_t way) { return way < 4 ? (way + 2) % 4 : 4 + (way - 4 + 2) % 4; };
    for (int row = 0; row < map_.rows; ++row)
        for (int column = 0; column < map_.columns; ++column) {
            if (level.place[index(column, row)] != -1) continue;
            const int place = places();
            places_.push_back({number, {column, row}, {column, row}});
            open.push_back({column, row});
            level.place[index(column, row)] = place;
            while (!open.empty()) {
                const auto [c, r] = open.back();
                open.pop_back();
                Place& of = places_.back();
                of.least = {std::min(of.least.column, c), std::min(of.least.row, r)};
                of.most = {std::max(of.most.column, c), std::max(of.most.row, r)};
                for (std::size_t way = 0; way < 8; ++way) {
                    const int nc = c + around[way].column, nr = r + around[way].row;
                    if ((level.leads[index(c, r)] >> way & 1) == 0 || level.place[index(nc, nr)] != -1 ||
                        (level.leads[index(nc, nr)] >> back(way) & 1) == 0)
                        continue;
                    level.place[index(nc, nr)] = place;
                    open.push_back({nc, nr});
                }
            }
        }
    moves_.resize(places_.size());
    touched_.resize(places_.size());
    std::set<std::array<int, 2>> known;
    for (int r = 0; r < map_.rows; ++r)
        for (int c = 0; c < map_.columns; ++c) {
            int& place = level.place[index(c, r)];
            if (place == -2) {
                place = -1;
                continue;
            }
            for (std::size_t way = 0; way < 8; ++way) {
                if ((level.leads[index(c, r)] >> way & 1) == 0) continue;
                const int nc = c + around[way].column, nr = r + around[way].row;
                const int other = level.place[index(nc, nr)];
                if (other != place && other >= 0 && known.insert({place, other}).second)
                    moves_[static_cast<std::size_t>(place)].push_back(
                        {other, Going::steps, {middle(c, r), middle(nc, nr)}});
            }
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
    Regions cells;
    for (int r = of.least.row; r <= of.most.row; ++r)
        for (int c = of.least.column, run = 0; c <= of.most.column; ++c) {
            run = level.place[index(c, r)] == place ? run + 1 : 0;
            if (run > 0 && (c == of.most.column || level.place[index(c + 1, r)] != place)) {
                cells.push_back({map_.block_ring(c + 1 - run, r, run, 1), {}});
                run = 0;
            }
        }
    shape.area = unite(cells);
    return shape;
}

}   // namespace

std::unique_ptr<Ways> ways_by_steps(const WaysOf& of) { return std::make_unique<StepWays>(of); }

}   // namespace dryground::travel

// Area that extends beyond its cells, worked into the grid.
//
// Idea. Cells whose closed boxes an edge of such area touches are marked; nothing of it changes anywhere else but from
// cell to cell, so that cells between two marked ones lie wholly inside or outside. All that meets in marked cells, the
// tiles that stand there included, is arranged once by the general sweep, cut to the marked cells. Of its boundary,
// what runs along grid lines belongs to the sides of cells like any tile's; the rest stays whole: edges that pass from
// marked cell to marked cell without a vertex, so that a slanted edge drawn over many cells is one edge. On both sides
// of a line between two marked cells only what differs is listed; the tracer needs nothing else.
//
// Cost: the general boolean's for the edges in marked cells, plus the rows that the area spans.

#include "loose_internal.hpp"

#include <algorithm>
#include <cmath>

#include "../../geometry/arrangement_internal.hpp"
#include "../../geometry/ring_internal.hpp"

namespace dryground::detail {

namespace {

std::int32_t floored(std::int64_t a, std::int64_t b) { return static_cast<std::int32_t>(a / b - (a % b < 0 ? 1 : 0)); }

class Worker {
public:
    Worker(const Map& map, const Grid& grid, const Plan& plan, const std::vector<Regions>& areas, const Block& block)
        : map_(map), grid_(grid), plan_(plan), areas_(areas), block_(block) {}

    LooseArea run() {
        const auto rows = static_cast<std::size_t>(block_.rows);
        marked_.resize(rows);
        result_.rows.resize(rows);
        corner_ = grid_.flat(map_.corner(block_.column, block_.row));
        for (const Regions& area : areas_) {
            each_edge(area, [&](Point a, Point b) { mark(grid_.flat(a), grid_.flat(b)); });
            result_.runs.push_back(whole_cells(area));
        }
        make_covers();
        if (!result_.covers.empty()) arrange_marked();
        return std::move(result_);
    }

private:
    // ---- which cells ----

    // Calls action(column) for the columns of a row that an edge touches, possibly one more.
    template <class Action>
    void each_row(Point a, Point b, Action action) const {
        const std::int32_t w = grid_.width(), h = grid_.height();
        const double ax = double{0} + a.x - corner_.x, ay = double{0} + a.y - corner_.y,
                     bx = double{0} + b.x - corner_.x, by = double{0} + b.y - corner_.y;
        const double least_y = std::min(ay, by), most_y = std::max(ay, by);
        const auto first = static_cast<int>(std::floor((least_y - 1) / h)),
                   last = static_cast<int>(std::floor((most_y + 1) / h));
        const auto x_at = [&](double y) {
            return ay == by ? ax : ax + std::clamp((y - ay) / (by - ay), 0.0, 1.0) * (bx - ax);
        };
        for (int r = std::max(first, 0); r <= std::min(last, static_cast<int>(marked_.size()) - 1); ++r) {
            double s = x_at(double{0} + r * static_cast<double>(h) - 1), t = x_at((r + 1.0) * h + 1);
            if (ay == by) s = ax, t = bx;
            action(r, static_cast<int>(std::floor((std::min(s, t) - 1) / w)),
                   static_cast<int>(std::floor((std::max(s, t) + 1) / w)));
        }
    }

    void mark(Point a, Point b) {
        each_row(a, b, [&](int r, int first, int last) {
            for (int c = std::max(first, 0); c <= std::min(last, block_.columns - 1); ++c)
                marked_[static_cast<std::size_t>(r)].push_back(c);
        });
    }

    // Returns the runs of cells in each row that lie wholly within an area and that no edge of it touches.
    std::vector<std::vector<LooseArea::Run>> whole_cells(const Regions& area) const {
        struct Crossing {
            double x;
            int delta;
        };
        std::vector<std::vector<Crossing>> crossings(marked_.size());
        const double h = grid_.height(), w = grid_.width();
        each_edge(area, [&](Point from, Point to) {
            const Point a = grid_.flat(from), b = grid_.flat(to);
            const double ay = (double{0} + a.y - corner_.y) / h - 0.5, by = (double{0} + b.y - corner_.y) / h - 0.5;
            const double ax = (double{0} + a.x - corner_.x) / w, bx = (double{0} + b.x - corner_.x) / w;
            // rows whose middle lies in [least, most)
            const auto first = static_cast<int>(std::ceil(std::min(ay, by))),
                       last = static_cast<int>(std::ceil(std::max(ay, by)));
            for (int r = std::max(first, 0); r < std::min(last, static_cast<int>(crossings.size())); ++r)
                crossings[static_cast<std::size_t>(r)].push_back(
                    {ax + (r - ay) / (by - ay) * (bx - ax), ay < by ? 1 : -1});
        });
        std::vector<std::vector<LooseArea::Run>> runs(crossings.size());
        for (std::size_t r = 0; r < crossings.size(); ++r) {
            std::sort(crossings[r].begin(), crossings[r].end(),
                      [](const Crossing& a, const Crossing& b) { return a.x < b.x; });
            int winding = 0;
            for (std::size_t i = 0; i + 1 < crossings[r].size(); ++i) {
                winding += crossings[r][i].delta;
                const int first = std::max(0, static_cast<int>(std::ceil(crossings[r][i].x))),
                          last = std::min(block_.columns, static_cast<int>(std::floor(crossings[r][i + 1].x)));
                if (winding != 0 && first < last) runs[r].push_back({first, last});
            }
        }
        return runs;
    }

    void make_covers() {
        for (std::size_t r = 0; r < marked_.size(); ++r) {
            std::vector<int>& columns = marked_[r];
            std::sort(columns.begin(), columns.end());
            columns.erase(std::unique(columns.begin(), columns.end()), columns.end());
            for (const int c : columns) {
                result_.rows[r].push_back({c, static_cast<std::uint32_t>(result_.covers.size())});
                result_.covers.emplace_back().filling = Filling::mixed;
            }
        }
    }

    Cover* cover_at(int c, int r) {
        if (r < 0 || r >= static_cast<int>(result_.rows.size())) return nullptr;
        const std::vector<OwnCover>& row = result_.rows[static_cast<std::size_t>(r)];
        const auto found = std::lower_bound(row.begin(), row.end(), c,
                                            [](const OwnCover& own, int column) { return own.column < column; });
        return found == row.end() || found->column != c ? nullptr : &result_.covers[found->cover];
    }

    // ---- what meets in them ----

    struct Operand {
        bool adds;
        int label;
    };

    template <class Action>   // of a marked cell, in the map's own columns and rows
    void each_marked(Action action) const {
        for (std::size_t r = 0; r < marked_.size(); ++r)
            for (const int c : marked_[r]) action(c + block_.column, static_cast<int>(r) + block_.row);
    }

    void arrange_marked() {
        std::vector<Edge> edges;
        std::vector<Operand> operands{{false, 0}};   // the first is the marked cells themselves
        add_cells(edges, 0, [](int, int) { return true; });
        const auto next = [&](bool adds, int label) {
            operands.push_back({adds, label});
            return static_cast<int>(operands.size()) - 1;
        };
        for (std::size_t s = 0; s < plan_.steps.size(); ++s) {
            const Step& step = plan_.steps[s];
            if (step.layer == nullptr)
                add_regions(edges, areas_[s], next(step.loose.adds, step.loose.label));
            else
                add_tiles(edges, step, next);
        }
        if (plan_.holds_rim) {
            add_cells(edges, next(true, 0), [&](int c, int r) {
                return c >= -1 && r >= -1 && c <= map_.columns && r <= map_.rows && !map_.has(c, r);
            });
        }
        const std::vector<BoundaryEdge> boundary =
            sweep(arrange(std::move(edges)), [&](std::span<const Winding> windings) {
                if (windings.size() < 2 || windings.front().operand != 0) return nothing;
                const Operand& top = operands[static_cast<std::size_t>(windings.back().operand)];
                return top.adds ? top.label : nothing;
            });
        for (const BoundaryEdge& edge : boundary)
            if (const Point from = inside_block(edge.from), to = inside_block(edge.to); from != to)
                take(from, to, edge.label);
        turn_spots(result_.whole.spots, result_.whole.edges);
        for (Cover& cover : result_.covers) {
            for (std::vector<Stretch>& side : cover.sides) std::sort(side.begin(), side.end());
            note_middles(cover, grid_.width(), grid_.height());
        }
    }

    // Returns the outline of marked cells of one kind: edges only where the neighbour is of another kind, runs of them
    // as one.
    template <class Sort>
    void add_cells(std::vector<Edge>& edges, int operand, Sort is_of) const {
        std::vector<std::vector<int>> cells(marked_.size());
        for (std::size_t r = 0; r < marked_.size(); ++r)
            for (const int c : marked_[r])
                if (is_of(c + block_.column, static_cast<int>(r) + block_.row)) cells[r].push_back(c);
        static const std::vector<int> none;
        for (std::size_t r = 0; r <= cells.size(); ++r) {
            const std::vector<int>&above = r > 0 ? cells[r - 1] : none, &here = r < cells.size() ? cells[r] : none;
            add_level_edges(edges, operand, static_cast<int>(r), above, here);
            for (std::size_t i = 0; i < here.size(); ++i) {
                if (i == 0 || here[i - 1] + 1 != here[i])
                    add_upright_edge(edges, operand, here[i], static_cast<int>(r), 1);
                if (i + 1 == here.size() || here[i] + 1 != here[i + 1])
                    add_upright_edge(edges, operand, here[i] + 1, static_cast<int>(r), -1);
            }
        }
    }
    // Lists where exactly one of two rows has a cell.
    void add_level_edges(std::vector<Edge>& edges, int operand, int row, const std::vector<int>& above,
                         const std::vector<int>& here) const {
        int from = 0, to = 0, sign = 0;   // the run at hand
        const auto end_run = [&] {
            if (sign != 0) add_edge(edges, operand, from, row, to, row, sign);
            sign = 0;
        };
        for (std::size_t a = 0, h = 0; a < above.size() || h < here.size();) {
            const int column = std::min(a < above.size() ? above[a] : INT32_MAX, h < here.size() ? here[h] : INT32_MAX);
            const bool in_above = a < above.size() && above[a] == column,
                       in_here = h < here.size() && here[h] == column;
            const int now = (in_here ? 1 : 0) - (in_above ? 1 : 0);
            a += in_above;
            h += in_here;
            if (now != sign || column != to) end_run();
            if (now == 0) continue;
            if (sign == 0) from = column;
            sign = now;
            to = column + 1;
        }
        end_run();
    }
    void add_upright_edge(std::vector<Edge>& edges, int operand, int column, int row, int sign) const {
        add_edge(edges, operand, column, row, column, row + 1, -sign);
    }
    // Adds a boundary along a grid line, with the ground on its left if the sign is positive.
    void add_edge(std::vector<Edge>& edges, int operand, int c0, int r0, int c1, int r1, int sign) const {
        const Point a = map_.corner(c0 + block_.column, r0 + block_.row),
                    b = map_.corner(c1 + block_.column, r1 + block_.row);
        // Seen along a sweep line from before to after, an edge that runs forward has its left before it.
        edges.push_back(a < b ? Edge{a, b, operand, -sign} : Edge{b, a, operand, sign});
    }

    // Collects what carves, then what adds, by label. Tiles bring all their edges, except whole cells.
    template <class Next>
    void add_tiles(std::vector<Edge>& edges, const Step& step, Next next) const {
        const Regions whole{{map_.cell_ring(0, 0), {}}};
        const Point zero = map_.corner(0, 0);
        std::map<std::pair<bool, int>, std::vector<char>> sorts;   // which meanings cover the whole cell
        for (std::size_t m = 0; m < step.parts.size(); ++m)
            for (const Part& part : step.parts[m]) {
                std::vector<char>& covers = sorts[{part.adds, part.label}];
                covers.resize(step.parts.size() + 1, 0);
                if (moved(part.area, zero) == whole) covers[m + 1] = 1;
            }
        const auto meaning = [&](int c, int r) {
            return map_.has(c, r) ? step.meaning[map_.number(*step.layer, c, r)] : std::uint32_t{0};
        };
        for (const auto& entry : sorts) {
            const auto [adds, label] = entry.first;
            const std::vector<char>& covers = entry.second;
            const int operand = next(adds, label);
            add_cells(edges, operand, [&](int c, int r) { return covers[meaning(c, r)] != 0; });
            each_marked([&, wanted = std::pair{adds, label}](int c, int r) {
                const std::uint32_t here = meaning(c, r);
                if (here == 0 || covers[here] != 0) return;
                for (const Part& part : step.parts[here - 1])
                    if (std::pair{part.adds, part.label} == wanted)
                        add_regions(edges, moved(part.area, map_.corner(c, r)), operand);
            });
        }
    }

    // ---- back to cells ----

    // Returns a vertex in flat coordinates. If diamonds' sides are crossed off the lattice, the rounded crossing may
    // lie a step outside the block: no cell there would link its edges, so it is moved back onto the block's side.
    [[nodiscard]] Point inside_block(Point vertex) const {
        const Point p = grid_.flat(vertex);
        return {std::clamp(p.x, corner_.x, corner_.x + block_.columns * grid_.width()),
                std::clamp(p.y, corner_.y, corner_.y + block_.rows * grid_.height())};
    }

    [[nodiscard]] bool on_upright_line(Point p) const { return (p.x - corner_.x) % grid_.width() == 0; }
    [[nodiscard]] bool on_level_line(Point p) const { return (p.y - corner_.y) % grid_.height() == 0; }

    void take(Point from, Point to, int label) {
        if (from.x == to.x && on_upright_line(from)) {
            const int column = (from.x - corner_.x) / grid_.width() - (from.y < to.y ? 1 : 0);   // solid on the left
            along(std::min(from.y, to.y) - corner_.y, std::max(from.y, to.y) - corner_.y, grid_.height(),
                  [&](int row, Stretch stretch) {
                      stretch.label = label;
                      if (Cover* cover = cover_at(column, row))
                          cover->sides[from.y < to.y ? right_side : left_side].push_back(stretch);
                  });
        } else if (from.y == to.y && on_level_line(from)) {
            const int row = (from.y - corner_.y) / grid_.height() - (from.x < to.x ? 0 : 1);
            along(std::min(from.x, to.x) - corner_.x, std::max(from.x, to.x) - corner_.x, grid_.width(),
                  [&](int column, Stretch stretch) {
                      stretch.label = label;
                      if (Cover* cover = cover_at(column, row))
                          cover->sides[from.x < to.x ? top_side : bottom_side].push_back(stretch);
                  });
        } else {
            take_whole(from, to, label);
        }
    }

    // Adds a stretch of a grid line, cell by cell.
    template <class Action>
    static void along(std::int32_t from, std::int32_t to, std::int32_t length, Action action) {
        for (std::int32_t at = from; at < to;) {
            const std::int32_t cell = at / length, end = std::min(to, (cell + 1) * length);
            action(cell, Stretch{at - cell * length, end - cell * length, 0});
            at = end;
        }
    }

    void take_whole(Point from, Point to, int label) {
        InnerEdge edge{from, to, label, -1, -1};
        const auto inside = [&](Point p) { return !on_upright_line(p) && !on_level_line(p); };
        if (inside(from)) {
            edge.from_spot = static_cast<int>(result_.whole.spots.size());
            result_.whole.spots.push_back({from});
        }
        if (inside(to)) edge.to_spot = 0;   // turn_spots says which
        const auto number = static_cast<int>(result_.whole.edges.size());
        result_.whole.edges.push_back(edge);
        each_row(from, to, [&](int r, int first, int last) {
            for (int c = first; c <= last; ++c)
                if (Cover* cover = cover_at(c, r)) {
                    const Point origin{corner_.x + c * grid_.width(), corner_.y + r * grid_.height()};
                    cover->edges.push_back({{from.x - origin.x, from.y - origin.y},
                                            {to.x - origin.x, to.y - origin.y},
                                            label,
                                            edge.from_spot,
                                            edge.to_spot});
                    cover->of_whole.push_back(number);
                }
        });
    }

    const Map& map_;
    const Grid& grid_;
    const Plan& plan_;
    const std::vector<Regions>& areas_;
    const Block block_;
    LooseArea result_;
    Point corner_;                           // of the block, flat
    std::vector<std::vector<int>> marked_;   // columns, by row
};

}   // namespace

std::optional<Block> block_around(const Map& map, const Grid& grid, const Plan& plan,
                                  const std::vector<Regions>& areas) {
    const Point corner = grid.flat(map.corner(0, 0));
    int margin = plan.holds_rim ? 1 : 0;
    for (const Regions& area : areas)
        each_edge(area, [&](Point p, Point) {
            const Point f = grid.flat(p);
            const std::int32_t c = floored(std::int64_t{f.x} - corner.x, grid.width()),
                               r = floored(std::int64_t{f.y} - corner.y, grid.height());
            margin = std::max({margin, 1 - c, 1 - r, c + 2 - map.columns, r + 2 - map.rows});
        });
    const auto cells = [&](std::int64_t m) { return (map.columns + 2 * m) * (map.rows + 2 * m); };
    if (cells(margin) > 4 * cells(0) + 65'536) return std::nullopt;
    return Block{-margin, -margin, map.columns + 2 * margin, map.rows + 2 * margin};
}

LooseArea loose_area(const Map& map, const Grid& grid, const Plan& plan, const std::vector<Regions>& areas,
                     const Block& block) {
    return Worker(map, grid, plan, areas, block).run();
}

}   // namespace dryground::detail

// The outline of a grid of covered cells.
//
// Idea. Rows are bit masks: one for cells that are full, one for cells that are mixed. Between two rows, a corner of
// four full or empty cells is a vertex exactly when it is not straight, which is told for 64 corners at once. Where a
// mixed cell takes part, a small program says how outlines turn there (site.cpp); it depends on the four covers alone
// and is worked out once. Every edge is found from its first end; the vertex there waits in a place of its own until
// the second end comes: one place for the grid line at hand, one for each column, one for each inner edge of a row.
// So vertices are linked without searching, and straight runs never make vertices.
//
// A gap's least vertex looks to the left over solid ground, to the outline that it lies in: over full cells by bits.
//
// Cost: the bits of all cells, plus a constant for each vertex and each place next to a mixed cell. Memory: the
// vertices, and two rows.
// Not done: linking by sorted end points, which costs several times as much.

#include "outline_internal.hpp"

#include <algorithm>
#include <array>
#include <bit>

#include "programs_internal.hpp"
#include "row_internal.hpp"

namespace dryground::detail {

Programs::Programs() : parts(std::make_unique<Parts>()) {}
Programs::~Programs() = default;

namespace {

struct Mids {   // a vertical grid line's vertex inside a row, and what was open before and after it
    int column;
    std::int32_t y, before, after;
};

struct Look {   // a gap's least vertex inside a row, and the cell in which its look to the left starts
    std::int32_t vertex;
    int cell;
    Point at;
};

class Tracer {
public:
    Tracer(CellRows& rows, Programs::Parts& programs, Outline& into)
        : rows_(rows),
          programs_(programs),
          upper_(rows.columns),
          lower_(rows.columns),
          open_down_(static_cast<std::size_t>(rows.columns) + 1, -1),
          first_lone_(rows.first_lone + 2),
          base_full_(full_cover(rows.base_label)),
          result_(into) {
        into.vertices.clear();
        into.gaps.clear();
    }

    void run() {
        add_whole();
        for (int r = 0; r <= rows_.rows; ++r) {
            load(r);
            line(r);
            if (r == rows_.rows) break;
            inside(r);
            std::swap(upper_, lower_);
        }
        const auto by_vertex = [](const GapStart& a, const GapStart& b) { return a.vertex < b.vertex; };
        if (!std::is_sorted(result_.gaps.begin(), result_.gaps.end(), by_vertex))
            std::sort(result_.gaps.begin(), result_.gaps.end(), by_vertex);
    }

private:
    // ---- vertices and links ----

    std::int32_t add(Point at, int label, bool straight = false, bool pinched = false) {
        return result_.vertices.add(
            {at, -1, static_cast<std::uint32_t>(label) & Vertex::most_label, straight, pinched, false});
    }
    void link(std::int32_t from, std::int32_t to) { result_.vertices[from].next = to; }

    // Handles an end of an edge at v: links it to its other end, or waits for that.
    void meet(std::int32_t& waiting, std::int32_t v, bool comes_in) {
        if (waiting < 0)
            waiting = v;
        else
            comes_in ? link(waiting, v) : link(v, waiting);
    }

    std::int32_t& slot(Row& row, int column, int edge) {
        const auto c = static_cast<std::size_t>(column), e = static_cast<std::size_t>(edge);
        if (row.first_slot[c] >= 0) return row.slots[static_cast<std::size_t>(row.first_slot[c]) + e];
        return whole_slots_[static_cast<std::size_t>(row.covers[c]->of_whole[e])];
    }

    // ---- cells ----

    // Returns a number that stands for the cover of any cell: 0 empty, 1 full, others 2 + id.
    [[nodiscard]] static std::uint32_t number(const Row& row, int c) {
        if (row.is_mixed(c)) return 2 + row.ids[static_cast<std::size_t>(c)];
        return row.is_full(c) ? 1 : 0;
    }
    [[nodiscard]] const Cover& cover(std::uint32_t number) const {
        return number == 0 ? nothing_ : number == 1 ? base_full_ : rows_.cover(number - 2);
    }
    [[nodiscard]] const Cover& cover(const Row& row, int c) const {
        if (row.is_mixed(c)) return *row.covers[static_cast<std::size_t>(c)];
        return row.is_full(c) ? base_full_ : nothing_;
    }
    [[nodiscard]] Point corner(int c, int r) const {
        return {rows_.corner.x + c * rows_.width, rows_.corner.y + r * rows_.height};
    }

    template <class Action>
    static void each_bit(const std::vector<std::uint64_t>& mask, Action action) {
        for (std::size_t w = 0; w < mask.size(); ++w)
            for (std::uint64_t rest = mask[w]; rest != 0; rest &= rest - 1)
                action(static_cast<int>(64 * w) + std::countr_zero(rest));
    }

    void load(int r) {
        std::fill(lower_.full.begin(), lower_.full.end(), 0);
        std::fill(lower_.mixed.begin(), lower_.mixed.end(), 0);
        lower_.slots.clear();
        if (r == rows_.rows) return;
        rows_.fill(r, lower_.full.data(), lower_.mixed.data(), lower_.ids.data());
        looks_.clear();
        each_bit(lower_.mixed, [&](int c) { add_mixed(c, r); });   // before anything looks for their vertices
    }

    // ---- along a grid line ----

    void line(int r) {
        open_right_ = -1;
        mids_.clear();
        std::uint64_t carry_up = 0, carry_low = 0, carry_mixed_up = 0, carry_mixed_low = 0;
        for (std::size_t w = 0; w < upper_.full.size(); ++w) {
            const std::uint64_t up = upper_.full[w], low = lower_.full[w];
            const std::uint64_t up_left = up << 1 | carry_up, low_left = low << 1 | carry_low;
            const std::uint64_t mixed_up = upper_.mixed[w], mixed_low = lower_.mixed[w];
            const std::uint64_t mixed_up_left = mixed_up << 1 | carry_mixed_up,
                                mixed_low_left = mixed_low << 1 | carry_mixed_low;
            const std::uint64_t special = mixed_up | mixed_low | mixed_up_left | mixed_low_left;
            carry_up = up >> 63, carry_low = low >> 63;
            carry_mixed_up = mixed_up >> 63, carry_mixed_low = mixed_low >> 63;
            const std::uint64_t turns = ((up_left ^ up) | (low_left ^ low)) & ((up_left ^ low_left) | (up ^ low));
            for (std::uint64_t rest = turns | special; rest != 0; rest &= rest - 1) {
                const int b = std::countr_zero(rest), c = static_cast<int>(64 * w) + b;
                if ((special >> b & 1) != 0) {
                    const auto number = [&](const Row& row, std::uint64_t mixed, std::uint64_t full, int column) {
                        return (mixed >> b & 1) != 0 ? 2 + row.ids[static_cast<std::size_t>(column)]
                                                     : static_cast<std::uint32_t>(full >> b & 1);
                    };
                    special_corner({number(upper_, mixed_up_left, up_left, c - 1), number(upper_, mixed_up, up, c),
                                    number(lower_, mixed_low, low, c), number(lower_, mixed_low_left, low_left, c - 1)},
                                   c, r);
                } else {
                    const auto pattern = static_cast<unsigned>((up_left >> b & 1) << 3 | (up >> b & 1) << 2 |
                                                               (low_left >> b & 1) << 1 | (low >> b & 1));
                    plain_corner(pattern, c, r);
                }
            }
        }
    }

    // How the outline turns at a corner of full and empty cells: whether it comes in from the left, from above, or the
    // edge to the right or downward ends there; and likewise where it continues. Bits of a pattern: solid at the top
    // left, top right, bottom left, bottom right.
    struct CornerTurn {
        bool in_down, in_known, out_down, out_known;   // along the upright line; its other end is known
    };
    static constexpr std::array<CornerTurn, 16> corner_turns = [] {
        std::array<CornerTurn, 16> turns{};
        turns[0b0001] = {true, false, false, false};   // from below, to the right
        turns[0b0010] = {false, true, true, false};    // from the left, down
        turns[0b0100] = {false, false, true, true};    // from the right, up
        turns[0b1000] = {true, true, false, true};     // from above, to the left
        turns[0b1110] = {false, false, true, false};   // from the right, down
        turns[0b1101] = {true, false, false, true};    // from below, to the left
        turns[0b1011] = {true, true, false, false};    // from above, to the right
        turns[0b0111] = {false, true, true, true};     // from the left, up
        return turns;
    }();

    void plain_corner(unsigned pattern, int c, int r) {
        const Point at = corner(c, r);
        std::int32_t& down = open_down_[static_cast<std::size_t>(c)];
        const int label = rows_.base_label;
        if (pattern == 0b1001) {
            std::int32_t v = add(at, label, false, true);
            link(down, v), link(v, open_right_);
            v = add(at, label, false, true);
            down = v, open_right_ = v;
            return;
        }
        if (pattern == 0b0110) {
            const std::int32_t v = add(at, label, false, true), other = add(at, label, false, true);
            link(open_right_, v), link(other, down);
            open_right_ = other, down = v;
            return;
        }
        // Without branches: they could not be predicted.
        const CornerTurn turn = corner_turns[pattern];
        const std::int32_t v = add(at, label);
        std::int32_t& in = turn.in_down ? down : open_right_;
        std::int32_t& out = turn.out_down ? down : open_right_;
        std::int32_t unused = -1;
        const std::int32_t next = turn.out_known ? out : -1;
        std::int32_t& from = turn.in_known ? result_.vertices[in].next : in;
        std::int32_t& to = turn.out_known ? unused : out;
        result_.vertices[v].next = next;
        from = v;
        to = v;
        if (pattern == 0b1110) start_gap(v, c - 1, at);
    }

    void special_corner(const Covers& key, int c, int r) {   // of what is around it, by number
        const CornerPrograms& programs = programs_.corners.get(key, first_lone_, [&] { return make_corner(key); });
        const std::array<Row*, 4> row_of{&upper_, &upper_, &lower_, &lower_};
        apply(programs.corner, corner(c, r), c, row_of, [&](std::int32_t v, Point at) { start_gap(v, c - 1, at); });
        for (const MiddleSite& site : programs.to_the_right) {
            const Point at{corner(c, r).x + site.place, corner(c, r).y};
            apply(site.program, at, c, row_of, [&](std::int32_t v, Point p) { start_gap(v, c, p); });
        }
    }

    [[nodiscard]] CornerPrograms make_corner(const Covers& key) const {
        return {corner_program(cover(key[0]), cover(key[1]), cover(key[2]), cover(key[3]), rows_.width, rows_.height),
                across_programs(cover(key[1]), cover(key[2]), rows_.width, rows_.height)};
    }

    template <class Gap>
    void apply(const SiteProgram& program, Point at, int c, const std::array<Row*, 4>& row_of, Gap gap) {
        std::int32_t& down = open_down_[static_cast<std::size_t>(c)];
        std::int32_t from_left = open_right_, from_up = down;
        const bool pinched = program.pinched();
        const auto end_of = [&](const SiteEdge& edge) -> std::int32_t& {
            switch (edge.sort) {
                case SiteEdge::left:
                    return from_left;
                case SiteEdge::up:
                    return from_up;
                case SiteEdge::right:
                    return open_right_ = -1;
                case SiteEdge::down:
                    return down = -1;
                default:
                    break;
            }
            Row& row = *row_of[edge.cell];
            const int column = edge.cell == 0 || edge.cell == 3 ? c - 1 : c;
            return slot(row, column, edge.edge);
        };
        for (const SiteTurn& turn : program.turns) {
            const std::int32_t v = add(at, turn.label, turn.straight, pinched);
            meet(end_of(turn.in), v, true);
            meet(end_of(turn.out), v, false);
            if (turn.starts_gap) gap(v, at);
        }
    }

    // ---- inside a row ----

    void inside(int r) {
        std::uint64_t carry = 0;
        for (std::size_t w = 0; w < lower_.mixed.size(); ++w) {
            const std::uint64_t mixed = lower_.mixed[w];
            for (std::uint64_t rest = mixed | mixed << 1 | carry; rest != 0; rest &= rest - 1)
                down_side(static_cast<int>(64 * w) + std::countr_zero(rest), r);
            carry = mixed >> 63;
        }
        for (; next_whole_gap_ < whole_gaps_.size() &&
               result_.vertices[whole_gaps_[next_whole_gap_]].at.y < corner(0, r + 1).y;
             ++next_whole_gap_) {
            const std::int32_t v = whole_gaps_[next_whole_gap_];
            const Point at = result_.vertices[v].at;
            looks_.push_back({v, (at.x - rows_.corner.x) / rows_.width, at});
        }
        for (const Look& look : looks_) start_gap(look.vertex, look.cell, look.at);
    }

    void add_mixed(int column, int r) {
        const auto c = static_cast<std::size_t>(column);
        const Cover& mixed = rows_.cover(lower_.ids[c]);
        lower_.covers[c] = &mixed;
        lower_.first_slot[c] = -1;
        if (!mixed.of_whole.empty()) return;
        lower_.first_slot[c] = static_cast<std::int32_t>(lower_.slots.size());
        lower_.slots.resize(lower_.slots.size() + mixed.edges.size(), -1);
        const Point origin = corner(column, r);
        const std::int32_t first = lower_.first_spot[c] = result_.vertices.size();
        for (const Spot& spot : mixed.spots) {
            const std::int32_t v = add(moved(spot.at, origin), 0, spot.straight, spot.pinched);
            if (spot.starts_gap) looks_.push_back({v, column, moved(spot.at, origin)});
        }
        for (std::size_t e = 0; e < mixed.edges.size(); ++e)
            join(mixed.edges[e], first, lower_.slots[static_cast<std::size_t>(lower_.first_slot[c]) + e]);
    }

    // Links an inner edge to its inner ends.
    void join(const InnerEdge& edge, std::int32_t first, std::int32_t& waiting) {
        if (edge.from_spot >= 0)
            result_.vertices[first + edge.from_spot].label =
                static_cast<std::uint32_t>(edge.label) & Vertex::most_label;
        if (edge.from_spot >= 0 && edge.to_spot >= 0)
            link(first + edge.from_spot, first + edge.to_spot);
        else if (edge.from_spot >= 0)
            meet(waiting, first + edge.from_spot, false);
        else if (edge.to_spot >= 0)
            meet(waiting, first + edge.to_spot, true);
    }

    void down_side(int c, int r) {
        const Covers key{number(lower_, c - 1), number(lower_, c)};
        const std::vector<MiddleSite>& sites = programs_.downs.get(
            key, first_lone_, [&] { return down_programs(cover(key[0]), cover(key[1]), rows_.width, rows_.height); });
        const std::array<Row*, 4> row_of{&lower_, &lower_, nullptr, nullptr};
        for (const MiddleSite& site : sites) {
            const Point at{corner(c, r).x, corner(c, r).y + site.place};
            const std::int32_t before = open_down_[static_cast<std::size_t>(c)];
            apply(site.program, at, c, row_of, [&](std::int32_t v, Point p) { looks_.push_back({v, c - 1, p}); });
            mids_.push_back({c, at.y, before, open_down_[static_cast<std::size_t>(c)]});
        }
    }

    // ---- area that does not keep to its cells ----

    void add_whole() {
        const SpanningArea& whole = rows_.whole();
        whole_slots_.assign(whole.edges.size(), -1);
        for (const Spot& spot : whole.spots) {
            const std::int32_t v = add(spot.at, 0, spot.straight, spot.pinched);
            if (spot.starts_gap) whole_gaps_.push_back(v);
        }
        for (std::size_t e = 0; e < whole.edges.size(); ++e) join(whole.edges[e], 0, whole_slots_[e]);
        std::sort(whole_gaps_.begin(), whole_gaps_.end(),
                  [&](std::int32_t a, std::int32_t b) { return result_.vertices[a].at < result_.vertices[b].at; });
    }

    // ---- looking to the left ----

    // Starts at a gap's least vertex, as far as its neighbours show, at p in a cell of the lower row, its right side
    // included.
    void start_gap(std::int32_t v, int c, Point p) {
        result_.vertices[v].starts_gap = true;
        result_.gaps.push_back({v, look_left(lower_, c, p)});
    }

    // Returns a vertex of the outline that a ray to the left from p meets first, just below p's height. The ray starts
    // in a cell of the row (its right side included), on solid ground.
    std::int32_t look_left(Row& row, int c, Point p) {
        const std::int32_t y = (p.y - rows_.corner.y) % rows_.height;
        for (;;) {
            bool covered_here = true;   // on the left side of cell c
            if (row.is_full(c)) {
                c = row.last_not_full(c) + 1;
            } else if (c >= 0) {
                const Cover& here = cover(row, c);
                const Point cell = corner(c, (p.y - rows_.corner.y) / rows_.height);
                const int edge = edge_to_the_left(here, {p.x - cell.x, p.y - cell.y});
                if (edge >= 0) return vertex_of(row, c, here, edge);
                covered_here = here.label_after(left_side, y) != uncovered;
            } else {
                return -1;   // does not happen: the ray started on solid ground
            }
            const bool covered_there = c > 0 && cover(row, c - 1).label_after(right_side, y) != uncovered;
            if (covered_here != covered_there) return vertex_on_line(c, p.y);
            --c;
        }
    }

    std::int32_t vertex_of(Row& row, int c, const Cover& here, int edge) {
        const InnerEdge& inner = here.edges[static_cast<std::size_t>(edge)];
        if (!here.of_whole.empty()) {
            const InnerEdge& real =
                rows_.whole().edges[static_cast<std::size_t>(here.of_whole[static_cast<std::size_t>(edge)])];
            if (real.from_spot >= 0) return real.from_spot;
            if (real.to_spot >= 0) return real.to_spot;
        }
        if (inner.from_spot >= 0) return row.first_spot[static_cast<std::size_t>(c)] + inner.from_spot;
        if (inner.to_spot >= 0) return row.first_spot[static_cast<std::size_t>(c)] + inner.to_spot;
        return slot(row, c, edge);
    }

    // Returns the vertex at an end of the vertical edge on a grid line, just below a height of the row.
    [[nodiscard]] std::int32_t vertex_on_line(int c, std::int32_t y) const {
        auto mid = std::partition_point(mids_.begin(), mids_.end(), [&](const Mids& m) { return m.column < c; });
        std::int32_t found = open_down_[static_cast<std::size_t>(c)];
        if (mid != mids_.end() && mid->column == c) found = mid->before;
        for (; mid != mids_.end() && mid->column == c && mid->y <= y; ++mid) found = mid->after;
        return found;
    }

    CellRows& rows_;
    Programs::Parts& programs_;
    Row upper_, lower_;
    std::int32_t open_right_ = -1;          // the vertex at the left end of the edge along the grid line at hand
    std::vector<std::int32_t> open_down_;   // of each column: the vertex at the upper end of its edge
    std::vector<std::int32_t> whole_slots_;
    std::vector<std::int32_t> whole_gaps_;   // from the top down
    std::size_t next_whole_gap_ = 0;
    std::vector<Mids> mids_;
    std::vector<Look> looks_;
    const std::uint32_t first_lone_;   // as `number` counts
    const Cover nothing_ = empty_cover(), base_full_;
    Outline& result_;
};

}   // namespace

void trace_outline(CellRows& rows, Programs& programs, Outline& into) { Tracer(rows, *programs.parts, into).run(); }

}   // namespace dryground::detail

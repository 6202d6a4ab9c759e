// In the middle of which cells a body can be.
//
// Idea. A body overlaps ground where an edge runs through it, or where it lies within the ground. For the former each
// edge asks the few cells near it. For the latter the middles of a row lie on a line: each edge that crosses it turns
// inside and outside about for all middles after it, so that one pass along the row decides (the even-odd rule).
//
// Corners of ground that was cut are rounded to the lattice: an edge counts that runs through the body also when that
// is moved by a step to each side (as in Obstacles::may_be, which a test holds this against).

#include "standing_cells_internal.hpp"

#include <algorithm>
#include <array>

#include "../geometry/bounds_internal.hpp"
#include "../geometry/ring_internal.hpp"
#include "obstacles_internal.hpp"

namespace dryground::travel {

namespace {

constexpr std::array moves_by_a_step{Point{0, 0}, Point{1, 0}, Point{-1, 0}, Point{0, 1}, Point{0, -1}};
constexpr std::uint8_t each_move = (1U << moves_by_a_step.size()) - 1;

std::int64_t cross_of(Point a, Point b) { return std::int64_t{a.x} * b.y - std::int64_t{a.y} * b.x; }
Point between(Point from, Point to) { return {to.x - from.x, to.y - from.y}; }
// Divides, rounding down. Requires a positive divisor.
std::int64_t floor_of(std::int64_t a, std::int64_t b) { return a / b - (a % b < 0 ? 1 : 0); }

class Standing {
public:
    Standing(const Map& map, const detail::Block& block, const Ring& body)
        : map_(map),
          block_(block),
          body_(body),
          body_box_(detail::box_around(body)),
          is_box_(body.size() == 4 && twice_area(body) == twice_area(box_ring(body_box_.least, body_box_.most))),
          over_(static_cast<std::size_t>(block.columns) * static_cast<std::size_t>(block.rows)),
          inside_(over_.size()) {
        std::int64_t x = 0, y = 0;
        for (const Point p : body) x += p.x, y += p.y;
        const auto corners = static_cast<std::int64_t>(body.size());
        const Point in_body{static_cast<std::int32_t>(x / corners), static_cast<std::int32_t>(y / corners)};
        first_ = moved(middle_of(map, block.column, block.row), in_body);
        along_ = between(middle_of(map, 0, 0), middle_of(map, 1, 0));
        across_ = between(middle_of(map, 0, 0), middle_of(map, 0, 1));
        apart_ = cross_of(along_, across_);
    }

    void add(const Regions& ground) {
        std::vector<char> turns(over_.size());
        detail::each_edge(ground, [&](Point a, Point b) {
            mark_near(a, b);
            turn_rows(a, b, turns);
        });
        for (int r = 0; r < block_.rows; ++r) {
            char in = 0;
            for (std::size_t i = index(0, r), end = index(0, r + 1); i < end; ++i) {
                in = static_cast<char>(in ^ turns[i]);
                inside_[i] = static_cast<char>(inside_[i] | in);
            }
        }
    }

    [[nodiscard]] std::vector<char> free() && {
        for (std::size_t i = 0; i < over_.size(); ++i) inside_[i] = inside_[i] == 0 && over_[i] != each_move ? 1 : 0;
        return std::move(inside_);
    }

private:
    [[nodiscard]] std::size_t index(int column, int row) const {   // in the block
        return static_cast<std::size_t>(row) * static_cast<std::size_t>(block_.columns) +
               static_cast<std::size_t>(column);
    }

    // Marks the cells in whose middle an edge runs through the body. Long edges that lean are looked at in parts, whose
    // boxes hold few cells.
    void mark_near(Point a, Point b) {
        const std::int64_t wide = std::abs(std::int64_t{b.x} - a.x), high = std::abs(std::int64_t{b.y} - a.y);
        const std::int64_t cell = std::int64_t{4} * std::max(map_.cell_width, map_.cell_height) * steps_per_px;
        const std::int64_t parts = 1 + std::min(wide, high) / cell;
        const auto part_end = [&](std::int64_t i) {
            return Point{static_cast<std::int32_t>(a.x + (std::int64_t{b.x} - a.x) * i / parts),
                         static_cast<std::int32_t>(a.y + (std::int64_t{b.y} - a.y) * i / parts)};
        };
        for (std::int64_t i = 0; i < parts; ++i) {
            const Bounds box = detail::grown(detail::box_around(std::array{part_end(i), part_end(i + 1)}), 2);
            const Bounds from{{box.least.x - body_box_.most.x, box.least.y - body_box_.most.y},
                              {box.most.x - body_box_.least.x, box.most.y - body_box_.least.y}};
            const auto [c0, r0, c1, r1] = map_.cells_near(from);
            const int last_row = std::min(r1, block_.row + block_.rows - 1),
                      last_column = std::min(c1, block_.column + block_.columns - 1);
            for (int r = std::max(r0, block_.row); r <= last_row; ++r)
                for (int c = std::max(c0, block_.column); c <= last_column; ++c)
                    if (const Point p = middle_of(map_, c, r); detail::meet(from, {p, p}))
                        mark(a, b, p, over_[index(c - block_.column, r - block_.row)]);
        }
    }
    void mark(Point a, Point b, Point p, std::uint8_t& over) const {
        if (is_box_ && (a.x == b.x || a.y == b.y)) return mark_box(detail::box_around(std::array{a, b}), p, over);
        for (std::size_t m = 0; m < moves_by_a_step.size(); ++m) {
            if ((over >> m & 1) != 0) continue;
            const Point back{-p.x - moves_by_a_step[m].x, -p.y - moves_by_a_step[m].y};
            if (inside_of(body_, moved(a, back), moved(b, back))) over |= static_cast<std::uint8_t>(1U << m);
        }
    }

    // Does the same for an upright or level edge and a box.
    void mark_box(const Bounds& edge, Point p, std::uint8_t& over) const {
        for (std::size_t m = 0; m < moves_by_a_step.size(); ++m) {
            const Bounds box = detail::moved(body_box_, moved(p, moves_by_a_step[m]));
            if (edge.least.x < box.most.x && edge.most.x > box.least.x && edge.least.y < box.most.y &&
                edge.most.y > box.least.y)
                over |= static_cast<std::uint8_t>(1U << m);
        }
    }

    // Turns inside and outside about in each row that an edge crosses, from the first middle after it on.
    void turn_rows(Point a, Point b, std::vector<char>& turns) const {
        const std::int64_t at_a = cross_of(along_, between(first_, a)), at_b = cross_of(along_, between(first_, b));
        if (at_a == at_b) return;   // along the row
        const std::int64_t least = std::min(at_a, at_b), most = std::max(at_a, at_b);
        const std::int64_t begin = std::max<std::int64_t>(0, -floor_of(-least, apart_)),
                           end = std::min<std::int64_t>(block_.rows, -floor_of(-most, apart_));
        const Point edge = between(a, b);
        const std::int64_t by_column = cross_of(edge, along_);
        for (std::int64_t r = begin; r < end; ++r) {
            const Point start{static_cast<std::int32_t>(first_.x + r * across_.x),
                              static_cast<std::int32_t>(first_.y + r * across_.y)};
            const std::int64_t beyond = -cross_of(edge, between(a, start));
            const std::int64_t column = by_column > 0 ? floor_of(beyond, by_column) : floor_of(-beyond, -by_column);
            if (const std::int64_t c = std::max<std::int64_t>(0, column + 1); c < block_.columns)
                turns[index(static_cast<int>(c), static_cast<int>(r))] ^= 1;
        }
    }

    const Map& map_;
    detail::Block block_;
    const Ring& body_;
    Bounds body_box_;
    bool is_box_;
    Point first_, along_, across_;   // the point asked for in cell (0, 0), and on to the next column and row
    std::int64_t apart_ = 0;
    std::vector<std::uint8_t> over_;   // by which moves an edge runs through the body
    std::vector<char> inside_;
};

}   // namespace

Point middle_of(const Map& map, int column, int row) {
    const Bounds box = map.cell_box(column, row);
    return {box.least.x + (box.most.x - box.least.x) / 2, box.least.y + (box.most.y - box.least.y) / 2};
}

std::vector<char> standing_cells(const Map& map, const detail::Block& block, std::span<const Regions* const> grounds,
                                 const Ring& body) {
    Standing standing(map, block, body);
    for (const Regions* const ground : grounds) standing.add(*ground);
    return std::move(standing).free();
}

}   // namespace dryground::travel

// Regions grown by a body.
//
// Idea. Around each ring the mirrored body is rolled: along an edge goes the corner of the body that is furthest to its
// right, and where the ring turns, the edges of the body between the two directions come in, or go back where it turns
// to the right. That closed way, loops and all, winds around a position as often as the body there meets the solid in
// parts, less the holes that it covers whole (Guibas, Ramshaw and Stolfi 1983). So what it winds around is the sum,
// once holes into which the body does not fit have been filled: no other hole is ever covered whole. Cost: the
// boolean's for an edge and about one more for each corner. A convex piece for each edge (Lozano-Perez 1983) needs no
// care about holes, but makes three times as many edges.

#include <fmt/format.h>

#include <algorithm>
#include <cstdlib>
#include <stdexcept>

#include "boolean_internal.hpp"
#include "bounds_internal.hpp"

namespace dryground {

namespace {

class Roller {
public:
    // Returns the body's convex ring rotated by half a turn, in the same order.
    explicit Roller(std::span<const Point> body) {
        for (const Point p : body) body_.push_back({-p.x, -p.y});
    }
    // Of a ring with the solid on its left.
    [[nodiscard]] Ring around(const Ring& ring) const {
        const std::size_t n = ring.size();
        Ring way;
        way.reserve(2 * n + body_.size());
        std::size_t k = furthest(ring[n - 1], ring[0]);
        for (std::size_t i = 0; i < n; ++i) {
            const Point before = ring[(i + n - 1) % n], at = ring[i], after = ring[(i + 1) % n];
            way.push_back(moved(at, body_[k]));
            const Way from = way_of(before, at), to = way_of(at, after);
            if (turn(before, at, after) == Turn::left)
                for (; lies_between(from, to, k); k = next(k)) way.push_back(moved(at, body_[next(k)]));
            else
                for (; lies_between(to, from, last(k)); k = last(k)) way.push_back(moved(at, body_[last(k)]));
        }
        return way;
    }

private:
    struct Way {
        std::int64_t x, y;
    };
    static Way way_of(Point a, Point b) { return {std::int64_t{b.x} - a.x, std::int64_t{b.y} - a.y}; }
    static std::int64_t cross_of(Way a, Way b) { return a.x * b.y - a.y * b.x; }
    [[nodiscard]] std::size_t next(std::size_t k) const { return k + 1 == body_.size() ? 0 : k + 1; }
    [[nodiscard]] std::size_t last(std::size_t k) const { return k == 0 ? body_.size() - 1 : k - 1; }

    // Returns the corner furthest to the right of a direction; of two equally far, the one further along.
    [[nodiscard]] std::size_t furthest(Point a, Point b) const {
        const Way d = way_of(a, b);
        std::size_t best = 0;
        for (std::size_t k = 1; k < body_.size(); ++k) {
            const Way more = way_of(body_[best], body_[k]);
            const std::int64_t right = -cross_of(d, more);
            if (right > 0 || (right == 0 && d.x * more.x + d.y * more.y > 0)) best = k;
        }
        return best;
    }
    // Returns whether an edge of the body points further to the left than one direction, and no further than another,
    // which is less than half a turn to the left of the first.
    [[nodiscard]] bool lies_between(Way first, Way second, std::size_t k) const {
        const Way edge = way_of(body_[k], body_[next(k)]);
        return cross_of(first, edge) > 0 && cross_of(edge, second) >= 0;
    }

    Ring body_;
};

}   // namespace

namespace detail {

std::vector<Ring> ways_around(std::span<const Region> regions, std::span<const Point> body) {
    const Roller roller(body);
    const Bounds own = box_around(body);
    std::vector<Ring> ways;
    for (const Region& region : regions) {
        ways.push_back(roller.around(region.outline));
        for (const Ring& hole : region.holes) {
            const Bounds of = box_around(hole);
            const bool fits = std::int64_t{of.most.x} - of.least.x > std::int64_t{own.most.x} - own.least.x ||
                              std::int64_t{of.most.y} - of.least.y > std::int64_t{own.most.y} - own.least.y;
            if (fits) ways.push_back(roller.around(hole));
        }
    }
    return ways;
}

}   // namespace detail

Regions reach(std::span<const Region> regions, std::span<const Point> body) {
    if (regions.empty() || body.empty()) return {regions.begin(), regions.end()};
    const Bounds box = *bounds(regions), own = detail::box_around(body);
    for (const std::int64_t end : {std::int64_t{box.least.x} - own.most.x, std::int64_t{box.least.y} - own.most.y,
                                   std::int64_t{box.most.x} - own.least.x, std::int64_t{box.most.y} - own.least.y})
        if (std::abs(end) > coordinate_limit)
            throw std::out_of_range("dryground::reach: the result leaves the range of coordinates");
    return detail::wound_around(detail::ways_around(regions, body));
}

}   // namespace dryground

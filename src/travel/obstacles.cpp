// What is in a mover's way, as convex sums of edges and its body.
//
// Idea: see Obstacles in obstacles_internal.hpp.

#include "obstacles_internal.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "../geometry/boolean_internal.hpp"
#include "../geometry/ring_internal.hpp"
#include "../ground/ground_internal.hpp"
#include "left_of_internal.hpp"

namespace dryground::travel {

namespace {

constexpr std::int32_t play = 2;   // steps on either side: 1/128 px

}   // namespace

bool runs_against(Point a, Point b, Point stops_from) {
    return (std::int64_t{b.x} - a.x) * stops_from.x + (std::int64_t{b.y} - a.y) * stops_from.y < 0;
}

Ring with_play(const Ring& body) {
    const Bounds box = detail::box_around(body);
    const std::int64_t wide = box.most.x - box.least.x, high = box.most.y - box.least.y;
    if (wide <= 4 * play || high <= 4 * play) return body;
    std::vector<Point> points;
    for (const Point p : body) {
        const std::int64_t from_middle = 2 * std::int64_t{p.x} - box.least.x - box.most.x;   // -wide to wide
        points.push_back({static_cast<std::int32_t>(p.x - from_middle * play / wide),
                          static_cast<std::int32_t>(p.y + (box.most.y - std::int64_t{p.y}) * play / high)});
    }
    return convex_hull(std::move(points));
}

Obstacles::Obstacles(std::span<const Group> groups, StoreyId storey, const Mover& mover, const Regions& also_closed,
                     const Obstacles* before)
    : body_(with_play(mover.body.front().outline)) {
    std::vector<Ring> ways;
    std::vector<SolidEdge> edges;
    std::vector<Line> lines;
    for (const Group& group : groups) {
        if (group.storey_id != storey) continue;
        detail::each_edge(group.regions, [&](Point a, Point b) { edges.push_back({a, b}); });
        for (Ring& way : detail::ways_around(group.regions, body_)) ways.push_back(std::move(way));
        for (const Ring& line : group.lines)
            for (std::size_t i = 0; i + 1 < line.size(); ++i) lines.push_back({{line[i], line[i + 1]}, group.one_way});
    }
    ground_ = GroundSums(std::move(edges), body_, before != nullptr ? &before->ground_ : nullptr);
    lines_ = Sums(lines, body_);
    for (const Sum& line : lines_.all())
        if (line.is_one_way())
            has_one_way_ = true;
        else
            ways.emplace_back(line.ring.begin(), line.ring.end());
    for (const Ring& ring : detail::rings_of(also_closed)) ways.push_back(ring);
    closed_ = detail::WoundInBands(ways, band_height, before != nullptr ? &before->closed_ : nullptr);
}

Obstacles::Obstacles(const Obstacles& rest, std::span<const Group> thing, const Mover& mover)
    : Obstacles(thing, thing.empty() ? StoreyId::ground : thing.front().storey_id, mover) {
    rest_ = &rest;
}

Obstacles::Obstacles(const Regions& ground, const Ring& body) : body_(body) {
    std::vector<SolidEdge> edges;
    detail::each_edge(ground, [&](Point a, Point b) { edges.push_back({a, b}); });
    ground_ = GroundSums(std::move(edges), body_, nullptr);
}

namespace {

// Returns the place some steps on from the start of a way.
Point on_way(Point a, Point b, double steps) {
    const double dx = double{0} + b.x - a.x, dy = double{0} + b.y - a.y,
                 part = steps / std::max(1.0, std::hypot(dx, dy));
    return {static_cast<std::int32_t>(std::lround(a.x + dx * part)),
            static_cast<std::int32_t>(std::lround(a.y + dy * part))};
}

}   // namespace

std::optional<double> stops_at(const Sum& sum, Point a, Point b) {
    const std::optional<Stretch> inside = inside_of(sum.ring, a, b);
    if (!inside || !sum.is_one_way()) return inside ? std::optional(inside->from) : std::nullopt;
    // A place on its edge may be rounded into it.
    for (const Point from : {a, on_way(a, b, -3)})
        if (!inside_of(sum.ring, from, from))
            return sum.is_entered(from, b) ? std::optional(inside->from) : std::nullopt;
    if (!runs_against(a, b, sum.stops_from)) return std::nullopt;
    const std::optional<Stretch> caught = inside_of(sum.catches, a, b);
    return caught ? std::optional(caught->from) : std::nullopt;
}

namespace {

constexpr std::array here_and_beside{Point{0, 0},  Point{1, 0},   Point{-1, 0}, Point{0, 1}, Point{0, -1},
                                     Point{1, -1}, Point{-1, -1}, Point{1, 1},  Point{-1, 1}};

}   // namespace

// A body that lies over no edge is inside the ground if any point of it is; one that lies on an edge is over it.
bool Obstacles::may_be(Point p) const {
    // Corners of closed area are rounded to the lattice, and may lie a step inside a sum.
    const bool over_edge = std::all_of(here_and_beside.begin(), here_and_beside.end(), [&](Point by) {
        const Point q = moved(p, by);
        const auto is_over = [&](const Sum& sum) { return !sum.is_one_way() && inside_of(sum.ring, q, q).has_value(); };
        return ground_.any_near({q, q}, is_over) ||
               lines_.near().any_near({q, q}, [&](std::size_t i) { return is_over(lines_.all()[i]); });
    });
    if (over_edge || (rest_ != nullptr && !rest_->may_be(p))) return false;
    std::int64_t x = 0, y = 0;
    for (const Point corner : body_) x += corner.x, y += corner.y;
    const auto corners = static_cast<std::int64_t>(body_.size());
    return !ground_.is_in_ground(p, {static_cast<std::int32_t>(x / corners), static_cast<std::int32_t>(y / corners)});
}

double Obstacles::free_before(Point a, Point b) const {
    double free = 1;
    each_near(detail::box_around(std::array{a, b}), [&](const Sum& sum) {
        if (const std::optional<double> at = stops_at(sum, a, b)) free = std::min(free, *at);
    });
    return free;
}

bool Obstacles::is_free(Point a, Point b) const { return free_before(a, b) == 1; }

}   // namespace dryground::travel

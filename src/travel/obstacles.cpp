// What is in a mover's way, as convex sums of edges and its body.
//
// Idea: see Obstacles in obstacles_internal.hpp. Whether a way runs through a sum is decided exactly; where it enters
// is rounded.

#include "obstacles_internal.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "../geometry/boolean_internal.hpp"
#include "../geometry/ring_internal.hpp"
#include "../ground/ground_internal.hpp"

namespace dryground::travel {

namespace {

constexpr std::int32_t play = 2;   // steps on either side: 1/128 px

}   // namespace

bool runs_against(Point a, Point b, Point stops_from) {
    return (std::int64_t{b.x} - a.x) * stops_from.x + (std::int64_t{b.y} - a.y) * stops_from.y < 0;
}

bool enters_from(Point side, const Ring& convex, Point a, Point b, double away) {
    const double more = away * std::hypot(side.x, side.y);
    double last = -1;
    bool faces = false;
    for (std::size_t i = 0; i < convex.size(); ++i) {
        const Point from = convex[i], to = convex[(i + 1) % convex.size()];
        const std::int64_t at_a = cross(from, to, a), at_b = cross(from, to, b);   // above 0: inside of this edge
        if (at_a > 0 || at_b <= 0) continue;
        const double t = static_cast<double>(at_a) / (static_cast<double>(at_a) - static_cast<double>(at_b));
        const Point out{to.y - from.y, from.x - to.x};
        const double faces_by = static_cast<double>(out.x) * side.x + static_cast<double>(out.y) * side.y;
        const bool edge_faces = faces_by > -more * std::hypot(out.x, out.y);
        if (t > last + 1e-12)
            last = t, faces = edge_faces;
        else if (t > last - 1e-12)   // at a corner
            faces = faces || edge_faces;
    }
    return faces;
}

std::optional<Stretch> inside_of(const Ring& convex, Point a, Point b) {
    Stretch stretch{0, 1};
    for (std::size_t i = 0; i < convex.size(); ++i) {
        const Point from = convex[i], to = convex[(i + 1) % convex.size()];
        const std::int64_t at_a = cross(from, to, a), at_b = cross(from, to, b);   // above 0: inside of this edge
        if (at_a <= 0 && at_b <= 0) return std::nullopt;
        if (at_a > 0 && at_b > 0) continue;
        const double t = static_cast<double>(at_a) / (static_cast<double>(at_a) - static_cast<double>(at_b));
        if (at_b > at_a)
            stretch.from = std::max(stretch.from, t);
        else
            stretch.to = std::min(stretch.to, t);
    }
    // Through a corner both ends are the same, apart from rounding.
    if (stretch.to - stretch.from < 1e-9) return std::nullopt;
    return stretch;
}

Ring sum_with(std::span<const Point> convex, const Ring& body) {
    std::vector<Point> points;
    points.reserve(convex.size() * body.size());
    for (const Point p : convex)
        for (const Point q : body) points.push_back({p.x - q.x, p.y - q.y});
    return convex_hull(std::move(points));
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

Obstacles::Obstacles(std::span<const Group> groups, StoreyId storey, const Mover& mover, const Regions& also_closed)
    : body_(with_play(mover.body.front().outline)), around_ground_({}) {
    Regions ground, others = also_closed;
    for (const Group& group : groups) {
        if (group.storey_id != storey) continue;
        ground.insert(ground.end(), group.regions.begin(), group.regions.end());
        add(group.regions);
        for (const Ring& line : group.lines)
            for (std::size_t i = 0; i + 1 < line.size(); ++i) {
                add(line[i], line[i + 1], group.one_way);
                if (group.one_way == OneWay::none) others.push_back({sums_.back().ring, {}});
            }
    }
    index(ground);
    closed_ = detail::reach_and(ground, body_, others);
}

Obstacles::Obstacles(const Obstacles& rest, std::span<const Group> thing, const Mover& mover)
    : Obstacles(thing, thing.empty() ? StoreyId::ground : thing.front().storey_id, mover) {
    rest_ = &rest;
}

Obstacles::Obstacles(const Regions& ground, const Ring& body) : body_(body), around_ground_({}) {
    add(ground);
    index(ground);
}

void Obstacles::add(const Regions& ground) {
    detail::each_ring(ground, [&](const Ring& ring) { add(ring); });
}

void Obstacles::index(const Regions& ground) {
    std::vector<Bounds> boxes;
    for (const Sum& sum : sums_) boxes.push_back(sum.box);
    near_ = detail::BoxIndex(std::move(boxes));
    around_ground_ = FreeSpace(ground);
    std::int64_t x = 0, y = 0;
    for (const Point p : body_) x += p.x, y += p.y;
    const auto corners = static_cast<std::int64_t>(body_.size());
    inside_body_ = {static_cast<std::int32_t>(x / corners), static_cast<std::int32_t>(y / corners)};
}

void Obstacles::add(const Ring& ring) {
    detail::each_edge_of_ring(ring, [&](Point a, Point b) { add(a, b, OneWay::none); });
}

// Cuts the body through the middle of its box, along the line.
Ring Obstacles::rear_half(Point stops_from) const {
    const Bounds box = detail::box_around(body_);
    const Point middle{box.least.x + (box.most.x - box.least.x) / 2, box.least.y + (box.most.y - box.least.y) / 2};
    const auto ahead = [&](Point p) {   // of the middle
        return (std::int64_t{p.x} - middle.x) * stops_from.x + (std::int64_t{p.y} - middle.y) * stops_from.y;
    };
    std::vector<Point> rear;
    detail::each_edge_of_ring(body_, [&](Point p, Point q) {
        const std::int64_t at_p = ahead(p), at_q = ahead(q);
        if (at_p <= 0) rear.push_back(p);
        if ((at_p < 0 && at_q > 0) || (at_p > 0 && at_q < 0)) {
            const double t = static_cast<double>(at_p) / (static_cast<double>(at_p) - static_cast<double>(at_q));
            rear.push_back({static_cast<std::int32_t>(std::lround(p.x + t * (double{0} + q.x - p.x))),
                            static_cast<std::int32_t>(std::lround(p.y + t * (double{0} + q.y - p.y)))});
        }
    });
    return convex_hull(std::move(rear));
}

void Obstacles::add(Point a, Point b, OneWay passes) {
    const std::array ends{a, b};
    Ring ring = sum_with(ends, body_);
    const Bounds box = detail::box_around(ring);
    sums_.push_back({std::move(ring), box, ground::stopped_side(a, b, passes)});
    Sum& sum = sums_.back();
    if (!sum.is_one_way()) return;
    sum.catches = sum_with(ends, rear_half(sum.stops_from)), sum.line = ends;
    has_one_way_ = true;
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

std::optional<double> stops_at(const Obstacles::Sum& sum, Point a, Point b) {
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
        return near_.any_near({q, q}, [&](std::size_t i) {
            return !sums_[i].is_one_way() && inside_of(sums_[i].ring, q, q).has_value();
        });
    });
    return !over_edge && around_ground_.area_at(moved(p, inside_body_)) != FreeSpace::in_ground &&
           (rest_ == nullptr || rest_->may_be(p));
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

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
#include "left_of_internal.hpp"

namespace dryground::travel {

namespace {

constexpr std::int32_t play = 2;   // steps on either side: 1/128 px

}   // namespace

bool runs_against(Point a, Point b, Point stops_from) {
    return (std::int64_t{b.x} - a.x) * stops_from.x + (std::int64_t{b.y} - a.y) * stops_from.y < 0;
}

bool enters_from(Point side, std::span<const Point> convex, Point a, Point b, double away) {
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

std::optional<Stretch> inside_of(std::span<const Point> convex, Point a, Point b) {
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

Obstacles::Obstacles(std::span<const Group> groups, StoreyId storey, const Mover& mover, const Regions& also_closed,
                     const Obstacles* before)
    : body_(with_play(mover.body.front().outline)) {
    std::size_t edges = 0;
    for (const Group& group : groups) {
        if (group.storey_id != storey) continue;
        detail::each_ring(group.regions, [&](const Ring& ring) { edges += ring.size(); });
        for (const Ring& line : group.lines) edges += 2 * line.size();   // what catches, too
    }
    begin(edges);
    std::vector<Ring> ways;
    for (const Group& group : groups) {
        if (group.storey_id != storey) continue;
        add(group.regions);
        for (Ring& way : detail::ways_around(group.regions, body_)) ways.push_back(std::move(way));
        for (const Ring& line : group.lines)
            for (std::size_t i = 0; i + 1 < line.size(); ++i) {
                add(line[i], line[i + 1], group.one_way, false);
                const std::span<const Point> ring = sums_.back().ring;
                if (group.one_way == OneWay::none) ways.emplace_back(ring.begin(), ring.end());
            }
    }
    index();
    for (const Ring& ring : detail::rings_of(also_closed)) ways.push_back(ring);
    closed_ = detail::WoundInBands(ways, band_height, before != nullptr ? &before->closed_ : nullptr);
}

Obstacles::Obstacles(const Obstacles& rest, std::span<const Group> thing, const Mover& mover)
    : Obstacles(thing, thing.empty() ? StoreyId::ground : thing.front().storey_id, mover) {
    rest_ = &rest;
}

Obstacles::Obstacles(const Regions& ground, const Ring& body) : body_(body) {
    std::size_t edges = 0;
    detail::each_ring(ground, [&](const Ring& ring) { edges += ring.size(); });
    begin(edges);
    add(ground);
    index();
}

void Obstacles::begin(std::size_t edges) {
    std::vector<Point> points;
    std::int64_t x = 0, y = 0;
    for (const Point p : body_) points.push_back({-p.x, -p.y}), x += p.x, y += p.y;
    mirrored_ = convex_hull(std::move(points));
    const auto corners = static_cast<std::int64_t>(body_.size());
    inside_body_ = {static_cast<std::int32_t>(x / corners), static_cast<std::int32_t>(y / corners)};
    sums_.reserve(edges);
    corners_.reserve(edges * (mirrored_.size() + 3));   // a cut body may have a corner more
}

void Obstacles::add(const Regions& ground) {
    detail::each_edge(ground, [&](Point a, Point b) { add(a, b, OneWay::none, true); });
}

void Obstacles::index() {
    std::vector<Bounds> boxes;
    boxes.reserve(sums_.size());
    for (const Sum& sum : sums_) boxes.push_back(sum.box);
    near_ = detail::BoxIndex(std::move(boxes));
}

// The mirrored body is walked around: it stands at the start of the edge where it turns from one of its edges that lead
// to the right of the edge's direction, and at the end where from or to one that leads to its left.
std::span<const Point> Obstacles::sum_of(Point a, Point b) {
    const std::size_t first = corners_.size(), n = mirrored_.size();
    const std::int64_t x = std::int64_t{b.x} - a.x, y = std::int64_t{b.y} - a.y;
    if (n < 3 || a == b) {
        const Ring ring = sum_with(std::array{a, b}, body_);
        corners_.insert(corners_.end(), ring.begin(), ring.end());
        return std::span(corners_).subspan(first);
    }
    corners_.resize(first + n + 2);
    Point* next = &corners_[first];
    const auto side = [&](std::size_t k) {   // to which an edge of the body leads: above 0: left
        const Point p = mirrored_[k], q = mirrored_[k + 1 < n ? k + 1 : 0];
        return x * (std::int64_t{q.y} - p.y) - y * (std::int64_t{q.x} - p.x);
    };
    std::int64_t from = side(n - 1);
    for (std::size_t k = 0; k < n; ++k) {
        const std::int64_t to = side(k);
        if (from < 0) *next++ = moved(a, mirrored_[k]);
        if (from > 0 || to > 0) *next++ = moved(b, mirrored_[k]);
        if (from >= 0 && to < 0) *next++ = moved(a, mirrored_[k]);
        from = to;
    }
    corners_.resize(static_cast<std::size_t>(next - corners_.data()));
    return std::span(corners_).subspan(first);
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

void Obstacles::add(Point a, Point b, OneWay passes, bool is_ground) {
    const std::span<const Point> ring = sum_of(a, b);
    Sum& sum =
        sums_.emplace_back(Sum{ring, detail::box_around(ring), {a, b}, is_ground, ground::stopped_side(a, b, passes)});
    if (!sum.is_one_way()) return;
    const Ring catches = sum_with(sum.line, rear_half(sum.stops_from));
    const std::size_t first = corners_.size();
    corners_.insert(corners_.end(), catches.begin(), catches.end());
    sum.catches = std::span(corners_).subspan(first);
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
    return !over_edge && !is_in_ground(moved(p, inside_body_)) && (rest_ == nullptr || rest_->may_be(p));
}

bool Obstacles::is_in_ground(Point p) const {
    const auto left = left_of(
        near_, {-inside_body_.x, -inside_body_.y}, p, std::numeric_limits<double>::infinity(), [this](std::size_t i) {
            const Sum& sum = sums_[i];
            return sum.is_ground ? std::optional(SolidEdge{sum.line[0], sum.line[1]}) : std::nullopt;
        });
    return left && turn(sums_[*left].line[0], sums_[*left].line[1], p) == Turn::left;
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

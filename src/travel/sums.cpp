// Edges and lines grown by a body: convex sums (Lozano-Perez 1983).
//
// Whether a way runs through a sum is decided exactly; where it enters is rounded.

#include "sums_internal.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

#include "../geometry/ring_internal.hpp"
#include "../geometry/same_ends_internal.hpp"
#include "../ground/ground_internal.hpp"

namespace dryground::travel {

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

namespace {

// Cuts the body through the middle of its box, along the line.
Ring rear_half(const Ring& body, Point stops_from) {
    const Bounds box = detail::box_around(body);
    const Point middle{box.least.x + (box.most.x - box.least.x) / 2, box.least.y + (box.most.y - box.least.y) / 2};
    const auto ahead = [&](Point p) {   // of the middle
        return (std::int64_t{p.x} - middle.x) * stops_from.x + (std::int64_t{p.y} - middle.y) * stops_from.y;
    };
    std::vector<Point> rear;
    detail::each_edge_of_ring(body, [&](Point p, Point q) {
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

}   // namespace

Sums::Sums(std::span<const Line> lines, const Ring& body) {
    std::vector<Point> points;
    for (const Point p : body) points.push_back({-p.x, -p.y});
    const Ring mirrored = convex_hull(std::move(points));
    const auto one_way = static_cast<std::size_t>(
        std::count_if(lines.begin(), lines.end(), [](const Line& line) { return line.passes != OneWay::none; }));
    all_.reserve(lines.size());
    corners_.reserve((lines.size() + one_way) * (mirrored.size() + 3));   // a cut body may have a corner more
    for (const Line& line : lines) {
        const auto [a, b] = line.ends;
        const std::span<const Point> ring = grown(a, b, body, mirrored);
        Sum& sum =
            all_.emplace_back(Sum{ring, detail::box_around(ring), line.ends, ground::stopped_side(a, b, line.passes)});
        if (!sum.is_one_way()) continue;
        const Ring catches = sum_with(sum.line, rear_half(body, sum.stops_from));
        const std::size_t first = corners_.size();
        corners_.insert(corners_.end(), catches.begin(), catches.end());
        sum.catches = std::span(corners_).subspan(first);
    }
    std::vector<Bounds> boxes;
    boxes.reserve(all_.size());
    for (const Sum& sum : all_) boxes.push_back(sum.box);
    near_ = detail::BoxIndex(std::move(boxes));
}

// The mirrored body is walked around: it stands at the start of the edge where it turns from one of its edges that lead
// to the right of the edge's direction, and at the end where from or to one that leads to its left.
std::span<const Point> Sums::grown(Point a, Point b, const Ring& body, const Ring& mirrored) {
    const std::size_t first = corners_.size(), n = mirrored.size();
    const std::int64_t x = std::int64_t{b.x} - a.x, y = std::int64_t{b.y} - a.y;
    if (n < 3 || a == b) {
        const Ring ring = sum_with(std::array{a, b}, body);
        corners_.insert(corners_.end(), ring.begin(), ring.end());
        return std::span(corners_).subspan(first);
    }
    corners_.resize(first + n + 2);
    Point* next = &corners_[first];
    const auto side = [&](std::size_t k) {   // to which an edge of the body leads: above 0: left
        const Point p = mirrored[k], q = mirrored[k + 1 < n ? k + 1 : 0];
        return x * (std::int64_t{q.y} - p.y) - y * (std::int64_t{q.x} - p.x);
    };
    std::int64_t from = side(n - 1);
    for (std::size_t k = 0; k < n; ++k) {
        const std::int64_t to = side(k);
        if (from < 0) *next++ = moved(a, mirrored[k]);
        if (from > 0 || to > 0) *next++ = moved(b, mirrored[k]);
        if (from >= 0 && to < 0) *next++ = moved(a, mirrored[k]);
        from = to;
    }
    corners_.resize(static_cast<std::size_t>(next - corners_.data()));
    return std::span(corners_).subspan(first);
}

GroundSums::GroundSums(std::vector<SolidEdge> edges, const Ring& body, const GroundSums* before)
    : edges_(std::move(edges)), in_base_(edges_.size(), is_added) {
    if (before != nullptr && before->base_) take_over(*before);
    std::vector<Line> added;
    for (std::size_t i = 0; i < edges_.size(); ++i)
        if (in_base_[i] == is_added) added.push_back({{edges_[i].from, edges_[i].to}});
    constexpr std::size_t few = 64, part = 8;   // more than this part of all: all anew
    if (base_ && added.size() <= few + base_->all().size() / part) {
        added_ = Sums(added, body);
        return;
    }
    added.clear();
    for (const SolidEdge& edge : edges_) added.push_back({{edge.from, edge.to}});
    for (std::uint32_t i = 0; i < in_base_.size(); ++i) in_base_[i] = i;
    base_ = std::make_shared<const Sums>(added, body);
    gone_.assign(edges_.size(), 0);
}

// Edges that both have at the beginning and the end of their lists are the same.
void GroundSums::take_over(const GroundSums& before) {
    const detail::SameEnds same = detail::same_ends<SolidEdge>(
        before.edges_, edges_, [](const auto& e, const auto& f) { return e.from == f.from && e.to == f.to; });
    std::copy_n(before.in_base_.begin(), same.first, in_base_.begin());
    std::copy_n(before.in_base_.rbegin(), same.last, in_base_.rbegin());
    base_ = before.base_;
    gone_.assign(base_->all().size(), 1);
    for (const std::uint32_t number : in_base_)
        if (number != is_added) gone_[number] = 0;
}

bool GroundSums::is_in_ground(Point p, Point in_body) const {
    // Sums are as large as the body, and lie where its position is.
    const Point by{-in_body.x, -in_body.y}, at = moved(p, in_body);
    std::optional<Left> left;
    std::array<Point, 2> edge{};
    const auto look = [&](const Sums& sums, auto is_there) {
        const auto found = left_of(sums.near(), by, at, std::numeric_limits<double>::infinity(),
                                   [&](std::size_t i) -> std::optional<SolidEdge> {
                                       if (!is_there(i)) return std::nullopt;
                                       return SolidEdge{sums.all()[i].line[0], sums.all()[i].line[1]};
                                   });
        if (found && (!left || found->crosses_at > left->crosses_at)) left = found, edge = sums.all()[found->edge].line;
    };
    if (base_) look(*base_, [&](std::size_t i) { return gone_[i] == 0; });
    look(added_, [](std::size_t) { return true; });
    return left && turn(edge[0], edge[1], at) == Turn::left;
}

}   // namespace dryground::travel

// Regions grown by a distance.
//
// Idea. What lies within reach of a region is the region itself and what lies within reach of its boundary. So the
// region is united with one convex piece for each edge (the edge swept outward) and, where corners stick out, one for
// each corner. Pieces have the edges in common with which they touch each other and the region, so that these cancel,
// and the boolean does the rest: gaps close and holes vanish without a special case. Where the boundary turns towards
// what is swept, pieces end at the line between both edges instead of crossing. Shrinking sweeps the edges inward, as
// if the outside were grown, and takes the pieces away. Where edges crowd within the distance, most are left out:
// crowds.cpp. Cost: the boolean's for two to four edges an edge, and the vertices of arcs. Range: pieces are whole
// numbers in doubles until they are known to lie on the lattice. Of what shrinks a region only the part within the
// range matters: pieces are cut there. What grows out of it is an error. Not done: one offset outline with its loops,
// picked by winding numbers (Chen and McMains 2005): corners are rounded to the lattice, and a loop that is turned over
// by that would count.

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <optional>
#include <stdexcept>

#include "boolean_internal.hpp"
#include "bounds_internal.hpp"
#include "ring_internal.hpp"
#include "swept_internal.hpp"

namespace dryground {

namespace {

using detail::at, detail::Far;

[[noreturn]] void leave_range(const char* who) {
    throw std::out_of_range(fmt::format("dryground::{}: the result leaves the range of coordinates", who));
}

class Grower {
public:
    // `inward`: the solid's edges are swept into it.
    Grower(double by, Corners corners, double within_px, bool inward)
        : by_(by), corners_(corners), within_(within_px * steps_per_px), inward_(inward) {}

    // Returns what lies within reach of rings, on the side to which they are swept.
    Regions around(std::span<const Region> regions) {
        if (corners_ == Corners::round && by_ >= steps_per_px) crowds_.emplace(regions, by_, within_);
        detail::each_ring(regions, [&](const Ring& ring) { add_ring(ring); });
        if (crowds_)
            for (Region& region : std::move(*crowds_).united()) result_.push_back(std::move(region));
        return std::move(result_);
    }

private:
    void add_ring(const Ring& ring) {
        const detail::Way way{ring, inward_};
        const std::size_t n = ring.size();
        if (corners_ == Corners::box) {
            for (std::size_t i = 0; i < n; ++i) add_box(way[i], way[i + 1]);
            return;
        }
        std::vector<Far> offsets;   // by the edge that starts at a vertex
        for (std::size_t i = 0; i < n; ++i) offsets.push_back(offset(way[i], way[i + 1]));
        const std::vector<std::optional<Far>> joints = joints_of(way, offsets);
        for (std::size_t i = 0; i < n; ++i) {
            const std::size_t next = (i + 1) % n;
            const Point a = way[i], b = way[i + 1];
            if (is_crowded(a)) {
                if (!inward_ && detail::furthest({at(a, {0, 0})}) + by_ > coordinate_limit) leave_range("grown");
                crowds_->add_edge(way, i);
            } else {
                add({at(a, {0, 0}), joints[i].value_or(at(a, offsets[i])), joints[next].value_or(at(b, offsets[i])),
                     at(b, {0, 0})});
            }
            if (joints[next] || turn(a, b, way[i + 2]) != Turn::left) continue;
            if (is_crowded(b))
                crowds_->add_corner(way, i + 1, offsets[i], offsets[next]);
            else
                add_corner(b, offsets[i], offsets[next]);
        }
    }
    [[nodiscard]] bool is_crowded(Point p) const { return crowds_ && crowds_->hold(p); }

    // By vertex: where the areas that its two edges sweep end together, so that neither crosses the other and no vertex
    // is left that rounding would move off the line. At the tip of a mitre; and where the edges turn towards what they
    // sweep, on the line between them: there each edge leaves to the other what is nearer to that one, as far as that
    // one reaches.
    [[nodiscard]] std::vector<std::optional<Far>> joints_of(const detail::Way& way,
                                                            std::span<const Far> offsets) const {
        const std::size_t n = offsets.size();
        std::vector<double> parts(n, 0);   // by vertex that turns so: how far along its edges they meet, or overlap
        for (std::size_t i = 0; i < n; ++i)
            if (turn(way[i + n - 1], way[i], way[i + 1]) == Turn::right) {
                const double by = -detail::angle(offsets[(i + n - 1) % n], offsets[i]);
                parts[i] = by_ * std::max(std::sin(by), std::tan(by / 2));
            }
        const auto is_long = [&](std::size_t edge) {   // enough for what it leaves at both ends
            const Point a = way[edge], b = way[edge + 1];
            const double length = std::hypot(double{0} + b.x - a.x, double{0} + b.y - a.y);
            return parts[edge % n] + parts[(edge + 1) % n] <= length && !is_crowded(a);
        };
        std::vector<std::optional<Far>> joints(n);
        for (std::size_t i = 0; i < n; ++i) {
            const std::size_t before = (i + n - 1) % n;
            const Turn turned = turn(way[before], way[i], way[i + 1]);
            const bool may = turned == Turn::right ? is_long(before) && is_long(i)
                                                   : turned == Turn::left && corners_ == Corners::mitre;
            if (!may) continue;
            if (const auto tip = mitre(offsets[before], offsets[i])) joints[i] = at(way[i], *tip);
        }
        return joints;
    }

    [[nodiscard]] Far offset(Point a, Point b) const { return detail::offset(a, b, by_); }

    // Returns the tip of a mitre, from its corner, between two offsets; nothing if it would be longer than four times
    // the distance.
    [[nodiscard]] static std::optional<Far> mitre(Far from, Far to) {
        const double half = detail::angle(from, to) / 2;
        if (1 / std::cos(half) > 4) return std::nullopt;
        const double reach = 1 / std::pow(std::cos(half), 2) / 2;
        return Far{(from.x + to.x) * reach, (from.y + to.y) * reach};
    }

    // Adds an edge and all that a square around each of its points covers: a hexagon, or a box. Requires by_ < 2^30.
    void add_box(Point a, Point b) {
        std::vector<Point> points;
        const auto by = static_cast<std::int32_t>(by_);
        for (const Point p : {a, b})
            for (const Point corner : {Point{-by, -by}, Point{by, -by}, Point{by, by}, Point{-by, by}})
                points.push_back(moved(p, corner));
        std::vector<Far> ring;
        for (const Point p : convex_hull(std::move(points))) ring.push_back(at(p, {0, 0}));
        add(std::move(ring));
    }

    void add_corner(Point p, Far from, Far to) {
        std::vector<Far> ring{at(p, {0, 0}), at(p, from)};
        if (corners_ == Corners::round) {
            detail::add_arc(ring, p, from, 0, detail::angle(from, to), detail::widest_chord(by_, within_));
            ring.pop_back();   // in favour of the one that the next edge has
        }
        ring.push_back(at(p, to));
        add(std::move(ring));
    }

    void add(std::vector<Far> points) {
        if (!inward_ && detail::furthest(points) > coordinate_limit) leave_range("grown");
        if (std::optional<Ring> ring = detail::ring_within_range(std::move(points)))
            result_.push_back({*std::move(ring), {}});
    }

    double by_;
    Corners corners_;
    double within_;
    bool inward_;
    Regions result_;
    std::optional<detail::Crowds> crowds_;
};

// Of proper regions.
Regions joined(std::span<const Region> a, Regions b) {
    b.insert(b.end(), a.begin(), a.end());
    return detail::unite_proper(b);
}

}   // namespace

Regions grown(std::span<const Region> regions, std::int32_t by, Corners corners, double within_px) {
    if (corners == Corners::round && !(within_px > 0))
        throw std::invalid_argument(fmt::format("dryground::grown: within_px is {}, but should be above 0", within_px));
    if (by == 0 || regions.empty()) return {regions.begin(), regions.end()};
    const double distance = std::abs(static_cast<double>(by));
    const Bounds box = *bounds(regions);
    if (by > 0 && corners == Corners::box)   // how far it reaches is known
        if (std::min(box.least.x, box.least.y) - distance < -double{coordinate_limit} ||
            std::max(box.most.x, box.most.y) + distance > double{coordinate_limit})
            leave_range("grown");
    if (by > 0) return joined(regions, Grower(distance, corners, within_px, false).around(regions));
    // Anything nowhere wider than twice the distance vanishes; bevelled corners may leave a remainder.
    const double narrowest = std::min(double{0} + box.most.x - box.least.x, double{0} + box.most.y - box.least.y);
    if (2 * distance >= narrowest && (corners == Corners::round || corners == Corners::box)) return {};
    return detail::not_under(regions, Grower(distance, corners, within_px, true).around(regions));
}

}   // namespace dryground

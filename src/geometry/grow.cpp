// Regions grown by a distance.
//
// Idea. What lies within reach of a region is the region itself and what lies within reach of its boundary. So the
// region is united with one convex piece for each edge (the edge swept outward) and, where corners stick out, one for
// each corner. All pieces overlap what they belong to, and the boolean does the rest: gaps close and holes vanish
// without a special case. Shrinking sweeps the edges inward, as if the outside were grown, and takes the pieces away.
// Where edges crowd within the distance, most are left out: crowds.cpp. Cost: the boolean's for about four edges an
// edge, and the vertices of arcs. Range: pieces are whole numbers in doubles until they are known to lie on the
// lattice. Of what shrinks a region only the part within the range matters: pieces are cut there. What grows out of it
// is an error. Not done: one offset outline with its loops, picked by winding numbers (Chen and McMains 2005): corners
// are rounded to the lattice, and a loop that is turned over by that would count.

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

    // What lies within reach of rings, on the side that they are swept to.
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
        for (std::size_t i = 0; i < n; ++i) {
            const Point a = way[i], b = way[i + 1], c = way[i + 2];
            if (corners_ == Corners::box) {
                add_box(a, b);
                continue;
            }
            const Far ab = offset(a, b), bc = offset(b, c);
            if (corners_ == Corners::mitre) {
                add_mitred_edge(way[i + n - 1], a, b, c);
                if (turn(a, b, c) == Turn::left && !mitre(ab, bc)) add_corner(b, ab, bc);
                continue;
            }
            if (crowds_ && crowds_->hold(a)) {
                if (!inward_ && detail::furthest({at(a, {0, 0})}) + by_ > coordinate_limit) leave_range("grown");
                crowds_->add_edge(way, i);
            } else {
                add({at(a, {0, 0}), at(a, ab), at(b, ab), at(b, {0, 0})});
            }
            if (turn(a, b, c) != Turn::left) continue;
            if (crowds_ && crowds_->hold(b))
                crowds_->add_corner(way, i + 1, ab, bc);
            else
                add_corner(b, ab, bc);
        }
    }

    [[nodiscard]] Far offset(Point a, Point b) const { return detail::offset(a, b, by_); }

    // The tip of a mitre, from its corner, between two offsets; nothing where it would be longer than four times the
    // distance.
    [[nodiscard]] static std::optional<Far> mitre(Far from, Far to) {
        const double half = detail::angle(from, to) / 2;
        if (1 / std::cos(half) > 4) return std::nullopt;
        const double reach = 1 / std::pow(std::cos(half), 2) / 2;
        return Far{(from.x + to.x) * reach, (from.y + to.y) * reach};
    }

    // An edge swept as far as the tips of the mitres at its ends: so two edges that meet share the tip, and no vertex
    // is left beside it that rounding would take off the line.
    void add_mitred_edge(Point before, Point a, Point b, Point after) {
        const Far ab = offset(a, b);
        const auto end = [&](Point p, Point q, Point r, Far one, Far other) {
            const auto tip = turn(p, q, r) == Turn::left ? mitre(one, other) : std::nullopt;
            return at(q, tip.value_or(ab));
        };
        const Far start = end(before, a, b, offset(before, a), ab), stop = end(a, b, after, ab, offset(b, after));
        add({at(a, {0, 0}), start, stop, at(b, {0, 0})});
    }

    // An edge and all that a square around each of its points covers: a hexagon, or a box. Requires by_ < 2^30.
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
    // What is nowhere wider than twice the distance vanishes; bevelled corners may leave a rest.
    const double narrowest = std::min(double{0} + box.most.x - box.least.x, double{0} + box.most.y - box.least.y);
    if (2 * distance >= narrowest && (corners == Corners::round || corners == Corners::box)) return {};
    return detail::subtract_proper(regions, Grower(distance, corners, within_px, true).around(regions));
}

}   // namespace dryground

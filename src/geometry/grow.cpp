// Regions grown by a distance, or by a body.
//
// Idea. What lies within reach of a region is the region itself and what lies within reach of its boundary. So the
// region is united with one convex piece for each edge (the edge swept outward, or swept by the body) and, where
// corners stick out, one for each corner. All pieces overlap what they belong to, and the boolean does the rest: gaps
// close and holes vanish without a special case. Shrinking grows the outside, cut off by a frame, and takes it away.
// Cost: the boolean's for about four edges an edge, and the vertices of arcs.
// Not done: one offset outline with its loops, picked by winding numbers (Chen and McMains 2005): it has fewer edges,
// but a body as large as a hole needs care there.

#include <algorithm>
#include <cmath>
#include <numbers>

#include "arrangement_internal.hpp"

namespace dryground {

namespace {

struct Offset {   // of an edge, at a right angle, outward
    double x, y;
};

class Grower {
public:
    Grower(std::int32_t by, Corners corners, double within_px)
        : by_(by), corners_(corners), within_(within_px * steps_per_px) {}

    // What lies within reach of rings that have the solid on their left, outside of it.
    Regions around(std::span<const Region> regions) {
        for (const Region& region : regions) {
            add_ring(region.outline);
            for (const Ring& hole : region.holes) add_ring(hole);
        }
        return std::move(result_);
    }

private:
    void add_ring(const Ring& ring) {
        const std::size_t n = ring.size();
        for (std::size_t i = 0; i < n; ++i) {
            const Point a = ring[i], b = ring[(i + 1) % n], c = ring[(i + 2) % n];
            const Offset ab = offset(a, b), bc = offset(b, c);
            add({a, at(a, ab), at(b, ab), b});
            if (turn(a, b, c) == Turn::left) add_corner(b, ab, bc);
        }
    }

    [[nodiscard]] Offset offset(Point a, Point b) const {
        const double dx = double{0} + b.x - a.x, dy = double{0} + b.y - a.y, length = std::hypot(dx, dy);
        return {by_ * dy / length, -by_ * dx / length};   // to the right
    }
    [[nodiscard]] static Point at(Point p, Offset by) {
        return {static_cast<std::int32_t>(std::lround(p.x + by.x)), static_cast<std::int32_t>(std::lround(p.y + by.y))};
    }

    void add_corner(Point p, Offset from, Offset to) {
        Ring ring{p, at(p, from)};
        const double angle = std::atan2(from.x * to.y - from.y * to.x, from.x * to.x + from.y * to.y);
        if (corners_ == Corners::mitre && 1 / std::cos(angle / 2) <= 4) {
            const double reach = 1 / std::pow(std::cos(angle / 2), 2) / 2;
            ring.push_back(at(p, {(from.x + to.x) * reach, (from.y + to.y) * reach}));
        }
        if (corners_ == Corners::round) {
            const double widest = 2 * std::acos(std::max(0.5, 1 - within_ / by_));
            const int chords = std::max(1, static_cast<int>(std::ceil(angle / widest)));
            for (int i = 1; i < chords; ++i) {
                const double part = angle * i / chords, c = std::cos(part), s = std::sin(part);
                ring.push_back(at(p, {from.x * c - from.y * s, from.x * s + from.y * c}));
            }
        }
        ring.push_back(at(p, to));
        add(ring);
    }

    // Rounding may flatten a thin piece, and turn it over.
    void add(const Ring& ring) {
        if (const std::int64_t area = twice_area(ring); area > 0) result_.push_back({ring, {}});
    }

    double by_;
    Corners corners_;
    double within_;
    Regions result_;
};

// The outside of regions up to a frame further away than `margin`.
Regions outside_of(std::span<const Region> regions, std::int32_t margin) {
    const Bounds box = *bounds(regions);
    const Regions frame{
        box_region({box.least.x - margin, box.least.y - margin}, {box.most.x + margin, box.most.y + margin})};
    return subtract(frame, regions);
}

Regions joined(std::span<const Region> a, Regions b) {
    b.insert(b.end(), a.begin(), a.end());
    return unite(b);
}

Regions grown_outward(std::span<const Region> regions, std::int32_t by, Corners corners, double within_px) {
    if (corners == Corners::box) return reach(regions, box_ring({-by, -by}, {by, by}));
    return joined(regions, Grower(by, corners, within_px).around(regions));
}

}   // namespace

Regions grown(std::span<const Region> regions, std::int32_t by, Corners corners, double within_px) {
    if (by == 0 || regions.empty()) return {regions.begin(), regions.end()};
    if (by > 0) return grown_outward(regions, by, corners, within_px);
    const Regions outside = outside_of(regions, 2 * -by + 2);
    return subtract(regions, grown_outward(outside, -by, corners, within_px));
}

Regions reach(std::span<const Region> regions, std::span<const Point> body) {
    Regions pieces;
    const auto swept = [&](Point a, Point b) {
        std::vector<Point> points;
        for (const Point p : body)
            for (const Point end : {a, b}) points.push_back({end.x - p.x, end.y - p.y});
        pieces.push_back({convex_hull(std::move(points)), {}});
    };
    for (const Region& region : regions) {
        const auto add_ring = [&](const Ring& ring) {
            for (std::size_t i = 0; i < ring.size(); ++i) swept(ring[i], ring[(i + 1) % ring.size()]);
        };
        add_ring(region.outline);
        for (const Ring& hole : region.holes) add_ring(hole);
    }
    // A body that meets no edge is inside when any one of its points is.
    const Point some = body.empty() ? Point{} : body[0];
    return joined(moved({regions.begin(), regions.end()}, {-some.x, -some.y}), std::move(pieces));
}

}   // namespace dryground

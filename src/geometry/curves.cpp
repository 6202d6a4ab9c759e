// Round shapes as rings of the fewest vertices that stay within a distance of the curve.
//
// Idea. Between its extreme points, which are vertices, a ring may swing from a distance outside of the curve to the
// same distance inside: its vertices lie on the outer offset curve, its edges touch the inner one. From an extreme
// point, each vertex is put as far along as its edge allows; that gives the least number of edges for a quarter. Then
// the distance is made as small as that number allows, so that what is left over is shared by all edges. The deviation
// of an edge is the distance to the parallel tangent, which for an ellipse is known in closed form.
// Guarantee: within the tolerance, less one step, before vertices are rounded, which moves them by 0.71 steps at most.
// Cost: O(vertices), with some thousand operations for each.

#include <algorithm>
#include <cmath>
#include <numbers>

#include "dryground/geometry.hpp"
#include "ring_internal.hpp"

namespace dryground {

namespace {

struct Place {
    double x, y;
};

class Quarter {
public:
    Quarter(double radius_x, double radius_y) : rx_(radius_x), ry_(radius_y) {}

    // Returns points from (rx, 0) to (0, ry), both included.
    [[nodiscard]] std::vector<Place> points(double within) const {
        std::vector<Place> best = walk(within);
        double low = 0, high = within;
        for (int round = 0; round < 40; ++round) {
            const double middle = (low + high) / 2;
            std::vector<Place> tried = walk(middle, best.size());
            if (tried.empty()) {
                low = middle;
            } else {
                best = std::move(tried);
                high = middle;
            }
        }
        return best;
    }

private:
    static constexpr std::size_t most_points = 20'000;

    // Returns nothing if more than `most` points are needed.
    [[nodiscard]] std::vector<Place> walk(double within, std::size_t most = most_points) const {
        std::vector<Place> points{{rx_, 0}};
        const Place end{0, ry_};
        double at = 0;
        while (deviation(points.back(), end) > within) {
            if (points.size() + 1 >= most && most < most_points) return {};
            double low = at, high = std::numbers::pi / 2;
            for (int round = 0; round < 50; ++round) {
                const double middle = (low + high) / 2;
                (deviation(points.back(), outside(middle, within)) <= within ? low : high) = middle;
            }
            at = low;
            const Place next = outside(at, within);
            points.push_back({std::min(next.x, rx_), std::min(next.y, ry_)});
            if (points.size() >= most_points) break;
        }
        points.push_back(end);
        return points;
    }

    // Returns the point of the outer offset curve at a parameter angle.
    [[nodiscard]] Place outside(double angle, double within) const {
        const double c = std::cos(angle), s = std::sin(angle), nx = c * ry_, ny = s * rx_, length = std::hypot(nx, ny);
        return {rx_ * c + within * nx / length, ry_ * s + within * ny / length};
    }
    // Returns how far the curve lies outside the segment from p to q.
    [[nodiscard]] double deviation(Place p, Place q) const {
        const double nx = q.y - p.y, ny = p.x - q.x, length = std::hypot(nx, ny);
        if (length == 0) return 0;
        return (std::hypot(rx_ * nx, ry_ * ny) - (nx * p.x + ny * p.y)) / length;
    }

    double rx_, ry_;
};

std::vector<Point> quarter(std::int32_t radius_x, std::int32_t radius_y, double within_px) {
    const double within = within_px * steps_per_px;
    std::vector<Point> points;
    for (const Place& p : Quarter(radius_x, radius_y).points(std::max(within - 1, within / 2)))
        points.push_back({static_cast<std::int32_t>(std::lround(p.x)), static_cast<std::int32_t>(std::lround(p.y))});
    return points;
}

// Returns four quarters, each mirrored from the first, each around its own centre.
Ring from_quarters(const std::vector<Point>& q, Point most_most, Point least_most, Point least_least,
                   Point most_least) {
    Ring ring;
    const auto put = [&](Point p) {
        if (!ring.empty() && (ring.back() == p || ring.front() == p)) return;
        if (ring.size() > 1 && turn(ring[ring.size() - 2], ring.back(), p) == Turn::straight) ring.pop_back();
        ring.push_back(p);
    };
    for (auto p = q.begin(); p != q.end(); ++p) put({most_most.x + p->x, most_most.y + p->y});
    for (auto p = q.rbegin(); p != q.rend(); ++p) put({least_most.x - p->x, least_most.y + p->y});
    for (auto p = q.begin(); p != q.end(); ++p) put({least_least.x - p->x, least_least.y - p->y});
    for (auto p = q.rbegin(); p != q.rend(); ++p) put({most_least.x + p->x, most_least.y - p->y});
    detail::start_at_least(ring);
    return ring;
}

}   // namespace

Ring convex_hull(std::vector<Point> points) {
    std::sort(points.begin(), points.end());
    points.erase(std::unique(points.begin(), points.end()), points.end());
    Ring hull;
    const auto half = [&](auto first, auto last) {
        const std::size_t start = hull.size();
        for (auto p = first; p != last; ++p) {
            while (hull.size() >= start + 2 && turn(hull[hull.size() - 2], hull.back(), *p) != Turn::left)
                hull.pop_back();
            hull.push_back(*p);
        }
        hull.pop_back();   // it starts the other half
    };
    if (points.size() < 3) return points;
    // Points are sorted by y, then x: the first half runs along the side of greater x, the solid on its left.
    half(points.begin(), points.end());
    half(points.rbegin(), points.rend());
    return hull;
}

Ring ellipse_ring(Point centre, std::int32_t radius_x, std::int32_t radius_y, double within_px) {
    return from_quarters(quarter(radius_x, radius_y, within_px), centre, centre, centre, centre);
}

Ring capsule_ring(Point least, Point most, double within_px) {
    const std::int32_t radius = std::min(most.x - least.x, most.y - least.y) / 2;
    const Point inner_least{least.x + radius, least.y + radius}, inner_most{most.x - radius, most.y - radius};
    return from_quarters(quarter(radius, radius, within_px), inner_most, {inner_least.x, inner_most.y}, inner_least,
                         {inner_most.x, inner_least.y});
}

Ring capsule_ring(Point from, Point to, std::int32_t radius, double within_px) {
    Ring points = ellipse_ring(from, radius, radius, within_px);
    const Ring others = ellipse_ring(to, radius, radius, within_px);
    points.insert(points.end(), others.begin(), others.end());
    return convex_hull(std::move(points));
}

}   // namespace dryground

// Round shapes as rings: vertices on the curve, the same number in each quarter, so that the ring is symmetric in both
// axes and the extreme points are always among its vertices. The number of vertices is the least for which every
// chord stays within the tolerance; chords of equal parameter angle are farthest from an ellipse by
// (1 - cos(step / 2)) times the larger radius, at most.

#include <algorithm>
#include <cmath>
#include <numbers>

#include "dryground/geometry.hpp"

namespace dryground {

namespace {

int chords_per_quarter(double largest_radius, double within) {
    const double ratio = std::clamp(1 - within / largest_radius, std::cos(std::numbers::pi / 4), 1.0);
    const double widest = 2 * std::acos(ratio);
    return std::clamp(static_cast<int>(std::ceil(std::numbers::pi / 2 / std::max(widest, 1e-4) - 1e-9)), 1, 4096);
}

// The first quarter of an ellipse around the origin, from (radius_x, 0) to (0, radius_y), both included.
std::vector<Point> quarter(std::int32_t radius_x, std::int32_t radius_y, double within_px) {
    const int chords = chords_per_quarter(std::max(radius_x, radius_y), within_px * steps_per_px);
    std::vector<Point> points;
    for (int i = 0; i <= chords; ++i) {
        const double angle = std::numbers::pi / 2 * i / chords;
        points.push_back({static_cast<std::int32_t>(std::lround(radius_x * std::cos(angle))),
                          static_cast<std::int32_t>(std::lround(radius_y * std::sin(angle)))});
    }
    return points;
}

// Four quarters around, each mirrored from the first, each about a centre of its own.
Ring from_quarters(const std::vector<Point>& q, Point most_most, Point least_most, Point least_least,
                   Point most_least) {
    Ring ring;
    const auto put = [&](Point p) {
        if (ring.empty() || (ring.back() != p && ring.front() != p)) ring.push_back(p);
    };
    for (auto p = q.begin(); p != q.end(); ++p) put({most_most.x + p->x, most_most.y + p->y});
    for (auto p = q.rbegin(); p != q.rend(); ++p) put({least_most.x - p->x, least_most.y + p->y});
    for (auto p = q.begin(); p != q.end(); ++p) put({least_least.x - p->x, least_least.y - p->y});
    for (auto p = q.rbegin(); p != q.rend(); ++p) put({most_least.x + p->x, most_least.y - p->y});
    std::rotate(ring.begin(), std::min_element(ring.begin(), ring.end()), ring.end());
    return ring;
}

}   // namespace

Ring ellipse_ring(Point centre, std::int32_t radius_x, std::int32_t radius_y, double within_px) {
    return from_quarters(quarter(radius_x, radius_y, within_px), centre, centre, centre, centre);
}

Ring capsule_ring(Point least, Point most, double within_px) {
    const std::int32_t radius = std::min(most.x - least.x, most.y - least.y) / 2;
    const Point inner_least{least.x + radius, least.y + radius}, inner_most{most.x - radius, most.y - radius};
    return from_quarters(quarter(radius, radius, within_px), inner_most, {inner_least.x, inner_most.y}, inner_least,
                         {inner_most.x, inner_least.y});
}

}   // namespace dryground

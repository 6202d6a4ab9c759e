// Finds what is wrong with a ring that somebody drew.
//
// Idea: tests every two edges that are not neighbours, exactly; where they cross is rounded, for the message alone.
// Cost: O(n^2): such rings have few points.

#include <algorithm>

#include "dryground/geometry.hpp"

namespace dryground {

namespace {

bool between(Point a, Point b, Point p) {
    return p.x >= std::min(a.x, b.x) && p.x <= std::max(a.x, b.x) && p.y >= std::min(a.y, b.y) &&
           p.y <= std::max(a.y, b.y);
}

// Returns a point that the edges a-b and c-d share, if they touch or cross.
std::optional<Point> shared_point(Point a, Point b, Point c, Point d) {
    const Turn ac = turn(a, b, c), ad = turn(a, b, d), ca = turn(c, d, a), cb = turn(c, d, b);
    if (ac == Turn::straight && between(a, b, c)) return c;
    if (ad == Turn::straight && between(a, b, d)) return d;
    if (ca == Turn::straight && between(c, d, a)) return a;
    if (cb == Turn::straight && between(c, d, b)) return b;
    if (ac == ad || ca == cb || ac == Turn::straight || ad == Turn::straight || ca == Turn::straight ||
        cb == Turn::straight)
        return std::nullopt;
    const double along = static_cast<double>(cross(c, d, a)) /
                         (static_cast<double>(cross(c, d, a)) - static_cast<double>(cross(c, d, b)));
    return Point{a.x + static_cast<std::int32_t>(along * (b.x - a.x)),
                 a.y + static_cast<std::int32_t>(along * (b.y - a.y))};
}

}   // namespace

RingVerdict inspect(std::span<const Point> ring) {
    const std::size_t n = ring.size();
    if (n < 3) return {RingFault::too_few_points, n > 0 ? ring[0] : Point{}};
    for (std::size_t i = 0; i < n; ++i)
        if (ring[i] == ring[(i + 1) % n]) return {RingFault::repeated_point, ring[i]};
    const auto flat = [&] {
        return std::all_of(ring.begin(), ring.end(),
                           [&](Point p) { return turn(ring[0], ring[1], p) == Turn::straight; });
    };
    if (flat()) return {RingFault::no_area, ring[0]};
    for (std::size_t i = 0; i < n; ++i) {
        const Point a = ring[i], b = ring[(i + 1) % n], c = ring[(i + 2) % n];
        // Neighbours may share their common end point; they must not run back over each other.
        if (turn(a, b, c) == Turn::straight && (between(a, b, c) || between(b, c, a)))
            return {RingFault::crosses_itself, c};
        for (std::size_t j = i + 2; j < n; ++j) {
            if (i == 0 && j == n - 1) continue;
            if (const auto at = shared_point(a, b, ring[j], ring[(j + 1) % n])) return {RingFault::crosses_itself, *at};
        }
    }
    return {};
}

}   // namespace dryground

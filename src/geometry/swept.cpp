// Pieces of the plane that edges and corners sweep: their arcs, and how they are cut at the range.
//
// Cost: O(points of the arc); a cut looks at each point once for each side of the range.

#include "ring_internal.hpp"
#include "swept_internal.hpp"

#include <algorithm>

namespace dryground::detail {

double widest_chord(double radius, double within) { return 2 * std::acos(std::max(0.5, 1 - within / radius)); }

void add_arc(std::vector<Far>& ring, Point middle, Far from, double start, double end, double widest) {
    const int chords = std::max(1, static_cast<int>(std::ceil((end - start) / widest)));
    for (int i = 1; i <= chords; ++i) {
        const double part = start + (end - start) * i / chords, c = std::cos(part), s = std::sin(part);
        ring.push_back(at(middle, {from.x * c - from.y * s, from.x * s + from.y * c}));
    }
}

double furthest(const std::vector<Far>& points) {
    double most = 0;
    for (const Far p : points) most = std::max({most, std::abs(p.x), std::abs(p.y)});
    return most;
}

std::optional<Ring> ring_within_range(std::vector<Far> points) {
    constexpr double limit = coordinate_limit;
    const auto cut = [&](auto depth) {   // how far a point lies inside one side
        std::vector<Far> kept;
        detail::each_edge_of_ring(points, [&](Far a, Far b) {
            const double from = depth(a), to = depth(b);
            if (from >= 0) kept.push_back(a);
            if ((from < 0) == (to < 0)) return;
            const double part = from / (from - to);
            kept.push_back({std::round(a.x + part * (b.x - a.x)), std::round(a.y + part * (b.y - a.y))});
        });
        points = std::move(kept);
    };
    if (furthest(points) > limit) {
        cut([](Far p) { return p.x + limit; });
        cut([](Far p) { return limit - p.x; });
        cut([](Far p) { return p.y + limit; });
        cut([](Far p) { return limit - p.y; });
    }
    Ring ring;
    for (const Far p : points) ring.push_back({static_cast<std::int32_t>(p.x), static_cast<std::int32_t>(p.y)});
    if (ring.size() < 3 || twice_area(ring) <= 0) return std::nullopt;
    return ring;
}

}   // namespace dryground::detail

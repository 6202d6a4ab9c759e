// The outline of pixels, with few vertices.
//
// Idea. Runs of pixels are united exactly. Then each ring is walked from a vertex that stays: from every vertex lead
// ways to those later ones that all vertices in between lie near to, and the shortest chain of ways around has the
// fewest vertices (Imai and Iri 1988). Rings that would cross or touch others, or themselves, are walked again with
// half the distance, until nothing does; at last they are the pixels' own.
// Guarantee: valid; holes stay holes; every vertex of the pixels' outline lies within the distance of the result.
// Cost: O(n w) for rings of n vertices, with w the vertices that a way may skip; the test for crossings O(m^2) in the
// vertices of the result, by boxes.

#include <algorithm>
#include <cmath>
#include <limits>

#include "arrangement_internal.hpp"

namespace dryground {

namespace {

struct Traced {
    Ring exact, simple;
    double within;   // steps
    bool is_exact() const { return simple.size() == exact.size(); }
};

double distance_squared(Point p, Point a, Point b) {
    const double dx = double{0} + b.x - a.x, dy = double{0} + b.y - a.y, px = double{0} + p.x - a.x,
                 py = double{0} + p.y - a.y;
    const double length = dx * dx + dy * dy, t = length == 0 ? 0 : std::clamp((px * dx + py * dy) / length, 0.0, 1.0);
    return (px - t * dx) * (px - t * dx) + (py - t * dy) * (py - t * dy);
}

// The fewest vertices from the first of a closed ring around to it again. At least three are kept.
Ring fewest(const Ring& ring, double within) {
    constexpr std::size_t most_failures = 48;   // ways this much longer than the last good one are not tried
    const std::size_t n = ring.size();
    std::vector<std::size_t> steps(n + 1, std::numeric_limits<std::size_t>::max()), from(n + 1, 0);
    steps[0] = 0;
    const auto at = [&](std::size_t i) { return ring[i % n]; };
    for (std::size_t i = 0; i < n; ++i) {
        std::size_t failures = 0;
        for (std::size_t j = i + 1; j <= n && failures < most_failures; ++j) {
            if (j - i >= n - 1 && n > 3) break;   // three vertices at least
            bool near = true;
            for (std::size_t k = i + 1; k < j && near; ++k)
                near = distance_squared(at(k), at(i), at(j)) <= within * within;
            if (!near) {
                ++failures;
                continue;
            }
            failures = 0;
            if (steps[i] + 1 < steps[j]) {
                steps[j] = steps[i] + 1;
                from[j] = i;
            }
        }
    }
    Ring result;
    for (std::size_t i = from[n]; i > 0; i = from[i]) result.push_back(ring[i]);
    result.push_back(ring[0]);
    std::reverse(result.begin(), result.end());
    return result;
}

// From the vertex that is farthest from the middle: it stands out, whatever else goes.
Ring simplified(Ring ring, double within) {
    const Region region{ring, {}};
    const Bounds box = *bounds({&region, 1});
    const double x = (double{0} + box.least.x + box.most.x) / 2, y = (double{0} + box.least.y + box.most.y) / 2;
    const auto away = [&](Point p) { return std::hypot(p.x - x, p.y - y); };
    std::rotate(ring.begin(),
                std::max_element(ring.begin(), ring.end(), [&](Point p, Point q) { return away(p) < away(q); }),
                ring.end());
    Ring result = fewest(ring, within);
    if (result.size() < 3 || (twice_area(result) > 0) != (twice_area(ring) > 0)) result = std::move(ring);
    detail::start_at_least(result);
    return result;
}

bool meet(Point a, Point b, Point c, Point d) {   // elsewhere than in a common end
    if (std::max(a.x, b.x) < std::min(c.x, d.x) || std::max(c.x, d.x) < std::min(a.x, b.x) ||
        std::max(a.y, b.y) < std::min(c.y, d.y) || std::max(c.y, d.y) < std::min(a.y, b.y))
        return false;
    const bool common = a == c || a == d || b == c || b == d;
    const auto between = [](Point p, Point q, Point r) {
        return turn(p, q, r) == Turn::straight && (p < r) != (q < r) && r != p && r != q;
    };
    if (between(a, b, c) || between(a, b, d) || between(c, d, a) || between(c, d, b)) return true;
    if (common) return (a == c && b == d) || (a == d && b == c);
    const Turn s = turn(a, b, c), t = turn(a, b, d), u = turn(c, d, a), v = turn(c, d, b);
    return s == opposite(t) && s != Turn::straight && u == opposite(v) && u != Turn::straight;
}

bool rings_meet(const Ring& one, const Ring& other, bool same) {
    for (std::size_t i = 0; i < one.size(); ++i)
        for (std::size_t j = same ? i + 1 : 0; j < other.size(); ++j)
            if (meet(one[i], one[(i + 1) % one.size()], other[j], other[(j + 1) % other.size()])) return true;
    return false;
}

// Whether some ring had to be walked more closely.
bool mend(std::vector<Traced*>& rings) {
    bool changed = false;
    for (std::size_t i = 0; i < rings.size(); ++i)
        for (std::size_t j = i; j < rings.size(); ++j) {
            if (!rings_meet(rings[i]->simple, rings[j]->simple, i == j)) continue;
            for (Traced* ring : {rings[i], rings[j]}) {
                if (ring->is_exact()) continue;
                ring->within /= 2;
                ring->simple = ring->within < 8 ? ring->exact : simplified(ring->exact, ring->within);
                changed = true;
            }
        }
    return changed;
}

}   // namespace

Regions trace_pixels(int width, int height, std::span<const char> set, double within_px) {
    Regions runs;
    for (int y = 0; y < height; ++y)
        for (int x = 0; x < width; ++x) {
            const auto is_set = [&](int at) {
                return at < width && set[static_cast<std::size_t>(y) * static_cast<std::size_t>(width) +
                                         static_cast<std::size_t>(at)] != 0;
            };
            if (!is_set(x)) continue;
            const int first = x;
            while (is_set(x)) ++x;
            runs.push_back(
                box_region({first * steps_per_px, y * steps_per_px}, {x * steps_per_px, (y + 1) * steps_per_px}));
        }
    Regions regions = unite(runs);
    std::vector<Traced> all;
    const double within = std::max(0.0, within_px * steps_per_px);
    const auto add = [&](const Ring& ring) {
        all.push_back({ring, within > 0 ? simplified(ring, within) : ring, within});
        detail::start_at_least(all.back().exact);
    };
    for (const Region& region : regions) {
        add(region.outline);
        for (const Ring& hole : region.holes) add(hole);
    }
    std::vector<Traced*> rings;
    for (Traced& ring : all) rings.push_back(&ring);
    while (mend(rings)) {
    }
    std::size_t next = 0;
    for (Region& region : regions) {
        region.outline = std::move(all[next++].simple);
        for (Ring& hole : region.holes) hole = std::move(all[next++].simple);
        std::sort(region.holes.begin(), region.holes.end());
    }
    std::sort(regions.begin(), regions.end(), [](const Region& a, const Region& b) { return a.outline < b.outline; });
    return regions;
}

}   // namespace dryground

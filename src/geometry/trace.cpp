// The outline of pixels, with few vertices.
//
// Idea. Runs of pixels are united exactly. Of each ring the corners between long edges stay, and the flat ends: edges
// at which it turns back, clearly longer than the runs beside them (a stone's foot, the top of a hill). Between them
// the fewest vertices are kept (trace_ways.cpp). Rings that would cross or touch others, or themselves, are walked
// again with half the distance, until nothing does; at last they are the pixels' own.
//
// Guarantee: valid; holes stay holes; every vertex of the pixels' outline lies within the distance of the result, or,
// where that is half a pixel or more, within the diagonal of a pixel.
//
// Cost: that of the ways; the test for crossings O(m^2) in the vertices of the result, by boxes.

#include <algorithm>
#include <cmath>

#include "arrangement_internal.hpp"
#include "ring_internal.hpp"
#include "trace_internal.hpp"

namespace dryground {

namespace {

using detail::RingPart;
using detail::TraceCandidate;

struct Traced {
    Ring exact, simple;
    double within;   // steps
    bool is_exact() const { return simple.size() == exact.size(); }
};

// Returns whether the edge from vertex i is a flat end: the ring turns back at it, it is clearly longer than the runs
// beside it, and what it ends stands out by more than the distance.
bool is_flat_end(const Ring& ring, std::size_t i, double within) {
    const std::size_t n = ring.size();
    const auto at = [&](std::size_t k) { return ring[(i + n + k) % n]; };
    const auto length = [](Point a, Point b) {
        return std::max(std::abs(double{0} + b.x - a.x), std::abs(double{0} + b.y - a.y));
    };
    const Point before = at(n - 1), a = at(0), b = at(1), after = at(2);
    if (turn(before, a, b) != turn(a, b, after)) return false;
    const double here = length(a, b);
    if (here < 2 * steps_per_px || std::min(length(before, a), length(b, after)) <= 0) return false;
    // Measures how far it stands out, and how long the next run is, on each side.
    for (const int side : {-1, 1}) {
        const bool across = a.y == b.y;
        const auto step = [&](std::size_t k) {   // the k-th edge away on that side
            return side > 0 ? std::pair{at(k), at(k + 1)} : std::pair{at(n - k + 1), at(n - k)};
        };
        const auto out = [&](std::pair<Point, Point> edge) {
            return across ? double{0} + edge.second.y - edge.first.y : double{0} + edge.second.x - edge.first.x;
        };
        const double way = out(step(1));
        double height = std::abs(way);
        for (std::size_t k = 3; k < n && out(step(k)) * way > 0 && height <= within; k += 2)
            height += std::abs(out(step(k)));
        if (height <= within) return false;
        const auto [p, q] = step(2);
        const bool goes_on = out(step(3)) * way > 0;
        if (std::abs(way) <= steps_per_px && goes_on && 2 * here <= 3 * length(p, q)) return false;
    }
    return true;
}

// Returns whether a vertex is a corner: both its edges are long, and neither is a step of a staircase.
bool is_corner(const Ring& ring, std::size_t i, double within) {
    const std::size_t n = ring.size();
    const auto at = [&](std::size_t k) { return ring[(i + n + k) % n]; };
    const auto length = [](Point a, Point b) {
        return std::abs(double{0} + b.x - a.x) + std::abs(double{0} + b.y - a.y);
    };
    const double least = std::max(2.0 * steps_per_px, 2 * within);
    if (length(at(n - 1), at(0)) < least || length(at(0), at(1)) < least) return false;
    const Turn here = turn(at(n - 1), at(0), at(1));
    const bool step_before = turn(at(n - 2), at(n - 1), at(0)) != here && length(at(n - 2), at(n - 1)) <= steps_per_px;
    const bool step_after = turn(at(0), at(1), at(2)) != here && length(at(1), at(2)) <= steps_per_px;
    if (step_before || step_after) return false;
    // Nor the end of the last step of stairs, which the picture cuts off: no longer than the one before it.
    const auto cut_off = [&](auto back) {   // back(k): the k-th vertex away on one side
        return length(back(1), back(2)) <= steps_per_px &&
               turn(back(2), back(1), back(0)) != turn(back(3), back(2), back(1)) &&
               length(back(0), back(1)) <= length(back(2), back(3));
    };
    return !cut_off([&](std::size_t k) { return at(n - k); }) && !cut_off(at);
}

// Returns whether a straight line along stairs may end on the edge from vertex i: if that edge is not one of the
// stairs.
bool ends_stairs(const Ring& ring, std::size_t i) {
    const std::size_t n = ring.size();
    const auto at = [&](std::size_t k) { return ring[(i + n + k) % n]; };
    const auto length = [](Point a, Point b) {
        return std::abs(double{0} + b.x - a.x) + std::abs(double{0} + b.y - a.y);
    };
    if (turn(at(n - 1), at(0), at(1)) == turn(at(0), at(1), at(2))) return true;
    const double here = length(at(0), at(1));
    return std::min(length(at(n - 2), at(n - 1)), length(at(2), at(3))) + steps_per_px <= here;
}

std::vector<TraceCandidate> candidates_of(const Ring& ring, double within) {
    std::vector<TraceCandidate> all;
    const std::size_t n = ring.size();
    for (std::size_t i = 0; i < n; ++i) {
        const Point a = ring[i], b = ring[(i + 1) % n];
        all.push_back({a, n > 4 && is_corner(ring, i, within)});
        const int length = std::abs(b.x - a.x) + std::abs(b.y - a.y);
        if (length < 2 * steps_per_px || n <= 4 || !ends_stairs(ring, i)) continue;
        const bool end = is_flat_end(ring, i, within);
        const int stay = length / 4;
        std::vector<std::pair<int, bool>> places;                                      // by their distance from a
        for (const int part : {205, 256, 341, 410, 512, 614, 683, 768, 819, 1024}) {   // of 1024 of a pixel
            const int far = (part * steps_per_px + 512) / 1024;
            places.insert(places.end(), {{far, false}, {length - far, false}});
        }
        if (end) places.insert(places.end(), {{stay, true}, {length - stay, true}});
        std::sort(places.begin(), places.end());
        for (const auto& [far, stays] : places) {
            const Point p{a.x + (b.x > a.x   ? far
                                 : b.x < a.x ? -far
                                             : 0),
                          a.y + (b.y > a.y   ? far
                                 : b.y < a.y ? -far
                                             : 0)};
            if (all.back().at == p)
                all.back().stays = all.back().stays || stays;
            else
                all.push_back({p, stays, false});
        }
    }
    return all;
}

Ring simplified(Ring ring, double within) {
    std::vector<TraceCandidate> all = candidates_of(ring, within);
    const std::size_t n = all.size();
    const auto first = static_cast<std::size_t>(
        std::find_if(all.begin(), all.end(), [](const TraceCandidate& one) { return one.stays; }) - all.begin());
    Ring result;
    if (first == n) {   // nothing stays: from the vertex that is farthest from the middle, which stands out in any case
        const Region region{ring, {}};
        const Bounds box = *bounds({&region, 1});
        const double x = (double{0} + box.least.x + box.most.x) / 2, y = (double{0} + box.least.y + box.most.y) / 2;
        const auto away = [&](Point p) { return std::hypot(p.x - x, p.y - y); };
        std::rotate(ring.begin(),
                    std::max_element(ring.begin(), ring.end(), [&](Point p, Point q) { return away(p) < away(q); }),
                    ring.end());
        RingPart part;
        for (const Point p : ring) part.push_back({p});
        part.push_back({ring.front()});
        const RingPart kept =
            detail::fewest_of(part, within, ring.size() > 3 ? ring.size() - 2 : ring.size());   // three at least
        for (std::size_t k = 0; k + 1 < kept.size(); ++k) result.push_back(kept[k].at);
    } else {
        std::rotate(all.begin(), all.begin() + static_cast<std::ptrdiff_t>(first), all.end());
        for (std::size_t i = 0; i < n;) {
            RingPart part{all[i]};
            do part.push_back(all[++i % n]);
            while (!all[i % n].stays);
            const RingPart kept = detail::fewest_either_way(part, within, n);
            for (std::size_t k = 0; k + 1 < kept.size(); ++k) result.push_back(kept[k].at);
        }
    }
    // Parts that go on straight need no vertex between them.
    for (std::size_t i = 0; result.size() > 3 && i < result.size();) {
        const std::size_t m = result.size();
        if (turn(result[(i + m - 1) % m], result[i], result[(i + 1) % m]) == Turn::straight)
            result.erase(result.begin() + static_cast<std::ptrdiff_t>(i)), i = i == 0 ? 0 : i - 1;
        else
            ++i;
    }
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

// Returns whether some ring had to be walked more closely.
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
    detail::each_ring(regions, add);
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

// The outline of pixels, with few vertices.
//
// Idea. Runs of pixels are united exactly. Of each ring the corners between long edges stay, and the flat ends: edges
// at which it turns back, clearly longer than the runs beside them (a stone's foot, the top of a hill). Between them,
// from every vertex lead ways to those later ones that all vertices in between lie near to, or that a staircase of
// whole pixels leads to which stands for a straight edge, whatever its slope (a digital straight line: its corners lie
// in a narrow band; Reveilles, Geometrie discrete, calcul en nombres entiers et algorithmique, 1991). The shortest
// chain of ways has the fewest vertices (Imai and Iri 1988); of those one that keeps the slope of regular stairs is
// taken, so that a slope over several tiles goes on straight, and of these the one that lies nearest. Each part is
// walked from its upper end, so that mirrored pixels have mirrored outlines. Rings that would cross or touch others, or
// themselves, are walked again with half the distance, until nothing does; at last they are the pixels' own.
//
// Guarantee: valid; holes stay holes; every vertex of the pixels' outline lies within the distance of the result, or,
// where that is half a pixel or more, within the diagonal of a pixel.
//
// Cost: O(n w) for rings of n vertices, with w the vertices that a way may skip; the test for crossings O(m^2) in the
// vertices of the result, by boxes.

#include <algorithm>
#include <cmath>
#include <limits>
#include <numeric>

#include "arrangement_internal.hpp"
#include "ring_internal.hpp"

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

// A vertex, or a place on a long edge where a straight line along stairs may end: that need not be a pixel's corner.
struct TraceCandidate {
    Point at;
    bool stays = false;
    bool is_vertex = true;   // else it goes again where ways lead straight on through it
};

// A part of a ring, from one that stays to the next.
using RingPart = std::vector<TraceCandidate>;

// Whether the vertices from i to j are a staircase of single pixels that stands for the straight edge between the two.
bool is_staircase(const RingPart& part, std::size_t i, std::size_t j) {
    const std::int64_t dx = std::int64_t{part[j].at.x} - part[i].at.x, dy = std::int64_t{part[j].at.y} - part[i].at.y;
    if (dx == 0 || dy == 0) return false;
    // It may go back at an end, by less than a pixel: along the edge at which the picture ends, where the next one goes
    // on.
    std::size_t first = i, last = j;   // vertices
    while (first < j && !part[first].is_vertex) ++first;
    while (last > i && !part[last].is_vertex) --last;
    const auto is_near = [&](std::size_t one, std::size_t other) {
        return std::abs(part[one].at.x - part[other].at.x) + std::abs(part[one].at.y - part[other].at.y) < steps_per_px;
    };
    bool flat_steps = true, steep_steps = true;   // single pixels up, or aside
    std::int64_t least = 0, most = 0;
    for (std::size_t k = i; k < j; ++k) {
        const std::int64_t x = std::int64_t{part[k + 1].at.x} - part[k].at.x,
                           y = std::int64_t{part[k + 1].at.y} - part[k].at.y;
        const auto goes_back = [&](std::int64_t way, std::int64_t whole) {
            return way != 0 && (way > 0) != (whole > 0) && (k >= first || !is_near(i, first)) &&
                   (k < last || !is_near(last, j));
        };
        if (goes_back(x, dx) || goes_back(y, dy)) return false;
        flat_steps = flat_steps && std::abs(y) <= steps_per_px;
        steep_steps = steep_steps && std::abs(x) <= steps_per_px;
        const std::int64_t beside =
            dx * (std::int64_t{part[k].at.y} - part[i].at.y) - dy * (std::int64_t{part[k].at.x} - part[i].at.x);
        least = std::min(least, beside), most = std::max(most, beside);
    }
    // How high the band is in which all corners of a digital straight line from pixel to pixel lie; else a pixel, and
    // two steps more, since thirds of a pixel are not on the lattice.
    const std::int64_t longer = std::max(std::abs(dx), std::abs(dy)), shorter = std::min(std::abs(dx), std::abs(dy));
    std::int64_t band = (steps_per_px + 2) * longer;
    if (dx % steps_per_px == 0 && dy % steps_per_px == 0)
        band = std::max(band, steps_per_px * (longer + shorter - std::gcd(longer, shorter)));
    return (flat_steps || steep_steps) && most - least <= band;
}

// How far it goes along one axis, then along the other, from vertex i to j.
std::vector<Point> straights_between(const RingPart& part, std::size_t i, std::size_t j) {
    std::vector<Point> straights;
    for (std::size_t k = i; k < j; ++k) {
        const Point way{part[k + 1].at.x - part[k].at.x, part[k + 1].at.y - part[k].at.y};
        if (!straights.empty() && (straights.back().x == 0) == (way.x == 0))
            straights.back() = moved(straights.back(), way);
        else
            straights.push_back(way);
    }
    return straights;
}

// Whether the vertices from i to j are a staircase of single pixels whose steps are all equally long, those at its ends
// apart, and the way between the two has another slope than they have, or does not run along their corners on one side:
// it would not go on straight in the next tile.
bool is_off_stairs(const RingPart& part, std::size_t i, std::size_t j) {
    const std::vector<Point> straights = straights_between(part, i, j);
    const Point whole{part[j].at.x - part[i].at.x, part[j].at.y - part[i].at.y};
    const auto length = [](Point way, bool across) { return std::abs(across ? way.x : way.y); };
    for (const bool across : {true, false}) {   // steps across, or upright
        std::vector<std::int32_t> steps;        // between two pixels up each
        for (std::size_t k = 1; k + 1 < straights.size(); ++k)
            if (length(straights[k], across) > 0 && length(straights[k - 1], !across) == steps_per_px &&
                length(straights[k + 1], !across) == steps_per_px)
                steps.push_back(length(straights[k], across));
        const bool is_regular =
            steps.size() >= 2 && steps.front() > steps_per_px &&
            std::all_of(steps.begin(), steps.end(), [&](std::int32_t one) { return one == steps.front(); });
        if (!is_regular) continue;
        const std::int64_t run = std::int64_t{length(whole, across)} * steps_per_px,
                           rise = std::int64_t{length(whole, !across)} * steps.front();
        if (std::abs(run - rise) > 2 * std::int64_t{steps.front()}) return true;   // thirds of a pixel are rounded
        std::int64_t least = 0, most = 0;
        for (std::size_t k = i + 1; k < j; ++k) {
            const std::int64_t beside = cross(part[i].at, part[j].at, part[k].at);
            least = std::min(least, beside), most = std::max(most, beside);
        }
        const std::int64_t rounded = 2 * std::int64_t{std::max(std::abs(whole.x), std::abs(whole.y))};
        return least < -rounded && most > rounded;
    }
    return false;
}

// Whether a way leads along the edge on which a part begins, or ends: no vertex comes with it.
bool is_along(const TraceCandidate& end, const TraceCandidate& next, const TraceCandidate& to) {
    const Point a = end.at, b = next.at, c = to.at;
    return !end.is_vertex && ((a.x == b.x && a.x == c.x) || (a.y == b.y && a.y == c.y));
}

struct TrailCost {
    std::size_t vertices = std::numeric_limits<std::size_t>::max();
    std::size_t off_stairs = 0;   // ways
    double away = 0;              // the squared distances of all that is left out
    [[nodiscard]] bool better_than(const TrailCost& other) const {
        if (vertices != other.vertices) return vertices < other.vertices;
        return off_stairs != other.off_stairs ? off_stairs < other.off_stairs : away < other.away;
    }
};

struct Trail {
    RingPart kept;   // ends included
    TrailCost cost;
};

// The vertices that are kept of a part.
Trail fewest(const RingPart& part, double within, std::size_t most_skipped) {
    constexpr std::size_t most_failures = 48;   // ways this much longer than the last good one are not tried
    const bool may_be_stairs = within >= steps_per_px / 2.0;
    const std::size_t n = part.size();
    std::vector<TrailCost> cost(n);
    std::vector<std::size_t> from(n);
    cost[0] = {0, 0, 0};
    for (std::size_t i = 0; i + 1 < n; ++i) {
        std::size_t failures = 0;
        for (std::size_t j = i + 1; j < n && j - i <= most_skipped && failures < most_failures; ++j) {
            double away = 0;
            bool near = true;
            for (std::size_t k = i + 1; k < j; ++k) {
                const double here = distance_squared(part[k].at, part[i].at, part[j].at);
                near = near && here <= within * within;
                away += here;
            }
            if (!near && !(may_be_stairs && is_staircase(part, i, j))) {
                ++failures;
                continue;
            }
            failures = 0;
            const bool along = (i == 0 && is_along(part[0], part[1], part[j])) ||
                               (j == n - 1 && is_along(part[n - 1], part[n - 2], part[i]));
            TrailCost there{cost[i].vertices + (along ? 0 : 1), cost[i].off_stairs, cost[i].away + away};
            if (there.vertices > cost[j].vertices) continue;
            if (may_be_stairs && is_off_stairs(part, i, j)) ++there.off_stairs;
            if (!there.better_than(cost[j])) continue;
            cost[j] = there;
            from[j] = i;
        }
    }
    RingPart kept{part.back()};
    for (std::size_t i = n - 1; i > 0; i = from[i]) kept.push_back(part[from[i]]);
    std::reverse(kept.begin(), kept.end());
    return {std::move(kept), cost.back()};
}

RingPart turned_round(RingPart part) {
    std::reverse(part.begin(), part.end());
    return part;
}

bool is_mirrored_in_itself(const RingPart& part) {
    const std::int64_t twice_middle = std::int64_t{part.front().at.x} + part.back().at.x;
    for (std::size_t k = 0; k < part.size(); ++k) {
        const TraceCandidate &one = part[k], &other = part[part.size() - 1 - k];
        if (one.at.y != other.at.y || std::int64_t{one.at.x} + other.at.x != twice_middle) return false;
    }
    return true;
}

// How far from the middle a chain's vertices are, the highest first: the same for a chain and its mirror image.
std::vector<std::pair<std::int32_t, std::int64_t>> without_side(const Trail& chain) {
    const std::int64_t twice_middle = std::int64_t{chain.kept.front().at.x} + chain.kept.back().at.x;
    std::vector<std::pair<std::int32_t, std::int64_t>> places;
    for (const TraceCandidate& one : chain.kept)
        places.emplace_back(one.at.y, std::abs(2 * std::int64_t{one.at.x} - twice_middle));
    std::sort(places.begin(), places.end());
    return places;
}

// What is kept of a part, so that of its mirror image the mirror image is kept: walked from its upper end. Where both
// are at one height the better of two walks is taken; where it is its own mirror image, half of it is walked.
RingPart fewest_either_way(const RingPart& part, double within, std::size_t most_skipped) {
    const auto walked = [&](const RingPart& way) { return fewest(way, within, most_skipped); };
    if (part.front().at.y < part.back().at.y) return walked(part).kept;
    if (part.front().at.y > part.back().at.y) return turned_round(walked(turned_round(part)).kept);
    if (part.size() > 3 && is_mirrored_in_itself(part)) {
        const auto middle = static_cast<std::ptrdiff_t>((part.size() + 1) / 2);
        const auto half = [&](RingPart way) {
            return way.front().at.y <= way.back().at.y ? walked(way).kept
                                                       : turned_round(walked(turned_round(std::move(way))).kept);
        };
        RingPart kept = half(RingPart(part.begin(), part.begin() + middle));
        const RingPart other = turned_round(half(turned_round(RingPart(part.end() - middle, part.end()))));
        kept.insert(kept.end(), other.begin() + (part.size() % 2), other.end());
        return kept;
    }
    const Trail there = walked(part), back = walked(turned_round(part));
    const bool back_is_better = back.cost.better_than(there.cost) ||
                                (!there.cost.better_than(back.cost) && without_side(back) < without_side(there));
    return back_is_better ? turned_round(back.kept) : there.kept;
}

// Whether the edge from vertex i is a flat end: the ring turns back at it, it is clearly longer than the runs beside
// it, and what it ends stands out by more than the distance.
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
    // How far it stands out, and how long the next run is, to each side.
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

// Whether a vertex is a corner: both its edges are long, and neither is a step of a staircase.
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

// Whether a straight line along stairs may end on the edge from vertex i: where that edge is not one of the stairs.
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
            fewest(part, within, ring.size() > 3 ? ring.size() - 2 : ring.size()).kept;   // three at least
        for (std::size_t k = 0; k + 1 < kept.size(); ++k) result.push_back(kept[k].at);
    } else {
        std::rotate(all.begin(), all.begin() + static_cast<std::ptrdiff_t>(first), all.end());
        for (std::size_t i = 0; i < n;) {
            RingPart part{all[i]};
            do part.push_back(all[++i % n]);
            while (!all[i % n].stays);
            const RingPart kept = fewest_either_way(part, within, n);
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

// Ways along parts of the outline of pixels: which vertices are kept of them.
//
// Idea. From every vertex, ways lead to each later vertex such that all vertices in between lie near the straight way,
// or form a staircase of whole pixels that stands for a straight edge of any slope (a digital straight line: its
// corners lie in a narrow band; Reveilles, Geometrie discrete, calcul en nombres entiers et algorithmique, 1991). The
// shortest chain of ways has the fewest vertices (Imai and Iri 1988); of those one that keeps the slope of regular
// stairs is taken, so that a slope over several tiles goes on straight, and of these the one that lies nearest.
//
// Guarantee: what is left out lies within the distance of the ways, or, where that is half a pixel or more, within the
// diagonal of a pixel. Cost: O(n w) for parts of n vertices, with w the vertices that a way may skip.

#include <algorithm>
#include <cstdlib>
#include <limits>
#include <numeric>
#include <utility>

#include "trace_internal.hpp"

namespace dryground::detail {

namespace {

double distance_squared(Point p, Point a, Point b) {
    const double dx = double{0} + b.x - a.x, dy = double{0} + b.y - a.y, px = double{0} + p.x - a.x,
                 py = double{0} + p.y - a.y;
    const double length = dx * dx + dy * dy, t = length == 0 ? 0 : std::clamp((px * dx + py * dy) / length, 0.0, 1.0);
    return (px - t * dx) * (px - t * dx) + (py - t * dy) * (py - t * dy);
}

// Returns whether the vertices from i to j are a staircase of single pixels that stands for the straight edge between
// the two.
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
    // The height of the band in which all corners of a digital straight line from pixel to pixel lie; at least
    // a pixel, plus two steps, since thirds of a pixel are not on the lattice.
    const std::int64_t longer = std::max(std::abs(dx), std::abs(dy)), shorter = std::min(std::abs(dx), std::abs(dy));
    std::int64_t band = (steps_per_px + 2) * longer;
    if (dx % steps_per_px == 0 && dy % steps_per_px == 0)
        band = std::max(band, steps_per_px * (longer + shorter - std::gcd(longer, shorter)));
    return (flat_steps || steep_steps) && most - least <= band;
}

// Returns how far it goes along one axis, then along the other, from vertex i to j.
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

// Returns whether the vertices from i to j are a staircase of single pixels whose steps are all equally long, except at
// its ends, while the straight way between the two has another slope, or does not run along their corners on one side:
// it would not continue straight in the next tile.
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

// Returns whether a way leads along the edge on which a part begins or ends: no vertex comes with it.
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

// Returns the vertices that are kept of a part.
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

// Returns how far from the middle a chain's vertices are, the highest first: the same for a chain and its mirror image.
std::vector<std::pair<std::int32_t, std::int64_t>> without_side(const Trail& chain) {
    const std::int64_t twice_middle = std::int64_t{chain.kept.front().at.x} + chain.kept.back().at.x;
    std::vector<std::pair<std::int32_t, std::int64_t>> places;
    for (const TraceCandidate& one : chain.kept)
        places.emplace_back(one.at.y, std::abs(2 * std::int64_t{one.at.x} - twice_middle));
    std::sort(places.begin(), places.end());
    return places;
}

}   // namespace

RingPart fewest_of(const RingPart& part, double within, std::size_t most_skipped) {
    return fewest(part, within, most_skipped).kept;
}

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

}   // namespace dryground::detail

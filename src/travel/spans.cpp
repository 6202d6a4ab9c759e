// Spans of x at one height, or between two.
//
// Cost: each operation is linear in the spans, which are few.

#include "spans_internal.hpp"

#include <algorithm>

namespace dryground::travel {

void sort_and_join(Spans& spans) {
    if (spans.size() < 2) return;
    if (!std::is_sorted(spans.begin(), spans.end())) std::sort(spans.begin(), spans.end());
    std::size_t last = 0;
    for (std::size_t i = 1; i < spans.size(); ++i)
        if (spans[i][0] <= spans[last][1])
            spans[last][1] = std::max(spans[last][1], spans[i][1]);
        else
            spans[++last] = spans[i];
    spans.resize(last + 1);
}

bool any_meets(const Spans& spans, const Span& other) {
    return std::any_of(spans.begin(), spans.end(),
                       [&](const Span& span) { return span[0] <= other[1] && span[1] >= other[0]; });
}

void spread(const Spans& spans, Spans& barred, double far, Spans& reached) {
    reached.clear();
    sort_and_join(barred);
    for (std::size_t gap = 0; gap <= barred.size(); ++gap) {   // before each, and behind the last
        const double free_from = gap > 0 ? barred[gap - 1][1] : -1e18,
                     free_to = gap < barred.size() ? barred[gap][0] : 1e18;
        for (const auto& [least, most] : spans) {
            const double from = std::max(free_from, least), to = std::min(free_to, most);
            if (from <= to) reached.push_back({std::max(free_from, from - far), std::min(free_to, to + far)});
        }
    }
    sort_and_join(reached);
}

namespace {

// Returns where a level runs through the inside of a ring.
std::optional<Span> at_level(std::span<const Point> convex, double y) {
    double least = 1e300, most = -1e300, lowest = -1e300;
    Point p = convex.back();
    for (const Point q : convex) {
        lowest = std::max<double>(lowest, q.y);
        if ((p.y < y) != (q.y < y)) {
            const double x = p.x + (static_cast<double>(q.x) - p.x) * (y - p.y) / (static_cast<double>(q.y) - p.y);
            least = std::min(least, x), most = std::max(most, x);
        }
        p = q;
    }
    return least < most && lowest > y ? std::optional(Span{least, most}) : std::nullopt;
}

}   // namespace

std::optional<Span> between(std::span<const Point> convex, double top, double bottom) {
    if (top == bottom) return at_level(convex, top);
    double least = 1e300, most = -1e300, highest = 1e300, lowest = -1e300;
    for (std::size_t i = 0; i < convex.size(); ++i) {
        const Point p = convex[i], q = convex[(i + 1) % convex.size()];
        highest = std::min<double>(highest, p.y), lowest = std::max<double>(lowest, p.y);
        const auto take = [&](double x) { least = std::min(least, x), most = std::max(most, x); };
        if (p.y >= top && p.y <= bottom) take(p.x);
        for (const double level : {top, bottom})
            if ((p.y < level) != (q.y < level))
                take(p.x + (static_cast<double>(q.x) - p.x) * (level - p.y) / (static_cast<double>(q.y) - p.y));
    }
    return least < most && highest < bottom && lowest > top ? std::optional(Span{least, most}) : std::nullopt;
}

std::optional<Span> filled_between(std::span<const Point> convex, double top, double bottom) {
    const auto above = at_level(convex, top);
    if (!above || top == bottom) return above;
    const auto below = at_level(convex, bottom);
    if (!below) return std::nullopt;
    const Span both{std::max((*above)[0], (*below)[0]), std::min((*above)[1], (*below)[1])};
    return both[0] < both[1] ? std::optional(both) : std::nullopt;
}

std::optional<Span> part_between(Point c, Point d, double top, double bottom) {
    if (c.y == d.y) {
        if (c.y < top || c.y > bottom) return std::nullopt;
        return Span{static_cast<double>(std::min(c.x, d.x)), static_cast<double>(std::max(c.x, d.x))};
    }
    const double at_top = (top - c.y) / (static_cast<double>(d.y) - c.y),
                 at_bottom = (bottom - c.y) / (static_cast<double>(d.y) - c.y);
    const double from = std::max(0.0, std::min(at_top, at_bottom)), to = std::min(1.0, std::max(at_top, at_bottom));
    if (from > to) return std::nullopt;
    const auto x = [&](double t) { return c.x + t * (static_cast<double>(d.x) - c.x); };
    return Span{std::min(x(from), x(to)), std::max(x(from), x(to))};
}

}   // namespace dryground::travel

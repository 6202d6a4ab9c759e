// Spans of x at one height, or between two.
//
// Cost: each operation is linear in the spans, which are few.

#include "spans_internal.hpp"

#include <algorithm>

namespace dryground::travel {

namespace {

// Adds what lies between spans.
Spans gaps(Spans spans) {
    sort_and_join(spans);
    Spans gaps;
    double from = -1e18;
    for (const auto& [least, most] : spans) {
        if (least >= from) gaps.push_back({from, least});
        from = std::max(from, most);
    }
    gaps.push_back({from, 1e18});
    return gaps;
}

}   // namespace

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

Spans spread(const Spans& spans, Spans barred, double far) {
    Spans reached;
    if (barred.empty()) {   // mostly
        for (const Span& span : spans) reached.push_back({span[0] - far, span[1] + far});
        sort_and_join(reached);
        return reached;
    }
    for (const auto& [free_from, free_to] : gaps(std::move(barred)))
        for (const auto& [least, most] : spans) {
            const double from = std::max(free_from, least), to = std::min(free_to, most);
            if (from <= to) reached.push_back({std::max(free_from, from - far), std::min(free_to, to + far)});
        }
    sort_and_join(reached);
    return reached;
}

std::optional<Span> between(const Ring& convex, double top, double bottom) {
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
    if (least >= most || highest >= bottom || lowest <= top) {
        // One level runs through the inside, too.
        if (top != bottom || least >= most || highest >= top || lowest <= top) return std::nullopt;
    }
    return Span{least, most};
}

std::optional<Span> filled_between(const Ring& convex, double top, double bottom) {
    const auto above = between(convex, top, top);
    if (!above || top == bottom) return above;
    const auto below = between(convex, bottom, bottom);
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

// Inside the travel room: what lies left of a point.
#pragma once

#include <cstdint>
#include <limits>
#include <optional>
#include <utility>

#include "../geometry/box_index_internal.hpp"

namespace dryground::travel {

// An edge with the solid on its left by the numbers.
struct SolidEdge {
    Point from, to;
};

// Returns how far an edge moves to the right for each step down, from its upper end; horizontal ones come after all
// others.
[[nodiscard]] inline double lean(Point top, Point low) {
    return top.y == low.y ? std::numeric_limits<double>::infinity()
                          : (static_cast<double>(low.x) - top.x) / (static_cast<double>(low.y) - top.y);
}

// An edge, and at which x, with which lean, it crosses a level: of those that begin there, the lower one counts.
struct Left {
    std::size_t edge;
    std::pair<double, double> crosses_at;
};

// Returns which edge crosses the level of a point as the nearest one left of it; each edge without its lower end. At
// the point itself only those that lean less than `before`. edge_of(i) gives the SolidEdge whose box, moved by `by`,
// lies within the i-th box of the index; or nothing if that is no edge. Exact. Cost: what is near the way to that edge.
template <class EdgeOf>
std::optional<Left> left_of(const detail::BoxIndex& near, Point by, Point p, double before, EdgeOf edge_of) {
    if (near.empty()) return std::nullopt;
    const std::int64_t least = std::int64_t{near.all().least.x} - by.x;
    for (std::int64_t back = near.bucket();; back *= 2) {   // further back each time, until one is found
        const std::int64_t from = std::max<std::int64_t>(least, p.x - back);
        if (p.x < least) return std::nullopt;
        std::optional<Left> nearest;
        const Point at = moved(p, by);
        near.each_near({{static_cast<std::int32_t>(from + by.x), at.y}, at}, [&](std::size_t i) {
            const std::optional<SolidEdge> edge = edge_of(i);
            if (!edge) return;
            const auto [top, low] = std::minmax(edge->from, edge->to);
            if (p.y < top.y || p.y >= low.y || cross(top, low, p) > 0) return;   // p lies left of it
            const double leans = lean(top, low);
            if (leans >= before && cross(top, low, p) == 0) return;
            const std::pair x{top.x + leans * (static_cast<double>(p.y) - top.y), leans};
            if (!nearest || x > nearest->crosses_at) nearest = Left{i, x};
        });
        // What crosses further left may reach into this stretch, too, but is no nearer than its end.
        if (from == least || (nearest && nearest->crosses_at.first >= static_cast<double>(from))) return nearest;
    }
}

}   // namespace dryground::travel

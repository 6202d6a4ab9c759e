// Inside the library: boxes, edges included.
#pragma once

#include <algorithm>
#include <span>

#include "dryground/geometry.hpp"

namespace dryground::detail {

[[nodiscard]] inline bool meet(const Bounds& a, const Bounds& b) {
    return a.least.x <= b.most.x && b.least.x <= a.most.x && a.least.y <= b.most.y && b.least.y <= a.most.y;
}
[[nodiscard]] inline Bounds both(const Bounds& a, const Bounds& b) {
    return {{std::min(a.least.x, b.least.x), std::min(a.least.y, b.least.y)},
            {std::max(a.most.x, b.most.x), std::max(a.most.y, b.most.y)}};
}
[[nodiscard]] inline Bounds box_around(std::span<const Point> points) {   // one point or more
    Bounds box{points[0], points[0]};
    for (const Point p : points) box = both(box, {p, p});
    return box;
}
[[nodiscard]] inline Bounds moved(const Bounds& box, Point by) {
    return {dryground::moved(box.least, by), dryground::moved(box.most, by)};
}
[[nodiscard]] inline Bounds grown(const Bounds& box, std::int32_t by) {
    return {{box.least.x - by, box.least.y - by}, {box.most.x + by, box.most.y + by}};
}
// Returns how far a box has to move so that its middle is that of another.
[[nodiscard]] inline Point in_middle(const Bounds& of, const Bounds& box) {
    const auto middle = [](std::int32_t least, std::int32_t most) { return least + (most - least) / 2; };
    return {middle(of.least.x, of.most.x) - (box.least.x + box.most.x) / 2,
            middle(of.least.y, of.most.y) - (box.least.y + box.most.y) / 2};
}

}   // namespace dryground::detail

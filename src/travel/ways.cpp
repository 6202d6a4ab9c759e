// What all ways of moving share: the ground that stops a mover, ranges, lengths.

#include <algorithm>
#include <cmath>

#include "ways_internal.hpp"

namespace dryground::travel {

std::vector<Group> groups_of(const WaysOf& of) {
    MergeOptions options;
    options.forms = {};
    options.mover = of.mover;
    options.facts = of.facts;
    return merge(of.world, of.map, options).groups;
}

std::unique_ptr<Ways> ways_of(const WaysOf& of) {
    switch (of.figures().moves) {
        case Moves::steps:
            return ways_by_steps(of);
        case Moves::free:
            return ways_free(of);
        case Moves::side:
            break;
    }
    return ways_from_side(of);
}

bool is_walked(const Bounds& box) {
    constexpr std::int32_t far = coordinate_limit / 2;
    return box.least.x >= -far && box.least.y >= -far && box.most.x <= far && box.most.y <= far;
}

bool is_small(const Bounds& body) {
    constexpr std::int32_t large = coordinate_limit / 16;
    return body.least.x >= -large && body.least.y >= -large && body.most.x <= large && body.most.y <= large;
}

std::vector<Bounds> positions_near(const std::vector<Bounds>& boxes, const Mover& mover, std::int32_t near) {
    const Bounds body = detail::box_around(mover.body.front().outline);
    std::vector<Bounds> positions;
    for (const Bounds& box : boxes)
        positions.push_back(detail::grown(Bounds{{box.least.x - body.most.x, box.least.y - body.most.y},
                                                 {box.most.x - body.least.x, box.most.y - body.least.y}},
                                          near));
    return positions;
}

Point steps_of(PointPx p) {
    const auto steps = [](double px) {
        return static_cast<std::int32_t>(std::lround(std::clamp(
            px * steps_per_px, -static_cast<double>(coordinate_limit), static_cast<double>(coordinate_limit))));
    };
    return {steps(p.x), steps(p.y)};
}
PointPx px_of(Point p) { return {to_px(p.x), to_px(p.y)}; }

double length_px(const Ring& way) {
    double length = 0;
    for (std::size_t i = 0; i + 1 < way.size(); ++i)
        length +=
            std::hypot(static_cast<double>(way[i + 1].x) - way[i].x, static_cast<double>(way[i + 1].y) - way[i].y);
    return length / steps_per_px;
}

}   // namespace dryground::travel

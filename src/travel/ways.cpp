#include <cmath>

#include "ways_internal.hpp"

namespace dryground::travel {

std::vector<Group> groups_of(const WaysOf& of) {
    MergeOptions options;
    options.chains = options.pieces = false;
    options.mover = of.mover;
    options.facts = of.facts;
    return merge(of.world, of.map, options).groups;
}

std::unique_ptr<Ways> ways_of(const WaysOf& of) {
    switch (of.figures().moves) {
        case Moves::steps: return ways_by_steps(of);
        case Moves::free: return ways_free(of);
        case Moves::side: break;
    }
    return ways_from_side(of);
}

double length_px(const Ring& way) {
    double length = 0;
    for (std::size_t i = 0; i + 1 < way.size(); ++i)
        length += std::hypot(static_cast<double>(way[i + 1].x) - way[i].x, static_cast<double>(way[i + 1].y) - way[i].y);
    return length / steps_per_px;
}

}   // namespace dryground::travel

// Computes what a stack covers, once, when it first turns up, by the general boolean inside one cell.

#include "stacks_internal.hpp"

namespace dryground::detail {

std::uint32_t Stacks::make(std::uint32_t below, std::size_t step, std::uint32_t meaning, std::size_t place) {
    const auto made = static_cast<std::uint32_t>(stacks_.size());
    Stack next;
    next.steps = stacks_[below].steps;
    next.steps.emplace_back(step, meaning);
    cover_of_.push_back(intern(cover_for(next)));
    stacks_.push_back(std::move(next));
    std::vector<std::uint32_t>& tops = stacks_[below].tops;
    if (tops.size() <= place) tops.resize(place + 1, 0);
    return tops[place] = made;
}

Cover Stacks::cover_for(const Stack& stack) const {
    std::vector<PaintLayer> layers;
    const Regions cell = moved(Regions{{map_.cell_ring(0, 0), {}}}, {-map_.corner(0, 0).x, -map_.corner(0, 0).y});
    for (const auto& [number, meaning] : stack.steps) {
        const Step& step = plan_.steps[number];
        if (step.layer == nullptr) {
            layers.push_back({step.loose.adds, step.loose.label, cell});
            continue;
        }
        std::map<std::pair<bool, int>, Regions> areas;
        for (const Part& part : step.parts[meaning - 1]) {
            Regions& area = areas[{part.adds, part.label}];
            area.insert(area.end(), part.area.begin(), part.area.end());
        }
        for (auto& [sort, area] : areas) layers.push_back({sort.first, sort.second, std::move(area)});
    }
    std::vector<LabelledRing> rings = dryground::stack(layers).rings;
    for (LabelledRing& ring : rings)
        for (Point& p : ring.points) p = grid_.flat(p);
    return make_cover(rings, grid_.width(), grid_.height());
}

}   // namespace dryground::detail

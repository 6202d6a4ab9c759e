// Merges a group by the general boolean alone, every shape separately: for tests, and for what cells cannot do.

#include <algorithm>

#include "../ground/ground_internal.hpp"
#include "cells/stacking_internal.hpp"

namespace dryground::detail {

Stacked merge_generally(const Map& map, const Plan& plan) {
    std::vector<PaintLayer> layers;   // in the order of the steps
    for (const Step& step : plan.steps) {
        if (step.layer == nullptr) {
            layers.push_back({step.loose.adds, step.loose.label, step.loose.whole(map)});
            continue;
        }
        std::map<std::pair<bool, int>, Regions> areas;   // by whether they add, and label
        for (int r = 0; r < map.rows; ++r)
            for (int c = 0; c < map.columns; ++c) {
                const std::uint32_t meaning = step.meaning[map.number(*step.layer, c, r)];
                if (meaning == 0) continue;
                for (const Part& part : step.parts[meaning - 1])
                    append(areas[{part.adds, part.label}], moved(part.area, map.corner(c, r)));
            }
        for (auto& [sort, area] : areas) layers.push_back({sort.first, sort.second, std::move(area)});
    }
    if (plan.holds_rim) layers.push_back({true, 0, ground::rim_of(map).area});
    return stack(layers);
}

}   // namespace dryground::detail

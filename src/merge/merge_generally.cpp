// Merging a group by the general boolean alone, every shape on its own.

#include <algorithm>

#include "../ground/ground_internal.hpp"
#include "stacking_internal.hpp"

namespace dryground::detail {

namespace {

// By their boxes.
bool apart(const Region& a, const Region& b) {
    const Bounds s = *bounds({&a, 1}), t = *bounds({&b, 1});
    return s.most.x < t.least.x || t.most.x < s.least.x || s.most.y < t.least.y || t.most.y < s.least.y;
}

// The coats of the cells of a block, in the order of the steps.
std::vector<Coat> coats_of(const Map& map, const Plan& plan, const Block& block) {
    std::vector<Coat> coats;
    const int first_row = std::max(0, block.row), last_row = std::min(map.rows, block.row + block.rows),
              first_column = std::max(0, block.column),
              last_column = std::min(map.columns, block.column + block.columns);
    for (const Step& step : plan.steps) {
        if (step.layer == nullptr) {
            coats.push_back(step.loose);
            continue;
        }
        std::map<std::pair<bool, int>, Regions> areas;   // by whether they add, and label
        for (int r = first_row; r < last_row; ++r)
            for (int c = first_column; c < last_column; ++c) {
                const std::uint32_t meaning = step.meaning[map.number(*step.layer, c, r)];
                if (meaning == 0) continue;
                for (const Part& part : step.parts[meaning - 1])
                    append(areas[{part.adds, part.label}], moved(part.area, map.corner(c, r)));
            }
        for (auto& [sort, area] : areas) coats.push_back({sort.first, sort.second, std::move(area)});
    }
    if (plan.rim) coats.push_back({true, 0, ground::rim_area(map)});
    return coats;
}

}   // namespace

Stacked merge_generally(const Map& map, const Plan& plan) {
    return stack(coats_of(map, plan, {0, 0, map.columns, map.rows}));
}

Stacked merge_generally(const Map& map, const Plan& plan, const Block& block) {
    const Regions cut{{map.block_ring(block.column, block.row, block.columns, block.rows), {}}};
    std::vector<Coat> coats = coats_of(map, plan, block);
    Regions all = cut;
    for (Coat& coat : coats) {
        std::erase_if(coat.area, [&](const Region& region) { return apart(region, cut[0]); });
        append(all, coat.area);
    }
    const Bounds box = *bounds(all);
    const Region frame{box_ring({box.least.x - 1, box.least.y - 1}, {box.most.x + 1, box.most.y + 1}), {}};
    coats.push_back({false, 0, subtract(Regions{frame}, cut)});
    return stack(coats);
}

}   // namespace dryground::detail

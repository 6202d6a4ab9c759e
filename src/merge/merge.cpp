#include "dryground/merge.hpp"

#include <algorithm>
#include <map>
#include <tuple>

#include "stacking_internal.hpp"

namespace dryground {

namespace {

std::vector<Chain> chains_of(std::vector<LabelledRing> rings) {
    std::vector<Chain> chains;
    for (LabelledRing& ring : rings) chains.push_back({std::move(ring.points), std::move(ring.labels)});
    return chains;
}

// Keeps the surfaces that chains show, sorted, the empty one first, and renumbers the chains' segments.
std::vector<Surface> used_surfaces(const std::vector<Surface>& all, std::vector<Group>& groups) {
    std::map<Surface, int> used{{Surface{}, 0}};
    for (const Group& group : groups)
        for (const Chain& chain : group.chains)
            for (const int label : chain.surfaces) used[all[static_cast<std::size_t>(label)]] = 0;
    std::vector<Surface> result;
    for (auto& [surface, number] : used) {   // the empty surface is the least
        number = static_cast<int>(result.size());
        result.push_back(surface);
    }
    for (Group& group : groups)
        for (Chain& chain : group.chains)
            for (int& label : chain.surfaces) label = used[all[static_cast<std::size_t>(label)]];
    return result;
}

}   // namespace

const Group& Merge::group(std::string_view barrier, std::string_view storey) const {
    static const Group none;
    for (const Group& group : groups)
        if (group.barrier == barrier && group.storey == storey && group.trigger.empty()) return group;
    return none;
}

Merge merge(const World& world, const Map& map, const MergeOptions& options) {
    detail::Stacking stacking = detail::stack_up(world, map);
    Merge result;
    result.map = map.name;
    result.stats = stacking.stats;
    for (const auto& [key, plan] : stacking.plans) {
        Stacked stacked = detail::merge_cells(map, plan, options.chains);
        if (stacked.regions.empty()) continue;
        Group group;
        group.storey_id = key.storey;
        group.barrier_id = key.barrier;
        group.storey = world.storeys()[static_cast<std::size_t>(key.storey)].name;
        if (key.barrier >= 0) group.barrier = world.barriers()[static_cast<std::size_t>(key.barrier)].name;
        group.trigger = key.trigger;
        group.chains = chains_of(std::move(stacked.rings));
        const int most = options.most_vertices >= 3 ? options.most_vertices : world.merging().most_vertices;
        if (options.pieces) group.pieces = convex_pieces(stacked.regions, most);
        group.regions = std::move(stacked.regions);
        result.groups.push_back(std::move(group));
    }
    std::sort(result.groups.begin(), result.groups.end(), [](const Group& a, const Group& b) {
        return std::tie(a.storey, a.barrier, a.trigger) < std::tie(b.storey, b.barrier, b.trigger);
    });
    result.surfaces = used_surfaces(stacking.surfaces, result.groups);
    return result;
}

Regions blocked_area(const World& world, const Map& map, int mover_id, int storey) {
    const Mover& mover = world.movers()[static_cast<std::size_t>(mover_id)];
    detail::Stacking stacking = detail::stack_up(world, map);
    Regions area;
    for (const auto& [key, plan] : stacking.plans)
        if (key.storey == storey && std::binary_search(mover.stopped_by.begin(), mover.stopped_by.end(), key.barrier)) {
            Regions regions = detail::merge_cells(map, plan, false).regions;
            area.insert(area.end(), regions.begin(), regions.end());
        }
    if (mover.needs != 0)
        for (int r = 0; r < map.rows; ++r)
            for (int c = 0; c < map.columns; ++c)
                if ((passability(world, map, c, r, storey).flags & mover.needs) == 0)
                    area.push_back({map.cell_ring(c, r), {}});
    return unite(area);
}

}   // namespace dryground

#include "dryground/merge.hpp"

#include <algorithm>
#include <array>
#include <map>
#include <set>
#include <tuple>

#include "forms_internal.hpp"

namespace dryground {

namespace {

// Makes groups of one map, in the forms that are asked for.
class Merger {
public:
    Merger(const World& world, const Map& map, const MergeOptions& options)
        : world_(world), map_(map), options_(options), stacking_(detail::stack_up(world, map)) {}

    Merge run() {
        Merge result;
        result.map = map_.name;
        result.stats = stacking_.stats;
        if (options_.mover >= 0)
            merge_for_mover();
        else
            merge_barriers();
        std::sort(groups_.begin(), groups_.end(), [](const Group& a, const Group& b) {
            return std::tie(a.storey, a.barrier, a.trigger, a.one_way) <
                   std::tie(b.storey, b.barrier, b.trigger, b.one_way);
        });
        result.surfaces = used_surfaces();
        result.groups = std::move(groups_);
        return result;
    }

private:
    void merge_barriers() {
        Regions solid;   // of the barrier at hand, which its one-way lines, that come after it, keep out of
        std::pair<int, int> solid_of{-1, -1};
        for (const auto& [key, plan] : stacking_.plans) {
            Group group = detail::named_group(world_, key);
            Stacked stacked = detail::merge_cells(map_, plan, options_.chains && options_.grow == 0);
            if (key.one_way == OneWay::none) {
                solid = stacked.regions;
                solid_of = {key.storey, key.barrier};
            } else if (solid_of != std::pair{key.storey, key.barrier}) {
                solid.clear();
            }
            std::vector<detail::JoinedLine> lines;
            if (!plan.lines.empty())
                lines = detail::lines_of(world_, map_, key, plan, key.trigger.empty() ? solid : Regions{});
            finish(std::move(group), std::move(stacked), lines, solid);
        }
    }

    void merge_for_mover() {
        const Mover& mover = world_.movers()[static_cast<std::size_t>(options_.mover)];
        std::set<int> storeys{0};
        for (const Layer& layer : map_.layers)
            if (!layer.decor) storeys.insert(layer.storey);
        for (const int storey : storeys) {
            Stacked stacked;
            stacked.regions = blocked_area(world_, map_, options_.mover, storey);
            const Regions solid = stacked.regions;
            if (options_.chains && options_.grow == 0) add_plain_rings(stacked);
            auto lines = detail::lines_for_mover(world_, map_, stacking_, mover, storey);
            (void)lines[OneWay::none];
            for (const auto& [one_way, pieces] : lines) {
                Group group = detail::named_group(world_, {storey, -1, {}, one_way});
                group.mover = mover.name;
                finish(std::move(group), one_way == OneWay::none ? std::move(stacked) : Stacked{},
                       detail::join_lines(detail::cut_lines(pieces, solid), one_way), solid);
            }
        }
    }

    // Fills in the forms of a group, and keeps it unless it is empty.
    void finish(Group group, Stacked stacked, const std::vector<detail::JoinedLine>& lines, const Regions& solid) {
        group.regions = std::move(stacked.regions);
        if (options_.grow != 0 && !group.regions.empty()) {
            group.regions = grown(group.regions, options_.grow, options_.corners, world_.merging().within_px);
            stacked.regions = group.regions;
            if (options_.chains) add_plain_rings(stacked);
        }
        if (group.regions.empty() && lines.empty()) return;
        for (LabelledRing& ring : stacked.rings)
            group.chains.push_back({.points = std::move(ring.points), .surfaces = std::move(ring.labels)});
        detail::add_line_forms(group, lines, solid, options_.chains);
        detail::add_area_forms(group, world_, options_);
        groups_.push_back(std::move(group));
    }

    // Rings whose surfaces nobody tells.
    static void add_plain_rings(Stacked& stacked) {
        stacked.rings.clear();
        const auto add = [&](const Ring& ring) { stacked.rings.push_back({ring, std::vector<int>(ring.size(), 0)}); };
        for (const Region& region : stacked.regions) {
            add(region.outline);
            for (const Ring& hole : region.holes) add(hole);
        }
        std::sort(stacked.rings.begin(), stacked.rings.end(),
                  [](const LabelledRing& a, const LabelledRing& b) { return a.points < b.points; });
    }

    // Keeps the surfaces that chains show, sorted, the empty one first, and renumbers the chains' segments.
    std::vector<Surface> used_surfaces() {
        const std::vector<Surface>& all = stacking_.surfaces;
        std::map<Surface, int> used{{Surface{}, 0}};
        for (const Group& group : groups_)
            for (const Chain& chain : group.chains)
                for (const int label : chain.surfaces) used[all[static_cast<std::size_t>(label)]] = 0;
        std::vector<Surface> result;
        for (auto& [surface, number] : used) {   // the empty surface is the least
            number = static_cast<int>(result.size());
            result.push_back(surface);
        }
        for (Group& group : groups_)
            for (Chain& chain : group.chains)
                for (int& label : chain.surfaces) label = used[all[static_cast<std::size_t>(label)]];
        return result;
    }

    const World& world_;
    const Map& map_;
    const MergeOptions& options_;
    detail::Stacking stacking_;
    std::vector<Group> groups_;
};

}   // namespace

const Group& Merge::group(std::string_view barrier, std::string_view storey) const {
    static const Group none;
    for (const Group& group : groups)
        if (group.barrier == barrier && group.storey == storey && group.trigger.empty() &&
            group.one_way == OneWay::none)
            return group;
    return none;
}

Merge merge(const World& world, const Map& map, const MergeOptions& options) {
    return Merger(world, map, options).run();
}

std::span<const std::string_view> form_names() {
    static constexpr std::array<std::string_view, 6> names{"regions", "lines", "chains",
                                                           "pieces",  "boxes", "triangles"};
    return names;
}

Regions blocked_area(const World& world, const Map& map, int mover_id, int storey) {
    const Mover& mover = world.movers()[static_cast<std::size_t>(mover_id)];
    const detail::Stacking stacking = detail::stack_up(world, map);
    Regions area;
    for (const auto& [key, plan] : stacking.plans)
        if (key.storey == storey && detail::stops(mover, key.barrier)) {
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

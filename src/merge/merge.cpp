// Merges one map: a group for each storey, barrier and trigger, or for a mover, in the requested forms.
//
// Idea. Groups do not depend on each other, so they can be merged in parallel; each is merged cell by cell (cells/),
// lines are cut by its ground (lines/), forms are added last (forms.cpp). Cost: that of the parts.

#include "dryground/merge.hpp"

#include <algorithm>
#include <array>
#include <map>
#include <set>
#include <stdexcept>
#include <tuple>

#include "../geometry/ring_internal.hpp"
#include "../ground/ground_internal.hpp"
#include "forms_internal.hpp"
#include "ground_plane_internal.hpp"
#include "least_edge_internal.hpp"
#include "lines/line_table_internal.hpp"

namespace dryground {

namespace {

constexpr Bounds everywhere{{-coordinate_limit, -coordinate_limit}, {coordinate_limit, coordinate_limit}};

// Makes groups of one map, in the requested forms.
class Merger {
public:
    Merger(const World& world, const Map& map, const MergeOptions& options)
        : world_(world),
          map_(map),
          options_(options),
          grid_(map),
          stacking_(detail::stack_up(world, map, options.facts)),
          table_(world, map, options.facts) {
        table_.learn(stacking_.surfaces);
        for (const detail::GroupKey& key : table_.keys()) stacking_.plans[key];   // lines may lie where no area is
    }

    Merge run() {
        Merge result;
        result.map = map_.name;
        result.stats = stacking_.stats;
        result.plane = options_.plane;
        if (options_.plane == Plane::ground) {
            result.cell = {grid_.width(), grid_.height()};
            detail::test_flat_range(map_, options_.grow);
        }
        if (options_.triggers) find_triggers();
        std::vector<Task> tasks = options_.mover != MoverId::none ? mover_tasks() : barrier_tasks();
        add_trigger_tasks(tasks);
        do_all(tasks);
        std::sort(groups_.begin(), groups_.end(), [](const Group& a, const Group& b) {
            return std::tie(a.storey, a.barrier, a.trigger, a.one_way) <
                   std::tie(b.storey, b.barrier, b.trigger, b.one_way);
        });
        result.surfaces = used_surfaces();
        result.groups = std::move(groups_);
        return result;
    }

private:
    using Groups = std::vector<Group>;
    using Task = std::function<void(Groups&)>;   // independent of the others

    void do_all(const std::vector<Task>& tasks) {
        std::vector<Groups> done(tasks.size());
        const std::function<void(std::size_t)> work = [&](std::size_t i) { tasks[i](done[i]); };
        if (options_.parallel_for)
            options_.parallel_for(tasks.size(), work);
        else
            for (std::size_t i = 0; i < tasks.size(); ++i) work(i);
        for (Groups& groups : done)
            groups_.insert(groups_.end(), std::make_move_iterator(groups.begin()),
                           std::make_move_iterator(groups.end()));
    }

    // Finds the areas of objects that sense: of triggers and links, by storey and name.
    void find_triggers() {
        for (const Object& object : map_.objects) {
            const bool senses = object.role == Role::trigger || object.role == Role::link;
            const bool asked = options_.mover == MoverId::none ||
                               std::find(object.by.begin(), object.by.end(), options_.mover) != object.by.end();
            if (!senses || !asked || object.area.empty() || !is_there(map_, object, options_.facts)) continue;
            const std::string& name = object.name.empty() ? world_.kind(object.kind).name : object.name;
            detail::append(sensing_[{object.storey, BarrierId::none, name, OneWay::none}], object.area);
        }
    }

    // Makes one group for each of these names; tiles may sense by the same name.
    void add_trigger_tasks(std::vector<Task>& tasks) {
        for (auto& sensing : sensing_)
            tasks.emplace_back([this, &key = sensing.first, &areas = sensing.second](Groups& groups) {
                Stacked stacked;
                const auto tiles = stacking_.plans.find(key);
                if (tiles != stacking_.plans.end() && options_.mover == MoverId::none)
                    detail::append(areas, detail::merge_cells(map_, tiles->second, false).regions);
                stacked.regions = unite(areas);
                if (options_.forms.has(MergeForm::chains) && options_.grow == 0) detail::add_plain_rings(stacked);
                Group group = detail::named_group(world_, key);
                if (options_.mover != MoverId::none) group.mover = world_.mover(options_.mover).name;
                finish(std::move(group), std::move(stacked), {}, {}, groups);
            });
    }

    // Makes one group for each barrier of a storey; its one-way lines, which come after it, are cut by its ground.
    [[nodiscard]] std::vector<Task> barrier_tasks() const {
        std::vector<Task> tasks;
        using Plans = std::vector<const std::pair<const detail::GroupKey, detail::Plan>*>;
        Plans plans;
        for (auto plan = stacking_.plans.begin(); plan != stacking_.plans.end(); ++plan) {
            plans.push_back(&*plan);
            const auto next = std::next(plan);
            if (next != stacking_.plans.end() && next->first.storey == plan->first.storey &&
                next->first.barrier == plan->first.barrier && next->first.trigger == plan->first.trigger)
                continue;
            tasks.emplace_back([this, plans](Groups& groups) {
                const auto has_lines = [this](const detail::GroupKey& key) { return table_.keys().count(key) > 0; };
                const bool any_lines =
                    std::any_of(plans.begin(), plans.end(), [&](const auto* one) { return has_lines(one->first); });
                Regions solid;   // what lines keep out of
                for (const auto* one : plans) {
                    const auto& [key, steps] = *one;
                    if (sensing_.count(key) > 0) continue;   // together with the objects of its name
                    Stacked stacked =
                        detail::merge_cells(map_, steps, options_.forms.has(MergeForm::chains) && options_.grow == 0);
                    if (any_lines && key.one_way == OneWay::none && key.trigger.empty()) solid = stacked.regions;
                    std::vector<detail::JoinedLine> lines;
                    if (has_lines(key))
                        lines = detail::join_lines(
                            detail::cut_lines(detail::without_doubles(table_.near(key, everywhere)), solid),
                            key.one_way);
                    finish(detail::named_group(world_, key), std::move(stacked), std::move(lines), solid, groups);
                }
            });
            plans.clear();
        }
        return tasks;
    }

    // Makes one group for each storey.
    [[nodiscard]] std::vector<Task> mover_tasks() const {
        std::vector<Task> tasks;
        for (const StoreyId storey : ground::storeys_of(map_))
            tasks.emplace_back([this, storey](Groups& groups) { merge_for_mover(storey, groups); });
        return tasks;
    }

    void merge_for_mover(StoreyId storey, Groups& groups) const {
        const Mover& mover = world_.mover(options_.mover);
        Stacked stacked;
        stacked.regions = detail::MoverGround(world_, map_, stacking_, mover, storey, options_.facts).whole();
        const Regions solid = stacked.regions;
        if (options_.forms.has(MergeForm::chains) && options_.grow == 0) detail::add_plain_rings(stacked);
        std::set<OneWay> ways = detail::ways_for_mover(world_, map_, table_, mover, storey);
        ways.insert(OneWay::none);
        for (const OneWay one_way : ways) {
            Group group = detail::named_group(world_, {storey, BarrierId::none, {}, one_way});
            group.mover = mover.name;
            Stacked none;   // only the first of them has ground
            if (one_way == OneWay::none) std::swap(none, stacked);
            const std::vector<detail::LinePiece> pieces = detail::without_doubles(
                detail::lines_for_mover(world_, map_, table_, mover, storey, options_.facts, one_way, everywhere));
            finish(std::move(group), std::move(none), detail::join_lines(detail::cut_lines(pieces, solid), one_way),
                   solid, groups);
        }
    }

    // Adds the forms of a group, and keeps it unless it is empty.
    void finish(Group group, Stacked stacked, std::vector<detail::JoinedLine> lines, Regions solid,
                Groups& groups) const {
        group.regions = std::move(stacked.regions);
        if (options_.grow != 0 && !group.regions.empty()) {
            group.regions = grown(group.regions, options_.grow, options_.corners, world_.merging().within_px);
            stacked.regions = group.regions;
            if (options_.forms.has(MergeForm::chains)) detail::add_plain_rings(stacked);
        }
        if (group.regions.empty() && lines.empty()) return;
        if (const std::int32_t least = detail::least_edge(world_); least > 0)
            detail::fuse_short_edges(stacked.rings, least, {});
        for (LabelledRing& ring : stacked.rings)
            group.chains.push_back({.points = std::move(ring.points), .surfaces = std::move(ring.labels)});
        if (options_.plane == Plane::ground && !grid_.is_flat()) {
            detail::lay_flat(grid_, group.regions);
            detail::lay_flat(grid_, group.chains);
            detail::lay_flat(grid_, lines);
            detail::lay_flat(grid_, solid);
        }
        if (!lines.empty()) {
            detail::Neighbours neighbours(lines);
            detail::each_edge(solid, [&](Point a, Point b) { neighbours.add(a, b); });
            detail::add_line_forms(group, lines, neighbours, options_.forms.has(MergeForm::chains));
        }
        detail::add_area_forms(group, world_, options_);
        groups.push_back(std::move(group));
    }

    // Keeps the surfaces that chains use, sorted, the empty one first, and renumbers the chains' segments.
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
    detail::Grid grid_;
    detail::Stacking stacking_;
    detail::LineTable table_;
    std::map<detail::GroupKey, Regions> sensing_;
    Groups groups_;
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

Regions blocked_area(const World& world, const Map& map, MoverId mover, StoreyId storey, const Facts& facts) {
    const detail::Stacking stacking = detail::stack_up(world, map, facts);
    return detail::MoverGround(world, map, stacking, world.movers().at(index(mover)), storey, facts).whole();
}

}   // namespace dryground

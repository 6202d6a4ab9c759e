// Ground that extends beyond its cells, near a place: reshaped layers, overhanging tiles, drawn solids.
//
// Idea. Solids that something is near to are found by a spatial index, tiles by the cells around the place; what a
// layer makes of all its solids is applied to these alone. Cost: that of what lies near.

#include "loose_ground_internal.hpp"

#include <algorithm>

#include "../../geometry/boolean_internal.hpp"
#include "../../ground/ground_internal.hpp"
#include "stacking_internal.hpp"

namespace dryground::detail {

namespace {

Bounds box_of(const Region& region) { return box_around(region.outline); }

// What a layer's solids cover together, and how many kinds of them there are.
struct Solids {
    Regions area;
    int sorts = 0;
};

Solids solids_of(const ReshapedLayer& of, const Map& map) {
    Regions all;
    for (const Plan& plan : of.plans) append(all, merge_cells(map, plan, false).regions);
    return {unite_proper(all), static_cast<int>(of.sorts.size())};
}

// Returns whether all of a plan stays in its cells, and all tiles that stand there are known to it.
bool keeps_to_cells(const Plan& plan, const Map& map) {
    return std::all_of(plan.steps.begin(), plan.steps.end(), [&](const Step& step) {
        return step.layer != nullptr && step.meaning.size() == map.palette.size();
    });
}

// Near a box. Only what comes near affects the result, so that an edit elsewhere does not even change rounding. If
// everything stays in its cells, they are merged by cells, which is many times as fast; that cuts nothing in two.
Solids solids_of(const ReshapedLayer& of, const Map& map, const Bounds& box) {
    Solids solids;
    const Bounds around = grown(box, ground::reshaping_reach(of.layer));
    for (const LooseGround& sort : of.sorts) solids.sorts += sort.stands_near(map, around) ? 1 : 0;
    if (solids.sorts == 0) return solids;
    if (std::all_of(of.plans.begin(), of.plans.end(), [&](const Plan& plan) { return keeps_to_cells(plan, map); })) {
        const auto [c0, r0, c1, r1] = map.cells_near(around);
        for (const Plan& plan : of.plans)
            append(solids.area, CellMerger(map, plan).block({c0, r0, c1 - c0 + 1, r1 - r0 + 1}, false).regions);
        if (of.plans.size() == 1) return solids;
    } else {
        for (const LooseGround& sort : of.sorts) append(solids.area, sort.near(map, around));
    }
    solids.area = unite_proper(solids.area);
    return solids;
}

}   // namespace

void LooseGround::add_objects(const Regions& areas) {
    objects_.insert(objects_.end(), areas.begin(), areas.end());
    std::vector<Bounds> boxes;
    for (const Region& region : objects_) boxes.push_back(box_of(region));
    index_ = BoxIndex(std::move(boxes));
}

void LooseGround::add_tile(const Map& map, const Layer& layer, std::size_t number, const Regions& area) {
    layer_ = &layer;
    if (tiles_.size() <= number) tiles_.resize(number + 1);
    append(tiles_[number], area);
    reach_ = both(reach_, ground::reach_of(map, *bounds(area)));
}

void LooseGround::add_all_of(const Map& map, const LooseGround& other) {
    add_objects(other.objects_);
    for (std::size_t number = 0; number < other.tiles_.size(); ++number)
        if (other.has_tile(number)) add_tile(map, *other.layer_, number, other.tiles_[number]);
}

Regions LooseGround::tiles_in(const Map& map, const DataCells& cells) const {
    Regions all;
    const auto [c0, r0, c1, r1] = cells;
    for (int r = r0; layer_ != nullptr && r <= r1; ++r)
        for (int c = c0; c <= c1; ++c)
            if (const std::uint32_t number = map.number(*layer_, c, r); has_tile(number))
                append(all, moved(tiles_[number], map.corner(c, r)));
    return all;
}

Regions LooseGround::whole(const Map& map) const {
    Regions all = tiles_in(map, {0, 0, map.columns - 1, map.rows - 1});
    append(all, objects_);
    if (reshaped_ == nullptr) return all;
    const Solids solids = solids_of(*reshaped_, map);
    return ground::reshaped(reshaped_->layer, all, solids.area, solids.sorts == 1);
}

Regions LooseGround::near(const Map& map, const Bounds& box) const {
    if (reshaped_ == nullptr) return standing_near(map, box);
    const Bounds around = grown(box, ground::growth_reach(reshaped_->layer));
    if (!stands_near(map, around)) return {};
    const Solids solids = solids_of(*reshaped_, map, box);
    const bool alone = solids.sorts == 1;   // then what is its own is all
    return ground::reshaped(reshaped_->layer, alone ? Regions{} : standing_near(map, around), solids.area, alone);
}

bool LooseGround::stands_near(const Map& map, const Bounds& box) const {
    const auto [c0, r0, c1, r1] = ground::cells_reaching(map, reach_, box);
    for (int r = r0; layer_ != nullptr && r <= r1; ++r)
        for (int c = c0; c <= c1; ++c)
            if (const std::uint32_t number = map.number(*layer_, c, r); has_tile(number))
                for (const Region& region : tiles_[number])
                    if (const Bounds own = box_of(region);
                        meet({moved(own.least, map.corner(c, r)), moved(own.most, map.corner(c, r))}, box))
                        return true;
    return index_.any_near(box, [](std::size_t) { return true; });
}

Regions LooseGround::standing_near(const Map& map, const Bounds& box) const {
    Regions all = tiles_in(map, ground::cells_reaching(map, reach_, box));
    std::erase_if(all, [&](const Region& region) { return !meet(box_of(region), box); });
    index_.each_near(box, [&](std::size_t i) { all.push_back(objects_[i]); });
    return all;
}

void LooseGround::each_box(const Map& map, const std::function<void(const Bounds&)>& action) const {
    const std::int32_t more = reshaped_ == nullptr ? 0 : ground::growth_reach(reshaped_->layer, false);
    for (const Region& region : objects_) action(grown(box_of(region), more));
    if (layer_ != nullptr) action(grown({moved(map.least(), reach_.least), moved(map.most(), reach_.most)}, more));
}

}   // namespace dryground::detail

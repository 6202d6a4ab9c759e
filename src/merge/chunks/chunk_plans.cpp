// Where the ground and the lines of each group of a map in chunks come from, kept up to date while cells and facts
// change.
//
// Idea. A plan is made for each group that any tile of the palette could bring, so that most edits need no new plan.
// Cost: O(palette) to learn a tile; other facts make plans again, with the shares of those that stay.

#include "chunk_plans_internal.hpp"

#include <algorithm>
#include <array>
#include <memory>
#include <tuple>
#include <utility>

#include "../../ground/ground_internal.hpp"
#include "../cells/rings_before_internal.hpp"
#include "../forms_internal.hpp"

namespace dryground::detail {

ChunkPlans::ChunkPlans(const World& world, const Map& map, const MergeOptions& options)
    : world_(world), map_(map), options_(options) {
    restack();
}

void ChunkPlans::restack() {
    plans.clear();
    stacking_ = stack_up(world_, map_, options_.facts, true);
    lines_.emplace(world_, map_, options_.facts);
    lines_->learn(stacking_.surfaces);
    options_.mover != MoverId::none ? add_mover_plans() : add_plans();
}

namespace {

// Loose ground of a plan: whether it adds, its label, its boxes.
using LooseBoxes = std::vector<std::tuple<bool, int, std::vector<Bounds>>>;
LooseBoxes loose_boxes(const Map& map, const Plan& plan) {
    LooseBoxes all;
    for (const Step& step : plan.steps) {
        std::vector<Bounds> boxes;
        step.loose.each_box(map, [&](const Bounds& box) { boxes.push_back(box); });
        if (!boxes.empty()) all.emplace_back(step.loose.adds, step.loose.label, std::move(boxes));
    }
    return all;
}

// Adds the boxes of loose ground that one plan holds and the other does not.
void add_boxes_that_differ(const LooseBoxes& before, const LooseBoxes& now, std::vector<Bounds>& into) {
    const auto add_missing = [&](const LooseBoxes& from, const LooseBoxes& in) {
        for (const auto& one : from)
            if (std::find(in.begin(), in.end(), one) == in.end())
                into.insert(into.end(), std::get<2>(one).begin(), std::get<2>(one).end());
    };
    add_missing(before, now);
    add_missing(now, before);
}

}   // namespace

std::optional<std::vector<Bounds>> ChunkPlans::renew() {
    std::vector<PlanShares> old = std::move(plans);
    const std::vector<Surface> surfaces = stacking_.surfaces;
    const int room = margin();
    std::map<GroupKey, LooseBoxes> before;
    for (const auto& [key, plan] : stacking_.plans) before[key] = loose_boxes(map_, plan);
    restack();
    if (stacking_.surfaces != surfaces || margin() > room) return std::nullopt;
    std::vector<Bounds> differing;
    for (const auto& [key, plan] : stacking_.plans)
        add_boxes_that_differ(std::exchange(before[key], {}), loose_boxes(map_, plan), differing);
    for (const auto& [key, boxes] : before) add_boxes_that_differ(boxes, {}, differing);   // of plans that are gone
    for (PlanShares& plan : plans) {
        for (PlanShares& known : old)
            if (known.key == plan.key) plan.shares = std::move(known.shares);
        for (Share& share : plan.shares) {   // what nothing brings any longer
            if (!plan.lines_near) share.lines.clear();
            if (!plan.merge_block) share.rings.clear(), share.border = {}, share.runs = {}, share.runs_changed = true;
        }
    }
    return differing;
}

int ChunkPlans::margin() const { return margin(stacking_); }

int ChunkPlans::margin(const Stacking& stacking) const {
    int most = 1;   // the rim, and what first comes to the map later
    const auto reach = [&](const Bounds& box) {
        for (const Point p : box_ring(box.least, box.most)) {
            const auto [c, r] = map_.data_cell_at(p);
            most = std::max({most, 1 - c, 1 - r, c + 2 - map_.columns, r + 2 - map_.rows});
        }
    };
    for (const auto& [key, plan] : stacking.plans)
        for (const Step& step : plan.steps) step.loose.each_box(map_, reach);
    if (const auto box = lines_->box()) reach(*box);
    return most;
}

bool ChunkPlans::spreads(std::size_t layer, std::uint32_t number) const {
    return stacking_.spread.count({static_cast<int>(layer), number}) > 0;
}

PlanShares& ChunkPlans::add_shares(const GroupKey& key) {
    plans.emplace_back().key = key;
    return plans.back();
}

int ChunkPlans::find_plan(const GroupKey& key) const {
    const auto found =
        std::find_if(plans.begin(), plans.end(), [&](const PlanShares& plan) { return plan.key == key; });
    return found == plans.end() ? -1 : static_cast<int>(found - plans.begin());
}

void ChunkPlans::add_plans() {
    for (const auto& [key, plan] : stacking_.plans) merge_by(add_shares(key), plan);
    add_lines();
}

void ChunkPlans::merge_by(PlanShares& shares, const Plan& plan) const {
    auto merger = std::make_shared<CellMerger>(map_, plan);
    shares.merge_block = [merger](const Block& block, RingsBefore& before) {
        return merger->block(block, true, before);
    };
}

void ChunkPlans::add_lines() {
    for (const GroupKey& key : lines_->keys()) {
        const int own = find_plan(key);
        PlanShares& shares = own >= 0 ? plans[static_cast<std::size_t>(own)] : add_shares(key);
        shares.lines_near = [this, key](const Bounds& box) { return lines_->near(key, box); };
        if (key.trigger.empty()) shares.ground = find_plan({key.storey, key.barrier, {}, OneWay::none});
    }
}

void ChunkPlans::add_mover_plans() {
    for (const StoreyId storey : ground::storeys_of(map_)) {
        GroupKey key;
        key.storey = storey;
        const auto of_ground = static_cast<int>(plans.size());
        merge_for(mover(), add_shares(key));
        for (const OneWay one_way : ways_for_mover(world_, map_, *lines_, mover(), storey)) {
            key.one_way = one_way;
            PlanShares& shares = one_way == OneWay::none ? plans[static_cast<std::size_t>(of_ground)] : add_shares(key);
            shares.ground = of_ground;
            shares.lines_near = [this, storey, one_way](const Bounds& box) {
                return lines_for_mover(world_, map_, *lines_, mover(), storey, options_.facts, one_way, box);
            };
        }
    }
}

void ChunkPlans::merge_for(const Mover& mover, PlanShares& shares) const {
    auto stopping = std::make_shared<MoverGround>(world_, map_, stacking_, mover, shares.key.storey, options_.facts);
    shares.merge_block = [stopping](const Block& block, RingsBefore& before) {
        Stacked stacked{stopping->block(block), {}};
        add_plain_rings(stacked);
        before.put_into(stacked);
        return stacked;
    };
}

namespace {

bool brings(const Plan& plan, std::size_t number) {
    return std::any_of(plan.steps.begin(), plan.steps.end(),
                       [&](const Step& step) { return step.layer != nullptr && step.meaning[number] != 0; });
}

}   // namespace

std::optional<std::vector<Bounds>> ChunkPlans::learn() {
    Stacking next = stack_up(world_, map_, options_.facts, true);
    const std::size_t number = map_.palette.size() - 1;
    const bool spreads_somewhere = std::any_of(next.spread.begin(), next.spread.end(),
                                               [&](const auto& of_layer) { return of_layer.second == number; });
    if (next.surfaces != stacking_.surfaces) return std::nullopt;
    const int room = margin();
    lines_->learn(stacking_.surfaces);
    if (margin(next) > room) return std::nullopt;
    if (options_.mover != MoverId::none && !knows_all_ways()) return std::nullopt;
    stacking_.spread = std::move(next.spread);
    std::vector<Bounds> differing;
    for (auto& [key, plan] : next.plans) {
        const auto known = stacking_.plans.find(key);
        if (known != stacking_.plans.end() && !spreads_somewhere && !brings(plan, number)) {
            for (Step& step : known->second.steps)
                if (step.layer != nullptr) step.meaning.resize(map_.palette.size(), 0);
            continue;
        }
        Plan& own = stacking_.plans[key];
        add_boxes_that_differ(loose_boxes(map_, own), loose_boxes(map_, plan), differing);
        own = std::move(plan);
        if (options_.mover != MoverId::none) continue;
        const int at = find_plan(key);
        merge_by(at >= 0 ? plans[static_cast<std::size_t>(at)] : add_shares(key), own);
    }
    if (options_.mover == MoverId::none) {
        add_lines();
        return differing;
    }
    for (PlanShares& shares : plans)
        if (shares.merge_block) merge_for(mover(), shares);
    return differing;
}

// Returns whether there is a plan for each direction in which lines stop the mover.
bool ChunkPlans::knows_all_ways() const {
    for (const StoreyId storey : ground::storeys_of(map_))
        for (const OneWay one_way : ways_for_mover(world_, map_, *lines_, mover(), storey)) {
            const int plan = find_plan({storey, BarrierId::none, {}, one_way});
            if (plan < 0 || !plans[static_cast<std::size_t>(plan)].lines_near) return false;
        }
    return true;
}

}   // namespace dryground::detail

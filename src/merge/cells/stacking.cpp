// How layers combine: from the bottom layer up, a layer first carves what lies below it, then adds its own shapes. The
// rim comes last, where nothing carves it. Lines are handled separately (line_table.cpp). What a group is made of is
// determined once for each tile of the palette, not for each cell.

#include <algorithm>
#include <tuple>

#include "../../geometry/boolean_internal.hpp"
#include "../../ground/ground_internal.hpp"
#include "stacking_internal.hpp"

namespace dryground::detail {

namespace {

class Stacker {
public:
    Stacker(const World& world, const Map& map, const Facts& facts, bool all_tiles)
        : world_(world), map_(map), facts_(facts), all_tiles_(all_tiles) {}

    Stacking run() {
        if (all_tiles_) learn_surfaces();
        result_.stats.layers = map_.layers.size();
        result_.stats.objects = map_.objects.size();
        for (std::size_t l = 0; l < map_.layers.size(); ++l) {
            const Layer& layer = map_.layers[l];
            for (std::size_t number = 1; number < layer.counts.size(); ++number)
                result_.stats.tiles += layer.counts[number];
            if (!ground::counts(layer, facts_)) continue;
            order_ = static_cast<int>(l);
            reshapes_ = ground::reshapes(layer);
            const auto of_objects = object_parts();
            carve_by_objects(of_objects);
            if (!layer.holds_objects) add_cells(layer);
            add_solids(of_objects);
            if (reshapes_) add_reshaped(layer);
        }
        add_rim();
        sort_surfaces();
        return std::move(result_);
    }

private:
    // What is reshaped waits in separate plans until all of its layer is known.
    Plan& plan_of(const GroupKey& key) { return reshapes_ && adding_ ? waiting_[key] : result_.plans[key]; }

    // Returns the step of a group that holds this layer's cells.
    Step& cells_of(const Layer& layer, const GroupKey& key) {
        std::vector<Step>& steps = plan_of(key).steps;
        const std::size_t base = bases_.try_emplace(key, steps.size()).first->second;
        if (base == steps.size()) {
            steps.emplace_back();
            steps.back().layer = &layer;
            steps.back().order = order_;
            steps.back().meaning.assign(map_.palette.size(), 0);
        }
        return steps[base];
    }

    std::vector<Part>& parts_of(const Layer& layer, const GroupKey& key, std::size_t number) {
        Step& step = cells_of(layer, key);
        if (step.meaning[number] == 0) {
            step.parts.emplace_back();
            step.meaning[number] = static_cast<std::uint32_t>(step.parts.size());
        }
        return step.parts[step.meaning[number] - 1];
    }

    // Includes what is not present, so that numbers stay the same when it appears.
    void learn_surfaces() {
        for (const Layer& layer : map_.layers)
            for (std::size_t number = 1; !layer.holds_objects && number < map_.palette.size(); ++number)
                for (const ground::Part& part : ground::parts_of(world_, map_, layer, map_.palette[number], {}).parts)
                    label_of(part.surface);
        for (const Object& object : map_.objects)
            for (const ground::Part& part : ground::parts_of(map_, object).parts) label_of(part.surface);
    }
    int label_of(const std::optional<Surface>& surface) {
        const Surface wanted = surface.value_or(Surface{});
        const auto found = std::find(result_.surfaces.begin(), result_.surfaces.end(), wanted);
        if (found != result_.surfaces.end()) return static_cast<int>(found - result_.surfaces.begin());
        result_.surfaces.push_back(wanted);
        return static_cast<int>(result_.surfaces.size()) - 1;
    }

    // What stays in its cell can be merged cell by cell.
    void put(const Layer& layer, const GroupKey& key, std::size_t number, Part part) {
        if (ground::keeps_to_cell(map_, part.area)) {
            parts_of(layer, key, number).push_back(std::move(part));
            return;
        }
        result_.spread.emplace(order_, number);
        loose_.push_back({key, number, std::move(part)});
    }

    [[nodiscard]] static std::uint32_t count(const Layer& layer, std::size_t number) {
        return number < layer.counts.size() ? layer.counts[number] : 0;
    }

    void add_cells(const Layer& layer) {
        std::vector<ground::Parts> tiles(map_.palette.size());
        for (std::size_t number = 1; number < map_.palette.size(); ++number)
            if (all_tiles_ || count(layer, number) > 0)
                tiles[number] = ground::parts_of(world_, map_, layer, map_.palette[number], facts_);
        loose_.clear();
        bases_.clear();
        for (std::size_t number = 1; number < tiles.size(); ++number) carve(layer, number, tiles[number].parts);
        spread(layer);
        bases_.clear();   // what is carved comes before what is added
        adding_ = true;
        for (std::size_t number = 1; number < tiles.size(); ++number) add(layer, number, tiles[number]);
        spread(layer);
        adding_ = false;
    }

    void carve(const Layer& layer, std::size_t number, const std::vector<ground::Part>& parts) {
        for (const ground::Part& part : parts) {
            const GroupKey key = key_of(layer.storey, part);
            if (!part.adds && result_.plans.count(key) > 0)   // else nothing of it lies below
                put(layer, key, number, {false, 0, part.area});
        }
    }

    void add(const Layer& layer, std::size_t number, const ground::Parts& tile) {
        if (reshapes_) result_.spread.emplace(order_, number);
        result_.stats.shapes_left_out += tile.left_out * count(layer, number);
        for (const ground::Part& part : tile.parts) {
            if (!part.adds) continue;
            result_.stats.shapes_in += count(layer, number);
            const int label = label_of(part.surface);
            if (part.line.empty()) put(layer, key_of(layer.storey, part), number, {true, label, part.area});
        }
    }

    // Adds the parts that extend beyond their cells.
    void spread(const Layer& layer) {
        std::map<std::tuple<GroupKey, bool, int>, LooseGround> sorts;
        for (const Loose& loose : loose_)
            sorts[{loose.key, loose.part.adds, loose.part.label}].add_tile(map_, layer, loose.number, loose.part.area);
        for (auto& [sort, ground] : sorts) add_loose(std::get<0>(sort), std::get<1>(sort), std::get<2>(sort), ground);
        loose_.clear();
    }

    void add_loose(const GroupKey& key, bool adds, int label, LooseGround ground) {
        Step step;
        step.loose = std::move(ground);
        step.loose.adds = adds;
        step.loose.label = label;
        step.order = order_;
        plan_of(key).steps.push_back(std::move(step));
    }
    void add_objects(const GroupKey& key, bool adds, int label, const Regions& areas) {
        LooseGround ground;
        ground.add_objects(areas);
        add_loose(key, adds, label, std::move(ground));
    }

    // Adds the objects of the current layer; each with its storey.
    [[nodiscard]] std::vector<std::pair<StoreyId, ground::Part>> object_parts() {
        std::vector<std::pair<StoreyId, ground::Part>> result;
        for (const Object& object : map_.objects) {
            if (object.layer != LayerId{order_} || !ground::counts(map_, object, facts_)) continue;
            ground::Parts own = ground::parts_of(map_, object);
            result_.stats.shapes_left_out += own.left_out;
            for (ground::Part& part : own.parts) result.emplace_back(object.storey, std::move(part));
        }
        return result;
    }

    void carve_by_objects(const std::vector<std::pair<StoreyId, ground::Part>>& parts) {
        std::map<GroupKey, Regions> areas;
        for (const auto& [storey, part] : parts)
            if (!part.adds) append(areas[key_of(storey, part)], part.area);
        for (auto& [key, area] : areas)
            if (result_.plans.count(key) > 0) add_objects(key, false, 0, area);
    }

    void add_solids(const std::vector<std::pair<StoreyId, ground::Part>>& parts) {
        adding_ = true;
        std::map<std::pair<GroupKey, int>, Regions> areas;
        for (const auto& [storey, part] : parts) {
            if (!part.adds) continue;
            ++result_.stats.shapes_in;
            const GroupKey key = key_of(storey, part);
            const int label = label_of(part.surface);
            if (part.line.empty()) append(areas[{key, label}], part.area);
        }
        for (const auto& [place, area] : areas) add_objects(place.first, true, place.second, area);
        adding_ = false;
    }

    // Shrinks and grows a layer's solids: each barrier to its share of all of them.
    void add_reshaped(const Layer& layer) {
        const auto solids = std::make_shared<ReshapedLayer>(ReshapedLayer{layer});
        for (auto& [key, plan] : waiting_) {
            std::vector<Step>& into = result_.plans[key].steps;
            if (!key.trigger.empty()) {
                into.insert(into.end(), std::make_move_iterator(plan.steps.begin()),
                            std::make_move_iterator(plan.steps.end()));
                continue;
            }
            for (auto& [label, ground] : by_label(layer, plan)) {
                solids->sorts.push_back(ground);
                Step& step = into.emplace_back();
                step.loose = std::move(ground);
                step.loose.label = label;
                step.loose.reshape(solids);
                step.order = order_;
            }
            solids->plans.push_back(std::move(plan));
        }
        waiting_.clear();
    }
    // Returns all that a plan adds, as ground that extends beyond its cells.
    [[nodiscard]] std::map<int, LooseGround> by_label(const Layer& layer, const Plan& plan) const {
        std::map<int, LooseGround> grounds;
        for (const Step& step : plan.steps) {
            if (step.layer == nullptr) {
                grounds[step.loose.label].add_all_of(map_, step.loose);
                continue;
            }
            for (std::size_t number = 1; number < step.meaning.size(); ++number)
                if (const std::uint32_t meaning = step.meaning[number]; meaning != 0)
                    for (const Part& part : step.parts[meaning - 1])
                        grounds[part.label].add_tile(map_, layer, number, part.area);
        }
        return grounds;
    }

    void add_rim() {
        if (!ground::has_rim(map_)) return;
        for (const StoreyId storey : ground::storeys_of(map_)) {
            result_.plans[{storey, ground::rim_barrier(map_), {}, OneWay::none}].holds_rim = true;
            result_.stats.shapes_in += 4;
        }
    }

    // Where shapes of one layer overlap, the surface that sorts last is used, whatever order they were drawn in.
    void sort_surfaces() {
        std::vector<Surface> sorted = result_.surfaces;
        std::sort(sorted.begin(), sorted.end());
        const auto renumber = [&](int& label) {
            const Surface& surface = result_.surfaces[static_cast<std::size_t>(label)];
            label = static_cast<int>(std::lower_bound(sorted.begin(), sorted.end(), surface) - sorted.begin());
        };
        for (auto& [key, plan] : result_.plans) {
            for (Step& step : plan.steps) {
                renumber(step.loose.label);
                for (std::vector<Part>& parts : step.parts) {
                    for (Part& part : parts) renumber(part.label);
                    std::stable_sort(parts.begin(), parts.end(),
                                     [](const Part& a, const Part& b) { return a.label < b.label; });
                }
            }
            const auto place = [](const Step& step) {   // what keeps to cells, then what does not
                const bool adds = step.layer == nullptr ? step.loose.adds : step.parts[0][0].adds;
                return std::tuple(step.order, adds, step.layer == nullptr, step.loose.label);
            };
            std::stable_sort(plan.steps.begin(), plan.steps.end(),
                             [&](const Step& a, const Step& b) { return place(a) < place(b); });
        }
        result_.surfaces = std::move(sorted);
    }

    struct Loose {
        GroupKey key;
        std::size_t number;
        Part part;
    };
    const World& world_;
    const Map& map_;
    const Facts& facts_;
    bool all_tiles_;
    Stacking result_;
    std::map<GroupKey, std::size_t> bases_;   // the step of the current layer
    std::vector<Loose> loose_;
    int order_ = 0;           // of the current layer
    bool reshapes_ = false;   // it shrinks or grows its solids
    bool adding_ = false;     // rather than carving
    std::map<GroupKey, Plan> waiting_;
};

}   // namespace

Stacking stack_up(const World& world, const Map& map, const Facts& facts, bool all_tiles) {
    return Stacker(world, map, facts, all_tiles).run();
}

}   // namespace dryground::detail

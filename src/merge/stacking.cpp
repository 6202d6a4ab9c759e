// How layers combine: from the bottom layer up, a layer first carves what lies below it, then adds its own shapes. The
// rim comes last, where nothing carves it. A group's coats are the steps that concern it, neighbouring steps of one
// sort joined to one coat.

#include <algorithm>

#include "../model/orientation_internal.hpp"
#include "stacking_internal.hpp"

namespace dryground::detail {

namespace {

class Stacker {
public:
    Stacker(const World& world, const Map& map) : world_(world), map_(map) {}

    Stacking run() {
        result_.stats.layers = map_.layers.size();
        result_.stats.objects = map_.objects.size();
        for (std::size_t l = 0; l < map_.layers.size(); ++l) {
            const Layer& layer = map_.layers[l];
            for (const Placed& placed : layer.cells) result_.stats.tiles += placed.tile >= 0;
            if (layer.decor) continue;
            bases_.clear();
            if (!layer.holds_objects) carve_cells(layer);
            bases_.clear();
            if (!layer.holds_objects) add_cells(layer);
            add_solids(layer, static_cast<int>(l));
        }
        bases_.clear();
        add_rim();
        return std::move(result_);
    }

private:
    // A coat to put areas in: one of this layer's of the same sort, or the topmost one if it is of that sort, else a
    // new one. Within a layer the order of shapes does not matter, so that its coats are as few as its surfaces.
    Regions& coat(const GroupKey& key, bool adds, int label) {
        std::vector<Coat>& coats = result_.coats[key];
        const std::size_t base = bases_.try_emplace(key, coats.size()).first->second;
        for (std::size_t i = std::min(base, coats.size() - !coats.empty()); i < coats.size(); ++i)
            if (coats[i].adds == adds && coats[i].label == label) return coats[i].area;
        return coats.emplace_back(Coat{adds, label, {}}).area;
    }

    int label_of(const std::optional<Surface>& surface) {
        const Surface wanted = surface.value_or(Surface{});
        const auto found = std::find(result_.surfaces.begin(), result_.surfaces.end(), wanted);
        if (found != result_.surfaces.end()) return static_cast<int>(found - result_.surfaces.begin());
        result_.surfaces.push_back(wanted);
        return static_cast<int>(result_.surfaces.size()) - 1;
    }

    template <class Action>
    void each_cell(const Layer& layer, Action action) {
        for (int r = 0; r < map_.rows; ++r)
            for (int c = 0; c < map_.columns; ++c)
                if (const Placed& placed = map_.placed(layer, c, r); placed.tile >= 0) action(placed, c, r);
    }

    static void append(Regions& into, Regions from) {
        into.insert(into.end(), std::make_move_iterator(from.begin()), std::make_move_iterator(from.end()));
    }

    void carve_cells(const Layer& layer) {
        each_cell(layer, [&](const Placed& placed, int c, int r) {
            for (const Carve& carve : world_.tile(placed).carves) {
                if (carve.shape.fault != ShapeFault::none) continue;
                const GroupKey key{layer.storey, carve.barrier, {}};
                if (result_.coats.count(key) > 0)   // else nothing of it lies below
                    append(coat(key, false, 0), placed_area(map_, carve.shape, placed, c, r));
            }
        });
    }

    void add_cells(const Layer& layer) {
        each_cell(layer, [&](const Placed& placed, int c, int r) {
            for (const Shape& shape : world_.tile(placed).shapes) {
                const std::string& trigger = shape.trigger.empty() ? layer.trigger : shape.trigger;
                const int barrier = shape.barrier >= 0 ? shape.barrier : layer.barrier;
                if (shape.fault != ShapeFault::none || (trigger.empty() && barrier < 0)) {
                    ++result_.stats.shapes_left_out;
                    continue;
                }
                ++result_.stats.shapes_in;
                const GroupKey key{layer.storey, trigger.empty() ? barrier : -1, trigger};
                const int label = trigger.empty() ? label_of(shape.surface ? shape.surface : layer.surface) : 0;
                append(coat(key, true, label), placed_area(map_, shape, placed, c, r));
            }
        });
    }

    void add_solids(const Layer& layer, int index) {
        for (const Object& object : map_.objects) {
            if (object.layer != index || object.role != Role::solid || !there_at_first(object)) continue;
            if (object.area.empty() || object.barrier < 0) {
                ++result_.stats.shapes_left_out;
                continue;
            }
            ++result_.stats.shapes_in;
            append(coat({object.storey, object.barrier, {}}, true, label_of(layer.surface)), object.area);
        }
    }

    void add_rim() {
        if (map_.rim != RimSort::barrier) return;
        std::vector<int> storeys{0};
        for (const Layer& layer : map_.layers)
            if (!layer.decor) storeys.push_back(layer.storey);
        std::sort(storeys.begin(), storeys.end());
        storeys.erase(std::unique(storeys.begin(), storeys.end()), storeys.end());
        const Point least = map_.least(), most = map_.most();
        const std::int32_t w = map_.cell_width * steps_per_px, h = map_.cell_height * steps_per_px;
        for (const int storey : storeys) {
            Regions& area = coat({storey, map_.rim_barrier, {}}, true, 0);
            append(area, {box_region({least.x - w, least.y - h}, {most.x + w, least.y}),
                          box_region({least.x - w, most.y}, {most.x + w, most.y + h}),
                          box_region({least.x - w, least.y}, {least.x, most.y}),
                          box_region({most.x, least.y}, {most.x + w, most.y})});
            result_.stats.shapes_in += 4;
        }
    }

    const World& world_;
    const Map& map_;
    Stacking result_;
    std::map<GroupKey, std::size_t> bases_;   // how many coats lay there before the layer at hand
};

}   // namespace

Stacking stack_up(const World& world, const Map& map) { return Stacker(world, map).run(); }

}   // namespace dryground::detail

namespace dryground {

bool there_at_first(const Object& object) { return object.when.empty(); }

Regions placed_area(const Map& map, const Shape& shape, const Placed& placed, int column, int row) {
    return moved(
        detail::oriented(shape.area, map.cell_width * steps_per_px, map.cell_height * steps_per_px, placed.orientation),
        map.corner(column, row));
}

}   // namespace dryground

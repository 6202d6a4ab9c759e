// What happens to a group's lines before ground cuts them: carves of the layers above apply. Queried place by place, so
// that a change costs only what lies near it.

#include "../../geometry/boolean_internal.hpp"
#include "line_table_internal.hpp"

#include <algorithm>

namespace dryground::detail {

namespace {

Bounds box_of(const LinePiece& piece) { return both({piece.from, piece.from}, {piece.to, piece.to}); }

int label_of(const std::optional<Surface>& surface, const std::vector<Surface>& surfaces) {
    return static_cast<int>(std::lower_bound(surfaces.begin(), surfaces.end(), surface.value_or(Surface{})) -
                            surfaces.begin());
}

void add_near(const Ring& line, Point at, int label, const Bounds& box, std::vector<LinePiece>& into) {
    for (std::size_t i = 0; i + 1 < line.size(); ++i) {
        const LinePiece piece{moved(line[i], at), moved(line[i + 1], at), label};
        if (meet(box_of(piece), box)) into.push_back(piece);
    }
}

}   // namespace

LineTable::LineTable(const World& world, const Map& map, const Facts& facts)
    : world_(world), map_(map), facts_(facts), layers_(map.layers.size()) {
    for (std::size_t l = 0; l < layers_.size(); ++l)
        layers_[l].counts = !map.layers[l].holds_objects && ground::counts(map.layers[l], facts);
}

void LineTable::learn(const std::vector<Surface>& surfaces) {
    for (std::size_t l = 0; l < layers_.size(); ++l)
        for (std::size_t n = layers_[l].numbers.size(); layers_[l].counts && n < map_.palette.size(); ++n)
            learn(l, map_.palette[n], surfaces);
    if (std::exchange(knows_objects_, true)) return;
    for (const Object& object : map_.objects) {
        if (!ground::counts(map_, object, facts_)) continue;
        for (ground::Part& part : ground::parts_of(map_, object).parts) {
            if (part.adds ? part.line.empty() : part.area.empty()) continue;
            if (part.adds) keys_.insert(key_of(object.storey, part));
            const Bounds box = ground::box_of(part);
            const int label = label_of(part.surface, surfaces);
            objects_.push_back({object.layer, object.storey, std::move(part), box, label});
        }
    }
}

void LineTable::learn(std::size_t l, const Placed& placed, const std::vector<Surface>& surfaces) {
    OfLayer& of = layers_[l];
    Number& number = of.numbers.emplace_back();
    if (placed.tile < 0) return;
    const Layer& layer = map_.layers[l];
    for (ground::Part& part : ground::parts_of(world_, map_, layer, placed, facts_).parts) {
        if (part.adds ? part.line.empty() : part.area.empty()) continue;
        of.reach = both(of.reach, ground::reach_of(map_, ground::box_of(part)));
        if (part.adds) {
            const GroupKey key = key_of(layer.storey, part);
            keys_.insert(key);
            number.lines.push_back({key, std::move(part.line), label_of(part.surface, surfaces)});
            of.has_lines = true;
        } else {
            number.cuts.push_back({part.barrier, std::move(part.area)});
            of.has_carves = true;
        }
    }
}

bool LineTable::matters(std::size_t layer, std::uint32_t number) const {
    if (!layers_[layer].counts) return false;
    const Number& known = layers_[layer].numbers[number];
    return !known.lines.empty() || !known.cuts.empty();
}

std::optional<Bounds> LineTable::box() const {
    std::optional<Bounds> all;
    const auto take = [&](const Bounds& box) { all = all ? both(*all, box) : box; };
    for (const OfLayer& of : layers_)
        if (of.has_lines) take({moved(map_.least(), of.reach.least), moved(map_.most(), of.reach.most)});
    for (const OfObject& object : objects_)
        if (object.part.adds) take(object.box);
    return all;
}

Bounds LineTable::reach_of(std::size_t layer, int column, int row) const {
    const Bounds cell = map_.cell_box(column, row), &reach = layers_[layer].reach;
    return {dryground::moved(cell.least, reach.least), dryground::moved(cell.most, reach.most)};
}

// Returns what a layer carves from a group's barrier near a box.
Regions LineTable::carved(std::size_t l, const GroupKey& key, const Bounds& box) const {
    Regions all;
    if (const OfLayer& of = layers_[l]; of.counts && of.has_carves && map_.layers[l].storey == key.storey)
        each_near(l, box, [&](const Number& number, Point corner) {
            for (const Carves& carves : number.cuts)
                if (carves.barrier == key.barrier) append(all, moved(carves.area, corner));
        });
    for (const OfObject& object : objects_)
        if (object.layer == id_of<LayerId>(l) && object.storey == key.storey && !object.part.adds &&
            object.part.barrier == key.barrier && meet(object.box, box))
            append(all, object.part.area);
    return all;
}

std::vector<LinePiece> LineTable::near(const GroupKey& key, const Bounds& box) const {
    std::vector<LinePiece> all;
    for (std::size_t l = 0; l < layers_.size(); ++l) {
        std::vector<LinePiece> own;
        if (const OfLayer& of = layers_[l]; of.counts && of.has_lines && map_.layers[l].storey == key.storey)
            each_near(l, box, [&](const Number& number, Point corner) {
                for (const Lines& lines : number.lines)
                    if (lines.key == key) add_near(lines.points, corner, lines.label, box, own);
            });
        for (const OfObject& object : objects_)
            if (object.layer == id_of<LayerId>(l) && object.part.adds && key_of(object.storey, object.part) == key)
                add_near(object.part.line, {0, 0}, object.label, box, own);
        if (own.empty()) continue;
        Bounds around = box_of(own.front());
        for (const LinePiece& piece : own) around = both(around, box_of(piece));
        Regions away;
        if (key.trigger.empty())
            for (std::size_t above = l + 1; above < layers_.size(); ++above) append(away, carved(above, key, around));
        if (!away.empty()) own = cut_lines(std::move(own), unite_proper(away));
        all.insert(all.end(), own.begin(), own.end());
    }
    return all;
}

}   // namespace dryground::detail

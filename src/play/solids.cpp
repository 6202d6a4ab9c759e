// Which shapes stand where: those of tiles by layer and number of the palette, those of objects, and the rim's.
//
// Cost: making is in proportion to palette and objects; a query to what lies near.

#include "solids_internal.hpp"

#include <algorithm>

namespace dryground::play {

namespace {

bool is_empty(const ground::Part& part) { return part.area.empty() && part.line.empty(); }

}   // namespace

void add_pieces(Pieces& pieces, const ground::Part& part) {
    for (Ring& ring : convex_pieces(part.area, 64)) {
        const Bounds box = detail::box_around(ring);
        const bool is_box = ring.size() == 4 &&
                            twice_area(ring) == 2 * std::int64_t{box.most.x - box.least.x} * (box.most.y - box.least.y);
        pieces.push_back({std::move(ring), box, part.barrier, OneWay::none, is_box});
    }
    for (std::size_t i = 0; i + 1 < part.line.size(); ++i) {
        Ring segment{part.line[i], part.line[i + 1]};
        const Bounds box = detail::box_around(segment);
        pieces.push_back({std::move(segment), box, part.barrier, part.one_way, false});
    }
}

Solids::Solids(const World& world, const Map& map, const Facts& facts)
    : world_(world), map_(map), facts_(facts), storeys_(ground::storeys_of(map)), layers_(map.layers.size()) {
    for (std::size_t l = 0; l < layers_.size(); ++l) {
        layers_[l].counts = !map.layers[l].holds_objects && ground::counts(map.layers[l], facts);
        layers_[l].reshapes = ground::reshaping_reach(map.layers[l], false) > 0;
    }
    learn_numbers();
    make_objects();
    cut_all();
    if (ground::has_rim(map)) add_pieces(rim_, ground::rim_of(map));
}

void Solids::learn_numbers() {
    for (std::size_t l = 0; l < layers_.size(); ++l)
        if (layers_[l].counts)
            for (std::size_t n = layers_[l].meanings.size(); n < map_.palette.size(); ++n)
                learn(layers_[l], map_.palette[n], map_.layers[l]);
}

void Solids::learn(LayerSolids& layer, const Placed& placed, const Layer& of) {
    Meaning& meaning = layer.meanings.emplace_back();
    if (placed.tile < 0) return;
    for (ground::Part& part : ground::parts_of(world_, map_, of, placed, facts_).parts) {
        if (is_empty(part)) continue;
        layer.reach = detail::both(
            layer.reach, ground::reach_of(map_, detail::grown(ground::box_of(part), ground::growth_reach(of, false))));
        if (!part.trigger.empty()) {
            meaning.sensing.push_back({part.trigger, {}});
            add_pieces(meaning.sensing.back().pieces, part);
            layer.senses = true;
        } else if (part.adds)
            add_pieces(meaning.pieces, part);
        else
            meaning.cuts.push_back(std::move(part)), layer.has_cuts = true;
    }
}

void Solids::make_objects() {
    for (std::size_t o = 0; o < map_.objects.size(); ++o) {
        const Object& object = map_.objects[o];
        if (!ground::counts(map_, object, facts_)) continue;
        ObjectSolids made{id_of<ObjectId>(o), object.layer, object.storey, {}, {}, {}};
        for (ground::Part& part : ground::parts_of(map_, object).parts) {
            if (is_empty(part)) continue;
            Bounds box = ground::box_of(part);
            if (!part.adds) {
                carvers_.push_back({object.layer, object.storey, std::move(part), box});
                continue;
            }
            box = detail::grown(box, ground::growth_reach(map_.layer(object.layer), false));
            made.box = made.parts.empty() ? box : detail::both(made.box, box);
            made.parts.push_back(std::move(part));
        }
        if (made.parts.empty()) continue;
        layers_[index(object.layer)].objects.push_back(objects_.size());
        objects_.push_back(std::move(made));
    }
    std::vector<Bounds> boxes;
    for (const ObjectSolids& object : objects_) boxes.push_back(object.box);
    objects_near_ = detail::BoxIndex(std::move(boxes));
}

}   // namespace dryground::play

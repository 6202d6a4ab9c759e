// What is present while certain facts hold, and what of that shapes the ground.

#include <algorithm>

#include "ground_internal.hpp"

namespace dryground {

namespace {

bool holds(const std::vector<FactId>& when, const std::vector<FactId>& unless, const Facts& facts) {
    const auto is_true = [&](FactId fact) { return std::binary_search(facts.begin(), facts.end(), fact); };
    return std::all_of(when.begin(), when.end(), is_true) && std::none_of(unless.begin(), unless.end(), is_true);
}

bool names(const std::vector<FactId>& facts, FactId fact) {
    return std::find(facts.begin(), facts.end(), fact) != facts.end();
}

const Layer& layer_of(const Map& map, const Object& object) { return map.layer(object.layer); }

}   // namespace

bool is_there(const Layer& layer, const Facts& facts) { return holds(layer.when, layer.unless, facts); }

bool is_there(const Map& map, const Object& object, const Facts& facts) {
    return !object.removed && holds(object.when, object.unless, facts) && is_there(layer_of(map, object), facts);
}

namespace ground {

bool may_count(const Layer& layer) { return !layer.decor; }

bool counts(const Layer& layer, const Facts& facts) { return may_count(layer) && is_there(layer, facts); }

Point shift_of(const Layer& layer) { return layer.offset; }

bool is_shifted(const Layer& layer) { return layer.offset != Point{} || layer.shape_offset != Point{}; }

bool counts(const Map& map, const Object& object, const Facts& facts) {
    return !layer_of(map, object).decor && !moves(object) && is_there(map, object, facts);
}

bool moves(const Object& object) { return object.role == Role::solid && object.motion != Motion::fixed; }

bool names(const Layer& layer, FactId fact) {
    return dryground::names(layer.when, fact) || dryground::names(layer.unless, fact);
}
bool names(const Map& map, const Object& object, FactId fact) {
    return dryground::names(object.when, fact) || dryground::names(object.unless, fact) ||
           names(layer_of(map, object), fact);
}
bool names(const Tile& tile, FactId fact) { return dryground::names(tile.needs, fact); }

bool concerns(const World& world, const Map& map, FactId fact) {
    return follows(world, map, fact) ||
           std::any_of(map.objects.begin(), map.objects.end(), [fact](const Object& object) {
               return dryground::names(object.when, fact) || dryground::names(object.unless, fact);
           });
}

bool follows(const World& world, const Map& map, FactId fact) {
    return std::any_of(map.layers.begin(), map.layers.end(), [&](const Layer& layer) { return names(layer, fact); }) ||
           std::any_of(map.palette.begin(), map.palette.end(),
                       [&](const Placed& placed) { return placed.tile >= 0 && names(world.tile(placed), fact); }) ||
           std::any_of(map.objects.begin(), map.objects.end(), [&](const Object& object) {
               return (object.role == Role::solid || !object.carves.empty() || object.role == Role::trigger ||
                       object.role == Role::link) &&
                      names(map, object, fact);
           });
}

std::vector<StoreyId> storeys_of(const Map& map) {
    std::vector<StoreyId> storeys{StoreyId::ground};
    for (const Layer& layer : map.layers)
        if (!layer.decor) storeys.push_back(layer.storey);
    std::sort(storeys.begin(), storeys.end());
    storeys.erase(std::unique(storeys.begin(), storeys.end()), storeys.end());
    return storeys;
}

Map without_ground_of(Map map, std::span<const std::size_t> layers) {
    for (const std::size_t layer : layers) map.layers[layer].decor = true;
    return map;
}

}   // namespace ground

Facts facts_of_ground(const World& world, const Map& map) {
    Facts facts;
    for (const FactId fact : ids<FactId>(world.facts()))
        if (ground::follows(world, map, fact)) facts.push_back(fact);
    return facts;
}

}   // namespace dryground

#include <algorithm>

#include "../ground/ground_internal.hpp"
#include "search_internal.hpp"

namespace dryground::travel {

namespace {

bool may_react_by_turning(const World& world, const Map& map) {
    return std::any_of(map.palette.begin(), map.palette.end(), [&](const Placed& placed) {
        if (placed.tile < 0) return false;
        const Tile& tile = world.tile(placed);
        return std::any_of(tile.reacts.begin(), tile.reacts.end(),
                           [](const Reaction& reaction) { return reaction.then != Reaction::Then::stays; });
    });
}

}   // namespace

Stages::Stages(const World& world, int mover) : world_(world), mover_(mover) { find_closing(); }

int Stages::mover_on(int map) const {
    const int players = world_.maps()[static_cast<std::size_t>(map)].player;
    return mover_ < 0 || mover_ == world_.player() ? players : mover_;
}

const Deeds& Stages::deeds(int map) {
    const auto [known, is_new] = deeds_.try_emplace(map);
    if (is_new) known->second = deeds_of(world_, world_.maps()[static_cast<std::size_t>(map)], mover_on(map));
    return known->second;
}

Stage& Stages::on(int map, const Facts& held) {
    const Map& of = world_.maps()[static_cast<std::size_t>(map)];
    const auto [shaping, is_new_map] = ground_facts_.try_emplace(map);
    if (is_new_map) shaping->second = facts_of_ground(world_, of);
    Facts facts;
    std::set_intersection(held.begin(), held.end(), shaping->second.begin(), shaping->second.end(),
                          std::back_inserter(facts));
    const auto [known, is_new] = stages_.try_emplace({map, facts});
    Stage& stage = known->second;
    if (!is_new) return stage;
    stage.map = map, stage.mover = mover_on(map), stage.facts = facts, stage.deeds = &deeds(map);
    stage.ways = ways_of({world_, of, stage.mover, stage.facts, stage.deeds->targets});
    return stage;
}

Stage Stages::with(int map, const Facts& held, const Mover& like) {
    const Stage& known = on(map, held);
    Stage stage{map, known.mover, known.facts, known.deeds, nullptr};
    const Map& of = world_.maps()[static_cast<std::size_t>(map)];
    stage.ways = ways_of({world_, of, stage.mover, stage.facts, stage.deeds->targets, &like});
    return stage;
}

// A fact closes something where a thing is there unless it holds, and may do so where ground comes with it.
void Stages::find_closing() {
    closing_.resize(world_.facts().size());
    const auto close = [&](const std::vector<int>& facts) {
        for (const int fact : facts) closing_[static_cast<std::size_t>(fact)] = 1;
    };
    for (const Map& map : world_.maps()) {
        for (const Layer& layer : map.layers) {
            if (layer.decor) continue;
            close(layer.unless);
            close(layer.when);
        }
        for (const Object& object : map.objects) {
            close(object.unless);
            if (object.role == Role::solid) close(object.when);
        }
    }
}

bool Stages::only_opens(int map) {
    const Facts shaping = facts_of_ground(world_, world_.maps()[static_cast<std::size_t>(map)]);
    return std::none_of(shaping.begin(), shaping.end(),
                        [&](int fact) { return closing_[static_cast<std::size_t>(fact)] != 0; });
}

bool Stages::turns(int map) const {
    return may_react_by_turning(world_, world_.maps()[static_cast<std::size_t>(map)]);
}

}   // namespace dryground::travel

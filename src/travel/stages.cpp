// Maps for their movers while certain facts hold, made as they are needed.
//
// A stage depends only on the facts that shape its map's ground, so states of the world share stages.

#include <algorithm>
#include <optional>

#include "../ground/ground_internal.hpp"
#include "closing_internal.hpp"
#include "search_internal.hpp"

namespace dryground::travel {

namespace {

// Returns what a tile turns into when something happens to it; nothing if it stays as it is.
std::optional<Placed> turned(const World& world, const Placed& placed) {
    if (placed.tile < 0) return std::nullopt;
    for (const Reaction& reaction : world.tile(placed).reacts) {
        if (reaction.then == Reaction::Then::goes) return Placed{};
        if (reaction.then == Reaction::Then::turns)
            return Placed{placed.tileset, reaction.turns_into, placed.orientation};
    }
    return std::nullopt;
}

// Returns a map with each tile that turns replaced.
template <class Other>
Map with_others(const World& world, const Map& map, Other other) {
    Map changed = map;
    for (const LayerId l : ids<LayerId>(map.layers))
        for (int r = 0; !map.layer(l).holds_objects && r < map.rows; ++r)
            for (int c = 0; c < map.columns; ++c)
                if (const auto next = turned(world, map.placed(map.layer(l), c, r)))
                    changed.put(l, {c, r}, other(*next));
    return changed;
}

bool has_turning_tiles(const World& world, const Map& map) {
    return std::any_of(map.palette.begin(), map.palette.end(),
                       [&](const Placed& p) { return turned(world, p).has_value(); });
}

// Returns nothing if no tile of a map turns. Tiles may turn to and fro: four times are enough to see each of them.
std::vector<Map> turned_maps(const World& world, const Map& map) {
    if (!has_turning_tiles(world, map)) return {};
    std::vector<Map> maps{with_others(world, map, [](const Placed&) { return Placed{}; })};
    Map now = map;
    for (int times = 0; times < 4; ++times) {
        now = with_others(world, now, [](const Placed& next) { return next; });
        maps.push_back(now);
    }
    return maps;
}

}   // namespace

Stages::Stages(const World& world, MoverId mover) : world_(world), mover_(mover) { find_closing(); }

MoverId Stages::mover_on(MapId map) const {
    const Map& of = world_.map(map);
    const MoverId mover = mover_ == MoverId::none || mover_ == world_.player() ? of.player : mover_;
    if (mover == MoverId::none) return MoverId::none;
    const Bounds body = *bounds(world_.mover(mover).body);
    return is_walked({of.least(), of.most()}) && is_small({body.least, body.most}) ? mover : MoverId::none;
}

const Deeds& Stages::deeds(MapId map) {
    const auto [known, is_new] = deeds_.try_emplace(map);
    if (is_new) known->second = deeds_of(world_, world_.map(map), mover_on(map));
    return known->second;
}

Facts Stages::shaping(MapId map, const Facts& held) {
    const auto [all, is_new_map] = ground_facts_.try_emplace(map);
    if (is_new_map) all->second = facts_of_ground(world_, world_.map(map));
    Facts facts;
    std::set_intersection(held.begin(), held.end(), all->second.begin(), all->second.end(), std::back_inserter(facts));
    return facts;
}

Stage& Stages::loosest(MapId map, const Facts& held) {
    const Map& of = world_.map(map);
    const auto [turned, is_new_map] = turned_.try_emplace(map);
    if (is_new_map) turned->second = turned_maps(world_, of);
    if (turned->second.empty()) return on(map, held);
    const Facts facts = shaping(map, held);
    const auto [known, is_new] = loosest_.try_emplace({map, facts});
    Stage& stage = known->second;
    if (!is_new) return stage;
    stage.map = map, stage.mover = mover_on(map), stage.facts = facts, stage.deeds = &deeds(map);
    WaysOf ways{world_, turned->second.front(), stage.mover, stage.facts, stage.deeds->targets, nullptr, {&of}};
    for (std::size_t i = 1; i < turned->second.size(); ++i) ways.also.push_back(&turned->second[i]);
    stage.ways = ways_of(ways);
    return stage;
}

Stage& Stages::on(MapId map, const Facts& held) {
    const Map& of = world_.map(map);
    const Facts facts = shaping(map, held);
    const auto [known, is_new] = stages_.try_emplace({map, facts});
    Stage& stage = known->second;
    if (!is_new) return stage;
    stage.map = map, stage.mover = mover_on(map), stage.facts = facts, stage.deeds = &deeds(map);
    stage.ways = ways_of({world_, of, stage.mover, stage.facts, stage.deeds->targets, nullptr, {}});
    return stage;
}

Stage Stages::with(MapId map, const Facts& held, const Mover& like) {
    const Stage& known = on(map, held);
    Stage stage{map, known.mover, known.facts, known.deeds, nullptr};
    const Map& of = world_.map(map);
    stage.ways = ways_of({world_, of, stage.mover, stage.facts, stage.deeds->targets, &like, {}});
    return stage;
}

void Stages::find_closing() {
    closing_.resize(world_.facts().size());
    for (const MapId map : ids<MapId>(world_.maps()))
        if (const MoverId mover = mover_on(map); mover != MoverId::none)
            add_closing_facts(world_, world_.map(map), mover, has_turning_tiles(world_, world_.map(map)), closing_);
}

bool Stages::only_opens(MapId map) { return !may_close(map, facts_of_ground(world_, world_.map(map))); }

bool Stages::may_close(MapId map, const Facts& facts) {
    const Facts own = shaping(map, facts);
    return std::any_of(own.begin(), own.end(), [&](FactId fact) { return closing_[index(fact)] != 0; });
}

}   // namespace dryground::travel

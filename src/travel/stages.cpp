// Maps for their movers while certain facts hold, made as they are needed.
//
// A stage depends only on the facts that shape its map's ground, so states of the world share stages.

#include <algorithm>
#include <optional>

#include "../ground/ground_internal.hpp"
#include "closing_internal.hpp"
#include "renewed_ways_internal.hpp"
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

Stages::Stages(const World& world, MoverId mover)
    : world_(world), mover_(mover), closing_on_(world.maps().size()), closing_(world.facts().size()) {
    for (const MapId map : ids<MapId>(world_.maps())) find_closing(map);
}

const Map& Stages::map(MapId map) const {
    const auto changed = changed_.find(map);
    return changed == changed_.end() ? world_.map(map) : changed->second;
}

MoverId Stages::mover_on(MapId map) const {
    const Map& of = world_.map(map);
    const MoverId mover = mover_ == MoverId::none || mover_ == world_.player() ? of.player : mover_;
    if (mover == MoverId::none) return MoverId::none;
    const Bounds body = *bounds(world_.mover(mover).body);
    return is_walked({of.least(), of.most()}) && is_small({body.least, body.most}) ? mover : MoverId::none;
}

const Deeds& Stages::deeds(MapId map) {
    const auto [known, is_new] = deeds_.try_emplace(map);
    const MoverId mover = mover_on(map);   // without one nothing is done there
    if (is_new && mover != MoverId::none) known->second = deeds_of(world_, this->map(map), mover);
    return known->second;
}

Facts Stages::shaping(MapId map, const Facts& held) {
    const auto [all, is_new_map] = ground_facts_.try_emplace(map);
    if (is_new_map) all->second = facts_of_ground(world_, this->map(map));
    Facts facts;
    std::set_intersection(held.begin(), held.end(), all->second.begin(), all->second.end(), std::back_inserter(facts));
    return facts;
}

Stage& Stages::loosest(MapId map, const Facts& held) {
    const Map& of = this->map(map);
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
    const Map& of = this->map(map);
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
    stage.ways = ways_of({world_, this->map(map), stage.mover, stage.facts, stage.deeds->targets, &like, {}});
    return stage;
}

void Stages::find_closing(MapId map) {
    std::vector<char>& closing = closing_on_[index(map)];
    closing.assign(world_.facts().size(), 0);
    const Map& of = this->map(map);
    if (const MoverId mover = mover_on(map); mover != MoverId::none)
        add_closing_facts(world_, of, mover, has_turning_tiles(world_, of), closing);
    for (std::size_t fact = 0; fact < closing.size(); ++fact)
        closing_[fact] = std::any_of(closing_on_.begin(), closing_on_.end(),
                                     [&](const std::vector<char>& on) { return fact < on.size() && on[fact] != 0; })
                             ? 1
                             : 0;
}

bool Stages::only_opens(MapId map) { return !may_close(map, facts_of_ground(world_, this->map(map))); }

bool Stages::follow(MapId id, const Map& now) {
    const Map& before = this->map(id);
    const std::vector<ChangedCell> cells = changed_cells(before, now);
    bool is_anew = false, other_deeds = false;   // whether nothing of the map can be kept; or all but what can be done
    for (std::size_t o = 0; o < now.objects.size(); ++o)
        is_anew = is_anew || before.objects[o].removed != now.objects[o].removed;
    if (cells.empty() && !is_anew) return false;
    std::vector<Bounds> boxes;
    for (const ChangedCell& changed : cells) {
        boxes.push_back(changed_box(world_, before, changed.layer, changed.cell, changed.before, changed.now));
        for (const Placed& placed : {changed.before, changed.now})
            other_deeds =
                other_deeds || (placed.tile >= 0 && does_something(world_, before.layer(changed.layer), placed));
    }
    const bool turned_before = has_turning_tiles(world_, before);
    const auto [known_map, is_first] = changed_.try_emplace(id, now);
    Map& own = known_map->second;
    if (!is_first) {   // objects stay where they are: deeds refer to their links
        own.palette = now.palette;
        for (std::size_t l = 0; l < own.layers.size(); ++l)
            own.layers[l].cells = now.layers[l].cells, own.layers[l].counts = now.layers[l].counts;
        for (std::size_t o = 0; o < own.objects.size(); ++o) own.objects[o].removed = now.objects[o].removed;
    }
    // What knows the map by its cells follows, if its facts are the same; the rest is made again when it is asked for.
    if (const auto known = ground_facts_.find(id); known != ground_facts_.end()) {
        Facts facts = facts_of_ground(world_, own);
        is_anew = is_anew || facts != known->second;
        known->second = std::move(facts);
    }
    if (turned_before || has_turning_tiles(world_, own)) is_anew = true;
    turned_.erase(id);
    std::erase_if(loosest_, [&](const auto& stage) { return stage.first.first == id; });
    if (is_anew) std::erase_if(stages_, [&](const auto& stage) { return stage.first.first == id; });
    if (other_deeds || is_anew)
        if (const auto known = deeds_.find(id); known != deeds_.end() && mover_on(id) != MoverId::none)
            known->second = deeds_of(world_, own, mover_on(id));
    for (auto& [key, stage] : stages_)
        if (key.first == id)
            renew(stage.ways, {world_, own, stage.mover, stage.facts, stage.deeds->targets, nullptr, {}}, boxes,
                  other_deeds);
    if (!world_.facts().empty()) find_closing(id);
    return true;
}

bool Stages::may_close(MapId map, const Facts& facts) {
    const Facts own = shaping(map, facts);
    return std::any_of(own.begin(), own.end(), [&](FactId fact) { return closing_[index(fact)] != 0; });
}

}   // namespace dryground::travel

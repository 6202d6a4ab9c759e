// The differences from a pack: listed, made again, carried over to a newer world.

#include <fmt/format.h>

#include <algorithm>

#include "dryground/text.hpp"
#include "object_keys_internal.hpp"
#include "parts_internal.hpp"

namespace dryground {

namespace {

Edit edit_of(Edit::Sort sort, MapId map, ObjectId object) {
    Edit edit;
    edit.sort = sort, edit.map = map, edit.object = object, edit.holds = true;
    return edit;
}

}   // namespace

SavedChanges Play::changes() const {
    SavedChanges all{parts_->pack, map().name, {}};
    const Play::Parts::Done& done = parts_->done;
    for (const auto& [key, edit] : done.tiles) all.edits.push_back(edit);
    for (const FactId fact : done.facts) {
        Edit edit;
        edit.sort = Edit::Sort::fact, edit.fact = fact, edit.holds = true;
        all.edits.push_back(edit);
    }
    for (const Parts::FiredKey& key : done.fired) {
        Edit edit = edit_of(Edit::Sort::fired, key.map, key.object);
        edit.layer = key.layer, edit.cell = {key.column, key.row};
        edit.whole_layer = key.of == Parts::FiredKey::Of::layer;
        all.edits.push_back(edit);
    }
    for (const auto& [map, object] : done.removed) all.edits.push_back(edit_of(Edit::Sort::removed, map, object));
    return all;
}

namespace {

bool is_tile(const World& world, const Placed& placed) {
    return placed.tile < 0 ||
           (placed.tileset >= 0 && static_cast<std::size_t>(placed.tileset) < world.tilesets().size() &&
            static_cast<std::size_t>(placed.tile) <
                world.tilesets()[static_cast<std::size_t>(placed.tileset)].tiles.size());
}

template <class Things, class Id>
bool has(const Things& things, Id id) {
    return static_cast<int>(id) >= 0 && static_cast<std::size_t>(id) < things.size();
}

// Why an edit cannot be made in a world; empty when it can.
std::string fault_of(const World& world, const Edit& edit) {
    if (edit.sort == Edit::Sort::fact)
        return has(world.facts(), edit.fact) ? "" : fmt::format("there is no fact {}", static_cast<int>(edit.fact));
    if (!has(world.maps(), edit.map)) return fmt::format("there is no map {}", static_cast<int>(edit.map));
    const Map& map = world.map(edit.map);
    if (edit.sort == Edit::Sort::removed || (edit.sort == Edit::Sort::fired && edit.object != ObjectId::none))
        return has(map.objects, edit.object)
                   ? ""
                   : fmt::format("map '{}' has no object {}", map.name, static_cast<int>(edit.object));
    if (!has(map.layers, edit.layer) || map.layer(edit.layer).holds_objects)
        return fmt::format("map '{}' has no layer of cells {}", map.name, static_cast<int>(edit.layer));
    if (edit.whole_layer) return "";
    if (!map.has(map.data_cell(edit.cell)))
        return fmt::format("map '{}' has no cell ({}, {})", map.name, edit.cell.column, edit.cell.row);
    if (edit.sort == Edit::Sort::tile && !is_tile(world, edit.after))
        return fmt::format("there is no tile {} in tile set {}", edit.after.tile, edit.after.tileset);
    return "";
}

}   // namespace

void Play::Parts::Done::add(const World& of, const Edit& edit) {
    switch (edit.sort) {
        case Edit::Sort::tile: {
            const Map& map = of.map(edit.map);
            Edit known = edit;
            known.before = map.placed(map.layer(edit.layer), map.data_cell(edit.cell));
            if (known.after.tile < 0) known.after = Placed{};
            const TileKey key{edit.map, edit.layer, edit.cell.row, edit.cell.column};
            if (known.before == known.after)
                tiles.erase(key);
            else
                tiles.insert_or_assign(key, known);
            break;
        }
        case Edit::Sort::fact:
            if (const auto at = std::lower_bound(facts.begin(), facts.end(), edit.fact);
                edit.holds && (at == facts.end() || *at != edit.fact))
                facts.insert(at, edit.fact);
            break;
        case Edit::Sort::fired:
            fired.insert(key_of(edit));
            break;
        case Edit::Sort::removed:
            removed.insert({edit.map, edit.object});
            break;
    }
}

std::vector<std::string> Play::apply(const SavedChanges& changes) {
    std::vector<std::string> lost;
    Parts::Done wanted;
    for (const Edit& edit : changes.edits) {
        if (std::string fault = fault_of(world(), edit); !fault.empty())
            lost.push_back(std::move(fault));
        else
            wanted.add(world(), edit);
    }
    const MapId map = world().find_map(changes.map);
    if (map == MapId::none && !changes.map.empty()) lost.push_back(fmt::format("there is no map '{}'", changes.map));
    parts_->turn_to(std::move(wanted), map == MapId::none ? map_id() : map);
    now_ = parts_->now;
    return lost;
}

// Cell by cell where few are others, else by merging the map.
void Play::Parts::turn_to(Done wanted, MapId id) {
    constexpr std::size_t few = 256;
    std::vector<std::pair<TileKey, Placed>> others;
    for (const auto& [key, edit] : done.tiles)
        if (key.map == id && wanted.tiles.count(key) == 0) others.emplace_back(key, edit.before);
    for (const auto& [key, edit] : wanted.tiles)
        if (const auto known = done.tiles.find(key);
            key.map == id && (known == done.tiles.end() || !(known->second.after == edit.after)))
            others.emplace_back(key, edit.after);
    const bool merges = id != map_id || others.size() > few;
    std::vector<std::pair<MapId, ObjectId>> gone_or_back;
    std::set_symmetric_difference(done.removed.begin(), done.removed.end(), wanted.removed.begin(),
                                  wanted.removed.end(), std::back_inserter(gone_or_back));
    const bool follows = done.facts != wanted.facts;
    done = std::move(wanted);
    ++arrival;
    if (merges) {
        load(id);
        return;
    }
    for (const auto& [key, tile] : others) {
        const DataCell cell = map().data_cell({key.column, key.row});
        const Placed before = map().placed(map().layer(key.layer), cell.column, cell.row);
        live->set_tile(key.layer, cell, tile);
        renew_solids_of(key.layer, cell, before, tile);
    }
    bool renews = follows;
    for (const auto& [of, object] : gone_or_back)
        if (of == id) {
            live->set_removed(object, done.removed.count({of, object}) > 0);
            renews = true;
        }
    if (follows) live->set_facts(done.facts);
    if (renews) renew_solids();
}

// ---- a newer world ----

namespace {

template <class Things>
int called(const Things& things, const std::string& name) {
    const auto found =
        std::find_if(things.begin(), things.end(), [&](const auto& thing) { return thing.name == name; });
    return found == things.end() ? -1 : static_cast<int>(found - things.begin());
}

template <class Things>
void tell_names(const char* sort, const Things& before, const Things& now, std::vector<std::string>& words) {
    for (const auto& thing : now)
        if (called(before, thing.name) < 0) words.push_back(fmt::format("{} '{}' added", sort, thing.name));
    for (const auto& thing : before)
        if (called(now, thing.name) < 0) words.push_back(fmt::format("{} '{}' removed", sort, thing.name));
}

std::string words_of(const World& world, const Placed& placed) {
    if (placed.tile < 0) return "";
    return fmt::format("{}/{} {} {} {}", world.tilesets()[static_cast<std::size_t>(placed.tileset)].name,
                       world.tile(placed).name, placed.orientation.flip_x, placed.orientation.flip_y,
                       placed.orientation.turn);
}

void tell_map(const World& old_world, const Map& before, const World& new_world, const Map& now,
              std::vector<std::string>& words) {
    if (before.columns != now.columns || before.rows != now.rows)
        words.push_back(fmt::format("map '{}' has {} x {} cells, and had {} x {}", now.name, now.columns, now.rows,
                                    before.columns, before.rows));
    std::size_t cells = 0;
    for (const Layer& layer : now.layers) {
        const LayerId old_id = before.find_layer(layer.name);
        if (layer.holds_objects || old_id == LayerId::none) continue;
        const Layer& old = before.layer(old_id);
        if (old.holds_objects) continue;
        for (int r = 0; r < now.rows; ++r)
            for (int c = 0; c < now.columns; ++c) {
                const DataCell then = before.data_cell(now.cell({c, r}));
                const std::string was = before.has(then) ? words_of(old_world, before.placed(old, then)) : "";
                cells += was != words_of(new_world, now.placed(layer, c, r));
            }
    }
    if (cells > 0)
        words.push_back(fmt::format("map '{}': {} cell{} hold{} something else", now.name, cells, cells == 1 ? "" : "s",
                                    cells == 1 ? "s" : ""));
    tell_names(fmt::format("map '{}': layer", now.name).c_str(), before.layers, now.layers, words);
    std::vector<Object> old_named, new_named;
    for (const Object& object : before.objects)
        if (!object.name.empty()) old_named.push_back(object);
    for (const Object& object : now.objects)
        if (!object.name.empty()) new_named.push_back(object);
    tell_names(fmt::format("map '{}': object", now.name).c_str(), old_named, new_named, words);
    for (const Object& object : new_named)
        if (const int id = called(old_named, object.name);
            id >= 0 && old_named[static_cast<std::size_t>(id)].position != object.position)
            words.push_back(fmt::format("map '{}': object '{}' stands elsewhere", now.name, object.name));
}

// Edits of one world as edits of another, by the names of what they are about.
class CarryOver {
public:
    CarryOver(const World& from, const World& to) : from_(from), to_(to) {}

    // Nothing where the other world has no place for it.
    [[nodiscard]] std::optional<Edit> carried(const Edit& edit) const {
        Edit result = edit;
        if (edit.sort == Edit::Sort::fact)
            result.fact = to_.find_fact(from_.fact(edit.fact).name);
        else if (edit.sort == Edit::Sort::removed || edit.object != ObjectId::none)
            carry_object(result);
        else
            carry_cell(result);
        return fault_of(to_, result).empty() ? std::optional(result) : std::nullopt;
    }

private:
    const Map& map_of(const Edit& edit) const { return from_.map(edit.map); }

    void carry_object(Edit& edit) const {
        const Map& map = map_of(edit);
        const auto [known, is_new] = keys_.try_emplace(edit.map);
        const MapId id = to_.find_map(map.name);
        if (is_new && id != MapId::none)
            known->second.emplace(play::ObjectKeys(from_, map), play::ObjectKeys(to_, to_.map(id)));
        edit.object =
            known->second ? known->second->second.find(known->second->first.key(edit.object)) : ObjectId::none;
        edit.map = edit.object == ObjectId::none ? MapId::none : id;
    }
    void carry_cell(Edit& edit) const {
        const Map& map = map_of(edit);
        edit.map = to_.find_map(map.name);
        if (edit.map == MapId::none) return;
        edit.layer = to_.map(edit.map).find_layer(map.layer(edit.layer).name);
        if (edit.sort != Edit::Sort::tile || edit.after.tile < 0) return;
        const Placed& placed = edit.after;
        const int set = called(to_.tilesets(), from_.tilesets()[static_cast<std::size_t>(placed.tileset)].name);
        const int tile = set < 0 ? -1 : to_.tilesets()[static_cast<std::size_t>(set)].find(from_.tile(placed).name);
        if (tile < 0)
            edit.layer = LayerId::none;   // it fits nowhere
        else
            edit.after = {static_cast<std::int16_t>(set), tile, placed.orientation};
    }

    const World &from_, &to_;
    mutable std::map<MapId, std::optional<std::pair<play::ObjectKeys, play::ObjectKeys>>> keys_;
};

}   // namespace

std::vector<std::string> Play::refresh(World newer) {
    const World old = parts_->world;
    std::vector<std::string> words;
    tell_names("map", old.maps(), newer.maps(), words);
    tell_names("fact", old.facts(), newer.facts(), words);
    tell_names("tile set", old.tilesets(), newer.tilesets(), words);
    for (const Map& map : newer.maps())
        if (const MapId before = old.find_map(map.name); before != MapId::none)
            tell_map(old, old.map(before), newer, map, words);

    const CarryOver carry_over(old, newer);
    Parts::Done carried;
    std::size_t lost = 0;
    for (const Edit& edit : changes().edits) {
        const std::optional<Edit> there = carry_over.carried(edit);
        if (there)
            carried.add(newer, *there);
        else
            lost += edit.sort == Edit::Sort::tile;
    }
    if (lost > 0) words.push_back(counted(lost, "changed cell") + " could not be carried over");
    const MapId map = std::max(MapId{}, newer.find_map(this->map().name));
    parts_->solids.reset(), parts_->live.reset();   // they refer to the old world
    parts_->world = std::move(newer);
    parts_->done = std::move(carried);
    load(map);
    return words;
}

}   // namespace dryground

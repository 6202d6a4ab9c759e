// What is other than in the pack: told, made again, carried over to a newer world.

#include <fmt/format.h>

#include <algorithm>

#include "parts_internal.hpp"

namespace dryground {

Changes Play::changes() const {
    Changes all{parts_->pack, {}};
    for (const auto& [key, change] : parts_->tiles) all.changes.push_back(change);
    for (const int fact : parts_->facts) {
        Change change;
        change.sort = Change::Sort::fact, change.fact = fact, change.holds = true;
        all.changes.push_back(change);
    }
    for (const auto& [map, object, layer, row, column] : parts_->fired) {
        Change change;
        change.sort = Change::Sort::fired, change.map = map, change.object = object, change.holds = true;
        change.layer = object < 0 ? layer : -1;
        if (object < 0) change.cell = {column, row};
        all.changes.push_back(change);
    }
    return all;
}

namespace {

bool is_tile(const World& world, const Placed& placed) {
    return placed.tile < 0 ||
           (placed.tileset >= 0 && static_cast<std::size_t>(placed.tileset) < world.tilesets().size() &&
            static_cast<std::size_t>(placed.tile) <
                world.tilesets()[static_cast<std::size_t>(placed.tileset)].tiles.size());
}

// Why a change cannot be made in a world; empty when it can.
std::string fault_of(const World& world, const Change& change) {
    if (change.sort == Change::Sort::fact)
        return change.fact >= 0 && static_cast<std::size_t>(change.fact) < world.facts().size()
                   ? ""
                   : fmt::format("there is no fact {}", change.fact);
    if (change.map < 0 || static_cast<std::size_t>(change.map) >= world.maps().size())
        return fmt::format("there is no map {}", change.map);
    const Map& map = world.maps()[static_cast<std::size_t>(change.map)];
    if (change.sort == Change::Sort::fired && change.object >= 0)
        return static_cast<std::size_t>(change.object) < map.objects.size()
                   ? ""
                   : fmt::format("map '{}' has no object {}", map.name, change.object);
    if (change.layer < 0 || static_cast<std::size_t>(change.layer) >= map.layers.size() ||
        map.layers[static_cast<std::size_t>(change.layer)].holds_objects)
        return fmt::format("map '{}' has no layer of cells {}", map.name, change.layer);
    const int c = change.cell[0] - map.first_column, r = change.cell[1] - map.first_row;
    if (!map.has(c, r)) return fmt::format("map '{}' has no cell ({}, {})", map.name, change.cell[0], change.cell[1]);
    if (change.sort == Change::Sort::fired) return "";
    if (!is_tile(world, change.after))
        return fmt::format("there is no tile {} in tile set {}", change.after.tile, change.after.tileset);
    if (!(map.placed(map.layers[static_cast<std::size_t>(change.layer)], c, r) == change.before))
        return fmt::format("cell ({}, {}) of map '{}' does not hold what it is said to have held", change.cell[0],
                           change.cell[1], map.name);
    return "";
}

}   // namespace

std::string Play::apply(const Changes& changes) {
    if (changes.pack != parts_->pack)
        return fmt::format("these changes belong to another pack: theirs is '{}', this one is '{}'", changes.pack,
                           parts_->pack);
    if (!parts_->tiles.empty() || !parts_->facts.empty() || !parts_->fired.empty())
        return "something has been changed already: apply to a fresh start";
    for (const Change& change : changes.changes)
        if (std::string fault = fault_of(world(), change); !fault.empty()) return fault;
    for (const Change& change : changes.changes) {
        if (change.sort == Change::Sort::tile) parts_->note(change);
        if (change.sort == Change::Sort::fact && change.holds) parts_->facts.push_back(change.fact);
        if (change.sort == Change::Sort::fired) {
            const bool of_tile = change.object < 0;
            parts_->fired.insert({change.map, change.object, of_tile ? change.layer : 0, of_tile ? change.cell[1] : 0,
                                  of_tile ? change.cell[0] : 0});
        }
    }
    std::sort(parts_->facts.begin(), parts_->facts.end());
    parts_->facts.erase(std::unique(parts_->facts.begin(), parts_->facts.end()), parts_->facts.end());
    load(parts_->map_id);
    return "";
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
        if (called(before, thing.name) < 0) words.push_back(fmt::format("{} '{}' came", sort, thing.name));
    for (const auto& thing : before)
        if (called(now, thing.name) < 0) words.push_back(fmt::format("{} '{}' went", sort, thing.name));
}

std::string words_of(const World& world, const Placed& placed) {
    if (placed.tile < 0) return "";
    return fmt::format("{}/{} {} {} {}", world.tilesets()[static_cast<std::size_t>(placed.tileset)].name,
                       world.tile(placed).name, placed.orientation.flip_x, placed.orientation.flip_y,
                       placed.orientation.turn);
}

// The same tile by its names in another world; a tile of -2 when it has none.
Placed same_tile(const World& from, const World& to, const Placed& placed) {
    if (placed.tile < 0) return {};
    const int set = called(to.tilesets(), from.tilesets()[static_cast<std::size_t>(placed.tileset)].name);
    const int tile = set < 0 ? -1 : to.tilesets()[static_cast<std::size_t>(set)].find(from.tile(placed).name);
    return tile < 0 ? Placed{-1, -2, {}} : Placed{static_cast<std::int16_t>(set), tile, placed.orientation};
}

void tell_map(const World& old_world, const Map& before, const World& new_world, const Map& now,
              std::vector<std::string>& words) {
    if (before.columns != now.columns || before.rows != now.rows)
        words.push_back(fmt::format("map '{}' has {} x {} cells, and had {} x {}", now.name, now.columns, now.rows,
                                    before.columns, before.rows));
    std::size_t cells = 0;
    for (const Layer& layer : now.layers) {
        const int old_id = called(before.layers, layer.name);
        if (layer.holds_objects || old_id < 0) continue;
        const Layer& old = before.layers[static_cast<std::size_t>(old_id)];
        if (old.holds_objects) continue;
        for (int r = 0; r < now.rows; ++r)
            for (int c = 0; c < now.columns; ++c) {
                const int old_c = c + now.first_column - before.first_column,
                          old_r = r + now.first_row - before.first_row;
                const std::string was =
                    before.has(old_c, old_r) ? words_of(old_world, before.placed(old, old_c, old_r)) : "";
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

}   // namespace

std::vector<std::string> Play::refresh(World newer) {
    const World old = parts_->world;
    std::vector<std::string> words;
    tell_names("map", old.maps(), newer.maps(), words);
    tell_names("fact", old.facts(), newer.facts(), words);
    tell_names("tile set", old.tilesets(), newer.tilesets(), words);
    for (const Map& map : newer.maps())
        if (const Map* before = old.find_map(map.name)) tell_map(old, *before, newer, map, words);

    // What was changed, by names.
    Facts facts;
    for (const int fact : parts_->facts)
        if (const int id = called(newer.facts(), old.facts()[static_cast<std::size_t>(fact)].name); id >= 0)
            facts.push_back(id);
    std::sort(facts.begin(), facts.end());
    std::map<Parts::TileKey, Change> tiles;
    std::set<Parts::FiredKey> fired;
    std::size_t lost = 0;
    for (const auto& [key, change] : parts_->tiles) {
        const Map& map = old.maps()[static_cast<std::size_t>(change.map)];
        Change carried = change;
        carried.map = called(newer.maps(), map.name);
        carried.layer = carried.map < 0 ? -1
                                        : called(newer.maps()[static_cast<std::size_t>(carried.map)].layers,
                                                 map.layers[static_cast<std::size_t>(change.layer)].name);
        carried.after = same_tile(old, newer, change.after);
        bool fits = carried.map >= 0 && carried.layer >= 0 && carried.after.tile != -2;
        if (fits) {
            const Map& target = newer.maps()[static_cast<std::size_t>(carried.map)];
            const Layer& layer = target.layers[static_cast<std::size_t>(carried.layer)];
            const int c = change.cell[0] - target.first_column, r = change.cell[1] - target.first_row;
            fits = !layer.holds_objects && target.has(c, r);
            if (fits) carried.before = target.placed(layer, c, r);
        }
        if (!fits)
            ++lost;
        else if (!(carried.before == carried.after))
            tiles.emplace(Parts::TileKey{carried.map, carried.layer, carried.cell[1], carried.cell[0]}, carried);
    }
    for (const Parts::FiredKey& key : parts_->fired) {
        const Map& map = old.maps()[static_cast<std::size_t>(key[0])];
        const int id = called(newer.maps(), map.name);
        if (id < 0) continue;
        const Map& target = newer.maps()[static_cast<std::size_t>(id)];
        if (key[1] >= 0) {
            const std::string& name = map.objects[static_cast<std::size_t>(key[1])].name;
            if (const int object = name.empty() ? -1 : target.find_object(name); object >= 0)
                fired.insert({id, object, 0, 0, 0});
        } else if (const int layer = called(target.layers, map.layers[static_cast<std::size_t>(key[2])].name);
                   layer >= 0) {
            fired.insert({id, -1, layer, key[3], key[4]});
        }
    }
    if (lost > 0)
        words.push_back(fmt::format("{} changed cell{} could not be carried over", lost, lost == 1 ? "" : "s"));
    const int map = std::max(0, called(newer.maps(), this->map().name));
    parts_->solids.reset(), parts_->live.reset();   // they refer to the old world
    parts_->world = std::move(newer);
    parts_->facts = std::move(facts), parts_->tiles = std::move(tiles), parts_->fired = std::move(fired);
    load(map);
    return words;
}

}   // namespace dryground

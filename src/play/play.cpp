#include "dryground/play.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "parts_internal.hpp"

namespace dryground {

namespace {

int map_called(const World& world, std::string_view name) {
    return static_cast<int>(&world.map(name) - world.maps().data());   // throws where there is none
}

}   // namespace

void Play::Parts::load(int id) {
    Map changed = world.maps()[static_cast<std::size_t>(id)];
    for (const auto& [key, change] : tiles)
        if (key[0] == id)
            changed.put(static_cast<std::size_t>(key[1]), key[3] - changed.first_column, key[2] - changed.first_row,
                        change.after);
    const int chunk = options.chunk_cells > 0 ? options.chunk_cells : world.merging().chunk_cells;
    solids.reset();
    live = std::make_unique<LiveMap>(world, changed, chunk, merge_options());
    now = &live->map();
    map_id = id;
    renew_solids();
}

std::vector<std::size_t> Play::Parts::follow_facts() {
    std::vector<std::size_t> changed = live->set_facts(facts);
    renew_solids();
    return changed;
}

// Remembers a cell's tile, and forgets it where it is the world's again.
void Play::Parts::note(const Change& change) {
    const TileKey key{change.map, change.layer, change.cell[1], change.cell[0]};
    const auto [known, is_new] = tiles.try_emplace(key, change);
    known->second.after = change.after;
    if (known->second.before == known->second.after) tiles.erase(known);
}

Play::Play(World world, std::string_view map, const PlayOptions& options)
    : parts_(std::make_unique<Parts>(std::move(world), "", options)) {
    load(map_called(parts_->world, map));
}
Play::Play(const Pack& pack, std::string_view map, const PlayOptions& options)
    : parts_(std::make_unique<Parts>(pack.world(), pack.hash(), options)) {
    load(map_called(parts_->world, map));
}
void Play::load(int map) {
    parts_->load(map);
    ++parts_->arrival;
    now_ = parts_->now;
}
void Play::refuse_layer(int layer) const {
    throw std::out_of_range(fmt::format("dryground::Play: map '{}' has no layer of cells {}", map().name, layer));
}
Play::~Play() = default;
Play::Play(Play&&) noexcept = default;
Play& Play::operator=(Play&&) noexcept = default;

const World& Play::world() const { return parts_->world; }
int Play::map_id() const { return parts_->map_id; }
const ChunkedMerge& Play::merge() const { return parts_->live->merge(); }
void Play::go_to(std::string_view map) { load(map_called(parts_->world, map)); }

// ---- places and cells ----

PointPx Play::from_metres(double x, double y) const { return {x * world().per_metre(), -y * world().per_metre()}; }
std::array<double, 2> Play::to_metres(PointPx p) const {
    return {p.x / world().per_metre(), -p.y / world().per_metre()};
}

Cell Play::cell_at(PointPx p) const {
    const auto [c, r] = map().cell_at({step_at(p.x), step_at(p.y)});
    return {map().first_column + c, map().first_row + r};
}
PointPx Play::corner_of(const Cell& cell) const {
    const auto [c, r] = parts_->data_cell(cell);
    const Point p = map().corner(c, r);
    return {to_px(p.x), to_px(p.y)};
}
PointPx Play::middle_of(const Cell& cell) const {
    const auto [c, r] = parts_->data_cell(cell);
    const Bounds box = map().cell_box(c, r);
    return {(to_px(box.least.x) + to_px(box.most.x)) / 2, (to_px(box.least.y) + to_px(box.most.y)) / 2};
}
bool Play::has(const Cell& cell) const {
    const auto [c, r] = parts_->data_cell(cell);
    return map().has(c, r);
}

const Tile* Play::find_tile(int layer, const Cell& cell) const {
    const Placed& placed = tile_at(layer, cell);
    return placed.tile < 0 ? nullptr : &world().tile(placed);
}
Passability Play::says(const Cell& cell, int storey) const {
    const auto [c, r] = parts_->data_cell(cell);
    return map().has(c, r) ? passability(world(), map(), c, r, storey, parts_->facts) : Passability{};
}
bool Play::grants(const Cell& cell, std::string_view flag, int storey) const {
    for (std::size_t f = 0; f < world().flags().size(); ++f)
        if (world().flags()[f].name == flag) return (says(cell, storey).flags >> f & 1) != 0;
    throw std::out_of_range(fmt::format("dryground::Play::grants: the world has no flag '{}'", flag));
}
const Value* Play::property_at(const Cell& cell, std::string_view name, int storey) const {
    for (int l = static_cast<int>(map().layers.size()); l-- > 0;) {
        const Layer& layer = map().layers[static_cast<std::size_t>(l)];
        if (layer.holds_objects || layer.storey != storey || !dryground::is_there(layer, parts_->facts)) continue;
        const Tile* tile = find_tile(l, cell);
        if (tile == nullptr) continue;
        const auto found =
            std::find_if(tile->props.begin(), tile->props.end(), [&](const auto& prop) { return prop.first == name; });
        if (found != tile->props.end()) return &found->second;
    }
    return nullptr;
}

// ---- changes ----

Changed Play::set_tile(int layer, const Cell& cell, const Placed& tile) {
    const auto [c, r] = parts_->data_cell(cell);
    if (!map().has(c, r))
        throw std::out_of_range(
            fmt::format("dryground::Play::set_tile: map '{}' has no cell ({}, {})", map().name, cell[0], cell[1]));
    const Placed wanted = tile.tile < 0 ? Placed{} : tile;
    Change change;
    change.map = parts_->map_id, change.layer = layer, change.cell = cell;
    change.before = tile_at(layer, cell), change.after = wanted;
    if (change.before == wanted) return {};
    Changed changed{{change}, parts_->live->set_tile(static_cast<std::size_t>(layer), c, r, wanted)};
    parts_->solids->renew(layer, c, r);
    parts_->note(change);
    return changed;
}

Changed Play::set_tile(int layer, const Cell& cell, std::string_view tile) {
    if (tile.empty()) return clear(layer, cell);
    const std::size_t slash = tile.find('/');
    for (const int set : map().tilesets) {
        const TileSet& tiles = world().tilesets()[static_cast<std::size_t>(set)];
        if (slash != std::string_view::npos && tiles.name != tile.substr(0, slash)) continue;
        if (const int id = tiles.find(slash == std::string_view::npos ? tile : tile.substr(slash + 1)); id >= 0)
            return set_tile(layer, cell, Placed{static_cast<std::int16_t>(set), id, {}});
    }
    throw std::out_of_range(fmt::format("dryground::Play::set_tile: map '{}' has no tile '{}'", map().name, tile));
}

namespace {

void append(Changed& all, Changed more) {
    all.changes.insert(all.changes.end(), more.changes.begin(), more.changes.end());
    all.chunks.insert(all.chunks.end(), more.chunks.begin(), more.chunks.end());
    std::sort(all.chunks.begin(), all.chunks.end());
    all.chunks.erase(std::unique(all.chunks.begin(), all.chunks.end()), all.chunks.end());
}

}   // namespace

Changed Play::swap(int layer, const Cell& a, const Cell& b) {
    const Placed at_a = tile_at(layer, a), at_b = tile_at(layer, b);
    Changed changed = set_tile(layer, a, at_b);
    append(changed, set_tile(layer, b, at_a));
    return changed;
}

Changed Play::set_fact(int fact, bool holds_now) {
    if (fact < 0 || static_cast<std::size_t>(fact) >= world().facts().size())
        throw std::out_of_range(fmt::format("dryground::Play::set_fact: the world has no fact {}", fact));
    if (holds(fact) == holds_now) return {};
    Facts& facts = parts_->facts;
    const auto at = std::lower_bound(facts.begin(), facts.end(), fact);
    holds_now ? static_cast<void>(facts.insert(at, fact)) : static_cast<void>(facts.erase(at));
    Change change;
    change.sort = Change::Sort::fact, change.fact = fact, change.holds = holds_now, change.held = !holds_now;
    Changed changed{{change}, {}};
    if (ground::follows(world(), map(), fact)) changed.chunks = parts_->follow_facts();
    now_ = parts_->now;
    return changed;
}

namespace {

int fact_called(const World& world, std::string_view name) {
    for (std::size_t f = 0; f < world.facts().size(); ++f)
        if (world.facts()[f].name == name) return static_cast<int>(f);
    throw std::out_of_range(fmt::format("dryground::Play: the world has no fact '{}'", name));
}

}   // namespace

Changed Play::set_fact(std::string_view fact, bool holds_now) {
    return set_fact(fact_called(world(), fact), holds_now);
}
bool Play::holds(int fact) const { return std::binary_search(parts_->facts.begin(), parts_->facts.end(), fact); }
bool Play::holds(std::string_view fact) const { return holds(fact_called(world(), fact)); }
const Facts& Play::facts() const { return parts_->facts; }
bool Play::is_there(int object) const {
    return dryground::is_there(map(), map().objects.at(static_cast<std::size_t>(object)), parts_->facts);
}

bool Play::has_fired(int object) const { return parts_->fired.count({parts_->map_id, object, 0, 0, 0}) > 0; }
bool Play::has_fired(int layer, const Cell& cell) const {
    return parts_->fired.count({parts_->map_id, -1, layer, cell[1], cell[0]}) > 0;
}

namespace {

Change fired_change(int map, int object, int layer, const Cell& cell) {
    Change change;
    change.sort = Change::Sort::fired, change.map = map, change.object = object, change.layer = layer,
    change.cell = cell;
    change.holds = true;
    return change;
}

}   // namespace

Changed Play::set_fired(int object) {
    if (!parts_->fired.insert({parts_->map_id, object, 0, 0, 0}).second) return {};
    return {{fired_change(parts_->map_id, object, -1, {})}, {}};
}
Changed Play::set_fired(int layer, const Cell& cell) {
    if (!parts_->fired.insert({parts_->map_id, -1, layer, cell[1], cell[0]}).second) return {};
    return {{fired_change(parts_->map_id, -1, layer, cell)}, {}};
}

Changed Play::undo(const Changed& changed) {
    Changed all;
    for (auto change = changed.changes.rbegin(); change != changed.changes.rend(); ++change) {
        if (change->sort == Change::Sort::fact) {
            append(all, set_fact(change->fact, change->held));
        } else if (change->sort == Change::Sort::fired) {
            const bool of_tile = change->object < 0;
            parts_->fired.erase({change->map, change->object, of_tile ? change->layer : 0,
                                 of_tile ? change->cell[1] : 0, of_tile ? change->cell[0] : 0});
        } else if (change->map == parts_->map_id) {
            append(all, set_tile(change->layer, change->cell, change->before));
        } else {   // of a map that was left: it is merged when somebody goes there
            Change back = *change;
            std::swap(back.before, back.after);
            parts_->note(back);
        }
    }
    return all;
}

}   // namespace dryground

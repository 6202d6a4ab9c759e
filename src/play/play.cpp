// A running game's world: edits, facts, maps, and what changed since the pack.
//
// Idea. The present map is kept in chunks (LiveMap), with the shapes of its tiles ready to be touched; an edit renews
// what lies near it. What differs from the world is kept by place, so that it can be saved. Cost: see play.hpp.

#include "dryground/play.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>

#include "parts_internal.hpp"

namespace dryground {

namespace {

MapId map_called(const World& world, std::string_view name) {
    return id_of<MapId>(
        static_cast<std::size_t>(&world.map(name) - world.maps().data()));   // throws for an unknown name
}

}   // namespace

void Play::Parts::load(MapId id) {
    Map changed = world.map(id);
    for (const auto& [key, edit] : done.tiles)
        if (key.map == id) changed.put(key.layer, changed.data_cell({key.column, key.row}), edit.after);
    for (const auto& [map, object] : done.removed)
        if (map == id) changed.objects[index(object)].removed = true;
    const int chunk = options.chunk_cells > 0 ? options.chunk_cells : world.merging().chunk_cells;
    solids.reset();
    live = std::make_unique<LiveMap>(world, changed, chunk, merge_options());
    now = &live->map();
    map_id = id;
    renew_solids();
    std::vector<Bounds> boxes;
    for (const Object& object : now->objects) {
        const Bounds at{object.position, object.position};
        boxes.push_back(object.area.empty() ? at : detail::both(at, *bounds(object.area)));
    }
    objects = detail::BoxIndex(std::move(boxes));
}

std::vector<std::size_t> Play::Parts::follow_facts() {
    std::vector<std::size_t> changed = live->set_facts(done.facts);
    renew_solids();
    return changed;
}

// Stores a cell's tile, and removes it if it is the world's again.
void Play::Parts::note(const Edit& edit) {
    const TileKey key{edit.map, edit.layer, edit.cell.row, edit.cell.column};
    const auto [known, is_new] = done.tiles.try_emplace(key, edit);
    known->second.after = edit.after;
    if (known->second.before == known->second.after) done.tiles.erase(known);
}

Play::Play(World world, std::string_view map, const PlayOptions& options)
    : parts_(std::make_unique<Parts>(std::move(world), "", options)) {
    load(map_called(parts_->world, map));
}
Play::Play(const Pack& pack, std::string_view map, const PlayOptions& options)
    : parts_(std::make_unique<Parts>(pack.world(), pack.hash(), options)) {
    load(map_called(parts_->world, map));
}
void Play::load(MapId map) {
    parts_->load(map);
    ++parts_->arrival;
    now_ = parts_->now;
}
void Play::refuse_layer(LayerId layer) const {
    throw std::out_of_range(
        fmt::format("dryground::Play: map '{}' has no layer of cells {}", map().name, static_cast<int>(layer)));
}
Play::~Play() = default;
Play::Play(Play&&) noexcept = default;
Play& Play::operator=(Play&&) noexcept = default;

const World& Play::world() const { return parts_->world; }
MapId Play::map_id() const { return parts_->map_id; }
const ChunkedMerge& Play::merge() const { return parts_->live->merge(); }
void Play::go_to(std::string_view map) { load(map_called(parts_->world, map)); }
void Play::go_to(MapId map) {
    if (map == MapId::none || index(map) >= world().maps().size())
        throw std::out_of_range(fmt::format("dryground::Play::go_to: the world has no map {}", static_cast<int>(map)));
    load(map);
}

// ---- finding things by their names ----

LayerId Play::find_layer(std::string_view name) const { return map().find_layer(name); }
ObjectId Play::find_object(std::string_view name) const { return map().find_object(name); }
std::vector<LayerId> Play::layers_tagged(std::string_view tag) const {
    std::vector<LayerId> layers;
    for (const LayerId layer : ids<LayerId>(map().layers)) {
        const std::vector<std::string>& tags = map().layer(layer).tags;
        if (std::find(tags.begin(), tags.end(), tag) != tags.end()) layers.push_back(layer);
    }
    return layers;
}
PointPx Play::place_of(ObjectId object) const {
    const Point p = map().objects.at(index(object)).position;
    return {to_px(p.x), to_px(p.y)};
}

// ---- places and cells ----

PointPx Play::from_metres(double x, double y) const { return {x * world().per_metre(), -y * world().per_metre()}; }
std::array<double, 2> Play::to_metres(PointPx p) const {
    return {p.x / world().per_metre(), -p.y / world().per_metre()};
}

Cell Play::cell_at(PointPx p) const { return map().cell(map().data_cell_at({step_at(p.x), step_at(p.y)})); }
Cell Play::standing_cell(PointPx feet) const { return cell_at({feet.x, feet.y - to_px(1)}); }
PointPx Play::corner_of(Cell cell) const {
    const auto [c, r] = map().data_cell(cell);
    const Point p = map().corner(c, r);
    return {to_px(p.x), to_px(p.y)};
}
PointPx Play::middle_of(Cell cell) const {
    const Bounds box = map().cell_box(map().data_cell(cell));
    return {(to_px(box.least.x) + to_px(box.most.x)) / 2, (to_px(box.least.y) + to_px(box.most.y)) / 2};
}
bool Play::has(Cell cell) const { return map().has(map().data_cell(cell)); }

const Tile* Play::find_tile(LayerId layer, Cell cell) const {
    const Placed& placed = tile_at(layer, cell);
    return placed.tile < 0 ? nullptr : &world().tile(placed);
}
Passability Play::says(Cell cell, StoreyId storey) const {
    const DataCell at = map().data_cell(cell);
    return map().has(at) ? passability(world(), map(), at, storey, parts_->done.facts) : Passability{};
}
bool Play::grants(Cell cell, std::string_view flag, StoreyId storey) const {
    for (std::size_t f = 0; f < world().flags().size(); ++f)
        if (world().flags()[f].name == flag) return (says(cell, storey).flags >> f & 1) != 0;
    throw std::out_of_range(fmt::format("dryground::Play::grants: the world has no flag '{}'", flag));
}
const Value* Play::property_at(Cell cell, std::string_view name, StoreyId storey) const {
    for (std::size_t l = map().layers.size(); l-- > 0;) {
        const Layer& layer = map().layers[l];
        if (layer.holds_objects || layer.storey != storey || !dryground::is_there(layer, parts_->done.facts)) continue;
        const Tile* tile = find_tile(id_of<LayerId>(l), cell);
        if (tile == nullptr) continue;
        const auto found =
            std::find_if(tile->props.begin(), tile->props.end(), [&](const auto& prop) { return prop.first == name; });
        if (found != tile->props.end()) return &found->second;
    }
    return nullptr;
}

// ---- changes ----

EditResult Play::set_tile(LayerId layer, Cell cell, const Placed& tile) {
    const DataCell at = map().data_cell(cell);
    if (!map().has(at))
        throw std::out_of_range(
            fmt::format("dryground::Play::set_tile: map '{}' has no cell ({}, {})", map().name, cell.column, cell.row));
    const Placed wanted = tile.tile < 0 ? Placed{} : tile;
    Edit change;
    change.map = parts_->map_id, change.layer = layer, change.cell = cell;
    change.before = tile_at(layer, cell), change.after = wanted;
    if (change.before == wanted) return {};
    EditResult changed{{change}, parts_->live->set_tile(layer, at, wanted)};
    parts_->renew_solids_of(layer, at, change.before, wanted);
    parts_->note(change);
    return changed;
}

EditResult Play::set_tile(LayerId layer, Cell cell, std::string_view tile) {
    if (tile.empty()) return clear(layer, cell);
    const std::size_t slash = tile.find('/');
    for (const TileSetId set : map().tilesets) {
        const TileSet& tiles = world().tilesets()[static_cast<std::size_t>(set)];
        if (slash != std::string_view::npos && tiles.name != tile.substr(0, slash)) continue;
        if (const int id = tiles.find(slash == std::string_view::npos ? tile : tile.substr(slash + 1)); id >= 0)
            return set_tile(layer, cell, Placed{static_cast<std::int16_t>(set), id, {}});
    }
    throw std::out_of_range(fmt::format("dryground::Play::set_tile: map '{}' has no tile '{}'", map().name, tile));
}

namespace {

void append(EditResult& all, EditResult more) {
    all.edits.insert(all.edits.end(), more.edits.begin(), more.edits.end());
    all.chunks.insert(all.chunks.end(), more.chunks.begin(), more.chunks.end());
    std::sort(all.chunks.begin(), all.chunks.end());
    all.chunks.erase(std::unique(all.chunks.begin(), all.chunks.end()), all.chunks.end());
}

}   // namespace

EditResult Play::swap(LayerId layer, Cell a, Cell b) {
    const Placed at_a = tile_at(layer, a), at_b = tile_at(layer, b);
    EditResult changed = set_tile(layer, a, at_b);
    append(changed, set_tile(layer, b, at_a));
    return changed;
}

EditResult Play::set_fact(FactId fact, bool holds_now) {
    if (fact == FactId::none || index(fact) >= world().facts().size())
        throw std::out_of_range(
            fmt::format("dryground::Play::set_fact: the world has no fact {}", static_cast<int>(fact)));
    if (holds(fact) == holds_now) return {};
    Facts& facts = parts_->done.facts;
    const auto at = std::lower_bound(facts.begin(), facts.end(), fact);
    holds_now ? static_cast<void>(facts.insert(at, fact)) : static_cast<void>(facts.erase(at));
    Edit change;
    change.sort = Edit::Sort::fact, change.fact = fact, change.holds = holds_now, change.held = !holds_now;
    EditResult changed{{change}, {}};
    if (ground::follows(world(), map(), fact)) changed.chunks = parts_->follow_facts();
    now_ = parts_->now;
    return changed;
}

namespace {

FactId fact_called(const World& world, std::string_view name) {
    if (const FactId fact = world.find_fact(name); fact != FactId::none) return fact;
    throw std::out_of_range(fmt::format("dryground::Play: the world has no fact '{}'", name));
}

}   // namespace

EditResult Play::set_fact(std::string_view fact, bool holds_now) {
    return set_fact(fact_called(world(), fact), holds_now);
}
bool Play::holds(FactId fact) const {
    return std::binary_search(parts_->done.facts.begin(), parts_->done.facts.end(), fact);
}
bool Play::holds(std::string_view fact) const { return holds(fact_called(world(), fact)); }
const Facts& Play::facts() const { return parts_->done.facts; }
bool Play::is_there(ObjectId object) const {
    return dryground::is_there(map(), map().objects.at(index(object)), parts_->done.facts);
}

EditResult Play::remove(ObjectId object) {
    if (map().objects.at(index(object)).removed) return {};
    return parts_->set_removed(object, true);
}

EditResult Play::Parts::set_removed(ObjectId object, bool removed) {
    Edit edit;
    edit.sort = Edit::Sort::removed, edit.map = map_id, edit.object = object, edit.holds = removed,
    edit.held = !removed;
    EditResult result{{edit}, live->set_removed(object, removed)};
    removed ? static_cast<void>(done.removed.insert({map_id, object}))
            : static_cast<void>(done.removed.erase({map_id, object}));
    if (!ground::parts_of(map(), map().object(object)).parts.empty()) renew_solids();
    return result;
}

namespace {

// Marks something as fired: an object, a tile, or (whole_layer) the trigger of a layer.
Edit fired(MapId map, ObjectId object, LayerId layer, Cell cell, bool whole_layer = false) {
    Edit edit;
    edit.sort = Edit::Sort::fired, edit.map = map, edit.object = object, edit.layer = layer, edit.cell = cell;
    edit.whole_layer = whole_layer, edit.holds = true;
    return edit;
}

}   // namespace

bool Play::Parts::has_fired(const Edit& edit) const { return done.fired.count(Done::key_of(edit)) > 0; }
EditResult Play::Parts::set_fired(const Edit& edit) {
    return done.fired.insert(Done::key_of(edit)).second ? EditResult{{edit}, {}} : EditResult{};
}

bool Play::has_fired(ObjectId object) const { return parts_->has_fired(fired(map_id(), object, LayerId::none, {})); }
bool Play::has_fired(LayerId layer, Cell cell) const {
    return parts_->has_fired(fired(map_id(), ObjectId::none, layer, cell));
}
bool Play::has_fired(LayerId layer) const {
    return parts_->has_fired(fired(map_id(), ObjectId::none, layer, {}, true));
}
EditResult Play::set_fired(ObjectId object) { return parts_->set_fired(fired(map_id(), object, LayerId::none, {})); }
EditResult Play::set_fired(LayerId layer, Cell cell) {
    return parts_->set_fired(fired(map_id(), ObjectId::none, layer, cell));
}
EditResult Play::set_fired(LayerId layer) {
    return parts_->set_fired(fired(map_id(), ObjectId::none, layer, {}, true));
}

EditResult Play::undo(const EditResult& changed) {
    EditResult all;
    for (auto change = changed.edits.rbegin(); change != changed.edits.rend(); ++change) {
        if (change->sort == Edit::Sort::fact) {
            append(all, set_fact(change->fact, change->held));
        } else if (change->sort == Edit::Sort::fired) {
            parts_->done.fired.erase(Parts::Done::key_of(*change));
        } else if (change->sort == Edit::Sort::removed) {
            if (change->map == parts_->map_id)
                append(all, parts_->set_removed(change->object, change->held));
            else if (change->held)
                parts_->done.removed.insert({change->map, change->object});
            else
                parts_->done.removed.erase({change->map, change->object});
        } else if (change->map == parts_->map_id) {
            append(all, set_tile(change->layer, change->cell, change->before));
        } else {   // of a map that was left: it is merged when it is entered
            Edit back = *change;
            std::swap(back.before, back.after);
            parts_->note(back);
        }
    }
    return all;
}

}   // namespace dryground

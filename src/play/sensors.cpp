// What bodies can be inside: objects, reacting tiles, triggers of layers.
//
// Idea. Objects are found by an index, tiles by the cells that a body touches; what a tile senses with is worked out
// once for each number of the palette. Cost: in proportion to what is near the body.

#include "sensors_internal.hpp"

namespace dryground::play {

void Sensors::begin_map() {
    sensors_.clear(), layers_.clear();
    any_tile_ = false;
    const Map& map = play_.map();
    layers_.resize(map.layers.size());
    for (std::size_t o = 0; o < map.objects.size(); ++o) {
        const Object& object = map.objects[o];
        const bool does = object.runs != EventId::none || !object.gives.empty() || object.role == Role::link;
        if (!does || object.area.empty() || object.fires == Fires::bump || object.fires == Fires::defeat ||
            object.fires == Fires::start)
            continue;
        std::uint64_t by = 0;
        for (const MoverId mover : object.by) by |= std::uint64_t{1} << (index(mover) % 64);
        const Layer& layer = map.layer(object.layer);
        const bool comes_and_goes =
            !object.when.empty() || !object.unless.empty() || !layer.when.empty() || !layer.unless.empty();
        sensors_.push_back({id_of<ObjectId>(o), object.storey, comes_and_goes, by, *bounds(object.area),
                            convex_pieces(object.area, 64)});
    }
    std::vector<Bounds> boxes;
    for (const Sensor& sensor : sensors_) boxes.push_back(sensor.box);
    near_ = detail::BoxIndex(std::move(boxes));
    learn_tiles();
}

namespace {

bool senses(const Tile& tile) {
    return tile.leads != StoreyId::none || !tile.gives.empty() ||
           std::any_of(tile.reacts.begin(), tile.reacts.end(),
                       [](const Reaction& r) { return r.fires != Fires::bump && r.fires != Fires::defeat; });
}

}   // namespace

void Sensors::learn_tiles() {
    const Map& map = play_.map();
    for (std::size_t l = 0; l < layers_.size(); ++l)
        if (!map.layers[l].holds_objects)
            for (std::size_t n = layers_[l].tiles.size(); n < map.palette.size(); ++n)
                learn(layers_[l], map.palette[n], map.layers[l]);
}

void Sensors::learn(LayerSensors& layer, const dryground::Placed& placed, const Layer& of) {
    TileSensor& sensor = layer.tiles.emplace_back();
    if (placed.tile < 0) return;
    sensor.senses = senses(play_.world().tile(placed));
    if (!sensor.senses && !of.reaction) return;
    const Map& map = play_.map();
    for (const ground::Part& part : ground::parts_of(play_.world(), map, of, placed, {}).parts) {
        if (part.trigger.empty() || part.area.empty()) continue;
        for (Ring& ring : convex_pieces(part.area, 64)) sensor.pieces.push_back(std::move(ring));
        layer.reach = detail::both(layer.reach, ground::reach_of(map, ground::box_of(part)));
    }
    sensor.of_layer = of.reaction && !sensor.pieces.empty();
    any_tile_ = any_tile_ || sensor.senses || sensor.of_layer;
}

Sensors::Placed Sensors::place(const BodyNow& body, bool with_cell) const {
    Placed placed{&play_.world().movers().at(index(body.mover)),
                  {body.position.x * steps_per_px, body.position.y * steps_per_px},
                  {},
                  {}};
    Vec least{1e300, 1e300}, most{-1e300, -1e300};
    for (const Point p : placed.mover->body.front().outline) {
        const Vec q = vec(p) + placed.at;
        least = {std::min(least.x, q.x), std::min(least.y, q.y)}, most = {std::max(most.x, q.x), std::max(most.y, q.y)};
    }
    placed.box = whole_box(least, most);
    const Vec middle = steps(placed) ? placed.at : (least + most) * 0.5;
    if (with_cell || steps(placed) || any_tile_)
        placed.cell = play_.cell_at({middle.x / steps_per_px, middle.y / steps_per_px});
    return placed;
}

bool Sensors::overlaps(const Placed& placed, const std::vector<Ring>& pieces, Vec at) const {
    if (steps(placed)) {
        const PointPx middle = play_.middle_of(placed.cell);
        const Vec p{middle.x * steps_per_px, middle.y * steps_per_px};
        return std::any_of(pieces.begin(), pieces.end(), [&](const Ring& ring) {
            return !inside(ring, at, p, {0, 0}, false).empty();
        });
    }
    const Ring& body = placed.mover->body.front().outline;
    return std::any_of(pieces.begin(), pieces.end(), [&](const Ring& ring) {
        return first_overlap(body, placed.at, {0, 0}, ring, at) == 0;
    });
}

void Sensors::find(const BodyNow& body, std::vector<Inside>& into) const {
    const Placed placed = place(body, false);
    each_sensor(placed.box, [&](const Sensor& sensor) {
        if (sensor.storey != body.storey || (sensor.by >> (index(body.mover) % 64) & 1) == 0 ||
            play_.map().object(sensor.object).removed || (sensor.comes_and_goes && !play_.is_there(sensor.object)) ||
            !overlaps(placed, sensor.pieces, {0, 0}))
            return;
        into.push_back({body.id, sensor.object, LayerId::none, {}, body.mover, 0});
    });
    if (any_tile_) find_tiles(body, placed, into);
}

void Sensors::find_tiles(const BodyNow& body, const Placed& placed, std::vector<Inside>& into) const {
    const Map& map = play_.map();
    for (std::size_t l = 0; l < map.layers.size(); ++l) {
        const Layer& layer = map.layers[l];
        if (layer.holds_objects || layer.storey != body.storey || !ground::counts(layer, play_.facts())) continue;
        bool in_layer = false;
        const auto [c0, r0, c1, r1] = ground::cells_reaching(map, layers_[l].reach, placed.box);
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c) {
                const TileSensor& sensor = layers_[l].tiles[map.number(layer, c, r)];
                if (!sensor.senses && (!sensor.of_layer || in_layer)) continue;
                const Cell cell = map.cell({c, r});
                const bool in = sensor.pieces.empty() ? cell == placed.cell
                                                      : overlaps(placed, sensor.pieces, vec(map.corner(c, r)));
                if (in && sensor.senses)
                    into.push_back({body.id, ObjectId::none, id_of<LayerId>(l), cell, body.mover, 0});
                in_layer = in_layer || (in && sensor.of_layer);
            }
        if (in_layer) into.push_back({body.id, ObjectId::none, id_of<LayerId>(l), {}, body.mover, 0, true});
    }
}

bool Sensors::is_of_layer(LayerId layer, Cell cell) const {
    const Map& map = play_.map();
    const Layer& of = map.layer(layer);
    return of.reaction && !of.holds_objects &&
           layers_[index(layer)].tiles[map.number(of, map.data_cell(cell))].of_layer;
}

}   // namespace dryground::play

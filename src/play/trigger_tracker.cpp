// Who is inside of what, frame by frame, and what comes of it.
//
// Idea: each frame lists what every body is inside of, sorted; beside the list of the frame before it tells what began,
// lasts and ended. Objects are found by blocks of the map, tiles by their cells.

#include <algorithm>
#include <cmath>
#include <tuple>

#include "../model/orientation_internal.hpp"
#include "dryground/triggers.hpp"
#include "parts_internal.hpp"

namespace dryground {

namespace {

using play::Vec;
using play::vec;

bool contains(const std::vector<int>& ids, int id) { return std::find(ids.begin(), ids.end(), id) != ids.end(); }

// An object that something can set off.
struct Sensor {
    int object;
    int storey;
    bool comes_and_goes;   // with facts
    std::uint64_t by;      // movers, a bit each
    Bounds box;
    std::vector<Ring> pieces;   // convex
};

// What a body is inside of: an object, or a tile of a layer.
struct Inside {
    std::uint64_t body = 0;
    int object = -1, layer = -1;
    Cell cell{};
    int mover = -1;
    double waits_s = 0;   // until what fires every so often fires again
    [[nodiscard]] auto key() const { return std::tuple(body, object, layer, cell[1], cell[0]); }
};

}   // namespace

struct TriggerTracker::Parts {
    explicit Parts(Play& p) : play(p) {}

    Play& play;
    int map_id = -1;
    std::vector<Sensor> sensors;
    std::vector<std::vector<std::size_t>> blocks;
    int block_columns = 1, block_rows = 1;
    std::vector<char> senses;                        // by number of the palette: the tile reacts, or leads somewhere
    std::vector<std::vector<Ring>> trigger_pieces;   // of such a tile, from the corner of its cell's box
    bool any_tile = false;
    std::vector<Inside> before, now;
    std::vector<Firing> firings;

    void begin_map() {
        map_id = play.map_id();
        before.clear(), sensors.clear(), senses.clear(), trigger_pieces.clear();
        const Map& map = play.map();
        for (std::size_t o = 0; o < map.objects.size(); ++o) {
            const Object& object = map.objects[o];
            const bool does = object.runs >= 0 || !object.gives.empty() || object.role == Role::link;
            if (!does || object.area.empty() || object.fires == Fires::bump || object.fires == Fires::defeat ||
                object.fires == Fires::start)
                continue;
            std::uint64_t by = 0;
            for (const int mover : object.by) by |= std::uint64_t{1} << (mover % 64);
            const Layer& layer = map.layers[static_cast<std::size_t>(object.layer)];
            const bool comes_and_goes =
                !object.when.empty() || !object.unless.empty() || !layer.when.empty() || !layer.unless.empty();
            sensors.push_back({static_cast<int>(o), object.storey, comes_and_goes, by, *bounds(object.area),
                               convex_pieces(object.area, 64)});
        }
        const Point least = map.least(), most = map.most();
        block_columns = (most.x - least.x) / (4 * map.cell_width * steps_per_px) + 1;
        block_rows = (most.y - least.y) / (4 * map.cell_height * steps_per_px) + 1;
        blocks.assign(static_cast<std::size_t>(block_columns) * static_cast<std::size_t>(block_rows), {});
        for (std::size_t i = 0; i < sensors.size(); ++i) {
            const auto [c0, r0] = block_of(sensors[i].box.least);
            const auto [c1, r1] = block_of(sensors[i].box.most);
            for (int r = r0; r <= r1; ++r)
                for (int c = c0; c <= c1; ++c)
                    blocks[static_cast<std::size_t>(r) * static_cast<std::size_t>(block_columns) +
                           static_cast<std::size_t>(c)]
                        .push_back(i);
        }
        learn_tiles();
        for (std::size_t o = 0; o < map.objects.size(); ++o)
            if (map.objects[o].fires == Fires::start) fire_object(static_cast<int>(o), Fires::start, 0);
    }

    // Of the numbers that the palette has got since.
    void learn_tiles() {
        const Map& map = play.map();
        for (std::size_t n = senses.size(); n < map.palette.size(); ++n) {
            senses.push_back(0);
            std::vector<Ring>& pieces = trigger_pieces.emplace_back();
            if (map.palette[n].tile < 0) continue;
            const Tile& tile = play.world().tile(map.palette[n]);
            const bool does = std::any_of(tile.reacts.begin(), tile.reacts.end(), [](const Reaction& r) {
                return r.fires != Fires::bump && r.fires != Fires::defeat;
            });
            if (!does && tile.leads < 0 && tile.gives.empty()) continue;
            senses[n] = 1, any_tile = true;
            for (const Shape& shape : tile.shapes) {
                if (shape.trigger.empty() || shape.fault != ShapeFault::none) continue;
                Regions area = detail::oriented(shape.area, map.cell_width * steps_per_px,
                                                map.cell_height * steps_per_px, map.palette[n].orientation);
                if (shape.whole_cell)
                    area =
                        moved(Regions{{map.cell_ring(0, 0), {}}}, {-map.box_corner(0, 0).x, -map.box_corner(0, 0).y});
                for (Ring& ring : convex_pieces(area, 64)) pieces.push_back(std::move(ring));
            }
        }
    }

    [[nodiscard]] std::array<int, 2> block_of(Point p) const {
        const Map& map = play.map();
        const auto number = [](std::int32_t value, std::int32_t least, int size, int count) {
            return static_cast<int>(std::clamp<std::int64_t>((std::int64_t{value} - least) / size, 0, count - 1));
        };
        const Point least = map.least();
        return {number(p.x, least.x, 4 * map.cell_width * steps_per_px, block_columns),
                number(p.y, least.y, 4 * map.cell_height * steps_per_px, block_rows)};
    }

    // ---- where a body is ----

    struct Placed {
        const Mover* mover;
        Vec at;
        Bounds box;
        Cell cell;   // that holds its middle; of those that step their position
    };
    [[nodiscard]] Placed place(const BodyNow& body) const {
        Placed placed{&play.world().movers().at(static_cast<std::size_t>(body.mover)),
                      {body.position.x * steps_per_px, body.position.y * steps_per_px},
                      {},
                      {}};
        Vec least{1e300, 1e300}, most{-1e300, -1e300};
        for (const Point p : placed.mover->body.front().outline) {
            const Vec q = vec(p) + placed.at;
            least = {std::min(least.x, q.x), std::min(least.y, q.y)},
            most = {std::max(most.x, q.x), std::max(most.y, q.y)};
        }
        const auto whole = [](double value) {
            return static_cast<std::int32_t>(
                std::clamp(std::floor(value), -double{coordinate_limit}, double{coordinate_limit}));
        };
        placed.box = {{whole(least.x), whole(least.y)}, {whole(most.x) + 1, whole(most.y) + 1}};
        const Vec middle = steps(placed) ? placed.at : (least + most) * 0.5;
        if (steps(placed) || any_tile || body.uses)
            placed.cell = play.cell_at({middle.x / steps_per_px, middle.y / steps_per_px});
        return placed;
    }
    [[nodiscard]] static bool steps(const Placed& placed) { return placed.mover->moves == Moves::steps; }

    [[nodiscard]] bool overlaps(const Placed& placed, const std::vector<Ring>& pieces, Vec at) const {
        if (steps(placed)) {
            const PointPx middle = play.middle_of(placed.cell);
            const Vec p{middle.x * steps_per_px, middle.y * steps_per_px};
            return std::any_of(pieces.begin(), pieces.end(), [&](const Ring& ring) {
                return !play::inside(ring, at, p, {0, 0}, false).empty();
            });
        }
        const Ring& body = placed.mover->body.front().outline;
        return std::any_of(pieces.begin(), pieces.end(), [&](const Ring& ring) {
            return play::first_overlap(body, placed.at, {0, 0}, ring, at) == 0;
        });
    }

    template <class Action>
    void each_sensor(const Bounds& box, Action action) const {
        if (sensors.empty()) return;
        const auto [c0, r0] = block_of(box.least);
        const auto [c1, r1] = block_of(box.most);
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c)
                for (const std::size_t i :
                     blocks[static_cast<std::size_t>(r) * static_cast<std::size_t>(block_columns) +
                            static_cast<std::size_t>(c)]) {
                    const Sensor& sensor = sensors[i];
                    if (sensor.box.least.x >= box.most.x || box.least.x >= sensor.box.most.x ||
                        sensor.box.least.y >= box.most.y || box.least.y >= sensor.box.most.y)
                        continue;
                    const auto [own_c, own_r] = block_of(sensor.box.least);
                    if (c == std::max(c0, own_c) && r == std::max(r0, own_r)) action(sensor);
                }
    }

    void find(const BodyNow& body) {
        const Placed placed = place(body);
        each_sensor(placed.box, [&](const Sensor& sensor) {
            if (sensor.storey != body.storey || (sensor.by >> (body.mover % 64) & 1) == 0 ||
                (sensor.comes_and_goes && !play.is_there(sensor.object)) || !overlaps(placed, sensor.pieces, {0, 0}))
                return;
            now.push_back({body.id, sensor.object, -1, {}, body.mover, 0});
        });
        if (any_tile) find_tiles(body, placed);
    }

    void find_tiles(const BodyNow& body, const Placed& placed) {
        const Map& map = play.map();
        const auto [c0, r0, c1, r1] = play_solids().cells_near(placed.box);
        for (std::size_t l = 0; l < map.layers.size(); ++l) {
            const Layer& layer = map.layers[l];
            if (layer.holds_objects || layer.decor || layer.storey != body.storey ||
                !dryground::is_there(layer, play.facts()))
                continue;
            for (int r = r0; r <= r1; ++r)
                for (int c = c0; c <= c1; ++c) {
                    const std::uint32_t number = map.number(layer, c, r);
                    if (number == 0 || !senses[number]) continue;
                    const Cell cell{map.first_column + c, map.first_row + r};
                    const std::vector<Ring>& pieces = trigger_pieces[number];
                    // Without a trigger of its own it is the cell that is entered.
                    const bool in = pieces.empty()
                                        ? cell == placed.cell
                                        : overlaps(placed, pieces, vec(moved(map.box_corner(c, r), layer.offset)));
                    if (in) now.push_back({body.id, -1, static_cast<int>(l), cell, body.mover, 0});
                }
        }
    }
    [[nodiscard]] const play::Solids& play_solids() const { return *play.parts_->solids; }

    // ---- what comes of it ----

    [[nodiscard]] bool all_hold(const std::vector<int>& facts) const {
        return std::all_of(facts.begin(), facts.end(), [&](int fact) { return play.holds(fact); });
    }
    static void add(Changed& all, Changed more) {
        all.changes.insert(all.changes.end(), more.changes.begin(), more.changes.end());
        all.chunks.insert(all.chunks.end(), more.chunks.begin(), more.chunks.end());
    }

    bool fire_object(int o, Fires fires, std::uint64_t body) {
        const Object& object =
            play.world().maps()[static_cast<std::size_t>(map_id)].objects[static_cast<std::size_t>(o)];
        if (!play.is_there(o) || !all_hold(object.needs) || (object.once && play.has_fired(o))) return false;
        Firing firing;
        firing.fires = fires, firing.body = body, firing.object = o, firing.event = object.runs;
        if (object.role == Role::link) firing.link = &object.link;
        if (object.once) add(firing.changed, play.set_fired(o));
        for (const int fact : object.gives) add(firing.changed, play.set_fact(fact, true));
        firings.push_back(std::move(firing));
        return true;
    }

    // All reactions of a tile to an act; `side` of bumps.
    void fire_tile(int layer, const Cell& cell, Fires fires, std::uint64_t body, int mover, int side = -1) {
        const dryground::Placed placed = play.tile_at(layer, cell);
        if (placed.tile < 0) return;
        const Tile& tile = play.world().tile(placed);
        if (fires == Fires::enter && tile.leads >= 0 &&
            tile.leads != play.map().layers[static_cast<std::size_t>(layer)].storey) {
            Firing firing;
            firing.body = body, firing.layer = layer, firing.cell = cell, firing.to_storey = tile.leads;
            firings.push_back(std::move(firing));
        }
        if (fires == Fires::enter && !tile.gives.empty()) {
            Firing firing;
            firing.body = body, firing.layer = layer, firing.cell = cell;
            for (const int fact : tile.gives) add(firing.changed, play.set_fact(fact, true));
            if (!firing.changed.changes.empty()) firings.push_back(std::move(firing));
        }
        for (const Reaction& reaction : tile.reacts) {
            if (reaction.fires != fires || (!reaction.by.empty() && !contains(reaction.by, mover)) ||
                !all_hold(reaction.needs) || (reaction.once && play.has_fired(layer, cell)))
                continue;
            if (side >= 0 && !from(reaction, placed.orientation, side)) continue;
            Firing firing;
            firing.fires = fires, firing.body = body, firing.layer = layer, firing.cell = cell,
            firing.event = reaction.runs;
            if (reaction.once) add(firing.changed, play.set_fired(layer, cell));
            for (const int fact : reaction.gives) add(firing.changed, play.set_fact(fact, true));
            if (reaction.then == Reaction::Then::goes) add(firing.changed, play.clear(layer, cell));
            if (reaction.then == Reaction::Then::turns)
                add(firing.changed,
                    play.set_tile(layer, cell,
                                  dryground::Placed{placed.tileset, reaction.turns_into, placed.orientation}));
            firings.push_back(std::move(firing));
            if (reaction.then != Reaction::Then::stays) return;   // it is another tile now
        }
    }
    // Sides turn with their tile.
    static bool from(const Reaction& reaction, const Orientation& orientation, int side) {
        Sides sides;
        for (std::size_t i = 0; i < 4; ++i) sides.of[i] = reaction.from[i] ? Passage::open : Passage::shut;
        return detail::oriented(sides, orientation).of[static_cast<std::size_t>(side)] == Passage::open;
    }
    [[nodiscard]] double every_s(const Inside& inside) const {
        if (inside.object >= 0) return play.map().objects[static_cast<std::size_t>(inside.object)].every_s;
        const Tile* tile = play.find_tile(inside.layer, inside.cell);
        double every = 0;
        if (tile != nullptr)
            for (const Reaction& reaction : tile->reacts)
                if (reaction.fires == Fires::inside) every = reaction.every_s;
        return every;
    }

    void tell(const Inside& inside, Fires fires) {
        if (inside.object < 0)
            fire_tile(inside.layer, inside.cell, fires, inside.body, inside.mover);
        else if (play.map().objects[static_cast<std::size_t>(inside.object)].fires == fires)
            fire_object(inside.object, fires, inside.body);
    }

    // In the order of the lists: what ended, began or lasts of each.
    void compare(double seconds) {
        const auto less = [](const Inside& a, const Inside& b) { return a.key() < b.key(); };
        std::sort(now.begin(), now.end(), less);
        auto old = before.begin();
        for (Inside& inside : now) {
            for (; old != before.end() && less(*old, inside); ++old) tell(*old, Fires::leave);
            const bool lasts = old != before.end() && old->key() == inside.key();
            if (lasts) inside.waits_s = (old++)->waits_s - seconds;
            if (!lasts) tell(inside, Fires::enter);
            if (inside.waits_s > 0) continue;
            tell(inside, Fires::inside);
            // What was late is not made up for in one frame, nor forgotten.
            const double every = every_s(inside);
            inside.waits_s = std::max(inside.waits_s + every, 0.0);
            if (!lasts) inside.waits_s = every;
        }
        for (; old != before.end(); ++old) tell(*old, Fires::leave);
        std::swap(before, now);
        now.clear();
    }

    // What it stands in, or next to: cells beside the one it is in, not those past its corners.
    void use(const BodyNow& body) {
        const Placed placed = place(body);
        std::array<int, 64> used{};
        std::size_t count = 0;
        for (const auto& [dc, dr] :
             {std::pair{0, 0}, std::pair{0, -1}, std::pair{1, 0}, std::pair{0, 1}, std::pair{-1, 0}}) {
            const Cell cell{placed.cell[0] + dc, placed.cell[1] + dr};
            const Bounds box = play.map().cell_box(cell[0] - play.map().first_column, cell[1] - play.map().first_row);
            each_sensor(box, [&](const Sensor& sensor) {
                const Object& object = play.map().objects[static_cast<std::size_t>(sensor.object)];
                if (object.fires != Fires::use || object.storey != body.storey || !contains(object.by, body.mover) ||
                    count == used.size() ||
                    std::find(used.begin(), used.begin() + static_cast<std::ptrdiff_t>(count), sensor.object) !=
                        used.begin() + static_cast<std::ptrdiff_t>(count))
                    return;
                used[count++] = sensor.object;
            });
            for (std::size_t l = 0; any_tile && play.has(cell) && l < play.map().layers.size(); ++l)
                if (const Layer& layer = play.map().layers[l];
                    !layer.holds_objects && !layer.decor && layer.storey == body.storey)
                    fire_tile(static_cast<int>(l), cell, Fires::use, body.id, body.mover);
        }
        for (std::size_t i = 0; i < count; ++i) fire_object(used[i], Fires::use, body.id);
    }
};

TriggerTracker::TriggerTracker(Play& play) : parts_(std::make_unique<Parts>(play)) {}
TriggerTracker::~TriggerTracker() = default;
TriggerTracker::TriggerTracker(TriggerTracker&&) noexcept = default;
TriggerTracker& TriggerTracker::operator=(TriggerTracker&&) noexcept = default;

std::span<const Firing> TriggerTracker::update(double seconds, std::span<const BodyNow> bodies) {
    parts_->firings.clear();
    if (parts_->map_id != parts_->play.map_id()) parts_->begin_map();
    parts_->learn_tiles();
    for (const BodyNow& body : bodies) parts_->find(body);
    parts_->compare(seconds);
    for (const BodyNow& body : bodies)
        if (body.uses) parts_->use(body);
    return parts_->firings;
}

std::span<const Firing> TriggerTracker::bumped(const BodyNow& body, const Touch& touch) {
    parts_->firings.clear();
    if (parts_->map_id != parts_->play.map_id()) parts_->begin_map();
    if (touch.sort == Touched::tile)
        parts_->fire_tile(touch.layer, touch.cell, Fires::bump, body.id, body.mover, touch.side);
    if (touch.sort == Touched::object) {
        const Object& object = parts_->play.map().objects.at(static_cast<std::size_t>(touch.object));
        if (object.fires == Fires::bump && contains(object.by, body.mover))
            parts_->fire_object(touch.object, Fires::bump, body.id);
    }
    return parts_->firings;
}

std::span<const Firing> TriggerTracker::defeated(int object, std::uint64_t body) {
    parts_->firings.clear();
    if (parts_->map_id != parts_->play.map_id()) parts_->begin_map();
    if (parts_->play.map().objects.at(static_cast<std::size_t>(object)).fires == Fires::defeat)
        parts_->fire_object(object, Fires::defeat, body);
    return parts_->firings;
}

}   // namespace dryground

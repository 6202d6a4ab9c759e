// Which bodies are inside what, frame by frame, and what follows.
//
// Idea: each frame lists what every body is inside, sorted; a comparison with the list of the frame before shows what
// began, lasts and ended.

#include <algorithm>
#include <utility>

#include "../model/orientation_internal.hpp"
#include "sensors_internal.hpp"

namespace dryground {

namespace {

using play::Inside;

bool contains(const std::vector<MoverId>& ids, MoverId id) {
    return std::find(ids.begin(), ids.end(), id) != ids.end();
}

}   // namespace

struct TriggerTracker::Parts {
    explicit Parts(Play& p) : play(p), sensors(p) {}

    Play& play;
    play::Sensors sensors;
    MapId map_id = MapId::none;
    int arrival = -1;
    std::vector<Inside> before, now;
    std::vector<Firing> firings;
    struct Climbed {   // which body came by stairs, on which cell
        std::uint64_t body;
        Cell cell;
        friend bool operator==(const Climbed&, const Climbed&) = default;
    };
    std::vector<Climbed> climbed;
    Facts facts_before;   // as they were when the call began

    void begin() {
        facts_before = play.facts();
        follow_map();
    }
    // Another map, or another world, since the last call: no body is inside anything yet.
    void follow_map() {
        if (arrival == play.parts_->arrival) return;
        arrival = play.parts_->arrival, map_id = play.map_id();
        before.clear(), climbed.clear();
        sensors.begin_map();
        for (const ObjectId o : ids<ObjectId>(play.map().objects))
            if (play.map().object(o).fires == Fires::start) fire_object(o, Fires::start, 0);
    }

    // ---- what comes of it ----

    [[nodiscard]] bool all_hold(const std::vector<FactId>& facts) const {
        return std::all_of(facts.begin(), facts.end(), [&](FactId fact) { return play.holds(fact); });
    }
    static void add(EditResult& all, const EditResult& more) {
        all.edits.insert(all.edits.end(), more.edits.begin(), more.edits.end());
        all.chunks.insert(all.chunks.end(), more.chunks.begin(), more.chunks.end());
    }

    bool fire_object(ObjectId o, Fires fires, std::uint64_t body) {
        // The result points into the world, which outlasts the present map.
        const Object& object = play.world().map(map_id).object(o);
        if (!is_there(play.map(), play.map().object(o), facts_before) || !all_hold(object.needs) ||
            (object.once && play.has_fired(o)))
            return false;
        Firing firing;
        firing.fires = fires, firing.body = body, firing.object = o, firing.event = object.runs;
        firing.properties = &object.props;
        if (object.role == Role::link && object.link.object != ObjectId::none)
            firing.link = &object.link;   // else it leads nowhere
        if (object.once) add(firing.changed, play.set_fired(o));
        for (const FactId fact : object.gives) add(firing.changed, play.set_fact(fact, true));
        firings.push_back(std::move(firing));
        return true;
    }

    [[nodiscard]] bool heeds(const Reaction& reaction, Fires fires, MoverId mover) const {
        return reaction.fires == fires && (reaction.by.empty() || contains(reaction.by, mover)) &&
               all_hold(reaction.needs);
    }

    // Does what a layer's own trigger does.
    void fire_layer(LayerId number, Fires fires, const BodyNow& body) {
        // The result points into the world, which outlasts the present map.
        const Layer& layer = play.world().map(map_id).layer(number);
        const Reaction& reaction = *layer.reaction;
        if (!heeds(reaction, fires, body.mover) || (reaction.once && play.has_fired(number))) return;
        Firing firing;
        firing.fires = fires, firing.body = body.id, firing.layer = number;
        firing.properties = &layer.props, firing.event = reaction.runs;
        if (reaction.once) add(firing.changed, play.set_fired(number));
        for (const FactId fact : reaction.gives) add(firing.changed, play.set_fact(fact, true));
        firings.push_back(std::move(firing));
    }

    // Makes all reactions of a tile to an act; `side` of bumps.
    void fire_tile(LayerId layer, Cell cell, Fires fires, const BodyNow& body, int side = -1) {
        const Placed placed = play.tile_at(layer, cell);
        if (placed.tile < 0) return;
        const Tile& tile = play.world().tile(placed);
        Firing firing;
        firing.fires = fires, firing.body = body.id, firing.layer = layer, firing.cell = cell;
        firing.tile = firing.became = placed, firing.properties = &tile.props;
        if (fires == Fires::enter && tile.leads != StoreyId::none && tile.leads != play.map().layer(layer).storey &&
            climb({body.id, cell})) {
            firings.push_back(firing);
            firings.back().to_storey = tile.leads;
        }
        if (fires == Fires::enter && !tile.gives.empty()) {
            Firing gives = firing;
            for (const FactId fact : tile.gives) add(gives.changed, play.set_fact(fact, true));
            if (!gives.changed.edits.empty()) firings.push_back(std::move(gives));
        }
        for (const Reaction& reaction : tile.reacts) {
            if (!heeds(reaction, fires, body.mover) || (reaction.once && play.has_fired(layer, cell))) continue;
            if (side >= 0 && !from(reaction, placed.orientation, side)) continue;
            Firing reacts = firing;
            reacts.event = reaction.runs;
            if (reaction.once) add(reacts.changed, play.set_fired(layer, cell));
            for (const FactId fact : reaction.gives) add(reacts.changed, play.set_fact(fact, true));
            if (reaction.then != Reaction::Then::stays) {
                reacts.became = reaction.then == Reaction::Then::goes
                                    ? Placed{}
                                    : Placed{placed.tileset, reaction.turns_into, placed.orientation};
                add(reacts.changed, play.set_tile(layer, cell, reacts.became));
            }
            firings.push_back(std::move(reacts));
            if (reaction.then != Reaction::Then::stays) return;   // it is another tile now
        }
    }
    // Returns whether stairs take a body on: not if it has come by stairs and has not left their cell since.
    bool climb(const Climbed& now_climbed) {
        if (std::find(climbed.begin(), climbed.end(), now_climbed) != climbed.end()) return false;
        climbed.push_back(now_climbed);
        return true;
    }
    void forget_left_stairs() {
        std::erase_if(climbed, [&](const Climbed& one) {
            return std::none_of(before.begin(), before.end(), [&](const Inside& inside) {
                return inside.object == ObjectId::none && inside.body == one.body && inside.cell == one.cell;
            });
        });
    }
    // Sides turn with their tile.
    static bool from(const Reaction& reaction, const Orientation& orientation, int side) {
        Sides sides;
        for (std::size_t i = 0; i < 4; ++i) sides.of[i] = reaction.from[i] ? Passage::open : Passage::shut;
        return detail::oriented(sides, orientation).of[static_cast<std::size_t>(side)] == Passage::open;
    }
    [[nodiscard]] double every_s(const Inside& inside) const {
        if (inside.object != ObjectId::none) return play.map().object(inside.object).every_s;
        if (inside.of_layer) return play.map().layer(inside.layer).reaction->every_s;
        const Tile* tile = play.find_tile(inside.layer, inside.cell);
        double every = 0;
        if (tile != nullptr)
            for (const Reaction& reaction : tile->reacts)
                if (reaction.fires == Fires::inside) every = reaction.every_s;
        return every;
    }

    void tell(const Inside& inside, Fires fires) {
        if (inside.of_layer)
            fire_layer(inside.layer, fires, {.id = inside.body, .mover = inside.mover});
        else if (inside.object == ObjectId::none)
            fire_tile(inside.layer, inside.cell, fires, {.id = inside.body, .mover = inside.mover});
        else if (play.map().object(inside.object).fires == fires)
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
            // Missed times are not all repeated in one frame, nor forgotten.
            const double every = every_s(inside);
            inside.waits_s = std::max(inside.waits_s + every, 0.0);
            if (!lasts) inside.waits_s = every;
        }
        for (; old != before.end(); ++old) tell(*old, Fires::leave);
        std::swap(before, now);
        now.clear();
        if (!climbed.empty()) forget_left_stairs();
    }

    // Lists what it stands in, or next to: cells beside the one it is in, not those past its corners.
    void use(const BodyNow& body) {
        const Cell own = sensors.cell_of(body);
        std::array<ObjectId, 64> used{};
        std::size_t count = 0;
        std::vector<bool> layers_used;   // their own triggers
        for (const auto& [dc, dr] :
             {std::pair{0, 0}, std::pair{0, -1}, std::pair{1, 0}, std::pair{0, 1}, std::pair{-1, 0}}) {
            const Cell cell{own.column + dc, own.row + dr};
            const Bounds box = play.map().cell_box(play.map().data_cell(cell));
            sensors.each_in(box, [&](ObjectId number) {
                const Object& object = play.map().object(number);
                if (object.fires != Fires::use || object.storey != body.storey || !contains(object.by, body.mover) ||
                    count == used.size() ||
                    std::find(used.begin(), used.begin() + static_cast<std::ptrdiff_t>(count), number) !=
                        used.begin() + static_cast<std::ptrdiff_t>(count))
                    return;
                used[count++] = number;
            });
            for (std::size_t l = 0; sensors.any_tile() && play.has(cell) && l < play.map().layers.size(); ++l)
                if (const Layer& layer = play.map().layers[l];
                    !layer.holds_objects && layer.storey == body.storey && ground::counts(layer, facts_before)) {
                    fire_tile(id_of<LayerId>(l), cell, Fires::use, body);
                    if (!sensors.is_of_layer(id_of<LayerId>(l), cell)) continue;
                    layers_used.resize(play.map().layers.size());
                    layers_used[l] = true;
                }
        }
        for (std::size_t l = 0; l < layers_used.size(); ++l)
            if (layers_used[l]) fire_layer(id_of<LayerId>(l), Fires::use, body);
        for (std::size_t i = 0; i < count; ++i) fire_object(used[i], Fires::use, body.id);
    }
};

TriggerTracker::TriggerTracker(Play& play) : parts_(std::make_unique<Parts>(play)) {}
TriggerTracker::~TriggerTracker() = default;
TriggerTracker::TriggerTracker(TriggerTracker&&) noexcept = default;
TriggerTracker& TriggerTracker::operator=(TriggerTracker&&) noexcept = default;

std::vector<Firing> TriggerTracker::update(double seconds, std::span<const BodyNow> bodies) {
    parts_->begin();
    parts_->sensors.learn_tiles();
    for (const BodyNow& body : bodies) parts_->sensors.find(body, parts_->now);
    parts_->compare(seconds);
    for (const BodyNow& body : bodies)
        if (body.uses) parts_->use(body);
    return std::exchange(parts_->firings, {});
}

std::vector<Firing> TriggerTracker::bumped(const BodyNow& body, const Touch& touch) {
    parts_->begin();
    if (touch.sort == Touched::tile) parts_->fire_tile(touch.layer, touch.cell, Fires::bump, body, touch.side);
    if (touch.sort == Touched::object) {
        const Object& object = parts_->play.map().objects.at(index(touch.object));
        if (object.fires == Fires::bump && contains(object.by, body.mover))
            parts_->fire_object(touch.object, Fires::bump, body.id);
    }
    return std::exchange(parts_->firings, {});
}

std::vector<Firing> TriggerTracker::defeated(ObjectId object, std::uint64_t body) {
    parts_->begin();
    if (parts_->play.map().objects.at(index(object)).fires == Fires::defeat)
        parts_->fire_object(object, Fires::defeat, body);
    return std::exchange(parts_->firings, {});
}

}   // namespace dryground

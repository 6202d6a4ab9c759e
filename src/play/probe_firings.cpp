// What a mover sets off at a place: a body is put there in a separate game, and the result of its tracker is reported.

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "dryground/triggers.hpp"
#include "probe_internal.hpp"

namespace dryground::play {

namespace {

// Returns ", every 2 s, once," or nothing.
std::string how_often(Fires fires, double every_s, bool once) {
    std::string words;
    if (every_s > 0 && fires == Fires::inside) words += fmt::format(", every {:g} s", every_s);
    if (once) words += ", once";
    return words.empty() ? words : words + ",";
}

// "enter: trigger 'spill' gives pump_running, runs flood_the_lock"
std::string line_of(const Play& play, const Map& map, const Firing& firing) {
    const World& world = play.world();
    std::vector<std::string> does;
    std::string who;
    if (firing.object != ObjectId::none) {
        const Object& object = map.object(firing.object);
        who = fmt::format("{} {}", name_of(object.role), object_name(world, object));
        who += how_often(firing.fires, object.every_s, object.once);
    } else if (firing.tile.tile < 0) {
        const Layer& layer = map.layer(firing.layer);
        who = fmt::format("trigger {} of layer {}", layer.trigger, layer.name);
        who += how_often(firing.fires, layer.reaction->every_s, layer.reaction->once);
    } else {
        who = fmt::format("{} in layer {} at cell ({}, {})", tile_name(world, firing.tile),
                          map.layer(firing.layer).name, firing.cell.column, firing.cell.row);
        for (const Reaction& reaction : world.tile(firing.tile).reacts)
            if (reaction.fires == firing.fires) who += how_often(firing.fires, reaction.every_s, reaction.once);
    }
    for (const Edit& edit : firing.changed.edits)
        if (edit.sort == Edit::Sort::fact) does.push_back("gives " + world.fact(edit.fact).name);
    if (firing.event != EventId::none) does.push_back("runs " + world.event(firing.event).name);
    if (firing.link != nullptr) does.push_back("leads to " + firing.link->to);
    if (firing.to_storey != StoreyId::none) does.push_back("leads to " + world.storey(firing.to_storey).name);
    if (firing.tile.tile >= 0 && firing.became != firing.tile)
        does.push_back(firing.became.tile < 0 ? "is gone then" : "becomes " + tile_name(world, firing.became));
    if (does.empty()) does.emplace_back("fires");
    return fmt::format("{}: {} {}", name_of(firing.fires), who, fmt::join(does, ", "));
}

// Returns the middle of each side of a mover's body, as a contact with ground that lies beyond it.
std::array<Contact, 4> contacts_around(const Mover& mover, MoverId id, PointPx place, StoreyId storey) {
    const Bounds box = *bounds(mover.body);
    const double left = place.x + to_px(box.least.x), top = place.y + to_px(box.least.y),
                 right = place.x + to_px(box.most.x), bottom = place.y + to_px(box.most.y);
    const BoxPx body{left, top, right - left, bottom - top};
    const auto contact = [&](double x, double y, PointPx normal) {
        return Contact{.point = {x, y}, .normal = normal, .body = body, .storey = storey, .mover = id};
    };
    return {contact((left + right) / 2, top, {0, 1}), contact(right, (top + bottom) / 2, {-1, 0}),
            contact((left + right) / 2, bottom, {0, -1}), contact(left, (top + bottom) / 2, {1, 0})};
}

}   // namespace

std::vector<std::string> lines_of_firings(const World& world, const Map& map, const Facts& facts, MoverId mover,
                                          PointPx place, StoreyId storey) {
    Play play(world, map.name);
    for (const FactId fact : facts) play.set_fact(fact, true);
    const SavedChanges before = play.changes();
    std::vector<std::string> lines;
    const auto tell = [&](const std::vector<Firing>& firings, auto... wanted) {
        for (const Firing& firing : firings)
            if (((firing.fires == wanted) || ...)) lines.push_back(line_of(play, map, firing));
    };
    BodyNow body{1, mover, place, storey, false};
    // Each way separately, from the same state: what one of them changes does not affect the next.
    {
        TriggerTracker tracker(play);
        (void)tracker.update(0, {});   // what fires at the start
        tell(tracker.update(0, {&body, 1}), Fires::enter, Fires::inside);
        tell(tracker.update(1e6, {&body, 1}), Fires::inside);
        tell(tracker.update(0, {}), Fires::leave);
    }
    play.apply(before);
    {
        TriggerTracker tracker(play);
        (void)tracker.update(0, {});
        body.uses = true;
        tell(tracker.update(0, {&body, 1}), Fires::use);
        body.uses = false;
    }
    play.apply(before);
    TriggerTracker tracker(play);
    for (const Contact& contact : contacts_around(world.mover(mover), mover, place, storey))
        for (const Touch& touch : play.touched(contact)) tell(tracker.bumped(body, touch), Fires::bump);
    return lines;
}

}   // namespace dryground::play

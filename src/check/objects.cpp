// Rules about objects: where play starts, who stands in a wall, what lies outside, what senses nothing.

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "../ground/ground_internal.hpp"
#include "rules_internal.hpp"

namespace dryground::check_rules {

Finding start_object(const Findings& findings, Rule rule, const Map& map, const Object& object, const Place& place,
                     std::vector<std::string> arguments) {
    Finding finding = findings.start(rule, place, thing_of(map, object), std::move(arguments));
    finding.map = map.name;
    finding.layer = map.layer(object.layer).name;
    finding.object = object.name;
    finding.cell = object.cell;
    return finding;
}

namespace {

void check_start(const World& world, Findings& findings) {
    const Start& start = world.start();
    Finding finding =
        findings.start(Rule::start_missing, start.words.empty() ? world.world_place() : start.place, "world", {""});
    std::vector<std::string> names;
    for (const Map& map : world.maps())
        for (const Object& object : map.objects)
            if (!object.name.empty() && object.role == Role::spawn)
                names.push_back(fmt::format("{}/{}", map.name, object.name));
    if (start.words.empty())
        finding.arguments = {"the world has no 'start'"};
    else if (start.map == MapId::none)
        finding.arguments = {fmt::format("there is no map '{}'", start.words.substr(0, start.words.find('/')))};
    else if (start.object == ObjectId::none)
        finding.arguments = {fmt::format("there is no object '{}'", start.words)};
    else
        return;
    if (const auto nearest = nearest_name(start.words, names))
        finding.hint = Hint{"did you mean", fmt::format("start = \"{}\"", *nearest)};
    else if (!names.empty())
        finding.hint = Hint{"name an object of a map", fmt::format("start = \"{}\"", names.front())};
    else
        finding.hint = Hint{"put an object of kind spawn into a map, and name it", "start = \"map/object\""};
    findings.add(std::move(finding));
}

void check_outside(const World& world, const Map& map, const Object& object, Findings& findings) {
    if (object.fault != ShapeFault::none) return;
    const Bounds box = object.area.empty() ? Bounds{object.position, object.position} : *bounds(object.area);
    const Point least = map.least(), most = map.most();
    // Wholly outside is a mistake; reaching over the edge is not (a trigger may, so that leaving is noticed).
    const std::int32_t out =
        std::max({least.x - box.most.x, least.y - box.most.y, box.least.x - most.x, box.least.y - most.y});
    const bool point = object.area.empty();
    if (point ? out <= 0 : out < 0) return;
    Finding finding = start_object(findings, Rule::object_outside, map, object, object.place_of_position,
                                   {words_of(world, object), px(out)});
    finding.details.push_back(fmt::format("the map reaches from {} to {} px; the object from {} to {}", at_px(least),
                                          at_px(most), at_px(box.least), at_px(box.most)));
    finding.hint = Hint{"move it into the map, or let the map grow", ""};
    findings.add(std::move(finding));
}

void check_area(const World& world, const Map& map, const Object& object, Findings& findings) {
    const std::string words = words_of(world, object);
    const bool does = object.runs != EventId::none || !object.gives.empty();
    const bool waits = object.fires == Fires::enter || object.fires == Fires::inside || object.fires == Fires::leave ||
                       object.fires == Fires::use;
    const bool senses =
        object.role == Role::trigger || object.role == Role::link || (does && waits && object.role != Role::spawn);
    if (object.fault == ShapeFault::crosses_itself) {
        Finding finding =
            start_object(findings, Rule::shape_crosses_itself, map, object, object.place_of_position,
                         {fmt::format("the outline of {}", words), px(object.fault_at.x), px(object.fault_at.y)});
        finding.hint = Hint{"put its points in order around the outline", ""};
        findings.add(std::move(finding));
        return;
    }
    if (!object.area.empty()) {
        if (object.role == Role::solid && object.barrier == BarrierId::none) {
            Finding finding = start_object(findings, Rule::no_barrier, map, object, object.place, {words});
            finding.hint = Hint{"name a barrier of the world on the object or its layer", "barrier = \"…\""};
            findings.add(std::move(finding));
        }
        return;
    }
    if (senses && object.fires != Fires::start && object.role != Role::solid) {
        Finding finding = start_object(findings, Rule::trigger_empty, map, object, object.place_of_position, {words});
        if (!object.fault_words.empty()) finding.details.push_back(object.fault_words);
        finding.hint = Hint{"give it a shape", "box = [x, y, w, h], or cells = [c, r, w, h]"};
        findings.add(std::move(finding));
    } else if (object.fault == ShapeFault::empty || (object.role == Role::solid && object.line.empty())) {
        findings.add(start_object(findings, Rule::shape_empty, map, object, object.place_of_position,
                                  {words, object.fault_words.empty() ? "it is a point" : object.fault_words}));
    }
}

// Returns whether a px below a position is a solid that moves, and that stops the mover: a body on it moves along.
bool stands_on_what_moves(const Map& map, const Mover& mover, StoreyId storey, Point position) {
    const Point below{position.x, position.y + steps_per_px};
    return std::any_of(map.objects.begin(), map.objects.end(), [&](const Object& object) {
        return ground::moves(object) && object.storey == storey && is_there(map, object, {}) &&
               std::binary_search(mover.stopped_by.begin(), mover.stopped_by.end(), object.barrier) &&
               locate(object.area, below) == Side::inside;
    });
}

// A mover that is seen from the side and moves by itself falls.
void check_support(const World& world, Grounds& grounds, MapId map_id, const Object& object, MoverId mover_id,
                   Findings& findings) {
    const Map& map = world.map(map_id);
    const Kind& kind = world.kind(object.kind);
    const Mover& mover = world.mover(mover_id);
    if (mover.moves != Moves::side || (object.role != Role::spawn && kind.motion != Motion::moving)) return;
    const auto fall = fall_px(grounds.of(map_id, mover_id, object.storey),
                              grounds.lines(map_id, mover_id, object.storey).from_above, mover, object.position, map);
    if (fall && *fall <= std::max(1.0, mover.kerb_px.value_or(0))) return;
    if (stands_on_what_moves(map, mover, object.storey, object.position)) return;
    const auto [column, row] = map.data_cell_at(object.position);
    if (map.has(column, row) && (passability(world, map, {column, row}, object.storey).flags & mover.climbs) != 0)
        return;   // it holds on
    Finding finding = start_object(
        findings, Rule::spawn_unsupported, map, object, object.place_of_position,
        {object.name.empty() ? kind.name : object.name, fall ? fmt::format("{:.0f} px", *fall) : "for ever"});
    if (fall)
        finding.hint = Hint{
            "on the ground below",
            fmt::format("at = {}", at_px({object.position.x, object.position.y + static_cast<std::int32_t>(std::lround(
                                                                                     *fall * steps_per_px))}))};
    else
        finding.hint = Hint{"there is no ground below it", ""};
    findings.add(std::move(finding));
}

void check_standing(const World& world, Grounds& grounds, MapId map_id, const Object& object, bool is_start,
                    Findings& findings) {
    const Map& map = world.map(map_id);
    // At the start of play the player of the map stands there.
    const bool is_player = is_start && object.role == Role::spawn && map.player != MoverId::none;
    const MoverId mover = is_player ? map.player : body_of(world, map, object);
    const Kind& kind = world.kind(object.kind);
    if (mover == MoverId::none || (object.role != Role::spawn && object.role != Role::entity) || !is_there(map, object))
        return;
    const Standing standing = stand(world, grounds, map_id, mover, object.storey, object.position);
    if (standing.depth_px == 0) {
        check_support(world, grounds, map_id, object, mover, findings);
        return;
    }
    Finding finding = start_object(
        findings, Rule::spawn_blocked, map, object, object.place_of_position,
        {object.name.empty() ? kind.name : object.name, fmt::format("{}", standing.depth_px), standing.in_the_way});
    finding.details = standing.details;
    finding.cells = standing.cells;
    if (standing.nearest_free)
        finding.hint = Hint{"nearest free place", fmt::format("at = {}", at_px(*standing.nearest_free))};
    else
        finding.hint = Hint{"there is no free place near: make room for it", ""};
    findings.add(std::move(finding));
}

}   // namespace

void check_objects(const World& world, Grounds& grounds, Findings& findings) {
    check_start(world, findings);
    for (std::size_t m = 0; m < world.maps().size(); ++m) {
        const Map& map = world.maps()[m];
        for (std::size_t o = 0; o < map.objects.size(); ++o) {
            const Object& object = map.objects[o];
            check_outside(world, map, object, findings);
            check_area(world, map, object, findings);
            const bool is_start = world.start().map == id_of<MapId>(m) && world.start().object == id_of<ObjectId>(o);
            check_standing(world, grounds, id_of<MapId>(m), object, is_start, findings);
        }
    }
}

}   // namespace dryground::check_rules

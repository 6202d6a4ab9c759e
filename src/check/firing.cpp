// Rules about ways of firing that cannot happen, or happen endlessly.

#include <fmt/format.h>

#include <algorithm>

#include "../ground/ground_internal.hpp"
#include "rules_internal.hpp"

namespace dryground::check_rules {

namespace {

bool is_inside(Fires fires) { return fires == Fires::enter || fires == Fires::inside || fires == Fires::leave; }

bool stops_all(const World& world, BarrierId barrier, const std::vector<MoverId>& by) {
    return std::all_of(by.begin(), by.end(), [&](MoverId mover) {
        const auto& stopped_by = world.mover(mover).stopped_by;
        return std::find(stopped_by.begin(), stopped_by.end(), barrier) != stopped_by.end();
    });
}

// ---- objects ----

void check_object(const World& world, const Map& map, const Object& object, Findings& findings) {
    const bool does = object.runs != EventId::none || !object.gives.empty() || object.role == Role::link;
    if (!does) return;
    std::string why;
    Hint hint{"let it fire in another way", ""};
    if (object.role == Role::solid && is_inside(object.fires) && object.barrier != BarrierId::none &&
        ground::fills_shape(object) && stops_all(world, object.barrier, object.by)) {
        why = "it is solid, so nobody gets into it";
        hint = {"bodies can bump into it", "fires = \"bump\""};
    } else if (object.role != Role::solid && object.fires == Fires::bump) {
        why = "it is not solid, so nobody bumps into it";
        hint = {"bodies can enter it", "fires = \"enter\""};
    } else if (object.role == Role::spawn && object.area.empty() && object.runs != EventId::none &&
               is_inside(object.fires)) {
        why = "a spawn is a point, which nothing touches";
        hint = {"if it is to run when someone arrives here", "arrival_runs = \"…\""};
    } else {
        return;
    }
    Finding finding = start_object(findings, Rule::fires_never, map, object, object.place,
                                   {words_of(world, object), std::string(name_of(object.fires)), why});
    finding.hint = std::move(hint);
    findings.add(std::move(finding));
}

// ---- tiles ----

bool blocks(const Shape& shape) {
    return shape.trigger.empty() && shape.fault == ShapeFault::none && (!shape.area.empty() || !shape.line.empty());
}

void check_tile(const World& world, const TileSet& set, const Tile& tile, Findings& findings) {
    if (!tile.decided) return;
    std::vector<MoverId> all;
    for (const MoverId mover : ids<MoverId>(world.movers())) all.push_back(mover);
    const bool solid = std::any_of(tile.shapes.begin(), tile.shapes.end(), blocks);
    const bool senses = std::any_of(tile.shapes.begin(), tile.shapes.end(),   // else trigger-empty reports it
                                    [](const Shape& shape) { return !shape.trigger.empty(); });
    for (const Reaction& reaction : tile.reacts) {
        const std::vector<MoverId>& by = reaction.by.empty() ? all : reaction.by;
        std::string why;
        if (reaction.fires == Fires::bump && !solid && tile.needs.empty() && !tile.sides)
            why = "nothing of it is solid, so nobody bumps into it";
        else if (is_inside(reaction.fires) && senses && !by.empty() &&
                 std::any_of(tile.shapes.begin(), tile.shapes.end(), [&](const Shape& shape) {
                     return blocks(shape) && shape.whole_cell && shape.barrier != BarrierId::none &&
                            stops_all(world, shape.barrier, by);
                 }))
            why = "it is solid all over, so nobody gets into it";
        if (why.empty()) continue;
        Finding finding =
            findings.start(Rule::fires_never, reaction.place, thing_of(set, tile),
                           {fmt::format("tile '{}'", tile.name), std::string(name_of(reaction.fires)), why});
        finding.hint = Hint{"let it fire in another way",
                            reaction.fires == Fires::bump ? "fires = \"enter\"" : "fires = \"bump\""};
        findings.add(std::move(finding));
    }
}

// ---- stairs ----

// Stairs on one cell of two storeys that lead to each other: a body that goes up is led down at once, endlessly.
void check_stairs(const World& world, const Map& map, Findings& findings) {
    std::vector<Cell> cells;
    const Layer* first = nullptr;
    std::string up;
    for (const Layer& low : map.layers)
        for (const Layer& high : map.layers) {
            if (low.cells.empty() || high.cells.empty() || low.storey >= high.storey) continue;
            for (int r = 0; r < map.rows; ++r)
                for (int c = 0; c < map.columns; ++c) {
                    const Placed &a = map.placed(low, c, r), &b = map.placed(high, c, r);
                    if (a.tile < 0 || b.tile < 0 || world.tile(a).leads != high.storey ||
                        world.tile(b).leads != low.storey)
                        continue;
                    cells.push_back(map.cell({c, r}));
                    if (first == nullptr) first = &high, up = world.storey(high.storey).name;
                }
        }
    if (cells.empty()) return;
    const Place place =
        first->rows.empty() ? first->place : first->rows[static_cast<std::size_t>(cells[0].row - map.first_row)];
    Finding finding = findings.start(Rule::stairs_bounce, place, fmt::format("map '{}'", map.name),
                                     {fmt::format("({}, {})", cells[0].column, cells[0].row), up});
    finding.map = map.name, finding.layer = first->name, finding.cell = cells[0], finding.cells = cells;
    finding.hint = Hint{"let the stairs back stand on the next cell", ""};
    findings.add(std::move(finding));
}

}   // namespace

void check_firing(const World& world, Findings& findings) {
    for (const TileSet& set : world.tilesets())
        for (const Tile& tile : set.tiles) check_tile(world, set, tile, findings);
    for (const Map& map : world.maps()) {
        for (const Object& object : map.objects) check_object(world, map, object, findings);
        check_stairs(world, map, findings);
    }
}

}   // namespace dryground::check_rules

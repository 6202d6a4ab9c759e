// Rules about where the player gets to: goals, keys, dead ends, what is out of reach, holes without a bottom.
//
// Cost: that of `reach`.

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "dryground/text.hpp"
#include "dryground/travel.hpp"
#include "rules_internal.hpp"

namespace dryground::check_rules {

namespace {

class WalkingRules {
public:
    WalkingRules(const World& world, const Reach& reach, Findings& findings)
        : world_(world), reach_(reach), findings_(findings) {}

    void check() {
        check_goals();
        check_keys();
        check_objects();
        check_ends();
        check_holes();
    }

private:
    [[nodiscard]] const Map& map(MapId id) const { return world_.map(id); }
    [[nodiscard]] std::string thing(const InTheWay& way) const {
        if (way.object != ObjectId::none) return words_of(world_, map(way.map).object(way.object));
        return way.layer == LayerId::none ? "the way"
                                          : fmt::format("the tile on cell ({}, {})", way.cell.column, way.cell.row);
    }
    // What is behind its own lock is reported by that rule; the goals behind it are reported too, since they are what
    // is missed.
    void check_goals() {
        for (std::size_t g = 0; g < world_.goals().size(); ++g) {
            const Goal& goal = world_.goals()[g];
            if (reach_.goals()[g].reached != Reached::no) continue;
            const InTheWay way = goal.object != ObjectId::none ? reach_.in_the_way(goal.map, goal.object)
                                                               : reach_.in_the_way_of_fact(goal.fact);
            Finding finding =
                findings_.start(Rule::goal_unreachable, goal.place, "the world", {goal.words, text(world_, way)});
            finding.hint = Hint{"`dryground walk` shows the way as far as it goes", ""};
            if (way.map != MapId::none && way.object != ObjectId::none)
                if (const Object& object = map(way.map).object(way.object); !object.place.file.empty())
                    finding.related.push_back({object.place, fmt::format("{} is here", words_of(world_, object))});
            findings_.add(std::move(finding));
        }
    }
    void check_keys() {
        for (const FactId fact : ids<FactId>(world_.facts())) {
            if (reach_.gained(fact) != Reached::no || !is_needed(fact)) continue;
            const InTheWay way = reach_.in_the_way_of_fact(fact);
            if (way.sort != InTheWay::Sort::behind_itself || way.fact != fact) continue;
            const std::string& name = world_.fact(fact).name;
            Finding finding;
            if (way.object != ObjectId::none) {
                const Object& lock = map(way.map).object(way.object);
                finding = start_object(findings_, Rule::key_behind_own_lock, map(way.map), lock, lock.place,
                                       {thing(way), name, name});
            } else {
                finding = findings_.start(Rule::key_behind_own_lock, place_of_tile(way), "the world",
                                          {thing(way), name, name});
                if (way.map != MapId::none) finding.map = map(way.map).name;
            }
            finding.hint = Hint{fmt::format("let something on this side give '{}'", name), ""};
            findings_.add(std::move(finding));
        }
    }
    [[nodiscard]] Place place_of_tile(const InTheWay& way) const {
        if (way.map == MapId::none) return world_.world_place();
        const Map& of = map(way.map);
        if (way.layer == LayerId::none) return of.place;
        return of.place_of(of.layer(way.layer), of.data_cell(way.cell));
    }
    [[nodiscard]] bool is_needed(FactId fact) const {
        const auto needs = [fact](const std::vector<FactId>& facts) {
            return std::find(facts.begin(), facts.end(), fact) != facts.end();
        };
        for (const Map& of : world_.maps())
            for (const Object& object : of.objects)
                if (needs(object.needs)) return true;
        for (const TileSet& set : world_.tilesets())
            for (const Tile& tile : set.tiles)
                if (needs(tile.needs)) return true;
        return false;
    }

    // Lists whatever the player sets off, on maps that it reaches. What lacks a fact is reported where that is lost.
    void check_objects() {
        std::set<std::pair<MapId, ObjectId>> goals;
        for (const Goal& goal : world_.goals()) goals.insert({goal.map, goal.object});
        for (const MapId id : ids<MapId>(world_.maps())) {
            const Map& of = map(id);
            if (of.player == MoverId::none || reach_.map_reached(id) != Reached::yes) continue;
            for (const ObjectId o : ids<ObjectId>(of.objects)) {
                const Object& object = of.object(o);
                const bool does = object.runs != EventId::none || !object.gives.empty() || object.role == Role::link;
                if (!does || object.area.empty() || goals.count({id, o}) != 0 || object.fires == Fires::start ||
                    object.fires == Fires::defeat ||
                    std::find(object.by.begin(), object.by.end(), of.player) == object.by.end() ||
                    reach_.reached(id, o) != Reached::no)
                    continue;
                const InTheWay way = reach_.in_the_way(id, o);
                using Sort = InTheWay::Sort;
                if (way.sort == Sort::needs_fact || way.sort == Sort::fact_never_given ||
                    way.sort == Sort::behind_itself || way.sort == Sort::nothing)
                    continue;
                Finding finding = start_object(findings_, Rule::out_of_reach, of, object, object.place,
                                               {words_of(world_, object), text(world_, way)});
                finding.hint = Hint{"move it, or make a way", ""};
                findings_.add(std::move(finding));
            }
        }
    }

    [[nodiscard]] Finding at(Rule rule, const Spot& spot, std::vector<std::string> arguments) const {
        const Map& of = map(spot.map);
        const Point p{static_cast<std::int32_t>(std::lround(spot.at.x * steps_per_px)),
                      static_cast<std::int32_t>(std::lround(spot.at.y * steps_per_px))};
        // Feet on the border of two cells stand on the lower one.
        auto [column, row] = of.data_cell_at({p.x, p.y});
        column = std::clamp(column, 0, of.columns - 1), row = std::clamp(row, 0, of.rows - 1);
        const PaintedCell painted = spot_of(world_, of, column, row);
        Finding finding = findings_.start(rule, painted.place, fmt::format("map '{}'", of.name), std::move(arguments));
        finding.map = of.name, finding.layer = painted.layer;
        finding.cell = of.cell({column, row});
        if (world_.storeys().size() > 1)
            finding.details.push_back(fmt::format("on storey '{}'", world_.storey(spot.storey).name));
        return finding;
    }
    void check_ends() {
        for (const Spot& end : reach_.dead_ends()) {
            Finding finding = at(Rule::dead_end, end,
                                 {fmt::format("[{:.0f}, {:.0f}] on map '{}'", end.at.x, end.at.y, map(end.map).name)});
            finding.hint = Hint{"make a way out, or set one_way = true on a link that is meant to lead there", ""};
            findings_.add(std::move(finding));
        }
    }
    // Adds one finding for each map and storey: the columns in which it falls.
    void check_holes() {
        std::map<std::pair<MapId, StoreyId>, std::set<int>> columns;
        for (const Spot& hole : reach_.bottomless()) {
            const Map& of = map(hole.map);
            const int column = static_cast<int>(std::floor(hole.at.x / of.cell_width));
            columns[{hole.map, hole.storey}].insert(column);
        }
        for (const auto& [where, set] : columns) {
            const Map& of = map(where.first);
            const PointPx first{(*set.begin() + 0.5) * of.cell_width, to_px(of.most().y) - 0.5 * of.cell_height};
            const std::string& mover = world_.mover(of.player).name;
            Finding finding =
                at(Rule::bottomless, {where.first, where.second, first},
                   {mover, fmt::format("in column{} {}", set.size() == 1 ? "" : "s", fmt::join(set, ", "))});
            finding.hint = Hint{"close the hole, or give the map a rim", "rim = \"…\""};
            findings_.add(std::move(finding));
        }
    }

    const World& world_;
    const Reach& reach_;
    Findings& findings_;
};

// Reports players that are seen from the side without figures for jumping.
void tell_unknown_jumps(const World& world, Findings& findings) {
    std::set<MoverId> players;
    for (const Map& map : world.maps())
        if (map.player != MoverId::none) players.insert(map.player);
    for (const MoverId player : players) {
        const Mover& mover = world.mover(player);
        if (mover.moves != Moves::side || (mover.jump_px && mover.leap_px)) continue;
        Finding finding = findings.start(Rule::jump_unknown, mover.place, fmt::format("mover '{}'", mover.name),
                                         {mover.name, mover.jump_px ? "leap_px" : "jump_px"});
        finding.hint = Hint{"set how high and how far it jumps; 0 if it does not jump", ""};
        findings.add(std::move(finding));
    }
}

// Returns where the player begins. A misspelt start, or one inside the ground, has findings of its own: so that the
// rest is still checked, the nearest name and the nearest free place are used instead.
std::optional<Spot> begins_at(const World& world, Grounds& grounds) {
    const Start& start = world.start();
    if (start.map == MapId::none) return std::nullopt;
    const Map& map = world.map(start.map);
    ObjectId object = start.object;
    if (const std::size_t slash = start.words.find('/'); object == ObjectId::none && slash != std::string::npos) {
        std::vector<std::string> names;
        for (const Object& other : map.objects)
            if (!other.name.empty()) names.push_back(other.name);
        if (const auto nearest = nearest_name(start.words.substr(slash + 1), names)) object = map.find_object(*nearest);
    }
    if (object == ObjectId::none || map.player == MoverId::none) return std::nullopt;
    const Object& landing = map.object(object);
    Point at = landing.position;
    const Standing standing = stand(world, grounds, start.map, map.player, landing.storey, at);
    if (standing.depth_px > 0 && standing.nearest_free) at = *standing.nearest_free;
    return Spot{start.map, landing.storey, {to_px(at.x), to_px(at.y)}};
}

}   // namespace

void check_walking(const World& world, Grounds& grounds, Findings& findings) {
    tell_unknown_jumps(world, findings);
    ReachOptions options;
    options.from = begins_at(world, grounds);
    if (!options.from) return;   // not decided; other rules report why
    const Reach reach = dryground::reach(world, options);
    if (reach.begins()) WalkingRules(world, reach, findings).check();
}

}   // namespace dryground::check_rules

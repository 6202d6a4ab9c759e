// Rules about links between maps.
//
// A link is followed to where its mover would stand; what it would stand in is found as for spawns (ground.cpp).

#include <fmt/format.h>

#include <algorithm>

#include "rules_internal.hpp"

namespace dryground::check_rules {

namespace {

Finding start_link(const Findings& findings, Rule rule, const Map& map, const Object& link,
                   std::vector<std::string> arguments) {
    Finding finding = findings.start(rule, link.link.place, thing_of(map, link), std::move(arguments));
    finding.map = map.name;
    finding.layer = map.layer(link.layer).name;
    finding.object = link.name;
    finding.cell = link.cell;
    return finding;
}

void check_target(const World& world, const Map& map, const Object& link, Findings& findings) {
    const std::string& to = link.link.to;
    const auto slash = to.find('/');
    Finding finding = start_link(findings, Rule::link_target, map, link, {words_of(world, link), to, ""});
    std::vector<std::string> names;
    if (link.link.map == MapId::none) {
        finding.arguments[2] = fmt::format("there is no map '{}'", to.substr(0, slash));
        for (const Map& other : world.maps())   // only where it is possible to arrive
            if (slash != std::string::npos && other.find_object(to.substr(slash + 1)) != ObjectId::none)
                names.push_back(other.name + to.substr(slash));
    } else {
        const Map& target = world.map(link.link.map);
        finding.arguments[2] = fmt::format("map '{}' has no object '{}'", target.name,
                                           slash == std::string::npos ? to : to.substr(slash + 1));
        for (const Object& object : target.objects)
            if (!object.name.empty()) names.push_back(fmt::format("{}/{}", target.name, object.name));
    }
    if (const auto nearest = nearest_name(to, names)) {
        finding.hint = Hint{"did you mean", fmt::format("to = \"{}\"", *nearest)};
    } else if (link.link.map == MapId::none) {
        std::vector<std::string> maps;
        for (const Map& other : world.maps()) maps.push_back(other.name);
        finding.hint = Hint{
            fmt::format("the world lists the maps {}; add the map to its list, or name another", fmt::join(maps, ", ")),
            ""};
    } else {
        finding.hint =
            Hint{"name an object to arrive at", names.empty() ? "" : fmt::format("to = \"{}\"", names.front())};
    }
    findings.add(std::move(finding));
}

void check_arrival(const World& world, Grounds& grounds, const Map& map, const Object& link, Findings& findings) {
    const Map& target = world.map(link.link.map);
    const Object& arrival = target.object(link.link.object);
    // The mover that arrives is the one that set it off; for the player, the player of the map that it enters.
    std::vector<MoverId> movers = link.by;
    for (MoverId& mover : movers)
        if (mover == map.player && target.player != MoverId::none) mover = target.player;
    for (const MoverId mover : movers) {
        const Standing standing = stand(world, grounds, link.link.map, mover, arrival.storey, arrival.position);
        if (standing.depth_px == 0) continue;
        Finding finding = start_link(findings, Rule::link_arrival_blocked, map, link,
                                     {words_of(world, link), link.link.to, world.mover(mover).name,
                                      fmt::format("{}", standing.depth_px), standing.in_the_way});
        finding.details = standing.details;
        finding.cells = standing.cells;
        if (!arrival.place_of_position.file.empty())
            finding.related.push_back({arrival.place_of_position, fmt::format("'{}' is here", arrival.name)});
        if (standing.nearest_free)
            finding.hint = Hint{fmt::format("nearest free place for '{}'", arrival.name),
                                fmt::format("at = {}", at_px(*standing.nearest_free))};
        findings.add(std::move(finding));
        return;
    }
}

void check_return(const World& world, std::size_t from, const Object& link, Findings& findings) {
    if (link.link.one_way || link.link.map == id_of<MapId>(from)) return;
    const Map &map = world.maps()[from], &target = world.map(link.link.map);
    const bool back = std::any_of(target.objects.begin(), target.objects.end(), [from](const Object& other) {
        return other.role == Role::link && other.link.map == id_of<MapId>(from) && other.link.object != ObjectId::none;
    });
    if (back) return;
    Finding finding =
        start_link(findings, Rule::link_without_return, map, link, {words_of(world, link), target.name, map.name});
    finding.hint =
        Hint{fmt::format("add a link to '{}', or declare that no way back is intended", target.name), "one_way = true"};
    findings.add(std::move(finding));
}

// Links of a map that fire when a body enters them, by the cells that they lie in.
class Doors {
public:
    Doors(const World& world, const Map& map) : world_(world), map_(map) {
        for (const Object& other : map.objects)
            if (other.role == Role::link && other.fires == Fires::enter && other.needs.empty() &&
                is_there(map, other) && !other.area.empty())
                for (const std::array<int, 2>& cell : cells_of(*bounds(other.area))) by_cell_[cell].push_back(&other);
    }

    // Returns those that a body at a position is inside.
    [[nodiscard]] std::vector<const Object*> at(MoverId mover, StoreyId storey, Point position) const {
        std::vector<const Object*> links;
        const Regions body = moved(world_.mover(mover).body, position);
        for (const std::array<int, 2>& cell : cells_of(*bounds(body)))
            if (const auto found = by_cell_.find(cell); found != by_cell_.end())
                for (const Object* other : found->second)
                    if (other->storey == storey &&
                        std::find(other->by.begin(), other->by.end(), mover) != other->by.end() &&
                        std::find(links.begin(), links.end(), other) == links.end() &&
                        !intersect(body, other->area).empty())
                        links.push_back(other);
        return links;
    }

private:
    // Blocks as large as a cell's box.
    [[nodiscard]] std::vector<std::array<int, 2>> cells_of(const Bounds& box) const {
        const std::int32_t wide = map_.cell_width * steps_per_px, high = map_.cell_height * steps_per_px;
        std::vector<std::array<int, 2>> cells;
        for (int r = box.least.y / high - 1; r <= box.most.y / high; ++r)
            for (int c = box.least.x / wide - 1; c <= box.most.x / wide; ++c) cells.push_back({c, r});
        return cells;
    }

    const World& world_;
    const Map& map_;
    std::map<std::array<int, 2>, std::vector<const Object*>> by_cell_;
};

// A body that arrives inside a link back goes back at once.
void check_bounce(const World& world, const std::vector<Doors>& doors, std::size_t from, const Object& link,
                  Findings& findings) {
    const Map& target = world.map(link.link.map);
    const Object& arrival = target.object(link.link.object);
    for (MoverId mover : link.by) {
        if (mover == world.maps()[from].player && target.player != MoverId::none) mover = target.player;
        for (const Object* back : doors[index(link.link.map)].at(mover, arrival.storey, arrival.position)) {
            if (back->link.map != id_of<MapId>(from)) continue;
            Finding finding = start_link(findings, Rule::link_bounce, world.maps()[from], link,
                                         {words_of(world, link), words_of(world, *back)});
            if (!back->place.file.empty())
                finding.related.push_back({back->place, fmt::format("{} is here", words_of(world, *back))});
            finding.hint = Hint{fmt::format("let it lead to a place beside {}", words_of(world, *back)), ""};
            findings.add(std::move(finding));
            return;
        }
    }
}

void check_unlinked(const World& world, Findings& findings) {
    if (world.start().object == ObjectId::none) return;
    std::vector<bool> reached(world.maps().size());
    std::vector<std::size_t> open{static_cast<std::size_t>(world.start().map)};
    reached[open[0]] = true;
    while (!open.empty()) {
        const Map& map = world.maps()[open.back()];
        open.pop_back();
        for (const Object& object : map.objects)
            if (const auto next = index(object.link.map);
                object.role == Role::link && object.link.object != ObjectId::none && !reached[next]) {
                reached[next] = true;
                open.push_back(next);
            }
    }
    for (std::size_t m = 0; m < reached.size(); ++m)
        if (!reached[m]) {
            const Map& map = world.maps()[m];
            Finding finding =
                findings.start(Rule::map_unlinked, map.place, fmt::format("map '{}'", map.name), {map.name});
            finding.map = map.name;
            finding.hint = Hint{"let a link of a map that can be reached lead to one of its objects",
                                fmt::format("to = \"{}/…\"", map.name)};
            findings.add(std::move(finding));
        }
}

}   // namespace

void check_links(const World& world, Grounds& grounds, Findings& findings) {
    std::vector<Doors> doors;
    for (const Map& map : world.maps()) doors.emplace_back(world, map);
    for (std::size_t m = 0; m < world.maps().size(); ++m)
        for (const Object& link : world.maps()[m].objects) {
            if (link.role != Role::link || link.link.to.empty()) continue;
            if (link.link.object == ObjectId::none) {
                check_target(world, world.maps()[m], link, findings);
                continue;
            }
            check_arrival(world, grounds, world.maps()[m], link, findings);
            check_return(world, m, link, findings);
            check_bounce(world, doors, m, link, findings);
        }
    check_unlinked(world, findings);
}

}   // namespace dryground::check_rules

// Rules about the space between: areas that nothing leads into, and ways out of a map.
//
// Cost: about that of a few booleans of the ground's outline; the body is asked only where a point gets through.

#include <fmt/format.h>

#include <algorithm>

#include "rules_internal.hpp"

namespace dryground::check_rules {

namespace {

Regions box_of(const Map& map, std::int32_t more) {
    return {box_region({map.least().x - more, map.least().y - more}, {map.most().x + more, map.most().y + more})};
}

// Where a mover comes into being in a map: its spawns, its kinds' objects, and, for who plays, the ends of links.
std::vector<Point> arrivals(const World& world, int map_id, int mover, int storey) {
    const Map& map = world.maps()[static_cast<std::size_t>(map_id)];
    std::vector<Point> points;
    for (const Object& object : map.objects) {
        const Kind& kind = world.kinds()[static_cast<std::size_t>(object.kind)];
        const int own = object.role == Role::spawn && kind.mover == world.player() ? map.player : kind.mover;
        if (object.storey == storey && own == mover && object.role != Role::link) points.push_back(object.position);
    }
    if (mover != map.player) return points;
    for (const Map& other : world.maps())
        for (const Object& link : other.objects)
            if (link.role == Role::link && link.link.map == map_id && link.link.object >= 0)
                if (const Object& end = map.objects[static_cast<std::size_t>(link.link.object)]; end.storey == storey)
                    points.push_back(end.position);
    if (world.start().map == map_id && world.start().object >= 0)
        points.push_back(map.objects[static_cast<std::size_t>(world.start().object)].position);
    return points;
}

bool holds(const Region& region, Point p) { return locate({&region, 1}, p) != Side::outside; }

void check_pockets(const World& world, Grounds& grounds, int map_id, int storey, Findings& findings) {
    const Map& map = world.maps()[static_cast<std::size_t>(map_id)];
    if (map.player < 0 || map.grid != GridSort::square) return;
    const Ground& ground = grounds.of(map_id, map.player, storey);
    const Regions& body = world.movers()[static_cast<std::size_t>(map.player)].body;
    const Bounds size = *bounds(body);
    const std::vector<Point> points = arrivals(world, map_id, map.player, storey);
    if (points.empty()) return;
    const Regions all = box_of(map, 0);
    const Point middle{(size.least.x + size.most.x) / 2, (size.least.y + size.most.y) / 2};
    for (const Region& region : subtract(all, ground.regions())) {
        if (4 * twice_area({&region, 1}) > twice_area(all)) continue;
        const Bounds box = *bounds({&region, 1});
        // Feet stand on its edge: the body's middle is asked for.
        if (std::any_of(points.begin(), points.end(),
                        [&](Point p) { return holds(region, moved(p, middle)) || holds(region, p); }))
            continue;
        const std::int32_t wide = box.most.x - box.least.x, high = box.most.y - box.least.y;
        const std::int32_t need = std::min(size.most.x - size.least.x, size.most.y - size.least.y) / 2 - 1;
        if (wide < size.most.x - size.least.x || high < size.most.y - size.least.y ||
            grown({&region, 1}, -need, Corners::box).empty())
            continue;
        const auto [column, row] = map.cell_at({box.least.x + 1, box.least.y + 1});
        const Spot spot = spot_of(world, map, column, row);
        Finding finding =
            findings.start(Rule::pocket, spot.place, fmt::format("map '{}'", map.name), {px(wide), px(high)});
        finding.map = map.name, finding.layer = spot.layer;
        finding.cell = {map.first_column + column, map.first_row + row};
        finding.details.push_back(fmt::format("it reaches from {} to {} px", at_px(box.least), at_px(box.most)));
        finding.hint = Hint{"fill it, or open a way in", ""};
        findings.add(std::move(finding));
    }
}

// The part of the free space around and in a map that is joined to the outside and holds one of the points.
std::optional<Region> way_out(const Regions& blocked, const Map& map, const std::vector<Point>& points) {
    const std::int32_t more = 2 * std::max(map.cell_width, map.cell_height) * steps_per_px;
    const Point corner{map.least().x - more, map.least().y - more};
    for (const Region& region : subtract(box_of(map, more), blocked))
        if (holds(region, corner))
            for (const Point p : points)
                if (holds(region, p)) return region;
    return std::nullopt;
}

void check_leak(const World& world, Grounds& grounds, int map_id, int mover_id, int storey, Findings& findings) {
    const Map& map = world.maps()[static_cast<std::size_t>(map_id)];
    if (map.rim == RimSort::open || map.grid != GridSort::square) return;
    std::vector<Point> points = arrivals(world, map_id, mover_id, storey);
    if (points.empty()) return;
    const Mover& mover = world.movers()[static_cast<std::size_t>(mover_id)];
    const Bounds size = *bounds(mover.body);
    const Regions& blocked = grounds.of(map_id, mover_id, storey).regions();
    std::vector<Point> middles;
    for (const Point p : points)
        middles.push_back(moved(p, {(size.least.x + size.most.x) / 2, (size.least.y + size.most.y) / 2}));
    if (!way_out(blocked, map, middles)) return;
    const auto way = way_out(reach(blocked, mover.body.front().outline), map, points);
    if (!way) return;
    // Where it crosses the map's edge.
    const Regions frame = subtract(box_of(map, steps_per_px), box_of(map, 0));
    const Regions gates = intersect(frame, {&*way, 1});
    if (gates.empty()) return;
    const Bounds gate = *bounds({&gates.front(), 1});
    const Point at{gate.least.x + (gate.most.x - gate.least.x) / 2, gate.least.y + (gate.most.y - gate.least.y) / 2};
    Finding finding = findings.start(Rule::leak, map.place, fmt::format("map '{}'", map.name), {mover.name, at_px(at)});
    finding.map = map.name;
    const auto [column, row] = map.cell_at(at);
    finding.cell = {map.first_column + column, map.first_row + row};
    finding.details.push_back(fmt::format("the way out reaches from {} to {} px", at_px(gate.least), at_px(gate.most)));
    finding.hint =
        Hint{"put a ring of a barrier around the map, or say that movers may leave",
             world.barriers().empty() ? "rim = \"open\"" : fmt::format("rim = \"{}\"", world.barriers().front().name)};
    findings.add(std::move(finding));
}

}   // namespace

void check_space(const World& world, Grounds& grounds, Findings& findings) {
    for (int m = 0; m < static_cast<int>(world.maps().size()); ++m)
        for (const int storey : storeys_of(world.maps()[static_cast<std::size_t>(m)])) {
            check_pockets(world, grounds, m, storey, findings);
            for (const int mover : movers_of(world, m)) check_leak(world, grounds, m, mover, storey, findings);
        }
}

}   // namespace dryground::check_rules

// Rules about free space: areas that nothing leads into, and ways out of a map.
//
// Cost: in proportion to the ground's outline; and where a point could leave that of `travel::way_out`.

#include <fmt/format.h>

#include <algorithm>

#include "../geometry/bounds_internal.hpp"
#include "../ground/ground_internal.hpp"
#include "../travel/fitting_internal.hpp"
#include "rules_internal.hpp"

namespace dryground::check_rules {

namespace {

// Adds where stairs of a map lead to a storey: a mover's position with its body in the middle of their cells.
void add_ends_of_stairs(const World& world, const Map& map, const Bounds& body, StoreyId storey,
                        std::vector<Point>& points) {
    std::vector<bool> lead_there;
    for (const Placed& placed : map.palette)
        lead_there.push_back(placed.tile >= 0 && world.tile(placed).leads == storey);
    if (std::find(lead_there.begin(), lead_there.end(), true) == lead_there.end()) return;
    for (const Layer& layer : map.layers) {
        if (layer.holds_objects || layer.storey == storey || !ground::counts(layer, {})) continue;
        for (int r = 0; r < map.rows; ++r)
            for (int c = 0; c < map.columns; ++c)
                if (lead_there[map.number(layer, c, r)]) points.push_back(detail::in_middle(map.cell_box(c, r), body));
    }
}

// Returns where a mover appears on a storey of a map, or arrives: its spawns, its kinds' objects, stairs and, for the
// player, the ends of links.
std::vector<Point> arrivals(const World& world, MapId map_id, MoverId mover, StoreyId storey) {
    const Map& map = world.map(map_id);
    std::vector<Point> points;
    for (const Object& object : map.objects) {
        if (object.storey == storey && body_of(world, map, object) == mover && object.role != Role::link)
            points.push_back(object.position);
    }
    add_ends_of_stairs(world, map, *bounds(world.mover(mover).body), storey, points);
    if (mover != map.player) return points;
    for (const Map& other : world.maps())
        for (const Object& link : other.objects)
            if (link.role == Role::link && link.link.map == map_id && link.link.object != ObjectId::none)
                if (const Object& end = map.object(link.link.object); end.storey == storey)
                    points.push_back(end.position);
    if (world.start().map == map_id && world.start().object != ObjectId::none)
        points.push_back(map.objects[static_cast<std::size_t>(world.start().object)].position);
    return points;
}

// Returns where each of them is, by the middle of the body: feet stand on an edge.
std::vector<int> areas_of(const FreeSpace& space, const std::vector<Point>& points, const Bounds& body) {
    const Point middle{(body.least.x + body.most.x) / 2, (body.least.y + body.most.y) / 2};
    std::vector<int> areas;
    for (const Point p : points) {
        areas.push_back(space.area_at(moved(p, middle)));
        if (areas.back() == FreeSpace::in_ground) areas.back() = space.area_at(p);
    }
    return areas;
}

// Returns whether the body fits into a free area: everything around it counts as ground.
bool has_room(const Region& area, const Mover& mover) {
    const Bounds box = *bounds({&area, 1}), body = *bounds(mover.body);
    const std::int32_t far = std::max(body.most.x - body.least.x, body.most.y - body.least.y);
    const Bounds frame = detail::grown(box, far + steps_per_px);
    const Regions around = subtract(Regions{box_region(frame.least, frame.most)}, Regions{area});
    const Region positions = box_region({box.least.x - body.least.x, box.least.y - body.least.y},
                                        {box.most.x - body.most.x, box.most.y - body.most.y});
    return !travel::fitting({positions}, around, mover).empty();
}

void check_pockets(const World& world, Grounds& grounds, MapId map_id, StoreyId storey, Findings& findings) {
    const Map& map = world.map(map_id);
    if (map.player == MoverId::none) return;
    const Mover& player = world.mover(map.player);
    const Bounds size = *bounds(player.body);
    const std::vector<Point> points = arrivals(world, map_id, map.player, storey);
    if (points.empty()) return;
    const FreeSpace& space = grounds.space(map_id, map.player, storey);
    std::vector<bool> entered(static_cast<std::size_t>(space.areas()));
    for (const int area : areas_of(space, points, size))
        if (area >= 0) entered[static_cast<std::size_t>(area)] = true;
    const std::int64_t whole = twice_area(map.block_ring(0, 0, map.columns, map.rows));
    for (int number = 0; number < space.areas(); ++number) {
        if (entered[static_cast<std::size_t>(number)] || 4 * space.twice_size(number) > whole) continue;
        const Region area = space.area(number);
        const Bounds box = *bounds({&area, 1});
        const std::int32_t wide = box.most.x - box.least.x, high = box.most.y - box.least.y;
        if (wide < size.most.x - size.least.x || high < size.most.y - size.least.y || !has_room(area, player)) continue;
        // A place in it: at its topmost corner.
        const Point top = *std::min_element(area.outline.begin(), area.outline.end());
        const auto [column, row] = map.data_cell_at({top.x + 1, top.y + 1});
        const PaintedCell spot = spot_of(world, map, column, row);
        Finding finding =
            findings.start(Rule::pocket, spot.place, fmt::format("map '{}'", map.name), {px(wide), px(high)});
        finding.map = map.name, finding.layer = spot.layer;
        finding.cell = map.cell({column, row});
        name_storey(world, map, storey, finding);
        finding.details.push_back(fmt::format("it reaches from {} to {} px", at_px(box.least), at_px(box.most)));
        for (const Point p : area.outline) finding.outline.push_back({to_px(p.x), to_px(p.y)});
        finding.hint = Hint{"fill it, or open a way in", ""};
        findings.add(std::move(finding));
    }
}

void check_leak(const World& world, Grounds& grounds, MapId map_id, MoverId mover_id, StoreyId storey,
                Findings& findings) {
    const Map& map = world.map(map_id);
    if (ground::says_edge(map)) return;   // open on purpose, or closed all around
    const std::vector<Point> points = arrivals(world, map_id, mover_id, storey);
    if (points.empty()) return;
    const Mover& mover = world.mover(mover_id);
    const Bounds size = *bounds(mover.body);
    const std::vector<int> areas = areas_of(grounds.space(map_id, mover_id, storey), points, size);
    std::vector<Point> free;   // what a point cannot leave, a body cannot
    for (std::size_t i = 0; i < points.size(); ++i)
        if (areas[i] == FreeSpace::outside) free.push_back(points[i]);
    if (free.empty()) return;
    const auto out = travel::way_out(map, grounds.of(map_id, mover_id, storey).regions(),
                                     grounds.lines(map_id, mover_id, storey).both_ways, mover, free);
    if (!out) return;
    Finding finding =
        findings.start(Rule::leak, map.place, fmt::format("map '{}'", map.name), {mover.name, at_px(*out)});
    finding.map = map.name;
    name_storey(world, map, storey, finding);
    const auto [column, row] = map.data_cell_at(*out);
    finding.cell = map.cell({column, row});
    // A barrier that stops it: any other would not keep it in.
    finding.hint = mover.stopped_by.empty()
                       ? Hint{"no barrier stops it; if movers may leave this map", "rim = \"open\""}
                       : Hint{"close the map with a barrier that stops it, unless movers may leave (rim = \"open\")",
                              fmt::format("rim = \"{}\"", world.barrier(mover.stopped_by.front()).name)};
    findings.add(std::move(finding));
}

}   // namespace

void check_space(const World& world, Grounds& grounds, Findings& findings) {
    for (const MapId m : ids<MapId>(world.maps()))
        for (const StoreyId storey : ground::storeys_of(world.map(m))) {
            check_pockets(world, grounds, m, storey, findings);
            for (const MoverId mover : movers_of(world, m)) check_leak(world, grounds, m, mover, storey, findings);
        }
}

}   // namespace dryground::check_rules

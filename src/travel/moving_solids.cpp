// Where solids that move along a path may stand.
//
// Idea. A path is divided into stops so close together that what is between two of them is covered by both. Cost: in
// proportion to the path's length.

#include "moving_solids_internal.hpp"

#include <algorithm>
#include <cmath>

#include "../ground/ground_internal.hpp"

namespace dryground::travel {

namespace {

// How far one stop is from the next, and how many there are at most between two places of a path.
constexpr double usual_stride = 8 * steps_per_px;
constexpr double most_strides = 64;

double length_of_leg(Point a, Point b) {
    return std::hypot(static_cast<double>(b.x) - a.x, static_cast<double>(b.y) - a.y);
}

std::vector<MovingSolid::Stop> stops_along(const std::vector<Point>& path, Point from) {
    double length = 0;
    for (std::size_t i = 0; i < path.size(); ++i) length += length_of_leg(i == 0 ? from : path[i - 1], path[i]);
    const double stride = std::max(usual_stride, length / most_strides);
    std::vector<MovingSolid::Stop> stops{{{0, 0}, 0, true}};
    Point last = from;
    for (std::size_t leg = 0; leg < path.size(); ++leg) {
        const int strides = static_cast<int>(std::ceil(length_of_leg(last, path[leg]) / stride));
        for (int i = 1; i <= strides; ++i) {
            const auto part = [&](std::int32_t a, std::int32_t b) {
                return static_cast<std::int32_t>(std::lround(a + (double{0} + b - a) * i / strides));
            };
            const Point at{part(last.x, path[leg].x), part(last.y, path[leg].y)};
            stops.push_back({{at.x - from.x, at.y - from.y}, leg, i == strides});
        }
        last = path[leg];
    }
    return stops;
}

std::vector<Group> groups_of(const Map& map, const Object& object, const Mover& mover) {
    std::vector<Group> groups;
    for (const ground::Part& part : ground::parts_of(map, object).parts) {
        if (!part.adds || !std::binary_search(mover.stopped_by.begin(), mover.stopped_by.end(), part.barrier)) continue;
        Group group;
        group.storey_id = object.storey, group.barrier_id = part.barrier, group.one_way = part.one_way;
        group.regions = unite(part.area);
        if (!part.line.empty()) group.lines = {part.line};
        groups.push_back(std::move(group));
    }
    return groups;
}

bool takes_part(const Map& map, const Object& object, const Facts& facts) {
    return ground::moves(object) && ground::may_count(map.layer(object.layer)) &&
           dryground::is_there(map, object, facts);
}

}   // namespace

std::vector<MovingSolid> moving_solids(const WaysOf& of) {
    std::vector<MovingSolid> solids;
    for (const ObjectId id : ids<ObjectId>(of.map.objects)) {
        const Object& object = of.map.object(id);
        if (!takes_part(of.map, object, of.facts) || object.fault != ShapeFault::none || !ground::fills_shape(object))
            continue;
        std::vector<Point> path;
        for (const PointPx place : path_of(of.world, object)) path.push_back(steps_of(place));
        MovingSolid solid{id, object.storey, groups_of(of.map, object, of.figures()), {}};
        if (path.empty() || solid.groups.empty()) continue;
        const Bounds drawn =
            object.area.empty() ? detail::box_around(solid.groups.front().lines.front()) : *bounds(object.area);
        const bool is_near = is_walked(drawn) && std::all_of(path.begin(), path.end(), [&](Point p) {
                                 return is_walked(detail::grown({p, p}, drawn.most.x - drawn.least.x)) &&
                                        is_walked(detail::grown({p, p}, drawn.most.y - drawn.least.y));
                             });
        if (!is_near) continue;
        solid.stops = stops_along(path, object.position);
        solids.push_back(std::move(solid));
    }
    return solids;
}

std::vector<Group> moved(const std::vector<Group>& groups, Point by) {
    std::vector<Group> there = groups;
    for (Group& group : there) {
        group.regions = dryground::moved(group.regions, by);
        for (Ring& line : group.lines)
            for (Point& p : line) p = dryground::moved(p, by);
    }
    return there;
}

Ring swept(const MovingSolid& solid, std::size_t stop, const Ring& body) {
    std::vector<Point> points;
    const std::size_t next = std::min(stop + 1, solid.stops.size() - 1);
    for (const Point by : {solid.stops[stop].by, solid.stops[next].by})
        for (const Group& group : moved(solid.groups, by)) {
            for (const Region& region : group.regions)
                points.insert(points.end(), region.outline.begin(), region.outline.end());
            for (const Ring& line : group.lines) points.insert(points.end(), line.begin(), line.end());
        }
    return sum_with(convex_hull(std::move(points)), body);
}

}   // namespace dryground::travel

namespace dryground {

std::vector<PointPx> path_of(const World& world, const Object& object) {
    std::vector<PointPx> path;
    const auto written = object.props.find(world.kind(object.kind).path);
    if (written == object.props.end()) return path;
    if (const auto* list = std::get_if<Value::List>(&written->second.is))
        for (const Value& place : *list)
            if (const auto* at = std::get_if<std::array<double, 2>>(&place.is)) path.push_back({(*at)[0], (*at)[1]});
    return path;
}

std::vector<ObjectId> moved_by_code(const World& world, const Map& map) {
    std::vector<ObjectId> objects;
    for (const ObjectId id : ids<ObjectId>(map.objects))
        if (ground::moves(map.object(id)) && path_of(world, map.object(id)).empty()) objects.push_back(id);
    return objects;
}

}   // namespace dryground

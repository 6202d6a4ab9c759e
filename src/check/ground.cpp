// Whether a body fits.
//
// A convex body overlaps the ground if it overlaps one of its convex pieces, and two convex polygons are apart exactly
// if a line along one of their edges has them on different sides (touching included). All tests are exact. The nearest
// free place is searched outward over whole px.

#include <fmt/format.h>

#include <algorithm>
#include <limits>

#include "../geometry/bounds_internal.hpp"
#include "../geometry/ring_internal.hpp"
#include "../ground/ground_internal.hpp"
#include "../travel/fitting_internal.hpp"
#include "rules_internal.hpp"

namespace dryground::check_rules {

namespace {

// Returns whether all of b lies on or outside some edge of a. Rings have their inside on the left.
bool parted_by_edge(std::span<const Point> a, std::span<const Point> b) {
    for (std::size_t i = 0; i < a.size(); ++i) {
        const Point from = a[i], to = a[(i + 1) % a.size()];
        if (std::none_of(b.begin(), b.end(), [&](Point p) { return turn(from, to, p) == Turn::left; })) return true;
    }
    return false;
}

bool overlap(std::span<const Point> a, std::span<const Point> b) {
    return !parted_by_edge(a, b) && !parted_by_edge(b, a);
}

Region region_of(const Triangle& triangle) { return {{triangle.begin(), triangle.end()}, {}}; }

}   // namespace

Ground::Ground(const Regions& blocked) : regions_(blocked), pieces_(triangles(blocked)) {
    std::vector<Bounds> boxes;
    boxes.reserve(pieces_.size());
    for (const Triangle& piece : pieces_) boxes.push_back(detail::box_around(piece));
    near_ = detail::BoxIndex(std::move(boxes));
}

template <class Test>
bool Ground::any_near(const Bounds& box, Test test) const {
    return near_.any_near(box, [&](std::size_t i) { return test(pieces_[i]); });
}

bool Ground::free(const Regions& body, Point position) const { return free(body.front().outline, position); }

bool Ground::free(const Ring& convex, Point position) const {
    Ring there = convex;
    for (Point& p : there) p = moved(p, position);
    return !any_near(detail::box_around(there), [&](const Triangle& piece) { return overlap(piece, there); });
}

std::int32_t Ground::depth(const Regions& body, Point position) const {
    const Regions there = moved(body, position);
    Regions pieces;
    (void)any_near(*bounds(there), [&](const Triangle& piece) {
        if (overlap(piece, there[0].outline)) pieces.push_back(region_of(piece));
        return false;
    });
    if (pieces.empty()) return 0;
    const auto box = bounds(intersect(pieces, there));
    return box ? std::min(box->most.x - box->least.x, box->most.y - box->least.y) : 1;
}

Regions Ground::near(const Bounds& box) const {
    Regions near;
    (void)any_near(box, [&near](const Triangle& piece) {
        near.push_back(region_of(piece));
        return false;
    });
    return near;
}

const Grounds::Lines& Grounds::lines(MapId map, MoverId mover, StoreyId storey) {
    mover = first_like(mover);
    const std::tuple key{map, mover, storey};
    if (const auto known = lines_.find(key); known != lines_.end()) return known->second;
    Lines& lines = lines_[key];
    const auto has_line = [](const Tile& tile) {
        return std::any_of(tile.shapes.begin(), tile.shapes.end(),
                           [](const Shape& shape) { return !shape.line.empty(); });
    };
    const Map& of = world_.map(map);
    const bool any =
        std::any_of(of.palette.begin(), of.palette.end(),
                    [&](const Placed& placed) {
                        return placed.tile >= 0 && (has_line(world_.tile(placed)) || world_.tile(placed).sides);
                    }) ||
        std::any_of(of.objects.begin(), of.objects.end(), [](const Object& object) { return !object.line.empty(); });
    if (!any) return lines;
    for (const Group& group : merge(world_, of, {.forms = {}, .mover = mover}).groups) {
        if (group.storey_id != storey) continue;
        const auto add = [&](std::vector<Ring>& to) { to.insert(to.end(), group.lines.begin(), group.lines.end()); };
        if (group.one_way == OneWay::none) add(lines.both_ways);
        if (group.one_way == OneWay::none || group.one_way == OneWay::up) {
            add(lines.from_above);
            continue;
        }
        for (const Ring& line : group.lines)   // slopes that stop from one side, which is also above
            for (std::size_t i = 0; i + 1 < line.size(); ++i)
                if (ground::stopped_side(line[i], line[i + 1], group.one_way).y < 0)
                    lines.from_above.push_back({line[i], line[i + 1]});
    }
    return lines;
}

// Movers that are stopped by the same things share their ground.
MoverId Grounds::first_like(MoverId mover) const {
    const std::vector<Mover>& movers = world_.movers();
    const Mover& own = movers[index(mover)];
    const auto like = [&](const Mover& other) {
        return other.stopped_by == own.stopped_by && other.needs == own.needs;
    };
    return id_of<MoverId>(static_cast<std::size_t>(std::find_if(movers.begin(), movers.end(), like) - movers.begin()));
}

const Ground& Grounds::of(MapId map, MoverId mover, StoreyId storey) {
    mover = first_like(mover);
    const std::tuple key{map, mover, storey};
    auto known = known_.find(key);
    if (known == known_.end())
        known = known_.emplace(key, Ground(blocked_area(world_, world_.map(map), mover, storey))).first;
    return known->second;
}

const FreeSpace& Grounds::space(MapId map, MoverId mover, StoreyId storey) {
    const Ground& ground = of(map, mover, storey);
    return spaces_.try_emplace({map, first_like(mover), storey}, detail::rings_of(ground.regions())).first->second;
}

namespace {

// Visits whole px around the wanted position by distance, inside the map, out to `reach` px.
std::optional<Point> nearest_free(const Ground& ground, const Regions& body, Point wanted, const Map& map) {
    const Point base{(wanted.x / steps_per_px) * steps_per_px, (wanted.y / steps_per_px) * steps_per_px};
    const Bounds size = *bounds(body);
    const auto inside = [&](Point p) {
        return p.x + size.least.x >= map.least().x && p.y + size.least.y >= map.least().y &&
               p.x + size.most.x <= map.most().x && p.y + size.most.y <= map.most().y;
    };
    const std::int32_t longest = std::max(map.most().x - map.least().x, map.most().y - map.least().y);
    const int reach = std::clamp(longest / steps_per_px, 64, 512);
    std::optional<Point> best;
    std::int64_t best_distance = std::numeric_limits<std::int64_t>::max();
    // Squares of growing size: once the square's half side exceeds the best distance, nothing nearer can follow.
    for (int ring = 0; ring <= reach && std::int64_t{ring} * ring <= best_distance; ++ring)
        for (int dy = -ring; dy <= ring; ++dy)
            for (int dx = -ring; dx <= ring; dx += (dy == -ring || dy == ring || ring == 0) ? 1 : 2 * ring) {
                const std::int64_t distance = std::int64_t{dx} * dx + std::int64_t{dy} * dy;
                const Point p{base.x + dx * steps_per_px, base.y + dy * steps_per_px};
                if (distance >= best_distance || !inside(p) || !ground.free(body, p)) continue;
                best_distance = distance;
                best = p;
            }
    return best;
}

// Returns whether some of the parts that block a mover lies in a body.
bool in_the_way(const ground::Parts& parts, Point at, const Mover& mover, const Regions& body) {
    return std::any_of(parts.parts.begin(), parts.parts.end(), [&](const ground::Part& part) {
        return part.adds && std::binary_search(mover.stopped_by.begin(), mover.stopped_by.end(), part.barrier) &&
               !part.area.empty() && !intersect(moved(part.area, at), body).empty();
    });
}

}   // namespace

DataCells cells_near(const Map& map, const Bounds& box) {
    const Point cell{map.cell_width * steps_per_px, map.cell_height * steps_per_px};
    return map.cells_near({{box.least.x - cell.x, box.least.y - cell.y}, {box.most.x + cell.x, box.most.y + cell.y}});
}

std::optional<double> fall_px(const Ground& ground, const std::vector<Ring>& lines, const Mover& mover, Point position,
                              const Map& map) {
    const std::int32_t lowest = map.most().y + map.cell_height * steps_per_px;
    Bounds way = *bounds(mover.body);
    way = {moved(way.least, position), {way.most.x + position.x, std::max(way.most.y + position.y, lowest)}};
    const auto steps = travel::falls(ground.near(way), lines, mover, position, lowest);
    return steps ? std::optional(to_px(*steps)) : std::nullopt;
}

const std::vector<travel::Target>& Grounds::targets(MapId map, MoverId mover) {
    const auto [known, is_new] = targets_.try_emplace({map, mover});
    if (is_new) known->second = travel::deeds_of(world_, world_.map(map), mover).targets;
    return known->second;
}

bool can_touch(const World& world, Grounds& grounds, MapId map_id, MoverId mover_id, const Object& object) {
    const Map& map = world.map(map_id);
    const Mover& mover = world.mover(mover_id);
    const Ground& ground = grounds.of(map_id, mover_id, object.storey);
    const auto number = static_cast<std::size_t>(&object - map.objects.data());
    const Bounds body = *bounds(mover.body);
    for (const Ring& ring : grounds.targets(map_id, mover_id)[number].rings) {
        const Bounds box = detail::box_around(ring);
        if (mover.moves != Moves::steps) {
            const Bounds around{{box.least.x + body.least.x, box.least.y + body.least.y},
                                {box.most.x + body.most.x, box.most.y + body.most.y}};
            if (!travel::fitting({{ring, {}}}, ground.near(around), mover).empty()) return true;
            continue;
        }
        // A mover that steps stands in the middle of cells.
        const auto [c0, r0, c1, r1] = map.cells_near(box);
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c) {
                const Point middle = detail::in_middle(map.cell_box(c, r), {{0, 0}, {0, 0}});
                if (locate(Regions{{ring, {}}}, middle) != Side::outside && ground.free(mover.body, middle))
                    return true;
            }
    }
    return false;
}

std::vector<MoverId> movers_of(const World& world, MapId map_id) {
    const Map& map = world.map(map_id);
    std::vector<MoverId> movers;
    if (map.player != MoverId::none) movers.push_back(map.player);
    for (const Object& object : map.objects) {
        const MoverId mover = body_of(world, map, object);
        if (mover != MoverId::none && std::find(movers.begin(), movers.end(), mover) == movers.end())
            movers.push_back(mover);
    }
    return movers;
}

PaintedCell spot_of(const World& world, const Map& map, int column, int row) {
    static constexpr std::array<std::array<int, 2>, 9> around{
        {{0, 0}, {0, 1}, {1, 0}, {-1, 0}, {0, -1}, {1, 1}, {-1, 1}, {1, -1}, {-1, -1}}};
    for (const auto& [dc, dr] : around) {
        const int c = column + dc, r = row + dr;
        if (!map.has(c, r)) continue;
        for (std::size_t l = map.layers.size(); l-- > 0;) {
            const Layer& layer = map.layers[l];
            if (!ground::may_count(layer) || layer.holds_objects || map.placed(layer, c, r).tile < 0) continue;
            const ground::Parts own = ground::parts_of(world, map, layer, map.placed(layer, c, r), {});
            if (std::any_of(own.parts.begin(), own.parts.end(),
                            [](const ground::Part& part) { return part.adds && part.trigger.empty(); }))
                return {map.place_of(layer, map.has(column, row) ? DataCell{column, row} : DataCell{c, r}), layer.name};
        }
    }
    return {map.place, ""};
}

Standing stand(const World& world, Grounds& grounds, MapId map_id, MoverId mover_id, StoreyId storey, Point position) {
    Standing result;
    const Map& map = world.map(map_id);
    const Mover& mover = world.mover(mover_id);
    const Ground& ground = grounds.of(map_id, mover_id, storey);
    const std::int32_t depth = ground.depth(mover.body, position);
    if (depth == 0) return result;
    result.depth_px = to_px(depth);
    const Regions body = moved(mover.body, position);
    const Bounds box = *bounds(body);
    result.details.push_back(
        fmt::format("{} is {} x {} px", mover.name, px(box.most.x - box.least.x), px(box.most.y - box.least.y)));

    // Lists which tiles, solids or closed cells are in the way.
    std::vector<std::string> tiles, closed;
    const auto [first_column, first_row, last_column, last_row] = cells_near(map, box);
    for (int r = first_row; r <= last_row; ++r)
        for (int c = first_column; c <= last_column; ++c) {
            const Cell name = map.cell({c, r});
            for (const Layer& layer : map.layers) {
                if (layer.holds_objects || layer.storey != storey || !ground::counts(layer, {})) continue;
                const Placed& placed = map.placed(layer, c, r);
                if (placed.tile < 0 ||
                    !in_the_way(ground::parts_of(world, map, layer, placed, {}), map.corner(c, r), mover, body))
                    continue;
                tiles.push_back(fmt::format("{} at ({}, {})", world.tile(placed).name, name.column, name.row));
                result.cells.push_back(name);
            }
            if (mover.needs != 0 && (passability(world, map, {c, r}, storey).flags & mover.needs) == 0 &&
                !intersect(Regions{{map.cell_ring(c, r), {}}}, body).empty()) {
                closed.push_back(fmt::format("({}, {})", name.column, name.row));
                result.cells.push_back(name);
            }
        }
    for (const Object& object : map.objects)
        if (object.storey == storey && ground::counts(map, object, {}) &&
            in_the_way(ground::parts_of(map, object), {0, 0}, mover, body))
            tiles.push_back(words_of(world, object));
    const auto listed = [](const std::vector<std::string>& all) {
        return all.size() <= 4
                   ? fmt::format("{}", fmt::join(all, ", "))
                   : fmt::format("{} and {} more", fmt::join(all.begin(), all.begin() + 3, ", "), all.size() - 3);
    };
    if (tiles.empty() && closed.empty() &&
        !(ground::has_rim(map) && !intersect(ground::rim_of(map).area, body).empty()))
        for (const Layer& layer : map.layers)
            if (layer.storey == storey && ground::counts(layer, {}) && ground::growth_reach(layer) > 0)
                tiles.push_back(fmt::format("what layer '{}' grows or fills", layer.name));
    if (!tiles.empty()) result.details.push_back(fmt::format("in the way: {}", listed(tiles)));
    if (!closed.empty()) {
        result.details.push_back(
            fmt::format("cells without {}: {}", fmt::join(flag_names(world, mover.needs), " or "), listed(closed)));
    }
    result.in_the_way = !tiles.empty()    ? "solid ground"
                        : !closed.empty() ? "cells that are closed to it"
                                          : "the rim around the map";
    std::sort(result.cells.begin(), result.cells.end());
    result.cells.erase(std::unique(result.cells.begin(), result.cells.end()), result.cells.end());
    result.nearest_free = nearest_free(ground, mover.body, position, map);
    return result;
}

}   // namespace dryground::check_rules

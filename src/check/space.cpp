// Rules about the space between: areas that nothing leads into, and ways out of a map.
//
// Cost: in proportion to the ground's outline; and to the cells that a body can get to, where a point could leave.

#include <fmt/format.h>

#include <algorithm>

#include "../geometry/bounds_internal.hpp"
#include "../ground/ground_internal.hpp"
#include "rules_internal.hpp"

namespace dryground::check_rules {

namespace {

// Where stairs of a map lead to a storey: a mover's position with its body in the middle of their cells.
void add_ends_of_stairs(const World& world, const Map& map, const Bounds& body, int storey,
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

// Where a mover comes into being on a storey of a map, or onto it: its spawns, its kinds' objects, stairs, and, for who
// plays, the ends of links.
std::vector<Point> arrivals(const World& world, int map_id, int mover, int storey) {
    const Map& map = world.maps()[static_cast<std::size_t>(map_id)];
    std::vector<Point> points;
    for (const Object& object : map.objects) {
        const Kind& kind = world.kinds()[static_cast<std::size_t>(object.kind)];
        const int own = object.role == Role::spawn && kind.mover == world.player() ? map.player : kind.mover;
        if (object.storey == storey && own == mover && object.role != Role::link) points.push_back(object.position);
    }
    add_ends_of_stairs(world, map, *bounds(world.movers()[static_cast<std::size_t>(mover)].body), storey, points);
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

// Where each of them is, by the middle of the body: feet stand on an edge.
std::vector<int> areas_of(const FreeSpace& space, const std::vector<Point>& points, const Bounds& body) {
    const Point middle{(body.least.x + body.most.x) / 2, (body.least.y + body.most.y) / 2};
    std::vector<int> areas;
    for (const Point p : points) {
        areas.push_back(space.area_at(moved(p, middle)));
        if (areas.back() == FreeSpace::in_ground) areas.back() = space.area_at(p);
    }
    return areas;
}

// Whether a square fits into a free area: with a corner in one of its corners, or on a raster of quarters of cells.
// Between slopes alone some that fit closely are not found.
bool fits(const Map& map, const Ground& ground, const FreeSpace& space, int number, const Region& area,
          std::int32_t side) {
    const auto at = [&](Point least) {
        const Bounds box{least, {least.x + side, least.y + side}};
        return ground.free(box) && space.area_at({least.x + side / 2, least.y + side / 2}) == number;
    };
    const auto in_corners = [&](const Ring& ring) {
        return std::any_of(ring.begin(), ring.end(), [&](Point p) {
            return at(p) || at({p.x - side, p.y}) || at({p.x, p.y - side}) || at({p.x - side, p.y - side});
        });
    };
    if (in_corners(area.outline) || std::any_of(area.holes.begin(), area.holes.end(), in_corners)) return true;
    const Bounds box = *bounds({&area, 1});
    const std::int32_t step = std::min(map.cell_width, map.cell_height) * (steps_per_px / 4);
    for (std::int32_t y = box.least.y; y + side <= box.most.y; y += step)
        for (std::int32_t x = box.least.x; x + side <= box.most.x; x += step)
            if (at({x, y})) return true;
    return false;
}

void name_storey(const World& world, int storey, Finding& finding) {
    if (world.storeys().size() > 1)
        finding.details.push_back(
            fmt::format("on storey '{}'", world.storeys()[static_cast<std::size_t>(storey)].name));
}

void check_pockets(const World& world, Grounds& grounds, int map_id, int storey, Findings& findings) {
    const Map& map = world.maps()[static_cast<std::size_t>(map_id)];
    if (map.player < 0) return;
    const Bounds size = *bounds(world.movers()[static_cast<std::size_t>(map.player)].body);
    const std::vector<Point> points = arrivals(world, map_id, map.player, storey);
    if (points.empty()) return;
    const FreeSpace& space = grounds.space(map_id, map.player, storey);
    const Ground& ground = grounds.of(map_id, map.player, storey);
    std::vector<bool> entered(static_cast<std::size_t>(space.areas()));
    for (const int area : areas_of(space, points, size))
        if (area >= 0) entered[static_cast<std::size_t>(area)] = true;
    const std::int64_t whole = twice_area(map.block_ring(0, 0, map.columns, map.rows));
    for (int number = 0; number < space.areas(); ++number) {
        if (entered[static_cast<std::size_t>(number)] || 4 * space.twice_size(number) > whole) continue;
        const Region area = space.area(number);
        const Bounds box = *bounds({&area, 1});
        const std::int32_t wide = box.most.x - box.least.x, high = box.most.y - box.least.y;
        const std::int32_t need = std::min(size.most.x - size.least.x, size.most.y - size.least.y) / 2 - 1;
        if (wide < size.most.x - size.least.x || high < size.most.y - size.least.y ||
            space.twice_size(number) < 8 * std::int64_t{need} * need)
            continue;
        if (!fits(map, ground, space, number, area, 2 * need)) continue;
        // Somewhere in it: at its topmost corner.
        const Point top = *std::min_element(area.outline.begin(), area.outline.end());
        const auto [column, row] = map.cell_at({top.x + 1, top.y + 1});
        const PaintedCell spot = spot_of(world, map, column, row);
        Finding finding =
            findings.start(Rule::pocket, spot.place, fmt::format("map '{}'", map.name), {px(wide), px(high)});
        finding.map = map.name, finding.layer = spot.layer;
        finding.cell = {map.first_column + column, map.first_row + row};
        name_storey(world, storey, finding);
        finding.details.push_back(fmt::format("it reaches from {} to {} px", at_px(box.least), at_px(box.most)));
        finding.hint = Hint{"fill it, or open a way in", ""};
        findings.add(std::move(finding));
    }
}

// Looks for a way out of a map, for a body that starts at some points: from cell to cell, by places in each where the
// body stands in the middle or along a side of its box. A way that is found is there, for all that the body sweeps is
// asked; what fits between other places only is not found.
class WayOut {
public:
    WayOut(const Map& map, const Ground& ground, const Regions& body)
        : map_(map),
          ground_(ground),
          body_(body.front().outline),
          outline_(map.block_ring(0, 0, map.columns, map.rows)),
          size_(*bounds(body)),
          seen_(static_cast<std::size_t>(map.columns + 2) * static_cast<std::size_t>(map.rows + 2) * stances) {
        const auto add = [&](int stance, const Node& to) {
            const Point from = position({0, 0, stance}), there = position(to);
            steps_[static_cast<std::size_t>(stance)].push_back({to, swept({there.x - from.x, there.y - from.y})});
        };
        for (int stance = 0; stance < stances; ++stance) {
            for (int other = 0; other < stances; ++other)
                if (other != stance) add(stance, {0, 0, other});
            for (const auto& [dc, dr] : {std::pair{1, 0}, std::pair{-1, 0}, std::pair{0, 1}, std::pair{0, -1}})
                add(stance, {dc, dr, stance});
        }
    }

    // Where the body is when it has left the map.
    std::optional<Point> from(const std::vector<Point>& points) {
        for (const Point p : points) {
            if (!ground_.free(body_, p)) continue;
            const auto [c, r] =
                map_.cell_at({p.x + (size_.least.x + size_.most.x) / 2, p.y + (size_.least.y + size_.most.y) / 2});
            for (int stance = 0; stance < stances; ++stance) {
                const Point to = position({c, r, stance});
                visit(p, {c, r, stance}, swept({to.x - p.x, to.y - p.y}));
            }
        }
        while (!open_.empty()) {
            const Node node = open_.back();
            open_.pop_back();
            const Point p = position(node);
            if (is_outside(p)) return p;
            for (const Step& step : steps_[static_cast<std::size_t>(node.stance)])
                visit(p, {node.column + step.to.column, node.row + step.to.row, step.to.stance}, step.swept);
        }
        return std::nullopt;
    }

private:
    static constexpr int stances = 9;   // left, middle, right; top, middle, bottom
    struct Node {
        int column, row, stance;
    };
    struct Step {
        Node to;
        Ring swept;
    };

    // All that the body covers on a straight way, from its position.
    [[nodiscard]] Ring swept(Point way) const {
        std::vector<Point> points = body_;
        for (const Point p : body_) points.push_back(moved(p, way));
        return convex_hull(std::move(points));
    }
    [[nodiscard]] Point position(const Node& node) const {
        const Bounds cell = map_.cell_box(node.column, node.row);
        const Point middle = detail::in_middle(cell, size_);
        const int across = node.stance % 3, down = node.stance / 3;
        return {across == 0   ? cell.least.x - size_.least.x
                : across == 2 ? cell.most.x - size_.most.x
                              : middle.x,
                down == 0   ? cell.least.y - size_.least.y
                : down == 2 ? cell.most.y - size_.most.y
                            : middle.y};
    }
    // Whether all of the body lies past one side of the map.
    [[nodiscard]] bool is_outside(Point p) const {
        for (std::size_t i = 0; i < outline_.size(); ++i)
            if (std::none_of(body_.begin(), body_.end(), [&](Point q) {
                    return turn(outline_[i], outline_[(i + 1) % outline_.size()], moved(q, p)) == Turn::left;
                }))
                return true;
        return false;
    }
    void visit(Point from, const Node& node, const Ring& way) {
        if (node.column < -1 || node.row < -1 || node.column > map_.columns || node.row > map_.rows) return;
        const std::size_t cell = static_cast<std::size_t>(node.row + 1) * static_cast<std::size_t>(map_.columns + 2) +
                                 static_cast<std::size_t>(node.column + 1);
        const std::size_t i = cell * stances + static_cast<std::size_t>(node.stance);
        if (seen_[i] || !ground_.free(way, from)) return;
        seen_[i] = true;
        open_.push_back(node);
    }

    const Map& map_;
    const Ground& ground_;
    Ring body_, outline_;   // and the map's
    Bounds size_;
    std::array<std::vector<Step>, stances> steps_;   // from each of them: the same in all cells
    std::vector<bool> seen_;
    std::vector<Node> open_;
};

void check_leak(const World& world, Grounds& grounds, int map_id, int mover_id, int storey, Findings& findings) {
    const Map& map = world.maps()[static_cast<std::size_t>(map_id)];
    if (ground::says_edge(map)) return;   // open on purpose, or closed all around
    const std::vector<Point> points = arrivals(world, map_id, mover_id, storey);
    if (points.empty()) return;
    const Mover& mover = world.movers()[static_cast<std::size_t>(mover_id)];
    const Bounds size = *bounds(mover.body);
    const Ground& ground = grounds.of(map_id, mover_id, storey);
    const std::vector<int> areas = areas_of(grounds.space(map_id, mover_id, storey), points, size);
    std::vector<Point> free;   // what a point cannot leave, a body cannot
    for (std::size_t i = 0; i < points.size(); ++i)
        if (areas[i] == FreeSpace::outside) free.push_back(points[i]);
    if (free.empty()) return;
    const std::vector<Ring>& fences = grounds.lines(map_id, mover_id, storey).both_ways;
    const auto out = fences.empty() ? WayOut(map, ground, mover.body).from(free)
                                    : WayOut(map, Ground(ground.regions(), fences), mover.body).from(free);
    if (!out) return;
    Finding finding =
        findings.start(Rule::leak, map.place, fmt::format("map '{}'", map.name), {mover.name, at_px(*out)});
    finding.map = map.name;
    name_storey(world, storey, finding);
    const auto [column, row] = map.cell_at(*out);
    finding.cell = {map.first_column + column, map.first_row + row};
    finding.hint =
        Hint{"put a ring of a barrier around the map, or say that movers may leave",
             world.barriers().empty() ? "rim = \"open\"" : fmt::format("rim = \"{}\"", world.barriers().front().name)};
    findings.add(std::move(finding));
}

}   // namespace

void check_space(const World& world, Grounds& grounds, Findings& findings) {
    for (int m = 0; m < static_cast<int>(world.maps().size()); ++m)
        for (const int storey : ground::storeys_of(world.maps()[static_cast<std::size_t>(m)])) {
            check_pockets(world, grounds, m, storey, findings);
            for (const int mover : movers_of(world, m)) check_leak(world, grounds, m, mover, storey, findings);
        }
}

}   // namespace dryground::check_rules

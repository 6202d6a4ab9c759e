// The ways of a mover that is seen from the side through the air, from each edge of a stand: surely, at some heights,
// however it is steered (`SureAir`); and perhaps (`perhaps_from`).

#include <algorithm>
#include <cmath>
#include <utility>

#include "air_internal.hpp"
#include "perhaps_internal.hpp"

namespace dryground::travel {

namespace {

// Of the highest jump.
constexpr std::array heights{1.0, 0.9, 0.8, 0.7, 0.6, 0.5, 0.4, 0.3, 0.2, 0.1, 0.04};

constexpr std::int32_t highest_strip = 8 * steps_per_px;   // of cells that are climbed in

std::optional<Ring> jump_free(const SideGround& ground, const SideLevel& level, Point from, Point to) {
    const double aside = std::abs(static_cast<double>(to.x) - from.x), up = static_cast<double>(from.y) - to.y;
    if (!ground.flight.can_be(aside, up)) return std::nullopt;
    const double least = std::max(0.0, up);
    for (const double high : {ground.flight.jump, std::min(ground.flight.jump, least + steps_per_px),
                              (ground.flight.jump + least) / 2, least})
        for (const Steer steer : {Steer::evenly, Steer::late, Steer::early})
            if (std::optional<Ring> way = curve(ground.flight, from, to, high, steer); way && is_free(level, *way))
                return way;
    return std::nullopt;
}

// Adds jumps to stands that nothing leads to yet.
void add_landings(const SideGround& ground, const SideLevel& level, int place, const SureAir& air, std::size_t moment,
                  SideWaysOn& known) {
    level.each_edge_near(box_of(air.moments()[moment]), [&](const SideLevel::Edge& edge) {
        if (edge.stand == place || ground.stand(edge.stand).slides || known.leads_to(edge.stand)) return;
        const auto [c, d] = ground.ends(edge);
        std::optional<Ring> way = air.to_edge(moment, c, d);
        if (!way || !is_let_onto(level, c, d, way->back())) return;
        // Without steering it looks better, where that will do.
        if (std::optional<Ring> plain = jump_free(ground, level, way->front(), way->back())) way = std::move(plain);
        known.moves.push_back({edge.stand, Going::jumps, std::move(*way)});
    });
}

// Adds jumps into targets that are not touched yet, and down from there to where one can stand.
void add_jumps_into(const SideGround& ground, const SideLevel& level, const SureAir& air, SideWaysOn& known) {
    for (std::size_t k = 1; k < air.moments().size(); ++k)
        level.each_target_near(box_of(air.moments()[k]), [&](int target, const Ring& ring) {
            if (known.has_touched(target)) return;
            std::optional<Ring> way = air.into(k, ring);
            if (!way) return;
            if (std::optional<Ring> plain = jump_free(ground, level, way->front(), way->back())) way = std::move(plain);
            Fall falls = fall_from(ground, level, way->back());
            known.look_at(detail::box_around(falls.way));
            if (falls.stand < 0) return;
            way->insert(way->end(), falls.way.begin() + 1, falls.way.end());
            known.moves.push_back({falls.stand, Going::jumps, *way});
            known.touched.push_back({target, {falls.stand, Going::jumps, std::move(*way)}});
        });
}

// Adds jumps into cells that are climbed in.
void add_jumps_to_climb(const SideGround& ground, const SideLevel& level, const SureAir& air, SideWaysOn& known) {
    for (std::size_t k = 1; k < air.moments().size() && ground.climbing; ++k)
        level.each_climbed_near(box_of(air.moments()[k]), [&](const SideLevel::Climbed& cell) {
            const auto is_new = [&](int climb) { return !known.leads_to(climb); };
            if (std::none_of(cell.places.begin(), cell.places.end(), is_new)) return;
            std::optional<Ring> way = air.into(k, cell.ring);
            if (!way) return;
            const int climb = ground.climb_at(level.storey, way->back());
            if (climb >= 0 && is_new(climb)) known.moves.push_back({climb, Going::jumps, std::move(*way)});
        });
}

// Returns a horizontal edge as a whole; of a slope some points, a hair off its ends, where walls may be.
std::vector<std::pair<Point, Point>> starts_on(Point a, Point b) {
    if (a.y == b.y) return {{a, b}};
    constexpr std::int32_t margin = 4;
    std::vector<std::pair<Point, Point>> starts;
    for (int i = 0; i <= 4; ++i) {
        const std::int32_t x = a.x + (b.x - a.x) / 4 * i;
        const Point p = on_edge(a, b, b.x - a.x > 2 * margin ? std::clamp(x, a.x + margin, b.x - margin) : x);
        starts.emplace_back(p, p);
    }
    return starts;
}

// Under a ceiling only jumps that are hardly higher than necessary get anywhere: returns these heights, given what they
// are to reach.
std::vector<double> least_heights(const SideGround& ground, const SideLevel& level, Point from, const Perhaps& perhaps,
                                  const SideWaysOn& known) {
    std::vector<double> least;
    const auto add = [&](const Bounds& box) {
        for (const std::int32_t y : {box.least.y, box.most.y})
            for (const int more_px : {1, 6}) {
                const double high = static_cast<double>(from.y) - y + more_px * steps_per_px;
                if (high > 0 && high < ground.flight.jump) least.push_back(high);
            }
    };
    for (const int to : perhaps.places)
        if (!known.leads_to(to) && ground.places[static_cast<std::size_t>(to)].climb < 0)
            add(detail::box_around(ground.stand(to).points));
    const SideLevel& fixed = level.fixed();
    for (std::size_t r = 0; r < fixed.rings.size(); ++r)
        if (std::find(perhaps.targets.begin(), perhaps.targets.end(), fixed.targets[r]) != perhaps.targets.end() &&
            !known.has_touched(fixed.targets[r]))
            add(detail::box_around(*fixed.rings[r]));
    std::sort(least.begin(), least.end());
    least.erase(std::unique(least.begin(), least.end()), least.end());
    return least;
}

void add_jumps(const SideGround& ground, const SideLevel& level, int place, Point a, Point b, const Perhaps& perhaps,
               SideWaysOn& known) {
    const auto all_found = [&] {
        return std::all_of(perhaps.places.begin(), perhaps.places.end(), [&](int to) { return known.leads_to(to); }) &&
               std::all_of(perhaps.targets.begin(), perhaps.targets.end(),
                           [&](int target) { return known.has_touched(target); });
    };
    for (const auto& [from, to] : starts_on(a, b)) {
        const auto jump = [&, from = from, to = to](double high) {
            if (all_found()) return;
            const SureAir air(level.obstacles, ground.flight, from, to, high, ground.map.most().y);
            for (std::size_t k = 0; k < air.moments().size(); ++k)
                if (air.moments()[k].falls) add_landings(ground, level, place, air, k, known);
            add_jumps_into(ground, level, air, known);
            add_jumps_to_climb(ground, level, air, known);
        };
        for (const double part : heights) jump(ground.flight.jump * part);
        for (const double high : least_heights(ground, level, from, perhaps, known)) jump(high);
    }
}

// Returns boxes of the cells that a place to climb in covers.
std::vector<Bounds> boxes_of_climb(const SideLevel& level, int place) {
    std::vector<Bounds> boxes;
    for (const SideLevel::Climbed& cell : level.fixed().climbed)
        if (std::find(cell.places.begin(), cell.places.end(), place) != cell.places.end())
            boxes.push_back(detail::box_around(cell.ring));
    return boxes;
}

// Surely from the middle and the sides of each.
void add_jumps_off(const SideGround& ground, const SideLevel& level, int place, const Perhaps& perhaps,
                   SideWaysOn& known) {
    for (const Bounds& box : boxes_of_climb(level, place)) {
        const std::int32_t middle = box.least.x + (box.most.x - box.least.x) / 2;
        for (const std::int32_t y : {box.least.y + 2, box.least.y + (box.most.y - box.least.y) / 2})
            for (const std::int32_t x : {middle, box.least.x + 2, box.most.x - 2})
                if (ground.climb_at(level.storey, {x, y}) == place)
                    add_jumps(ground, level, place, {x, y}, {x, y}, perhaps, known);
    }
}

// Adds all that may be reached from a way, or a whole strip.
struct Start {
    Point a, b;
    bool jumps = true;
};
std::vector<Start> starts_of(const SidePlace& of, const SideLevel& level, int place) {
    std::vector<Start> starts;
    if (of.climb >= 0) {
        for (const Bounds& box : boxes_of_climb(level, place))
            for (std::int32_t y = box.least.y; y < box.most.y; y += highest_strip)
                starts.push_back({{box.least.x, y}, {box.most.x, std::min(y + highest_strip, box.most.y)}});
    } else if (level.jumps_from) {   // all that it sweeps over: it may push somebody aside
        const Bounds& box = *level.jumps_from;
        for (std::int32_t y = box.least.y; y < box.most.y; y += highest_strip)
            starts.push_back({{box.least.x, y}, {box.most.x, std::min(y + highest_strip, box.most.y)}});
    } else if (!level.has_solid()) {
        const Ring& points = of.stand.points;
        for (std::size_t i = 0; i + 1 < points.size(); ++i)
            starts.push_back({points[i], points[i + 1], of.is_stood_on()});
    }
    return starts;
}

}   // namespace

void add_through_air(const SideGround& ground, int place, SideWaysOn& known) {
    if (ground.flight.jump <= 0) return;
    const SidePlace& of = ground.places[static_cast<std::size_t>(place)];
    const SideLevel& level = ground.levels[of.level];
    Perhaps all;
    const auto look = [&](const Start& start) {
        Perhaps more = perhaps_from(ground, level.fixed(), place, start.a, start.b, start.jumps, known);
        for (const int to : more.places) add_once(all.places, to);
        for (const int target : more.targets) add_once(all.targets, target);
        for (const int number : more.with_solid) add_once(all.with_solid, number);
        return more;
    };
    for (const Start& start : starts_of(of, level, place)) {
        const Perhaps here = look(start);
        if (of.is_stood_on() && !level.has_solid()) add_jumps(ground, level, place, start.a, start.b, here, known);
    }
    if (of.climb >= 0) add_jumps_off(ground, level, place, all, known);
    for (std::size_t i = 0; level.jumps_from && i + 1 < of.stand.points.size(); ++i)
        add_jumps(ground, level, place, of.stand.points[i], of.stand.points[i + 1], all, known);
    known.perhaps_to = std::move(all.places), known.perhaps_touched = std::move(all.targets);
    known.perhaps_with_solid = std::move(all.with_solid);
}

void add_jumps_onto_solid(const SideGround& ground, const SideLevel& level, int place, SideWaysOn& known) {
    if (ground.flight.jump <= 0) return;
    const SidePlace& of = ground.places[static_cast<std::size_t>(place)];
    Perhaps wanted;
    for (const SideLevel::Edge& edge : level.edges) add_once(wanted.places, edge.stand);
    if (of.climb >= 0) {
        add_jumps_off(ground, level, place, wanted, known);
        return;
    }
    if (!of.is_stood_on() || level.edges.empty()) return;
    // From where it is nearest, as a player would.
    const Bounds solid = detail::box_around(level.swept);
    const Point middle = detail::in_middle(solid, {});
    std::vector<std::pair<double, std::size_t>> edges;
    for (std::size_t i = 0; i + 1 < of.stand.points.size(); ++i)
        edges.emplace_back(
            apart(detail::box_around(std::array{of.stand.points[i], of.stand.points[i + 1]}), {middle, middle}), i);
    std::sort(edges.begin(), edges.end());
    for (const auto& [distance, i] : edges) {
        add_jumps(ground, level, place, of.stand.points[i], of.stand.points[i + 1], wanted, known);
        if (std::any_of(wanted.places.begin(), wanted.places.end(), [&](int to) { return known.leads_to(to); })) return;
    }
}

}   // namespace dryground::travel

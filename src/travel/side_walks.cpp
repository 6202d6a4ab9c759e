// The ways of a mover that is seen from the side without jumps: along stands and on to the next, dropping from their
// ends; and what it touches.

#include <algorithm>
#include <array>
#include <cmath>

#include "side_ground_internal.hpp"

namespace dryground::travel {

namespace {

// Returns the end of an edge toward which one walks on from a place on it; or, if one came straight up or down, the
// further one.
Point further(Point c, Point d, Point at, Point came_from) {
    const bool right = at.x != came_from.x ? at.x > came_from.x : at.x - c.x < d.x - at.x;
    return right ? d : c;
}

Ring without_repeats(Ring way) {
    way.erase(std::unique(way.begin(), way.end()), way.end());
    return way;
}

void add_walks(const SideGround& ground, const SideLevel& level, int place, const Stand& stand, SideWaysOn& known) {
    const std::int32_t near = std::max(ground.footing.kerb, 2);
    for (std::size_t i = 0; i + 1 < stand.points.size(); ++i) {
        const Point a = stand.points[i], b = stand.points[i + 1];
        const Bounds around = detail::grown(detail::box_around(std::array{a, b}), near);
        level.each_edge_near(around, [&](const SideLevel::Edge& edge) {
            if (edge.stand == place || ground.stand(edge.stand).slides) return;
            const auto [c, d] = ground.ends(edge);
            // Adds what is touched where one of them ends, or both do.
            for (const std::int32_t x : {a.x, b.x, c.x, d.x}) {
                const Point from = on_edge(a, b, x), to = on_edge(c, d, x);
                if (std::abs(from.x - to.x) > near || std::abs(from.y - to.y) > near) continue;
                const std::int32_t top = std::min(from.y, to.y);
                const Ring way{from, {from.x, top}, {to.x, top}, to};
                // And on along it, since a line may stop a body that does.
                const Point on = further(c, d, to, from);
                if (is_free(level, way) && (on == to || level.obstacles.is_free(to, on)))
                    known.add({edge.stand, Going::walks, without_repeats(way)});
                return;
            }
        });
    }
}

// A body that falls through cells that are climbed in can hold on there.
void add_holds(const SideGround& ground, const SideLevel& level, const Ring& way, SideWaysOn& known) {
    for (std::size_t i = 0; i + 1 < way.size(); ++i)
        level.each_climbed_near(detail::box_around(std::span(way).subspan(i, 2)), [&](const SideLevel::Climbed& cell) {
            const Point a = way[i], b = way[i + 1];
            const auto inside = inside_of(cell.ring, a, b);
            if (!inside) return;
            const double t = (inside->from + inside->to) / 2;
            const Point at{static_cast<std::int32_t>(std::lround(a.x + t * (static_cast<double>(b.x) - a.x))),
                           static_cast<std::int32_t>(std::lround(a.y + t * (static_cast<double>(b.y) - a.y)))};
            const int climb = ground.climb_at(level.storey, at);
            if (climb < 0 || known.leads_to(climb)) return;
            Ring until(way.begin(), way.begin() + static_cast<std::ptrdiff_t>(i) + 1);
            until.push_back(at);
            known.moves.push_back({climb, Going::drops, std::move(until)});
        });
}

void add_fall(const SideGround& ground, const SideLevel& level, Point p, SideWaysOn& known) {
    Fall falls = fall_from(ground, level, p);
    known.look_at(detail::box_around(falls.way));
    // Beside the map it has left it: the rule `leak` decides whether it may.
    const std::int32_t x = falls.way.back().x;
    if (falls.out && !level.has_solid() && x >= ground.map.least().x && x <= ground.map.most().x)
        known.falls_out.push_back(falls.way.back());
    add_holds(ground, level, falls.way, known);
    if (falls.stand >= 0 && falls.way.size() > 1) known.add({falls.stand, Going::drops, std::move(falls.way)});
    // In the air, and yet on a stand already.
    else if (falls.stand >= 0 && ground.stand_at(level, p, false) != falls.stand)
        known.add({falls.stand, Going::drops, {p, p}});
}

void add_touched_on(const SideLevel& level, int place, const Stand& stand, SideWaysOn& known) {
    for (std::size_t i = 0; i + 1 < stand.points.size(); ++i) {
        const Point a = stand.points[i], b = stand.points[i + 1];
        level.each_target_near(detail::box_around(std::array{a, b}), [&](int target, const Ring& ring) {
            if (known.has_touched(target)) return;
            if (const std::optional<Stretch> inside = inside_of(ring, a, b)) {
                const double t = (inside->from + inside->to) / 2;
                const Point at = on_edge(a, b, static_cast<std::int32_t>(a.x + t * (static_cast<double>(b.x) - a.x)));
                known.touched.push_back({target, {place, Going::walks, {at}}});
            }
        });
    }
}

void add_touched_under_way(const SideLevel& level, SideWaysOn& known) {
    for (const Move& move : known.moves)
        for (std::size_t i = 0; i + 1 < move.way.size(); ++i) {
            const Point a = move.way[i], b = move.way[i + 1];
            level.each_target_near(detail::box_around(std::array{a, b}), [&](int target, const Ring& ring) {
                if (!known.has_touched(target) && inside_of(ring, a, b)) known.touched.push_back({target, move});
            });
        }
}

// Adds ways on to others, and down from where it lets go: from the middle of each cell, and its sides.
void add_climbs(const SideGround& ground, const SideLevel& level, int place, SideWaysOn& known) {
    const int climb = ground.places[static_cast<std::size_t>(place)].climb;
    if (!level.has_solid()) {
        for (const Move& move : ground.climbing->moves(climb))
            known.add({ground.place_of_climb(move.to), move.going, move.way});
        for (const Touched& touch : ground.climbing->touched(climb))
            known.touched.push_back({touch.target, {place, touch.move.going, touch.move.way}});
    }
    for (const SideLevel::Climbed& cell : level.fixed().climbed) {
        if (std::find(cell.places.begin(), cell.places.end(), place) == cell.places.end()) continue;
        const Bounds box = detail::box_around(cell.ring);
        const std::int32_t y = box.least.y + (box.most.y - box.least.y) / 2;
        for (const std::int32_t x : {box.least.x + 2, box.least.x + (box.most.x - box.least.x) / 2, box.most.x - 2})
            if (ground.climb_at(level.storey, {x, y}) == place) add_fall(ground, level, {x, y}, known);
    }
}

}   // namespace

Fall fall_from(const SideGround& ground, const SideLevel& level, Point p) {
    Fall fall;
    fall.way.push_back(p);
    const std::int32_t top = p.y;
    const std::int64_t bottom =
        std::int64_t{ground.map.most().y} + 4 * steps_per_px * std::int64_t{ground.map.cell_height};
    for (int slides = 0; slides < 100; ++slides) {
        if (p.y >= ground.map.most().y + ground.map.cell_height * steps_per_px) {
            fall.out = true;
            return fall;
        }
        const Point end{p.x, static_cast<std::int32_t>(std::min<std::int64_t>(bottom, coordinate_limit))};
        const double free = level.obstacles.free_before(p, end);
        const Point lands{p.x, static_cast<std::int32_t>(std::lround(p.y + free * (static_cast<double>(end.y) - p.y)))};
        if (lands != p) fall.way.push_back(lands);
        p = lands;
        if (free == 1) {
            fall.out = true;
            return fall;
        }
        if (ground.flight.drop && p.y - top > *ground.flight.drop) return fall;
        if (const int stand = ground.stand_at(level, p, false); stand >= 0) {
            fall.stand = stand;
            return fall;
        }
        const int slide = ground.stand_at(level, p, true);
        if (slide < 0) return fall;
        const Ring& points = ground.stand(slide).points;
        const Point low = points.front().y > points.back().y ? points.front() : points.back();
        if (low == p || low.y <= p.y) return fall;
        fall.way.push_back(low);
        p = low;
        if (ground.flight.drop && p.y - top > *ground.flight.drop) return fall;
        if (const int stand = ground.stand_at(level, p, false); stand >= 0) {
            fall.stand = stand;
            return fall;
        }
    }
    return fall;
}

void add_without_jumps(const SideGround& ground, const SideLevel& level, int place, SideWaysOn& known) {
    const SidePlace& of = ground.places[static_cast<std::size_t>(place)];
    if (of.climb >= 0) {
        add_climbs(ground, level, place, known);
    } else if (of.is_stood_on()) {
        add_walks(ground, level, place, of.stand, known);
        for (const Point end : {of.stand.points.front(), of.stand.points.back()}) add_fall(ground, level, end, known);
        add_touched_on(level, place, of.stand, known);
    } else {
        add_fall(ground, level, of.stand.points.front(), known);
    }
}

SideWaysOn side_ways_on(const SideGround& ground, int place) {
    const SidePlace& of = ground.places[static_cast<std::size_t>(place)];
    const SideLevel& level = ground.levels[of.level];
    SideWaysOn known;
    known.look_at(of.climb >= 0 ? *bounds(ground.climbing->shape(of.climb).area) : detail::box_around(of.stand.points));
    add_without_jumps(ground, level, place, known);
    for (const SidePlace::Grip& grip : of.grips) known.add({grip.place, Going::climbs, {grip.here, grip.there}});
    add_through_air(ground, place, known);
    add_moving_solids(ground, place, known);
    add_touched_under_way(level, known);
    return known;
}

}   // namespace dryground::travel

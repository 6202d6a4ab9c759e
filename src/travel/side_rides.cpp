// The ways of a mover that is seen from the side onto solids that move along a path, and with them. A solid may stand
// at any of its stops when somebody comes, and waits there; who stands on it is carried along.

#include <algorithm>
#include <array>
#include <cmath>
#include <tuple>

#include "side_ground_internal.hpp"

namespace dryground::travel {

namespace {

bool is_on(const SideLevel& level, int place) {
    return std::any_of(level.edges.begin(), level.edges.end(),
                       [&](const SideLevel::Edge& edge) { return edge.stand == place; });
}

// Adds the ways from a place onto the solid of a level; returns whether there are any. If the place itself is on a
// solid, that is in the way as well.
bool board(const SideGround& ground, const SideLevel& own, const SideLevel& level, int place, SideWaysOn& known) {
    SideWaysOn there;
    add_without_jumps(ground, level, place, there);
    const auto add = [&] {
        bool any = false;
        for (Move& move : there.moves)
            if (is_on(level, move.to) && (!own.has_solid() || is_free(own, move.way)))
                known.add(std::move(move)), any = true;
        return any;
    };
    if (add()) return true;
    const int number = static_cast<int>(level.number);
    const std::vector<int>& perhaps = known.perhaps_with_solid;
    if (std::find(perhaps.begin(), perhaps.end(), number) == perhaps.end()) return false;
    there = {};
    add_jumps_onto_solid(ground, level, place, there);
    return add();
}

// Returns levels on which the solid may be met from a place: by the most generous reading, or by a step or a fall.
std::vector<std::size_t> met_from(const SideGround& ground, const SidePlace& of, const SideWaysOn& known) {
    std::vector<std::size_t> numbers(known.perhaps_with_solid.begin(), known.perhaps_with_solid.end());
    if (of.climb < 0) {
        const SideLevel& level = ground.levels[of.level].fixed();
        Bounds box = detail::grown(detail::box_around(of.stand.points), std::max(ground.footing.kerb, 2));
        if (!of.stand.slides) box.most.y = std::max(box.most.y, ground.map.most().y);   // from its ends
        level.each_swept_near(box, [&](std::size_t number) { numbers.push_back(number); });
    }
    std::sort(numbers.begin(), numbers.end());
    numbers.erase(std::unique(numbers.begin(), numbers.end()), numbers.end());
    return numbers;
}

// Adds ways onto each solid where it stands nearest, and soonest on its path: it carries on from there.
void add_boarding(const SideGround& ground, int place, SideWaysOn& known) {
    const SidePlace& of = ground.places[static_cast<std::size_t>(place)];
    const SideLevel& own = ground.levels[of.level];
    std::vector<std::size_t> numbers = met_from(ground, of, known);
    if (numbers.empty()) return;
    const Bounds from =
        of.climb < 0 ? detail::box_around(of.stand.points) : *bounds(ground.climbing->shape(of.climb).area);
    const auto far = [&](std::size_t number) { return apart(from, detail::box_around(ground.levels[number].swept)); };
    std::sort(numbers.begin(), numbers.end(), [&](std::size_t a, std::size_t b) {
        const SideLevel &one = ground.levels[a], &other = ground.levels[b];
        return std::tuple(one.solid, far(a), one.stop) < std::tuple(other.solid, far(b), other.stop);
    });
    std::vector<char> boarded(ground.solids.size());
    for (const std::size_t number : numbers) {
        const SideLevel& level = ground.levels[number];
        if (level.edges.empty() || boarded[level.solid] != 0 || (own.has_solid() && own.solid == level.solid)) continue;
        if (board(ground, own, level, place, known)) boarded[level.solid] = 1;
    }
}

// Returns whether somebody is carried along a way: nothing is in it, and no line that stops one way only catches the
// body.
bool is_carried(const SideLevel& level, Point a, Point b) {
    bool caught = false;
    level.obstacles.each_near(detail::box_around(std::array{a, b}), [&](const Sum& sum) {
        caught = caught || (sum.is_one_way() && inside_of(sum.catches, a, b));
    });
    return !caught && level.obstacles.is_free(a, b);
}

// Adds how far somebody is carried who stands at a place of a solid: from stop to stop, as long as nothing is in the
// way. Stops that the path names come first, since routes that end there are easier to read.
void add_rides(const SideGround& ground, const SideLevel& from, Point p, bool forward, SideWaysOn& known) {
    std::vector<Move> between;
    const MovingSolid& solid = ground.solids[from.solid];
    const std::vector<std::size_t>& levels = ground.levels_of_solids[from.solid];
    Ring way{p};
    for (std::size_t stop = from.stop; forward ? stop + 1 < solid.stops.size() : stop > 0;) {
        const std::size_t leg = solid.stops[forward ? stop + 1 : stop].leg;
        const bool goes_on = way.size() > 1 && leg == solid.stops[forward ? stop : stop + 1].leg;
        if (goes_on) way.pop_back();
        forward ? ++stop : --stop;
        const Point by = solid.stops[stop].by, was = solid.stops[from.stop].by;
        way.push_back({p.x + by.x - was.x, p.y + by.y - was.y});
        if (!is_carried(from.fixed(), way[way.size() - 2], way.back())) break;
        const SideLevel& there = ground.levels[levels[stop]];
        int to = -1;
        for (const SideLevel::Edge& edge : there.edges) {
            const auto [a, b] = ground.ends(edge);
            if (to < 0 && way.back().x >= a.x - 1 && way.back().x <= b.x + 1 &&
                std::abs(on_edge(a, b, way.back().x).y - way.back().y) <= 2)
                to = edge.stand;
        }
        if (to < 0) continue;
        Move move{to, Going::rides, way, solid.object};
        if (solid.stops[stop].is_of_path)
            known.add(std::move(move));
        else
            between.push_back(std::move(move));
    }
    for (Move& move : between) known.add(std::move(move));
}

}   // namespace

void add_moving_solids(const SideGround& ground, int place, SideWaysOn& known) {
    if (ground.solids.empty()) return;
    add_boarding(ground, place, known);
    const SidePlace& of = ground.places[static_cast<std::size_t>(place)];
    const SideLevel& level = ground.levels[of.level];
    if (!level.has_solid()) return;
    for (std::size_t i = 0; i + 1 < of.stand.points.size(); ++i) {
        const Point a = of.stand.points[i], b = of.stand.points[i + 1];
        for (const int quarter : {2, 1, 3, 0, 4}) {
            const Point p = on_edge(a, b, static_cast<std::int32_t>(a.x + (std::int64_t{b.x} - a.x) * quarter / 4));
            for (const bool forward : {true, false}) add_rides(ground, level, p, forward, known);
        }
    }
}

}   // namespace dryground::travel

// Ways of movers beside slow twins that ask the merged ground, on random worlds that use all keys.
#include <catch2/catch.hpp>

#include <algorithm>
#include <map>

#include "chance.hpp"
#include "dryground/play.hpp"
#include "ground/ground_internal.hpp"
#include "play/convex_internal.hpp"
#include "random_worlds.hpp"
#include "worlds.hpp"

using namespace dryground;

namespace {

// What stops a mover on a storey: ground, and lines with the way in which they are passed.
struct Stops {
    Regions area;
    std::vector<std::pair<Ring, OneWay>> lines;
};

Stops stops_of(const Merge& merged, const Mover& mover, StoreyId storey) {
    Stops stops;
    for (const Group& group : merged.groups) {
        const bool stopped = std::binary_search(mover.stopped_by.begin(), mover.stopped_by.end(), group.barrier_id);
        if (group.storey_id != storey || !group.trigger.empty() || !(stopped || !group.mover.empty())) continue;
        stops.area.insert(stops.area.end(), group.regions.begin(), group.regions.end());
        for (const Ring& line : group.lines)
            for (std::size_t i = 0; i + 1 < line.size(); ++i)
                stops.lines.emplace_back(Ring{line[i], line[i + 1]}, group.one_way);
    }
    stops.area = unite(stops.area);
    return stops;
}

Ring hull(const Ring& body, Point a, Point b) {
    std::vector<Point> points;
    for (const Point p : body)
        for (const Point at : {a, b}) points.push_back(moved(p, at));
    return convex_hull(std::move(points));
}

bool overlaps(const Ring& convex, const Ring& segment) {
    return play::first_overlap(convex, {0, 0}, {0, 0}, segment, {0, 0}) == 0;
}

// Merged one-way lines run so that what they stop comes from their left, as one sees it: it gets into the sum of line
// and mirrored body over an edge whose outside is there.
bool line_stops(const Ring& line, OneWay one_way, const Ring& body, Point from, Point to) {
    if (!overlaps(hull(body, from, to), line)) return false;
    if (one_way == OneWay::none) return true;
    std::vector<Point> points;
    for (const Point p : line)
        for (const Point q : body) points.push_back({p.x - q.x, p.y - q.y});
    const Ring sum = convex_hull(std::move(points));
    const double dx = line[1].x - line[0].x, dy = line[1].y - line[0].y;
    double last = -1, facing = 0;
    for (std::size_t i = 0; i < sum.size(); ++i) {
        const Point p = sum[i], q = sum[(i + 1) % sum.size()];
        const double out_x = q.y - p.y, out_y = p.x - q.x, speed = out_x * (to.x - from.x) + out_y * (to.y - from.y);
        if (speed >= 0) continue;
        const double t = (out_x * (p.x - from.x) + out_y * (p.y - from.y)) / speed, faces = out_x * dy - out_y * dx;
        if (t > last + 1e-9 || (t > last - 1e-9 && faces > facing)) facing = faces;
        last = std::max(last, t);
    }
    return facing > 0;
}

bool stands_in_lines(const Stops& stops, const Ring& body, Point at) {
    return std::any_of(stops.lines.begin(), stops.lines.end(),
                       [&](const auto& line) { return overlaps(hull(body, at, at), line.first); });
}

bool area_stops(const Regions& area, const Ring& body, Point from, Point to) {
    return !intersect(area, Regions{{hull(body, from, to), {}}}).empty();
}

Point steps(PointPx p) { return {to_steps(p.x), to_steps(p.y)}; }

// Calls action(world, map, dice) for the maps of random worlds.
template <class Action>
void each_map(Action action) {
    for (int round = 0; round < chance::rounds(120); ++round) {
        DRYGROUND_ROUND(round);
        const Result<World> loaded = random_worlds::make(static_cast<std::uint64_t>(round)).build();
        if (!loaded) continue;
        chance::Dice dice(static_cast<std::uint64_t>(round));
        for (const Map& map : loaded->maps()) action(*loaded, map, dice);
    }
}

}   // namespace

TEST_CASE("what bars a body's way is where the merged ground begins to", "[play]") {
    int asked = 0, barred = 0, by_lines = 0;
    each_map([&](const World& world, const Map& map, chance::Dice& dice) {
        const Play play(world, map.name);
        for (const MoverId m : ids<MoverId>(world.movers())) {
            const Mover& mover = world.mover(m);
            const std::vector<StoreyId> storeys = ground::storeys_of(map);
            const StoreyId storey = storeys[static_cast<std::size_t>(dice.in(0, static_cast<int>(storeys.size()) - 1))];
            const Stops stops = stops_of(merge(world, map, {.mover = m}), mover, storey);
            const Ring& body = mover.body.front().outline;
            for (int i = 0; i < 12; ++i) {
                const Point from{dice.in(map.least().x, map.most().x), dice.in(map.least().y, map.most().y)};
                const Point step{dice.once_in(4) ? 0 : dice.in(-300, 300), dice.once_in(4) ? 0 : dice.in(-300, 300)};
                // Who stands in lines already is somewhere that these twins do not tell apart.
                if (step == Point{} || stands_in_lines(stops, body, from)) continue;
                constexpr int count = 12;
                const auto at = [&](int k) { return Point{from.x + k * step.x, from.y + k * step.y}; };
                const Point to = at(count);
                bool line = false;
                // The part of the way that is barred, counted from 1; 0 when none is.
                const auto first_barred = [&](const Regions& area) {
                    int first = 0;
                    line = false;
                    for (int k = 1; k <= count && first == 0; ++k)
                        if (area_stops(area, body, at(k - 1), at(k))) first = k;
                    for (const auto& [ends, one_way] : stops.lines) {
                        if (!line_stops(ends, one_way, body, from, to)) continue;
                        int own = 1;
                        while (own < count && !line_stops(ends, one_way, body, from, at(own))) ++own;
                        if (first == 0 || own < first) first = own, line = true;
                    }
                    return first;
                };
                // Rounding in the merge may move edges by a step: ways that scrape along one are passed over.
                const int first = first_barred(stops.area);
                if (first != first_barred(grown(stops.area, 2, Corners::box)) ||
                    first != first_barred(grown(stops.area, -2, Corners::box)))
                    continue;
                INFO(map.name << " mover " << mover.name << " storey " << index(storey) << " from "
                              << to_text(Ring{from, to}));
                const Blocked blocked =
                    play.blocked(m, {to_px(from.x), to_px(from.y)}, {to_px(to.x), to_px(to.y)}, storey);
                ++asked, barred += first > 0, by_lines += line;
                REQUIRE(static_cast<bool>(blocked) == (first > 0));
                if (first == 0) continue;
                CHECK(blocked.at >= (first - 1.0) / count - 1e-6);
                CHECK(blocked.at <= static_cast<double>(first) / count + 1e-6);
            }
        }
    });
    INFO(asked << " asked, " << barred << " barred, " << by_lines << " by lines");
    CHECK(barred > asked / 10);
    CHECK(by_lines > asked / 1000);
    CHECK(asked - barred > asked / 20);
}

TEST_CASE("a step is free where merged ground, flags and sides let it be", "[play]") {
    int asked = 0, free = 0;
    each_map([&](const World& world, const Map& map, chance::Dice& dice) {
        const Play play(world, map.name);
        const Merge merged = merge(world, map);
        for (const MoverId m : ids<MoverId>(world.movers())) {
            const Mover& mover = world.mover(m);
            const std::vector<StoreyId> storeys = ground::storeys_of(map);
            const StoreyId storey = storeys[static_cast<std::size_t>(dice.in(0, static_cast<int>(storeys.size()) - 1))];
            const Stops stops = stops_of(merged, mover, storey);
            const Ring& body = mover.body.front().outline;
            const auto stands = [&](Cell cell) {
                const Point at = steps(play.middle_of(cell));
                return play.has(cell) && (mover.needs == 0 || (play.says(cell, storey).flags & mover.needs) != 0) &&
                       !area_stops(stops.area, body, at, at);
            };
            const auto passes = [&](Cell a, Cell b, std::size_t side) {
                const Passage leave = play.says(a, storey).sides.of[side],
                              enter = play.says(b, storey).sides.of[(side + 2) % 4];
                const bool open = (leave == Passage::open || leave == Passage::out) &&
                                  (enter == Passage::open || enter == Passage::in);
                return open && std::none_of(stops.lines.begin(), stops.lines.end(), [&](const auto& line) {
                           return line_stops(line.first, line.second, body, steps(play.middle_of(a)),
                                             steps(play.middle_of(b)));
                       });
            };
            static constexpr std::array<std::array<int, 2>, 4> ways{{{0, -1}, {1, 0}, {0, 1}, {-1, 0}}};
            const auto goes = [&](Cell a, std::size_t side) {
                const Cell b{a.column + ways[side][0], a.row + ways[side][1]};
                return stands(b) && passes(a, b, side);
            };
            for (int i = 0; i < 12; ++i) {
                const Cell from{map.first_column + dice.in(0, map.columns - 1),
                                map.first_row + dice.in(0, map.rows - 1)};
                INFO(map.name << " mover " << mover.name << " storey " << index(storey) << " from " << from.column
                              << ", " << from.row);
                bool in_lines = false;
                for (int dr = -1; dr <= 1; ++dr)
                    for (int dc = -1; dc <= 1; ++dc)
                        in_lines =
                            in_lines ||
                            stands_in_lines(stops, body, steps(play.middle_of({from.column + dc, from.row + dr})));
                if (in_lines) continue;
                for (std::size_t side = 0; side < 4; ++side) {
                    const Cell to{from.column + ways[side][0], from.row + ways[side][1]};
                    const bool may = play.may_step(m, from, to, storey);
                    ++asked, free += may;
                    INFO("side " << side);
                    CHECK(may == goes(from, side));
                    // Past the corner to the next side.
                    const std::size_t other = (side + 1) % 4;
                    const Cell corner{to.column + ways[other][0], to.row + ways[other][1]},
                        beside{from.column + ways[other][0], from.row + ways[other][1]};
                    const bool one = goes(from, side) && goes(to, other), two = goes(from, other) && goes(beside, side);
                    CHECK(play.may_step(m, from, corner, storey, Diagonal::if_both_free) == (one && two));
                    CHECK(play.may_step(m, from, corner, storey, Diagonal::if_one_free) == (one || two));
                    CHECK(play.may_step(m, from, corner, storey, Diagonal::always) == stands(corner));
                    CHECK_FALSE(play.may_step(m, from, corner, storey, Diagonal::never));
                }
            }
        }
    });
    INFO(asked << " asked, " << free << " free");
    CHECK(free > asked / 20);
    CHECK(asked - free > asked / 20);
}

// What a mover that is seen from the side finds on a map.
//
// Idea. Levels are the storeys, and each storey once more for each stop of a moving solid; on each level stands
// (stands.cpp) and obstacles are found once. Cost: that of the stands, and for moving solids of what lies near their
// paths.

#include "side_ground_internal.hpp"

#include <algorithm>
#include <cmath>

#include "../ground/ground_internal.hpp"

namespace dryground::travel {

namespace {

// Mover jumps off a moving solid at every so many of its stops.
constexpr std::size_t stops_a_jump = 3;

}   // namespace

SideGround::SideGround(const WaysOf& of, const SideGround* before) : map(of.map) {
    const Mover& mover = of.figures();
    knows_jump = mover.jump_px.has_value() && mover.leap_px.has_value();
    // Figures as large as the lattice have the same effect as any larger ones.
    const auto steps = [](const std::optional<double>& px) {
        return std::min(px.value_or(0), static_cast<double>(coordinate_limit) / steps_per_px) * steps_per_px;
    };
    flight.jump = steps(mover.jump_px);
    if (flight.jump < steps_per_px / 4.0) flight.jump = 0;   // that is no jump
    // Stands end a hair early on either side, for a body that is a hair narrower than it is.
    flight.leap = steps(mover.leap_px) > 0 ? steps(mover.leap_px) + 4 : 0;
    if (mover.drop_px) flight.drop = steps(mover.drop_px);
    flight.within = std::max(1.0, of.world.merging().within_px * steps_per_px);
    footing = footing_of(mover);
    const std::vector<Group> groups = groups_of(of);
    for (const StoreyId storey : ground::storeys_of(map)) {
        const SideLevel* level_before = before != nullptr ? before->level(storey) : nullptr;
        SideLevel level{storey, levels.size(),
                        Obstacles(groups, storey, mover, {}, level_before ? &level_before->obstacles : nullptr)};
        std::vector<Stand> stands = stands_of(level.obstacles, footing);
        for (const Map* other : of.also) {
            const WaysOf then{of.world, *other, of.mover, of.facts, of.targets, of.like};
            for (Stand& stand : stands_of(Obstacles(groups_of(then), storey, mover), footing))
                stands.push_back(std::move(stand));
        }
        add_level(std::move(level), std::move(stands));
    }
    index(of.targets);
    add_climbing(of, before);
    add_moving(of);
}

void SideGround::add_level(SideLevel level, std::vector<Stand> stands) {
    const Point least = map.least(), most = map.most();
    std::vector<Bounds> boxes;
    for (Stand& stand : stands) {
        // Outside the map nobody stands, for example on top of its rim.
        if (!detail::meet(detail::box_around(stand.points), {least, most})) continue;
        for (std::size_t i = 0; i + 1 < stand.points.size(); ++i) {
            level.edges.push_back({static_cast<int>(places.size()), i});
            boxes.push_back(detail::box_around(std::span(stand.points).subspan(i, 2)));
        }
        places.push_back({std::move(stand), levels.size(), false, -1, {}});
    }
    level.near = detail::BoxIndex(std::move(boxes));
    levels.push_back(std::move(level));
}
void SideGround::index(const std::vector<Target>& targets) {
    for (SideLevel& level : levels) {
        std::vector<Bounds> boxes;
        for (std::size_t t = 0; t < targets.size(); ++t) {
            if (targets[t].storey != level.storey) continue;
            for (const Ring& ring : targets[t].rings) {
                level.targets.push_back(static_cast<int>(t)), level.rings.push_back(&ring);
                boxes.push_back(detail::box_around(ring));
            }
        }
        level.near_targets = detail::BoxIndex(std::move(boxes));
    }
}
void SideGround::add_climbing(const WaysOf& of, const SideGround* before) {
    const ClimbedCells cells = climbed_cells(of);
    if (cells.empty()) return;
    climbing = ways_climbing(of, cells, before != nullptr ? before->climbing.get() : nullptr);
    first_climb = static_cast<int>(places.size());
    std::vector<Region> areas;
    std::vector<Bounds> around;
    for (int climb = 0; climb < climbing->places(); ++climb) {
        const TravelPlace shape = climbing->shape(climb);
        areas.push_back(shape.area.front());
        around.push_back(detail::box_around(areas.back().outline));
        places.push_back({{}, level(shape.storey)->number, false, climb, {}});
    }
    for (SideLevel& level : levels) {
        const auto on_storey = cells.find(level.storey);
        if (on_storey == cells.end()) continue;
        std::vector<Bounds> boxes;
        for (const Ring& ring : on_storey->second) {
            SideLevel::Climbed cell{ring, {}};
            const Region region{cell.ring, {}};
            for (std::size_t climb = 0; climb < areas.size(); ++climb) {
                const int place = place_of_climb(static_cast<int>(climb));
                if (&levels[places[static_cast<std::size_t>(place)].level] != &level ||
                    !detail::meet(around[climb], detail::box_around(cell.ring)) ||
                    intersect({&region, 1}, {&areas[climb], 1}).empty())
                    continue;
                cell.places.push_back(place);
                add_grips(place, areas[climb], level, cell.ring);
            }
            boxes.push_back(detail::box_around(cell.ring));
            level.climbed.push_back(std::move(cell));
        }
        level.near_climbed = detail::BoxIndex(std::move(boxes));
    }
}

// Adds where a stand runs through a cell, or ends beside it.
void SideGround::add_grips(int climb_place, const Region& area, SideLevel& level, const Ring& cell) {
    constexpr std::int32_t near = 3;
    level.near.each_near(detail::grown(detail::box_around(cell), near), [&](std::size_t e) {
        const SideLevel::Edge& edge = level.edges[e];
        SidePlace& stand = places[static_cast<std::size_t>(edge.stand)];
        const auto knows = [&](const SidePlace::Grip& grip) { return grip.place == climb_place; };
        if (stand.stand.slides || std::any_of(stand.grips.begin(), stand.grips.end(), knows)) return;
        const auto [a, b] = ends(edge);
        const Bounds box = detail::box_around(cell);
        for (const std::int32_t x : {(box.least.x + box.most.x) / 2, a.x, b.x, box.least.x, box.most.x})
            for (const std::int32_t dy : {0, -near, near})
                for (const std::int32_t dx : {0, -near, near}) {
                    const Point here = on_edge(a, b, x), there{here.x + dx, here.y + dy};
                    if (locate({&area, 1}, there) != Side::inside || !level.obstacles.is_free(here, there) ||
                        !level.obstacles.is_free(there, here) || !is_let_onto(level, a, b, here))
                        continue;
                    stand.grips.push_back({climb_place, here, there});
                    places[static_cast<std::size_t>(climb_place)].grips.push_back({edge.stand, there, here});
                    return;
                }
    });
}

void SideGround::add_moving(const WaysOf& of) {
    solids = moving_solids(of);
    levels_of_solids.resize(solids.size());
    for (std::size_t s = 0; s < solids.size(); ++s)
        if (const SideLevel* storey = level(solids[s].storey)) add_stops(s, *storey, of.figures());
    for (SideLevel& storey : levels) {
        if (storey.has_solid()) break;
        std::vector<Bounds> boxes;
        for (const SideLevel& level : levels)
            if (level.storey_level == &storey) {
                storey.with_solid.push_back(level.number);
                boxes.push_back(detail::box_around(level.swept));
            }
        storey.near_swept = detail::BoxIndex(std::move(boxes));
    }
}

void SideGround::add_stops(std::size_t solid, const SideLevel& storey, const Mover& mover) {
    const std::vector<MovingSolid::Stop>& stops = solids[solid].stops;
    Bounds no_stands{};              // around stops before the first one with stands,
    bool any_without = false;        // if there are any
    SideLevel* jumps_at = nullptr;   // the last stop that one jumps from
    std::size_t jumps_again_at = 0;
    for (std::size_t stop = 0; stop < stops.size(); ++stop) {
        const std::vector<Group> there = moved(solids[solid].groups, stops[stop].by);
        SideLevel level{storey.storey, levels.size(), Obstacles(storey.obstacles, there, mover)};
        level.storey_level = &storey, level.solid = solid, level.stop = stop;
        level.swept = swept(solids[solid], stop, level.obstacles.body());
        levels_of_solids[solid].push_back(level.number);
        std::vector<Stand> stands = stands_of(level.obstacles, footing);
        add_level(std::move(level), std::move(stands));
        SideLevel& made = levels.back();
        const Bounds box = detail::box_around(made.swept);
        if (!made.edges.empty() && (stop >= jumps_again_at || stops[stop].is_of_path)) {
            made.jumps_from = any_without ? detail::both(no_stands, box) : box;
            any_without = false;
            jumps_at = &made, jumps_again_at = stop + stops_a_jump;
        } else if (jumps_at != nullptr) {
            jumps_at->jumps_from = detail::both(*jumps_at->jumps_from, box);
        } else {
            no_stands = any_without ? detail::both(no_stands, box) : box;
            any_without = true;
        }
    }
}

std::vector<int> SideGround::stands_on_solids(const SideLevel& level, Point p) const {
    std::vector<int> stands;
    level.each_swept_near(detail::grown(Bounds{p, p}, 2), [&](std::size_t number) {
        const int stand = stand_at(levels[number], p, false);
        if (stand >= 0 && places[static_cast<std::size_t>(stand)].level == number) stands.push_back(stand);
    });
    return stands;
}

int SideGround::climb_at(StoreyId storey, Point p) const {
    const int climb = climbing ? climbing->find_place(storey, p) : -1;
    return climb < 0 ? -1 : place_of_climb(climb);
}

const SideLevel* SideGround::level(StoreyId storey) const {
    for (const SideLevel& level : levels)
        if (level.storey == storey) return &level;
    return nullptr;
}

int SideGround::stand_at(const SideLevel& level, Point p, bool slides) const {
    int found = -1;
    (void)level.any_edge_near(detail::grown(Bounds{p, p}, 2), [&](const SideLevel::Edge& edge) {
        const Stand& stand = this->stand(edge.stand);
        if (stand.slides != slides) return false;
        const auto [a, b] = ends(edge);
        const double length = std::hypot(static_cast<double>(b.x) - a.x, static_cast<double>(b.y) - a.y);
        if (std::abs(static_cast<double>(cross(a, b, p))) > 2 * length || !is_let_onto(level, a, b, p)) return false;
        found = edge.stand;
        return true;
    });
    return found;
}

Point on_edge(Point a, Point b, std::int32_t x) {
    if (b.x == a.x) return a;
    x = std::clamp(x, a.x, b.x);
    const double t = (static_cast<double>(x) - a.x) / (static_cast<double>(b.x) - a.x);
    return {x, static_cast<std::int32_t>(std::lround(a.y + t * (static_cast<double>(b.y) - a.y)))};
}

double apart(const Bounds& a, const Bounds& b) {
    return std::max({0.0, double{0} + a.least.x - b.most.x, double{0} + b.least.x - a.most.x,
                     double{0} + a.least.y - b.most.y, double{0} + b.least.y - a.most.y});
}

bool is_let_onto(const SideLevel& level, Point a, Point b, Point p) {
    const auto is_at = [&](Point end) { return std::abs(p.x - end.x) <= 2 && std::abs(p.y - end.y) <= 2; };
    if (is_at(a) == is_at(b)) return true;
    return level.obstacles.is_free(p, is_at(a) ? b : a);
}

bool is_free(const SideLevel& level, const Ring& way) {
    for (std::size_t i = 0; i + 1 < way.size(); ++i)
        if (way[i] != way[i + 1] && !level.obstacles.is_free(way[i], way[i + 1])) return false;
    return true;
}

void SideWaysOn::add(Move move) {
    for (const Move& other : moves)
        if (other.to == move.to && other.going == move.going) return;
    moves.push_back(std::move(move));
}

bool SideWaysOn::leads_to(int place) const {
    return std::any_of(moves.begin(), moves.end(), [&](const Move& move) { return move.to == place; });
}

bool SideWaysOn::has_touched(int target) const {
    return std::any_of(touched.begin(), touched.end(), [&](const Touched& touch) { return touch.target == target; });
}

}   // namespace dryground::travel

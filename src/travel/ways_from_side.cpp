// The ways of a mover that is seen from the side: walking along stands and on to the next, dropping from their ends,
// jumping. Places are stands, and points in the air where a body comes into being or arrives.
//
// Jumps are looked for from each edge of a stand, at three heights, however they are steered (`SureAir`). What is found
// is free all along. What may be got to is told by the envelope of all jumps, less what is solid: the part of it that
// lies on the edge; and then more closely by `MaybeAir`.

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <numbers>
#include <set>
#include <utility>

#include "../ground/ground_internal.hpp"
#include "air_internal.hpp"
#include "flight_internal.hpp"
#include "stands_internal.hpp"
#include "ways_internal.hpp"

namespace dryground::travel {

namespace {

// The steepest slope that a mover walks which does not say.
constexpr double usual_slope_degrees = 45;

Point on_edge(Point a, Point b, std::int32_t x) {
    if (b.x == a.x) return a;
    x = std::clamp(x, a.x, b.x);
    const double t = (static_cast<double>(x) - a.x) / (static_cast<double>(b.x) - a.x);
    return {x, static_cast<std::int32_t>(std::lround(a.y + t * (static_cast<double>(b.y) - a.y)))};
}

// A point that is free over the middle of an edge.
Point just_above(Point p, Point q) { return {p.x + (q.x - p.x) / 2, std::min(p.y, q.y) + std::abs(q.y - p.y) / 2 - 2}; }

class SideWays : public Ways {
public:
    explicit SideWays(const WaysOf& of) : map_(of.map), targets_(of.targets) {
        const Mover& mover = of.figures();
        knows_jump_ = mover.jump_px.has_value() && mover.leap_px.has_value();
        // Figures as large as the lattice are as good as any larger ones.
        const auto steps = [](const std::optional<double>& px) {
            return std::min(px.value_or(0), static_cast<double>(coordinate_limit) / steps_per_px) * steps_per_px;
        };
        flight_.jump = steps(mover.jump_px);
        if (flight_.jump < steps_per_px / 4.0) flight_.jump = 0;   // that is no jump
        // Stands end a hair early on either side, for a body that is a hair narrower than it is.
        flight_.leap = steps(mover.leap_px) > 0 ? steps(mover.leap_px) + 4 : 0;
        if (mover.drop_px) flight_.drop = steps(mover.drop_px);
        flight_.within = std::max(1.0, of.world.merging().within_px * steps_per_px);
        const double slope = mover.slope_degrees.value_or(usual_slope_degrees);
        // A hair more, for slopes whose ends are rounded to steps.
        footing_.steepest = slope >= 89.9 ? 1e9 : std::tan(slope * std::numbers::pi / 180) * 1.0001 + 1e-6;
        footing_.kerb = static_cast<std::int32_t>(steps(mover.kerb_px));
        const std::vector<Group> groups = groups_of(of);
        for (const int storey : ground::storeys_of(map_)) {
            Level level{storey, Obstacles(groups, storey, mover)};
            std::vector<Stand> stands = stands_of(level.obstacles, footing_);
            for (const Map* other : of.also) {
                const WaysOf then{of.world, *other, of.mover, of.facts, of.targets, of.like};
                for (Stand& stand : stands_of(Obstacles(groups_of(then), storey, mover), footing_))
                    stands.push_back(std::move(stand));
            }
            add_level(std::move(level), std::move(stands));
        }
        index_targets();
    }

    [[nodiscard]] int places() const override { return static_cast<int>(places_.size()); }
    [[nodiscard]] Going going() const override { return Going::walks; }

    [[nodiscard]] int find_place(int storey, Point p) const override {
        const Level* level = find_level(storey);
        return level == nullptr ? -1 : stand_at(*level, p, false);
    }
    [[nodiscard]] int place_at(int storey, Point p) override {
        const Level* level = find_level(storey);
        if (level == nullptr || !level->obstacles.may_be(p)) return -1;
        if (const int stand = stand_at(*level, p, false); stand >= 0) return stand;
        const auto [known, is_new] = in_air_.try_emplace({storey, p.x, p.y}, places());
        if (is_new) {
            places_.push_back({{{p, p}}, static_cast<std::size_t>(level - levels_.data()), true});
            known_.emplace_back();
        }
        return known->second;
    }
    [[nodiscard]] const std::vector<Move>& moves(int place) override {
        learn(place);
        return known_[static_cast<std::size_t>(place)].moves;
    }
    [[nodiscard]] const std::vector<Touched>& touched(int place) override {
        learn(place);
        return known_[static_cast<std::size_t>(place)].touched;
    }
    [[nodiscard]] std::vector<Point> falls_out(int place) override {
        learn(place);
        return known_[static_cast<std::size_t>(place)].falls_out;
    }
    [[nodiscard]] TravelPlace shape(int place) const override {
        const Place& of = places_[static_cast<std::size_t>(place)];
        TravelPlace shape;
        shape.storey = levels_[of.level].storey;
        if (!of.in_air && !of.stand.slides)
            for (const Point p : of.stand.points) shape.line.push_back({to_px(p.x), to_px(p.y)});
        return shape;
    }
    [[nodiscard]] Ring way_within(int place, Point from, Point to) override {
        const Ring& points = places_[static_cast<std::size_t>(place)].stand.points;
        Ring way{from};
        const auto number = [&](Point p) { return edge_of(points, p); };
        const std::size_t a = number(from), b = number(to);
        if (a < b)
            for (std::size_t i = a + 1; i <= b; ++i) way.push_back(points[i]);
        else
            for (std::size_t i = a; i > b; --i) way.push_back(points[i]);
        way.push_back(to);
        way.erase(std::unique(way.begin(), way.end()), way.end());
        return way;
    }
    void add_may_be(int place, MayBe& may_be) override;

private:
    struct Level {
        int storey;
        Obstacles obstacles;
        struct Edge {
            int stand;
            std::size_t begin;
        };
        std::vector<Edge> edges{};
        detail::BoxIndex near{};
        std::vector<int> targets{};   // positions in targets_, one for each of their rings
        std::vector<const Ring*> rings{};
        detail::BoxIndex near_targets{};
    };
    struct Place {
        Stand stand;
        std::size_t level;
        bool in_air = false;
    };
    struct Known {
        bool is_known = false;
        std::vector<Move> moves;
        std::vector<Touched> touched;
        std::vector<Point> falls_out;
    };

    void add_level(Level level, std::vector<Stand> stands) {
        const Point least = map_.least(), most = map_.most();
        std::vector<Bounds> boxes;
        for (Stand& stand : stands) {
            // Outside of the map nobody stands, as on top of its rim.
            if (!detail::meet(detail::box_around(stand.points), {least, most})) continue;
            for (std::size_t i = 0; i + 1 < stand.points.size(); ++i) {
                level.edges.push_back({places(), i});
                boxes.push_back(detail::box_around(std::span(stand.points).subspan(i, 2)));
            }
            places_.push_back({std::move(stand), levels_.size()});
            known_.emplace_back();
        }
        level.near = detail::BoxIndex(std::move(boxes));
        levels_.push_back(std::move(level));
    }
    void index_targets() {
        for (Level& level : levels_) {
            std::vector<Bounds> boxes;
            for (std::size_t t = 0; t < targets_.size(); ++t) {
                if (targets_[t].storey != level.storey) continue;
                for (const Ring& ring : targets_[t].rings) {
                    level.targets.push_back(static_cast<int>(t)), level.rings.push_back(&ring);
                    boxes.push_back(detail::box_around(ring));
                }
            }
            level.near_targets = detail::BoxIndex(std::move(boxes));
        }
    }
    [[nodiscard]] std::array<Point, 2> ends(const Level::Edge& edge) const {
        const Ring& points = places_[static_cast<std::size_t>(edge.stand)].stand.points;
        return {points[edge.begin], points[edge.begin + 1]};
    }
    [[nodiscard]] const Level* find_level(int storey) const {
        for (const Level& level : levels_)
            if (level.storey == storey) return &level;
        return nullptr;
    }
    // The stand, or slide, that a position is on, within a step or two.
    [[nodiscard]] int stand_at(const Level& level, Point p, bool slides) const {
        int found = -1;
        (void)level.near.any_near(detail::grown(Bounds{p, p}, 2), [&](std::size_t i) {
            const Level::Edge& edge = level.edges[i];
            const Stand& stand = places_[static_cast<std::size_t>(edge.stand)].stand;
            if (stand.slides != slides) return false;
            const Point a = stand.points[edge.begin], b = stand.points[edge.begin + 1];
            const double length = std::hypot(static_cast<double>(b.x) - a.x, static_cast<double>(b.y) - a.y);
            if (std::abs(static_cast<double>(cross(a, b, p))) > 2 * length || !is_let_onto(level, a, b, p))
                return false;
            found = edge.stand;
            return true;
        });
        return found;
    }
    // Whether who comes to the end of an edge gets on along it: a line that stops in one direction may cover it.
    [[nodiscard]] static bool is_let_onto(const Level& level, Point a, Point b, Point p) {
        const auto is_at = [&](Point end) { return std::abs(p.x - end.x) <= 2 && std::abs(p.y - end.y) <= 2; };
        if (is_at(a) == is_at(b)) return true;
        return level.obstacles.is_free(p, is_at(a) ? b : a);
    }
    // The edge of a stand that a position is on.
    [[nodiscard]] static std::size_t edge_of(const Ring& points, Point p) {
        std::size_t best = 0;
        double nearest = 1e300;
        for (std::size_t i = 0; i + 1 < points.size(); ++i) {
            const Point a = points[i], b = points[i + 1];
            const double x = std::clamp<double>(p.x, std::min(a.x, b.x), std::max(a.x, b.x)),
                         y = std::clamp<double>(p.y, std::min(a.y, b.y), std::max(a.y, b.y));
            const double length =
                std::max(1.0, std::hypot(static_cast<double>(b.x) - a.x, static_cast<double>(b.y) - a.y));
            const double off = std::hypot(p.x - x, p.y - y) + std::abs(static_cast<double>(cross(a, b, p))) / length;
            if (off < nearest) nearest = off, best = i;
        }
        return best;
    }

    void learn(int place) {
        if (known_[static_cast<std::size_t>(place)].is_known) return;
        known_[static_cast<std::size_t>(place)].is_known = true;
        const Place of = places_[static_cast<std::size_t>(place)];   // a copy: places in the air may be added
        Known known;
        known.is_known = true;
        const Level& level = levels_[of.level];
        const Ring& points = of.stand.points;
        if (of.in_air || of.stand.slides) {
            add_fall(level, points.front(), known);
        } else {
            add_walks(level, place, of.stand, known);
            for (const Point end : {points.front(), points.back()}) add_fall(level, end, known);
            add_touched_on(level, place, of.stand, known);
            if (flight_.jump > 0) add_jumps(level, place, of.stand, known);
        }
        add_touched_under_way(level, known);
        known_[static_cast<std::size_t>(place)] = std::move(known);
    }

    // ---- walking on ----

    void add_walks(const Level& level, int place, const Stand& stand, Known& known) const {
        const std::int32_t near = std::max(footing_.kerb, 2);
        for (std::size_t i = 0; i + 1 < stand.points.size(); ++i) {
            const Point a = stand.points[i], b = stand.points[i + 1];
            level.near.each_near(detail::grown(detail::box_around(std::array{a, b}), near), [&](std::size_t e) {
                const Level::Edge& edge = level.edges[e];
                const Stand& other = places_[static_cast<std::size_t>(edge.stand)].stand;
                if (edge.stand == place || other.slides) return;
                const Point c = other.points[edge.begin], d = other.points[edge.begin + 1];
                // From where one of them ends, or both are.
                for (const std::int32_t x : {a.x, b.x, c.x, d.x}) {
                    const Point from = on_edge(a, b, x), to = on_edge(c, d, x);
                    if (std::abs(from.x - to.x) > near || std::abs(from.y - to.y) > near) continue;
                    const std::int32_t top = std::min(from.y, to.y);
                    const Ring way{from, {from.x, top}, {to.x, top}, to};
                    // And on along it, since a line may stop who does.
                    const Point on = further(c, d, to, from);
                    if (is_free(level, way) && (on == to || level.obstacles.is_free(to, on)))
                        add(known, {edge.stand, Going::walks, without_repeats(way)});
                    return;
                }
            });
        }
    }
    // The end of an edge toward which one walks on from a place on it; or, where one came straight up or down, the
    // further one.
    static Point further(Point c, Point d, Point at, Point came_from) {
        const bool right = at.x != came_from.x ? at.x > came_from.x : at.x - c.x < d.x - at.x;
        return right ? d : c;
    }
    static Ring without_repeats(Ring way) {
        way.erase(std::unique(way.begin(), way.end()), way.end());
        return way;
    }
    static void add(Known& known, Move move) {
        for (const Move& other : known.moves)
            if (other.to == move.to && other.going == move.going) return;
        known.moves.push_back(std::move(move));
    }
    [[nodiscard]] static bool is_free(const Level& level, const Ring& way) {
        for (std::size_t i = 0; i + 1 < way.size(); ++i)
            if (way[i] != way[i + 1] && !level.obstacles.is_free(way[i], way[i + 1])) return false;
        return true;
    }

    // ---- falling ----

    struct Fall {
        int stand = -1;     // where it ends; -1: nowhere to stand
        bool out = false;   // out of the map
        Ring way;
    };
    [[nodiscard]] Fall fall(const Level& level, Point p) const {
        Fall fall;
        fall.way.push_back(p);
        const std::int32_t top = p.y;
        const std::int64_t bottom = std::int64_t{map_.most().y} + 4 * steps_per_px * std::int64_t{map_.cell_height};
        for (int slides = 0; slides < 100; ++slides) {
            if (p.y >= map_.most().y + map_.cell_height * steps_per_px) {
                fall.out = true;
                return fall;
            }
            const Point end{p.x, static_cast<std::int32_t>(std::min<std::int64_t>(bottom, coordinate_limit))};
            const double free = level.obstacles.free_before(p, end);
            const Point lands{p.x,
                              static_cast<std::int32_t>(std::lround(p.y + free * (static_cast<double>(end.y) - p.y)))};
            if (lands != p) fall.way.push_back(lands);
            p = lands;
            if (free == 1) {
                fall.out = true;
                return fall;
            }
            if (flight_.drop && p.y - top > *flight_.drop) return fall;
            if (const int stand = stand_at(level, p, false); stand >= 0) {
                fall.stand = stand;
                return fall;
            }
            const int slide = stand_at(level, p, true);
            if (slide < 0) return fall;
            const Ring& points = places_[static_cast<std::size_t>(slide)].stand.points;
            const Point low = points.front().y > points.back().y ? points.front() : points.back();
            if (low == p || low.y <= p.y) return fall;
            fall.way.push_back(low);
            p = low;
            if (flight_.drop && p.y - top > *flight_.drop) return fall;
            if (const int stand = stand_at(level, p, false); stand >= 0) {
                fall.stand = stand;
                return fall;
            }
        }
        return fall;
    }
    void add_fall(const Level& level, Point p, Known& known) const {
        Fall falls = fall(level, p);
        // Beside the map it has left it: whether it may is for the rule of leaks.
        const std::int32_t x = falls.way.back().x;
        if (falls.out && x >= map_.least().x && x <= map_.most().x) known.falls_out.push_back(falls.way.back());
        if (falls.stand >= 0 && falls.way.size() > 1) add(known, {falls.stand, Going::drops, std::move(falls.way)});
        // In the air, and yet on a stand already.
        else if (falls.stand >= 0 && stand_at(level, p, false) != falls.stand)
            add(known, {falls.stand, Going::drops, {p, p}});
    }

    // ---- jumping ----
    [[nodiscard]] std::optional<Ring> jump(const Level& level, Point from, Point to) const {
        const double aside = std::abs(static_cast<double>(to.x) - from.x), up = static_cast<double>(from.y) - to.y;
        if (!flight_.can_be(aside, up)) return std::nullopt;
        const double least = std::max(0.0, up);
        for (const double high :
             {flight_.jump, std::min(flight_.jump, least + steps_per_px), (flight_.jump + least) / 2, least})
            for (const Steer steer : {Steer::evenly, Steer::late, Steer::early})
                if (std::optional<Ring> way = curve(flight_, from, to, high, steer); way && is_free(level, *way))
                    return way;
        return std::nullopt;
    }
    void add_jumps(const Level& level, int place, const Stand& stand, Known& known) const {
        for (std::size_t i = 0; i + 1 < stand.points.size(); ++i)
            for (const auto& [a, b] : starts_on(stand.points[i], stand.points[i + 1]))
                for (const double part : {1.0, 0.9, 0.8, 0.7, 0.6, 0.5, 0.4, 0.3, 0.2, 0.1, 0.04}) {
                    const double high = flight_.jump * part;
                    const SureAir air(level.obstacles, flight_, a, b, high, map_.most().y);
                    for (std::size_t k = 0; k < air.moments().size(); ++k)
                        if (air.moments()[k].falls) add_landings(level, place, air, k, known);
                    add_jumps_into(level, air, known);
                }
    }
    // On stands that nothing leads to yet.
    void add_landings(const Level& level, int place, const SureAir& air, std::size_t moment, Known& known) const {
        level.near.each_near(box_of(air.moments()[moment]), [&](std::size_t e) {
            const Level::Edge& edge = level.edges[e];
            const Stand& other = places_[static_cast<std::size_t>(edge.stand)].stand;
            if (edge.stand == place || other.slides || leads_to(known, edge.stand)) return;
            const Point c = other.points[edge.begin], d = other.points[edge.begin + 1];
            std::optional<Ring> way = air.to_edge(moment, c, d);
            if (!way || !is_let_onto(level, c, d, way->back())) return;
            // Without steering it looks better, where that will do.
            if (std::optional<Ring> plain = jump(level, way->front(), way->back())) way = std::move(plain);
            known.moves.push_back({edge.stand, Going::jumps, std::move(*way)});
        });
    }
    // Into targets that are not touched yet, and down from there to where one can stand.
    void add_jumps_into(const Level& level, const SureAir& air, Known& known) const {
        for (std::size_t k = 1; k < air.moments().size(); ++k)
            level.near_targets.each_near(box_of(air.moments()[k]), [&](std::size_t r) {
                if (has_touched(known, level.targets[r])) return;
                std::optional<Ring> way = air.into(k, *level.rings[r]);
                if (!way) return;
                if (std::optional<Ring> plain = jump(level, way->front(), way->back())) way = std::move(plain);
                Fall falls = fall(level, way->back());
                if (falls.stand < 0) return;
                way->insert(way->end(), falls.way.begin() + 1, falls.way.end());
                known.moves.push_back({falls.stand, Going::jumps, *way});
                known.touched.push_back({level.targets[r], {falls.stand, Going::jumps, std::move(*way)}});
            });
    }
    [[nodiscard]] static bool leads_to(const Known& known, int place) {
        return std::any_of(known.moves.begin(), known.moves.end(), [&](const Move& move) { return move.to == place; });
    }
    // A level edge as a whole; of a slope some points, a hair off its ends, where walls may be.
    [[nodiscard]] static std::vector<std::pair<Point, Point>> starts_on(Point a, Point b) {
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

    // ---- what is touched ----

    void add_touched_on(const Level& level, int place, const Stand& stand, Known& known) const {
        for (std::size_t i = 0; i + 1 < stand.points.size(); ++i) {
            const Point a = stand.points[i], b = stand.points[i + 1];
            level.near_targets.each_near(detail::box_around(std::array{a, b}), [&](std::size_t r) {
                if (has_touched(known, level.targets[r])) return;
                if (const std::optional<Stretch> inside = inside_of(*level.rings[r], a, b)) {
                    const double t = (inside->from + inside->to) / 2;
                    const Point at =
                        on_edge(a, b, static_cast<std::int32_t>(a.x + t * (static_cast<double>(b.x) - a.x)));
                    known.touched.push_back({level.targets[r], {place, Going::walks, {at}}});
                }
            });
        }
    }
    [[nodiscard]] static bool has_touched(const Known& known, int target) {
        return std::any_of(known.touched.begin(), known.touched.end(),
                           [&](const Touched& t) { return t.target == target; });
    }
    void add_touched_under_way(const Level& level, Known& known) const {
        for (const Move& move : known.moves)
            for (std::size_t i = 0; i + 1 < move.way.size(); ++i) {
                const Point a = move.way[i], b = move.way[i + 1];
                level.near_targets.each_near(detail::box_around(std::array{a, b}), [&](std::size_t r) {
                    if (!has_touched(known, level.targets[r]) && inside_of(*level.rings[r], a, b))
                        known.touched.push_back({level.targets[r], move});
                });
            }
    }

    const Map& map_;
    const std::vector<Target>& targets_;
    Flight flight_;
    Footing footing_;
    bool knows_jump_ = false;
    std::vector<Level> levels_;
    std::vector<Place> places_;
    std::vector<Known> known_;
    std::map<std::array<std::int32_t, 3>, int> in_air_;
};

// ---- what may be got to ----

void SideWays::add_may_be(int place, MayBe& may_be) {
    for (const Move& move : moves(place)) may_be.add(move.to);
    for (const Touched& touch : touched(place)) may_be.targets[static_cast<std::size_t>(touch.target)] = 1;
    const Place& of = places_[static_cast<std::size_t>(place)];
    const Level& level = levels_[of.level];
    if (!knows_jump_) {   // it may jump anywhere
        for (const Level::Edge& edge : level.edges) may_be.add(edge.stand);
        for (const int target : level.targets) may_be.targets[static_cast<std::size_t>(target)] = 1;
        return;
    }
    const bool jumps = !of.in_air && !of.stand.slides;
    for (std::size_t i = 0; i + 1 < of.stand.points.size(); ++i) {
        const Point a = of.stand.points[i], b = of.stand.points[i + 1];
        if (flight_.jump <= 0) {   // nothing is known of how it falls but where it cannot
            const Ring within = envelope(flight_, a, b, jumps, map_.most().y);
            const Region region{within, {}};
            level.near.each_near(detail::box_around(within), [&](std::size_t e) {
                const auto [c, d] = ends(level.edges[e]);
                if (inside_of(within, {c.x, c.y - 1}, {d.x, d.y - 1})) may_be.add(level.edges[e].stand);
            });
            level.near_targets.each_near(detail::box_around(within), [&](std::size_t r) {
                const Region target{*level.rings[r], {}};
                if (!intersect({&region, 1}, {&target, 1}).empty())
                    may_be.targets[static_cast<std::size_t>(level.targets[r])] = 1;
            });
            continue;
        }
        // First by moments, then what of that lies in the same free part of the envelope as the edge.
        std::set<std::size_t> edges, rings;
        std::int32_t lowest = std::max(a.y, b.y);
        for (const Moment& moment : maybe_air(level.obstacles, flight_, a, b, jumps, map_.most().y)) {
            const Bounds box = box_of(moment);
            level.near.each_near(box, [&](std::size_t e) {
                const auto [c, d] = ends(level.edges[e]);
                if (!may_be.has(level.edges[e].stand) && may_land_on(moment, c, d)) edges.insert(e);
            });
            level.near_targets.each_near(box, [&](std::size_t r) {
                if (may_be.targets[static_cast<std::size_t>(level.targets[r])] == 0 &&
                    may_touch(moment, *level.rings[r]))
                    rings.insert(r);
            });
        }
        if (edges.empty() && rings.empty()) continue;
        for (const std::size_t e : edges)
            lowest = std::max({lowest, ends(level.edges[e])[0].y, ends(level.edges[e])[1].y});
        for (const std::size_t r : rings) lowest = std::max(lowest, detail::box_around(*level.rings[r]).most.y);
        const Ring within = envelope(flight_, a, b, jumps, lowest);
        Regions solid;
        level.obstacles.each_near(detail::box_around(within), [&](const Obstacles::Sum& sum) {
            if (sum.passes == OneWay::none) solid.push_back({sum.ring, {}});
        });
        const Regions parts = subtract(Regions{{within, {}}}, solid);
        const Point own = of.in_air ? a : just_above(a, b);
        const auto part = std::find_if(parts.begin(), parts.end(), [&](const Region& region) {
            return locate({&region, 1}, own) != Side::outside;
        });
        if (part == parts.end()) continue;
        for (const std::size_t e : edges) {
            const auto [c, d] = ends(level.edges[e]);
            // A part of it that lies within: no obstacle parts it further, since it is an edge of them all.
            const std::optional<Stretch> inside = inside_of(within, {c.x, c.y - 1}, {d.x, d.y - 1});
            if (!inside) continue;
            const auto at = [&, c = c, d = d](double t) {
                return on_edge(c, d,
                               static_cast<std::int32_t>(std::lround(c.x + t * (static_cast<double>(d.x) - c.x))));
            };
            if (locate({&*part, 1}, just_above(at(inside->from), at(inside->to))) != Side::outside)
                may_be.add(level.edges[e].stand);
        }
        for (const std::size_t r : rings) {
            const Region target{*level.rings[r], {}};
            if (!intersect({&*part, 1}, {&target, 1}).empty())
                may_be.targets[static_cast<std::size_t>(level.targets[r])] = 1;
        }
    }
}

}   // namespace

std::unique_ptr<Ways> ways_from_side(const WaysOf& of) { return std::make_unique<SideWays>(of); }

}   // namespace dryground::travel

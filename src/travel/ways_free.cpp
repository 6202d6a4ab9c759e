// The ways of a mover that goes in any direction, on the whole map or where it climbs: its places are the parts of the
// area where its position can be. A line that stops one way only parts an area, too: where a body overlaps it, or
// several such lines at once, is a place of its own, which can be entered in their direction, and left to all sides.

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <set>

#include "../geometry/boolean_internal.hpp"
#include "../ground/ground_internal.hpp"
#include "free_space_internal.hpp"
#include "funnel_internal.hpp"
#include "overlaps_internal.hpp"
#include "ways_internal.hpp"

namespace dryground::travel {

namespace {

// Surrounds rings, far enough to hold all that a body cannot be in.
Regions frame_of(const std::vector<Ring>& rings, const std::vector<Group>& groups, const Ring& body) {
    Bounds box = detail::box_around(rings.front());
    for (const Ring& ring : rings) box = detail::both(box, detail::box_around(ring));
    for (const Group& group : groups) {
        if (const auto of = bounds(group.regions)) box = detail::both(box, *of);
        for (const Ring& line : group.lines) box = detail::both(box, detail::box_around(line));
    }
    const Bounds size = detail::box_around(body);
    const std::int32_t far =
        std::max({std::abs(size.least.x), std::abs(size.least.y), std::abs(size.most.x), std::abs(size.most.y)});
    box = detail::grown(box, far + 2 * steps_per_px);
    Regions inside;
    for (const Ring& ring : rings) inside.push_back({ring, {}});
    return subtract(Regions{box_region(box.least, box.most)}, unite(inside));
}

// Returns a point inside a region: the middle of one of its triangles.
Point inside_point(const Region& region) {
    Point best = region.outline.front();
    std::int64_t size = 0;
    for (const Triangle& t : triangles({&region, 1}))
        if (twice_area(t) > size) {
            size = twice_area(t);
            best = {static_cast<std::int32_t>((std::int64_t{t[0].x} + t[1].x + t[2].x) / 3),
                    static_cast<std::int32_t>((std::int64_t{t[0].y} + t[1].y + t[2].y) / 3)};
        }
    return best;
}

class FreeWays : public Ways {
public:
    // `climbed`: where it moves, or null for the whole map. `before`: the same before the map changed, or null.
    FreeWays(const WaysOf& of, const ClimbedCells* climbed, const FreeWays* before = nullptr)
        : going_(climbed != nullptr ? Going::climbs : Going::goes) {
        find(of, climbed, before != nullptr ? &before->levels_ : nullptr, nullptr);
    }

    // Takes over what is closed away from the change, and finds the rest anew.
    [[nodiscard]] bool follow(const WaysOf& of, const std::vector<Bounds>& changed, bool) override {
        const std::vector<Level> before = std::move(levels_);
        levels_.clear(), places_.clear(), moves_.clear(), touched_.clear();
        if (going_ == Going::climbs) {
            const ClimbedCells cells = climbed_cells(of);
            find(of, &cells, &before, nullptr);
        } else {
            const std::vector<Bounds> near = positions_near(changed, of.figures(), near_change);
            find(of, nullptr, &before, &near);
        }
        return true;
    }

    [[nodiscard]] int places() const override { return static_cast<int>(places_.size()); }
    [[nodiscard]] Going going(int) const override { return going_; }
    [[nodiscard]] int place_at(StoreyId storey, Point p) override { return find_place(storey, p); }
    [[nodiscard]] int find_place(StoreyId storey, Point p) const override {
        const Level* level = find_level(storey);
        if (level == nullptr) return -1;
        if (const int place = place_of(*level, p); place >= 0) return place;
        // On an edge, where a body touches the ground: beside it.
        for (const Point by : {Point{0, -2}, Point{0, 2}, Point{-2, 0}, Point{2, 0}})
            if (const int place = place_of(*level, moved(p, by)); place >= 0 && level->obstacles.may_be(p))
                return place;
        return -1;
    }
    [[nodiscard]] const std::vector<Move>& moves(int place) override { return moves_[static_cast<std::size_t>(place)]; }
    [[nodiscard]] const std::vector<Touched>& touched(int place) override {
        return touched_[static_cast<std::size_t>(place)];
    }
    void add_may_be(int place, MayBe& may_be) override {
        const Place& own = places_[static_cast<std::size_t>(place)];
        for (std::size_t other = 0; other < places_.size(); ++other)
            if (places_[other].level == own.level && places_[other].open_area == own.open_area)
                may_be.add(static_cast<int>(other));
        for (const Move& move : moves(place)) may_be.add(move.to);
        for (const Touched& touch : touched(place)) may_be.targets[static_cast<std::size_t>(touch.target)] = 1;
    }
    [[nodiscard]] Ring way_within(int place, Point from, Point to) override {
        // Where a body touches the ground its position may lie a hair outside of the area.
        const Region region = region_of(place);
        const auto inside = [&](Point p) {
            for (const Point by : {Point{0, 0}, Point{0, -2}, Point{0, 2}, Point{-2, 0}, Point{2, 0}})
                if (locate({&region, 1}, moved(p, by)) != Side::outside) return moved(p, by);
            return p;
        };
        const Point first = inside(from), last = inside(to);
        Ring way = way_inside(region, first, last);
        if (way.empty()) return way;
        if (first != from) way.insert(way.begin(), from);
        if (last != to) way.push_back(to);
        return way;
    }
    [[nodiscard]] TravelPlace shape(int place) const override {
        TravelPlace shape;
        shape.storey = levels_[places_[static_cast<std::size_t>(place)].level].storey;
        shape.area = {region_of(place)};
        return shape;
    }

private:
    struct Crossing {   // where lines are overlapped: a region of an overlap
        std::size_t overlap, region;
        int place;
    };
    struct Level {
        StoreyId storey;
        Obstacles obstacles;
        std::optional<FreeSpace>
            open;   // lines that stop one way only do not count; nothing on maps without such lines
        detail::WoundInBands with_lines;   // what is closed if they count; empty without such lines
        FreeSpace parted;                  // likewise
        std::vector<Sum> lines;
        int first = 0;   // place of the parted space's first area; those of the crossings follow
        std::vector<Overlap> overlaps{};
        std::vector<Crossing> crossings{};
        detail::BoxIndex near_crossings{};

        [[nodiscard]] const Region& region(const Crossing& crossing) const {
            return overlaps[crossing.overlap].area[crossing.region];
        }
        [[nodiscard]] const std::vector<int>& lines_of(const Crossing& crossing) const {
            return overlaps[crossing.overlap].lines;
        }
    };
    struct Place {
        std::size_t level;
        int number;   // among the parted space's areas, and then the crossings
        int open_area;
    };
    static constexpr std::int32_t near_change = 2 * steps_per_px;

    [[nodiscard]] static const Level* find_level(const std::vector<Level>& levels, StoreyId storey) {
        for (const Level& level : levels)
            if (level.storey == storey) return &level;
        return nullptr;
    }
    [[nodiscard]] const Level* find_level(StoreyId storey) const { return find_level(levels_, storey); }
    [[nodiscard]] int place_of(const Level& level, Point p) const {
        const int area = level.parted.area_at(p);
        if (area >= 0) return level.first + area;
        int found = -1;   // the first, where p is on an edge of several
        level.near_crossings.each_near({p, p}, [&](std::size_t i) {
            const Crossing& crossing = level.crossings[i];
            if ((found < 0 || crossing.place < found) && locate({&level.region(crossing), 1}, p) != Side::outside)
                found = crossing.place;
        });
        return found;
    }
    [[nodiscard]] Region region_of(int place) const {
        const Place& of = places_[static_cast<std::size_t>(place)];
        const Level& level = levels_[of.level];
        if (of.number < level.parted.areas()) return level.parted.area(of.number);
        return level.region(level.crossings[static_cast<std::size_t>(of.number - level.parted.areas())]);
    }
    // `before`: the levels before the map changed, or null. `near`: positions of a body at the change; null: anywhere.
    void find(const WaysOf& of, const ClimbedCells* climbed, const std::vector<Level>* before,
              const std::vector<Bounds>* near) {
        map_ = &of.map;
        const std::vector<Group> groups = groups_of(of);
        const auto add = [&](StoreyId storey, const std::vector<Ring>& within) {
            const Level* was = before != nullptr ? find_level(*before, storey) : nullptr;
            add_storey(groups, storey, of.figures(), within, was);
            const auto overlaps_before = [&] { return OverlapsBefore{was->lines, was->overlaps, *near}; };
            add_crossings(levels_.back(),
                          was != nullptr && near != nullptr ? std::optional(overlaps_before()) : std::nullopt);
        };
        if (climbed != nullptr)
            for (const auto& [storey, cells] : *climbed) add(storey, cells);
        else
            for (const StoreyId storey : ground::storeys_of(*map_))
                add(storey, {map_->block_ring(0, 0, map_->columns, map_->rows)});
        moves_.resize(places_.size());
        for (std::size_t level = 0; level < levels_.size(); ++level) cross_lines(level);
        touched_.resize(places_.size());
        touch(of.targets);
    }
    // Adds the area of a storey, within rings that are filled together.
    void add_storey(const std::vector<Group>& groups, StoreyId storey, const Mover& mover,
                    const std::vector<Ring>& within, const Level* before) {
        Obstacles obstacles(groups, storey, mover, frame_of(within, groups, mover.body.front().outline),
                            before != nullptr ? &before->obstacles : nullptr);
        std::vector<Ring> thin;
        std::vector<Sum> lines;
        for (const Sum& sum : obstacles.lines())
            if (sum.is_one_way()) lines.push_back(sum), thin.push_back(ring_of(sum));
        const std::vector<Ring>& closed = obstacles.closed();
        std::optional<FreeSpace> without_lines;
        if (!thin.empty()) without_lines.emplace(closed);
        detail::WoundInBands with_lines;
        if (!thin.empty()) {
            thin.insert(thin.end(), closed.begin(), closed.end());
            with_lines = detail::WoundInBands(thin, band_height, before != nullptr ? &before->with_lines : nullptr);
        }
        FreeSpace parted(without_lines ? with_lines.rings() : closed);
        levels_.push_back({storey, std::move(obstacles), std::move(without_lines), std::move(with_lines),
                           std::move(parted), std::move(lines), places()});
        Level& level = levels_.back();
        for (int area = 0; area < level.parted.areas(); ++area) {
            const int open = !level.open ? area : level.open->area_at(point_in(level.parted, area));
            places_.push_back({levels_.size() - 1, area, open});
        }
    }
    // Returns a point of an area: beside one of its edges, or the middle of a triangle.
    static Point point_in(const FreeSpace& space, int area) {
        const Ring& outline = space.outline(area);
        for (std::size_t i = 0; i < outline.size(); ++i)
            for (const Point p : beside(outline[i], outline[(i + 1) % outline.size()], 0.5))
                if (space.area_at(p) == area) return p;
        return inside_point(space.area(area));
    }
    // Makes places of where lines are overlapped.
    void add_crossings(Level& level, const std::optional<OverlapsBefore>& before) {
        level.overlaps = overlaps_of(level.lines, level.obstacles.closed(), before ? &*before : nullptr);
        std::vector<Bounds> boxes;
        for (std::size_t o = 0; o < level.overlaps.size(); ++o)
            for (std::size_t r = 0; r < level.overlaps[o].area.size(); ++r) {
                const Region& region = level.overlaps[o].area[r];
                level.crossings.push_back({o, r, places()});
                boxes.push_back(detail::box_around(region.outline));
                places_.push_back(
                    {levels_.size() - 1, places() - level.first, level.open->area_at(inside_point(region))});
            }
        level.near_crossings = detail::BoxIndex(std::move(boxes));
    }
    // A place where a line is overlapped is entered over those of its sides that do not run against the line.
    void cross_lines(std::size_t number) {
        const Level& level = levels_[number];
        std::map<int, const std::vector<int>*> overlapped;   // lines, by place
        for (const Crossing& crossing : level.crossings) overlapped[crossing.place] = &level.lines_of(crossing);
        static const std::vector<int> none;
        const auto lines_of = [&](int place) -> const std::vector<int>& {
            const auto found = overlapped.find(place);
            return found == overlapped.end() ? none : *found->second;
        };
        // Whether a way does not run against any line that is overlapped only on its far side.
        const auto may_enter = [&](const std::vector<int>& before, const std::vector<int>& after, std::int64_t dx,
                                   std::int64_t dy) {
            return std::all_of(after.begin(), after.end(), [&](int line) {
                if (std::find(before.begin(), before.end(), line) != before.end()) return true;
                const Point along = level.lines[static_cast<std::size_t>(line)].stops_from;
                return dx * along.x + dy * along.y >= 0;
            });
        };
        for (const Crossing& crossing : level.crossings) {
            const int place = crossing.place;
            const std::vector<int>& lines = level.lines_of(crossing);
            const Ring& ring = level.region(crossing).outline;
            for (std::size_t i = 0; i < ring.size(); ++i) {
                const Point a = ring[i], b = ring[(i + 1) % ring.size()];
                const std::int64_t dx = std::int64_t{b.x} - a.x, dy = std::int64_t{b.y} - a.y;
                const int parts = parts_of(a, b);
                for (int part = 0; part < parts; ++part) {
                    const auto [out, in] = beside(a, b, (part + 0.5) / parts);
                    const int other = place_of(level, out);
                    if (other < 0 || other == place) continue;
                    const std::vector<int>& there = lines_of(other);
                    // Its left side is inside.
                    if (may_enter(there, lines, -dy, dx) && is_open(level, out, in))
                        add_move(other, {place, going_, {out, in}});
                    if (may_enter(lines, there, dy, -dx) && is_open(level, in, out))
                        add_move(place, {other, going_, {in, out}});
                }
            }
        }
    }
    // Returns in how many parts an edge is looked at: beside a long one there may be several places, and ground.
    [[nodiscard]] int parts_of(Point a, Point b) const {
        constexpr std::int64_t most = 32;
        const std::int64_t cell = std::int64_t{std::min(map_->cell_width, map_->cell_height)} * steps_per_px,
                           length = std::max(std::abs(std::int64_t{b.x} - a.x), std::abs(std::int64_t{b.y} - a.y));
        return static_cast<int>(std::clamp<std::int64_t>((length + cell / 2) / cell, 1, most));
    }
    // Returns the points two steps to the right and to the left of an edge, at a part of it.
    static std::array<Point, 2> beside(Point a, Point b, double part) {
        const double dx = double{0} + b.x - a.x, dy = double{0} + b.y - a.y, by = 2 / std::max(1.0, std::hypot(dx, dy)),
                     x = a.x + dx * part, y = a.y + dy * part;
        const auto step = [](double to) { return static_cast<std::int32_t>(std::lround(to)); };
        return {Point{step(x + dy * by), step(y - dx * by)}, Point{step(x - dy * by), step(y + dx * by)}};
    }
    // Returns whether a way is free, apart from lines that stop one way only: those that a body overlaps stop it
    // nowhere.
    static bool is_open(const Level& level, Point a, Point b) {
        bool open = true;
        level.obstacles.each_near(detail::box_around(std::array{a, b}), [&](const Sum& sum) {
            open = open && (sum.is_one_way() || !inside_of(sum.ring, a, b));
        });
        return open;
    }
    void add_move(int from, Move move) {
        std::vector<Move>& moves = moves_[static_cast<std::size_t>(from)];
        if (std::none_of(moves.begin(), moves.end(), [&](const Move& other) { return other.to == move.to; }))
            moves.push_back(std::move(move));
    }
    void touch(const std::vector<Target>& targets) {
        for (std::size_t t = 0; t < targets.size(); ++t) {
            const Level* level = find_level(targets[t].storey);
            if (level == nullptr) continue;
            for (const Ring& ring : targets[t].rings) {
                std::set<int> known;
                Regions solid;
                level->obstacles.each_near(detail::box_around(ring), [&](const Sum& sum) {
                    if (!sum.is_one_way()) solid.push_back({ring_of(sum), {}});
                });
                for (const Region& free : subtract(Regions{{ring, {}}}, solid)) {
                    // What is free may be parted by lines that stop one way only.
                    for (const Triangle& triangle : triangles({&free, 1})) {
                        const Point p = inside_point({{triangle.begin(), triangle.end()}, {}});
                        const int place = place_of(*level, p);
                        if (place >= 0 && known.insert(place).second)
                            touched_[static_cast<std::size_t>(place)].push_back(
                                {static_cast<int>(t), {place, going_, {p}}});
                    }
                }
            }
        }
    }

    const Map* map_ = nullptr;
    Going going_;
    std::vector<Level> levels_;
    std::vector<Place> places_;
    std::vector<std::vector<Move>> moves_;
    std::vector<std::vector<Touched>> touched_;
};

}   // namespace

std::unique_ptr<Ways> ways_free(const WaysOf& of) { return std::make_unique<FreeWays>(of, nullptr); }

ClimbedCells climbed_cells(const WaysOf& of) {
    ClimbedCells cells;
    const FlagSet climbs = of.figures().climbs;
    if (climbs == 0) return cells;
    for (const StoreyId storey : ground::storeys_of(of.map))
        for (int r = 0; r < of.map.rows; ++r)
            for (int c = 0; c < of.map.columns; ++c)
                if ((passability(of.world, of.map, {c, r}, storey, of.facts).flags & climbs) != 0)
                    cells[storey].push_back(of.map.cell_ring(c, r));
    return cells;
}

std::unique_ptr<Ways> ways_climbing(const WaysOf& of, const ClimbedCells& cells, const Ways* before) {
    return std::make_unique<FreeWays>(of, &cells, static_cast<const FreeWays*>(before));
}

}   // namespace dryground::travel

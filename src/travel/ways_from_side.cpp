// The ways of a mover that is seen from the side. ¶ Places are stands, and points in the air where a body comes into
// being or arrives. What leads on from a place is worked out when it is first asked.

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <utility>

#include "air_internal.hpp"
#include "side_ground_internal.hpp"

namespace dryground::travel {

namespace {

// Returns the edge of a stand that a position is on.
std::size_t edge_of(const Ring& points, Point p) {
    std::size_t best = 0;
    double nearest = 1e300;
    for (std::size_t i = 0; i + 1 < points.size(); ++i) {
        const Point a = points[i], b = points[i + 1];
        const double x = std::clamp<double>(p.x, std::min(a.x, b.x), std::max(a.x, b.x)),
                     y = std::clamp<double>(p.y, std::min(a.y, b.y), std::max(a.y, b.y));
        const double length = std::max(1.0, std::hypot(static_cast<double>(b.x) - a.x, static_cast<double>(b.y) - a.y));
        const double off = std::hypot(p.x - x, p.y - y) + std::abs(static_cast<double>(cross(a, b, p))) / length;
        if (off < nearest) nearest = off, best = i;
    }
    return best;
}

class SideWays : public Ways {
public:
    explicit SideWays(const WaysOf& of) : ground_(std::make_unique<SideGround>(of)), known_(ground_->places.size()) {}

    // Finds the places anew, and keeps what leads on from those that lie away from the change. Moving solids have too
    // many ways in.
    [[nodiscard]] bool follow(const WaysOf& of, const std::vector<Bounds>& changed, bool other_targets) override {
        if (other_targets || !ground_->solids.empty()) return false;
        auto now = std::make_unique<SideGround>(of, ground_.get());
        std::vector<std::unique_ptr<SideWaysOn>> known(now->places.size());
        const std::vector<int> numbers = numbers_in(*now);
        const std::vector<Bounds> near =
            positions_near(changed, of.figures(), ground_->footing.kerb + 4 * rounding_steps + 2 * steps_per_px);
        for (std::size_t place = 0; place < known_.size(); ++place)
            if (known_[place] && numbers[place] >= 0 && lies_away(*known_[place], near) &&
                renumber(*known_[place], numbers))
                known[static_cast<std::size_t>(numbers[place])] = std::move(known_[place]);
        ground_ = std::move(now), known_ = std::move(known);
        in_air_.clear();
        return true;
    }

    [[nodiscard]] int places() const override { return static_cast<int>(ground_->places.size()); }
    [[nodiscard]] Going going(int place) const override { return climb(place) < 0 ? Going::walks : Going::climbs; }

    [[nodiscard]] int find_place(StoreyId storey, Point p) const override {
        const SideLevel* level = ground_->level(storey);
        if (level == nullptr) return -1;
        if (const int stand = ground_->stand_at(*level, p, false); stand >= 0) return stand;
        if (const int climb = ground_->climb_at(storey, p); climb >= 0) return climb;
        const std::vector<int> on_solids = ground_->stands_on_solids(*level, p);
        if (!on_solids.empty()) return on_solids.front();
        const auto in_air = in_air_.find({storey, p.x, p.y});
        return in_air == in_air_.end() ? -1 : in_air->second;
    }
    [[nodiscard]] std::vector<int> find_places(StoreyId storey, Point p) const override {
        std::vector<int> places = Ways::find_places(storey, p);
        if (const SideLevel* level = ground_->level(storey); level != nullptr)
            for (const int stand : ground_->stands_on_solids(*level, p))
                if (stand != places.front()) places.push_back(stand);
        return places;
    }
    [[nodiscard]] int place_at(StoreyId storey, Point p) override {
        const SideLevel* level = ground_->level(storey);
        if (level == nullptr || !level->obstacles.may_be(p)) return -1;
        if (const int place = find_place(storey, p); place >= 0) return place;
        const auto [known, is_new] = in_air_.try_emplace({storey, p.x, p.y}, places());
        if (is_new) {
            ground_->places.push_back({{{p, p}}, level->number, true, -1, {}});
            known_.emplace_back();
        }
        return known->second;
    }
    [[nodiscard]] const std::vector<Move>& moves(int place) override { return on(place).moves; }
    [[nodiscard]] const std::vector<Touched>& touched(int place) override { return on(place).touched; }
    [[nodiscard]] std::vector<Point> falls_out(int place) override { return on(place).falls_out; }
    [[nodiscard]] TravelPlace shape(int place) const override {
        const SidePlace& of = ground_->places[static_cast<std::size_t>(place)];
        if (of.climb >= 0) return ground_->climbing->shape(of.climb);
        TravelPlace shape;
        shape.storey = ground_->levels[of.level].storey;
        if (of.is_stood_on() && is_shown(ground_->levels[of.level]))
            for (const Point p : of.stand.points) shape.line.push_back(px_of(p));
        return shape;
    }
    [[nodiscard]] Carrier carrier(int place) const override {
        const SideLevel& level = ground_->levels[ground_->places[static_cast<std::size_t>(place)].level];
        if (!level.has_solid()) return {};
        const MovingSolid& solid = ground_->solids[level.solid];
        const Point by = solid.stops[level.stop].by, at = ground_->map.object(solid.object).position;
        return {solid.object, px_of(moved(at, by))};
    }
    [[nodiscard]] Ring way_within(int place, Point from, Point to) override {
        if (climb(place) >= 0) return ground_->climbing->way_within(climb(place), from, to);
        const Ring& points = ground_->stand(place).points;
        Ring way{from};
        const std::size_t a = edge_of(points, from), b = edge_of(points, to);
        if (a < b)
            for (std::size_t i = a + 1; i <= b; ++i) way.push_back(points[i]);
        else
            for (std::size_t i = a; i > b; --i) way.push_back(points[i]);
        way.push_back(to);
        way.erase(std::unique(way.begin(), way.end()), way.end());
        return way;
    }
    void add_may_be(int place, MayBe& may_be) override {
        for (const Move& move : moves(place)) may_be.add(move.to);
        for (const Touched& touch : touched(place)) may_be.touch(touch.target);
        const SidePlace& of = ground_->places[static_cast<std::size_t>(place)];
        const SideLevel& own = ground_->levels[of.level];
        const SideLevel& level = own.fixed();
        add_walks_between_stops(of, own, may_be);
        if (!ground_->knows_jump) {   // it may jump anywhere
            for (const SideLevel::Edge& edge : level.edges) may_be.add(edge.stand);
            for (const SideLevel::Climbed& cell : level.climbed)
                for (const int climb : cell.places) may_be.add(climb);
            for (const int target : level.targets) may_be.touch(target);
            for (const std::size_t number : level.with_solid) add_solid(number, may_be);
        } else if (ground_->flight.jump <= 0) {
            add_below(own.has_solid() ? detail::box_around(own.swept) : around(of), level, may_be);
        } else {
            for (const int stand : on(place).perhaps_to) may_be.add(stand);
            for (const int target : on(place).perhaps_touched) may_be.touch(target);
            for (const int number : on(place).perhaps_with_solid) add_solid(static_cast<std::size_t>(number), may_be);
        }
    }

private:
    [[nodiscard]] int climb(int place) const { return ground_->places[static_cast<std::size_t>(place)].climb; }
    [[nodiscard]] const SideWaysOn& on(int place) {
        std::unique_ptr<SideWaysOn>& known = known_[static_cast<std::size_t>(place)];
        if (!known) known = std::make_unique<SideWaysOn>(side_ways_on(*ground_, place));
        return *known;
    }
    [[nodiscard]] Bounds around(const SidePlace& of) const {
        return of.climb < 0 ? detail::box_around(of.stand.points) : *bounds(ground_->climbing->shape(of.climb).area);
    }
    // For a mover that does not jump it is unknown how it drifts as it falls.
    void add_below(const Bounds& from, const SideLevel& level, MayBe& may_be) const {
        const double depth = std::min<double>(std::max(0, ground_->map.most().y - from.least.y),
                                              ground_->flight.drop.value_or(coordinate_limit));
        const std::int32_t far = depth > 0 ? coordinate_limit / 2 : 1;
        const Region below = box_region({from.least.x - far, from.least.y - 1},
                                        {from.most.x + far, from.most.y + static_cast<std::int32_t>(depth) + 1});
        const Bounds box = detail::box_around(below.outline);
        level.each_edge_near(box, [&](const SideLevel::Edge& edge) {
            const auto [c, d] = ground_->ends(edge);
            if (inside_of(below.outline, {c.x, c.y - 1}, {d.x, d.y - 1})) may_be.add(edge.stand);
        });
        level.each_climbed_near(box, [&](const SideLevel::Climbed& cell) {
            for (const int climb : cell.places) may_be.add(climb);
        });
        level.each_target_near(box, [&](int target, const Ring& ring) {
            const Region region{ring, {}};
            if (!intersect({&below, 1}, {&region, 1}).empty()) may_be.touch(target);
        });
        level.each_swept_near(box, [&](std::size_t number) { add_solid(number, may_be); });
    }
    // A body that may be on a moving solid somewhere may be on it anywhere.
    void add_solid(std::size_t level, MayBe& may_be) const {
        for (const std::size_t number : ground_->levels_of_solids[ground_->levels[level].solid])
            for (const SideLevel::Edge& edge : ground_->levels[number].edges) may_be.add(edge.stand);
    }
    // Adds what can be walked on between two of a moving solid's stops.
    void add_walks_between_stops(const SidePlace& of, const SideLevel& level, MayBe& may_be) const {
        const std::int32_t near = ground_->footing.kerb + 2;
        if (level.has_solid()) {
            add_solid(level.number, may_be);
            level.fixed().each_edge_near(detail::grown(detail::box_around(level.swept), near),
                                         [&](const SideLevel::Edge& edge) { may_be.add(edge.stand); });
        } else if (of.climb < 0) {
            level.each_swept_near(detail::grown(detail::box_around(of.stand.points), near),
                                  [&](std::size_t number) { add_solid(number, may_be); });
        }
    }
    // Stands on a moving solid are reported where its path turns and ends, and not everywhere between.
    [[nodiscard]] bool is_shown(const SideLevel& level) const {
        return !level.has_solid() || ground_->solids[level.solid].stops[level.stop].is_of_path;
    }

    // Returns for each place its number where the same is found anew; -1 if it is not.
    [[nodiscard]] std::vector<int> numbers_in(const SideGround& now) const {
        std::vector<int> numbers(ground_->places.size(), -1);
        number_stands(now, numbers);
        number_climbs(now, numbers);
        return numbers;
    }
    void number_stands(const SideGround& now, std::vector<int>& numbers) const {
        const auto is_same = [&](const SidePlace& of, std::size_t number) {
            if (number >= now.places.size()) return false;
            const SidePlace& other = now.places[number];
            return other.climb < 0 && other.level == of.level && other.stand.slides == of.stand.slides &&
                   other.stand.points == of.stand.points;
        };
        std::map<Point, std::vector<std::size_t>> by_first_point;   // made when it is needed
        std::size_t next = 0;                                       // most come in the same order
        for (std::size_t place = 0; place < numbers.size(); ++place) {
            const SidePlace& of = ground_->places[place];
            if (of.in_air || of.climb >= 0) continue;
            if (!is_same(of, next)) {
                if (by_first_point.empty())
                    for (std::size_t i = 0; i < now.places.size(); ++i)
                        if (now.places[i].climb < 0) by_first_point[now.places[i].stand.points.front()].push_back(i);
                const auto found = by_first_point.find(of.stand.points.front());
                if (found == by_first_point.end()) continue;
                const auto same = std::find_if(found->second.begin(), found->second.end(),
                                               [&](std::size_t number) { return is_same(of, number); });
                if (same == found->second.end()) continue;
                next = *same;
            }
            numbers[place] = static_cast<int>(next++);
        }
    }
    void number_climbs(const SideGround& now, std::vector<int>& numbers) const {
        if (!ground_->climbing || !now.climbing) return;
        std::map<std::pair<StoreyId, Ring>, int> by_outline;
        for (int climb = 0; climb < now.climbing->places(); ++climb) {
            const TravelPlace shape = now.climbing->shape(climb);
            by_outline.emplace(std::pair(shape.storey, shape.area.front().outline), climb);
        }
        for (int climb = 0; climb < ground_->climbing->places(); ++climb) {
            const TravelPlace shape = ground_->climbing->shape(climb);
            const auto found = by_outline.find({shape.storey, shape.area.front().outline});
            if (found != by_outline.end() && now.climbing->shape(found->second).area == shape.area)
                numbers[static_cast<std::size_t>(ground_->place_of_climb(climb))] = now.place_of_climb(found->second);
        }
    }
    [[nodiscard]] static bool lies_away(const SideWaysOn& known, const std::vector<Bounds>& near) {
        return known.looked_at && std::none_of(near.begin(), near.end(),
                                               [&](const Bounds& box) { return detail::meet(box, *known.looked_at); });
    }
    // Returns false if a place that it leads to is no longer there.
    [[nodiscard]] static bool renumber(SideWaysOn& known, const std::vector<int>& numbers) {
        bool all = true;
        const auto renew = [&](int& place) {
            place = numbers[static_cast<std::size_t>(place)];
            all = all && place >= 0;
        };
        for (Move& move : known.moves) renew(move.to);
        for (Touched& touch : known.touched) renew(touch.move.to);
        for (int& place : known.perhaps_to) renew(place);
        return all;
    }

    std::unique_ptr<SideGround> ground_;
    std::vector<std::unique_ptr<SideWaysOn>> known_;   // by place; null: not asked yet
    std::map<std::tuple<StoreyId, std::int32_t, std::int32_t>, int> in_air_;
};

}   // namespace

std::unique_ptr<Ways> ways_from_side(const WaysOf& of) { return std::make_unique<SideWays>(of); }

}   // namespace dryground::travel

// Why something is not reached. First it is tried with all facts: the first thing on the way there that needs one is
// the lock. If that does not get there either, it is tried with a smaller body, or a higher or longer jump, by the
// least that helps.

#include <algorithm>
#include <map>
#include <set>
#include <tuple>

#include "reach_internal.hpp"

namespace dryground {

using travel::Deed;
using travel::Done;
using travel::Sweep;

namespace {

constexpr int most_px = 64;   // how much another figure is tried for

Facts all_facts(const World& world) {
    Facts all;
    for (const FactId fact : ids<FactId>(world.facts())) all.push_back(fact);
    return all;
}

}   // namespace

class Reach::Parts::Reasons {
public:
    explicit Reasons(const Reach::Parts& parts) : parts_(parts), all_(all_facts(parts.world)) {}

    InTheWay of(const Done& what) {
        if (!parts_.start || parts_.stages.mover_on(what.map) == MoverId::none)
            return {.sort = InTheWay::Sort::nowhere};
        const Sweep& open = sweep_with(all_);
        const auto contact = std::find_if(open.contacts.begin(), open.contacts.end(),
                                          [&](const Sweep::Contact& c) { return c.what == what; });
        if (contact != open.contacts.end())
            if (const InTheWay lock = first_lock(open, *contact); lock.sort != InTheWay::Sort::nothing) return lock;
        return of_figures(what);
    }

    // Returns the reason for a thing that can be touched, and yet does not give its fact.
    InTheWay lock_of(const Done& what) {
        const Deed& deed = deed_of(what);
        for (const FactId fact : deed.needs)
            if (!std::binary_search(held().begin(), held().end(), fact)) return lack(fact, what);
        return {};
    }

private:
    // Another body, or other figures, by some px.
    using Figure = std::tuple<InTheWay::Sort, int>;
    // Where a mover with other figures left the real one's places, for all things that it touches on a map.
    using Touches = std::map<int, Spot>;

    // Each is made once, for all queries.
    const Sweep& sweep_with(const Facts& facts) {
        const auto [known, is_new] = sweeps_.try_emplace(facts);
        if (is_new) known->second = travel::sweep(parts_.stages, *parts_.start, facts);
        return known->second;
    }
    [[nodiscard]] const Facts& held() const { return parts_.most_held(); }
    [[nodiscard]] const Deed& deed_of(const Done& what) const {
        return parts_.stages.deeds(what.map).deeds[static_cast<std::size_t>(what.deed)];
    }

    InTheWay lack(FactId fact, const std::optional<Done>& what) {
        InTheWay lock;
        lock.sort = InTheWay::Sort::needs_fact;
        lock.fact = fact;
        if (what) {
            const Deed& deed = deed_of(*what);
            const Map& map = parts_.world.map(what->map);
            lock.map = what->map, lock.object = deed.object, lock.layer = deed.layer;
            lock.cell = map.cell(deed.cell);
        }
        if (!is_given(fact))
            lock.sort = InTheWay::Sort::fact_never_given;
        else if (lies_behind_itself(fact))
            lock.sort = InTheWay::Sort::behind_itself;
        return lock;
    }
    [[nodiscard]] bool is_given(FactId fact) const {
        for (std::size_t m = 0; m < parts_.world.maps().size(); ++m) {
            if (parts_.stages.mover_on(id_of<MapId>(m)) == MoverId::none) continue;
            for (const Deed& deed : parts_.stages.deeds(id_of<MapId>(m)).deeds)
                if (travel::fires(deed) && std::find(deed.gives.begin(), deed.gives.end(), fact) != deed.gives.end())
                    return true;
        }
        return false;
    }
    // Returns whether a fact cannot be gained anywhere, even if all other facts hold, but can once it holds itself.
    [[nodiscard]] bool lies_behind_itself(FactId fact) {
        Facts others = all_;
        others.erase(std::remove(others.begin(), others.end(), fact), others.end());
        return !is_given_in(sweep_with(others), fact) && is_given_in(sweep_with(all_), fact);
    }
    [[nodiscard]] bool is_given_in(const Sweep& sweep, FactId fact) const {
        return std::any_of(sweep.contacts.begin(), sweep.contacts.end(), [&](const Sweep::Contact& contact) {
            const Deed& deed = deed_of(contact.what);
            return travel::fires(deed) && std::find(deed.gives.begin(), deed.gives.end(), fact) != deed.gives.end();
        });
    }

    // Returns what on the way to a node, with all facts given, first needs one that is not held.
    InTheWay first_lock(const Sweep& open, const Sweep::Contact& contact) {
        std::vector<const travel::Hop*> hops;
        for (std::size_t n = contact.node; n != 0; n = hops.back()->from)
            hops.push_back(&open.hops[open.nodes[n].first]);
        std::reverse(hops.begin(), hops.end());
        for (const travel::Hop* hop : hops) {
            if (hop->touch != nullptr) {
                const Done what{open.nodes[hop->from].map, hop->touch->target};
                if (const InTheWay lock = lock_of(what); lock.sort != InTheWay::Sort::nothing) return lock;
            }
            // Where the move begins, and where it ends.
            const travel::Move& move = hop->move != nullptr ? *hop->move : hop->touch->move;
            for (const Point p : {move.way.front(), move.way.back()})
                if (const InTheWay lock = ground_lock(open.nodes[hop->from], p); lock.sort != InTheWay::Sort::nothing)
                    return lock;
        }
        if (contact.touch == nullptr) return {};
        return ground_lock(open.nodes[contact.node], contact.touch->move.way.front());
    }
    // Returns ground that a fact would open, so that a position on the map of a place can be reached.
    InTheWay ground_lock(const Sweep::Node& on, Point at) {
        const travel::Stage& stage = parts_.stages.on(on.map, all_);
        const Spot end{on.map, stage.ways->shape(on.place).storey, travel::px_of(at)};
        if (reached_with(held(), end)) return {};
        for (const FactId fact : stage.facts) {
            if (std::binary_search(held().begin(), held().end(), fact)) continue;
            Facts more = held();
            more.insert(std::lower_bound(more.begin(), more.end(), fact), fact);
            if (!reached_with(more, end)) continue;
            InTheWay lock = lack(fact, std::nullopt);
            lock.map = on.map;
            find_tile(on.map, fact, lock);
            return lock;
        }
        return {};
    }
    [[nodiscard]] bool reached_with(const Facts& facts, const Spot& end) {
        const int place = parts_.stages.on(end.map, facts).ways->find_place(end.storey, travel::steps_of(end.at));
        return place >= 0 && sweep_with(facts).find(end.map, place).has_value();
    }
    // Finds a tile that stands in the way until a fact holds.
    void find_tile(MapId map_id, FactId fact, InTheWay& lock) const {
        const Map& map = parts_.world.map(map_id);
        for (std::size_t l = 0; l < map.layers.size(); ++l)
            for (int r = 0; !map.layers[l].holds_objects && r < map.rows; ++r)
                for (int c = 0; c < map.columns; ++c) {
                    const Placed& placed = map.placed(map.layers[l], c, r);
                    if (placed.tile < 0) continue;
                    const std::vector<FactId>& needs = parts_.world.tile(placed).needs;
                    if (std::find(needs.begin(), needs.end(), fact) == needs.end()) continue;
                    lock.layer = id_of<LayerId>(l), lock.cell = map.cell({c, r});
                    return;
                }
    }

    // ---- figures ----

    // Returns what a slightly different mover touches on a map, starting from where the real one gets.
    const Touches& touches(MapId map, const Mover& like, const Figure& figure) {
        const auto [known, is_new] = touches_.try_emplace({map, figure});
        Touches& touched = known->second;
        if (!is_new) return touched;
        const travel::Stage& real = parts_.stages.on(map, held());
        const auto flags = parts_.found.places.find({map, real.facts});
        if (flags == parts_.found.places.end()) return touched;
        travel::Stage stage = parts_.stages.with(map, held(), like);
        struct From {
            int place;
            std::optional<Spot> left;   // where it went on from the real one's places
        };
        std::vector<From> open;
        std::set<int> seen;
        const auto add = [&](int place, const std::optional<Spot>& left) {
            if (place >= 0 && seen.insert(place).second) open.push_back({place, left});
        };
        for (std::size_t place = 0; place < flags->second.size(); ++place) {
            if (flags->second[place] == 0) continue;
            const TravelPlace shape = real.ways->shape(static_cast<int>(place));
            for (const PointPx p : shape.line) add(stage.ways->find_place(shape.storey, travel::steps_of(p)), {});
            for (const Region& region : shape.area)
                for (const Point p : region.outline) add(stage.ways->find_place(shape.storey, p), {});
        }
        for (std::size_t i = 0; i < open.size(); ++i) {
            const From from = open[i];
            const StoreyId storey = stage.ways->shape(from.place).storey;
            const auto left = [&](const travel::Move& move) {
                return from.left ? *from.left : Spot{map, storey, travel::px_of(move.way.front())};
            };
            for (const travel::Touched& touch : stage.ways->touched(from.place))
                touched.try_emplace(touch.target, left(touch.move));
            for (const travel::Move& move : stage.ways->moves(from.place)) add(move.to, left(move));
        }
        return touched;
    }
    // Returns the least number of px, up to some, with which a thing is touched, and from where. With more px it is
    // touched, too.
    template <class Change>
    std::optional<std::pair<int, Spot>> least_px(const Done& what, InTheWay::Sort sort, int most, Change change) {
        const auto test = [&](int px) -> std::optional<Spot> {
            const Touches& all = touches(what.map, change(px), {sort, px});
            const auto touch = all.find(what.deed);
            return touch == all.end() ? std::nullopt : std::optional(touch->second);
        };
        if (most < 1) return std::nullopt;
        std::optional<Spot> spot = test(most);
        if (!spot) return std::nullopt;
        int works = most, fails = 0;
        while (works - fails > 1) {
            const int middle = fails + (works - fails) / 2;
            if (const std::optional<Spot> there = test(middle))
                works = middle, spot = there;
            else
                fails = middle;
        }
        return std::pair{works, *spot};
    }

    InTheWay of_figures(const Done& what) {
        InTheWay way;
        way.map = what.map, way.object = deed_of(what).object;
        const MoverId mover_id = parts_.stages.mover_on(what.map);
        const bool is_entered = std::any_of(parts_.found.places.begin(), parts_.found.places.end(),
                                            [&](const auto& entry) { return entry.first.first == what.map; });
        if (mover_id == MoverId::none || !is_entered) {
            way.sort = InTheWay::Sort::nowhere;
            return way;
        }
        const Mover& mover = parts_.world.mover(mover_id);
        const Bounds box = *bounds(mover.body);
        const std::int32_t side = std::min(box.most.x - box.least.x, box.most.y - box.least.y);
        int best = most_px + 1;
        const auto take = [&](InTheWay::Sort sort, int most, auto change) {
            const auto least = least_px(what, sort, most, change);
            if (!least || least->first >= best) return;
            best = least->first;
            way.sort = sort, way.by_px = least->first, way.from = least->second;
        };
        take(InTheWay::Sort::too_narrow, std::min(side / steps_per_px - 1, most_px),
             [&](int px) { return smaller(mover, box, px); });
        if (mover.moves == Moves::side && mover.jump_px && mover.leap_px) {
            const auto with = [&mover](std::optional<double> Mover::*figure, int px) {
                Mover like = mover;
                *(like.*figure) += px;
                return like;
            };
            take(InTheWay::Sort::too_high, most_px, [&](int px) { return with(&Mover::jump_px, px); });
            take(InTheWay::Sort::too_far, most_px, [&](int px) { return with(&Mover::leap_px, px); });
        }
        if (best > most_px) way.sort = InTheWay::Sort::closed;
        return way;
    }
    // Returns a body narrower and lower by some px, its feet where they are.
    static Mover smaller(const Mover& mover, const Bounds& box, int px) {
        Mover like = mover;
        const double wide = box.most.x - box.least.x, high = box.most.y - box.least.y, by = px * steps_per_px;
        const double middle = (static_cast<double>(box.least.x) + box.most.x) / 2;
        std::vector<Point> points;
        for (const Point p : mover.body.front().outline)
            points.push_back({static_cast<std::int32_t>(middle + (p.x - middle) * (wide - by) / wide),
                              static_cast<std::int32_t>(box.most.y - (box.most.y - p.y) * (high - by) / high)});
        like.body = {{convex_hull(std::move(points)), {}}};
        return like;
    }

    const Reach::Parts& parts_;
    Facts all_;
    std::map<Facts, Sweep> sweeps_;
    std::map<std::pair<MapId, Figure>, Touches> touches_;   // by map
};

Reach::Parts::Parts(const World& of, const ReachOptions& asked) : world(of), options(asked), stages(of, asked.mover) {}
Reach::Parts::~Parts() = default;
void Reach::Parts::forget() {
    found = {}, goals.clear(), dead_ends.clear(), bottomless.clear();
    maybe_.reset(), places_.reset(), reasons_.reset();
}

Reach::Parts::Reasons& Reach::Parts::reasons() const {
    if (!reasons_) reasons_ = std::make_unique<Reasons>(*this);
    return *reasons_;
}

InTheWay Reach::Parts::why_not(const Done& what) const { return reasons().of(what); }

InTheWay Reach::Parts::why_no_fact(FactId fact) const {
    std::optional<InTheWay> first;
    for (std::size_t m = 0; m < world.maps().size(); ++m) {
        if (stages.mover_on(id_of<MapId>(m)) == MoverId::none) continue;
        const std::vector<Deed>& deeds = stages.deeds(id_of<MapId>(m)).deeds;
        for (std::size_t d = 0; d < deeds.size(); ++d) {
            if (!travel::fires(deeds[d]) ||
                std::find(deeds[d].gives.begin(), deeds[d].gives.end(), fact) == deeds[d].gives.end())
                continue;
            const Done what{id_of<MapId>(m), static_cast<int>(d)};
            const InTheWay way = found.reached.count(what) != 0 ? reasons().lock_of(what) : reasons().of(what);
            if (!first) first = way;
        }
    }
    if (first) return *first;
    return {.sort = InTheWay::Sort::fact_never_given, .fact = fact};
}

}   // namespace dryground

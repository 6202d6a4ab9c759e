// What a mover reaches in a whole world: the calls of travel.hpp.
//
// Idea. What is surely reached comes from a search over states of the facts (search.cpp); the most generous reading is
// only computed if something is not surely reached. Dead ends come from the same sweeps, backwards.

#include <fmt/format.h>

#include <algorithm>
#include <iterator>
#include <set>
#include <stdexcept>

#include "reach_internal.hpp"
#include "route_internal.hpp"

namespace dryground {

namespace {

void need_id(bool holds, std::string_view what, int id) {
    if (!holds) throw std::out_of_range(fmt::format("dryground::Reach: there is no {} {}", what, id));
}

}   // namespace

void Reach::Parts::search() {
    forget();
    find_start();
    if (start) found = travel::find_surely(stages, *start, options.given, options.states);
    find_goals();
    if (!start) return;
    find_holes();
    find_dead_ends();
}

void Reach::Parts::find_start() {
    start = options.from;
    if (!start && world.start().map != MapId::none && world.start().object != ObjectId::none) {
        const Map& map = world.map(world.start().map);
        const Object& object = map.object(world.start().object);
        start = Spot{world.start().map, object.storey, travel::px_of(object.position)};
    }
    if (start && stages.mover_on(start->map) == MoverId::none) start.reset();
}

travel::Done Reach::Parts::thing(MapId map, ObjectId object) const {
    need_id(map != MapId::none && index(map) < world.maps().size(), "map", static_cast<int>(map));
    const Map& of = world.map(map);
    need_id(object != ObjectId::none && index(object) < of.objects.size(), "object", static_cast<int>(object));
    return {map, static_cast<int>(object)};   // a map's deeds begin with its objects
}

void Reach::Parts::find_goals() {
    for (const Goal& goal : world.goals())
        goals.push_back({goal.map, goal.object, goal.fact,
                         goal.object != ObjectId::none ? of(thing(goal.map, goal.object))
                         : goal.fact != FactId::none   ? of_fact(goal.fact)
                                                       : Reached::not_decided});   // its map was not read
}

Reached Reach::Parts::of(const travel::Done& what) const {
    if (found.reached.count(what) != 0) return Reached::yes;
    if (!found.complete || maybe().reached.count(what) != 0) return Reached::not_decided;
    const auto map = index(what.map);
    if (map < maybe().maps.size() && maybe().maps[map] != 0 && !is_fixed(what.map)) return Reached::not_decided;
    return Reached::no;
}

Reached Reach::Parts::of_fact(FactId fact) const {
    if (std::binary_search(options.given.begin(), options.given.end(), fact) || found.facts.count(fact) != 0)
        return Reached::yes;
    if (!found.complete) return Reached::not_decided;
    return std::binary_search(maybe().held.begin(), maybe().held.end(), fact) ? Reached::not_decided : Reached::no;
}

const Facts& Reach::Parts::most_held() const {
    static const Facts none;
    const auto most =
        std::max_element(found.states.begin(), found.states.end(),
                         [](const travel::State& a, const travel::State& b) { return a.held.size() < b.held.size(); });
    return most == found.states.end() ? none : most->held;
}

const travel::FoundMaybe& Reach::Parts::maybe() const {
    if (!maybe_) maybe_ = start ? travel::find_maybe(stages, *start, options.given) : travel::FoundMaybe{};
    return *maybe_;
}

bool Reach::Parts::is_fixed(MapId map) const {
    if (stages.only_opens(map)) return true;
    Facts coming;
    std::set_difference(maybe().held.begin(), maybe().held.end(), options.given.begin(), options.given.end(),
                        std::back_inserter(coming));
    for (std::size_t m = 0; m < maybe().maps.size(); ++m)
        if (maybe().maps[m] != 0 && stages.may_close(id_of<MapId>(m), coming)) return false;
    return true;
}

const std::vector<TravelPlace>& Reach::Parts::places() const {
    if (!places_) list_places();
    return *places_;
}

void Reach::Parts::find_holes() {
    for (const auto& [key, flags] : found.places)
        for (std::size_t place = 0; place < flags.size(); ++place) {
            if (flags[place] == 0) continue;
            travel::Ways& ways = *stages.on(key.first, key.second).ways;
            for (const Point p : ways.falls_out(static_cast<int>(place))) {
                const Spot hole{key.first, ways.shape(static_cast<int>(place)).storey, travel::px_of(p)};
                if (std::find(bottomless.begin(), bottomless.end(), hole) == bottomless.end())
                    bottomless.push_back(hole);
            }
        }
}

void Reach::Parts::list_places() const {
    places_.emplace();
    for (std::size_t m = 0; m < world.maps().size(); ++m) {
        const MapId map = id_of<MapId>(m);
        if (m >= maybe().maps.size() || maybe().maps[m] == 0) continue;
        travel::Stage& stage = stages.on(map, most_held());
        const auto sure = found.places.find({map, stage.facts});
        // The most generous reading may know more facts: what it reached is looked up by position.
        travel::Stage& wider = stages.loosest(map, maybe().held);
        const auto may_be = maybe().stages.find({map, wider.facts});
        const bool fixed = is_fixed(map);
        for (int place = 0; place < stage.ways->places(); ++place) {
            TravelPlace shape = stage.ways->shape(place);
            if (shape.line.empty() && shape.area.empty()) continue;
            shape.map = map;
            if (sure != found.places.end() && static_cast<std::size_t>(place) < sure->second.size() &&
                sure->second[static_cast<std::size_t>(place)] != 0) {
                shape.reached = Reached::yes;
            } else if (!fixed || !found.complete) {
                shape.reached = Reached::not_decided;
            } else if (may_be != maybe().stages.end()) {
                int there = place;
                if (&wider != &stage) {
                    const Point p = shape.line.empty()
                                        ? shape.area.front().outline.front()
                                        : travel::steps_of({(shape.line.front().x + shape.line.back().x) / 2,
                                                            (shape.line.front().y + shape.line.back().y) / 2});
                    there = wider.ways->find_place(shape.storey, p);
                }
                shape.reached = there >= 0 && may_be->second.has(there) ? Reached::not_decided : Reached::no;
            }
            places_->push_back(std::move(shape));
        }
    }
}

// Finds dead ends: places that can be reached and from which neither the start, nor a goal, nor anything new can be
// reached, in every state in which they are reached. Ways that are declared to lead one way are meant so.
void Reach::Parts::find_dead_ends() {
    std::set<travel::Done> goal_things;
    for (const GoalReached& goal : goals)
        if (goal.object != ObjectId::none) goal_things.insert(thing(goal.map, goal.object));
    struct End {
        Spot spot;
        int place;
        bool meant;
    };
    std::map<std::tuple<MapId, Facts, int>, End> ends;
    std::set<std::tuple<MapId, Facts, int>> fine_places;
    for (const travel::State& state : found.states) {
        const travel::Sweep now = travel::sweep(stages, state.home, state.held);
        std::vector<std::vector<std::size_t>> before(now.nodes.size());
        for (const travel::Hop& hop : now.hops) before[hop.to].push_back(hop.from);
        std::vector<char> fine(now.nodes.size());
        std::vector<std::size_t> open;
        const auto add = [&](std::size_t node) {
            if (fine[node] == 0) fine[node] = 1, open.push_back(node);
        };
        add(0);
        for (const travel::Sweep::Contact& contact : now.contacts)
            if (goal_things.count(contact.what) != 0 || !travel::gains_of(stages, contact.what, state.held).empty())
                add(contact.touch == nullptr ? contact.node : *now.find(contact.what.map, contact.touch->move.to));
        while (!open.empty()) {
            const std::size_t node = open.back();
            open.pop_back();
            for (const std::size_t from : before[node]) add(from);
        }
        for (std::size_t n = 0; n < now.nodes.size(); ++n) {
            const travel::Sweep::Node& node = now.nodes[n];
            const travel::Stage& stage = stages.on(node.map, state.held);
            const std::tuple key{node.map, stage.facts, node.place};
            if (fine[n] != 0) {
                fine_places.insert(key);
                continue;
            }
            const travel::Hop& hop = now.hops[now.nodes[n].first];
            bool meant = false;
            Point entered{};
            if (hop.move != nullptr) {
                entered = hop.move->way.back();
                // Only where it begins: everything further in is the same dead end.
                if (fine[hop.from] == 0) continue;
            } else {
                const travel::Deed& deed =
                    stages.deeds(now.nodes[hop.from].map).deeds[static_cast<std::size_t>(hop.touch->target)];
                meant = deed.link != nullptr && deed.link->one_way;
                entered = hop.touch->move.way.back();
                if (deed.link != nullptr) entered = world.map(deed.link->map).object(deed.link->object).position;
            }
            ends.try_emplace(
                key, End{{node.map, stage.ways->shape(node.place).storey, travel::px_of(entered)}, node.place, meant});
        }
    }
    for (const auto& [key, end] : ends)
        if (fine_places.count(key) == 0 && !end.meant) dead_ends.push_back(end.spot);
}

// Returns a route that follows a plan, then does one thing more.
std::optional<Route> Reach::Parts::route(const std::vector<travel::Done>& plan, const travel::Done& last,
                                         bool sets_it_off) const {
    std::vector<travel::Planned> all = travel::planned(plan);
    all.push_back({last, true, sets_it_off});
    return travel::shortest_route(stages, *start, options.given, std::move(all));
}

Reach::Reach(std::unique_ptr<Parts> parts) : parts_(std::move(parts)) {}
Reach::~Reach() = default;
Reach::Reach(Reach&&) noexcept = default;
Reach& Reach::operator=(Reach&&) noexcept = default;

bool Reach::begins() const { return parts_->start.has_value() && !parts_->found.states.empty(); }
const std::vector<GoalReached>& Reach::goals() const { return parts_->goals; }
const std::vector<TravelPlace>& Reach::places() const { return parts_->places(); }
const std::vector<Spot>& Reach::dead_ends() const { return parts_->dead_ends; }
const std::vector<Spot>& Reach::bottomless() const { return parts_->bottomless; }

Reached Reach::reached(MapId map, ObjectId object) const { return parts_->of(parts_->thing(map, object)); }

Reached Reach::reached(const Spot& place) const {
    (void)map_reached(place.map);
    const Point p = travel::steps_of(place.at);
    for (const auto& [key, flags] : parts_->found.places) {
        if (key.first != place.map) continue;
        for (const int at : parts_->stages.on(key.first, key.second).ways->find_places(place.storey, p))
            if (static_cast<std::size_t>(at) < flags.size() && flags[static_cast<std::size_t>(at)] != 0)
                return Reached::yes;
    }
    if (!parts_->found.complete) return Reached::not_decided;
    for (const auto& [key, may_be] : parts_->maybe().stages) {
        if (key.first != place.map) continue;
        for (const int at : parts_->stages.loosest(key.first, key.second).ways->find_places(place.storey, p))
            if (may_be.has(at)) return Reached::not_decided;
    }
    const bool fixed = parts_->is_fixed(place.map);
    return fixed || map_reached(place.map) == Reached::no ? Reached::no : Reached::not_decided;
}

Reached Reach::gained(FactId fact) const {
    need_id(fact != FactId::none && index(fact) < parts_->world.facts().size(), "fact", static_cast<int>(fact));
    return parts_->of_fact(fact);
}

Reached Reach::map_reached(MapId map) const {
    need_id(map != MapId::none && index(map) < parts_->world.maps().size(), "map", static_cast<int>(map));
    for (const auto& [key, flags] : parts_->found.places)
        if (key.first == map) return Reached::yes;
    const auto m = index(map);
    if (!parts_->found.complete) return Reached::not_decided;
    return m < parts_->maybe().maps.size() && parts_->maybe().maps[m] != 0 ? Reached::not_decided : Reached::no;
}

std::optional<Route> Reach::route_to(MapId map, ObjectId object) const {
    const travel::Done what = parts_->thing(map, object);
    const auto first = parts_->found.reached.find(what);
    if (first == parts_->found.reached.end()) return std::nullopt;
    return parts_->route(first->second, what, false);
}

std::optional<Route> Reach::route_to(const Spot& place) const {
    (void)map_reached(place.map);
    for (const travel::State& state : parts_->found.states) {
        const travel::Sweep found = travel::sweep(parts_->stages, state.home, state.held);
        const std::vector<int> places =
            parts_->stages.on(place.map, state.held).ways->find_places(place.storey, travel::steps_of(place.at));
        const auto is_found = [&](int at) { return found.find(place.map, at).has_value(); };
        if (std::none_of(places.begin(), places.end(), is_found)) continue;
        return travel::shortest_route(parts_->stages, *parts_->start, parts_->options.given,
                                      travel::planned(state.plan), place);
    }
    return std::nullopt;
}

std::optional<Route> Reach::route_to_fact(FactId fact) const {
    (void)gained(fact);
    const auto first = parts_->found.facts.find(fact);
    if (first == parts_->found.facts.end()) return std::nullopt;
    std::vector<travel::Done> plan = first->second;
    const travel::Done last = plan.back();
    plan.pop_back();
    return parts_->route(plan, last, true);
}

std::optional<Route> Reach::tour() const {
    std::vector<travel::Planned> plan;
    const auto add = [&](const travel::Planned& planned) {
        for (travel::Planned& other : plan)
            if (other.what == planned.what) {
                other.is_kept = other.is_kept || planned.is_kept;
                return;
            }
        plan.push_back(planned);
    };
    struct Wanted {
        std::vector<travel::Done> plan;
        travel::Planned last;
    };
    std::vector<Wanted> all;
    for (const GoalReached& goal : goals()) {
        if (goal.reached != Reached::yes) continue;
        if (goal.object != ObjectId::none) {
            const travel::Done what = parts_->thing(goal.map, goal.object);
            all.push_back({parts_->found.reached.at(what), {what, true, false}});
        } else if (const auto first = parts_->found.facts.find(goal.fact); first != parts_->found.facts.end()) {
            const std::vector<travel::Done>& steps = first->second;
            all.push_back({{steps.begin(), steps.end() - 1}, {steps.back(), true, true}});
        }
    }
    if (all.empty()) return std::nullopt;
    std::stable_sort(all.begin(), all.end(),
                     [](const Wanted& a, const Wanted& b) { return a.plan.size() < b.plan.size(); });
    for (const Wanted& wanted : all) {
        for (const travel::Done& what : wanted.plan) add({what});
        add(wanted.last);
    }
    return travel::shortest_route(parts_->stages, *parts_->start, parts_->options.given, std::move(plan));
}

InTheWay Reach::in_the_way(MapId map, ObjectId object) const {
    const travel::Done what = parts_->thing(map, object);
    return parts_->of(what) == Reached::yes ? InTheWay{} : parts_->why_not(what);
}

InTheWay Reach::in_the_way_of_fact(FactId fact) const {
    return gained(fact) == Reached::yes ? InTheWay{} : parts_->why_no_fact(fact);
}

void Reach::update(MapId map, const Map& now) {
    need_id(map != MapId::none && index(map) < parts_->world.maps().size(), "map", static_cast<int>(map));
    if (parts_->stages.follow(map, now)) parts_->search();
}

Reach reach(const World& world, const ReachOptions& options) {
    need_id(static_cast<int>(options.mover) < static_cast<int>(world.movers().size()), "mover",
            static_cast<int>(options.mover));
    if (options.from)
        need_id(options.from->map != MapId::none && index(options.from->map) < world.maps().size(), "map",
                static_cast<int>(options.from->map));
    auto parts = std::make_unique<Reach::Parts>(world, options);
    parts->search();
    return Reach(std::move(parts));
}

}   // namespace dryground

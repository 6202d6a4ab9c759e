// Routes: what is found, as a list of steps.
//
// Idea. A plan (what to do in which order) is followed sweep by sweep; things that turn out not to be needed are left
// out by trying. Cost: a sweep for each thing of the plan, and for each that is tried.

#include "route_internal.hpp"

#include <algorithm>
#include <cmath>

namespace dryground::travel {

namespace {

// Longer plans are kept as they are: trying what can be left out costs a sweep for each thing and each other.
constexpr std::size_t longest_plan_to_shorten = 24;

}   // namespace

RouteMaker::RouteMaker(Stages& stages, const Spot& start, const Facts& given)
    : stages_(stages), at_(start), held_(given) {
    RouteStep first;
    first.going = Going::starts;
    first.mover = stages.mover_on(start.map);
    first.from = first.to = start;
    first.way = {start.at};
    first.carrier = carrier_at(start);
    route_.push_back(std::move(first));
}

// Returns where it comes into being, or arrives.
Carrier RouteMaker::carrier_at(const Spot& spot) {
    if (stages_.mover_on(spot.map) == MoverId::none) return {};
    const Ways& ways = *stages_.on(spot.map, held_).ways;
    const int place = ways.find_place(spot.storey, steps_of(spot.at));
    return place < 0 ? Carrier{} : ways.carrier(place);
}

RouteStep RouteMaker::step(Going going, const Ring& way) const {
    RouteStep step;
    step.going = going;
    step.mover = stages_.mover_on(at_.map);
    step.from = step.to = at_;
    for (const Point p : way) step.way.push_back(px_of(p));
    if (!way.empty()) step.to.at = px_of(way.back());
    step.px = length_px(way);
    return step;
}

void RouteMaker::add(RouteStep step) {
    at_ = step.to;
    RouteStep& last = route_.back();
    const Carrier from = route_.size() > 1 ? route_[route_.size() - 2].carrier : Carrier{};
    // A moving solid waits while somebody gets onto it or off it, and not while they walk to it or away.
    const bool stays = last.carrier == Carrier{}
                           ? from == Carrier{} && step.carrier == Carrier{}
                           : step.carrier == last.carrier || (step.carrier == Carrier{} && from == last.carrier);
    const bool goes_on = step.going == last.going && last.object == ObjectId::none && last.layer == LayerId::none &&
                         is_even(step.going) && stays;
    if (goes_on) {
        last.way.insert(last.way.end(), step.way.begin() + (step.way.empty() ? 0 : 1), step.way.end());
        last.px += step.px;
        last.to = step.to;
        last.carrier = step.carrier;
    } else {
        route_.push_back(std::move(step));
    }
}

// Adds a step to a position of the same place.
void RouteMaker::walk(int place, Point to) {
    const Point from = steps_of(at_.at);
    if (from == to) return;
    Ways& ways = *stages_.on(at_.map, held_).ways;
    Ring way = ways.way_within(place, from, to);
    if (way.size() < 2) way = {from, to};
    add_on(place, step(ways.going(place), way));
}

void RouteMaker::make(const Move& move) {
    Ring way = move.way;
    if (way.size() < 2) {
        const bool gets_on = stages_.on(at_.map, held_).ways->carrier(move.to) != route_.back().carrier;
        if (!gets_on) return;
        way.push_back(way.front());
    }
    way.front() = steps_of(at_.at);
    RouteStep made = step(move.going, way);
    made.object = move.on;
    add_on(move.to, std::move(made));
}

void RouteMaker::add_on(int place, RouteStep step) {
    step.carrier = stages_.on(at_.map, held_).ways->carrier(place);
    add(std::move(step));
}

void RouteMaker::touch(const Sweep::Node& node, const Touched& touch) {
    walk(node.place, touch.move.way.front());
    make(touch.move);
}

// Of the ways to touch the same thing from a place, takes the one that begins nearest.
void RouteMaker::touch_nearest(const Sweep::Node& node, const Touched& any) {
    const Point from = steps_of(at_.at);
    const auto far = [&](const Touched& touch) {
        const Point p = touch.move.way.front();
        return std::hypot(static_cast<double>(p.x) - from.x, static_cast<double>(p.y) - from.y) +
               length_px(touch.move.way) * steps_per_px;
    };
    const Touched* nearest = &any;
    for (const Touched& touch : stages_.on(node.map, held_).ways->touched(node.place))
        if (touch.target == any.target && touch.move.to == any.move.to && far(touch) < far(*nearest)) nearest = &touch;
    touch(node, *nearest);
}

bool RouteMaker::follow(const Sweep& sweep, std::size_t node) {
    std::vector<const Hop*> hops;
    for (std::size_t n = node; n != 0; n = hops.back()->from) hops.push_back(&sweep.hops[sweep.nodes[n].first]);
    std::reverse(hops.begin(), hops.end());
    for (const Hop* hop : hops) {
        const Sweep::Node& from = sweep.nodes[hop->from];
        if (hop->move != nullptr) {
            walk(from.place, hop->move->way.front());
            make(*hop->move);
            continue;
        }
        touch_nearest(from, *hop->touch);
        const Deed& deed = stages_.deeds(from.map).deeds[static_cast<std::size_t>(hop->touch->target)];
        RouteStep link = step(deed.link != nullptr ? Going::link : Going::stairs, {});
        link.object = deed.object, link.layer = deed.layer;
        const Map& map = stages_.map(from.map);
        link.cell = map.cell(deed.cell);
        link.fires = deed.fires, link.needs = deed.needs;
        if (deed.link != nullptr) {
            const Object& end = stages_.world().map(deed.link->map).object(deed.link->object);
            link.to = {deed.link->map, end.storey, px_of(end.position)};
        } else {
            link.to.storey = deed.leads;
        }
        link.carrier = carrier_at(link.to);
        add(std::move(link));
    }
    return true;
}

bool RouteMaker::go_to(const Done& what, bool sets_it_off) {
    const Deed& deed = stages_.deeds(what.map).deeds[static_cast<std::size_t>(what.deed)];
    if (sets_it_off && (!fires(deed) || !all_hold(deed.needs, held_))) return false;
    const Sweep now = sweep(stages_, at_, held_);
    const auto contact =
        std::find_if(now.contacts.begin(), now.contacts.end(), [&](const Sweep::Contact& c) { return c.what == what; });
    if (contact == now.contacts.end()) return false;
    follow(now, contact->node);
    if (contact->touch != nullptr) touch_nearest(now.nodes[contact->node], *contact->touch);
    RouteStep does = step(Going::does, {});
    does.carrier = route_.back().carrier;
    const Map& map = stages_.map(what.map);
    does.object = deed.object, does.layer = deed.layer, does.fires = deed.fires, does.needs = deed.needs;
    does.cell = map.cell(deed.cell);
    does.gained = gains_of(stages_, what, held_);
    held_.insert(held_.end(), does.gained.begin(), does.gained.end());
    std::sort(held_.begin(), held_.end());
    add(std::move(does));
    return true;
}

bool RouteMaker::go_to(const Spot& place) {
    const Sweep now = sweep(stages_, at_, held_);
    for (const int wanted : stages_.on(place.map, held_).ways->find_places(place.storey, steps_of(place.at))) {
        const std::optional<std::size_t> node = now.find(place.map, wanted);
        if (!node) continue;
        follow(now, *node);
        walk(wanted, steps_of(place.at));
        return true;
    }
    return false;
}

std::vector<Planned> planned(const std::vector<Done>& plan) {
    std::vector<Planned> all;
    for (const Done& what : plan) all.push_back({what});
    return all;
}

std::optional<Route> shortest_route(Stages& stages, const Spot& start, const Facts& given, std::vector<Planned> plan,
                                    const std::optional<Spot>& place) {
    const auto make = [&](const std::vector<Planned>& steps) -> std::optional<Route> {
        RouteMaker maker(stages, start, given);
        for (const Planned& planned : steps)
            if (!maker.go_to(planned.what, planned.is_set_off)) return std::nullopt;
        if (place && !maker.go_to(*place)) return std::nullopt;
        return maker.take();
    };
    std::optional<Route> route = make(plan);
    if (!route || plan.size() > longest_plan_to_shorten) return route;
    for (std::size_t i = plan.size(); i-- > 0;) {
        if (plan[i].is_kept) continue;
        std::vector<Planned> fewer = plan;
        fewer.erase(fewer.begin() + static_cast<std::ptrdiff_t>(i));
        if (std::optional<Route> shorter = make(fewer)) plan = std::move(fewer), route = std::move(shorter);
    }
    return route;
}

}   // namespace dryground::travel

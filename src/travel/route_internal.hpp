// Inside the travel room: converts what was found to a list of steps.
#pragma once

#include "search_internal.hpp"

namespace dryground::travel {

// From a place with some facts, doing one thing after another, in order; nothing where one of them cannot be done then.
class RouteMaker {
public:
    RouteMaker(Stages& stages, const Spot& start, const Facts& given);

    // Each returns whether it can be done.
    bool go_to(const Done& what, bool sets_it_off);
    bool go_to(const Spot& place);

    [[nodiscard]] Route take() { return std::move(route_); }

private:
    bool follow(const Sweep& sweep, std::size_t node);
    void walk(int place, Point to);
    void make(const Move& move);
    void add_on(int place, RouteStep step);   // that ends in a place
    [[nodiscard]] Carrier carrier_at(const Spot& spot);
    void touch(const Sweep::Node& node, const Touched& touch);
    void touch_nearest(const Sweep::Node& node, const Touched& any);
    void add(RouteStep step);
    [[nodiscard]] RouteStep step(Going going, const Ring& way) const;

    Stages& stages_;
    Spot at_;
    Facts held_;
    Route route_;
};

// One thing of a plan: whether it is never left out, and whether it is set off or only touched.
struct Planned {
    Done what;
    bool is_kept = false, is_set_off = true;
};
[[nodiscard]] std::vector<Planned> planned(const std::vector<Done>& plan);   // to be set off, and left out if need be
// Returns a route that follows a plan, then goes to a place, if one is given. What nothing after it needs is left out
// of a plan, except what is to be kept. All of a plan is set off, except what is only to be touched.
[[nodiscard]] std::optional<Route> shortest_route(Stages& stages, const Spot& start, const Facts& given,
                                                  std::vector<Planned> plan, const std::optional<Spot>& place = {});

}   // namespace dryground::travel

// Inside the travel room: what a Reach holds.
#pragma once

#include "search_internal.hpp"

namespace dryground {

struct Reach::Parts {
    explicit Parts(const World& of, const ReachOptions& asked) : world(of), options(asked), stages(of, asked.mover) {}

    const World& world;
    ReachOptions options;
    mutable travel::Stages stages;   // makes what is asked for
    std::optional<Spot> start;
    travel::Found found;
    travel::FoundMaybe maybe;
    std::vector<GoalReached> goals;
    std::vector<TravelPlace> places;
    std::vector<Spot> dead_ends, bottomless;

    void find_start();
    void find_goals();
    void list_places();
    void find_dead_ends();

    [[nodiscard]] Reached of(const travel::Done& what) const;
    [[nodiscard]] Reached of_fact(int fact) const;
    [[nodiscard]] travel::Done thing(int map, int object) const;
    // The most facts that come together.
    [[nodiscard]] const Facts& most_held() const;
    [[nodiscard]] std::optional<Route> route(const std::vector<travel::Done>& plan, const travel::Done& last,
                                             bool sets_it_off) const;
    [[nodiscard]] InTheWay why_not(const travel::Done& what) const;
    [[nodiscard]] InTheWay why_no_fact(int fact) const;
};

}   // namespace dryground

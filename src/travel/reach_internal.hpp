// Inside the travel room: what a Reach holds.
#pragma once

#include <memory>

#include "search_internal.hpp"

namespace dryground {

struct Reach::Parts {
    Parts(const World& of, const ReachOptions& asked);
    ~Parts();

    const World& world;
    ReachOptions options;
    mutable travel::Stages stages;   // makes what is asked for
    std::optional<Spot> start;
    travel::Found found;
    std::vector<GoalReached> goals;
    std::vector<Spot> dead_ends, bottomless;

    // Finds everything on the maps as they are by now.
    void search();
    void forget();
    void find_start();
    void find_goals();
    void find_holes();
    void find_dead_ends();
    // Returns the most generous reading, computed only if something is not surely reached: it takes most of the time.
    [[nodiscard]] const travel::FoundMaybe& maybe() const;
    // Returns whether no fact that may come true closes anything on a map: either all its facts open, or those that
    // close never come, which is known if no map that is entered has one that does.
    [[nodiscard]] bool is_fixed(MapId map) const;
    [[nodiscard]] const std::vector<TravelPlace>& places() const;

    [[nodiscard]] Reached of(const travel::Done& what) const;
    [[nodiscard]] Reached of_fact(FactId fact) const;
    [[nodiscard]] travel::Done thing(MapId map, ObjectId object) const;
    // Returns the most facts that can hold together.
    [[nodiscard]] const Facts& most_held() const;
    [[nodiscard]] std::optional<Route> route(const std::vector<travel::Done>& plan, const travel::Done& last,
                                             bool sets_it_off) const;
    [[nodiscard]] InTheWay why_not(const travel::Done& what) const;
    [[nodiscard]] InTheWay why_no_fact(FactId fact) const;

private:
    class Reasons;
    [[nodiscard]] Reasons& reasons() const;
    void list_places() const;

    mutable std::optional<travel::FoundMaybe> maybe_;
    mutable std::optional<std::vector<TravelPlace>> places_;
    mutable std::unique_ptr<Reasons> reasons_;
};

}   // namespace dryground

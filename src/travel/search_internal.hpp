// Inside the travel room: what can be reached in a whole world, while facts come true.
#pragma once

#include <map>
#include <memory>
#include <optional>
#include <unordered_map>
#include <utility>
#include <vector>

#include "deeds_internal.hpp"

namespace dryground::travel {

// A map for its mover while certain facts hold.
struct Stage {
    MapId map = MapId::none;
    MoverId mover = MoverId::none;
    Facts facts;   // of those that shape its ground
    const Deeds* deeds = nullptr;
    std::unique_ptr<Ways> ways;
};

// Makes stages as they are needed, each once.
class Stages {
public:
    Stages(const World& world, MoverId mover);

    [[nodiscard]] const World& world() const { return world_; }
    // Returns a map as it is by now.
    [[nodiscard]] const Map& map(MapId map) const;
    // Follows a map whose cells, or objects that are gone, differ; everything else is the same. Returns whether
    // anything differs. Throws std::invalid_argument if it is another map.
    bool follow(MapId map, const Map& now);
    // Returns the mover that moves on a map: the requested one, or the map's player; MoverId::none if neither exists.
    [[nodiscard]] MoverId mover_on(MapId map) const;
    [[nodiscard]] Stage& on(MapId map, const Facts& held);
    // Returns the same for a slightly different mover: owned by the caller.
    [[nodiscard]] Stage with(MapId map, const Facts& held, const Mover& like);
    [[nodiscard]] const Deeds& deeds(MapId map);
    // Returns the same by the most generous reading: tiles that turn into others block nothing, and can still be stood
    // on.
    [[nodiscard]] Stage& loosest(MapId map, const Facts& held);
    // Returns whether the facts that shape a map's ground only ever take something away.
    [[nodiscard]] bool only_opens(MapId map);
    // Returns whether one of some facts shapes a map's ground, and may close something.
    [[nodiscard]] bool may_close(MapId map, const Facts& facts);
    // Returns the facts that may close something when they come true.
    [[nodiscard]] const std::vector<char>& closing() const { return closing_; }

private:
    void find_closing(MapId map);
    [[nodiscard]] Facts shaping(MapId map, const Facts& held);

    const World& world_;
    MoverId mover_;
    std::map<MapId, Map> changed_;   // maps that differ from the world's
    std::map<MapId, Deeds> deeds_;
    std::map<MapId, Facts> ground_facts_;
    std::map<std::pair<MapId, Facts>, Stage> stages_, loosest_;
    std::map<MapId, std::vector<Map>>
        turned_;   // by map: without its tiles that turn, then as they turn; none: none does
    std::vector<std::vector<char>> closing_on_;   // by map and fact
    std::vector<char> closing_;                   // by fact
};

// Something that was done, or is reached.
struct Done {
    MapId map = MapId::none;
    int deed = -1;
    friend auto operator<=>(const Done&, const Done&) = default;
};

// One step of a sweep: from a node to another.
struct Hop {
    std::size_t from = 0, to = 0;     // nodes of the sweep
    const Move* move = nullptr;       // of the map; nothing: a link, or stairs,
    const Touched* touch = nullptr;   // which are touched so
};

// Everything that can be reached from a place while facts do not change.
struct Sweep {
    struct Node {
        MapId map = MapId::none;
        int place = -1;
        std::size_t first = 0;   // the hop that found it; of the first node: none
    };
    struct Contact {
        Done what;
        std::size_t node = 0;
        const Touched* touch = nullptr;   // nothing: it fires when the map starts
    };
    std::vector<Node> nodes;
    std::vector<Hop> hops;
    std::vector<Contact> contacts;                            // each thing once
    std::unordered_map<std::uint64_t, std::size_t> numbers;   // of nodes

    [[nodiscard]] std::optional<std::size_t> find(MapId map, int place) const;
    [[nodiscard]] std::vector<char> leads_back() const;   // by node: whether the first one can be reached from there
};
[[nodiscard]] Sweep sweep(Stages& stages, const Spot& from, const Facts& held);

// From where, with which facts, after having done what.
struct State {
    Spot home;
    Facts held;
    std::vector<Done> plan;
};

struct Found {
    std::vector<State> states;
    // What was done before: by thing that is touched; and by fact, the last of it being what gives the fact.
    std::map<Done, std::vector<Done>> reached;
    std::map<FactId, std::vector<Done>> facts;
    std::map<std::pair<MapId, Facts>, std::vector<char>> places;   // by stage: map and ground facts
    bool complete = true;                                          // else there were more states than were looked at
};
[[nodiscard]] Found find_surely(Stages& stages, const Spot& start, const Facts& given, std::size_t most_states);

// Returns the facts that something gives which are not held: nothing if it does not fire.
[[nodiscard]] Facts gains_of(Stages& stages, const Done& what, const Facts& held);

// What is found by the most generous reading.
struct FoundMaybe {
    Facts held;
    std::map<std::pair<MapId, Facts>, MayBe> stages;
    std::vector<char> maps;
    std::map<Done, bool> reached;
};
[[nodiscard]] FoundMaybe find_maybe(Stages& stages, const Spot& start, const Facts& given);

}   // namespace dryground::travel

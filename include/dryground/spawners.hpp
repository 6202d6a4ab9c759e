// Connects objects to a game's own things, and events to its actions: a function for each, and a report of what has
// none.
//
//     dg::Spawners spawners;
//     spawners.on("silt_crab",
//                 [&](const dg::Spawned& crab) { return make_crab(crab.at_m(), crab.number("patrol_px")); });
//     const dg::SpawnReport report = spawners.spawn(play);   // once for each map, on entering it
//
// Threads: one at a time.
#pragma once

#include <functional>
#include <map>
#include <string>
#include <string_view>
#include <vector>

#include "dryground/triggers.hpp"

namespace dryground {

// An object to be created by the game: typed, with its place in px and in metres. Valid during the call it is passed
// to.
class Spawned {
public:
    Spawned(const World& world, KindId kind, std::string_view name, PointPx at, StoreyId storey,
            const Properties& props, const std::vector<std::string>& tags, ObjectId object,
            const Object* placed = nullptr)
        : world_(world),
          kind_(kind),
          name_(name),
          at_(at),
          storey_(storey),
          props_(props),
          tags_(tags),
          object_(object),
          placed_(placed) {}

    [[nodiscard]] const Kind& kind() const { return world_.kind(kind_); }
    [[nodiscard]] std::string_view name() const { return name_; }   // empty if it has none
    [[nodiscard]] ObjectId object() const { return object_; }       // of the map; none: made by `make`
    [[nodiscard]] StoreyId storey() const { return storey_; }
    [[nodiscard]] const Mover* mover() const;                   // of its kind; null if it has none
    [[nodiscard]] bool is_tagged(std::string_view tag) const;   // its own tags, or those of its kind
    [[nodiscard]] PointPx at_px() const { return at_; }
    [[nodiscard]] std::array<double, 2> at_m() const {
        return {at_.x / world_.per_metre(), -at_.y / world_.per_metre()};
    }   // y up

    // What it covers, as drawn on the map: the middle and size of the box around it before it was turned, so that a
    // platform can be created by size and angle. For points, and those made by `make`: the place and size 0. Areas of
    // kinds count.
    [[nodiscard]] PointPx middle_px() const;
    [[nodiscard]] std::array<double, 2> middle_m() const;   // y up
    [[nodiscard]] std::array<double, 2> size_px() const;    // width, height
    [[nodiscard]] std::array<double, 2> size_m() const;
    [[nodiscard]] double turn_degrees() const;   // clockwise as seen; for a point the direction it faces
    [[nodiscard]] const Regions& area() const;   // steps of the map, turned; empty for points and lines
    [[nodiscard]] const Ring& line() const;      // of a line: its points, steps

    // Return properties by name. Throw std::out_of_range if its kind has no such property, naming the nearest, and
    // std::invalid_argument if the property has another type, naming it.
    [[nodiscard]] bool yes_no(std::string_view field) const;
    [[nodiscard]] std::int64_t whole(std::string_view field) const;
    [[nodiscard]] double number(std::string_view field) const;   // also whole numbers
    [[nodiscard]] double metres(std::string_view field) const { return number(field) / world_.per_metre(); }   // of px
    [[nodiscard]] const std::string& text(
        std::string_view field) const;   // also choices, colours, refs, maps, tiles, facts, files
    [[nodiscard]] PointPx place(std::string_view field) const;
    [[nodiscard]] const Properties& properties() const { return props_; }

private:
    [[nodiscard]] const Value& value(std::string_view field) const;

    const World& world_;
    KindId kind_;
    std::string_view name_;
    PointPx at_;
    StoreyId storey_;
    const Properties& props_;
    const std::vector<std::string>& tags_;
    ObjectId object_;
    const Object* placed_;   // of the map; null if made by `make`
};

struct SpawnReport {
    std::map<std::string, int> made;      // number by kind
    std::map<std::string, int> missing;   // objects without a function, by kind
    std::map<std::string, int> refused;   // by kind: how often its function returned false
    std::vector<std::string> surplus;     // functions for kinds and tags unknown to the world

    [[nodiscard]] bool is_complete() const { return missing.empty() && refused.empty() && surplus.empty(); }
};
[[nodiscard]] std::string text(const SpawnReport& report);   // a line for each that is missing, surplus or refused

class Spawners {
public:
    using Make = std::function<bool(const Spawned&)>;   // returns false if it made nothing

    Spawners& on(std::string kind, Make make);
    Spawners& on_tagged(std::string tag, Make make);   // for kinds without a function of their own

    // Calls the functions for all present spawns and entities of the current map, in its order. Triggers, links and
    // solids need none; those whose kind has one are made too.
    SpawnReport spawn(const Play& play) const;
    // Makes one of a kind: `props` override the defaults of the kind. Throws std::out_of_range for an unknown kind.
    bool make(const Play& play, std::string_view kind, PointPx at, const Properties& props = {},
              StoreyId storey = StoreyId::ground) const;

private:
    [[nodiscard]] const Make* maker(const Kind& kind, const std::vector<std::string>& tags) const;
    std::map<std::string, Make, std::less<>> by_kind_, by_tag_;
};

// Functions for events: what the game does when a trigger, link or tile fires one.
class Events {
public:
    using Run = std::function<void(const Firing&)>;

    Events& on(std::string event, Run run);
    // Runs the event of a firing. Returns false if it has no function; true for a firing without an event.
    bool run(const World& world, const Firing& firing) const;
    // Runs an event by id, such as the one at the end of a link, with a firing that contains only that.
    bool run(const World& world, EventId event) const;
    [[nodiscard]] std::vector<std::string> missing(const World& world) const;   // events without a function
    [[nodiscard]] std::vector<std::string> surplus(const World& world) const;   // functions without an event

private:
    std::map<std::string, Run, std::less<>> runs_;
};

}   // namespace dryground

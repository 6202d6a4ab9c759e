// From objects to a game's own things, and from events to what a game does: a function for each, and a report of what
// has none.
//
//     dg::Spawners spawners;
//     spawners.on("silt_crab",
//                 [&](const dg::Spawned& crab) { return make_crab(crab.at_m(), crab.number("patrol_px")); });
//     const dg::SpawnReport report = spawners.spawn(play);   // once for each map, when it is entered
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

// What is to be made: typed, with its place in px and in metres. Lives as long as the call that it is given to.
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
    [[nodiscard]] std::string_view name() const { return name_; }   // empty when it has none
    [[nodiscard]] ObjectId object() const { return object_; }       // of the map; none: made by hand
    [[nodiscard]] StoreyId storey() const { return storey_; }
    [[nodiscard]] const Mover* mover() const;                   // of its kind; null when it has none
    [[nodiscard]] bool is_tagged(std::string_view tag) const;   // by itself or by its kind
    [[nodiscard]] PointPx at_px() const { return at_; }
    [[nodiscard]] std::array<double, 2> at_m() const {
        return {at_.x / world_.per_metre(), -at_.y / world_.per_metre()};
    }   // y up

    // What it covers, as it was drawn on the map: the middle and size of the box around it before it was turned, so
    // that a platform can be made by its size and angle. Of a point, or made by hand: its place, no size. Areas of
    // kinds count.
    [[nodiscard]] PointPx middle_px() const;
    [[nodiscard]] std::array<double, 2> middle_m() const;   // y up
    [[nodiscard]] std::array<double, 2> size_px() const;    // width, height
    [[nodiscard]] std::array<double, 2> size_m() const;
    [[nodiscard]] double turn_degrees() const;   // clockwise as seen; of a point the way it faces
    [[nodiscard]] const Regions& area() const;   // steps of the map, turned; empty for points and lines
    [[nodiscard]] const Ring& line() const;      // of a line: its points from end to end, steps

    // Properties by name. Throw std::out_of_range for one that its kind does not have, naming the nearest, and
    // std::invalid_argument for one of another type, saying which.
    [[nodiscard]] bool yes_no(std::string_view field) const;
    [[nodiscard]] std::int64_t whole(std::string_view field) const;
    [[nodiscard]] double number(std::string_view field) const;   // whole ones too
    [[nodiscard]] double metres(std::string_view field) const { return number(field) / world_.per_metre(); }   // of px
    [[nodiscard]] const std::string& text(
        std::string_view field) const;   // choices, colours, refs, maps, tiles, facts, files too
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
    const Object* placed_;   // of the map; null when made by hand
};

struct SpawnReport {
    std::map<std::string, int> made;      // by kind: how many
    std::map<std::string, int> missing;   // kinds without a function: how many objects were not made
    std::map<std::string, int> refused;   // kinds whose function said that it made nothing: how often
    std::vector<std::string> surplus;     // functions for kinds and tags that the world does not have

    [[nodiscard]] bool is_complete() const { return missing.empty() && refused.empty() && surplus.empty(); }
};
[[nodiscard]] std::string text(
    const SpawnReport& report);   // a line for each thing that is missing, surplus or refused

class Spawners {
public:
    using Make = std::function<bool(const Spawned&)>;   // false: it was not made

    Spawners& on(std::string kind, Make make);
    Spawners& on_tagged(std::string tag, Make make);   // for kinds without a function of their own

    // Every spawn and entity of the present map that is there, in the order of the map. Triggers, links and solids are
    // nobody's to make; a kind of theirs with a function is made too.
    SpawnReport spawn(const Play& play) const;
    // One by hand: `props` over the kind's defaults. Throws std::out_of_range for a kind that is not there.
    bool make(const Play& play, std::string_view kind, PointPx at, const Properties& props = {},
              StoreyId storey = StoreyId::ground) const;

private:
    [[nodiscard]] const Make* maker(const Kind& kind, const std::vector<std::string>& tags) const;
    std::map<std::string, Make, std::less<>> by_kind_, by_tag_;
};

// The same for events: what the game does when a trigger, link or tile asks for it.
class Events {
public:
    using Run = std::function<void(const Firing&)>;

    Events& on(std::string event, Run run);
    // Runs what a firing asks for. False when that has no function; a firing without an event is true.
    bool run(const World& world, const Firing& firing) const;
    // Runs an event by its id, such as the one at the end of a link: with a firing that says just that.
    bool run(const World& world, EventId event) const;
    [[nodiscard]] std::vector<std::string> missing(const World& world) const;   // events without a function
    [[nodiscard]] std::vector<std::string> surplus(const World& world) const;   // functions without an event

private:
    std::map<std::string, Run, std::less<>> runs_;
};

}   // namespace dryground

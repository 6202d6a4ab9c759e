// Writes `dryground/walk/1`: where a mover gets to, and how, for programs. Places in px, y down.

#include "dryground/files.hpp"
#include "dryground/travel.hpp"
#include "pack_internal.hpp"

namespace dryground {

namespace {

using files::Json;

class WalkWriter {
public:
    WalkWriter(const World& world, const Reach& reach) : world_(world), reach_(reach) {}

    Json tree(const std::optional<Route>& route) {
        Json json{{"format", "dryground/walk/1"}, {"world", world_.title()}};
        json["goals"] = Json::array();
        for (const GoalReached& goal : reach_.goals()) json["goals"].push_back(this->goal(goal));
        json["facts"] = Json::array();
        for (const FactId fact : ids<FactId>(world_.facts()))
            json["facts"].push_back({{"fact", world_.fact(fact).name}, {"gained", name_of(reach_.gained(fact))}});
        json["places"] = Json::array();
        for (const TravelPlace& place : reach_.places()) json["places"].push_back(this->place(place));
        json["dead_ends"] = spots(reach_.dead_ends());
        json["bottomless"] = spots(reach_.bottomless());
        json["moved_by_code"] = Json::array();
        for (const Map& map : world_.maps())
            for (const ObjectId object : moved_by_code(world_, map))
                json["moved_by_code"].push_back(solid(map, object));
        if (route) {
            json["route"] = Json::array();
            for (const RouteStep& step : *route) json["route"].push_back(this->step(step));
        }
        return json;
    }

private:
    [[nodiscard]] const Map& map(MapId id) const { return world_.map(id); }
    [[nodiscard]] const std::string& storey(StoreyId id) const { return world_.storey(id).name; }
    [[nodiscard]] static Json point(PointPx p) { return {p.x, p.y}; }
    [[nodiscard]] static Json points(const std::vector<PointPx>& all) {
        Json json = Json::array();
        for (const PointPx p : all) json.push_back(point(p));
        return json;
    }
    [[nodiscard]] static Json ring(const Ring& ring) {
        Json json = Json::array();
        for (const Point p : ring) json.push_back(point({to_px(p.x), to_px(p.y)}));
        return json;
    }
    [[nodiscard]] Json spot(const Spot& spot) const {
        return {{"map", map(spot.map).name}, {"storey", storey(spot.storey)}, {"at", point(spot.at)}};
    }
    [[nodiscard]] Json spots(const std::vector<Spot>& all) const {
        Json json = Json::array();
        for (const Spot& one : all) json.push_back(spot(one));
        return json;
    }
    [[nodiscard]] Json names(const Facts& facts) const {
        Json json = Json::array();
        for (const FactId fact : facts) json.push_back(world_.fact(fact).name);
        return json;
    }
    [[nodiscard]] Json goal(const GoalReached& goal) const {
        Json json;
        if (goal.object != ObjectId::none)
            json["object"] = map(goal.map).name + "/" + map(goal.map).object(goal.object).name;
        else
            json["fact"] = world_.fact(goal.fact).name;
        json["reached"] = name_of(goal.reached);
        if (goal.reached == Reached::yes) return json;
        const InTheWay way = goal.object != ObjectId::none ? reach_.in_the_way(goal.map, goal.object)
                                                           : reach_.in_the_way_of_fact(goal.fact);
        json["in_the_way"] = text(world_, way);
        return json;
    }
    [[nodiscard]] static Json solid(const Map& map, ObjectId id) {
        const Object& object = map.object(id);
        return {{"map", map.name},
                {"object", object.name},
                {"at", point({to_px(object.position.x), to_px(object.position.y)})}};
    }
    [[nodiscard]] Json place(const TravelPlace& place) const {
        Json json{{"map", map(place.map).name}, {"storey", storey(place.storey)}, {"reached", name_of(place.reached)}};
        if (!place.line.empty()) json["line"] = points(place.line);
        if (!place.area.empty()) {
            json["area"] = Json::array();
            for (const Region& region : place.area) {
                Json holes = Json::array();
                for (const Ring& hole : region.holes) holes.push_back(ring(hole));
                json["area"].push_back({{"outline", ring(region.outline)}, {"holes", std::move(holes)}});
            }
        }
        return json;
    }
    [[nodiscard]] Json step(const RouteStep& step) const {
        Json json{{"going", name_of(step.going)},
                  {"mover", world_.mover(step.mover).name},
                  {"from", spot(step.from)},
                  {"to", spot(step.to)},
                  {"px", step.px}};
        if (!step.way.empty()) json["way"] = points(step.way);
        if (step.object != ObjectId::none) json["object"] = map(step.from.map).object(step.object).name;
        if (const auto& [object, at] = step.carrier; object != ObjectId::none)
            json["carrier"] = {{"object", map(step.from.map).object(object).name}, {"at", {at.x, at.y}}};
        if (step.layer != LayerId::none) {
            json["layer"] = map(step.from.map).layer(step.layer).name;
            json["cell"] = {step.cell.column, step.cell.row};
        }
        if (step.going != Going::rides && (step.object != ObjectId::none || step.layer != LayerId::none))
            json["fires"] = name_of(step.fires);
        json["needs"] = names(step.needs);
        json["gained"] = names(step.gained);
        return json;
    }

    const World& world_;
    const Reach& reach_;
};

}   // namespace

std::string walk_json(const World& world, const Reach& reach, const std::optional<Route>& route) {
    return files::json_text(WalkWriter(world, reach).tree(route));
}

}   // namespace dryground

// The objects of a pack's maps.

#include <fmt/format.h>

#include "../ground/ground_internal.hpp"
#include "../model/words_internal.hpp"
#include "pack_internal.hpp"
#include "place_numbers_internal.hpp"

namespace dryground::files {

namespace {

Json link_json(const World& world, const Object& object) {
    if (object.role != Role::link) return nullptr;
    return {{"to", object.link.to},
            {"one_way", object.link.one_way},
            {"arrival_runs", name_or_null(world.events(), object.link.arrival_runs)}};
}

// What an object covers, and where its picture's corner is, as the file's merged ground is told.
Json placed_json(const World& world, const Map& map, const Object& object, const PackOutput& output) {
    const PlaceNumbers numbers(world, map, output.unit, output.y, output.plane);
    Json regions = Json::array();
    for (const Region& region : object.area) {
        std::vector<Ring> holes;
        for (const Ring& hole : region.holes) holes.push_back(numbers.on_plane(hole));
        regions.push_back(
            {{"outline", numbers.ring(numbers.on_plane(region.outline))}, {"holes", numbers.rings(holes)}});
    }
    Json line = Json::array();
    for (const Point p : object.line) line.push_back(numbers.point(numbers.on_plane(p)));
    const Kind& kind = world.kind(object.kind);
    const MoverId mover = body_of(world, map, object);
    const std::optional<Picture> picture = kind.picture             ? kind.picture
                                           : mover != MoverId::none ? world.mover(mover).picture
                                                                    : std::nullopt;
    Json origin = nullptr;   // pictures are drawn on the screen: on the ground laid flat they have no corner
    if (picture && numbers.is_as_drawn())
        origin = numbers.point(moved(object.position, {to_steps(picture->x), to_steps(picture->y)}));
    return {{"at", numbers.point(numbers.on_plane(object.position))},
            {"middle", numbers.point(numbers.on_plane(object.middle))},
            // A box that is turned or sheared as diamonds are laid flat has no size of its own there.
            {"size",
             numbers.is_as_drawn() ? Json::array({numbers.x(object.size.x), numbers.y(object.size.y)}) : Json(nullptr)},
            {"area", std::move(regions)},
            {"line", std::move(line)},
            {"drawn_from", std::move(origin)}};
}

}   // namespace

Json object_json(const World& world, const Map& map, const Object& object, const PackOutput& output) {
    Json carves = Json::array();
    for (const auto& [barrier, area] : object.carves)
        carves.push_back({{"barrier", name_or_null(world.barriers(), barrier)}, {"area", area_json(area)}});
    const double metre = world.per_metre() * steps_per_px;
    const double y = object.position.y / metre;
    Json json{{"name", object.name},
              {"kind", name_or_null(world.kinds(), object.kind)},
              {"role", name_of(object.role)},
              {"layer", map.layer(object.layer).name},
              {"at_px", point_json(object.position)},
              {"at_m", Json::array({object.position.x / metre, output.y == YAxis::up ? 0.0 - y : y})},
              {"cell", object.cell ? Json({object.cell->column, object.cell->row}) : Json(nullptr)},
              {"drawn", object.drawn},
              {"turn", object.turn},
              {"middle_px", point_json(object.middle)},
              {"size_px", point_json(object.size)},
              {"placed", placed_json(world, map, object, output)},
              {"area", area_json(object.area)},
              {"line", ring_json(object.line)},
              {"hollow", object.hollow},
              {"carves", std::move(carves)},
              {"storey", name_or_null(world.storeys(), object.storey)},
              {"barrier", name_or_null(world.barriers(), object.barrier)},
              {"tags", object.tags},
              {"fires", name_of(object.fires)},
              {"by", names_of(world.movers(), object.by)},
              {"once", object.once},
              {"every_s", object.every_s},
              {"needs", names_of(world.facts(), object.needs)},
              {"gives", names_of(world.facts(), object.gives)},
              {"when", names_of(world.facts(), object.when)},
              {"unless", names_of(world.facts(), object.unless)},
              {"runs", name_or_null(world.events(), object.runs)},
              {"link", link_json(world, object)},
              {"props", properties_json(object.props)}};
    if (object.surface) json["surface"] = surface_json(object.surface);
    return json;
}

}   // namespace dryground::files

// Where the objects of a pack's maps are, in the coordinates of its merged ground.

#include "pack_internal.hpp"
#include "place_numbers_internal.hpp"

namespace dryground::files {

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

}   // namespace dryground::files

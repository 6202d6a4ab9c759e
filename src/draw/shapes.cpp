// The shapes of each tile by itself, as they stand on the map; carves dashed.

#include "picture_internal.hpp"

namespace dryground::drawing {

namespace {

struct Paths {
    std::string areas, lines, carves;
};

// By barrier; the last of them: triggers, and shapes that no barrier is said for.
using ByBarrier = std::vector<Paths>;

void add_tile(const MapPicture& picture, ByBarrier& paths, const Layer& layer, int column, int row) {
    const Placed& placed = picture.map().placed(layer, column, row);
    if (placed.tile < 0) return;
    const Tile& tile = picture.world.tile(placed);
    const auto area = [&](const Shape& shape) {
        return picture.path(placed_area(picture.map(), layer, shape, column, row));
    };
    for (const Shape& shape : tile.shapes) {
        const bool senses = !shape.trigger.empty() || !layer.trigger.empty();
        const int barrier = senses ? -1 : shape.barrier >= 0 ? shape.barrier : layer.barrier;
        Paths& path = barrier >= 0 ? paths[static_cast<std::size_t>(barrier)] : paths.back();
        if (shape.line.empty())
            path.areas += area(shape);
        else
            path.lines += picture.path(placed_line(picture.map(), layer, shape, column, row), false);
    }
    for (const Carve& carve : tile.carves) {
        Paths& path = paths[static_cast<std::size_t>(carve.barrier)];
        path.carves += area(carve.shape);
    }
}

}   // namespace

void draw_shapes(MapPicture& picture) {
    ByBarrier paths(picture.world.barriers().size() + 1);
    for (const Layer& layer : picture.map().layers)
        if (!layer.holds_objects && !layer.decor && picture.shows(layer))
            picture.each_cell(picture.cell_width(),
                              [&](int column, int row) { add_tile(picture, paths, layer, column, row); });
    for (std::size_t b = 0; b < paths.size(); ++b) {
        const std::string colour = picture.look_of(b).colour;
        if (!paths[b].areas.empty())
            picture.put(
                "<path class=\"areas\" d=\"{0}\" fill=\"{1}\" fill-opacity=\"0.14\" stroke=\"{1}\" "
                "stroke-width=\"1.3\"/>\n",
                paths[b].areas, colour);
        if (!paths[b].lines.empty())
            picture.put("<path class=\"lines\" d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"3\"/>\n",
                        paths[b].lines, colour);
        if (!paths[b].carves.empty())
            picture.put(
                "<path class=\"carves\" d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"2\" "
                "stroke-dasharray=\"2 4\"/>\n",
                paths[b].carves, colour);
    }
}

}   // namespace dryground::drawing

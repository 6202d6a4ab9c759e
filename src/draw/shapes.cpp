// The shapes of each tile by itself, as they stand on the map; carves dashed.

#include "../ground/ground_internal.hpp"
#include "picture_internal.hpp"

namespace dryground::drawing {

namespace {

struct Paths {
    std::string areas, lines, cuts;
};

// By barrier; the last of them: triggers, and shapes that no barrier is said for.
using ByBarrier = std::vector<Paths>;

void add_tile(const MapPicture& picture, ByBarrier& paths, const Layer& layer, int column, int row) {
    const Map& map = picture.map();
    const Placed& placed = map.placed(layer, column, row);
    if (placed.tile < 0) return;
    const Point at = map.corner(column, row);
    for (ground::Part& part : ground::parts_of(picture.world, map, layer, placed, {}).parts) {
        Paths& path = part.barrier != BarrierId::none ? paths[index(part.barrier)] : paths.back();
        for (Point& p : part.line) p = moved(p, at);
        if (!part.line.empty())
            path.lines += picture.path(part.line, false);
        else
            (part.adds ? path.areas : path.cuts) += picture.path(moved(std::move(part.area), at));
    }
}

}   // namespace

void draw_shapes(MapPicture& picture) {
    ByBarrier paths(picture.world.barriers().size() + 1);
    for (const Layer& layer : picture.map().layers)
        if (!layer.holds_objects && ground::may_count(layer) && picture.shows(layer))
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
        if (!paths[b].cuts.empty())
            picture.put(
                "<path class=\"carves\" d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"2\" "
                "stroke-dasharray=\"2 4\"/>\n",
                paths[b].cuts, colour);
    }
}

}   // namespace dryground::drawing

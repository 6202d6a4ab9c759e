// What fills most of each cell, found by merging the map in chunks of one cell.

#include <algorithm>
#include <stdexcept>

#include "../ground/ground_internal.hpp"
#include "merge_formats_internal.hpp"

namespace dryground {

namespace {

// Returns whether a tile is a door that is closed to a mover: what it needs does not hold, and what it puts there then
// stops it.
bool is_closed_door(const World& world, const Map& map, const Layer& layer, const Placed& placed, const Facts& facts,
                    const Mover& mover) {
    if (placed.tile < 0 || world.tile(placed).needs.empty()) return false;
    const std::vector<ground::Part> parts = ground::parts_of(world, map, layer, placed, facts).parts;
    return std::any_of(parts.begin(), parts.end(), [&](const ground::Part& part) {
        return part.adds &&
               std::find(mover.stopped_by.begin(), mover.stopped_by.end(), part.barrier) != mover.stopped_by.end();
    });
}

// Doors are shut however thin they are.
void add_closed_doors(const World& world, const Map& map, const MergeOptions& wanted, StoreyId storey,
                      CellGround& cells) {
    const Mover& mover = world.mover(wanted.mover);
    for (const Layer& layer : map.layers) {
        if (layer.holds_objects || layer.storey != storey || !ground::counts(layer, wanted.facts)) continue;
        std::vector<bool> closed;
        for (const Placed& placed : map.palette)
            closed.push_back(is_closed_door(world, map, layer, placed, wanted.facts, mover));
        for (std::size_t i = 0; i < cells.cells.size(); ++i)
            if (closed[layer.cells[i]]) cells.cells[i] = 1;
    }
}

}   // namespace

CellGround cell_ground(const World& world, const Map& map, const MergeOptions& wanted, StoreyId storey) {
    if (wanted.mover == MoverId::none && world.barriers().size() > 31)
        throw std::length_error("a grid of numbers has bits for 31 barriers; the world has more");
    MergeOptions options = wanted;
    options.forms = {};
    options.plane = Plane::screen;
    CellGround ground{map.columns, map.rows, {}};
    ground.cells.resize(static_cast<std::size_t>(map.columns) * static_cast<std::size_t>(map.rows));
    const std::int64_t half_twice_area =
        twice_area(map.cell_ring(0, 0));   // of a cell: what has more than half of it has more than this, doubled
    for (const Chunk& chunk : merge_chunks(world, map, 1, options).chunks) {
        const int column = chunk.chunk[0] - map.first_column, row = chunk.chunk[1] - map.first_row;
        if (!map.has(column, row)) continue;
        const Region cell{map.cell_ring(column, row), {}};
        for (const Group& group : chunk.groups) {
            if (group.storey_id != storey || (wanted.mover == MoverId::none && group.barrier_id == BarrierId::none))
                continue;
            // What extends beyond the map belongs to the cells at its edge, but does not fill them.
            if (2 * twice_area(intersect(group.regions, {&cell, 1})) <= half_twice_area) continue;
            ground.cells[static_cast<std::size_t>(row) * static_cast<std::size_t>(map.columns) +
                         static_cast<std::size_t>(column)] |=
                wanted.mover == MoverId::none ? 1u << index(group.barrier_id) : 1u;
        }
    }
    if (wanted.mover != MoverId::none) add_closed_doors(world, map, wanted, storey, ground);
    return ground;
}

std::string csv_of(const CellGround& ground) {
    std::string text;
    for (std::size_t i = 0; i < ground.cells.size(); ++i) {
        text += std::to_string(ground.cells[i]);
        text += (i + 1) % static_cast<std::size_t>(ground.columns) == 0 ? '\n' : ',';
    }
    return text;
}

std::string png_of(const CellGround& ground, const World& world) {
    Image image;
    image.width = ground.columns, image.height = ground.rows;
    image.rgba.resize(4 * ground.cells.size());
    for (std::size_t i = 0; i < ground.cells.size(); ++i)
        for (std::size_t barrier = 0; barrier < 31; ++barrier)
            if ((ground.cells[i] >> barrier & 1) != 0) {
                const Colour colour =
                    barrier < world.barriers().size() ? files::colour_of(world, id_of<BarrierId>(barrier)) : Colour{};
                const std::array<unsigned char, 4> px{colour.red, colour.green, colour.blue, 255};
                std::copy(px.begin(), px.end(), image.rgba.begin() + static_cast<std::ptrdiff_t>(4 * i));
                break;
            }
    return encode_png(image);
}

}   // namespace dryground

// What fills most of each cell, found by merging the map in chunks of one cell.

#include <algorithm>
#include <stdexcept>

#include "merge_formats_internal.hpp"

namespace dryground {

CellGround cell_ground(const World& world, const Map& map, const MergeOptions& wanted, int storey) {
    if (wanted.mover < 0 && world.barriers().size() > 31)
        throw std::length_error("a grid of numbers has bits for 31 barriers; the world has more");
    MergeOptions options = wanted;
    options.chains = options.pieces = options.boxes = options.triangles = false;
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
            if (group.storey_id != storey || (wanted.mover < 0 && group.barrier_id < 0)) continue;
            // What reaches out of the map belongs to the cells at its edge, but does not fill them.
            if (2 * twice_area(intersect(group.regions, {&cell, 1})) <= half_twice_area) continue;
            ground.cells[static_cast<std::size_t>(row) * static_cast<std::size_t>(map.columns) +
                         static_cast<std::size_t>(column)] |= wanted.mover < 0 ? 1u << group.barrier_id : 1u;
        }
    }
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
                    barrier < world.barriers().size() ? files::colour_of(world, static_cast<int>(barrier)) : Colour{};
                const std::array<unsigned char, 4> px{colour.red, colour.green, colour.blue, 255};
                std::copy(px.begin(), px.end(), image.rgba.begin() + static_cast<std::ptrdiff_t>(4 * i));
                break;
            }
    return encode_png(image);
}

}   // namespace dryground

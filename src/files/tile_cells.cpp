// The tiles of a layer's cells as CSV, by name or by number.

#include <fmt/format.h>

#include "../model/cell_keys_internal.hpp"
#include "dryground/files.hpp"
#include "writing_internal.hpp"

namespace dryground {

namespace {

// Adds its set's name if two of the map's sets have a tile of that name.
std::string name_in(const World& world, const Map& map, const Placed& placed) {
    const std::string& name = world.tile(placed).name;
    int sets = 0;
    for (const TileSetId set : map.tilesets)
        for (const Tile& tile : world.tilesets()[static_cast<std::size_t>(set)].tiles) sets += tile.name == name;
    return sets > 1 ? world.tilesets()[static_cast<std::size_t>(placed.tileset)].name + "/" + name : name;
}

}   // namespace

std::string csv_of_tiles(const World& world, const Map& map, const Layer& layer, TileCells as) {
    if (layer.holds_objects) throw std::invalid_argument("csv_of_tiles: layer '" + layer.name + "' holds objects");
    std::vector<std::string> fields;
    for (const Placed& placed : map.palette)
        fields.push_back(as == TileCells::numbers ? std::to_string(fields.size())
                         : placed.tile < 0
                             ? ""
                             : files::csv_field(name_in(world, map, placed) + words_of(placed.orientation)));
    std::string text;
    for (int r = 0; r < map.rows; ++r)
        for (int c = 0; c < map.columns; ++c) {
            text += fields[map.number(layer, c, r)];
            text += c + 1 < map.columns ? ',' : '\n';
        }
    return text;
}

std::string csv_of_tile_numbers(const World& world, const Map& map) {
    std::string text = "number,tile,flip,turn\n0,,,0\n";
    for (std::size_t number = 1; number < map.palette.size(); ++number) {
        const Placed& placed = map.palette[number];
        const Orientation& way = placed.orientation;
        text +=
            fmt::format("{},{}/{},{}{},{}\n", number, world.tilesets()[static_cast<std::size_t>(placed.tileset)].name,
                        world.tile(placed).name, way.flip_x ? "x" : "", way.flip_y ? "y" : "", way.turn);
    }
    return text;
}

}   // namespace dryground

// Checks that a map and all that stands on it stay within the range of coordinates, on the lattice and in the flat
// coordinates of its grid (grid_internal.hpp). On square grids these are the same. Those of diamonds grow with how odd
// the ratio of their width and height is: 64 x 32 px leaves room for 32,767 cells a side, 130 x 66 px for 487.

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <set>

#include "grid_internal.hpp"
#include "maker_internal.hpp"

namespace dryground {

namespace {

std::int64_t farthest(Point p) { return std::max(std::abs(std::int64_t{p.x}), std::abs(std::int64_t{p.y})); }

// Returns how far a tile reaches from its cell's corner, however it is flipped and turned.
std::int64_t reach_of(const Tile& tile) {
    std::int64_t reach = 0;
    const auto take = [&](const Shape& shape) {
        for (const Region& region : shape.area)
            for (const Point p : region.outline) reach = std::max(reach, farthest(p));
        for (const Point p : shape.line) reach = std::max(reach, farthest(p));
    };
    for (const Shape& shape : tile.shapes) take(shape);
    for (const Carve& carve : tile.carves) take(carve.shape);
    return reach;
}

}   // namespace

bool WorldMaker::fits(const MapDraft& draft) {
    const auto [columns, rows] = draft.size.value;
    const auto [width, height] = draft.cell.value;
    bool good = true;
    if (width < 1 || height < 1 || width > 4096 || height > 4096) {
        add(Rule::out_of_range, draft.cell.place,
            {"'cell'", fmt::format("[{}, {}]", width, height), "from 1 to 4096 px wide and high"});
        good = false;
    }
    if (columns < 1 || rows < 1) {
        add(Rule::out_of_range, draft.size.place, {"'size'", fmt::format("[{}, {}]", columns, rows), "at least [1, 1]"},
            Hint{"set the columns and rows of the map", "size = [40, 20]"});
        return false;
    }
    if (!detail::can_hold_cells(columns, rows)) {
        add(Rule::too_large, draft.size.place,
            {"'size'", fmt::format("{} cells", std::int64_t{columns} * rows),
             fmt::format("{} cells", detail::most_cells)});
        return false;
    }
    const bool isometric = draft.grid.value == "isometric";
    if (good && isometric && (width % 2 != 0 || height % 2 != 0)) {
        add(Rule::out_of_range, draft.cell.place,
            {"'cell'", fmt::format("[{}, {}]", width, height), "even: the corners of a diamond lie at half of it"});
        good = false;
    }
    if (!good) return false;
    const auto reaches = [](std::int64_t first, std::int64_t count) {   // in cells, including those of a rim
        return std::max(std::abs(first - 1), std::abs(first + count + 1));
    };
    const std::int64_t across = reaches(draft.first.column, columns), down = reaches(draft.first.row, rows);
    const std::int64_t reach =
        (isometric ? (across + down) * std::max(width, height) / 2 : std::max(across * width, down * height)) *
        steps_per_px;
    if (reach > coordinate_limit / 2) {
        add(Rule::too_large, draft.size.place,
            {"the map", fmt::format("{} px from its corner", to_px(reach)),
             fmt::format("{} px", to_px(coordinate_limit / 2))});
        return false;
    }
    const std::int64_t most = coordinate_limit / (std::int64_t{std::lcm(width, height)} * steps_per_px);
    if (isometric && std::max(across, down) > most) {
        add(Rule::out_of_range, draft.size.place,
            {"'size'", fmt::format("[{}, {}]", columns, rows),
             fmt::format("at most {} columns and rows from cell (0, 0), with diamonds of {} x {} px", most - 1, width,
                         height)},
            Hint{"a diamond whose width is a multiple of its height leaves room for more", {}});
        return false;
    }
    return true;
}

void WorldMaker::keep_in_range(const Map& map, const Place& place_of_size) {
    const detail::Grid grid(map);
    std::int64_t reach = 0;   // of the map and its rim, flat
    for (const int c : {-1, map.columns + 1})
        for (const int r : {-1, map.rows + 1}) reach = std::max(reach, farthest(grid.flat(map.corner(c, r))));
    const std::int64_t room = (coordinate_limit - reach) / grid.factor() -
                              std::int64_t{std::max(map.cell_width, map.cell_height)} * steps_per_px;
    const auto leaves = [&](const std::string& what, std::int64_t off, const Place& place) {
        add(Rule::too_large, place,
            {what, fmt::format("{} px out of cells of map '{}'", to_px(off), map.name),
             fmt::format("{} px", to_px(std::max<std::int64_t>(0, room)))});
    };
    std::int64_t shift = 0;
    for (const Layer& layer : map.layers) {
        const std::int64_t off = farthest(layer.offset) + farthest(layer.shape_offset) + layer.grow.by;
        if (off > std::max<std::int64_t>(0, room))
            leaves(fmt::format("layer '{}'", layer.name), off, layer.place);
        else
            shift = std::max(shift, off);
    }
    std::set<const Tile*> known;
    for (std::size_t number = 1; number < map.palette.size(); ++number) {
        const TileSet& set = parts_.tilesets[static_cast<std::size_t>(map.palette[number].tileset)];
        const Tile& tile = set.tiles[static_cast<std::size_t>(map.palette[number].tile)];
        if (!known.insert(&tile).second) continue;
        const std::int64_t off =
            reach_of(tile) - std::int64_t{std::max(set.cell_width, set.cell_height)} * steps_per_px + shift;
        if (off > std::max<std::int64_t>(0, room)) leaves(fmt::format("tile '{}'", tile.name), off, place_of_size);
    }
}

void WorldMaker::keep_in_range(const Map& map, const Object& object, const Place& place) {
    const detail::Grid grid(map);
    std::int64_t reach = 0;
    const auto take = [&](const Ring& ring) {
        for (const Point p : ring) reach = std::max({reach, farthest(p), grid.flat_reach(p)});
    };
    for (const Region& region : object.area) take(region.outline);
    for (const auto& [barrier, area] : object.carves)
        for (const Region& region : area) take(region.outline);
    take(object.line);
    if (reach > coordinate_limit)
        add(Rule::too_large, place,
            {"its area", "out of the range of coordinates",
             fmt::format("{:.0f} px on this map", std::floor(to_px(coordinate_limit / grid.factor())))});
}

}   // namespace dryground

// Rules about maps: cells of another size than their tile sets'.

#include <fmt/format.h>

#include <set>

#include "rules_internal.hpp"

namespace dryground::check_rules {

namespace {

std::string difference(int tile, int cell, const char* axis) {
    if (tile == cell) return {};
    return fmt::format("{}: {} px {} in each cell", axis, std::abs(tile - cell),
                       tile < cell ? "stay empty" : "stick out");
}

}   // namespace

void check_maps(const World& world, Findings& findings) {
    for (const Map& map : world.maps()) {
        std::set<int> used;
        for (const Placed& placed : map.palette)
            if (placed.tile >= 0) used.insert(placed.tileset);
        for (const int id : used) {
            const TileSet& set = world.tilesets()[static_cast<std::size_t>(id)];
            if (set.cell_width == map.cell_width && set.cell_height == map.cell_height) continue;
            Finding finding =
                findings.start(Rule::cell_size, map.place_of_cell.line > 0 ? map.place_of_cell : map.place,
                               fmt::format("map '{}'", map.name),
                               {set.name, fmt::format("{} x {}", set.cell_width, set.cell_height),
                                fmt::format("{} x {}", map.cell_width, map.cell_height)});
            finding.map = map.name;
            for (const std::string& line : {difference(set.cell_width, map.cell_width, "across"),
                                            difference(set.cell_height, map.cell_height, "down")})
                if (!line.empty()) finding.details.push_back(line);
            if (!set.place.file.empty())
                finding.related.push_back({set.place, fmt::format("tile set '{}' is here", set.name)});
            finding.hint = Hint{"give the map the cells of its tiles",
                                fmt::format("cell = [{}, {}]", set.cell_width, set.cell_height)};
            findings.add(std::move(finding));
        }
    }
}

}   // namespace dryground::check_rules

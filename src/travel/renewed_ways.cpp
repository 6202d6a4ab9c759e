// Ways that follow the changes of a map.

#include "renewed_ways_internal.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <stdexcept>
#include <utility>

#include "../geometry/bounds_internal.hpp"
#include "../ground/ground_internal.hpp"

namespace dryground::travel {

namespace {

constexpr int cells_together = 16;          // changes as near as this are followed as one
constexpr std::int64_t much_of_a_map = 4;   // a quarter of it

// Returns few boxes that hold all of some.
std::vector<Bounds> gathered(const Map& map, const std::vector<Bounds>& boxes) {
    std::map<std::pair<int, int>, Bounds> by_place;
    for (const Bounds& box : boxes) {
        const DataCell at = map.data_cell_at(box.least);
        const auto [known, is_new] = by_place.try_emplace({at.column / cells_together, at.row / cells_together}, box);
        if (!is_new) known->second = detail::both(known->second, box);
    }
    std::vector<Bounds> few;
    for (const auto& [place, box] : by_place) few.push_back(box);
    return few;
}

bool is_much(const Map& map, const std::vector<Bounds>& boxes) {
    std::int64_t cells = 0;
    for (const Bounds& box : boxes) {
        const auto [c0, r0, c1, r1] = map.cells_near(box);
        cells += (std::int64_t{c1} - c0 + cells_together) * (std::int64_t{r1} - r0 + cells_together);
    }
    return cells > std::int64_t{map.columns} * map.rows / much_of_a_map;
}

void need_the_same(const Map& before, const Map& now) {
    const auto need = [&](bool holds, std::string_view what) {
        if (!holds)
            throw std::invalid_argument(
                fmt::format("dryground::Reach::update: map '{}' has other {} than before", now.name, what));
    };
    need(before.area() == now.area() && before.grid == now.grid && before.cell_width == now.cell_width &&
             before.cell_height == now.cell_height,
         "cells");
    need(before.objects.size() == now.objects.size(), "objects");
    need(before.layers.size() == now.layers.size(), "layers");
    for (std::size_t l = 0; l < now.layers.size(); ++l)
        need(before.layers[l].name == now.layers[l].name && before.layers[l].cells.size() == now.layers[l].cells.size(),
             "layers");
}

}   // namespace

Bounds changed_box(const World& world, const Map& map, LayerId layer, DataCell cell, const Placed& before,
                   const Placed& now) {
    return detail::moved(detail::both(ground::changed_by(world, map, map.layer(layer), before),
                                      ground::changed_by(world, map, map.layer(layer), now)),
                         map.corner(cell.column, cell.row));
}

std::vector<ChangedCell> changed_cells(const Map& before, const Map& now) {
    need_the_same(before, now);
    const auto [a, b] =
        std::mismatch(before.palette.begin(), before.palette.end(), now.palette.begin(), now.palette.end());
    const bool numbers_agree = a == before.palette.end() || b == now.palette.end();   // what is equal is the same tile
    const auto columns = static_cast<std::ptrdiff_t>(now.columns);
    std::vector<ChangedCell> changed;
    for (const LayerId id : ids<LayerId>(now.layers)) {
        const Layer &was = before.layer(id), &is = now.layer(id);
        for (int r = 0; !is.holds_objects && r < now.rows; ++r) {
            const auto old_row = was.cells.begin() + r * columns, new_row = is.cells.begin() + r * columns;
            if (numbers_agree && std::equal(old_row, old_row + columns, new_row)) continue;
            for (int c = 0; c < now.columns; ++c)
                if (const Placed& old_tile = before.placed(was, c, r), &new_tile = now.placed(is, c, r);
                    old_tile != new_tile)
                    changed.push_back({id, {c, r}, old_tile, new_tile});
        }
    }
    return changed;
}

void renew(std::unique_ptr<Ways>& ways, const WaysOf& of, const std::vector<Bounds>& changed, bool other_targets) {
    if (changed.empty()) return;
    const std::vector<Bounds> boxes = gathered(of.map, changed);
    if (is_much(of.map, boxes) || !ways->follow(of, boxes, other_targets)) ways = ways_of(of);
}

}   // namespace dryground::travel

// All that stops one mover: the ground of its barriers, cells that grant it nothing, and lines.

#include "stacking_internal.hpp"

namespace dryground::detail {

namespace {

// The sides of cells that a mover cannot pass: shut ones, or those that are passed in one direction only.
void add_sides(const World& world, const Map& map, int storey, std::map<OneWay, std::vector<LinePiece>>& into) {
    static constexpr std::array<OneWay, 4> inward{OneWay::down, OneWay::left, OneWay::up, OneWay::right},
        outward{OneWay::up, OneWay::right, OneWay::down, OneWay::left};
    for (int r = 0; r < map.rows; ++r)
        for (int c = 0; c < map.columns; ++c) {
            const CellSay say = passability(world, map, c, r, storey);
            if (say.sides_layer < 0) continue;
            const Ring ring = map.cell_ring(c, r);   // its sides from the top (right) on
            for (std::size_t side = 0; side < 4; ++side) {
                const LinePiece piece{ring[side], ring[(side + 1) % 4], 0};
                if (say.sides.of[side] == Passage::shut) into[OneWay::none].push_back(piece);
                if (say.sides.of[side] == Passage::in) into[inward[side]].push_back(piece);
                if (say.sides.of[side] == Passage::out) into[outward[side]].push_back(piece);
            }
        }
}

}   // namespace

Regions ground_for_mover(const World& world, const Map& map, const Stacking& stacking, const Mover& mover, int storey) {
    Regions area;
    for (const auto& [key, plan] : stacking.plans)
        if (key.storey == storey && stops(mover, key.barrier)) {
            Regions regions = merge_cells(map, plan, false).regions;
            area.insert(area.end(), regions.begin(), regions.end());
        }
    if (mover.needs != 0)
        for (int r = 0; r < map.rows; ++r)
            for (int c = 0; c < map.columns; ++c)
                if ((passability(world, map, c, r, storey).flags & mover.needs) == 0)
                    area.push_back({map.cell_ring(c, r), {}});
    return unite(area);
}

std::map<OneWay, std::vector<LinePiece>> lines_for_mover(const World& world, const Map& map, const Stacking& stacking,
                                                         const Mover& mover, int storey) {
    std::map<OneWay, std::vector<LinePiece>> result;
    for (const auto& [key, plan] : stacking.plans) {
        if (key.storey != storey || !key.trigger.empty() || plan.lines.empty() || !stops(mover, key.barrier)) continue;
        for (const JoinedLine& line : lines_of(world, map, key, plan, {}))
            for (std::size_t i = 0; i < line.labels.size(); ++i)
                result[key.one_way].push_back(
                    {line.points[i], line.points[(i + 1) % line.points.size()], line.labels[i]});
    }
    add_sides(world, map, storey, result);
    return result;
}

}   // namespace dryground::detail

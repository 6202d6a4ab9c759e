// What becomes of a group's lines: carves of the layers above cut them, then whatever solid ground of their barrier
// they run through.

#include "../model/orientation_internal.hpp"
#include "stacking_internal.hpp"

namespace dryground::detail {

namespace {

// What the carves of a layer take away from a barrier.
void add_carved(const World& world, const Map& map, const Layer& layer, int barrier, Regions& into) {
    for (std::size_t number = 1; number < layer.counts.size(); ++number) {
        if (layer.counts[number] == 0) continue;
        for (const Carve& carve : world.tile(map.palette[number]).carves) {
            if (carve.barrier != barrier || carve.shape.fault != ShapeFault::none) continue;
            for (int r = 0; r < map.rows; ++r)
                for (int c = 0; c < map.columns; ++c)
                    if (map.number(layer, c, r) == number)
                        for (Region& region : placed_area(map, layer, carve.shape, c, r))
                            into.push_back(std::move(region));
        }
    }
}

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

std::vector<JoinedLine> lines_of(const World& world, const Map& map, const GroupKey& key, const Plan& plan,
                                 const Regions& solid) {
    std::vector<LinePiece> pieces;
    for (const LineStep& step : plan.lines) {
        Regions carved;
        if (key.trigger.empty())
            for (std::size_t l = static_cast<std::size_t>(step.order) + 1; l < map.layers.size(); ++l)
                if (!map.layers[l].decor && map.layers[l].storey == key.storey)
                    add_carved(world, map, map.layers[l], key.barrier, carved);
        for (const LinePiece& piece : cut_lines(step.pieces, unite(carved))) pieces.push_back(piece);
    }
    return join_lines(cut_lines(std::move(pieces), solid), key.one_way);
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

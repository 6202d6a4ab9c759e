// All that stops one mover: the ground of its barriers, cells that grant it nothing, and lines.

#include "stacking_internal.hpp"

namespace dryground::detail {

namespace {

// The sides of cells that a mover cannot pass: shut ones, or those that are passed in one direction only.
void add_sides(const World& world, const Map& map, int storey, const Facts& facts,
               std::map<OneWay, std::vector<LinePiece>>& into) {
    static constexpr std::array<OneWay, 4> inward{OneWay::down, OneWay::left, OneWay::up, OneWay::right},
        outward{OneWay::up, OneWay::right, OneWay::down, OneWay::left};
    for (int r = 0; r < map.rows; ++r)
        for (int c = 0; c < map.columns; ++c) {
            const Passability say = passability(world, map, c, r, storey, facts);
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

MoverGround::MoverGround(const World& world, const Map& map, const Stacking& stacking, const Mover& mover, int storey,
                         const Facts& facts)
    : world_(world), map_(map), needs_(mover.needs), storey_(storey), facts_(facts) {
    for (const auto& [key, plan] : stacking.plans)
        if (key.storey == storey && stops(mover, key.barrier)) mergers_.emplace_back(map, plan);
}

Regions MoverGround::whole() {
    Regions area;
    for (CellMerger& merger : mergers_) add(area, merger.whole(false).regions);
    const std::size_t of_barriers = area.size();
    add_closed(area, {0, 0, map_.columns, map_.rows});
    const bool is_united = mergers_.size() < 2 && area.size() == of_barriers;
    return is_united ? area : unite(area);
}

Regions MoverGround::block(const Block& block) {
    Regions area;
    for (CellMerger& merger : mergers_) add(area, merger.block(block, false).regions);
    add_closed(area, block);
    return unite(area);
}

void MoverGround::add(Regions& area, Regions more) {
    area.insert(area.end(), std::make_move_iterator(more.begin()), std::make_move_iterator(more.end()));
}

void MoverGround::add_closed(Regions& area, const Block& block) const {
    if (needs_ == 0) return;
    const int last_row = std::min(map_.rows, block.row + block.rows),
              last_column = std::min(map_.columns, block.column + block.columns);
    for (int r = std::max(0, block.row); r < last_row; ++r)
        for (int c = std::max(0, block.column), run = 0; c < last_column; ++c) {   // runs of closed cells
            const bool closed = (passability(world_, map_, c, r, storey_, facts_).flags & needs_) == 0;
            run = closed ? run + 1 : 0;
            const bool ends =
                c + 1 == last_column || (passability(world_, map_, c + 1, r, storey_, facts_).flags & needs_) != 0;
            if (closed && ends) area.push_back({map_.block_ring(c + 1 - run, r, run, 1), {}});
        }
}

std::map<OneWay, std::vector<LinePiece>> lines_for_mover(const World& world, const Map& map, const Stacking& stacking,
                                                         const Mover& mover, int storey, const Facts& facts) {
    std::map<OneWay, std::vector<LinePiece>> result;
    for (const auto& [key, plan] : stacking.plans) {
        if (key.storey != storey || !key.trigger.empty() || plan.lines.empty() || !stops(mover, key.barrier)) continue;
        for (const JoinedLine& line : lines_of(world, map, key, plan, {}, facts))
            for (std::size_t i = 0; i < line.labels.size(); ++i)
                result[key.one_way].push_back(
                    {line.points[i], line.points[(i + 1) % line.points.size()], line.labels[i]});
    }
    add_sides(world, map, storey, facts, result);
    return result;
}

}   // namespace dryground::detail

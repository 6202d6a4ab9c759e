// All that stops one mover: the ground of its barriers, cells that grant it nothing, and lines.
//
// Barriers are merged cell by cell, closed cells joined to runs; the general boolean unites them, for the map or a
// block of it.

#include <array>

#include "../geometry/boolean_internal.hpp"
#include "../model/orientation_internal.hpp"
#include "lines/line_table_internal.hpp"

namespace dryground::detail {

namespace {

constexpr std::array<OneWay, 4> inward{OneWay::down, OneWay::left, OneWay::up, OneWay::right},
    outward{OneWay::up, OneWay::right, OneWay::down, OneWay::left};

// Adds the sides of cells near a box that a mover cannot pass, or only in one direction.
void add_sides(const World& world, const Map& map, StoreyId storey, const Facts& facts, OneWay one_way,
               const Bounds& box, std::vector<LinePiece>& into) {
    if (!ground::has_sides(world, map, storey, facts)) return;
    const auto [c0, r0, c1, r1] = map.cells_near(box);
    for (int r = r0; r <= r1; ++r)
        for (int c = c0; c <= c1; ++c) {
            const Passability say = passability(world, map, {c, r}, storey, facts);
            if (say.sides_layer == LayerId::none) continue;
            const Ring ring = map.cell_ring(c, r);   // its sides from the top (right) on
            for (std::size_t side = 0; side < 4; ++side) {
                const Passage passage = say.sides.of[side];
                const OneWay way = passage == Passage::in    ? inward[side]
                                   : passage == Passage::out ? outward[side]
                                                             : OneWay::none;
                if (passage != Passage::open && way == one_way) into.push_back({ring[side], ring[(side + 1) % 4], 0});
            }
        }
}

}   // namespace

MoverGround::MoverGround(const World& world, const Map& map, const Stacking& stacking, const Mover& mover,
                         StoreyId storey, const Facts& facts)
    : world_(world), map_(map), needs_(mover.needs), storey_(storey), facts_(facts) {
    for (const auto& [key, plan] : stacking.plans)
        if (key.storey == storey && stops(mover, key.barrier)) mergers_.emplace_back(map, plan);
}

// What one merger makes is united; groups of lines alone have no area.
template <class AreaOf>
Regions MoverGround::united(const Block& block, AreaOf area_of) {
    Regions area;
    bool is_united = true;
    for (CellMerger& merger : mergers_) {
        Regions more = area_of(merger);
        is_united = is_united && (area.empty() || more.empty());
        append(area, std::move(more));
    }
    const std::size_t of_barriers = area.size();
    add_closed(area, block);   // in pieces
    return is_united && area.size() == of_barriers ? area : unite_proper(area);
}

Regions MoverGround::whole() {
    return united({0, 0, map_.columns, map_.rows}, [](CellMerger& merger) { return merger.whole(false).regions; });
}

Regions MoverGround::block(const Block& block) {
    return united(block, [&](CellMerger& merger) { return merger.block(block, false).regions; });
}

void MoverGround::add_closed(Regions& area, const Block& block) const {
    if (needs_ == 0) return;
    const int last_row = std::min(map_.rows, block.row + block.rows),
              last_column = std::min(map_.columns, block.column + block.columns);
    for (int r = std::max(0, block.row); r < last_row; ++r)
        for (int c = std::max(0, block.column), run = 0; c < last_column; ++c) {   // runs of closed cells
            const bool closed = (passability(world_, map_, {c, r}, storey_, facts_).flags & needs_) == 0;
            run = closed ? run + 1 : 0;
            const bool ends =
                c + 1 == last_column || (passability(world_, map_, {c + 1, r}, storey_, facts_).flags & needs_) != 0;
            if (closed && ends) area.push_back({map_.block_ring(c + 1 - run, r, run, 1), {}});
        }
}

std::set<OneWay> ways_for_mover(const World& world, const Map& map, const LineTable& table, const Mover& mover,
                                StoreyId storey) {
    std::set<OneWay> ways;
    for (const GroupKey& key : table.keys())
        if (key.storey == storey && key.trigger.empty() && stops(mover, key.barrier)) ways.insert(key.one_way);
    for (const Placed& placed : map.palette) {   // whichever way a tile is turned
        if (placed.tile < 0 || !world.tile(placed).sides) continue;
        const Sides sides = oriented(*world.tile(placed).sides, placed.orientation);
        for (std::size_t side = 0; side < 4; ++side) {
            if (sides.of[side] == Passage::shut) ways.insert(OneWay::none);
            if (sides.of[side] == Passage::in) ways.insert(inward[side]);
            if (sides.of[side] == Passage::out) ways.insert(outward[side]);
        }
    }
    return ways;
}

std::vector<LinePiece> lines_for_mover(const World& world, const Map& map, const LineTable& table, const Mover& mover,
                                       StoreyId storey, const Facts& facts, OneWay one_way, const Bounds& box) {
    std::vector<LinePiece> all;
    for (const GroupKey& key : table.keys()) {
        if (key.storey != storey || !key.trigger.empty() || key.one_way != one_way || !stops(mover, key.barrier))
            continue;
        const std::vector<LinePiece> own = table.near(key, box);
        all.insert(all.end(), own.begin(), own.end());
    }
    add_sides(world, map, storey, facts, one_way, box, all);
    return all;
}

}   // namespace dryground::detail

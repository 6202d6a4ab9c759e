// Inside the merge room: geometry laid flat on the ground, in flat coordinates (grid_internal.hpp), in the order and
// with the first points that these define.
#pragma once

#include "../model/grid_internal.hpp"
#include "lines/lines_internal.hpp"

namespace dryground::detail {

// Lays geometry flat. Throws std::length_error for a map whose flat coordinates, grown by so much, leave the lattice's
// range.
void test_flat_range(const Map& map, std::int32_t grow);

void lay_flat(const Grid& grid, Regions& regions);
void lay_flat(const Grid& grid, std::vector<Chain>& chains);
void lay_flat(const Grid& grid, std::vector<JoinedLine>& lines);

}   // namespace dryground::detail

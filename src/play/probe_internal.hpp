// Inside the play room: descriptions of single things, in the words of the files.
#pragma once

#include <string>
#include <vector>

#include "dryground/merge.hpp"

namespace dryground::play {

[[nodiscard]] std::string tile_name(const World& world, const Placed& placed);   // set/tile
// "ground: marsh/bank flipped left to right, [[0, 16], [16, 0], [16, 16]] of earth; grants walk"
[[nodiscard]] std::string tile_line(const World& world, const Layer& layer, const Placed& placed, const Facts& facts);
// Returns what a cell grants, which sides are shut, and which tile decides it.
[[nodiscard]] std::string flags_line(const World& world, const Map& map, DataCell cell, const Passability& say);
[[nodiscard]] std::vector<std::string> object_lines(const World& world, const Map& map, const Object& object,
                                                    const Facts& facts);
// Returns what a mover whose position is at a place sets off there, as TriggerTracker does it: by being there, by
// using, by bumping into what it touches, by leaving. Cost: that of a Play of the map.
[[nodiscard]] std::vector<std::string> lines_of_firings(const World& world, const Map& map, const Facts& facts,
                                                        MoverId mover, PointPx place, StoreyId storey);
[[nodiscard]] std::string object_name(const World& world, const Object& object);   // 'landing', else a silt_crab

}   // namespace dryground::play

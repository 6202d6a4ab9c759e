// Inside the merge room: the part of a group's lines that a chunk holds.
#pragma once

#include <array>
#include <vector>

#include "../lines/lines_internal.hpp"
#include "chunk_chains_internal.hpp"

namespace dryground::detail {

// A chunk as seen by its lines.
struct LinesPlace {
    Ring chunk;
    std::array<bool, 4> has_behind{};                    // whether a chunk lies behind each side
    const std::vector<LabelledRing>* ground = nullptr;   // what lines keep out of; null for none
    // What that ground has along each side, here and behind it.
    const ChunkBorder* border = nullptr;
    std::array<const SideParts*, 4> behind{};
};

// Returns the part of lines near a chunk that lies in it and in no ground. What runs along a common side belongs to the
// chunk below or to the right of it.
[[nodiscard]] std::vector<JoinedLine> lines_in(const LinesPlace& place, const std::vector<LinePiece>& near,
                                               OneWay one_way);

}   // namespace dryground::detail

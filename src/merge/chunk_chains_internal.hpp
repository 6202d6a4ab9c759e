// Inside the merge room: the chains of chunks, open where the ground goes on in another chunk.
#pragma once

#include <vector>

#include "dryground/merge.hpp"

namespace dryground::detail {

// An edge of a chunk's rings, or a part of one, that bounds the ground of the whole map. Those of one run follow each
// other; a run is a whole ring or what is left of it between edges inside the ground.
struct BorderEdge {
    Point from, to;
    int label = 0;
    friend bool operator==(const BorderEdge&, const BorderEdge&) = default;
};
struct Run {
    std::vector<BorderEdge> edges;
    bool closed = true;
};

// What of a chunk's rings lies along a side of the chunk, as parts of that side from the lesser to the greater point.
using SideParts = std::vector<std::pair<Point, Point>>;
struct ChunkSide {
    Point a, b;   // the whole side
    SideParts parts;
};
[[nodiscard]] SideParts parts_along(const std::vector<LabelledRing>& rings, Point a, Point b);

// The runs of a chunk's rings. `shared` holds, of each side that another chunk lies behind, what that one's rings have
// along it: where both have ground, no edge stays.
[[nodiscard]] std::vector<Run> runs_of(const std::vector<LabelledRing>& rings, const std::vector<ChunkSide>& shared);

// Chains of runs. Open ends look for their next vertices in `near`: the runs of the same chunk and of those around.
[[nodiscard]] std::vector<Chain> chains_of(const std::vector<Run>& runs,
                                           const std::vector<const std::vector<Run>*>& near);

}   // namespace dryground::detail

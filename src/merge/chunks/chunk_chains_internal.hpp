// Inside the merge room: the chains of chunks, open where the ground goes on in another chunk.
#pragma once

#include <array>
#include <optional>
#include <vector>

#include "dryground/merge.hpp"

namespace dryground::detail {

// An edge of a chunk's rings, or a part of one, that bounds the ground of the whole map. Those of one run follow each
// other; a run is a whole ring or what is left of one between edges inside the ground.
struct BorderEdge {
    Point from, to;
    int label = 0;
    friend bool operator==(const BorderEdge&, const BorderEdge&) = default;
};
struct Run {
    std::vector<BorderEdge> edges{};
    bool closed = true;
    std::optional<Point> before{}, after{};   // of an open one: as a chain has them
    friend bool operator==(const Run&, const Run&) = default;
};
// The runs of a chunk's rings.
struct Runs {
    std::vector<std::size_t> whole{};   // the rings that lie within the chunk are runs as they are: most
    std::vector<Run> cut{};             // what is left of the others
};

// What a chunk's rings have along the chunk's sides.
using SideParts = std::vector<std::pair<Point, Point>>;   // from the lesser to the greater point, sorted
struct ChunkBorder {
    std::array<SideParts, 4> parts;
    std::vector<std::vector<int>> sides;   // of each ring: nothing, or the side that each edge lies along, else -1
    std::vector<std::pair<Point, Point>> ending;   // edges with an end on a side, besides those that lie along one

    // Returns whether other chunks see the same.
    [[nodiscard]] bool looks_like(const ChunkBorder& other) const {
        return parts == other.parts && ending == other.ending;
    }
};
[[nodiscard]] ChunkBorder border_of(const std::vector<LabelledRing>& rings, const Ring& chunk);

// Returns the runs of a chunk's rings, without what is next to their ends. `shared` holds, for each side that another
// chunk lies behind, what that chunk has along it: where both have ground, no edge stays.
[[nodiscard]] Runs runs_of(const std::vector<LabelledRing>& rings, const ChunkBorder& border,
                           const std::array<const SideParts*, 4>& shared);

// Finds what is next to the ends of open runs, in `near`: the runs of the same chunk and of those around it.
void find_ends(Runs& runs, const std::vector<const Runs*>& near);
// Makes all chains of a chunk, sorted; returns false if they are the same as before. `stays`: of each ring, whether it
// is the same as then. Chains of such rings stay where they are in memory.
bool renew_chains(const std::vector<LabelledRing>& rings, const std::vector<char>& stays, const Runs& runs,
                  std::vector<Chain>& chains);

}   // namespace dryground::detail

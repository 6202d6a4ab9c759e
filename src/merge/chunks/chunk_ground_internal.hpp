// Inside the merge room: a map's chunks, each with its rings, runs and lines and with the groups made of them.
// chunks.cpp decides which of them an edit renews.
#pragma once

#include <array>
#include <vector>

#include "../../model/grid_internal.hpp"
#include "chunk_layout_internal.hpp"
#include "chunk_lines_internal.hpp"
#include "chunk_plans_internal.hpp"

namespace dryground::detail {

// Refers to the world; keeps a map of its own.
struct ChunkGround {
    ChunkGround(const World& w, const Map& m, int chunk_cells, const MergeOptions& o);

    // Makes everything from the current plans.
    void make_all();
    // Makes room for the shares of new plans.
    void make_room();

    // ---- a chunk's shares, by plan ----

    // Merges the chunk's cells.
    void merge_cells(std::size_t chunk);
    // Finds the runs of some chunks again, whose rings may have changed or whose neighbours' have.
    void renew_runs(const std::vector<std::size_t>& chunks);
    enum class Lines { same, others_inside, others_at_side };   // than before; the last where other chunks see them
    Lines find_lines(std::size_t chunk);

    // ---- a chunk's groups ----

    // Makes the groups of a chunk whose cells were merged; returns false if they stay the same.
    bool make_groups(std::size_t chunk);
    // Makes the lines and chains of a chunk again, whose regions stay; returns false if these stay too.
    bool renew_edges(std::size_t chunk);

    const World& world;
    Map map;
    MergeOptions options;
    Grid grid;
    bool flat;   // laid on the ground
    ChunkLayout layout;
    ChunkPlans plans;
    ChunkedMerge merge;

private:
    using Behind = std::array<const SideParts*, 4>;

    // Returns what another chunk has along the common side, by side.
    [[nodiscard]] Behind behind(const PlanShares& plan, std::size_t chunk) const;
    void find_runs(std::size_t chunk);
    // Lists runs that other chunks share.
    void find_ends(std::size_t chunk);
    [[nodiscard]] LinesPlace place_of_lines(const PlanShares& plan, std::size_t chunk) const;
    // Adds what lines that end in a chunk may continue along: edges of ground and lines in and around it.
    void add_edges_near(const PlanShares& plan, std::size_t chunk, Neighbours& neighbours) const;
    // Returns a group without edges and regions.
    [[nodiscard]] Group group_of(const PlanShares& plan) const;
    // Makes the chains and lines of a group; returns false if they stay the same.
    bool make_edges(PlanShares& plan, std::size_t chunk, Group& group) const;
};

}   // namespace dryground::detail

// The geometry of a map: its shapes stacked, carved and merged, group by group.
//
// Units: lattice steps, y down (geometry.hpp); files and bridges turn them into px or metres. Results are values that
// own their content and refer to nothing. Threads: free functions without shared state.
#pragma once

#include <cstddef>
#include <string>
#include <string_view>
#include <vector>

#include "dryground/world.hpp"

namespace dryground {

// A closed outline (or hole) for one-sided physics edges: the solid is on the left by the numbers. Segment i runs from
// points[i] to the next point, the last one to the first, and is made of surfaces[i] (an index into Merge::surfaces).
// A vertex stands wherever the direction or the surface changes. The neighbours of a closed chain's ends are its own.
struct Chain {
    Ring points;
    std::vector<int> surfaces;
};

// What shares storey, barrier and trigger name. A barrier group blocks, a trigger group senses and has no barrier.
struct Group {
    std::string storey, barrier, trigger;
    int storey_id = 0, barrier_id = -1;
    Regions regions;             // valid, least, directed, sorted (geometry.hpp)
    std::vector<Chain> chains;   // sorted by their points
    std::vector<Ring> pieces;    // convex, sorted; exact cover of the regions
};

struct MergeStats {
    std::size_t layers = 0, tiles = 0, objects = 0;   // of the map
    std::size_t shapes_in = 0;                        // shapes, solids and rims that were merged
    std::size_t shapes_left_out = 0;   // shapes with an error: they cross themselves, have no area or no barrier
};

struct Merge {
    std::string map;
    std::vector<Group> groups;       // sorted by storey, barrier, trigger; those without area are left out
    std::vector<Surface> surfaces;   // each that a chain shows, once; the empty one first
    MergeStats stats;

    // The group of a barrier on a storey. An empty group when nothing of it is there. O(groups).
    [[nodiscard]] const Group& group(std::string_view barrier, std::string_view storey = "ground") const;
};

struct MergeOptions {
    int most_vertices = 0;   // of a piece, 3 or more; 0: as the world's merging settings say
    bool chains = true;      // whether to make chains
    bool pieces = true;      // whether to cut pieces
};

// Merges a map of a world, with no fact true. Shapes with an error are left out and counted. Requires that the map is
// of this world. Cost: O(n log n) in edges of shapes.
[[nodiscard]] Merge merge(const World& world, const Map& map, const MergeOptions& options = {});

// Everything on a storey that a mover is stopped by: the barriers it names, and cells that grant none of the flags it
// needs. Valid and least.
[[nodiscard]] Regions blocked_area(const World& world, const Map& map, int mover, int storey);

// Whether an object is there when no fact is true.
[[nodiscard]] bool there_at_first(const Object& object);

// A tile's shape as it stands on a cell: steps of the map, flips and turns applied.
[[nodiscard]] Regions placed_area(const Map& map, const Shape& shape, const Placed& placed, int column, int row);

// The flags and sides of a cell on a storey, as the topmost tile that says them decides.
struct CellSay {
    FlagSet flags = 0;
    Sides sides;
    int flags_layer = -1, sides_layer = -1;   // which layer decided; -1: none said anything
};
[[nodiscard]] CellSay passability(const World& world, const Map& map, int column, int row, int storey);

}   // namespace dryground

// Merges the shapes of a map: stacked, carved and united, group by group.
//
// Units: lattice steps, y down (geometry.hpp); files and bridges convert them to px or metres. Results are values that
// own their content and refer to nothing. Threads: free functions without shared state.
#pragma once

#include <array>
#include <cstddef>
#include <functional>
#include <initializer_list>
#include <memory>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "dryground/ground.hpp"

namespace dryground {

// Edges for physics engines: a closed outline or hole, or an open line. Segment i runs from points[i] to the next point
// (of a closed chain: from the last to the first) and has surfaces[i] (an index into Merge::surfaces). There is a
// vertex wherever the direction or the surface changes. A one-sided chain blocks what comes from its right: the solid
// is on its left, by the numbers.
struct Chain {
    Ring points;
    std::vector<int> surfaces{};
    bool closed = true;
    bool two_sided = false;
    // For an open chain: the vertices before its first and after its last point on the edge that bodies slide along;
    // empty where that edge ends. The neighbours of a closed chain's ends are its own points.
    std::optional<Point> before{}, after{};

    friend bool operator==(const Chain&, const Chain&) = default;
};

// Merged shapes with the same storey, barrier, trigger name and one-way direction. A barrier group blocks; a trigger
// group senses, and has no barrier. Merged for a mover, groups contain what stops it, by storey and one-way direction.
struct Group {
    std::string storey{}, barrier{}, trigger{}, mover{};
    StoreyId storey_id = StoreyId::ground;
    BarrierId barrier_id = BarrierId::none;
    OneWay one_way = OneWay::none;   // groups with a direction have lines only
    Regions regions{};               // valid, minimal, directed, sorted (geometry.hpp)
    std::vector<Ring> lines{};       // joined across tiles; closed ones repeat their first point; sorted
    std::vector<Chain> chains{};     // of regions, sorted by their points, then of lines
    std::vector<Ring> pieces{};      // convex, sorted; an exact cover of the regions
    Boxes boxes{};                   // an exact cover of the regions, if requested
    Mesh triangles{};                // likewise

    friend bool operator==(const Group&, const Group&) = default;
};

// The plane of coordinates: the screen, or the ground, on which every cell is a square.
enum class Plane { screen, ground };

struct MergeStats {
    std::size_t layers = 0, tiles = 0, objects = 0;   // of the map
    std::size_t shapes_in = 0;                        // merged shapes, solids and rims
    std::size_t shapes_left_out = 0;   // shapes with an error: crossing themselves, without area or barrier
};

struct Merge {
    std::string map;
    std::vector<Group> groups;       // sorted by storey, barrier, trigger; empty ones are omitted
    std::vector<Surface> surfaces;   // those that chains refer to, each once; the empty one first
    MergeStats stats;
    Plane plane = Plane::screen;
    // On the ground plane: the size of a cell in its coordinates. For square grids these are steps; for isometric ones
    // other whole numbers, to which steps convert exactly.
    Point cell{};

    // Returns the group of a barrier on a storey; an empty group if nothing of it is there. O(groups).
    [[nodiscard]] const Group& group(std::string_view barrier, std::string_view storey = "ground") const;
};

struct MergeOptions {
    int most_vertices = 0;   // of a piece, 3 or more; 0: as in the world's merging settings
    MergeForms forms{MergeForm::chains, MergeForm::pieces};   // regions and lines are always made
    MoverId mover = MoverId::none;   // merge all that stops this mover, instead of each barrier
    Facts facts{};                   // the facts that are true, for `when` and `unless`
    std::int32_t grow = 0;           // steps by which regions are grown, or shrunk; they have no surfaces then
    Corners corners = Corners::round;
    Plane plane = Plane::screen;
    // Also merge the areas of objects that are triggers or links, a group for each name (for objects without a name:
    // for each kind); for a mover those that it sets off. For whole maps only: chunks omit them.
    bool triggers = false;
    // Runs work(0) to work(count - 1), in any order or in parallel, and returns when all are done: the hook for
    // threads. Empty: runs sequentially. Results are the same. Exceptions of work must be passed on.
    std::function<void(std::size_t count, const std::function<void(std::size_t)>& work)> parallel_for{};
};

// Merges a map of a world. Shapes with errors are omitted and counted. Requires a map of this world. Throws
// std::length_error for the ground plane of an isometric map so large that its coordinates leave the range of the
// lattice. Cost: proportional to cells and outlines; O(n log n) in edges of shapes that do not keep to cells.
[[nodiscard]] Merge merge(const World& world, const Map& map, const MergeOptions& options = {});

// ---- chunks and live edits --------------------------------------------------------------------------------------

// A square block of cells. Chunks adjoin exactly; chains that continue in another chunk are open, and know the next
// vertex there. Empty groups are omitted.
struct Chunk {
    std::array<int, 2> chunk{};   // column and row, in chunks from cell (0, 0)
    std::vector<Group> groups{};

    friend bool operator==(const Chunk&, const Chunk&) = default;
};
struct ChunkedMerge {
    std::string map{};
    int chunk_cells = 0;
    std::vector<Chunk> chunks{};       // all chunks of the map, sorted by row, then column
    std::vector<Surface> surfaces{};   // those of the map's shapes, sorted, the empty one first
    MergeStats stats{};
    Plane plane = Plane::screen;   // and the size of a cell on it, as in Merge
    Point cell{};
};

// Merges a map in chunks of `chunk_cells` (1 or more) a side. Shapes that reach out of the map belong to the chunks at
// its edge. Ignores `grow` of the options, which would reach into other chunks.
[[nodiscard]] ChunkedMerge merge_chunks(const World& world, const Map& map, int chunk_cells,
                                        const MergeOptions& options = {});

// A map whose cells change, with its geometry kept up to date. Owns a copy of the map; the world must outlive it.
class LiveMap {
public:
    LiveMap(const World& world, const Map& map, int chunk_cells, const MergeOptions& options = {});
    ~LiveMap();
    LiveMap(LiveMap&&) noexcept;
    LiveMap& operator=(LiveMap&&) noexcept;

    [[nodiscard]] const Map& map() const;
    [[nodiscard]] const ChunkedMerge& merge() const;

    // Puts a tile (or none) on a cell. Returns the changed chunks as positions in merge().chunks, sorted: that of the
    // cell, and neighbours whose chains continue differently. Throws std::out_of_range for a layer of objects and for
    // cells and tiles that do not exist. Cost: proportional to the chunks that the old and the new tile reach into; to
    // the map for a tile new to it that reaches further out of its cell than all others, or has a surface or one-way
    // direction that no other has.
    std::vector<std::size_t> set_tile(LayerId layer, DataCell cell, const Placed& tile);
    // Sets the facts that are true: sorted ids. Returns the changed chunks. Cost: proportional to the chunks with
    // things that appear, disappear, open or close, and to the cells of layers that do.
    std::vector<std::size_t> set_facts(const Facts& facts);
    // Removes an object, or puts it back. Returns the changed chunks. Cost: proportional to the chunks it lies in.
    std::vector<std::size_t> set_removed(ObjectId object, bool removed);

private:
    struct Parts;
    std::unique_ptr<Parts> parts_;
};

// Returns all that stops a mover on a storey: the barriers it names, and cells that grant none of the flags it needs.
// Valid and minimal.
[[nodiscard]] Regions blocked_area(const World& world, const Map& map, MoverId mover, StoreyId storey,
                                   const Facts& facts = {});

}   // namespace dryground

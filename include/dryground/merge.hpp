// The geometry of a map: its shapes stacked, carved and merged, group by group.
//
// Units: lattice steps, y down (geometry.hpp); files and bridges turn them into px or metres. Results are values that
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
// (of a closed chain: the last one to the first) and is made of surfaces[i] (an index into Merge::surfaces). A vertex
// stands wherever the direction or the surface changes.
// A one-sided chain blocks what comes from its right, so that the solid is on its left by the numbers.
struct Chain {
    Ring points;
    std::vector<int> surfaces{};
    bool closed = true;
    bool two_sided = false;
    // Of an open chain: the next vertex before its first and after its last point where the edge that bodies slide over
    // goes on; nothing where it ends. The neighbours of a closed chain's ends are its own.
    std::optional<Point> before{}, after{};

    friend bool operator==(const Chain&, const Chain&) = default;
};

// What shares storey, barrier, trigger name and one-way direction. A barrier group blocks, a trigger group senses and
// has no barrier. Merged for a mover, the groups are what stops it, by storey and one-way direction.
struct Group {
    std::string storey{}, barrier{}, trigger{}, mover{};
    StoreyId storey_id = StoreyId::ground;
    BarrierId barrier_id = BarrierId::none;
    OneWay one_way = OneWay::none;   // groups with a direction have lines only
    Regions regions{};               // valid, least, directed, sorted (geometry.hpp)
    std::vector<Ring> lines{};       // open ones, joined across tiles; closed ones repeat their first point; sorted
    std::vector<Chain> chains{};     // of regions, sorted by their points, then of lines
    std::vector<Ring> pieces{};      // convex, sorted; exact cover of the regions
    Boxes boxes{};                   // exact cover of the regions, if asked for
    Mesh triangles{};                // likewise

    friend bool operator==(const Group&, const Group&) = default;
};

// The plane that coordinates lie in: the screen's, or the ground laid flat, on which every cell is a square.
enum class Plane { screen, ground };

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
    Plane plane = Plane::screen;
    // On the ground: how many of its coordinates a cell is wide and high. Of a square grid they are steps still; of an
    // isometric one they are other whole numbers, into which steps turn exactly.
    Point cell{};

    // The group of a barrier on a storey. An empty group when nothing of it is there. O(groups).
    [[nodiscard]] const Group& group(std::string_view barrier, std::string_view storey = "ground") const;
};

// What merged ground is given as.
enum class MergeForm { regions, lines, chains, pieces, boxes, triangles };
class MergeForms {
public:
    constexpr MergeForms() = default;
    constexpr MergeForms(std::initializer_list<MergeForm> forms) {
        for (const MergeForm form : forms) set(form);
    }
    [[nodiscard]] constexpr bool has(MergeForm form) const { return (bits_ >> static_cast<unsigned>(form) & 1u) != 0; }
    constexpr void set(MergeForm form, bool on = true) {
        const unsigned bit = 1u << static_cast<unsigned>(form);
        bits_ = on ? bits_ | bit : bits_ & ~bit;
    }
    friend constexpr bool operator==(const MergeForms&, const MergeForms&) = default;

private:
    unsigned bits_ = 0;
};
// By the names that files and the command line use: regions, lines, chains and so on, in the order of MergeForm.
[[nodiscard]] std::span<const std::string_view> form_names();
[[nodiscard]] MergeForms forms_named(std::span<const std::string> names);   // unknown ones are ignored

struct MergeOptions {
    int most_vertices = 0;   // of a piece, 3 or more; 0: as the world's merging settings say
    MergeForms forms{MergeForm::chains, MergeForm::pieces};   // regions and lines are made in any case
    MoverId mover = MoverId::none;   // one group for all that stops it, in place of the barriers'
    Facts facts{};                   // those that are true: what stands there by `when` and `unless` follows them
    std::int32_t grow = 0;           // steps by which regions are grown, or shrunk; their surfaces are not told then
    Corners corners = Corners::round;
    Plane plane = Plane::screen;
    // Also the areas of objects that are triggers or links, a group for each name (of objects without one: of their
    // kind); for a mover those that it sets off. Of whole maps only: chunks leave them out.
    bool triggers = false;
    // Runs work(0) to work(count - 1), in any order or at once, and returns when all are done: the seam for threads.
    // Nothing: one after another. Results are the same. What work throws must come out of it.
    std::function<void(std::size_t count, const std::function<void(std::size_t)>& work)> parallel_for{};
};

// Merges a map of a world. Shapes with an error are left out and counted. Requires that the map is
// of this world. Throws std::length_error for the ground plane of an isometric map so large that its coordinates leave
// the lattice's range. Cost: in proportion to cells and outlines; O(n log n) in edges of shapes that do not keep to
// cells.
[[nodiscard]] Merge merge(const World& world, const Map& map, const MergeOptions& options = {});

// ---- chunks and live edits --------------------------------------------------------------------------------------

// A square block of cells. Chunks adjoin exactly; chains are open where they go on in another chunk, and name the next
// vertex there. Groups that have nothing in a chunk are left out.
struct Chunk {
    std::array<int, 2> chunk{};   // column and row of chunks, counted from cell (0, 0)
    std::vector<Group> groups{};

    friend bool operator==(const Chunk&, const Chunk&) = default;
};
struct ChunkedMerge {
    std::string map{};
    int chunk_cells = 0;
    std::vector<Chunk> chunks{};       // all that the map has, sorted by row, then column
    std::vector<Surface> surfaces{};   // each that the map's shapes have, sorted, the empty one first
    MergeStats stats{};
    Plane plane = Plane::screen;   // and the size of a cell on it, as in Merge
    Point cell{};
};

// The same geometry in chunks of `chunk_cells` (1 or more) a side. What reaches out of the map belongs to the chunks at
// its edge. `grow` of the options is not looked at: what grows reaches into other chunks.
[[nodiscard]] ChunkedMerge merge_chunks(const World& world, const Map& map, int chunk_cells,
                                        const MergeOptions& options = {});

// A map whose cells change while its geometry is kept. Owns a copy of the map; the world must outlive it.
class LiveMap {
public:
    LiveMap(const World& world, const Map& map, int chunk_cells, const MergeOptions& options = {});
    ~LiveMap();
    LiveMap(LiveMap&&) noexcept;
    LiveMap& operator=(LiveMap&&) noexcept;

    [[nodiscard]] const Map& map() const;
    [[nodiscard]] const ChunkedMerge& merge() const;

    // Puts a tile (or none) on a cell. Gives back which chunks have changed, as
    // positions in merge().chunks, sorted: the cell's own, and those beside it whose chains meet it otherwise now.
    // Throws std::out_of_range for a layer of objects, a cell or a tile that is not there. Cost: in proportion to a
    // chunk, where the area of the tiles that go and come keeps to their cells; else to the map.
    std::vector<std::size_t> set_tile(LayerId layer, DataCell cell, const Placed& tile);
    // From now on just these facts are true: sorted ids. Gives back which chunks have changed. Cost: in proportion to
    // the chunks that hold what comes, goes, opens or closes, and to the cells of layers that do.
    std::vector<std::size_t> set_facts(const Facts& facts);
    // Takes an object away, or puts it back. Cost: in proportion to the chunks that it lies in.
    std::vector<std::size_t> set_removed(ObjectId object, bool removed);

private:
    struct Parts;
    std::unique_ptr<Parts> parts_;
};

// Everything on a storey that a mover is stopped by: the barriers it names, and cells that grant none of the flags it
// needs. Valid and least.
[[nodiscard]] Regions blocked_area(const World& world, const Map& map, MoverId mover, StoreyId storey,
                                   const Facts& facts = {});

}   // namespace dryground

// Edits a world in its files: only the characters that describe the change are replaced. Comments, order and spacing of
// everything else stay byte for byte, in TOML and CSV; in PNG all other pixels do.
//
// An edit is a value. Making it returns the new bytes of the files, or why there are none; nothing is written to disk
// here (work.hpp writes and undoes). The result is read again before it is returned: an edit that would make the world
// unreadable is a failure, with its findings.
//
// Cells are counted from cell (0, 0). Their contents are given by name: a tile, a family, a block or a kind ("set/name"
// if two sets have the name; "kind crab" if a tile has the name of a kind); tiles with flips and turns as in CSV
// ("bank:x:90"); "" is empty. Threads: free functions without shared state.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <variant>
#include <vector>

#include "dryground/files.hpp"

namespace dryground {

// ---- cells; `layer` may be empty if the map has only one layer of cells ----

struct PaintCells {
    std::string layer, tile;
    std::vector<Cell> cells;
};
// Fills the cell and all equal cells connected with it by sides.
struct FillCells {
    std::string layer, tile;
    Cell cell{};
};
struct ReplaceTile {
    std::string layer, from, to;
    std::optional<CellArea> area{};   // omitted: the whole map
};
struct CopyCells {
    std::string layer;
    CellArea area{};
    Cell to{};                // of the area's top-left cell
    std::string to_layer{};   // empty: the same layer
    bool move = false;        // the area is emptied, except where it was copied to
};

// ---- objects, by their names ----

// The place of an object: px, a cell, or a block of cells.
using ObjectAt = std::variant<PointPx, Cell, CellArea>;
using GivenProperties = std::vector<std::pair<std::string, std::string>>;   // values as in files, without quotes

// Keys that key_page lists for the thing, and its properties ("props.NAME" if a key has the same name). Values: texts
// need no quotes, lists of texts or numbers no brackets (iron,rope or 0,8,16,8); anything else is TOML, such as
// { friction = 0.5 }.
using GivenKeys = GivenProperties;

struct AddObject {
    std::string layer;   // may be empty if the map has only one layer of objects
    std::string name, kind;
    std::optional<ObjectAt> at;   // omitted if `values` contain its shape
    std::string to{};             // of a link: map/object
    GivenKeys values{};
};
struct MoveObject {
    std::string name;
    std::variant<PointPx, Cell> to;   // of an object with a shape: only PointPx, with `by`
    bool by = false;                  // `to` is a distance
};
struct DropObject {
    std::string name;
};
struct GiveObject {
    std::string name;
    GivenKeys values;
};

// ---- layers, by their names; the first is the lowest ----

struct AddLayer {
    std::string layer;
    bool of_objects = false;        // else of cells, all empty
    std::string above{}, below{};   // the layer next to which it is inserted; both empty: on top
    GivenKeys values{};
};
struct DropLayer {
    std::string layer;
};
struct OrderLayer {
    std::string layer;
    std::string above{}, below{};   // one of both
};
struct GiveLayer {
    std::string layer;   // may be empty if the map has only one
    GivenKeys values;
};

// ---- the whole map ----

struct GiveMap {
    GivenKeys values;
};

enum class Keep { top_left, top_right, bottom_left, bottom_right };
// Cells that stay keep their coordinates: adding or removing columns at the left or rows at the top changes the first
// cell of the map. New cells are empty.
struct ResizeMap {
    int columns = 0, rows = 0;
    Keep keep = Keep::top_left;   // the corner that stays
};
// Moves all cells and objects by so many cells. Cells that leave the map are lost; objects may end up outside.
struct ShiftMap {
    int columns = 0, rows = 0;
};

using MapEdit = std::variant<PaintCells, FillCells, ReplaceTile, CopyCells, AddObject, MoveObject, DropObject,
                             GiveObject, AddLayer, DropLayer, OrderLayer, GiveLayer, GiveMap, ResizeMap, ShiftMap>;

struct EditMap {
    std::string map;
    MapEdit edit;
};

// ---- named things of the world: barriers, flags, storeys, movers, facts, events, kinds ----

// `thing` is "barrier", "flag", "storey", "mover", "fact", "event" or "kind". Flags, facts and events have only one
// key: `note`. A kind's property is declared as in "props.patrol_px" = "{ type = 'number', default = 32 }"; a value
// alone is a new default of one already declared.
struct AddThing {
    std::string thing, name;
    GivenKeys values{};
};
struct GiveThing {
    std::string thing, name;
    GivenKeys values;
};
struct DropThing {
    std::string thing, name;
};
// Keys of the world; those of its tables as "merging.within_px", "check.leak", "limits.maps".
struct GiveWorld {
    GivenKeys values;
};

// ---- maps and tile sets of the world ----

// Adds a map in a file beside that of the first map, with an empty layer `ground` of cells and an empty layer
// `objects`. Grid, cell, rim and tile sets default to those of the first map.
struct AddMap {
    std::string map;
    int columns = 0, rows = 0;
    GivenKeys values{};
};
// Removes a map or a tile set from the world's list; its file stays.
struct DropMap {
    std::string map;
};
// Adds an existing file of a tile set or map to the world's list.
struct AddFile {
    std::string file;   // from the world's folder
};
struct DropTileSet {
    std::string tileset;
};

// ---- tiles of a set, by a pattern for their names (* matches any characters) ----

struct AddTile {
    std::string tileset, tile;
    GivenKeys values{};
};
struct GiveTiles {
    std::string tileset, pattern;
    GivenKeys values;
};
struct DropTiles {
    std::string tileset, pattern;
};

using WorldEdit = std::variant<EditMap, AddThing, GiveThing, DropThing, GiveWorld, AddMap, DropMap, AddFile,
                               DropTileSet, AddTile, GiveTiles, DropTiles>;

struct Edited {
    std::vector<NamedBytes> files{};   // changed and new files, from the world's folder; empty if nothing changes
    std::size_t changed = 0;           // cells, objects, keys, or other things
    std::vector<std::string> lost{};   // what is lost at the map's edge: "3 cells of layer 'ground': 3 marsh/peat"
    // The world as read for the edit, and as it will be; for an edit of one map possibly with only that map and those
    // it refers to.
    Result<World> before = Failure{}, after = Failure{};
};

// The maps that are read for an edit.
enum class EditReads {
    needed,   // for an edit of one map: that map and those it refers to, unless others may refer to it
    all,
};

// Makes an edit. Failures include findings. Cost: reading what is needed, twice.
[[nodiscard]] Result<Edited> make_edit(const std::string& world_file, const WorldEdit& edit,
                                       const FileReader& reader = read_file, EditReads reads = EditReads::needed);

// Return the cells of a straight line, ends included (Bresenham, "Algorithm for computer control of a digital plotter",
// IBM Systems Journal 4, 1965); of a box; of the outermost ring of a box.
[[nodiscard]] std::vector<Cell> cells_of_line(Cell from, Cell to);
[[nodiscard]] std::vector<Cell> cells_of_box(const CellArea& box);
[[nodiscard]] std::vector<Cell> cells_of_ring(const CellArea& box);

// Returns the lines in which two texts differ, with three lines of context, removed ones marked -, new ones +; for
// people. Empty if there is no difference.
[[nodiscard]] std::string line_differences(std::string_view before, std::string_view after);

}   // namespace dryground

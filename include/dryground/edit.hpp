// Changes to a world, made in its files: just the characters that say what changes are changed. Comments, order and
// spacing of the rest stay byte for byte, in TOML and CSV; in PNG all other pixels.
//
// An edit is a value that says what to do. Making it gives the files' new bytes, or why there are none; nothing is
// written here (work.hpp writes, and takes back). What comes out is read again before it is given back: an edit after
// which the world could not be read any more is a fault, with its findings.
//
// Cells are named as in maps, counted from cell (0, 0). What is painted on them is named as people name it: a tile, a
// family, a block or a kind ("set/name" where two sets have one of that name; "kind crab" where a tile has the name of
// a kind); tiles with flips and turns as in CSV ("bank:x:90"); "" is nothing. Threads: free functions without shared
// state.
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

// ---- cells. `layer` may be left empty where the map has but one layer of cells ----

struct PaintCells {
    std::string layer, tile;
    std::vector<Cell> cells;
};
// The cell and all that hang together with it by sides and hold the same.
struct FillCells {
    std::string layer, tile;
    Cell cell{};
};
struct ReplaceTile {
    std::string layer, from, to;
    std::optional<CellArea> area{};   // all of the map if left out
};
struct CopyCells {
    std::string layer;
    CellArea area{};
    Cell to{};                // of the area's top-left cell
    std::string to_layer{};   // the same layer if left empty
    bool move = false;        // the area is empty afterwards, where nothing was put into it
};

// ---- objects, by their names ----

// Where an object is: px, or a cell, or a block of cells.
using ObjectAt = std::variant<PointPx, Cell, CellArea>;
using GivenProperties = std::vector<std::pair<std::string, std::string>>;   // values as one writes them, quotes apart

// Keys, any of those that key_page lists for the thing, and properties that it may have ("props.NAME" where a key has
// the name). Values as one writes them: texts need no quotes, lists of texts or numbers no brackets (iron,rope or
// 0,8,16,8); anything else is TOML, as in { friction = 0.5 }.
using GivenKeys = GivenProperties;

struct AddObject {
    std::string layer;   // may be left empty where the map has but one layer of objects
    std::string name, kind;
    std::optional<ObjectAt> at;   // nothing where `values` draw its shape
    std::string to{};             // of a link: map/object
    GivenKeys values{};
};
struct MoveObject {
    std::string name;
    std::variant<PointPx, Cell> to;   // of what has a shape: PointPx only, and by so much
    bool by = false;                  // `to` is how far
};
struct DropObject {
    std::string name;
};
struct GiveObject {
    std::string name;
    GivenKeys values;
};

// ---- layers, by their names: the first lies lowest ----

struct AddLayer {
    std::string layer;
    bool of_objects = false;        // else of cells, all empty
    std::string above{}, below{};   // a layer beside which it goes; uppermost if both are left empty
    GivenKeys values{};
};
struct DropLayer {
    std::string layer;
};
struct OrderLayer {
    std::string layer;
    std::string above{}, below{};   // one of them
};
struct GiveLayer {
    std::string layer;   // may be left empty where the map has but one
    GivenKeys values;
};

// ---- the whole map ----

struct GiveMap {
    GivenKeys values;
};

enum class Keep { top_left, top_right, bottom_left, bottom_right };
// What stays where it is keeps its coordinates: where columns or rows come or go at the left or the top, the map's
// first cell becomes another. New cells are empty.
struct ResizeMap {
    int columns = 0, rows = 0;
    Keep keep = Keep::top_left;   // the corner that stays
};
// Moves all cells and objects by so many cells. What leaves the map's cells is lost; objects may lie outside then.
struct ShiftMap {
    int columns = 0, rows = 0;
};

using MapEdit = std::variant<PaintCells, FillCells, ReplaceTile, CopyCells, AddObject, MoveObject, DropObject,
                             GiveObject, AddLayer, DropLayer, OrderLayer, GiveLayer, GiveMap, ResizeMap, ShiftMap>;

struct EditMap {
    std::string map;
    MapEdit edit;
};

// ---- what the world names: barriers, flags, storeys, movers, facts, events, kinds ----

// `thing` is "barrier", "flag", "storey", "mover", "fact", "event" or "kind". Flags, facts and events have but one key:
// `note`. A kind's property is declared as in "props.patrol_px" = "{ type = 'number', default = 32 }"; a bare value is
// the default of one that is declared already.
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
// Keys of the world itself; those of its tables as "merging.within_px", "check.leak", "limits.maps".
struct GiveWorld {
    GivenKeys values;
};

// ---- maps and tile sets of the world ----

// A file of its own beside the first map's: with a layer `ground` of cells and a layer `objects`, both empty. What is
// not said is as in the first map: grid, cell, rim, tile sets.
struct AddMap {
    std::string map;
    int columns = 0, rows = 0;
    GivenKeys values{};
};
// Takes a map, or a tile set, off the world's list; its file stays.
struct DropMap {
    std::string map;
};
// A tile set's or map's file that is there already comes into the world's list.
struct AddFile {
    std::string file;   // from the world's folder
};
struct DropTileSet {
    std::string tileset;
};

// ---- tiles: those of a set whose names match a pattern (* for any run of characters) ----

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
    std::vector<NamedBytes> files{};   // those that changed or came, from the world's folder; none where all is so
    std::size_t changed = 0;           // cells, objects, keys, or other things
    std::vector<std::string> lost{};   // what goes over the map's edge: "3 cells of layer 'ground': 3 marsh/peat"
    // The world as it was read for the edit, and as it will be; of an edit of one map perhaps with that map alone, and
    // those that it names.
    Result<World> before = Failure{}, after = Failure{};
};

// Which of a world's maps are read for an edit.
enum class EditReads {
    needed,   // of an edit of one map: that map, and those that the edit names, unless other maps may refer to it
    all,
};

// Fails with the findings that stand in the way, too. Cost: that of reading what is needed twice.
[[nodiscard]] Result<Edited> make_edit(const std::string& world_file, const WorldEdit& edit,
                                       const FileReader& reader = read_file, EditReads reads = EditReads::needed);

// The cells of a straight line, ends included (Bresenham 1965); of a box; of its outermost ring.
[[nodiscard]] std::vector<Cell> cells_of_line(Cell from, Cell to);
[[nodiscard]] std::vector<Cell> cells_of_box(const CellArea& box);
[[nodiscard]] std::vector<Cell> cells_of_ring(const CellArea& box);

// The lines in which two texts differ, with three lines around them, each with - or + before it where it went or came;
// for people. Empty when there is no difference.
[[nodiscard]] std::string line_differences(std::string_view before, std::string_view after);

}   // namespace dryground

// Changes to designers' maps, made in their files: just the characters that say what changes are changed. Comments,
// order and spacing of the rest stay byte for byte, in TOML and CSV; in PNG all other pixels.
//
// An edit gives the files' new bytes, or why there are none; nothing is written here. What comes out is read again
// before it is given back: an edit after which the map could not be read any more is a fault, with its findings.
// Cells are named as in maps, counted from cell (0, 0); tiles by their names, "set/tile" where two sets have one of
// that name, with flips and turns as in CSV ("bank:x:90"); "" is no tile. Threads: free functions without shared state.
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

using CellAt = std::array<int, 2>;   // column, row

// ---- cells. `layer` may be left empty where the map has but one layer of cells ----

struct PaintCells {
    std::string layer, tile;
    std::vector<CellAt> cells;
};
// The cell and all that hang together with it by sides and hold the same.
struct FillCells {
    std::string layer, tile;
    CellAt cell{};
};
struct ReplaceTile {
    std::string layer, from, to;
    std::optional<CellArea> area{};   // all of the map if left out
};
struct CopyCells {
    std::string layer;
    CellArea area{};
    CellAt to{};   // of the area's top-left cell
};

// ---- objects, by their names ----

// Where an object is: px, or a cell, or a block of cells.
using ObjectAt = std::variant<PointPx, CellAt, CellArea>;
using GivenProperties = std::vector<std::pair<std::string, std::string>>;   // values as one writes them, quotes apart

// Keys, any of those that key_page lists for the thing, and properties that it may have ("props.NAME" where a key has
// the name). Values as one writes them: texts need no quotes, lists of texts or numbers no brackets (iron,rope or
// 0,8,16,8); anything else is TOML, as in { friction = 0.5 }.
using GivenKeys = GivenProperties;

struct AddObject {
    std::string layer;   // may be left empty where the map has but one layer of objects
    std::string name, kind;
    ObjectAt at;
    std::string to{};   // of a link: map/object
    GivenKeys values{};
};
struct MoveObject {
    std::string name;
    std::variant<PointPx, CellAt> to;   // of what has a shape: PointPx only, and by so much
    bool by = false;                    // `to` is how far
};
struct DropObject {
    std::string name;
};
struct GiveObject {
    std::string name;
    GivenKeys values;
};

// ---- the whole map ----

struct GiveLayer {
    std::string layer;   // may be left empty where the map has but one
    GivenKeys values;
};
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
                             GiveObject, GiveLayer, GiveMap, ResizeMap, ShiftMap>;

struct Edited {
    std::vector<NamedBytes> files;   // those that changed, from the world's folder; none where all is so already
    std::size_t changed = 0;         // cells, objects, or keys
    std::string fault;               // why there is no result; empty when there is one
    Report report;                   // findings that stood in the way
};

// Cost: about that of reading the world twice.
[[nodiscard]] Edited edit_map(const std::string& world_file, const std::string& map, const MapEdit& edit,
                              const FileReader& reader = read_file);

// Keys of a kind; of all tiles of a set whose names match a pattern (* for any run of characters). Cost as above.
[[nodiscard]] Edited edit_kind(const std::string& world_file, const std::string& kind, const GivenKeys& values,
                               const FileReader& reader = read_file);
[[nodiscard]] Edited edit_tiles(const std::string& world_file, const std::string& tileset, const std::string& pattern,
                                const GivenKeys& values, const FileReader& reader = read_file);

// The cells of a straight line, ends included (Bresenham 1965); of a box; of its outermost ring.
[[nodiscard]] std::vector<CellAt> cells_of_line(CellAt from, CellAt to);
[[nodiscard]] std::vector<CellAt> cells_of_box(const CellArea& box);
[[nodiscard]] std::vector<CellAt> cells_of_ring(const CellArea& box);

// The lines in which two texts differ, with three lines around them, each with - or + before it where it went or came;
// for people. Empty when there is no difference.
[[nodiscard]] std::string line_differences(std::string_view before, std::string_view after);

}   // namespace dryground

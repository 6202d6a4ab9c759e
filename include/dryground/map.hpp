// Maps: layers of cells and objects on a grid. Part of world.hpp, which says what holds for all of it.
#pragma once

#include <string_view>
#include <utility>

#include "dryground/cell.hpp"
#include "dryground/tileset.hpp"

namespace dryground {

// A flip, then a turn clockwise (y down), about the middle of a cell.
struct Orientation {
    bool flip_x = false, flip_y = false;
    std::int16_t turn = 0;   // 0, 90, 180, 270
    friend auto operator<=>(const Orientation&, const Orientation&) = default;
};

// A tile on a cell; no tile when tile is -1.
struct Placed {
    std::int16_t tileset = -1;
    std::int32_t tile = -1;
    Orientation orientation;
    friend auto operator<=>(const Placed&, const Placed&) = default;
};

struct Link {
    std::string to;   // as written: map/object
    MapId map = MapId::none;
    ObjectId object = ObjectId::none;   // of that map; none: there is no such
    bool one_way = false;
    EventId arrival_runs = EventId::none;
    Place place;   // of `to`
};

struct Object {
    std::string name;
    KindId kind = KindId::none;
    Role role = Role::entity;
    Motion motion = Motion::fixed;   // both of its kind; a solid that moves is not part of the ground
    LayerId layer{};
    Point position;       // where it stands, or the middle of its area
    Regions area;         // in map steps: drawn, or its kind's; empty for a point
    Ring line;            // of a line: its points from end to end
    bool drawn = false;   // it has a shape of its own
    // How it was drawn: the middle and size of the box around its area or line before it was turned by so many degrees,
    // clockwise. Of a point its position, no size, and the way it faces.
    Point middle, size;
    double turn = 0;
    std::vector<std::pair<BarrierId, Regions>> carves;   // of which barriers what of them is cut away below its layer
    bool hollow = false;   // of a solid: everything outside of its area, up to the outer edge of the rim's ring
    ShapeFault fault = ShapeFault::none;
    Point fault_at;
    std::string fault_words;
    std::optional<Cell> cell;   // when placed by cell
    StoreyId storey = StoreyId::ground;
    BarrierId barrier = BarrierId::none;   // of a solid
    std::optional<Surface> surface;        // of a solid; without one: its layer's
    std::vector<std::string> tags;
    Fires fires = Fires::enter;
    std::vector<MoverId> by;   // those that set it off
    bool once = false;
    double every_s = 0;
    EventId runs = EventId::none;
    std::vector<FactId> gives, needs, when, unless;
    Link link;              // of a link
    Properties props;       // every field of its kind, defaults filled in
    bool removed = false;   // by a running game
    Place place, place_of_position;
};

// How a layer's solids, all together, are grown: each of their points becomes a circle of radius `by`, or a square of
// twice that width.
struct Growth {
    enum class Corner { round, box };
    std::int32_t by = 0;   // steps; 0: not at all
    Corner corners = Corner::round;
    double within_px = 0.25;   // how near round corners stay to the circle
};

struct Layer {
    std::string name;
    bool holds_objects = false;
    bool decor = false, shown = true;
    StoreyId storey = StoreyId::ground;
    BarrierId barrier = BarrierId::none;
    std::optional<Surface> surface;
    std::optional<FlagSet> flags;
    std::string trigger;
    std::optional<Reaction> reaction;     // what its trigger does: all that senses in it is one area
    OneWay one_way = OneWay::none;        // of lines that say none themselves
    Point offset;                         // of its picture, shapes, carves and objects
    Point shape_offset;                   // of its shapes, carves and solids, besides
    std::array<std::int32_t, 4> sink{};   // steps by which its solids are drawn in: left, top, right, bottom
    Growth grow;                          // of what is left of them then
    double fill_px2 = 0;                  // holes of them that are no larger are filled; 0: none
    std::vector<std::string> tags;
    std::vector<std::uint32_t> cells;    // row by row, numbers into Map::palette; empty when the layer holds objects
    std::vector<std::uint32_t> counts;   // how often each number of the palette stands in cells; may end early
    Band band = Band::behind;
    int order = 0;   // added to where its art and objects come when they are drawn
    double opacity = 1;
    std::vector<FactId> when, unless;        // it is there only while all of the first and none of the second hold
    Properties props;                        // every field of [layer_fields], defaults filled in
    std::vector<Place> rows;                 // where each row of cells is written
    std::vector<std::uint32_t> characters;   // of fields: how many characters into its row each cell begins
    Place place;
};

// How cells lie: upright boxes, or diamonds (columns run to the lower right, rows to the lower left).
enum class GridSort { square, isometric };

// What stands around a map.
enum class RimSort { none, open, barrier };

struct Map {
    std::string name, title;
    GridSort grid = GridSort::square;
    int cell_width = 16, cell_height = 16;   // px; of a diamond: its width and height, both even
    int columns = 0, rows = 0;
    int first_column = 0, first_row = 0;   // the cell at the data's top-left
    RimSort rim = RimSort::none;
    BarrierId rim_barrier = BarrierId::none;
    MoverId player = MoverId::none;   // the map's own, else the world's
    std::vector<TileSetId> tilesets;
    std::uint64_t seed = 0;                  // of weighted choice
    int cell_parts = 1;                      // parts of a cell that objects are expected to stand on
    std::vector<Placed> palette{Placed{}};   // what stands on cells, each once; the first is no tile
    std::vector<Layer> layers;               // from the bottom up
    std::vector<Object> objects;             // of all layers, in their order
    Properties props;
    Place place, place_of_cell;   // the latter of the cell's size

    // Requires 0 <= column < columns, 0 <= row < rows, counted from the data's top-left.
    [[nodiscard]] const Placed& placed(const Layer& layer, int column, int row) const {
        return palette[number(layer, column, row)];
    }
    [[nodiscard]] const Placed& placed(const Layer& of, DataCell cell) const {
        return placed(of, cell.column, cell.row);
    }
    // The same as a number into the palette.
    [[nodiscard]] std::uint32_t number(const Layer& layer, int column, int row) const {
        return layer.cells[static_cast<std::size_t>(row) * static_cast<std::size_t>(columns) +
                           static_cast<std::size_t>(column)];
    }
    [[nodiscard]] std::uint32_t number(const Layer& layer, DataCell cell) const {
        return number(layer, cell.column, cell.row);
    }
    // Steps of the first corner of such a cell: the top-left one of a box, the top one of a diamond.
    [[nodiscard]] Point corner(int column, int row) const {
        const int c = first_column + column, r = first_row + row;
        if (grid == GridSort::isometric)
            return {(c - r) * cell_width * (steps_per_px / 2), (c + r) * cell_height * (steps_per_px / 2)};
        return {c * cell_width * steps_per_px, r * cell_height * steps_per_px};
    }
    // The top-left corner of the box around such a cell, from which tiles' shapes count.
    [[nodiscard]] Point box_corner(int column, int row) const {
        const Point p = corner(column, row);
        return grid == GridSort::isometric ? Point{p.x - cell_width * (steps_per_px / 2), p.y} : p;
    }
    // The box around such a cell.
    [[nodiscard]] Bounds cell_box(int column, int row) const {
        const Point least = box_corner(column, row);
        return {least, {least.x + cell_width * steps_per_px, least.y + cell_height * steps_per_px}};
    }
    [[nodiscard]] Bounds cell_box(DataCell cell) const { return cell_box(cell.column, cell.row); }
    // The same cell counted the other way.
    [[nodiscard]] CellArea area() const { return {first_column, first_row, columns, rows}; }   // all its cells
    [[nodiscard]] Cell cell(DataCell of) const { return {first_column + of.column, first_row + of.row}; }
    [[nodiscard]] DataCell data_cell(Cell of) const { return {of.column - first_column, of.row - first_row}; }
    // The cell that holds a point; cells hold the sides from which their columns and rows are counted. It need not be
    // one of the map's.
    [[nodiscard]] DataCell data_cell_at(Point p) const;
    // The first and last columns and rows of the map's cells that touch a box, or, around diamonds, come near it; the
    // last before the first when there are none.
    [[nodiscard]] DataCells cells_near(const Bounds& box) const;
    // Puts a tile on a cell of a layer, and keeps palette and counts; gives the number that stood there before.
    // Requires has(cell). O(palette).
    std::uint32_t put(LayerId layer, DataCell cell, const Placed& tile);
    // The outline of such a cell.
    [[nodiscard]] Ring cell_ring(int column, int row) const { return block_ring(column, row, 1, 1); }
    // The same of a block of cells, each number of them 1 or more.
    [[nodiscard]] Ring block_ring(int column, int row, int wide, int high) const {
        return {corner(column, row), corner(column + wide, row), corner(column + wide, row + high),
                corner(column, row + high)};
    }
    [[nodiscard]] bool has(int column, int row) const {
        return column >= 0 && row >= 0 && column < columns && row < rows;
    }
    [[nodiscard]] bool has(DataCell cell) const { return has(cell.column, cell.row); }
    // The box around all cells.
    [[nodiscard]] Point least() const { return {corner(0, rows * (grid == GridSort::isometric)).x, corner(0, 0).y}; }
    [[nodiscard]] Point most() const {
        return {corner(columns, rows * (grid != GridSort::isometric)).x, corner(columns, rows).y};
    }
    // Where a cell's tile is written, as far as that is known.
    [[nodiscard]] Place place_of(const Layer& layer, DataCell cell) const;
    // What an id is of: requires one of this map, not none.
    [[nodiscard]] const Layer& layer(LayerId id) const { return layers[index(id)]; }
    [[nodiscard]] const Object& object(ObjectId id) const { return objects[index(id)]; }
    // Ids by names; none: not found, or the name is empty. O(layers), O(objects).
    [[nodiscard]] LayerId find_layer(std::string_view layer) const;
    [[nodiscard]] ObjectId find_object(std::string_view object) const;
};

}   // namespace dryground

// Maps: layers of cells and objects on a grid. Part of world.hpp, whose rules apply.
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
    ObjectId object = ObjectId::none;   // of that map; none: it does not exist
    bool one_way = false;
    EventId arrival_runs = EventId::none;
    Place place;   // of `to`
};

struct Object {
    std::string name;
    KindId kind = KindId::none;
    Role role = Role::entity;
    Motion motion = Motion::fixed;   // both as its kind declares; a solid that moves is not part of the ground
    LayerId layer{};
    Point position;       // where it stands, or the middle of its area
    Regions area;         // in map steps: drawn, or its kind's; empty for a point
    Ring line;            // of a line: its points from end to end
    bool drawn = false;   // it has its own shape
    // How it was drawn: the middle and size of the box around its area or line before it was turned, and by how many
    // degrees clockwise. For a point: its position, size 0, and the direction it faces.
    Point middle, size;
    double turn = 0;
    std::vector<std::pair<BarrierId, Regions>> carves;   // barriers, and what it cuts away of them below its layer
    bool hollow = false;   // of a solid: it covers everything outside its area, up to the outer edge of the rim
    ShapeFault fault = ShapeFault::none;
    Point fault_at;
    std::string fault_words;
    std::optional<Cell> cell;   // when placed by cell
    StoreyId storey = StoreyId::ground;
    BarrierId barrier = BarrierId::none;   // of a solid
    std::optional<Surface> surface;        // of a solid; empty: its layer's
    std::vector<std::string> tags;
    Fires fires = Fires::enter;
    std::vector<MoverId> by;   // movers that set it off; empty: any
    bool once = false;
    double every_s = 0;
    EventId runs = EventId::none;
    std::vector<FactId> gives, needs, when, unless;
    Link link;              // of a link
    Properties props;       // all properties its kind declares, with defaults
    bool removed = false;   // by a running game
    Place place, place_of_position;
};

// How the solids of a layer, united, are grown: by a circle of radius `by`, or by a square of twice that width.
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
    std::optional<Reaction> reaction;     // of its trigger: all its sensing shapes are one area
    OneWay one_way = OneWay::none;        // of lines without a direction of their own
    Point offset;                         // of its picture, shapes, carves and objects
    Point shape_offset;                   // of its shapes, carves and solids, added to offset
    std::array<std::int32_t, 4> sink{};   // steps by which its solids are reduced: left, top, right, bottom
    Growth grow;                          // applied after sink
    double fill_px2 = 0;                  // holes in its solids up to this area are filled; 0: none
    std::vector<std::string> tags;
    std::vector<std::uint32_t> cells;    // row by row, indices into Map::palette; empty for a layer of objects
    std::vector<std::uint32_t> counts;   // how often each palette entry occurs; may be shorter than the palette
    Band band = Band::behind;
    int order = 0;   // added to the drawing order of its art and objects
    double opacity = 1;
    std::vector<FactId> when, unless;        // present only while all of the first and none of the second hold
    Properties props;                        // all of [layer_props], with defaults
    std::vector<Place> rows;                 // where each row of cells is written
    std::vector<std::uint32_t> characters;   // of CSV: at which character of its row each cell begins
    Place place;
};

// The shape of cells: boxes, or diamonds (columns run to the lower right, rows to the lower left).
enum class GridSort { square, isometric };

// What surrounds a map.
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
    int cell_parts = 1;                      // objects are expected on multiples of a cell divided by this
    std::vector<Placed> palette{Placed{}};   // the different contents of cells; the first is empty
    std::vector<Layer> layers;               // from the bottom up
    std::vector<Object> objects;             // of all layers, in their order
    Properties props;
    Place place, place_of_cell;   // the latter: of the cell size

    // Returns the content of a cell. Requires 0 <= column < columns, 0 <= row < rows, counted from the top-left of the
    // data.
    [[nodiscard]] const Placed& placed(const Layer& layer, int column, int row) const {
        return palette[number(layer, column, row)];
    }
    [[nodiscard]] const Placed& placed(const Layer& of, DataCell cell) const {
        return placed(of, cell.column, cell.row);
    }
    // Returns the same as an index into the palette.
    [[nodiscard]] std::uint32_t number(const Layer& layer, int column, int row) const {
        return layer.cells[static_cast<std::size_t>(row) * static_cast<std::size_t>(columns) +
                           static_cast<std::size_t>(column)];
    }
    [[nodiscard]] std::uint32_t number(const Layer& layer, DataCell cell) const {
        return number(layer, cell.column, cell.row);
    }
    // Returns the first corner of a cell in steps: the top-left one of a box, the top one of a diamond.
    [[nodiscard]] Point corner(int column, int row) const {
        const int c = first_column + column, r = first_row + row;
        if (grid == GridSort::isometric)
            return {(c - r) * cell_width * (steps_per_px / 2), (c + r) * cell_height * (steps_per_px / 2)};
        return {c * cell_width * steps_per_px, r * cell_height * steps_per_px};
    }
    // Returns the top-left corner of the box around a cell: the origin of the shapes of tiles.
    [[nodiscard]] Point box_corner(int column, int row) const {
        const Point p = corner(column, row);
        return grid == GridSort::isometric ? Point{p.x - cell_width * (steps_per_px / 2), p.y} : p;
    }
    // Returns the box around a cell.
    [[nodiscard]] Bounds cell_box(int column, int row) const {
        const Point least = box_corner(column, row);
        return {least, {least.x + cell_width * steps_per_px, least.y + cell_height * steps_per_px}};
    }
    [[nodiscard]] Bounds cell_box(DataCell cell) const { return cell_box(cell.column, cell.row); }
    // Convert between the two ways of counting cells.
    [[nodiscard]] CellArea area() const { return {first_column, first_row, columns, rows}; }   // all its cells
    [[nodiscard]] Cell cell(DataCell of) const { return {first_column + of.column, first_row + of.row}; }
    [[nodiscard]] DataCell data_cell(Cell of) const { return {of.column - first_column, of.row - first_row}; }
    // Returns the cell that contains a point; cells include their top and left sides (of diamonds: the upper ones). The
    // cell may lie outside the map.
    [[nodiscard]] DataCell data_cell_at(Point p) const;
    // Returns the map's cells that touch a box or, for diamonds, are near it; empty if there are none.
    [[nodiscard]] DataCells cells_near(const Bounds& box) const;
    // Puts a tile on a cell of a layer and updates palette and counts; returns the palette index that was there before.
    // Requires has(cell). O(palette).
    std::uint32_t put(LayerId layer, DataCell cell, const Placed& tile);
    // Returns the outline of a cell.
    [[nodiscard]] Ring cell_ring(int column, int row) const { return block_ring(column, row, 1, 1); }
    // Returns the outline of a block of cells. Requires wide and high of 1 or more.
    [[nodiscard]] Ring block_ring(int column, int row, int wide, int high) const {
        return {corner(column, row), corner(column + wide, row), corner(column + wide, row + high),
                corner(column, row + high)};
    }
    [[nodiscard]] bool has(int column, int row) const {
        return column >= 0 && row >= 0 && column < columns && row < rows;
    }
    [[nodiscard]] bool has(DataCell cell) const { return has(cell.column, cell.row); }
    // The corners of the box around all cells.
    [[nodiscard]] Point least() const { return {corner(0, rows * (grid == GridSort::isometric)).x, corner(0, 0).y}; }
    [[nodiscard]] Point most() const {
        return {corner(columns, rows * (grid != GridSort::isometric)).x, corner(columns, rows).y};
    }
    // Returns where the tile of a cell is written, as far as that is known.
    [[nodiscard]] Place place_of(const Layer& layer, DataCell cell) const;
    // Look up by id: requires an id of this map, not none.
    [[nodiscard]] const Layer& layer(LayerId id) const { return layers[index(id)]; }
    [[nodiscard]] const Object& object(ObjectId id) const { return objects[index(id)]; }
    // Look up ids by name; none if not found, or if the name is empty. O(layers), O(objects).
    [[nodiscard]] LayerId find_layer(std::string_view layer) const;
    [[nodiscard]] ObjectId find_object(std::string_view object) const;
};

}   // namespace dryground

// What a world is, once it has been read or built: plain values that are always valid. Nothing here can be changed
// from outside; worlds come from `WorldBuilder` (builder.hpp) or `load_world` (files.hpp), with findings in place of a
// world where something is wrong.
//
// References between things are positions in the world's lists ("ids"), -1 for none; files and messages use names.
// Geometry is in lattice steps (geometry.hpp): of tiles from the top-left corner of their cell, of maps from the
// top-left corner of cell (0, 0). Threads: a World is immutable and may be read from any number of threads.
#pragma once

#include <array>
#include <cstdint>
#include <map>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <utility>
#include <variant>
#include <vector>

#include "dryground/geometry.hpp"
#include "dryground/report.hpp"

namespace dryground {

// ---- values -----------------------------------------------------------------------------------------------------

struct Image {   // rows from the top, 4 bytes a px: red, green, blue, alpha
    int width = 0, height = 0;
    std::vector<unsigned char> rgba;
};

// A property's value. It keeps its type from file to game: a yes/no is a bool, a place two numbers of px.
struct Value {
    using List = std::vector<Value>;
    std::variant<bool, std::int64_t, double, std::string, std::array<double, 2>, List> is = false;

    friend bool operator==(const Value&, const Value&) = default;
};
using Properties = std::map<std::string, Value>;

enum class FieldType { yes_no, whole, number, text, choice, colour, place, ref, map, tile, fact, list, file };

struct Field {
    FieldType type = FieldType::text;
    std::optional<Value> standard;       // the default; without one the property must be given
    std::optional<double> least, most;   // of whole and number
    std::vector<std::string> choices;    // of choice
    FieldType holds = FieldType::text;   // of list
    std::string note;
};
using Fields = std::map<std::string, Field>;

// ---- the world's vocabulary ----------------------------------------------------------------------------------------

struct Colour {
    std::uint8_t red = 0, green = 0, blue = 0;
    friend bool operator==(const Colour&, const Colour&) = default;
};

struct Barrier {
    std::string name, note;
    std::optional<Colour> colour;
};

struct NamedThing {   // a flag, a fact, an event
    std::string name, note;
};

// A set of the world's flags, by id: at most 64.
using FlagSet = std::uint64_t;

struct Storey {
    std::string name;
    double base_px = 0, height_px = 32;
};

// A picture of its own: a PNG and the place of its corner from the position (or cell corner), px.
struct Picture {
    std::string file;   // relative to the world's folder
    double x = 0, y = 0;
    int width = 0, height = 0;   // px; 0 when a world was built in code
};

enum class Moves { steps, free, side };

struct Feeler {
    std::string name;
    Regions area;              // from the mover's position
    std::vector<int> senses;   // barrier ids
};

struct Mover {
    std::string name;
    Regions body;                  // convex, from its position
    std::vector<int> stopped_by;   // barrier ids, sorted
    std::vector<int> meets;        // mover ids, sorted; said on one side, it stands on both
    FlagSet needs = 0;             // any one of these; none: it needs none
    Moves moves = Moves::free;
    std::optional<double> jump_px, leap_px, drop_px, kerb_px, slope_degrees;
    std::vector<Feeler> feelers;
    std::optional<Picture> picture;
    Place place;
};

enum class Role { spawn, trigger, link, solid, entity };
enum class Motion { fixed, driven, moving };
enum class Stands { middle, feet };

struct Kind {
    std::string name;
    Role role = Role::entity;
    int mover = -1;
    Motion motion = Motion::fixed;
    std::vector<std::string> tags;
    Stands stands = Stands::middle;
    Regions area;   // from its position
    Fields fields;
    std::optional<Picture> picture;
    Place place;
};

// ---- tile sets -----------------------------------------------------------------------------------------------------

struct Surface {
    std::optional<double> friction, restitution;
    friend bool operator==(const Surface&, const Surface&) = default;
    friend auto operator<=>(const Surface&, const Surface&) = default;
};

// The direction in which movers pass a line; from the other side it stops them. `none`: it stops them both ways.
enum class OneWay { none, up, down, left, right };

enum class ShapeFault { none, empty, crosses_itself };

struct Shape {
    std::string words;               // as people would say it: "box [0, 8, 16, 8]"
    Regions area;                    // empty when there is a fault, and for a line
    Ring line;                       // the points of a line, two or more, from end to end; else empty
    OneWay one_way = OneWay::none;   // of a line
    bool whole_cell = false;         // it is the cell of whatever grid its tile stands on; `area` is the box around it
    int barrier = -1;                // its own, else its tile's; -1: its layer's
    std::string trigger;             // not empty: it senses and blocks nothing
    std::optional<Surface> surface;
    ShapeFault fault = ShapeFault::none;
    Point fault_at;
    std::string fault_words;   // of an empty shape: why
    Place place;
};

struct Carve {
    int barrier = -1;
    Shape shape;
};

// An edge of a cell.
enum class Passage { open, shut, in, out };
struct Sides {
    std::array<Passage, 4> of{};   // top, right, bottom, left
    friend bool operator==(const Sides&, const Sides&) = default;
};

enum class Fires { enter, inside, leave, use, bump, defeat, start };

// What a tile does when something happens to it.
struct Reaction {
    Fires fires = Fires::bump;
    std::array<bool, 4> from{true, true, true, true};   // from which sides: as in Sides
    std::vector<int> by;                                // mover ids; none: any
    bool once = false;
    double every_s = 0;
    std::vector<int> needs, gives;   // fact ids
    int runs = -1;                   // event id
    enum class Then { stays, turns, goes } then = Then::stays;
    int turns_into = -1;   // a tile of the same set
    Place place;
};

struct Tile {
    std::string name;
    std::optional<std::array<int, 2>> art;   // column and row in the sheet
    std::optional<Picture> picture;
    bool unseen = false;
    bool overhang = false;   // shapes may reach outside the cell
    std::vector<std::string> tags;
    bool decided = false;   // `shapes` was said, be it empty
    std::vector<Shape> shapes;
    std::vector<Carve> carves;
    std::optional<FlagSet> flags;
    std::optional<Sides> sides;
    int stands_for = -1;   // kind id: where the tile is painted an object of that kind stands in its place
    std::vector<Reaction> reacts;
    std::vector<int> needs, gives;   // fact ids: its shapes are solid until all it needs hold
    int leads = -1;                  // storey id that its stairs lead to
    Properties props;
    Place place;
};

struct Sheet {
    std::string file;   // relative to the world's folder
    std::array<int, 2> margin{}, gap{};
    std::optional<Colour> clear;   // the colour that means empty
    int width = 0, height = 0;     // px; 0 when a world was built in code
    Place place;
};

struct TileSet {
    std::string name;
    int cell_width = 16, cell_height = 16;   // px
    std::optional<Sheet> sheet;
    Fields fields;
    std::vector<Tile> tiles;
    Place place;

    [[nodiscard]] int find(std::string_view tile) const;   // -1 when there is none; O(tiles)
};

// ---- maps ----------------------------------------------------------------------------------------------------------

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
    std::string to;              // as written: map/object
    int map = -1, object = -1;   // object counts through the map's objects; -1 when there is no such
    bool one_way = false;
    int arrival_runs = -1;   // event id
    Place place;             // of `to`
};

struct Object {
    std::string name;
    int kind = -1;
    Role role = Role::entity;
    int layer = 0;
    Point position;                                // where it stands, or the middle of its area
    Regions area;                                  // in map steps: drawn, or its kind's; empty for a point
    Ring line;                                     // of a line: its points from end to end
    bool drawn = false;                            // it has a shape of its own
    std::vector<std::pair<int, Regions>> carves;   // barrier ids, and what of them is cut away below its layer
    bool hollow = false;   // of a solid: everything outside of its area, up to the outer edge of the rim's ring
    ShapeFault fault = ShapeFault::none;
    Point fault_at;
    std::string fault_words;
    std::optional<std::array<int, 2>> cell;   // when placed by cell
    int storey = 0;
    int barrier = -1;   // of a solid
    std::vector<std::string> tags;
    Fires fires = Fires::enter;
    std::vector<int> by;   // mover ids that set it off
    bool once = false;
    double every_s = 0;
    int runs = -1;                                 // event id
    std::vector<int> gives, needs, when, unless;   // fact ids
    Link link;                                     // of a link
    Properties props;                              // every field of its kind, defaults filled in
    Place place, place_of_position;
};

// When a layer is drawn: before the movers, sorted among them, or after them.
enum class Band { behind, with, front };

struct Layer {
    std::string name;
    bool holds_objects = false;
    bool decor = false, shown = true;
    int storey = 0;
    int barrier = -1;
    std::optional<Surface> surface;
    std::optional<FlagSet> flags;
    std::string trigger;
    OneWay one_way = OneWay::none;        // of lines that say none themselves
    Point offset;                         // of its picture, shapes, carves and objects
    Point shape_offset;                   // of its shapes, carves and solids, besides
    std::array<std::int32_t, 4> sink{};   // steps by which its solids are drawn in: left, top, right, bottom
    std::vector<std::string> tags;
    std::vector<std::uint32_t> cells;    // row by row, numbers into Map::palette; empty when the layer holds objects
    std::vector<std::uint32_t> counts;   // how often each number of the palette stands in cells; may end early
    Band band = Band::behind;
    double opacity = 1;
    std::vector<int> when, unless;   // fact ids: it is there only while all of the first and none of the second hold
    Properties props;                // every field of [layer_fields], defaults filled in
    std::vector<Place> rows;         // where each row of cells is written
    std::vector<std::uint32_t> characters;   // of fields: how many characters into its row each cell begins
    Place place;
};

// How cells lie: upright boxes, or diamonds (columns run to the lower right, rows to the lower left).
enum class GridSort { square, isometric };

// What stands around a map.
enum class RimSort { none, open, barrier };

class World;

struct Map {
    std::string name, title;
    GridSort grid = GridSort::square;
    int cell_width = 16, cell_height = 16;   // px; of a diamond: its width and height, both even
    int columns = 0, rows = 0;
    int first_column = 0, first_row = 0;   // the cell at the data's top-left
    RimSort rim = RimSort::none;
    int rim_barrier = -1;
    int player = -1;   // mover id: the map's own, else the world's
    std::vector<int> tilesets;
    std::uint64_t seed = 0;                  // of weighted choice
    int fine = 1;                            // parts of a cell that objects are expected to stand on
    std::vector<Placed> palette{Placed{}};   // what stands on cells, each once; the first is no tile
    std::vector<Layer> layers;               // from the bottom up
    std::vector<Object> objects;             // of all layers, in their order
    Properties props;
    Place place;

    // Requires 0 <= column < columns, 0 <= row < rows, counted from the data's top-left.
    [[nodiscard]] const Placed& placed(const Layer& layer, int column, int row) const {
        return palette[number(layer, column, row)];
    }
    // The same as a number into the palette.
    [[nodiscard]] std::uint32_t number(const Layer& layer, int column, int row) const {
        return layer.cells[static_cast<std::size_t>(row) * static_cast<std::size_t>(columns) +
                           static_cast<std::size_t>(column)];
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
    // Column and row, counted from the data's top-left, of the cell that holds a point; cells hold the sides from which
    // their columns and rows are counted. The cell need not be one of the map's.
    [[nodiscard]] std::array<int, 2> cell_at(Point p) const;
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
    // The box around all cells.
    [[nodiscard]] Point least() const { return {corner(0, rows * (grid == GridSort::isometric)).x, corner(0, 0).y}; }
    [[nodiscard]] Point most() const {
        return {corner(columns, rows * (grid != GridSort::isometric)).x, corner(columns, rows).y};
    }
    // Where a cell's tile is written, as far as that is known.
    [[nodiscard]] Place place_of(const Layer& layer, int column, int row) const;
    // -1 when there is none; O(objects).
    [[nodiscard]] int find_object(std::string_view object) const;
};

struct MergeSettings {
    double within_px = 0.25;
    int most_vertices = 8;
    int chunk_cells = 32;
    double least_edge_px = 0;
    std::vector<std::string> forms{"chains", "pieces"};
};

struct Start {
    std::string words;   // as written: map/object; empty when the world says none
    int map = -1, object = -1;
    Place place;
};

// ---- the world -----------------------------------------------------------------------------------------------------

// Copies share their content; cheap to pass by value.
class World {
public:
    [[nodiscard]] const std::string& title() const { return parts_->title; }
    [[nodiscard]] double per_metre() const { return parts_->per_metre; }
    [[nodiscard]] int player() const { return parts_->player; }   // mover id, -1 when the world says none
    [[nodiscard]] const Start& start() const { return parts_->start; }
    [[nodiscard]] const std::vector<Barrier>& barriers() const { return parts_->barriers; }
    [[nodiscard]] const std::vector<NamedThing>& flags() const { return parts_->flags; }
    [[nodiscard]] const std::vector<Storey>& storeys() const { return parts_->storeys; }   // "ground" is the first
    [[nodiscard]] const std::vector<Mover>& movers() const { return parts_->movers; }
    [[nodiscard]] const std::vector<NamedThing>& facts() const { return parts_->facts; }
    [[nodiscard]] const std::vector<NamedThing>& events() const { return parts_->events; }
    [[nodiscard]] const std::vector<Kind>& kinds() const { return parts_->kinds; }
    [[nodiscard]] const std::vector<TileSet>& tilesets() const { return parts_->tilesets; }
    [[nodiscard]] const std::vector<Map>& maps() const { return parts_->maps; }
    [[nodiscard]] const MergeSettings& merging() const { return parts_->merging; }
    // What the target game can take at most, by the names of [limits]: those that the world says.
    [[nodiscard]] const std::map<std::string, std::int64_t>& limits() const { return parts_->limits; }
    // What must be reachable: map/object, and facts, as written.
    [[nodiscard]] const std::vector<std::string>& goal_objects() const { return parts_->goal_objects; }
    [[nodiscard]] const std::vector<std::string>& goal_facts() const { return parts_->goal_facts; }
    [[nodiscard]] Severity severity(Rule rule) const;   // as the world's [check] says, else the rule's own

    // Throws std::out_of_range, naming the nearest map, when there is none of that name.
    [[nodiscard]] const Map& map(std::string_view name) const;
    [[nodiscard]] const Map* find_map(std::string_view name) const;   // null when there is none

    // The tile that stands on a cell. Requires placed.tile >= 0.
    [[nodiscard]] const Tile& tile(const Placed& placed) const {
        return parts_->tilesets[static_cast<std::size_t>(placed.tileset)].tiles[static_cast<std::size_t>(placed.tile)];
    }
    [[nodiscard]] Place world_place() const { return parts_->place; }

private:
    friend class WorldBuilder;
    friend class WorldMaker;
    struct Parts {
        std::string title;
        double per_metre = 16;
        int player = -1;
        Start start;
        std::vector<std::string> goal_objects, goal_facts;
        std::vector<Barrier> barriers;
        std::vector<NamedThing> flags, facts, events;
        std::vector<Storey> storeys;
        std::vector<Mover> movers;
        std::vector<Kind> kinds;
        std::vector<TileSet> tilesets;
        std::vector<Map> maps;
        MergeSettings merging;
        std::map<std::string, std::int64_t> limits;
        std::map<Rule, Severity> severities;
        Place place;
    };
    std::shared_ptr<const Parts> parts_;
};

// What reading or building gives: a world, or the errors that stand in its way; warnings either way.
class Loaded {
public:
    explicit Loaded(Report report) : report_(std::move(report)) {}
    Loaded(World world, Report report) : world_(std::move(world)), report_(std::move(report)) {}

    explicit operator bool() const { return world_.has_value(); }
    [[nodiscard]] const Report& report() const { return report_; }
    // Throws std::logic_error when there is none: test first.
    [[nodiscard]] const World& world() const&;
    [[nodiscard]] World world() && { return std::as_const(*this).world(); }

private:
    std::optional<World> world_;
    Report report_;
};

[[nodiscard]] std::string_view name_of(OneWay one_way);   // "" for none
[[nodiscard]] std::string_view name_of(Role role);
[[nodiscard]] std::string_view name_of(FieldType type);
[[nodiscard]] std::string_view name_of(Fires fires);
[[nodiscard]] std::string_view name_of(Passage passage);
[[nodiscard]] std::string text(const Value& value);   // as one would write it in a file

}   // namespace dryground

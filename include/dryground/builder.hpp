// Builds worlds in code. The readers of files use the same builder, so both go through the same checks.
//
// Worlds are described by drafts: plain structs that refer to things by name, with the meanings and defaults of the
// files (docs/files.md). Positions and sizes are px. `build` returns the world, or all findings at once; drafts without
// a place in a file are named in them.
//
//     dg::WorldBuilder builder;
//     builder.world({.title = "Sedge Point", .barriers = {{.name = "earth"}}});
//     builder.tileset({.name = "marsh",
//                      .tiles = {{.name = "peat", .unseen = true, .barrier = "earth", .shapes =
//                      {{{dg::WholeCell{}}}}}}});
//     builder.map({.name = "slipway",
//                  .size = std::array{3, 2},
//                  .tilesets = {"marsh"},
//                  .legend = {{.key = "#", .tile = "peat"}},
//                  .layers = {{.name = "ground", .rows = {"...", "###"}}}});
//     const dg::Result<dg::World> built = builder.build();
//
// Threads: one builder belongs to one thread at a time.
#pragma once

#include <array>
#include <functional>
#include <map>
#include <optional>
#include <string>
#include <type_traits>
#include <utility>
#include <variant>
#include <vector>

#include "dryground/world.hpp"

namespace dryground {

// A value and its place in a file. Converts from a value alone, where there is no file.
template <class T>
struct Located {
    T value{};
    Place place{};

    Located() = default;
    Located(T v, Place p = {}) : value(std::move(v)), place(std::move(p)) {}   // NOLINT: meant to convert
    Located(const char* literal) requires std::is_same_v<T, std::string>       // NOLINT: meant to convert
        : value(literal) {}
};
using Name = Located<std::string>;
using Names = std::vector<Name>;
using SaidProperties = std::map<std::string, Located<Value>>;

struct FieldDraft {
    Name name{};
    Located<std::string> type{"text"};
    std::optional<Located<Value>> standard{};   // the default
    std::optional<double> least{}, most{};
    Names of{};              // choices, or the one type a list holds
    bool optional = false;   // it may be omitted; it has no value then
    std::string note{};
};

struct WaiverDraft {   // silences a rule for the thing it is part of
    Name rule{};
    std::string why{};
    std::optional<CellArea> cells{};   // of a map: only within this block of cells
    Place place{};
};
using Waivers = std::vector<WaiverDraft>;

// ---- shapes: px, y down, from the top-left corner of the cell or map ----

struct WholeCell {};
struct PolygonPx {
    std::vector<std::array<double, 2>> points{};
    std::vector<std::vector<std::array<double, 2>>> holes{};   // of objects
};
struct EllipsePx {
    double x = 0, y = 0, radius_x = 0, radius_y = 0;
};
struct CapsuleBetween {   // all points within a radius of a segment
    double x1 = 0, y1 = 0, x2 = 0, y2 = 0, radius = 0;
};
struct LinePx {   // open: connects the points
    std::vector<std::array<double, 2>> points{};
};
struct SharedShape {   // a shape of the tile set's [shapes]
    Name name{};
    double dx = 0, dy = 0;
};
struct Traced {        // the outline of the art's opaque pixels
    int alpha = 128;   // pixels of at least this alpha count
    double within_px = 0.75;
};
// Regions: an area in lattice steps; valid and not empty.
using Form = std::variant<WholeCell, BoxPx, PolygonPx, EllipsePx, SharedShape, CapsuleBetween, LinePx, Traced, Regions>;

struct ShapeDraft {
    Form form{};
    std::optional<Name> barrier{}, trigger{};
    std::optional<Surface> surface{};
    std::optional<Located<std::string>> one_way{};   // of a line: up down left right
    std::optional<Located<double>> within_px{};      // of curves and traces: the greatest deviation
    Orientation orientation{};
    Place place{};
};
struct CarveDraft {
    Name barrier{};
    ShapeDraft shape{};
};

// ---- the world ----

struct BarrierDraft {
    Name name{};
    std::string note{};
    std::optional<Colour> colour{};
};
struct NoteDraft {   // of a flag, a fact, an event
    Name name{};
    std::string note{};
};
struct StoreyDraft {
    Name name{};
    double base_px = 0, height_px = 32;
};
struct CapsulePx {   // upright or lying, centred on the position
    double width = 0, height = 0;
};
struct BodyDraft {   // centred on the mover's position plus (x, y); Regions: convex, relative to its position
    std::variant<BoxPx, EllipsePx, CapsulePx, Regions> form{};
    double x = 0, y = 0;
    Place place{};
};
struct FeelerDraft {
    Name name{};
    BodyDraft body{};
    Names senses{};
};
struct MoverDraft {
    Name name{};
    BodyDraft body{};
    Names stopped_by{}, meets{}, needs{}, climbs{};
    Located<std::string> moves{"free"};
    std::optional<double> jump_px{}, leap_px{}, drop_px{}, kerb_px{}, slope_degrees{};
    std::vector<FeelerDraft> feelers{};
    std::optional<Picture> picture{};
};
struct KindDraft {
    Name name{};
    std::optional<Name> like{};
    std::string note{};
    std::optional<Located<std::string>> role{}, motion{}, stands{};
    std::optional<Name> path{};   // the property with the places it moves along
    std::optional<Name> mover{};
    std::optional<std::vector<std::string>> tags{};
    std::optional<ShapeDraft> area{};   // relative to its position
    std::vector<FieldDraft> fields{};
    SaidProperties props{};   // new defaults of properties declared by the kind in `like`
    std::optional<Picture> picture{};
    // Defaults for its objects: as in ObjectDraft.
    std::optional<Name> barrier{};
    std::optional<Surface> surface{};
    std::optional<Located<std::string>> fires{};
    std::optional<Names> by{}, gives{}, needs{}, when{}, unless{};
    std::optional<bool> once{};
    std::optional<double> every_s{};
    std::optional<Name> runs{}, arrival_runs{};
};
struct WorldDraft {
    std::string title{};
    Located<double> per_metre{16.0};
    std::optional<Name> player{}, start{};
    Names goal_objects{}, goal_facts{};
    std::vector<BarrierDraft> barriers{};
    std::vector<NoteDraft> flags{};
    std::vector<StoreyDraft> storeys{};
    std::vector<MoverDraft> movers{};
    std::vector<NoteDraft> facts{}, events{};
    std::vector<KindDraft> kinds{};
    std::vector<FieldDraft> map_fields{}, layer_fields{};
    MergeSettings merging{};
    std::map<std::string, Place> places_of_merging{};                  // of its keys, as far as known
    std::vector<std::pair<Name, Located<std::int64_t>>> limits{};      // of the target game: name, maximum
    std::vector<std::pair<Name, Located<std::string>>> severities{};   // rule, severity
    Waivers waive{};
    bool lacks_maps = false;   // some could not be read: unknown names that may be in them are not reported
    Place place{};
};

// ---- tile sets ----

struct ReactionDraft {
    Located<std::string> fires{"bump"};
    std::optional<Names> from{};   // sides; omitted: all
    Names by{}, needs{}, gives{};
    bool once = false;
    double every_s = 0;
    std::optional<Name> runs{}, turns_into{};   // turns_into "": disappears
    std::optional<Names> turns_into_next{};     // instead: a sequence of tiles, each turning into the next
    Place place{};
};
struct TileDraft {   // omitted values are filled in by `like` and TileSetDraft::rules
    Name name{};
    std::optional<Name> like{};
    std::optional<Located<std::array<int, 2>>> art{};
    std::optional<std::array<double, 2>> at{};   // px by which its art is shifted; omitted: as its sheet
    std::optional<Picture> picture{};
    std::optional<bool> unseen{}, overhang{};
    std::optional<std::vector<std::string>> tags{};
    std::optional<Name> barrier{};
    std::optional<std::vector<ShapeDraft>> shapes{};
    std::optional<std::vector<CarveDraft>> carves{};
    std::optional<Names> flags{};
    std::map<std::string, Located<std::string>> sides{};   // top right bottom left: open shut in out
    std::optional<Name> stands_for{}, leads{};
    std::optional<Located<std::string>> band{};   // omitted: as its layer
    std::optional<std::vector<ReactionDraft>> reacts{};
    std::optional<Names> needs{}, gives{};
    SaidProperties props{};
    Waivers waive{};
};
struct TileRule {                        // sets values of many tiles: a [[for]] of a file
    std::vector<std::string> tiles{};    // name patterns; * matches any characters
    std::vector<std::string> tagged{};   // or tiles with any of these tags
    TileDraft set{};
};
struct MemberDraft {
    Name tile{};
    Names joined{};   // sides or corners where a neighbour of the family must be
    Names any{};      // where one may be or not
};
struct FamilyDraft {   // tiles chosen by their neighbours
    Name name{};
    Located<std::string> joins{"sides"};   // sides, corners, around
    std::vector<MemberDraft> members{};
};
struct LegendEntry {
    Located<std::string>
        key{};     // of rows: one character; else the content of the cell; of pictures a colour, `#rrggbb`
    Name tile{};   // empty, without any other: an empty cell
    Orientation orientation{};
    std::optional<Name> kind{};   // an object of that kind instead of a tile
    Names kinds{};                // or of one of these, chosen by the map's seed and the cell
    std::optional<Located<std::vector<double>>> weights{};   // relative frequencies; omitted: equal
    std::optional<Name> family{}, block{};
    std::optional<Name> barrier{};   // of drawings, with a kind: the barrier of its objects
};
struct BlockDraft {   // a pattern of tiles that is placed as a whole
    Name name{};
    std::vector<Located<std::string>> rows{};
    std::vector<LegendEntry> legend{};
    Located<std::string> anchor{};   // the character of the cell that is placed where the block is painted
};
struct TileSetDraft {
    Name name{};
    Located<std::array<int, 2>> cell{std::array<int, 2>{16, 16}};   // px
    std::optional<Sheet> sheet{};
    std::vector<FieldDraft> fields{};
    std::vector<std::pair<Name, ShapeDraft>> shapes{};
    std::vector<TileRule> rules{};
    std::vector<TileDraft> tiles{};
    std::vector<FamilyDraft> families{};
    std::vector<BlockDraft> blocks{};
    Waivers waive{};
    Place place{};
};

// ---- maps ----

// Cells as numbers, for large maps: each different content is listed once.
struct CellTable {
    enum class Sort { rows, csv, png };   // keys are characters, fields, or colours (#rrggbb, #rrggbbaa)
    Sort sort = Sort::rows;
    std::vector<std::string> keys{};           // in the order of their first occurrence
    std::vector<std::uint32_t> numbers{};      // positions in keys, row by row
    std::vector<std::size_t> row_ends{};       // of each row, in `numbers`; rows of any length until checked
    std::vector<Place> rows{};                 // where each row begins; of a picture: the file
    std::vector<std::uint32_t> characters{};   // of csv: at which character of its row each cell begins
};
struct AtCells {   // a cell, or a block of cells
    int column = 0, row = 0, columns = 1, rows = 1;
    bool block = false;   // given as a block: it has an area
};
struct ObjectCarve {   // what an object removes of a barrier below its layer
    Name barrier{};
    std::optional<ShapeDraft> shape{};   // in map px; omitted: its own area
};
struct ObjectDraft {
    Name name{};
    Name kind{};
    std::variant<std::monostate, PointPx, AtCells, BoxPx, PolygonPx, EllipsePx, CapsuleBetween, LinePx, Regions> form{};
    std::optional<Cell> cell{};   // its cell, if `form` only defines what it covers
    Place place_of_form{};
    std::vector<ObjectCarve> carves{};
    bool hollow = false;                  // of a solid: it covers everything outside its shape
    double turn = 0;                      // degrees, clockwise about the middle of its bounding box
    std::optional<BoxPx> turned_from{};   // of a form that is already turned: the box around it before
    std::vector<std::string> tags{};
    std::optional<Name> storey{}, barrier{};
    std::optional<Surface> surface{};   // of a solid; omitted: as its kind, else its layer
    // Omitted: as its kind.
    std::optional<Located<std::string>> fires{};
    std::optional<Names> by{}, gives{}, needs{}, when{}, unless{};
    std::optional<bool> once{};
    std::optional<double> every_s{};
    std::optional<Name> runs{}, arrival_runs{};
    std::optional<Name> to{};
    bool one_way = false;
    SaidProperties props{};
    Waivers waive{};
    Place place{};
};
struct ExceptDraft {   // further values of the object painted on a cell
    Cell cell{};
    Name name{};
    std::vector<std::string> tags{};
    std::optional<Names> gives{}, needs{}, when{}, unless{};
    SaidProperties props{};
    Place place{};
};
struct GrowthDraft {
    Located<double> px{0.0};
    Located<std::string> corners{"round"};        // or box
    std::optional<Located<double>> within_px{};   // of round corners; omitted: as for curves of the layer
    Place place{};
};
struct LayerDraft {
    Name name{};
    bool holds_objects = false;
    bool unread = false;                        // set by readers that have already reported why it is empty
    std::vector<Located<std::string>> rows{};   // UTF-8, one character a cell
    std::optional<CellTable> cells{};           // instead of rows
    std::vector<LegendEntry> legend{};          // takes precedence over that of the map
    std::vector<ObjectDraft> objects{};         // of a layer of cells: in addition to painted ones
    std::vector<ExceptDraft> except{};
    bool decor = false, shown = true;
    std::optional<Name> storey{}, barrier{}, trigger{}, kind{};
    std::optional<Surface> surface{};
    std::optional<Located<std::string>> one_way{};   // of lines without a direction of their own
    std::array<double, 2> offset{0, 0};              // px: of picture, shapes, carves and objects
    std::array<double, 2> shape_offset{0, 0};        // px: of shapes, carves and solids, added to offset
    std::array<double, 4> sink{0, 0, 0, 0};          // px: left, top, right, bottom
    std::optional<GrowthDraft> grow{};               // of its solids, united
    std::optional<Located<Value>> fill_holes{};      // up to so many px^2; true: up to a cell
    std::optional<Located<double>> within_px{};      // of its objects' curves
    // Of its `trigger`, which is one area.
    std::optional<Located<std::string>> fires{};
    Names by{}, gives{}, needs{};
    bool once = false;
    double every_s = 0;
    std::optional<Name> runs{};
    int order = 0;                          // added to its drawing order
    std::optional<Located<Value>> snap{};   // grid for the vertices of a drawing, px; or "cell_parts"
    std::optional<Names> flags{};
    std::vector<std::string> tags{};
    Located<std::string> band{"behind"};   // behind, with, front: drawn before, sorted among, after the movers
    Located<double> opacity{1.0};          // 0 to 1
    Names when{}, unless{};                // facts: present only while all of the first and none of the second hold
    SaidProperties props{};
    Waivers waive{};
    Place place{};
};
struct MapDraft {
    Name name{};
    std::string title{};
    Located<std::string> grid{"square"};                            // or isometric
    Located<std::array<int, 2>> cell{std::array<int, 2>{16, 16}};   // px
    Located<std::array<int, 2>> size{std::array<int, 2>{0, 0}};     // columns, rows
    Cell first{};                                                   // at the top-left of the data
    std::optional<Name> rim{};                                      // a barrier, or "open"
    std::optional<Name> player{};
    Names tilesets{};
    std::uint64_t seed = 0;       // of weighted choice
    Located<int> cell_parts{1};   // objects are expected on multiples of a cell divided by this
    SaidProperties props{};
    std::vector<LegendEntry> legend{};
    std::vector<LayerDraft> layers{};
    Waivers waive{};
    Place place{};
};

class WorldBuilder {
public:
    WorldBuilder& world(WorldDraft draft);
    WorldBuilder& tileset(TileSetDraft draft);
    WorldBuilder& map(MapDraft draft);

    // Sets the source of pictures, for traced shapes. Without it, or if it returns nothing, these are findings.
    using Look = std::function<std::optional<Image>(const std::string& file)>;
    WorldBuilder& pictures(Look look);

    // Adds a finding of the caller's, such as a reader's: it is returned with the others, and an error prevents
    // building.
    WorldBuilder& note(Finding finding);

    // The drafts so far.
    [[nodiscard]] const WorldDraft& world_draft() const { return world_; }
    [[nodiscard]] const std::vector<TileSetDraft>& tileset_drafts() const { return tilesets_; }
    [[nodiscard]] const std::vector<MapDraft>& map_drafts() const { return maps_; }

    // Returns all findings, and a world unless there are errors among them. Cost: proportional to the drafts.
    [[nodiscard]] Result<World> build() const;

private:
    WorldDraft world_;
    std::vector<TileSetDraft> tilesets_;
    std::vector<MapDraft> maps_;
    Look look_;
    Report notes_;
};

}   // namespace dryground

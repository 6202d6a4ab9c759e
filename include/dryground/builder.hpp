// Making a world in code. The readers of files use the same builder, so that both go through the same checks.
//
// Everything is said with drafts: plain structs that name things by their names, with the meanings and defaults of the
// files (see the designers' guide). Positions and sizes are px. `build` gives the world, or all findings at once; a
// draft with no place names itself in them.
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

// A value of a file, and where it stands there. Made from the bare value where there is no file.
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
    bool optional = false;   // it may be left out, and then has no value
    std::string note{};
};

struct WaiverDraft {   // silences a rule where it is said
    Name rule{};
    std::string why{};
    std::optional<std::array<int, 4>> cells{};   // of a map: only in this block of cells
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
struct CapsuleBetween {   // all within a radius of the way between two points
    double x1 = 0, y1 = 0, x2 = 0, y2 = 0, radius = 0;
};
struct LinePx {   // open: from point to point
    std::vector<std::array<double, 2>> points{};
};
struct SharedShape {   // a shape of the tile set's [shapes]
    Name name{};
    double dx = 0, dy = 0;
};
struct Traced {        // the outline of the art's opaque pixels
    int alpha = 128;   // from which on a pixel counts
    double within_px = 0.75;
};
// Regions: an area on the lattice, as it is; valid and not empty.
using Form = std::variant<WholeCell, BoxPx, PolygonPx, EllipsePx, SharedShape, CapsuleBetween, LinePx, Traced, Regions>;

struct ShapeDraft {
    Form form{};
    std::optional<Name> barrier{}, trigger{};
    std::optional<Surface> surface{};
    std::optional<Located<std::string>> one_way{};   // of a line: up down left right
    std::optional<Located<double>> within_px{};      // of curves and traces: how far corners may lie beside them
    Orientation orientation{};
    Place place{};
};
struct CarveDraft {
    Name barrier{};
    ShapeDraft shape{};
};

// ---- the world's own ----

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
struct BodyDraft {   // centred on the mover's position plus (x, y); Regions: convex, from its position
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
    std::optional<Located<std::string>> role{}, motion{}, stands{};
    std::optional<Name> path{};   // its property that holds the places along which it moves
    std::optional<Name> mover{};
    std::optional<std::vector<std::string>> tags{};
    std::optional<ShapeDraft> area{};   // from its position
    std::vector<FieldDraft> fields{};
    SaidProperties props{};   // new defaults of what the kind that it is like declares
    std::optional<Picture> picture{};
    // What its objects do, where they say nothing themselves: as in ObjectDraft.
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
    std::map<std::string, Place> places_of_merging{};                  // of its keys, as far as they are known
    std::vector<std::pair<Name, Located<std::int64_t>>> limits{};      // of the target game: what, how many at most
    std::vector<std::pair<Name, Located<std::string>>> severities{};   // rule, severity
    Waivers waive{};
    bool lacks_maps = false;   // some could not be read: names that may be theirs are not reported
    Place place{};
};

// ---- tile sets ----

struct ReactionDraft {
    Located<std::string> fires{"bump"};
    std::optional<Names> from{};   // sides, all if left out
    Names by{}, needs{}, gives{};
    bool once = false;
    double every_s = 0;
    std::optional<Name> runs{}, turns_into{};   // turns into "": goes
    std::optional<Names> turns_into_next{};     // in place of it: a row of tiles, of which the next one takes its place
    Place place{};
};
struct TileDraft {   // what is not said stays open for `like` and TileSetDraft::rules
    Name name{};
    std::optional<Name> like{};
    std::optional<Located<std::array<int, 2>>> art{};
    std::optional<std::array<double, 2>> at{};   // px by which its art is moved from where it stands; else its sheet's
    std::optional<Picture> picture{};
    std::optional<bool> unseen{}, overhang{};
    std::optional<std::vector<std::string>> tags{};
    std::optional<Name> barrier{};
    std::optional<std::vector<ShapeDraft>> shapes{};
    std::optional<std::vector<CarveDraft>> carves{};
    std::optional<Names> flags{};
    std::map<std::string, Located<std::string>> sides{};   // top right bottom left: open shut in out
    std::optional<Name> stands_for{}, leads{};
    std::optional<Located<std::string>> band{};   // else its layer's
    std::optional<std::vector<ReactionDraft>> reacts{};
    std::optional<Names> needs{}, gives{};
    SaidProperties props{};
    Waivers waive{};
};
struct TileRule {                        // many tiles at once: what a [[for]] says
    std::vector<std::string> tiles{};    // name patterns, * for any run of characters
    std::vector<std::string> tagged{};   // or: any of these tags
    TileDraft set{};
};
struct MemberDraft {
    Name tile{};
    Names joined{};   // where neighbours of the family are
    Names any{};      // where they may be or not
};
struct FamilyDraft {   // tiles that are picked by their neighbours
    Name name{};
    Located<std::string> joins{"sides"};   // sides, corners, around
    std::vector<MemberDraft> members{};
};
struct LegendEntry {
    Located<std::string> key{};   // of rows: one character; of other cells: what stands there, a colour as `#rrggbb`
    Name tile{};                  // empty with nothing else: nothing stands there
    Orientation orientation{};
    std::optional<Name> kind{};                              // an object of that kind in place of a tile
    Names kinds{};                                           // or of one of these, as the map's seed and the cell say
    std::optional<Located<std::vector<double>>> weights{};   // how often each of them; left out: equally often
    std::optional<Name> family{}, block{};
    std::optional<Name> barrier{};   // with a kind, of drawings: what its objects are made of
};
struct BlockDraft {   // a pattern of tiles that is placed as one
    Name name{};
    std::vector<Located<std::string>> rows{};
    std::vector<LegendEntry> legend{};
    Located<std::string> anchor{};   // the character of the cell that lies where the block is painted
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

// Cells by number, for large maps: each different thing that stands in them is written once.
struct CellTable {
    enum class Sort { rows, csv, png };   // what its keys are: single characters, fields, colours (#rrggbb, #rrggbbaa)
    Sort sort = Sort::rows;
    std::vector<std::string> keys{};        // in the order in which they first stand in the cells
    std::vector<std::uint32_t> numbers{};   // positions in keys, row by row
    std::vector<std::size_t> row_ends{};    // of each row, in numbers: rows may be of any length until they are checked
    std::vector<Place> rows{};              // where each row begins; of a picture: the file
    std::vector<std::uint32_t> characters{};   // of csv: how many characters into its row each cell begins
};
struct AtCells {   // a cell, or a block of cells
    int column = 0, row = 0, columns = 1, rows = 1;
    bool block = false;   // said as a block: it has an area
};
struct ObjectCarve {   // what an object cuts away of a barrier below its layer
    Name barrier{};
    std::optional<ShapeDraft> shape{};   // in map px; left out: its own area
};
struct ObjectDraft {
    Name name{};
    Name kind{};
    std::variant<std::monostate, PointPx, AtCells, BoxPx, PolygonPx, EllipsePx, CapsuleBetween, LinePx, Regions> form{};
    std::optional<std::array<int, 2>> cell{};   // it was put on, where a form of its own says what it covers
    Place place_of_form{};
    std::vector<ObjectCarve> carves{};
    bool hollow = false;                  // of a solid: it is what lies outside of its shape
    double turn = 0;                      // degrees, clockwise about the middle of its bounding box
    std::optional<BoxPx> turned_from{};   // of a form that is turned already: the box around it before
    std::vector<std::string> tags{};
    std::optional<Name> storey{}, barrier{};
    std::optional<Surface> surface{};   // of a solid; left out: its kind's, else its layer's
    // Left out: as its kind says.
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
struct ExceptDraft {   // what a painted object on a cell is besides
    std::array<int, 2> cell{0, 0};
    Name name{};
    std::vector<std::string> tags{};
    std::optional<Names> gives{}, needs{}, when{}, unless{};
    SaidProperties props{};
    Place place{};
};
struct GrowthDraft {
    Located<double> px{0.0};
    Located<std::string> corners{"round"};        // or box
    std::optional<Located<double>> within_px{};   // of round corners; left out: as curves of the layer
    Place place{};
};
struct LayerDraft {
    Name name{};
    bool holds_objects = false;
    bool unread = false;                        // readers set this when they have told why there is nothing
    std::vector<Located<std::string>> rows{};   // UTF-8, one character a cell
    std::optional<CellTable> cells{};           // in place of rows
    std::vector<LegendEntry> legend{};          // looked up before the map's
    std::vector<ObjectDraft> objects{};         // of a layer of cells: besides those that its cells paint
    std::vector<ExceptDraft> except{};
    bool decor = false, shown = true;
    std::optional<Name> storey{}, barrier{}, trigger{}, kind{};
    std::optional<Surface> surface{};
    std::optional<Located<std::string>> one_way{};   // of lines that say none themselves
    std::array<double, 2> offset{0, 0};              // px: of picture, shapes, carves and objects
    std::array<double, 2> shape_offset{0, 0};        // px: of shapes, carves and solids, besides
    std::array<double, 4> sink{0, 0, 0, 0};          // px: left, top, right, bottom
    std::optional<GrowthDraft> grow{};               // of its solids, all together
    std::optional<Located<Value>> fill_holes{};      // no larger than so many px^2; true: than a cell
    std::optional<Located<double>> within_px{};      // of its objects' curves
    // What its `trigger` does, all of it as one.
    std::optional<Located<std::string>> fires{};
    Names by{}, gives{}, needs{};
    bool once = false;
    double every_s = 0;
    std::optional<Name> runs{};
    int order = 0;                          // added to where it comes when it is drawn
    std::optional<Located<Value>> snap{};   // of a drawing's vertices: to so many px, or "cell_parts"
    std::optional<Names> flags{};
    std::vector<std::string> tags{};
    Located<std::string> band{"behind"};   // behind, with, front: drawn before, sorted among, after the movers
    Located<double> opacity{1.0};          // 0 to 1
    Names when{}, unless{};                // facts: there only while all of the first and none of the second hold
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
    std::array<int, 2> first{0, 0};
    std::optional<Name> rim{};   // a barrier, or "open"
    std::optional<Name> player{};
    Names tilesets{};
    std::uint64_t seed = 0;       // of weighted choice
    Located<int> cell_parts{1};   // parts of a cell that objects are expected to stand on
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

    // Where to look at pictures by their files, for traced shapes. Without it, or where it gives nothing, they are
    // findings.
    using Look = std::function<std::optional<Image>(const std::string& file)>;
    WorldBuilder& pictures(Look look);

    // Findings of the caller's own (a reader's, say): they come back with the rest, and errors among them stop it.
    WorldBuilder& note(Finding finding);

    // What has been said so far.
    [[nodiscard]] const WorldDraft& world_draft() const { return world_; }
    [[nodiscard]] const std::vector<TileSetDraft>& tileset_drafts() const { return tilesets_; }
    [[nodiscard]] const std::vector<MapDraft>& map_drafts() const { return maps_; }

    // All findings at once; a world unless there are errors among them. Cost: in proportion to what was said.
    [[nodiscard]] Result<World> build() const;

private:
    WorldDraft world_;
    std::vector<TileSetDraft> tilesets_;
    std::vector<MapDraft> maps_;
    Look look_;
    Report notes_;
};

}   // namespace dryground

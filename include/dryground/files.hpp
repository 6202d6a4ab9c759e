// Files: reading what designers write, writing what games and tools read.
//
// Nothing here throws for what a file holds: wrong content comes back as findings, all of them. Files are written whole
// or not at all (a new file beside, then a rename). Paths are texts in UTF-8, their parts joined by '/'; a
// std::filesystem::path is taken for one. Threads: free functions without shared state.
#pragma once

#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "dryground/builder.hpp"
#include "dryground/pack.hpp"
#include "dryground/raise.hpp"
#include "dryground/report.hpp"
#include "dryground/travel.hpp"
#include "dryground/world.hpp"

namespace dryground {

// A path in, bytes out, or the reason why there are none: pass your own to load from archives. Called with paths as
// they were put together from the world file's path and the paths in files.
using FileReader = std::function<Result<std::string>(const std::string& path)>;

// Reads a regular file of at most 1 GiB. Faults: "there is no such file", "it is a directory", and others.
[[nodiscard]] Result<std::string> read_file(const std::string& path);

// Writes a file whole or not at all. "-" is nothing special here.
Result<void> write_file(const std::string& path, std::string_view bytes);

// The same for what is too large to hold. A sink takes bytes as they come, and is false when it can take no more; where
// their maker fails, the file is not written.
using ByteSink = std::function<bool(std::string_view)>;
using ByteMaker = std::function<Result<void>(const ByteSink& sink)>;
Result<void> write_file(const std::string& path, const ByteMaker& make);

struct NamedBytes {   // a file to be
    std::string file;
    std::string bytes;
};
// Writes several files: all are written beside their places before the first of them takes its own, so that a full disk
// leaves every old file whole.
Result<void> write_files(const std::vector<NamedBytes>& files);

// Reads a world and all files that it names. With `read_file` paths may not leave the folder of the world file, by
// links neither; with a reader of the caller's, by their words. Files that are named and missing are findings.
[[nodiscard]] Result<World> load_world(const std::string& world_file, const FileReader& reader = read_file);

// What a world's files say.
struct WorldDrafts {
    WorldBuilder builder;
    std::vector<std::string> files;   // all that were read, from the world's folder, sorted
};
// The same files as a builder that says what they say: change it, build it, save it. The findings are those of reading
// so far, errors too; what `build` adds to them comes when it is called. Fails where the world's own file or a tile set
// cannot be read.
[[nodiscard]] Result<WorldDrafts> load_drafts(const std::string& world_file, const FileReader& reader = read_file);

// A world said in code, as TOML files (and CSV and PNG beside maps whose cells were said so), relative to the world's
// folder; the world's own is the last. Canonical: the same drafts give the same bytes, and reading them back gives
// drafts that give these bytes again. Pictures are named as the drafts name them, and not written. Fails, with
// findings, for a world with errors, or with areas of bodies that files have no words for.
[[nodiscard]] Result<std::vector<NamedBytes>> world_files(const WorldBuilder& builder,
                                                          const std::string& world_name = "world.toml");

// Writes them, all or none, and gives their paths; folders for tile sets and maps are made beside the world's file.
[[nodiscard]] Result<std::vector<std::string>> save_world(const WorldBuilder& builder, const std::string& world_file);

// What a path given by a user leads to: a world, or one map or tile set of a world.
struct FoundWorld {
    std::string world;     // the world's file
    std::string map;       // the map's name when the path was a map's
    std::string tileset;   // the tile set's, likewise
    // What to read the world with: as on disk; but where the world does not list the file, as if it did.
    FileReader reader = read_file;
};
// A folder with one world in it is that world. A map or tile set finds its world by walking up to the nearest folder
// with a world file; where that does not list it, a finding says so. Two there: a fault. Findings without a world: the
// file's own content is the reason.
[[nodiscard]] Result<FoundWorld> find_world(const std::string& path);
// How many maps a world's file lists; 0 where it cannot be read. Cost: that of parsing that file alone.
[[nodiscard]] std::size_t count_maps(const FoundWorld& found);

// ---- output -----------------------------------------------------------------------------------------------------

enum class Unit { px, m };
enum class YAxis { down, up };

enum class MergeFormat { json, cbor, geojson, wkt, svg, gltf };

struct MergeOutput {
    Unit unit = Unit::px;
    YAxis y = YAxis::down;
    MergeForms forms{MergeForm::chains, MergeForm::pieces};   // that are written; `merge` must have made them
    MergeFormat format = MergeFormat::json;
    std::optional<double> height_px{};   // glTF: how high regions are raised; without it, as their storey says
    bool inward = false;                 // glTF: faces look into the solid
};

// Merged geometry as a file holds it: `dryground/merge/1` (schema/merge.schema.json) as JSON or CBOR; GeoJSON, a
// feature for each form of a group; CSV with a column of WKT, a line for each; or SVG, a group of paths for each. What
// was merged on the ground plane is told in cells, except for square grids in metres where the unit is that; all of
// `merges` must be of one plane. Throws std::invalid_argument for metres on the ground plane of an isometric map.
// glTF 2.0: the regions raised to closed meshes (raise.hpp), flat where they were merged on the ground plane, else
// upright; metres, y up, a scene for each map, a node for each group of area. Chunks cannot be raised:
// std::invalid_argument.
[[nodiscard]] std::string merge_bytes(const World& world, const std::vector<Merge>& merges,
                                      const MergeOutput& output = {});
// The same in chunks.
[[nodiscard]] std::string merge_bytes(const World& world, const std::vector<ChunkedMerge>& merges,
                                      const MergeOutput& output = {});

// For games that only want a grid: what fills most of each cell of a storey. A barrier's number is the sum of 1, 2, 4 …
// for the first, second, third … of the world's barriers; for a mover 1 where it is stopped. Row by row, counted from
// the data's top-left. Throws std::length_error when the world has more than 31 barriers and no mover is asked for.
// Cost: about that of merging the map in chunks of one cell.
struct CellGround {
    int columns = 0, rows = 0;
    std::vector<std::uint32_t> cells{};
};
[[nodiscard]] CellGround cell_ground(const World& world, const Map& map, const MergeOptions& options = {},
                                     StoreyId storey = StoreyId::ground);
// As CSV, a line a row; as a PNG with one px a cell: the colour of the first barrier that is there, clear where none
// is.
[[nodiscard]] std::string csv_of(const CellGround& ground);
[[nodiscard]] std::string png_of(const CellGround& ground, const World& world);

// The tiles of a layer's cells as CSV, a line a row: names as CSV layers have them ("bank:x:90", "set/bank" where two
// of the map's sets have the name), empty where nothing stands; or numbers, 0 where nothing stands. Throws
// std::invalid_argument for a layer of objects.
enum class TileCells { names, numbers };
[[nodiscard]] std::string csv_of_tiles(const World& world, const Map& map, const Layer& layer, TileCells as);
// What the numbers of a map mean: CSV of number, tile (with its set), flip (x, y, xy or empty) and turn (degrees).
[[nodiscard]] std::string csv_of_tile_numbers(const World& world, const Map& map);

// ---- packs --------------------------------------------------------------------------------------------------------

enum class PackFormat { json, cbor };

struct PackOutput {
    Unit unit = Unit::px;   // of merged geometry; all else is px, and positions of objects metres too
    YAxis y = YAxis::down;
    Plane plane = Plane::screen;
    PackFormat format = PackFormat::json;
    int chunk_cells = 0;   // merged geometry in square chunks of so many cells a side; 0: of whole maps
    // Where no more facts than this (0 to 6) shape a map's ground: its ground for each of their states, so that a game
    // without a merge of its own can open a door.
    int variants = 0;
    std::function<void(std::size_t done, std::size_t all)> progress{};   // called after each map
};

// Everything that a game loads: `dryground/pack/1` (schema/pack.schema.json). The same world gives the same bytes. What
// has an error is left out: look at what `check` finds first. Throws std::out_of_range for other numbers of chunk_cells
// and variants. Cost: about that of merging every map for barriers and for every mover, once for each variant, and of
// writing the result.
[[nodiscard]] std::string pack_bytes(const World& world, const PackOutput& output = {});

// The files of all pictures that a pack names, each once, sorted; relative to the world's folder.
[[nodiscard]] std::vector<std::string> art_files(const World& world);

// Reads a pack of either format, without any reader of designers' files. The world in it is the one it was made from,
// except where things were written; `merge` makes its geometry from it, the same that the pack holds. What is damaged
// gives findings, which name the way to it in the tree. Cost: in proportion to the bytes. `file` names it in findings.
[[nodiscard]] Result<Pack> read_pack(std::string_view bytes, const std::string& file = {});
[[nodiscard]] Result<Pack> load_pack(const std::string& path, const FileReader& reader = read_file);

// Where a mover gets to, as JSON (schema/walk.schema.json): goals, facts, places and a route, in px, y down. O(places).
[[nodiscard]] std::string walk_json(const World& world, const Reach& reach, const std::optional<Route>& route = {});

// `dryground/report/1` (schema/report.schema.json).
[[nodiscard]] std::string report_json(const Report& report, std::string_view world_title);
// SARIF 2.1.0, as code hosts and editors show findings. Paths are relative to the world's folder.
[[nodiscard]] std::string report_sarif(const Report& report);

// Pictures of a world's folder, each decoded once: for `check` to look at. Nothing for what cannot be read.
[[nodiscard]] std::function<std::optional<Image>(const std::string& file)> pictures_of(
    const std::string& world_file, const FileReader& reader = read_file);

// ---- pictures ---------------------------------------------------------------------------------------------------

// Faults: the bytes are no PNG, or one of more than 2^26 px.
[[nodiscard]] Result<Image> decode_png(std::string_view bytes);
[[nodiscard]] std::string encode_png(const Image& image);

}   // namespace dryground

// Files: reads what designers write, writes what games and tools read.
//
// Nothing here throws because of the content of a file: faults are returned as findings, all of them. Files are written
// completely or not at all (a new file next to the old one, then a rename). Paths are UTF-8 texts with '/' as
// separator. Threads: free functions without shared state.
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

// Reads a file: takes a path and returns its bytes, or the reason why there are none. Pass your own to load from
// archives. Paths are joined from the path of the world's file and the paths in files.
using FileReader = std::function<Result<std::string>(const std::string& path)>;

// Reads a regular file of at most 1 GiB. Faults: "there is no such file", "it is a directory", and others.
[[nodiscard]] Result<std::string> read_file(const std::string& path);

// Writes a file completely or not at all. "-" has no special meaning here.
Result<void> write_file(const std::string& path, std::string_view bytes);

// Writes data too large to hold in memory. A sink receives the bytes, and returns false if it cannot take more; if
// `make` fails, the file is not written.
using ByteSink = std::function<bool(std::string_view)>;
using ByteMaker = std::function<Result<void>(const ByteSink& sink)>;
Result<void> write_file(const std::string& path, const ByteMaker& make);

struct NamedBytes {   // a file to be written
    std::string file;
    std::string bytes;
};
// Writes several files: all are written next to their places before the first one replaces its predecessor, so a full
// disk leaves every old file intact.
Result<void> write_files(const std::vector<NamedBytes>& files);

// Reads a world and all files it refers to. With `read_file`, paths may not leave the folder of the world's file, not
// even through links; with another reader, the text of the path decides. Missing files are findings.
[[nodiscard]] Result<World> load_world(const std::string& world_file, const FileReader& reader = read_file);

// The content of a world's files.
struct WorldDrafts {
    WorldBuilder builder;
    std::vector<std::string> files;   // all files read, from the world's folder, sorted
};
// Reads the same files into a builder, to be changed, built or saved. The findings are those of reading, including
// errors; `build` adds its own. Fails if the world's own file or a tile set cannot be read.
[[nodiscard]] Result<WorldDrafts> load_drafts(const std::string& world_file, const FileReader& reader = read_file);

// Converts drafts to TOML files (with CSV and PNG for maps whose cells were given so), relative to the world's folder;
// the world's own is the last. Canonical: the same drafts give the same bytes, and reading them back gives drafts that
// give these bytes again. Pictures are referred to as in the drafts, and not written. Fails, with findings, for a world
// with errors, or with areas of bodies that the file formats cannot express.
[[nodiscard]] Result<std::vector<NamedBytes>> world_files(const WorldBuilder& builder,
                                                          const std::string& world_name = "world.toml");

// Writes these files, all or none, and returns their paths; makes folders for tile sets and maps next to the world's
// file.
[[nodiscard]] Result<std::vector<std::string>> save_world(const WorldBuilder& builder, const std::string& world_file);

// What a path given by a user refers to: a world, or one map or tile set of it.
struct FoundWorld {
    std::string world;     // the world's file
    std::string map;       // the name of the map, if the path is that of a map
    std::string tileset;   // likewise for a tile set
    // Reads the world from disk, but as if it listed the file, where it does not.
    FileReader reader = read_file;
};
// Finds the world of a path. A folder with one world in it is that world. For a map or tile set, the nearest folder
// above with a world's file is used; a finding reports if it does not list the file, and two worlds there are a
// failure. Findings without a world: the content of the file itself is the reason.
[[nodiscard]] Result<FoundWorld> find_world(const std::string& path);
// Returns how many maps a world's file lists; 0 if it cannot be read. Cost: parsing that file alone.
[[nodiscard]] std::size_t count_maps(const FoundWorld& found);

// ---- output -----------------------------------------------------------------------------------------------------

enum class Unit { px, m };
enum class YAxis { down, up };

enum class MergeFormat { json, cbor, geojson, wkt, svg, gltf };

struct MergeOutput {
    Unit unit = Unit::px;
    YAxis y = YAxis::down;
    MergeForms forms{MergeForm::chains, MergeForm::pieces};   // forms to write; `merge` must have made them
    MergeFormat format = MergeFormat::json;
    std::optional<double> height_px{};   // glTF: height of raised regions; omitted: that of their storey
    bool inward = false;                 // glTF: faces point into the solid
};

// Writes merged geometry: `dryground/merge/1` (schema/merge.schema.json) as JSON or CBOR; GeoJSON with a feature for
// each form of a group; CSV with a column of WKT, a line for each; or SVG with a group of paths for each. Geometry
// merged on the ground plane is in units of cells, except for square grids in metres; all of `merges` must be of one
// plane. Throws std::invalid_argument for metres on the ground plane of an isometric map.
// glTF 2.0: the regions raised to closed meshes (raise.hpp), flat if merged on the ground plane, else upright; metres,
// y up, a scene for each map, a node for each group with area. Chunks cannot be raised: std::invalid_argument.
[[nodiscard]] std::string merge_bytes(const World& world, const std::vector<Merge>& merges,
                                      const MergeOutput& output = {});
// The same in chunks.
[[nodiscard]] std::string merge_bytes(const World& world, const std::vector<ChunkedMerge>& merges,
                                      const MergeOutput& output = {});

// For games that need only a grid: what fills most of each cell of a storey. The number of a barrier is the sum of 1,
// 2, 4 … for the first, second, third … of the world's barriers; for a mover it is 1 where the mover is stopped. Row by
// row from the top-left of the data. Throws std::length_error if the world has more than 31 barriers and no mover is
// given. Cost: about that of merging the map in chunks of one cell.
struct CellGround {
    int columns = 0, rows = 0;
    std::vector<std::uint32_t> cells{};
};
[[nodiscard]] CellGround cell_ground(const World& world, const Map& map, const MergeOptions& options = {},
                                     StoreyId storey = StoreyId::ground);
// Convert it to CSV, a line for each row; or to a PNG with one px for each cell: the colour of the first barrier there,
// or transparent.
[[nodiscard]] std::string csv_of(const CellGround& ground);
[[nodiscard]] std::string png_of(const CellGround& ground, const World& world);

// Returns the tiles of a layer as CSV, a line for each row: names as CSV layers have them ("bank:x:90", "set/bank" if
// two sets of the map have the name), empty for empty cells; or numbers, 0 for empty cells. Throws
// std::invalid_argument for a layer of objects.
enum class TileCells { names, numbers };
[[nodiscard]] std::string csv_of_tiles(const World& world, const Map& map, const Layer& layer, TileCells as);
// Returns the meaning of these numbers: CSV of number, tile (with its set), flip (x, y, xy or empty) and turn
// (degrees).
[[nodiscard]] std::string csv_of_tile_numbers(const World& world, const Map& map);

// ---- packs --------------------------------------------------------------------------------------------------------

enum class PackFormat { json, cbor };

struct PackOutput {
    Unit unit = Unit::px;   // of merged geometry and `placed`; everything else is in px
    YAxis y = YAxis::down;
    Plane plane = Plane::screen;
    PackFormat format = PackFormat::json;
    int chunk_cells = 0;   // merged geometry in square chunks of so many cells a side; 0: whole maps
    // If at most this many facts (0 to 6) shape the ground of a map, the pack contains it for each of their states, so
    // that a game that cannot merge can open a door.
    int variants = 0;
    std::function<void(std::size_t done, std::size_t all)> progress{};   // called after each map
};

// Writes all that a game loads: `dryground/pack/1` (schema/pack.schema.json). The same world gives the same bytes.
// Shapes with errors are omitted: see what `check` finds first. Throws std::out_of_range for invalid chunk_cells and
// variants. Cost: about that of merging every map for barriers and for every mover, once for each variant, and of
// writing the result.
[[nodiscard]] std::string pack_bytes(const World& world, const PackOutput& output = {});

// Returns the files of all pictures a pack refers to, each once, sorted; relative to the world's folder.
[[nodiscard]] std::vector<std::string> art_files(const World& world);

// Reads a pack of either format; needs no reader of designers' files. Its world equals the one it was made from, except
// for places in files; `merge` makes the same geometry from it that the pack contains. Damage gives findings with the
// path in the tree. Cost: proportional to the bytes. `file`: its name in findings.
[[nodiscard]] Result<Pack> read_pack(std::string_view bytes, const std::string& file = {});
[[nodiscard]] Result<Pack> load_pack(const std::string& path, const FileReader& reader = read_file);

// Returns where a mover can get to as JSON (schema/walk.schema.json): goals, facts, places and a route, in px, y down.
// O(places).
[[nodiscard]] std::string walk_json(const World& world, const Reach& reach, const std::optional<Route>& route = {});

// `dryground/report/1` (schema/report.schema.json).
[[nodiscard]] std::string report_json(const Report& report, std::string_view world_title);
// Returns SARIF 2.1.0, which code hosts and editors show. Paths are relative to the world's folder.
[[nodiscard]] std::string report_sarif(const Report& report);

// Returns a source of the pictures of a world's folder, for `check`: each is decoded once; nothing for those that
// cannot be read.
[[nodiscard]] std::function<std::optional<Image>(const std::string& file)> pictures_of(
    const std::string& world_file, const FileReader& reader = read_file);

// ---- pictures ---------------------------------------------------------------------------------------------------

// Decodes a PNG. Fails for other bytes, and for more than 2^26 px.
[[nodiscard]] Result<Image> decode_png(std::string_view bytes);
[[nodiscard]] std::string encode_png(const Image& image);

}   // namespace dryground

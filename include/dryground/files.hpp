// Files: reading what designers write, writing what games and tools read.
//
// Nothing here throws for what a file holds: wrong content comes back as findings, all of them. Files are written whole
// or not at all (a new file beside, then a rename). Threads: free functions without shared state.
#pragma once

#include <filesystem>
#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "dryground/merge.hpp"
#include "dryground/report.hpp"
#include "dryground/world.hpp"

namespace dryground {

struct FileBytes {
    std::optional<std::string> bytes;
    std::string fault;   // why there are none: "there is no such file", "it is a directory"
};

// A path in, bytes out: pass your own to load from archives. Called with paths as they were put together from the
// world file's path and the paths in files.
using FileReader = std::function<FileBytes(const std::filesystem::path&)>;

// Reads a regular file of at most 1 GiB.
[[nodiscard]] FileBytes read_file(const std::filesystem::path& path);

// Writes a file whole or not at all; returns why it could not, empty when it could. "-" is nothing special here.
[[nodiscard]] std::string write_file(const std::filesystem::path& path, std::string_view bytes);

// Reads a world and all files that it names. With `read_file` paths may not leave the folder of the world file, by
// links neither; with a reader of the caller's, by their words. Files that are named and missing are findings.
[[nodiscard]] Loaded load_world(const std::filesystem::path& world_file, const FileReader& reader = read_file);

// What a path given by a user leads to: a world, or one map or tile set of a world.
struct FoundWorld {
    std::filesystem::path world;   // the world's file
    std::string map;               // the map's name when the path was a map's
    std::string fault;             // why there is none, empty when there is
    Report report;                 // findings where the file's own content is the reason
};
// A map or tile set finds its world by walking up to the nearest folder with a world file. Two there: a fault that says
// so.
[[nodiscard]] FoundWorld find_world(const std::filesystem::path& path);

// ---- output -----------------------------------------------------------------------------------------------------

enum class Unit { px, m };
enum class YAxis { down, up };

enum class MergeFormat { json, cbor, geojson, wkt };

struct MergeOutput {
    Unit unit = Unit::px;
    YAxis y = YAxis::down;
    bool regions = false, lines = false, chains = true, pieces = true, boxes = false, triangles = false;
    MergeFormat format = MergeFormat::json;
};

// Merged geometry as a file holds it: `dryground/merge/1` (schema/merge.schema.json) as JSON or CBOR; GeoJSON, a
// feature for each form of a group; or CSV with a column of WKT, a line for each. What was merged on the ground plane
// is told in cells, whatever the unit; all of `merges` must be of one plane.
[[nodiscard]] std::string merge_bytes(const World& world, const std::vector<Merge>& merges,
                                      const MergeOutput& output = {});
// The same in chunks.
[[nodiscard]] std::string merge_bytes(const World& world, const std::vector<ChunkedMerge>& merges,
                                      const MergeOutput& output = {});

// `dryground/report/1` (schema/report.schema.json).
[[nodiscard]] std::string report_json(const Report& report, std::string_view world_title);

// ---- pictures ---------------------------------------------------------------------------------------------------

// Nothing when the bytes are no PNG, or one of more than 2^26 px; `fault` then says why.
[[nodiscard]] std::optional<Image> decode_png(std::string_view bytes, std::string& fault);
[[nodiscard]] std::string encode_png(const Image& image);

}   // namespace dryground

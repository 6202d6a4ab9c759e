// Packs made map by map: for build engines that make many files in parallel and redo only those that changed.
//
// Each map becomes a part, made from the world's file, the tile sets and that map's own files alone. Joined, the parts
// equal the bytes that `pack_bytes` returns for the whole world. Threads: free functions without shared state.
#pragma once

#include <functional>
#include <string>
#include <string_view>
#include <vector>

#include "dryground/files.hpp"

namespace dryground {

// An input file, and a hash of its content (FNV-1a, 64 bits, as 16 hexadecimal digits).
struct InputFile {
    std::string file;   // from the world's folder
    std::string hash;
};
[[nodiscard]] std::string content_hash(std::string_view bytes);

// Reads the drafts of a world with only one of its maps, or some: the others are not read, and names that may be in
// them are not looked up. `files` lists all files read. If the world has no map of a name, a finding names the nearest.
// Cost: reading the world's file, its tile sets and those maps; files of other maps are only opened if a map's file is
// not named after it.
[[nodiscard]] Result<WorldDrafts> load_map_drafts(const std::string& world_file, const std::vector<std::string>& maps,
                                                  const FileReader& reader = read_file);
[[nodiscard]] inline Result<WorldDrafts> load_map_drafts(const std::string& world_file, const std::string& map,
                                                         const FileReader& reader = read_file) {
    return load_map_drafts(world_file, std::vector<std::string>{map}, reader);
}

// Returns the names of a world's maps, in order, whatever else is wrong with the world: for a map whose file cannot be
// read, the file name up to the first point. Cost: parsing the files of all maps.
[[nodiscard]] std::vector<std::string> map_names(const std::string& world_file, const FileReader& reader = read_file);

// Writes one map as a part: `dryground/part/1`, CBOR, for `join_parts` only. `inputs`: the files it is made from. Cost:
// about that of merging the map for barriers and for every mover.
[[nodiscard]] std::string part_bytes(const World& world, const Map& map, const PackOutput& output,
                                     const std::vector<InputFile>& inputs);

// Joins the parts of all maps of a world, in any order, to one pack. `NamedBytes::file` names a part in faults;
// `hash_now` returns the current hash of an input file, empty if it cannot be read. The fault lists each part that is
// missing, out of date, made with other options, or damaged, one per line.
[[nodiscard]] Result<std::string> join_parts(const World& world, const std::vector<NamedBytes>& parts,
                                             const PackOutput& output,
                                             const std::function<std::string(const std::string& file)>& hash_now);

}   // namespace dryground

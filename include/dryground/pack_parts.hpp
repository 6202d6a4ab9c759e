// A pack made map by map: for build engines that make many files side by side and redo only what changed.
//
// Each map becomes a part of its own, from the world's file, the tile sets and that map's own files alone. Joined, the
// parts are the very bytes that `pack_bytes` gives for the whole world. Threads: free functions without shared state.
#pragma once

#include <functional>
#include <string>
#include <string_view>
#include <vector>

#include "dryground/files.hpp"

namespace dryground {

// A file that something was made from, and a hash of its content (FNV-1a, 64 bits, as 16 hexadecimal digits).
struct InputFile {
    std::string file;   // from the world's folder
    std::string hash;
};
[[nodiscard]] std::string content_hash(std::string_view bytes);

// The drafts of a world with one of its maps, or some, alone: of the others nothing is read, and names that may be
// theirs are not looked up. `files` lists all that was read. Where the world has no map of a name, a finding names the
// nearest. Cost: that of reading the world's file, its tile sets and those maps; the files of other maps are only
// looked into when a map's file is not named after it.
[[nodiscard]] Result<WorldDrafts> load_map_drafts(const std::string& world_file, const std::vector<std::string>& maps,
                                                  const FileReader& reader = read_file);
[[nodiscard]] inline Result<WorldDrafts> load_map_drafts(const std::string& world_file, const std::string& map,
                                                         const FileReader& reader = read_file) {
    return load_map_drafts(world_file, std::vector<std::string>{map}, reader);
}

// The names of a world's maps, in its order, whatever else is wrong with the world: a map's file that cannot be read
// counts by its own name up to the first point. Cost: that of parsing every map's file.
[[nodiscard]] std::vector<std::string> map_names(const std::string& world_file, const FileReader& reader = read_file);

// One map as a part: `dryground/part/1`, CBOR, for `join_parts` and nobody else. `inputs`: what it is made from.
// Cost: about that of merging the map for barriers and for every mover.
[[nodiscard]] std::string part_bytes(const World& world, const Map& map, const PackOutput& output,
                                     const std::vector<InputFile>& inputs);

// The parts of all maps of a world, in any order, as one pack. `part.file` names a part where something is wrong with
// it; `hash_now` gives the present hash of a file that a part was made from, empty where it cannot be read.
// The fault tells of each part that is missing, too old, of other options, or damaged, a line each.
[[nodiscard]] Result<std::string> join_parts(const World& world, const std::vector<NamedBytes>& parts,
                                             const PackOutput& output,
                                             const std::function<std::string(const std::string& file)>& hash_now);

}   // namespace dryground

// Inside the files room: a world for a map or a tile set that has none.
#pragma once

#include <filesystem>
#include <optional>
#include <string>
#include <vector>

namespace dryground::files {

struct AssumedWorld {
    std::filesystem::path file;   // where it would be: the nearest folder that holds all that is named
    std::string text;
    std::vector<std::string> assumed;   // "barriers earth, brine"
};
// Lists the file, and for a map the tile sets that it uses, if they are found beside or below; names all that they
// name, with the least that each needs. Rules that look for what only a whole world has are off in it.
[[nodiscard]] std::optional<AssumedWorld> assume_world(const std::filesystem::path& file, const std::string& sort);

}   // namespace dryground::files

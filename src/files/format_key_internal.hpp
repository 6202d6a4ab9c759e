// Inside the files room: the format of a file, as its first key declares it.
#pragma once

#include <string>

namespace dryground::files {

struct Format {
    const char* sort;    // "world"
    const char* words;   // "a world"
};
inline constexpr Format formats[] = {{"world", "a world"}, {"tiles", "a tile set"}, {"map", "a map"}};

// Returns the format of a file by its `format` key: "world", "tiles", "map"; empty if it declares none of ours.
[[nodiscard]] std::string sort_of_format(const std::string& format, int& version);

}   // namespace dryground::files

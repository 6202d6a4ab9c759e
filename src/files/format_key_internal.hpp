// Inside the files room: what a file says it is, in its first key.
#pragma once

#include <string>

namespace dryground::files {

struct Format {
    const char* sort;    // "world"
    const char* words;   // "a world"
};
inline constexpr Format formats[] = {{"world", "a world"}, {"tiles", "a tile set"}, {"map", "a map"}};

// The sort of a file by its `format` key: "world", "tiles", "map"; empty when it says none of ours.
[[nodiscard]] std::string sort_of_format(const std::string& format, int& version);

}   // namespace dryground::files

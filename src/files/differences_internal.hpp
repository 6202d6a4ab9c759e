// Inside the library: where two texts differ, part by part.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace dryground {

// Which part of the first text, in bytes, is replaced, and by what.
struct TextChange {
    std::size_t begin = 0, end = 0;
    std::string with{};
};

// Returns the changes from the first to the second, in order; line by line, and within lines if as many were added as
// removed character by character. Applied to the first they give the second.
[[nodiscard]] std::vector<TextChange> text_changes(std::string_view before, std::string_view after);

}   // namespace dryground

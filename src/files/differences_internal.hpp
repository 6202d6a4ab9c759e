// Inside the library: in what two texts differ, part by part.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace dryground {

// What of the first text, in bytes, becomes what.
struct TextChange {
    std::size_t begin = 0, end = 0;
    std::string with{};
};

// From the first to the second, in order; line by line, and in lines of which as many went as came character by
// character. Made to the first they give the second.
[[nodiscard]] std::vector<TextChange> text_changes(std::string_view before, std::string_view after);

}   // namespace dryground

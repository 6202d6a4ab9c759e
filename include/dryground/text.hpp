// Small helpers for names and texts that the library and its tools share. Texts are UTF-8.
#pragma once

#include <cstddef>
#include <string_view>

namespace dryground {

// Whether a name matches a pattern in which * stands for any run of characters. O(pattern * name).
[[nodiscard]] bool matches_pattern(std::string_view pattern, std::string_view name);

// How many characters a text has. Bytes that are no UTF-8 count one by one.
[[nodiscard]] std::size_t count_characters(std::string_view text);

}   // namespace dryground

// Small helpers for names and texts that the library and its tools share. Texts are UTF-8.
#pragma once

#include <cstddef>
#include <string>
#include <string_view>

namespace dryground {

// Whether a name matches a pattern in which * stands for any run of characters. O(pattern * name).
[[nodiscard]] bool matches_pattern(std::string_view pattern, std::string_view name);

// How many characters a text has. Bytes that are no UTF-8 count one by one.
[[nodiscard]] std::size_t count_characters(std::string_view text);

// A number with its noun: "1 cell", "2 cells".
[[nodiscard]] std::string counted(std::size_t number, std::string_view noun);

// A text as a terminal may show it: control characters (C0 but line breaks and tabs, DEL, C1), signs that turn the
// direction of writing, line and paragraph separators and bytes that are no UTF-8 become `\u001b` and the like. Texts
// of files could recolour a terminal, or rename its window, without it. What it gives it leaves as it is.
[[nodiscard]] std::string visible(std::string_view text);

}   // namespace dryground

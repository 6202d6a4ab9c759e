// Small functions for names and texts, shared by the library and its tools. Texts are UTF-8.
#pragma once

#include <cstddef>
#include <string>
#include <string_view>

namespace dryground {

// Returns whether a name matches a pattern in which * stands for any characters. O(pattern * name).
[[nodiscard]] bool matches_pattern(std::string_view pattern, std::string_view name);

// Returns the number of characters of a text. Invalid UTF-8 bytes count as one each.
[[nodiscard]] std::size_t count_characters(std::string_view text);

// Returns a number with its noun: "1 cell", "2 cells".
[[nodiscard]] std::string counted(std::size_t number, std::string_view noun);

// Escapes a text for a terminal: control characters (C0 except line breaks and tabs, DEL, C1), characters that change
// the direction of writing, line and paragraph separators and invalid UTF-8 become `\u001b` and the like, so that texts
// of files cannot recolour a terminal or rename its window. Applying it twice changes nothing more.
[[nodiscard]] std::string visible(std::string_view text);

}   // namespace dryground

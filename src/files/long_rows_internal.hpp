// Inside the files room: the rows of large maps are kept from the TOML parser, which looks at each character many
// times.
#pragma once

#include <map>
#include <string>
#include <string_view>
#include <utility>

namespace dryground::files {

// Rows by where the parser finds their text to open: line and column, from 1.
using LongRows = std::map<std::pair<std::size_t, std::size_t>, std::string_view>;

// The text with only the line breaks of long literal texts (rows = '''…''') left, so that the parser sees all
// else at its place; and what was removed, as it stands in the given text, which must outlive it. Only texts that the
// parser would not change are removed: no control characters except tabs, and line breaks without carriage returns.
struct Lightened {
    std::string text;
    LongRows rows;
};
[[nodiscard]] Lightened lighten(std::string_view text);

}   // namespace dryground::files

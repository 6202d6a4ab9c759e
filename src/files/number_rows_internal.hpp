// Inside the files room: rows of whole numbers as text, as packs hold them. Numbers stand one space apart; a number
// that is repeated is followed by `*` and how often it stands there: "0*3 7 2*2" is 0 0 0 7 2 2.
#pragma once

#include <cstddef>
#include <cstdint>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace dryground::files {

// Returns the text of a row; numbers in decimals, or as 0x1f. O(numbers).
[[nodiscard]] std::string row_text(std::span<const std::uint64_t> numbers, bool hexadecimal = false);

// Appends the numbers of a row in decimals, `most` of them at most, and returns whether the text is a row. A longer row
// is one too: what is beyond `most` is counted in `more`. O(text and numbers).
[[nodiscard]] bool read_row(std::string_view text, std::size_t most, std::vector<std::uint32_t>& into,
                            std::uint64_t& more);

}   // namespace dryground::files

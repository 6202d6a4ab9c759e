// Rows of whole numbers as text: see number_rows_internal.hpp.

#include "number_rows_internal.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <iterator>

namespace dryground::files {

std::string row_text(std::span<const std::uint64_t> numbers, bool hexadecimal) {
    std::string text;
    for (std::size_t i = 0, count = 0; i < numbers.size(); i += count) {
        count = 1;
        while (i + count < numbers.size() && numbers[i + count] == numbers[i]) ++count;
        if (i > 0) text += ' ';
        if (hexadecimal)
            fmt::format_to(std::back_inserter(text), "0x{:x}", numbers[i]);
        else
            fmt::format_to(std::back_inserter(text), "{}", numbers[i]);
        if (count > 1) fmt::format_to(std::back_inserter(text), "*{}", count);
    }
    return text;
}

bool read_row(std::string_view text, std::size_t most, std::vector<std::uint32_t>& into, std::uint64_t& more) {
    const char* at = text.data();
    const char* const end = at + text.size();
    std::size_t left = most;
    more = 0;
    const auto take = [&](std::uint32_t& number) {
        const auto [after, error] = std::from_chars(at, end, number);
        at = after;
        return error == std::errc();
    };
    while (at != end) {
        std::uint32_t number = 0, count = 1;
        if (!take(number)) return false;
        if (at != end && *at == '*') {
            ++at;
            if (!take(count) || count == 0) return false;
        }
        const std::size_t fitting = std::min<std::size_t>(count, left);
        into.insert(into.end(), fitting, number);
        left -= fitting, more += count - fitting;
        if (at == end) break;
        if (*at++ != ' ' || at == end) return false;
    }
    return true;
}

}   // namespace dryground::files

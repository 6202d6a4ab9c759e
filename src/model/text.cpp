// Texts: plurals, name patterns, and control characters made visible.

#include "dryground/text.hpp"

#include <fmt/format.h>

#include <iterator>

#include "utf8_internal.hpp"

namespace dryground {

std::string counted(std::size_t number, std::string_view noun) {
    return fmt::format("{} {}{}", number, noun, number == 1 ? "" : "s");
}

bool matches_pattern(std::string_view pattern, std::string_view name) {
    // On a mismatch the last star takes one more character.
    std::size_t p = 0, n = 0, star = std::string_view::npos, mark = 0;
    while (n < name.size()) {
        if (p < pattern.size() && pattern[p] == '*') {
            star = p++;
            mark = n;
        } else if (p < pattern.size() && pattern[p] == name[n]) {
            ++p, ++n;
        } else if (star != std::string_view::npos) {
            p = star + 1;
            n = ++mark;
        } else {
            return false;
        }
    }
    while (p < pattern.size() && pattern[p] == '*') ++p;
    return p == pattern.size();
}

namespace {

bool is_hidden(char32_t c) {
    return (c < 0x20 && c != '\n' && c != '\t') || (c >= 0x7F && c <= 0x9F) || c == 0x061C || c == 0x200E ||
           c == 0x200F || (c >= 0x2028 && c <= 0x202E) || (c >= 0x2066 && c <= 0x2069);
}

}   // namespace

std::string visible(std::string_view text) {
    std::string result;
    result.reserve(text.size());
    for (std::size_t bad = utf8::first_bad_byte(text); !text.empty(); bad = utf8::first_bad_byte(text)) {
        const std::string_view good = text.substr(0, bad);
        for (std::size_t i = 0; i < good.size();) {
            const std::size_t length = utf8::length(good[i]);
            const char32_t c = utf8::code_point(good.substr(i, length));
            is_hidden(c) ? static_cast<void>(fmt::format_to(std::back_inserter(result), "\\u{:04x}", std::uint32_t{c}))
                         : static_cast<void>(result.append(good.substr(i, length)));
            i += length;
        }
        text.remove_prefix(good.size());
        if (text.empty()) break;
        fmt::format_to(std::back_inserter(result), "\\x{:02x}", static_cast<unsigned char>(text[0]));
        text.remove_prefix(1);
    }
    return result;
}

std::size_t count_characters(std::string_view text) { return utf8::count(text); }

}   // namespace dryground

// Inside the library: characters of UTF-8 texts. Requires valid UTF-8, which readers ensure; any other bytes count one
// by one.
#pragma once

#include <cstdint>
#include <cstring>
#include <string_view>
#include <vector>

namespace dryground::utf8 {

[[nodiscard]] inline std::size_t length(char first) {
    const auto byte = static_cast<unsigned char>(first);
    return byte >= 0xF0 ? 4 : byte >= 0xE0 ? 3 : byte >= 0xC0 ? 2 : 1;
}

[[nodiscard]] inline std::vector<std::string_view> characters(std::string_view text) {
    std::vector<std::string_view> result;
    for (std::size_t i = 0; i < text.size();) {
        result.push_back(text.substr(i, length(text[i])));
        i += result.back().size();
    }
    return result;
}

// Returns the number of bytes of one character. Requires valid UTF-8.
[[nodiscard]] inline char32_t code_point(std::string_view character) {
    const auto byte = [&](std::size_t i) { return static_cast<char32_t>(static_cast<unsigned char>(character[i])); };
    if (character.size() == 1) return byte(0);
    char32_t code = byte(0) & (0x7Fu >> character.size());
    for (std::size_t i = 1; i < character.size(); ++i) code = code << 6 | (byte(i) & 0x3Fu);
    return code;
}

[[nodiscard]] inline std::size_t count(std::string_view text) {
    std::size_t n = 0;
    for (std::size_t i = 0; i < text.size(); i += length(text[i])) ++n;
    return n;
}

// Returns the position of the first byte that cannot belong to UTF-8 (overlong forms and surrogates included); npos if
// all is valid.
[[nodiscard]] inline std::size_t first_bad_byte(std::string_view text) {
    for (std::size_t i = 0; i < text.size();) {
        std::uint64_t eight = 0x80;   // most texts are mostly ASCII
        if (i + 8 <= text.size()) std::memcpy(&eight, text.data() + i, 8);
        if ((eight & 0x8080808080808080u) == 0) {
            i += 8;
            continue;
        }
        const auto byte = [&](std::size_t k) {
            return i + k < text.size() ? static_cast<unsigned char>(text[i + k]) : 0u;
        };
        const auto follows = [&](std::size_t k) { return (byte(k) & 0xC0u) == 0x80u; };
        const unsigned a = byte(0), b = byte(1);
        if (a < 0x80)
            i += 1;
        else if (a >= 0xC2 && a <= 0xDF && follows(1))
            i += 2;
        else if (a >= 0xE0 && a <= 0xEF && follows(1) && follows(2) && !(a == 0xE0 && b < 0xA0) &&
                 !(a == 0xED && b > 0x9F))
            i += 3;
        else if (a >= 0xF0 && a <= 0xF4 && follows(1) && follows(2) && follows(3) && !(a == 0xF0 && b < 0x90) &&
                 !(a == 0xF4 && b > 0x8F))
            i += 4;
        else
            return i;
    }
    return std::string_view::npos;
}

}   // namespace dryground::utf8

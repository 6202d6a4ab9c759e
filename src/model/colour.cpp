// Reads a colour written as #rrggbb.

#include <array>

#include "dryground/vocabulary.hpp"

namespace dryground {

std::optional<Colour> colour_from(std::string_view text) {
    if (text.size() != 7 || text[0] != '#') return std::nullopt;
    std::array<std::uint8_t, 3> bytes{};
    for (std::size_t i = 1; i < text.size(); ++i) {
        const char c = text[i];
        const int digit = c >= '0' && c <= '9'   ? c - '0'
                          : c >= 'a' && c <= 'f' ? c - 'a' + 10
                          : c >= 'A' && c <= 'F' ? c - 'A' + 10
                                                 : -1;
        if (digit < 0) return std::nullopt;
        std::uint8_t& byte = bytes[(i - 1) / 2];
        byte = static_cast<std::uint8_t>(byte * 16 + digit);
    }
    return Colour{bytes[0], bytes[1], bytes[2]};
}

}   // namespace dryground

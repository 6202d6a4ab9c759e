// What stands in the cells of a layer, by number: characters, fields or colours, and the flips and turns behind a name.

#include "cell_keys_internal.hpp"

#include <fmt/format.h>

#include <array>
#include <map>

#include "utf8_internal.hpp"

namespace dryground {

CellTable table_of(const std::vector<Located<std::string>>& rows) {
    CellTable table;
    std::array<std::uint32_t, 128> plain;   // of ASCII characters
    plain.fill(UINT32_MAX);
    std::map<std::string_view, std::uint32_t> others;
    const auto add = [&](std::string_view key) {
        table.keys.emplace_back(key);
        return static_cast<std::uint32_t>(table.keys.size() - 1);
    };
    std::size_t bytes = 0;
    for (const auto& [row, place] : rows) bytes += row.size();
    table.numbers.reserve(bytes);
    for (const auto& [row, place] : rows) {
        for (std::size_t i = 0; i < row.size();) {
            if (const auto byte = static_cast<unsigned char>(row[i]); byte < 128 && plain[byte] != UINT32_MAX) {
                table.numbers.push_back(plain[byte]);
                ++i;
                continue;
            }
            const std::string_view character = std::string_view(row).substr(i, utf8::length(row[i]));
            i += character.size();
            if (const auto byte = static_cast<unsigned char>(character[0]); byte < 128) {
                if (plain[byte] == UINT32_MAX) plain[byte] = add(character);
                table.numbers.push_back(plain[byte]);
            } else {
                const auto found = others.find(character);
                table.numbers.push_back(
                    found != others.end() ? found->second : others.emplace(character, add(character)).first->second);
            }
        }
        table.row_ends.push_back(table.numbers.size());
        table.rows.push_back(place);
    }
    return table;
}

bool is_empty_key(CellTable::Sort sort, const std::string& key) {
    switch (sort) {
        case CellTable::Sort::rows:
            return key == "." || key == " ";
        case CellTable::Sort::csv:
            return key.empty();
        case CellTable::Sort::png:
            break;
    }
    return key.size() == 9 && key.substr(7) == "00";   // a pixel that one sees through
}

std::optional<Orientation> orientation_from(std::string_view words) {
    Orientation orientation;
    bool flipped = false, turned = false;
    while (!words.empty()) {
        const std::size_t end = std::min(words.find(':', 1), words.size());
        const std::string_view word = words.substr(1, end - 1);
        words.remove_prefix(end);
        if (word == "x" || word == "y" || word == "xy") {
            if (flipped || turned) return std::nullopt;
            flipped = true;
            orientation.flip_x = word != "y", orientation.flip_y = word != "x";
        } else if (word == "90" || word == "180" || word == "270") {
            if (turned) return std::nullopt;
            turned = true;
            orientation.turn = static_cast<std::int16_t>(word == "90" ? 90 : word == "180" ? 180 : 270);
        } else {
            return std::nullopt;
        }
    }
    return orientation;
}

std::string canonical_key(const std::string& key) {
    if ((key.size() != 7 && key.size() != 9) || key[0] != '#' ||
        key.find_first_not_of("0123456789abcdefABCDEF", 1) != std::string::npos)
        return key;
    std::string small = key;
    for (char& c : small)
        if (c >= 'A' && c <= 'F') c = static_cast<char>(c - 'A' + 'a');
    if (small.size() == 9 && small.substr(7) == "ff") small.resize(7);
    return small;
}

std::string words_of(const Orientation& orientation) {
    std::string words;
    if (orientation.flip_x || orientation.flip_y)
        words += fmt::format(":{}{}", orientation.flip_x ? "x" : "", orientation.flip_y ? "y" : "");
    if (orientation.turn != 0) words += fmt::format(":{}", orientation.turn);
    return words;
}

}   // namespace dryground

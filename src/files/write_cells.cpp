// Writes cells as CSV and as a picture, as read_cells.cpp reads them.

#include <cstdlib>

#include "writing_internal.hpp"

namespace dryground::files {

std::string csv_field(const std::string& key) {
    const auto is_blank = [](char c) { return c == ' ' || c == '\t'; };
    if (key.empty() ||
        (key.find_first_of(",\"\r\n") == std::string::npos && !is_blank(key.front()) && !is_blank(key.back())))
        return key;
    std::string field = "\"";
    for (const char c : key) field += c == '"' ? "\"\"" : std::string(1, c);
    return field + "\"";
}

std::string csv_text(const CellTable& cells) {
    std::vector<std::string> fields;
    for (const std::string& key : cells.keys) fields.push_back(csv_field(key));
    std::string out;
    std::size_t begin = 0;
    for (const std::size_t end : cells.row_ends) {
        for (std::size_t i = begin; i < end; ++i) {
            if (i > begin) out += ',';
            out += fields[cells.numbers[i]];
        }
        out += '\n';
        begin = end;
    }
    return out;
}

Image picture_of(const CellTable& cells) {
    std::vector<std::array<unsigned char, 4>> colours;
    for (const std::string& key : cells.keys) {
        std::array<unsigned char, 4> colour{0, 0, 0, 255};
        for (std::size_t i = 0; i < 4 && 2 * i + 3 <= key.size(); ++i)
            colour[i] = static_cast<unsigned char>(std::strtol(key.substr(2 * i + 1, 2).c_str(), nullptr, 16));
        colours.push_back(colour);
    }
    Image image;
    image.height = static_cast<int>(cells.row_ends.size());
    image.width = image.height > 0 ? static_cast<int>(cells.row_ends.front()) : 0;
    image.rgba.reserve(4 * cells.numbers.size());
    for (const std::uint32_t number : cells.numbers)
        image.rgba.insert(image.rgba.end(), colours[number].begin(), colours[number].end());
    return image;
}

}   // namespace dryground::files

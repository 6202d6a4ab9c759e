// The px of a tile's art.

#include "rules_internal.hpp"

namespace dryground::check_rules {

bool TileArt::shows(int column, int row) const {
    const int in_x = column - x, in_y = row - y;
    if (in_x < 0 || in_y < 0 || in_x >= width || in_y >= height) return false;
    const std::size_t at = 4 * (static_cast<std::size_t>(top + in_y) * static_cast<std::size_t>(image->width) +
                                static_cast<std::size_t>(left + in_x));
    const std::vector<unsigned char>& rgba = image->rgba;
    return rgba[at + 3] >= 64 && !(clear && Colour{rgba[at], rgba[at + 1], rgba[at + 2]} == *clear);
}

std::optional<TileArt> art_of(const TileSet& set, const Tile& tile, const LookAt& look) {
    const std::string& file = tile.picture            ? tile.picture->file
                              : tile.art && set.sheet ? set.sheet->file
                                                      : std::string();
    const Image* image = file.empty() ? nullptr : look(file);
    if (image == nullptr) return std::nullopt;
    TileArt art{image, 0, 0, image->width, image->height, 0, 0, std::nullopt};
    if (tile.picture) {
        art.x = static_cast<int>(tile.picture->x), art.y = static_cast<int>(tile.picture->y);
        return art;
    }
    const Sheet& sheet = *set.sheet;
    art.left = sheet.margin[0] + (*tile.art)[0] * (set.cell_width + sheet.gap[0]);
    art.top = sheet.margin[1] + (*tile.art)[1] * (set.cell_height + sheet.gap[1]);
    art.width = set.cell_width, art.height = set.cell_height;
    art.clear = sheet.clear;
    if (art.left < 0 || art.top < 0 || art.left + art.width > image->width || art.top + art.height > image->height)
        return std::nullopt;
    return art;
}

}   // namespace dryground::check_rules

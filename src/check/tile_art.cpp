// The px of a tile's art: which part of its picture it is, and what of it is opaque.

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
    const std::optional<TileImage> drawn = image_of(set, tile);
    const Image* image = drawn ? look(drawn->file) : nullptr;
    if (image == nullptr) return std::nullopt;
    const TileArt art{image,
                      drawn->left,
                      drawn->top,
                      tile.picture ? image->width : drawn->width,
                      tile.picture ? image->height : drawn->height,
                      static_cast<int>(drawn->x),
                      static_cast<int>(drawn->y),
                      drawn->clear};
    if (art.left < 0 || art.top < 0 || art.left + art.width > image->width || art.top + art.height > image->height)
        return std::nullopt;
    return art;
}

}   // namespace dryground::check_rules

// Pictures of tiles, kinds and movers: read once, cut, and scaled to a picture's size.
//
// Enlarged px by px, made smaller by averages weighted by alpha. Cost: in proportion to the px.

#include "art_internal.hpp"

#include <fmt/format.h>
#include <glib.h>

#include <algorithm>
#include <cmath>
#include <filesystem>

#include "palette_internal.hpp"

namespace dryground::drawing {

namespace {

// Sums of the px of a picture, weighted by alpha.
struct Mean {
    double red = 0, green = 0, blue = 0, alpha = 0, weight = 0;

    void add(const Image& image, int x, int y, double part, const std::optional<Colour>& clear, bool grey) {
        const auto at =
            (static_cast<std::size_t>(y) * static_cast<std::size_t>(image.width) + static_cast<std::size_t>(x)) * 4;
        Colour colour{image.rgba[at], image.rgba[at + 1], image.rgba[at + 2]};
        weight += part;
        if (clear == colour) return;
        if (grey) colour = grey_of(colour);
        const double shows = part * image.rgba[at + 3] / 255.0;
        red += colour.red * shows, green += colour.green * shows, blue += colour.blue * shows, alpha += shows;
    }
    // In cairo's form: colours times alpha.
    [[nodiscard]] std::uint32_t argb() const {
        const auto byte = [&](double sum) { return static_cast<std::uint32_t>(std::lround(sum / weight)); };
        return byte(alpha * 255) << 24 | byte(red) << 16 | byte(green) << 8 | byte(blue);
    }
};

}   // namespace

Canvas blank(int width, int height) {
    return Canvas(cairo_image_surface_create(CAIRO_FORMAT_ARGB32, std::max(width, 1), std::max(height, 1)));
}

std::string png_of(cairo_surface_t* surface) {
    std::string bytes;
    const auto append = [](void* closure, const unsigned char* data, unsigned length) {
        static_cast<std::string*>(closure)->append(reinterpret_cast<const char*>(data), length);
        return CAIRO_STATUS_SUCCESS;
    };
    if (cairo_surface_write_to_png_stream(surface, append, &bytes) != CAIRO_STATUS_SUCCESS) bytes.clear();
    return bytes;
}

std::string data_address(const std::string& png) {
    const std::unique_ptr<gchar, void (*)(gpointer)> text(
        g_base64_encode(reinterpret_cast<const guchar*>(png.data()), png.size()), g_free);
    return fmt::format("data:image/png;base64,{}", text.get());
}

Canvas Art::cut(const Image& image, int x, int y, int width, int height, const std::optional<Colour>& clear) const {
    // A px more at fractions of a scale, so that no seam shows between cells.
    const int wide = std::max(1, static_cast<int>(std::ceil(width * scale_ - 1e-6))),
              high = std::max(1, static_cast<int>(std::ceil(height * scale_ - 1e-6)));
    Canvas surface = blank(wide, high);
    cairo_surface_flush(surface.get());
    unsigned char* const data = cairo_image_surface_get_data(surface.get());
    const int stride = cairo_image_surface_get_stride(surface.get());
    for (int row = 0; row < high; ++row) {
        auto* const out = reinterpret_cast<std::uint32_t*>(data + std::ptrdiff_t{row} * stride);
        for (int column = 0; column < wide; ++column) {
            Mean mean;
            if (scale_ >= 1) {
                mean.add(image, x + std::min(static_cast<int>((column + 0.5) / scale_), width - 1),
                         y + std::min(static_cast<int>((row + 0.5) / scale_), height - 1), 1, clear, grey_);
            } else {
                const double left = column / scale_, right = std::min<double>((column + 1) / scale_, width),
                             top = row / scale_, bottom = std::min<double>((row + 1) / scale_, height);
                for (int v = static_cast<int>(top); v < bottom && v < height; ++v)
                    for (int u = static_cast<int>(left); u < right && u < width; ++u)
                        mean.add(image, x + u, y + v,
                                 (std::min<double>(u + 1, right) - std::max<double>(u, left)) *
                                     (std::min<double>(v + 1, bottom) - std::max<double>(v, top)),
                                 clear, grey_);
            }
            out[column] = mean.weight > 0 ? mean.argb() : 0;
        }
    }
    cairo_surface_mark_dirty(surface.get());
    return surface;
}

const Image* Art::image(const std::string& file) {
    if (file.empty()) return nullptr;
    auto [known, is_new] = images_.try_emplace(file);
    if (is_new)
        if (const Result<std::string> bytes = source_.reader(std::filesystem::path(source_.folder) / file))
            if (Result<Image> image = decode_png(*bytes)) known->second = *std::move(image);
    return known->second ? &*known->second : nullptr;
}

cairo_surface_t* Art::picture(const std::string& file) {
    auto [known, is_new] = pictures_.try_emplace(file);
    if (is_new)
        if (const Image* whole = image(file)) known->second = cut(*whole, 0, 0, whole->width, whole->height, {});
    return known->second.get();
}

cairo_surface_t* Art::tile(int tileset, int tile) {
    auto [known, is_new] = tiles_.try_emplace({tileset, tile});
    if (!is_new) return known->second.get();
    const TileSet& set = world_.tilesets()[static_cast<std::size_t>(tileset)];
    const Tile& of = set.tiles[static_cast<std::size_t>(tile)];
    const std::optional<TileImage> art = image_of(set, of);
    const Image* const file = art ? image(art->file) : nullptr;
    if (file == nullptr) return nullptr;
    const int width = of.picture ? file->width : art->width, height = of.picture ? file->height : art->height;
    if (art->left >= 0 && art->top >= 0 && art->left + width <= file->width && art->top + height <= file->height)
        known->second = cut(*file, art->left, art->top, width, height, art->clear);
    return known->second.get();
}

double Art::reach(const Map& map) const {
    double most = 0;
    for (const TileSetId id : map.tilesets) {
        const TileSet& set = world_.tilesets()[static_cast<std::size_t>(id)];
        for (const Tile& tile : set.tiles)
            if (const std::optional<TileImage> art = image_of(set, tile))
                most = std::max({most, std::abs(art->x), std::abs(art->y), art->x + art->width - set.cell_width,
                                 art->y + art->height - set.cell_height});
    }
    return most * scale_;
}

}   // namespace dryground::drawing

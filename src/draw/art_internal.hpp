// Inside the draw room: pictures of tiles, kinds and movers, cut from their files once and scaled to a picture's size.
#pragma once

#include <cairo.h>

#include <map>
#include <memory>
#include <string>

#include "dryground/draw.hpp"

namespace dryground::drawing {

struct FreeCairo {
    void operator()(cairo_surface_t* surface) const { cairo_surface_destroy(surface); }
    void operator()(cairo_t* context) const { cairo_destroy(context); }
};
using Canvas = std::unique_ptr<cairo_surface_t, FreeCairo>;
using Context = std::unique_ptr<cairo_t, FreeCairo>;

[[nodiscard]] Canvas blank(int width, int height);
[[nodiscard]] std::string png_of(cairo_surface_t* surface);       // PNG bytes
[[nodiscard]] std::string data_address(const std::string& png);   // "data:image/png;base64,…"

class Art {
public:
    Art(const World& world, const ArtSource& source, double scale, bool grey)
        : world_(world), source_(source), scale_(scale), grey_(grey) {}

    // Returns art at the scale, enlarged px by px, or made smaller by averages; null without any. Owned by this.
    [[nodiscard]] cairo_surface_t* tile(int tileset, int tile);
    [[nodiscard]] cairo_surface_t* picture(const std::string& file);
    // Returns how far pictures of tiles of these sets extend beyond their cells, px of the picture.
    [[nodiscard]] double reach(const Map& map) const;
    // Returns a whole file unchanged; null if it cannot be read. Owned by this.
    [[nodiscard]] const Image* image(const std::string& file);

private:
    [[nodiscard]] Canvas cut(const Image& image, int x, int y, int width, int height,
                             const std::optional<Colour>& clear) const;

    const World& world_;
    const ArtSource& source_;
    double scale_;
    bool grey_;
    std::map<std::string, std::optional<Image>> images_;
    std::map<std::pair<int, int>, Canvas> tiles_;
    std::map<std::string, Canvas> pictures_;
};

}   // namespace dryground::drawing

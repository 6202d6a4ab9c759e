// The art of a map: each layer painted as one picture of its window, then objects.

#include <algorithm>
#include <cmath>
#include <numbers>

#include "../ground/ground_internal.hpp"
#include "art_internal.hpp"
#include "picture_internal.hpp"

namespace dryground::drawing {

namespace {

constexpr int largest = 4096;   // px of one picture inside a document

class LayerPainter {
public:
    LayerPainter(MapPicture& picture, Art& art, const Layer& layer, const Box& box)
        : picture_(picture), art_(art), layer_(layer), box_(box) {}

    // Puts the layer's picture into the document, if anything of it lies there.
    void paint() {
        const double reach = art_.reach(picture_.map());
        const Box window = picture_.window;
        picture_.window = box_;
        const Point shift = ground::shift_of(layer_);
        picture_.each_cell(reach + (std::abs(to_px(shift.x)) + std::abs(to_px(shift.y))) * picture_.scale,
                           [&](int column, int row) { paint_cell(column, row); });
        picture_.window = window;
        if (!surface_) return;
        context_.reset();
        picture_.put("<image x=\"{:g}\" y=\"{:g}\" width=\"{:g}\" height=\"{:g}\" xlink:href=\"{}\"/>\n", box_.x,
                     box_.y, box_.width, box_.height, data_address(png_of(surface_.get())));
    }

private:
    void paint_cell(int column, int row) {
        const Map& map = picture_.map();
        const Placed& placed = map.placed(layer_, column, row);
        if (placed.tile < 0) return;
        const Tile& tile = picture_.world.tile(placed);
        cairo_surface_t* const art = art_.tile(placed.tileset, placed.tile);
        if (art == nullptr) return;
        begin();
        const Point corner = moved(map.box_corner(column, row), ground::shift_of(layer_));
        const double x = std::round(picture_.x(corner.x) - box_.x), y = std::round(picture_.y(corner.y) - box_.y);
        const double dx = tile.picture ? tile.picture->x * picture_.scale : 0,
                     dy = tile.picture ? tile.picture->y * picture_.scale : 0;
        cairo_t* const context = context_.get();
        const Orientation& o = placed.orientation;
        if (o == Orientation{}) {
            cairo_set_source_surface(context, art, x + std::round(dx), y + std::round(dy));
            cairo_pattern_set_filter(cairo_get_source(context), CAIRO_FILTER_NEAREST);
            cairo_paint(context);
            return;
        }
        const double w = picture_.cell_width(), h = picture_.cell_height();
        cairo_save(context);
        cairo_translate(context, x + w / 2, y + h / 2);
        cairo_rotate(context, o.turn * std::numbers::pi / 180);
        cairo_scale(context, o.flip_x ? -1 : 1, o.flip_y ? -1 : 1);
        cairo_set_source_surface(context, art, dx - w / 2, dy - h / 2);
        cairo_pattern_set_filter(cairo_get_source(context), CAIRO_FILTER_NEAREST);
        cairo_paint(context);
        cairo_restore(context);
    }

    void begin() {
        if (surface_) return;
        surface_ = blank(static_cast<int>(std::ceil(box_.width)), static_cast<int>(std::ceil(box_.height)));
        context_ = Context(cairo_create(surface_.get()));
    }

    MapPicture& picture_;
    Art& art_;
    const Layer& layer_;
    Box box_;
    Canvas surface_;
    Context context_;
};

// What has no art but is there: a crossed box.
void draw_unseen(MapPicture& picture, const Layer& layer) {
    std::string path;
    picture.each_cell(0, [&](int column, int row) {
        const Placed& placed = picture.map().placed(layer, column, row);
        if (placed.tile < 0 || !picture.world.tile(placed).unseen) return;
        const Ring ring = picture.map().cell_ring(column, row);
        path += picture.path(ring) + picture.path(Ring{ring[0], ring[2]}, false) +
                picture.path(Ring{ring[1], ring[3]}, false);
    });
    if (!path.empty())
        picture.put("<path class=\"unseen\" d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-dasharray=\"3 2\"/>\n", path,
                    picture.inks.helper);
}

void draw_layer(MapPicture& picture, Art& art, const Layer& layer) {
    const double opacity = layer.opacity * (layer.storey > 0 ? 0.55 : 1) *   // what is below an upper storey shows
                           (layer.shown ? 1 : 0.6);
    picture.put("<g data-layer=\"{}\"{}>\n", escaped(layer.name),
                opacity < 1 ? fmt::format(" opacity=\"{:g}\"", opacity) : "");
    const Box& frame = picture.frame;
    const double left = std::floor(std::max(frame.x, picture.window.x)),
                 top = std::floor(std::max(frame.y, picture.window.y)),
                 right = std::min(frame.x + frame.width, picture.window.x + picture.window.width),
                 bottom = std::min(frame.y + frame.height, picture.window.y + picture.window.height);
    for (double y = top; y < bottom; y += largest)
        for (double x = left; x < right; x += largest)
            LayerPainter(picture, art, layer,
                         {x, y, std::ceil(std::min<double>(largest, right - x)),
                          std::ceil(std::min<double>(largest, bottom - y))})
                .paint();
    draw_unseen(picture, layer);
    picture.close();
}

void draw_object(MapPicture& picture, Art& art, const Object& object, std::map<std::string, std::string>& ids) {
    const Kind& kind = picture.world.kinds()[static_cast<std::size_t>(object.kind)];
    const Mover* mover = mover_of(picture.world, picture.map(), object);
    const auto& own = kind.picture ? kind.picture : mover != nullptr ? mover->picture : std::nullopt;
    cairo_surface_t* const surface = own ? art.picture(own->file) : nullptr;
    if (surface == nullptr) return;
    const int width = cairo_image_surface_get_width(surface), height = cairo_image_surface_get_height(surface);
    const double x = picture.x(object.position.x) + own->x * picture.scale,
                 y = picture.y(object.position.y) + own->y * picture.scale;
    if (!Box{x, y, static_cast<double>(width), static_cast<double>(height)}.meets(picture.window)) return;
    auto [id, is_new] = ids.try_emplace(own->file, fmt::format("art{}", ids.size()));
    if (is_new)
        picture.define("<image id=\"{}\" width=\"{}\" height=\"{}\" xlink:href=\"{}\"/>\n", id->second, width, height,
                       data_address(png_of(surface)));
    picture.put("<use xlink:href=\"#{}\" x=\"{:.1f}\" y=\"{:.1f}\"/>\n", id->second, x, y);
}

}   // namespace

void draw_art(MapPicture& picture, Art& art) {
    for (const Layer& layer : picture.map().layers)
        if (!layer.holds_objects && picture.shows(layer)) draw_layer(picture, art, layer);
    std::map<std::string, std::string> ids;
    for (const Object& object : picture.map().objects)
        if (is_there(picture.map(), object, picture.options.merging.facts) &&
            picture.shows(picture.map().layers[static_cast<std::size_t>(object.layer)]))
            draw_object(picture, art, object, ids);
}

}   // namespace dryground::drawing

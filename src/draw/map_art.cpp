// The art of a map: each layer painted as one picture of its window; what is drawn among the movers, and objects, by
// depth.

#include <algorithm>
#include <cmath>
#include <numbers>
#include <tuple>

#include "../ground/ground_internal.hpp"
#include "art_internal.hpp"
#include "picture_internal.hpp"

namespace dryground::drawing {

namespace {

constexpr int largest = 4096;   // px of one picture inside a document

// The picture of a kind or mover that an object is drawn with, and its art; null if it has none.
struct ObjectArt {
    const Picture* picture = nullptr;
    cairo_surface_t* surface = nullptr;
};
ObjectArt art_of(const MapPicture& picture, Art& art, const Object& object) {
    const Kind& kind = picture.world.kind(object.kind);
    const Mover* mover = mover_of(picture.world, picture.map(), object);
    const auto& own = kind.picture || mover == nullptr ? kind.picture : mover->picture;
    return own ? ObjectArt{&*own, art.picture(own->file)} : ObjectArt{};
}

// Returns where the top-left corner of its picture is drawn.
std::array<double, 2> corner_of(const MapPicture& picture, const Object& object, const Picture& own) {
    return {picture.x(object.position) + own.x * picture.scale,
            picture.y(object.position) + own.y * picture.scale - picture.raise(object.storey)};
}

double strength(const MapPicture& picture, const Layer& layer) {
    return layer.opacity * strength_of(picture.world, layer, picture.options) * (layer.shown ? 1 : 0.6);
}

// A part of the map's picture, on which tiles and objects are painted one over the other.
class Block {
public:
    Block(MapPicture& picture, Art& art, const Box& box) : picture_(picture), art_(art), box_(box) {}

    // Calls action with each cell of a layer whose art may reach into the block.
    template <class Call>
    void each_cell(const Layer& layer, const Call& call) const {
        const Point shift = ground::shift_of(layer);
        const double reach = art_.reach(picture_.map()) +
                             (std::abs(to_px(shift.x)) + std::abs(to_px(shift.y))) * picture_.scale +
                             picture_.raise(layer.storey);
        const Box window = picture_.window;
        picture_.window = box_;
        picture_.each_cell(reach, call);
        picture_.window = window;
    }

    void tile(const Layer& layer, int column, int row, double alpha) {
        const Map& map = picture_.map();
        const Placed& placed = map.placed(layer, column, row);
        if (placed.tile < 0) return;
        const Tile& tile = picture_.world.tile(placed);
        cairo_surface_t* const art = art_.tile(placed.tileset, placed.tile);
        if (art == nullptr) return;
        begin();
        const Point corner = moved(map.box_corner(column, row), ground::shift_of(layer));
        const double x = std::round(picture_.x(corner) - box_.x),
                     y = std::round(picture_.y(corner) - picture_.raise(layer.storey) - box_.y);
        const TileImage image = *image_of(picture_.world.tilesets()[static_cast<std::size_t>(placed.tileset)], tile);
        const double dx = image.x * picture_.scale, dy = image.y * picture_.scale;
        cairo_t* const context = context_.get();
        const Orientation& o = placed.orientation;
        if (o == Orientation{}) {
            paint(art, x + std::round(dx), y + std::round(dy), alpha);
            return;
        }
        const double w = picture_.cell_width(), h = picture_.cell_height();
        cairo_save(context);
        cairo_translate(context, x + w / 2, y + h / 2);
        cairo_rotate(context, o.turn * std::numbers::pi / 180);
        cairo_scale(context, o.flip_x ? -1 : 1, o.flip_y ? -1 : 1);
        paint(art, dx - w / 2, dy - h / 2, alpha);
        cairo_restore(context);
    }

    void object(const Object& object) {
        const auto [own, surface] = art_of(picture_, art_, object);
        if (surface == nullptr) return;
        begin();
        const auto [x, y] = corner_of(picture_, object, *own);
        paint(surface, std::round(x - box_.x), std::round(y - box_.y), 1);
    }

    // Adds the block to the document, if anything was painted.
    void put() {
        if (!surface_) return;
        context_.reset();
        picture_.put("<image x=\"{:g}\" y=\"{:g}\" width=\"{:g}\" height=\"{:g}\" xlink:href=\"{}\"/>\n", box_.x,
                     box_.y, box_.width, box_.height, data_address(png_of(surface_.get())));
    }

private:
    void begin() {
        if (surface_) return;
        surface_ = blank(static_cast<int>(std::ceil(box_.width)), static_cast<int>(std::ceil(box_.height)));
        context_ = Context(cairo_create(surface_.get()));
    }
    void paint(cairo_surface_t* art, double x, double y, double alpha) {
        cairo_t* const context = context_.get();
        cairo_set_source_surface(context, art, x, y);
        cairo_pattern_set_filter(cairo_get_source(context), CAIRO_FILTER_NEAREST);
        alpha < 1 ? cairo_paint_with_alpha(context, alpha) : cairo_paint(context);
    }

    MapPicture& picture_;
    Art& art_;
    Box box_;
    Canvas surface_;
    Context context_;
};

// Calls action with each block of the part of the picture that is being drawn.
template <class Call>
void each_block(MapPicture& picture, Art& art, const Call& call) {
    const Box& frame = picture.frame;
    const double left = std::floor(std::max(frame.x, picture.window.x)),
                 top = std::floor(std::max(frame.y, picture.window.y)),
                 right = std::min(frame.x + frame.width, picture.window.x + picture.window.width),
                 bottom = std::min(frame.y + frame.height, picture.window.y + picture.window.height);
    for (double y = top; y < bottom; y += largest)
        for (double x = left; x < right; x += largest) {
            Block block(picture, art,
                        {x, y, std::ceil(std::min<double>(largest, right - x)),
                         std::ceil(std::min<double>(largest, bottom - y))});
            call(block);
            block.put();
        }
}

// Draws a crossed box for a thing without art.
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

// Returns when a tile is drawn.
Band band_of(const MapPicture& picture, const Layer& layer, int column, int row) {
    const Placed& placed = picture.map().placed(layer, column, row);
    return placed.tile < 0 ? layer.band : picture.world.tile(placed).band.value_or(layer.band);
}

// Returns whether anything of a layer of cells is drawn in a band.
bool has_band(const MapPicture& picture, const Layer& layer, Band band) {
    for (std::size_t n = 0; n < layer.counts.size(); ++n) {
        const Placed& placed = picture.map().palette[n];
        if (layer.counts[n] > 0 && placed.tile >= 0 && picture.world.tile(placed).band.value_or(layer.band) == band)
            return true;
    }
    return layer.band == band;
}

void draw_layer(MapPicture& picture, Art& art, const Layer& layer, Band band) {
    const double opacity = strength(picture, layer);
    picture.put("<g data-layer=\"{}\"{}>\n", escaped(layer.name),
                opacity < 1 ? fmt::format(" opacity=\"{:g}\"", opacity) : "");
    each_block(picture, art, [&](Block& block) {
        block.each_cell(layer, [&](int column, int row) {
            if (band_of(picture, layer, column, row) == band) block.tile(layer, column, row, 1);
        });
    });
    if (band == layer.band) picture.on_storey(layer.storey, [&] { draw_unseen(picture, layer); });
    picture.close();
}

void draw_object(MapPicture& picture, Art& art, const Object& object, std::map<std::string, std::string>& ids) {
    const auto [own, surface] = art_of(picture, art, object);
    if (surface == nullptr) return;
    const int width = cairo_image_surface_get_width(surface), height = cairo_image_surface_get_height(surface);
    const auto [x, y] = corner_of(picture, object, *own);
    if (!Box{x, y, static_cast<double>(width), static_cast<double>(height)}.meets(picture.window)) return;
    auto [id, is_new] = ids.try_emplace(own->file, fmt::format("art{}", ids.size()));
    if (is_new)
        picture.define("<image id=\"{}\" width=\"{}\" height=\"{}\" xlink:href=\"{}\"/>\n", id->second, width, height,
                       data_address(png_of(surface)));
    picture.put("<use xlink:href=\"#{}\" x=\"{:.1f}\" y=\"{:.1f}\"/>\n", id->second, x, y);
}

// Returns the position of an object in the order of depth, px down the map.
double depth_of(const Map& map, const Object& object) {
    return to_px(object.position.y) + map.layer(object.layer).order;
}

// Draws the tiles of layers that are drawn among the movers, and objects, those further away first: by where they
// stand, as in Play::depth, then by storey, then by layer.
void draw_by_depth(MapPicture& picture, Art& art, const std::vector<const Layer*>& layers,
                   const std::vector<const Object*>& objects) {
    struct Item {
        double depth, base_px;
        LayerId layer;
        const Object* object;
        int column, row;
    };
    const Map& map = picture.map();
    // If all of it is equally faded, it is faded as a whole: what stands in front still hides what is behind it.
    const double all = strength(picture, *layers.front());
    const bool as_one = objects.empty() && std::all_of(layers.begin(), layers.end(), [&](const Layer* layer) {
                            return strength(picture, *layer) == all;
                        });
    picture.put("<g data-band=\"with\"{}>\n", as_one && all < 1 ? fmt::format(" opacity=\"{:g}\"", all) : "");
    const auto base = [&](StoreyId storey) { return picture.world.storey(storey).base_px; };
    each_block(picture, art, [&](Block& block) {
        std::vector<Item> items;
        for (const Object* object : objects)
            items.push_back({depth_of(map, *object), base(object->storey), object->layer, object, 0, 0});
        for (const Layer* layer : layers)
            block.each_cell(*layer, [&](int column, int row) {
                if (map.placed(*layer, column, row).tile < 0 || band_of(picture, *layer, column, row) != Band::with)
                    return;
                const Bounds box = map.cell_box(column, row);
                items.push_back({double{0.5} * (double{0} + box.least.y + box.most.y) / steps_per_px + layer->order,
                                 base(layer->storey),
                                 id_of<LayerId>(static_cast<std::size_t>(layer - map.layers.data())), nullptr, column,
                                 row});
            });
        std::stable_sort(items.begin(), items.end(), [](const Item& a, const Item& b) {
            return std::tie(a.depth, a.base_px, a.layer) < std::tie(b.depth, b.base_px, b.layer);
        });
        for (const Item& item : items) {
            const Layer& layer = map.layer(item.layer);
            if (item.object != nullptr)
                block.object(*item.object);
            else
                block.tile(layer, item.column, item.row, as_one ? 1 : strength(picture, layer));
        }
    });
    for (const Layer* layer : layers)
        if (layer->band == Band::with) picture.on_storey(layer->storey, [&] { draw_unseen(picture, *layer); });
    picture.close();
}

}   // namespace

// Behind the movers, among them, in front of them. Objects are among them, except those of layers in front.
void draw_art(MapPicture& picture, Art& art) {
    const Map& map = picture.map();
    std::map<std::string, std::string> ids;
    const auto number = [&](const Layer& layer) { return (&layer - map.layers.data()) + layer.order; };
    for (const Band band : {Band::behind, Band::with, Band::front}) {
        std::vector<const Layer*> layers;
        for (const Layer& layer : map.layers)
            if (!layer.holds_objects && strength(picture, layer) > 0 && has_band(picture, layer, band))
                layers.push_back(&layer);
        std::stable_sort(layers.begin(), layers.end(),
                         [&](const Layer* a, const Layer* b) { return number(*a) < number(*b); });
        std::vector<const Object*> objects;
        for (const Object& object : map.objects) {
            const Layer& layer = map.layer(object.layer);
            const Band of_object = layer.band == Band::front ? Band::front : Band::with;
            if (of_object == band && is_shown(map, object, picture.options) &&
                art_of(picture, art, object).surface != nullptr)
                objects.push_back(&object);
        }
        if (band == Band::with && !layers.empty()) {
            draw_by_depth(picture, art, layers, objects);
            continue;
        }
        for (const Layer* layer : layers) draw_layer(picture, art, *layer, band);
        std::stable_sort(objects.begin(), objects.end(),
                         [&](const Object* a, const Object* b) { return depth_of(map, *a) < depth_of(map, *b); });
        for (const Object* object : objects) draw_object(picture, art, *object, ids);
    }
}

}   // namespace dryground::drawing

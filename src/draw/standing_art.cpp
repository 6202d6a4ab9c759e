// How far the art on a map extends: pictures larger than their cells reach over its edges.

#include <algorithm>
#include <tuple>

#include "../geometry/bounds_internal.hpp"
#include "../ground/ground_internal.hpp"
#include "picture_internal.hpp"

namespace dryground::drawing {

namespace {

// Returns the box around a tile's art relative to the corner of its cell's box, in steps: flipped and turned about the
// cell's middle.
std::optional<Bounds> art_box(const World& world, const Map& map, const Placed& placed) {
    if (placed.tile < 0) return std::nullopt;
    const TileSet& set = world.tilesets()[static_cast<std::size_t>(placed.tileset)];
    const std::optional<TileImage> image = image_of(set, world.tile(placed));
    if (!image) return std::nullopt;
    const Orientation& way = placed.orientation;
    const double half_w = map.cell_width / 2.0, half_h = map.cell_height / 2.0;
    Bounds box{{INT32_MAX, INT32_MAX}, {INT32_MIN, INT32_MIN}};
    for (const double right : {0.0, 1.0})
        for (const double down : {0.0, 1.0}) {
            double x = image->x + right * image->width - half_w, y = image->y + down * image->height - half_h;
            if (way.flip_x) x = -x;
            if (way.flip_y) y = -y;
            for (int turned = 0; turned < way.turn; turned += 90) std::tie(x, y) = std::pair(-y, x);
            const Point p{to_steps(x + half_w), to_steps(y + half_h)};
            box = {{std::min(box.least.x, p.x), std::min(box.least.y, p.y)},
                   {std::max(box.most.x, p.x), std::max(box.most.y, p.y)}};
        }
    return box;
}

class Reaching {
public:
    Reaching(const World& world, const Map& map, const DrawOptions& options, Bounds all)
        : world_(world), map_(map), options_(options), all_(all) {}

    Bounds run() {
        for (const Layer& layer : map_.layers)
            if (!layer.holds_objects && strength_of(world_, layer, options_) > 0) add_cells(layer);
        for (const Object& object : map_.objects)
            if (is_shown(map_, object, options_)) add_object(object);
        return all_;
    }

private:
    [[nodiscard]] std::int32_t raise(StoreyId storey) const {
        return map_.grid == GridSort::isometric ? to_steps(world_.storey(storey).base_px) : 0;
    }
    void add(const Bounds& box, Point at) { all_ = detail::both(all_, {moved(box.least, at), moved(box.most, at)}); }

    // Only tiles whose art leaves their cell's box can leave the map's, unless their layer is shifted or raised.
    void add_cells(const Layer& layer) {
        const Point shift = moved(ground::shift_of(layer), {0, -raise(layer.storey)});
        std::vector<std::optional<Bounds>> boxes(map_.palette.size());
        bool any = false;
        for (std::size_t n = 1; n < std::min(layer.counts.size(), boxes.size()); ++n) {
            if (layer.counts[n] == 0) continue;
            boxes[n] = art_box(world_, map_, map_.palette[n]);
            if (!boxes[n]) continue;
            const Bounds& box = *boxes[n];
            if (shift == Point{} && box.least.x >= 0 && box.least.y >= 0 &&
                box.most.x <= map_.cell_width * steps_per_px && box.most.y <= map_.cell_height * steps_per_px)
                boxes[n].reset();
            any = any || boxes[n];
        }
        for (int r = 0; any && r < map_.rows; ++r)
            for (int c = 0; c < map_.columns; ++c)
                if (const std::optional<Bounds>& box = boxes[map_.number(layer, c, r)])
                    add(*box, moved(map_.box_corner(c, r), shift));
    }

    void add_object(const Object& object) {
        const Kind& kind = world_.kind(object.kind);
        const Mover* mover = mover_of(world_, map_, object);
        const std::optional<Picture>& own = kind.picture || mover == nullptr ? kind.picture : mover->picture;
        if (!own) return;
        const Point corner{to_steps(own->x), to_steps(own->y) - raise(object.storey)};
        add({corner, {corner.x + own->width * steps_per_px, corner.y + own->height * steps_per_px}}, object.position);
    }

    const World& world_;
    const Map& map_;
    const DrawOptions& options_;
    Bounds all_;
};

}   // namespace

Bounds with_art(const World& world, const Map& map, const DrawOptions& options, const Bounds& box) {
    return Reaching(world, map, options, box).run();
}

}   // namespace dryground::drawing

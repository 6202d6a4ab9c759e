// The art of tiles and kinds. Tiles are cut from their sheets and enlarged px by px, so that every renderer shows hard
// edges.

#include <algorithm>

#include "page_internal.hpp"

namespace dryground::drawing {

namespace {

std::string base64(std::string_view bytes) {
    static constexpr char digits[] = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
    std::string out;
    for (std::size_t i = 0; i < bytes.size(); i += 3) {
        const auto byte = [&](std::size_t k) {
            return i + k < bytes.size() ? static_cast<unsigned>(static_cast<unsigned char>(bytes[i + k])) : 0u;
        };
        const unsigned group = byte(0) << 16 | byte(1) << 8 | byte(2);
        for (std::size_t k = 0; k < 4; ++k) out += i + k > bytes.size() ? '=' : digits[group >> (18 - 6 * k) & 63u];
    }
    return out;
}

class Cutter {
public:
    Cutter(Page& page, const ArtSource& art) : page_(page), art_(art) {}

    // The id of a definition that holds a part of a picture; empty when there is no such picture or part.
    std::string define(const std::string& file, int x, int y, int width, int height,
                       const std::optional<Colour>& clear = {}) {
        const std::string key = fmt::format("{}:{}:{}", file, x, y);
        if (const auto known = ids_.find(key); known != ids_.end()) return known->second;
        std::string& id = ids_[key];
        const Image* image = load(file);
        if (width == 0 && image != nullptr) width = image->width, height = image->height;
        if (image == nullptr || x < 0 || y < 0 || x + width > image->width || y + height > image->height) return id;
        id = fmt::format("art{}", ids_.size());
        fmt::format_to(std::back_inserter(page_.defs),
                       "<image id=\"{}\" width=\"{}\" height=\"{}\" xlink:href=\"data:image/png;base64,{}\"/>\n", id,
                       width * page_.scale, height * page_.scale,
                       base64(encode_png(enlarged(*image, x, y, width, height, clear))));
        return id;
    }

private:
    const Image* load(const std::string& file) {
        if (file.empty()) return nullptr;
        auto [known, is_new] = images_.try_emplace(file);
        if (is_new) {
            std::string fault;
            const FileBytes bytes = art_.reader(art_.folder / file);
            if (bytes.bytes) known->second = decode_png(*bytes.bytes, fault);
        }
        return known->second ? &*known->second : nullptr;
    }

    [[nodiscard]] Image enlarged(const Image& image, int x, int y, int width, int height,
                                 const std::optional<Colour>& clear) const {
        Image part{width * page_.scale, height * page_.scale, {}};
        part.rgba.reserve(static_cast<std::size_t>(part.width) * static_cast<std::size_t>(part.height) * 4);
        for (int row = 0; row < part.height; ++row)
            for (int column = 0; column < part.width; ++column) {
                const auto at =
                    static_cast<std::size_t>((y + row / page_.scale) * image.width + x + column / page_.scale) * 4;
                part.rgba.insert(part.rgba.end(), image.rgba.begin() + static_cast<std::ptrdiff_t>(at),
                                 image.rgba.begin() + static_cast<std::ptrdiff_t>(at) + 4);
                if (clear == Colour{image.rgba[at], image.rgba[at + 1], image.rgba[at + 2]}) part.rgba.back() = 0;
            }
        return part;
    }

    Page& page_;
    const ArtSource& art_;
    std::map<std::string, std::optional<Image>> images_;
    std::map<std::string, std::string> ids_;
};

void draw_tile(Page& page, Cutter& cutter, const Placed& placed, Point corner) {
    const TileSet& set = page.world.tilesets()[static_cast<std::size_t>(placed.tileset)];
    const Tile& tile = page.world.tile(placed);
    const double x = page.x(corner.x), y = page.y(corner.y);
    const double w = set.cell_width * page.scale, h = set.cell_height * page.scale;
    if (tile.unseen && page.map.grid == GridSort::isometric) {
        page.put(
            "<path d=\"M{} {}l{} {}l-{} {}l-{} -{}z\" fill=\"none\" stroke=\"#554466\" stroke-dasharray=\"3 2\"/>\n",
            x + w / 2, y + 1, w / 2 - 2, h / 2 - 1, w / 2 - 2, h / 2 - 1, w / 2 - 2, h / 2 - 1);
        return;
    }
    if (tile.unseen) {
        page.put(
            "<path d=\"M{0} {1}h{2}v{3}h-{2}zM{0} {1}l{2} {3}M{4} {1}l-{2} {3}\" fill=\"none\" stroke=\"#554466\" "
            "stroke-dasharray=\"3 2\"/>\n",
            x + 1, y + 1, w - 2, h - 2, x + w - 1);
        return;
    }
    std::string id;
    if (tile.art && set.sheet)
        id =
            cutter.define(set.sheet->file, set.sheet->margin[0] + (*tile.art)[0] * (set.cell_width + set.sheet->gap[0]),
                          set.sheet->margin[1] + (*tile.art)[1] * (set.cell_height + set.sheet->gap[1]), set.cell_width,
                          set.cell_height, set.sheet->clear);
    if (tile.picture) id = cutter.define(tile.picture->file, 0, 0, 0, 0);
    if (id.empty()) return;
    const double dx = tile.picture ? tile.picture->x * page.scale : 0,
                 dy = tile.picture ? tile.picture->y * page.scale : 0;
    const Orientation& o = placed.orientation;
    if (o == Orientation{})
        page.put("<use xlink:href=\"#{}\" x=\"{}\" y=\"{}\"/>\n", id, x + dx, y + dy);
    else
        page.put("<use xlink:href=\"#{}\" transform=\"translate({} {}) rotate({}) scale({} {}) translate({} {})\"/>\n",
                 id, x + w / 2, y + h / 2, o.turn, o.flip_x ? -1 : 1, o.flip_y ? -1 : 1, dx - w / 2, dy - h / 2);
}

}   // namespace

void draw_art(Page& page, const ArtSource& art) {
    Cutter cutter(page, art);
    for (const Layer& layer : page.map.layers) {
        if (layer.holds_objects || !is_there(layer)) continue;
        const double opacity =
            layer.opacity * (layer.storey > 0 ? 0.55 : 1);   // the ground shines through what is above
        page.put("<g{}>\n", opacity < 1 ? fmt::format(" opacity=\"{}\"", opacity) : "");
        for (int r = 0; r < page.map.rows; ++r)
            for (int c = 0; c < page.map.columns; ++c)
                if (const Placed& placed = page.map.placed(layer, c, r); placed.tile >= 0)
                    draw_tile(page, cutter, placed, moved(page.map.box_corner(c, r), layer.offset));
        page.put("</g>\n");
    }
    for (const Object& object : page.map.objects) {
        const Kind& kind = page.world.kinds()[static_cast<std::size_t>(object.kind)];
        const auto* mover =
            kind.mover >= 0
                ? &page.world.movers()[static_cast<std::size_t>(
                      object.role == Role::spawn && kind.mover == page.world.player() && page.map.player >= 0
                          ? page.map.player
                          : kind.mover)]
                : nullptr;
        const auto& picture = kind.picture ? kind.picture : mover != nullptr ? mover->picture : std::nullopt;
        if (!picture) continue;
        const std::string id = cutter.define(picture->file, 0, 0, 0, 0);
        if (!id.empty())
            page.put("<use xlink:href=\"#{}\" x=\"{:.1f}\" y=\"{:.1f}\"/>\n", id,
                     page.x(object.position.x) + picture->x * page.scale,
                     page.y(object.position.y) + picture->y * page.scale);
    }
}

void draw_grid(Page& page) {
    std::string lines;
    const auto line = [&](Point a, Point b) {
        fmt::format_to(std::back_inserter(lines), "M{} {}L{} {}", page.x(a.x), page.y(a.y), page.x(b.x), page.y(b.y));
    };
    for (int c = 0; c <= page.map.columns; ++c) line(page.map.corner(c, 0), page.map.corner(c, page.map.rows));
    for (int r = 0; r <= page.map.rows; ++r) line(page.map.corner(0, r), page.map.corner(page.map.columns, r));
    page.put("<path d=\"{}\" fill=\"none\" stroke=\"#33414a\" stroke-opacity=\"0.22\" stroke-width=\"1\"/>\n", lines);
}

void draw_cell_numbers(Page& page) {
    const Map& map = page.map;
    const int step = map.cell_width * page.scale >= 24 ? 1 : 5;
    const bool diamonds = map.grid == GridSort::isometric;   // columns are told along the upper right side
    const double rim_x = map.cell_width * page.scale, rim_y = map.cell_height * page.scale;
    const auto middle = [&](Point a, Point b) {
        return std::pair{(page.x(a.x) + page.x(b.x)) / 2, (page.y(a.y) + page.y(b.y)) / 2};
    };
    for (int c = 0; c < map.columns; c += step) {
        const auto [x, y] = middle(map.corner(c, 0), map.corner(c + 1, 0));
        page.label(x + (diamonds ? rim_x / 2 : 0), y - (diamonds ? rim_y / 2 : rim_y) - 4,
                   fmt::format("{}", map.first_column + c), 9, "middle", "fill=\"#5b6a73\"");
    }
    for (int r = 0; r < map.rows; r += step) {
        const auto [x, y] = middle(map.corner(0, r), map.corner(0, r + 1));
        page.label(x - (diamonds ? rim_x / 2 : rim_x) - 3, y - (diamonds ? rim_y / 2 : 0) + 3,
                   fmt::format("{}", map.first_row + r), 9, "end", "fill=\"#5b6a73\"");
    }
}

}   // namespace dryground::drawing

// A tile set's picture: a card for each tile, with its art half faded below its shapes, their vertices in px, and its
// description.

#include <algorithm>
#include <cmath>

#include "../geometry/bounds_internal.hpp"
#include "../geometry/ring_internal.hpp"
#include "../ground/ground_internal.hpp"
#include "../model/set_cell_internal.hpp"
#include "../model/words_internal.hpp"
#include "art_internal.hpp"
#include "picture_internal.hpp"

namespace dryground {

namespace drawing {

namespace {

constexpr double page_width = 1280, card_width = 408, gap = 12, line = 14, text_size = 11.5;
constexpr double label_room = 24;        // around what is drawn, for the numbers of vertices
constexpr std::size_t most_labels = 8;   // with more vertices (curves) the description gives the number

// Returns text broken into lines that fit a width.
std::vector<std::string> wrapped(const std::string& text, double width, double size) {
    std::vector<std::string> lines(1);
    for (std::size_t at = 0; at < text.size();) {
        const std::size_t end = std::min(text.find(' ', at), text.size());
        const std::string word = text.substr(at, end - at);
        if (!lines.back().empty() && text_width(lines.back() + " " + word, size) > width) lines.emplace_back();
        lines.back() += (lines.back().empty() ? "" : " ") + word;
        at = end + 1;
    }
    return lines;
}

class TileSetPicture : public Sheet {
public:
    TileSetPicture(const World& world, const TileSet& set, const ArtSource& source, const DrawOptions& options)
        : world_(world),
          set_(set),
          options_(options),
          inks_(inks_of(options.palette)),
          reach_(reach_of(set)),
          scale_(scale_for(set, reach_, options)),
          art_(world, source, scale_, options.palette == Palette::grey) {
        wide_ = set.cell_width * scale_, high_ = set.cell_height * scale_;
    }

    std::string draw() {
        text(16, 28, fmt::format("Tile set {}", set_.name), 18, inks_.text, "start", "font-weight=\"bold\"");
        text(page_width - 16, 26,
             fmt::format("{} tiles of {} x {} px, at scale {:.4g}", set_.tiles.size(), set_.cell_width,
                         set_.cell_height, scale_),
             12, inks_.lines, "end");
        define_hatchings();
        const auto columns = static_cast<std::size_t>((page_width - 32 + gap) / (card_width + gap));
        double y = 48;
        for (std::size_t first = 0; first < set_.tiles.size(); first += columns) {
            const std::size_t last = std::min(first + columns, set_.tiles.size());
            double high = reach_.height * scale_ + 2 * label_room;
            for (std::size_t t = first; t < last; ++t)
                high = std::max(high, 34 + line * static_cast<double>(words(set_.tiles[t]).size()));
            for (std::size_t t = first; t < last; ++t)
                card({16 + static_cast<double>(t - first) * (card_width + gap), y, card_width, high}, t);
            y += high + gap;
        }
        key(y);
        return document({0, 0, page_width, y + 32}, "Tile set " + set_.name, inks_);
    }

    TileCards cards() {
        TileCards all;
        define_hatchings();
        all.hatchings = fmt::format(
            "<svg class=\"hatchings\" width=\"0\" height=\"0\" aria-hidden=\"true\"><defs>{}</defs></svg>\n", defs);
        for (std::size_t t = 0; t < set_.tiles.size(); ++t) {
            body.clear();
            const double wide = reach_.width * scale_ + 2 * label_room, high = reach_.height * scale_ + 2 * label_room;
            draw_figure({0, 0, wide, high}, t);
            all.tiles.push_back(
                {fmt::format("<svg width=\"{0:.0f}\" height=\"{1:.0f}\" viewBox=\"0 0 {0:.0f} {1:.0f}\" "
                             "role=\"img\" aria-label=\"{2}\">{3}</svg>",
                             wide, high, escaped(set_.tiles[t].name), body),
                 sentences(set_.tiles[t])});
        }
        for (std::size_t b = 0; b <= world_.barriers().size(); ++b) {
            const BarrierId barrier = b < world_.barriers().size() ? id_of<BarrierId>(b) : BarrierId::none;
            all.key += fmt::format(
                "<span><svg width=\"32\" height=\"18\"><rect x=\"2\" y=\"2\" width=\"28\" height=\"14\" "
                "fill=\"url(#{})\" "
                "stroke=\"{}\" stroke-width=\"2\" stroke-dasharray=\"{}\"/></svg>{}</span>\n",
                hatch(barrier), look(barrier).colour, look(barrier).dash,
                barrier == BarrierId::none ? no_barrier : escaped(world_.barrier(barrier).name));
        }
        all.key += fmt::format("<span>{}</span>", signs);
        return all;
    }

private:
    static constexpr const char *no_barrier = "trigger, or its layer's barrier",
                                *signs =
                                    "dotted: carved away; thick edge: a side that is shut; numbers: px from the "
                                    "cell's corner";
    // Returns the box in px, relative to the cell's corner, of the cell and all that extends beyond it; up to three
    // cells.
    static Box reach_of(const TileSet& set) {
        double left = 0, top = 0, right = set.cell_width, bottom = set.cell_height;
        const auto reach = [&](double least_x, double least_y, double most_x, double most_y) {
            left = std::min(left, least_x), top = std::min(top, least_y);
            right = std::max(right, most_x), bottom = std::max(bottom, most_y);
        };
        for (const Tile& tile : set.tiles) {
            if (const auto own = image_of(set, tile)) reach(own->x, own->y, own->x + own->width, own->y + own->height);
            for (const Shape& shape : tile.shapes)
                if (const auto box = bounds(shape.area))
                    reach(to_px(box->least.x), to_px(box->least.y), to_px(box->most.x), to_px(box->most.y));
        }
        const double most = 3.0 * std::max(set.cell_width, set.cell_height);
        left = std::max(left, -most), top = std::max(top, -most);
        return {left, top, std::min(right, set.cell_width + most) - left,
                std::min(bottom, set.cell_height + most) - top};
    }
    static double scale_for(const TileSet& set, const Box& reach, const DrawOptions& options) {
        if (options.scale > 0) return options.scale;
        const double fit =
            std::min(128.0 / std::max(set.cell_width, set.cell_height), 168.0 / std::max(reach.width, reach.height));
        return fit >= 1 ? std::clamp(std::round(fit), 1.0, 16.0) : fit;
    }
    [[nodiscard]] int id() const { return static_cast<int>(&set_ - world_.tilesets().data()); }
    [[nodiscard]] Look look(BarrierId barrier) const { return look_of(world_, barrier, 1, options_.palette); }
    [[nodiscard]] static std::string hatch(BarrierId barrier) {
        return barrier == BarrierId::none ? "hatch_trigger" : fmt::format("hatch{}", index(barrier));
    }
    void define_hatchings() {
        hatching(hatch(BarrierId::none), look(BarrierId::none), inks_);
        for (const BarrierId barrier : ids<BarrierId>(world_.barriers()))
            hatching(hatch(barrier), look(barrier), inks_);
    }

    [[nodiscard]] std::string meaning_words(const ground::Meaning& meaning) const {
        const std::string barrier =
            meaning.barrier == BarrierId::none ? "its layer's barrier" : world_.barrier(meaning.barrier).name;
        if (!meaning.adds) return fmt::format("carves {}: {}", barrier, meaning.shape->words);
        return fmt::format(
            "{}: {}{}{}", meaning.trigger.empty() ? barrier : "senses " + meaning.trigger, meaning.shape->words,
            meaning.one_way == OneWay::none ? "" : fmt::format(", passed going {}", name_of(meaning.one_way)),
            meaning.shape->fault == ShapeFault::none ? "" : " (an error: ignored)");
    }

    // Returns the description of a tile, in lines that fit its card.
    [[nodiscard]] std::vector<std::string> words(const Tile& tile) const {
        std::vector<std::string> all;
        for (const std::string& sentence : sentences(tile))
            for (std::string& one :
                 wrapped(sentence, card_width - reach_.width * scale_ - 2 * label_room - 22, text_size))
                all.push_back(std::move(one));
        return all;
    }
    [[nodiscard]] std::vector<std::string> sentences(const Tile& tile) const {
        std::vector<std::string> all;
        const auto add = [&](std::string sentence) { all.push_back(std::move(sentence)); };
        if (!tile.decided) add("undecided: it has no 'shapes' key");
        if (tile.decided && tile.shapes.empty()) add("no shapes");
        for (const ground::Meaning& meaning : ground::meanings_of(tile)) add(meaning_words(meaning));
        if (tile.flags)
            add(fmt::format("grants: {}", *tile.flags == 0
                                              ? "none"
                                              : fmt::format("{}", fmt::join(flag_names(world_, *tile.flags), " "))));
        if (tile.sides) {
            static constexpr std::array<const char*, 4> names{"top", "right", "bottom", "left"};
            std::string shut;
            for (std::size_t side = 0; side < 4; ++side)
                if (tile.sides->of[side] != Passage::open)
                    shut +=
                        fmt::format("{}{} {}", shut.empty() ? "" : ", ", names[side], name_of(tile.sides->of[side]));
            add("sides: " + (shut.empty() ? "all open" : shut));
        }
        const auto names = [](const std::vector<FactId>& ids, const auto& things) {
            std::string all_names;
            for (const FactId id : ids) all_names += (all_names.empty() ? "" : ", ") + things[index(id)].name;
            return all_names;
        };
        if (!tile.needs.empty()) add(fmt::format("solid until {}", names(tile.needs, world_.facts())));
        if (!tile.gives.empty()) add(fmt::format("gives {}", names(tile.gives, world_.facts())));
        for (const Reaction& reaction : tile.reacts)
            add(fmt::format("reacts to {}{}", name_of(reaction.fires),
                            reaction.runs == EventId::none ? "" : ": runs " + world_.event(reaction.runs).name));
        if (tile.leads != StoreyId::none) add("leads to " + world_.storey(tile.leads).name);
        if (tile.stands_for != KindId::none) add("stands for a " + world_.kind(tile.stands_for).name);
        if (tile.art) add(fmt::format("art: column {}, row {} of the sheet", (*tile.art)[0], (*tile.art)[1]));
        if (tile.picture) add("picture: " + tile.picture->file);
        if (tile.band) add(fmt::format("band: {}", word_of(*tile.band)));
        if (tile.unseen) add("unseen: it has no art");
        if (!tile.tags.empty()) add(fmt::format("tags: {}", fmt::join(tile.tags, ", ")));
        for (const auto& [name, value] : tile.props)
            if (const auto field = set_.fields.find(name);
                field == set_.fields.end() || field->second.standard != value)
                add(fmt::format("{} = {}", name, dryground::text(value)));
        return all;
    }

    void card(const Box& box, std::size_t t) {
        const Tile& tile = set_.tiles[t];
        put("<g class=\"tile\" data-name=\"{}\">\n", escaped(tile.name));
        put("<rect x=\"{:.1f}\" y=\"{:.1f}\" width=\"{:.1f}\" height=\"{:.1f}\" rx=\"4\" fill=\"{}\"/>\n", box.x, box.y,
            box.width, box.height, inks_.ground);
        draw_figure(box, t);
        const double x = box.x + reach_.width * scale_ + 2 * label_room + 14;
        text(x, box.y + 20, tile.name, 13.5, inks_.text, "start", "font-weight=\"bold\"");
        if (!tile.decided) {
            put("<rect x=\"{:.1f}\" y=\"{:.1f}\" width=\"24\" height=\"24\" rx=\"3\" fill=\"{}\"/>\n", box.x + 4,
                box.y + 4, inks_.warning);
            text(box.x + 16, box.y + 22, "?", 17, inks_.sign_text, "middle", "font-weight=\"bold\"");
        }
        double y = box.y + 20;
        for (const std::string& one : words(tile)) text(x, y += line, one, text_size, inks_.soft);
        body += "</g>\n";
    }

    // Draws its art and shapes, at the left of a box.
    void draw_figure(const Box& box, std::size_t t) {
        const Tile& tile = set_.tiles[t];
        left_ = box.x + label_room - reach_.x * scale_, top_ = box.y + label_room - reach_.y * scale_;
        draw_art(tile, t);
        for (const Shape& shape : tile.shapes) draw_shape(shape);
        for (const ground::Meaning& carve : ground::meanings_of(tile))
            if (!carve.adds)
                put("<path class=\"carve\" d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"2.5\" "
                    "stroke-dasharray=\"2 4\"/>\n",
                    path(area_of(*carve.shape)), look(carve.barrier).colour);
        if (tile.sides) draw_sides(*tile.sides);
        for (const Shape& shape : tile.shapes) draw_vertices(shape);
    }

    void draw_art(const Tile& tile, std::size_t t) {
        if (cairo_surface_t* const art = art_.tile(id(), static_cast<int>(t)); art != nullptr) {
            const TileImage image = *image_of(set_, tile);
            const double dx = image.x * scale_, dy = image.y * scale_;
            put("<image x=\"{:.1f}\" y=\"{:.1f}\" width=\"{}\" height=\"{}\" opacity=\"0.5\" xlink:href=\"{}\"/>\n",
                left_ + dx, top_ + dy, cairo_image_surface_get_width(art), cairo_image_surface_get_height(art),
                data_address(png_of(art)));
        }
        const Ring cell = path_of_cell();
        put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-opacity=\"0.5\"{}/>\n", path(Regions{{cell, {}}}),
            inks_.lines, tile.unseen ? " stroke-dasharray=\"3 2\"" : "");
    }

    [[nodiscard]] Ring path_of_cell() const { return detail::set_cell(world_, set_); }
    [[nodiscard]] Regions area_of(const Shape& shape) const {
        return shape.whole_cell ? Regions{{path_of_cell(), {}}} : shape.area;
    }

    void draw_shape(const Shape& shape) {
        const Look here = look(shape.trigger.empty() ? shape.barrier : BarrierId::none);
        if (!shape.line.empty()) {
            std::string way;
            for (const Point p : shape.line) way += fmt::format("{}{:.1f} {:.1f}", way.empty() ? "M" : "L", x(p), y(p));
            put("<path d=\"{}\" fill=\"none\" stroke=\"{}\" stroke-width=\"4\"/>\n", way, here.colour);
            return;
        }
        put("<path class=\"shape\" d=\"{}\" fill=\"url(#{})\" fill-opacity=\"0.6\" stroke=\"{}\" stroke-width=\"2\" "
            "stroke-dasharray=\"{}\"/>\n",
            path(area_of(shape)), hatch(shape.trigger.empty() ? shape.barrier : BarrierId::none), here.colour,
            here.dash);
    }

    // Draws each vertex with its place, on the side away from the shape's middle.
    void draw_vertices(const Shape& shape) {
        Ring all = shape.line;
        detail::each_vertex(area_of(shape), [&](Point p) { all.push_back(p); });
        if (all.empty()) return;
        double middle_x = 0, middle_y = 0;
        for (const Point p : all) middle_x += x(p), middle_y += y(p);
        middle_x /= static_cast<double>(all.size()), middle_y /= static_cast<double>(all.size());
        // Not if numbers would hide each other and the shape.
        const Bounds box = detail::box_around(all);
        const bool has_room =
            all.size() <= most_labels &&
            (all.size() <= 4 || std::max(x(box.most) - x(box.least), y(box.most) - y(box.least)) >= 48);
        for (const Point p : all) {
            put("<rect x=\"{:.1f}\" y=\"{:.1f}\" width=\"5\" height=\"5\" fill=\"{}\" stroke=\"{}\"/>\n", x(p) - 2.5,
                y(p) - 2.5, inks_.paper, look(shape.trigger.empty() ? shape.barrier : BarrierId::none).colour);
            if (has_room)
                text(x(p) + (x(p) < middle_x ? -4 : 4), y(p) + (y(p) < middle_y ? -5 : 12),
                     fmt::format("{:.4g},{:.4g}", to_px(p.x), to_px(p.y)), 9, inks_.text,
                     x(p) < middle_x ? "end" : "start", edged(inks_.ground, 2.5));
        }
    }

    void draw_sides(const Sides& sides) {
        const Ring ring = path_of_cell();
        for (std::size_t side = 0; side < 4; ++side) {
            if (sides.of[side] == Passage::open) continue;
            const Point a = ring[side], b = ring[(side + 1) % 4];
            put("<path class=\"side\" d=\"M{:.1f} {:.1f}L{:.1f} {:.1f}\" stroke=\"{}\" stroke-width=\"5\" "
                "stroke-dasharray=\"{}\"/>\n",
                x(a), y(a), x(b), y(b), inks_.side, sides.of[side] == Passage::shut ? "none" : "8 4");
            text((x(a) + x(b)) / 2, (y(a) + y(b)) / 2 + 4, name_of(sides.of[side]), 11, inks_.side, "middle",
                 edged(inks_.paper));
        }
    }

    void key(double y) {
        double at = 16;
        const auto one = [&](BarrierId barrier, const std::string& name) {
            put("<rect x=\"{:.1f}\" y=\"{:.1f}\" width=\"28\" height=\"14\" fill=\"url(#{})\" stroke=\"{}\" "
                "stroke-width=\"2\" stroke-dasharray=\"{}\"/>\n",
                at, y, hatch(barrier), look(barrier).colour, look(barrier).dash);
            text(at + 36, y + 11, name, 12, inks_.lines);
            at += 54 + text_width(name, 12);
        };
        for (const BarrierId barrier : ids<BarrierId>(world_.barriers())) one(barrier, world_.barrier(barrier).name);
        one(BarrierId::none, no_barrier);
        text(at, y + 11, signs, 12, inks_.lines);
    }

    [[nodiscard]] double x(Point p) const { return left_ + to_px(p.x) * scale_; }
    [[nodiscard]] double y(Point p) const { return top_ + to_px(p.y) * scale_; }
    [[nodiscard]] std::string path(const Regions& regions) const {
        std::string all;
        const auto add = [&](const Ring& ring) {
            for (std::size_t i = 0; i < ring.size(); ++i)
                all += fmt::format("{}{:.2f} {:.2f}", i == 0 ? "M" : "L", x(ring[i]), y(ring[i]));
            all += "Z";
        };
        detail::each_ring(regions, add);
        return all;
    }

    const World& world_;
    const TileSet& set_;
    const DrawOptions& options_;
    const Inks inks_;
    Box reach_;   // in px, from a cell's corner
    double scale_;
    Art art_;
    double wide_ = 0, high_ = 0, left_ = 0, top_ = 0;
};

}   // namespace

TileCards tile_cards(const World& world, const TileSet& set, const ArtSource& source, const DrawOptions& options) {
    return TileSetPicture(world, set, source, options).cards();
}

}   // namespace drawing

std::string draw_svg(const World& world, const TileSet& set, const ArtSource& art, const DrawOptions& options) {
    return drawing::TileSetPicture(world, set, art, options).draw();
}

}   // namespace dryground

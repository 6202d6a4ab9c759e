// Inside the files room: the keys of a pack's tile sets (see pack_key_internal.hpp).
#pragma once

#include "pack_world_keys_internal.hpp"

namespace dryground::packed {

// Returns the area of a shape; of a whole cell the box around it, wherever a turn has put its first corner.
[[nodiscard]] inline Regions area_of(const Shape& shape) {
    const auto box = shape.whole_cell ? bounds(shape.area) : std::nullopt;
    return box ? Regions{box_region(box->least, box->most)} : shape.area;
}

template <class Visit>
void each_key(Of<Shape>, Visit&& visit) {
    using Draft = ShapeDraft;
    visit(Key{.name = "cell", .says = "It is the whole cell of whatever grid it stands on."}, &Shape::whole_cell,
          ByHand{});
    visit(
        Key{.name = "area"}, [](const Packing&, const Shape& shape) { return area_of(shape); }, ByHand{});
    visit(Key{.name = "line", .says = "From end to end; empty for an area."}, &Shape::line, ByHand{});
    visit(Key{.name = "one_way"}, &Shape::one_way, &Draft::one_way);
    visit(Key{.name = "barrier"}, &Shape::barrier, &Draft::barrier);
    visit(Key{.name = "trigger"}, &Shape::trigger, &Draft::trigger);
    visit(Key{.name = "surface"}, &Shape::surface, &Draft::surface);
}

template <class Visit>
void each_key(Of<Carve>, Visit&& visit) {
    visit(Key{.name = "barrier", .always = true}, &Carve::barrier, &CarveDraft::barrier);
    visit(
        Key{.name = "cell"}, [](const Packing&, const Carve& carve) { return carve.shape.whole_cell; }, ByHand{});
    visit(
        Key{.name = "area"}, [](const Packing&, const Carve& carve) { return area_of(carve.shape); }, ByHand{});
}

template <class Visit>
void each_key(Of<Reaction>, Visit&& visit) {
    using Draft = ReactionDraft;
    visit(Key{.name = "fires"}, &Reaction::fires, &Draft::fires);
    visit(
        Key{.name = "from", .words = side_names},
        [](const Packing&, const Reaction& reaction) {
            std::vector<std::string> sides;
            for (std::size_t side = 0; side < 4; ++side)
                if (reaction.from[side]) sides.emplace_back(side_names[side]);
            return sides;
        },
        &Draft::from);
    visit(Key{.name = "by", .says = "Movers; none: any."}, &Reaction::by, &Draft::by);
    visit(Key{.name = "once"}, &Reaction::once, &Draft::once);
    visit(Key{.name = "every_s"}, &Reaction::every_s, &Draft::every_s);
    visit(Key{.name = "needs"}, &Reaction::needs, &Draft::needs);
    visit(Key{.name = "gives"}, &Reaction::gives, &Draft::gives);
    visit(Key{.name = "runs"}, &Reaction::runs, &Draft::runs);
    visit(
        Key{.name = "turns_into", .says = "A tile of the same set; \"\": it goes; null: it stays."},
        [](const Packing& at, const Reaction& reaction) -> std::optional<std::string> {
            if (reaction.then == Reaction::Then::stays) return std::nullopt;
            if (reaction.then == Reaction::Then::goes) return "";
            return at.set->tiles[static_cast<std::size_t>(reaction.turns_into)].name;
        },
        &Draft::turns_into);
}

template <class Visit>
void each_key(Of<TileImage>, Visit&& visit) {
    visit(Key{.name = "file"}, &TileImage::file, MadeAnew{});
    visit(
        Key{.name = "box"},
        [](const Packing&, const TileImage& art) {
            return std::array{art.left, art.top, art.width, art.height};
        },
        MadeAnew{});
    visit(
        Key{.name = "at"},
        [](const Packing&, const TileImage& art) {
            return std::array{art.x, art.y};
        },
        MadeAnew{});
}

// Returns shapes without a fault: the others have findings, and cover nothing.
[[nodiscard]] inline std::vector<Shape> sound(const std::vector<Shape>& shapes) {
    std::vector<Shape> kept;
    for (const Shape& shape : shapes)
        if (shape.fault == ShapeFault::none) kept.push_back(shape);
    return kept;
}
[[nodiscard]] inline std::vector<Carve> sound(const std::vector<Carve>& carves) {
    std::vector<Carve> kept;
    for (const Carve& carve : carves)
        if (carve.shape.fault == ShapeFault::none) kept.push_back(carve);
    return kept;
}

template <class Visit>
void each_key(Of<Tile>, Visit&& visit) {
    using Draft = TileDraft;
    visit(Key{.name = "name"}, &Tile::name, &Draft::name);
    visit(Key{.name = "art", .says = "Column and row in the sheet."}, &Tile::art, &Draft::art);
    visit(Key{.name = "art_at",
              .says = "By how much its art is moved, where it is not as its sheet says; it is in `image` already."},
          &Tile::at, &Draft::at);
    visit(Key{.name = "band", .says = "When it is drawn; null: as its layer."}, &Tile::band, &Draft::band);
    visit(Key{.name = "picture"}, &Tile::picture, &Draft::picture);
    visit(
        Key{.name = "image",
            .says = "What is drawn: a box [x, y, w, h] of a file, its corner at `at` from the cell's. Null: nothing."},
        [](const Packing& at, const Tile& tile) { return image_of(*at.set, tile); }, MadeAnew{});
    visit(Key{.name = "unseen"}, &Tile::unseen, &Draft::unseen);
    visit(Key{.name = "overhang"}, &Tile::overhang, &Draft::overhang);
    visit(Key{.name = "tags"}, &Tile::tags, &Draft::tags);
    visit(Key{.name = "decided", .says = "Whether anybody said what its shapes are."}, &Tile::decided,
          [](const auto&, const files::Node& node, Draft& tile) {
              if (node.yes_no()) tile.shapes.emplace();
          });
    visit(
        Key{.name = "shapes"}, [](const Packing&, const Tile& tile) { return sound(tile.shapes); },
        [](const auto& reader, const files::Node& node, Draft& tile) {
            std::vector<ShapeDraft> shapes;
            reader.template list<Shape>(node, shapes);
            if (!shapes.empty()) tile.shapes = std::move(shapes);
        });
    visit(
        Key{.name = "carves"}, [](const Packing&, const Tile& tile) { return sound(tile.carves); }, &Draft::carves);
    visit(
        Key{.name = "flags"},
        [](const Packing&, const Tile& tile) { return tile.flags ? std::optional(Flags{*tile.flags}) : std::nullopt; },
        &Draft::flags);
    visit(Key{.name = "sides"}, &Tile::sides, &Draft::sides);
    visit(Key{.name = "stands_for"}, &Tile::stands_for, &Draft::stands_for);
    visit(Key{.name = "leads"}, &Tile::leads, &Draft::leads);
    visit(Key{.name = "needs"}, &Tile::needs, &Draft::needs);
    visit(Key{.name = "gives"}, &Tile::gives, &Draft::gives);
    visit(Key{.name = "reacts"}, &Tile::reacts, &Draft::reacts);
    visit(Key{.name = "props"}, &Tile::props, &Draft::props);
}

template <class Visit>
void each_key(Of<Sheet>, Visit&& visit) {
    visit(Key{.name = "file"}, &Sheet::file, &Sheet::file);
    visit(
        Key{.name = "size"},
        [](const Packing&, const Sheet& sheet) {
            return std::array{sheet.width, sheet.height};
        },
        pair_of(&Sheet::width, &Sheet::height));
    visit(Key{.name = "margin"}, &Sheet::margin, &Sheet::margin);
    visit(Key{.name = "gap"}, &Sheet::gap, &Sheet::gap);
    visit(Key{.name = "cut", .says = "Width and height of a tile's art; null: the cell's."}, &Sheet::cut, &Sheet::cut);
    visit(Key{.name = "at", .says = "By how much all art is moved; it is in each tile's `image` already."}, &Sheet::at,
          &Sheet::at);
    visit(Key{.name = "clear", .says = "The colour of transparent px."}, &Sheet::clear, &Sheet::clear);
}

template <class Visit>
void each_key(Of<TileSet>, Visit&& visit) {
    using Draft = TileSetDraft;
    visit(Key{.name = "name"}, &TileSet::name, &Draft::name);
    visit(
        Key{.name = "cell"},
        [](const Packing&, const TileSet& set) {
            return std::array{set.cell_width, set.cell_height};
        },
        &Draft::cell);
    visit(Key{.name = "sheet"}, &TileSet::sheet, &Draft::sheet);
    visit(Key{.name = "fields"}, &TileSet::fields, &Draft::fields);
    visit(Key{.name = "tiles"}, &TileSet::tiles, &Draft::tiles);
}

}   // namespace dryground::packed

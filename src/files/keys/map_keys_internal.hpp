// Inside the files room: the keys of maps, layers and legends.
#pragma once

#include "object_keys_internal.hpp"

namespace dryground::keys {

inline constexpr std::string_view flips[] = {"x", "y", "xy"}, turns[] = {"90", "180", "270"};
inline constexpr OneOf orientation_keys[] = {
    {{.name = "flip", .says = "x swaps left and right", .words = flips}, Sort::text},
    {{.name = "turn", .says = "clockwise, after the flip", .words = turns, .unit = "degrees"}, Sort::whole},
};
inline constexpr Group orientation{orientation_keys, false};

inline constexpr Key surface_key{.name = "surface",
                                 .says = "friction and restitution, for what says none itself",
                                 .example = "{ friction = 0.9, restitution = 0 }"};
inline constexpr Key one_way_key{.name = "one_way",
                                 .says = "of lines: movers pass in this direction, and stop coming back",
                                 .words = words_of<OneWay>()};
inline constexpr Key legend_key{
    .name = "legend",
    .says = "what stands in the data: a character of rows, a field of CSV, a colour of PNG or of a drawing",
    .example = "{ \"#\" = \"peat\" }"};

template <class Visit>
void each_key(Of<LegendEntry>, Visit&& visit) {
    using Draft = LegendEntry;
    visit(Key{.name = "tile", .says = "a tile; \"\" for nothing", .refers = "tile"}, &Draft::tile);
    visit(Key{.name = "kind", .says = "an object of this kind on the cell", .refers = "kind"}, &Draft::kind);
    visit(Key{.name = "kinds", .says = "an object of one of these kinds, by chance", .refers = "kind"}, &Draft::kinds);
    visit(Key{.name = "weights", .says = "how often each of `kinds`; left out: equally often", .least = 0},
          &Draft::weights);
    visit(Key{.name = "family", .says = "a tile of this family, by its neighbours", .refers = "family"},
          &Draft::family);
    visit(Key{.name = "block", .says = "a block, its anchor on the cell", .refers = "block"}, &Draft::block);
    visit(Key{.name = "barrier", .says = "with a kind, in drawings: what its objects are made of", .refers = "barrier"},
          &Draft::barrier);
    visit(orientation, &Draft::orientation);
}

inline constexpr OneOf contents[] = {
    {{.name = "rows", .says = "cells: one character each; . and space are empty"}, Sort::rows},
    {{.name = "csv", .says = "cells: a file beside", .is_path = true}, Sort::text},
    {{.name = "png", .says = "cells: a picture beside, a px for each", .is_path = true}, Sort::text},
    {{.name = "objects",
      .says = "objects",
      .example = "{ kind = \"…\", at = [x, y] }",
      .item = "an object",
      .by_line = true},
     Sort::tables},
    {{.name = "svg",
      .says = "objects: a drawing beside; id is the name, class the kind, data-… keys and properties",
      .is_path = true},
     Sort::text},
};
inline constexpr Group content{contents, true};

template <class Visit>
void each_key(Of<GrowthDraft>, Visit&& visit) {
    using Draft = GrowthDraft;
    visit(Key{.name = "px",
              .says = "by how much",
              .example = "2",
              .unit = "px",
              .least = 1.0 / 256,
              .most = 1024,
              .required = true},
          &Draft::px);
    visit(Key{.name = "corners",
              .says = "how corners that stick out are grown; box: as by a square",
              .words = words_of<Growth::Corner>()},
          &Draft::corners);
    visit(Key{.name = "within_px",
              .says = "how near round corners stay to the circle; default: the layer's, else the world's",
              .unit = "px",
              .least = 1.0 / 64,
              .most = 64},
          &Draft::within_px);
}

template <class Visit>
void each_key(Of<LayerDraft>, Visit&& visit) {
    using Draft = LayerDraft;
    visit(Key{.name = "name", .says = "its name", .example = "\"ground\"", .required = true, .names_it = true},
          &Draft::name);
    visit(Key{.name = "kind", .says = "of objects that name none", .refers = "kind"}, &Draft::kind);
    visit(Key{.name = "decor", .says = "its shapes, carves, flags and solids count for nothing"}, &Draft::decor);
    visit(Key{.name = "shown", .says = "false: drawn for designers alone"}, &Draft::shown);
    visit(Key{.name = "storey", .says = "left out: `ground`", .refers = "storey"}, &Draft::storey);
    visit(Key{.name = "band", .says = "drawn before, sorted among, or after the movers", .words = words_of<Band>()},
          &Draft::band);
    visit(Key{.name = "opacity", .says = "of its picture", .least = 0, .most = 1}, &Draft::opacity);
    visit(Key{.name = "barrier", .says = "for shapes that say none themselves", .refers = "barrier"}, &Draft::barrier);
    visit(Key{.name = "trigger", .says = "all its solid shapes sense, under this name, and block nothing"},
          &Draft::trigger);
    visit(Key{.name = "fires",
              .says = "of its `trigger`, all of it as one: what sets it off; left out: `enter`",
              .words = words_of<Fires>()},
          &Draft::fires);
    each_firing_key<Draft>(visit);
    visit(Key{.name = "runs", .says = "of its `trigger`: the event that it runs", .refers = "event"}, &Draft::runs);
    visit(surface_key, &Draft::surface);
    visit(Key{.name = "one_way",
              .says = "for lines that say none: a direction of the map, whichever way a tile is turned",
              .words = words_of<OneWay>()},
          &Draft::one_way);
    visit(Key{.name = "flags", .says = "what its tiles grant that say nothing themselves", .refers = "flag"},
          &Draft::flags);
    visit(
        Key{.name = "offset", .says = "of picture, shapes, carves and objects, never of cells and flags", .unit = "px"},
        &Draft::offset);
    visit(
        Key{.name = "shape_offset", .says = "of shapes, carves and solids, not of the picture, besides", .unit = "px"},
        &Draft::shape_offset);
    visit(Key{.name = "sink",
              .says = "how far its solids, all together, are drawn in: [left, top, right, bottom]",
              .unit = "px",
              .least = 0},
          &Draft::sink);
    visit(Key{.name = "grow",
              .says = "by how much its solids, all together, are grown after that, never between neighbours",
              .example = "{ px = 2, corners = \"round\" }"},
          &Draft::grow);
    visit(Key{.name = "fill_holes",
              .says =
                  "holes of its solids, all together, become ground that are no larger than so many px², and no longer "
                  "than four times the side of a square of that size; true: than a cell",
              .example = "64"},
          &Draft::fill_holes);
    visit(
        Key{.name = "snap",
            .says =
                "of a drawing: its vertices move to the nearest so many px, or with \"cell_parts\" to parts of cells"},
        &Draft::snap);
    visit(Key{.name = "within_px",
              .says = "how far the corners of its objects' curves may lie beside them; left out: the world's",
              .unit = "px",
              .least = 1.0 / 64,
              .most = 64},
          &Draft::within_px);
    visit(Key{.name = "order", .says = "added to where its art and objects come when they are drawn"}, &Draft::order);
    each_presence_key<Draft>(visit);
    visit(Key{.name = "tags", .says = "words for the game"}, &Draft::tags);
    visit(props_key, &Draft::props);
    visit(waive_key, &Draft::waive);
    visit(Key{.name = "except",
              .says = "what painted objects are besides",
              .example = "{ cell = [2, 1], name = \"first\" }",
              .item = "an 'except'",
              .by_line = true},
          &Draft::except);
    visit(legend_key, &Draft::legend);   // before what it is the legend of
    visit(content, &Draft::rows);
}

template <class Visit>
void each_key(Of<MapDraft>, Visit&& visit) {
    using Draft = MapDraft;
    visit(Key{.name = "name", .says = "its name", .example = "\"slipway\"", .required = true, .names_it = true},
          &Draft::name);
    visit(Key{.name = "title", .says = "what people call it"}, &Draft::title);
    visit(Key{.name = "grid",
              .says = "how cells lie; of diamonds columns run to the lower right, rows to the lower left",
              .words = words_of<GridSort>()},
          &Draft::grid);
    visit(Key{.name = "cell",
              .says = "width and height of a cell; of diamonds both even",
              .example = "[16, 16]",
              .unit = "px",
              .least = 1,
              .required = true},
          &Draft::cell);
    visit(Key{.name = "size",
              .says = "columns and rows; every layer's data must have it",
              .example = "[columns, rows]",
              .least = 1,
              .required = true},
          &Draft::size);
    visit(Key{.name = "first", .says = "the cell at the data's top-left, may be negative: growing a map moves nothing"},
          &Draft::first);
    visit(Key{.name = "rim",
              .says = "a barrier that stands around the map, one cell thick, or \"open\"",
              .refers = "barrier"},
          &Draft::rim);
    visit(Key{.name = "player", .says = "the mover that people play here; left out: the world's", .refers = "mover"},
          &Draft::player);
    visit(Key{.name = "tilesets", .says = "those that its layers use", .refers = "tileset", .always = true},
          &Draft::tilesets);
    visit(Key{.name = "seed", .says = "of what is left to chance, cell by cell: painting one object changes no other"},
          &Draft::seed);
    visit(Key{.name = "cell_parts",
              .says = "into how many parts of a cell objects are expected to snap",
              .least = 1,
              .most = 256},
          &Draft::cell_parts);
    visit(props_key, &Draft::props);
    visit(waive_key, &Draft::waive);
    visit(legend_key, &Draft::legend);
    visit(Key{.name = "layers", .says = "from the bottom up", .example = "[[layers]]", .item = "a layer"},
          &Draft::layers);
}

}   // namespace dryground::keys

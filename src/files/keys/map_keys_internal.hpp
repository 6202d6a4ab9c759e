// Inside the files room: the keys of maps, layers and legends.
#pragma once

#include "object_keys_internal.hpp"

namespace dryground::keys {

inline constexpr std::string_view flips[] = {"x", "y", "xy"}, turns[] = {"90", "180", "270"};
inline constexpr OneOf orientation_keys[] = {
    {{.name = "flip", .says = "mirrors it; x swaps left and right", .words = flips}, Sort::text},
    {{.name = "turn", .says = "turns it clockwise, after the flip", .words = turns, .unit = "degrees"}, Sort::whole},
};
inline constexpr Group orientation{orientation_keys, false};

inline constexpr Key surface_key{.name = "surface",
                                 .says = "friction and restitution; a shape's own win over its layer's",
                                 .example = "{ friction = 0.9, restitution = 0 }"};
inline constexpr Key one_way_key{.name = "one_way",
                                 .says = "lines only: movers pass in this direction and are stopped in the other",
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
    visit(Key{.name = "weights", .says = "how often each of `kinds` is chosen; default: equally often", .least = 0},
          &Draft::weights);
    visit(Key{.name = "family", .says = "a tile of this family, by its neighbours", .refers = "family"},
          &Draft::family);
    visit(Key{.name = "block", .says = "a block, its anchor on the cell", .refers = "block"}, &Draft::block);
    visit(Key{.name = "barrier", .says = "with a kind, in drawings: barrier of its objects", .refers = "barrier"},
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
              .says = "distance",
              .example = "2",
              .unit = "px",
              .least = 1.0 / 256,
              .most = 1024,
              .required = true},
          &Draft::px);
    visit(Key{.name = "corners",
              .says = "shape of outer corners; box: grown by a square",
              .words = words_of<Growth::Corner>()},
          &Draft::corners);
    visit(Key{.name = "within_px",
              .says = "largest distance between a round corner and its circle; default: the layer's, else the world's",
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
    visit(Key{.name = "kind", .says = "default kind of its objects", .refers = "kind"}, &Draft::kind);
    visit(Key{.name = "decor", .says = "its shapes, carves, flags and solids are ignored"}, &Draft::decor);
    visit(Key{.name = "shown", .says = "false: drawn for designers only, not for players"}, &Draft::shown);
    visit(Key{.name = "storey", .says = "the storey it belongs to; default: `ground`", .refers = "storey"},
          &Draft::storey);
    visit(Key{.name = "band", .says = "drawn before, sorted among, or after the movers", .words = words_of<Band>()},
          &Draft::band);
    visit(Key{.name = "opacity", .says = "opacity of its art", .least = 0, .most = 1}, &Draft::opacity);
    visit(Key{.name = "barrier", .says = "default barrier of its shapes and solids", .refers = "barrier"},
          &Draft::barrier);
    visit(Key{.name = "trigger", .says = "its solid shapes block nothing; they become triggers of this name"},
          &Draft::trigger);
    visit(Key{.name = "fires",
              .says = "with `trigger`: what sets off the layer, as one area; default: `enter`",
              .words = words_of<Fires>()},
          &Draft::fires);
    each_firing_key<Draft>(visit);
    visit(Key{.name = "runs", .says = "with `trigger`: the event it runs", .refers = "event"}, &Draft::runs);
    visit(surface_key, &Draft::surface);
    visit(Key{.name = "one_way",
              .says = "default direction of its lines, a direction of the map however tiles are turned",
              .words = words_of<OneWay>()},
          &Draft::one_way);
    visit(Key{.name = "flags", .says = "default flags of its tiles", .refers = "flag"}, &Draft::flags);
    visit(Key{.name = "offset",
              .says = "moves its art, shapes, carves and objects, but not its cells and flags",
              .unit = "px"},
          &Draft::offset);
    visit(Key{.name = "shape_offset",
              .says = "moves its shapes, carves and solids further, but not its art",
              .unit = "px"},
          &Draft::shape_offset);
    visit(Key{.name = "sink",
              .says = "shrinks the union of its solids from these sides: [left, top, right, bottom]",
              .unit = "px",
              .least = 0},
          &Draft::sink);
    visit(Key{.name = "grow",
              .says = "grows the union of its solids, after `sink`",
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
              .says = "largest distance between its objects' curves and their polygons; default: the world's",
              .unit = "px",
              .least = 1.0 / 64,
              .most = 64},
          &Draft::within_px);
    visit(Key{.name = "order", .says = "added to the draw order of its art and objects"}, &Draft::order);
    each_presence_key<Draft>(visit);
    visit(Key{.name = "tags", .says = "words for the game"}, &Draft::tags);
    visit(props_key, &Draft::props);
    visit(waive_key, &Draft::waive);
    visit(Key{.name = "except",
              .says = "more keys for single painted objects",
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
              .says = "shape of the grid; isometric: columns run to the lower right, rows to the lower left",
              .words = words_of<GridSort>()},
          &Draft::grid);
    visit(Key{.name = "cell",
              .says = "width and height of a cell; isometric: both even",
              .example = "[16, 16]",
              .unit = "px",
              .least = 1,
              .required = true},
          &Draft::cell);
    visit(Key{.name = "size",
              .says = "columns and rows; all layers have this size",
              .example = "[columns, rows]",
              .least = 1,
              .required = true},
          &Draft::size);
    visit(Key{.name = "first",
              .says = "the cell at the top-left of the data; may be negative, so that a map can grow without moving "
                      "anything"},
          &Draft::first);
    visit(Key{.name = "rim",
              .says = "a barrier that stands around the map, one cell thick, or \"open\"",
              .refers = "barrier"},
          &Draft::rim);
    visit(
        Key{.name = "player", .says = "the mover that is played on this map; default: the world's", .refers = "mover"},
        &Draft::player);
    visit(Key{.name = "tilesets", .says = "tile sets its layers use", .refers = "tileset", .always = true},
          &Draft::tilesets);
    visit(Key{.name = "seed",
              .says = "seed of random choices, made cell by cell: painting one object does not change others"},
          &Draft::seed);
    visit(Key{.name = "cell_parts",
              .says = "objects are expected to lie on this fraction of a cell",
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

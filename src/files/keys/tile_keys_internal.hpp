// Inside the files room: the keys of tile sets.
#pragma once

#include "map_keys_internal.hpp"

namespace dryground::keys {

inline constexpr OneOf shape_forms[] = {
    {{.name = "cell", .says = "true: the whole cell"}, Sort::yes_no},
    {{.name = "box", .says = "[x, y, width, height]", .unit = "px"}, Sort::numbers, 4},
    {{.name = "polygon", .says = "[[x, y], …]", .unit = "px"}, Sort::points, 3},
    {{.name = "circle", .says = "[x, y, radius]", .unit = "px"}, Sort::numbers, 3},
    {{.name = "ellipse", .says = "[x, y, radius across, radius down]", .unit = "px"}, Sort::numbers, 4},
    {{.name = "capsule", .says = "[x, y, x, y, radius]: all within the radius of the way between", .unit = "px"},
     Sort::numbers,
     5},
    {{.name = "line", .says = "[[x, y], …], open: a wall without width", .unit = "px"}, Sort::points, 2},
    {{.name = "shared", .says = "a shape of [shapes]", .refers = "shape"}, Sort::text},
    {{.name = "trace", .says = "the outline of the art's opaque px", .example = "{ alpha = 128, within_px = 0.75 }"},
     Sort::trace},
    {{.name = "at", .says = "of a shared shape: how far it is moved, [x, y]", .unit = "px"}, Sort::numbers, 2},
};
inline constexpr Group shape_form{shape_forms, true, 1};

template <class Visit>
void each_key(Of<ShapeDraft>, Visit&& visit) {
    using Draft = ShapeDraft;
    visit(shape_form, &Draft::form);
    visit(Key{.name = "barrier", .says = "its barrier; default: its tile's, else its layer's", .refers = "barrier"},
          &Draft::barrier);
    visit(Key{.name = "trigger", .says = "blocks nothing; a trigger of this name"}, &Draft::trigger);
    visit(surface_key, &Draft::surface);
    visit(one_way_key, &Draft::one_way);
    visit(Key{.name = "within_px",
              .says = "curves and traces: largest distance to the polygon; default: the world's",
              .unit = "px",
              .least = 1.0 / 64,
              .most = 64},
          &Draft::within_px);
    visit(orientation, &Draft::orientation);
}

template <class Visit>
void each_key(Of<ReactionDraft>, Visit&& visit) {
    using Draft = ReactionDraft;
    visit(Key{.name = "fires",
              .says = "what sets it off",
              .example = "\"bump\"",
              .words = words_of<Fires>(),
              .required = true},
          &Draft::fires);
    visit(Key{.name = "from", .says = "from which sides of the cell; default: all", .refers = "side"}, &Draft::from);
    each_firing_key<Draft>(visit);
    visit(Key{.name = "turns_into", .says = "the tile it becomes; \"\": it is removed", .refers = "tile"},
          &Draft::turns_into);
    visit(Key{.name = "turns_into_next",
              .says = "or: a list of tiles that contains it; it becomes the next one, the last one stays",
              .example = "[\"crate\", \"crate_cracked\", \"\"]",
              .refers = "tile"},
          &Draft::turns_into_next);
    visit(Key{.name = "runs", .says = "event to run", .refers = "event"}, &Draft::runs);
}

// What a tile's table, or the `set` of a [[for]], may say; `like` stands in a tile's own table alone.
template <class Visit>
void each_key(Of<TileDraft>, Visit&& visit) {
    using Draft = TileDraft;
    visit(Key{.name = "like", .says = "copies the own keys of this tile, except its art", .refers = "tile"},
          &Draft::like);
    visit(Key{.name = "art", .says = "where in the sheet, [column, row]", .least = 0}, &Draft::art);
    visit(Key{.name = "at", .says = "[x, y] by which its art is moved; default: the sheet's", .unit = "px"},
          &Draft::at);
    visit(Key{.name = "picture",
              .says = "its own picture; at: its corner relative to the cell's corner; default: it stands on the cell",
              .example = "{ file = \"….png\", at = [x, y] }"},
          &Draft::picture);
    visit(Key{.name = "unseen", .says = "a marker without art, never drawn in the game"}, &Draft::unseen);
    visit(Key{.name = "overhang", .says = "its shapes may reach out of its cell"}, &Draft::overhang);
    visit(Key{.name = "tags", .says = "words for the game and for [[for]]"}, &Draft::tags);
    visit(Key{.name = "barrier", .says = "default barrier of its shapes", .refers = "barrier"}, &Draft::barrier);
    visit(Key{.name = "shapes", .says = "its solid shapes and triggers; []: none, on purpose", .example = "[\"cell\"]"},
          &Draft::shapes);
    visit(Key{.name = "carves",
              .says = "barriers it removes from the layers below, in a shape or in its cell",
              .example = "{ barrier = \"…\", box = […] }",
              .item = "a carve"},
          &Draft::carves);
    visit(Key{.name = "flags", .says = "flags it grants; []: none", .refers = "flag"}, &Draft::flags);
    visit(Key{.name = "sides",
              .says = "which sides of its cell are open, shut, in or out",
              .example = "{ top = \"shut\" }",
              .words = words_of<Passage>()},
          &Draft::sides);
    visit(Key{.name = "band",
              .says = "drawn before, sorted among, or after the movers; default: its layer's",
              .words = words_of<Band>()},
          &Draft::band);
    visit(Key{.name = "stands_for", .says = "an object of this kind stands in its place", .refers = "kind"},
          &Draft::stands_for);
    visit(Key{.name = "leads", .says = "stairs to this storey", .refers = "storey"}, &Draft::leads);
    visit(Key{.name = "needs", .says = "its shapes are solid until all of these facts hold", .refers = "fact"},
          &Draft::needs);
    visit(Key{.name = "gives", .says = "facts it makes true", .refers = "fact"}, &Draft::gives);
    visit(Key{.name = "reacts",
              .says = "what becomes of it, or runs, when something happens to it",
              .example = "{ fires = \"bump\", … }",
              .item = "a reaction"},
          &Draft::reacts);
    visit(props_key, &Draft::props);
    visit(waive_key, &Draft::waive);
}

template <class Visit>
void each_key(Of<MemberDraft>, Visit&& visit) {
    visit(Key{.name = "tile",
              .says = "the tile that stands there",
              .example = "\"…\"",
              .refers = "tile",
              .required = true},
          &MemberDraft::tile);
    visit(Key{.name = "joined",
              .says = "sides where the neighbour must be of the family; on all others it must not be",
              .refers = "neighbour",
              .always = true},
          &MemberDraft::joined);
    visit(Key{.name = "any",
              .says = "sides where the neighbour may be either; the member with the fewest of these wins",
              .refers = "neighbour"},
          &MemberDraft::any);
}
template <class Visit>
void each_key(Of<FamilyDraft>, Visit&& visit) {
    visit(Key{.name = "joins",
              .says = "which neighbours count: 4 at the sides, 4 at the corners, all 8",
              .words = words_of<Joins>(),
              .always = true},
          &FamilyDraft::joins);
    visit(Key{.name = "members",
              .says = "its tiles",
              .example = "{ tile = \"…\", joined = […] }",
              .always = true,
              .item = "a member",
              .by_line = true},
          &FamilyDraft::members);
}
inline constexpr OneOf block_rows[] = {
    {{.name = "rows", .says = "a character for each cell", .example = "'''…'''", .required = true}, Sort::rows},
};
inline constexpr Group pattern{block_rows, true};

template <class Visit>
void each_key(Of<BlockDraft>, Visit&& visit) {
    visit(pattern, &BlockDraft::rows);
    visit(Key{.name = "anchor",
              .says = "character of the cell at which the block is painted",
              .example = "\"A\"",
              .required = true},
          &BlockDraft::anchor);
    visit(legend_key, &BlockDraft::legend);
}
template <class Visit>
void each_key(Of<TileRule>, Visit&& visit) {
    visit(Key{.name = "tiles", .says = "patterns of names, * for any run of characters", .example = "[\"peat_*\"]"},
          &TileRule::tiles);
    visit(Key{.name = "tagged", .says = "or: tiles with one of these tags of their own", .example = "[\"stone\"]"},
          &TileRule::tagged);
    visit(Key{.name = "set",
              .says = "keys to set; a tile's own keys win",
              .example = "{ shapes = [\"cell\"] }",
              .always = true,
              .required = true},
          &TileRule::set);
}

template <class Visit>
void each_key(Of<Sheet>, Visit&& visit) {
    visit(Key{.name = "file", .says = "the picture", .example = "\"….png\"", .required = true, .is_path = true},
          &Sheet::file);
    visit(Key{.name = "margin", .says = "around all tiles", .unit = "px", .least = 0}, &Sheet::margin);
    visit(Key{.name = "gap", .says = "between tiles", .unit = "px", .least = 0}, &Sheet::gap);
    visit(Key{.name = "cut",
              .says = "width and height of each tile's art, where it is larger than a cell: it stands on the cell",
              .unit = "px",
              .least = 1},
          &Sheet::cut);
    visit(Key{.name = "at", .says = "[x, y] by which all art is moved", .unit = "px"}, &Sheet::at);
    visit(Key{.name = "clear", .says = "a colour that means empty", .example = "\"#ff00ff\""}, &Sheet::clear);
}
template <class Visit>
void each_key(Of<TileSetDraft>, Visit&& visit) {
    using Draft = TileSetDraft;
    visit(Key{.name = "name", .says = "its name", .example = "\"marsh\"", .required = true, .names_it = true},
          &Draft::name);
    visit(Key{.name = "cell",
              .says = "width and height of its cells",
              .example = "[16, 16]",
              .unit = "px",
              .least = 1,
              .required = true},
          &Draft::cell);
    visit(Key{.name = "sheet",
              .says = "picture of its tiles; default: each tile has its own picture",
              .example = "{ file = \"marsh.png\", gap = [1, 1] }"},
          &Draft::sheet);
    visit(Key{.name = "props",
              .says = "declares a typed property of every tile",
              .example = "{ harm = { type = \"whole\", default = 0 } }"},
          &Draft::fields);
    visit(waive_key, &Draft::waive);
    visit(Key{.name = "shapes",
              .says = "shared shapes, used by name",
              .example = "{ lower_half = { box = [0, 8, 16, 8] } }"},
          &Draft::shapes);
    visit(Key{.name = "for", .says = "many tiles at once, in order", .example = "[[for]]", .item = "a [[for]]"},
          &Draft::rules);
    visit(Key{.name = "tiles", .says = "tiles, by name", .item = "tile"}, &Draft::tiles);
    visit(Key{.name = "families", .says = "tiles that are picked by their neighbours", .item = "family"},
          &Draft::families);
    visit(Key{.name = "blocks", .says = "patterns of tiles that are placed as one", .item = "block"}, &Draft::blocks);
}

}   // namespace dryground::keys

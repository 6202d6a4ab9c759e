// Inside the files room: the keys of objects, and of what they share with layers.
#pragma once

#include "key_internal.hpp"

namespace dryground::keys {

template <class Visit>
void each_key(Of<WaiverDraft>, Visit&& visit) {
    visit(
        Key{.name = "rule", .says = "the rule to silence", .example = "\"crack\"", .refers = "rule", .required = true},
        &WaiverDraft::rule);
    visit(Key{.name = "why", .says = "reason", .required = true}, &WaiverDraft::why);
    visit(Key{.name = "cells", .says = "in a map: only in this block of cells, [column, row, columns, rows]"},
          &WaiverDraft::cells);
}

inline constexpr Key waive_key{
    .name = "waive", .says = "findings to silence", .example = "{ rule = \"…\", why = \"…\" }", .item = "a waiver"};
inline constexpr Key props_key{.name = "props", .says = "values of its properties", .example = "{ worth = 5 }"};

// Presence and facts, of objects, painted objects and layers.
template <class Draft, class Visit>
void each_presence_key(Visit&& visit) {
    visit(Key{.name = "when", .says = "there only while all of these facts hold", .refers = "fact"}, &Draft::when);
    visit(Key{.name = "unless", .says = "there only while none of these facts holds", .refers = "fact"},
          &Draft::unless);
}
template <class Draft, class Visit>
void each_lock_key(Visit&& visit) {
    visit(Key{.name = "needs", .says = "does nothing until all of these facts hold", .refers = "fact"}, &Draft::needs);
    visit(Key{.name = "gives", .says = "facts it makes true", .refers = "fact"}, &Draft::gives);
}

// What sets it off, how often, and which facts it needs and gives: of objects, kinds and reactions.
template <class Draft, class Visit>
void each_firing_key(Visit&& visit) {
    visit(Key{.name = "by", .says = "movers that set it off; default: the player", .refers = "mover"}, &Draft::by);
    visit(Key{.name = "once", .says = "fires only once"}, &Draft::once);
    visit(Key{.name = "every_s", .says = "with `inside`: time between firings", .unit = "seconds", .least = 0},
          &Draft::every_s);
    each_lock_key<Draft>(visit);
}

// What objects do: set for one, or for a kind as the default of all its objects.
template <class Draft, class Visit>
void each_behaviour_key(Visit&& visit) {
    visit(Key{.name = "barrier", .says = "solids: its barrier", .refers = "barrier"}, &Draft::barrier);
    visit(Key{.name = "surface",
              .says = "solids: friction and restitution",
              .example = "{ friction = 0.9, restitution = 0 }"},
          &Draft::surface);
    visit(Key{.name = "arrival_runs", .says = "event to run when a mover arrives here", .refers = "event"},
          &Draft::arrival_runs);
    visit(Key{.name = "fires", .says = "what sets it off; default: `enter`", .words = words_of<Fires>()},
          &Draft::fires);
    each_firing_key<Draft>(visit);
    each_presence_key<Draft>(visit);
    visit(Key{.name = "runs", .says = "event to run", .refers = "event"}, &Draft::runs);
}

inline constexpr OneOf object_places[] = {
    {{.name = "at", .says = "a point, [x, y]", .unit = "px"}, Sort::numbers, 2},
    {{.name = "cell", .says = "on a cell, [column, row]"}, Sort::wholes, 2},
    {{.name = "cells", .says = "on a block of cells, [column, row, columns, rows]"}, Sort::wholes, 4},
    {{.name = "box", .says = "[x, y, width, height]", .unit = "px"}, Sort::numbers, 4},
    {{.name = "polygon", .says = "[[x, y], …]", .unit = "px"}, Sort::points, 3},
    {{.name = "circle", .says = "[x, y, radius]", .unit = "px"}, Sort::numbers, 3},
    {{.name = "ellipse", .says = "[x, y, radius across, radius down]", .unit = "px"}, Sort::numbers, 4},
    {{.name = "capsule", .says = "[x, y, x, y, radius]: all within the radius of the way between", .unit = "px"},
     Sort::numbers,
     5},
    {{.name = "line", .says = "[[x, y], …], open", .unit = "px"}, Sort::points, 2},
    {{.name = "holes", .says = "holes of a polygon: [[[x, y], …], …]", .unit = "px"}, Sort::holes},
};
inline constexpr Group object_place{object_places, true, 1};

template <class Visit>
void each_key(Of<ObjectDraft>, Visit&& visit) {
    using Draft = ObjectDraft;
    visit(Key{.name = "name", .says = "its name, if something refers to it", .names_it = true}, &Draft::name);
    visit(Key{.name = "kind", .says = "its kind; default: the layer's `kind`", .refers = "kind"}, &Draft::kind);
    visit(object_place, &Draft::form);
    visit(Key{.name = "turn", .says = "clockwise, about the middle of its box", .unit = "degrees"}, &Draft::turn);
    visit(Key{.name = "hollow", .says = "solids: everything outside its shape is solid"}, &Draft::hollow);
    visit(Key{.name = "carves",
              .says = "barriers it removes from the layers below, in a shape or in its own area",
              .example = "{ barrier = \"…\" }, with a shape or without",
              .item = "a carve"},
          &Draft::carves);
    visit(Key{.name = "storey", .says = "its storey; default: its layer's", .refers = "storey"}, &Draft::storey);
    visit(Key{.name = "tags", .says = "words for the game"}, &Draft::tags);
    visit(Key{.name = "to", .says = "links: where it leads, map/object", .refers = "object"}, &Draft::to);
    visit(Key{.name = "one_way", .says = "links: no way back is intended"}, &Draft::one_way);
    each_behaviour_key<Draft>(visit);
    visit(props_key, &Draft::props);
    visit(waive_key, &Draft::waive);
}

template <class Visit>
void each_key(Of<ExceptDraft>, Visit&& visit) {
    using Draft = ExceptDraft;
    visit(Key{.name = "cell",
              .says = "the cell that it is painted on, [column, row]",
              .example = "[2, 1]",
              .required = true},
          &Draft::cell);
    visit(Key{.name = "name", .says = "its name", .names_it = true}, &Draft::name);
    visit(Key{.name = "tags", .says = "words for the game, in addition to its kind's"}, &Draft::tags);
    each_lock_key<Draft>(visit);
    each_presence_key<Draft>(visit);
    visit(props_key, &Draft::props);
}

}   // namespace dryground::keys

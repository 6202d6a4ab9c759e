// Inside the files room: the keys of the world's own file.
#pragma once

#include "dryground/merge.hpp"
#include "tile_keys_internal.hpp"

namespace dryground::keys {

template <class Visit>
void each_key(Of<BarrierDraft>, Visit&& visit) {
    visit(Key{.name = "note", .says = "note for people"}, &BarrierDraft::note);
    visit(Key{.name = "colour", .says = "in pictures", .example = "\"#7a5c3a\""}, &BarrierDraft::colour);
}
template <class Visit>
void each_key(Of<StoreyDraft>, Visit&& visit) {
    visit(Key{.name = "base_px", .says = "height of its floor", .unit = "px", .always = true}, &StoreyDraft::base_px);
    visit(Key{.name = "height_px", .says = "its height", .unit = "px", .always = true}, &StoreyDraft::height_px);
}

inline constexpr OneOf body_forms[] = {
    {{.name = "box", .says = "[width, height]", .unit = "px"}, Sort::numbers, 2},
    {{.name = "circle", .says = "its radius", .unit = "px"}, Sort::number},
    {{.name = "capsule", .says = "[width, height], round at its ends", .unit = "px"}, Sort::numbers, 2},
    {{.name = "at", .says = "where its middle is, from the mover's position", .unit = "px"}, Sort::numbers, 2},
};
inline constexpr Group body_form{body_forms, true, 1};

template <class Visit>
void each_key(Of<BodyDraft>, Visit&& visit) {
    visit(body_form, &BodyDraft::form);
}
template <class Visit>
void each_key(Of<FeelerDraft>, Visit&& visit) {
    visit(body_form, &FeelerDraft::body);
    visit(Key{.name = "senses", .says = "barriers and movers it senses", .refers = "barrier or mover"},
          &FeelerDraft::senses);
}
template <class Visit>
void each_key(Of<MoverDraft>, Visit&& visit) {
    using Draft = MoverDraft;
    visit(Key{.name = "body",
              .says = "its shape around its position",
              .example = "{ box = [10, 14], at = [0, -7] }",
              .required = true},
          &Draft::body);
    visit(Key{.name = "stopped_by", .says = "barriers that stop it", .refers = "barrier"}, &Draft::stopped_by);
    visit(Key{.name = "meets",
              .says = "movers it collides with; set on one of two, it holds for both",
              .refers = "mover"},
          &Draft::meets);
    visit(Key{.name = "needs",
              .says = "flags: it may enter cells that grant one of these; default: all cells",
              .refers = "flag"},
          &Draft::needs);
    visit(
        Key{.name = "climbs", .says = "side view: flags; it climbs in cells that grant one of these", .refers = "flag"},
        &Draft::climbs);
    visit(Key{.name = "moves",
              .says = "steps: cell to cell; free: any direction; side: runs, jumps and falls",
              .words = words_of<Moves>()},
          &Draft::moves);
    visit(Key{.name = "jump_px", .says = "side view: height of a jump", .unit = "px", .least = 0}, &Draft::jump_px);
    visit(Key{.name = "leap_px", .says = "side view: length of a jump on level ground", .unit = "px", .least = 0},
          &Draft::leap_px);
    visit(Key{.name = "drop_px", .says = "side view: how far it may fall", .unit = "px", .least = 0}, &Draft::drop_px);
    visit(Key{.name = "kerb_px", .says = "side view: height of a step it walks over", .unit = "px", .least = 0},
          &Draft::kerb_px);
    visit(Key{.name = "slope_degrees",
              .says = "side view: steepest slope it walks up",
              .unit = "degrees",
              .least = 0,
              .most = 90},
          &Draft::slope_degrees);
    visit(Key{.name = "picture",
              .says = "its picture; at: the corner relative to its position",
              .example = "{ file = \"….png\", at = [x, y] }"},
          &Draft::picture);
    visit(Key{.name = "feelers", .says = "shapes that sense, by name", .item = "feeler"}, &Draft::feelers);
}
inline constexpr OneOf kind_properties[] = {
    {{.name = "props",
      .says = "declares a typed property, or gives an inherited one a new default",
      .example = "{ patrol_px = { type = \"number\", default = 32 } }"},
     Sort::kind_properties},
};
inline constexpr Group kind_props{kind_properties};

template <class Visit>
void each_key(Of<KindDraft>, Visit&& visit) {
    using Draft = KindDraft;
    visit(Key{.name = "like", .says = "the kind it copies, except its note", .refers = "kind"}, &Draft::like);
    visit(Key{.name = "note", .says = "note for people"}, &Draft::note);
    visit(Key{.name = "role", .says = "its role in the game", .words = words_of<Role>()}, &Draft::role);
    visit(Key{.name = "mover", .says = "the mover whose body it has", .refers = "mover"}, &Draft::mover);
    visit(Key{.name = "motion",
              .says = "how physics treats it; a solid that is not fixed is not merged; default: moving with a mover, "
                      "else fixed",
              .words = words_of<Motion>()},
          &Draft::motion);
    visit(Key{.name = "path",
              .says = "property with the list of places that its objects move to, one after another, from where each "
                      "is drawn",
              .example = "\"stops\""},
          &Draft::path);
    visit(Key{.name = "tags", .says = "words for the game"}, &Draft::tags);
    visit(Key{.name = "stands",
              .says = "where in a cell its position is; default: the middle",
              .words = words_of<Stands>()},
          &Draft::stands);
    visit(Key{.name = "area",
              .says = "shape relative to the position, for objects without a shape of their own",
              .example = "{ circle = [0, -6, 6] }"},
          &Draft::area);
    visit(Key{.name = "picture",
              .says = "its picture; at: the corner relative to its position",
              .example = "{ file = \"….png\", at = [x, y] }"},
          &Draft::picture);
    visit(kind_props, &Draft::fields);
    each_behaviour_key<Draft>(visit);
}

template <class Visit>
void each_key(Of<FieldDraft>, Visit&& visit) {
    using Draft = FieldDraft;
    visit(Key{.name = "type",
              .says = "what it holds",
              .example = "\"text\"",
              .words = words_of<FieldType>(),
              .required = true},
          &Draft::type);
    visit(Key{.name = "default", .says = "default value; without it a value is required"}, &Draft::standard);
    visit(Key{.name = "min", .says = "smallest number"}, &Draft::least);
    visit(Key{.name = "max", .says = "largest number"}, &Draft::most);
    visit(Key{.name = "of", .says = "the choices, or the type of what a list holds", .or_one = true}, &Draft::of);
    visit(Key{.name = "optional", .says = "may be missing; then it has no value"}, &Draft::optional);
    visit(Key{.name = "note", .says = "note for people"}, &Draft::note);
}

template <class Visit>
void each_key(Of<MergeSettings>, Visit&& visit) {
    using Settings = MergeSettings;
    visit(Key{.name = "within_px",
              .says = "largest distance between a curve and its polygon",
              .unit = "px",
              .least = 1.0 / 64,
              .most = 64},
          &Settings::within_px);
    visit(Key{.name = "most_vertices", .says = "largest number of vertices of a convex piece", .least = 3},
          &Settings::most_vertices);
    visit(Key{.name = "chunk_cells", .says = "columns and rows of a chunk", .least = 1}, &Settings::chunk_cells);
    visit(Key{.name = "least_edge_px",
              .says = "chains and pieces: vertices closer than this are merged",
              .unit = "px",
              .least = 0},
          &Settings::least_edge_px);
    visit(Key{.name = "forms", .says = "forms that `merge` writes", .refers = "form"}, &Settings::forms);
}

template <class Visit>
void each_key(Of<WorldDraft>, Visit&& visit) {
    using Draft = WorldDraft;
    visit(Key{.name = "title", .says = "what people call it"}, &Draft::title);
    visit(Key{.name = "per_metre", .says = "px to one metre", .least = 0, .always = true}, &Draft::per_metre);
    visit(Key{.name = "player", .says = "the mover that is played", .refers = "mover"}, &Draft::player);
    visit(Key{.name = "start", .says = "map/object where play begins", .refers = "object"}, &Draft::start);
    visit(Key{.name = "waive", .says = waive_key.says, .example = waive_key.example, .item = waive_key.item},
          &Draft::waive);
    visit(Key{.name = "barriers", .says = "what can stop a mover, by name", .item = "barrier"}, &Draft::barriers);
    visit(Key{.name = "flags", .says = "what a tile can grant, at most 64, each with a note"}, &Draft::flags);
    visit(Key{.name = "storeys", .says = "floors above each other; `ground` is there always", .item = "storey"},
          &Draft::storeys);
    visit(Key{.name = "movers", .says = "what moves, by name", .item = "mover"}, &Draft::movers);
    visit(Key{.name = "facts", .says = "what play can make true, each with a note"}, &Draft::facts);
    visit(Key{.name = "events", .says = "what the game's code can be asked to do, each with a note"}, &Draft::events);
    visit(Key{.name = "map_props", .says = "declares typed properties of every map"}, &Draft::map_fields);
    visit(Key{.name = "layer_props", .says = "declares typed properties of every layer"}, &Draft::layer_fields);
    visit(Key{.name = "kinds", .says = "what an object can be, by name", .item = "kind"}, &Draft::kinds);
    visit(Key{.name = "limits", .says = "what the target game can take: how many at most"}, &Draft::limits);
    visit(Key{.name = "merging", .says = "how geometry is made"}, &Draft::merging);
    visit(Key{.name = "check", .says = "severity by rule", .words = words_of<Severity>()}, &Draft::severities);
}

}   // namespace dryground::keys

// Inside the files room: the keys of a pack's maps, and of the pack itself (see pack_key_internal.hpp).
#pragma once

#include "../number_rows_internal.hpp"
#include "pack_tile_keys_internal.hpp"

namespace dryground::packed {

inline constexpr std::string_view held_words[] = {"cells", "objects"};

// What a number of the palette stands for.
template <class Visit>
void each_key(Of<Placed>, Visit&& visit) {
    using Draft = LegendEntry;
    visit(
        Key{.name = "tile", .says = "tile set/tile"},
        [](const Packing& at, const Placed& placed) {
            return at.world.tilesets()[static_cast<std::size_t>(placed.tileset)].name + "/" +
                   at.world.tile(placed).name;
        },
        &Draft::tile);
    visit(
        Key{.name = "flip_x"}, [](const Packing&, const Placed& placed) { return placed.orientation.flip_x; },
        [](const auto&, const files::Node& node, Draft& entry) { entry.orientation.flip_x = node.yes_no(); });
    visit(
        Key{.name = "flip_y"}, [](const Packing&, const Placed& placed) { return placed.orientation.flip_y; },
        [](const auto&, const files::Node& node, Draft& entry) { entry.orientation.flip_y = node.yes_no(); });
    visit(
        Key{.name = "turn", .says = "Degrees clockwise: 0, 90, 180 or 270.", .least = 0, .most = 270},
        [](const Packing&, const Placed& placed) { return static_cast<int>(placed.orientation.turn); },
        [](const auto&, const files::Node& node, Draft& entry) { entry.orientation.turn = node.quarter_turn(); });
}

template <class Visit>
void each_key(Of<Growth>, Visit&& visit) {
    visit(
        Key{.name = "px"}, [](const Packing&, const Growth& grow) { return to_px(grow.by); }, &GrowthDraft::px);
    visit(Key{.name = "corners"}, &Growth::corners, &GrowthDraft::corners);
    visit(Key{.name = "within_px"}, &Growth::within_px, &GrowthDraft::within_px);
}

[[nodiscard]] inline RowTexts rows_of(const Map& map, const Layer& layer) {
    RowTexts texts;
    std::vector<std::uint64_t> row(static_cast<std::size_t>(map.columns));
    for (int r = 0; r < map.rows; ++r) {
        for (int c = 0; c < map.columns; ++c) row[static_cast<std::size_t>(c)] = map.number(layer, c, r);
        texts.rows.push_back(files::row_text(row));
    }
    return texts;
}

template <class Visit>
void each_key(Of<Layer>, Visit&& visit) {
    using Draft = LayerDraft;
    visit(Key{.name = "name"}, &Layer::name, &Draft::name);
    visit(
        Key{.name = "holds", .words = held_words},
        [](const Packing&, const Layer& layer) { return held_words[layer.holds_objects ? 1 : 0]; },
        [](const auto&, const files::Node& node, Draft& layer) { layer.holds_objects = node.text() == held_words[1]; });
    visit(Key{.name = "decor"}, &Layer::decor, &Draft::decor);
    visit(Key{.name = "shown"}, &Layer::shown, &Draft::shown);
    visit(Key{.name = "storey", .always = true}, &Layer::storey, &Draft::storey);
    visit(Key{.name = "band"}, &Layer::band, &Draft::band);
    visit(Key{.name = "order",
              .says = "Added to where its art and objects come: to its place among the layers, or to their depth where "
                      "they are sorted by it."},
          &Layer::order, &Draft::order);
    visit(Key{.name = "opacity", .least = 0, .most = 1}, &Layer::opacity, &Draft::opacity);
    visit(Key{.name = "barrier"}, &Layer::barrier, &Draft::barrier);
    visit(Key{.name = "trigger"}, &Layer::trigger, &Draft::trigger);
    visit(Key{.name = "reaction",
              .says = "What its trigger does, all that senses in it as one area; null: nothing of its own."},
          &Layer::reaction, [](const auto& reader, const files::Node& node, Draft& layer) {
              if (node.is_null()) return;
              ReactionDraft said;
              reader.template table<Reaction>(node, said);
              layer.fires = said.fires, layer.by = said.by, layer.needs = said.needs, layer.gives = said.gives;
              layer.once = said.once, layer.every_s = said.every_s, layer.runs = said.runs;
          });
    visit(Key{.name = "surface"}, &Layer::surface, &Draft::surface);
    visit(Key{.name = "one_way"}, &Layer::one_way, &Draft::one_way);
    visit(
        Key{.name = "flags"},
        [](const Packing&, const Layer& layer) {
            return layer.flags ? std::optional(Flags{*layer.flags}) : std::nullopt;
        },
        &Draft::flags);
    visit(Key{.name = "offset"}, &Layer::offset, &Draft::offset);
    visit(Key{.name = "shape_offset"}, &Layer::shape_offset, &Draft::shape_offset);
    visit(
        Key{.name = "sink", .says = "Left, top, right, bottom."},
        [](const Packing&, const Layer& layer) {
            std::array<double, 4> px{};
            std::transform(layer.sink.begin(), layer.sink.end(), px.begin(), to_px);
            return px;
        },
        &Draft::sink);
    visit(
        Key{.name = "grow",
            .says = "How its solids, all together, were grown after that; its merged ground holds it already."},
        [](const Packing&, const Layer& layer) {
            return layer.grow.by != 0 ? std::optional(layer.grow) : std::nullopt;
        },
        &Draft::grow);
    visit(Key{.name = "fill_holes",
              .says = "Holes of its solids that are no larger than so many px² were filled after that; 0: none.",
              .least = 0},
          &Layer::fill_px2, [](const auto&, const files::Node& node, Draft& layer) {
              if (const double fill = node.number(); fill > 0) layer.fill_holes = Located<Value>(Value{fill});
          });
    visit(Key{.name = "when"}, &Layer::when, &Draft::when);
    visit(Key{.name = "unless"}, &Layer::unless, &Draft::unless);
    visit(Key{.name = "tags"}, &Layer::tags, &Draft::tags);
    visit(Key{.name = "props"}, &Layer::props, &Draft::props);
    visit(
        Key{.name = "rows", .says = "Numbers into the palette; null for a layer of objects."},
        [](const Packing& at, const Layer& layer) {
            return layer.holds_objects ? std::nullopt : std::optional(rows_of(*at.map, layer));
        },
        ByHand{});
}

template <class Visit>
void each_key(Of<Link>, Visit&& visit) {
    visit(Key{.name = "to", .says = "map/object"}, &Link::to, &ObjectDraft::to);
    visit(Key{.name = "one_way"}, &Link::one_way, &ObjectDraft::one_way);
    visit(Key{.name = "arrival_runs"}, &Link::arrival_runs, &ObjectDraft::arrival_runs);
}

using CutAway = std::pair<BarrierId, Regions>;
template <class Visit>
void each_key(Of<CutAway>, Visit&& visit) {
    visit(Key{.name = "barrier", .always = true}, &CutAway::first, &ObjectCarve::barrier);
    visit(Key{.name = "area"}, &CutAway::second, [](const auto& reader, const files::Node& node, ObjectCarve& carve) {
        carve.shape.emplace().form = moved(node.area(), reader.back());
    });
}

template <class Visit>
void each_key(Of<Object>, Visit&& visit) {
    using Draft = ObjectDraft;
    visit(Key{.name = "name", .says = "Empty where nobody named it."}, &Object::name, &Draft::name);
    visit(Key{.name = "kind", .always = true}, &Object::kind, &Draft::kind);
    visit(Key{.name = "role"}, &Object::role, MadeAnew{});
    visit(
        Key{.name = "layer"}, [](const Packing& at, const Object& object) { return at.map->layer(object.layer).name; },
        ByHand{});
    visit(Key{.name = "at_px", .says = "Its position."}, &Object::position, ByHand{});
    visit(
        Key{.name = "at_m", .says = "The same in metres, with y as `y` says."},
        [](const Packing& at, const Object& object) {
            const double metre = at.world.per_metre() * steps_per_px, y = object.position.y / metre;
            return std::array{object.position.x / metre, at.output.y == YAxis::up ? 0.0 - y : y};
        },
        MadeAnew{});
    visit(
        Key{.name = "cell", .says = "Where it was placed by a cell."},
        [](const Packing&, const Object& object) {
            return object.cell ? std::optional(std::array{object.cell->column, object.cell->row}) : std::nullopt;
        },
        ByHand{});
    visit(Key{.name = "drawn", .says = "Whether it has a shape of its own."}, &Object::drawn, ByHand{});
    visit(Key{.name = "turn",
              .says = "Degrees by which `area` and `line` are turned, clockwise as seen; of a point the way it faces."},
          &Object::turn, &Draft::turn);
    visit(Key{.name = "middle_px",
              .says = "The middle of the box around its area or line before it was turned; of a point its position."},
          &Object::middle, ByHand{});
    visit(Key{.name = "size_px", .says = "The width and height of that box; of a point 0."}, &Object::size, ByHand{});
    visit(
        Key{.name = "placed", .form = "placed"},
        [](const Packing& at, const Object& object) {
            return files::placed_json(at.world, *at.map, object, at.output);
        },
        MadeAnew{});
    visit(Key{.name = "area"}, &Object::area, ByHand{});
    visit(Key{.name = "line"}, &Object::line, ByHand{});
    visit(Key{.name = "hollow"}, &Object::hollow, &Draft::hollow);
    visit(Key{.name = "carves"}, &Object::carves, &Draft::carves);
    visit(Key{.name = "storey", .always = true}, &Object::storey, &Draft::storey);
    visit(Key{.name = "barrier"}, &Object::barrier, &Draft::barrier);
    visit(Key{.name = "tags"}, &Object::tags, &Draft::tags);
    visit(Key{.name = "fires"}, &Object::fires, &Draft::fires);
    visit(Key{.name = "by", .says = "Movers; none: any."}, &Object::by, &Draft::by);
    visit(Key{.name = "once"}, &Object::once, &Draft::once);
    visit(Key{.name = "every_s"}, &Object::every_s, &Draft::every_s);
    visit(Key{.name = "needs"}, &Object::needs, &Draft::needs);
    visit(Key{.name = "gives"}, &Object::gives, &Draft::gives);
    visit(Key{.name = "when"}, &Object::when, &Draft::when);
    visit(Key{.name = "unless"}, &Object::unless, &Draft::unless);
    visit(Key{.name = "runs"}, &Object::runs, &Draft::runs);
    visit(
        Key{.name = "link"},
        [](const Packing&, const Object& object) {
            return object.role == Role::link ? std::optional(object.link) : std::nullopt;
        },
        [](const auto& reader, const files::Node& node, Draft& object) {
            if (!node.is_null()) reader.template keys<Link>(node, object);
        });
    visit(Key{.name = "props"}, &Object::props, &Draft::props);
    visit(Key{.name = "surface", .optional = true}, &Object::surface, &Draft::surface);
}

[[nodiscard]] inline std::optional<std::string> rim_of(const World& world, const Map& map) {
    if (map.rim == RimSort::none) return std::nullopt;
    return map.rim == RimSort::open ? "open" : world.barrier(map.rim_barrier).name;
}

template <class Visit>
void each_key(Of<Map>, Visit&& visit) {
    using Draft = MapDraft;
    visit(Key{.name = "name"}, &Map::name, &Draft::name);
    visit(Key{.name = "title"}, &Map::title, &Draft::title);
    visit(Key{.name = "grid"}, &Map::grid, &Draft::grid);
    visit(
        Key{.name = "cell"},
        [](const Packing&, const Map& map) {
            return std::array{map.cell_width, map.cell_height};
        },
        &Draft::cell);
    visit(
        Key{.name = "size", .says = "Columns, rows."},
        [](const Packing&, const Map& map) {
            return std::array{map.columns, map.rows};
        },
        &Draft::size);
    visit(
        Key{.name = "first", .says = "The cell at the data's top-left."},
        [](const Packing&, const Map& map) {
            return std::array{map.first_column, map.first_row};
        },
        &Draft::first);
    visit(
        Key{.name = "rim", .says = "A barrier, or \"open\"."},
        [](const Packing& at, const Map& map) { return rim_of(at.world, map); }, &Draft::rim);
    visit(Key{.name = "player"}, &Map::player, &Draft::player);
    visit(Key{.name = "tilesets"}, &Map::tilesets, &Draft::tilesets);
    visit(
        Key{.name = "seed"}, [](const Packing&, const Map& map) { return static_cast<std::int64_t>(map.seed); },
        [](const auto&, const files::Node& node, Draft& map) {
            map.seed = static_cast<std::uint64_t>(node.whole(INT64_MIN, INT64_MAX));
        });
    visit(Key{.name = "cell_parts"}, &Map::cell_parts, &Draft::cell_parts);
    visit(Key{.name = "props"}, &Map::props, &Draft::props);
    visit(
        Key{.name = "palette",
            .says = "What the numbers in `rows` stand for; the first is no tile. A tile is flipped first, then turned "
                    "clockwise, both about the middle of its cell.",
            .fewest = 1},
        [](const Packing&, const Map& map) {
            std::vector<std::optional<Placed>> palette;
            for (const Placed& placed : map.palette)
                palette.push_back(placed.tile < 0 ? std::nullopt : std::optional(placed));
            return palette;
        },
        ByHand{});
    visit(Key{.name = "layers", .says = "From the bottom up."}, &Map::layers, ByHand{});
    visit(Key{.name = "objects", .says = "Of all layers, in their order."}, &Map::objects, ByHand{});
    visit(
        Key{.name = "passability", .says = "With all facts false.", .form = "passability"},
        [](const Packing& at, const Map&) { return std::move(at.ground->passability); }, MadeAnew{});
    visit(
        Key{.name = "merge", .says = "With all facts false.", .form = "merge"},
        [](const Packing& at, const Map&) { return std::move(at.ground->merge); }, MadeAnew{});
    visit(
        Key{.name = "variants",
            .says = "Only in packs made with --variants, and empty where more facts shape the map's ground: the ground "
                    "and the passability for each other state of these facts. Of chunks only those that differ from "
                    "`merge`, where `surfaces` are the same.",
            .form = "variants",
            .optional = true},
        [](const Packing& at, const Map&) { return std::move(at.ground->variants); }, MadeAnew{});
}

// The pack. Its tile sets and maps are written, and read, one by one.
template <class Visit>
void each_key(Of<World>, Visit&& visit) {
    using Draft = WorldDraft;
    visit(
        Key{.name = "format", .words = pack_format}, [](const Packing&, const World&) { return pack_format[0]; },
        MadeAnew{});
    visit(Key{.name = "world", .says = "Its title."}, &World::title, &Draft::title);
    visit(
        Key{.name = "hash",
            .says = "Of all that is in the pack: saved games tell by it which pack they belong to.",
            .pattern = "^[0-9a-f]{16}$"},
        [](const Packing&, const World&) { return std::string(); }, ByHand{});   // known when all is written
    visit(
        Key{.name = "unit", .words = unit_words},
        [](const Packing& at, const World&) {
            return unit_words[at.output.unit == Unit::m ? 1 : at.output.plane == Plane::ground ? 2 : 0];
        },
        MadeAnew{});
    visit(Key{.name = "per_metre", .says = "px to one metre.", .is_positive = true}, &World::per_metre,
          &Draft::per_metre);
    visit(
        Key{.name = "y", .words = axis_words},
        [](const Packing& at, const World&) { return axis_words[at.output.y == YAxis::up ? 1 : 0]; }, MadeAnew{});
    visit(
        Key{.name = "plane", .words = plane_words},
        [](const Packing& at, const World&) { return plane_words[at.output.plane == Plane::ground ? 1 : 0]; },
        MadeAnew{});
    visit(Key{.name = "player", .says = "The mover that people play."}, &World::player, &Draft::player);
    visit(
        Key{.name = "start", .says = "map/object where play begins."},
        [](const Packing&, const World& world) { return or_null(world.start().words); }, &Draft::start);
    visit(
        Key{.name = "goals", .says = "What has to be reachable."},
        [](const Packing&, const World& world) { return goals_of(world); },
        [](const auto& reader, const files::Node& node, Draft& draft) { reader.template keys<Goals>(node, draft); });
    visit(Key{.name = "barriers"}, &World::barriers, &Draft::barriers);
    visit(Key{.name = "flags", .says = "Bit i of a set of flags is the i-th of these.", .most_items = 64},
          &World::flags, &Draft::flags);
    visit(Key{.name = "storeys", .says = "\"ground\" is the first.", .fewest = 1}, &World::storeys, &Draft::storeys);
    visit(Key{.name = "movers"}, &World::movers, &Draft::movers);
    visit(
        Key{.name = "contacts", .form = "contacts"},
        [](const Packing&, const World& world) { return files::contacts_json(world); }, MadeAnew{});
    visit(
        Key{.name = "bits", .form = "bits"}, [](const Packing&, const World& world) { return files::bits_json(world); },
        MadeAnew{});
    visit(Key{.name = "facts"}, &World::facts, &Draft::facts);
    visit(Key{.name = "events"}, &World::events, &Draft::events);
    visit(Key{.name = "map_fields"}, &World::map_fields, &Draft::map_fields);
    visit(Key{.name = "layer_fields"}, &World::layer_fields, &Draft::layer_fields);
    visit(Key{.name = "kinds"}, &World::kinds, &Draft::kinds);
    visit(Key{.name = "limits"}, &World::limits, &Draft::limits);
    visit(Key{.name = "merging"}, &World::merging, [](const auto& reader, const files::Node& node, Draft& draft) {
        draft.merging.forms = {};
        reader.template keys<MergeSettings>(node, draft.merging);
    });
    visit(
        Key{.name = "check", .says = "Severities that the world sets for rules."},
        [](const Packing&, const World& world) { return severities_of(world); }, &Draft::severities);
    visit(
        Key{.name = "tilesets"}, [](const Packing&, const World&) { return std::vector<TileSet>(); }, ByHand{});
    visit(
        Key{.name = "maps"}, [](const Packing&, const World&) { return std::vector<Map>(); }, ByHand{});
}

}   // namespace dryground::packed

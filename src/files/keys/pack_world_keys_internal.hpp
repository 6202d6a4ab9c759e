// Inside the files room: the keys of a world's vocabulary in its pack (see pack_key_internal.hpp).
#pragma once

#include "pack_key_internal.hpp"

namespace dryground::packed {

// ---- what several things have

template <class Visit>
void each_key(Of<Picture>, Visit&& visit) {
    visit(Key{.name = "file"}, &Picture::file, &Picture::file);
    visit(
        Key{.name = "at", .says = "Of its corner, from the position or the cell's corner."},
        [](const Packing&, const Picture& picture) {
            return std::array{picture.x, picture.y};
        },
        pair_of(&Picture::x, &Picture::y));
    visit(
        Key{.name = "size"},
        [](const Packing&, const Picture& picture) {
            return std::array{picture.width, picture.height};
        },
        pair_of(&Picture::width, &Picture::height));
}

template <class Visit>
void each_key(Of<Surface>, Visit&& visit) {
    visit(Key{.name = "friction", .optional = true}, &Surface::friction, &Surface::friction);
    visit(Key{.name = "restitution", .optional = true}, &Surface::restitution, &Surface::restitution);
}

template <class Visit>
void each_key(Of<Field>, Visit&& visit) {
    using Draft = FieldDraft;
    visit(Key{.name = "type"}, &Field::type, &Draft::type);
    visit(Key{.name = "default", .optional = true}, &Field::standard, &Draft::standard);
    visit(Key{.name = "min", .optional = true}, &Field::least, &Draft::least);
    visit(Key{.name = "max", .optional = true}, &Field::most, &Draft::most);
    visit(
        Key{.name = "of", .says = "What one may choose from, or the type that a list holds.", .optional = true},
        [](const Packing&, const Field& field) -> std::optional<std::vector<std::string>> {
            if (field.type == FieldType::choice) return field.choices;
            if (field.type == FieldType::list) return {{std::string(word_of(field.holds))}};
            return std::nullopt;
        },
        &Draft::of);
    visit(
        Key{.name = "optional", .says = "It may be left out, and then has no value.", .optional = true},
        [](const Packing&, const Field& field) { return field.optional ? std::optional(true) : std::nullopt; },
        &Draft::optional);
    visit(
        Key{.name = "note", .optional = true}, [](const Packing&, const Field& field) { return or_null(field.note); },
        &Draft::note);
}

// ---- the world

template <class Visit>
void each_key(Of<Barrier>, Visit&& visit) {
    visit(Key{.name = "name"}, &Barrier::name, &BarrierDraft::name);
    visit(Key{.name = "note"}, &Barrier::note, &BarrierDraft::note);
    visit(Key{.name = "colour"}, &Barrier::colour, &BarrierDraft::colour);
}

template <class Visit>
void each_key(Of<NamedThing>, Visit&& visit) {
    visit(Key{.name = "name"}, &NamedThing::name, &NoteDraft::name);
    visit(Key{.name = "note"}, &NamedThing::note, &NoteDraft::note);
}

template <class Visit>
void each_key(Of<Storey>, Visit&& visit) {
    visit(Key{.name = "name"}, &Storey::name, &StoreyDraft::name);
    visit(Key{.name = "base_px"}, &Storey::base_px, &StoreyDraft::base_px);
    visit(Key{.name = "height_px"}, &Storey::height_px, &StoreyDraft::height_px);
}

template <class Visit>
void each_key(Of<Feeler>, Visit&& visit) {
    visit(Key{.name = "name"}, &Feeler::name, &FeelerDraft::name);
    visit(Key{.name = "area"}, &Feeler::area, &FeelerDraft::body);
    visit(
        Key{.name = "senses", .says = "Barriers and movers."},
        [](const Packing& at, const Feeler& feeler) {
            std::vector<std::string> names;
            for (const BarrierId barrier : feeler.senses) names.push_back(at.world.barrier(barrier).name);
            for (const MoverId mover : feeler.senses_movers)
                if (const std::string& name = at.world.mover(mover).name;
                    at.world.find_barrier(name) == BarrierId::none)   // one name may be both
                    names.push_back(name);
            return names;
        },
        &FeelerDraft::senses);
}

template <class Visit>
void each_key(Of<Mover>, Visit&& visit) {
    using Draft = MoverDraft;
    visit(Key{.name = "name"}, &Mover::name, &Draft::name);
    visit(Key{.name = "body"}, &Mover::body, &Draft::body);
    visit(Key{.name = "stopped_by"}, &Mover::stopped_by, &Draft::stopped_by);
    visit(Key{.name = "meets"}, &Mover::meets, &Draft::meets);
    visit(
        Key{.name = "needs", .says = "Any one of these flags; none: it needs none."},
        [](const Packing&, const Mover& mover) { return Flags{mover.needs}; }, &Draft::needs);
    visit(
        Key{.name = "climbs",
            .says = "Seen from the side: in cells with any one of these flags it moves in all directions, its feet in "
                    "them."},
        [](const Packing&, const Mover& mover) { return Flags{mover.climbs}; }, &Draft::climbs);
    visit(Key{.name = "moves"}, &Mover::moves, &Draft::moves);
    visit(Key{.name = "jump_px"}, &Mover::jump_px, &Draft::jump_px);
    visit(Key{.name = "leap_px"}, &Mover::leap_px, &Draft::leap_px);
    visit(Key{.name = "drop_px"}, &Mover::drop_px, &Draft::drop_px);
    visit(Key{.name = "kerb_px"}, &Mover::kerb_px, &Draft::kerb_px);
    visit(Key{.name = "slope_degrees"}, &Mover::slope_degrees, &Draft::slope_degrees);
    visit(Key{.name = "feelers"}, &Mover::feelers, &Draft::feelers);
    visit(Key{.name = "picture"}, &Mover::picture, &Draft::picture);
}

template <class Visit>
void each_key(Of<Kind>, Visit&& visit) {
    using Draft = KindDraft;
    visit(Key{.name = "name"}, &Kind::name, &Draft::name);
    visit(
        Key{.name = "note", .optional = true}, [](const Packing&, const Kind& kind) { return or_null(kind.note); },
        &Draft::note);
    visit(Key{.name = "role"}, &Kind::role, &Draft::role);
    visit(Key{.name = "mover"}, &Kind::mover, &Draft::mover);
    visit(Key{.name = "motion"}, &Kind::motion, &Draft::motion);
    visit(
        Key{.name = "path", .says = "The property, a list of places, along which its objects move."},
        [](const Packing&, const Kind& kind) { return or_null(kind.path); }, &Draft::path);
    visit(Key{.name = "tags"}, &Kind::tags, &Draft::tags);
    visit(Key{.name = "stands"}, &Kind::stands, &Draft::stands);
    visit(Key{.name = "area"}, &Kind::area, [](const auto&, const files::Node& node, Draft& kind) {
        if (Regions area = node.area(); !area.empty()) kind.area.emplace().form = std::move(area);
    });
    visit(Key{.name = "picture"}, &Kind::picture, &Draft::picture);
    visit(Key{.name = "fields"}, &Kind::fields, &Draft::fields);
}

// What has to be reachable, by what it is.
struct Goals {
    std::vector<std::string> objects, facts;
};
template <class Visit>
void each_key(Of<Goals>, Visit&& visit) {
    visit(Key{.name = "objects", .says = "map/object"}, &Goals::objects, &WorldDraft::goal_objects);
    visit(Key{.name = "facts"}, &Goals::facts, &WorldDraft::goal_facts);
}
[[nodiscard]] inline Goals goals_of(const World& world) {
    Goals goals;
    for (const Goal& goal : world.goals())
        (goal.fact != FactId::none ? goals.facts : goals.objects).push_back(goal.words);
    return goals;
}

template <class Visit>
void each_key(Of<MergeSettings>, Visit&& visit) {
    using Settings = MergeSettings;
    visit(Key{.name = "within_px"}, &Settings::within_px, &Settings::within_px);
    visit(Key{.name = "most_vertices"}, &Settings::most_vertices, &Settings::most_vertices);
    visit(Key{.name = "chunk_cells"}, &Settings::chunk_cells, &Settings::chunk_cells);
    visit(Key{.name = "least_edge_px"}, &Settings::least_edge_px, &Settings::least_edge_px);
    visit(Key{.name = "forms"}, &Settings::forms, &Settings::forms);
}

// Returns the severities that the world sets, in the order of the rules.
using Severities = std::vector<std::pair<std::string, Severity>>;
[[nodiscard]] inline Severities severities_of(const World& world) {
    Severities all;
    for (const RuleText& rule : all_rules())
        if (world.severity(rule.rule) != rule.severity) all.emplace_back(rule.name, world.severity(rule.rule));
    return all;
}

}   // namespace dryground::packed

// The world file.

#include <fmt/format.h>

#include "writing_internal.hpp"

namespace dryground::files {

using toml_text::in_quotes;
using toml_text::number;
using toml_text::numbers;
using toml_text::Pairs;

namespace {

void add_table(std::string& out, const std::string& name, const Pairs& pairs) {
    if (!pairs.empty()) out += fmt::format("\n[{}]\n{}", name, pairs.lines());
}

void add_notes(std::string& out, const std::string& name, const std::vector<NoteDraft>& notes) {
    Pairs pairs;
    for (const NoteDraft& note : notes) pairs.add(note.name.value, in_quotes(note.note));
    add_table(out, name, pairs);
}

void add_body(Pairs& pairs, const BodyDraft& body) {
    if (const auto* box = std::get_if<BoxPx>(&body.form))
        pairs.add("box", numbers({box->width, box->height}));
    else if (const auto* round = std::get_if<EllipsePx>(&body.form))
        pairs.add("circle", number(round->radius_x));
    else if (const auto* capsule = std::get_if<CapsulePx>(&body.form))
        pairs.add("capsule", numbers({capsule->width, capsule->height}));
    if (body.x != 0 || body.y != 0) pairs.add("at", numbers({body.x, body.y}));
}

Pairs mover_pairs(const MoverDraft& mover) {
    Pairs body, pairs;
    add_body(body, mover.body);
    pairs.add("body", body.table());
    pairs.add_names("stopped_by", mover.stopped_by);
    pairs.add_names("meets", mover.meets);
    pairs.add_names("needs", mover.needs);
    pairs.add_text("moves", mover.moves.value, "free");
    pairs.add_number("jump_px", mover.jump_px);
    pairs.add_number("leap_px", mover.leap_px);
    pairs.add_number("drop_px", mover.drop_px);
    pairs.add_number("kerb_px", mover.kerb_px);
    pairs.add_number("slope_degrees", mover.slope_degrees);
    if (mover.picture) pairs.add("picture", picture_toml(*mover.picture, ""));
    for (const FeelerDraft& feeler : mover.feelers) {
        Pairs one;
        add_body(one, feeler.body);
        one.add_names("senses", feeler.senses);
        pairs.add_path("feelers", feeler.name.value, one.table());
    }
    return pairs;
}

Pairs kind_pairs(const KindDraft& kind) {
    Pairs pairs;
    pairs.add("like", kind.like);
    pairs.add("role", kind.role);
    pairs.add("mover", kind.mover);
    pairs.add("motion", kind.motion);
    if (kind.tags) pairs.add("tags", toml_text::texts(*kind.tags));
    pairs.add("stands", kind.stands);
    if (kind.area) pairs.add("area", shapes_toml(*kind.area).front());
    if (kind.picture) pairs.add("picture", picture_toml(*kind.picture, ""));
    add_fields(pairs, "fields", kind.fields);
    return pairs;
}

Pairs merging_pairs(const MergeSettings& merging) {
    const MergeSettings standard;
    Pairs pairs;
    pairs.add_number("within_px", merging.within_px, standard.within_px);
    pairs.add_number("most_vertices", merging.most_vertices, standard.most_vertices);
    pairs.add_number("chunk_cells", merging.chunk_cells, standard.chunk_cells);
    pairs.add_number("least_edge_px", merging.least_edge_px, standard.least_edge_px);
    if (merging.forms != standard.forms) pairs.add("forms", toml_text::texts(merging.forms));
    return pairs;
}

Pairs head_pairs(const WorldDraft& draft, const std::vector<std::string>& tilesets,
                 const std::vector<std::string>& maps) {
    Pairs pairs;
    pairs.add("format", in_quotes("dryground/world/1"));
    pairs.add_text("title", draft.title);
    pairs.add("per_metre", number(draft.per_metre.value));
    pairs.add("player", draft.player);
    pairs.add("start", draft.start);
    if (!draft.goal_objects.empty() || !draft.goal_facts.empty()) {
        Pairs goals;
        goals.add_names("objects", draft.goal_objects);
        goals.add_names("facts", draft.goal_facts);
        pairs.add("goals", goals.table());
    }
    pairs.add("tilesets", toml_text::texts(tilesets));
    pairs.add("maps", toml_text::texts(maps));
    pairs.add_waivers(draft.waive);
    return pairs;
}

}   // namespace

std::string world_toml(const WorldDraft& draft, const std::vector<std::string>& tilesets,
                       const std::vector<std::string>& maps) {
    std::string out = head_pairs(draft, tilesets, maps).lines();
    Pairs barriers, storeys, map_fields, layer_fields, limits, severities;
    for (const BarrierDraft& barrier : draft.barriers) {
        Pairs one;
        one.add_text("note", barrier.note);
        if (barrier.colour) one.add("colour", colour_toml(*barrier.colour));
        barriers.add(barrier.name.value, one.table());
    }
    for (const StoreyDraft& storey : draft.storeys) {
        Pairs one;
        one.add("base_px", number(storey.base_px));
        one.add("height_px", number(storey.height_px));
        storeys.add(storey.name.value, one.table());
    }
    add_fields(map_fields, "", draft.map_fields);
    add_fields(layer_fields, "", draft.layer_fields);
    for (const auto& [name, most] : draft.limits) limits.add(name.value, fmt::format("{}", most.value));
    for (const auto& [rule, severity] : draft.severities) severities.add(rule.value, in_quotes(severity.value));
    add_table(out, "barriers", barriers);
    add_notes(out, "flags", draft.flags);
    add_table(out, "storeys", storeys);
    for (const MoverDraft& mover : draft.movers) add_table(out, "movers." + mover.name.value, mover_pairs(mover));
    add_notes(out, "facts", draft.facts);
    add_notes(out, "events", draft.events);
    add_table(out, "map_fields", map_fields);
    add_table(out, "layer_fields", layer_fields);
    for (const KindDraft& kind : draft.kinds) {
        const Pairs pairs = kind_pairs(kind);
        out += fmt::format("\n[kinds.{}]\n{}", kind.name.value, pairs.lines());   // be it empty
    }
    add_table(out, "limits", limits);
    add_table(out, "merging", merging_pairs(draft.merging));
    add_table(out, "check", severities);
    return out;
}

}   // namespace dryground::files

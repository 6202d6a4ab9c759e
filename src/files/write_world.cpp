// The world file.

#include <fmt/format.h>

#include "write_keys_internal.hpp"

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

}   // namespace

void add_body(Pairs& pairs, const BodyDraft& body) {
    if (const auto* box = std::get_if<BoxPx>(&body.form))
        pairs.add("box", numbers({box->width, box->height}));
    else if (const auto* round = std::get_if<EllipsePx>(&body.form))
        pairs.add("circle", number(round->radius_x));
    else if (const auto* capsule = std::get_if<CapsulePx>(&body.form))
        pairs.add("capsule", numbers({capsule->width, capsule->height}));
    if (body.x != 0 || body.y != 0) pairs.add("at", numbers({body.x, body.y}));
}

namespace {

// [barriers] and the like: a line for each.
template <class Draft>
void add_lines(std::string& out, const std::string& name, const std::vector<Draft>& drafts) {
    Pairs pairs;
    for (const Draft& draft : drafts) pairs.add(draft.name.value, KeyWriter().pairs(draft).table());
    add_table(out, name, pairs);
}
// [movers.NAME] and the like: a table for each, empty ones too.
template <class Draft>
void add_tables(std::string& out, const std::string& name, const std::vector<Draft>& drafts) {
    for (const Draft& draft : drafts)
        out += fmt::format("\n[{}.{}]\n{}", name, draft.name.value, KeyWriter().pairs(draft).lines());
}

}   // namespace

std::string world_toml(const WorldDraft& draft, const std::vector<std::string>& tilesets,
                       const std::vector<std::string>& maps) {
    Pairs head, limits, severities;
    head.add("format", in_quotes("dryground/world/1"));
    KeyWriter().write(head, draft);
    if (!draft.goal_objects.empty() || !draft.goal_facts.empty()) {
        Pairs goals;
        goals.add_names("objects", draft.goal_objects);
        goals.add_names("facts", draft.goal_facts);
        head.add("goals", goals.table());
    }
    head.add("tilesets", toml_text::texts(tilesets));
    head.add("maps", toml_text::texts(maps));
    std::string out = head.lines();
    for (const auto& [name, most] : draft.limits) limits.add(name.value, fmt::format("{}", most.value));
    for (const auto& [rule, severity] : draft.severities) severities.add(rule.value, in_quotes(severity.value));
    add_lines(out, "barriers", draft.barriers);
    add_notes(out, "flags", draft.flags);
    add_lines(out, "storeys", draft.storeys);
    add_tables(out, "movers", draft.movers);
    add_notes(out, "facts", draft.facts);
    add_notes(out, "events", draft.events);
    add_lines(out, "map_props", draft.map_fields);
    add_lines(out, "layer_props", draft.layer_fields);
    add_tables(out, "kinds", draft.kinds);
    add_table(out, "limits", limits);
    add_table(out, "merging", KeyWriter().pairs(draft.merging));
    add_table(out, "check", severities);
    return out;
}

}   // namespace dryground::files

// The world file.

#include <fmt/format.h>

#include <algorithm>

#include "dryground/merge.hpp"
#include "reading_internal.hpp"

namespace dryground::files {

namespace {

// A table of names, each with a note: name = "note".
std::vector<NoteDraft> read_notes(Table& root, const char* key) {
    std::vector<NoteDraft> result;
    const auto table = root.table(key, key);
    if (!table) return result;
    for (const Entry& entry : table->entries()) {
        NoteDraft draft{entry.key, {}};
        if (const auto* note = entry.node->as_string())
            draft.note = note->get();
        else
            add_wrong_type(root.source(), *entry.node, fmt::format("'{}'", entry.key.value),
                           "a note in words, for people");
        result.push_back(std::move(draft));
    }
    return result;
}

// A body is one of box, circle, capsule, beside which `at` may stand.
BodyDraft read_body(Table& table) {
    BodyDraft body;
    body.place = table.place();
    const bool box = table.has("box"), circle = table.has("circle"), capsule = table.has("capsule");
    if (box + circle + capsule != 1) {
        table.source().add(Rule::missing_key, body.place, {table.what(), "box"},
                           Hint{"say exactly one form", "box = [w, h], circle = r, or capsule = [w, h]"});
        body.form = BoxPx{0, 0, 1, 1};
    }
    if (const auto n = table.numbers("box", 2)) body.form = BoxPx{0, 0, n->value[0], n->value[1]};
    if (const auto r = table.number("circle")) body.form = EllipsePx{0, 0, r->value, r->value};
    if (const auto n = table.numbers("capsule", 2)) body.form = CapsulePx{n->value[0], n->value[1]};
    if (const auto at = table.numbers("at", 2)) body.x = at->value[0], body.y = at->value[1];
    return body;
}

std::optional<double> bare(std::optional<Said<double>> said) {
    return said ? std::optional(said->value) : std::nullopt;
}

MoverDraft read_mover(const Reading& reading, const Name& name, Table& table) {
    MoverDraft draft;
    draft.name = name;
    if (auto body = table.table("body", fmt::format("the body of {}", table.what()))) {
        draft.body = read_body(*body);
        body->finish();
    } else if (!table.has("body")) {
        table.missing("body", "body = { box = [10, 14], at = [0, -7] }");
        draft.body.form = BoxPx{0, 0, 1, 1};
    } else {
        draft.body.form = BoxPx{0, 0, 1, 1};
    }
    draft.stopped_by = table.names("stopped_by").value_or(Names{});
    draft.meets = table.names("meets").value_or(Names{});
    draft.needs = table.names("needs").value_or(Names{});
    if (auto moves = table.text("moves")) draft.moves = std::move(*moves);
    draft.jump_px = bare(table.number("jump_px"));
    draft.leap_px = bare(table.number("leap_px"));
    draft.drop_px = bare(table.number("drop_px"));
    draft.kerb_px = bare(table.number("kerb_px"));
    draft.slope_degrees = bare(table.number("slope_degrees"));
    draft.picture = read_picture(reading, table);
    each_table(table, "feelers", "feeler", [&](const Name& feeler_name, Table& feeler) {
        FeelerDraft one;
        one.name = feeler_name;
        one.body = read_body(feeler);
        one.senses = feeler.names("senses").value_or(Names{});
        feeler.finish();
        draft.feelers.push_back(std::move(one));
    });
    table.finish();
    return draft;
}

KindDraft read_kind(const Reading& reading, const Name& name, Table& table) {
    KindDraft draft;
    draft.name = name;
    set(draft.like, table.text("like"));
    set(draft.role, table.text("role"));
    set(draft.motion, table.text("motion"));
    set(draft.stands, table.text("stands"));
    set(draft.mover, table.text("mover"));
    draft.tags = table.texts("tags");
    if (const toml::node* area = table.node("area"))
        draft.area = read_shape(table.source(), *area, fmt::format("the area of {}", table.what()));
    draft.fields = read_fields(table, "fields");
    draft.picture = read_picture(reading, table);
    table.finish();
    return draft;
}

void read_merging(Table& root, MergeSettings& merging) {
    auto table = root.table("merging", "'merging'");
    if (!table) return;
    set(merging.within_px, table->number("within_px"));
    if (const auto most = table->whole("most_vertices"))
        merging.most_vertices = static_cast<int>(std::clamp<std::int64_t>(most->value, -1, 1'000'000));
    if (const auto forms = table->names("forms")) {
        merging.forms.clear();
        for (const Name& form : *forms) {
            if (std::find(form_names().begin(), form_names().end(), form.value) != form_names().end())
                merging.forms.push_back(form.value);
            else
                root.source().add(Rule::out_of_range, form.place,
                                  {"a form", fmt::format("'{}'", form.value),
                                   fmt::format("one of {}", fmt::join(form_names(), ", "))});
        }
    }
    if (const auto chunk = table->whole("chunk_cells"))
        merging.chunk_cells = static_cast<int>(std::clamp<std::int64_t>(chunk->value, -1, 1'000'000));
    set(merging.least_edge_px, table->number("least_edge_px"));
    table->finish();
}

}   // namespace

WorldFile read_world(const Reading& reading, const toml::table& node) {
    Table root(reading.source, node, "a world");
    WorldFile file;
    WorldDraft& draft = file.draft;
    draft.place = {reading.source.file, 1, 1, {}};
    (void)root.text("format");
    set(draft.title, root.text("title"));
    if (auto per_metre = root.number("per_metre")) draft.per_metre = *per_metre;
    set(draft.player, root.text("player"));
    set(draft.start, root.text("start"));
    if (auto goals = root.table("goals", "'goals'")) {
        draft.goal_objects = goals->names("objects").value_or(Names{});
        draft.goal_facts = goals->names("facts").value_or(Names{});
        goals->finish();
    }
    file.tilesets = root.names("tilesets").value_or(Names{});
    file.maps = root.names("maps").value_or(Names{});
    each_table(root, "barriers", "barrier", [&](const Name& name, Table& table) {
        BarrierDraft barrier{name, {}, read_colour(table, "colour")};
        set(barrier.note, table.text("note"));
        table.finish();
        draft.barriers.push_back(std::move(barrier));
    });
    draft.flags = read_notes(root, "flags");
    each_table(root, "storeys", "storey", [&](const Name& name, Table& table) {
        StoreyDraft storey{name};
        set(storey.base_px, table.number("base_px"));
        set(storey.height_px, table.number("height_px"));
        table.finish();
        draft.storeys.push_back(storey);
    });
    each_table(root, "movers", "mover",
               [&](const Name& name, Table& table) { draft.movers.push_back(read_mover(reading, name, table)); });
    draft.facts = read_notes(root, "facts");
    draft.events = read_notes(root, "events");
    draft.map_fields = read_fields(root, "map_fields");
    draft.layer_fields = read_fields(root, "layer_fields");
    each_table(root, "kinds", "kind",
               [&](const Name& name, Table& table) { draft.kinds.push_back(read_kind(reading, name, table)); });
    read_merging(root, draft.merging);
    if (const auto check = root.table("check", "'check'"))
        for (const Entry& entry : check->entries()) {
            if (const auto* severity = entry.node->as_string())
                draft.severities.emplace_back(entry.key,
                                              Said<std::string>(severity->get(), reading.source.of(*severity)));
            else
                add_wrong_type(reading.source, *entry.node, fmt::format("'{}'", entry.key.value),
                               "one of error, warning, note, off");
        }
    if (const auto limits = root.table("limits", "'limits'"))
        for (const Entry& entry : limits->entries()) {
            if (const auto* most = entry.node->as_integer())
                draft.limits.emplace_back(entry.key, Said<std::int64_t>(most->get(), reading.source.of(*most)));
            else
                add_wrong_type(reading.source, *entry.node, fmt::format("limit '{}'", entry.key.value),
                               "a whole number");
        }
    draft.waive = read_waivers(root);
    root.finish();
    return file;
}

}   // namespace dryground::files

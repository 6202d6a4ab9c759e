// Objects of the map file.

#include <fmt/format.h>

#include "reading_internal.hpp"

namespace dryground::files {

namespace {

using ObjectForm = decltype(ObjectDraft::form);

std::optional<ObjectForm> read_object_form(Table& table, const std::string& said) {
    if (said == "at") {
        const auto n = table.numbers("at", 2);
        return n ? std::optional<ObjectForm>(PointPx{n->value[0], n->value[1]}) : std::nullopt;
    }
    if (said == "cell") {
        const auto n = table.wholes("cell", 2);
        return n ? std::optional<ObjectForm>(AtCells{n->value[0], n->value[1], 1, 1, false}) : std::nullopt;
    }
    if (said == "cells") {
        const auto n = table.wholes("cells", 4);
        return n ? std::optional<ObjectForm>(AtCells{n->value[0], n->value[1], n->value[2], n->value[3], true})
                 : std::nullopt;
    }
    auto drawn = read_drawn(table, said);
    if (!drawn) return std::nullopt;
    return std::visit([](auto& form) { return ObjectForm(std::move(form)); }, *drawn);
}

void read_carves(Table& table, ObjectDraft& draft) {
    const std::string what = fmt::format("a carve of {}", table.what());
    table.each("carves", what, "{ barrier = \"…\" }, with a shape or without", [&](Table carve) {
        ObjectCarve one;
        one.barrier = carve.required_text("barrier", "barrier = \"…\"");
        if (carve.tree().size() > 1) {
            one.shape = read_shape(table.source(), carve.tree(), what);
            if (!one.shape) return;
        }
        draft.carves.push_back(std::move(one));
    });
}

void read_holes(Table& table, ObjectDraft& draft) {
    const toml::array* list = table.list("holes", "a list of polygons [[[x, y], …], …]");
    if (list == nullptr) return;
    auto* polygon = std::get_if<PolygonPx>(&draft.form);
    if (polygon == nullptr) {
        table.source().add(Rule::unknown_key, table.source().of(*list), {"holes", table.what()},
                           Hint{"only polygons have holes", ""});
        return;
    }
    for (const toml::node& item : *list)
        if (auto points = read_points(table.source(), item, "a hole")) polygon->holes.push_back(std::move(*points));
}

}   // namespace

ObjectDraft read_object(Table table) {
    table.call_by_name("object");
    const Source& source = table.source();
    const std::string& what = table.what();
    ObjectDraft draft;
    draft.place = table.place();
    if (auto said = table.text("name")) draft.name = std::move(*said);
    if (auto said = table.text("kind")) draft.kind = std::move(*said);
    std::vector<std::string> forms;
    for (const char* key : {"at", "cell", "cells", "box", "polygon", "circle", "ellipse", "capsule", "line"})
        if (table.has(key)) forms.emplace_back(key);
    draft.place_of_form = draft.place;
    if (!forms.empty()) draft.place_of_form = source.of(*table.node(forms[0].c_str()));
    if (forms.size() > 1)
        source.add(Rule::out_of_range, draft.place,
                   {what, fmt::format("{} at once", fmt::join(forms, " and ")), "said in exactly one way"});
    if (forms.size() == 1) {
        if (auto form = read_object_form(table, forms[0]))
            draft.form = std::move(*form);
        else
            draft.form = PointPx{};   // its mistake is told; do not tell that nothing was said
    } else if (forms.size() > 1) {
        for (const std::string& key : forms) (void)table.node(key.c_str());
        draft.form = PointPx{};
    }
    set(draft.turn, table.number("turn"));
    draft.tags = table.texts("tags").value_or(std::vector<std::string>{});
    set(draft.storey, table.text("storey"));
    set(draft.barrier, table.text("barrier"));
    set(draft.fires, table.text("fires"));
    draft.by = table.names("by").value_or(Names{});
    set(draft.once, table.yes_no("once"));
    set(draft.every_s, table.number("every_s"));
    set(draft.runs, table.text("runs"));
    set(draft.to, table.text("to"));
    set(draft.arrival_runs, table.text("arrival_runs"));
    set(draft.one_way, table.yes_no("one_way"));
    draft.gives = table.names("gives").value_or(Names{});
    draft.needs = table.names("needs").value_or(Names{});
    draft.when = table.names("when").value_or(Names{});
    draft.unless = table.names("unless").value_or(Names{});
    draft.props = read_properties(table);
    set(draft.hollow, table.yes_no("hollow"));
    read_carves(table, draft);
    read_holes(table, draft);
    draft.waive = read_waivers(table);
    table.finish();
    return draft;
}

}   // namespace dryground::files

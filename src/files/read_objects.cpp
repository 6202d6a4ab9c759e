// Objects of the map file.

#include <fmt/format.h>

#include "read_keys_internal.hpp"

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

void read_holes(Table& table, decltype(ObjectDraft::form)& form) {
    const toml::array* list = table.list("holes", "a list of polygons [[[x, y], …], …]");
    if (list == nullptr) return;
    auto* polygon = std::get_if<PolygonPx>(&form);
    if (polygon == nullptr) {
        table.source().add(Rule::unknown_key, table.source().of(*list), {"holes", table.what()},
                           Hint{"only polygons have holes", ""});
        return;
    }
    for (const toml::node& item : *list)
        if (auto points = read_points(table.source(), item, "a hole")) polygon->holes.push_back(std::move(*points));
}

}   // namespace

void KeyReader::read_key(Table& table, const Key& key, std::vector<ObjectCarve>& into) const {
    const std::string what = fmt::format("a carve of {}", table.what());
    table.each(name(key), what, "{ barrier = \"…\" }, with a shape or without", [&](Table carve) {
        ObjectCarve one;
        one.barrier = carve.required_text("barrier", "barrier = \"…\"");
        if (carve.tree().size() > 1) {
            one.shape = read_carve_shape(carve);
            if (!one.shape) return;
        }
        into.push_back(std::move(one));
    });
}

void KeyReader::read_group(Table& table, ObjectDraft& draft, decltype(ObjectDraft::form)& into) const {
    const Source& source = table.source();
    const std::vector<std::string> forms = said_of(table, keys::object_place);
    draft.place_of_form = forms.empty() ? draft.place : source.of(*table.node(forms[0].c_str()));
    if (forms.size() > 1)
        source.add(Rule::out_of_range, draft.place,
                   {table.what(), fmt::format("{} at once", fmt::join(forms, " and ")), "said in exactly one way"});
    if (!forms.empty()) into = PointPx{};   // a mistake in it is reported; do not report that it is missing
    if (forms.size() == 1)
        if (auto form = read_object_form(table, forms[0])) into = std::move(*form);
    read_holes(table, into);
}

}   // namespace dryground::files

// Layers of a map: added, removed, moved below or above others.

#include <fmt/format.h>

#include <algorithm>

#include "edit_world_internal.hpp"
#include "text_tables_internal.hpp"

namespace dryground::files {

namespace {

std::size_t find_layer(const OpenMap& map, const std::string& name) {
    std::vector<std::string> names;
    for (const LayerDraft& layer : map.draft.layers) {
        if (layer.name.value == name) return names.size();
        names.push_back(layer.name.value);
    }
    unknown_name("the map", "layer", name, names);
}

// Returns the whole of a layer: its table, with those inside it.
TextSpan span_of(const OpenMap& map, std::size_t layer) {
    const std::vector<TextSpan> parts = TextTables(map.text, map.tree).parts({"layers", std::to_string(layer)});
    if (parts.empty()) throw EditFault("the map's layers are not written as [[layers]]: change their order by hand");
    return {parts.front().begin, parts.back().end};
}

// Returns where a layer goes that is to lie above or below another, or uppermost.
std::size_t place_for(const OpenMap& map, const std::string& above, const std::string& below) {
    if (!above.empty() && !below.empty()) throw EditFault("name the layer above or the layer below, not both");
    if (!below.empty()) return span_of(map, find_layer(map, below)).begin;
    if (!above.empty()) return span_of(map, find_layer(map, above)).end;
    return map.draft.layers.empty() ? map.text.text().size() : span_of(map, map.draft.layers.size() - 1).end;
}

// Returns rows of empty cells.
std::string empty_rows(const OpenMap& map) {
    const auto [columns, rows] = map.draft.size.value;
    std::string key;
    for (const std::string candidate : {".", " "}) {
        const auto said = std::find_if(map.draft.legend.begin(), map.draft.legend.end(),
                                       [&](const LegendEntry& entry) { return entry.key.value == candidate; });
        if (key.empty() && said == map.draft.legend.end()) key = candidate;
    }
    if (key.empty()) throw EditFault("the map's legend gives both '.' and ' ' to tiles: no sign is left for nothing");
    std::string row;
    for (int c = 0; c < columns; ++c) row += key;
    return toml_text::rows(std::vector<std::string_view>(static_cast<std::size_t>(rows), row));
}

}   // namespace

void edit(OpenMap& map, const AddLayer& add) {
    for (const LayerDraft& layer : map.draft.layers)
        if (layer.name.value == add.layer) throw EditFault(fmt::format("the map has a layer '{}' already", add.layer));
    toml_text::Pairs pairs;
    pairs.add("name", toml_text::in_quotes(add.layer));
    pairs.add_all(new_keys("layer", fmt::format("layer '{}'", add.layer), properties_of(map.world.layer_fields),
                           add.values, false));
    const auto says = [&](const char* key) {
        return std::any_of(add.values.begin(), add.values.end(), [&](const auto& one) { return one.first == key; });
    };
    if (!says("csv") && !says("png") && !says("svg"))
        add.of_objects ? pairs.add("objects", std::string("[]")) : pairs.add("rows", empty_rows(map));
    std::string lines = "[[layers]]\n" + pairs.lines();
    lines.pop_back();
    insert_part(map.text, place_for(map, add.above, add.below), with_line_breaks(map.text, lines));
    ++map.count;
}

void edit(OpenMap& map, const DropLayer& drop) {
    drop_parts(map.text, {span_of(map, find_layer(map, drop.layer))});
    ++map.count;
}

void edit(OpenMap& map, const OrderLayer& order) {
    if (order.above.empty() == order.below.empty()) throw EditFault("name the layer above or the layer below");
    const TextSpan span = span_of(map, find_layer(map, order.layer));
    const std::size_t at = place_for(map, order.above, order.below);
    if (at >= span.begin && at <= span.end) return;   // it lies there
    const std::string part = part_text(map.text, span);
    drop_parts(map.text, {span});
    insert_part(map.text, at, part);
    ++map.count;
}

}   // namespace dryground::files

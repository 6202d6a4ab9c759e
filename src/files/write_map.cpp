// The map file, and the files beside it that hold cells.

#include <fmt/format.h>

#include <algorithm>

#include "writing_internal.hpp"

namespace dryground::files {

using toml_text::in_quotes;
using toml_text::list;
using toml_text::numbers;
using toml_text::Pairs;

namespace {

template <std::size_t n>
std::string wholes(const std::array<int, n>& numbers) {
    return fmt::format("[{}]", fmt::join(numbers, ", "));
}

// An area made in code, as the one polygon with holes that an object can have: its own outline where it has but one;
// else the box around it, with all holes that leave the area.
PolygonPx polygon_of(const Regions& area) {
    PolygonPx polygon;
    if (area.size() == 1) {
        polygon.points = points_px(area.front().outline);
        for (const Ring& hole : area.front().holes) polygon.holes.push_back(points_px(hole));
    } else if (const auto box = bounds(area)) {
        const Regions around{box_region(box->least, box->most)};
        polygon.points = points_px(around.front().outline);
        for (const Ring& hole : convex_pieces(subtract(around, area), 8)) polygon.holes.push_back(points_px(hole));
    }
    return polygon;
}

void add_place(Pairs& pairs, const ObjectDraft& object) {
    if (const auto* at = std::get_if<PointPx>(&object.form)) {
        pairs.add("at", numbers({at->x, at->y}));
    } else if (const auto* cells = std::get_if<AtCells>(&object.form)) {
        if (cells->block)
            pairs.add("cells", wholes(std::array{cells->column, cells->row, cells->columns, cells->rows}));
        else
            pairs.add("cell", wholes(std::array{cells->column, cells->row}));
    } else if (const auto* area = std::get_if<Regions>(&object.form)) {
        add_form(pairs, polygon_of(*area));
    } else {
        std::visit(
            [&](const auto& form) {
                if constexpr (std::is_constructible_v<Form, decltype(form)>) add_form(pairs, form);
            },
            object.form);
    }
}

void add_carves(Pairs& pairs, const std::vector<ObjectCarve>& carves) {
    std::vector<std::string> items;
    for (const ObjectCarve& carve : carves) {
        Pairs one;
        one.add("barrier", in_quotes(carve.barrier.value));
        const auto* area = carve.shape ? std::get_if<Regions>(&carve.shape->form) : nullptr;
        if (area == nullptr) {
            if (carve.shape) add_form(one, carve.shape->form);
            items.push_back(one.table());
            continue;
        }
        for (const Ring& piece : convex_pieces(*area, 8)) {
            Pairs part = one;
            part.add("polygon", toml_text::points(points_px(piece)));
            items.push_back(part.table());
        }
    }
    if (!items.empty()) pairs.add("carves", list(items));
}

// What an object, or a painted one, has to do with facts.
template <class Draft>
void add_facts(Pairs& pairs, const Draft& draft) {
    pairs.add_names("needs", draft.needs);
    pairs.add_names("gives", draft.gives);
    pairs.add_names("when", draft.when);
    pairs.add_names("unless", draft.unless);
}

std::string object_toml(const ObjectDraft& object) {
    Pairs pairs;
    pairs.add_name("name", object.name);
    pairs.add_name("kind", object.kind);
    add_place(pairs, object);
    pairs.add_number("turn", object.turn, 0);
    pairs.add_yes_no("hollow", object.hollow);
    add_carves(pairs, object.carves);
    pairs.add("storey", object.storey);
    pairs.add("barrier", object.barrier);
    pairs.add_texts("tags", object.tags);
    pairs.add("to", object.to);
    pairs.add_yes_no("one_way", object.one_way);
    pairs.add("arrival_runs", object.arrival_runs);
    pairs.add("fires", object.fires);
    pairs.add_names("by", object.by);
    pairs.add_yes_no("once", object.once);
    pairs.add_number("every_s", object.every_s, 0);
    add_facts(pairs, object);
    pairs.add("runs", object.runs);
    pairs.add_properties(object.props);
    pairs.add_waivers(object.waive);
    return pairs.table();
}

std::string except_toml(const ExceptDraft& except) {
    Pairs pairs;
    pairs.add("cell", wholes(except.cell));
    pairs.add_name("name", except.name);
    pairs.add_texts("tags", except.tags);
    add_facts(pairs, except);
    pairs.add_properties(except.props);
    return pairs.table();
}

template <class Items, class Write>
std::string lines_of_tables(const Items& items, Write write) {
    std::string out = "[\n";
    for (const auto& item : items) out += "  " + write(item) + ",\n";
    return out + "]";
}

void add_settings(Pairs& pairs, const LayerDraft& layer) {
    pairs.add("kind", layer.kind);
    pairs.add_yes_no("decor", layer.decor);
    pairs.add_yes_no("shown", layer.shown, true);
    pairs.add("storey", layer.storey);
    pairs.add_text("band", layer.band.value, "behind");
    pairs.add_number("opacity", layer.opacity.value, 1);
    pairs.add("barrier", layer.barrier);
    pairs.add("trigger", layer.trigger);
    add_surface(pairs, layer.surface);
    pairs.add("one_way", layer.one_way);
    if (layer.flags) pairs.add("flags", toml_text::names(*layer.flags));
    if (layer.offset != std::array<double, 2>{}) pairs.add("offset", numbers({layer.offset[0], layer.offset[1]}));
    if (layer.shape_offset != std::array<double, 2>{})
        pairs.add("shape_offset", numbers({layer.shape_offset[0], layer.shape_offset[1]}));
    if (layer.sink != std::array<double, 4>{})
        pairs.add("sink", numbers({layer.sink[0], layer.sink[1], layer.sink[2], layer.sink[3]}));
    pairs.add_names("when", layer.when);
    pairs.add_names("unless", layer.unless);
    pairs.add_texts("tags", layer.tags);
    pairs.add_properties(layer.props);
    pairs.add_waivers(layer.waive);
}

std::string rows_toml(const LayerDraft& layer) {
    std::vector<std::string> made;
    if (layer.cells) {   // cells that were made in code, of single characters
        std::size_t begin = 0;
        for (const std::size_t end : layer.cells->row_ends) {
            std::string& row = made.emplace_back();
            for (; begin < end; ++begin) row += layer.cells->keys[layer.cells->numbers[begin]];
        }
    }
    std::vector<std::string_view> rows(made.begin(), made.end());
    for (const Said<std::string>& row : layer.rows) rows.push_back(row.value);
    return toml_text::rows(rows);
}

}   // namespace

std::vector<NamedBytes> map_files(const MapDraft& draft, const std::string& folder, const std::string& name) {
    std::vector<NamedBytes> files{{folder + name, {}}};
    Pairs head;
    head.add("format", in_quotes("dryground/map/1"));
    head.add("name", in_quotes(draft.name.value));
    head.add_text("title", draft.title);
    head.add_text("grid", draft.grid.value, "square");
    head.add("cell", wholes(draft.cell.value));
    head.add("size", wholes(draft.size.value));
    if (draft.first != std::array<int, 2>{}) head.add("first", wholes(draft.first));
    head.add("rim", draft.rim);
    head.add("player", draft.player);
    head.add("tilesets", toml_text::names(draft.tilesets));
    if (draft.seed != 0) head.add("seed", fmt::format("{}", static_cast<std::int64_t>(draft.seed)));
    if (draft.cell_parts.value != 1) head.add("cell_parts", fmt::format("{}", draft.cell_parts.value));
    head.add_properties(draft.props);
    head.add_waivers(draft.waive);
    std::string out = head.lines() + legend_toml("legend", draft.legend);
    for (const LayerDraft& layer : draft.layers) {
        Pairs pairs;
        pairs.add("name", in_quotes(layer.name.value));
        add_settings(pairs, layer);
        if (!layer.except.empty()) pairs.add("except", lines_of_tables(layer.except, except_toml));
        const bool beside = layer.cells && layer.cells->sort != CellTable::Sort::rows;
        if (layer.holds_objects) {
            pairs.add("objects", layer.objects.empty() ? "[]" : lines_of_tables(layer.objects, object_toml));
        } else if (beside) {
            const bool csv = layer.cells->sort == CellTable::Sort::csv;
            const std::string file = fmt::format("{}_{}.{}", draft.name.value, layer.name.value, csv ? "csv" : "png");
            pairs.add(csv ? "csv" : "png", in_quotes(file));
            files.push_back({folder + file, csv ? csv_text(*layer.cells) : encode_png(picture_of(*layer.cells))});
        } else {
            pairs.add("rows", rows_toml(layer));
        }
        out += "\n[[layers]]\n" + pairs.lines();
        if (!layer.legend.empty()) out += legend_toml("layers.legend", layer.legend).substr(1);
    }
    files.front().bytes = std::move(out);
    return files;
}

}   // namespace dryground::files

// Writes the map file, and the files beside it that hold cells.

#include <fmt/format.h>

#include <algorithm>

#include "write_keys_internal.hpp"

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

// Writes an area made in code as the one polygon with holes that an object can have: its own outline if it has only
// one; else the box around it, with all holes that leave the area.
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

}   // namespace

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

std::string carves_toml(const std::vector<ObjectCarve>& carves) {
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
    return list(items);
}

namespace {

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
    for (const Located<std::string>& row : layer.rows) rows.push_back(row.value);
    return toml_text::rows(rows);
}

}   // namespace

std::vector<NamedBytes> map_files(const MapDraft& draft, const std::string& folder, const std::string& name) {
    std::vector<NamedBytes> files{{folder + name, {}}};
    const KeyWriter keys(folder);
    Pairs head;
    head.add("format", in_quotes("dryground/map/1"));
    keys.write(head, draft);
    std::string out = head.lines() + legend_toml("legend", draft.legend);
    for (const LayerDraft& layer : draft.layers) {
        Pairs pairs = keys.pairs(layer);
        const bool beside = layer.cells && layer.cells->sort != CellTable::Sort::rows;
        if (layer.holds_objects) {
            std::vector<std::string> objects;
            for (const ObjectDraft& object : layer.objects) objects.push_back(keys.pairs(object).table());
            pairs.add("objects", objects.empty() ? "[]" : toml_text::list_by_line(objects));
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

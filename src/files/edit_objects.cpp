// Objects, changed where they are written: in a list of inline tables, or in tables of their own.

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "edit_internal.hpp"
#include "text_tables_internal.hpp"
#include "writing_internal.hpp"

namespace dryground::files {

using toml_text::in_quotes;
using toml_text::number;
using toml_text::numbers;
using toml_text::Pairs;

namespace {

struct Found {
    std::size_t layer = 0, index = 0;
    const toml::array* list = nullptr;
    const toml::table* tree = nullptr;
    const ObjectDraft* draft = nullptr;
};

Found find(const OpenMap& map, const std::string& name) {
    std::vector<std::string> names;
    for (std::size_t l = 0; l < map.draft.layers.size(); ++l) {
        const LayerDraft& layer = map.draft.layers[l];
        for (const ExceptDraft& except : layer.except)
            if (except.name.value == name)
                throw EditFault(
                    fmt::format("'{}' is painted in cell ({}, {}) of layer '{}', and described in that layer's "
                                "'except': edit the cell, or the list by hand",
                                name, except.cell.column, except.cell.row, layer.name.value));
        const toml::array* list = map.layer_tree(l)["objects"].as_array();
        for (std::size_t i = 0; i < layer.objects.size(); ++i) {
            const std::string& one = layer.objects[i].name.value;
            if (!one.empty()) names.push_back(one);
            if (one != name || one.empty()) continue;
            if (list == nullptr || list->size() != layer.objects.size())
                throw EditFault(fmt::format("object '{}' is not written in the map's own file", name));
            return {l, i, list, (*list)[i].as_table(), &layer.objects[i]};
        }
    }
    const auto nearest = nearest_name(name, names);
    throw EditFault(fmt::format("the map has no object '{}'{}", name,
                                nearest ? fmt::format("; did you mean '{}'?", *nearest) : ""));
}

std::string place_toml(const ObjectAt& at, const char*& key) {
    if (const auto* point = std::get_if<PointPx>(&at)) {
        key = "at";
        return numbers({point->x, point->y});
    }
    if (const auto* cell = std::get_if<Cell>(&at)) {
        key = "cell";
        return fmt::format("[{}, {}]", (*cell).column, (*cell).row);
    }
    key = "cells";
    const CellArea& area = std::get<CellArea>(at);
    return fmt::format("[{}, {}, {}, {}]", area.column, area.row, area.columns, area.rows);
}

void move_number(OpenMap& map, const toml::node& node, double by) {
    if (const auto* whole = node.as_integer(); whole != nullptr && by == std::floor(by))
        map.text.replace(node, fmt::format("{}", whole->get() + static_cast<std::int64_t>(by)));
    else if (whole != nullptr)
        map.text.replace(node, number(static_cast<double>(whole->get()) + by));
    else if (const auto* real = node.as_floating_point())
        map.text.replace(node, number(real->get() + by));
}

bool is_point_like(const ObjectDraft& object) {
    return std::holds_alternative<PointPx>(object.form) || std::holds_alternative<AtCells>(object.form);
}

}   // namespace

void move_points(OpenMap& map, const toml::node& node, const PointPx& by) {
    const toml::array* list = node.as_array();
    if (list == nullptr) return;
    if (list->size() == 2 && (*list)[0].is_number() && (*list)[1].is_number()) {
        move_number(map, (*list)[0], by.x);
        move_number(map, (*list)[1], by.y);
        return;
    }
    for (const toml::node& item : *list) move_points(map, item, by);
}

void move_numbers(OpenMap& map, const toml::table& object, const PointPx& by, const Cell& cells) {
    for (const auto& [key, node] : object) {
        const std::string_view name = key.str();
        const toml::array* list = node.as_array();
        if (name == "at" || name == "polygon" || name == "line" || name == "holes") {
            move_points(map, node, by);
        } else if (name == "carves" && list != nullptr) {
            for (const toml::node& carve : *list)
                if (carve.is_table()) move_numbers(map, *carve.as_table(), by, cells);
        } else if ((name == "cell" || name == "cells") && list != nullptr && list->size() >= 2) {
            move_number(map, (*list)[0], cells.column);
            move_number(map, (*list)[1], cells.row);
        } else if ((name == "box" || name == "circle" || name == "ellipse" || name == "capsule") && list != nullptr &&
                   list->size() >= 3) {
            move_number(map, (*list)[0], by.x);
            move_number(map, (*list)[1], by.y);
            if (name == "capsule" && list->size() >= 4) {
                move_number(map, (*list)[2], by.x);
                move_number(map, (*list)[3], by.y);
            }
        }
    }
}

void edit(OpenMap& map, const AddObject& add) {
    const std::size_t layer = map.layer(add.layer, true);
    for (const auto& [key, value] : add.values)
        if (key == "name" || key == "kind")
            throw EditFault(fmt::format("{} = {} is one too many: the object's {} is '{}' already", key, value, key,
                                        key == "name" ? add.name : add.kind));
    Pairs pairs;
    pairs.add("name", in_quotes(add.name));
    pairs.add("kind", in_quotes(add.kind));
    if (add.at) {
        const char* key = "at";
        const std::string place = place_toml(*add.at, key);
        pairs.add(key, place);
    }
    if (!add.to.empty()) pairs.add("to", in_quotes(add.to));
    const std::string what = fmt::format("kind '{}'", add.kind);
    pairs.add_all(new_keys("object", what, properties_of(map.world, add.kind), add.values, true));
    const toml::node* node = map.layer_tree(layer).get("objects");
    const toml::array* list = node != nullptr ? node->as_array() : nullptr;
    if (list == nullptr)
        throw EditFault(
            fmt::format("layer '{}' is not written as a list of objects", map.draft.layers[layer].name.value));
    ++map.count;
    TextEdits& text = map.text;
    const std::string line_break = text.line_break();
    if (list->empty()) {
        text.replace(*list, fmt::format("[{}  {},{}]", line_break, pairs.table(), line_break));
        return;
    }
    const toml::node& last = list->back();
    if (!last.as_table()->is_inline()) {   // [[layers.objects]]
        std::size_t at = text.offset(last.source().end);
        for (const auto& [name, value] : *last.as_table()) at = std::max(at, text.offset(value.source().end));
        std::string lines = pairs.lines();
        lines.pop_back();
        lines = with_line_breaks(text, lines);
        text.insert(text.line_end(at), fmt::format("{0}{0}[[layers.objects]]{0}{1}", line_break, lines));
        return;
    }
    append_item(text, map.layer_tree(layer), "objects", pairs.table(), "");
}

void edit(OpenMap& map, const MoveObject& move) {
    const Found found = find(map, move.name);
    ++map.count;
    if (move.by) {
        const auto* px = std::get_if<PointPx>(&move.to);
        const auto* cells = std::get_if<Cell>(&move.to);
        const auto [width, height] = map.draft.cell.value;
        const bool by_cell = std::holds_alternative<AtCells>(found.draft->form);
        if (by_cell && cells == nullptr)
            throw EditFault(fmt::format("'{}' is placed by cell: move it by cells", move.name));
        const PointPx by = px != nullptr ? *px
                           : map.draft.grid.value == "isometric"
                               ? PointPx{((*cells).column - (*cells).row) * width / 2.0,
                                         ((*cells).column + (*cells).row) * height / 2.0}
                               : PointPx{0.0 + (*cells).column * width, 0.0 + (*cells).row * height};
        move_numbers(map, *found.tree, by, cells != nullptr ? *cells : Cell{});
        return;
    }
    if (!is_point_like(*found.draft))
        throw EditFault(fmt::format("'{}' has a shape of its own: move it by so much, not to a place", move.name));
    const char* key = "at";
    const ObjectAt at = std::visit([](const auto& to) { return ObjectAt(to); }, move.to);
    const std::string place = place_toml(at, key);
    for (const auto& [name, node] : *found.tree) {
        if (name.str() != "at" && name.str() != "cell" && name.str() != "cells") continue;
        if (name.str() == "cells")
            throw EditFault(fmt::format("'{}' covers cells: move it by so much, not to a place", move.name));
        if (name.str() != key)
            map.text.replace(map.text.offset(name.source().begin), map.text.offset(name.source().end), key);
        map.text.replace(node, place);
    }
}

void edit(OpenMap& map, const DropObject& drop) {
    const Found found = find(map, drop.name);
    ++map.count;
    TextEdits& text = map.text;
    const std::string& all = text.text();
    if (!found.tree->is_inline()) {   // to the next table
        std::size_t begin = text.offset(found.tree->source().begin), end = text.offset(found.tree->source().end);
        for (const auto& [key, node] : *found.tree) end = std::max(end, text.offset(node.source().end));
        if (const toml::table* props = (*found.tree)["props"].as_table())
            for (const auto& [key, node] : *props) end = std::max(end, text.offset(node.source().end));
        begin = text.line_start(begin);
        text.replace(begin, std::min(all.find('\n', end), all.size() - 1) + 1, "");
        return;
    }
    drop_item(text, *found.tree);
}

void edit(OpenMap& map, const GiveObject& give) {
    const Found found = find(map, give.name);
    std::string kind = found.draft->kind.value;
    if (kind.empty() && map.draft.layers[found.layer].kind) kind = map.draft.layers[found.layer].kind->value;
    map.count += set_keys(map.text, *found.tree, "object", fmt::format("object '{}'", give.name),
                          properties_of(map.world, kind), give.values);
}

}   // namespace dryground::files

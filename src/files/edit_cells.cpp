// Cells, changed where they stand: a character of a row, a field of a CSV line, a pixel of a PNG.

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "../model/cell_keys_internal.hpp"
#include "../model/utf8_internal.hpp"
#include "edit_internal.hpp"
#include "writing_internal.hpp"

namespace dryground::files {

namespace {

// "set/tile" for a tile by its name, bare or not. Throws EditFault where it is none, or two.
std::string full_name(const OpenMap& map, const std::string& name) {
    std::vector<std::string> found, known;
    for (const Name& set_name : map.draft.tilesets)
        for (const TileSetDraft& set : map.tilesets) {
            if (set.name.value != set_name.value) continue;
            for (const TileDraft& tile : set.tiles) {
                const std::string full = set.name.value + "/" + tile.name.value;
                known.push_back(tile.name.value);
                if (name == full || name == tile.name.value) found.push_back(full);
            }
        }
    if (found.size() == 1) return found.front();
    if (found.size() > 1)
        throw EditFault(fmt::format("tile '{}' is in two tile sets: say {}", name, fmt::join(found, " or ")));
    const auto nearest = nearest_name(name, known);
    throw EditFault(fmt::format("the map's tile sets have no tile '{}'{}", name,
                                nearest ? fmt::format("; did you mean '{}'?", *nearest) : ""));
}

std::string meaning_of_entry(const OpenMap& map, const LegendEntry& entry) {
    if (entry.kind) return "kind " + entry.kind->value;
    if (!entry.kinds.empty()) return "kinds of '" + entry.key.value + "'";
    if (entry.family) return "family " + entry.family->value;
    if (entry.block) return "block " + entry.block->value;
    if (entry.tile.value.empty()) return {};
    try {
        return full_name(map, entry.tile.value) + words_of(entry.orientation);
    } catch (const EditFault&) {
        return "unknown '" + entry.key.value + "'";
    }
}

}   // namespace

std::size_t OpenMap::layer(const std::string& name, bool of_objects) const {
    std::vector<std::size_t> fitting;
    std::vector<std::string> names;
    for (std::size_t i = 0; i < draft.layers.size(); ++i) {
        const LayerDraft& one = draft.layers[i];
        if (one.holds_objects != of_objects || one.unread) continue;
        names.push_back(one.name.value);
        if (name.empty() || one.name.value == name) fitting.push_back(i);
    }
    if (fitting.size() == 1) return fitting.front();
    const char* sort = of_objects ? "objects" : "cells";
    if (names.empty()) throw EditFault(fmt::format("the map has no layer of {}", sort));
    if (name.empty())
        throw EditFault(fmt::format("the map has several layers of {}: say which: {}", sort, fmt::join(names, ", ")));
    const auto nearest = nearest_name(name, names);
    throw EditFault(fmt::format(
        "the map has no layer of {} '{}'; {}", sort, name,
        nearest ? fmt::format("did you mean '{}'?", *nearest) : fmt::format("it has: {}", fmt::join(names, ", "))));
}

const toml::table& OpenMap::layer_tree(std::size_t layer) const {
    const toml::array* layers = tree["layers"].as_array();
    if (layers == nullptr || layer >= layers->size() || !(*layers)[layer].is_table())
        throw EditFault("the map's layers are not written as [[layers]]");
    return *(*layers)[layer].as_table();
}

CellGrid::CellGrid(OpenMap& map, std::size_t layer)
    : map_(map),
      layer_(layer),
      draft_(map.draft.layers[layer]),
      table_(draft_.cells ? *draft_.cells : table_of(draft_.rows)),
      columns_(map.draft.size.value[0]),
      rows_(map.draft.size.value[1]) {
    bool fits = table_.row_ends.size() == static_cast<std::size_t>(rows_);
    for (std::size_t r = 0; fits && r < table_.row_ends.size(); ++r)
        fits = table_.row_ends[r] == (r + 1) * static_cast<std::size_t>(columns_);
    if (!fits)
        throw EditFault(fmt::format("layer '{}' does not have the map's {} x {} cells: `dryground check` tells where",
                                    draft_.name.value, columns_, rows_));
    numbers_ = table_.numbers;
    for (const std::string& key : table_.keys) meanings_.push_back(meaning_of_key(key));
}

bool CellGrid::has(int column, int row) const { return column >= 0 && row >= 0 && column < columns_ && row < rows_; }

std::uint32_t CellGrid::at(int column, int row) const {
    if (!has(column, row)) {
        const auto [first_column, first_row] = map_.draft.first;
        throw EditFault(fmt::format("cell ({}, {}) is outside the map, which reaches from ({}, {}) to ({}, {})",
                                    column + first_column, row + first_row, first_column, first_row,
                                    first_column + columns_ - 1, first_row + rows_ - 1));
    }
    return numbers_[static_cast<std::size_t>(row) * static_cast<std::size_t>(columns_) +
                    static_cast<std::size_t>(column)];
}

std::string CellGrid::meaning_of_key(const std::string& key) const {
    for (const auto* legend : {&draft_.legend, &map_.draft.legend})
        for (const LegendEntry& entry : *legend)
            if (canonical_key(entry.key.value) == key) return meaning_of_entry(map_, entry);
    if (is_empty_key(table_.sort, key)) return {};
    if (table_.sort != CellTable::Sort::csv) return "unknown '" + key + "'";
    const std::size_t colon = std::min(key.find(':'), key.size());
    const auto orientation = orientation_from(std::string_view(key).substr(colon));
    try {
        return orientation ? full_name(map_, key.substr(0, colon)) + words_of(*orientation) : "unknown '" + key + "'";
    } catch (const EditFault&) {
        return "unknown '" + key + "'";
    }
}

std::string CellGrid::meaning_of_tile(const std::string& tile) const {
    if (tile.empty()) return {};
    const std::size_t colon = std::min(tile.find(':'), tile.size());
    const auto orientation = orientation_from(std::string_view(tile).substr(colon));
    if (!orientation)
        throw EditFault(
            fmt::format("'{}' is no tile: flips and turns are :x :y :xy :90 :180 :270, the flip first", tile));
    return full_name(map_, tile.substr(0, colon)) + words_of(*orientation);
}

std::uint32_t CellGrid::key_for(const std::string& tile) {
    const std::string meaning = meaning_of_tile(tile);
    const auto found = std::find(meanings_.begin(), meanings_.end(), meaning);
    if (found != meanings_.end()) return static_cast<std::uint32_t>(found - meanings_.begin());
    const auto add = [&](const std::string& key) {
        table_.keys.push_back(key);
        meanings_.push_back(meaning);
        return static_cast<std::uint32_t>(table_.keys.size() - 1);
    };
    // What the legends have already, or what needs none.
    std::vector<std::string> keys;
    for (const auto* legend : {&draft_.legend, &map_.draft.legend})
        for (const LegendEntry& entry : *legend) keys.push_back(canonical_key(entry.key.value));
    if (tile.empty()) {
        const std::vector<std::string> nothing =
            table_.sort == CellTable::Sort::rows  ? std::vector<std::string>{".", " "}
            : table_.sort == CellTable::Sort::csv ? std::vector<std::string>{""}
                                                  : std::vector<std::string>{"#00000000"};
        keys.insert(keys.end(), nothing.begin(), nothing.end());
    }
    if (table_.sort == CellTable::Sort::csv) keys.insert(keys.end(), {tile, meaning});
    for (const std::string& key : keys) {
        const bool right_sort =
            table_.sort == CellTable::Sort::csv ||
            (table_.sort == CellTable::Sort::rows ? utf8::count(key) == 1
                                                  : (key.size() == 7 || key.size() == 9) && key[0] == '#');
        if (right_sort && meaning_of_key(key) == meaning) return add(key);
    }
    const std::string key = free_key(tile);
    add_to_legend(key, tile);
    return add(key);
}

// A key that nobody uses: a letter of the tile's name, any other sign; or a colour made from its name.
std::string CellGrid::free_key(const std::string& tile) const {
    std::set<std::string> taken(table_.keys.begin(), table_.keys.end());
    for (const auto* legend : {&draft_.legend, &map_.draft.legend})
        for (const LegendEntry& entry : *legend) taken.insert(canonical_key(entry.key.value));
    for (const LayerDraft& layer : map_.draft.layers)
        for (const LegendEntry& entry : layer.legend) taken.insert(canonical_key(entry.key.value));
    if (table_.sort == CellTable::Sort::png) {
        std::uint32_t hash = 2166136261u;   // FNV-1a
        for (const char c : tile) hash = (hash ^ static_cast<unsigned char>(c)) * 16777619u;
        for (;; hash = hash * 1664525u + 1013904223u)
            if (std::string key = fmt::format("#{:06x}", hash >> 8); taken.count(key) == 0) return key;
    }
    std::string candidates = tile.substr(tile.find('/') == std::string::npos ? 0 : tile.find('/') + 1);
    for (const char c : candidates)
        if (c >= 'a' && c <= 'z') candidates += static_cast<char>(c - 'a' + 'A');
    for (char c = '!'; c <= '~'; ++c) candidates += c;
    for (const char c : candidates)
        if (const std::string key(1, c); std::string(". \\\"':_").find(c) == std::string::npos && taken.count(key) == 0)
            return key;
    for (int code = 0xC0; code < 0x250; ++code)
        if (const std::string key{static_cast<char>(0xC0 | code >> 6), static_cast<char>(0x80 | (code & 0x3F))};
            taken.count(key) == 0)
            return key;
    throw EditFault("every character that could stand for the tile is taken; add one to the legend yourself");
}

// Behind the last entry of the layer's own legend, else of the map's; where there is none, as a new one.
void CellGrid::add_to_legend(const std::string& key, const std::string& tile) {
    const std::size_t colon = std::min(tile.find(':'), tile.size());
    toml_text::Pairs words;
    words.add("tile", toml_text::in_quotes(tile.substr(0, colon)));
    add_orientation(words, orientation_from(std::string_view(tile).substr(colon)).value_or(Orientation{}));
    const std::string toml = colon == tile.size() ? toml_text::in_quotes(tile) : words.table();
    const std::string entry = fmt::format("{} = {}", toml_text::in_quotes(key), toml);
    TextEdits& text = map_.text;
    const toml::table* legend = map_.layer_tree(layer_)["legend"].as_table();
    if (legend == nullptr && table_.sort != CellTable::Sort::png) legend = map_.tree["legend"].as_table();
    if (legend == nullptr) {
        // Before the first layer, as the map's; a picture's colours beside the picture.
        if (table_.sort == CellTable::Sort::png) {
            const toml::node& png = *map_.layer_tree(layer_).get("png");
            text.insert(text.line_end(text.offset(png.source().end)),
                        fmt::format("{}legend = {{ {} }}", text.line_break(), entry));
        } else {
            const std::size_t at = text.line_start(text.offset(map_.layer_tree(0).source().begin));
            text.insert(at, fmt::format("[legend]{0}{1}{0}{0}", text.line_break(), entry));
        }
        return;
    }
    if (legend->is_inline()) {
        const std::size_t end = text.offset(legend->source().end) - 1;   // the closing brace
        const bool spaced = text.text()[end - 1] == ' ';
        text.insert(spaced ? end - 1 : end, fmt::format("{} {}", legend->empty() ? "" : ",", entry));
        return;
    }
    std::size_t at = text.offset(legend->source().end);
    for (const auto& [name, node] : *legend) at = std::max(at, text.offset(node.source().end));
    text.insert(text.line_end(at), text.line_break() + entry);
}

void CellGrid::set(int column, int row, std::uint32_t key) {
    if (meanings_[at(column, row)] == meanings_[key]) return;
    numbers_[static_cast<std::size_t>(row) * static_cast<std::size_t>(columns_) + static_cast<std::size_t>(column)] =
        key;
    ++map_.count;
}

void CellGrid::resize(int columns, int rows, int column, int row) {
    std::vector<std::uint32_t> next(static_cast<std::size_t>(columns) * static_cast<std::size_t>(rows), key_for(""));
    for (int r = 0; r < rows_; ++r)
        for (int c = 0; c < columns_; ++c)
            if (const int to_column = c + column, to_row = r + row;
                to_column >= 0 && to_row >= 0 && to_column < columns && to_row < rows)
                next[static_cast<std::size_t>(to_row) * static_cast<std::size_t>(columns) +
                     static_cast<std::size_t>(to_column)] = at(c, r);
    numbers_ = std::move(next);
    columns_ = columns, rows_ = rows;
    old_column_ = column, old_row_ = row;
}

// ---- the edits ----

void edit(OpenMap& map, const PaintCells& paint) {
    CellGrid grid(map, map.layer(paint.layer, false));
    const std::uint32_t key = grid.key_for(paint.tile);
    for (const auto& [column, row] : paint.cells) grid.set(column - map.draft.first[0], row - map.draft.first[1], key);
    grid.write();
}

void edit(OpenMap& map, const FillCells& fill) {
    CellGrid grid(map, map.layer(fill.layer, false));
    const std::uint32_t key = grid.key_for(fill.tile);
    std::vector<CellAt> open{{fill.cell[0] - map.draft.first[0], fill.cell[1] - map.draft.first[1]}};
    const std::string old = grid.meaning(grid.at(open[0][0], open[0][1]));
    if (old == grid.meaning(key)) return;
    while (!open.empty()) {
        const auto [column, row] = open.back();
        open.pop_back();
        if (!grid.has(column, row) || grid.meaning(grid.at(column, row)) != old) continue;
        grid.set(column, row, key);
        open.insert(open.end(), {{column + 1, row}, {column - 1, row}, {column, row + 1}, {column, row - 1}});
    }
    grid.write();
}

void edit(OpenMap& map, const ReplaceTile& replace) {
    CellGrid grid(map, map.layer(replace.layer, false));
    const std::string from = grid.meaning_of_tile(replace.from);
    const std::uint32_t key = grid.key_for(replace.to);
    const auto [columns, rows] = map.draft.size.value;
    const auto [first_column, first_row] = map.draft.first;
    for (const auto& [c, r] : cells_of_box(replace.area.value_or(CellArea{first_column, first_row, columns, rows})))
        if (const int column = c - first_column, row = r - first_row; grid.meaning(grid.at(column, row)) == from)
            grid.set(column, row, key);
    grid.write();
}

void edit(OpenMap& map, const CopyCells& copy) {
    CellGrid grid(map, map.layer(copy.layer, false));
    const auto [first_column, first_row] = map.draft.first;
    std::vector<std::uint32_t> keys;
    const std::vector<CellAt> cells = cells_of_box(copy.area);
    for (const auto& [c, r] : cells) keys.push_back(grid.at(c - first_column, r - first_row));
    for (std::size_t i = 0; i < cells.size(); ++i)
        grid.set(cells[i][0] - copy.area[0] + copy.to[0] - first_column,
                 cells[i][1] - copy.area[1] + copy.to[1] - first_row, keys[i]);
    grid.write();
}

}   // namespace dryground::files

// Changes cells where they are written: a character of a row, a field of a CSV line, a pixel of a PNG.

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "../model/cell_keys_internal.hpp"
#include "../model/utf8_internal.hpp"
#include "edit_internal.hpp"
#include "text_tables_internal.hpp"
#include "writing_internal.hpp"

namespace dryground::files {

namespace {

// What a name can mean on a cell, in words that are the same for the same meaning: "set/tile", "family set/dyke".
struct Meanings {
    std::vector<std::string> found, known;   // what the name means; the names that there are
};

Meanings meanings_of(const OpenMap& map, std::string_view sort, const std::string& name) {
    Meanings result;
    const auto each = [&](const std::string& set, const auto& things) {
        for (const auto& thing : things) {
            const std::string& own = thing.name.value;
            const std::string full = set.empty() ? own : fmt::format("{}/{}", set, own);
            result.known.push_back(own);
            if (name == full || name == own)
                result.found.push_back(sort == "tile" ? full : fmt::format("{} {}", sort, full));
        }
    };
    if (sort == "kind") each({}, map.world.kinds);
    for (const Name& set_name : map.draft.tilesets)
        for (const TileSetDraft& set : map.tilesets) {
            if (set.name.value != set_name.value) continue;
            if (sort == "tile") each(set.name.value, set.tiles);
            if (sort == "family") each(set.name.value, set.families);
            if (sort == "block") each(set.name.value, set.blocks);
        }
    return result;
}

// Returns the one meaning of a name: of a tile, else of a family, a block or a kind; or as given by the word before it
// ("kind crab"). Throws EditFault if it means nothing, or two things.
std::string only_meaning(const OpenMap& map, const std::string& name) {
    const std::size_t space = name.find(' ');
    std::vector<std::string> known;
    for (const std::string_view sort : {"tile", "family", "block", "kind"}) {
        const bool said = space != std::string::npos && std::string_view(name).substr(0, space) == sort;
        const Meanings here = meanings_of(map, sort, said ? name.substr(space + 1) : name);
        if (here.found.size() == 1) return here.found.front();
        if (here.found.size() > 1)
            throw EditFault(
                fmt::format("{} '{}' is in two tile sets: use {}", sort, name, fmt::join(here.found, " or ")));
        known.insert(known.end(), here.known.begin(), here.known.end());
    }
    const auto nearest = nearest_name(name, known);
    throw EditFault(fmt::format("the map has no tile, family, block or kind '{}'{}", name,
                                nearest ? fmt::format("; did you mean '{}'?", *nearest) : ""));
}

// Does the same where it may mean nothing: then the key is its own meaning.
std::string meaning_or_unknown(const OpenMap& map, std::string_view sort, const std::string& name,
                               const std::string& key) {
    const Meanings here = meanings_of(map, sort, name);
    return here.found.size() == 1 ? here.found.front() : "unknown '" + key + "'";
}

std::string meaning_of_entry(const OpenMap& map, const LegendEntry& entry) {
    const std::string& key = entry.key.value;
    if (entry.kind) return "kind " + entry.kind->value;
    if (!entry.kinds.empty()) return "kinds of '" + key + "'";
    if (entry.family) return meaning_or_unknown(map, "family", entry.family->value, key);
    if (entry.block) return meaning_or_unknown(map, "block", entry.block->value, key);
    if (entry.tile.value.empty()) return {};
    const Meanings here = meanings_of(map, "tile", entry.tile.value);
    return here.found.size() == 1 ? here.found.front() + words_of(entry.orientation) : "unknown '" + key + "'";
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
        throw EditFault(fmt::format("the map has several layers of {}: name one of {}", sort, fmt::join(names, ", ")));
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
        throw EditFault(fmt::format("layer '{}' does not have the map's {} x {} cells: `dryground check` shows where",
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
    const Meanings here = meanings_of(map_, "tile", key.substr(0, colon));
    return orientation && here.found.size() == 1 ? here.found.front() + words_of(*orientation)
                                                 : "unknown '" + key + "'";
}

std::string CellGrid::meaning_of(const std::string& name) const {
    if (name.empty()) return {};
    const std::size_t colon = std::min(name.find(':'), name.size());
    const auto orientation = orientation_from(std::string_view(name).substr(colon));
    if (!orientation)
        throw EditFault(
            fmt::format("'{}' is not a tile: flips and turns are :x :y :xy :90 :180 :270, the flip first", name));
    const std::string meaning = only_meaning(map_, name.substr(0, colon));
    if (colon < name.size() && meaning.find(' ') != std::string::npos)
        throw EditFault(fmt::format("'{}' is a {}, which has no flips and turns", name.substr(0, colon),
                                    meaning.substr(0, meaning.find(' '))));
    return meaning + words_of(*orientation);
}

std::uint32_t CellGrid::key_for(const std::string& name) { return key_for(meaning_of(name), name); }

std::uint32_t CellGrid::key_for_meaning(const std::string& meaning) {
    const std::size_t slash = meaning.find('/');
    std::string name = meaning;
    if (slash != std::string::npos) {   // "peat" in place of "marsh/peat" where that is enough
        const std::string bare = meaning.substr(0, meaning.rfind(' ', slash) + 1) + meaning.substr(slash + 1);
        try {
            if (meaning_of(bare) == meaning) name = bare;
        } catch (const EditFault&) {   // two sets have one of that name: the whole name then
        }
    }
    return key_for(meaning, name);
}

std::uint32_t CellGrid::key_for(const std::string& meaning, const std::string& name) {
    const auto found = std::find(meanings_.begin(), meanings_.end(), meaning);
    if (found != meanings_.end()) return static_cast<std::uint32_t>(found - meanings_.begin());
    const auto add = [&](const std::string& key) {
        table_.keys.push_back(key);
        meanings_.push_back(meaning);
        return static_cast<std::uint32_t>(table_.keys.size() - 1);
    };
    // Returns what the legends already have, or what needs no entry.
    std::vector<std::string> keys;
    for (const auto* legend : {&draft_.legend, &map_.draft.legend})
        for (const LegendEntry& entry : *legend) keys.push_back(canonical_key(entry.key.value));
    if (meaning.empty()) {
        const std::vector<std::string> nothing =
            table_.sort == CellTable::Sort::rows  ? std::vector<std::string>{".", " "}
            : table_.sort == CellTable::Sort::csv ? std::vector<std::string>{""}
                                                  : std::vector<std::string>{"#00000000"};
        keys.insert(keys.end(), nothing.begin(), nothing.end());
    }
    if (table_.sort == CellTable::Sort::csv) keys.insert(keys.end(), {name, meaning});
    for (const std::string& key : keys) {
        const bool right_sort =
            table_.sort == CellTable::Sort::csv ||
            (table_.sort == CellTable::Sort::rows ? utf8::count(key) == 1
                                                  : (key.size() == 7 || key.size() == 9) && key[0] == '#');
        if (right_sort && meaning_of_key(key) == meaning) return add(key);
    }
    if (meaning.rfind("kinds of ", 0) == 0 || meaning.rfind("unknown ", 0) == 0)
        throw EditFault(fmt::format("'{}' has no sign for what another layer's legend holds: add it to its legend",
                                    draft_.name.value));
    const std::string key = free_key(name);
    add_to_legend(key, meaning, name);
    return add(key);
}

// Returns an unused key: a letter of the tile's name, any other sign; or a colour made from its name.
std::string CellGrid::free_key(const std::string& name) const {
    std::set<std::string> taken(table_.keys.begin(), table_.keys.end());
    for (const auto* legend : {&draft_.legend, &map_.draft.legend})
        for (const LegendEntry& entry : *legend) taken.insert(canonical_key(entry.key.value));
    for (const LayerDraft& layer : map_.draft.layers)
        for (const LegendEntry& entry : layer.legend) taken.insert(canonical_key(entry.key.value));
    if (table_.sort == CellTable::Sort::png) {
        std::uint32_t hash = 2166136261u;   // FNV-1a
        for (const char c : name) hash = (hash ^ static_cast<unsigned char>(c)) * 16777619u;
        for (;; hash = hash * 1664525u + 1013904223u)
            if (std::string key = fmt::format("#{:06x}", hash >> 8); taken.count(key) == 0) return key;
    }
    std::string candidates = name.substr(name.find_last_of(" /") + 1);   // all of it if there is neither
    for (const char c : candidates)
        if (c >= 'a' && c <= 'z') candidates += static_cast<char>(c - 'a' + 'A');
    for (char c = '!'; c <= '~'; ++c) candidates += c;
    for (const char c : candidates)
        if (std::string key(1, c); std::string(". \\\"':_").find(c) == std::string::npos && taken.count(key) == 0)
            return key;
    for (int code = 0xC0; code < 0x250; ++code)
        if (std::string key{static_cast<char>(0xC0 | code >> 6), static_cast<char>(0x80 | (code & 0x3F))};
            taken.count(key) == 0)
            return key;
    throw EditFault("every character that could stand for it is taken; add one to the legend yourself");
}

// Inserts behind the last entry of the layer's own legend, else of the map's; if neither exists, as a new one.
void CellGrid::add_to_legend(const std::string& key, const std::string& meaning, const std::string& name) {
    const std::size_t space = meaning.find(' '), colon = std::min(name.find(':'), name.size());
    toml_text::Pairs words;
    if (space != std::string::npos) {   // a family, a block, a kind: the name may begin with that word too
        const std::string sort = meaning.substr(0, space);
        words.add(sort, toml_text::in_quotes(name.rfind(sort + " ", 0) == 0 ? name.substr(space + 1) : name));
    } else {
        words.add("tile", toml_text::in_quotes(name.substr(0, colon)));
        add_orientation(words, orientation_from(std::string_view(name).substr(colon)).value_or(Orientation{}));
    }
    const bool bare = space == std::string::npos && colon == name.size();
    const std::string toml = bare ? toml_text::in_quotes(name) : words.table();
    const std::string entry = fmt::format("{} = {}", toml_text::in_quotes(key), toml);
    TextEdits& text = map_.text;
    const toml::table* legend = map_.layer_tree(layer_)["legend"].as_table();
    if (legend == nullptr && table_.sort != CellTable::Sort::png) legend = map_.tree["legend"].as_table();
    if (legend == nullptr) {
        // Inserts before the first layer, as the map's; for a picture's colours beside the picture.
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
    append_entry(text, *legend, entry);
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

}   // namespace dryground::files

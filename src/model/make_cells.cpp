// Makes the cells of a layer: rows, fields or pixels, each of which stands for a tile, an object or nothing.
//
// Cost: a few steps per cell; what a character, field or colour stands for is looked up once per distinct key.

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <map>
#include <numeric>

#include "cell_keys_internal.hpp"
#include "cells_internal.hpp"

namespace dryground {

WorldMaker::CellFiller::CellFiller(WorldMaker& maker, const LayerDraft& draft, Layer& layer, Map& map, LayerId layer_id)
    : maker_(maker), draft_(draft), layer_(layer), map_(map), layer_id_(layer_id) {
    for (const ExceptDraft& except : draft.except)
        if (!excepts_.emplace(except.cell, Except{&except}).second)
            maker.add(Rule::duplicate_name, except.place,
                      {"'except' of cell", fmt::format("({}, {})", except.cell.column, except.cell.row)});
}

void WorldMaker::CellFiller::fill(const CellTable& table, Legend& own, Legend& shared) {
    const auto rows = static_cast<std::size_t>(map_.rows), columns = static_cast<std::size_t>(map_.columns);
    layer_.cells.resize(rows * columns);
    layer_.rows = table.rows;
    check_size(table);
    for (const std::string& key : table.keys) meanings_.push_back(find(table.sort, key, own, shared));
    missing_.resize(table.keys.size());
    static constexpr std::uint32_t not_plain = UINT32_MAX;
    std::vector<std::uint32_t> plain(meanings_.size(), not_plain), counts(meanings_.size());
    for (std::size_t key = 0; key < meanings_.size(); ++key)
        if (const Legend::Meaning* meaning = meanings_[key]; meaning != nullptr && meaning->known &&
                                                             meaning->kinds.empty() && meaning->family[1] < 0 &&
                                                             meaning->block[1] < 0)
            plain[key] = meaning->number;
    if (!table.characters.empty()) layer_.characters.resize(layer_.cells.size());
    std::size_t begin = 0;
    for (std::size_t r = 0; r < std::min(rows, table.row_ends.size()); begin = table.row_ends[r++]) {
        const std::size_t count = std::min(columns, table.row_ends[r] - begin);
        if (!table.characters.empty())
            std::copy_n(table.characters.begin() + static_cast<std::ptrdiff_t>(begin), count,
                        layer_.characters.begin() + static_cast<std::ptrdiff_t>(r * columns));
        // Most cells hold a tile or nothing: their number is known.
        std::uint32_t* cells = layer_.cells.data() + r * columns;
        for (std::size_t c = 0; c < count; ++c) {
            const std::uint32_t key = table.numbers[begin + c];
            if (plain[key] == not_plain)
                put(key, c, r);
            else
                cells[c] = plain[key], ++counts[key];
        }
    }
    for (std::size_t key = 0; key < plain.size(); ++key)
        if (plain[key] != not_plain) {
            if (layer_.counts.size() <= plain[key]) layer_.counts.resize(plain[key] + std::size_t{1}, 0);
            layer_.counts[plain[key]] += counts[key];
        }
    place_families();
    place_blocks();
    for (std::size_t key = 0; key < missing_.size(); ++key)
        if (!missing_[key].empty()) report_missing(table, key);
    for (const auto& [cell, except] : excepts_)
        if (!except.used) report_except(*except.draft);
}

void WorldMaker::CellFiller::check_size(const CellTable& table) {
    const Place& place = table.rows.empty() ? draft_.name.place : table.rows.front();
    const std::size_t rows = table.row_ends.size(), columns = table.row_ends.empty() ? 0 : table.row_ends.front();
    const bool rows_fit = rows == static_cast<std::size_t>(map_.rows);
    if (table.sort == CellTable::Sort::png) {   // all its rows are alike
        if (!rows_fit || columns != static_cast<std::size_t>(map_.columns))
            maker_.add(Rule::grid_size, place,
                       {layer_.name, fmt::format("a picture of {} x {} px", columns, rows),
                        fmt::format("{} x {} cells", map_.columns, map_.rows)},
                       Hint{"change the picture's size, or the map's", fmt::format("size = [{}, {}]", columns, rows)});
        return;
    }
    if (!rows_fit)
        maker_.add(Rule::grid_size, place, {layer_.name, fmt::format("{} rows", rows), fmt::format("{}", map_.rows)},
                   Hint{"add or take away rows, or change the map's size",
                        fmt::format("size = [{}, {}]", map_.columns, rows)});
    std::size_t begin = 0;
    for (std::size_t r = 0; r < table.row_ends.size(); begin = table.row_ends[r++]) {
        const std::size_t count = table.row_ends[r] - begin;
        if (count == static_cast<std::size_t>(map_.columns)) continue;
        Place end = table.rows[r];
        const std::size_t last = std::min(count, static_cast<std::size_t>(map_.columns));
        if (end.line > 0)
            end.column += static_cast<int>(table.characters.empty()           ? last
                                           : begin + last < table.row_ends[r] ? table.characters[begin + last]
                                           : count > 0                        ? table.characters[begin + count - 1]
                                                                              : 0);
        maker_.add(Rule::row_length, end,
                   {fmt::format("{}", r + 1), fmt::format("{}", count), fmt::format("{}", map_.columns)});
    }
}

WorldMaker::Legend::Meaning* WorldMaker::CellFiller::find(CellTable::Sort sort, const std::string& key, Legend& own,
                                                          Legend& shared) {
    for (Legend* legend : {&own, &shared})
        if (const auto found = legend->meanings.find(key); found != legend->meanings.end()) {
            Legend::Meaning& meaning = found->second;
            if (!meaning.used && meaning.known && meaning.placed.tile >= 0) settle(meaning);
            meaning.used = true;
            return &meaning;
        }
    if (is_empty_key(sort, key)) return &names_.meanings[key];
    return sort == CellTable::Sort::csv ? find_by_name(key) : nullptr;
}

WorldMaker::Legend::Meaning* WorldMaker::CellFiller::find_by_name(const std::string& field) {
    const std::size_t colon = std::min(field.find(':'), field.size());
    const std::optional<Orientation> orientation = orientation_from(std::string_view(field).substr(colon));
    if (!orientation) return nullptr;
    const std::string name = field.substr(0, colon);
    const bool known = name.find('/') != std::string::npos ||
                       std::any_of(map_.tilesets.begin(), map_.tilesets.end(),
                                   [&](TileSetId set) { return maker_.tiles_[index(set)].find(name) >= 0; });
    if (!known) return nullptr;
    Legend::Meaning& meaning = names_.meanings[field];
    const Name said(name, layer_.rows.empty() ? Place{} : layer_.rows.front());
    meaning.placed = maker_.find_tile(said, map_);
    meaning.known = meaning.placed.tile >= 0;
    meaning.placed.orientation = *orientation;
    if (!meaning.known) return &meaning;
    maker_.check_turn(said, *orientation, map_);
    settle(meaning);
    return &meaning;
}

void WorldMaker::CellFiller::settle(Legend::Meaning& meaning) {
    const Tile& tile = maker_.parts_.tilesets[static_cast<std::size_t>(meaning.placed.tileset)]
                           .tiles[static_cast<std::size_t>(meaning.placed.tile)];
    if (tile.stands_for == KindId::none) {
        meaning.number = number_of(meaning.placed);
        return;
    }
    meaning.kinds = {Name(maker_.parts_.kinds[index(tile.stands_for)].name)};
    meaning.weights = {1.0};
}

std::uint32_t WorldMaker::CellFiller::number_of(const Placed& placed) {
    const auto found = std::find(map_.palette.begin(), map_.palette.end(), placed);
    if (found != map_.palette.end()) return static_cast<std::uint32_t>(found - map_.palette.begin());
    map_.palette.push_back(placed);
    return static_cast<std::uint32_t>(map_.palette.size() - 1);
}

void WorldMaker::CellFiller::set_cell(std::size_t c, std::size_t r, std::uint32_t number) {
    layer_.cells[r * static_cast<std::size_t>(map_.columns) + c] = number;
    if (layer_.counts.size() <= number) layer_.counts.resize(number + std::size_t{1}, 0);
    ++layer_.counts[number];
}

void WorldMaker::CellFiller::put(std::uint32_t key, std::size_t c, std::size_t r) {
    const Legend::Meaning* meaning = meanings_[key];
    if (meaning == nullptr) {
        missing_[key].push_back(map_.cell({static_cast<int>(c), static_cast<int>(r)}));
        return;
    }
    if (!meaning->known) {   // already reported
        const auto except = excepts_.find(map_.cell({static_cast<int>(c), static_cast<int>(r)}));
        if (except != excepts_.end()) except->second.used = true;
        return;
    }
    if (!meaning->kinds.empty()) {
        paint(*meaning, static_cast<int>(c), static_cast<int>(r));
        return;
    }
    if (meaning->family[1] >= 0 || meaning->block[1] >= 0) {
        patterns_.push_back({key, static_cast<int>(c), static_cast<int>(r)});
        return;
    }
    set_cell(c, r, meaning->number);
}

Finding WorldMaker::CellFiller::finding_at(Rule rule, const std::vector<Cell>& cells) const {
    Finding finding;
    finding.rule = rule;
    finding.severity = rule_text(rule).severity;
    finding.place = map_.place_of(layer_, map_.data_cell(cells.front()));
    if (finding.place.file.empty()) finding.place.thing = fmt::format("map '{}', layer '{}'", map_.name, layer_.name);
    finding.map = map_.name;
    finding.layer = layer_.name;
    finding.cell = cells.front();
    finding.cells = cells;
    if (cells.size() > 1) finding.details.push_back(fmt::format("it stands in {} cells", cells.size()));
    return finding;
}

void WorldMaker::CellFiller::paint(const Legend::Meaning& meaning, int c, int r) {
    const Cell cell = map_.cell({c, r});
    ObjectDraft object;
    object.kind = meaning.kinds[choice(meaning.weights, cell)];
    object.form = AtCells{cell.column, cell.row, 1, 1, false};
    object.place = map_.place_of(layer_, {c, r});
    object.kind.place = object.place_of_form = object.place;
    if (const auto found = excepts_.find(cell); found != excepts_.end()) {
        found->second.used = true;
        const ExceptDraft& except = *found->second.draft;
        object.name = except.name;
        object.tags = except.tags;
        object.gives = except.gives;
        object.needs = except.needs;
        object.when = except.when;
        object.unless = except.unless;
        object.props = except.props;
    }
    maker_.make_object(object, draft_, layer_, map_, layer_id_);
}

std::size_t WorldMaker::CellFiller::choice(const std::vector<double>& weights, Cell cell) const {
    if (weights.size() == 1) return 0;
    const double all = std::accumulate(weights.begin(), weights.end(), 0.0);
    double rest = all * chance_at(map_.seed, layer_.name, cell.column, cell.row);
    std::size_t last = 0;
    for (std::size_t i = 0; i < weights.size(); ++i) {
        if (weights[i] <= 0) continue;
        last = i;
        if (rest < weights[i]) return i;
        rest -= weights[i];
    }
    return last;   // what rounding leaves over
}

void WorldMaker::CellFiller::report_missing(const CellTable& table, std::size_t key) {
    Finding finding = finding_at(Rule::legend_missing, missing_[key]);
    finding.arguments = {table.keys[key]};
    finding.hint = Hint{"add it to the layer's or the map's legend", fmt::format("\"{}\" = \"…\"", table.keys[key])};
    if (table.sort == CellTable::Sort::csv)
        if (const auto nearest = nearest_tile(table.keys[key])) finding.hint = Hint{"did you mean", *nearest};
    maker_.report_.add(std::move(finding));
}

std::optional<std::string> WorldMaker::CellFiller::nearest_tile(const std::string& field) const {
    std::vector<std::string> names;
    for (const TileSetId set : map_.tilesets) {
        const std::vector<std::string>& more = maker_.tiles_[index(set)].names;
        names.insert(names.end(), more.begin(), more.end());
    }
    const std::size_t colon = std::min(field.find(':'), field.size());
    auto nearest = nearest_name(field.substr(0, colon), names);
    if (nearest && orientation_from(std::string_view(field).substr(colon))) *nearest += field.substr(colon);
    return nearest;
}

void WorldMaker::CellFiller::report_except(const ExceptDraft& except) {
    maker_.add(Rule::out_of_range, except.place,
               {"an 'except'", fmt::format("said of cell ({}, {})", except.cell.column, except.cell.row),
                "said of a cell where the layer paints an object"});
}

void WorldMaker::fill_cells(const LayerDraft& draft, Layer& layer, Map& map, LayerId layer_id, Legend& own,
                            Legend& shared) {
    CellFiller filler(*this, draft, layer, map, layer_id);
    draft.cells ? filler.fill(*draft.cells, own, shared) : filler.fill(table_of(draft.rows), own, shared);
}

}   // namespace dryground

// Maps: their layers, and what each character of a row stands for.

#include <fmt/format.h>

#include <algorithm>
#include <map>

#include "choose_internal.hpp"
#include "utf8_internal.hpp"

namespace dryground {

struct WorldMaker::Legend {
    struct Meaning {
        const LegendEntry* entry;
        Placed placed;
        bool known = true;   // the tile or kind it names is there
        bool used = false;
        std::uint32_t number = 0;   // in the map's palette
    };
    std::map<std::string, Meaning, std::less<>> meanings;
};

namespace {

constexpr double most_offset_px = 65'536;
constexpr std::int64_t most_cells = std::int64_t{1} << 26;

// The number of a placed tile in the map's palette.
std::uint32_t number_of(Map& map, const Placed& placed) {
    const auto found = std::find(map.palette.begin(), map.palette.end(), placed);
    if (found != map.palette.end()) return static_cast<std::uint32_t>(found - map.palette.begin());
    map.palette.push_back(placed);
    return static_cast<std::uint32_t>(map.palette.size() - 1);
}

bool is_empty_key(std::string_view key) { return key == "." || key == " "; }

}   // namespace

// Whether the map's sizes are such that all of it lies on the lattice.
bool WorldMaker::fits(const MapDraft& draft) {
    const auto [columns, rows] = draft.size.value;
    const auto [width, height] = draft.cell.value;
    bool good = true;
    if (width < 1 || height < 1 || width > 4096 || height > 4096) {
        add(Rule::out_of_range, draft.cell.place,
            {"'cell'", fmt::format("[{}, {}]", width, height), "from 1 to 4096 px wide and high"});
        good = false;
    }
    if (columns < 1 || rows < 1) {
        add(Rule::out_of_range, draft.size.place, {"'size'", fmt::format("[{}, {}]", columns, rows), "at least [1, 1]"},
            Hint{"say columns and rows of the map", "size = [40, 20]"});
        return false;
    }
    if (std::int64_t{columns} * rows > most_cells) {
        add(Rule::too_large, draft.size.place,
            {"'size'", fmt::format("{} cells", std::int64_t{columns} * rows), fmt::format("{} cells", most_cells)});
        return false;
    }
    if (good && draft.grid.value == "isometric" && (width % 2 != 0 || height % 2 != 0)) {
        add(Rule::out_of_range, draft.cell.place,
            {"'cell'", fmt::format("[{}, {}]", width, height), "even: the corners of a diamond lie at half of it"});
        good = false;
    }
    const auto reaches = [](std::int64_t first, std::int64_t count, std::int64_t size) {
        return std::max(std::abs(first - 1), std::abs(first + count + 1)) * size * steps_per_px;
    };
    std::int64_t reach = std::max(reaches(draft.first[0], columns, width), reaches(draft.first[1], rows, height));
    if (draft.grid.value == "isometric")
        reach = (reaches(draft.first[0], columns, 1) + reaches(draft.first[1], rows, 1)) * std::max(width, height) / 2;
    if (good && reach > coordinate_limit / 2) {
        add(Rule::too_large, draft.size.place,
            {"the map", fmt::format("{} px from its corner", to_px(reach)),
             fmt::format("{} px", to_px(coordinate_limit / 2))});
        good = false;
    }
    return good;
}

void WorldMaker::make_map(const MapDraft& draft) {
    const Within within(*this, fmt::format("map '{}'", draft.name.value));
    map_name_ = draft.name.value;
    if (declare(maps_, draft.name) >= 0) {
        Map map;
        map.name = draft.name.value;
        map.title = draft.title;
        map.place = draft.name.place;
        map.player = draft.player ? look_up(movers_, *draft.player) : parts_.player;
        if (draft.rim && draft.rim->value == "open")
            map.rim = RimSort::open;
        else if (draft.rim) {
            map.rim = RimSort::barrier;
            map.rim_barrier = look_up(barriers_, *draft.rim);
        }
        for (const Name& set : draft.tilesets)
            if (const int id = look_up(tilesets_, set); id >= 0) map.tilesets.push_back(id);
        map.props = make_properties(map_fields_, draft.props, fmt::format("map '{}'", map.name), map.place);
        if (fits(draft)) {
            map.cell_width = draft.cell.value[0], map.cell_height = draft.cell.value[1];
            map.columns = draft.size.value[0], map.rows = draft.size.value[1];
            map.first_column = draft.first[0], map.first_row = draft.first[1];
            map.grid = choose<GridSort, 2>(draft.grid, "'grid'",
                                           {{{"square", GridSort::square}, {"isometric", GridSort::isometric}}});
            Legend legend;
            read_legend(draft.legend, map, legend);
            NameIndex layers{"layer", {}, {}, {}};
            for (const LayerDraft& layer : draft.layers) {
                const Within in_layer(*this, fmt::format("layer '{}'", layer.name.value));
                layer_name_ = layer.name.value;
                declare(layers, layer.name);
                map.layers.push_back(make_layer(layer, map, static_cast<int>(map.layers.size()), legend));
                layer_name_.clear();
            }
            report_unused(legend);
        }
        parts_.maps.push_back(std::move(map));
    }
    map_name_.clear();
}

// A bare name is searched in all tile sets of the map; set/tile is looked up in its set.
Placed WorldMaker::find_tile(const Name& name, const Map& map) {
    const auto slash = name.value.find('/');
    const std::string tile = slash == std::string::npos ? name.value : name.value.substr(slash + 1);
    if (slash != std::string::npos) {
        const int set = look_up(tilesets_, {name.value.substr(0, slash), name.place});
        if (set < 0) return {};
        if (std::find(map.tilesets.begin(), map.tilesets.end(), set) == map.tilesets.end()) {
            add(Rule::unknown_name, name.place, {"tile set of this map", name.value.substr(0, slash)},
                Hint{"add it to the map's 'tilesets'", ""});
            return {};
        }
        return {static_cast<std::int16_t>(set), look_up(tiles_[static_cast<std::size_t>(set)], {tile, name.place}), {}};
    }
    Placed found;
    NameIndex all{"tile", {}, {}, {}};
    for (const int set : map.tilesets) {
        const NameIndex& index = tiles_[static_cast<std::size_t>(set)];
        all.names.insert(all.names.end(), index.names.begin(), index.names.end());
        const int id = index.find(tile);
        if (id < 0) continue;
        if (found.tile >= 0) {
            const std::string first = tilesets_.names[static_cast<std::size_t>(found.tileset)],
                              second = tilesets_.names[static_cast<std::size_t>(set)];
            add(Rule::ambiguous_name, name.place, {tile, first, second},
                Hint{"say which", fmt::format("\"{}/{}\" or \"{}/{}\"", first, tile, second, tile)});
            return found;
        }
        found = {static_cast<std::int16_t>(set), id, {}};
    }
    if (found.tile < 0) add_unknown(all, name);
    return found;
}

void WorldMaker::read_legend(const std::vector<LegendEntry>& entries, const Map& map, Legend& legend) {
    for (const LegendEntry& entry : entries) {
        if (utf8::count(entry.key.value) != 1) {
            add(Rule::out_of_range, entry.key.place,
                {fmt::format("the legend's key '{}'", entry.key.value),
                 fmt::format("{} characters long", utf8::count(entry.key.value)),
                 "one character, as it stands in the rows"});
            continue;
        }
        Legend::Meaning meaning{&entry, {}, true, false, 0};
        if (entry.kind) {
            meaning.known = look_up(kinds_, *entry.kind) >= 0;
        } else if (!entry.tile.value.empty()) {
            meaning.placed = find_tile(entry.tile, map);
            meaning.known = meaning.placed.tile >= 0;
            meaning.placed.orientation = entry.orientation;
            if (entry.orientation.turn % 180 != 0 && map.cell_width != map.cell_height)
                add(Rule::turn_not_square, entry.tile.place,
                    {entry.tile.value, fmt::format("{}", entry.orientation.turn), fmt::format("{}", map.cell_width),
                     fmt::format("{}", map.cell_height)});
        }
        if (!legend.meanings.emplace(entry.key.value, meaning).second)
            add(Rule::duplicate_name, entry.key.place, {"legend key", entry.key.value});
    }
}

void WorldMaker::report_unused(const Legend& legend) {
    for (const auto& [key, meaning] : legend.meanings)
        if (!meaning.used && !is_empty_key(key))
            add(Rule::legend_unused, meaning.entry->key.place, {key}, Hint{"use it in a row, or take it out", ""});
}

void WorldMaker::set_offsets(const LayerDraft& draft, Layer& layer) {
    const auto fit = [&](const auto& numbers, const char* key) {
        for (const double number : numbers)
            if (std::abs(number) > most_offset_px) {
                add(Rule::out_of_range, draft.place,
                    {fmt::format("'{}'", key), fmt::format("{} px", number),
                     fmt::format("from {} to {} px", -most_offset_px, most_offset_px)});
                return false;
            }
        return true;
    };
    if (fit(draft.offset, "offset")) layer.offset = {to_steps(draft.offset[0]), to_steps(draft.offset[1])};
    if (fit(draft.shape_offset, "shape_offset"))
        layer.shape_offset = {to_steps(draft.shape_offset[0]), to_steps(draft.shape_offset[1])};
    if (!fit(draft.sink, "sink")) return;
    for (std::size_t i = 0; i < 4; ++i) {
        if (draft.sink[i] < 0)
            add(Rule::out_of_range, draft.place, {"'sink'", fmt::format("{} px", draft.sink[i]), "0 px or more"});
        layer.sink[i] = std::max(0, to_steps(draft.sink[i]));
    }
}

Layer WorldMaker::make_layer(const LayerDraft& draft, Map& map, int layer_index, Legend& map_legend) {
    Layer layer;
    layer.name = draft.name.value;
    layer.place = draft.name.place;
    layer.holds_objects = draft.holds_objects;
    layer.decor = draft.decor;
    layer.shown = draft.shown;
    if (draft.storey) layer.storey = std::max(0, look_up(storeys_, *draft.storey));
    if (draft.barrier) layer.barrier = look_up(barriers_, *draft.barrier);
    layer.surface = draft.surface;
    if (draft.flags) layer.flags = flag_set(*draft.flags);
    if (draft.trigger) layer.trigger = draft.trigger->value;
    layer.tags = draft.tags;
    layer.one_way = make_one_way(draft.one_way);
    set_offsets(draft, layer);
    if (draft.holds_objects) {
        for (const ObjectDraft& object : draft.objects) make_object(object, draft, layer, map, layer_index);
        return layer;
    }
    Legend own;
    read_legend(draft.legend, map, own);
    fill_cells(draft, layer, map, layer_index, own, map_legend);
    report_unused(own);
    return layer;
}

void WorldMaker::fill_cells(const LayerDraft& draft, Layer& layer, Map& map, int layer_index, Legend& own,
                            Legend& shared) {
    layer.cells.resize(static_cast<std::size_t>(map.columns) * static_cast<std::size_t>(map.rows));
    if (draft.rows.size() != static_cast<std::size_t>(map.rows))
        add(Rule::grid_size, draft.rows.empty() ? draft.name.place : draft.rows.front().place,
            {layer.name, fmt::format("{}", draft.rows.size()), fmt::format("{}", map.rows)},
            Hint{"add or take away rows, or change the map's size",
                 fmt::format("size = [{}, {}]", map.columns, draft.rows.size())});

    struct Missing {
        Place place;
        std::vector<std::array<int, 2>> cells;
    };
    std::map<std::string, Missing> missing;
    for (std::size_t r = 0; r < draft.rows.size(); ++r) {
        const auto& [row, row_place] = draft.rows[r];
        layer.rows.push_back(row_place);
        const std::vector<std::string_view> characters = utf8::characters(row);
        if (characters.size() != static_cast<std::size_t>(map.columns)) {
            Place end = row_place;
            if (end.line > 0)
                end.column += static_cast<int>(std::min(characters.size(), static_cast<std::size_t>(map.columns)));
            add(Rule::row_length, end,
                {fmt::format("{}", r + 1), fmt::format("{}", characters.size()), fmt::format("{}", map.columns)});
        }
        for (std::size_t c = 0; c < std::min(characters.size(), static_cast<std::size_t>(map.columns)) &&
                                r < static_cast<std::size_t>(map.rows);
             ++c) {
            auto found = own.meanings.find(characters[c]);
            if (found == own.meanings.end()) {
                found = shared.meanings.find(characters[c]);
                if (found == shared.meanings.end()) {
                    if (is_empty_key(characters[c])) continue;
                    Missing& entry = missing[std::string(characters[c])];
                    if (entry.cells.empty()) {
                        entry.place = row_place;
                        if (entry.place.line > 0) entry.place.column += static_cast<int>(c);
                    }
                    entry.cells.push_back(
                        {map.first_column + static_cast<int>(c), map.first_row + static_cast<int>(r)});
                    continue;
                }
            }
            Legend::Meaning& meaning = found->second;
            if (!meaning.used && meaning.known && meaning.placed.tile >= 0)
                meaning.number = number_of(map, meaning.placed);
            meaning.used = true;
            if (!meaning.known) continue;
            if (!meaning.entry->kind) {
                layer.cells[r * static_cast<std::size_t>(map.columns) + c] = meaning.number;
                if (layer.counts.size() <= meaning.number) layer.counts.resize(meaning.number + std::size_t{1}, 0);
                ++layer.counts[meaning.number];
                continue;
            }
            ObjectDraft object;   // a painted object: named by nobody, on its cell
            object.kind = *meaning.entry->kind;
            object.form =
                AtCells{map.first_column + static_cast<int>(c), map.first_row + static_cast<int>(r), 1, 1, false};
            object.place = row_place;
            if (object.place.line > 0) object.place.column += static_cast<int>(c);
            object.kind.place = object.place_of_form = object.place;
            make_object(object, draft, layer, map, layer_index);
        }
    }
    for (auto& [character, entry] : missing) {
        Finding finding;
        finding.rule = Rule::legend_missing;
        finding.place = entry.place;
        if (entry.place.file.empty()) finding.place.thing = fmt::format("map '{}', layer '{}'", map.name, layer.name);
        finding.map = map.name;
        finding.layer = layer.name;
        finding.cell = entry.cells.front();
        finding.cells = entry.cells;
        finding.arguments = {character};
        if (entry.cells.size() > 1) finding.details.push_back(fmt::format("it stands in {} cells", entry.cells.size()));
        finding.hint = Hint{"add it to the layer's or the map's legend", fmt::format("\"{}\" = \"…\"", character)};
        report_.add(std::move(finding));
    }
}

}   // namespace dryground

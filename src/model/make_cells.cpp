// The cells of a layer: rows, fields or pixels, each of which stands for a tile, an object or nothing.
//
// Cost: a few steps a cell; what a character, field or colour stands for is looked up once for each that there is.

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <bit>
#include <map>
#include <numeric>

#include "legend_internal.hpp"
#include "utf8_internal.hpp"

namespace dryground {

namespace {

// The number of a placed tile in the map's palette.
std::uint32_t number_of(Map& map, const Placed& placed) {
    const auto found = std::find(map.palette.begin(), map.palette.end(), placed);
    if (found != map.palette.end()) return static_cast<std::uint32_t>(found - map.palette.begin());
    map.palette.push_back(placed);
    return static_cast<std::uint32_t>(map.palette.size() - 1);
}

CellTable table_of(const std::vector<Said<std::string>>& rows) {
    CellTable table;
    std::array<std::uint32_t, 128> plain;   // of ASCII characters
    plain.fill(UINT32_MAX);
    std::map<std::string_view, std::uint32_t> others;
    const auto add = [&](std::string_view key) {
        table.keys.emplace_back(key);
        return static_cast<std::uint32_t>(table.keys.size() - 1);
    };
    for (const auto& [row, place] : rows) {
        for (std::size_t i = 0; i < row.size();) {
            const std::string_view character = std::string_view(row).substr(i, utf8::length(row[i]));
            i += character.size();
            if (const auto byte = static_cast<unsigned char>(character[0]); byte < 128) {
                if (plain[byte] == UINT32_MAX) plain[byte] = add(character);
                table.numbers.push_back(plain[byte]);
            } else {
                const auto found = others.find(character);
                table.numbers.push_back(
                    found != others.end() ? found->second : others.emplace(character, add(character)).first->second);
            }
        }
        table.row_ends.push_back(table.numbers.size());
        table.rows.push_back(place);
    }
    return table;
}

bool is_empty_key(CellTable::Sort sort, const std::string& key) {
    switch (sort) {
        case CellTable::Sort::rows:
            return key == "." || key == " ";
        case CellTable::Sort::csv:
            return key.empty();
        case CellTable::Sort::png:
            break;
    }
    return key.size() == 9 && key.substr(7) == "00";   // a pixel that one sees through
}

// What comes behind a tile's name, as in bank:x:90. Nothing when it is none of what can.
std::optional<Orientation> orientation_from(std::string_view words) {
    Orientation orientation;
    bool flipped = false, turned = false;
    while (!words.empty()) {
        const std::size_t end = std::min(words.find(':', 1), words.size());
        const std::string_view word = words.substr(1, end - 1);
        words.remove_prefix(end);
        if (word == "x" || word == "y" || word == "xy") {
            if (flipped || turned) return std::nullopt;
            flipped = true;
            orientation.flip_x = word != "y", orientation.flip_y = word != "x";
        } else if (word == "90" || word == "180" || word == "270") {
            if (turned) return std::nullopt;
            turned = true;
            orientation.turn = static_cast<std::int16_t>(word == "90" ? 90 : word == "180" ? 180 : 270);
        } else {
            return std::nullopt;
        }
    }
    return orientation;
}

}   // namespace

class WorldMaker::CellFiller {
public:
    CellFiller(WorldMaker& maker, const LayerDraft& draft, Layer& layer, Map& map, int layer_index)
        : maker_(maker), draft_(draft), layer_(layer), map_(map), layer_index_(layer_index) {
        for (const ExceptDraft& except : draft.except)
            if (!excepts_.emplace(except.cell, Except{&except}).second)
                maker.add(Rule::duplicate_name, except.place,
                          {"'except' of cell", fmt::format("({}, {})", except.cell[0], except.cell[1])});
    }

    void fill(const CellTable& table, Legend& own, Legend& shared) {
        const auto rows = static_cast<std::size_t>(map_.rows), columns = static_cast<std::size_t>(map_.columns);
        layer_.cells.resize(rows * columns);
        layer_.rows = table.rows;
        check_size(table);
        for (const std::string& key : table.keys) meanings_.push_back(find(table.sort, key, own, shared));
        missing_.resize(table.keys.size());
        if (!table.characters.empty()) layer_.characters.resize(layer_.cells.size());
        std::size_t begin = 0;
        for (std::size_t r = 0; r < std::min(rows, table.row_ends.size()); begin = table.row_ends[r++]) {
            const std::size_t count = std::min(columns, table.row_ends[r] - begin);
            if (!table.characters.empty())
                std::copy_n(table.characters.begin() + static_cast<std::ptrdiff_t>(begin), count,
                            layer_.characters.begin() + static_cast<std::ptrdiff_t>(r * columns));
            for (std::size_t c = 0; c < count; ++c) put(table.numbers[begin + c], c, r);
        }
        place_families();
        place_blocks();
        for (std::size_t key = 0; key < missing_.size(); ++key)
            if (!missing_[key].empty()) report_missing(table, key);
        for (const auto& [cell, except] : excepts_)
            if (!except.used) report_except(*except.draft);
    }

private:
    void check_size(const CellTable& table) {
        if (table.row_ends.size() != static_cast<std::size_t>(map_.rows))
            maker_.add(Rule::grid_size, table.rows.empty() ? draft_.name.place : table.rows.front(),
                       {layer_.name, fmt::format("{}", table.row_ends.size()), fmt::format("{}", map_.rows)},
                       Hint{"add or take away rows, or change the map's size",
                            fmt::format("size = [{}, {}]", map_.columns, table.row_ends.size())});
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
            if (table.sort == CellTable::Sort::png) break;   // all its rows are alike
        }
    }

    // Null: nothing says what it is.
    Legend::Meaning* find(CellTable::Sort sort, const std::string& key, Legend& own, Legend& shared) {
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

    // A field may be a tile's name, with flip and turn behind it.
    Legend::Meaning* find_by_name(const std::string& field) {
        const std::size_t colon = std::min(field.find(':'), field.size());
        const std::optional<Orientation> orientation = orientation_from(std::string_view(field).substr(colon));
        if (!orientation) return nullptr;
        const std::string name = field.substr(0, colon);
        const bool known = name.find('/') != std::string::npos ||
                           std::any_of(map_.tilesets.begin(), map_.tilesets.end(), [&](int set) {
                               return maker_.tiles_[static_cast<std::size_t>(set)].find(name) >= 0;
                           });
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

    // A tile that stands for a kind is an object of it.
    void settle(Legend::Meaning& meaning) {
        const Tile& tile = maker_.parts_.tilesets[static_cast<std::size_t>(meaning.placed.tileset)]
                               .tiles[static_cast<std::size_t>(meaning.placed.tile)];
        if (tile.stands_for < 0) {
            meaning.number = number_of(map_, meaning.placed);
            return;
        }
        meaning.kinds = {Name(maker_.parts_.kinds[static_cast<std::size_t>(tile.stands_for)].name)};
        meaning.weights = {1.0};
    }

    void put(std::uint32_t key, std::size_t c, std::size_t r) {
        const Legend::Meaning* meaning = meanings_[key];
        if (meaning == nullptr) {
            missing_[key].push_back({map_.first_column + static_cast<int>(c), map_.first_row + static_cast<int>(r)});
            return;
        }
        if (!meaning->known) {   // as was said
            const auto except =
                excepts_.find({map_.first_column + static_cast<int>(c), map_.first_row + static_cast<int>(r)});
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
        const std::uint32_t number = meaning->number;
        layer_.cells[r * static_cast<std::size_t>(map_.columns) + c] = number;
        if (layer_.counts.size() <= number) layer_.counts.resize(number + std::size_t{1}, 0);
        ++layer_.counts[number];
    }

    // ---- families and blocks ----

    struct Pattern {   // a cell painted with a family or a block
        std::uint32_t key;
        int column, row;
    };

    void set_cell(int c, int r, const Placed& placed) {
        std::uint32_t& cell = layer_.cells[static_cast<std::size_t>(r) * static_cast<std::size_t>(map_.columns) +
                                           static_cast<std::size_t>(c)];
        cell = number_of(map_, placed);
        if (layer_.counts.size() <= cell) layer_.counts.resize(cell + std::size_t{1}, 0);
        ++layer_.counts[cell];
    }

    void place_families() {
        std::map<std::array<int, 2>, std::array<int, 2>> members;   // family by cell: row, column
        for (const Pattern& p : patterns_)
            if (meanings_[p.key]->family[1] >= 0) members[{p.row, p.column}] = meanings_[p.key]->family;
        std::map<std::pair<std::array<int, 2>, unsigned>, std::vector<std::array<int, 2>>> gaps;
        for (const auto& [cell, family] : members) {
            const Family& of =
                maker_.family_list_[static_cast<std::size_t>(family[0])][static_cast<std::size_t>(family[1])];
            const unsigned joined = joins_at(members, cell, family, of.joins);
            const Family::Member* best = nullptr;
            for (const Family::Member& member : of.members)
                if (best == nullptr || std::popcount(member.joined ^ joined) < std::popcount(best->joined ^ joined))
                    best = &member;
            if (best == nullptr) continue;   // it has none, as was said
            set_cell(cell[1], cell[0], {static_cast<std::int16_t>(family[0]), best->tile, {}});
            if (best->joined != joined)
                gaps[{family, joined}].push_back({map_.first_column + cell[1], map_.first_row + cell[0]});
        }
        for (const auto& [gap, cells] : gaps) report_gap(gap.first, gap.second, cells);
    }

    [[nodiscard]] static unsigned joins_at(const std::map<std::array<int, 2>, std::array<int, 2>>& members,
                                           const std::array<int, 2>& cell, const std::array<int, 2>& family,
                                           Family::Joins joins) {
        static constexpr std::array<std::array<int, 2>, 8> away{
            // rows and columns, as in neighbour_names
            {{-1, 0}, {0, 1}, {1, 0}, {0, -1}, {-1, -1}, {-1, 1}, {1, 1}, {1, -1}}};
        unsigned sides = 0, corners = 0;
        for (unsigned i = 0; i < 8; ++i) {
            const auto found = members.find({cell[0] + away[i][0], cell[1] + away[i][1]});
            if (found != members.end() && found->second == family) (i < 4 ? sides : corners) |= 1u << i;
        }
        // A corner joins only when both its sides do: top_left lies between left and top, and so on.
        for (unsigned i = 0; i < 4; ++i)
            if ((sides >> i & 1) == 0 || (sides >> (i + 3) % 4 & 1) == 0) corners &= ~(1u << (i + 4));
        return joins == Family::Joins::sides ? sides : joins == Family::Joins::corners ? corners : sides | corners;
    }

    void report_gap(const std::array<int, 2>& family, unsigned joined, const std::vector<std::array<int, 2>>& cells) {
        std::vector<std::string> names;
        for (unsigned i = 0; i < 8; ++i)
            if ((joined >> i & 1) != 0) names.emplace_back(neighbour_names[i]);
        Finding finding = finding_at(Rule::family_gap, cells);
        finding.arguments = {
            maker_.families_[static_cast<std::size_t>(family[0])].names[static_cast<std::size_t>(family[1])],
            names.empty() ? "on no side" : fmt::format("{}", fmt::join(names, ", "))};
        finding.details.push_back("the member that is nearest to it stands there");
        finding.hint =
            Hint{"add a member", fmt::format("{{ tile = \"…\", joined = [{}] }}",
                                             names.empty() ? "" : fmt::format("\"{}\"", fmt::join(names, "\", \"")))};
        maker_.report_.add(std::move(finding));
    }

    void place_blocks() {
        for (const Pattern& p : patterns_) {
            const std::array<int, 2>& number = meanings_[p.key]->block;
            if (number[1] < 0) continue;
            const Block& block =
                maker_.block_list_[static_cast<std::size_t>(number[0])][static_cast<std::size_t>(number[1])];
            for (const Block::Part& part : block.parts) {
                const int c = p.column + part.column, r = p.row + part.row;
                const bool free = map_.has(c, r) && map_.number(layer_, c, r) == 0;
                if (free) {
                    set_cell(c, r, part.placed);
                    continue;
                }
                maker_.add(
                    Rule::out_of_range, map_.place_of(layer_, p.column, p.row),
                    {fmt::format("cell ({}, {}) of block '{}'", map_.first_column + c, map_.first_row + r, block.name),
                     map_.has(c, r) ? "painted with something else too" : "outside the map",
                     map_.has(c, r) ? "left empty for it" : "inside"});
                break;   // the first says enough
            }
        }
    }

    // A finding about cells of the layer, told at the first of them.
    [[nodiscard]] Finding finding_at(Rule rule, const std::vector<std::array<int, 2>>& cells) const {
        Finding finding;
        finding.rule = rule;
        finding.severity = rule_text(rule).severity;
        finding.place = map_.place_of(layer_, cells[0][0] - map_.first_column, cells[0][1] - map_.first_row);
        if (finding.place.file.empty())
            finding.place.thing = fmt::format("map '{}', layer '{}'", map_.name, layer_.name);
        finding.map = map_.name;
        finding.layer = layer_.name;
        finding.cell = cells.front();
        finding.cells = cells;
        if (cells.size() > 1) finding.details.push_back(fmt::format("it stands in {} cells", cells.size()));
        return finding;
    }

    // An object on its cell, named by nobody unless `except` does.
    void paint(const Legend::Meaning& meaning, int c, int r) {
        const std::array<int, 2> cell{map_.first_column + c, map_.first_row + r};
        ObjectDraft object;
        object.kind = meaning.kinds[choice(meaning.weights, cell)];
        object.form = AtCells{cell[0], cell[1], 1, 1, false};
        object.place = map_.place_of(layer_, c, r);
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
        maker_.make_object(object, draft_, layer_, map_, layer_index_);
    }

    [[nodiscard]] std::size_t choice(const std::vector<double>& weights, const std::array<int, 2>& cell) const {
        if (weights.size() == 1) return 0;
        const double all = std::accumulate(weights.begin(), weights.end(), 0.0);
        double rest = all * chance_at(map_.seed, layer_.name, cell[0], cell[1]);
        std::size_t last = 0;
        for (std::size_t i = 0; i < weights.size(); ++i) {
            if (weights[i] <= 0) continue;
            last = i;
            if (rest < weights[i]) return i;
            rest -= weights[i];
        }
        return last;   // what rounding leaves over
    }

    void report_missing(const CellTable& table, std::size_t key) {
        Finding finding = finding_at(Rule::legend_missing, missing_[key]);
        finding.arguments = {table.keys[key]};
        finding.hint =
            Hint{"add it to the layer's or the map's legend", fmt::format("\"{}\" = \"…\"", table.keys[key])};
        if (table.sort == CellTable::Sort::csv)
            if (const auto nearest = nearest_tile(table.keys[key])) finding.hint = Hint{"did you mean", *nearest};
        maker_.report_.add(std::move(finding));
    }
    [[nodiscard]] std::optional<std::string> nearest_tile(const std::string& field) const {
        std::vector<std::string> names;
        for (const int set : map_.tilesets) {
            const std::vector<std::string>& more = maker_.tiles_[static_cast<std::size_t>(set)].names;
            names.insert(names.end(), more.begin(), more.end());
        }
        const std::size_t colon = std::min(field.find(':'), field.size());
        auto nearest = nearest_name(field.substr(0, colon), names);
        if (nearest && orientation_from(std::string_view(field).substr(colon))) *nearest += field.substr(colon);
        return nearest;
    }

    void report_except(const ExceptDraft& except) {
        maker_.add(Rule::out_of_range, except.place,
                   {"an 'except'", fmt::format("said of cell ({}, {})", except.cell[0], except.cell[1]),
                    "said of a cell where the layer paints an object"});
    }

    WorldMaker& maker_;
    const LayerDraft& draft_;
    Layer& layer_;
    Map& map_;
    int layer_index_;
    Legend names_;                                           // of tiles that are named without a legend
    std::vector<Legend::Meaning*> meanings_;                 // of the table's keys
    std::vector<std::vector<std::array<int, 2>>> missing_;   // where keys without a meaning stand
    std::vector<Pattern> patterns_;
    struct Except {
        const ExceptDraft* draft;
        bool used = false;
    };
    std::map<std::array<int, 2>, Except> excepts_;
};

void WorldMaker::fill_cells(const LayerDraft& draft, Layer& layer, Map& map, int layer_index, Legend& own,
                            Legend& shared) {
    CellFiller filler(*this, draft, layer, map, layer_index);
    draft.cells ? filler.fill(*draft.cells, own, shared) : filler.fill(table_of(draft.rows), own, shared);
}

}   // namespace dryground

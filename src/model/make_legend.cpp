// Looks up what characters, fields and colours stand for.
//
// A key is looked up in the legend, then as the name of a tile; names are searched by hash, so that the cost is
// O(keys).

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <tuple>

#include "cell_keys_internal.hpp"
#include "legend_internal.hpp"
#include "utf8_internal.hpp"

namespace dryground {

double chance_at(std::uint64_t seed, std::string_view layer, int column, int row) {
    std::uint64_t state = seed;
    const auto mix = [&](std::uint64_t more) {   // the steps of splitmix64
        state = (state ^ more) + 0x9E3779B97F4A7C15u;
        state = (state ^ state >> 30) * 0xBF58476D1CE4E5B9u;
        state = (state ^ state >> 27) * 0x94D049BB133111EBu;
        state ^= state >> 31;
    };
    for (const char c : layer) mix(static_cast<unsigned char>(c));
    mix(static_cast<std::uint32_t>(column));
    mix(static_cast<std::uint32_t>(row));
    return static_cast<double>(state >> 11) * 0x1p-53;
}

// Searches a bare name in all tile sets of the map; set/name only in that set.
std::array<int, 2> WorldMaker::find_in_sets(const std::vector<NameIndex>& by_set, const char* sort, const Name& name,
                                            const Map& map) {
    const auto slash = name.value.find('/');
    const std::string bare = slash == std::string::npos ? name.value : name.value.substr(slash + 1);
    if (slash != std::string::npos) {
        const TileSetId set = look_up(tilesets_, {name.value.substr(0, slash), name.place});
        if (set == TileSetId::none) return {-1, -1};
        if (std::find(map.tilesets.begin(), map.tilesets.end(), set) == map.tilesets.end()) {
            add(Rule::unknown_name, name.place, {"tile set of this map", name.value.substr(0, slash)},
                Hint{"add it to the map's 'tilesets'", ""});
            return {-1, -1};
        }
        return {static_cast<int>(set), look_up(by_set[index(set)], {bare, name.place})};
    }
    std::array<int, 2> found{-1, -1};
    NameIndex all{sort, {}, {}, {}};
    for (const TileSetId set : map.tilesets) {
        const NameIndex& names = by_set[index(set)];
        all.names.insert(all.names.end(), names.names.begin(), names.names.end());
        const int id = names.find(bare);
        if (id < 0) continue;
        if (found[0] >= 0) {
            const std::string first = tilesets_.names[static_cast<std::size_t>(found[0])],
                              second = tilesets_.names[index(set)];
            add(Rule::ambiguous_name, name.place, {bare, sort, first, second},
                Hint{"name one of them", fmt::format("\"{}/{}\" or \"{}/{}\"", first, bare, second, bare)});
            return found;
        }
        found = {static_cast<int>(set), id};
    }
    if (found[0] < 0) {
        if (const std::optional<Hint> hint = hint_of_other_set(by_set, bare, map))
            add(Rule::unknown_name, name.place, {sort, name.value}, hint);
        else
            add_unknown(all, name);
    }
    return found;
}

// Hints at a tile set that has the name but is not used by the map, or that the map uses none at all.
std::optional<Hint> WorldMaker::hint_of_other_set(const std::vector<NameIndex>& by_set, const std::string& bare,
                                                  const Map& map) const {
    std::vector<std::string> used;
    for (const TileSetId set : map.tilesets) used.push_back(fmt::format("\"{}\"", tilesets_.names[index(set)]));
    for (std::size_t set = 0; set < by_set.size(); ++set) {
        if (by_set[set].find(bare) < 0) continue;
        const std::string& other = tilesets_.names[set];
        used.push_back(fmt::format("\"{}\"", other));
        return Hint{fmt::format("tile set '{}' has it; add that to the map", other),
                    fmt::format("tilesets = [{}]", fmt::join(used, ", "))};
    }
    if (!map.tilesets.empty() || tilesets_.names.empty()) return std::nullopt;
    return Hint{fmt::format("the map uses no tile set; add those it uses, of: {}", fmt::join(tilesets_.names, ", ")),
                "tilesets = [\"…\"]"};
}

Placed WorldMaker::find_tile(const Name& name, const Map& map) {
    const auto [set, tile] = find_in_sets(tiles_, "tile", name, map);
    return tile < 0 ? Placed{} : Placed{static_cast<std::int16_t>(set), tile, {}};
}

void WorldMaker::check_turn(const Name& tile, const Orientation& orientation, const Map& map) {
    if (orientation.turn % 180 != 0 && map.cell_width != map.cell_height)
        add(Rule::turn_not_square, tile.place,
            {tile.value, fmt::format("{}", orientation.turn), fmt::format("{}", map.cell_width),
             fmt::format("{}", map.cell_height)});
}

bool WorldMaker::are_weights(const Located<std::vector<double>>& weights, std::size_t kinds) {
    const auto wrong = [&](const std::string& is, const std::string& should_be) {
        add(Rule::out_of_range, weights.place, {"'weights'", is, should_be});
        return false;
    };
    if (weights.value.size() != kinds)
        return wrong(fmt::format("{} numbers", weights.value.size()), fmt::format("{}, one for each kind", kinds));
    for (const double weight : weights.value)
        if (!(weight >= 0) || !std::isfinite(weight)) return wrong(fmt::format("{}", weight), "0 or more");
    if (std::accumulate(weights.value.begin(), weights.value.end(), 0.0) <= 0)
        return wrong("0 for all", "more than 0 for one of them");
    return true;
}

void WorldMaker::read_legend(const std::vector<LegendEntry>& entries, const Map& map, bool only_characters,
                             Legend& legend) {
    for (const LegendEntry& entry : entries) {
        if (only_characters && utf8::count(entry.key.value) != 1) {
            add(Rule::out_of_range, entry.key.place,
                {fmt::format("the legend's key '{}'", entry.key.value),
                 fmt::format("{} characters long", utf8::count(entry.key.value)),
                 "one character, as it stands in the rows"});
            continue;
        }
        Legend::Meaning meaning;
        meaning.entry = &entry;
        if (entry.kind) meaning.kinds = {*entry.kind};
        if (!entry.kinds.empty()) meaning.kinds = entry.kinds;
        if (!meaning.kinds.empty()) {
            for (const Name& kind : meaning.kinds)
                meaning.known = look_up(kinds_, kind) != KindId::none && meaning.known;
            meaning.weights.assign(meaning.kinds.size(), 1.0);
            if (entry.weights && are_weights(*entry.weights, meaning.kinds.size()))
                meaning.weights = entry.weights->value;
        } else if (entry.family) {
            meaning.family = find_in_sets(families_, "family", *entry.family, map);
            meaning.known = meaning.family[1] >= 0;
        } else if (entry.block) {
            meaning.block = find_in_sets(blocks_, "block", *entry.block, map);
            meaning.known = meaning.block[1] >= 0;
        } else if (!entry.tile.value.empty()) {
            meaning.placed = find_tile(entry.tile, map);
            meaning.known = meaning.placed.tile >= 0;
            meaning.placed.orientation = entry.orientation;
            check_turn(entry.tile, entry.orientation, map);
        }
        if (!legend.meanings.emplace(canonical_key(entry.key.value), std::move(meaning)).second)
            add(Rule::duplicate_name, entry.key.place, {"legend key", entry.key.value});
    }
}

void WorldMaker::report_unused(const Legend& legend) {
    // In file order: reports are sorted that way, so adding at the end is quick even for a million keys.
    std::vector<const std::pair<const std::string, Legend::Meaning>*> unused;
    for (const auto& entry : legend.meanings)
        if (!entry.second.used && entry.first != "." && entry.first != " " && !entry.first.empty())
            unused.push_back(&entry);
    std::sort(unused.begin(), unused.end(), [](const auto* a, const auto* b) {
        const Place &p = a->second.entry->key.place, &q = b->second.entry->key.place;
        return std::tie(p.line, p.column) < std::tie(q.line, q.column);
    });
    for (const auto* entry : unused)
        add(Rule::legend_unused, entry->second.entry->key.place, {entry->first},
            Hint{"use it in the data, or remove it", ""});
}

}   // namespace dryground

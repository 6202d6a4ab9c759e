// A tile set as a page: its tiles' pictures and descriptions, searchable, with where each is written and where it
// stands in maps.

#include <fmt/format.h>

#include <algorithm>
#include <set>

#include "../ground/ground_internal.hpp"
#include "dryground/text.hpp"
#include "page_internal.hpp"
#include "page_parts.hpp"
#include "picture_internal.hpp"

namespace dryground {

namespace {

using drawing::escaped;

// Counts how many cells of each map hold each tile of a set, by the tile's number.
std::vector<std::vector<std::pair<const Map*, std::size_t>>> cells_by_tile(const World& world, const TileSet& set) {
    const auto id = static_cast<int>(&set - world.tilesets().data());
    std::vector<std::vector<std::pair<const Map*, std::size_t>>> all(set.tiles.size());
    for (const Map& map : world.maps()) {
        std::vector<std::size_t> counts(set.tiles.size(), 0);
        for (const Layer& layer : map.layers)
            for (std::size_t n = 0; n < std::min(layer.counts.size(), map.palette.size()); ++n)
                if (map.palette[n].tileset == id && map.palette[n].tile >= 0)
                    counts[static_cast<std::size_t>(map.palette[n].tile)] += layer.counts[n];
        for (std::size_t t = 0; t < counts.size(); ++t)
            if (counts[t] > 0) all[t].emplace_back(&map, counts[t]);
    }
    return all;
}

std::string item(std::string_view sentence) { return fmt::format("<li>{}</li>", escaped(sentence)); }

std::string choices(const std::set<std::string>& names) {
    std::string all;
    for (const std::string& name : names) all += fmt::format("<option>{}</option>", escaped(name));
    return all;
}

std::set<std::string> barriers_of(const World& world, const Tile& tile) {
    std::set<std::string> names;
    for (const ground::Meaning& meaning : ground::meanings_of(tile))
        if (meaning.barrier != BarrierId::none) names.insert(world.barrier(meaning.barrier).name);
    return names;
}

}   // namespace

std::string draw_page(const World& world, const TileSet& set, const ArtSource& art, const DrawOptions& options) {
    const drawing::TileCards cards = drawing::tile_cards(world, set, art, options);
    const auto cells = cells_by_tile(world, set);
    std::set<std::string> all_barriers, all_flags;
    std::string tiles;
    for (std::size_t t = 0; t < set.tiles.size(); ++t) {
        const Tile& tile = set.tiles[t];
        const std::set<std::string> barriers = barriers_of(world, tile);
        const std::vector<std::string> flags = flag_names(world, tile.flags.value_or(0));
        all_barriers.insert(barriers.begin(), barriers.end());
        all_flags.insert(flags.begin(), flags.end());
        std::string words;
        for (const std::string& sentence : cards.tiles[t].sentences) words += item(sentence);
        std::size_t count = 0;
        for (const auto& [map, held] : cells[t]) {
            words += item(fmt::format("{}: {}", map->name, counted(held, "cell")));
            count += held;
        }
        if (count == 0) words += item("in no map");
        if (tile.place.line > 0) words += fmt::format("<li><code>{}</code></li>", escaped(text(tile.place)));
        tiles += fmt::format(
            "<article class=\"tile\" data-name=\"{}\" data-barriers=\"{}\" data-flags=\"{}\" data-undecided=\"{}\" "
            "data-cells=\"{}\">{}<div><h2>{}{}</h2><ul>{}</ul></div></article>\n",
            escaped(tile.name), escaped(fmt::format("{}", fmt::join(barriers, " "))),
            escaped(fmt::format("{}", fmt::join(flags, " "))), !tile.decided, count, cards.tiles[t].figure,
            escaped(tile.name), tile.decided ? "" : " <span class=\"mark\">?</span>", words);
    }
    std::string page(page_parts::tiles_html);
    drawing::fill_in(page, "<!--title-->", escaped("Tile set " + set.name));
    drawing::fill_in(page, "<!--style-->", std::string(page_parts::style) + std::string(page_parts::tiles_style));
    drawing::fill_in(page, "<!--script-->", drawing::joined(page_parts::tiles_script));
    drawing::fill_in(page, "<!--barriers-->", choices(all_barriers));
    drawing::fill_in(page, "<!--flags-->", choices(all_flags));
    drawing::fill_in(page, "<!--key-->", cards.key);
    drawing::fill_in(page, "<!--hatchings-->", cards.hatchings);
    drawing::fill_in(page, "<!--tiles-->", tiles);
    return page;
}

}   // namespace dryground

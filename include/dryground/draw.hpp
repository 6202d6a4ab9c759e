// Pictures for people: of maps and of tile sets, as SVG, as PNG, as characters for a terminal, and as one page for a
// browser. Nothing is told by colour alone: hatching, dashes, letters, marks and numbers say the same.
//
//     const dg::ArtSource art{"demo"};
//     const std::string svg = dg::draw_svg(world, world.map("slipway"), dg::check(world), art);
//
// Units: one px of the map is `scale` px of the picture; cells are counted as maps count them. Threads: free functions
// without shared state. Tile sets and maps must be of the world they come with.
#pragma once

#include <functional>
#include <map>
#include <optional>
#include <set>
#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "dryground/files.hpp"
#include "dryground/report.hpp"
#include "dryground/world.hpp"

namespace dryground {

// What a picture can show.
enum class Thing {
    art,        // the pictures of tiles, kinds and movers
    grid,       // cells, and their numbers at the edge
    shapes,     // of each tile by itself; carves dashed
    merged,     // outlines by barrier and trigger, their vertices, a tick on each edge's free side; one-way arrows
    pieces,     // what the outlines are cut into: convex pieces, or boxes or triangles when those were asked for
    flags,      // letters in cells
    sides,      // edges of cells that are shut
    objects,    // areas, bodies, marks by role, names
    links,      // where links lead
    findings,   // numbered marks, and a list
    reach,      // where a mover's position cannot be: the asked-for mover's, else the player's
    walk,       // where it gets to in the whole world, and the way to all goals (travel.hpp)
};
[[nodiscard]] std::span<const std::string_view> thing_names();   // in that order
[[nodiscard]] std::optional<Thing> thing_from(std::string_view name);

enum class Palette {
    own,      // the colours that barriers name, else spare ones
    protan,   // for eyes that miss red, green or blue; the tests say how far apart their colours are seen
    deutan,
    tritan,
    grey,   // for grey print; art too
};
[[nodiscard]] std::span<const std::string_view> palette_names();   // in that order
[[nodiscard]] std::optional<Palette> palette_from(std::string_view name);

struct DrawOptions {
    std::set<Thing> show{Thing::art, Thing::grid, Thing::merged, Thing::objects, Thing::links, Thing::findings};
    std::map<Thing, double> fade{};   // how strongly a thing is drawn, 0 to 1; those not named: 1
    // Whose art, shapes and objects are drawn; none: all. Ground, flags, sides and reach are those of just these too.
    std::vector<std::string> layers{};
    // The storeys that are looked at (ids): their ground, objects, flags, sides, reach and findings. The art of those
    // below is faded, that of those above is left out. None: all of them, with flags, sides and reach of the first.
    std::vector<StoreyId> storeys{};
    bool plain = false;   // what is shown, one px to a px, without frame, key, labels and marks: to trace over
    std::optional<CellArea> area{};   // only these cells; they need not all be there
    double scale = 0;                 // above 0, at most 16; 0 picks one so that the picture is about 1300 px wide
    Palette palette = Palette::own;
    Plane plane = Plane::screen;   // of pictures; the ground: diamonds are drawn as squares, without art
    MergeOptions merging{};        // for which mover, with which facts, and so on, things are drawn
    std::function<void(std::size_t done, std::size_t all)>
        progress{};   // called now and then: of a PNG its blocks, of a page its maps
};

// Where the pictures of tiles and kinds are: the world file's folder, and how to read there. A picture that cannot be
// read is left out.
struct ArtSource {
    std::string folder;
    FileReader reader = read_file;
};

// One map as SVG 1.1, art included as data: a group for each thing, with its name as id. Of `report` the findings of
// this map are marked and listed. Cost: in proportion to the cells that are shown, and merging them.
[[nodiscard]] std::string draw_svg(const World& world, const Map& map, const Report& report, const ArtSource& art,
                                   const DrawOptions& options = {});
// A tile set: every tile large, with its name, shapes and their vertices, flags, sides and carves; undecided ones
// marked. Of the options `scale` and `palette` count.
[[nodiscard]] std::string draw_svg(const World& world, const TileSet& set, const ArtSource& art,
                                   const DrawOptions& options = {});

// The same as one HTML file that needs no network: tiles found by words, barriers and flags, with where they are
// written and how many cells of which maps hold them. Cost: besides, in proportion to the cells of the maps that use
// the set.
[[nodiscard]] std::string draw_page(const World& world, const TileSet& set, const ArtSource& art,
                                    const DrawOptions& options = {});

// One map as PNG, drawn in blocks: memory in proportion to the picture's width, and to what lies in a block of 2048 by
// 512 px. Up to 2^20 px a side. Maps of more than 2^20 cells are merged block by block, so the key then has no figures.
Result<void> draw_png(const World& world, const Map& map, const Report& report, const ArtSource& art,
                      const DrawOptions& options, const ByteSink& sink);

// Maps as one page for a browser, which needs no network: to pan, zoom, switch things on and off, ask for what is at a
// place in the words of `probe`, search, jump to findings, follow links from map to map and measure. `maps` are names,
// the first is shown first. Of the options `merging`, `palette`, and what is shown at first count. A page that
// `reloads` looks every second whether its file is another, and then loads it in place.
// Cost: in proportion to the maps' cells; memory for the page a few times over.
[[nodiscard]] std::string draw_page(const World& world, std::span<const std::string> maps, const Report& report,
                                    const ArtSource& art, const DrawOptions& options = {}, bool reloads = false);

// A page that was drawn before, with a text at its head: that its world cannot be read now, and why. Where the page
// `reloads`, whoever looks at it sees the text, and the last picture below. Texts that are no page come back as they
// are.
[[nodiscard]] std::string page_with_trouble(std::string page, std::string_view trouble);

// One map in characters, for a terminal: two, or one, for a cell, or one for several cells where the width asks for it.
// What is solid has its barrier's character, objects have letters by role, findings numbers; a key and the findings
// follow. Of the options `area`, `show` (art, grid, merged, objects, findings, flags and reach), `layers`, `storeys`
// and `merging` count.
struct CharacterOptions {
    int width = 80;         // characters a line, 20 or more
    bool colours = false;   // of the art and the barriers, as escape codes with 24 bits a colour
};
[[nodiscard]] std::string draw_characters(const World& world, const Map& map, const Report& report,
                                          const ArtSource& art, const DrawOptions& options = {},
                                          const CharacterOptions& characters = {});

// A picture of an SVG as PNG bytes.
[[nodiscard]] Result<std::string> png_from_svg(std::string_view svg);

}   // namespace dryground

// Pictures of maps and tile sets: as SVG, PNG, characters for a terminal, and pages for a browser. Nothing depends on
// colour alone: hatching, dashes, letters, marks and numbers show the same.
//
//     const dg::ArtSource art{"demo"};
//     const std::string svg = dg::draw_svg(world, world.map("slipway"), dg::check(world), art);
//
// Units: one px of the map is `scale` px of the picture; cells are counted from cell (0, 0). Threads: free functions
// without shared state. Tile sets and maps must belong to the world passed with them.
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
    pieces,     // what the outlines are cut into: convex pieces, or boxes or triangles if `merging` requests them
    flags,      // letters in cells
    sides,      // edges of cells that are shut
    objects,    // areas, bodies, marks by role, names
    links,      // where links lead
    findings,   // numbered marks, and a list
    reach,      // where the position of a mover cannot be: of `merging.mover`, else of the player
    walk,       // where it can get to in the whole world, and a route to all goals (travel.hpp)
};
[[nodiscard]] std::span<const std::string_view> thing_names();   // in that order
[[nodiscard]] std::optional<Thing> thing_from(std::string_view name);

enum class Palette {
    own,      // the colours that barriers declare, else default ones
    protan,   // for eyes that do not see red, green or blue
    deutan,
    tritan,
    grey,   // for grey print; art too
};
[[nodiscard]] std::span<const std::string_view> palette_names();   // in that order
[[nodiscard]] std::optional<Palette> palette_from(std::string_view name);

struct DrawOptions {
    std::set<Thing> show{Thing::art, Thing::grid, Thing::merged, Thing::objects, Thing::links, Thing::findings};
    std::map<Thing, double> fade{};   // opacity of things, 0 to 1; default 1
    // Draws the art, shapes and objects of these layers only; empty: all. Ground, flags, sides and reach too are those
    // of these layers alone.
    std::vector<std::string> layers{};
    // Shows these storeys only: their ground, objects, flags, sides, reach and findings. The art of storeys below is
    // faded, that of storeys above omitted. Empty: all, with flags, sides and reach of the first.
    std::vector<StoreyId> storeys{};
    bool plain = false;               // at scale 1, without frame, key, labels and marks: to trace over
    std::optional<CellArea> area{};   // only these cells, some of which may lie outside the map
    double scale = 0;                 // above 0, at most 16; 0: chosen so that the picture is about 1300 px wide
    Palette palette = Palette::own;
    Plane plane = Plane::screen;   // of pictures; Plane::ground: diamonds are drawn as squares, without art
    MergeOptions merging{};        // mover, facts and so on of what is drawn
    std::function<void(std::size_t done, std::size_t all)>
        progress{};   // called after each block of a PNG, each map of a page
};

// Where the pictures of tiles and kinds are: the folder of the world's file, and how to read from it. Pictures that
// cannot be read are omitted.
struct ArtSource {
    std::string folder;
    FileReader reader = read_file;
};

// Draws a map as SVG 1.1 with embedded art: a group for each thing, with its name as id. The findings of `report` on
// this map are marked and listed. Cost: proportional to the shown cells, and merging them.
[[nodiscard]] std::string draw_svg(const World& world, const Map& map, const Report& report, const ArtSource& art,
                                   const DrawOptions& options = {});
// Draws a tile set: every tile large, with name, shapes and their vertices, flags, sides and carves; undecided tiles
// are marked. Of the options only `scale` and `palette` apply.
[[nodiscard]] std::string draw_svg(const World& world, const TileSet& set, const ArtSource& art,
                                   const DrawOptions& options = {});

// Draws the same as one HTML file that needs no network: tiles can be searched and filtered by barrier and flag, and
// show where they are written and how many cells of which maps contain them. Cost: in addition, proportional to the
// cells of the maps that use the set.
[[nodiscard]] std::string draw_page(const World& world, const TileSet& set, const ArtSource& art,
                                    const DrawOptions& options = {});

// Draws a map as PNG, in blocks: memory is proportional to the width of the picture and the content of a block of 2048
// by 512 px. Up to 2^20 px a side. Maps of more than 2^20 cells are merged block by block; the key has no figures then.
Result<void> draw_png(const World& world, const Map& map, const Report& report, const ArtSource& art,
                      const DrawOptions& options, const ByteSink& sink);

// Draws maps as one page for a browser, which needs no network: to pan, zoom, switch things on and off, see what
// `probe` reports at a place, search, jump to findings, follow links between maps and measure. `maps` are names; the
// first is shown first. Of the options `merging` and `palette` apply, and those for what is shown at first. A page that
// `reloads` looks every second whether its file has changed, and then loads it in place.
// Cost: proportional to the cells of the maps; memory of a few times the page.
[[nodiscard]] std::string draw_page(const World& world, std::span<const std::string> maps, const Report& report,
                                    const ArtSource& art, const DrawOptions& options = {}, bool reloads = false);

// Adds a text to the head of a page drawn before: that its world cannot be read now, and why. If the page `reloads`,
// its readers see the text above the last picture. Texts that are not pages are returned unchanged.
[[nodiscard]] std::string page_with_trouble(std::string page, std::string_view trouble);

// Draws a map in characters, for a terminal: two or one for a cell, or one for several cells, by `width`. Solid cells
// show the character of their barrier, objects have letters by role, findings numbers; a key and the findings follow.
// Of the options `area`, `show` (art, grid, merged, objects, findings, flags and reach), `layers`, `storeys` and
// `merging` apply.
struct CharacterOptions {
    int width = 80;         // characters a line, 20 or more
    bool colours = false;   // of art and barriers, as escape codes with 24-bit colours
};
[[nodiscard]] std::string draw_characters(const World& world, const Map& map, const Report& report,
                                          const ArtSource& art, const DrawOptions& options = {},
                                          const CharacterOptions& characters = {});

// Renders an SVG to PNG bytes.
[[nodiscard]] Result<std::string> png_from_svg(std::string_view svg);

}   // namespace dryground

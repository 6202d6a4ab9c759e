#include "starter.hpp"

#include <fmt/format.h>

#include <algorithm>

namespace app {

namespace dg = dryground;

namespace {

constexpr const char* world_text = R"(format = "dryground/world/1"
title = {title}
per_metre = {cell}                              # px to one metre
player = "warden"                           # the mover that people play
start = "shore/landing"                     # map/object where play begins
goals = {{ objects = ["shore/beacon"] }}      # what has to be reachable: `dryground walk` shows the way
tilesets = ["tiles/shore.tiles.toml"]
maps = ["maps/shore.map.toml"]

[barriers]                                  # what can stop a mover
earth = {{ note = "soil and stone", colour = "#7a5c3a" }}
brine = {{ note = "standing salt water", colour = "#2f7f93" }}

[flags]                                     # what a tile can grant
walk = "can be crossed on foot"

[movers.warden]
body = {{ box = [{wide}, {high}], at = [0, {middle}] }}       # about its feet
stopped_by = ["earth", "brine"]
picture = {{ file = "art/warden.png", at = [{half}, {up}] }}
{moves}

[kinds.beacon]                              # what an object can be
role = "entity"
stands = "feet"
area = {{ box = [{half}, {up}, {cell}, {cell}] }}
picture = {{ file = "art/beacon.png", at = [{half}, {twice_up}] }}

[kinds.shell]                               # painted on cells: "o" in the map's legend
role = "entity"
stands = "feet"
area = {{ box = [{shell_half}, {shell_up}, {shell}, {shell}] }}
picture = {{ file = "art/shell.png", at = [{shell_half}, {shell_up}] }}
fires = "enter"
once = true
runs = "count_shell"

[events]                                    # what the game's code can be asked to do
count_shell = "a shell is picked up"
)";

constexpr const char* side_moves = R"(moves = "side"                              # runs, falls and jumps
jump_px = {jump}
leap_px = {leap}
drop_px = {drop}
kerb_px = 2
slope_degrees = 46)";
constexpr const char* free_moves = R"(moves = "free"                              # any direction
needs = ["walk"]                            # cells without this flag are closed to it)";

// Those that a view uses; {n} is a cell's size in px.
struct TileText {
    const char* name;
    const char* side;
    const char* above;   // seen from above, and on diamonds; nullptr: not used there
};
constexpr TileText tile_texts[] = {
    {"turf", "barrier = \"earth\"\nshapes = [\"cell\"]                           # solid all over\n", nullptr},
    {"peat", "barrier = \"earth\"\nshapes = [\"cell\"]\n",
     "barrier = \"earth\"\nshapes = [\"cell\"]                           # solid all over\n"},
    {"bank",
     "barrier = \"earth\"\nshapes = [{{ polygon = [[0, {n}], [{n}, 0], [{n}, {n}]] }}]   # px, from the cell's "
     "top-left "
     "corner\n",
     nullptr},
    {"brine", "barrier = \"brine\"\nshapes = [\"cell\"]\n", "barrier = \"brine\"\nshapes = [\"cell\"]\n"},
    {"boardwalk",
     "barrier = \"earth\"\nshapes = [{{ line = [[0, 0], [{n}, 0]], one_way = \"up\" }}]   # jumped through from below, "
     "stood on from above\n",
     "shapes = []                                 # nothing stops a body here …\nflags = [\"walk\"]\ncarves = [{{ "
     "barrier = "
     "\"brine\" }}]            # … and the brine below it is bridged\n"},
    {"reeds", "shapes = []                                 # nothing stops a body here\n",
     "shapes = []\nflags = [\"walk\"]\n"},
    {"marsh", nullptr, "shapes = []\nflags = [\"walk\"]\n"},
};

std::string tiles_text(const StarterOptions& o) {
    const int width = o.view == StarterView::isometric ? 2 * o.cell : o.cell;
    std::string text = fmt::format(
        "format = \"dryground/tiles/1\"\nname = \"shore\"\ncell = [{}, {}]\nsheet = {{ file = \"../art/shore.png\" "
        "}}\n",
        width, o.cell);
    bool first = true;
    for (std::size_t i = 0; i < std::size(tile_texts); ++i) {
        const char* keys = o.view == StarterView::side ? tile_texts[i].side : tile_texts[i].above;
        if (keys == nullptr) continue;
        text += fmt::format("\n[tiles.{}]\nart = [{}, 0]{}\n", tile_texts[i].name, i,
                            first ? "                                # column and row in the sheet" : "");
        text += fmt::format(fmt::runtime(keys), fmt::arg("n", o.cell));
        first = false;
    }
    return text;
}

using Rows = std::vector<std::string>;

Rows empty_rows(const StarterOptions& o) {
    return Rows(static_cast<std::size_t>(o.rows), std::string(static_cast<std::size_t>(o.columns), '.'));
}
void put(Rows& rows, int column, int row, char key, int columns = 1, int row_count = 1) {
    for (int r = row; r < row + row_count; ++r)
        for (int c = column; c < column + columns; ++c)
            rows[static_cast<std::size_t>(r)][static_cast<std::size_t>(c)] = key;
}

std::string layer_text(const char* name, const Rows& rows, const char* note = "") {
    return fmt::format("\n[[layers]]{}\nname = \"{}\"\nrows = '''\n{}\n'''\n", note, name, fmt::join(rows, "\n"));
}

struct Layout {
    std::string legend;
    Rows ground, deck, shells;
    dg::PointPx landing{}, beacon{};
};

// Ground to the left, a pool with a boardwalk over it, two banks up, a plank to jump onto.
Layout side_layout(const StarterOptions& o) {
    Layout all{R"("#" = "peat"
"^" = "turf"
"/" = "bank"
"~" = "brine"
"=" = "boardwalk"
"'" = "reeds"
"o" = { kind = "shell" }                    # an object on a cell
)",
               empty_rows(o), empty_rows(o), empty_rows(o)};
    const int n = o.cell, level = o.rows - 4, pool = o.columns / 4, first = o.columns / 2, second = o.columns - 8;
    const auto ground_from = [&](int column, int columns, int top) {
        put(all.ground, column, top, '^', columns);
        put(all.ground, column, top + 1, '#', columns, o.rows - top - 1);
    };
    ground_from(0, o.columns, level);
    put(all.ground, pool, level, '.', 4);
    put(all.ground, pool, level + 1, '~', 4, 2);
    put(all.deck, pool, level, '=', 4);
    ground_from(first + 1, o.columns - first - 1, level - 1);
    put(all.ground, first, level - 1, '/');
    put(all.ground, first, level, '#');
    ground_from(second + 1, o.columns - second - 1, level - 2);
    put(all.ground, second, level - 2, '/');
    put(all.ground, second, level - 1, '#');
    put(all.deck, first + 1, level - 3, '=', 3);
    put(all.deck, 2, level - 1, '\'', 1);
    put(all.deck, pool + 5, level - 1, '\'', 1);
    put(all.shells, pool + 1, level - 1, 'o', 2);
    put(all.shells, first + 2, level - 4, 'o');
    all.landing = {1.5 * n, 1.0 * n * level};
    all.beacon = {(o.columns - 2.5) * n, 1.0 * n * (level - 2)};
    return all;
}

// A pool across the map, a boardwalk over it, a rock to go around.
Layout layout_from_above(const StarterOptions& o) {
    Layout all{R"("#" = "peat"
"," = "marsh"
"~" = "brine"
"=" = "boardwalk"
"'" = "reeds"
"o" = { kind = "shell" }                    # an object on a cell
)",
               empty_rows(o), empty_rows(o), empty_rows(o)};
    const int middle = o.rows / 2, pool = o.columns / 2 - 2;
    put(all.ground, 0, 0, '#', o.columns, o.rows);
    put(all.ground, 1, 1, ',', o.columns - 2, o.rows - 2);
    put(all.ground, pool, 1, '~', 3, o.rows - 2);
    put(all.deck, pool, middle, '=', 3);
    put(all.ground, o.columns * 2 / 3, middle - 1, '#', 2, 2);
    for (const auto& [column, row] :
         {std::pair{2, 1}, std::pair{4, o.rows - 2}, std::pair{pool - 2, 2}, std::pair{o.columns - 4, o.rows - 2}})
        put(all.ground, column, row, '\'');
    for (const int column : {pool - 2, pool + 1, pool + 5}) put(all.shells, column, middle, 'o');
    const auto foot_of = [&](int column, int row) {   // where kinds that stand on their feet have them, in a cell
        const double n = o.cell;
        return o.view == StarterView::isometric ? dg::PointPx{(column - row) * n, (column + row + 1.0) * n / 2}
                                                : dg::PointPx{(column + 0.5) * n, (row + 0.75) * n};
    };
    all.landing = foot_of(3, middle);
    all.beacon = foot_of(o.columns - 3, middle);
    return all;
}

std::string map_text(const StarterOptions& o) {
    const bool isometric = o.view == StarterView::isometric;
    const Layout layout = o.view == StarterView::side ? side_layout(o) : layout_from_above(o);
    std::string text = fmt::format(R"(format = "dryground/map/1"
name = "shore"
title = "The Shore"
{grid}cell = [{width}, {cell}]
size = [{columns}, {rows}]                             # columns, rows
rim = "earth"                               # a ring of earth just outside keeps everybody in
tilesets = ["shore"]

[legend]                                    # what each character stands for; . is nothing
)",
                                   fmt::arg("grid", isometric ? "grid = \"isometric\"\n" : ""),
                                   fmt::arg("width", isometric ? 2 * o.cell : o.cell), fmt::arg("cell", o.cell),
                                   fmt::arg("columns", o.columns), fmt::arg("rows", o.rows));
    text +=
        layout.legend + layer_text("ground", layout.ground, "                                  # from the bottom up");
    text += layer_text("deck", layout.deck) + layer_text("shells", layout.shells);
    return text + fmt::format(
                      "\n[[layers]]\nname = \"people\"\nobjects = [\n"
                      "  {{ name = \"landing\", kind = \"spawn\", at = [{}, {}] }},\n"
                      "  {{ name = \"beacon\", kind = \"beacon\", at = [{}, {}] }},\n]\n",
                      layout.landing.x, layout.landing.y, layout.beacon.x, layout.beacon.y);
}

}   // namespace

std::vector<dg::NamedBytes> starter_files(const StarterOptions& o) {
    const bool side = o.view == StarterView::side;
    const int n = o.cell, wide = std::max(2, n * 10 / 16), high = std::max(2, side ? n * 14 / 16 : n * 6 / 16);
    const int shell = std::max(5, n / 2);
    const std::string moves = side ? fmt::format(fmt::runtime(side_moves), fmt::arg("jump", n * 5 / 2),
                                                 fmt::arg("leap", n * 7 / 2), fmt::arg("drop", n * 12))
                                   : std::string(free_moves);
    const std::string world =
        fmt::format(fmt::runtime(world_text), fmt::arg("title", o.title), fmt::arg("cell", n), fmt::arg("wide", wide),
                    fmt::arg("high", high), fmt::arg("middle", -high / 2.0), fmt::arg("half", -n / 2),
                    fmt::arg("up", -n), fmt::arg("twice_up", -2 * n), fmt::arg("shell", shell),
                    fmt::arg("shell_half", -shell / 2), fmt::arg("shell_up", -shell), fmt::arg("moves", moves));
    return {{"art/beacon.png", dg::encode_png(beacon_art(n))},
            {"art/shell.png", dg::encode_png(shell_art(n))},
            {"art/shore.png", dg::encode_png(starter_art(o.view, n))},
            {"art/warden.png", dg::encode_png(warden_art(n))},
            {"tiles/shore.tiles.toml", tiles_text(o)},
            {"maps/shore.map.toml", map_text(o)},
            {"world.toml", world}};
}

}   // namespace app

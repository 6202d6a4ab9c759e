// Worlds to walk about in: written in a few characters, or by chance.
#pragma once

#include <functional>

#include "chance.hpp"
#include "worlds.hpp"

namespace rambles {

struct Figures {
    std::string moves = "side";
    std::string body = "{ box = [10, 14], at = [0, -7] }";
    std::string more = "jump_px = 40\nleap_px = 56\nkerb_px = 2\nslope_degrees = 46\n";
};

// One map `flat` of 16 px cells, of characters: # earth, / and \ slopes, _ a plank that stops only from above, and ,
// and ; the same aslant, = one that stops both ways, h half a cell of earth, n a net to climb, ~ brine, B a crate
// (earth). `objects` are lines of an object layer.
inline worlds::Files one_map(const std::vector<std::string>& rows, const std::string& objects,
                             const Figures& figures = {}, const std::string& facts = "",
                             const std::string& layers = "") {
    std::string drawn;
    for (const std::string& row : rows) drawn += row + "\n";
    return {{"world.toml", fmt::format(R"(format = "dryground/world/1"
title = "Ramble"
per_metre = 16
player = "warden"
start = "flat/landing"
tilesets = ["marsh.toml"]
maps = ["flat.toml"]

[barriers]
earth = {{}}
brine = {{}}

[flags]
walk = "on foot"
climb = "by hand"

[movers.warden]
body = {}
stopped_by = ["earth", "brine"]
moves = "{}"
{}
[facts]
{}
[kinds.thing]
role = "entity"
area = {{ box = [-4, -8, 8, 8] }}
stands = "feet"

[kinds.lift]
role = "solid"
barrier = "earth"
motion = "driven"
path = "stops"
props.stops = {{ type = "list", of = "place", default = [] }}
)",
                                       figures.body, figures.moves, figures.more, facts)},
            {"marsh.toml", R"(format = "dryground/tiles/1"
name = "marsh"
cell = [16, 16]

[[for]]
tiles = ["*"]
set = { barrier = "earth", unseen = true }

[tiles.peat]
shapes = ["cell"]

[tiles.bank]
shapes = [{ polygon = [[0, 16], [16, 0], [16, 16]] }]

[tiles.plank]
shapes = [{ line = [[0, 0], [16, 0]], one_way = "up" }]

[tiles.ramp]
shapes = [{ line = [[0, 16], [16, 0]], one_way = "up" }]

[tiles.board]
shapes = [{ line = [[0, 8], [16, 8]] }]

[tiles.half]
shapes = [{ box = [0, 8, 16, 8] }]

[tiles.net]
shapes = []
flags = ["climb"]

[tiles.pool]
barrier = "brine"
shapes = ["cell"]
)"},
            {"flat.toml", fmt::format(R"(format = "dryground/map/1"
name = "flat"
cell = [16, 16]
size = [{}, {}]
rim = "earth"
tilesets = ["marsh"]
legend = {{ "#" = "peat", "/" = "bank", "\\" = {{ tile = "bank", flip = "x" }}, "_" = "plank", "," = "ramp", ";" = {{ tile = "ramp", flip = "x" }}, "=" = "board", "h" = "half", "n" = "net", "~" = "pool" }}

[[layers]]
name = "ground"
rows = '''
{}'''
{}
[[layers]]
name = "people"
objects = [
  {}
]
)",
                                      rows.front().size(), rows.size(), drawn, layers, objects)}};
}

// Ground by chance that a body can move about in: a floor, hills, ledges, planks, pits.
inline std::vector<std::string> random_rows(chance::Dice& dice, int columns, int rows) {
    std::vector<std::string> drawn(static_cast<std::size_t>(rows), std::string(static_cast<std::size_t>(columns), '.'));
    const auto at = [&](int column, int row) -> char& {
        return drawn[static_cast<std::size_t>(row)][static_cast<std::size_t>(column)];
    };
    int floor = rows - 2;
    for (int c = 0; c < columns; ++c) {
        if (dice.once_in(4)) floor = std::clamp(floor + dice.in(-2, 2), rows / 2, rows);   // `rows`: a pit
        for (int r = floor; r < rows; ++r) at(c, r) = '#';
    }
    for (int c = 1; c < columns; ++c)   // slopes where a step of one cell is
        for (int r = 1; r < rows; ++r) {
            const bool over = at(c, r) == '.' && (r + 1 == rows || at(c, r + 1) == '#');
            if (over && c + 1 < columns && at(c + 1, r) == '#' && at(c + 1, r - 1) == '.' && dice.once_in(2))
                at(c, r) = '/';
            if (over && at(c - 1, r) == '#' && at(c - 1, r - 1) == '.' && dice.once_in(2)) at(c, r) = '\\';
        }
    for (int ledge = columns * rows / 24; ledge-- > 0;) {
        const int c0 = dice.in(0, columns - 2), r = dice.in(1, rows - 3), wide = dice.in(1, 4);
        const char sort = "#_#_=h"[dice.in(0, 5)];
        for (int c = c0; c < std::min(columns, c0 + wide); ++c)
            if (at(c, r) == '.') at(c, r) = sort;
    }
    return drawn;
}

// Where to begin: on some floor that a body fits over.
inline std::array<int, 2> random_start(chance::Dice& dice, const std::vector<std::string>& rows) {
    for (int tries = 0; tries < 2000; ++tries) {
        const int r = dice.in(1, static_cast<int>(rows.size()) - 2),
                  c = dice.in(0, static_cast<int>(rows[0].size()) - 1);
        const auto is = [&](int row) { return rows[static_cast<std::size_t>(row)][static_cast<std::size_t>(c)]; };
        if (is(r) == '.' && is(r - 1) == '.' && is(r + 1) == '#') return {c * 16 + 8, r * 16 + 16};
    }
    return {8, 16};
}

// `more` gives lines of objects, told where one begins.
inline worlds::Files random_side(
    std::uint64_t round, int columns = 24, int rows = 14,
    const std::function<std::string(int, int)>& more = [](int, int) { return ""; }) {
    chance::Dice dice(round);
    std::vector<std::string> drawn = random_rows(dice, columns, rows);
    const auto [x, y] = random_start(dice, drawn);
    chance::Dice nets(round + 77'000);
    const bool climbs = nets.once_in(3);
    for (int net = climbs ? nets.in(1, 4) : 0; net > 0; --net) {
        const int c0 = nets.in(0, columns - 1), wide = nets.in(1, 3), r0 = nets.in(0, rows - 2), high = nets.in(1, 7);
        for (int r = r0; r < std::min(rows, r0 + high); ++r)
            for (int c = c0; c < std::min(columns, c0 + wide); ++c)
                if (char& cell = drawn[static_cast<std::size_t>(r)][static_cast<std::size_t>(c)]; cell == '.')
                    cell = 'n';
    }
    chance::Dice ramps(round + 78'000);
    for (int ramp = ramps.once_in(2) ? ramps.in(1, 4) : 0; ramp > 0; --ramp) {
        const bool rises = ramps.once_in(2);
        int c = ramps.in(0, columns - 1), r = ramps.in(1, rows - 2);
        for (int length = ramps.in(1, 4); length > 0 && c < columns && r > 0 && r < rows;
             --length, ++c, r += rises ? -1 : 1)
            if (char& cell = drawn[static_cast<std::size_t>(r)][static_cast<std::size_t>(c)];
                cell == '.' && std::abs(c * 16 + 8 - x) > 24)
                cell = rises ? ',' : ';';
    }
    Figures figures;
    const char* const bodies[] = {"{ box = [10, 14], at = [0, -7] }", "{ circle = 6, at = [0, -6] }",
                                  "{ capsule = [10, 20], at = [0, -10] }", "{ box = [14, 22], at = [0, -11] }"};
    figures.body = bodies[dice.in(0, 3)];
    figures.more = fmt::format("jump_px = {}\nleap_px = {}\nkerb_px = {}\nslope_degrees = 46\n", dice.in(8, 52),
                               dice.in(20, 90), dice.in(0, 3));
    if (climbs) figures.more += "climbs = [\"climb\"]\n";
    if (dice.once_in(2)) figures.more += fmt::format("drop_px = {}\n", dice.in(40, 160));
    return one_map(drawn,
                   fmt::format("{{ name = \"landing\", kind = \"spawn\", at = [{}, {}] }},\n{}", x, y, more(x, y)),
                   figures);
}

// The same with some lifts and rafts, whose paths nothing keeps from the ground; the first one begins beside the start.
inline worlds::Files random_lifts(std::uint64_t round, int columns = 24, int rows = 14) {
    chance::Dice dice(round + 31'000);
    const auto lift = [&](int x, int y, int wide, int high) {
        std::string stops;
        for (int stop = dice.in(1, 3), at_x = x, at_y = y; stop > 0; --stop) {
            if (!dice.once_in(3)) at_x = std::clamp(at_x + dice.in(-100, 100), 0, columns * 16);
            if (!dice.once_in(3)) at_y = std::clamp(at_y + dice.in(-80, 80), 16, rows * 16);
            stops += fmt::format("[{}, {}], ", at_x + wide / 2, at_y + high / 2);
        }
        return fmt::format("{{ kind = \"lift\", box = [{}, {}, {}, {}], props = {{ stops = [{}] }} }},\n", x, y, wide,
                           high, stops);
    };
    return random_side(round, columns, rows, [&](int start_x, int start_y) {
        std::string lifts = lift(start_x + 8, start_y, 24, 4);
        for (int more = dice.in(0, 2); more > 0; --more)
            lifts += lift(dice.in(0, columns * 16 - 30), dice.in(24, rows * 16 - 16), dice.in(12, 48), dice.in(4, 16));
        return lifts;
    });
}

}   // namespace rambles

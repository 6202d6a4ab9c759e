// Worlds as a careful person would make them, by chance: side views with slopes and pools, rooms from above on square
// and isometric grids; two maps with doors both ways, a key, a lamp to light, crabs. `check` has nothing to say to
// them.
#pragma once

#include "chance.hpp"
#include "worlds.hpp"

namespace worlds {

namespace clean {

inline constexpr const char* sorts[] = {"side", "rooms", "isometric"};

// What the three sorts have in common.
inline std::string world_text(bool side) {
    return fmt::format(R"(format = "dryground/world/1"
title = "Clean Flat"
per_metre = 16
player = "warden"
start = "outside/landing"
goals = {{ facts = ["lamp_lit"] }}
tilesets = ["marsh.toml"]
maps = ["outside.toml", "inside.toml"]

[barriers]
earth = {{}}
brine = {{}}

[flags]
walk = "on foot"

[movers.warden]
body = {{ box = [10, {}], at = [0, {}] }}
stopped_by = ["earth", "brine"]
{}

[movers.crab]
body = {{ circle = 4, at = [0, {}] }}
stopped_by = ["earth", "brine"]
moves = "{}"

[facts]
has_key = "the key"
lamp_lit = "the lamp is lit"

[events]
ring = "rings"

[kinds.taken]
role = "entity"
area = {{ circle = [0, 0, 6] }}

[kinds.crab]
role = "spawn"
mover = "crab"
{}props.patrol_px = {{ type = "number", default = 32, min = 0 }}
)",
                       side ? 14 : 6, side ? -7 : -3,
                       side ? "moves = \"side\"\njump_px = 40\nleap_px = 56\nkerb_px = 2\nslope_degrees = 46"
                            : "needs = [\"walk\"]\nmoves = \"free\"",
                       side ? -4 : 0, side ? "side" : "free", side ? "stands = \"feet\"\n" : "");
}

inline const char* tiles_text(const std::string& sort) {
    if (sort == "side")
        return R"(format = "dryground/tiles/1"
name = "marsh"
cell = [16, 16]

[[for]]
tiles = ["*"]
set = { unseen = true, barrier = "earth" }

[tiles.peat]
shapes = ["cell"]

[tiles.bank]
shapes = [{ polygon = [[0, 16], [16, 0], [16, 16]] }]

[tiles.brine]
barrier = "brine"
shapes = ["cell"]

[tiles.boardwalk]
shapes = []
flags = ["walk"]
)";
    return R"(format = "dryground/tiles/1"
name = "marsh"
cell = [CELL]

[[for]]
tiles = ["*"]
set = { unseen = true, barrier = "earth" }

[tiles.peat]
shapes = ["cell"]

[tiles.floor]
shapes = []
flags = ["walk"]

[tiles.brine]
barrier = "brine"
shapes = ["cell"]
)";
}

// A map while it is made: characters, and which columns (side view) or cells are good to stand on.
struct Sketch {
    std::vector<std::string> rows;
    std::vector<std::array<int, 2>> places;   // apart from each other, in the order they lie

    [[nodiscard]] std::string text() const {
        std::string all;
        for (const std::string& row : rows) all += row + '\n';
        return all;
    }
};

// Runs of flat ground, joined by slopes; pools between, level with their banks.
inline Sketch shore_sketch(chance::Dice& dice) {
    const int columns = dice.in(30, 60), rows = dice.in(10, 16);
    Sketch sketch{
        std::vector<std::string>(static_cast<std::size_t>(rows), std::string(static_cast<std::size_t>(columns), '.')),
        {}};
    const auto put = [&](int column, int height, char what) {
        for (int r = rows - height; r < rows; ++r)
            sketch.rows[static_cast<std::size_t>(r)][static_cast<std::size_t>(column)] = what;
    };
    int height = dice.in(3, 5);
    for (int c = 0; c < columns;) {
        const int run = std::min(columns - c, dice.in(4, 7));
        const bool pool = run >= 5 && c + run < columns && c > 0 && dice.once_in(4);
        for (int i = 0; i < run; ++i) {
            put(c + i, height, '#');
            if (pool && i > 0 && i + 1 < run)
                for (int depth = 0; depth < 2; ++depth)
                    sketch.rows[static_cast<std::size_t>(rows - height + depth)][static_cast<std::size_t>(c + i)] = '~';
        }
        if (!pool)
            for (int i = 1; i + 1 < run; i += 2) sketch.places.push_back({c + i, rows - height - 1});
        c += run;
        if (c + 5 >= columns || dice.once_in(3)) continue;
        const bool up = height < 3 || (height < 6 && dice.once_in(2));
        put(c, up ? height : height - 1, '#');
        sketch.rows[static_cast<std::size_t>(rows - height - (up ? 1 : 0))][static_cast<std::size_t>(c)] =
            up ? '/' : '\\';
        height += up ? 1 : -1;
        ++c;
    }
    return sketch;
}

// Rooms in a row, doorways a cell or two wide between them; a pool in some.
inline Sketch rooms_sketch(chance::Dice& dice) {
    const int rows = dice.in(8, 12), rooms = dice.in(2, 4), wide = dice.in(5, 8);
    const int columns = rooms * (wide + 1) + 1;
    Sketch sketch{
        std::vector<std::string>(static_cast<std::size_t>(rows), std::string(static_cast<std::size_t>(columns), '#')),
        {}};
    const auto put = [&](int column, int row, char what) {
        sketch.rows[static_cast<std::size_t>(row)][static_cast<std::size_t>(column)] = what;
    };
    for (int room = 0; room < rooms; ++room) {
        const int left = room * (wide + 1) + 1;
        for (int r = 1; r + 1 < rows; ++r)
            for (int c = left; c < left + wide; ++c) put(c, r, 'f');
        for (int r = 2; r + 2 < rows; r += 2)
            for (const int c : {left + 1, left + wide - 2}) sketch.places.push_back({c, r});
        if (dice.once_in(2))
            for (int r = 1; r < 4; ++r) put(left + 2, r, '~');
        const int doorway = dice.in(2, rows - 3);
        if (room > 0)
            for (int r = doorway; r < doorway + dice.in(1, 2) && r + 1 < rows; ++r) put(left - 1, r, 'f');
    }
    return sketch;
}

inline std::string map_text(const std::string& sort, const std::string& name, const Sketch& sketch,
                            const std::string& objects) {
    const bool side = sort == "side", isometric = sort == "isometric";
    return fmt::format(
        "format = \"dryground/map/1\"\nname = \"{}\"\n{}cell = [{}]\nsize = [{}, {}]\nrim = \"{}\"\ntilesets = "
        "[\"marsh\"]\nlegend = {{ {} }}\n\n[[layers]]\nname = \"ground\"\nrows = '''\n{}'''\n\n[[layers]]\nname = "
        "\"things\"\nobjects = [\n{}]\n",
        name, isometric ? "grid = \"isometric\"\n" : "", isometric ? "32, 16" : "16, 16", sketch.rows.front().size(),
        sketch.rows.size(), side ? "earth" : "open",
        sketch.text().find('~') == std::string::npos ? "LEGEND" : "LEGEND, \"~\" = \"brine\"", sketch.text(), objects);
}

}   // namespace clean

inline Files clean_world(std::uint64_t round) {
    chance::Dice dice(round);
    const std::string sort = clean::sorts[round % 3];
    const bool side = sort == "side";
    Files files{{"world.toml", clean::world_text(side)}, {"marsh.toml", clean::tiles_text(sort)}};
    if (!side) files = with(files, "marsh.toml", "CELL", sort == "isometric" ? "32, 16" : "16, 16");
    bool has_pool = false, has_up = false;
    for (const char* name : {"outside", "inside"}) {
        clean::Sketch sketch = side ? clean::shore_sketch(dice) : clean::rooms_sketch(dice);
        while (sketch.places.size() < 7) sketch = side ? clean::shore_sketch(dice) : clean::rooms_sketch(dice);
        std::size_t next = 0;
        const auto place = [&] {
            const auto [c, r] = sketch.places.at(next++);
            return side ? fmt::format("at = [{}, {}]", 16 * c + 8, 16 * (r + 1)) : fmt::format("cell = [{}, {}]", c, r);
        };
        const auto cell = [&] {
            const auto [c, r] = sketch.places.at(next++);
            return fmt::format("cell = [{}, {}]", c, r);
        };
        std::string objects;
        if (name == std::string("outside")) {
            objects += fmt::format("  {{ name = \"landing\", kind = \"spawn\", {} }},\n", place());
            objects += fmt::format(
                "  {{ name = \"key\", kind = \"taken\", {}, fires = \"enter\", gives = [\"has_key\"] }},\n", cell());
            objects += fmt::format("  {{ name = \"doorstep\", kind = \"entity\", {} }},\n", place());
            objects += fmt::format(
                "  {{ name = \"door\", kind = \"link\", {}, to = \"inside/mat\", fires = \"use\", needs = "
                "[\"has_key\"] }},\n",
                cell());
        } else {
            objects += fmt::format("  {{ name = \"mat\", kind = \"entity\", {} }},\n", place());
            objects += fmt::format("  {{ name = \"out\", kind = \"link\", {}, to = \"outside/doorstep\" }},\n", cell());
            objects += fmt::format(
                "  {{ name = \"lamp\", kind = \"trigger\", {}, fires = \"use\", gives = [\"lamp_lit\"], runs = "
                "\"ring\" }},\n",
                cell());
        }
        for (int i = 0; next < sketch.places.size() && i < 6; ++i)
            objects += fmt::format("  {{ name = \"crab_{}\", kind = \"crab\", {}, props = {{ patrol_px = {} }} }},\n",
                                   i, place(), 8 * dice.in(1, 8));
        std::string text = clean::map_text(sort, name, sketch, objects);
        const bool up = sketch.text().find('/') != std::string::npos,
                   down = sketch.text().find('\\') != std::string::npos;
        std::string legend = "\"#\" = \"peat\"";
        if (!side) legend += ", \"f\" = \"floor\"";
        if (up) legend += ", \"/\" = \"bank\"";
        if (down) legend += ", \"\\\\\" = { tile = \"bank\", flip = \"x\" }";
        text.replace(text.find("LEGEND"), 6, legend);
        has_pool = has_pool || sketch.text().find('~') != std::string::npos, has_up = has_up || up || down;
        files[std::string(name) + ".toml"] = text;
    }
    // What is not laid would be told as unused.
    const auto drop = [&](const char* from) {
        std::string& text = files["marsh.toml"];
        const std::size_t at = text.find(from), end = text.find("[tiles", at + 1);
        text.erase(at, end == std::string::npos ? end : end - at);
    };
    if (side) {
        drop("[tiles.boardwalk]");
        files = with(files, "world.toml", "[flags]\nwalk = \"on foot\"\n\n", "");
        if (!has_up) drop("[tiles.bank]");
    }
    if (!has_pool) {
        drop("[tiles.brine]");
        files = with(files, "world.toml", "brine = {}\n", "");
        for (int i = 0; i < 2; ++i) files = with(files, "world.toml", "\"earth\", \"brine\"", "\"earth\"");
    }
    return files;
}

}   // namespace worlds

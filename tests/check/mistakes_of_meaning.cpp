#include <stdexcept>

#include "mistakes.hpp"

namespace mistakes {

namespace {

const char* const world = "world.toml";
const char* const marsh = "tiles/marsh.tiles.toml";
const char* const station = "tiles/station.tiles.toml";
const char* const slipway = "maps/slipway.map.toml";
const char* const pump_house = "maps/pump_house.map.toml";

// One change of one file, the rules that name it, and words of the line where it is to be told: those of the new text
// where nothing else is said; "file|words" where it is in another file.
struct Row {
    const char* sort;
    const char* file;
    std::string from, to;
    std::vector<Rule> rules;
    std::vector<std::string> told_at{};
};

std::vector<Row> of_shapes() {
    using enum Rule;
    const char* copied = "a shape copied and not moved, or a px too large";
    const char* swapped = "two corners swapped";
    const char* empty = "a shape without area";
    return {
        {copied, marsh, "box = [0, 8, 16, 8] }\n", "box = [16, 8, 16, 8] }\n", {shape_outside}, {"lower_half"}},
        {copied, marsh, "[0, 3, 16, 13]", "[0, 13, 16, 13]", {shape_outside}},
        {copied, marsh, "[0, 3, 16, 13]", "[0, 3, 16, 14]", {shape_outside}},
        {copied, marsh, "[5, 0, 6, 16]", "[5, 16, 6, 16]", {shape_outside}},
        {copied, marsh, "[5, 0, 6, 16]", "[12, 0, 6, 16]", {shape_outside}},
        {copied, marsh, "[16, 0], [16, 16]]", "[18, 0], [16, 16]]", {shape_outside}},
        {copied, marsh, "{ box = [0, 8, 16, 8], trigger", "{ box = [0, 24, 16, 8], trigger", {shape_outside}},
        {copied, station, "[0, 0, 16, 10]", "[16, 0, 16, 10]", {shape_outside}},
        {copied, station, "[0, 5, 16, 6]", "[0, 5, 17, 6]", {shape_outside}},
        {copied, station, "[8, 8, 7]", "[8, 8, 9]", {shape_outside}},
        {copied, station, "[8, 8, 7]", "[24, 8, 7]", {shape_outside}},
        {copied, station, "[0, 13, 16, 3]", "[0, 13, 16, 4]", {shape_outside}},
        {copied, station, "[11, 16], [5, 16]", "[11, 17], [5, 17]", {shape_outside}},
        {swapped, station, "[11, 5], [11, 16]", "[11, 16], [11, 5]", {shape_crosses_itself}},
        {swapped, station, "[5, 16], [5, 11]", "[5, 11], [5, 16]", {shape_crosses_itself}},
        {swapped, station, "[[0, 5], [11, 5]", "[[11, 5], [0, 5]", {shape_crosses_itself}},
        {empty, marsh, "[[0, 16], [16, 0], [16, 16]]", "[[0, 16], [16, 0], [16, 0]]", {shape_empty, out_of_range}},
        {empty, marsh, "[[0, 16], [16, 0], [16, 16]]", "[[0, 16], [16, 0], [8, 8]]", {shape_empty, out_of_range}},
        {empty, marsh, "[5, 0, 6, 16]", "[5, 0, 0, 16]", {shape_empty, out_of_range}},
        {empty, marsh, "[5, 0, 6, 16]", "[5, 0, -6, 16]", {shape_empty, out_of_range}},
        {empty, station, "[8, 8, 7]", "[8, 8, 0]", {shape_empty, out_of_range}},
        {empty, station, "[8, 8, 7]", "[8, 8, -7]", {shape_empty, out_of_range}},
        {"a sliver", marsh, "[5, 0, 6, 16]", "[5, 0, 0.5, 16]", {shape_sliver}},
        {"a sliver", station, "[0, 5, 16, 6]", "[0, 5, 16, 0.6]", {shape_sliver}},
        {"a shape twice", marsh, "{ shapes = [\"cell\"] }", "{ shapes = [\"cell\", \"cell\"] }", {shape_twice}},
        {"a shape twice",
         station,
         "[{ box = [0, 0, 16, 10] }]",
         "[{ box = [0, 0, 16, 10] }, { box = [0, 0, 16, 10] }]",
         {shape_twice}},
        {"a shape twice",
         station,
         "[{ box = [0, 5, 16, 6] }]",
         "[{ box = [0, 5, 16, 6] }, { box = [2, 6, 4, 4] }]",
         {shape_twice}},
        {"a shape beside its picture", marsh, "[5, 0, 6, 16]", "[0, 0, 5, 16]", {shape_against_art}},
        {"a shape beside its picture",
         marsh,
         "lower_half = { box = [0, 8, 16, 8] }",
         "lower_half = { box = [0, 0, 16, 8] }",
         {shape_against_art},
         {"lower_half"}},
        {"a shape beside its picture", marsh, "[5, 0, 6, 16]", "[9, 0, 1, 16]", {shape_against_art}},
        {"a slope drawn the wrong way",
         marsh,
         "[[0, 16], [16, 0], [16, 16]]",
         "[[0, 0], [16, 16], [0, 16]]",
         {shape_against_art, slope_end},
         {"polygon =", "maps/slipway.map.toml|%%\\."}},
        {"no barrier said",
         station,
         "barrier = \"earth\", ",
         "",
         {no_barrier},
         {"[tiles.wall]", "[tiles.pump]", "[{ circle", "shapes = [\"cell\"]"}},
        {"no barrier said",
         marsh,
         "set = { barrier = \"earth\" }",
         "set = { tags = [\"any\"] }",
         {no_barrier},
         {"[tiles.bank]", "[tiles.peat_top]", "[tiles.kerb]", "{ shapes = [\"cell\"] }", "polygon"}},
        {"no shapes said",
         marsh,
         "shapes = []                                 # none, on purpose\n",
         "",
         {undecided},
         {"[tiles.reeds]", "[tiles.net]"}},
        {"no shapes said", station, ", shapes = []", "", {undecided}, {"[tiles.floor]", "[tiles.mat]"}},
        {"no shapes said", marsh, "shapes = [{ box = [5, 0, 6, 16] }]", "", {undecided}, {"[tiles.post]"}},
        {"a boardwalk without its carve",
         station,
         "carves = [{ barrier = \"brine\", box = [0, 3, 16, 10] }]\n",
         "",
         {flags_against_shapes},
         {"[tiles.boardwalk]", "maps/pump_house.map.toml|........====........"}},
        {"a carve of what is not there",
         station,
         "carves = [{ barrier = \"brine\"",
         "carves = [{ barrier = \"earth\"",
         {carve_nothing, flags_against_shapes},
         {"[tiles.boardwalk]", "carves = ", "maps/pump_house.map.toml|........====........"}},
        {"a floor that is solid",
         station,
         "flags = []\nshapes = [\"cell\"]\n\n[tiles.pool]",
         "shapes = [\"cell\"]\n\n[tiles.pool]",
         {flags_against_shapes},
         {"[tiles.wall]", "[[for]]", "flags = [\"walk\"]"}},
        {"a floor that is solid",
         station,
         "barrier = \"brine\"\nflags = []",
         "barrier = \"brine\"",
         {flags_against_shapes},
         {"[tiles.pool]", "flags = [\"walk\"]"}},
        {"a floor that is solid",
         station,
         "[0, 13, 16, 3]",
         "[0, 3, 16, 13]",
         {flags_against_shapes},
         {"[tiles.boardwalk]", "flags = [\"walk\"]"}},
        {"a trigger that lost its area",
         marsh,
         "[{ cell = true, trigger = \"steam\" }]",
         "[]",
         {trigger_empty},
         {"[tiles.steam]", "[tiles.steam_low]", "reacts = [{ fires = \"inside\""}},
        {"a trigger that became solid",
         marsh,
         "[{ cell = true, trigger = \"steam\" }]",
         "[\"cell\"]",
         {trigger_empty},
         {"[tiles.steam]", "reacts = [{ fires = \"inside\""}},
        {"like of like", marsh, "like = \"reeds\"", "like = \"steam_low\"", {like_chain}},
        {"like itself", world, "like = \"mud_crab\"", "like = \"hermit_crab\"", {like_chain, unknown_name}},
        {"a surface a px lower",
         marsh,
         "[tiles.stone_top]",
         "[tiles.stone_top]\nshapes = [{ box = [0, 1, 16, 15] }]",
         {step},
         {"maps/slipway.map.toml|%%%\\............................./SSSSSS"}},
    };
}

std::vector<Row> of_art_and_grids() {
    using enum Rule;
    const char* grid = "a sheet's or a map's grid wrong by a px";
    return {
        {grid, marsh, "margin = [1, 1]", "margin = [0, 0]", {sheet_cut}, {"sheet ="}},
        {grid, marsh, "margin = [1, 1]", "margin = [2, 2]", {sheet_cut}, {"sheet ="}},
        {grid, marsh, "gap = [1, 1]", "gap = [2, 2]", {sheet_cut}, {"sheet ="}},
        {grid, marsh, "gap = [1, 1]", "gap = [0, 0]", {sheet_cut}, {"sheet ="}},
        {grid, station, "gap = [2, 2]", "gap = [1, 1]", {sheet_cut}, {"sheet ="}},
        {grid, station, "gap = [2, 2]", "gap = [0, 0]", {sheet_cut}, {"sheet ="}},
        {grid,
         marsh,
         "cell = [16, 16]",
         "cell = [18, 18]",
         {sheet_cut, cell_size},
         {"sheet =", "cell =", "maps/slipway.map.toml|cell ="}},
        {grid,
         marsh,
         "cell = [16, 16]",
         "cell = [15, 16]",
         {sheet_cut, cell_size},
         {"sheet =", "cell =", "maps/slipway.map.toml|cell ="}},
        {grid,
         station,
         "cell = [16, 16]",
         "cell = [16, 18]",
         {sheet_cut, cell_size},
         {"sheet =", "cell =", "maps/pump_house.map.toml|cell ="}},
        {grid, slipway, "cell = [16, 16]", "cell = [18, 18]", {cell_size}},
        {grid, slipway, "cell = [16, 16]", "cell = [32, 32]", {cell_size}},
        {grid, pump_house, "cell = [16, 16]", "cell = [16, 15]", {cell_size}},
        {grid,
         slipway,
         "size = [40, 13]",
         "size = [40, 12]",
         {grid_size},
         {"rows =", "........................................"}},
        {grid,
         slipway,
         "size = [40, 13]",
         "size = [13, 40]",
         {grid_size, row_length},
         {"rows =", "........................................"}},
        {grid, pump_house, "size = [20, 12]", "size = [19, 12]", {row_length, grid_size}, {"####################"}},
        {"a picture outside the sheet", marsh, "art = [4, 1]", "art = [4, 2]", {art_outside}},
        {"a picture outside the sheet", marsh, "art = [7, 0]", "art = [8, 0]", {art_outside}},
        {"a picture outside the sheet", station, "art = [4, 1]", "art = [-1, 1]", {art_outside, out_of_range}},
        {"another's picture",
         marsh,
         "art = [5, 0]",
         "art = [4, 0]",
         {art_shared},
         {"[tiles.brine_top]", "[tiles.brine]", "art = [4, 0]"}},
        {"another's picture",
         station,
         "art = [4, 0]",
         "art = [3, 0]",
         {art_shared},
         {"[tiles.boardwalk]", "[tiles.mat]", "art = [3, 0]"}},
        {"a turn that is none",
         pump_house,
         "tile = \"pipe\", turn = 90",
         "tile = \"pipe\", turn = 45",
         {turn_not_square, out_of_range}},
        {"a turn that is none",
         pump_house,
         "flip = \"y\", turn = 90",
         "flip = \"y\", turn = 9",
         {turn_not_square, out_of_range}},
        {"a flip that is none", pump_house, "flip = \"y\"", "flip = \"z\"", {out_of_range, unknown_name, wrong_type}},
        {"a file in another's list",
         world,
         "\"tiles/station.tiles.toml\"]",
         "\"maps/pump_house.map.toml\"]",
         {wrong_file},
         {"tilesets =", "maps/pump_house.map.toml|format ="}},
        {"a file in another's list",
         world,
         "\"maps/pump_house.map.toml\"]",
         "\"tiles/station.tiles.toml\"]",
         {wrong_file, duplicate_name},
         {"maps =", "tilesets =", "tiles/station.tiles.toml|format ="}},
        {"a file outside", marsh, "../art/marsh.png", "../../../marsh.png", {path_outside}},
        {"a file outside", slipway, "slipway_rocks.svg", "/slipway_rocks.svg", {path_outside}},
        {"listed twice", world, "\"maps/pump_house.map.toml\"]", "\"maps/slipway.map.toml\"]", {duplicate_name}},
        {"one name for two", pump_house, "name = \"pump_house\"", "name = \"slipway\"", {duplicate_name}},
        {"one name for two", station, "name = \"station\"", "name = \"marsh\"", {duplicate_name}},
        {"one name for two", slipway, "name = \"ground\"", "name = \"water\"", {duplicate_name}},
        {"one name for two", slipway, "name = \"crab_a\"", "name = \"key\"", {duplicate_name}, {"name = \"key\""}},
        {"one name for two", station, "[tiles.shelf]", "[tiles.pump]", {duplicate_name, syntax}, {"[tiles.pump]"}},
        {"a map gone from the list",
         world,
         "\"maps/slipway.map.toml\", \"maps/pump_house.map.toml\"",
         "\"maps/slipway.map.toml\"",
         {link_target, start_missing, unknown_name},
         {"maps/slipway.map.toml|to = \"pump_house/mat\"", "goals ="}},
        {"a tile set gone from the list",
         slipway,
         "tilesets = [\"marsh\"]",
         "tilesets = []",
         {unknown_name},
         {"\"#\" = \"peat_top\"", "tilesets = []"}},
        {"decor left out", slipway, "decor = true ", "", {layer_without_shapes}, {"name = \"grass\""}},
        {"decor that collides",
         slipway,
         "name = \"ground\"",
         "name = \"ground\"\ndecor = true",
         {decor_with_shapes},
         {"decor = true", "name = \"ground\""}},
        {"decor that collides",
         slipway,
         "name = \"things\"",
         "name = \"things\"\ndecor = true",
         {decor_with_shapes},
         {"decor = true", "name = \"things\""}},
        {"decor that collides",
         pump_house,
         "name = \"machines\"",
         "name = \"machines\"\ndecor = true",
         {decor_with_shapes},
         {"decor = true", "name = \"machines\""}},
        {"a legend too many",
         slipway,
         "\"w\" = \"brine\"",
         "\"w\" = \"brine\"\n\"z\" = \"peat\"",
         {legend_unused},
         {"\"z\" ="}},
        {"a legend too many",
         pump_house,
         "\"t\" = \"turnstile\"",
         "\"t\" = \"turnstile\"\n\"q\" = \"turnstile\"",
         {legend_unused},
         {"\"q\" ="}},
        {"a tile forgotten",
         slipway,
         "\"x\" = \"crate\"",
         "\"x\" = \"peat\"",
         {tile_unused},
         {"tiles/marsh.tiles.toml|[tiles.crate]"}},
        {"a tile forgotten",
         slipway,
         "\"n\" = \"net\"",
         "\"n\" = \"crate\"",
         {tile_unused},
         {"tiles/marsh.tiles.toml|[tiles.net]"}},
        {"a colour that is not painted", slipway, "#2d6a4f", "#2d6a4e", {legend_missing, legend_unused}},
        {"weights that do not match", slipway, "weights = [3, 1]", "weights = [3]", {out_of_range}},
        {"weights that do not match", slipway, "weights = [3, 1]", "weights = [3, -1]", {out_of_range}},
        {"metres of nothing", world, "per_metre = 16 ", "per_metre = 0 ", {out_of_range}},
        {"an exception where nothing stands",
         slipway,
         "except = [{ cell = [13, 7]",
         "except = [{ cell = [14, 7]",
         {unknown_name, out_of_range, missing_key}},
    };
}

std::vector<Row> of_rows() {
    using enum Rule;
    const char* slope = "a slope turned the wrong way";
    const char* legend = "a swapped legend";
    return {
        {slope, slipway, "%%\\.", "%%/.", {slope_end}},
        {slope, slipway, "%%%\\.", "%%%/.", {slope_end}},
        {slope, slipway, "./SSSSSS", ".\\SSSSSS", {slope_end}},
        {slope, slipway, "./%ssssss", ".\\%ssssss", {slope_end}},
        {slope, slipway, "%%%%....../####", "%%%%......\\####", {slope_end}},
        {slope, slipway, "%%%%...../%%%%", "%%%%.....\\%%%%", {slope_end}},
        {slope, slipway, "%%%%..../%%%%", "%%%%....\\%%%%", {slope_end}},
        {slope, slipway, "%%\\.", "%%%\\", {slope_end}},
        {legend,
         slipway,
         "\"/\" = \"bank\"\n\"\\\\\" = { tile = \"bank\", flip = \"x\" }",
         "\"\\\\\" = \"bank\"\n\"/\" = { tile = \"bank\", flip = \"x\" }",
         {slope_end},
         {"%%\\.", "%%%\\.", "SSSSSS", "%ssssss", "./##", "/%%%%%%"}},
        {legend,
         slipway,
         "\"#\" = \"peat_top\"",
         "\"#\" = \"brine_top\"",
         {spawn_unsupported, spawn_blocked, tile_unused},
         {"name = \"crab_a\"", "name = \"landing\"", "tiles/marsh.tiles.toml|[tiles.peat_top]"}},
        {legend,
         pump_house,
         "\"f\" = \"floor\", \"#\" = \"wall\"",
         "\"f\" = \"wall\", \"#\" = \"floor\"",
         {link_arrival_blocked},
         {"maps/slipway.map.toml|to = \"pump_house/mat\""}},
        {legend,
         pump_house,
         "\"f\" = \"floor\", \"#\" = \"wall\", \"o\" = \"pool\"",
         "\"f\" = \"pool\", \"#\" = \"wall\", \"o\" = \"floor\"",
         {link_arrival_blocked},
         {"maps/slipway.map.toml|to = \"pump_house/mat\""}},
        {legend, pump_house, "\"P\" = \"station/pump\"", "\"P\" = \"marsh/pump\"", {unknown_name}},
        {"a hole dug by mistake", slipway, "%%%%...%%%%%%%%%%%%%%", "%%%%...%%%%%%.%%%%%%%", {pocket}},
        {"a hole dug by mistake", slipway, "%%%%..../%%%%%%%%%%%%%%%", "%%%%..../%%%%%..%%%%%%%%", {pocket}},
        {"a hole dug by mistake", slipway, "%%%%...../%%%%%%%%%%%%%%%", "%%%%...../%%%%.%%%%%%%%%%", {pocket}},
        {"a wall over a thing",
         pump_house,
         "#fffffffoooofffffff#\n#mffffffoooofffffff#",
         "#fffffffoooofffffff#\n#m##ffffoooofffffff#",
         {link_arrival_blocked, spawn_blocked},
         {"maps/slipway.map.toml|to = \"pump_house/mat\"", "name = \"mat\", kind"}},
        {"a wall over a thing",
         slipway,
         "....................c...\",..............",
         "....................c...\",.k............",
         {spawn_blocked},
         {"name = \"crab_a\""}},
        {"a wall over a thing",
         slipway,
         "....................c...\",..............",
         "..............k.....c...\",..............",
         {spawn_blocked},
         {"name = \"landing\""}},
        {"the ground below gone",
         slipway,
         "%%%%....../#####################",
         "%%%%....../################.####",
         {spawn_unsupported},
         {"name = \"crab_a\""}},
    };
}

std::vector<Row> of_objects() {
    using enum Rule;
    const char* sunk = "a thing inside solid ground";
    const char* high = "a thing in the air";
    const char* outside = "a thing outside";
    const char* fraction = "a coordinate off by a fraction";
    const char* area = "a trigger without area";
    const char* idle = "a trigger that does nothing";
    return {
        {sunk, slipway, "at = [232, 128]", "at = [232, 140]", {spawn_blocked}},
        {sunk, slipway, "at = [232, 128]", "at = [232, 129]", {spawn_blocked}},
        {sunk, slipway, "at = [232, 128]", "at = [128, 232]", {spawn_blocked, object_outside}},
        {sunk, slipway, "at = [232, 128]", "at = [16, 110]", {spawn_blocked}},
        {sunk, slipway, "cell = [27, 7]", "cell = [27, 8]", {spawn_blocked}},
        {sunk, slipway, "cell = [27, 7]", "cell = [2, 7]", {spawn_blocked}},
        {high, slipway, "at = [232, 128]", "at = [232, 100]", {spawn_unsupported}},
        {high, slipway, "at = [232, 128]", "at = [232, 120]", {spawn_unsupported}},
        {high, slipway, "cell = [27, 7]", "cell = [27, 3]", {spawn_unsupported}},
        {outside, slipway, "at = [232, 128]", "at = [2320, 128]", {object_outside}},
        {outside, slipway, "at = [420, 120]", "at = [420, -120]", {object_outside}},
        {outside, slipway, "cells = [37, 4, 1, 2]", "cells = [370, 4, 1, 2]", {object_outside, out_of_range}},
        {outside, slipway, "box = [320, 96, 32, 32]", "box = [3200, 96, 32, 32]", {object_outside}},
        {outside, pump_house, "cell = [17, 9]", "cell = [17, 90]", {object_outside, out_of_range}},
        {outside, pump_house, "circle = [248, 72, 14]", "circle = [248, 720, 14]", {object_outside}},
        {fraction, slipway, "at = [232, 128]", "at = [232.25, 128]", {off_grid}},
        {fraction, slipway, "at = [420, 120]", "at = [420, 119.75]", {off_grid}},
        {fraction, slipway, "at = [576, 96]", "at = [575.6, 96]", {off_grid}},
        {fraction, slipway, "box = [320, 96, 32, 32]", "box = [320.25, 96, 32, 32]", {off_grid}},
        {"metres for px",
         slipway,
         "at = [232, 128]",
         "at = [14.5, 8]",
         {spawn_blocked, object_unscaled, spawn_unsupported}},
        {"metres for px",
         slipway,
         "box = [320, 96, 32, 32]",
         "box = [20, 6, 2, 2]",
         {size_against_kind, trigger_buried, object_unscaled}},
        {"metres for px",
         slipway,
         "at = [576, 96]",
         "at = [36, 6]",
         {link_arrival_blocked, object_unscaled, spawn_unsupported},
         {"at = [36, 6]", "maps/pump_house.map.toml|to = \"slipway/doorstep\""}},
        {area, slipway, "box = [320, 96, 32, 32], ", "at = [320, 96], ", {trigger_empty}, {"name = \"bell\""}},
        {area,
         slipway,
         "box = [320, 96, 32, 32]",
         "box = [320, 96, 0, 32]",
         {trigger_empty, shape_empty, out_of_range}},
        {area,
         pump_house,
         "circle = [248, 72, 14]",
         "circle = [248, 72, 0]",
         {trigger_empty, shape_empty, out_of_range}},
        {area, pump_house, "cell = [1, 6], to", "at = [24, 104], to", {trigger_empty}},
        {idle, slipway, ", runs = \"ring_bell\"", "", {trigger_idle}, {"name = \"bell\""}},
        {idle,
         pump_house,
         ", gives = [\"pump_running\"], runs = \"flood_the_lock\"",
         "",
         {trigger_idle},
         {"name = \"valve\""}},
        {"a trigger inside the ground",
         slipway,
         "box = [320, 96, 32, 32]",
         "box = [320, 160, 32, 32]",
         {trigger_buried}},
        {"a trigger inside the ground",
         slipway,
         "box = [320, 96, 32, 32]",
         "box = [576, 144, 32, 32]",
         {trigger_buried}},
        {"a use nobody gets at", slipway, "cells = [37, 4, 1, 2]", "cells = [20, 11, 1, 1]", {use_unreachable}},
        {"a use nobody gets at",
         pump_house,
         "circle = [248, 72, 14]",
         "circle = [8, 8, 6]",
         {use_unreachable, trigger_buried}},
        {"a thing much too large",
         slipway,
         "kind = \"hatch_key\", at = [420, 120]",
         "kind = \"hatch_key\", circle = [420, 114, 24]",
         {size_against_kind}},
        {"a thing much too small",
         slipway,
         "kind = \"hatch_key\", at = [420, 120]",
         "kind = \"hatch_key\", circle = [420, 120, 2]",
         {size_against_kind}},
        {"a field out of its range", slipway, "patrol_px = 48", "patrol_px = -48", {kind_field}},
        {"a field of another type", slipway, "patrol_px = 48", "patrol_px = true", {kind_field}},
        {"a field of another type", slipway, "worth = 5", "worth = 5.5", {kind_field}},
        {"a field of another type", pump_house, "lit = true", "lit = 1", {kind_field}},
        {"a field that leads nowhere",
         slipway,
         "opens = \"slipway/hatch\"",
         "opens = \"slipway/hutch\"",
         {kind_field, unknown_name}},
        {"the start is gone",
         slipway,
         "  { name = \"landing\", kind = \"spawn\", at = [232, 128] },\n",
         "",
         {start_missing},
         {"world.toml|start ="}},
        {"a mover's feet in the ground",
         world,
         "box = [10, 14], at = [0, -7]",
         "box = [10, 14], at = [0, -6]",
         {spawn_blocked},
         {"maps/slipway.map.toml|name = \"landing\"", "box = [10, 14]"}},
        {"a mover that stands too high",
         world,
         "circle = 5, at = [0, -5]",
         "circle = 5, at = [0, -8]",
         {spawn_unsupported},
         {"maps/slipway.map.toml|name = \"crab_a\"", "circle = 5", "maps/slipway.map.toml|\"c\" ="}},
        {"a mover that nothing holds",
         world,
         "stopped_by = [\"earth\"] ",
         "stopped_by = [\"brine\"] ",
         {spawn_unsupported},
         {"maps/slipway.map.toml|name = \"crab_a\""}},
        {"more than allowed",
         world,
         "[merging]",
         "[limits]\nobjects_per_map = 5\n\n[merging]",
         {limit},
         {"objects_per_map = 5", "maps/slipway.map.toml|name = \"slipway\"", "maps/slipway.map.toml|format ="}},
    };
}

std::vector<Row> of_links_and_facts() {
    using enum Rule;
    const char* wall = "a door onto a wall, or into water";
    const char* lock = "a lock whose fact nobody gives";
    const char* key =
        "  { name = \"key\", kind = \"hatch_key\", at = [420, 120], fires = \"enter\", gives = [\"has_hatch_key\"], "
        "props = { opens = \"slipway/hatch\" } },\n";
    const char* hatch =
        "  { name = \"hatch\", kind = \"link\", cells = [37, 4, 1, 2], to = \"pump_house/mat\", fires = \"use\", needs "
        "= [\"has_hatch_key\"] },\n";
    const char* door = "  { name = \"door\", kind = \"link\", cell = [1, 6], to = \"slipway/doorstep\" },\n";
    const char* to_mat = "maps/slipway.map.toml|to = \"pump_house/mat\"";
    const char* to_step = "maps/pump_house.map.toml|to = \"slipway/doorstep\"";
    return {
        {wall, pump_house, "cell = [3, 6]", "cell = [9, 3]", {link_arrival_blocked}, {to_mat, "cell = [9, 3]"}},
        {wall, pump_house, "cell = [3, 6]", "cell = [0, 6]", {link_arrival_blocked}, {to_mat, "cell = [0, 6]"}},
        {wall, pump_house, "cell = [3, 6]", "cell = [14, 3]", {link_arrival_blocked}, {to_mat, "cell = [14, 3]"}},
        {wall, slipway, "at = [576, 96]", "at = [576, 120]", {link_arrival_blocked}, {to_step, "at = [576, 120]"}},
        {wall, slipway, "at = [576, 96]", "at = [632, 96]", {link_arrival_blocked}, {to_step, "at = [632, 96]"}},
        {wall, pump_house, "to = \"slipway/doorstep\"", "to = \"slipway/groyne\"", {link_arrival_blocked}},
        {"a door that throws back for ever",
         pump_house,
         "cell = [3, 6]",
         "cell = [1, 6]",
         {link_bounce},
         {to_mat, "cell = [1, 6]"}},
        {"a door without its other end", pump_house, door, "", {link_without_return}, {to_mat}},
        {"a door without its other end",
         slipway,
         hatch,
         "",
         {link_without_return, map_unlinked, unknown_name},
         {"opens =", to_step, "maps/pump_house.map.toml|name = \"pump_house\"", "maps/pump_house.map.toml|format ="}},
        {"a door to the wrong place",
         slipway,
         "to = \"pump_house/mat\"",
         "to = \"slipway/landing\"",
         {map_unlinked, link_without_return},
         {"maps/pump_house.map.toml|format =", "maps/pump_house.map.toml|name = \"pump_house\"", to_step}},
        {"a door to the wrong place",
         slipway,
         "to = \"pump_house/mat\"",
         "to = \"pump_house\"",
         {link_target, out_of_range, wrong_type, bad_name}},
        {"a door to the wrong place",
         slipway,
         "to = \"pump_house/mat\", ",
         "",
         {missing_key, link_target},
         {"name = \"hatch\""}},
        {"a door whose arrival is gone",
         pump_house,
         "  { name = \"mat\", kind = \"entity\", cell = [3, 6] },\n",
         "",
         {link_target},
         {to_mat}},
        {"a door whose arrival is gone",
         slipway,
         "  { name = \"doorstep\", kind = \"entity\", at = [576, 96] },\n",
         "",
         {link_target},
         {to_step}},
        {lock, slipway, key, "", {fact_never_true}, {"name = \"hatch\"", "world.toml|has_hatch_key"}},
        {lock,
         slipway,
         "gives = [\"has_hatch_key\"], ",
         "",
         {fact_never_true},
         {"name = \"hatch\"", "world.toml|has_hatch_key"}},
        {lock,
         slipway,
         "gives = [\"has_hatch_key\"]",
         "gives = [\"pump_running\"]",
         {fact_never_true, fact_shared},
         {"name = \"hatch\"", "name = \"key\"", "world.toml|has_hatch_key"}},
        {lock,
         pump_house,
         "gives = [\"pump_running\"], ",
         "",
         {fact_never_true},
         {"world.toml|goals =", "world.toml|pump_running"}},
        {"a key to nothing",
         slipway,
         ", needs = [\"has_hatch_key\"]",
         "",
         {fact_unread},
         {"name = \"key\"", "world.toml|has_hatch_key"}},
        {"a key to nothing",
         slipway,
         "needs = [\"has_hatch_key\"]",
         "needs = [\"pump_running\"]",
         {fact_unread},
         {"name = \"key\"", "world.toml|has_hatch_key"}},
        {"an event nobody runs",
         slipway,
         "runs = \"ring_bell\"",
         "runs = \"scald\"",
         {event_unused},
         {"world.toml|ring_bell"}},
        {"an event nobody runs", marsh, ", runs = \"splinters\"", "", {event_unused}, {"world.toml|splinters"}},
        {"an event nobody runs",
         pump_house,
         ", runs = \"flood_the_lock\"",
         "",
         {event_unused},
         {"world.toml|flood_the_lock"}},
        {"two names a letter apart",
         world,
         "pump_running = ",
         "pump_runing = \"the pump turns\"\npump_running = ",
         {name_twins, fact_unread},
         {"pump_runing", "pump_running ="}},
        {"two names a letter apart",
         world,
         "scald = ",
         "skald = \"steam\"\nscald = ",
         {name_twins, event_unused},
         {"skald", "scald ="}},
        {"two names a letter apart",
         world,
         "[kinds.shell_big]",
         "[kinds.shel_small]\nrole = \"entity\"\n\n[kinds.shell_big]",
         {name_twins},
         {"[kinds.shel_small]", "[kinds.shell_small]"}},
    };
}

Mistake made(const Files& demo, const Row& row) {
    const std::string& text = demo.at(row.file);
    const std::size_t at = text.find(row.from);
    if (at == std::string::npos) throw std::runtime_error(fmt::format("'{}' is not in {}", row.from, row.file));
    Mistake mistake{row.sort,
                    fmt::format("{}: {} -> {}", row.file, row.from, row.to),
                    replaced(demo, row.file, at, row.from.size(), row.to),
                    row.rules,
                    {}};
    const auto lines_with = [&](const std::string& file, const std::string& words) {
        const std::string& now = mistake.files.at(file);
        for (std::size_t found = now.find(words); found != std::string::npos; found = now.find(words, found + 1)) {
            const int line = line_column(now, found).line;
            mistake.spots.push_back({file, line, line});
        }
    };
    for (const std::string& told : row.told_at) {
        const std::size_t bar = told.find(".toml|");
        bar == std::string::npos ? lines_with(row.file, told)
                                 : lines_with(told.substr(0, bar + 5), told.substr(bar + 6));
    }
    if (row.told_at.empty()) {
        const std::string& now = mistake.files.at(row.file);
        mistake.spots.push_back({row.file, line_column(now, at).line, line_column(now, at + row.to.size()).line});
    }
    return mistake;
}

// Each object of the demo written down twice: with its name, and without.
std::vector<Mistake> twice(const Files& demo) {
    std::vector<Mistake> all;
    for (const char* file : {slipway, pump_house}) {
        const std::string& text = demo.at(file);
        for (std::size_t at = text.find("  { name = "); at != std::string::npos;
             at = text.find("  { name = ", at + 1)) {
            const std::size_t end = text.find('\n', at) + 1, kind = text.find("kind = ", at);
            const std::string line = text.substr(at, end - at), unnamed = "  { " + text.substr(kind, end - kind);
            const int number = line_column(text, at).line;
            const std::vector<Spot> spots{{file, number, number + 1}};
            all.push_back({"an object copied with its name",
                           fmt::format("{}:{}", file, number),
                           replaced(demo, file, end, 0, line),
                           {Rule::duplicate_name},
                           spots});
            all.push_back({"an object twice in a place",
                           fmt::format("{}:{}", file, number),
                           replaced(demo, file, end, 0, unnamed),
                           {Rule::objects_stacked},
                           spots});
        }
    }
    return all;
}

// A character of punctuation gone, and bytes that are no text.
std::vector<Mistake> torn(const Files& demo) {
    std::vector<Mistake> all;
    for (const char* file : {world, marsh, station, slipway, pump_house}) {
        const std::string& text = demo.at(file);
        for (const char* sign : {"\"\n", "]\n", " }\n", " = "}) {
            const std::size_t at = text.find(sign, text.find('\n', text.size() / 5));
            if (at == std::string::npos) continue;
            const int line = line_column(text, at).line;
            all.push_back({"a sign left out",
                           fmt::format("{}:{}: {}", file, line, sign[0] == ' ' ? sign[1] : sign[0]),
                           replaced(demo, file, sign[0] == ' ' ? at + 1 : at, 1, ""),
                           {Rule::syntax, Rule::duplicate_name},
                           {{file, line, line + 1}}});
        }
        all.push_back(
            {"not UTF-8",
             file,
             replaced(demo, file, text.find("# ") == std::string::npos ? 0 : text.find("# "), 0, "#\xE9t\xE9\n"),
             {Rule::bad_text},
             {{file, 1, 1000}}});
    }
    return all;
}

// Mistakes in files that are no TOML.
std::vector<Mistake> in_other_files(const Files& demo) {
    const char* csv = "maps/slipway_fence.csv";
    const char* png = "maps/slipway_grass.png";
    const char* svg = "maps/slipway_rocks.svg";
    const auto part = [&](const char* file, const char* words) { return demo.at(file).find(words); };
    const std::string& fence = demo.at(csv);
    const std::size_t second = fence.find('\n') + 1;
    return {
        {"a name misspelt in a CSV",
         csv,
         replaced(demo, csv, second, 4, "wrad"),
         {Rule::unknown_name, Rule::legend_missing},
         {{csv, 2, 2, 1, 5}}},
        {"a field too few in a CSV", csv, replaced(demo, csv, second, 5, ""), {Rule::row_length}, {{csv, 2, 2}}},
        {"a row gone from a CSV",
         csv,
         replaced(demo, csv, 0, second, ""),
         {Rule::grid_size},
         {{csv, 1, 100}, {slipway, 1, 200}}},
        {"a field broken in a CSV",
         csv,
         replaced(demo, csv, second, 4, "\"ward"),
         {Rule::syntax, Rule::row_length},
         {{csv, 2, 3}}},
        {"a torn picture",
         png,
         replaced(demo, png, 40, 12, ""),
         {Rule::bad_picture},
         {{slipway, 1, 200}, {png, 0, 0}, {png, 1, 1}}},
        {"a drawing outside the map",
         svg,
         replaced(demo, svg, part(svg, "rotate(20 78 153)"), 17, "translate(900 0)"),
         {Rule::object_outside, Rule::out_of_range},
         {{svg, 6, 6}}},
        {"a drawing that is no XML",
         svg,
         replaced(demo, svg, part(svg, "</g>"), 4, ""),
         {Rule::syntax, Rule::bad_picture},
         {{svg, 1, 20}}},
        {"a drawing's name twice",
         svg,
         replaced(demo, svg, part(svg, "wreck"), 5, "groyne"),
         {Rule::duplicate_name},
         {{svg, 5, 6}}},
        {"a drawn box without size",
         svg,
         replaced(demo, svg, part(svg, "width=\"20\""), 10, "width=\"0\""),
         {Rule::shape_empty, Rule::out_of_range},
         {{svg, 6, 6}}},
    };
}

}   // namespace

std::vector<Mistake> mistakes_of_meaning(const Files& demo) {
    std::vector<Mistake> all;
    for (const auto& rows : {of_shapes(), of_art_and_grids(), of_rows(), of_objects(), of_links_and_facts()})
        for (const Row& row : rows) all.push_back(made(demo, row));
    for (const auto& more : {twice(demo), torn(demo), in_other_files(demo)})
        all.insert(all.end(), more.begin(), more.end());
    return all;
}

}   // namespace mistakes

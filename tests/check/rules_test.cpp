// The rules about art, shapes, layers, outlines, space, objects, facts and names: each tripped, at its place, and
// silent for a near miss.
#include <catch2/catch.hpp>

#include "tripped.hpp"
#include "worlds.hpp"

using namespace dryground;
using worlds::Files;
using worlds::with;

namespace {

// A side view with a bit of everything, which checks clean.
Files shore() {
    return {{"world.toml", R"(format = "dryground/world/1"
title = "Test Shore"
per_metre = 16
player = "warden"
start = "flat/landing"
goals = { facts = ["lamp_lit"] }
tilesets = ["marsh.toml"]
maps = ["flat.toml", "cave.toml"]

[barriers]
earth = {}
brine = {}

[flags]
walk = "on foot"
climb = "nets"

[movers.warden]
body = { box = [10, 14], at = [0, -7] }
stopped_by = ["earth", "brine"]
moves = "side"
jump_px = 40

[movers.keeper]
body = { box = [10, 6], at = [0, -3] }
stopped_by = ["earth"]
needs = ["walk"]

[facts]
has_key = "the key"
lamp_lit = "the lamp is lit"

[events]
ring_bell = "rings"

[kinds.crab]
role = "entity"
mover = "warden"
stands = "feet"

[kinds.chest]
role = "entity"
area = { box = [-8, -16, 16, 16] }
)"},
            {"marsh.toml", R"(format = "dryground/tiles/1"
name = "marsh"
cell = [16, 16]

[tiles.peat]
unseen = true
barrier = "earth"
shapes = ["cell"]

[tiles.bank]
unseen = true
barrier = "earth"
shapes = [{ polygon = [[0, 16], [16, 0], [16, 16]] }]

[tiles.brine]
unseen = true
barrier = "brine"
shapes = ["cell"]

[tiles.boardwalk]
unseen = true
shapes = []
flags = ["walk"]
carves = [{ barrier = "brine", box = [0, 0, 16, 16] }]

[tiles.net]
unseen = true
shapes = []
flags = ["climb"]
)"},
            {"flat.toml", R"(format = "dryground/map/1"
name = "flat"
cell = [16, 16]
size = [12, 6]
rim = "earth"
tilesets = ["marsh"]
legend = { "#" = "peat", "/" = "bank", "~" = "brine", "n" = "net" }

[[layers]]
name = "ground"
rows = '''
............
............
..........n.
......../###
..#~~#######
############
'''

[[layers]]
name = "deck"
legend = { "=" = "boardwalk" }
rows = '''
............
............
............
............
...==.......
............
'''

[[layers]]
name = "people"
objects = [
  { name = "landing", kind = "spawn", at = [120, 64] },
  { name = "crab_a", kind = "crab", at = [152, 48] },
  { name = "key", kind = "entity", at = [96, 56], fires = "enter", gives = ["has_key"] },
  { name = "door", kind = "link", cells = [11, 2, 1, 1], to = "cave/mat", fires = "use", needs = ["has_key"] },
  { name = "bell", kind = "trigger", box = [96, 32, 16, 16], runs = "ring_bell" },
  { name = "box", kind = "chest", at = [112, 64] },
]
)"},
            {"cave.toml", R"(format = "dryground/map/1"
name = "cave"
cell = [16, 16]
size = [8, 4]
rim = "earth"
tilesets = ["marsh"]
legend = { "#" = "peat" }

[[layers]]
name = "ground"
rows = '''
........
........
........
########
'''

[[layers]]
name = "people"
objects = [
  { name = "mat", kind = "entity", at = [56, 48] },
  { name = "out", kind = "link", cell = [0, 2], to = "flat/landing" },
  { name = "lamp", kind = "trigger", cell = [6, 2], gives = ["lamp_lit"], fires = "use" },
]
)"}};
}

struct Row {
    const char *file, *from, *to;
    const char* expected;   // rule at place; empty when all must stay silent
};

constexpr const char* last = "  { name = \"box\", kind = \"chest\", at = [112, 64] },\n";
#define MORE(text) "flat.toml", last, "  { name = \"box\", kind = \"chest\", at = [112, 64] },\n" text

const Row rows[] = {
    // shapes
    {"marsh.toml", "shapes = [{ polygon", "shapes = [{ box = [0, 15.5, 16, 0.5] }, { polygon",
     "shape-sliver at marsh.toml:13:11"},
    {"marsh.toml", "shapes = [{ polygon", "shapes = [{ box = [0, 15, 16, 1] }, { polygon", ""},
    {"marsh.toml", "barrier = \"brine\"\nshapes = [\"cell\"]",
     "barrier = \"brine\"\nshapes = [\"cell\", { box = [4, 4, 8, 8] }]", "shape-twice at marsh.toml:18:19"},
    {"marsh.toml", "barrier = \"brine\"\nshapes = [\"cell\"]",
     "barrier = \"brine\"\nshapes = [\"cell\", { box = [4, 4, 8, 8], trigger = \"cold\" }]", ""},
    {"marsh.toml", "[tiles.net]", "[tiles.post]\nunseen = true\nshapes = []\n[tiles.net]",
     "tile-unused at marsh.toml:26:8"},
    {"marsh.toml", "unseen = true\nbarrier = \"earth\"\nshapes = [\"cell\"]",
     "unseen = true\nbarrier = \"earth\"\nflags = [\"walk\"]\nshapes = [\"cell\"]",
     "flags-against-shapes at marsh.toml:5:8"},
    {"marsh.toml", "flags = [\"climb\"]", "flags = [\"walk\", \"climb\"]", ""},
    {"world.toml", "brine = {}", "brine = {}\nfog = {}", "barrier-unmet at world.toml:13:1"},
    {"marsh.toml", "carves = [{ barrier = \"brine\"", "carves = [{ barrier = \"earth\"",
     "carve-nothing at marsh.toml:24:11"},
    {"marsh.toml", "shapes = []\nflags = [\"climb\"]",
     "barrier = \"earth\"\nshapes = [{ line = [[0, 0], [16, 0], [8, 0]] }]\nflags = [\"climb\"]",
     "line-doubles-back at marsh.toml:29:11"},
    {"marsh.toml", "shapes = []\nflags = [\"climb\"]",
     "barrier = \"earth\"\nshapes = [{ line = [[0, 0], [16, 0], [16, 16], [0, 1]] }]\nflags = [\"climb\"]",
     "line-ends-near at marsh.toml:29:11"},
    // layers
    {"flat.toml", "name = \"deck\"\n", "name = \"deck\"\ndecor = true\n", "decor-with-shapes at flat.toml:21:8"},
    {"flat.toml", "[[layers]]\nname = \"people\"",
     "[[layers]]\nname = \"nets\"\nlegend = { \"n\" = \"boardwalk\" }\nrows = "
     "'''\n............\n............\n............\n............\n...nn.......\n............\n'''\n[[layers]]\nname = "
     "\"people\"",
     ""},
    {"world.toml", "[facts]", "[limits]\nmaps = 1\n[facts]", "limit at world.toml:1:1"},
    {"world.toml", "[facts]", "[limits]\nmaps = 2\ncolumns = 12\n[facts]", ""},
    {"world.toml", "[facts]", "[limits]\ncontact_bits = 4\n[facts]", "contact-bits at world.toml:1:1"},
    {"world.toml", "[facts]", "[limits]\ncontact_bits = 5\n[facts]", ""},
    // outlines
    {"marsh.toml", "[[0, 16], [16, 0], [16, 16]]", "[[16, 16], [0, 0], [0, 16]]", "slope-end at flat.toml:15:9"},
    {"marsh.toml", "[[0, 16], [16, 0], [16, 16]]", "[[0, 16], [16, 1], [16, 16]]", "step at flat.toml:15:10"},
    {"flat.toml", "............\n............\n..........n.", ".#.#........\n.#.#........\n.#.#......n.",
     ""},   // a cell is wide enough
    // space
    {"flat.toml", "rim = \"earth\"\n", "", "leak at flat.toml:2:8"},
    {"flat.toml", "rim = \"earth\"\n", "rim = \"open\"\n", ""},
    // objects
    {"flat.toml", "at = [152, 48]", "at = [152, 40]", "spawn-unsupported at flat.toml:36:42"},
    {"flat.toml", "at = [152, 48]", "at = [152, 47]", ""},   // a px is nothing
    {"flat.toml", "at = [120, 64] }", "at = [120.25, 64] }", "off-grid at flat.toml:35:44"},
    {"flat.toml", "at = [120, 64] }", "at = [120.5, 64] }", ""},
    {MORE("  { name = \"crab_b\", kind = \"crab\", at = [152, 48] },\n"), "objects-stacked at flat.toml:41:42"},
    {MORE("  { name = \"crab_b\", kind = \"crab\", at = [153, 48] },\n"), ""},
    {MORE("  { name = \"hut\", kind = \"chest\", box = [64, 32, 30, 16] },\n"), "size-against-kind at flat.toml:41:41"},
    {MORE("  { name = \"hut\", kind = \"chest\", box = [64, 32, 24, 16] },\n"), ""},
    {"flat.toml", ", runs = \"ring_bell\" }", ", gives = [\"has_key\"] }", "fact-shared at flat.toml:39:3"},
    {MORE("  { name = \"hum\", kind = \"trigger\", cell = [1, 1] },\n"), "trigger-idle at flat.toml:41:3"},
    {MORE("  { name = \"hum\", kind = \"trigger\", cell = [0, 5], runs = \"ring_bell\" },\n"),
     "trigger-buried at flat.toml:41:44"},
    {MORE("  { name = \"hum\", kind = \"trigger\", cell = [0, 5], runs = \"ring_bell\", fires = \"use\" },\n"),
     ""},   // from above
    {MORE("  { name = \"hum\", kind = \"trigger\", cell = [8, 5], runs = \"ring_bell\", fires = \"use\" },\n"),
     "use-unreachable at flat.toml:41:44"},
    // links
    {"cave.toml", "at = [56, 48] }", "at = [8, 48] }", "link-bounce at flat.toml:38:63"},
    {"cave.toml", "at = [56, 48] }", "at = [21, 48] }", ""},
    {"flat.toml", "to = \"cave/mat\"", "to = \"flat/key\"", "map-unlinked at cave.toml:2:8"},
    // facts and names
    {"flat.toml", "fires = \"enter\", gives = [\"has_key\"]", "fires = \"enter\"", "fact-never-true at flat.toml:38:3"},
    {"cave.toml", "gives = [\"lamp_lit\"]", "runs = \"ring_bell\"", "fact-never-true at world.toml:31:1"},
    {"flat.toml", ", needs = [\"has_key\"]", "", "fact-unread at world.toml:30:1"},
    {"flat.toml", ", runs = \"ring_bell\"", ", gives = [\"lamp_lit\"]", "event-unused at world.toml:34:1"},
    {"world.toml", "ring_bell = \"rings\"", "ring_bell = \"rings\"\nring_ball = \"rolls\"",
     "name-twins at world.toml:35:1"},
    {MORE("  { name = \"wet_a\", kind = \"entity\", at = [8, 8], when = [\"has_key\"] },\n  { name = \"wet_b\", kind = "
          "\"entity\", at = [8, 8], when = [\"lamp_lit\"] },\n"),
     "states-overlap at flat.toml:42:3"},
    {MORE("  { name = \"wet_a\", kind = \"entity\", at = [8, 8], when = [\"has_key\"] },\n  { name = \"wet_b\", kind = "
          "\"entity\", at = [8, 8], when = [\"lamp_lit\"] },\n"),
     "states-gap at flat.toml:42:3"},
    {MORE("  { name = \"wet_a\", kind = \"entity\", at = [8, 8], when = [\"has_key\"] },\n  { name = \"wet_b\", kind = "
          "\"entity\", at = [8, 8], unless = [\"has_key\"] },\n"),
     ""},
    // waivers
    {MORE("  { name = \"hum\", kind = \"trigger\", cell = [1, 1], waive = [{ rule = \"trigger-idle\", why = \"for "
          "later\" }] },\n"),
     ""},
    {MORE("  { name = \"hum\", kind = \"trigger\", cell = [1, 1], runs = \"ring_bell\", waive = [{ rule = "
          "\"trigger-idle\", why = \"for later\" }] },\n"),
     "waiver-unused at flat.toml:41:81"},
    {"world.toml", "maps = [\"flat.toml\", \"cave.toml\"]",
     "maps = [\"flat.toml\", \"cave.toml\"]\nwaive = [{ rule = \"leak\", why = \"so\" }]",
     "waiver-unused at world.toml:9:10"},
};

Report findings(const Files& files) { return worlds::all_findings(files); }

const bool noted = [] {
    for (const char* other :
         {"crack", "narrow", "pocket", "object-unscaled", "layer-without-shapes", "flags-always-equal", "sheet-cut",
          "art-shared", "shape-against-art", "art-odd-size", "solid-without-art", "art-without-solid"})
        tripped().insert(other);   // in cases of their own, below
    for (const Row& row : rows)
        tripped().insert(std::string(row.expected).substr(0, std::string(row.expected).find(' ')));
    return true;
}();

}   // namespace

TEST_CASE("the test shore checks clean", "[rules]") {
    REQUIRE(noted);
    const Report report = findings(shore());
    INFO(text(report));
    CHECK(report.empty());
}

TEST_CASE("each rule trips at its place, and stays silent for a near miss", "[rules]") {
    const Row& row = GENERATE(from_range(std::begin(rows), std::end(rows)));
    CAPTURE(row.file, row.to);
    const Report report = findings(with(shore(), row.file, row.from, row.to));
    CAPTURE(text(report));
    const auto found = worlds::rules_and_places(report);
    if (std::string(row.expected).empty())
        CHECK(found.empty());
    else
        CHECK(std::count(found.begin(), found.end(), row.expected) == 1);
}

namespace {

// Findings of one rule, told as text.
std::string of(const Report& report, Rule rule) {
    std::string all;
    for (const Finding* finding : worlds::of_rule(report, rule)) all += text(*finding);
    return all;
}

Files with_rows(const std::string& field) {
    return with(shore(), "flat.toml",
                "............\n............\n..........n.\n......../###\n..#~~#######\n############", field);
}

// A sheet of tiles of one colour each.
std::string sheet_png(int columns, int cell, int more) {
    Image image;
    image.width = columns * cell + more, image.height = cell;
    image.rgba.resize(4 * static_cast<std::size_t>(image.width) * static_cast<std::size_t>(image.height), 200);
    return encode_png(image);
}

Report with_pictures(const Files& files) {
    const Loaded loaded = worlds::load(files);
    Report report = loaded.report();
    const FileReader reader = [&files](const std::filesystem::path& path) {
        const auto found = files.find(path.generic_string());
        return found == files.end() ? FileBytes{{}, "there is no such file"} : FileBytes{found->second, {}};
    };
    if (loaded) report.add(check(loaded.world(), {pictures_of("world.toml", reader)}));
    return report;
}

Files with_sheet(int more = 0) {
    Files files = with(shore(), "marsh.toml", "cell = [16, 16]", "cell = [16, 16]\nsheet = { file = \"marsh.png\" }");
    int column = 0;
    for (std::size_t at = 0; (at = files["marsh.toml"].find("unseen = true", at)) != std::string::npos;)
        files["marsh.toml"].replace(at, 13, fmt::format("art = [{}, 0]", column++));
    files["marsh.png"] = sheet_png(5, 16, more);
    return files;
}

}   // namespace

TEST_CASE("gaps that nobody fits in, and passages that only look open", "[rules]") {
    const Files posts =
        with(with_rows("............\n............\n..........n.\n..p...../###\n..#~~#######\n############"),
             "flat.toml", "\"#\" = \"peat\"", "\"#\" = \"peat\", \"p\" = \"post\"");
    const auto gap = [&](double px) {
        return findings(with(posts, "marsh.toml", "[tiles.net]",
                             fmt::format("[tiles.post]\nunseen = true\nbarrier = \"earth\"\nshapes = [{{ box = [0, 0, "
                                         "2, 16] }}, {{ box = [{}, 0, {}, 16] }}]\n[tiles.net]",
                                         2 + px, 14 - px)));
    };
    CHECK_THAT(of(gap(2), Rule::crack),
               Catch::Contains("flat.toml:15:3: warning: a gap of 2 px") && Catch::Contains("in cell (2, 3)"));
    CHECK(of(gap(9.75), Rule::crack) != "");
    CHECK(of(gap(10), Rule::crack) == "");   // touching is free
    const Files wide =
        with(with_rows("....#.#.....\n....#.#.....\n....#.#...n.\n......../###\n..#~~#######\n############"),
             "world.toml", "body = { box = [10, 14], at = [0, -7] }", "body = { box = [20, 14], at = [0, -7] }");
    CHECK_THAT(of(findings(wide), Rule::narrow),
               Catch::Contains("a passage of 16 px is too narrow for warden by 4 px"));
    CHECK(of(findings(with(wide, "world.toml", "[20, 14]", "[16, 14]")), Rule::narrow) == "");
}

TEST_CASE("a closed room is a pocket, an open one is none", "[rules]") {
    const char* field = "........\n........\n........\n########";
    CHECK_THAT(of(findings(with(shore(), "cave.toml", field, "...###..\n...#.#..\n...###..\n########")), Rule::pocket),
               Catch::Contains("a free area of 16 x 16 px"));
    CHECK(of(findings(with(shore(), "cave.toml", field, "........\n...#.#..\n...###..\n########")), Rule::pocket) ==
          "");
}

TEST_CASE("objects in metres are told once, at the first", "[rules]") {
    Files files = shore();
    for (const auto& [px, m] :
         {std::pair{"at = [120, 64]", "at = [7.5, 4]"}, std::pair{"at = [152, 48]", "at = [9.5, 3]"},
          std::pair{"at = [96, 56]", "at = [6, 3.5]"}, std::pair{"cells = [11, 2, 1, 1]", "box = [11, 2, 1, 1]"},
          std::pair{"box = [96, 32, 16, 16]", "box = [6, 2, 1, 1]"}, std::pair{"at = [112, 64]", "at = [7, 4]"}})
        files = with(files, "flat.toml", px, m);
    CHECK_THAT(of(findings(files), Rule::object_unscaled),
               Catch::Contains("flat.toml:35:44") && Catch::Contains("all 6 objects of layer 'people'"));
    CHECK(of(findings(shore()), Rule::object_unscaled) == "");
}

TEST_CASE("layers that do nothing, and flags that are always alike", "[rules]") {
    const Files idle =
        with(with(shore(), "marsh.toml", "flags = [\"climb\"]\n", ""), "flat.toml", "..........n.", "............");
    const Files layer =
        with(with(idle, "flat.toml", ", \"n\" = \"net\" }", " }"), "flat.toml", "[[layers]]\nname = \"people\"",
             "[[layers]]\nname = \"weeds\"\nlegend = { \"n\" = \"net\" }\nrows = "
             "'''\n............\n............\n..........n.\n............\n............\n............\n'''\n[[layers]]"
             "\nname = \"people\"");
    CHECK_THAT(of(findings(layer), Rule::layer_without_shapes), Catch::Contains("in layer 'weeds'"));
    CHECK(of(findings(with(layer, "flat.toml", "name = \"weeds\"", "name = \"weeds\"\ndecor = true")),
             Rule::layer_without_shapes) == "");
    const Files alike = with(with(shore(), "marsh.toml", "flags = [\"climb\"]", "flags = [\"walk\", \"climb\"]"),
                             "marsh.toml", "flags = [\"walk\"]", "flags = [\"walk\", \"climb\"]");
    CHECK_THAT(of(findings(alike), Rule::flags_always_equal), Catch::Contains("flags 'walk' and 'climb'"));
}

TEST_CASE("sheets, art and the shapes over it", "[rules]") {
    CHECK(of(with_pictures(with_sheet()), Rule::sheet_cut) == "");
    CHECK_THAT(of(with_pictures(with_sheet(3)), Rule::sheet_cut),
               Catch::Contains("marsh.toml:4:9") && Catch::Contains("3 px are left over across"));
    CHECK_THAT(of(with_pictures(with(with_sheet(), "marsh.toml", "art = [1, 0]", "art = [0, 0]")), Rule::art_shared),
               Catch::Contains("'peat' and 'bank'"));
    CHECK(of(with_pictures(with_sheet()), Rule::shape_against_art) == "");
    // Art on its left half only: a shape on the right stands over nothing.
    Files half = with_sheet();
    std::string fault;
    Image image = *decode_png(half["marsh.png"], fault);
    for (int y = 0; y < 16; ++y)
        for (int x = 8; x < 16; ++x) image.rgba[4 * static_cast<std::size_t>(y * image.width + x) + 3] = 0;
    half["marsh.png"] = encode_png(image);
    CHECK_THAT(of(with_pictures(half), Rule::shape_against_art), Catch::Contains("over 128 px of nothing, 50 %"));
    CHECK(of(with_pictures(with(half, "marsh.toml", "shapes = [\"cell\"]", "shapes = [{ box = [0, 0, 8, 16] }]")),
             Rule::shape_against_art) == "");
    Files odd = shore();
    for (const auto& [tile, file, size] :
         {std::tuple{"peat", "a", 16}, std::tuple{"bank", "b", 16}, std::tuple{"brine", "c", 64}}) {
        odd = with(odd, "marsh.toml", fmt::format("[tiles.{}]\nunseen = true", tile),
                   fmt::format("[tiles.{}]\npicture = {{ file = \"{}.png\" }}", tile, file));
        odd[fmt::format("{}.png", file)] = sheet_png(1, size, 0);
    }
    CHECK_THAT(of(with_pictures(odd), Rule::art_odd_size), Catch::Contains("'brine' is 64 x 64 px, 16 times"));
}

TEST_CASE("solids and the art that they belong to", "[rules]") {
    const auto rock = [](const char* box) {
        return with(
            with_sheet(), "flat.toml", last,
            fmt::format("{}  {{ name = \"rock\", kind = \"solid\", barrier = \"earth\", box = {} }},\n", last, box));
    };
    CHECK_THAT(of(with_pictures(rock("[16, 16, 16, 16]")), Rule::solid_without_art),
               Catch::Contains("100 % of solid 'rock'"));
    CHECK(of(with_pictures(rock("[160, 48, 16, 16]")), Rule::solid_without_art) == "");
    // All of the ground's art is covered by one rock; or all but a few cells.
    CHECK(of(with_pictures(rock("[0, 32, 192, 64]")), Rule::art_without_solid) == "");
    CHECK_THAT(of(with_pictures(rock("[0, 32, 176, 64]")), Rule::art_without_solid),
               Catch::Contains("layer 'ground' is solid almost everywhere, but not in 3 cells"));
}

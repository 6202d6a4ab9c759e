// The rules about art, shapes, layers, outlines, space, objects, facts and names: each tripped, at its place, and
// silent for a near miss.
// Also tests src/check: drawn firing layers maps object_places outlines tile_shapes
#include <catch2/catch.hpp>

#include "shore.hpp"
#include "tripped.hpp"

using namespace dryground;
using worlds::Files;
using worlds::shore;
using worlds::with;

namespace {

struct NearMiss {
    const char *file, *from, *to;
    const char* expected;   // rule at place; empty when all must stay silent
};

#define MORE(text) "flat.toml", worlds::last_of_shore, "  { name = \"box\", kind = \"chest\", at = [112, 64] },\n" text

const NearMiss near_misses[] = {
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
    {"marsh.toml", "[[0, 16], [16, 0], [16, 16]]",
     "[[0, 16], [0, 15], [1, 15], [1, 14], [2, 14], [2, 13], [3, 13], [16, 0], [16, 16]]",
     "saw-teeth at marsh.toml:13:11"},
    {"marsh.toml", "[[0, 16], [16, 0], [16, 16]]", "[[0, 16], [2, 13], [5, 11], [16, 0], [16, 16]]", ""},
    {MORE("  { kind = \"solid\", polygon = [[0, 0], [32, 0], [31.5, 16], [0, 16]], barrier = \"earth\" },\n"),
     "near-cell at flat.toml:41:31"},
    {MORE("  { kind = \"solid\", polygon = [[0, 0], [32, 0], [31, 16], [0, 16]], barrier = \"earth\" },\n"), ""},
    // firing
    {MORE("  { name = \"gem\", kind = \"entity\", circle = [100, 88, 4], gives = [\"has_key\"] },\n"),
     "buried at flat.toml:41:45"},
    {MORE("  { kind = \"solid\", box = [0, 0, 16, 16], barrier = \"earth\", runs = \"ring_bell\" },\n"),
     "fires-never at flat.toml:41:3"},
    {MORE("  { kind = \"solid\", box = [0, 0, 16, 16], barrier = \"earth\", fires = \"bump\", runs = \"ring_bell\" "
          "},\n"),
     ""},
    {"flat.toml", "box = [96, 32, 16, 16], runs", "box = [96, 32, 16, 16], fires = \"bump\", runs",
     "fires-never at flat.toml:39:3"},
    {"flat.toml", "kind = \"spawn\", at", "kind = \"spawn\", runs = \"ring_bell\", at",
     "fires-never at flat.toml:35:3"},
    {"marsh.toml", "shapes = []\nflags = [\"climb\"]",
     "shapes = []\nflags = [\"climb\"]\nreacts = [{ fires = \"bump\", runs = \"ring_bell\" }]",
     "fires-never at marsh.toml:30:11"},
    {"marsh.toml", "barrier = \"brine\"\nshapes = [\"cell\"]",
     "barrier = \"brine\"\nshapes = [\"cell\", { cell = true, trigger = \"t\" }]\nreacts = [{ fires = \"enter\", runs "
     "= \"ring_bell\" }]",
     ""},
    {"marsh.toml", "barrier = \"earth\"\nshapes = [\"cell\"]",
     "barrier = \"earth\"\nshapes = [\"cell\", { cell = true, trigger = \"t\" }]\nreacts = [{ fires = \"enter\", runs "
     "= \"ring_bell\" }]",
     "fires-never at marsh.toml:9:11"},
    {"flat.toml", "name = \"deck\"\n", "name = \"deck\"\none_way = \"up\"\n", "one-way-nothing at flat.toml:21:8"},
    // layers
    {"flat.toml", "name = \"deck\"\n", "name = \"deck\"\ndecor = true\n", "decor-with-shapes at flat.toml:21:8"},
    {"flat.toml", "[[layers]]\nname = \"people\"",
     "[[layers]]\nname = \"nets\"\nlegend = { \"n\" = \"boardwalk\" }\nrows = "
     "'''\n............\n............\n............\n............\n...nn.......\n............\n'''\n[[layers]]\nname = "
     "\"people\"",
     ""},
    {"world.toml", "[facts]", "[limits]\nmaps = 1\n[facts]", "limit at world.toml:33:8"},
    {"world.toml", "[facts]", "[limits]\nmaps = 2\ncolumns = 12\n[facts]", ""},
    {"world.toml", "[facts]", "[limits]\ncolumns = 11\n[facts]", "limit at flat.toml:2:8"},
    {"world.toml", "[facts]", "[limits]\ncontact_bits = 4\n[facts]", "contact-bits at world.toml:33:16"},
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
    {"cave.toml", "gives = [\"lamp_lit\"]", "runs = \"ring_bell\"", "fact-never-true at world.toml:34:1"},
    {"flat.toml", ", needs = [\"has_key\"]", "", "fact-unread at world.toml:33:1"},
    {"flat.toml", ", runs = \"ring_bell\"", ", gives = [\"lamp_lit\"]", "event-unused at world.toml:37:1"},
    {"world.toml", "ring_bell = \"rings\"", "ring_bell = \"rings\"\nring_ball = \"rolls\"",
     "name-twins at world.toml:38:1"},
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

const bool near_misses_noted = [] {
    for (const NearMiss& row : near_misses)
        tripped().insert(std::string(row.expected).substr(0, std::string(row.expected).find(' ')));
    return true;
}();

}   // namespace

TEST_CASE("the test shore checks clean", "[rules]") {
    REQUIRE(near_misses_noted);
    const Report report = worlds::all_findings(shore());
    INFO(text(report));
    CHECK(report.empty());
}

TEST_CASE("each rule trips at its place, and stays silent for a near miss", "[rules]") {
    const NearMiss& row = GENERATE(from_range(std::begin(near_misses), std::end(near_misses)));
    CAPTURE(row.file, row.to);
    const Report report = worlds::all_findings(with(shore(), row.file, row.from, row.to));
    CAPTURE(text(report));
    const auto found = worlds::rules_and_places(report);
    if (std::string(row.expected).empty())
        CHECK(found.empty());
    else
        CHECK(std::count(found.begin(), found.end(), row.expected) == 1);
}

TEST_CASE("stairs that lead to and fro on one cell are reported, those beside each other are not") {
    const auto found = [](const char* down) {
        Files files =
            with(shore(), "world.toml", "[facts]", "[storeys]\nloft = { base_px = 32, height_px = 32 }\n\n[facts]");
        files = with(files, "marsh.toml", "[tiles.net]",
                     "[tiles.up]\nunseen = true\nshapes = []\nflags = [\"walk\"]\nleads = \"loft\"\n\n"
                     "[tiles.down]\nunseen = true\nshapes = []\nflags = [\"walk\"]\nleads = \"ground\"\n\n[tiles.net]");
        const std::string rows = "rows = '''\n............\n............\n............\n";
        files = with(files, "flat.toml", "[[layers]]\nname = \"people\"",
                     "[[layers]]\nname = \"steps\"\nlegend = { \"u\" = \"up\" }\n" + rows +
                         ".......u....\n............\n............\n'''\n\n"
                         "[[layers]]\nname = \"loft\"\nstorey = \"loft\"\nlegend = { \"d\" = \"down\" }\n" +
                         rows + down + "\n............\n............\n'''\n\n[[layers]]\nname = \"people\"");
        return worlds::rules_and_places(worlds::all_findings(files));
    };
    const auto bounce = found(".......d....");
    CHECK(std::count_if(bounce.begin(), bounce.end(),
                        [](const std::string& one) { return one.rfind("stairs-bounce at flat.toml", 0) == 0; }) == 1);
    const auto fine = found("......d.....");
    CHECK(std::none_of(fine.begin(), fine.end(),
                       [](const std::string& one) { return one.rfind("stairs-bounce", 0) == 0; }));
    tripped().insert("stairs-bounce");
}

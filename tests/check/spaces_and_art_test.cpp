// Rules that take more than a line to trip: gaps, rooms, metres, layers, art.
// Also tests src/check: art solid_art space tile_art
#include <catch2/catch.hpp>

#include "clean_worlds.hpp"
#include "shore.hpp"
#include "tripped.hpp"

using namespace dryground;
using worlds::Files;
using worlds::shore;
using worlds::with;

namespace {

const bool spaces_noted = [] {
    for (const char* other :
         {"crack", "narrow", "pocket", "object-unscaled", "layer-without-shapes", "flags-always-equal", "sheet-cut",
          "art-shared", "shape-against-art", "art-odd-size", "solid-without-art", "art-without-solid"})
        tripped().insert(other);
    return true;
}();

// Returns findings of one rule, as text.
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
    const Result<World> loaded = worlds::load(files);
    Report report = loaded.report();
    if (loaded) report.add(check(*loaded, {pictures_of("world.toml", worlds::reader_of(files))}));
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
    REQUIRE(spaces_noted);
    const Files posts =
        with(with_rows("............\n............\n..........n.\n..p...../###\n..#~~#######\n############"),
             "flat.toml", "\"#\" = \"peat\"", "\"#\" = \"peat\", \"p\" = \"post\"");
    const auto gap = [&](double px) {
        return worlds::all_findings(
            with(posts, "marsh.toml", "[tiles.net]",
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
    CHECK_THAT(of(worlds::all_findings(wide), Rule::narrow),
               Catch::Contains("a passage of 16 px is too narrow for warden by 4 px"));
    CHECK(of(worlds::all_findings(with(wide, "world.toml", "[20, 14]", "[16, 14]")), Rule::narrow) == "");
}

TEST_CASE("a closed room is a pocket, an open one is not", "[rules]") {
    const char* field = "........\n........\n........\n########";
    CHECK_THAT(of(worlds::all_findings(with(shore(), "cave.toml", field, "...###..\n...#.#..\n...###..\n########")),
                  Rule::pocket),
               Catch::Contains("a free area of 16 x 16 px"));
    CHECK(of(worlds::all_findings(with(shore(), "cave.toml", field, "........\n...#.#..\n...###..\n########")),
             Rule::pocket) == "");
}

TEST_CASE("objects in metres are reported once, at the first", "[rules]") {
    Files files = shore();
    for (const auto& [px, m] :
         {std::pair{"at = [120, 64]", "at = [7.5, 4]"}, std::pair{"at = [152, 48]", "at = [9.5, 3]"},
          std::pair{"circle = [96, 56, 6]", "circle = [6, 3.5, 0.375]"},
          std::pair{"cells = [11, 2, 1, 1]", "box = [11, 2, 1, 1]"},
          std::pair{"box = [96, 32, 16, 16]", "box = [6, 2, 1, 1]"}, std::pair{"at = [112, 64]", "at = [7, 4]"}})
        files = with(files, "flat.toml", px, m);
    CHECK_THAT(of(worlds::all_findings(files), Rule::object_unscaled),
               Catch::Contains("flat.toml:35:44") && Catch::Contains("all 6 objects of layer 'people'"));
    CHECK(of(worlds::all_findings(shore()), Rule::object_unscaled) == "");
}

TEST_CASE("layers that do nothing, and flags that are always alike", "[rules]") {
    const Files idle =
        with(with(shore(), "marsh.toml", "flags = [\"climb\"]\n", ""), "flat.toml", "..........n.", "............");
    const Files layer =
        with(with(idle, "flat.toml", ", \"n\" = \"net\" }", " }"), "flat.toml", "[[layers]]\nname = \"people\"",
             "[[layers]]\nname = \"weeds\"\nlegend = { \"n\" = \"net\" }\nrows = "
             "'''\n............\n............\n..........n.\n............\n............\n............\n'''\n[[layers]]"
             "\nname = \"people\"");
    CHECK_THAT(of(worlds::all_findings(layer), Rule::layer_without_shapes), Catch::Contains("in layer 'weeds'"));
    CHECK(of(worlds::all_findings(with(layer, "flat.toml", "name = \"weeds\"", "name = \"weeds\"\ndecor = true")),
             Rule::layer_without_shapes) == "");
    const Files alike = with(with(shore(), "marsh.toml", "flags = [\"climb\"]", "flags = [\"walk\", \"climb\"]"),
                             "marsh.toml", "flags = [\"walk\"]", "flags = [\"walk\", \"climb\"]");
    CHECK_THAT(of(worlds::all_findings(alike), Rule::flags_always_equal), Catch::Contains("flags 'walk' and 'climb'"));
    CHECK(of(worlds::all_findings(with(alike, "marsh.toml", "flags = [\"walk\", \"climb\"]", "flags = [\"climb\"]")),
             Rule::flags_always_equal) == "");   // one tile tells them apart
}

TEST_CASE("sheets, art and the shapes over it", "[rules]") {
    CHECK(of(with_pictures(with_sheet()), Rule::sheet_cut) == "");
    CHECK_THAT(of(with_pictures(with_sheet(3)), Rule::sheet_cut),
               Catch::Contains("marsh.toml:4:9") && Catch::Contains("3 px are left over across"));
    CHECK_THAT(of(with_pictures(with(with_sheet(), "marsh.toml", "art = [1, 0]", "art = [0, 0]")), Rule::art_shared),
               Catch::Contains("'peat' and 'bank'"));
    CHECK(of(with_pictures(with_sheet()), Rule::art_shared) == "");
    // A shape that leaves most of what the art shows bare; unless the art fills its cell.
    Files post = with_sheet();
    Image picture = *decode_png(post["marsh.png"]);
    for (int y = 0; y < 16; ++y)
        for (int x = 12; x < 16; ++x) picture.rgba[4 * static_cast<std::size_t>(y * picture.width + x) + 3] = 0;
    const auto narrow = [](const Files& files) {
        return with(files, "marsh.toml", "shapes = [\"cell\"]", "shapes = [{ box = [0, 0, 4, 16] }]");
    };
    CHECK(of(with_pictures(narrow(post)), Rule::shape_against_art) == "");   // it fills its cell still
    post["marsh.png"] = encode_png(picture);
    CHECK_THAT(of(with_pictures(narrow(post)), Rule::shape_against_art),
               Catch::Contains("the shapes of 'peat' leave 128 px of its art bare, 66 % of its area"));
    CHECK(of(with_pictures(with_sheet()), Rule::shape_against_art) == "");
    // Art on its left half only: a shape on the right stands over nothing.
    Files half = with_sheet();
    Image image = *decode_png(half["marsh.png"]);
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
        return with(with_sheet(), "flat.toml", worlds::last_of_shore,
                    fmt::format("{}  {{ name = \"rock\", kind = \"solid\", barrier = \"earth\", box = {} }},\n",
                                worlds::last_of_shore, box));
    };
    CHECK_THAT(of(with_pictures(rock("[16, 16, 16, 16]")), Rule::solid_without_art),
               Catch::Contains("nothing is drawn where 'rock' is solid"));
    CHECK(of(with_pictures(rock("[160, 48, 16, 16]")), Rule::solid_without_art) == "");
    // All of the ground's art is covered by one rock; or all but a few cells.
    CHECK(of(with_pictures(rock("[0, 32, 192, 64]")), Rule::art_without_solid) == "");
    CHECK_THAT(of(with_pictures(rock("[0, 32, 176, 64]")), Rule::art_without_solid),
               Catch::Contains("layer 'ground' is solid almost everywhere, but not in 3 cells") &&
                   Catch::Contains("in (11, 3), (11, 4), (11, 5)"));
    // A kind's picture is art too.
    Files crate = rock("[16, 16, 16, 16]");
    crate = with(crate, "flat.toml", "kind = \"solid\", barrier", "kind = \"boulder\", barrier");
    crate =
        with(crate, "world.toml", "[kinds.chest]",
             "[kinds.boulder]\nrole = \"solid\"\npicture = { file = \"boulder.png\", at = [-8, -8] }\n[kinds.chest]");
    crate["boulder.png"] = sheet_png(1, 16, 0);
    CHECK(of(with_pictures(crate), Rule::solid_without_art) == "");
    CHECK(of(with_pictures(with(crate, "world.toml", "at = [-8, -8]", "at = [8, -8]")), Rule::solid_without_art) != "");
    // Art that fills a part of its cells is covered by solids that cover just that.
    Files low = with_sheet();
    Image image = *decode_png(low["marsh.png"]);
    for (int y = 0; y < 12; ++y)
        for (int x = 0; x < image.width; ++x) image.rgba[4 * static_cast<std::size_t>(y * image.width + x) + 3] = 0;
    low["marsh.png"] = encode_png(image);
    const auto strips = [&](const char* last) {
        std::string items = worlds::last_of_shore;
        int number = 0;
        for (const char* box : {"[160, 44, 16, 4]", "[128, 60, 64, 4]", "[0, 76, 192, 4]", last})
            items += fmt::format("  {{ name = \"strip_{}\", kind = \"solid\", barrier = \"earth\", box = {} }},\n",
                                 number++, box);
        return with(low, "flat.toml", worlds::last_of_shore, items);
    };
    CHECK(of(with_pictures(strips("[0, 92, 192, 4]")), Rule::art_without_solid) == "");
    CHECK_THAT(of(with_pictures(strips("[0, 92, 176, 4]")), Rule::art_without_solid),
               Catch::Contains("not in 1 cell") && Catch::Contains("in (11, 5)"));
}

TEST_CASE("ledges in a row that nearly meet are reported, those that meet and those wide apart are not", "[rules]") {
    const auto ledges = [](const char* line) {
        Files files = with_rows("............\n..pp........\n..........n.\n......../###\n..#~~#######\n############");
        files = with(files, "flat.toml", "\"#\" = \"peat\"", "\"#\" = \"peat\", \"p\" = \"ledge\"");
        return worlds::all_findings(
            with(files, "marsh.toml", "[tiles.net]",
                 fmt::format("[tiles.ledge]\nunseen = true\nbarrier = \"earth\"\nshapes = [{{ line = {}, one_way = "
                             "\"up\" }}]\n[tiles.net]",
                             line)));
    };
    CHECK_THAT(of(ledges("[[0, 4], [15, 4]]"), Rule::crack), Catch::Contains("a gap of 1 px between solids in a row"));
    CHECK(of(ledges("[[0, 4], [16, 4]]"), Rule::crack) == "");
    CHECK(of(ledges("[[3, 4], [9, 4]]"), Rule::crack) == "");   // the warden, 10 px wide, falls through
}

TEST_CASE("a slope whose upper corner meets the next slope does not end in the air", "[rules]") {
    const auto slopes = [](const char* rows) {   // high on the left
        return of(worlds::all_findings(with(with_rows(rows), "marsh.toml", "[[0, 16], [16, 0], [16, 16]]",
                                            "[[0, 0], [16, 16], [0, 16]]")),
                  Rule::slope_end);
    };
    CHECK(slopes("............\n............\n..........n.\n../.....####\n############\n############") != "");
    CHECK(slopes("............\n............\n./........n.\n../.....####\n############\n############") == "");
}

TEST_CASE("findings of a map with several storeys say on which they are", "[rules]") {
    Files files = with_rows("............\n............\n..........n.\n......../###\n..#~~#######\n############");
    files = with(files, "world.toml", "[facts]", "[storeys]\nloft = { base_px = 32 }\n[facts]");
    files = with(files, "flat.toml", worlds::last_of_shore,
                 std::string(worlds::last_of_shore) +
                     "  { name = \"hum\", kind = \"trigger\", cell = [1, 1], storey = \"loft\" },\n");
    CHECK_THAT(of(worlds::all_findings(files), Rule::trigger_idle), !Catch::Contains("on storey"));
    files = with(files, "flat.toml", "[[layers]]\nname = \"ground\"",
                 "[[layers]]\nname = \"attic\"\nstorey = \"loft\"\nrows = "
                 "'''\n............\n............\n............\n............\n............\n............\n'''\n\n"
                 "[[layers]]\nname = \"ground\"");
    CHECK_THAT(of(worlds::all_findings(files), Rule::trigger_idle), Catch::Contains("on storey 'loft'"));
}

TEST_CASE("a leak's hint names a barrier that stops the mover", "[rules]") {
    Files files = with(shore(), "flat.toml", "rim = \"earth\"\n", "");
    CHECK_THAT(of(worlds::all_findings(files), Rule::leak), Catch::Contains("rim = \"earth\""));
    files = with(files, "world.toml", "earth = {}\nbrine = {}", "brine = {}\nearth = {}");
    files = with(files, "world.toml", "stopped_by = [\"earth\", \"brine\"]", "stopped_by = [\"earth\"]");
    CHECK_THAT(of(worlds::all_findings(files), Rule::leak), Catch::Contains("rim = \"earth\""));
}

TEST_CASE("the cell of a set that only diamonds use is a diamond to its art too") {
    Image diamond{32, 16, std::vector<unsigned char>(std::size_t{4} * 32 * 16, 200)};
    for (int y = 0; y < 16; ++y)
        for (int x = 0; x < 32; ++x)
            if (std::abs(2 * x - 31) + 2 * std::abs(2 * y - 15) > 32)
                diamond.rgba[4 * static_cast<std::size_t>(y * 32 + x) + 3] = 0;
    Files files = with(worlds::clean_world(2), "marsh.toml", "[tiles.peat]",
                       "[tiles.peat]\nunseen = false\npicture = { file = \"peat.png\" }");
    files["peat.png"] = encode_png(diamond);
    REQUIRE(worlds::load(files)->maps().front().grid == GridSort::isometric);
    CHECK(of(with_pictures(files), Rule::shape_against_art) == "");
    // half of it bare of art: reported, as on squares
    for (int y = 0; y < 16; ++y)
        for (int x = 0; x < 16; ++x) diamond.rgba[4 * static_cast<std::size_t>(y * 32 + x) + 3] = 0;
    files["peat.png"] = encode_png(diamond);
    CHECK_THAT(of(with_pictures(files), Rule::shape_against_art), Catch::Contains("of nothing, 50 %"));
}

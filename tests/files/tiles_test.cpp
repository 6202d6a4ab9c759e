// What tile sets declare besides shapes: families, blocks, reactions, tiles that stand for objects, traced art.
// Also tests src/model: make_tiles make_patterns place_patterns make_reactions orientation
// Also tests src/files: read_tiles
#include <catch2/catch.hpp>

#include "merging.hpp"
#include "oracles.hpp"

using namespace dryground;
using worlds::Files;

namespace {

using Found = std::vector<std::string>;
Found found_in(const Files& files) { return worlds::rules_and_places(worlds::load(files).report()); }

Files with_tiles(const std::string& more) {
    Files files = worlds::small_world();
    files["marsh.toml"] += more;
    return files;
}

// The tiles of the first layer by their first letters, row by row.
std::string letters(const Files& files) {
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const Map& map = loaded->map("flat");
    std::string all;
    for (int r = 0; r < map.rows; ++r, all += ' ')
        for (int c = 0; c < map.columns; ++c) {
            const Placed& placed = map.placed(map.layers[0], c, r);
            all += placed.tile < 0 ? '.' : loaded->tile(placed).name.front();
        }
    return all;
}

const std::string dykes =
    "[tiles.alone]\nlike = \"peat\"\n[tiles.left_end]\nlike = \"peat\"\n[tiles.middle]\nlike = \"peat\"\n"
    "[tiles.right_end]\nlike = \"peat\"\n"
    "[families.dyke]\nmembers = [\n  { tile = \"alone\", joined = [] },\n  { tile = \"left_end\", joined = [\"right\"] "
    "},\n"
    "  { tile = \"middle\", joined = [\"left\", \"right\"] },\n  { tile = \"right_end\", joined = [\"left\"] },\n]\n";

Files with_dykes(const std::string& rows) {
    return merging::with_rows(
        worlds::with(with_tiles(dykes), "flat.toml", "legend = { \"#\" = \"peat\", \"/\" = \"bank\" }",
                     "legend = { \"#\" = \"peat\", \"D\" = { family = \"dyke\" } }"),
        rows);
}

}   // namespace

TEST_CASE("a family's members are picked by their neighbours") {
    CHECK(letters(with_dykes("DDD..D\n.....#\nD#DD..\n######\n")) == "lmr..a .....p aplr.. pppppp ");
    const Files high = with_dykes("DD....\nD....#\n......\n######\n");
    const Result<World> gap = worlds::load(high);
    const auto gaps = worlds::of_rule(gap.report(), Rule::family_gap);
    REQUIRE(gaps.size() == 2);   // right and bottom; top
    CHECK(message(*gaps[0]) == "family 'dyke' has no member for neighbours right, bottom");
    CHECK(gaps[0]->severity == Severity::warning);
    CHECK(text(gaps[0]->place) == "flat.toml:12:1");
    CHECK(message(*gaps[1]) == "family 'dyke' has no member for neighbours top");
    CHECK(gaps[1]->hint->set == "{ tile = \"…\", joined = [\"top\"] }");
    CHECK(letters(high) == "lr.... a....p ...... pppppp ");   // the nearest member stands there
}

TEST_CASE("corners of a family join only where both their sides do") {
    const auto with_joins = [](const char* joins, const std::string& rows) {
        std::string members;
        for (const char* corner : {"top_left", "top_right", "bottom_right", "bottom_left"})
            members += fmt::format("[tiles.{}]\nlike = \"peat\"\n",
                                   std::string(1, corner[0] == 't' ? corner[4] : corner[7]) + std::string(corner));
        Files files = worlds::with(with_dykes(rows), "marsh.toml", "[families.dyke]", members + "[families.dyke]");
        return worlds::with(
            files, "marsh.toml", "members = [\n",
            fmt::format("joins = \"{}\"\nmembers = [\n  {{ tile = \"rbottom_right\", joined = "
                        "[\"bottom_right\"] }},\n  {{ tile = \"lbottom_left\", joined = [\"bottom_left\"] }},\n"
                        "  {{ tile = \"ltop_left\", joined = [\"top_left\"] }},\n  {{ tile = \"rtop_right\", "
                        "joined = [\"top_right\"] }},\n",
                        joins));
    };
    const auto only_corners = [&](const std::string& rows) {
        Files files = with_joins("corners", rows);
        for (const char* side : {"\"right\"", "\"left\", \"right\"", "\"left\""})
            files = worlds::with(files, "marsh.toml", fmt::format("joined = [{}]", side),
                                 "joined = [\"top_left\", \"top_right\"]");
        return files;
    };
    // members with the same neighbours twice are reported
    CHECK(worlds::of_rule(worlds::load(only_corners("D.....\n......\n......\n######\n")).report(), Rule::duplicate_name)
              .size() == 2);
    // a side is no corner
    CHECK(worlds::of_rule(worlds::load(with_joins("corners", "DD....\nDD....\n......\n######\n")).report(),
                          Rule::unknown_name)
              .size() == 4);
    CHECK(worlds::of_rule(worlds::load(with_joins("arround", "D.....\n......\n......\n######\n")).report(),
                          Rule::out_of_range)
              .size() == 1);
    // all around: a corner without both sides does not count
    const Result<World> around = worlds::load(with_joins("around", "D.....\n.D....\n......\n######\n"));
    CHECK(worlds::of_rule(around.report(), Rule::family_gap).empty());
    CHECK(letters(with_joins("around", "D.....\n.D....\n......\n######\n")) == "a..... .a.... ...... pppppp ");
}

TEST_CASE("members of a family leave open what may be either, and the most exact one wins") {
    const auto with_any = [](const std::string& members, const std::string& rows) {
        Files files = with_dykes(rows);
        std::string& text = files["marsh.toml"];
        text.erase(text.find("members = [\n"));
        text += "members = [\n" + members + "]\n";
        return files;
    };
    const std::string members =
        "  { tile = \"alone\", any = [\"top\", \"right\", \"bottom\", \"left\"] },\n"
        "  { tile = \"left_end\", joined = [\"right\"], any = [\"bottom\"] },\n"
        "  { tile = \"middle\", joined = [\"right\"] },\n";
    CHECK(letters(with_any(members, "DDD..D\nD....#\n......\n######\n")) == "laa..a a....p ...... pppppp ");
    CHECK(letters(with_any(members, "DD...D\n.....#\n......\n######\n")) == "ma...a .....p ...... pppppp ");
    const Result<World> both = worlds::load(
        with_any("  { tile = \"alone\", joined = [\"top\"], any = [\"top\"] },\n", "D.....\n.....#\n......\n######\n"));
    CHECK(worlds::of_rule(both.report(), Rule::out_of_range).size() == 1);
}

TEST_CASE("a row of states is declared once for all its tiles") {
    const std::string row =
        "[[for]]\ntiles = [\"crate*\"]\nset = { unseen = true, barrier = \"earth\", shapes = "
        "[\"cell\"], reacts = [{ fires = \"bump\", turns_into_next = [\"crate\", \"crate_split\", "
        "\"\"] }] }\n[tiles.crate]\n[tiles.crate_split]\n";
    const World world = worlds::world_of(with_tiles(row));
    const TileSet& set = world.tilesets()[0];
    const auto reaction = [&](const char* tile) {
        return set.tiles[static_cast<std::size_t>(set.find(tile))].reacts.at(0);
    };
    CHECK(reaction("crate").then == Reaction::Then::turns);
    CHECK(reaction("crate").turns_into == set.find("crate_split"));
    CHECK(reaction("crate_split").then == Reaction::Then::goes);
    const auto without_end =
        worlds::world_of(worlds::with(with_tiles(row), "marsh.toml", "\"crate_split\", \"\"]", "\"crate_split\"]"));
    CHECK(without_end.tilesets()[0].tiles.back().reacts.at(0).then == Reaction::Then::stays);

    const auto misused = [&](const std::string& from, const std::string& to) {
        const Result<World> loaded = worlds::load(worlds::with(with_tiles(row), "marsh.toml", from, to));
        std::string all;
        for (const Finding& finding : loaded.report().findings()) all += message(finding) + "; ";
        return all;
    };
    CHECK_THAT(misused("\"crate\", \"crate_split\", \"\"", "\"crate\", \"crate_splits\""),
               Catch::Contains("crate_splits"));
    CHECK_THAT(misused("\"crate\", \"crate_split\"", "\"crate_split\""),
               Catch::Contains("'turns_into_next' is without 'crate'"));
    CHECK_THAT(misused("turns_into_next", "turns_into = \"\", turns_into_next"), Catch::Contains("one of them"));
}

TEST_CASE("curves keep to the tolerance of their shape, their layer, or the world") {
    const auto vertices = [](const Files& files) {
        const World world = worlds::world_of(files);
        const TileSet& set = world.tilesets()[0];
        const Regions& tile = set.tiles[static_cast<std::size_t>(set.find("drum"))].shapes[0].area;
        return std::pair(tile[0].outline.size(), world.map("flat").objects.back().area[0].outline.size());
    };
    const std::string drum = "[tiles.drum]\nunseen = true\nbarrier = \"earth\"\nshapes = [{ circle = [8, 8, 7] }]\n";
    const Files plain =
        worlds::with(with_tiles(drum), "flat.toml", "kind = \"crab\", at = [40, 48] },",
                     "kind = \"crab\", at = [40, 48] },\n  { kind = \"trigger\", circle = [40, 40, 7] },");
    const auto [tile, object] = vertices(plain);
    CHECK(tile == object);
    const auto [fine, same] =
        vertices(worlds::with(plain, "marsh.toml", "circle = [8, 8, 7]", "circle = [8, 8, 7], within_px = 0.02"));
    CHECK(fine > tile);
    CHECK(same == object);
    const auto [same_tile, rough] =
        vertices(worlds::with(plain, "flat.toml", "name = \"people\"", "name = \"people\"\nwithin_px = 3"));
    CHECK(same_tile == tile);
    CHECK(rough < object);
    for (const char* wrong : {"0", "65", "-1"}) {
        const Files bad = worlds::with(plain, "flat.toml", "name = \"people\"",
                                       fmt::format("name = \"people\"\nwithin_px = {}", wrong));
        CHECK(found_in(bad) == Found{"out-of-range at flat.toml:20:13"});
    }
}

TEST_CASE("a block is placed as one, its anchor where it is painted") {
    const std::string lamp =
        "[blocks.lamp]\nrows = '''\nB\nA\n'''\nlegend = { \"A\" = \"peat\", \"B\" = { tile = \"bank\", flip = \"x\" } "
        "}\nanchor = \"A\"\n";
    const auto with_lamp = [&](const std::string& block, const std::string& rows) {
        return merging::with_rows(
            worlds::with(with_tiles(block), "flat.toml", "\"/\" = \"bank\"", "\"L\" = { block = \"lamp\" }"), rows);
    };
    const Files files = with_lamp(lamp, "......\n......\n.L..L.\n######\n");
    CHECK(letters(files) == "...... .b..b. .p..p. pppppp ");
    const Result<World> loaded = worlds::load(files);
    const Map& map = loaded->map("flat");
    CHECK(map.placed(map.layers[0], 1, 1).orientation.flip_x);
    CHECK(map.layers[0].counts[map.number(map.layers[0], 1, 1)] == 2);
    CHECK(found_in(with_lamp(lamp, ".L....\n......\n......\n######\n")) == Found{"out-of-range at flat.toml:12:2"});
    CHECK(found_in(with_lamp(lamp, "......\n....#.\n....L.\n######\n")) == Found{"out-of-range at flat.toml:14:5"});
    CHECK(found_in(with_lamp(worlds::with({{"a", lamp}}, "a", "anchor = \"A\"", "anchor = \"C\"")["a"],
                             "......\n......\n....L.\n######\n"))
              .front() == "missing-key at marsh.toml:31:10");
    CHECK(found_in(
              with_lamp(worlds::with({{"a", lamp}}, "a", "\nB\n", "\nBx\n")["a"], "......\n......\n....L.\n######\n"))
              .front() == "legend-missing at marsh.toml:27:2");
}

TEST_CASE("tiles react, open, lead and give") {
    const Files files = with_tiles(
        "[tiles.crate]\nunseen = true\nbarrier = \"earth\"\nshapes = [\"cell\"]\nneeds = [\"has_key\"]\ngives = "
        "[\"has_key\"]\nleads = \"ground\"\n"
        "reacts = [{ fires = \"bump\", from = [\"bottom\"], turns_into = \"peat\", runs = \"ring\" }, { fires = "
        "\"inside\", every_s = 0.5, turns_into = \"\" }]\n");
    const Files placed = worlds::with(merging::with_rows(files, "X.....\n......\n......\n######\n"), "flat.toml",
                                      "\"/\" = \"bank\"", "\"X\" = \"crate\"");
    const Result<World> loaded = worlds::load(placed);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const Tile& crate = loaded->tilesets()[0].tiles.back();
    REQUIRE(crate.reacts.size() == 2);
    CHECK(crate.reacts[0].from == std::array<bool, 4>{false, false, true, false});
    CHECK(crate.reacts[0].then == Reaction::Then::turns);
    CHECK(crate.reacts[0].turns_into == 0);
    CHECK(crate.reacts[0].runs == EventId{0});
    CHECK(crate.reacts[1].then == Reaction::Then::goes);
    CHECK(crate.reacts[1].every_s == 0.5);
    CHECK(crate.gives == std::vector{FactId{0}});
    CHECK(crate.leads == StoreyId::ground);
    // solid until all that it needs hold
    const Map& map = loaded->map("flat");
    const std::int64_t cell = 2 * 16 * 16 * 256 * 256;
    CHECK(twice_area(merge(*loaded, map).group("earth").regions) -
              twice_area(merge(*loaded, map, {.facts = {FactId{0}}}).group("earth").regions) ==
          cell);
    for (const auto& [from, to, rule] :
         {std::tuple{"fires = \"bump\"", "fires = \"bumb\"", Rule::out_of_range},
          std::tuple{"from = [\"bottom\"]", "from = [\"below\"]", Rule::unknown_key},
          std::tuple{"turns_into = \"peat\"", "turns_into = \"paet\"", Rule::unknown_name},
          std::tuple{"leads = \"ground\"", "leads = \"grund\"", Rule::unknown_name},
          std::tuple{"every_s = 0.5", "every_s = -1", Rule::out_of_range}}) {
        INFO(to);
        CHECK(worlds::of_rule(worlds::load(worlds::with(placed, "marsh.toml", from, to)).report(), rule).size() == 1);
    }
}

TEST_CASE("a tile that stands for a kind is an object on its cell") {
    Files files = with_tiles("[tiles.crab_mark]\nunseen = true\nshapes = []\nstands_for = \"crab\"\n");
    files = worlds::with(merging::with_rows(files, "......\n.C....\n......\n######\n"), "flat.toml", "\"/\" = \"bank\"",
                         "\"C\" = \"crab_mark\"");
    CHECK(letters(files) == "...... ...... ...... pppppp ");
    const Result<World> loaded = worlds::load(files);
    const std::vector<Object>& objects = loaded->map("flat").objects;
    REQUIRE(objects.size() == 3);
    CHECK(objects[0].cell == Cell{1, 1});
    CHECK(objects[0].place.column == 2);
}

TEST_CASE("shapes are traced from the art's opaque pixels") {
    Image image{32, 16, std::vector<unsigned char>(32 * 16 * 4, 0)};
    const auto set = [&](int x, int y, std::array<unsigned char, 4> rgba) {
        std::copy(rgba.begin(), rgba.end(), image.rgba.begin() + 4 * (y * 32 + x));
    };
    for (int y = 4; y < 16; ++y)
        for (int x = 16; x < 32; ++x)
            if (x < 20 || x >= 28 || y < 6 || y >= 12) set(x, y, {9, 9, 9, 255});
    for (int x = 16; x < 32; ++x) set(x, 0, {255, 0, 255, 255});   // the clear colour
    for (int x = 16; x < 32; ++x) set(x, 1, {9, 9, 9, 100});       // rather clear
    Files files = worlds::with(worlds::small_world(), "marsh.toml", "[tiles.peat]\nunseen = true\n",
                               "sheet = { file = \"marsh.png\", clear = \"#ff00ff\" }\n[tiles.peat]\nart = [1, 0]\n");
    files = worlds::with(files, "marsh.toml", "shapes = [\"cell\"]", "shapes = [{ trace = { within_px = 0 } }]");
    files["marsh.png"] = encode_png(image);
    const auto area_of = [](const Files& of) {
        const Result<World> loaded = worlds::load(of);
        INFO(text(loaded.report()));
        REQUIRE(loaded);
        return loaded->tilesets()[0].tiles[0].shapes[0].area;
    };
    CHECK(merging::in_px(area_of(files)) == "[(0,4 16,4 16,16 0,16) (4,6 4,12 12,12 12,6)]");
    CHECK(twice_area(area_of(worlds::with(files, "marsh.toml", "within_px = 0", "alpha = 100, within_px = 0"))) ==
          2 * (16 * 13 - 8 * 6) * 256 * 256);
    Files empty = files;
    empty["marsh.png"] = encode_png({32, 16, std::vector<unsigned char>(32 * 16 * 4, 0)});
    CHECK(worlds::of_rule(worlds::all_findings(empty), Rule::shape_empty).size() == 1);
    CHECK(worlds::of_rule(worlds::all_findings(worlds::with(files, "marsh.toml", "within_px = 0", "alpha = 0")),
                          Rule::out_of_range)
              .size() == 1);
}

TEST_CASE("objects carve barriers of the layers below, and polygons have holes") {
    const Files files = worlds::with(merging::without_rim(), "flat.toml", "objects = [", R"(objects = [
  { kind = "trigger", box = [0, 48, 16, 16], carves = [{ barrier = "earth" }] },
  { kind = "spawn", at = [40, 40], carves = [{ barrier = "earth", box = [32, 48, 16, 8] }] },
  { kind = "solid", barrier = "earth", polygon = [[0, 0], [32, 0], [32, 32], [0, 32]], holes = [[[8, 8], [8, 24], [24, 24], [24, 8]]] },)");
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    CHECK(merging::in_px(merge(*loaded, loaded->map("flat")).group("earth").regions) ==
          "[(0,0 32,0 32,32 0,32) (8,8 8,24 24,24 24,8)] [(80,32 96,32 96,64 16,64 16,48 32,48 32,56 48,56 48,48 "
          "64,48)]");
    CHECK(found_in(worlds::with(files, "flat.toml", "holes = [[[8, 8], [8, 24]", "holes = [[[8, 8], [8, 8]")).size() ==
          0);
    CHECK(worlds::of_rule(worlds::all_findings(worlds::with(files, "flat.toml", "holes = [[[8, 8], [8, 24]",
                                                            "holes = [[[8, 8], [8, 8]")),
                          Rule::shape_empty)
              .size() == 1);
    CHECK(found_in(worlds::with(files, "flat.toml", "barrier = \"earth\" }] },\n  { kind = \"spawn\", at",
                                "barrier = \"earht\" }] },\n  { kind = \"spawn\", at"))
              .front() == "unknown-name at flat.toml:20:68");
    CHECK(
        worlds::of_rule(worlds::load(worlds::with(files, "flat.toml",
                                                  "[40, 40], carves = [{ barrier = \"earth\", box = [32, 48, 16, 8] }]",
                                                  "[40, 40], carves = [{ barrier = \"earth\" }]"))
                            .report(),
                        Rule::out_of_range)
            .size() == 1);
}

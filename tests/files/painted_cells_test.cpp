// Cells from rows, CSV and PNG: the same map whichever they come from, and every mistake at its place.
// Also tests src/model: make_cells make_legend cell_keys
// Also tests src/files: read_cells long_rows png
#include <catch2/catch.hpp>

#include "merging.hpp"

using namespace dryground;
using worlds::Files;

namespace {

const std::string small_rows = "rows = '''\n......\n......\n..../#\n######\n'''\n";
const std::string legend = "legend = { \"#\" = \"peat\", \"/\" = \"bank\" }";

Files with_cells(const std::string& said) { return worlds::with(worlds::small_world(), "flat.toml", small_rows, said); }

Files with_csv(const std::string& csv, const std::string& more = {}) {
    Files files = with_cells("csv = \"ground.csv\"\n" + more);
    files["ground.csv"] = csv;
    return files;
}

std::string png_of(int width, const std::vector<std::uint32_t>& colours) {   // as 0xrrggbbaa
    Image image{width, static_cast<int>(colours.size()) / width, {}};
    for (const std::uint32_t c : colours)
        for (const int shift : {24, 16, 8, 0}) image.rgba.push_back(static_cast<unsigned char>(c >> shift & 0xFF));
    return encode_png(image);
}

std::vector<Placed> tiles_of(const Files& files) {
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const Map& map = loaded->map("flat");
    std::vector<Placed> tiles;
    for (int r = 0; r < map.rows; ++r)
        for (int c = 0; c < map.columns; ++c) tiles.push_back(map.placed(map.layers[0], c, r));
    return tiles;
}

using Found = std::vector<std::string>;
Found findings(const Files& files) { return worlds::rules_and_places(worlds::load(files).report()); }

// 40 x 40 painted objects, crabs and spawns by chance.
Files painted(const std::string& weights, int seed, const std::string& more = {}) {
    std::string all;
    for (int r = 0; r < 40; ++r) all += std::string(40, 'o') + "\n";
    Files files = worlds::with(worlds::small_world(), "flat.toml", "size = [6, 4]",
                               fmt::format("size = [40, 40]\nseed = {}", seed));
    files = worlds::with(
        files, "flat.toml", small_rows,
        "rows = '''\n" + all + "'''\nlegend = { \"o\" = { kinds = [\"crab\", \"spawn\"]" + weights + " } }\n" + more);
    return worlds::with(files, "flat.toml", legend, "");
}

using Kinds = std::map<Cell, std::string>;
Kinds kinds_of(const Files& files) {
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    Kinds result;
    for (const Object& object : loaded->map("flat").objects)
        if (object.cell) result[*object.cell] = loaded->kind(object.kind).name;
    return result;
}
int crabs(const Kinds& all) {
    return static_cast<int>(
        std::count_if(all.begin(), all.end(), [](const auto& one) { return one.second == "crab"; }));
}

}   // namespace

TEST_CASE("rows, fields and pixels give the same cells") {
    const std::vector<Placed> expected = tiles_of(worlds::small_world());
    CHECK(tiles_of(with_csv(",,,,,\n,,,,,\n,,,,/,#\n#,#,#,#,#,#\n")) == expected);
    CHECK(tiles_of(with_csv("\xEF\xBB\xBF,,,,,\r\n,,,,,\r\n,,,,/,#\r\n#,#,#,#,#,#")) == expected);
    CHECK(tiles_of(with_csv(".,.,.,.,.,.\n , ,\t, , ,\n,,,, \"/\" ,\"#\"\n#,#,#,#,#,#\n",
                            "legend = { \".\" = \"\" }\n")) == expected);
    Files files = with_cells("png = \"ground.png\"\nlegend = { \"#7A5C3A\" = \"peat\", \"#102030\" = \"bank\" }\n");
    const std::uint32_t o = 0x33333300, p = 0x7a5c3aff, b = 0x102030ff;
    files["ground.png"] = png_of(6, {o, o, o, o, o, o, o, o, o, o, o, o, o, o, o, o, b, p, p, p, p, p, p, p});
    CHECK(tiles_of(worlds::with(files, "flat.toml", legend, "")) == expected);
}

TEST_CASE("without a legend a field is a tile's name, with flip and turn behind it") {
    const std::vector<Placed> tiles =
        tiles_of(worlds::with(with_csv("peat,bank,bank:x,bank:90,bank:y:180,marsh/bank:xy:270\n,,,,,\n,,,,,\n,,,,,\n"),
                              "flat.toml", legend, ""));
    CHECK(tiles[0] == Placed{0, 0, {}});
    CHECK(tiles[1] == Placed{0, 1, {}});
    CHECK(tiles[2] == Placed{0, 1, {true, false, 0}});
    CHECK(tiles[3] == Placed{0, 1, {false, false, 90}});
    CHECK(tiles[4] == Placed{0, 1, {false, true, 180}});
    CHECK(tiles[5] == Placed{0, 1, {true, true, 270}});
    CHECK(tiles[6] == Placed{});
}

TEST_CASE("mistakes in properties are reported at their place") {
    const Result<World> odd = worlds::load(with_csv(",,,,,\n,,,,,\n,\"ö\",,,/,#\n#,#,paet:x,#,#,#\n"));
    CHECK(worlds::rules_and_places(odd.report()) ==
          Found{"legend-missing at ground.csv:3:2", "legend-missing at ground.csv:4:5"});
    CHECK(odd.report().findings()[1].hint->set == "peat:x");
    CHECK(findings(with_csv(",,,,,\n,,,,,,\n,,,,/,#\n#,#,#,#,#\n")) ==
          Found{"row-length at ground.csv:2:7", "row-length at ground.csv:4:9"});
    CHECK(findings(with_csv(",,,,,\n,,,,/,#\n#,#,#,#,#,#\n")) == Found{"grid-size at ground.csv:1:1"});
    CHECK(findings(with_csv(",,,,,\n,\"a,,,\n,,,,/,#\n#,#,#,#,#,#\n")).front() == "out-of-range at ground.csv:2:2");
    CHECK(findings(with_csv(",,,,,\n,\"#\"#,,,,\n,,,,/,#\n#,#,#,#,#,#\n")).front() == "out-of-range at ground.csv:2:2");
    CHECK(findings(with_csv("\xFF,,,,,\n")).front() == "bad-text at ground.csv:1:1");
}

TEST_CASE("files of cells that cannot be read are reported where they are named") {
    CHECK(findings(with_cells("csv = \"grund.csv\"\n")).front() == "file-missing at flat.toml:11:7");
    CHECK(findings(with_cells("csv = \"../ground.csv\"\n")).front() == "path-outside at flat.toml:11:7");
    CHECK(findings(with_cells("csv = \"a.csv\"\npng = \"a.png\"\n")).front() == "out-of-range at flat.toml:9:1");
    Files files = with_cells("png = \"ground.png\"\n");
    files["ground.png"] = "no picture";
    CHECK(findings(files).front() == "bad-picture at flat.toml:11:7");
    files["ground.png"] = png_of(2, std::vector<std::uint32_t>(8, 0x01020304));
    CHECK(findings(worlds::with(files, "flat.toml", legend, "")) ==
          Found{"grid-size at ground.png", "legend-missing at ground.png: px (0, 0)"});
}

TEST_CASE("painted kinds are chosen by seed and cell, as often as their weights say") {
    const Kinds three = kinds_of(painted(", weights = [3, 1]", 7));
    CHECK(three.size() == 1600);
    CHECK(std::abs(crabs(three) - 1200) < 100);
    CHECK(kinds_of(painted(", weights = [3, 1]", 7)) == three);
    CHECK(kinds_of(painted(", weights = [3, 1]", 8)) != three);
    CHECK(crabs(kinds_of(painted(", weights = [1, 0]", 7))) == 1600);
    CHECK(std::abs(crabs(kinds_of(painted("", 7))) - 800) < 100);
    // one object less changes no other
    const Kinds fewer = kinds_of(worlds::with(painted(", weights = [3, 1]", 7), "flat.toml", "'''\no", "'''\n."));
    CHECK(fewer.size() == 1599);
    for (const auto& [cell, kind] : fewer) CHECK(three.at(cell) == kind);
    for (const char* weights : {"[3]", "[3, -1]", "[0, 0]"})
        CHECK(worlds::of_rule(worlds::load(painted(fmt::format(", weights = {}", weights), 7)).report(),
                              Rule::out_of_range)
                  .size() == 1);
}

TEST_CASE("`except` says more of single painted objects") {
    const Result<World> named = worlds::load(painted(
        ", weights = [1, 0]", 7, "except = [{ cell = [2, 1], name = \"first\", props = { patrol_px = 5 } }]\n"));
    INFO(text(named.report()));
    REQUIRE(named);
    const Map& map = named->map("flat");
    const Object& first = map.object(map.find_object("first"));
    CHECK(first.cell == Cell{2, 1});
    CHECK(first.props.at("patrol_px") == Value{5.0});
    CHECK(findings(painted("", 7, "except = [{ cell = [40, 1] }, { cell = [2, 1] }, { cell = [2, 1] }]\n")) ==
          Found{"out-of-range at flat.toml:55:11", "duplicate-name at flat.toml:55:50"});
}

TEST_CASE("layers come and go with facts, and say how they are drawn") {
    Files files = worlds::with(worlds::small_world(), "world.toml", "[kinds.crab]",
                               "[layer_props]\ntide = { type = \"whole\", default = 3 }\n[kinds.crab]");
    files = merging::with_layer(files,
                                "[[layers]]\nname = \"flood\"\nwhen = [\"has_key\"]\nband = \"front\"\nopacity = 0.5\n"
                                "props = { tide = 4 }\nlegend = { \"#\" = \"peat\" }\n"
                                "rows = '''\n#.....\n......\n......\n......\n'''\n");
    files = worlds::with(files, "flat.toml", "name = \"ground\"", "name = \"ground\"\nunless = [\"has_key\"]");
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const Map& map = loaded->map("flat");
    CHECK(map.layers[1].band == Band::front);
    CHECK(map.layers[1].opacity == 0.5);
    CHECK(map.layers[1].props.at("tide") == Value{std::int64_t{4}});
    CHECK(map.layers[0].props.at("tide") == Value{std::int64_t{3}});
    const auto cells = [&](const Facts& facts) {   // covered, the rim apart
        std::int64_t sum = 0;
        for (const Group& group : merge(*loaded, map, {.facts = facts}).groups) sum += twice_area(group.regions);
        return static_cast<double>(sum) / (2 * 16 * 16 * 256 * 256) - 24;
    };
    CHECK(cells({}) == 7.5);
    CHECK(cells({FactId{0}}) == 1);
    CHECK(findings(worlds::with(files, "flat.toml", "opacity = 0.5", "opacity = 1.5")) ==
          Found{"out-of-range at flat.toml:23:11"});
    CHECK(findings(worlds::with(files, "flat.toml", "band = \"front\"", "band = \"fornt\"")) ==
          Found{"out-of-range at flat.toml:22:8"});
}

TEST_CASE("limits and goals are kept, and their names looked up") {
    Files files = worlds::with(worlds::small_world(), "world.toml", "[barriers]", "[limits]\nmaps = 64\n[barriers]");
    files = worlds::with(files, "world.toml", "start = \"flat/landing\"",
                         "start = \"flat/landing\"\ngoals = { objects = [\"flat/crab_a\"], facts = [\"has_key\"] }");
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    CHECK(loaded->limits().at("maps") == 64);
    REQUIRE(loaded->goals().size() == 2);
    CHECK(loaded->goals()[0].words == "flat/crab_a");
    CHECK(loaded->goals()[0].object != ObjectId::none);
    CHECK(loaded->goals()[1].words == "has_key");
    for (const auto& [from, to] : {std::pair{"maps = 64", "mapps = 64"}, std::pair{"flat/crab_a", "flat/crab_b"},
                                   std::pair{"flat/crab_a", "falt/crab_a"}})
        CHECK(worlds::of_rule(worlds::load(worlds::with(files, "world.toml", from, to)).report(), Rule::unknown_name)
                  .size() == 1);
}

TEST_CASE("long rows, which the TOML parser does not see, mean the same and are reported at their places", "[rows]") {
    std::string field;
    for (int r = 0; r < 40; ++r) field += std::string(60, r % 2 == 0 ? '#' : '.') + "\n";
    const auto files = [&](const std::string& content, const std::string& quotes) {
        worlds::Files all =
            worlds::with(worlds::small_world(), "flat.toml", "size = [6, 4]", "size = [60, 40]   # \"it's\" '''");
        all = worlds::with(all, "flat.toml", "rim = \"earth\"", "rim = \"earth\"\ntitle = \"a # \\\" title\"");
        const std::size_t begin = all["flat.toml"].find("rows = "), end = all["flat.toml"].find("'''", begin + 12) + 3;
        all["flat.toml"].replace(begin, end - begin, "rows = " + quotes + "\n" + content + quotes);
        return all;
    };
    const Result<World> light = worlds::load(files(field, "'''")), heavy = worlds::load(files(field, "\"\"\""));
    INFO(text(light.report()) << text(heavy.report()));
    REQUIRE(light);
    REQUIRE(heavy);
    CHECK(pack_bytes(*light) == pack_bytes(*heavy));
    // Mistakes within and behind are where they are.
    std::string wrong = field;
    wrong[61 * 7 + 3] = 'Q';
    worlds::Files mistaken = worlds::with(files(wrong, "'''"), "flat.toml", "kind = \"spawn\"", "kind = \"spwan\"");
    const auto places = worlds::rules_and_places(worlds::load(mistaken).report());
    CHECK(std::count(places.begin(), places.end(), "legend-missing at flat.toml:20:4") == 1);
    CHECK(std::count(places.begin(), places.end(), "unknown-name at flat.toml:58:30") == 1);
    // What is no text of rows is left to the parser.
    CHECK_FALSE(worlds::load(files(field + "\x01", "'''")));
    CHECK_FALSE(worlds::load(worlds::with(files(field, "'''"), "flat.toml", field + "'''", field)));
}

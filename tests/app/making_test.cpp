// The commands that make worlds, driven from outside: new, tiles; and what a command takes for a world.
// Also tests src/files: assumed_world
#include <catch2/catch.hpp>

#include <fstream>
#include <nlohmann/json.hpp>

#include "process.hpp"

using process::DemoCopy;
using process::slurp;
using process::tool;
namespace fs = std::filesystem;

TEST_CASE("a new world checks clean and can be walked to its goal, in all views and sizes; none is made over another") {
    const DemoCopy folder;
    int number = 0;
    for (const char* view : {"side", "top", "isometric"})
        for (const char* size : {"", "--size 20,8 --cell 8", "--size 37,14 --cell 48"}) {
            const std::string world = folder / fmt::format("{}_{}", view, ++number);
            INFO(view << " " << size);
            REQUIRE(tool(fmt::format("new {} --view {} {} --title 'The \"Far\" Shore'", world, view, size)).code == 0);
            const auto checked = tool(fmt::format("check {}/world.toml --fail-on note", world));
            CHECK(checked.out == "no findings\n");
            CHECK(checked.code == 0);
            const auto walked = tool(fmt::format("walk {}/world.toml", world));
            CHECK(walked.code == 0);
            CHECK_THAT(walked.out, Catch::Contains("goal shore/beacon: reached"));
            CHECK_THAT(walked.out, !Catch::Contains("not decided"));
            CHECK(tool(fmt::format("pack {}/world.toml", world)).code == 0);
            CHECK(tool(fmt::format("new {}", world)).code == 2);
        }
    for (const char* words :
         {"--size 19,8", "--size 24", "--size 2000,9", "--cell 15", "--view below", "--title 'a\nb'"})
        CHECK(tool(fmt::format("new {} {}", folder / "wrong", words)).code == 2);
    CHECK(!std::filesystem::exists(folder / "wrong"));
}

TEST_CASE("a map or a tile set that has no world is opened without a world, and what it needs is reported") {
    const process::Folder folder;
    const fs::path demo = fs::path(DRYGROUND_SOURCE) / "demo";
    process::spill(folder.path / "mine/tiles/marsh.tiles.toml", slurp(demo / "tiles/marsh.tiles.toml"));
    process::spill(folder.path / "mine/art/marsh.png", slurp(demo / "art/marsh.png"));
    const std::string set = (folder.path / "mine/tiles/marsh.tiles.toml").string();
    const auto checked = tool(fmt::format("check {}", set));
    CHECK(checked.code == 0);
    CHECK_THAT(checked.out,
               Catch::Contains("[not-in-world]") && Catch::Contains("there is no world") &&
                   Catch::Contains("assumed: barriers brine, earth; flags climb; events scald, splinters"));
    // Its mistakes are still reported.
    std::string text = slurp(set);
    text.insert(text.find("[tiles.peat]"), "[tiles.odd]\nart = [0, 0]\nshape = [\"cell\"]\n\n");
    process::spill(set, text);
    const auto wrong = tool(fmt::format("check {}", set));
    CHECK(wrong.code == 1);
    CHECK_THAT(wrong.out, Catch::Contains("did you mean 'shapes'") || Catch::Contains("[unknown-key]"));
    // A map finds its tile sets beside it.
    REQUIRE(tool(fmt::format("new {}/shore", folder.path.string())).code == 0);
    fs::remove(folder.path / "shore/world.toml");
    const std::string map = (folder.path / "shore/maps/shore.map.toml").string();
    CHECK(tool(fmt::format("check {}", map)).code == 0);
    CHECK_THAT(tool(fmt::format("list {} layers", map)).out, Catch::Contains("shells"));
    CHECK(tool(fmt::format("draw {} --out {}/shore.svg", map, folder.path.string())).code == 0);
    CHECK(tool(fmt::format("edit {} --layer ground set peat 2,2", map)).code == 0);
    CHECK(tool(fmt::format("edit {} fact add lit", map)).code == 2);
    CHECK(!fs::exists(folder.path / "shore/world.toml"));
}

TEST_CASE("a tile set that is made enters the list of the world that it lies in") {
    const DemoCopy folder;
    const std::string world = folder / "shore";
    REQUIRE(tool(fmt::format("new {}", world)).code == 0);
    const std::string words = fmt::format("tiles {0}/art/shore.png --out {0}/tiles/", world);
    const auto made = tool(words + "jetty.tiles.toml");
    CHECK(made.code == 0);
    CHECK_THAT(made.err, Catch::Contains("entered in the list `tilesets` of world.toml"));
    CHECK_THAT(slurp(world + "/world.toml"), Catch::Contains("\"tiles/shore.tiles.toml\", \"tiles/jetty.tiles.toml\""));
    CHECK(tool(words + "again.tiles.toml --no-list").code == 0);
    CHECK_THAT(slurp(world + "/world.toml"), !Catch::Contains("again"));
    // Without a world there is no list either.
    const process::Folder bare;
    const auto alone = tool(fmt::format("tiles {}/art/shore.png --out {}/jetty.tiles.toml", world, bare.path.string()));
    CHECK(alone.code == 0);
    CHECK_THAT(alone.err, !Catch::Contains("entered"));
}

TEST_CASE("a map that its world does not list is looked at all the same, and that is reported") {
    const DemoCopy folder;
    const std::string cellar = folder / "demo/maps/cellar.map.toml", world = folder / "demo/world.toml";
    std::ofstream(cellar) << "format = \"dryground/map/1\"\nname = \"cellar\"\ncell = [16, 16]\nsize = [3, 2]\nrim = "
                             "\"earth\"\ntilesets = [\"marsh\"]\nlegend = { \"#\" = \"peat\" }\n[[layers]]\nname = "
                             "\"ground\"\nrows = \'\'\'\n...\n##x\n\'\'\'\n";
    const std::string before = process::slurp(world);
    const auto checked = tool("check " + cellar);
    CHECK(checked.code == 1);
    CHECK_THAT(checked.out, Catch::Contains("legend-missing") && Catch::Contains("[not-in-world]") &&
                                Catch::Contains("\"maps/cellar.map.toml\""));
    CHECK(tool(fmt::format("edit {} set peat 2,1", cellar)).code == 0);
    CHECK_THAT(tool("list " + cellar + " layers").out, Catch::Contains("cellar"));
    const auto merged = tool("merge " + cellar);
    CHECK(merged.code == 0);
    CHECK_THAT(merged.err, Catch::Contains("[not-in-world]"));
    CHECK_THAT(merged.out, Catch::Contains("\"map\": \"cellar\""));
    CHECK(process::slurp(world) == before);
    // The world itself does not list it.
    CHECK(tool(fmt::format("check {}", world)).code == 0);
    CHECK(tool(fmt::format("merge {} --map cellar", world)).code == 2);
    // So with a tile set, and with a world that lists none.
    const std::string set = folder / "demo/tiles/shells.tiles.toml";
    std::ofstream(set) << "format = \"dryground/tiles/1\"\nname = \"shells\"\ncell = [16, 16]\n[tiles.whelk]\nunseen = "
                          "true\nshapes = [\"cel\"]\n";
    const auto tiles = tool("check " + set);
    CHECK(tiles.code == 1);
    CHECK_THAT(tiles.out, Catch::Contains("did you mean: cell") || Catch::Contains("'cel'"));
    std::ofstream(folder / "bare.toml") << "format = \"dryground/world/1\"\n";
    fs::create_directory(folder / "maps");
    fs::copy(cellar, folder / "maps/cellar.map.toml");
    CHECK_THAT(tool("check " + (folder / "maps/cellar.map.toml")).out, Catch::Contains("not-in-world"));
}

TEST_CASE("a folder with one world in it is that world") {
    const DemoCopy folder;
    CHECK(tool("check " + (folder / "demo")).code == 0);
    CHECK_THAT(tool("check " + (folder / "demo/maps")).err, Catch::Contains("there is no world in this folder"));
    fs::copy(folder / "demo/world.toml", folder / "demo/other.toml");
    CHECK_THAT(tool("check " + (folder / "demo")).err, Catch::Contains("it holds other.toml and world.toml"));
}

TEST_CASE("what names nothing is no empty result") {
    const DemoCopy folder;
    const auto listed = tool(fmt::format("list {} objects --kind silt_crap", folder / "demo/world.toml"));
    CHECK(listed.code == 2);
    CHECK_THAT(listed.err, Catch::Contains("did you mean 'silt_crab'?"));
    // A map's file and another map's name: neither is changed.
    const std::string map = folder / "demo/maps/slipway.map.toml", other = folder / "demo/maps/pump_house.map.toml";
    const std::string before = process::slurp(map), other_before = process::slurp(other);
    CHECK(tool(fmt::format("edit {} --map pump_house object drop lamp", map)).code == 2);
    CHECK(process::slurp(map) == before);
    CHECK(process::slurp(other) == other_before);
}

TEST_CASE("a world without maps is said to have none") {
    const process::Folder folder;
    const std::string world = (folder.path / "world.toml").string();
    process::spill(world, "format = \"dryground/world/1\"\ntitle = \"Empty\"\ntilesets = []\nmaps = []\n");
    for (const char* ending : {"png", "svg", "html"}) {
        const auto drawn = tool(fmt::format("draw {} --out {}.{}", world, world, ending));
        CHECK(drawn.code == 2);
        CHECK_THAT(drawn.err, Catch::Contains("the world has no maps: there is nothing to draw"));
    }
    const auto merged = tool(fmt::format("merge {} --out {}.json", world, world));
    CHECK(merged.code == 0);
    CHECK(merged.err == "the world has no maps\n");
    CHECK(nlohmann::json::parse(slurp(world + ".json"))["maps"].empty());
}

TEST_CASE("a tile set from a sheet is made, and made again") {
    const DemoCopy folder;
    const std::string words = fmt::format("tiles {} --out {} --trace --barrier earth", folder / "demo/art/marsh.png",
                                          folder / "demo/tiles/new.tiles.toml");
    const auto made = tool(words);
    CHECK(made.code == 0);
    CHECK_THAT(made.err, Catch::Contains("cells of 16 x 16 px with margin 1 and gap 1"));
    const std::string text = process::slurp(folder / "demo/tiles/new.tiles.toml");
    CHECK_THAT(text, Catch::Contains("sheet = { file = \"../art/marsh.png\", margin = [1, 1], gap = [1, 1] }"));
    CHECK(tool(words).code == 0);
    CHECK(process::slurp(folder / "demo/tiles/new.tiles.toml") == text);
    const auto packed =
        tool(fmt::format("tiles {} --out {}", folder / "demo/art", folder / "demo/tiles/all.tiles.toml"));
    CHECK(packed.code == 0);
    CHECK(fs::exists(folder / "demo/tiles/all.png"));
    CHECK_THAT(packed.err, Catch::Contains("'../art/marsh.png' is itself a sheet, of 8 x 2 cells") &&
                               Catch::Contains("'../art/station.png' is itself a sheet, of 5 x 3 cells"));
    CHECK(tool(fmt::format("tiles {} --out {}", folder / "nothing.png", folder / "x.toml")).code == 2);
}

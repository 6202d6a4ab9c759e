// The commands that make and change worlds, driven from outside: new, edit, tiles, pack.
// Also tests src/files: assumed_world
#include <catch2/catch.hpp>

#include <fstream>
#include <nlohmann/json.hpp>

#include "dryground/dryground.hpp"
#include "process.hpp"

using process::slurp;
using process::tool;
namespace fs = std::filesystem;

namespace {

// A folder for one test, with a copy of the demo world in it.
struct Copy {
    Copy() { fs::copy(fs::path(DRYGROUND_SOURCE) / "demo", folder.path / "demo", fs::copy_options::recursive); }
    [[nodiscard]] std::string operator/(const std::string& file) const { return (folder.path / file).string(); }
    process::Folder folder;
};

}   // namespace

TEST_CASE("a new world checks clean and can be walked to its goal, in all views and sizes; none is made over another") {
    const Copy folder;
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
            CHECK(tool(fmt::format("pack {}/world.toml", world)).code == 0);
            CHECK(tool(fmt::format("new {}", world)).code == 2);
        }
    for (const char* words :
         {"--size 19,8", "--size 24", "--size 2000,9", "--cell 15", "--view below", "--title 'a\nb'"})
        CHECK(tool(fmt::format("new {} {}", folder / "wrong", words)).code == 2);
    CHECK(!std::filesystem::exists(folder / "wrong"));
}

TEST_CASE("the history of a world ends where another one is made in its place") {
    const Copy folder;
    const std::string world = folder / "shore";
    REQUIRE(tool(fmt::format("new {}", world)).code == 0);
    REQUIRE(tool(fmt::format("edit {} fact add lit", world)).code == 0);
    CHECK_THAT(tool(fmt::format("edit {} history", world)).out, Catch::Contains("fact add lit"));
    std::filesystem::remove_all(world);
    REQUIRE(tool(fmt::format("new {}", world)).code == 0);
    CHECK(tool(fmt::format("edit {} history", world)).out.empty());
    CHECK(tool(fmt::format("edit {} undo", world)).code == 2);
}

TEST_CASE("a map or a tile set that has no world is taken by itself, and what it needs is said") {
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
    // Its mistakes are told all the same.
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

TEST_CASE("a world is compared with itself in a revision") {
    const Copy folder;
    const std::string world = folder / "shore";
    REQUIRE(tool(fmt::format("new {}", world)).code == 0);
    const std::string git = fmt::format("git -C {} -c user.name=test -c user.email=test@example.org ", world);
    if (process::run(git + "init -q && " + git + "add -A && " + git + "commit -qm first").code != 0) {
        WARN("git is not there: revisions are not compared");
        return;
    }
    CHECK(tool(fmt::format("compare git:HEAD {}/world.toml", world)).out == "no difference\n");
    REQUIRE(tool(fmt::format("edit {} fact add lit", world)).code == 0);
    CHECK_THAT(tool(fmt::format("compare git:HEAD {}", world)).out, Catch::StartsWith("fact 'lit' added\n"));
    CHECK(tool(fmt::format("compare git:nowhere {}", world)).code == 1);
}

TEST_CASE("a tile set that is made enters the list of the world that it lies in") {
    const Copy folder;
    const std::string world = folder / "shore";
    REQUIRE(tool(fmt::format("new {}", world)).code == 0);
    const std::string words = fmt::format("tiles {0}/art/shore.png --out {0}/tiles/", world);
    const auto made = tool(words + "jetty.tiles.toml");
    CHECK(made.code == 0);
    CHECK_THAT(made.err, Catch::Contains("entered in the list `tilesets` of world.toml"));
    CHECK_THAT(slurp(world + "/world.toml"), Catch::Contains("\"tiles/shore.tiles.toml\", \"tiles/jetty.tiles.toml\""));
    CHECK(tool(words + "again.tiles.toml --no-list").code == 0);
    CHECK_THAT(slurp(world + "/world.toml"), !Catch::Contains("again"));
}

TEST_CASE("what goes over the edge is told first, and undone with the rest") {
    const Copy folder;
    const std::string map = folder / "demo/maps/slipway.map.toml", before = slurp(map);
    const auto refused = tool(fmt::format("edit {} size 20,13", map));
    CHECK(refused.code == 2);
    CHECK_THAT(refused.err, Catch::Contains("over the edge would go") && Catch::Contains("--cut"));
    CHECK(slurp(map) == before);
    CHECK_THAT(tool(fmt::format("edit {} --dry-run size 20,13", map)).err, Catch::Contains("over the edge: "));
    REQUIRE(tool(fmt::format("edit {} size 20,13 --cut", map)).code == 0);
    CHECK(slurp(map) != before);
    const auto undone = tool(fmt::format("edit {} undo", map));
    CHECK_THAT(undone.err, Catch::Contains("undone: size 20,13 --cut"));
    CHECK(slurp(map) == before);
}

TEST_CASE("a pack is made map by map, and joined to the bytes of the whole") {
    const Copy folder;
    const std::string world = folder / "demo/world.toml";
    CHECK(tool(fmt::format("pack {} --list-maps", world)).out == "slipway\npump_house\njetty\n");
    std::string parts;
    for (const std::string map : {"slipway", "pump_house", "jetty"}) {
        const std::string part = folder / (map + ".part").c_str();
        const auto made =
            tool(fmt::format("pack {} --map {} --unit m --out {} --depfile {}.d", world, map, part, part));
        INFO(made.err);
        REQUIRE(made.code == 0);
        const std::string rule = process::slurp(part + ".d");
        CHECK(rule.rfind(part + ":", 0) == 0);
        CHECK_THAT(rule, Catch::Contains("world.toml") && Catch::Contains("marsh.tiles.toml"));
        CHECK((rule.find("slipway.map.toml") != std::string::npos) == (map == "slipway"));
        CHECK((rule.find("pump_house.map.toml") != std::string::npos) == (map == "pump_house"));
        parts += " " + part;
    }
    const auto join = [&](const std::string& words) {
        return tool(fmt::format("pack {} --out {} --join{}", world, folder / "joined.json", words));
    };
    REQUIRE(tool(fmt::format("pack {} --unit m --out {}", world, folder / "whole.json")).code == 0);
    REQUIRE(join(parts + " --unit m").code == 0);
    CHECK(process::slurp(folder / "joined.json") == process::slurp(folder / "whole.json"));

    const auto refused = [](const process::Outcome& outcome, const char* why) {
        INFO(outcome.err);
        CHECK(outcome.code == 2);
        CHECK_THAT(outcome.err, Catch::Contains(why));
    };
    refused(join(parts), "it was made with other options");
    refused(join(" " + (folder / "slipway.part") + " --unit m"), "map 'pump_house' has no part");
    refused(join(" " + (folder / "nothing.part") + " --unit m"), "cannot open");
    refused(tool(fmt::format("pack {} --map slipway", world)), "--map needs --out");
    refused(tool(fmt::format("pack {} --map slipwya --out {}", world, folder / "x.part")), "did you mean 'slipway'?");
    const std::string map = folder / "demo/maps/slipway.map.toml";
    std::ofstream(map, std::ios::app) << "# touched\n";
    refused(join(parts + " --unit m"), "it is older than 'maps/slipway.map.toml'");
    std::ofstream(map, std::ios::app) << "no TOML [";
    const auto broken = tool(fmt::format("pack {} --map slipway --out {}", world, folder / "x.part"));
    CHECK(broken.code == 1);
    CHECK_THAT(broken.err, Catch::Contains("maps/slipway.map.toml:") && Catch::Contains("[syntax]"));
}

TEST_CASE("an edit is written, told, and undone by another, byte for byte") {
    const Copy folder;
    const std::string map = folder / "demo/maps/slipway.map.toml";
    const std::string before = process::slurp(map);
    const auto shown = tool(fmt::format("edit {} --layer things --dry-run set crate 3,1", map));
    CHECK(shown.code == 0);
    CHECK_THAT(shown.out, Catch::Contains("- .......................................") && Catch::Contains("+ ...x"));
    CHECK(process::slurp(map) == before);
    const auto set = tool(fmt::format("edit {} --layer things set crate 3,1", map));
    CHECK(set.code == 0);
    CHECK_THAT(set.err, Catch::Contains("1 cell changed in slipway"));
    CHECK(process::slurp(map) != before);
    CHECK(tool(fmt::format("edit {} --layer things erase 3,1", map)).code == 0);
    CHECK(process::slurp(map) == before);
    CHECK(tool(fmt::format("edit {} object move landing --by -16,0", map)).code == 0);
    CHECK(tool(fmt::format("edit {} object move landing --by 16,0", map)).code == 0);
    CHECK(process::slurp(map) == before);
    // What the edit breaks is told.
    const auto moved = tool(fmt::format("edit {} object move landing --at 8,190", map));
    CHECK(moved.code == 0);
    CHECK_THAT(moved.err, Catch::Contains("new findings") && Catch::Contains("[spawn-blocked]"));
}

TEST_CASE("an edit that cannot be made ends with 2 and changes nothing") {
    const Copy folder;
    const std::string map = folder / "demo/maps/slipway.map.toml";
    const std::string before = process::slurp(map);
    for (const char* words : {"--layer ground set peet 1,1", "set crate 1,1", "--layer ground set crate 1",
                              "--layer ground box crate 1,1,0,2", "object move nobody --at 1,1", "object move landing",
                              "object add x", "object give landing far=1", "size 0,4", "shift 1", "paint x 1,1"}) {
        INFO(words);
        CHECK(tool(fmt::format("edit {} {}", map, words)).code == 2);
        CHECK(process::slurp(map) == before);
    }
}

TEST_CASE("a map that its world does not list is looked at all the same, and that is told") {
    const Copy folder;
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
    // The world itself has it not.
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
    const Copy folder;
    CHECK(tool("check " + (folder / "demo")).code == 0);
    CHECK_THAT(tool("check " + (folder / "demo/maps")).err, Catch::Contains("there is no world in this folder"));
    fs::copy(folder / "demo/world.toml", folder / "demo/other.toml");
    CHECK_THAT(tool("check " + (folder / "demo")).err, Catch::Contains("it holds other.toml and world.toml"));
}

TEST_CASE("what names nothing is no empty result") {
    const Copy folder;
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

TEST_CASE("an object's name and kind are said once") {
    const Copy folder;
    const std::string edit = fmt::format("edit {} --map slipway --layer people object add", folder / "demo/world.toml"),
                      before = slurp(folder / "demo/maps/slipway.map.toml");
    const auto kind_left_out = tool(edit + " bell gives=pump_running --cell 3,3");
    CHECK(kind_left_out.code == 2);
    CHECK_THAT(kind_left_out.err, Catch::Contains("'gives=pump_running' stands where the kind should"));
    const auto named_twice = tool(edit + " bell trigger name=gong --cell 3,3");
    CHECK(named_twice.code == 2);
    CHECK_THAT(named_twice.err, Catch::Contains("name = gong is one too many: the object's name is 'bell' already"));
    CHECK(slurp(folder / "demo/maps/slipway.map.toml") == before);
}

TEST_CASE("keys are set from the command line, and checked") {
    const Copy folder;
    const std::string map = folder / "demo/maps/slipway.map.toml", world = folder / "demo/world.toml";
    CHECK(tool(fmt::format("edit {} object give bell once=false every_s=2 fires=inside", map)).code == 0);
    CHECK_THAT(process::slurp(map),
               Catch::Contains("once = false, runs = \"ring_bell\", every_s = 2, fires = \"inside\" }"));
    CHECK(tool(fmt::format("edit {} --layer ground layer set opacity=0.5", map)).code == 0);
    CHECK(tool(fmt::format("edit {} map set title='Low Water'", map)).code == 0);
    CHECK(tool(fmt::format("edit {} kind set silt_crab patrol_px=16", world)).code == 0);
    CHECK_THAT(process::slurp(world),
               Catch::Contains("props.patrol_px = { type = \"number\", default = 16, min = 0 }"));
    CHECK(tool(fmt::format("edit {} tile set 'peat*' tags=soil,soft --set marsh", world)).code == 0);
    CHECK(tool("check " + world).code == 0);
    const auto wrong = tool(fmt::format("edit {} object give bell fires=bumb", map));
    CHECK(wrong.code == 2);
    CHECK_THAT(wrong.err, Catch::Contains("did you mean 'bump'?"));
}

TEST_CASE("a picture's pixels are edited, and the others stay") {
    const Copy folder;
    const std::string png = folder / "demo/maps/slipway_grass.png";
    const auto before = *dryground::decode_png(process::slurp(png));
    REQUIRE(tool(fmt::format("edit {} --map slipway --layer grass set reeds 0,0", folder / "demo/world.toml")).code ==
            0);
    const auto after = *dryground::decode_png(process::slurp(png));
    REQUIRE(after.rgba.size() == before.rgba.size());
    CHECK(std::equal(after.rgba.begin() + 4, after.rgba.end(), before.rgba.begin() + 4));
    CHECK(after.rgba[0] == 0x6e);
}

TEST_CASE("a tile set from a sheet is made, and made again") {
    const Copy folder;
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

TEST_CASE("a pack is the same twice, names its inputs, and takes its pictures along") {
    const Copy folder;
    const std::string world = folder / "demo/world.toml", out = folder / "a pack.json";
    const auto packed =
        tool(fmt::format("pack {} --out '{}' --depfile {} --art {}", world, out, folder / "a.d", folder / "art"));
    CHECK(packed.code == 0);
    CHECK_THAT(packed.err, Catch::Contains("packed 3 maps, 3 tile sets, 3 movers"));
    CHECK(process::slurp(out) == tool(fmt::format("pack {}", world)).out);
    const std::string rule = process::slurp(folder / "a.d");
    CHECK_THAT(rule, Catch::Contains("a\\ pack.json:") && Catch::Contains("maps/slipway_fence.csv") &&
                         Catch::Contains("art/marsh.png") && Catch::Contains("world.toml"));
    for (const auto& file : dryground::art_files(dryground::load_pack(out)->world()))
        CHECK(fs::exists(fs::path(folder / "art") / file));
    const nlohmann::json json = nlohmann::json::parse(process::slurp(out));
    const std::string cbor = tool(fmt::format("pack {} --format cbor", world)).out;
    CHECK(nlohmann::json::from_cbor(cbor) == json);
    const auto refused = tool("pack demo/broken/world.toml");
    CHECK(refused.code == 1);
    CHECK(refused.out.empty());
    CHECK_THAT(refused.err, Catch::Contains("17 errors") && Catch::Contains("is not packed"));
    CHECK(tool(fmt::format("pack {} --depfile x", world)).code == 2);
}

TEST_CASE("the ending of --out chooses the format, unless --format does") {
    const Copy folder;
    const std::string world = folder / "demo/world.toml";
    const auto written = [&](const std::string& words, const std::string& file) {
        const std::size_t end = std::min(words.find(' '), words.size());   // of the command
        const std::string of = words.substr(0, end), rest = words.substr(end);
        REQUIRE(tool(fmt::format("{} {}{} --out {}", of, world, rest, folder / file)).code <= 1);
        return slurp(folder / file);
    };
    CHECK(written("pack", "a.pack.cbor") == written("pack --format cbor", "b.pack"));
    CHECK(written("pack", "a.pack.json") == written("pack", "c.pack"));
    CHECK(written("pack --format json", "d.cbor") == slurp(folder / "c.pack"));
    for (const char* words : {"check", "walk", "list objects", "merge"})
        CHECK(nlohmann::json::accept(written(words, "out.JSON")));
    CHECK(written("check", "out.sarif") == written("check --format sarif", "out"));
    CHECK(written("check", "out.txt") == written("check", "out"));
    CHECK(written("list maps", "out.csv") == written("list maps --format csv", "out"));
    for (const char* format : {"cbor", "geojson", "wkt", "svg"})
        CHECK(written("merge --map jetty", fmt::format("out.{}", format)) ==
              written(fmt::format("merge --map jetty --format {}", format), "out"));
    CHECK(written("merge --map jetty --as tiles --layer deck", "tiles.csv") ==
          written("merge --map jetty --as tiles --layer deck --format csv", "out"));
    const auto refused = tool(fmt::format("merge {} --out {}", world, folder / "regions.csv"));
    CHECK(refused.code == 2);
    CHECK_THAT(refused.err, Catch::Contains("use --as cells or --as tiles, or another --format, wkt for example"));
}

TEST_CASE("a pack holds the geometry that merge makes") {
    const nlohmann::json pack = nlohmann::json::parse(tool("pack demo/world.toml --unit m --y up").out);
    const nlohmann::json merge = nlohmann::json::parse(tool("merge demo/world.toml --unit m --y up").out);
    for (std::size_t i = 0; i < 2; ++i) {
        nlohmann::json barriers = nlohmann::json::array();
        for (nlohmann::json group : pack["maps"][i]["merge"]["groups"])
            if (group["mover"] == "") {
                for (nlohmann::json& chain : group["chains"]) chain.erase("surfaces");   // numbered over all groups
                barriers.push_back(group);
            }
        nlohmann::json groups = merge["maps"][i]["groups"];
        for (nlohmann::json& group : groups)
            for (nlohmann::json& chain : group["chains"]) chain.erase("surfaces");
        CHECK(barriers == groups);
    }
}

TEST_CASE("check --watch reports what is new and what is fixed when files are saved", "[command]") {
    const Copy copy;
    const std::string folder = copy.folder.path.string(), map = folder + "/demo/maps/slipway.map.toml";
    // Starts it, saves a mistake, saves the mend; waits for what it says in between, at most ten seconds each.
    const process::Outcome done = process::run(fmt::format(
        "'{0}' check '{1}/demo/world.toml' --watch > '{1}/said' 2>'{1}/err' & pid=$!; "
        "await() {{ for i in $(seq 100); do grep -q \"$1\" '{1}/said' '{1}/err' && return; sleep 0.1; done; }}; "
        "await 'Ctrl-C'; sed -i 's/at = .232, 128./at = [232, 140]/' '{2}'; await '1 new'; "
        "sed -i 's/at = .232, 140./at = [232, 128]/' '{2}'; await '1 fixed'; kill $pid; cat '{1}/said'",
        DRYGROUND_COMMAND, folder, map));
    CHECK(done.out ==
          "no findings, 1 waived\n"
          "maps/slipway.map.toml saved: 1 new, 0 fixed\n"
          "+ maps/slipway.map.toml:98:44: error: 'landing' stands 10 px inside solid ground [spawn-blocked]\n"
          "    warden_side is 10 x 14 px\n"
          "    in the way: peat_top at (14, 8)\n"
          "    nearest free place: at = [232, 128]\n"
          "1 error, 0 warnings, 0 notes, 1 waived\n"
          "maps/slipway.map.toml saved: 0 new, 1 fixed\n"
          "- maps/slipway.map.toml:98:44: error: 'landing' stands 10 px inside solid ground [spawn-blocked]\n"
          "    warden_side is 10 x 14 px\n"
          "    in the way: peat_top at (14, 8)\n"
          "    nearest free place: at = [232, 128]\n"
          "no findings, 1 waived\n");
}

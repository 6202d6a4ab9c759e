// The commands that change worlds and compare them, driven from outside: edit, compare.
#include <catch2/catch.hpp>

#include "dryground/dryground.hpp"
#include "process.hpp"

using process::DemoCopy;
using process::slurp;
using process::tool;

TEST_CASE("the history of a world ends where another one is made in its place") {
    const DemoCopy folder;
    const std::string world = folder / "shore";
    REQUIRE(tool(fmt::format("new {}", world)).code == 0);
    REQUIRE(tool(fmt::format("edit {} fact add lit", world)).code == 0);
    CHECK_THAT(tool(fmt::format("edit {} history", world)).out, Catch::Contains("fact add lit"));
    std::filesystem::remove_all(world);
    REQUIRE(tool(fmt::format("new {}", world)).code == 0);
    CHECK(tool(fmt::format("edit {} history", world)).out.empty());
    CHECK(tool(fmt::format("edit {} undo", world)).code == 2);
}

TEST_CASE("a world is compared with itself in a revision") {
    const DemoCopy folder;
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

TEST_CASE("what goes over the edge is reported first, and undone with the rest") {
    const DemoCopy folder;
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

TEST_CASE("an edit is written, reported, and undone by another, byte for byte") {
    const DemoCopy folder;
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
    // What the edit breaks is reported.
    const auto moved = tool(fmt::format("edit {} object move landing --at 8,190", map));
    CHECK(moved.code == 0);
    CHECK_THAT(moved.err, Catch::Contains("new findings") && Catch::Contains("[spawn-blocked]"));
}

TEST_CASE("an edit that cannot be made ends with 2 and changes nothing") {
    const DemoCopy folder;
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

TEST_CASE("an object's name and kind are declared once") {
    const DemoCopy folder;
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
    const DemoCopy folder;
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
    const DemoCopy folder;
    const std::string png = folder / "demo/maps/slipway_grass.png";
    const auto before = *dryground::decode_png(process::slurp(png));
    REQUIRE(tool(fmt::format("edit {} --map slipway --layer grass set reeds 0,0", folder / "demo/world.toml")).code ==
            0);
    const auto after = *dryground::decode_png(process::slurp(png));
    REQUIRE(after.rgba.size() == before.rgba.size());
    CHECK(std::equal(after.rgba.begin() + 4, after.rgba.end(), before.rgba.begin() + 4));
    CHECK(after.rgba[0] == 0x6e);
}

TEST_CASE("versions are compared as pictures: one for each map that changed") {
    const DemoCopy folder;
    const std::string world = folder / "demo";
    REQUIRE(tool(fmt::format("edit {} --map slipway object move crab_a --by-cells 1,0", world)).code == 0);
    const auto one = tool(fmt::format("compare demo {} --out {}", world, folder / "changed.svg"));
    CHECK(one.code == 0);
    CHECK_THAT(one.out, Catch::Contains("object 'crab_a' moved"));
    CHECK_THAT(process::slurp(folder / "changed.svg"), Catch::Contains("changed-way"));
    REQUIRE(tool(fmt::format("edit {} --map jetty --layer things erase 4,2", world)).code == 0);
    CHECK(tool(fmt::format("compare demo {} --out {}", world, folder / "changed.png")).code == 0);
    for (const char* map : {"slipway", "jetty"})
        CHECK(process::slurp(folder / fmt::format("changed-{}.png", map)).rfind("\x89PNG", 0) == 0);
    CHECK_THAT(tool(fmt::format("compare demo demo --out {}", folder / "none.png")).err,
               Catch::Contains("no map changed"));
    CHECK(tool("compare demo demo --format png").code == 2);
}

// The command that packs worlds for a game, driven from outside; and how a file's ending chooses its format.
#include <catch2/catch.hpp>

#include <fstream>
#include <nlohmann/json.hpp>

#include "dryground/dryground.hpp"
#include "process.hpp"

using process::DemoCopy;
using process::slurp;
using process::tool;
namespace fs = std::filesystem;

TEST_CASE("a pack is made map by map, and joined to the bytes of the whole") {
    const DemoCopy folder;
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

TEST_CASE("a pack is the same twice, names its inputs, and takes its pictures along") {
    const DemoCopy folder;
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
    const DemoCopy folder;
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

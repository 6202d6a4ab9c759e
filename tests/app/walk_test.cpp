// dryground walk, from outside.
// Also tests src/files: walk_json
// Also tests src/travel: words
#include <nlohmann/json.hpp>

#include "approved.hpp"

using process::Outcome;
using process::tool;

TEST_CASE("walk reports the way to all goals of the demo", "[approved]") {
    const Outcome outcome = tool("walk demo/world.toml");
    CHECK(outcome.code == 0);
    CHECK(outcome.err == "");
    approved::check("walk.txt", outcome.out);
}

TEST_CASE("walk reports what is in the way", "[approved]") {
    const Outcome outcome = tool("walk demo/broken/world.toml --from slipway@232,128");
    CHECK(outcome.code == 1);   // its goals are out of reach
    approved::check("walk_broken.txt", outcome.out);
}

TEST_CASE("walk to one place, as another mover, with other facts") {
    const Outcome there = tool("walk demo/world.toml --to pump_house/valve");
    CHECK(there.code == 0);
    CHECK_THAT(there.out, Catch::Contains("gives has_hatch_key") && Catch::Contains("uses 'valve'"));
    const Outcome given = tool("walk demo/world.toml --to pump_house/valve --given has_hatch_key");
    CHECK(given.code == 0);
    CHECK_THAT(given.out, !Catch::Contains("'key'"));
    const Outcome hoist = tool("walk demo/world.toml --to slipway/high_shell");
    CHECK(hoist.code == 0);
    CHECK_THAT(hoist.out,
               Catch::Contains("walks 39 px to (193, 128)") && Catch::Contains("rides 'hoist' 56 px to (176, 64)"));
    const Outcome place = tool("walk demo/world.toml --to slipway@300,128");
    CHECK(place.code == 0);
    CHECK_THAT(place.out, Catch::EndsWith("walks 68 px to (300, 128)\n"));
    const Outcome crab = tool("walk demo/world.toml --mover crab --from slipway/crab_a --to slipway/hatch");
    CHECK(crab.code == 1);
    CHECK_THAT(crab.out, Catch::Contains("slipway/hatch: out of reach: "));
    const Outcome solid = tool("walk demo/world.toml --to slipway@300,160");
    CHECK(solid.code == 1);
    CHECK(solid.out == "slipway@300,160: out of reach\n");
}

TEST_CASE("walk says what cannot be asked") {
    const auto refused = [](const std::string& words) {
        const Outcome outcome = tool("walk demo/world.toml " + words);
        CHECK(outcome.code == 2);
        CHECK(outcome.out == "");
        return outcome.err;
    };
    CHECK_THAT(refused("--to slipwy/hatch"), Catch::Contains("did you mean 'slipway'?"));
    CHECK_THAT(refused("--to slipway/hutch"), Catch::Contains("did you mean 'hatch'?"));
    CHECK_THAT(refused("--to hatch"), Catch::Contains("neither MAP/OBJECT nor MAP@X,Y"));
    for (const char* place : {"slipway@1", "slipway@1,x", "slipway@1,2,3", "slipway@nan,0", "slipway@1e300,0"})
        CHECK_THAT(refused(fmt::format("--to {}", place)), Catch::Contains("write MAP@X,Y in px"));
    CHECK_THAT(refused("--mover warden_sid"), Catch::Contains("did you mean 'warden_side'?"));
    CHECK_THAT(refused("--given has_key"), Catch::Contains("has_hatch_key"));
    CHECK_THAT(refused("--from slipway@300,160"), Catch::Contains("no mover can be there"));
    CHECK_THAT(tool("walk demo/broken/world.toml").err,
               Catch::Contains("the world's start 'slipway/landig' does not exist"));
}

TEST_CASE("walk as JSON reports the same") {
    const Outcome outcome = tool("walk demo/world.toml --format json");
    CHECK(outcome.code == 0);
    const nlohmann::json walk = nlohmann::json::parse(outcome.out);
    CHECK(walk["goals"] == nlohmann::json::parse(R"([{ "object": "pump_house/lamp", "reached": "yes" },
                                                     { "fact": "pump_running", "reached": "yes" }])"));
    const nlohmann::json& route = walk["route"];
    REQUIRE(route.size() > 5);
    CHECK(route[0]["going"] == "starts");
    CHECK(route[0]["mover"] == "warden_side");
    CHECK(route.back()["mover"] == "warden");
    for (std::size_t i = 0; i < route.size(); ++i) {
        if (i > 0) CHECK(route[i]["from"] == route[i - 1]["to"]);
        if (route[i].contains("way")) CHECK(route[i]["way"].back() == route[i]["to"]["at"]);
    }
    CHECK(walk["dead_ends"].empty());
    const nlohmann::json broken =
        nlohmann::json::parse(tool("walk demo/broken/world.toml --from slipway@232,128 --format json").out);
    CHECK(broken["goals"][0]["reached"] == "no");
    CHECK(broken["dead_ends"].size() == 1);
    CHECK_FALSE(broken.contains("route"));
}

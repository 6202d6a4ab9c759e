// The examples, run as programs.
#include <catch2/catch.hpp>

#include "process.hpp"

namespace {

process::Outcome example(const std::string& words) {
    return process::run(fmt::format("'{}'/{}", DRYGROUND_EXAMPLES, words));
}

}   // namespace

TEST_CASE("a ball and a box cross merged chains without a snag, where boxes per tile snag them") {
    const process::Outcome outcome = example("roll demo/world.toml slipway");
    INFO(outcome.out << outcome.err);
    REQUIRE(outcome.code == 0);
    int ball_on_boxes = 0, box_on_boxes = 0, runs_on_chains = 0;
    std::istringstream lines(outcome.out);
    for (std::string line; std::getline(lines, line);) {
        std::istringstream words(line);
        std::string body, speed, ground, more, shapes, metres;
        int snags = 0;
        if (!(words >> body >> speed >> ground >> more) || (body != "ball" && body != "box")) continue;
        if (ground == "box") words >> body;   // "box per tile": one word more
        REQUIRE(words >> shapes >> metres >> snags);
        if (ground == "merged") {
            ++runs_on_chains;
            CHECK(snags == 0);
            CHECK(std::stod(metres) >= 19);   // the whole way
        } else {
            (line.rfind("ball", 0) == 0 ? ball_on_boxes : box_on_boxes) += snags;
        }
    }
    CHECK(runs_on_chains == 10);
    CHECK(ball_on_boxes > 0);
    CHECK(box_on_boxes > 0);
}

#ifdef DRYGROUND_BULLET
TEST_CASE("marbles cross merged ground without a snag in both engines, upright and flat, where boxes snag them") {
    const process::Outcome outcome = example("marbles");
    INFO(outcome.out << outcome.err);
    REQUIRE(outcome.code == 0);
    int on_merged = 0, on_boxes = 0, snags_on_boxes = 0;
    std::istringstream lines(outcome.out);
    for (std::string line; std::getline(lines, line);) {
        std::istringstream words(line);
        std::string engine, ground, more, word;
        if (!(words >> engine >> ground >> more) || (engine != "Chipmunk" && engine != "Bullet")) continue;
        if (ground == "box") words >> word;   // "box per cell": one word more
        int shapes = 0, speed = 0, snags = 0, told = 0, asked = 0;
        double metres = 0, step_us = 0;
        REQUIRE(words >> shapes >> speed >> metres >> snags >> step_us);
        CHECK(metres >= 15);   // the whole way
        if (ground == "box") {
            ++on_boxes;
            snags_on_boxes += snags;
            continue;
        }
        ++on_merged;
        CHECK(snags == 0);
        if (engine == "Bullet") {
            REQUIRE(words >> told >> word >> asked);   // "2 of 2"
            CHECK(told == asked);
        }
    }
    CHECK(on_merged == 30);
    CHECK(on_boxes == 20);
    CHECK(snags_on_boxes > 50);
}
#endif

TEST_CASE("the README's minute with the library does what it says") {
    const process::Outcome outcome = example("minute");
    INFO(outcome.out << outcome.err);
    CHECK(outcome.code == 0);
    CHECK_THAT(outcome.out, Catch::Contains("earth: ") &&
                                Catch::Contains("hit and removed peat_top; chunks with other ground: 2\n"));
}

TEST_CASE("the rolling example says what it cannot do") {
    CHECK(example("roll demo/world.toml attic").code == 2);
    CHECK(example("roll demo/none.toml").code == 1);
}

namespace {

// What it printed, without the engine's greeting.
std::string told(const process::Outcome& outcome) {
    std::istringstream lines(outcome.out);
    std::string all;
    for (std::string line; std::getline(lines, line);)
        if (line.find("cpSpace") == std::string::npos && line.find("NDEBUG") == std::string::npos) all += line + "\n";
    return all;
}

}   // namespace

TEST_CASE("crates break from below, and only from there") {
    const process::Outcome outcome = example("crates");
    CHECK(outcome.code == 0);
    CHECK(told(outcome) ==
          "crate at (7, 2) hit from below: splinters\n3 crates are left, the warden stands at 14.7 m\n");
}

TEST_CASE("the boardwalk carries the warden over the pool, as long as all of it is there") {
    const process::Outcome outcome = example("boardwalk");
    CHECK(outcome.code == 0);
    CHECK(told(outcome) ==
          "beside the boardwalk: stopped by pool at (8, 3), after 23 px\n"
          "on the boardwalk: across, 120 px\n"
          "a plank is gone: the ground of 1 chunk is another\n"
          "on the boardwalk: stopped by pool at (9, 6), after 39 px\n"
          "mended: across, 120 px\n");
}

TEST_CASE("key, hatch, valve: over two maps and a saved game") {
    const process::Outcome outcome = example("doors");
    CHECK(outcome.code == 0);
    const std::string all = told(outcome);
    const std::size_t saved = all.find("saved: ");
    REQUIRE(saved != std::string::npos);
    CHECK(all.substr(0, saved) ==
          "at the hatch, without the key\n"
          "to the key, and back to the hatch\n"
          "  inside of steam_low, runs scald\n"
          "  enter 'key': the warden carries the hatch key\n"
          "  use 'hatch'\n"
          "  arrives at pump_house/mat\n");
    CHECK(all.substr(all.find('\n', saved) + 1) ==
          "loaded: the key is there\n"
          "to the valve\n"
          "  use 'valve': the pump turns, runs flood_the_lock\n"
          "the pump runs\n"
          "and home\n"
          "  enter 'door'\n"
          "  arrives at slipway/doorstep\n");
}

TEST_CASE("on a broken world the doors lead nowhere, and nothing aborts") {
    const process::Outcome outcome = example("doors demo/broken/world.toml");
    CHECK(outcome.code == 0);
    CHECK_THAT(outcome.out, Catch::Contains("  use 'hatch'\nsaved") && Catch::Contains("the pump runs"));
}

TEST_CASE("steps: walls, a turnstile, a lever, stairs") {
    const process::Outcome outcome = example("steps");
    CHECK(outcome.code == 0);
    CHECK(told(outcome) ==
          "n: may not go to (1, 0)\n"
          "u: use 'lever'\n"
          "e: to (2, 1)\n"
          "e: to (3, 1)\n"
          "e: to (4, 1)\n"
          "w: may not go to (3, 1)\n"
          "e: to (5, 1)\n"
          "s: to (5, 2), up to the loft\n"
          "w: may not go to (4, 2)\n"
          "w: may not go to (4, 2)\n"
          "the lever is down\n");
    CHECK_THAT(example("steps eee").out, Catch::EndsWith("the lever is up\n"));
}

TEST_CASE("a crowd of crabs turns round where they meet") {
    const process::Outcome outcome = example("crabs 14");
    CHECK(outcome.code == 0);
    CHECK_THAT(told(outcome),
               Catch::Contains("2 crabs from the map\n14 of 14 turned round") && Catch::Contains("14 are on the quay"));
}

TEST_CASE("chase: a crab finds a way over what is broken, and none when it is closed again") {
    const process::Outcome outcome = example("chase");
    CHECK(outcome.code == 0);
    CHECK(told(outcome) ==
          "no way\n"
          "the warden is in reach: no\n"
          "the warden breaks the lowest crate\n"
          "walks to (165, 64)\n"
          "jumps to (188, 64)\n"
          "walks to (232, 64)\n"
          "the warden is in reach: yes\n"
          "and closes it again\n"
          "no way\n");
}

TEST_CASE("finish: the demo can be finished, the broken one cannot") {
    const process::Outcome demo = example("finish");
    CHECK(demo.code == 0);
    CHECK_THAT(told(demo), Catch::Contains("uses 'hatch'  needs has_hatch_key  leads to pump_house") &&
                               Catch::EndsWith("it can be finished\n"));
    const process::Outcome broken = example("finish demo/broken/world.toml");
    CHECK(broken.code == 1);
    CHECK_THAT(told(broken), Catch::Contains("nothing that can be reached leads to its map"));
}

// The examples, run as programs.
#include <catch2/catch.hpp>

#include "process.hpp"

TEST_CASE("a ball and a box cross merged chains without a snag, where boxes per tile snag them") {
    const process::Outcome outcome = process::run(fmt::format("'{}' demo/world.toml slipway", DRYGROUND_ROLL));
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

TEST_CASE("the rolling example says what it cannot do") {
    CHECK(process::run(fmt::format("'{}' demo/world.toml attic", DRYGROUND_ROLL)).code == 2);
    CHECK(process::run(fmt::format("'{}' demo/none.toml", DRYGROUND_ROLL)).code == 1);
}

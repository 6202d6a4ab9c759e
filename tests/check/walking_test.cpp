// Rules of walking: what trips them, and what just does not.
// Also tests src/check: walking
#include <catch2/catch.hpp>

#include "clean_worlds.hpp"
#include "rambles.hpp"
#include "tripped.hpp"

using namespace dryground;

namespace {

const bool noted = [] {
    for (const char* rule :
         {"goal-unreachable", "key-behind-own-lock", "dead-end", "out-of-reach", "bottomless", "jump-unknown"})
        tripped().insert(rule);
    return true;
}();

constexpr const char* landing = "{ name = \"landing\", kind = \"spawn\", at = [16, 80] },\n";

// Returns the findings of the rules of walking, each as `rule: message`.
std::string told(const worlds::Files& files) {
    std::string told;
    const Report report = worlds::all_findings(files);
    for (const Finding& finding : report.findings())
        if (finding.rule >= Rule::goal_unreachable && finding.rule <= Rule::jump_unknown)
            told += fmt::format("{}{}: {}", told.empty() ? "" : "\n", rule_text(finding.rule).name, message(finding));
    return told;
}

worlds::Files with_goal(worlds::Files files, const char* goals) {
    return worlds::with(std::move(files), "world.toml", "start = ", fmt::format("goals = {}\nstart = ", goals));
}

}   // namespace

TEST_CASE("a goal that no way leads to is reported, with what is missing", "[walking]") {
    REQUIRE(noted);
    const auto ledge = [](int row) {   // rows above the floor: 16 px each
        std::vector<std::string> rows{"......", "......", "......", "......", "......", "######"};
        rows[static_cast<std::size_t>(5 - row)][3] = '#';
        return with_goal(
            rambles::one_map(rows, landing + fmt::format("{{ name = \"shell\", kind = \"thing\", at = [56, {}] }},\n",
                                                         80 - 16 * row)),
            "{ objects = [\"flat/shell\"] }");
    };
    CHECK(told(ledge(1)) == "");
    CHECK(told(ledge(2)) == "");
    // jump_px is 40; the shell is 8 px high, the body 14 px: from beside the ledge it is reached with its head
    CHECK(told(ledge(4)).find("goal-unreachable: goal 'flat/shell' cannot be reached: ") == 0);
    CAPTURE(told(ledge(4)));
    CHECK(told(ledge(4)).find("above the highest jump from") != std::string::npos);
}

TEST_CASE("a key behind its own lock", "[walking]") {
    const auto rooms = [](int key_x) {
        worlds::Files files = rambles::one_map(
            {"########", "#..D...#", "#..D...#", "########"},
            fmt::format("{{ name = \"landing\", kind = \"spawn\", at = [32, 48] }},\n"
                        "{{ name = \"key\", kind = \"thing\", at = [{}, 48], gives = [\"has_key\"] }},\n",
                        key_x),
            {}, "has_key = \"\"\n");
        files = worlds::with(files, "marsh.toml", "[tiles.peat]",
                             "[tiles.door]\nshapes = [\"cell\"]\nneeds = [\"has_key\"]\n\n[tiles.peat]");
        return worlds::with(files, "flat.toml", "\"#\" = \"peat\"", "\"D\" = \"door\", \"#\" = \"peat\"");
    };
    CHECK(told(rooms(24)) == "");
    CHECK(told(rooms(88)) ==
          "key-behind-own-lock: the tile on cell (3, 1) needs 'has_key', but 'has_key' is only given behind it");
}

TEST_CASE("two doors that open each other", "[walking]") {
    worlds::Files files =
        rambles::one_map({"###########", "#..D...E..#", "#..D...E..#", "###########"},
                         "{ name = \"landing\", kind = \"spawn\", at = [88, 48] },\n"
                         "{ name = \"a\", kind = \"thing\", at = [24, 48], gives = [\"opens_e\"] },\n"
                         "{ name = \"b\", kind = \"thing\", at = [152, 48], gives = [\"opens_d\"] },\n",
                         {}, "opens_d = \"\"\nopens_e = \"\"\n");
    files = worlds::with(files, "marsh.toml", "[tiles.peat]",
                         "[tiles.door_d]\nshapes = [\"cell\"]\nneeds = [\"opens_d\"]\n\n"
                         "[tiles.door_e]\nshapes = [\"cell\"]\nneeds = [\"opens_e\"]\n\n[tiles.peat]");
    files = worlds::with(files, "flat.toml", "\"#\" = \"peat\"",
                         "\"D\" = \"door_d\", \"E\" = \"door_e\", \"#\" = \"peat\"");
    const Report report = worlds::all_findings(with_goal(files, "{ facts = [\"opens_d\"] }"));
    CHECK(worlds::of_rule(report, Rule::goal_unreachable).size() == 1);
}

TEST_CASE("a pit that nobody gets out of, unless that is meant", "[walking]") {
    const auto pit = [](int deep) {
        std::vector<std::string> rows{"........", "........", "........", "........", "........"};
        for (int r = 0; r < deep; ++r) rows.push_back("###..###");
        rows.push_back("########");
        return rambles::one_map(rows, landing);
    };
    CHECK(told(pit(2)) == "");
    CHECK(told(pit(3)) == "dead-end: there is no way back from [53, 128] on map 'flat'");
    // with a goal down there it is the way on
    worlds::Files files = rambles::one_map(
        {"........", "........", "........", "........", "........", "###..###", "###..###", "###..###", "########"},
        landing + std::string("{ name = \"shell\", kind = \"thing\", at = [64, 128] },\n"));
    CHECK(told(with_goal(files, "{ objects = [\"flat/shell\"] }")) == "");
}

TEST_CASE("what is set off somewhere that nobody gets to", "[walking]") {
    const auto gong = [](int y) {
        return rambles::one_map(
            {"......", "......", "......", "......", "......", "######"},
            landing + fmt::format("{{ name = \"gong\", kind = \"trigger\", box = [40, {}, 16, 8], gives = "
                                  "[\"rung\"] }},\n",
                                  y),
            {}, "rung = \"\"\n");
    };
    CHECK(told(gong(19)) == "");   // its lower end lies above the head by 39 px
    CHECK(told(gong(17)).find("out-of-reach: trigger 'gong' cannot be reached: 2 px above the highest jump from (") ==
          0);
}

TEST_CASE("holes that a body falls through for ever", "[walking]") {
    const worlds::Files files =
        rambles::one_map({"........", "........", "........", "........", "........", "###..###"}, landing);
    CHECK(told(files) == "");
    CHECK(told(worlds::with(files, "flat.toml", "rim = \"earth\"", "rim = \"open\""))
              .find("bottomless: warden falls out of the map for ever: in column") == 0);
}

TEST_CASE("a mover seen from the side that does not say how it jumps", "[walking]") {
    rambles::Figures figures;
    figures.more = "jump_px = 40\n";
    CHECK(told(rambles::one_map({"......", "......", "......", "......", "......", "######"}, landing, figures)) ==
          "jump-unknown: mover 'warden' moves seen from the side, but 'leap_px' is missing");
    figures.more = "jump_px = 0\nleap_px = 0\n";
    CHECK(told(rambles::one_map({"......", "......", "......", "......", "......", "######"}, landing, figures)) == "");
}

TEST_CASE("worlds as careful people make them are walked without a finding", "[walking]") {
    for (std::uint64_t round = 0; round < static_cast<std::uint64_t>(chance::rounds(300)); ++round) {
        const worlds::Files files = worlds::clean_world(round);
        INFO("round " << round << "\n" << files.at("outside.toml") << files.at("inside.toml"));
        CHECK(told(files) == "");
    }
}

TEST_CASE("a start that is misspelt or in the ground does not silence the rules", "[walking]") {
    const auto pit = [](const char* start, int y) {
        worlds::Files files =
            rambles::one_map({"........", "........", "........", "........", "........", "###..###", "###..###",
                              "###..###", "########"},
                             fmt::format("{{ name = \"landing\", kind = \"spawn\", at = [16, {}] }},\n", y));
        return worlds::with(files, "world.toml", "flat/landing", start);
    };
    CHECK(told(pit("flat/landig", 80)).find("dead-end") == 0);
    CHECK(told(pit("flat/landing", 84)).find("dead-end") == 0);
}

// ---- worlds that can be finished, each spoiled by one edit ----

namespace {

struct Spoiled {
    worlds::Files fine, spoiled;
    std::string told;   // in what is said of the spoiled one
};

worlds::Files with_shell(const std::vector<std::string>& rows, int at_x, int at_y, int shell_x, int shell_y,
                         const rambles::Figures& figures) {
    return with_goal(rambles::one_map(rows,
                                      fmt::format("{{ name = \"landing\", kind = \"spawn\", at = [{}, {}] }},\n"
                                                  "{{ name = \"shell\", kind = \"thing\", at = [{}, {}] }},\n",
                                                  at_x, at_y, shell_x, shell_y),
                                      figures),
                     "{ objects = [\"flat/shell\"] }");
}

// A gap that is some px too wide for the leap.
Spoiled too_far(chance::Dice& dice) {
    const int cells = dice.in(2, 6), wide = 2 * dice.in(3, 7), high = dice.in(8, 30), by = dice.in(1, 8);
    std::vector<std::string> rows(6, std::string(static_cast<std::size_t>(cells) + 6, '.'));
    for (int r = 0; r < 3; ++r) rows.push_back("###" + std::string(static_cast<std::size_t>(cells), '.') + "###");
    const auto with_leap = [&](int leap) {
        rambles::Figures figures;
        figures.body = fmt::format("{{ box = [{}, {}], at = [0, -{}] }}", wide, 14, 7);
        figures.more = fmt::format("jump_px = {}\nleap_px = {}\nkerb_px = 0\n", high, leap);
        return with_shell(rows, 16, 96, 16 * (cells + 3) + 40, 96, figures);
    };
    const int needs = 16 * cells - wide;
    return {with_leap(needs), with_leap(needs - by), fmt::format("{} px further than the longest jump from (", by)};
}

// A ledge that is some px too high for the jump; the thing lies so far in that it has to be stood on.
Spoiled too_high(chance::Dice& dice) {
    const int cells = dice.in(1, 5), by = dice.in(1, 8);
    std::vector<std::string> rows(4, std::string(12, '.'));
    for (int r = 0; r < cells; ++r) rows.push_back("......######");
    rows.emplace_back("############");
    const auto with_jump = [&](int jump) {
        rambles::Figures figures;
        figures.more = fmt::format("jump_px = {}\nleap_px = 40\nkerb_px = 0\n", jump);
        return with_shell(rows, 24, 64 + 16 * cells, 168, 64, figures);
    };
    const int needs = 16 * cells;
    return {with_jump(needs), with_jump(needs - by), fmt::format("{} px above the highest jump from (", by)};
}

// A passage that is some px too tight for the body.
Spoiled too_tight(chance::Dice& dice) {
    const int cells = dice.in(1, 3), by = dice.in(1, 7), long_side = dice.in(2, 9);
    const std::string wall(static_cast<std::size_t>(long_side), '#');
    std::vector<std::string> rows{"############" + wall};
    for (int r = 0; r < 2; ++r) rows.push_back("#....." + wall + ".....#");
    for (int r = 0; r < cells; ++r)
        rows.push_back("#....." + std::string(static_cast<std::size_t>(long_side), '.') + ".....#");
    for (int r = 0; r < 2; ++r) rows.push_back("#....." + wall + ".....#");
    rows.push_back("############" + wall);
    const auto with_body = [&](int high) {
        rambles::Figures figures;
        figures.moves = "free", figures.more = "";
        figures.body = fmt::format("{{ box = [{}, {}], at = [0, 0] }}", high, high);
        return with_shell(rows, 48, 48 + 8 * cells, 16 * (long_side + 8), 48 + 8 * cells, figures);
    };
    return {with_body(16 * cells), with_body(16 * cells + by), fmt::format("is {} px too tight", by)};
}

// A key that somebody moved to the other side of its door.
Spoiled behind_itself(chance::Dice& dice) {
    const int left = dice.in(2, 5), right = dice.in(2, 6), key = dice.in(0, right - 1);
    const std::string row = "#" + std::string(static_cast<std::size_t>(left), '.') + "D" +
                            std::string(static_cast<std::size_t>(right), '.') + "#";
    const std::string wall(row.size(), '#');
    const auto with_key = [&](int column) {
        worlds::Files files = rambles::one_map(
            {wall, row, row, wall},
            fmt::format("{{ name = \"landing\", kind = \"spawn\", at = [24, 48] }},\n"
                        "{{ name = \"key\", kind = \"thing\", at = [{}, 48], gives = [\"has_key\"] }},\n",
                        16 * column + 8),
            {}, "has_key = \"\"\n");
        files = worlds::with(files, "marsh.toml", "[tiles.peat]",
                             "[tiles.door]\nshapes = [\"cell\"]\nneeds = [\"has_key\"]\n\n[tiles.peat]");
        return worlds::with(files, "flat.toml", "\"#\" = \"peat\"", "\"D\" = \"door\", \"#\" = \"peat\"");
    };
    return {with_key(1 + dice.in(0, left - 1)), with_key(2 + left + key), "key-behind-own-lock: "};
}

}   // namespace

TEST_CASE("sixty worlds that can be finished, and what is reported when each is spoiled by one edit", "[walking]") {
    chance::Dice dice(18);
    int worlds = 0;
    for (int round = 0; round < 15; ++round)
        for (auto* const make : {too_far, too_high, too_tight, behind_itself}) {
            const Spoiled world = make(dice);
            INFO("round " << round << "\n" << world.spoiled.at("flat.toml") << world.spoiled.at("world.toml"));
            const std::string fine = told(world.fine);
            CAPTURE(fine);
            CHECK(fine.find("goal-unreachable") == std::string::npos);
            CHECK(fine.find("key-behind-own-lock") == std::string::npos);
            const std::string spoiled = told(world.spoiled);
            CAPTURE(spoiled);
            CHECK(spoiled.find(world.told) != std::string::npos);
            ++worlds;
        }
    CHECK(worlds == 60);
}

TEST_CASE("a goal over a pit is reached by raft, and not without; who stands on the raft does not fall", "[walking]") {
    const auto pit = [](const char* raft, const char* at) {
        return with_goal(
            rambles::one_map({"............", "............", "............", "............", "............",
                              "###......###", "###......###", "###......###", "###......###", "############"},
                             fmt::format("{{ name = \"landing\", kind = \"spawn\", at = {} }},\n"
                                         "{{ name = \"shell\", kind = \"thing\", at = [180, 80] }},\n{}",
                                         at, raft)),
            "{ objects = [\"flat/shell\"] }");
    };
    const char *raft = "{ kind = \"lift\", box = [50, 80, 28, 8], props = { stops = [[126, 84]] } },\n",
               *code = "{ kind = \"lift\", box = [50, 80, 28, 8] },\n";
    CHECK_THAT(told(pit("", "[16, 80]")), Catch::Contains("goal-unreachable"));
    CHECK_THAT(told(pit(code, "[16, 80]")), Catch::Contains("goal-unreachable"));
    for (const char* at : {"[16, 80]", "[64, 80]"}) {
        INFO(at);
        CHECK_THAT(told(pit(raft, at)), !Catch::Contains("goal-unreachable"));
        CHECK(worlds::of_rule(worlds::all_findings(pit(raft, at)), Rule::spawn_unsupported).empty());
    }
    CHECK(worlds::of_rule(worlds::all_findings(pit("", "[64, 80]")), Rule::spawn_unsupported).size() == 1);
}

// Ways out of maps, and areas that nothing leads into, by the body's own shape on any grid and storey.
// Also tests src/travel: fitting
#include <fmt/format.h>

#include <catch2/catch.hpp>

#include "dryground/builder.hpp"
#include "dryground/check.hpp"

using namespace dryground;

namespace {

struct Shore {
    std::string grid = "square";
    std::vector<Located<std::string>> ground, loft{};
    LinePx rail{{{0, 8}, {16, 8}}};
};

// Peat "#", a fence of a line "-", stairs up "u" and down "d". The warden starts on "@".
Result<World> built(const Shore& shore) {
    const bool isometric = shore.grid == "isometric";
    const int columns = static_cast<int>(shore.ground[0].value.size()), rows = static_cast<int>(shore.ground.size());
    WorldBuilder builder;
    builder.world({.title = "Sedge Point",
                   .player = "warden",
                   .start = "flat/landing",
                   .barriers = {{.name = "earth"}},
                   .storeys = {{.name = "ground"}, {.name = "loft", .base_px = 32}},
                   .movers = {{.name = "warden", .body = {BoxPx{0, 0, 10, 6}}, .stopped_by = {"earth"}}}});
    builder.tileset(
        {.name = "marsh",
         .cell = isometric ? std::array{32, 16} : std::array{16, 16},
         .tiles = {{.name = "peat", .unseen = true, .barrier = "earth", .shapes = {{{WholeCell{}}}}},
                   {.name = "rail", .unseen = true, .barrier = "earth", .shapes = {{{shore.rail}}}},
                   {.name = "up", .unseen = true, .shapes = std::vector<ShapeDraft>{}, .leads = "loft"},
                   {.name = "down", .unseen = true, .shapes = std::vector<ShapeDraft>{}, .leads = "ground"}}});
    std::array<int, 2> start{};
    for (int r = 0; r < rows; ++r)
        if (const auto c = shore.ground[static_cast<std::size_t>(r)].value.find('@'); c != std::string::npos)
            start = {static_cast<int>(c), r};
    LayerDraft people{.name = "people", .holds_objects = true};
    people.objects = {{.name = "landing", .kind = "spawn", .form = AtCells{start[0], start[1]}}};
    MapDraft map{.name = "flat",
                 .grid = shore.grid,
                 .cell = isometric ? std::array{32, 16} : std::array{16, 16},
                 .size = std::array{columns, rows},
                 .tilesets = {"marsh"},
                 .legend = {{.key = "#", .tile = "peat"},
                            {.key = "-", .tile = "rail"},
                            {.key = "|", .tile = "rail", .orientation = {false, false, 90}},
                            {.key = "u", .tile = "up"},
                            {.key = "d", .tile = "down"},
                            {.key = "@", .tile = ""}},
                 .layers = {{.name = "ground", .rows = shore.ground}, people}};
    if (isometric) map.legend.erase(map.legend.begin() + 2);   // turns need square cells
    if (!shore.loft.empty()) map.layers.push_back({.name = "upstairs", .rows = shore.loft, .storey = "loft"});
    builder.map(map);
    return builder.build();
}

std::string found(const Shore& shore, Rule rule) {
    const Result<World> loaded = built(shore);
    if (!loaded) return text(loaded.report());
    std::string all;
    const Report report = check(*loaded);
    for (const Finding& finding : report.findings())
        if (finding.rule == rule) {
            all += fmt::format("{}{},{}", all.empty() ? "" : "; ", (*finding.cell).column, (*finding.cell).row);
            for (const std::string& detail : finding.details)
                if (detail.find("storey") != std::string::npos) all += " " + detail;
        }
    return all;
}

}   // namespace

TEST_CASE("a hole of one cell in a fence of diamonds is a way out") {
    CHECK(found({.grid = "isometric", .ground = {"######", "#....#", "#.@...", "######"}}, Rule::leak) == "6,3");
    CHECK(found({.grid = "isometric", .ground = {"###.##", "#....#", "#.@..#", "######"}}, Rule::leak) == "2,-1");
    CHECK(found({.grid = "isometric", .ground = {"######", "#....#", "#.@..#", "######"}}, Rule::leak).empty());
    // Diamonds that meet at a corner leave no room between them.
    CHECK(found({.grid = "isometric", .ground = {"#####.", "#...#.", "#.@.#.", "###.##"}}, Rule::leak) == "3,4");
    CHECK(found({.grid = "isometric", .ground = {".####.", "#...#.", "#.@.#.", ".###.#"}}, Rule::leak).empty());
}

TEST_CASE("a fence of lines that block both ways keeps movers in") {
    CHECK(found({.ground = {"#----#", "|....|", "|.@..|", "#----#"}}, Rule::leak) == "");
    CHECK(found({.ground = {"#----#", "|.....", "|.@..|", "#----#"}}, Rule::leak) != "");
}

TEST_CASE("a way out of another storey names it") {
    CHECK(found({.ground = {"#####", "#@u.#", "#####"}, .loft = {".....", ".....", "....."}}, Rule::leak)
              .find("on storey 'loft'") != std::string::npos);
    CHECK(found({.ground = {"#####", "#@u.#", "#####"}, .loft = {"#####", "#.d.#", "#####"}}, Rule::leak).empty());
}

TEST_CASE("a closed area is reported with its outline") {
    const Result<World> loaded = built({.ground = {"#########", "#@..#...#", "#...#...#", "#########"}});
    REQUIRE(loaded);
    const Report report = check(*loaded);
    for (const Finding& finding : report.findings())
        if (finding.rule == Rule::pocket) {
            Ring ring;
            for (const auto& [x, y] : finding.outline) ring.push_back({to_steps(x), to_steps(y)});
            const auto box = bounds(Regions{{ring, {}}});
            REQUIRE(box);
            CHECK(box->least.x >= to_steps(5 * 16));
            CHECK(box->most.x <= to_steps(8 * 16));
            CHECK(locate(Regions{{ring, {}}}, {to_steps(6.5 * 16), to_steps(2 * 16)}) == Side::inside);
            return;
        }
    FAIL("there is no pocket");
}

TEST_CASE("stairs lead into an area") {
    const std::vector<Located<std::string>> ground{"#########", "#@u.....#", "#.......#", "#.......#", "#########"};
    // On the loft the player arrives by stairs alone; another room there has none.
    CHECK(found({.ground = ground, .loft = {"#########", "#.d.#...#", "#...#...#", "#########", "........."}},
                Rule::pocket) == "5,1 on storey 'loft'");
    const std::vector<Located<std::string>> both{"#########", "#@u....u#", "#.......#", "#.......#", "#########"};
    CHECK(
        found({.ground = both, .loft = {"#########", "#.d.#..d#", "#...#...#", "#########", "........."}}, Rule::pocket)
            .empty());
    // Back on the ground, in a room that only stairs lead down to.
    CHECK(found({.ground = {"#########", "#@u.#...#", "#...#...#", "#########", "........."},
                 .loft = {"#########", "#.d...d.#", "#.......#", "#########", "........."}},
                Rule::pocket)
              .empty());
    CHECK(found({.ground = {"#########", "#@u.#...#", "#...#...#", "#########", "........."},
                 .loft = {"#########", "#.d.....#", "#.......#", "#########", "........."}},
                Rule::pocket) == "5,1 on storey 'ground'");
}

// Cells, steps, ways and changes of a running game.
// Also tests src/play: overlay steps
#include "dryground/play.hpp"

#include <catch2/catch.hpp>

#include "chance.hpp"
#include "clean_worlds.hpp"
#include "shore.hpp"

using namespace dryground;

namespace {

int mover(const World& world, const char* name) {
    for (std::size_t m = 0; m < world.movers().size(); ++m)
        if (world.movers()[m].name == name) return static_cast<int>(m);
    return -1;
}

}   // namespace

TEST_CASE("cells, px and metres turn into each other on every grid", "[play]") {
    for (const std::uint64_t round : {std::uint64_t{1}, std::uint64_t{2}}) {   // rooms on squares, and on diamonds
        worlds::Files files = worlds::clean_world(round);
        files = worlds::with(files, "outside.toml", "size = [", "first = [-3, -5]\nsize = [");
        for (const char* key : {"cell = ["})   // objects stand where they stood in the data
            for (std::size_t at = files["outside.toml"].find(key, files["outside.toml"].find("objects"));
                 at != std::string::npos; at = files["outside.toml"].find(key, at + 1)) {
                const std::size_t comma = files["outside.toml"].find(',', at),
                                  end = files["outside.toml"].find(']', at);
                const int c = std::stoi(files["outside.toml"].substr(at + 8)),
                          r = std::stoi(files["outside.toml"].substr(comma + 1));
                files["outside.toml"].replace(at, end - at, fmt::format("cell = [{}, {}", c - 3, r - 5));
            }
        const Play play(worlds::world_of(files), "outside");
        for (int r = -7; r < 5; ++r)
            for (int c = -5; c < 5; ++c) {
                const PointPx middle = play.middle_of({c, r});
                CHECK(play.cell_at(middle) == Cell{c, r});
                CHECK(play.cell_at(play.corner_of({c, r})) == Cell{c, r});
                const auto [x, y] = play.to_metres(middle);
                CHECK(play.from_metres(x, y) == middle);
            }
        CHECK(play.has({-3, -5}));
        CHECK_FALSE(play.has({-4, -5}));
        CHECK(play.find_tile(0, {-3, -5})->name == "peat");
        CHECK(play.find_tile(0, {-4, -5}) == nullptr);   // outside nothing stands
        CHECK(play.find_tile(0, {-2, -4})->name == "floor");
        CHECK(play.grants({-2, -4}, "walk"));
        CHECK_FALSE(play.grants({-3, -5}, "walk"));
        CHECK_FALSE(play.grants({-30, -5}, "walk"));
        CHECK(play.says({-2, -4}).flags_layer == 0);
        CHECK_THROWS_AS(play.grants({0, 0}, "swim"), std::out_of_range);
        CHECK_THROWS_AS(play.tile_at(1, {0, 0}), std::out_of_range);   // a layer of objects
        CHECK(play.depth(PointPx{8, 40}) > play.depth(Cell{-3, -5}));
    }
    CHECK_THROWS_AS(Play(worlds::world_of(worlds::shore()), "flut"), std::out_of_range);
}

TEST_CASE("a mover steps where it may stand, through sides that are open", "[play]") {
    worlds::Files files = worlds::clean_world(1);
    files = worlds::with(
        files, "marsh.toml", "[tiles.floor]\nshapes = []",
        "[tiles.gate]\nshapes = []\nflags = [\"walk\"]\nsides = { right = \"out\" }\n\n[tiles.floor]\nshapes = []");
    Play play(worlds::world_of(files), "outside");
    const int warden = mover(play.world(), "warden");
    const auto step = [&](Cell from, Cell to, Diagonal corners = Diagonal::if_both_free) {
        return play.may_step(warden, from, to, 0, corners);
    };
    CHECK(step({3, 1}, {4, 1}));
    CHECK(step({3, 1}, {3, 1}));
    CHECK_FALSE(step({1, 1}, {0, 1}));   // the wall
    CHECK_FALSE(step({3, 1}, {5, 1}));   // no step
    play.set_tile(0, {4, 2}, "gate");
    CHECK(step({4, 2}, {5, 2}));         // may be left to the right
    CHECK_FALSE(step({5, 2}, {4, 2}));   // not entered from there
    CHECK(step({3, 2}, {4, 2}));
    CHECK(step({4, 2}, {3, 2}));
    // Past the corner of a wall.
    play.set_tile(0, {5, 3}, "peat");
    CHECK_FALSE(step({4, 3}, {5, 4}));
    CHECK(step({4, 3}, {5, 4}, Diagonal::if_one_free));
    CHECK_FALSE(step({4, 3}, {5, 4}, Diagonal::never));
    CHECK(step({3, 3}, {4, 4}));
}

TEST_CASE("the first thing in a body's way, and how far it comes", "[play]") {
    Play play(worlds::world_of(worlds::shore()), "flat");
    const int warden = mover(play.world(), "warden"), keeper = mover(play.world(), "keeper");
    // Falls on the floor at 64 px, from 40.
    Blocked hit = play.blocked(warden, {120, 40}, {120, 80});
    CHECK(hit.by == Blocked::By::tile);
    CHECK(hit.at == Approx(24.0 / 40));
    CHECK(hit.place.y == Approx(64));
    CHECK(hit.touch.cell == Cell{7, 4});
    CHECK(hit.touch.side == 0);
    // Slides along the floor: touching is no obstacle.
    CHECK_FALSE(play.blocked(warden, {100, 64}, {120, 64}));
    // Into the slope's foot, which begins at 128.
    hit = play.blocked(warden, {100, 64}, {150, 64});
    CHECK(hit.touch.cell == Cell{8, 3});
    CHECK(hit.place.x == Approx(123));   // half of its 10 px before it
    // The rim.
    CHECK(play.blocked(warden, {20, 30}, {-20, 30}).by == Blocked::By::rim);
    // From inside of a wall nothing is free.
    CHECK(play.blocked(warden, {40, 80}, {40, 90}).at == 0);
    // The keeper needs cells to walk on.
    CHECK(play.blocked(keeper, {72, 71}, {72, 50}).by == Blocked::By::flags);
    CHECK_FALSE(play.blocked(keeper, {72, 73}, {74, 73}));
}

TEST_CASE("an edit gives the ground that merging anew gives, and is undone", "[play]") {
    for (int round = 0; round < chance::rounds(12); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        const World world = worlds::world_of(worlds::clean_world(static_cast<std::uint64_t>(round)));
        Play play(world, "outside", {.chunk_cells = 8});
        const Play fresh(world, "outside", {.chunk_cells = 8});
        std::vector<Changed> done;
        for (int i = 0; i < 20; ++i) {
            const Cell cell{dice.in(0, play.map().columns - 1), dice.in(0, play.map().rows - 1)};
            done.push_back(dice.once_in(4) ? play.swap(0, cell, {0, 0})
                                           : play.set_tile(0, cell, dice.once_in(2) ? "peat" : ""));
            const ChunkedMerge anew = merge_chunks(world, play.map(), 8, {.pieces = false});
            REQUIRE(play.merge().chunks == anew.chunks);
        }
        // Somebody who loads the game has the same world.
        Play loaded(world, "outside", {.chunk_cells = 8});
        CHECK(loaded.apply(play.changes()).empty());
        CHECK(loaded.merge().chunks == play.merge().chunks);
        CHECK(loaded.changes().changes == play.changes().changes);
        for (std::size_t i = done.size(); i-- > 0;) play.undo(done[i]);
        CHECK(play.merge().chunks == fresh.merge().chunks);
        CHECK(play.changes().changes.empty());
    }
}

TEST_CASE("touches follow edits and facts", "[play]") {
    worlds::Files files = worlds::with(worlds::shore(), "flat.toml", "[[layers]]\nname = \"people\"",
                                       "[[layers]]\nname = \"gate\"\nunless = [\"lamp_lit\"]\nrows = "
                                       "'''\n............\n............\n....#.......\n....#.......\n............\n...."
                                       "........\n'''\n[[layers]]\nname = \"people\"");
    Play play(worlds::world_of(files), "flat");
    const Contact gate{.point = {64, 40}, .normal = {-1, 0}};
    CHECK(play.touched(gate).size() == 1);
    const Changed opened = play.set_fact("lamp_lit");
    CHECK_FALSE(opened.chunks.empty());
    CHECK(play.touched(gate).empty());
    CHECK(play.holds("lamp_lit"));
    CHECK(play.set_fact("lamp_lit").changes.empty());   // it held already
    CHECK_FALSE(play.undo(opened).chunks.empty());
    CHECK(play.touched(gate).size() == 1);
    CHECK(play.set_fact("has_key").chunks.empty());   // no ground depends on it
    play.clear(2, {4, 2});
    CHECK(play.touched(gate).empty());
    CHECK_THROWS_AS(play.set_tile(0, {12, 0}, "peat"), std::out_of_range);
    CHECK_THROWS_AS(play.set_tile(0, {1, 1}, "paet"), std::out_of_range);
    CHECK_THROWS_AS(play.set_fact("lamp_lid"), std::out_of_range);
}

TEST_CASE("changes are refused by another pack, by what has changed already, and where they do not fit", "[play]") {
    const World world = worlds::world_of(worlds::shore());
    const Pack one(world, "one"), other(world, "other");
    Play play(one, "flat");
    play.set_tile(0, {0, 0}, "peat"), play.set_fact("has_key"), play.set_fired(3);
    const Changes saved = play.changes();
    CHECK(saved.pack == "one");
    CHECK(saved.changes.size() == 3);
    CHECK_THAT(Play(other, "flat").apply(saved),
               Catch::Contains("belong to another pack: theirs is 'one', this one is 'other'"));
    CHECK_THAT(play.apply(saved), Catch::Contains("changed already"));
    Changes wrong = saved;
    wrong.changes[0].cell = {99, 0};
    Play fresh(one, "cave");
    CHECK_THAT(fresh.apply(wrong), Catch::Contains("has no cell (99, 0)"));
    CHECK(fresh.changes().changes.empty());   // nothing was done
    CHECK(fresh.apply(saved).empty());
    fresh.go_to("flat");   // what was changed is changed there, too
    CHECK(fresh.find_tile(0, {0, 0})->name == "peat");
    CHECK(fresh.has_fired(3));
}

TEST_CASE("a newer world is taken while playing, with what has changed", "[play]") {
    Play play(worlds::world_of(worlds::shore()), "flat");
    play.set_tile(0, {0, 0}, "peat"), play.set_fact("has_key");
    worlds::Files files = worlds::with(worlds::shore(), "flat.toml", "..#~~###", "..##~###");
    files = worlds::with(files, "flat.toml", "{ name = \"box\", kind", "{ name = \"crate\", kind");
    files = worlds::with(files, "world.toml", "[facts]\n", "[facts]\npump_runs = \"the pump\"\n");
    const std::vector<std::string> words = play.refresh(worlds::world_of(files));
    CHECK(words == std::vector<std::string>{"fact 'pump_runs' came", "map 'flat': 1 cell holds something else",
                                            "map 'flat': object 'crate' came", "map 'flat': object 'box' went"});
    CHECK(play.find_tile(0, {0, 0})->name == "peat");
    CHECK(play.find_tile(0, {3, 4})->name == "peat");
    CHECK(play.holds("has_key"));   // though it has another number now
    CHECK(play.touched({.point = {56, 64}, .normal = {0, -1}}).front().cell == Cell{3, 4});
}

TEST_CASE("an overlay holds what lies in its box", "[play]") {
    const Play play(worlds::world_of(worlds::shore()), "flat");
    const Play::Overlay all =
        play.overlay({0, 0, 192, 96}, {.chains = true, .flags = true, .objects = true, .grid = true});
    const auto label = [&](const char* text) {
        return std::count_if(all.labels.begin(), all.labels.end(),
                             [&](const Play::Label& l) { return l.text == text; });
    };
    CHECK(label("landing (spawn)") == 1);
    CHECK(label("climb") == 1);
    CHECK(label("walk") == 2);
    CHECK(
        std::any_of(all.lines.begin(), all.lines.end(), [](const Play::Line& line) { return line.group == "earth"; }));
    const Play::Overlay none = play.overlay({100, 20, 8, 8}, {.chains = true});
    CHECK(std::none_of(none.lines.begin(), none.lines.end(),
                       [](const Play::Line& line) { return line.group == "earth"; }));
}

TEST_CASE("an overlay of a part of a map in chunks is that part of the overlay of all", "[play]") {
    for (const int chunk_cells : {1, 2, 32}) {
        const Play play(worlds::world_of(worlds::shore()), "flat", {.chunk_cells = chunk_cells});
        const Play::Overlay all = play.overlay({-1000, -1000, 3000, 3000}, {.chains = true});
        REQUIRE(!all.lines.empty());
        for (const BoxOfBody& box : {BoxOfBody{0, 0, 40, 40}, BoxOfBody{100, 60, 30, 8}, BoxOfBody{-20, -20, 21, 200},
                                     BoxOfBody{150, 50, 500, 500}, BoxOfBody{64, 64, 0, 0}}) {
            const auto meets = [&](const Play::Line& line) {
                return std::max(line.from.x, line.to.x) >= box.left &&
                       std::min(line.from.x, line.to.x) <= box.left + box.width &&
                       std::max(line.from.y, line.to.y) >= box.top &&
                       std::min(line.from.y, line.to.y) <= box.top + box.height;
            };
            CHECK(static_cast<std::ptrdiff_t>(play.overlay(box, {.chains = true}).lines.size()) ==
                  std::count_if(all.lines.begin(), all.lines.end(), meets));
        }
    }
}

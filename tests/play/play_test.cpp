// Cells, steps, ways and changes of a running game.
// Also tests src/play: overlay
// Also tests src/travel: way_between
#include "dryground/spawners.hpp"

#include <catch2/catch.hpp>

#include "chance.hpp"
#include "clean_worlds.hpp"
#include "rambles.hpp"
#include "shore.hpp"

using namespace dryground;

TEST_CASE("a way to another place follows what is changed, and facts", "[play]") {
    worlds::Files files =
        rambles::one_map({"########", "#..D...#", "#..D...#", "########"},
                         "{ name = \"landing\", kind = \"spawn\", at = [32, 48] },", {}, "open = \"\"\n");
    files = worlds::with(files, "marsh.toml", "[tiles.peat]",
                         "[tiles.door]\nshapes = [\"cell\"]\nneeds = [\"open\"]\n\n[tiles.peat]");
    files = worlds::with(files, "flat.toml", "\"#\" = \"peat\"", "\"D\" = \"door\", \"#\" = \"peat\"");
    Play play(worlds::world_of(files), "flat");
    const MoverId warden = play.world().find_mover("warden");
    const auto ground = play.find_layer("ground");
    const auto way = [&] { return play.route(warden, {32, 48}, {100, 48}); };
    CHECK_FALSE(way());
    play.set_fact("open");
    REQUIRE(way());
    CHECK(way()->back().to.at == PointPx{100, 48});
    CHECK_FALSE(play.blocked(warden, way()->front().from.at, way()->front().to.at));
    play.set_tile(ground, {4, 1}, "peat");
    CHECK(way());   // it walks below
    const EditResult wall = play.set_tile(ground, {4, 2}, "peat");
    CHECK_FALSE(way());
    play.undo(wall);
    CHECK(way());
    play.set_fact("open", false);
    CHECK_FALSE(way());
    CHECK_FALSE(play.route(warden, {32, 60}, {100, 48}));   // from inside of the ground
    CHECK_THROWS_AS(play.route(MoverId{9}, {32, 48}, {100, 48}), std::out_of_range);
}

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
        CHECK(play.find_tile(LayerId{0}, {-3, -5})->name == "peat");
        CHECK(play.find_tile(LayerId{0}, {-4, -5}) == nullptr);   // outside nothing stands
        CHECK(play.find_tile(LayerId{0}, {-2, -4})->name == "floor");
        CHECK(play.grants({-2, -4}, "walk"));
        CHECK_FALSE(play.grants({-3, -5}, "walk"));
        CHECK_FALSE(play.grants({-30, -5}, "walk"));
        CHECK(play.says({-2, -4}).flags_layer == LayerId{0});
        CHECK_THROWS_AS(play.grants({0, 0}, "swim"), std::out_of_range);
        CHECK_THROWS_AS(play.tile_at(LayerId{1}, {0, 0}), std::out_of_range);   // a layer of objects
        CHECK(play.depth(PointPx{8, 40}) > play.depth(Cell{-3, -5}));
    }
    CHECK_THROWS_AS(Play(worlds::world_of(worlds::shore()), "flut"), std::out_of_range);
}

TEST_CASE("a mover steps where it may stand, through sides that are open", "[play]") {
    worlds::Files files =
        rambles::one_map({"########", "#nnnnnn#", "#nnnnnn#", "#nnnnnn#", "#nnnnnn#", "#nnnnnn#", "########"},
                         "{ name = \"landing\", kind = \"spawn\", at = [24, 30] },",
                         {"steps", "{ box = [10, 6], at = [0, -3] }", "needs = [\"climb\"]\n"});
    files =
        worlds::with(files, "marsh.toml", "[tiles.net]\n",
                     "[tiles.gate]\nshapes = []\nflags = [\"climb\"]\nsides = { right = \"out\" }\n\n[tiles.net]\n");
    Play play(worlds::world_of(files), "flat");
    const MoverId warden = play.world().find_mover("warden");
    const auto step = [&](Cell from, Cell to, Diagonal corners = Diagonal::if_both_free) {
        return play.may_step(warden, from, to, StoreyId::ground, corners);
    };
    CHECK(step({3, 1}, {4, 1}));
    CHECK(step({3, 1}, {3, 1}));
    CHECK_FALSE(step({1, 1}, {0, 1}));   // the wall
    CHECK_FALSE(step({3, 1}, {5, 1}));   // no step
    play.set_tile(LayerId{0}, {4, 2}, "gate");
    CHECK(step({4, 2}, {5, 2}));         // may be left to the right
    CHECK_FALSE(step({5, 2}, {4, 2}));   // not entered from there
    CHECK(step({3, 2}, {4, 2}));
    CHECK(step({4, 2}, {3, 2}));
    // Past the corner of a wall.
    play.set_tile(LayerId{0}, {5, 3}, "peat");
    CHECK_FALSE(step({4, 3}, {5, 4}));
    CHECK(step({4, 3}, {5, 4}, Diagonal::if_one_free));
    CHECK_FALSE(step({4, 3}, {5, 4}, Diagonal::never));
    CHECK(step({3, 3}, {4, 4}));
}

TEST_CASE("the first thing in a body's way, and how far it comes", "[play]") {
    Play play(worlds::world_of(worlds::shore()), "flat");
    const MoverId warden = play.world().find_mover("warden"), keeper = play.world().find_mover("keeper");
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

TEST_CASE("an edit gives the ground that merging again gives, and is undone", "[play]") {
    for (int round = 0; round < chance::rounds(12); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        const World world = worlds::world_of(worlds::clean_world(static_cast<std::uint64_t>(round)));
        Play play(world, "outside", {.chunk_cells = 8});
        const Play fresh(world, "outside", {.chunk_cells = 8});
        std::vector<EditResult> done;
        for (int i = 0; i < 20; ++i) {
            const Cell cell{dice.in(0, play.map().columns - 1), dice.in(0, play.map().rows - 1)};
            done.push_back(dice.once_in(4) ? play.swap(LayerId{0}, cell, {0, 0})
                                           : play.set_tile(LayerId{0}, cell, dice.once_in(2) ? "peat" : ""));
            const ChunkedMerge anew = merge_chunks(world, play.map(), 8, {.forms = {MergeForm::chains}});
            REQUIRE(play.merge().chunks == anew.chunks);
        }
        // Somebody who loads the game has the same world.
        Play loaded(world, "outside", {.chunk_cells = 8});
        CHECK(loaded.apply(play.changes()).empty());
        CHECK(loaded.merge().chunks == play.merge().chunks);
        CHECK(loaded.changes().edits == play.changes().edits);
        for (std::size_t i = done.size(); i-- > 0;) play.undo(done[i]);
        CHECK(play.merge().chunks == fresh.merge().chunks);
        CHECK(play.changes().edits.empty());
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
    const EditResult opened = play.set_fact("lamp_lit");
    CHECK_FALSE(opened.chunks.empty());
    CHECK(play.touched(gate).empty());
    CHECK(play.holds("lamp_lit"));
    CHECK(play.set_fact("lamp_lit").edits.empty());   // it held already
    CHECK_FALSE(play.undo(opened).chunks.empty());
    CHECK(play.touched(gate).size() == 1);
    CHECK(play.set_fact("has_key").chunks.empty());   // no ground depends on it
    play.clear(LayerId{2}, {4, 2});
    CHECK(play.touched(gate).empty());
    CHECK_THROWS_AS(play.set_tile(LayerId{0}, {12, 0}, "peat"), std::out_of_range);
    CHECK_THROWS_AS(play.set_tile(LayerId{0}, {1, 1}, "paet"), std::out_of_range);
    CHECK_THROWS_AS(play.set_fact("lamp_lid"), std::out_of_range);
}

TEST_CASE("saved changes are made on any state, and what does not fit is listed", "[play]") {
    const World world = worlds::world_of(worlds::shore());
    const Pack one(world, "one"), other(world, "other");
    Play play(one, "flat");
    play.set_tile(LayerId{0}, {0, 0}, "peat"), play.set_fact("has_key"), play.set_fired(ObjectId{3}),
        play.remove(ObjectId{1});
    const SavedChanges saved = play.changes();
    CHECK(saved.pack == "one");
    CHECK(saved.map == "flat");
    CHECK(saved.edits.size() == 4);
    Play fresh(other, "cave");   // another pack, on another map
    CHECK(fresh.apply(saved).empty());
    CHECK(fresh.map().name == "flat");
    CHECK(fresh.find_tile(LayerId{0}, {0, 0})->name == "peat");
    CHECK(fresh.holds("has_key"));
    CHECK(fresh.has_fired(ObjectId{3}));
    CHECK_FALSE(fresh.is_there(ObjectId{1}));
    CHECK(fresh.changes().edits == saved.edits);
    // What was changed since is as it was then.
    play.set_tile(LayerId{0}, {1, 0}, "peat"), play.clear(LayerId{0}, {0, 0}), play.set_fact("lamp_lit"),
        play.remove(ObjectId{2});
    CHECK(play.apply(saved).empty());
    CHECK(play.changes().edits == saved.edits);
    CHECK(play.merge().chunks == fresh.merge().chunks);
    CHECK(play.is_there(ObjectId{2}));
    CHECK(play.apply({"one", "flat", {}}).empty());
    CHECK(play.changes().edits.empty());
    CHECK(play.merge().chunks == Play(one, "flat").merge().chunks);
    SavedChanges wrong = saved;
    wrong.edits[0].cell = {99, 0}, wrong.map = "gone";
    CHECK(fresh.apply(wrong) == std::vector<std::string>{"map 'flat' has no cell (99, 0)", "there is no map 'gone'"});
    CHECK(fresh.changes().edits.size() == 3);
    CHECK(fresh.map().name == "flat");
}

TEST_CASE("an object that is removed is gone from ground, triggers and spawners, and comes back by undoing", "[play]") {
    worlds::Files files =
        worlds::with(worlds::shore(), "flat.toml", worlds::last_of_shore,
                     std::string(worlds::last_of_shore) +
                         "  { name = \"groyne\", kind = \"solid\", barrier = \"earth\", box = [64, 32, "
                         "16, 16] },\n");
    const World world = worlds::world_of(files);
    Play play(world, "flat", {.chunk_cells = 4});
    const Play untouched(world, "flat", {.chunk_cells = 4});
    const auto groyne = play.find_object("groyne"), bell = play.find_object("bell"), crab = play.find_object("crab_a");
    REQUIRE((groyne != ObjectId::none && bell != ObjectId::none && crab != ObjectId::none));
    const Contact at_groyne{.point = {64, 40}, .normal = {-1, 0}};
    REQUIRE(play.touched(at_groyne).size() == 1);
    const EditResult broken = play.remove(groyne);
    CHECK_FALSE(broken.chunks.empty());
    CHECK(play.touched(at_groyne).empty());
    CHECK(play.remove(groyne).edits.empty());   // once is enough
    // The same ground as without it.
    Map without = world.map("flat");
    without.objects.erase(without.objects.begin() + static_cast<int>(groyne));
    CHECK(play.merge().chunks == merge_chunks(world, without, 4, {.forms = {MergeForm::chains}}).chunks);
    TriggerTracker tracker(play);
    const BodyNow warden{1, play.map().player, {104, 48}, StoreyId::ground, false};
    CHECK(tracker.update(0.1, std::span(&warden, 1)).size() == 1);
    CHECK(tracker.update(0.1, {}).empty());
    CHECK(play.remove(bell).chunks.empty());
    CHECK(tracker.update(0.1, std::span(&warden, 1)).empty());
    int made = 0;
    Spawners spawners;
    spawners.on("crab", [&](const Spawned&) { return ++made > 0; });
    spawners.spawn(play);
    CHECK(made == 1);
    const EditResult beaten = play.remove(crab);
    spawners.spawn(play);
    CHECK(made == 1);
    play.go_to("cave"), play.go_to("flat");   // it stays so
    CHECK_FALSE(play.is_there(crab));
    play.undo(beaten), play.undo(broken);
    CHECK(play.is_there(crab));
    CHECK(play.merge().chunks == untouched.merge().chunks);
    CHECK(play.touched(at_groyne).size() == 1);
    CHECK(play.changes().edits.size() == 1);   // the bell
    CHECK(play.refresh(worlds::world_of(worlds::with(files, "flat.toml", "name = \"landing\"", "name = \"jetty\"")))
              .size() == 2);
    CHECK(play.changes().edits.size() == 1);
    CHECK_FALSE(play.is_there(play.find_object("bell")));
}

TEST_CASE("things are found by name, and feet stand in the cell above", "[play]") {
    Play play(worlds::world_of(worlds::shore()), "flat");
    CHECK(play.find_layer("people") == LayerId{2});
    CHECK(play.find_layer("poeple") == LayerId::none);
    CHECK(play.find_object("nobody") == ObjectId::none);
    CHECK(play.find_object("") == ObjectId::none);
    CHECK(play.world().find_mover("warden") == MoverId{0});
    CHECK(play.world().find_fact("lamp_lit") != FactId::none);
    CHECK(play.world().find_kind("crab") != KindId::none);
    CHECK(play.world().find_event("ring_bell") == EventId{0});
    CHECK(play.world().find_barrier("mud") == BarrierId::none);
    CHECK(play.world().find_storey("ground") == StoreyId::ground);
    CHECK(play.cell_at({24, 64}) == Cell{1, 4});
    CHECK(play.standing_cell({24, 64}) == Cell{1, 3});
    CHECK(play.standing_cell({24, 63}) == Cell{1, 3});
    CHECK(play.standing_cell({16, 64}) == Cell{1, 3});
    play.go_to(MapId{1});
    CHECK(play.map().name == "cave");
    CHECK_THROWS_AS(play.go_to(MapId{2}), std::out_of_range);
}

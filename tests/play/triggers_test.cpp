// Who fires what: triggers, links, tiles that react.
// Also tests src/play: sensors trigger_tracker
#include "dryground/triggers.hpp"

#include <catch2/catch.hpp>

#include "dryground/changes.hpp"
#include "dryground/files.hpp"
#include "shore.hpp"

using namespace dryground;

namespace {

// The shore with tiles that react: a crate broken from below, steam that scalds every half second, stairs.
worlds::Files lively() {
    worlds::Files files = worlds::with(
        worlds::shore(), "marsh.toml", "[tiles.net]",
        "[tiles.crate]\nunseen = true\nbarrier = \"earth\"\nshapes = [\"cell\"]\nreacts = [{ fires = \"bump\", from = "
        "[\"bottom\"], turns_into = \"\", runs = "
        "\"ring_bell\" }]\n[tiles.steam]\nunseen = true\nshapes = [{ box = [4, 0, 8, 16], trigger = \"steam\" "
        "}]\nreacts = [{ fires = \"inside\", every_s = 0.5, "
        "runs = \"ring_bell\" }]\n[tiles.stairs]\nunseen = true\nshapes = []\nleads = \"loft\"\n[tiles.net]");
    files = worlds::with(files, "marsh.toml", "leads = \"loft\"", "leads = \"loft\"");
    files = worlds::with(files, "world.toml", "[facts]", "[storeys]\nloft = { base_px = 32, height_px = 32 }\n[facts]");
    files = worlds::with(files, "flat.toml", "\"n\" = \"net\"",
                         "\"n\" = \"net\", \"x\" = \"crate\", \"s\" = \"steam\", \"^\" = \"stairs\"");
    return worlds::with(files, "flat.toml", "............\n............\n..........n.",
                        "..x.........\n............\n...s..^...n.");
}

struct Game {
    explicit Game(const worlds::Files& files = worlds::shore())
        : play(worlds::world_of(files), "flat"), tracker(play) {}

    // "enter key; use door -> cave/mat": what fires in a frame with the warden at a place.
    std::string at(double x, double y, bool uses = false, double seconds = 0.1, StoreyId storey = StoreyId::ground) {
        const BodyNow body{1, MoverId{0}, {x, y}, storey, uses};
        return told(tracker.update(seconds, std::span(&body, 1)));
    }
    std::string told(std::span<const Firing> firings) const {
        std::string all;
        for (const Firing& firing : firings) {
            if (!all.empty()) all += "; ";
            all += std::string(name_of(firing.fires)) + " ";
            all += firing.object != ObjectId::none ? play.map().object(firing.object).name
                   : firing.tile.tile < 0          ? "layer " + play.map().layer(firing.layer).name
                                                   : fmt::format("tile {},{}", firing.cell.column, firing.cell.row);
            if (firing.link != nullptr) all += " -> " + firing.link->to;
            if (firing.event != EventId::none) all += " runs " + play.world().event(firing.event).name;
            if (firing.to_storey != StoreyId::none) all += " to " + play.world().storey(firing.to_storey).name;
        }
        return all;
    }
    Play play;
    TriggerTracker tracker;
};

}   // namespace

TEST_CASE("a trigger fires when it is entered, not while one stays or only touches it", "[triggers]") {
    Game game;   // the bell's box is from (96, 32) to (112, 48); the warden is 10 x 14 px, feet in the middle below
    CHECK(game.at(85, 48) == "");
    CHECK(game.at(91, 48) == "");   // touching
    CHECK(game.at(92, 48) == "enter bell runs ring_bell");
    CHECK(game.at(100, 48) == "");
    CHECK(game.at(140, 48) == "");
    CHECK(game.at(100, 48) == "enter bell runs ring_bell");   // again
    CHECK(game.tracker.update(0.1, {}).empty());              // it is no more
    Game once(
        worlds::with(worlds::shore(), "flat.toml", "runs = \"ring_bell\" }", "runs = \"ring_bell\", once = true }"));
    CHECK(once.at(100, 48) == "enter bell runs ring_bell");
    CHECK(once.at(140, 48) == "");
    CHECK(once.at(100, 48) == "");
    CHECK(once.play.changes().edits.size() == 1);   // saved games know it
    Game leaving(worlds::with(worlds::shore(), "flat.toml", "runs = \"ring_bell\" }",
                              "runs = \"ring_bell\", fires = \"leave\" }"));
    CHECK(leaving.at(100, 48) == "");
    CHECK(leaving.at(140, 48) == "leave bell runs ring_bell");
    Game others(worlds::with(worlds::shore(), "flat.toml", "runs = \"ring_bell\" }",
                             "runs = \"ring_bell\", by = [\"keeper\"] }"));
    CHECK(others.at(100, 48) == "");
}

namespace {

// The shore with fog over two cells of its lower row, and what the fog's layer says of its trigger.
worlds::Files with_fog(const std::string& keys) {
    return worlds::with(
        worlds::shore(), "flat.toml", "[[layers]]\nname = \"people\"",
        "[[layers]]\nname = \"fog\"\ntrigger = \"fog\"\n" + keys +
            "\nlegend = { \"f\" = \"peat\" }\nrows = "
            "'''\n............\n............\n........ff..\n............\n............\n............\n'''"
            "\n[[layers]]\nname = \"people\"");
}

}   // namespace

TEST_CASE("a layer's trigger is one area that does what the layer says", "[triggers]") {
    // Cells 8 and 9 of row 2: x from 128 to 160, y from 32 to 48.
    Game game(with_fog("runs = \"ring_bell\""));
    CHECK(game.at(172, 46) == "");
    CHECK(game.at(156, 46) == "enter layer fog runs ring_bell");
    CHECK(game.at(148, 46) == "");   // from one of its cells to the next
    CHECK(game.at(172, 46) == "");
    CHECK(game.at(156, 46) == "enter layer fog runs ring_bell");
    Game leaving(with_fog("fires = \"leave\"\nruns = \"ring_bell\""));
    CHECK(leaving.at(156, 46) == "");
    CHECK(leaving.at(172, 46) == "leave layer fog runs ring_bell");
    Game others(with_fog("by = [\"keeper\"]\nruns = \"ring_bell\""));
    CHECK(others.at(156, 46) == "");
    Game inside(with_fog("fires = \"inside\"\nevery_s = 0.5\nruns = \"ring_bell\""));
    std::string all;
    for (int frame = 0; frame < 13; ++frame) all += inside.at(156, 46);   // 1.3 s
    CHECK(all == "inside layer fog runs ring_bellinside layer fog runs ring_bellinside layer fog runs ring_bell");
    Game used(with_fog("fires = \"use\"\nruns = \"ring_bell\""));
    CHECK(used.at(156, 46) == "");
    CHECK(used.at(156, 46, true) == "use layer fog runs ring_bell");
    CHECK(used.at(168, 46, true) == "use layer fog runs ring_bell");   // from the next cell
    CHECK(used.at(188, 46, true) == "");
}

TEST_CASE("a layer's trigger gives facts, fires once, and both are saved", "[triggers]") {
    const worlds::Files files = with_fog("gives = [\"lamp_lit\"]\nonce = true");
    Game game(files);
    CHECK(game.at(156, 46) == "enter layer fog");
    const World& world = game.play.world();
    CHECK(game.play.holds(world.find_fact("lamp_lit")));
    game.at(172, 46);
    CHECK(game.at(156, 46) == "");
    for (const PackFormat format : {PackFormat::json, PackFormat::cbor}) {
        const Result<LoadedChanges> saved = read_changes(world, changes_bytes(world, game.play.changes(), format));
        CHECK(saved);
        CHECK(saved->lost.empty());
        Game again(files);
        CHECK(again.play.apply(saved->changes).empty());
        CHECK(again.play.changes().edits == game.play.changes().edits);
        CHECK(again.at(156, 46) == "");
    }
    // Taken back it may fire again.
    Game undone(files);
    const BodyNow body{1, MoverId{0}, {156, 46}, StoreyId::ground, false};
    const std::vector<Firing> fired = undone.tracker.update(0.1, std::span(&body, 1));
    REQUIRE(fired.size() == 1);
    CHECK(fired[0].tile.tile == -1);
    undone.play.undo(fired[0].changed);
    undone.at(172, 46);
    CHECK(undone.at(156, 46) == "enter layer fog");
}

TEST_CASE("what a layer fires needs a trigger, and something that a trigger can fire on", "[triggers]") {
    const auto wrong = [](const std::string& from, const std::string& to) {
        return worlds::rules_and_places(
            worlds::load(worlds::with(with_fog("fires = \"enter\"\nruns = \"ring_bell\""), "flat.toml", from, to))
                .report());
    };
    CHECK(wrong("trigger = \"fog\"\n", "").size() == 1);
    CHECK(wrong("fires = \"enter\"", "fires = \"bump\"").size() == 1);
    CHECK(wrong("fires = \"enter\"", "fires = \"enters\"").size() == 1);
    CHECK(wrong("ring_bell\"\nlegend", "ring_bells\"\nlegend").size() == 1);
}

TEST_CASE("what lasts fires every so often", "[triggers]") {
    Game game(worlds::with(worlds::shore(), "flat.toml", "runs = \"ring_bell\" }",
                           "runs = \"ring_bell\", fires = \"inside\", every_s = 0.5 }"));
    int fired = 0;
    for (int frame = 0; frame < 20; ++frame) fired += !game.at(100, 48).empty();   // two seconds
    CHECK(fired == 4);
    Game steam(lively());
    fired = 0;
    for (int frame = 0; frame < 20; ++frame) fired += steam.at(56, 46) == "inside tile 3,2 runs ring_bell";
    CHECK(fired == 4);
}

TEST_CASE("a key opens a door, and the door leads to another map", "[triggers]") {
    Game game(
        worlds::with(worlds::shore(), "flat.toml", "circle = [96, 56, 6], fires", "box = [88, 48, 16, 16], fires"));
    CHECK(game.at(170, 46, true) == "");   // used from the next cell, but locked
    CHECK(game.at(96, 62) == "enter key");
    CHECK(game.play.holds("has_key"));
    CHECK(game.at(170, 46, true) == "use door -> cave/mat");
    CHECK(game.at(150, 46, true) == "");   // two cells away
    game.play.go_to("cave");
    CHECK(game.at(56, 48) == "");
    CHECK(game.at(8, 46) == "enter out -> flat/landing");
    CHECK(game.at(90, 46, true) == "use lamp");
    CHECK(game.play.holds("lamp_lit"));
}

TEST_CASE("a crate breaks from below only, and is gone; stairs lead to a storey", "[triggers]") {
    Game game(lively());
    const BodyNow body{1, MoverId{0}, {40, 30}};
    const auto bump = [&](PointPx point, PointPx normal) {
        const Touches touches = game.play.touched({.point = point, .normal = normal});
        REQUIRE(touches.size() == 1);
        return game.told(game.tracker.bumped(body, touches.front()));
    };
    CHECK(bump({32, 8}, {-1, 0}) == "");
    CHECK(bump({40, 16}, {0, 1}) == "bump tile 2,0 runs ring_bell");
    CHECK(game.play.find_tile(LayerId{0}, {2, 0}) == nullptr);
    CHECK(game.play.touched({.point = {40, 16}, .normal = {0, 1}}).empty());
    CHECK(game.at(104, 62) == "enter key");
    CHECK(game.at(104, 46) == "enter tile 6,2 to loft; enter bell runs ring_bell");
    CHECK(game.at(104, 46, false, 0.1, StoreyId{1}) == "");   // up there nothing is
}

TEST_CASE("a link that leads nowhere fires, and is not handed out to be followed", "[triggers]") {
    Game game(worlds::with(worlds::shore(), "flat.toml", "to = \"cave/mat\", fires = \"use\", needs = [\"has_key\"]",
                           "to = \"cove/mat\", fires = \"use\""));
    CHECK(game.at(170, 46, true) == "use door");
}

TEST_CASE("a newer world brings its own triggers", "[triggers]") {
    Game game;
    CHECK(game.at(100, 48) == "enter bell runs ring_bell");
    // The bell is gone, and what stood behind it in the list has another number.
    game.play.refresh(worlds::world_of(worlds::with(
        worlds::shore(), "flat.toml",
        "  { name = \"bell\", kind = \"trigger\", box = [96, 32, 16, 16], runs = \"ring_bell\" },\n", "")));
    CHECK(game.at(100, 48) == "");
    CHECK(game.play.map().objects.size() == 5);
}

TEST_CASE("a body that steps is in the cell that holds its position", "[triggers]") {
    worlds::Files files = worlds::with(worlds::shore(), "world.toml",
                                       "moves = \"side\"\njump_px = 40\nleap_px = 56\nkerb_px = 2\nslope_degrees = 46",
                                       "moves = \"steps\"");
    Game game(
        worlds::with(files, "world.toml", "body = { box = [10, 14], at = [0, -7] }", "body = { box = [10, 14] }"));
    CHECK(game.at(95, 40) == "");   // its body reaches into the bell's cell, but it is in the one before
    CHECK(game.at(97, 40) == "enter bell runs ring_bell");
}

TEST_CASE("stairs of both storeys on one cell take a body on once", "[triggers]") {
    worlds::Files files =
        worlds::with(worlds::shore(), "world.toml", "[facts]", "[storeys]\nloft = { base_px = 32 }\n[facts]");
    files =
        worlds::with(files, "marsh.toml", "[tiles.net]\n",
                     "[tiles.up]\nunseen = true\nshapes = []\nleads = \"loft\"\n[tiles.down]\nunseen = true\nshapes = "
                     "[]\nleads = \"ground\"\n[tiles.net]\n");
    files =
        worlds::with(files, "flat.toml", "[[layers]]\nname = \"people\"",
                     "[[layers]]\nname = \"stairs\"\nlegend = { \"u\" = \"up\" }\nrows = "
                     "'''\nu...........\n............\n............\n............\n............\n............\n'''\n"
                     "[[layers]]\nname = \"loft\"\nstorey = \"loft\"\nlegend = { \"d\" = \"down\" }\nrows = "
                     "'''\nd...........\n............\n............\n............\n............\n............\n'''\n"
                     "[[layers]]\nname = \"people\"");
    Play play(worlds::world_of(files), "flat");
    TriggerTracker tracker(play);
    StoreyId storey = StoreyId::ground;
    const auto at = [&](double x) {
        const BodyNow warden{1, play.map().player, {x, 15}, storey, false};
        std::string all;
        for (const Firing& firing : tracker.update(0.1, std::span(&warden, 1))) {
            storey = firing.to_storey;
            all += fmt::format("{} to {}", play.world().tile(firing.tile).name, index(firing.to_storey));
        }
        return all;
    };
    CHECK(at(40) == "");
    CHECK(at(8) == "up to 1");
    for (int frame = 0; frame < 3; ++frame) CHECK(at(8) == "");   // not down again
    CHECK(at(10) == "");
    CHECK(at(40) == "");
    CHECK(at(8) == "down to 0");
    CHECK(at(8) == "");
    CHECK(at(40) == "");
    CHECK(at(8) == "up to 1");
}

TEST_CASE("a firing carries the tile as it was, its properties, and what it became", "[triggers]") {
    worlds::Files files = worlds::with(worlds::shore(), "marsh.toml", "[tiles.net]\n",
                                       "[tiles.steam]\nunseen = true\nshapes = [{ cell = true, trigger = \"steam\" "
                                       "}]\nprops.harm = 3\nreacts = [{ fires = \"enter\", turns_into = \"\", runs = "
                                       "\"ring_bell\" }]\n[tiles.net]\n");
    files = worlds::with(files, "marsh.toml", "cell = [16, 16]\n",
                         "cell = [16, 16]\nprops.harm = { type = \"whole\", default = 0 }\n");
    Play play(worlds::world_of(files), "flat");
    play.set_tile(LayerId{0}, {0, 0}, "steam");
    TriggerTracker tracker(play);
    const BodyNow warden{1, play.map().player, {8, 15}, StoreyId::ground, false};
    const std::vector<Firing> firings = tracker.update(0.1, std::span(&warden, 1));
    REQUIRE(firings.size() == 1);
    CHECK(play.world().tile(firings[0].tile).name == "steam");
    CHECK(firings[0].became.tile == -1);
    CHECK(firings[0].cell == Cell{0, 0});
    CHECK(play.find_tile(LayerId{0}, {0, 0}) == nullptr);   // it is gone already
    CHECK(std::get<std::int64_t>(firings[0].properties->at("harm").is) == 3);
}

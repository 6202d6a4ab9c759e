// The demo world: small enough to read, with an example of each thing.
#include <catch2/catch.hpp>

#include <set>

#include "dryground/dryground.hpp"
#include "process.hpp"

namespace dg = dryground;
namespace fs = std::filesystem;

namespace {

const fs::path source = DRYGROUND_SOURCE;

dg::World demo() {
    const dg::Result<dg::World> loaded = dg::load_world(source / "demo" / "world.toml");
    INFO(dg::text(loaded.report()));
    REQUIRE(loaded);
    return *loaded;
}

std::string all_text() {
    std::string text;
    for (const char* file : {"world.toml", "tiles/marsh.tiles.toml", "tiles/station.tiles.toml",
                             "maps/slipway.map.toml", "maps/pump_house.map.toml"})
        text += process::slurp(source / "demo" / file);
    return text;
}

}   // namespace

TEST_CASE("the demo's art is what its script draws, px for px") {
    const process::Folder folder;
    REQUIRE(process::run(fmt::format("scripts/make_art.py '{}'", folder.path.string())).code == 0);
    std::size_t count = 0;
    for (const auto& entry : fs::directory_iterator(source / "demo" / "art")) {
        const auto committed = dg::decode_png(process::slurp(entry.path()));
        const auto drawn = dg::decode_png(process::slurp(folder.path / "art" / entry.path().filename()));
        INFO(entry.path().filename() << " " << committed.fault() << drawn.fault());
        REQUIRE(committed);
        REQUIRE(drawn);
        CHECK(committed->width == drawn->width);
        CHECK(committed->rgba == drawn->rgba);
        ++count;
    }
    CHECK(count == 7);
}

TEST_CASE("the demo shows each thing that this version reads") {
    const std::string text = all_text();
    for (const char* key : {"margin",
                            "gap",
                            "[shapes]",
                            "[[for]]",
                            "tagged",
                            "like",
                            "carves",
                            "sides",
                            "flags",
                            "surface",
                            "trigger =",
                            "unseen",
                            "polygon",
                            "circle",
                            "box",
                            "flip",
                            "turn",
                            "props",
                            "props.",
                            "decor = true",
                            "shown = false",
                            "storey = \"loft\"",
                            "rim = \"earth\"",
                            "rim = \"open\"",
                            "barrier = \"earth\"",
                            "to = ",
                            "needs",
                            "gives",
                            "runs",
                            "once = true",
                            "by = ",
                            "[check]",
                            "[merging]",
                            "[map_props]",
                            "stands",
                            "area",
                            "picture",
                            "feelers",
                            "meets"}) {
        INFO(key);
        CHECK(text.find(key) != std::string::npos);
    }
    const dg::World world = demo();
    std::set<dg::Role> roles;
    for (const dg::Map& map : world.maps())
        for (const dg::Object& object : map.objects) roles.insert(object.role);
    CHECK(roles.size() == 5);
}

TEST_CASE("the demo's maps are linked both ways: from the side, from above, and on diamonds") {
    const dg::World world = demo();
    REQUIRE(world.maps().size() == 3);
    std::set<std::string> ways;
    for (const dg::Map& map : world.maps())
        for (const dg::Object& object : map.objects)
            if (object.role == dg::Role::link) ways.insert(map.name + " to " + world.map(object.link.map).name);
    CHECK(ways == std::set<std::string>{"slipway to pump_house", "pump_house to slipway", "pump_house to jetty",
                                        "jetty to pump_house"});
    const auto moves = [&](const char* map) { return world.mover(world.map(map).player).moves; };
    CHECK(moves("slipway") == dg::Moves::side);
    CHECK(moves("pump_house") == dg::Moves::free);
    CHECK(moves("jetty") == dg::Moves::free);
    CHECK(world.map("jetty").grid == dg::GridSort::isometric);
}

TEST_CASE("the warden climbs to the pump house's loft, walks along it, and comes down at its other end") {
    const dg::World world = demo();
    const dg::Reach reach = dg::reach(world);
    const auto reached = [&](dg::MapId map, dg::PointPx at, StoreyId storey) {
        return reach.reached(dg::Spot{.map = map, .storey = storey, .at = at});
    };
    CHECK(reached(dg::MapId{1}, {248, 25}, dg::StoreyId{1}) == dg::Reached::yes);
    CHECK(reached(dg::MapId{1}, {248, 60}, dg::StoreyId{1}) == dg::Reached::no);   // beside the gallery
    CHECK(reached(dg::MapId{2}, {16, 147}, dg::StoreyId::ground) ==
          dg::Reached::yes);   // at the bell on the pier's head
    CHECK(reached(dg::MapId{2}, {-64, 96}, dg::StoreyId::ground) == dg::Reached::no);   // in the brine
}

TEST_CASE("the warden can cross the pool on the boardwalk, and not beside it") {
    const dg::World world = demo();
    const dg::Map& map = world.map("pump_house");
    const dg::Regions blocked = dg::blocked_area(world, map, world.player(), dg::StoreyId::ground);
    const auto stands = [&](int x, int y) {
        return dg::intersect(blocked, dg::moved(world.mover(world.player()).body, {x * 256, y * 256})).empty();
    };
    for (int x = 100; x < 220; ++x) CHECK(stands(x, 107));   // feet in the middle of the planks
    CHECK_FALSE(stands(160, 80));                            // in the pool
    CHECK_FALSE(stands(160, 100));                           // in the rail
}

TEST_CASE("setting up again does nothing") {
    const process::Outcome outcome = process::run("scripts/setup");
    CHECK(outcome.code == 0);
    CHECK(outcome.out.find("packages are installed") != std::string::npos);
}

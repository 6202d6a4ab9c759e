// What a game makes of objects and events, by their kinds and names.
#include "dryground/spawners.hpp"

#include <catch2/catch.hpp>

#include <nlohmann/json.hpp>

#include "dryground/files.hpp"
#include "dryground/triggers.hpp"
#include "shore.hpp"

using namespace dryground;

TEST_CASE("objects become a game's things, and what has no function is reported", "[spawners]") {
    const World world = worlds::world_of(
        worlds::with(worlds::shore(), "world.toml", "stands = \"feet\"\n\n[kinds.chest]",
                     "stands = \"feet\"\ntags = [\"foe\"]\nprops.patrol_px = { type = \"whole\", default = 32 "
                     "}\nprops.shy = { type = \"yes_no\", default = true }\n\n[kinds.chest]"));
    const Play play(world, "flat");
    std::string made;
    Spawners spawners;
    spawners.on_tagged("foe", [&](const Spawned& foe) {
        made += fmt::format("{} '{}' at {} m, patrols {} m, shy {}", foe.kind().name, foe.name(), foe.at_m()[0],
                            foe.metres("patrol_px"), foe.yes_no("shy"));
        CHECK(foe.at_m()[1] == -3);   // y up
        CHECK(foe.mover()->name == "warden");
        CHECK(foe.is_tagged("foe"));
        CHECK_THROWS_WITH(foe.number("patrol"), Catch::Contains("has no property 'patrol'; it has patrol_px, shy"));
        CHECK_THROWS_WITH(foe.text("shy"), Catch::Contains("is no text but of type yes_no"));
        return foe.object() != ObjectId::none;
    });
    spawners.on("gull", [](const Spawned&) { return true; });
    SpawnReport report = spawners.spawn(play);
    CHECK(made == "crab 'crab_a' at 9.5 m, patrols 2 m, shy true");
    CHECK(report.made.at("crab") == 1);
    CHECK(text(report) ==
          "no function for kind 'chest': 1 not made\na function for 'gull', which the world does not have\n");
    spawners.on("chest", [](const Spawned&) { return false; });
    report = spawners.spawn(play);
    CHECK(report.refused.at("chest") == 1);
    CHECK_FALSE(report.is_complete());
    made.clear();
    CHECK_FALSE(
        spawners.make(play, "crab", {16, 48}, {{"patrol_px", Value{std::int64_t{64}}}}));   // as its function says
    CHECK(made == "crab '' at 1 m, patrols 4 m, shy true");
    CHECK_THROWS_AS(spawners.make(play, "gull", {0, 0}), std::out_of_range);
    CHECK_THROWS_AS(spawners.make(play, "crab", {0, 0}, {{"patrol", Value{}}}), std::out_of_range);
}

TEST_CASE("events run by name, and those without a function are listed", "[spawners]") {
    const World world = worlds::world_of(worlds::shore());
    Events events;
    int rung = 0;
    events.on("ring_bell",
              [&](const Firing& firing) { rung += static_cast<int>(firing.object) + static_cast<int>(firing.body); });
    CHECK(events.run(world, {.body = 1, .object = ObjectId{4}, .event = EventId{0}}));
    CHECK(rung == 5);
    CHECK(events.run(world, Firing{}));   // without an event
    CHECK(events.run(world, EventId{0}));
    CHECK(rung == 4);
    CHECK(events.run(world, EventId::none));
    CHECK(events.missing(world).empty());
    events.on("sing", [](const Firing&) {});
    CHECK(events.surplus(world) == std::vector<std::string>{"sing"});
    CHECK(Events().missing(world) == std::vector<std::string>{"ring_bell"});
    CHECK_FALSE(Events().run(world, EventId{0}));
}

TEST_CASE("a spawned thing reports its middle, size and turn, as it was drawn; a pack reports the same in its own unit",
          "[spawners]") {
    const World world = worlds::world_of(worlds::with(worlds::shore(), "flat.toml", "objects = [",
                                                      "objects = [\n  { name = \"raft\", kind = \"chest\", box = [32, "
                                                      "16, 48, 8], turn = 30 },\n  { name = \"signpost\", "
                                                      "kind = \"crab\", at = [80, 32], turn = 90 },"));
    const Play play(world, "flat");
    int seen = 0;
    Spawners spawners;
    const auto look = [&](const Spawned& thing) {
        if (thing.name() == "raft") {
            ++seen;
            CHECK(thing.size_px() == std::array<double, 2>{48, 8});
            CHECK(thing.size_m()[0] == Approx(48 / world.per_metre()));
            CHECK(thing.middle_px().x == Approx(56));
            CHECK(thing.middle_px().y == Approx(20));
            CHECK(thing.middle_m()[1] == Approx(-20 / world.per_metre()));
            CHECK(thing.turn_degrees() == 30);
            CHECK(static_cast<double>(twice_area(thing.area())) / 2 / 65536 == Approx(48 * 8).epsilon(0.01));
        }
        if (thing.name() == "signpost") {
            ++seen;
            CHECK(thing.turn_degrees() == 90);
            CHECK(thing.middle_px().x == 80);
        }
        return true;
    };
    spawners.on("chest", look).on("crab", look);
    (void)spawners.spawn(play);
    CHECK(seen == 2);

    for (const bool y_up : {false, true}) {
        PackOutput packing;
        packing.unit = Unit::m, packing.y = y_up ? YAxis::up : YAxis::down;
        const std::string bytes = pack_bytes(world, packing);
        const auto tree = nlohmann::json::parse(bytes);
        for (const auto& object : tree["maps"][0]["objects"]) {
            if (object["name"] != "raft") continue;
            ++seen;
            const auto& placed = object["placed"];
            CHECK(object["turn"] == 30.0);
            CHECK(object["size_px"] == nlohmann::json({48.0, 8.0}));
            CHECK(placed["size"][0].get<double>() == Approx(48 / world.per_metre()));
            CHECK(placed["middle"][1].get<double>() == Approx((y_up ? -20 : 20) / world.per_metre()));
            double area = 0;   // positive: the solid is on the left, whichever way y points
            const auto& ring = placed["area"][0]["outline"];
            for (std::size_t i = 0; i < ring.size(); ++i) {
                const auto &a = ring[i], &b = ring[(i + 1) % ring.size()];
                area += (a[0].get<double>() * b[1].get<double>() - b[0].get<double>() * a[1].get<double>()) / 2;
            }
            CHECK(area == Approx(48 * 8 / world.per_metre() / world.per_metre()).epsilon(0.01));
        }
        // Read back it is turned once, not twice.
        const Result<Pack> again = read_pack(bytes);
        REQUIRE(again);
        const Map& map = again->world().maps()[0];
        const Object& raft = map.object(map.find_object("raft"));
        const Map& was = world.maps()[0];
        const Object& before = was.objects[static_cast<std::size_t>(was.find_object("raft"))];
        CHECK(raft.area == before.area);
        CHECK(raft.turn == 30);
        CHECK(raft.size == before.size);
        CHECK(raft.middle == before.middle);
        CHECK(pack_bytes(again->world(), packing) == bytes);
    }
    CHECK(seen == 4);
}

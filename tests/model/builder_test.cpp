// Worlds built in code: the same checks as for files, findings that name the thing.
// Also tests src/model: maker make_maps make_shapes make_vocabulary contacts world
#include <catch2/catch.hpp>

#include "dryground/builder.hpp"
#include "dryground/check.hpp"
#include "dryground/contacts.hpp"
#include "dryground/merge.hpp"
#include "model/orientation_internal.hpp"
#include "worlds.hpp"

using namespace dryground;

namespace {

WorldBuilder small_builder() {
    WorldDraft world;
    world.title = "Built";
    world.player = Name("warden");
    world.start = Name("flat/landing");
    world.barriers = {{"earth", "", {}}, {"brine", "", {}}};
    MoverDraft warden;
    warden.name = "warden";
    warden.body = {BoxPx{0, 0, 10, 14}, 0, -7, {}};
    warden.stopped_by = {"earth"};
    world.movers = {warden};

    TileSetDraft marsh;
    marsh.name = "marsh";
    TileDraft peat;
    peat.name = "peat";
    peat.unseen = true;
    peat.barrier = Name("earth");
    peat.shapes = {ShapeDraft{WholeCell{}, {}, {}, {}, {}, {}}};
    marsh.tiles = {peat};

    MapDraft flat;
    flat.name = "flat";
    flat.size = std::array<int, 2>{3, 2};
    flat.tilesets = {"marsh"};
    flat.legend = {{"#", "peat", {}, {}}};
    LayerDraft ground;
    ground.name = "ground";
    ground.rows = {"...", "###"};
    LayerDraft people;
    people.name = "people";
    people.holds_objects = true;
    ObjectDraft landing;
    landing.name = "landing";
    landing.kind = "spawn";
    landing.form = PointPx{24, 16};
    people.objects = {landing};
    flat.layers = {ground, people};

    WorldBuilder builder;
    builder.world(world).tileset(marsh).map(flat);
    return builder;
}

}   // namespace

TEST_CASE("a world built in code is checked like one from files") {
    const Result<World> built = small_builder().build();
    INFO(text(built.report()));
    REQUIRE(built);
    const Report report = check(*built);
    REQUIRE(report.findings().size() == 2);   // of what this small world leaves out
    CHECK(rule_text(report.findings()[0].rule).name == "barrier-unmet");
    CHECK(rule_text(report.findings()[1].rule).name == "leak");
    CHECK(report.findings()[1].place.thing == "map 'flat'");
    const Map& flat = built->map("flat");
    CHECK(merge(*built, flat).group("earth").regions == Regions{box_region({0, 16 * 256}, {48 * 256, 32 * 256})});
    CHECK(flat.objects[0].position == Point{24 * 256, 16 * 256});
}

TEST_CASE("findings of a built world name the thing in place of a file") {
    WorldBuilder builder = small_builder();
    MapDraft bad;
    bad.name = "cave";
    bad.size = std::array<int, 2>{2, 1};
    bad.tilesets = {"marsh"};
    LayerDraft layer;
    layer.name = "ground";
    layer.rows = {"#?"};
    bad.layers = {layer};
    bad.legend = {{"#", "peet", {}, {}}};
    const Result<World> built = builder.map(bad).build();
    REQUIRE_FALSE(built);
    CHECK(worlds::rules_and_places(built.report()) ==
          std::vector<std::string>{"unknown-name at map 'cave'", "legend-missing at map 'cave', layer 'ground'"});
    CHECK_THROWS_AS(*built, std::logic_error);
}

TEST_CASE("asking for a map that is not there names the nearest") {
    const Result<World> built = small_builder().build();
    CHECK(built->find_map("flt") == MapId::none);
    CHECK_THROWS_WITH(built->map("flt"), Catch::Contains("'flt'") && Catch::Contains("'flat'"));
}

TEST_CASE("a builder's own notes come back, and errors among them stop it") {
    WorldBuilder builder = small_builder();
    Finding finding;
    finding.rule = Rule::file_missing;
    finding.arguments = {"sea.png", "there is no such file"};
    const Result<World> built = builder.note(finding).build();
    CHECK_FALSE(built);
    CHECK(built.report().findings().size() == 1);
}

TEST_CASE("flips and turns keep their laws") {
    const Regions shape{{{{0, 0}, {4096, 1024}, {512, 4096}}, {}}};
    const auto apply = [&](const Regions& area, bool x, bool y, int turn_degrees) {
        return unite(detail::oriented(area, 4096, 4096, {x, y, static_cast<std::int16_t>(turn_degrees)}));
    };
    const Regions plain = unite(shape);
    CHECK(apply(apply(shape, true, false, 0), true, false, 0) == plain);
    CHECK(apply(apply(shape, false, true, 0), false, true, 0) == plain);
    CHECK(apply(shape, true, true, 0) == apply(shape, false, false, 180));
    Regions turned = shape;
    for (int i = 0; i < 4; ++i) turned = apply(turned, false, false, 90);
    CHECK(turned == plain);
    CHECK(apply(apply(shape, false, false, 90), false, false, 270) == plain);
    CHECK(apply(shape, true, false, 90) ==
          apply(apply(shape, true, false, 0), false, false, 90));   // the flip comes first
    // clockwise: what is at the top goes right
    CHECK(apply({box_region({0, 0}, {4096, 512})}, false, false, 90) == Regions{box_region({3584, 0}, {4096, 4096})});
    const Sides sides{{Passage::shut, Passage::in, Passage::open, Passage::out}};
    CHECK(detail::oriented(sides, {false, false, 90}).of ==
          std::array<Passage, 4>{Passage::out, Passage::shut, Passage::in, Passage::open});
    CHECK(detail::oriented(sides, {true, false, 0}).of ==
          std::array<Passage, 4>{Passage::shut, Passage::out, Passage::open, Passage::in});
}

TEST_CASE("the contact table lets those meet that stop or meet each other, and nobody else") {
    worlds::Files files =
        worlds::with(worlds::small_world(), "world.toml", "[facts]",
                     "[movers.crab]\nbody = { circle = 5 }\nstopped_by = [\"earth\"]\nmeets = "
                     "[\"warden\"]\n[movers.gull]\nbody = { box = [4, 4] }\nstopped_by = []\n[facts]");
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const ContactTable table = contact_table(*loaded);
    const auto &earth = table.barriers[0], &brine = table.barriers[1];
    const auto &warden = table.movers[0], &crab = table.movers[1], &gull = table.movers[2];
    CHECK(table.bits == 6);
    CHECK(meet(warden, earth));
    CHECK(meet(warden, brine));
    CHECK(meet(crab, earth));
    CHECK_FALSE(meet(crab, brine));
    CHECK(meet(warden, crab));   // said by the crab alone, it holds for both
    CHECK_FALSE(meet(gull, warden));
    CHECK_FALSE(meet(gull, earth));
    CHECK_FALSE(meet(earth, brine));
    for (const ContactBits& mover : table.movers) CHECK(meet(mover, table.triggers));
}

// Where objects stand and what they cover, however they were placed.
// Also tests src/model: make_objects
#include <catch2/catch.hpp>

#include "worlds.hpp"

using namespace dryground;

namespace {

constexpr std::int32_t px = steps_per_px;

// The one object of a world whose line says `rest`, of a kind with the given keys.
Object placed(const std::string& rest, const std::string& kind_keys = "role = \"entity\"") {
    worlds::Files files = worlds::with(worlds::small_world(), "world.toml", "[kinds.crab]",
                                       "[kinds.it]\n" + kind_keys + "\n[kinds.crab]");
    files = worlds::with(files, "flat.toml", "  { name = \"crab_a\", kind = \"crab\", at = [40, 48] },\n",
                         "  { name = \"it\", kind = \"it\", " + rest + " },\n");
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const Map& map = loaded->map("flat");
    return map.object(map.find_object("it"));
}

}   // namespace

TEST_CASE("a point is where it says; a cell's object stands in its middle or at its feet") {
    CHECK(placed("at = [12.5, -3]").position == Point{12 * px + px / 2, -3 * px});
    CHECK(placed("cell = [2, 1]").position == Point{40 * px, 24 * px});
    CHECK(placed("cell = [2, 1]", "role = \"entity\"\nstands = \"feet\"").position == Point{40 * px, 32 * px});
    CHECK(placed("cell = [2, 1]").cell == Cell{2, 1});
    CHECK(placed("cell = [2, 1]").area.empty());   // an entity on a cell covers nothing of itself
    CHECK(placed("cells = [0, 1, 3, 2]").position == Point{24 * px, 32 * px});
}

TEST_CASE("what senses or blocks covers its cell, unless its kind has an area") {
    const Regions cell{box_region({32 * px, 16 * px}, {48 * px, 32 * px})};
    CHECK(placed("cell = [2, 1]", "role = \"trigger\"").area == cell);
    CHECK(placed("cell = [2, 1], barrier = \"earth\"", "role = \"solid\"").area == cell);
    const Object with_area = placed("cell = [2, 1]", "role = \"trigger\"\narea = { box = [-2, -2, 4, 4] }");
    CHECK(with_area.area == Regions{box_region({38 * px, 22 * px}, {42 * px, 26 * px})});
    CHECK(placed("cells = [2, 1, 1, 1]", "role = \"trigger\"\narea = { box = [-2, -2, 4, 4] }").area ==
          cell);   // what is drawn stands over the kind's
}

TEST_CASE("drawn shapes are areas in map px, turned clockwise about their middle") {
    CHECK(placed("box = [4, 8, 16, 8]").area == Regions{box_region({4 * px, 8 * px}, {20 * px, 16 * px})});
    CHECK(placed("box = [4, 8, 16, 8]").position == Point{12 * px, 12 * px});
    CHECK(unite(placed("box = [4, 8, 16, 8], turn = 90").area) ==
          Regions{box_region({8 * px, 4 * px}, {16 * px, 20 * px})});
    // a triangle that points up points right after a quarter turn clockwise
    const Regions turned = unite(placed("polygon = [[0, 16], [8, 0], [16, 16]], turn = 90").area);
    CHECK(turned == Regions{{{{0, 0}, {16 * px, 8 * px}, {0, 16 * px}}, {}}});
    const Object circle = placed("circle = [40, 20, 6]");
    CHECK(*bounds(circle.area) == Bounds{{34 * px, 14 * px}, {46 * px, 26 * px}});
    CHECK(*bounds(placed("ellipse = [40, 20, 6, 3]").area) == Bounds{{34 * px, 17 * px}, {46 * px, 23 * px}});
}

TEST_CASE("painted kinds become unnamed objects on their cells") {
    worlds::Files files = worlds::with(worlds::small_world(), "flat.toml", "\"/\" = \"bank\"",
                                       "\"/\" = \"bank\", \"c\" = { kind = \"crab\" }");
    files = worlds::with(files, "flat.toml", "......\n......\n", "......\n.c.c..\n");
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const Map& map = loaded->map("flat");
    REQUIRE(map.objects.size() == 4);
    CHECK(map.objects[0].name.empty());
    CHECK(map.objects[0].cell == Cell{1, 1});
    CHECK(map.objects[1].position == Point{56 * px, 24 * px});
    CHECK(map.objects[0].place.line == 13);
    CHECK(map.objects[1].place.column == 4);
    CHECK(map.placed(map.layers[0], 1, 1).tile == -1);   // the cell itself stays empty
}

TEST_CASE("who sets a trigger off is the map's player, unless it names others") {
    const Object by_default = placed("box = [0, 0, 8, 8]", "role = \"trigger\"");
    CHECK(by_default.by == std::vector{MoverId{0}});
    CHECK(by_default.fires == Fires::enter);
    const Object said = placed(
        "box = [0, 0, 8, 8], fires = \"leave\", once = true, every_s = 0.5, gives = [\"has_key\"], runs = \"ring\"",
        "role = \"trigger\"");
    CHECK(said.fires == Fires::leave);
    CHECK(said.once);
    CHECK(said.every_s == 0.5);
    CHECK(said.gives == std::vector{FactId{0}});
    CHECK(said.runs == EventId{0});
}

TEST_CASE("a line is no area for a carve or a kind, and only lines are one-way") {
    const auto wrong = [](const worlds::Files& files, Rule rule) {
        return worlds::of_rule(worlds::all_findings(files), rule).size();
    };
    CHECK(wrong(worlds::with(worlds::small_world(), "marsh.toml", "box = [0, 4, 16, 8] }]",
                             "line = [[0, 4], [16, 4]] }]"),
                Rule::out_of_range) == 1);
    CHECK(wrong(worlds::with(worlds::small_world(), "world.toml", "mover = \"warden\"\nprops",
                             "mover = \"warden\"\narea = { line = [[0, 0], [4, 4]] }\nprops"),
                Rule::out_of_range) == 1);
    CHECK(wrong(worlds::with(worlds::small_world(), "marsh.toml", "[16, 16]] }]", "[16, 16]], one_way = \"up\" }]"),
                Rule::unknown_key) == 1);
}

namespace {

// A shell that everyone may pick up, once, while the tide is out; and one that says otherwise.
worlds::Files with_shells() {
    worlds::Files files = worlds::with(worlds::with(worlds::small_world(), "world.toml", "has_key = \"the key\"",
                                                    "has_key = \"the key\"\nopen = \"\"\nwet = \"\""),
                                       "world.toml", "ring = \"rings\"", "ring = \"rings\"\nhum = \"\"");
    files["world.toml"] +=
        "\n[kinds.shell]\nrole = \"solid\"\nfires = \"bump\"\nby = [\"warden\"]\nonce = true\nevery_s = 2\nruns = "
        "\"ring\"\ngives = [\"open\"]\nneeds = [\"open\"]\nwhen = [\"open\"]\nunless = [\"wet\"]\nbarrier = "
        "\"earth\"\nsurface = { friction = 0.5 }\n[kinds.whelk]\nlike = \"shell\"\nonce = false\n";
    return files;
}

}   // namespace

TEST_CASE("what a kind says of its objects holds for those that say nothing themselves") {
    worlds::Files files = with_shells();
    files["flat.toml"] +=
        "[[layers]]\nname = \"shells\"\nobjects = [{ name = \"plain\", kind = \"shell\", box = [0, 0, 8, 8] }, { name "
        "= \"own\", kind = \"shell\", box = [0, 16, 8, 8], fires = \"use\", by = [], once = false, every_s = 0, runs = "
        "\"hum\", gives = [], needs = [], when = [], unless = [], surface = { friction = 1 } }, { name = \"like\", "
        "kind = "
        "\"whelk\", box = [32, 0, 8, 8] }]\n";
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const World& world = *loaded;
    const Map& map = world.map("flat");
    const auto object = [&](const char* name) { return map.object(map.find_object(name)); };
    const Object plain = object("plain"), own = object("own"), like = object("like");
    const FactId open = world.find_fact("open"), wet = world.find_fact("wet");
    CHECK(plain.fires == Fires::bump);
    CHECK(plain.by == std::vector{world.find_mover("warden")});
    CHECK((plain.once && plain.every_s == 2 && plain.runs == world.find_event("ring")));
    CHECK(plain.gives == std::vector{open});
    CHECK(plain.needs == std::vector{open});
    CHECK(plain.when == std::vector{open});
    CHECK(plain.unless == std::vector{wet});
    CHECK(plain.barrier == world.find_barrier("earth"));
    CHECK(plain.surface == Surface{0.5, std::nullopt});
    CHECK(own.fires == Fires::use);
    CHECK((!own.once && own.every_s == 0 && own.runs == world.find_event("hum")));
    CHECK((own.gives.empty() && own.needs.empty() && own.when.empty() && own.unless.empty()));
    CHECK(own.surface == Surface{1, std::nullopt});
    CHECK((!like.once && like.fires == Fires::bump && like.unless == plain.unless));
    // A wrong value is reported once, where it is written.
    const Report wrong =
        worlds::all_findings(worlds::with(files, "world.toml", "gives = [\"open\"]", "gives = [\"opn\"]"));
    REQUIRE(worlds::of_rule(wrong, Rule::unknown_name).size() == 1);
    CHECK(worlds::of_rule(wrong, Rule::unknown_name)[0]->place.file == "world.toml");
}

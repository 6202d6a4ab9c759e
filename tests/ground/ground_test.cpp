// Keys that shape the ground, each seen by the merge, by contacts, by steps and by triggers alike.
// Also tests src/ground: object_parts passability presence reshaped tile_parts
// Also tests src/play: filled_holes
#include <catch2/catch.hpp>

#include "dryground/merge.hpp"
#include "dryground/probe.hpp"
#include "dryground/triggers.hpp"
#include "worlds.hpp"

using namespace dryground;
using worlds::Files;
using worlds::with;
using worlds::world_of;

namespace {

// The small world's map with other rows, and keys of its layer of cells. `marsh`: more tiles, `legend`: their keys.
Files ground(const std::string& rows, const std::string& keys, const std::string& marsh = "",
             const std::string& legend = "") {
    Files files = with(worlds::small_world(), "flat.toml", "......\n......\n..../#\n######\n", rows);
    files = with(files, "flat.toml", "name = \"ground\"\n", "name = \"ground\"\n" + keys);
    files = with(files, "flat.toml", "\"/\" = \"bank\"", "\"/\" = \"bank\"" + legend);
    files = with(files, "flat.toml", "rim = \"earth\"\n", "");
    return with(files, "marsh.toml", "[tiles.brine]", marsh + "[tiles.brine]");
}
Files with_layer(const Files& files, const std::string& layer) {
    return with(files, "flat.toml", "[[layers]]\nname = \"people\"", layer + "\n[[layers]]\nname = \"people\"");
}
Files with_loft(const Files& files) {
    return with(files, "world.toml", "[facts]", "[storeys]\nloft = { base_px = 32, height_px = 32 }\n[facts]");
}
constexpr const char* none = "......\n......\n......\n......\n";

// The area of a barrier on a storey, in px.
double area(const World& world, const std::string& barrier = "earth", const std::string& storey = "ground",
            const Facts& facts = {}) {
    const Merge merged = merge(world, world.map("flat"), {.facts = facts});
    return static_cast<double>(twice_area(merged.group(barrier, storey).regions)) / 2 / steps_per_px / steps_per_px;
}
bool is_solid(const World& world, PointPx at, const Facts& facts = {}) {
    const std::vector<std::string> lines = Prober(world, world.map("flat"), facts).at(at).solids;
    return std::any_of(lines.begin(), lines.end(), [](const std::string& line) { return line.rfind("no ", 0) != 0; });
}
const char* const plank =
    "[tiles.plank]\nunseen = true\nbarrier = \"earth\"\nshapes = [{ line = [[0, 8], [16, 8]] }]\n";

}   // namespace

TEST_CASE("a layer's one-way direction is the map's, whatever flips and turns its tiles have", "[ground]") {
    for (const char* turned : {"\"plank\"", "{ tile = \"plank\", flip = \"y\" }", "{ tile = \"plank\", turn = 180 }"}) {
        INFO(turned);
        const World world = world_of(ground("......\n......\n.===..\n......\n", "one_way = \"up\"\n", plank,
                                            std::string(", \"=\" = ") + turned));
        const Merge merged = merge(world, world.map("flat"));
        REQUIRE(merged.groups.size() == 1);
        CHECK(merged.groups[0].one_way == OneWay::up);
        const Play play(world, "flat");
        CHECK(play.touched({.point = {40, 40}, .normal = {0, -1}}).size() == 1);   // from above it stops
        CHECK(play.touched({.point = {40, 40}, .normal = {0, 1}}).empty());        // from below it lets through
        CHECK(play.blocked(MoverId{0}, {32, 38}, {32, 58}).by == Blocked::By::tile);
        CHECK_FALSE(play.blocked(MoverId{0}, {32, 62}, {32, 30}));
    }
}

TEST_CASE("the rim stands on every storey of the map, and on ground", "[ground]") {
    Files files = with_loft(ground(none, ""));
    files = with(files, "flat.toml", "size = [6, 4]", "size = [6, 4]\nrim = \"earth\"");
    files = with_layer(
        files, "[[layers]]\nname = \"deck\"\nstorey = \"loft\"\nrows = '''\n......\n......\n......\n......\n'''\n");
    const World world = world_of(files);
    const Play play(world, "flat");
    for (const StoreyId storey : {StoreyId::ground, StoreyId{1}}) {
        INFO("storey " << index(storey));
        CHECK(area(world, "earth", world.storey(storey).name) == 24 * 16 * 16);
        CHECK(play.blocked(MoverId{0}, {16, 48}, {-20, 48}, storey).by == Blocked::By::rim);
        CHECK(play.touched({.point = {0, 32}, .normal = {1, 0}, .storey = storey}).size() == 1);
    }
}

TEST_CASE("what sinks is sunk for bodies, contacts and probes too, also after a change beside it", "[ground]") {
    const World world = world_of(ground("......\n......\n..##..\n..##..\n", "sink = [0, 6, 0, 0]\n"));
    CHECK(area(world) == 32 * 26);
    CHECK_FALSE(is_solid(world, {40, 36}));
    CHECK(is_solid(world, {40, 40}));
    CHECK(is_solid(world, {40, 48}));   // never between neighbours
    Play play(world, "flat");
    CHECK(play.blocked(MoverId{0}, {40, 20}, {40, 60}).place.y == Approx(38));
    CHECK(play.touched({.point = {40, 38}, .normal = {0, -1}}).size() == 1);
    CHECK(play.touched({.point = {40, 32}, .normal = {0, -1}}).empty());
    play.clear(LayerId{0}, {2, 2});
    CHECK(play.blocked(MoverId{0}, {45, 20}, {45, 60}).place.y == Approx(38));   // 10 px wide, beside the other one
    CHECK(play.blocked(MoverId{0}, {37, 20}, {37, 60}).place.y == Approx(54));   // what lay below is on top now
}

TEST_CASE("what grows is grown for bodies, contacts and probes too, also after a change beside it", "[ground]") {
    const World world = world_of(ground("......\n......\n..##..\n..##..\n", "grow = { px = 3, corners = \"box\" }\n"));
    CHECK(area(world) == 38 * 38);
    CHECK(is_solid(world, {40, 30}));
    CHECK(is_solid(world, {30, 30}));
    Files blocked = ground("......\n......\n......\n######\n", "grow = { px = 3, corners = \"box\" }\n");
    const std::string told = text(worlds::all_findings(blocked));   // who stood on the ground is in it now
    INFO(told);
    CHECK(told.find("3 px inside solid ground") != std::string::npos);
    CHECK(told.find("in the way: what layer 'ground' grows or fills") != std::string::npos);
    CHECK_FALSE(is_solid(world, {28, 30}));
    Play play(world, "flat");
    CHECK(play.blocked(MoverId{0}, {40, 15}, {40, 60}).place.y == Approx(29));
    const Touches touched = play.touched({.point = {40, 29}, .normal = {0, -1}});
    REQUIRE(touched.size() == 1);
    CHECK(touched[0].cell == Cell{2, 2});
    play.clear(LayerId{0}, {2, 2});
    CHECK(play.blocked(MoverId{0}, {37, 15}, {37, 60}).place.y == Approx(45));   // 3 px above what lay below
    CHECK(play.blocked(MoverId{0}, {30, 40}, {60, 40}).place.x == Approx(40));   // its neighbour grows to there now
}

TEST_CASE("what is filled is ground for bodies and probes too, and opens when its wall goes", "[ground]") {
    const World world = world_of(ground(".###..\n.#.#..\n.###..\n......\n", "fill_holes = true\n"));
    CHECK(area(world) == 48 * 48);
    CHECK(is_solid(world, {40, 24}));
    Play play(world, "flat");
    const auto is_open = [&](PointPx from, PointPx to) { return !play.blocked(MoverId{0}, from, to); };
    CHECK_FALSE(is_open({40, 31}, {40, 30.5}));   // its body is in what is filled
    play.clear(LayerId{0}, {2, 2});
    CHECK(is_open({40, 62}, {40, 31}));   // from below into what was a hole
    CHECK_FALSE(is_open({40, 31}, {60, 31}));
    play.set_tile(LayerId{0}, {2, 2}, world.map("flat").placed(world.map("flat").layers[0], 1, 0));
    CHECK_FALSE(is_open({40, 31}, {40, 30.5}));
}

TEST_CASE("a carve in a trigger layer counts like any other", "[ground]") {
    Files files = ground("......\n......\n......\n..bb..\n", "", "", ", \"b\" = \"brine\", \"_\" = \"boardwalk\"");
    files = with_layer(
        files,
        "[[layers]]\nname = \"bridge\"\ntrigger = \"planks\"\nrows = '''\n......\n......\n......\n.._...\n'''\n");
    const World world = world_of(files);
    CHECK(area(world, "brine") == 2 * 16 * 16 - 16 * 8);
    CHECK_FALSE(is_solid(world, {40, 56}));
    CHECK(is_solid(world, {56, 56}));
}

TEST_CASE("a decor layer's solids and carves count for nothing", "[ground]") {
    Files files = ground("......\n......\n..bb..\n..bb..\n", "", "", ", \"b\" = \"brine\"");
    files = with(files, "flat.toml", "name = \"people\"", "name = \"people\"\ndecor = true");
    files =
        with(files, "flat.toml", "objects = [",
             "objects = [\n{ name = \"wall\", kind = \"solid\", barrier = \"earth\", box = [0, 0, 16, 16], carves = "
             "[{ barrier = \"brine\", box = [32, 32, 32, 32] }] },");
    const World world = world_of(files);
    CHECK(area(world) == 0);
    CHECK(area(world, "brine") == 32 * 32);
    CHECK_FALSE(is_solid(world, {8, 8}));
    CHECK(is_solid(world, {40, 40}));
}

TEST_CASE("a hollow solid reaches to the outer edge of the rim's ring, on boxes that are not square and on diamonds",
          "[ground]") {
    for (const char* grid : {"", "grid = \"isometric\"\n"}) {
        INFO(grid);
        Files files = with(ground(none, ""), "flat.toml", "cell = [16, 16]", std::string(grid) + "cell = [16, 8]");
        files = with(files, "marsh.toml", "cell = [16, 16]", "cell = [16, 8]");
        files = with(
            files, "flat.toml", "objects = [",
            "objects = [\n{ name = \"shore\", kind = \"solid\", hollow = true, barrier = \"earth\", box = [0, 8, 16, "
            "8] },");
        const World world = world_of(files);
        const Map& map = world.map("flat");
        const double cell = *grid == '\0' ? 16 * 8 : 16 * 8 / 2;
        CHECK(area(world) == 8 * 6 * cell - 16 * 8);
        const PointPx top{to_px(map.corner(-1, -1).x), to_px(map.corner(-1, -1).y)};
        CHECK(is_solid(world, {top.x + (*grid == '\0' ? 0.5 : 0), top.y + 0.5}));
        CHECK_FALSE(is_solid(world, {top.x, top.y - 0.5}));
        CHECK_FALSE(is_solid(world, {8, 12}));
    }
}

TEST_CASE(
    "a trigger tile fires where its shape lies, offsets and all, and with a layer's trigger just where its shapes do",
    "[ground]") {
    const std::string bell =
        "[tiles.bell]\nunseen = true\nbarrier = \"earth\"\nshapes = [{ box = [4, 4, 8, 8]SENSES }]\nreacts = [{ fires "
        "= "
        "\"enter\", runs = \"ring\" }]\n";
    const auto fires_at = [&](const std::string& keys, const std::string& senses, PointPx at) {
        const World world =
            world_of(ground("......\n.o....\n......\n......\n", keys,
                            std::string(bell).replace(bell.find("SENSES"), 6, senses), ", \"o\" = \"bell\""));
        Play play(world, "flat");
        TriggerTracker tracker(play);
        const BodyNow body{1, MoverId{0}, at};   // 10 px wide, 14 high, its position in the middle below
        return tracker.update(0.1, std::span(&body, 1)).size() == 1;
    };
    const std::string steam = ", trigger = \"steam\"", fog = "trigger = \"fog\"\n";
    CHECK(fires_at("", steam, {24, 28}));
    CHECK_FALSE(fires_at("", steam, {24, 18}));
    CHECK(fires_at("shape_offset = [0, 24]\n", steam, {24, 52}));
    CHECK_FALSE(fires_at("shape_offset = [0, 24]\n", steam, {24, 28}));
    CHECK(fires_at("offset = [40, 0]\n", steam, {64, 28}));   // further than a cell
    CHECK(fires_at(fog, "", {24, 28}));
    CHECK_FALSE(fires_at(fog, "", {24, 20}));
}

TEST_CASE("lines stop steps, and those that are carved away stop nothing", "[ground]") {
    const std::string fence =
        "[tiles.fence]\nunseen = true\nbarrier = \"earth\"\nshapes = [{ line = [[8, 0], [8, 16]] }]\n"
        "[tiles.cutter]\nunseen = true\nshapes = []\ncarves = [{ barrier = \"earth\" }]\n";
    const std::string legend = ", \"|\" = \"fence\", \"x\" = \"cutter\"";
    const Files files =
        with(ground("......\n......\n..|...\n......\n", "", fence, legend), "world.toml",
             "body = { box = [10, 14], at = [0, -7] }", "body = { box = [6, 6], at = [0, 0] }\nmoves = \"steps\"");
    const Play play(world_of(files), "flat");
    CHECK(play.may_step(MoverId{0}, {0, 2}, {1, 2}));
    CHECK_FALSE(play.may_step(MoverId{0}, {1, 2}, {2, 2}));
    CHECK(play.may_step(MoverId{0}, {3, 2}, {4, 2}));
    CHECK(play.blocked(MoverId{0}, {24, 40}, {56, 40}).by == Blocked::By::tile);
    const Play open(
        world_of(with_layer(files, "[[layers]]\nname = \"gap\"\nrows = '''\n......\n......\n..x...\n......\n'''\n")),
        "flat");
    CHECK(open.may_step(MoverId{0}, {1, 2}, {2, 2}));
    CHECK_FALSE(open.blocked(MoverId{0}, {24, 40}, {56, 40}));
}

TEST_CASE("on diamonds what blocks is reported with the side that is met, and of an object with the cell where",
          "[ground]") {
    Files files = with(ground("......\n..#...\n......\n......\n", ""), "flat.toml", "cell = [16, 16]",
                       "grid = \"isometric\"\ncell = [16, 8]");
    files = with(files, "marsh.toml", "cell = [16, 16]", "cell = [16, 8]");
    files =
        with(files, "world.toml", "body = { box = [10, 14], at = [0, -7] }", "body = { box = [2, 2], at = [0, 0] }");
    files = with(files, "flat.toml", "objects = [",
                 "objects = [\n{ name = \"post\", kind = \"solid\", barrier = \"earth\", box = [20, 30, 4, 4] },");
    const World world = world_of(files);
    const Play play(world, "flat");
    const PointPx middle = play.middle_of({2, 1});
    const auto side_from = [&](double dx, double dy) {
        return play.blocked(MoverId{0}, {middle.x + 2 * dx, middle.y + 2 * dy}, middle).touch.side;
    };
    CHECK(side_from(8, -4) == 0);
    CHECK(side_from(8, 4) == 1);
    CHECK(side_from(-8, 4) == 2);
    CHECK(side_from(-8, -4) == 3);
    const Blocked post = play.blocked(MoverId{0}, {22, 42}, {22, 31});
    REQUIRE(post.by == Blocked::By::object);
    CHECK(post.cell == play.cell_at({22, 34}));
}

TEST_CASE("what is no number, or far out, is in no cell of the map", "[ground][limits]") {
    const Play play(world_of(worlds::small_world()), "flat");
    for (const double odd :
         {std::numeric_limits<double>::quiet_NaN(), 1e7, -1e7, 1e300, std::numeric_limits<double>::infinity()}) {
        CHECK_FALSE(play.has(play.cell_at({odd, 8})));
        CHECK_FALSE(play.has(play.cell_at({8, odd})));
    }
    // Probe and Play name one cell, however near to a border.
    for (const double near : {16 - 1.0 / 1024, 16.0, 16 + 1.0 / 1024}) {
        const Cell cell = play.cell_at({near, near});
        CHECK(Prober(play.world(), play.map())
                  .at({near, near})
                  .place.find(fmt::format("cell ({}, {})", cell.column, cell.row)) != std::string::npos);
    }
}

TEST_CASE("one use sets off one state of a switch; what fires outlasts calls made while it is gone through",
          "[ground]") {
    const World world = world_of(with(ground(none, ""), "flat.toml", "objects = [",
                                      "objects = [\n{ name = \"on\", kind = \"trigger\", box = [16, 32, 16, 16], fires "
                                      "= \"use\", unless = [\"has_key\"], "
                                      "gives = [\"has_key\"], runs = \"ring\" },\n{ name = \"off\", kind = "
                                      "\"trigger\", box = [16, 32, 16, 16], fires = "
                                      "\"use\", when = [\"has_key\"], runs = \"ring\" },"));
    Play play(world, "flat");
    TriggerTracker tracker(play);
    const BodyNow body{1, MoverId{0}, {24, 46}, StoreyId::ground, true};
    int fired = 0;
    for (const Firing& firing : tracker.update(0.1, std::span(&body, 1))) {
        CHECK(tracker.defeated(ObjectId{0}).empty());
        CHECK(play.map().object(firing.object).name == "on");
        ++fired;
    }
    CHECK(fired == 1);
    CHECK(tracker.update(0.1, std::span(&body, 1)).front().object == ObjectId{1});
}

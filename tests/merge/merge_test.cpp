// Also tests src/merge: stacking forms least_edge
#include <catch2/catch.hpp>

#include "chance.hpp"
#include "merging.hpp"
#include "oracles.hpp"

using namespace dryground;
using merging::in_px;
using merging::merged;
using merging::with_layer;
using merging::with_rows;
using merging::without_rim;
using worlds::Files;

TEST_CASE("tiles become the outline that one would draw, the slope one edge") {
    CHECK(in_px(merged(without_rim()).group("earth").regions) == "[(80,32 96,32 96,64 0,64 0,48 64,48)]");
}

TEST_CASE("the rim is a ring of one cell around the map, one with the ground") {
    const Merge result = merged(worlds::small_world());
    CHECK(in_px(result.group("earth").regions) ==
          "[(-16,-16 112,-16 112,80 -16,80) (0,0 0,48 64,48 80,32 96,32 96,0)]");
    CHECK(result.stats.shapes_in == 12);
    CHECK(result.stats.shapes_left_out == 0);
}

TEST_CASE("a boardwalk carves the brine below it, and no other barrier") {
    Files files = with_rows(without_rim(), "......\n~~~~~~\n######\n######\n");
    files = worlds::with(files, "flat.toml", "\"/\" = \"bank\"", "\"~\" = \"brine\", \"=\" = \"boardwalk\"");
    const std::string bridge = "[[layers]]\nname = \"bridge\"\nrows = '''\n......\n.==...\n.=....\n......\n'''\n";
    const Merge result = merged(with_layer(files, bridge));
    CHECK(in_px(result.group("brine").regions) == "[(0,16 96,16 96,32 0,32) (16,20 16,28 48,28 48,20)]");
    CHECK(in_px(result.group("earth").regions) == "[(0,32 96,32 96,64 0,64)]");
    // brine painted above the boardwalk is not carved by it
    const std::string flood = "[[layers]]\nname = \"flood\"\nrows = '''\n......\n.~....\n......\n......\n'''\n";
    CHECK(in_px(merged(with_layer(with_layer(files, bridge), flood)).group("brine").regions) ==
          "[(0,16 96,16 96,32 0,32) (32,20 32,28 48,28 48,20)]");
}

TEST_CASE("decor collides with nothing; hidden layers do collide") {
    const std::string layer = "[[layers]]\nname = \"more\"\n{}\nrows = '''\n##....\n......\n......\n......\n'''\n";
    CHECK(merged(with_layer(without_rim(), fmt::format(fmt::runtime(layer), "decor = true")))
              .group("earth")
              .regions.size() == 1);
    CHECK(merged(with_layer(without_rim(), fmt::format(fmt::runtime(layer), "shown = false")))
              .group("earth")
              .regions.size() == 2);
}

TEST_CASE("a layer's barrier, trigger and storey hold for what says none itself") {
    const Files open =
        worlds::with(without_rim(), "marsh.toml", "barrier = \"earth\"\nshapes = [\"cell\"]", "shapes = [\"cell\"]");
    const Files brine = worlds::with(open, "flat.toml", "name = \"ground\"", "name = \"ground\"\nbarrier = \"brine\"");
    CHECK(in_px(merged(brine).group("brine").regions) ==
          "[(80,32 96,32 96,64 0,64 0,48 80,48)]");   // without the bank, which is earth
    const Files senses = worlds::with(open, "flat.toml", "name = \"ground\"", "name = \"ground\"\ntrigger = \"tide\"");
    const Merge result = merged(senses);
    REQUIRE(result.groups.size() == 1);
    CHECK(result.groups[0].trigger == "tide");
    CHECK(result.groups[0].barrier == "");
    Files loft =
        worlds::with(worlds::small_world(), "world.toml", "[facts]", "[storeys]\nloft = { base_px = 32 }\n[facts]");
    loft = with_layer(
        loft, "[[layers]]\nname = \"above\"\nstorey = \"loft\"\nrows = '''\n......\n..#...\n......\n......\n'''\n");
    CHECK(in_px(merged(loft).group("earth", "loft").regions).find("[(32,16 48,16 48,32 32,32)]") != std::string::npos);
    CHECK(merged(loft).group("earth", "loft").regions.size() == 2);   // the rim stands there too
}

TEST_CASE("surfaces do not part the ground; chains get a vertex where they change") {
    Files files = worlds::with(without_rim(), "marsh.toml", "[tiles.brine]",
                               "[tiles.ice]\nunseen = true\nbarrier = \"earth\"\nshapes = [{ cell = true, surface = { "
                               "friction = 0.1 } }]\n[tiles.brine]");
    files = worlds::with(files, "flat.toml", "\"/\" = \"bank\"", "\"i\" = \"ice\"");
    const Merge result = merged(with_rows(files, "......\n......\n......\n##ii##\n"));
    const Group& earth = result.group("earth");
    CHECK(in_px(earth.regions) == "[(0,48 96,48 96,64 0,64)]");
    REQUIRE(earth.chains.size() == 1);
    CHECK(in_px(Regions{{earth.chains[0].points, {}}}) == "[(0,48 32,48 64,48 96,48 96,64 64,64 32,64 0,64)]");
    CHECK(earth.chains[0].surfaces == std::vector<int>{0, 1, 0, 0, 0, 1, 0, 0});
    REQUIRE(result.surfaces.size() == 2);
    CHECK(result.surfaces[0] == Surface{});
    CHECK(result.surfaces[1] == Surface{0.1, {}});
}

TEST_CASE("solids are merged with the tiles, turned as drawn; facts keep some away") {
    const char* last = "  { name = \"crab_a\", kind = \"crab\", at = [40, 48] },\n";
    const auto solid = [&](const char* rest) {
        return in_px(merged(worlds::with(without_rim(), "flat.toml", last,
                                         fmt::format("  {{ kind = \"solid\", barrier = \"earth\", {} }},\n", rest)))
                         .group("earth")
                         .regions);
    };
    CHECK(solid("box = [0, 40, 16, 8]") == "[(80,32 96,32 96,64 0,64 0,40 16,40 16,48 64,48)]");
    CHECK(solid("box = [0, 0, 16, 8], turn = 90") == "[(4,-4 12,-4 12,12 4,12)] [(80,32 96,32 96,64 0,64 0,48 64,48)]");
    CHECK(solid("box = [0, 0, 16, 8], when = [\"has_key\"]") == "[(80,32 96,32 96,64 0,64 0,48 64,48)]");
    CHECK(solid("cells = [1, 0, 2, 1], unless = [\"has_key\"]") ==
          "[(16,0 48,0 48,16 16,16)] [(80,32 96,32 96,64 0,64 0,48 64,48)]");
    CHECK(solid("polygon = [[0, 0], [0, 8], [8, 8]]") == "[(0,0 8,8 0,8)] [(80,32 96,32 96,64 0,64 0,48 64,48)]");
}

TEST_CASE("maps of random tiles merge to what independent libraries say, and stay valid") {
    const Files base = without_rim();
    for (int round = 0; round < 80; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(60'000 + static_cast<std::uint64_t>(round));
        const int columns = dice.in(1, 24), rows = dice.in(1, 18);
        const auto random_rows = [&](const char* keys, int empty) {
            std::string text;
            for (int r = 0; r < rows; ++r, text += "\n")
                for (int c = 0; c < columns; ++c) text += dice.once_in(empty) ? keys[dice.in(0, 5)] : '.';
            return text;
        };
        Files files = base;
        files["flat.toml"] = fmt::format(
            "format = \"dryground/map/1\"\nname = \"flat\"\ncell = [16, 16]\nsize = [{}, {}]\ntilesets = "
            "[\"marsh\"]\n[legend]\n\"#\" = \"peat\"\n\"/\" = \"bank\"\n\"1\" = {{ tile = \"bank\", turn = 90 }}\n"
            "\"2\" = {{ tile = \"bank\", flip = \"y\" }}\n\"~\" = \"brine\"\n\"=\" = \"boardwalk\"\n[[layers]]\nname = "
            "\"low\"\nrows = '''\n{}'''\n[[layers]]\nname = \"high\"\nrows = '''\n{}'''\n",
            columns, rows, random_rows("#/12~~", 1), random_rows("==/1~#", 3));
        files = worlds::with(files, "world.toml", "start = \"flat/landing\"\n", "");
        const Result<World> loaded = worlds::load(files);
        INFO(text(loaded.report()));
        REQUIRE(loaded);
        const Map& map = loaded->map("flat");
        const Merge result = merge(*loaded, map);

        // What the two layers say, put together by other means: shapes and carves as plain polygons.
        Regions earth, low_brine, carves, high_brine;
        for (std::size_t l = 0; l < 2; ++l)
            for (int r = 0; r < rows; ++r)
                for (int c = 0; c < columns; ++c) {
                    const Placed& placed = map.placed(map.layers[l], c, r);
                    if (placed.tile < 0) continue;
                    const Tile& tile = loaded->tile(placed);
                    const Point at{c * 4096, r * 4096};
                    for (const Shape& shape : tile.shapes)
                        for (const Region& region : placed_area(map, map.layers[l], shape, c, r))
                            (shape.barrier == BarrierId{0} ? earth : l == 0 ? low_brine : high_brine).push_back(region);
                    if (!tile.carves.empty() && l == 1)
                        carves.push_back(box_region({at.x, at.y + 1024}, {at.x + 4096, at.y + 3072}));
                }
        const Regions& brine = result.group("brine").regions;
        REQUIRE(oracle::broken_promise(result.group("earth").regions) == "");
        REQUIRE(oracle::broken_promise(brine) == "");
        REQUIRE(static_cast<double>(twice_area(result.group("earth").regions)) / 2 == oracle::boost_union_area(earth));
        const oracle::Tally tally = oracle::geos_union(earth);
        REQUIRE(result.group("earth").regions.size() == tally.regions);
        // brine: the low layer less the carves, then the high layer added; counted apart where they overlap
        Regions rest = low_brine;
        REQUIRE(static_cast<double>(twice_area(subtract(brine, high_brine))) / 2 ==
                oracle::boost_difference_area(unite(rest), unite(carves, high_brine)));
        REQUIRE(subtract(high_brine, brine).empty());
        std::int64_t pieces = 0;
        for (const Group& group : result.groups)
            for (const Ring& piece : group.pieces) pieces += twice_area(piece);
        REQUIRE(pieces == twice_area(result.group("earth").regions) + twice_area(brine));
    }
}

TEST_CASE("the topmost tile that says flags or sides decides, decor never") {
    Files files =
        worlds::with(worlds::small_world(), "flat.toml", "\"/\" = \"bank\"", "\"/\" = \"bank\", \"=\" = \"boardwalk\"");
    files = worlds::with(files, "marsh.toml", "flags = [\"walk\"]", "flags = [\"walk\"]\nsides = { top = \"shut\" }");
    files = with_layer(files, "[[layers]]\nname = \"planks\"\nrows = '''\n=.....\n......\n=.....\n#.....\n'''\n");
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const Map& map = loaded->map("flat");
    CHECK(passability(*loaded, map, {0, 0}, StoreyId::ground).flags == 1);
    CHECK(passability(*loaded, map, {0, 0}, StoreyId::ground).sides.of[0] == Passage::shut);
    CHECK(passability(*loaded, map, {0, 0}, StoreyId::ground).flags_layer == LayerId{1});
    CHECK(passability(*loaded, map, {1, 0}, StoreyId::ground).flags_layer == LayerId::none);
    CHECK(passability(*loaded, map, {0, 3}, StoreyId::ground).flags == 0);
    const Result<World> decor =
        worlds::load(worlds::with(files, "flat.toml", "name = \"planks\"", "name = \"planks\"\ndecor = true"));
    CHECK(passability(*decor, decor->map("flat"), {0, 0}, StoreyId::ground).flags_layer == LayerId::none);
}

TEST_CASE("growing a map to the left and top moves nothing") {
    const Files files = without_rim();
    const Files grown =
        worlds::with(with_rows(worlds::with(files, "flat.toml", "size = [6, 4]", "size = [7, 5]\nfirst = [-1, -1]"),
                               ".......\n.......\n.......\n...../#\n.######\n"),
                     "flat.toml", "legend", "legend");
    CHECK(merged(grown).group("earth").regions == merged(files).group("earth").regions);
}

TEST_CASE("vertices closer than least_edge_px are fused in chains and pieces, never in regions") {
    const auto world_with = [](const char* least) {
        Files files = worlds::with(worlds::small_world(), "world.toml", "[barriers]",
                                   std::string("[merging]\nleast_edge_px = ") + least + "\n[barriers]");
        // A nick of 1 x 1 px in the middle of the top, and a crumb of half a px beside it.
        return worlds::with(files, "flat.toml", "objects = [", R"(objects = [
  { kind = "solid", polygon = [[16, 0], [24, 0], [24, 1], [25, 1], [25, 0], [32, 0], [32, 16], [16, 16]], barrier = "earth" },
  { kind = "solid", box = [40, 8, 0.5, 0.5], barrier = "earth" },)");
    };
    const Merge exact = merging::merged(world_with("0")), fused = merging::merged(world_with("2"));
    const Group &before = exact.group("earth"), &after = fused.group("earth");
    CHECK(after.regions == before.regions);
    const auto shortest = [](const std::vector<Chain>& chains) {
        double least = 1e9;
        for (const Chain& chain : chains)
            for (std::size_t i = 0; i < chain.points.size(); ++i) {
                const Point a = chain.points[i], b = chain.points[(i + 1) % chain.points.size()];
                least = std::min(least, std::hypot(a.x - b.x, a.y - b.y) / steps_per_px);
            }
        return least;
    };
    CHECK(shortest(before.chains) == 0.5);
    CHECK(shortest(after.chains) >= 2);
    CHECK(before.chains.size() == after.chains.size() + 2);   // gone: the crumb, and the nick that the rim closes
    std::int64_t area = 0;
    for (const Ring& piece : after.pieces) area += twice_area(piece);
    CHECK(std::abs(area - twice_area(before.regions)) <= 2 * 2 * 256 * 256);
}

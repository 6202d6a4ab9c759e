// What layers do to what is in them: offsets, sinking, hollow solids, isometric grids.
// Also tests src/merge: loose mover_ground ground_plane
#include <catch2/catch.hpp>

#include <cmath>
#include <thread>

#include "chance.hpp"
#include "merging.hpp"
#include "oracles.hpp"

using namespace dryground;
using merging::in_px;
using merging::merged;
using merging::with_rows;
using merging::without_rim;
using worlds::Files;

namespace {

const char* const crab = "  { name = \"crab_a\", kind = \"crab\", at = [40, 48] },\n";

Files with_ground(const Files& files, const char* settings) {
    return worlds::with(files, "flat.toml", "name = \"ground\"", std::string("name = \"ground\"\n") + settings);
}

}   // namespace

TEST_CASE("a layer's offsets move its shapes and carves, and say so nowhere else") {
    const Files plain = with_rows(without_rim(), "......\n......\n.##...\n......\n");
    CHECK(in_px(merged(plain).group("earth").regions) == "[(16,32 48,32 48,48 16,48)]");
    CHECK(in_px(merged(with_ground(plain, "offset = [3, -2]")).group("earth").regions) ==
          "[(19,30 51,30 51,46 19,46)]");
    CHECK(in_px(merged(with_ground(plain, "offset = [3, 0]\nshape_offset = [1, 4]")).group("earth").regions) ==
          "[(20,36 52,36 52,52 20,52)]");
    // carves move with their layer
    Files river = with_rows(without_rim(), "~~~~~~\n......\n......\n......\n");
    river = worlds::with(river, "flat.toml", "\"/\" = \"bank\"", "\"~\" = \"brine\", \"=\" = \"boardwalk\"");
    river =
        worlds::with(river, "flat.toml", "[[layers]]\nname = \"people\"",
                     "[[layers]]\nname = \"deck\"\nshape_offset = [4, 0]\nrows = '''\n.=....\n......\n......\n......"
                     "\n'''\n[[layers]]\nname = \"people\"");
    CHECK(in_px(merged(river).group("brine").regions) == "[(0,0 96,0 96,16 0,16) (20,4 20,12 36,12 36,4)]");
    // solids: their layer's picture offset moves the object itself
    const Files solid =
        worlds::with(without_rim(), "flat.toml", crab,
                     "  { name = \"wall\", kind = \"solid\", barrier = \"brine\", box = [0, 0, 8, 8] },\n");
    const Files shifted = worlds::with(solid, "flat.toml", "name = \"people\"", "name = \"people\"\noffset = [5, 5]");
    CHECK(in_px(merged(shifted).group("brine").regions) == "[(5,5 13,5 13,13 5,13)]");
    const Result<World> loaded = worlds::load(shifted);
    const Map& map = loaded->map("flat");
    CHECK(map.object(map.find_object("landing")).position == Point{29 * 256, 53 * 256});
}

TEST_CASE("solids sink from the sides that are said, never between neighbours") {
    const Files plain = with_rows(without_rim(), "......\n......\n.##...\n.###..\n");
    CHECK(in_px(merged(with_ground(plain, "sink = [0, 4, 0, 0]")).group("earth").regions) ==
          "[(16,36 48,36 48,52 64,52 64,64 16,64)]");
    CHECK(in_px(merged(with_ground(plain, "sink = [2, 4, 3, 1]")).group("earth").regions) ==
          "[(18,36 45,36 45,48 48,48 48,52 61,52 61,63 18,63)]");
    CHECK(in_px(merged(with_ground(plain, "sink = [0, 0, 0, 0]")).group("earth").regions) ==
          in_px(merged(plain).group("earth").regions));
    // by the definition, on random ground: the area cut to itself, moved
    for (int round = 0; round < 30; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(400'000 + static_cast<std::uint64_t>(round));
        std::string rows;
        for (int r = 0; r < 4; ++r, rows += "\n")
            for (int c = 0; c < 6; ++c) rows += dice.once_in(2) ? '#' : dice.once_in(2) ? '/' : '.';
        const std::array<int, 4> by{dice.in(0, 9), dice.in(0, 9), dice.in(0, 9), dice.in(0, 9)};
        const Files files = with_rows(without_rim(), rows);
        const Regions whole = merged(files).group("earth").regions;
        Regions rest = whole;
        for (const Point move :
             {Point{by[0] * 256, 0}, Point{0, by[1] * 256}, Point{-by[2] * 256, 0}, Point{0, -by[3] * 256}})
            rest = intersect(rest, moved(whole, move));
        const std::string sink = fmt::format("sink = [{}, {}, {}, {}]", by[0], by[1], by[2], by[3]);
        REQUIRE(oracle::geos_difference(merged(with_ground(files, sink.c_str())).group("earth").regions, rest) < 1e4);
    }
}

TEST_CASE("solids grow where there is room, never between neighbours") {
    const Files plain = with_rows(without_rim(), "......\n......\n.##...\n.###..\n");
    const auto earth = [&](const char* keys) { return in_px(merged(with_ground(plain, keys)).group("earth").regions); };
    CHECK(earth("grow = { px = 2, corners = \"box\" }") == "[(14,30 50,30 50,46 66,46 66,66 14,66)]");
    // an octagon is near enough to the circle, and vertices stay on straight edges' ends
    CHECK(earth("grow = { px = 4, within_px = 1.5 }") ==   // a diamond is near enough to the circle
          "[(16,28 48,28 52,32 52,44 64,44 68,48 68,64 64,68 16,68 12,64 12,32)]");
    CHECK(earth("sink = [0, 4, 0, 0]\ngrow = { px = 4, corners = \"box\" }") ==
          "[(12,32 52,32 52,48 68,48 68,68 12,68)]");
    // by the definition, on random ground of two barriers
    const Files sea = worlds::with(plain, "flat.toml", "\"/\" = \"bank\"", "\"/\" = \"bank\", \"~\" = \"brine\"");
    for (int round = 0; round < 30; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(410'000 + static_cast<std::uint64_t>(round));
        std::string rows;
        for (int r = 0; r < 4; ++r, rows += "\n")
            for (int c = 0; c < 6; ++c)
                rows += dice.once_in(3) ? '#' : dice.once_in(3) ? '/' : dice.once_in(3) ? '~' : '.';
        const Files files = worlds::with(sea, "flat.toml", "......\n......\n.##...\n.###..\n", rows);
        const int px = dice.in(1, 12);
        const bool round_corners = dice.once_in(2);
        const Files grown = with_ground(
            files, fmt::format("grow = {{ px = {}, corners = \"{}\" }}", px, round_corners ? "round" : "box").c_str());
        const Ring point =
            round_corners
                ? ellipse_ring({0, 0}, px * 256, px * 256, 0.25)
                : Ring{{-px * 256, -px * 256}, {px * 256, -px * 256}, {px * 256, px * 256}, {-px * 256, px * 256}};
        const Regions soil = merged(files).group("earth").regions, water = merged(files).group("brine").regions;
        for (const auto& [name, own, other] : {std::tuple("earth", soil, water), std::tuple("brine", water, soil)})
            REQUIRE(oracle::geos_difference(merged(grown).group(name).regions,
                                            unite(own, subtract(reach(own, point), other))) < 1e4);
    }
}

TEST_CASE("small holes of a layer's solids are filled, larger or longer ones stay") {
    const Files plain = with_rows(without_rim(), "####..\n#.##..\n####..\n......\n");
    const auto earth = [&](const char* keys) { return in_px(merged(with_ground(plain, keys)).group("earth").regions); };
    CHECK(earth("") == "[(0,0 64,0 64,48 0,48) (16,16 16,32 32,32 32,16)]");
    CHECK(earth("fill_holes = true") == "[(0,0 64,0 64,48 0,48)]");
    CHECK(earth("fill_holes = 256") == "[(0,0 64,0 64,48 0,48)]");
    CHECK(earth("fill_holes = 255.9") == earth(""));
    CHECK(earth("fill_holes = false") == earth(""));
    CHECK(earth("fill_holes = 200\ngrow = { px = 1, corners = \"box\" }") ==
          "[(-1,-1 65,-1 65,49 -1,49)]");   // 14 x 14
    // by the definition, on random ground
    int filled = 0;
    for (int round = 0; round < 40; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(420'000 + static_cast<std::uint64_t>(round));
        std::string rows;
        for (int r = 0; r < 4; ++r, rows += "\n")
            for (int c = 0; c < 6; ++c) rows += dice.once_in(4) ? '.' : dice.once_in(3) ? '/' : '#';
        const Files files = with_rows(without_rim(), rows);
        const int most = dice.in(20, 700);
        Regions wanted = merged(files).group("earth").regions;
        const Regions before = wanted;
        for (const Region& region : before)
            for (const Ring& ring : region.holes) {
                const Regions open = subtract(Regions{{Ring(ring.rbegin(), ring.rend()), {}}}, before);
                for (const Region& hole : open) {
                    const Bounds box = *bounds(Regions{hole});
                    const double longest = 4 * std::sqrt(most) * steps_per_px;
                    if (static_cast<double>(twice_area(Regions{hole})) > 2.0 * most * steps_per_px * steps_per_px ||
                        box.most.x - box.least.x > longest || box.most.y - box.least.y > longest)
                        continue;
                    wanted.push_back(hole);
                    ++filled;
                }
            }
        REQUIRE(merged(with_ground(files, fmt::format("fill_holes = {}", most).c_str())).group("earth").regions ==
                unite(wanted));
    }
    CHECK(filled > 4);
}

TEST_CASE("how solids grow is checked when it is read") {
    const auto problems = [&](const char* keys) {
        return text(worlds::all_findings(with_ground(without_rim(), keys)));
    };
    CHECK(problems("grow = { px = 0 }").find("'px' of 'grow'") != std::string::npos);
    CHECK(problems("grow = { px = 2000 }").find("at most 1024 px") != std::string::npos);
    CHECK(problems("grow = { corners = \"box\" }").find("px = 2") != std::string::npos);
    CHECK(problems("grow = { px = 1, corners = \"mitre\" }").find("one of round, box") != std::string::npos);
    CHECK(problems("grow = 2").find("a table") != std::string::npos);
    CHECK(problems("fill_holes = -1").find("true, false, or from 0 to 65536") != std::string::npos);
    CHECK(problems("fill_holes = \"all\"").find("true, false, or from 0 to 65536") != std::string::npos);
}

TEST_CASE("a hollow solid is everything outside of it, out to the rim's outer edge") {
    const Files files = worlds::with(
        with_rows(without_rim(), "......\n......\n......\n......\n"), "flat.toml", crab,
        "  { name = \"cave\", kind = \"solid\", barrier = \"earth\", box = [8, 8, 40, 40], hollow = true },\n");
    CHECK(in_px(merged(files).group("earth").regions) == "[(-16,-16 112,-16 112,80 -16,80) (8,8 8,48 48,48 48,8)]");
    const auto findings = worlds::all_findings(
        worlds::with(worlds::small_world(), "flat.toml", "kind = \"crab\"", "kind = \"crab\", hollow = true"));
    CHECK(worlds::of_rule(findings, Rule::out_of_range).size() == 1);
}

TEST_CASE("checks know lines and hollow solids") {
    const auto findings = [](const char* solid) {
        return worlds::all_findings(worlds::with(worlds::small_world(), "flat.toml", crab, solid));
    };
    CHECK(findings("  { kind = \"solid\", barrier = \"earth\", line = [[40, 8], [60, 8]] },\n").findings().empty());
    const Report hollow = findings(
        "  { name = \"cave\", kind = \"solid\", barrier = \"earth\", box = [32, 8, 40, 40], hollow = true },\n");
    const auto blocked = worlds::of_rule(hollow, Rule::spawn_blocked);
    REQUIRE(blocked.size() == 1);   // 'landing' stands outside of the cave, which is solid
    CHECK(text(hollow).find("in the way: solid 'cave'") != std::string::npos);
}

TEST_CASE("isometric cells are diamonds, and shapes count from the box around them") {
    Files files = worlds::with(without_rim(), "marsh.toml", "cell = [16, 16]", "cell = [32, 16]");
    files = worlds::with(files, "flat.toml", "cell = [16, 16]", "grid = \"isometric\"\ncell = [32, 16]");
    files = worlds::with(files, "flat.toml", "\"/\" = \"bank\"", "\"=\" = \"boardwalk\"");
    files = worlds::with(files, "flat.toml", crab, "");
    const auto earth = [&](const char* rows) { return in_px(merged(with_rows(files, rows)).group("earth").regions); };
    CHECK(earth("#.....\n......\n......\n......\n") == "[(0,0 16,8 0,16 -16,8)]");
    CHECK(earth("##....\n##....\n......\n......\n") == "[(0,0 32,16 0,32 -32,16)]");
    CHECK(earth("#.....\n.#....\n......\n......\n") == "[(0,0 16,8 0,16 -16,8)] [(0,16 16,24 0,32 -16,24)]");
    const Files rim = worlds::with(with_rows(files, "......\n......\n......\n......\n"), "flat.toml",
                                   "tilesets = ", "rim = \"earth\"\ntilesets = ");
    CHECK(in_px(merged(rim).group("earth").regions) == "[(0,-16 128,48 32,96 -96,32) (0,0 -64,32 32,80 96,48)]");
}

TEST_CASE("objects stand on isometric cells where the diamond is") {
    Files files = worlds::with(without_rim(), "marsh.toml", "cell = [16, 16]", "cell = [32, 16]");
    files = worlds::with(files, "flat.toml", "cell = [16, 16]", "grid = \"isometric\"\ncell = [32, 16]");
    files = worlds::with(files, "flat.toml", crab,
                         "  { name = \"crab_a\", kind = \"crab\", cell = [1, 0] },\n  { name = \"pool\", kind = "
                         "\"trigger\", cells = [0, 1, 2, 1] },\n");
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const Map& map = loaded->map("flat");
    const auto object = [&](const char* name) { return map.object(map.find_object(name)); };
    CHECK(object("crab_a").position == Point{16 * 256, 16 * 256});
    CHECK(to_text(object("pool").area) ==
          to_text(Regions{{{{-4096, 2048}, {4096, 6144}, {0, 8192}, {-8192, 4096}}, {}}}));
    CHECK(map.data_cell_at({16 * 256, 16 * 256}) == DataCell{1, 0});
    CHECK(map.data_cell_at({0, 0}) == DataCell{0, 0});
    CHECK(map.data_cell_at({0, -1}) == DataCell{-1, -1});
    for (int r = 0; r < 4; ++r)
        for (int c = 0; c < 6; ++c) {
            const Bounds box = map.cell_box(c, r);
            CHECK(map.data_cell_at({(box.least.x + box.most.x) / 2, (box.least.y + box.most.y) / 2}) == DataCell{c, r});
        }
    const Files odd = worlds::with(files, "flat.toml", "cell = [32, 16]", "cell = [31, 16]");
    CHECK(worlds::of_rule(worlds::all_findings(odd), Rule::out_of_range).size() == 1);
}

TEST_CASE("on the ground plane every cell is a square, and the geometry is the same laid flat") {
    Files files = worlds::with(without_rim(), "marsh.toml", "cell = [16, 16]", "cell = [32, 16]");
    files = worlds::with(files, "flat.toml", "cell = [16, 16]", "grid = \"isometric\"\ncell = [32, 16]");
    files = worlds::with(files, "flat.toml", "\"/\" = \"bank\"", "\"=\" = \"boardwalk\"");
    files = worlds::with(files, "flat.toml", crab, "");
    files = with_rows(files, "##....\n#.....\n...##.\n...##.\n");
    const Merge ground = merged(files, {.forms = {MergeForm::chains, MergeForm::boxes}, .plane = Plane::ground});
    REQUIRE(ground.cell.x == ground.cell.y);
    Regions cells = ground.group("earth").regions;
    for (Region& region : cells)
        for (Point& p : region.outline) p = {p.x * 2 / ground.cell.x, p.y * 2 / ground.cell.y};
    CHECK(to_text(cells) == "[(0,0 4,0 4,2 2,2 2,4 0,4)] [(6,4 10,4 10,8 6,8)]");
    CHECK(ground.group("earth").boxes.boxes.size() == 3);   // no box would fit the diamonds of the screen
    CHECK(ground.group("earth").boxes.rests.empty());
    CHECK(merged(files, {.forms = {MergeForm::boxes}}).group("earth").boxes.boxes.empty());
    // of a square grid the steps are the same
    const Files square = with_rows(without_rim(), "##....\n#.....\n......\n......\n");
    CHECK(merged(square, {.plane = Plane::ground}).groups == merged(square).groups);
}

TEST_CASE("groups merged at once, in any order, are the same") {
    const Files files = with_rows(worlds::small_world(), "......\n......\n..../#\n######\n");
    const auto at_once = [](std::size_t count, const std::function<void(std::size_t)>& work) {
        std::vector<std::thread> threads;
        for (std::size_t i = count; i-- > 0;) threads.emplace_back(work, i);
        for (std::thread& thread : threads) thread.join();
    };
    CHECK(merged(files, {.parallel_for = at_once}).groups == merged(files).groups);
    CHECK(merged(files, {.mover = MoverId{0}, .parallel_for = at_once}).groups ==
          merged(files, {.mover = MoverId{0}}).groups);
}

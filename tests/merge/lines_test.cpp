// One-way lines, walls without width, and what stops one mover.
// Also tests src/merge: line_table
#include <catch2/catch.hpp>

#include "chance.hpp"
#include "merge/lines/lines_internal.hpp"
#include "merging.hpp"

using namespace dryground;
using merging::in_px;
using merging::merged;
using merging::with_layer;
using merging::with_rows;
using merging::without_rim;
using worlds::Files;

namespace {

Files with_gantries(const std::string& rows) {
    Files files =
        worlds::with(without_rim(), "marsh.toml", "[tiles.brine]",
                     "[tiles.gantry]\nunseen = true\nbarrier = \"earth\"\nshapes = [{ line = [[0, 4], [16, 4]], "
                     "one_way = \"up\" }]\n[tiles.fence]\nunseen = true\nbarrier = \"earth\"\nshapes = [{ line "
                     "= [[8, 0], [8, 16]] }]\n[tiles.cutter]\nunseen = true\nshapes = []\ncarves = [{ barrier = "
                     "\"earth\", box = [4, 0, 8, 16] }]\n[tiles.brine]");
    files = worlds::with(files, "flat.toml", "\"/\" = \"bank\"",
                         "\"-\" = \"gantry\", \"|\" = \"fence\", \"x\" = \"cutter\"");
    return with_rows(files, rows);
}

const Group& one_way(const Merge& merge, OneWay way) {
    static const Group none;
    for (const Group& group : merge.groups)
        if (group.one_way == way) return group;
    return none;
}

}   // namespace

TEST_CASE("lines of neighbouring tiles are one line, and bodies they stop come from their right") {
    const Merge result = merged(with_gantries("......\n.---..\n......\n......\n"));
    const Group& up = one_way(result, OneWay::up);
    CHECK(in_px(up.lines) == "(16,20 64,20)");
    CHECK(up.barrier == "earth");
    CHECK(up.regions.empty());
    REQUIRE(up.chains.size() == 1);
    CHECK(!up.chains[0].closed);
    CHECK(!up.chains[0].two_sided);
    CHECK(up.chains[0].surfaces == std::vector<int>{0});
    CHECK(!up.chains[0].before);
    // turned around with its tile: it stops what comes from below then
    const Files turned = worlds::with(with_gantries("......\n.---..\n......\n......\n"), "flat.toml",
                                      "\"-\" = \"gantry\"", "\"-\" = { tile = \"gantry\", flip = \"y\" }");
    CHECK(in_px(one_way(merged(turned), OneWay::down).lines) == "(64,28 16,28)");
    const Files sideways = worlds::with(with_gantries("......\n.-....\n.-....\n......\n"), "flat.toml",
                                        "\"-\" = \"gantry\"", "\"-\" = { tile = \"gantry\", turn = 90 }");
    CHECK(in_px(one_way(merged(sideways), OneWay::right).lines) == "(28,16 28,48)");
}

TEST_CASE("where a one-way line would fold back two lines meet, which stop from the same side") {
    const std::vector<detail::LinePiece> pieces{{{0, 0}, {16, 0}, 0}, {{0, 0}, {16, -16}, 0}, {{32, 0}, {16, 0}, 0}};
    const auto points = [&](OneWay way) {
        std::vector<Ring> all;
        for (const detail::JoinedLine& line : detail::join_lines(pieces, way)) all.push_back(line.points);
        return all;
    };
    CHECK(points(OneWay::up) == std::vector<Ring>{{{0, 0}, {16, -16}}, {{0, 0}, {32, 0}}});
    CHECK(points(OneWay::down) == std::vector<Ring>{{{16, -16}, {0, 0}}, {{32, 0}, {0, 0}}});
    CHECK(points(OneWay::left) == std::vector<Ring>{{{0, 0}, {16, -16}}, {{0, 0}, {32, 0}}});
    CHECK(points(OneWay::none) == std::vector<Ring>{{{16, -16}, {0, 0}, {32, 0}}});
}

TEST_CASE("a wall without width is two-sided") {
    const Merge result = merged(with_gantries(".|....\n.|....\n......\n......\n"));
    const Group& earth = result.group("earth");
    CHECK(in_px(earth.lines) == "(24,0 24,32)");
    REQUIRE(earth.chains.size() == 1);
    CHECK(earth.chains[0].two_sided);
}

TEST_CASE("lines keep out of solid ground of their barrier, but run along its edge") {
    CHECK(in_px(one_way(merged(with_gantries("......\n.-#-..\n......\n......\n")), OneWay::up).lines) ==
          "(16,20 32,20)(48,20 64,20)");
    Files files = with_gantries("......\n......\n.###..\n......\n");
    files = with_layer(files,
                       "[[layers]]\nname = \"rail\"\nshape_offset = [0, -4]\nrows = '''\n......\n......\n.---.."
                       "\n......\n'''\n");
    CHECK(in_px(one_way(merged(files), OneWay::up).lines) == "(16,32 64,32)");
}

TEST_CASE("carves of the layers above cut lines; those below do not") {
    const std::string cutter = "[[layers]]\nname = \"cut\"\nrows = '''\n......\n..x...\n......\n......\n'''\n";
    CHECK(in_px(one_way(merged(with_layer(with_gantries("......\n.---..\n......\n......\n"), cutter)), OneWay::up)
                    .lines) == "(16,20 36,20)(44,20 64,20)");
    Files below = with_gantries("......\n..x...\n......\n......\n");
    below = with_layer(below, "[[layers]]\nname = \"top\"\nrows = '''\n......\n.---..\n......\n......\n'''\n");
    CHECK(in_px(one_way(merged(below), OneWay::up).lines) == "(16,20 64,20)");
}

TEST_CASE("a chain that ends at the ground knows where the edge goes on") {
    Files files = with_gantries("......\n......\n.#....\n......\n");
    files = with_layer(files,
                       "[[layers]]\nname = \"rail\"\nshape_offset = [0, -4]\nrows = '''\n......\n......\n..--.."
                       "\n......\n'''\n");
    const Merge result = merged(files);
    const Group& up = one_way(result, OneWay::up);
    REQUIRE(up.chains.size() == 1);
    CHECK(in_px(up.lines) == "(32,32 64,32)");
    REQUIRE(up.chains[0].before);
    CHECK(*up.chains[0].before == Point{16 * 256, 32 * 256});
    CHECK(!up.chains[0].after);
}

TEST_CASE("joining lines: doubles go, crossings stay, rings close") {
    using detail::LinePiece;
    const auto joined = [](const std::vector<LinePiece>& pieces) {
        std::string all;
        for (const detail::JoinedLine& line : detail::join_lines(pieces, OneWay::none)) {
            all += to_text(line.points) + (line.closed ? "o" : "");
            for (const int label : line.labels) all += std::to_string(label);
            all += ' ';
        }
        return all;
    };
    CHECK(joined({{{0, 0}, {10, 0}, 0}, {{20, 0}, {5, 0}, 0}}) == "(0,0 20,0)0 ");
    CHECK(joined({{{0, 0}, {10, 0}, 0}, {{10, 0}, {20, 0}, 1}}) == "(0,0 10,0 20,0)01 ");
    CHECK(joined({{{0, 0}, {20, 0}, 0}, {{5, 0}, {10, 0}, 2}}) == "(0,0 5,0 10,0 20,0)020 ");
    CHECK(joined({{{0, 0}, {10, 0}, 0}, {{10, 0}, {10, 10}, 0}, {{10, 0}, {20, 0}, 0}}) ==
          "(0,0 20,0)0 (10,0 10,10)0 ");
    CHECK(joined({{{0, 0}, {10, 0}, 0}, {{10, 0}, {10, 10}, 0}, {{10, 10}, {0, 0}, 0}}) == "(0,0 10,10 10,0)o000 ");
    CHECK(joined({}) == "");
}

TEST_CASE("cutting lines keeps just what lies outside or along an edge") {
    for (int round = 0; round < 300; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(410'000 + static_cast<std::uint64_t>(round));
        Regions away;
        for (int i = dice.in(1, 6); i > 0; --i) {
            const int x = 100 * dice.in(0, 20), y = 100 * dice.in(0, 20);
            away.push_back(dice.once_in(2) ? box_region({x, y}, {x + 100 * dice.in(1, 8), y + 100 * dice.in(1, 8)})
                                           : Region{{{x, y}, {x + 700, y + 300}, {x + 100, y + 600}}, {}});
        }
        away = unite(away);
        const detail::LinePiece piece{
            {100 * dice.in(0, 28), 100 * dice.in(0, 28)}, {100 * dice.in(0, 28), 100 * dice.in(0, 28)}, 0};
        if (piece.from == piece.to) continue;
        const auto kept = detail::cut_lines({piece}, away);
        CAPTURE(to_text(away), piece.from.x, piece.from.y, piece.to.x, piece.to.y);
        const double dx = double{0} + piece.to.x - piece.from.x, dy = double{0} + piece.to.y - piece.from.y;
        for (int i = 0; i <= 200; ++i) {
            const double x = piece.from.x + dx * i / 200, y = piece.from.y + dy * i / 200;
            const Point p{static_cast<std::int32_t>(std::lround(x)), static_cast<std::int32_t>(std::lround(y))};
            bool there = false, near_end = false;
            for (const auto& k : kept) {
                const auto along = [&](Point q) {
                    return ((q.x - piece.from.x) * dx + (q.y - piece.from.y) * dy) / (dx * dx + dy * dy);
                };
                const double place = i / 200.0, a = along(k.from), b = along(k.to);
                there = there || (a <= place && place <= b);
                near_end = near_end || std::abs(place - a) < 0.003 || std::abs(place - b) < 0.003;
            }
            // clearly inside: with some room around
            bool room = true;
            for (const Point d : {Point{3, 0}, Point{-3, 0}, Point{0, 3}, Point{0, -3}})
                room = room && locate(away, moved(p, d)) == locate(away, p);
            if (!room || near_end || locate(away, p) == Side::edge) continue;
            REQUIRE(there == (locate(away, p) == Side::outside));
        }
    }
}

TEST_CASE("what stops a mover is one ground: its barriers, cells without its flags, and sides as lines") {
    Files files = worlds::with(without_rim(), "world.toml", "stopped_by = [\"earth\", \"brine\"]",
                               "stopped_by = [\"earth\", \"brine\"]\nneeds = [\"walk\"]");
    files = worlds::with(
        files, "marsh.toml", "[tiles.brine]",
        "[tiles.path]\nunseen = true\nshapes = []\nflags = [\"walk\"]\n[tiles.gate]\nunseen = true\nshapes = []\n"
        "flags = [\"walk\"]\nsides = { top = \"shut\", right = \"in\", left = \"out\" }\n[tiles.brine]");
    files =
        worlds::with(files, "flat.toml", "\"/\" = \"bank\"", "\".\" = \"path\", \"g\" = \"gate\", \"~\" = \"brine\"");
    files = with_rows(files, "......\n..g...\n#~....\n######\n");
    const Merge result = merged(files, {.mover = MoverId{0}});
    REQUIRE(result.groups.size() == 2);
    CHECK(result.groups[0].mover == "warden");
    CHECK(result.groups[0].barrier == "");
    CHECK(in_px(result.groups[0].regions) == "[(0,32 32,32 32,48 96,48 96,64 0,64)]");
    CHECK(in_px(result.groups[0].lines) == "(32,16 48,16)");
    REQUIRE(result.groups[0].chains.size() == 2);
    CHECK(result.groups[0].chains[1].two_sided);
    CHECK(result.groups[1].one_way == OneWay::left);   // in from the right, out to the left
    CHECK(in_px(result.groups[1].lines) == "(32,32 32,16)(48,32 48,16)");
}

// What a contact is with: by hand where it is delicate, and beside a plain search where it is by chance.
// Also tests src/play: touch_tracker
#include <catch2/catch.hpp>

#include <set>

#include <cmath>

#include "chance.hpp"
#include "clean_worlds.hpp"
#include "dryground/play.hpp"
#include "random_worlds.hpp"
#include "worlds.hpp"

using namespace dryground;

namespace {

// Rows of tiles: '#' whole, '/' and '\' slopes, 'h' the lower half, '-' a line passed from below, '=' carves brine.
World world_of(const std::string& rows, const std::string& upper = "", const std::string& more = "",
               const std::string& layer = "") {
    const auto columns = rows.find('\n'), lines = static_cast<std::size_t>(std::count(rows.begin(), rows.end(), '\n'));
    std::string legend, above;
    for (const auto& [key, tile] :
         std::initializer_list<std::pair<char, const char*>>{{'#', "\"peat\""},
                                                             {'/', "\"bank\""},
                                                             {'\\', "{ tile = \"bank\", flip = \"x\" }"},
                                                             {'h', "\"half\""},
                                                             {'-', "\"plank\""},
                                                             {'~', "\"brine\""},
                                                             {'=', "\"boardwalk\""}})
        if ((rows + upper).find(key) != std::string::npos)
            legend += fmt::format("{}\"{}{}\" = {}", legend.empty() ? "" : ", ", key == '\\' ? "\\" : "", key, tile);
    if (!upper.empty()) above = fmt::format("[[layers]]\nname = \"upper\"\nrows = '''\n{}'''\n", upper);
    worlds::Files files{{"world.toml",
                         "format = \"dryground/world/1\"\ntitle = \"Touches\"\nplayer = \"warden\"\ntilesets = "
                         "[\"marsh.toml\"]\nmaps = [\"flat.toml\"]\n"
                         "[barriers]\nearth = {}\nbrine = {}\n[movers.warden]\nbody = { box = [10, 14], at = [0, -7] "
                         "}\nstopped_by = [\"earth\", \"brine\"]\n"
                         "[movers.crab]\nbody = { circle = 6, at = [0, -6] }\nstopped_by = [\"earth\"]\n"},
                        {"marsh.toml",
                         "format = \"dryground/tiles/1\"\nname = \"marsh\"\ncell = [16, 16]\n[[for]]\ntiles = "
                         "[\"*\"]\nset = { unseen = true, barrier = \"earth\" }\n"
                         "[tiles.peat]\nshapes = [\"cell\"]\n[tiles.bank]\nshapes = [{ polygon = [[0, 16], [16, 0], "
                         "[16, 16]] }]\n[tiles.half]\nshapes = [{ box = [0, 8, "
                         "16, 8] }]\n[tiles.plank]\nshapes = [{ line = [[0, 0], [16, 0]], one_way = \"up\" "
                         "}]\n[tiles.brine]\nbarrier = \"brine\"\nshapes = [\"cell\"]\n"
                         "[tiles.boardwalk]\nshapes = []\ncarves = [{ barrier = \"brine\", box = [0, 0, 16, 8] }]\n"},
                        {"flat.toml", fmt::format("format = \"dryground/map/1\"\nname = \"flat\"\ncell = [16, "
                                                  "16]\nsize = [{}, {}]\n{}tilesets = [\"marsh\"]\nlegend = {{ {} }}\n"
                                                  "[[layers]]\nname = \"ground\"\n{}rows = '''\n{}'''\n{}",
                                                  columns, lines, more.starts_with("rim") ? more : "", legend, layer,
                                                  rows, above + (more.starts_with("rim") ? "" : more))}};
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    return *loaded;
}

// "peat 3,1 top": each touch, in order.
std::string told(const Play& play, const Touches& touches) {
    static constexpr std::array sides{"top", "right", "bottom", "left"};
    std::string all;
    for (const Touch& touch : touches) {
        const std::string what =
            touch.sort == Touched::rim ? "rim"
            : touch.sort == Touched::object
                ? play.map().object(touch.object).name
                : fmt::format("{} {},{}", play.world().tile(touch.tile).name, touch.cell.column, touch.cell.row);
        all += fmt::format("{}{} {}", all.empty() ? "" : "; ", what, sides[static_cast<std::size_t>(touch.side)]);
    }
    return all;
}

constexpr PointPx up{0, -1}, down{0, 1}, left{-1, 0}, right{1, 0};

}   // namespace

TEST_CASE("a contact reports the tile that it is with", "[touch]") {
    const Play play(world_of("......\n...#..\n.../#.\n######\n"), "flat");
    const auto at = [&](double x, double y, PointPx normal) {
        return told(play, play.touched({.point = {x, y}, .normal = normal}));
    };
    CHECK(at(8, 48, up) == "peat 0,3 top");
    CHECK(at(40, 48, up) == "peat 2,3 top");
    CHECK(at(48, 24, left) == "peat 3,1 left");
    CHECK(at(64, 20, right) == "peat 3,1 right");
    CHECK(at(56, 40, {-0.7, -0.7}) == "bank 3,2 top");
    CHECK(at(32, 48, up) == "peat 1,3 top; peat 2,3 top");   // on the border: both
    CHECK(at(8, 47.25, up) == "peat 0,3 top");               // a little above
    CHECK(at(8, 48.5, up) == "peat 0,3 top");                // sunk in a little
    CHECK(at(8, 46.5, up) == "");                            // too far above
    CHECK(at(8, 20, up) == "");
    // In the corner of floor and wall each contact tells its own.
    const Play corner(world_of("..#\n..#\n###\n"), "flat");
    CHECK(told(corner, corner.touched({.point = {32, 32}, .normal = up})) == "peat 1,2 top");   // 2,2 is under the wall
    CHECK(told(corner, corner.touched({.point = {32, 24}, .normal = left})) == "peat 2,1 left");
    CHECK(told(corner, corner.touched({.point = {31.5, 31.8}, .normal = up})) == "peat 1,2 top");
    // Sunk in by an engine's slop: contacts at the wall's foot lie below the floor, those of the floor in the wall.
    CHECK(told(corner, corner.touched({.point = {32, 32.3}, .normal = left})) == "peat 2,1 left");
    CHECK(told(corner, corner.touched({.point = {32.3, 32.3}, .normal = left})) == "peat 2,1 left");
    CHECK(told(corner, corner.touched({.point = {32.3, 32}, .normal = up})) == "peat 1,2 top");
    CHECK(told(corner, corner.touched({.point = {40, 40}, .normal = up})) == "peat 2,2 top");   // nothing else is near
    // Past the end of a ledge by less than a px.
    CHECK(at(47.5, 16, up) == "peat 3,1 top");
    CHECK(at(46.5, 16, up) == "");
    // Without a normal: what is near.
    CHECK(told(play, play.touched({.point = {8, 47.5}})) == "peat 0,3 top");
}

TEST_CASE("with a body all that lies along its side is reported, most of it first", "[touch]") {
    const Play play(world_of("......\n.....#\n.....#\n##.###\n"), "flat");
    const auto body = [](double l, double t, double w, double h) { return BoxPx{l, t, w, h}; };
    // Feet between two cells, over a gap under the body's middle.
    CHECK(told(play, play.touched({.point = {40, 48}, .normal = up, .body = body(28, 34, 24, 14)})) ==
          "peat 1,3 top; peat 3,3 top");
    // A body three cells tall along a wall of two and the floor's edge.
    CHECK(told(play, play.touched({.point = {80, 30}, .normal = left, .body = body(70, 10, 10, 38)})) ==
          "peat 5,1 left; peat 5,2 left");
    // On three cells of floor, flush with the wall: the floor below the wall is not stood on.
    CHECK(told(play, play.touched({.point = {66, 48}, .normal = up, .body = body(60, 34, 20, 14)})) ==
          "peat 4,3 top; peat 3,3 top");
    // Engines let bodies sink into the wall a little.
    CHECK(told(play, play.touched({.point = {66, 48}, .normal = up, .body = body(60, 34, 20.1, 14.05)})) ==
          "peat 4,3 top; peat 3,3 top");
    // Much deeper, in floor and wall: the wall below the floor's surface is not hit, nor the floor below the wall.
    CHECK(told(play, play.touched({.point = {66, 48.4}, .normal = up, .body = body(60, 34, 20.4, 14.4)})) ==
          "peat 4,3 top; peat 3,3 top");
    CHECK(told(play, play.touched({.point = {80.4, 40}, .normal = left, .body = body(60.4, 34, 20, 14.4)})) ==
          "peat 5,2 left");
    const Touches touches = play.touched({.point = {66, 48}, .normal = up, .body = body(60, 34, 20, 14)});
    CHECK(touches[0].overlap_px == Approx(16));
    CHECK(touches[1].overlap_px == Approx(4));
}

TEST_CASE("a round body touches at a point, however wide its box", "[touch]") {
    const Play play(world_of("......\n.....#\n.....#\n######\n"), "flat");
    const World& world = play.world();
    REQUIRE(world.movers()[1].name == "crab");   // a circle of 6 px
    const BoxPx ball{42, 36, 12, 12};            // over the border of two cells
    CHECK(told(play, play.touched({.point = {48, 48}, .normal = up, .body = ball})) == "peat 2,3 top; peat 3,3 top");
    CHECK(told(play,
               play.touched({.point = {50, 48}, .normal = up, .body = BoxPx{44, 36, 12, 12}, .mover = MoverId{1}})) ==
          "peat 3,3 top");
    CHECK(told(play, play.touched(
                         {.point = {80, 44}, .normal = left, .body = BoxPx{68, 38, 12, 10.2}, .mover = MoverId{1}})) ==
          "peat 5,2 left");
}

TEST_CASE("one-way lines, carves, layers and objects", "[touch]") {
    const Play plank(world_of("...\n.-.\n...\n"), "flat");
    CHECK(told(plank, plank.touched({.point = {24, 16}, .normal = up})) == "plank 1,1 top");
    CHECK(told(plank, plank.touched({.point = {24, 16}, .normal = down})) == "");   // passed from below
    CHECK(told(plank, plank.touched({.point = {24, 16}, .normal = up, .body = BoxPx{10, 2, 20, 14}})) ==
          "plank 1,1 top");
    // The boardwalk has carved the brine's upper half away.
    const Play brine(world_of("...\n~~~\n###\n", "...\n.=.\n...\n"), "flat");
    CHECK(told(brine, brine.touched({.point = {8, 16}, .normal = up})) == "brine 0,1 top");
    CHECK(told(brine, brine.touched({.point = {24, 16}, .normal = up})) == "");
    CHECK(told(brine, brine.touched({.point = {24, 24}, .normal = up})) == "brine 1,1 top");
    CHECK(told(brine, brine.touched({.point = {8, 16}, .normal = up, .mover = MoverId{1}})) ==
          "");   // a crab minds no brine
    // An upper tile over a lower one: the upper one first.
    const Play both(world_of("...\n###\n", "...\n.#.\n"), "flat");
    const Touches stacked = both.touched({.point = {24, 16}, .normal = up});
    CHECK(told(both, stacked) == "peat 1,1 top; peat 1,1 top");
    CHECK(stacked[0].layer > stacked[1].layer);
    // One whose edge another covers is not hit.
    const Play covers(world_of("...\n.h.\n", "...\n.#.\n"), "flat");
    CHECK(told(covers, covers.touched({.point = {24, 24}, .normal = up})) == "peat 1,1 top");
    // A layer that is moved: its tiles stand elsewhere.
    const Play moved(world_of("...\n###\n", "", "", "shape_offset = [0, 4]\n"), "flat");
    CHECK(told(moved, moved.touched({.point = {8, 20}, .normal = up})) == "peat 0,1 top");
    CHECK(told(moved, moved.touched({.point = {8, 16}, .normal = up})) == "");
    const Play solid(world_of("...\n...\n###\n", "",
                              "[[layers]]\nname = \"rocks\"\nobjects = [{ name = \"groyne\", kind = \"solid\", barrier "
                              "= \"earth\", polygon = [[8, 32], [24, 8], [40, 32]] }]\n"),
                     "flat");
    CHECK(told(solid, solid.touched({.point = {16, 20}, .normal = {-1, -0.7}})) == "groyne left");
    const Play rim(world_of("...\n...\n", "", "rim = \"earth\"\n"), "flat");
    CHECK(told(rim, rim.touched({.point = {0, 8}, .normal = right})) == "rim right");
    CHECK(told(rim, rim.touched({.point = {8, 32}, .normal = up})) == "rim top");
    // Several contacts of one body together.
    const std::array<Contact, 2> two{{{.point = {36, 48}, .normal = up}, {.point = {48, 40}, .normal = left}}};
    const Play wall(world_of("...#\n...#\n...#\n####\n"), "flat");
    CHECK(told(wall, wall.touched(two)) == "peat 3,2 left; peat 2,3 top");
}

namespace {

double distance(const Regions& area, PointPx p) {
    const double x = p.x * steps_per_px, y = p.y * steps_per_px;
    if (locate(area, {static_cast<std::int32_t>(std::lround(x)), static_cast<std::int32_t>(std::lround(y))}) !=
        Side::outside)
        return 0;
    double best = 1e300;
    const auto ring_to = [&](const Ring& ring) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i], b = ring[(i + 1) % ring.size()];
            const double wx = b.x - a.x, wy = b.y - a.y,
                         t = std::clamp(((x - a.x) * wx + (y - a.y) * wy) / (wx * wx + wy * wy), 0.0, 1.0);
            best = std::min(best, std::hypot(x - a.x - t * wx, y - a.y - t * wy));
        }
    };
    for (const Region& region : area) {
        ring_to(region.outline);
        for (const Ring& hole : region.holes) ring_to(hole);
    }
    return best / steps_per_px;
}

// Points along the merged ground, with the way out of it: what an engine would report.
struct Edge {
    PointPx middle, normal;
    StoreyId storey;
    BarrierId barrier;
};
std::vector<Edge> edges_of(const World& world, const Map& map) {
    std::vector<Edge> edges;
    for (const Group& group : merge(world, map, {.forms = {MergeForm::chains}}).groups)
        for (const Chain& chain : group.chains) {
            if (group.barrier_id == BarrierId::none || !chain.closed || chain.two_sided) continue;
            for (std::size_t i = 0; i < chain.points.size(); ++i) {
                const Point a = chain.points[i], b = chain.points[(i + 1) % chain.points.size()];
                const double wx = to_px(b.x - a.x), wy = to_px(b.y - a.y), length = std::hypot(wx, wy);
                if (length < 2.5) continue;
                edges.push_back({{to_px(a.x) + wx / 2, to_px(a.y) + wy / 2},
                                 {wy / length, -wx / length},
                                 group.storey_id,
                                 group.barrier_id});
            }
        }
    return edges;
}

// As far as a layer lets its solids grow.
Regions grown_in(const Layer& layer, const Regions& area) {
    const std::int32_t by = layer.grow.by;
    if (by == 0) return area;
    return reach(area, layer.grow.corners == Growth::Corner::box ? Ring{{-by, -by}, {by, -by}, {by, by}, {-by, by}}
                                                                 : ellipse_ring({0, 0}, by, by, layer.grow.within_px));
}

// What a layer fills is told as of a tile or object around the hole.
double longest_filled(const Map& map, const Touch& touch) {
    const LayerId layer = touch.sort == Touched::object ? map.object(touch.object).layer : touch.layer;
    return touch.sort == Touched::rim ? 0 : 4 * std::sqrt(map.layer(layer).fill_px2);
}

// What a touch names, as a plain search over all cells finds it.
Regions area_of(const World& world, const Map& map, const Touch& touch) {
    if (touch.sort == Touched::rim)
        return subtract(Regions{{map.block_ring(-1, -1, map.columns + 2, map.rows + 2), {}}},
                        Regions{{map.block_ring(0, 0, map.columns, map.rows), {}}});
    if (touch.sort == Touched::object) {
        const Object& object = map.object(touch.object);
        Regions area = moved(object.area, map.layer(object.layer).shape_offset);
        const Layer& layer = map.layer(object.layer);
        return grown_in(layer, object.hollow
                                   ? subtract(Regions{box_region({map.least().x - 99999, map.least().y - 99999},
                                                                 {map.most().x + 99999, map.most().y + 99999})},
                                              area)
                                   : area);
    }
    Regions area, lines;
    const Layer& layer = map.layer(touch.layer);
    const int c = touch.cell.column - map.first_column, r = touch.cell.row - map.first_row;
    for (const Shape& shape : world.tile(map.placed(layer, c, r)).shapes) {
        if (!shape.trigger.empty() || shape.fault != ShapeFault::none) continue;
        for (Region& region : placed_area(map, layer, shape, c, r)) area.push_back(std::move(region));
        const Ring line = shape.area.empty() ? placed_line(map, layer, shape, c, r) : Ring{};
        for (std::size_t i = 0; i + 1 < line.size(); ++i) lines.push_back({{line[i], line[i + 1]}, {}});
    }
    area = grown_in(layer, unite(area));
    area.insert(area.end(), lines.begin(), lines.end());
    return area;
}

}   // namespace

TEST_CASE("whatever edge of the ground is touched, what is reported lies there", "[touch]") {
    std::size_t asked = 0, told_of = 0;
    for (int round = 0; round < chance::rounds(40); ++round) {
        DRYGROUND_ROUND(round);
        const bool clean = round % 2 == 0;
        const Result<World> loaded = clean ? worlds::load(worlds::clean_world(static_cast<std::uint64_t>(round)))
                                           : random_worlds::make(static_cast<std::uint64_t>(round)).build();
        if (!loaded) continue;
        const World& world = *loaded;
        for (const Map& map : world.maps()) {
            const Play play(world, map.name);
            const bool sinks = std::any_of(map.layers.begin(), map.layers.end(), [](const Layer& layer) {
                return layer.sink != std::array<std::int32_t, 4>{};
            });
            for (const Edge& edge : edges_of(world, map)) {
                INFO(map.name << " at " << edge.middle.x << ", " << edge.middle.y << " out " << edge.normal.x << ", "
                              << edge.normal.y);
                const Touches touches =
                    play.touched({.point = edge.middle, .normal = edge.normal, .storey = edge.storey});
                ++asked;
                told_of += !touches.empty();
                bool has_barrier = false;
                for (const Touch& touch : touches) {
                    CHECK(distance(area_of(world, map, touch), edge.middle) <= 1.01 + longest_filled(map, touch));
                    has_barrier = has_barrier || touch.barrier == edge.barrier;
                }
                if (!sinks && world.merging().least_edge_px == 0) CHECK(has_barrier);
            }
        }
    }
    CHECK(asked > 12 * static_cast<std::size_t>(chance::rounds(40)));
    INFO(told_of << " of " << asked);
    CHECK(told_of * 100 >= asked * 99);
}

TEST_CASE("where two tiles join both are touched, also where something of another barrier lies over them") {
    const worlds::Files files =
        worlds::with(worlds::small_world(), "flat.toml", "at = [40, 48] },",
                     "at = [40, 48] },\n  { kind = \"solid\", barrier = \"brine\", box = [8, 40, 20, 20] },");
    const Play play(worlds::world_of(files), "flat");   // the floor's tiles are 16 px wide from y = 48 on
    std::set<std::pair<BarrierId, int>> told;
    for (const Touch& touch : play.touched({.point = {16, 48}, .normal = up}))
        told.insert({touch.barrier, touch.cell.column});
    const BarrierId earth = play.world().find_barrier("earth"), brine = play.world().find_barrier("brine");
    CHECK(told == std::set<std::pair<BarrierId, int>>{{earth, 0}, {earth, 1}, {brine, 1}});
}

TEST_CASE("touches begin, last and end, once for each cell", "[touch]") {
    const Play play(world_of("......\n######\n"), "flat");
    TouchTracker tracker;
    std::string told_all;
    static constexpr std::array phases{"+", "=", "-"};
    for (double x = 4; x < 48; x += 8) {   // slides along the floor
        for (const Touch& touch : play.touched({.point = {x, 16}, .normal = up})) tracker.touch(7, -1, touch);
        for (const TouchTracker::Event& event : tracker.end_frame())
            told_all += fmt::format("{}{} ", phases[static_cast<std::size_t>(event.phase)], event.touch.cell.column);
        told_all += "| ";
    }
    CHECK(told_all == "+0 | =0 | -0 +1 | =1 | -1 +2 | =2 | ");
    tracker.forget(7);
    CHECK(tracker.end_frame().empty());
    const Touch floor = play.touched({.point = {4, 16}, .normal = up}).front();
    tracker.touch(1, -1, floor), tracker.touch(1, 0, floor), tracker.touch(2, -1, floor), tracker.touch(2, -1, floor);
    CHECK(tracker.end_frame().size() == 3);   // by body and feeler
    CHECK(tracker.end_frame().size() == 3);   // all of them ended
    CHECK(tracker.end_frame().empty());
}

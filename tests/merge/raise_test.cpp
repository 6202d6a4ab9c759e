// Raised ground is closed, faces outward, and holds area times height, on any grid, upright and flat.
#include "dryground/raise.hpp"

#include <catch2/catch.hpp>

#include <map>

#include "chance.hpp"
#include "merging.hpp"
#include "random_worlds.hpp"

using namespace dryground;

namespace {

// Six times the volume that the triangles enclose (the divergence theorem): above 0 when they face outward.
double volume_of(const Solid& solid) {
    double six = 0;
    for (const auto& triangle : solid.triangles) {
        const auto &a = solid.points[triangle[0]], &b = solid.points[triangle[1]], &c = solid.points[triangle[2]];
        six += a[0] * (b[1] * c[2] - b[2] * c[1]) + a[1] * (b[2] * c[0] - b[0] * c[2]) +
               a[2] * (b[0] * c[1] - b[1] * c[0]);
    }
    return six / 6;
}

// How many edges are run through as often in one direction as in the other, how many are not, and how many belong to
// more than two triangles.
struct Edges {
    std::size_t closed = 0, open = 0, shared = 0;
};
Edges edges_of(const Solid& solid) {
    std::map<std::pair<std::uint32_t, std::uint32_t>, std::pair<int, int>> edges;
    for (const auto& triangle : solid.triangles)
        for (std::size_t i = 0; i < 3; ++i) {
            const std::uint32_t a = triangle[i], b = triangle[(i + 1) % 3];
            ++(a < b ? edges[{a, b}].first : edges[{b, a}].second);
        }
    Edges result;
    for (const auto& [edge, ways] : edges) {
        ++(ways.first == ways.second ? result.closed : result.open);
        result.shared += ways.first > 1;
    }
    return result;
}

double area_of(const Regions& regions, const Frame& frame) {
    const double determinant = static_cast<double>(frame.laid[0] * frame.laid[3] - frame.laid[1] * frame.laid[2]);
    return static_cast<double>(twice_area(regions)) / 2 * determinant / frame.across / frame.down;
}

}   // namespace

TEST_CASE("raised ground is closed, faces outward, and its volume is area times height") {
    std::size_t solids = 0, edges = 0;
    for (int round = 0; round < chance::rounds(60); ++round) {
        DRYGROUND_ROUND(round);
        const Result<World> loaded = random_worlds::make(static_cast<std::uint64_t>(round), true).build();
        if (!loaded) continue;
        const World& world = *loaded;
        for (const Map& map : world.maps())
            for (const Pose pose : {Pose::upright, Pose::flat})
                for (const Plane plane : {Plane::screen, Plane::ground}) {
                    if (pose == Pose::upright && plane == Plane::ground) continue;
                    const Frame frame = frame_of(world, map, pose, plane);
                    for (const Group& group : merge(world, map, {.forms = {}, .plane = plane}).groups) {
                        if (group.regions.empty()) continue;
                        const Heights heights{1.5, 0.25 + round % 7};
                        const Solid solid = raised(group.regions, frame, heights);
                        const Edges found = edges_of(solid);
                        ++solids, edges += found.closed;
                        CHECK(found.open == 0);
                        CHECK(found.shared <= group.regions.size() * 8);   // only where a region touches itself
                        const double volume = area_of(group.regions, frame) * heights.height;
                        CHECK(volume_of(solid) == Approx(volume).epsilon(1e-9));
                        CHECK(volume_of(turned_inward(solid)) == Approx(-volume).epsilon(1e-9));
                    }
                }
    }
    CHECK(solids > (chance::sanitized ? 30u : 250u));
    CHECK(edges > solids * 18);
}

TEST_CASE("a box becomes twelve triangles, each edge of two of them") {
    const Result<World> loaded = worlds::load(worlds::small_world());
    const World& world = *loaded;
    const Frame flat = frame_of(world, world.map("flat"), Pose::flat);
    const Regions box{{{{0, 0}, {4096, 0}, {4096, 8192}, {0, 8192}}, {}}};   // 16 x 32 px: 1 x 2 m
    const Solid solid = raised(box, flat, {0.5, 3});
    CHECK(solid.points.size() == 8);
    CHECK(solid.triangles.size() == 12);
    CHECK(edges_of(solid).closed == 18);
    CHECK(edges_of(solid).shared == 0);
    CHECK(volume_of(solid) == Approx(6));
    CHECK(flat.place({4096, 8192}, 3.5) == std::array<double, 3>{1, 3.5, 2});
    const Frame upright = frame_of(world, world.map("flat"), Pose::upright);
    CHECK(upright.place({4096, 8192}, 3.5) == std::array<double, 3>{1, -2, 3.5});
    CHECK(volume_of(raised(box, upright, {0.5, 3})) == Approx(6));
    CHECK_THROWS_AS(raised(box, flat, {0, 0}), std::invalid_argument);
    CHECK_THROWS_AS(frame_of(world, world.map("flat"), Pose::upright, Plane::ground), std::invalid_argument);
}

TEST_CASE("places go to space and back, on both planes alike; a diamond's cell is a square") {
    for (int round = 0; round < chance::rounds(40); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        const Result<World> loaded = random_worlds::make(static_cast<std::uint64_t>(round)).build();
        if (!loaded) continue;
        for (const Map& map : loaded->maps())
            for (const Pose pose : {Pose::upright, Pose::flat}) {
                const Frame frame = frame_of(*loaded, map, pose, Plane::screen);
                const Point p{dice.in(-90000, 90000), dice.in(-90000, 90000)};
                const auto place = frame.place(p, 2);
                const PointPx px = frame.px_of(place);
                CHECK(px.x == Approx(to_px(p.x)).margin(1e-6));
                CHECK(px.y == Approx(to_px(p.y)).margin(1e-6));
                const auto again = frame.place_of(px, 2);
                for (std::size_t i = 0; i < 3; ++i) CHECK(again[i] == Approx(place[i]).margin(1e-6));
                if (pose == Pose::upright || map.grid != GridSort::isometric) continue;
                const auto a = frame.place(map.corner(0, 0), 0), b = frame.place(map.corner(1, 0), 0),
                           c = frame.place(map.corner(0, 1), 0);
                const double side = map.cell_width / std::sqrt(2.0) / loaded->per_metre();
                CHECK(b[0] - a[0] == Approx(side));
                CHECK(b[2] - a[2] == Approx(0).margin(1e-9));
                CHECK(c[0] - a[0] == Approx(0).margin(1e-9));
                CHECK(c[2] - a[2] == Approx(side));
            }
    }
}

TEST_CASE("the header's example raises the earth of a map") {
    namespace dg = dryground;
    const Result<World> loaded = worlds::load(worlds::small_world());
    const World& world = *loaded;
    const Map& map = world.map("flat");
    const dg::Merge merged = dg::merge(world, map, {.plane = dg::plane_of(dg::Pose::flat)});
    const dg::Frame frame = dg::frame_of(world, map, dg::Pose::flat);
    const dg::Group& group = merged.group("earth");
    const dg::Solid solid = dg::raised(group.regions, frame, dg::heights_of(world, group.storey_id));
    CHECK(edges_of(solid).open == 0);
    CHECK(volume_of(solid) == Approx(area_of(group.regions, frame) * 2));
}

TEST_CASE("a storey says from where to where its ground is raised") {
    const Result<World> loaded = worlds::load(worlds::with(
        worlds::small_world(), "world.toml", "[facts]", "[storeys]\nloft = { base_px = 24, height_px = 40 }\n[facts]"));
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    CHECK(heights_of(*loaded, StoreyId::ground).base == 0);
    CHECK(heights_of(*loaded, StoreyId::ground).height == 2);   // 32 px when nothing is said
    CHECK(heights_of(*loaded, StoreyId{1}).base == 1.5);
    CHECK(heights_of(*loaded, StoreyId{1}).height == 2.5);
    CHECK(heights_of(*loaded, StoreyId{1}, 8.0).height == 0.5);
}

TEST_CASE("areas of triggers and links are groups on request, by name, else by kind") {
    worlds::Files files =
        merging::with_layer(merging::without_rim(),
                            "[[layers]]\nname = \"senses\"\nobjects = [\n"
                            "  { name = \"bell\", kind = \"trigger\", box = [0, 0, 16, 16] },\n"
                            "  { kind = \"trigger\", box = [32, 0, 16, 16] },\n"
                            "  { kind = \"trigger\", box = [40, 0, 16, 16] },\n"
                            "  { name = \"steam\", kind = \"trigger\", box = [0, 32, 16, 16] },\n]\n");
    files = worlds::with(files, "marsh.toml", "[tiles.brine]",
                         "[tiles.vent]\nunseen = true\nshapes = [{ cell = true, trigger = \"steam\" }]\n[tiles.brine]");
    files = worlds::with(files, "flat.toml", "\"/\" = \"bank\"", "\"/\" = \"bank\", \"s\" = \"vent\"");
    files = worlds::with(files, "flat.toml", "......\n......\n..../#", "......\n......\n.s../#");
    const Merge without = merging::merged(files), with = merging::merged(files, {.triggers = true});
    std::map<std::string, std::string> areas;
    for (const Group& group : with.groups)
        if (!group.trigger.empty()) areas[group.trigger] = merging::in_px(group.regions);
    CHECK(without.groups.size() == 2);   // the earth, the vent
    CHECK(areas["bell"] == "[(0,0 16,0 16,16 0,16)]");
    CHECK(areas["trigger"] == "[(32,0 56,0 56,16 32,16)]");
    CHECK(areas["steam"] == "[(0,32 32,32 32,48 0,48)]");   // one with the tile that senses by this name
    CHECK(areas.size() == 3);
    CHECK(with.group("earth") == without.group("earth"));
    const Merge of_mover = merging::merged(files, {.mover = MoverId{0}, .triggers = true});
    std::size_t senses = 0;
    for (const Group& group : of_mover.groups) senses += !group.trigger.empty() && group.mover == "warden";
    CHECK(senses == 3);
}

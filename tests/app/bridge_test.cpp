// The bridge to Chipmunk: shapes, filters and surfaces as the engine sees them.
#include <chipmunk/chipmunk.h>

#include <catch2/catch.hpp>
#include <dryground/chipmunk.hpp>

#include "worlds.hpp"

using namespace dryground;

namespace {

struct Space {
    Space() : it(cpSpaceNew()) { cpSpaceSetGravity(it, cpv(0, -10)); }
    ~Space() { cpSpaceFree(it); }
    Space(const Space&) = delete;
    Space& operator=(const Space&) = delete;
    cpSpace* it;
};

}   // namespace

TEST_CASE("ground stands where the map says, in metres with y up, as chains and as pieces") {
    const Loaded loaded = worlds::load(worlds::small_world());
    REQUIRE(loaded);
    const World& world = loaded.world();
    for (const chipmunk::Form form : {chipmunk::Form::chains, chipmunk::Form::pieces}) {
        const Space space;
        const chipmunk::Ground ground(space.it, world, merge(world, world.map("flat")), {.form = form});
        cpSegmentQueryInfo hit;
        // straight down from (2, -1) m: the ground's upper edge is at 48 px, 3 m
        const cpShape* shape =
            cpSpaceSegmentQueryFirst(space.it, cpv(2, -1), cpv(2, -10), 0, chipmunk::filter_of(world, "warden"), &hit);
        REQUIRE(shape != nullptr);
        CHECK(hit.point.y == Approx(-3));
        CHECK(hit.normal.y == Approx(1));
        REQUIRE(chipmunk::group_of(shape) != nullptr);
        CHECK(chipmunk::group_of(shape)->group->barrier == "earth");
        CHECK(chipmunk::group_of(shape)->map->map == "flat");
    }
}

TEST_CASE("shapes leave the space with their ground") {
    const Loaded loaded = worlds::load(worlds::small_world());
    const Space space;
    {
        const chipmunk::Ground ground(space.it, loaded.world(), merge(loaded.world(), loaded.world().map("flat")));
        CHECK(ground.shapes().size() == 10);   // four edges outside, six inside
    }
    int left = 0;
    cpSpaceEachShape(
        space.it, [](cpShape*, void* count) { ++*static_cast<int*>(count); }, &left);
    CHECK(left == 0);
}

TEST_CASE("surfaces reach the engine, barriers stop only whom they should, triggers only sense") {
    worlds::Files files = worlds::with(worlds::small_world(), "world.toml", "[facts]",
                                       "[movers.crab]\nbody = { circle = 5 }\nstopped_by = [\"earth\"]\n[facts]");
    files = worlds::with(files, "marsh.toml", "[16, 16]] }]",
                         "[16, 16]], surface = { friction = 0.25, restitution = 0.5 } }]");
    files =
        worlds::with(files, "marsh.toml", "[tiles.brine]",
                     "[tiles.steam]\nunseen = true\nshapes = [{ cell = true, trigger = \"steam\" }]\n[tiles.brine]");
    files =
        worlds::with(files, "flat.toml", "\"/\" = \"bank\"", "\"/\" = \"bank\", \"~\" = \"brine\", \"s\" = \"steam\"");
    files = worlds::with(files, "flat.toml", "......\n......\n..../#", "......\n~s....\n..../#");
    const Loaded loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const World& world = loaded.world();
    const Space space;
    const chipmunk::Ground ground(space.it, world, merge(world, world.map("flat")));
    const auto down_at = [&](double x, const char* mover) {
        cpSegmentQueryInfo hit;
        const cpShape* shape =
            cpSpaceSegmentQueryFirst(space.it, cpv(x, -0.5), cpv(x, -9), 0, chipmunk::filter_of(world, mover), &hit);
        return std::pair(shape, hit.point.y);
    };
    CHECK(down_at(0.5, "warden").second == Approx(-1));   // on the brine
    CHECK(down_at(0.5, "crab").second == Approx(-3));     // which does not stop a crab
    CHECK(cpShapeGetFriction(down_at(4.5, "warden").first) == Approx(0.25));
    CHECK(cpShapeGetElasticity(down_at(4.5, "warden").first) == Approx(0.5));
    CHECK(cpShapeGetFriction(down_at(2.5, "warden").first) == Approx(0.8));
    int sensors = 0;
    for (const cpShape* shape : ground.shapes()) sensors += cpShapeGetSensor(shape) ? 1 : 0;
    CHECK(sensors == 1);
    CHECK_THROWS_AS(chipmunk::filter_of(world, "gull"), std::out_of_range);
}

TEST_CASE("one-way lines let bodies pass one way and hold them the other") {
    worlds::Files files =
        worlds::with(worlds::small_world(), "marsh.toml", "[tiles.brine]",
                     "[tiles.gantry]\nunseen = true\nbarrier = \"earth\"\nshapes = [{ line = [[0, 0], [16, "
                     "0]], one_way = \"up\" }]\n[tiles.brine]");
    files = worlds::with(files, "flat.toml", "\"/\" = \"bank\"", "\"-\" = \"gantry\"");
    files = worlds::with(files, "flat.toml", "......\n......\n..../#\n######", "......\n.---..\n......\n######");
    const Loaded loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const World& world = loaded.world();
    for (const bool from_below : {false, true}) {
        const Space space;
        const chipmunk::Ground ground(space.it, world, merge(world, world.map("flat")));
        cpBody* body = cpSpaceAddBody(space.it, cpBodyNew(1, INFINITY));
        cpShape* shape = cpSpaceAddShape(space.it, cpCircleShapeNew(body, 0.2, cpvzero));
        cpShapeSetFilter(shape, chipmunk::filter_of(world, "warden"));
        // the line is at 16 px, 1 m below the map's top; the ground at 3 m
        cpBodySetPosition(body, from_below ? cpv(2.5, -2) : cpv(2.5, -0.4));
        if (from_below) cpBodySetVelocity(body, cpv(0, 5.5));
        double highest = -10;
        for (int step = 0; step < 300; ++step) {
            cpSpaceStep(space.it, 1.0 / 120);
            highest = std::max(highest, cpBodyGetPosition(body).y);
        }
        INFO((from_below ? "jumped from below" : "fell from above"));
        CHECK(cpBodyGetPosition(body).y == Approx(-0.8).margin(0.12));   // it rests on the line
        if (from_below) CHECK(highest > -0.75);
        cpSpaceRemoveShape(space.it, shape);
        cpSpaceRemoveBody(space.it, body);
        cpShapeFree(shape);
        cpBodyFree(body);
    }
}

// The bridge to Chipmunk: shapes, filters and surfaces as the engine sees them.
#include <chipmunk/chipmunk.h>

#include <catch2/catch.hpp>
#include <dryground/chipmunk_play.hpp>

#include "chance.hpp"
#include "clean_worlds.hpp"
#include "rambles.hpp"
#include "shore.hpp"

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
    const Result<World> loaded = worlds::load(worlds::small_world());
    REQUIRE(loaded);
    const World& world = *loaded;
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
        CHECK(chipmunk::group_of(shape)->map == "flat");
    }
}

TEST_CASE("shapes leave the space with their ground") {
    const Result<World> loaded = worlds::load(worlds::small_world());
    const Space space;
    {
        const chipmunk::Ground ground(space.it, *loaded, merge(*loaded, loaded->map("flat")));
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
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const World& world = *loaded;
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
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const World& world = *loaded;
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

TEST_CASE("a solid that moves is a body of its own, turned and placed, that stops whom its barrier stops") {
    const World world = worlds::world_of(rambles::one_map(
        {"........", "........", "########"},
        "{ name = \"raft\", kind = \"lift\", box = [40, 8, 32, 8], turn = 90, props = { stops = [[100, 20]] } },\n"));
    const Object& raft = world.maps()[0].object(world.maps()[0].find_object("raft"));
    const Space space;
    const chipmunk::Ground ground(space.it, world, merge(world, world.maps()[0]));
    const auto filter = chipmunk::filter_of(world, "warden");
    const auto top_at = [&](double x) {   // px
        cpSegmentQueryInfo hit;
        hit.point = cpvzero;
        cpSpaceSegmentQueryFirst(space.it, cpv(x / 16, -0.05), cpv(x / 16, -10), 0, filter, &hit);
        return chipmunk::to_px(world, hit.point).y;
    };
    CHECK(top_at(56) == Approx(32));   // the ground: nothing of the raft is in it
    cpBody* body = chipmunk::add_body(space.it, world, world.kind(raft.kind), {to_px(raft.position.x), 20});
    CHECK(cpBodyGetType(body) == CP_BODY_TYPE_KINEMATIC);
    const std::vector<cpShape*> shapes = chipmunk::add_solid(space.it, body, world, raft);
    cpSpaceReindexShapesForBody(space.it, body);
    CHECK(top_at(56) == Approx(4).margin(0.1));   // upright: 8 px wide, 32 px high
    CHECK(top_at(56 + 5) == Approx(32));
    const std::vector<PointPx> path = path_of(world, raft);
    REQUIRE(path.size() == 1);
    cpBodySetPosition(body, cpv(path[0].x / 16, -path[0].y / 16));
    cpSpaceReindexShapesForBody(space.it, body);
    CHECK(top_at(56) == Approx(32));
    CHECK(top_at(100) == Approx(4).margin(0.1));
    for (cpShape* shape : shapes) cpSpaceRemoveShape(space.it, shape), cpShapeFree(shape);
    cpSpaceRemoveBody(space.it, body), cpBodyFree(body);
}

TEST_CASE("a mover's circle is a circle, and its feelers sense what they name, whether that stops it or not") {
    const Result<World> loaded =
        worlds::load(worlds::with(worlds::small_world(), "world.toml", "[facts]",
                                  "[movers.crab]\nbody = { circle = 5, at = [0, -5] }\nstopped_by = "
                                  "[]\nfeelers.below = { box = [4, 4], at = [0, 2], "
                                  "senses = [\"earth\", \"warden\"] }\n[facts]"));
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const World& world = *loaded;
    const Space space;
    const chipmunk::Ground ground(space.it, world, merge(world, world.map("flat")));
    const auto crab = id_of<MoverId>(world.movers().size() - 1);
    cpBody* body = cpSpaceAddBody(space.it, cpBodyNewKinematic());
    cpBodySetPosition(body, cpv(2, -3));   // its feet on the ground's edge
    std::vector<cpShape*> shapes = chipmunk::add_mover(space.it, body, world, crab);
    REQUIRE(shapes.size() == 2);
    CHECK(cpCircleShapeGetRadius(shapes[0]) == Approx(5.0 / 16).margin(0.001));
    CHECK(cpCircleShapeGetOffset(shapes[0]).y == Approx(5.0 / 16).margin(0.001));
    const auto senses = [&](cpShape* feeler) {
        int found = 0;
        cpSpaceShapeQuery(
            space.it, feeler, [](cpShape*, cpContactPointSet*, void* count) { ++*static_cast<int*>(count); }, &found);
        return found;
    };
    CHECK(senses(shapes[0]) == 0);   // nothing stops it
    CHECK(senses(shapes[1]) > 0);    // the earth that it stands on
    cpBodySetPosition(body, cpv(2, -1));
    cpSpaceReindexShapesForBody(space.it, body);
    CHECK(senses(shapes[1]) == 0);
    cpBody* other = cpSpaceAddBody(space.it, cpBodyNewKinematic());
    cpBodySetPosition(other, cpv(2, -1.2));
    const std::vector<cpShape*> others = chipmunk::add_mover(space.it, other, world, MoverId{0});
    CHECK(senses(shapes[1]) == 1);   // the warden, whom it does not meet
    shapes.insert(shapes.end(), others.begin(), others.end());
    for (cpShape* shape : shapes) cpSpaceRemoveShape(space.it, shape), cpShapeFree(shape);
    for (cpBody* one : {body, other}) cpSpaceRemoveBody(space.it, one), cpBodyFree(one);
}

namespace {

struct Thrown {
    cpBody* body;
    std::vector<cpShape*> shapes;
};

// Contacts that the engine reports, explained or not.
struct Tally {
    const Play* play;
    std::size_t contacts = 0, explained = 0, far = 0;
    std::string first_fault{};
};

double distance_px(const Regions& area, PointPx p) {
    const Point at{static_cast<std::int32_t>(std::lround(p.x * steps_per_px)),
                   static_cast<std::int32_t>(std::lround(p.y * steps_per_px))};
    if (locate(area, at) != Side::outside) return 0;
    double best = 1e300;
    for (const Region& region : area)
        for (std::size_t i = 0; i < region.outline.size(); ++i) {
            const Point a = region.outline[i], b = region.outline[(i + 1) % region.outline.size()];
            const double wx = b.x - a.x, wy = b.y - a.y,
                         t = std::clamp(((at.x - a.x) * wx + (at.y - a.y) * wy) / (wx * wx + wy * wy), 0.0, 1.0);
            best = std::min(best, std::hypot(at.x - a.x - t * wx, at.y - a.y - t * wy) / steps_per_px);
        }
    return best;
}

cpBool tally(cpArbiter* arbiter, cpSpace*, cpDataPointer data) {
    Tally& all = *static_cast<Tally*>(data);
    const chipmunk::Contacts contacts = chipmunk::contacts_of(*all.play, arbiter);
    for (std::size_t i = 0; i < contacts.count; ++i) {
        const Contact& contact = contacts.contacts[i];
        const Touches touches = all.play->touched(contact);
        ++all.contacts;
        all.explained += !touches.empty();
        if (touches.empty() && all.first_fault.empty())
            all.first_fault = fmt::format("at {}, {} out {}, {}", contact.point.x, contact.point.y, contact.normal.x,
                                          contact.normal.y);
        for (const Touch& touch : touches) {
            if (touch.sort != Touched::tile) continue;
            const Map& map = all.play->map();
            const Layer& layer = map.layer(touch.layer);
            const int c = touch.cell.column - map.first_column, r = touch.cell.row - map.first_row;
            Regions area;
            for (const Shape& shape : all.play->world().tile(touch.tile).shapes)
                for (Region& region : placed_area(map, layer, shape, c, r)) area.push_back(region);
            // Along the body's side a shape may be as far from the contact's point as the body is wide.
            const double reach = (contact.body ? std::max(contact.body->width, contact.body->height) : 0) + 1.01;
            all.far += distance_px(area, contact.point) > reach;
        }
    }
    return cpTrue;
}

}   // namespace

TEST_CASE("every contact that the engine reports is explained by a tile, object or rim that lies there") {
    std::size_t contacts = 0, explained = 0, far = 0, thrown = 0;
    for (int round = 0; round < chance::rounds(20); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        const Result<World> loaded =
            worlds::load(worlds::clean_world(3 * static_cast<std::uint64_t>(round)));   // side views
        REQUIRE(loaded);
        const World& world = *loaded;
        const Play play(world, "outside", {.chunk_cells = 8});
        const Space space;
        cpSpaceSetCollisionSlop(space.it, 0.005);
        const chipmunk::LiveGround ground(space.it, play);
        Tally all{&play};
        cpCollisionHandler* handler = cpSpaceAddDefaultCollisionHandler(space.it);
        handler->preSolveFunc = tally, handler->userData = &all;
        std::vector<Thrown> bodies;
        for (int i = 0; i < 150; ++i, ++thrown) {
            cpBody* body = cpSpaceAddBody(space.it, cpBodyNew(1, dice.once_in(2) ? INFINITY : 0.05));
            const double w = world.per_metre();
            cpBodySetPosition(body, cpv(dice.in(20, play.map().columns * 16 - 20) / w, -dice.in(20, 60) / w));
            cpBodySetVelocity(body, cpv(dice.in(-40, 40) / 10.0, dice.in(-20, 10) / 10.0));
            bodies.push_back({body, chipmunk::add_mover(space.it, body, world, MoverId{dice.in(0, 1)})});
        }
        for (int step = 0; step < 150; ++step) cpSpaceStep(space.it, 1.0 / 60);
        contacts += all.contacts, explained += all.explained, far += all.far;
        INFO(all.first_fault);
        CHECK(all.explained == all.contacts);
        for (const Thrown& one : bodies) {
            for (cpShape* shape : one.shapes) cpSpaceRemoveShape(space.it, shape), cpShapeFree(shape);
            cpSpaceRemoveBody(space.it, one.body), cpBodyFree(one.body);
        }
    }
    if (std::getenv("DRYGROUND_FIGURES"))
        WARN(fmt::format("{} bodies, {} contacts, {} explained, {} far", thrown, contacts, explained, far));
    CHECK(contacts > (chance::sanitized ? 10'000u : 50'000u));
    CHECK(far == 0);
}

TEST_CASE("chunks are replaced under resting bodies without waking those elsewhere, or letting one sink") {
    const Result<World> loaded = worlds::load(worlds::shore());
    const World& world = *loaded;
    Play play(world, "flat", {.chunk_cells = 4});
    const Space space;
    cpSpaceSetCollisionSlop(space.it, 0.005);
    cpSpaceSetSleepTimeThreshold(space.it, 0.3);
    chipmunk::LiveGround ground(space.it, play);
    const auto put = [&](double x, double y) {
        cpBody* body = cpSpaceAddBody(space.it, cpBodyNew(1, INFINITY));
        cpBodySetPosition(body, cpv(x / 16, -y / 16));
        return Thrown{body, chipmunk::add_mover(space.it, body, world, MoverId{0})};
    };
    const std::array<Thrown, 2> bodies{put(24, 70), put(152, 40)};   // on the lower ground, on the upper
    const auto run = [&](int steps) {
        for (int i = 0; i < steps; ++i) cpSpaceStep(space.it, 1.0 / 60);
    };
    run(200);
    REQUIRE(cpBodyIsSleeping(bodies[0].body));
    REQUIRE(cpBodyIsSleeping(bodies[1].body));
    const double rested = cpBodyGetPosition(bodies[1].body).y;
    CHECK(rested == Approx(-3).margin(0.02));                               // feet on 48 px
    const EditResult changed = play.set_tile(LayerId{0}, {0, 4}, "peat");   // beside the first, in its chunk
    REQUIRE_FALSE(changed.chunks.empty());
    ground.replace(play, changed.chunks);
    CHECK(cpBodyIsSleeping(bodies[1].body));
    run(100);
    CHECK(cpBodyGetPosition(bodies[0].body).y == Approx(-5).margin(0.02));   // it stands as it stood
    // The ground is dug away below the second: it falls to what is there.
    EditResult dug = play.clear(LayerId{0}, {9, 3});
    ground.replace(play, dug.chunks);
    run(100);
    CHECK(cpBodyGetPosition(bodies[1].body).y == Approx(-4).margin(0.02));
    CHECK(ground.shape_count() > 10);
    for (const Thrown& one : bodies) {
        for (cpShape* shape : one.shapes) cpSpaceRemoveShape(space.it, shape), cpShapeFree(shape);
        cpSpaceRemoveBody(space.it, one.body), cpBodyFree(one.body);
    }
}

TEST_CASE("a body that is pushed along a floor is stopped by the wall that rises from it") {
    worlds::Files files = worlds::with(worlds::small_world(), "flat.toml", "......\n......\n..../#\n######",
                                       "#....#\n#....#\n#....#\n######");
    files = worlds::with(worlds::with(files, "flat.toml", ", \"/\" = \"bank\"", ""), "flat.toml", "at = [40, 48]",
                         "at = [60, 48]");
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    for (const int chunk : {2, 3, 32})
        for (const double speed : {-6.0, -1.0, 1.0, 4.0, 9.0}) {
            const Play play(*loaded, "flat", {.chunk_cells = chunk});
            const Space space;
            cpSpaceSetCollisionSlop(space.it, 0.005);
            const chipmunk::LiveGround ground(space.it, play);
            cpBody* body = cpSpaceAddBody(space.it, cpBodyNew(1, INFINITY));
            cpBodySetPosition(body, cpv(3, -3));
            const std::vector<cpShape*> shapes = chipmunk::add_mover(space.it, body, *loaded, MoverId{0});
            double wish = speed;   // set where the engine asks for it: what is set between steps goes through walls
            cpBodySetUserData(body, &wish);
            cpBodySetVelocityUpdateFunc(body, [](cpBody* it, cpVect gravity, cpFloat damping, cpFloat dt) {
                cpBodyUpdateVelocity(it, gravity, damping, dt);
                cpBodySetVelocity(it, cpv(*static_cast<double*>(cpBodyGetUserData(it)), cpBodyGetVelocity(it).y));
            });
            for (int step = 0; step < 300; ++step) cpSpaceStep(space.it, 1.0 / 60);
            INFO("chunks of " << chunk << ", " << speed << " m/s");
            CHECK(cpBodyGetPosition(body).x == Approx(speed > 0 ? 5 - 5.0 / 16 : 1 + 5.0 / 16).margin(0.1));
            CHECK(cpBodyGetPosition(body).y == Approx(-3).margin(0.05));
            for (cpShape* shape : shapes) cpSpaceRemoveShape(space.it, shape), cpShapeFree(shape);
            cpSpaceRemoveBody(space.it, body), cpBodyFree(body);
        }
}

// The bridge to Bullet: where ground stands in space, whom it stops, what a contact is with, and ground that changes.
#include <catch2/catch.hpp>
#include <dryground/bullet.hpp>

#include "chance.hpp"
#include "clean_worlds.hpp"
#include "shore.hpp"

using namespace dryground;

namespace {

struct Engine {
    Engine() { world.setGravity({0, -10, 0}); }
    btDefaultCollisionConfiguration configuration;
    btCollisionDispatcher dispatcher{&configuration};
    btDbvtBroadphase broadphase;
    btSequentialImpulseConstraintSolver solver;
    btDiscreteDynamicsWorld world{&dispatcher, &broadphase, &solver, &configuration};
};

struct Ball {
    Ball(Engine& engine, const btVector3& at, double radius, const bullet::Filter& filter)
        : engine_(engine), sphere(static_cast<btScalar>(radius)), body(made(sphere, at)) {
        engine.world.addRigidBody(&body, filter.group, filter.mask);
    }
    ~Ball() { engine_.world.removeRigidBody(&body); }
    Ball(const Ball&) = delete;
    Ball& operator=(const Ball&) = delete;
    [[nodiscard]] btVector3 at() const { return body.getWorldTransform().getOrigin(); }

private:
    static btRigidBody::btRigidBodyConstructionInfo made(btSphereShape& sphere, const btVector3& at) {
        btVector3 inertia;
        sphere.calculateLocalInertia(1, inertia);
        btRigidBody::btRigidBodyConstructionInfo info(1, nullptr, &sphere, inertia);
        info.m_startWorldTransform.setIdentity();
        info.m_startWorldTransform.setOrigin(at);
        return info;
    }
    Engine& engine_;

public:
    btSphereShape sphere;
    btRigidBody body;
};

void run(Engine& engine, int steps) {
    for (int i = 0; i < steps; ++i) engine.world.stepSimulation(btScalar(1.0 / 60), 0);
}

}   // namespace

TEST_CASE("a map stands upright or lies flat, as a mesh and as pieces, and stops whom it should") {
    const Result<World> loaded =
        worlds::load(worlds::with(worlds::small_world(), "world.toml", "[facts]",
                                  "[movers.ghost]\nbody = { circle = 5 }\nstopped_by = [\"brine\"]\n[facts]"));
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const World& world = *loaded;
    const auto merged = merge(world, world.map("flat"));
    for (const bullet::Form form : {bullet::Form::mesh, bullet::Form::pieces})
        for (const Pose pose : {Pose::upright, Pose::flat}) {
            Engine engine;
            const bullet::Ground ground(engine.world, world, merged, {.pose = pose, .form = form});
            CHECK(engine.world.getNumCollisionObjects() == 1);   // the earth
            // from the middle of the map, down its plane; the ground's upper edge is at 48 px, 3 m
            const auto hit_by = [&](const char* mover) {
                const btVector3 from = bullet::vector(ground.frame().place_of({32, 16}, 1)),
                                to = bullet::vector(ground.frame().place_of({32, 160}, 1));
                btCollisionWorld::ClosestRayResultCallback ray(from, to);
                const bullet::Filter filter = bullet::filter_of(world, mover);
                ray.m_collisionFilterGroup = filter.group, ray.m_collisionFilterMask = filter.mask;
                engine.world.rayTest(from, to, ray);
                return std::pair(ray.hasHit() ? ray.m_collisionObject : nullptr,
                                 ground.frame().px_of(bullet::place(ray.m_hitPointWorld)));
            };
            const auto [body, place] = hit_by("warden");
            REQUIRE(body != nullptr);
            CHECK(place.x == Approx(32).margin(0.02));
            CHECK(place.y == Approx(48).margin(0.02));
            REQUIRE(ground.bodies().group_of(body) != nullptr);
            CHECK(ground.bodies().group_of(body)->group->barrier == "earth");
            CHECK(ground.bodies().group_of(body)->map == "flat");
            CHECK(hit_by("ghost").first == nullptr);
        }
    CHECK_THROWS_AS(bullet::filter_of(world, "nobody"), std::out_of_range);
}

TEST_CASE("the header's example does what it says: a ball that is thrown at a wall is reported which tile it met") {
    namespace dg = dryground;
    const Result<World> loaded = worlds::load(worlds::small_world());
    const World& world = *loaded;
    const Map& map = world.map("flat");
    const Play play(world, "flat");
    Engine own;
    own.world.setGravity({0, 0, 0});
    btDiscreteDynamicsWorld& engine = own.world;
    Touches touches;
    dg::bullet::smooth_contacts();                                           // once: balls do not snag inside of meshes
    const dg::bullet::Ground ground(engine, world, dg::merge(world, map));   // flat, as meshes
    const dg::bullet::Filter filter = dg::bullet::filter_of(world, "warden");
    btSphereShape sphere(0.25f);
    btRigidBody ball(btRigidBody::btRigidBodyConstructionInfo(1, nullptr, &sphere, {1, 1, 1}));
    ball.setWorldTransform(
        btTransform(btQuaternion::getIdentity(), bullet::vector(ground.frame().place_of({24, 20}, 1))));
    ball.setLinearVelocity({0, 0, 4});   // down the map, to the ground's edge at 48 px
    engine.addRigidBody(&ball, filter.group, filter.mask);
    for (int step = 0; step < 60 && touches.empty(); ++step) {
        run(own, 1);
        for (int m = 0; m < own.dispatcher.getNumManifolds(); ++m) {
            const btPersistentManifold& manifold = *own.dispatcher.getManifoldByIndexInternal(m);
            for (int i = 0; i < manifold.getNumContacts(); ++i)
                if (const auto contact = ground.contact_of(manifold, i))
                    touches = play.touched(*contact);   // which tile was it?
        }
    }
    REQUIRE_FALSE(touches.empty());
    CHECK(touches.front().cell == Cell{1, 3});
    CHECK(touches.front().side == 0);
    engine.removeRigidBody(&ball);
}

TEST_CASE("bodies leave the engine's world with their ground") {
    const Result<World> loaded = worlds::load(worlds::small_world());
    Engine engine;
    {
        const bullet::Ground ground(engine.world, *loaded, merge(*loaded, loaded->map("flat")));
        CHECK(engine.world.getNumCollisionObjects() == 1);
    }
    CHECK(engine.world.getNumCollisionObjects() == 0);
}

TEST_CASE("every contact of balls thrown about is explained by a tile or rim that lies there") {
    bullet::smooth_contacts();
    std::size_t contacts = 0, explained = 0;
    for (int round = 0; round < chance::rounds(16); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        const Result<World> loaded =
            worlds::load(worlds::clean_world(3 * static_cast<std::uint64_t>(round)));   // side views
        REQUIRE(loaded);
        const World& world = *loaded;
        const Play play(world, "outside", {.chunk_cells = 8, .pieces = true});
        Engine engine;
        const auto form = round % 2 == 0 ? bullet::Form::mesh : bullet::Form::pieces;
        const bullet::LiveGround ground(engine.world, play, {.pose = Pose::upright, .form = form});
        std::vector<std::unique_ptr<Ball>> balls;
        for (int i = 0; i < 40; ++i) {
            const PointPx at{double(dice.in(20, play.map().columns * 16 - 20)), double(dice.in(20, 60))};
            balls.push_back(std::make_unique<Ball>(engine, bullet::vector(ground.frame().place_of(at, 1)), 0.3,
                                                   bullet::filter_from(contact_table(world).movers[0])));
            balls.back()->body.setLinearFactor({1, 1, 0});
            balls.back()->body.setLinearVelocity({btScalar(dice.in(-4, 4)), btScalar(dice.in(-2, 1)), 0});
        }
        for (int step = 0; step < 150; ++step) {
            run(engine, 1);
            for (int i = 0; i < engine.dispatcher.getNumManifolds(); ++i) {
                const btPersistentManifold& manifold = *engine.dispatcher.getManifoldByIndexInternal(i);
                for (int p = 0; p < manifold.getNumContacts(); ++p) {
                    const auto contact = ground.contact_of(manifold, p);
                    if (!contact || manifold.getContactPoint(p).getDistance() > 0) continue;   // only near yet
                    ++contacts;
                    explained += !play.touched(*contact).empty();
                }
            }
        }
    }
    CHECK(contacts > (chance::sanitized ? 1000u : 10'000u));
    CHECK(explained == contacts);
}

TEST_CASE("chunks are replaced under what rests on them") {
    bullet::smooth_contacts();
    const Result<World> loaded = worlds::load(worlds::shore());
    const World& world = *loaded;
    Play play(world, "flat", {.chunk_cells = 4});
    Engine engine;
    bullet::LiveGround ground(engine.world, play, {.pose = Pose::upright});
    const bullet::Filter filter = bullet::filter_from(contact_table(world).movers[0]);
    Ball lower(engine, bullet::vector(ground.frame().place_of({24, 70}, 1)), 0.25, filter),
        upper(engine, bullet::vector(ground.frame().place_of({152, 40}, 1)), 0.25, filter);
    for (Ball* ball : {&lower, &upper}) ball->body.setLinearFactor({0, 1, 0});
    run(engine, 300);
    CHECK(lower.at().y() == Approx(-4.75).margin(0.02));
    CHECK(upper.at().y() == Approx(-2.75).margin(0.02));   // on 48 px
    ground.replace(play, play.set_tile(LayerId{0}, {0, 4}, "peat").chunks);
    run(engine, 60);
    CHECK(lower.at().y() == Approx(-4.75).margin(0.02));   // it rests as it did
    ground.replace(play,
                   play.clear(LayerId{0}, {9, 3}).chunks);   // dug away: it falls to what is there, though it slept
    run(engine, 120);
    CHECK(upper.at().y() == Approx(-3.75).margin(0.02));
    CHECK(ground.body_count() > 2);
}

TEST_CASE("what senses lets bodies through, and is said to be touched") {
    worlds::Files files =
        worlds::with(worlds::small_world(), "marsh.toml", "[tiles.brine]",
                     "[tiles.steam]\nunseen = true\nshapes = [{ cell = true, trigger = \"steam\" }]\n[tiles.brine]");
    files = worlds::with(files, "flat.toml", "\"/\" = \"bank\"", "\"/\" = \"bank\", \"s\" = \"steam\"");
    files = worlds::with(files, "flat.toml", "......\n......\n..../#", "......\n.s....\n..../#");
    const Result<World> loaded = worlds::load(files);
    INFO(text(loaded.report()));
    REQUIRE(loaded);
    const World& world = *loaded;
    Engine engine;
    const bullet::Ground ground(engine.world, world, merge(world, world.map("flat")), {.pose = Pose::upright});
    Ball ball(engine, bullet::vector(ground.frame().place_of({24, 8}, 1)), 0.25, bullet::filter_of(world, "warden"));
    ball.body.setLinearFactor({0, 1, 0});
    bool sensed = false;
    for (int step = 0; step < 200; ++step) {
        run(engine, 1);
        for (int i = 0; i < engine.dispatcher.getNumManifolds(); ++i) {
            const btPersistentManifold& manifold = *engine.dispatcher.getManifoldByIndexInternal(i);
            for (const btCollisionObject* object : {manifold.getBody0(), manifold.getBody1()})
                if (const auto* group = ground.bodies().group_of(object);
                    group != nullptr && manifold.getNumContacts() > 0)
                    sensed = sensed || group->group->trigger == "steam";
        }
    }
    CHECK(sensed);
    CHECK(ball.at().y() == Approx(-2.75).margin(0.02));   // on the ground below it
}

// A marble rolls along the longest straight ground of each map, in two engines and in two and three dimensions: on
// merged ground, and on one box per cell.
//
// usage: marbles [WORLD]      (default: the demo world)
//
// Maps seen from the side stand upright; maps seen from above lie flat on a table that is tilted toward the ground that
// the marble rolls along. The marble comes down from a jump, with the spin of one that rolls. Prints how far it got,
// how often it snagged (lost more than 1 % of its speed in a single step, or hopped, where nothing but a seam can be
// the reason), how far the contacts lie from the tiles they are said to be with, and the time of a simulation step.
#include <chipmunk/chipmunk.h>
#include <fmt/format.h>
#include <dryground/bullet.hpp>
#include <dryground/chipmunk.hpp>
#include <dryground/dryground.hpp>

#include <chrono>
#include <cmath>
#include <memory>

namespace dg = dryground;

namespace {

constexpr double step_s = 1.0 / 60, radius_m = 0.3, drop_m = 1.5, pull = 9.81;

// A straight run of ground, in metres of the map's plane: x to the right, y down. The marble's way along it, and the
// direction out of the ground.
struct Track {
    double x = 0, y = 0, length = 0;
    double along_x = 1, along_y = 0, out_x = 0, out_y = -1;

    [[nodiscard]] std::array<double, 2> at(double along, double out) const {
        return {x + along * along_x + out * out_x, y + along * along_y + out * out_y};
    }
};

Track longest_track(const dg::World& world, const dg::Map& map, const dg::Merge& merged, bool level_only) {
    Track best;
    const double metre = dg::steps_per_px * world.per_metre();
    const dg::Point least = map.least(), most = map.most();
    for (const dg::Chain& chain : merged.group("earth").chains)
        for (std::size_t i = 0; i < chain.points.size(); ++i) {
            const dg::Point a = chain.points[i], b = chain.points[(i + 1) % chain.points.size()];
            const bool inside = std::min(a.x, b.x) >= least.x && std::max(a.x, b.x) <= most.x &&
                                std::min(a.y, b.y) > least.y && std::max(a.y, b.y) < most.y;
            if (!inside || (a.x != b.x && a.y != b.y) || (level_only && (a.y != b.y || b.x < a.x))) continue;
            const double dx = (b.x - a.x) / metre, dy = (b.y - a.y) / metre, length = std::hypot(dx, dy);
            if (length <= best.length) continue;
            // The solid is on the left by the numbers: out of it is to the right.
            best = {a.x / metre, a.y / metre, length, dx / length, dy / length, dy / length, -dx / length};
        }
    return best;
}

struct Result {
    double metres = 0, step_us = 0;
    int snags = 0, told = 0, asked = 0;
    std::size_t shapes = 0;
};

// Counts what slows a marble down on level ground.
class SnagCounter {
public:
    explicit SnagCounter(double speed) : speed_(speed), before_(speed) {}

    void look(double speed_now, double height) {
        const bool lost_speed = before_ - speed_now > 0.01 * speed_, hopped = landed_ && height > 0.01;
        landed_ = landed_ || height < 0.001;
        before_ = speed_now;
        if ((lost_speed || hopped) && quiet_ == 0) {
            ++snags_;
            quiet_ = 6;   // one snag lasts some steps
        } else if (quiet_ > 0) {
            --quiet_;
        }
    }
    [[nodiscard]] int snags() const { return snags_; }

private:
    double speed_, before_;
    bool landed_ = false;
    int snags_ = 0, quiet_ = 0;
};

// Rolls until the end of the track. `step` moves the engine and gives place and speed along the track, and the height
// above it.
struct Now {
    double along = 0, speed = 0, height = 0;
};
template <class Step>
void roll(const Track& track, double speed, Result& result, Step step) {
    SnagCounter counter(speed);
    const double end = track.length - 1;
    const int most_steps = static_cast<int>((end - 1) / speed / step_s * 2);
    Now now{1, speed, drop_m};
    int steps = 0;
    const auto start = std::chrono::steady_clock::now();
    for (; steps < most_steps && now.along < end; ++steps) {
        now = step();
        counter.look(now.speed, now.height);
    }
    const std::chrono::duration<double, std::micro> spent = std::chrono::steady_clock::now() - start;
    result.step_us = spent.count() / std::max(steps, 1);
    result.metres = now.along - 1;
    result.snags = counter.snags();
}

// Calls action(column, row) for each cell that earth fills.
template <class Action>
void each_earth_cell(const dg::World& world, const dg::Map& map, Action action) {
    const dg::CellGround ground = dg::cell_ground(world, map);
    for (std::size_t b = 0; b < world.barriers().size(); ++b)
        for (int r = 0; r < ground.rows && world.barriers()[b].name == "earth"; ++r)
            for (int c = 0; c < ground.columns; ++c)
                if ((ground.cells[static_cast<std::size_t>(r) * static_cast<std::size_t>(ground.columns) +
                                  static_cast<std::size_t>(c)] >>
                         b &
                     1u) != 0)
                    action(c, r);
}

Result in_chipmunk(const dg::World& world, const dg::Merge& merged, const Track& track, bool on_merged, double speed) {
    Result result;
    cpSpace* space = cpSpaceNew();   // y is up there
    cpSpaceSetGravity(space, cpv(-pull * track.out_x, pull * track.out_y));
    cpSpaceSetCollisionSlop(space, 0.005);   // metres: Chipmunk's own default is meant for px
    std::unique_ptr<dg::chipmunk::Ground> ground;
    std::vector<cpShape*> boxes;
    if (on_merged) {
        ground = std::make_unique<dg::chipmunk::Ground>(space, world, merged);
        result.shapes = ground->shapes().size();
    } else {
        const dg::Map& map = world.map(merged.map);
        each_earth_cell(world, map, [&](int c, int r) {
            std::vector<cpVect> corners;
            for (const dg::Point p : map.cell_ring(c, r)) corners.push_back(dg::chipmunk::to_metres(world, p));
            boxes.push_back(cpPolyShapeNew(cpSpaceGetStaticBody(space), 4, corners.data(), cpTransformIdentity, 0));
            cpShapeSetFriction(boxes.back(), 0.8);
            cpSpaceAddShape(space, boxes.back());
        });
        result.shapes = boxes.size();
    }
    cpBody* body = cpSpaceAddBody(space, cpBodyNew(1, cpMomentForCircle(1, 0, radius_m, cpvzero)));
    cpShape* marble = cpSpaceAddShape(space, cpCircleShapeNew(body, radius_m, cpvzero));
    cpShapeSetFriction(marble, 0.8);
    const auto from = track.at(1, radius_m + drop_m);
    cpBodySetPosition(body, cpv(from[0], -from[1]));
    cpBodySetVelocity(body, cpv(speed * track.along_x, -speed * track.along_y));
    // It turns as it rolls: about the axis out of the plane, whichever way the ground faces.
    const double turns = track.along_x * -track.out_y - -track.along_y * track.out_x;
    cpBodySetAngularVelocity(body, -turns * speed / radius_m);
    roll(track, speed, result, [&] {
        cpSpaceStep(space, step_s);
        const cpVect at = cpBodyGetPosition(body), v = cpBodyGetVelocity(body);
        const double x = at.x - track.x, y = -at.y - track.y;
        return Now{x * track.along_x + y * track.along_y, v.x * track.along_x - v.y * track.along_y,
                   x * track.out_x + y * track.out_y - radius_m};
    });
    cpSpaceRemoveShape(space, marble), cpSpaceRemoveBody(space, body);
    cpShapeFree(marble), cpBodyFree(body);
    for (cpShape* box : boxes) cpSpaceRemoveShape(space, box), cpShapeFree(box);
    ground.reset();
    cpSpaceFree(space);
    return result;
}

struct Engine {
    btDefaultCollisionConfiguration configuration;
    btCollisionDispatcher dispatcher{&configuration};
    btDbvtBroadphase broadphase;
    btSequentialImpulseConstraintSolver solver;
    btDiscreteDynamicsWorld world{&dispatcher, &broadphase, &solver, &configuration};
};

enum class Bodies { mesh, pieces, boxes };

Result in_bullet(const dg::World& world, const dg::Play& play, const dg::Merge& merged, const Track& track,
                 dg::Pose pose, Bodies bodies, double speed) {
    Result result;
    Engine engine;
    const dg::Map& map = world.map(merged.map);
    const dg::Frame frame = dg::frame_of(world, map, pose);
    const dg::Heights heights = dg::heights_of(world, dg::StoreyId::ground);
    const auto in_space = [&](const std::array<double, 2>& plane) {   // in the middle of what is raised
        return dg::bullet::vector(frame.place_of({plane[0] * world.per_metre(), plane[1] * world.per_metre()},
                                                 heights.base + heights.height / 2));
    };
    const btVector3 origin = in_space(track.at(0, 0)), along = in_space(track.at(1, 0)) - origin,
                    out = in_space(track.at(0, 1)) - origin, up = out.cross(along);
    engine.world.setGravity(out * btScalar(-pull));
    std::unique_ptr<dg::bullet::Ground> ground;
    std::vector<std::unique_ptr<btRigidBody>> boxes;
    btBoxShape box(btVector3(0.5f * static_cast<float>(map.cell_width), 0.5f * static_cast<float>(map.cell_width),
                             0.5f * static_cast<float>(map.cell_width)) /
                   static_cast<btScalar>(world.per_metre()));
    if (bodies == Bodies::boxes) {
        each_earth_cell(world, map, [&](int c, int r) {
            const dg::Bounds cell = map.cell_box(c, r);
            const double metre = dg::steps_per_px * world.per_metre();
            btRigidBody::btRigidBodyConstructionInfo made(0, nullptr, &box);
            made.m_friction = 0.8f;
            made.m_startWorldTransform.setIdentity();
            made.m_startWorldTransform.setOrigin(
                in_space({(cell.least.x + cell.most.x) / 2.0 / metre, (cell.least.y + cell.most.y) / 2.0 / metre}));
            boxes.push_back(std::make_unique<btRigidBody>(made));
            engine.world.addRigidBody(boxes.back().get());
        });
        result.shapes = boxes.size();
    } else {
        const auto form = bodies == Bodies::mesh ? dg::bullet::Form::mesh : dg::bullet::Form::pieces;
        ground = std::make_unique<dg::bullet::Ground>(engine.world, world, merged,
                                                      dg::bullet::Options{.pose = pose, .form = form});
        result.shapes = bodies == Bodies::mesh ? ground->bodies().bodies().size() : ground->bodies().hulls();
    }
    btSphereShape ball{static_cast<btScalar>(radius_m)};
    btVector3 inertia;
    ball.calculateLocalInertia(1, inertia);
    btRigidBody::btRigidBodyConstructionInfo made(1, nullptr, &ball, inertia);
    made.m_friction = 0.8f;
    made.m_startWorldTransform.setIdentity();
    made.m_startWorldTransform.setOrigin(in_space(track.at(1, radius_m + drop_m)));
    btRigidBody marble(made);
    marble.setLinearVelocity(along * static_cast<btScalar>(speed));
    marble.setAngularVelocity(out.cross(along) * static_cast<btScalar>(speed / radius_m));
    marble.setActivationState(DISABLE_DEACTIVATION);
    // On the table: it leaves the map's plane as little as a marble leaves a table.
    marble.setLinearFactor(btVector3(1, 1, 1) - up.absolute());
    const dg::bullet::Filter filter =
        dg::bullet::filter_of(world, world.mover(std::max(map.player, dg::MoverId{})).name);
    if (bodies == Bodies::boxes)
        engine.world.addRigidBody(&marble);
    else
        engine.world.addRigidBody(&marble, filter.group, filter.mask);
    roll(track, speed, result, [&] {
        engine.world.stepSimulation(static_cast<btScalar>(step_s), 0);
        const btVector3 at = marble.getWorldTransform().getOrigin() - origin;
        return Now{at.dot(along), marble.getLinearVelocity().dot(along), at.dot(out) - radius_m};
    });
    for (int i = 0; ground && i < engine.dispatcher.getNumManifolds(); ++i) {   // what does it lie on at last?
        const btPersistentManifold& manifold = *engine.dispatcher.getManifoldByIndexInternal(i);
        for (int p = 0; p < manifold.getNumContacts(); ++p)
            if (const auto contact = ground->contact_of(manifold, p)) {
                ++result.asked;
                result.told += !play.touched(*contact).empty();
            }
    }
    engine.world.removeRigidBody(&marble);
    for (const auto& one : boxes) engine.world.removeRigidBody(one.get());
    ground.reset();
    return result;
}

// The rows of one map. Counts the snags on merged ground and on boxes.
void roll_on(const dg::World& world, const dg::Map& map, std::array<int, 2>& snags) {
    const bool side = map.player != dg::MoverId::none && world.mover(map.player).moves == dg::Moves::side;
    dg::Merge merged = dg::merge(world, map);
    std::erase_if(merged.groups, [](const dg::Group& group) { return group.barrier != "earth"; });   // as boxes are
    const dg::Play play(world, map.name);
    const Track track = longest_track(world, map, merged, side);
    if (track.length < 4) {
        fmt::print("{}: no straight ground of 4 m or more\n", map.title);
        return;
    }
    const dg::Pose pose = side ? dg::Pose::upright : dg::Pose::flat;
    fmt::print("{}, {}: {:.1f} m of straight ground\n", map.title, side ? "upright" : "flat", track.length);
    fmt::print("{:<10}{:<16}{:>8}{:>6}{:>10}{:>8}{:>10}  {}\n", "engine", "ground", "shapes", "m/s", "metres", "snags",
               "us/step", "contacts with a tile");
    for (const double speed : {1.0, 2.0, 4.0, 7.0, 11.0}) {
        const auto row = [&](const char* engine, const char* ground, const Result& r, bool on_merged) {
            fmt::print("{:<10}{:<16}{:>8}{:>6.0f}{:>10.2f}{:>8}{:>10.2f}  {}\n", engine, ground, r.shapes, speed,
                       r.metres, r.snags, r.step_us, r.asked > 0 ? fmt::format("{} of {}", r.told, r.asked) : "");
            snags[on_merged ? 0 : 1] += r.snags;
        };
        row("Chipmunk", "merged chains", in_chipmunk(world, merged, track, true, speed), true);
        row("Chipmunk", "box per cell", in_chipmunk(world, merged, track, false, speed), false);
        row("Bullet", "raised mesh", in_bullet(world, play, merged, track, pose, Bodies::mesh, speed), true);
        row("Bullet", "raised pieces", in_bullet(world, play, merged, track, pose, Bodies::pieces, speed), true);
        row("Bullet", "box per cell", in_bullet(world, play, merged, track, pose, Bodies::boxes, speed), false);
    }
}

}   // namespace

int main(int argc, char** argv) {
    const dg::Result<dg::World> loaded = dg::load_world(argc > 1 ? argv[1] : DRYGROUND_DEMO_WORLD);
    if (!loaded) {
        fmt::print(stderr, "{}", dg::text(loaded.report()));
        return 1;
    }
    cpSpaceFree(cpSpaceNew());   // Chipmunk greets once, which should not stand in the table
    dg::bullet::smooth_contacts();
    std::array<int, 2> snags{};
    for (const dg::Map& map : loaded->maps())
        if (map.grid == dg::GridSort::square) roll_on(*loaded, map, snags);
    fmt::print("snags in all: {} on merged ground, {} on one box per cell\n", snags[0], snags[1]);
    return 0;
}

// A ball and a box cross the demo's quay, at several speeds, on merged chains and on one box per tile.
//
// usage: roll [WORLD] [MAP]      (default: the demo world's slipway)
//
// Each body comes down from a jump, then rolls (the ball) or slides without friction (the box, whose speed a game would
// set). Prints how far it got along the level quay, how often it snagged (lost more than 1 % of its speed in a single
// step, or hopped, where nothing but a seam can be the reason) and the time of a simulation step.
#include <chipmunk/chipmunk.h>
#include <fmt/format.h>
#include <dryground/chipmunk.hpp>
#include <dryground/dryground.hpp>

#include <chrono>
#include <cmath>

namespace dg = dryground;

namespace {

constexpr double step_s = 1.0 / 60;
constexpr double drop_m = 1.5;   // bodies come down from a jump, as players' bodies do

struct Flat {   // the longest level edge of the earth that faces up, metres
    double from = 0, to = 0, y = 0;
};

Flat longest_flat(const dg::World& world, const dg::Merge& merged) {
    Flat best;
    for (const dg::Chain& chain : merged.group("earth").chains)
        for (std::size_t i = 0; i < chain.points.size(); ++i) {
            const dg::Point a = chain.points[i], b = chain.points[(i + 1) % chain.points.size()];
            // The solid is on the left by the numbers: under an edge that runs to the right, y down.
            if (a.y != b.y || b.x <= a.x) continue;
            const dg::Map& map = world.map(merged.map);
            if (a.y <= map.least().y) continue;   // the rim's outer edge
            const cpVect from = dg::chipmunk::to_metres(world, a), to = dg::chipmunk::to_metres(world, b);
            if (to.x - from.x > best.to - best.from) best = {from.x, to.x, from.y};
        }
    return best;
}

struct Result {
    double distance = 0, step_us = 0;
    int snags = 0;
    std::size_t shapes = 0;
};

// One static box per tile, as one would do it without merging.
std::size_t add_tile_boxes(cpSpace* space, const dg::World& world, const dg::Map& map) {
    std::size_t count = 0;
    for (const dg::Layer& layer : map.layers) {
        if (layer.decor || layer.holds_objects) continue;
        for (int r = 0; r < map.rows; ++r)
            for (int c = 0; c < map.columns; ++c) {
                const dg::Placed& placed = map.placed(layer, c, r);
                if (placed.tile < 0) continue;
                for (const dg::Shape& shape : world.tile(placed).shapes) {
                    if (!shape.trigger.empty() || world.barrier(shape.barrier).name != "earth") continue;
                    for (const dg::Region& region : dg::placed_area(map, layer, shape, c, r)) {
                        std::vector<cpVect> points;
                        for (const dg::Point p : region.outline) points.push_back(dg::chipmunk::to_metres(world, p));
                        cpShape* box = cpPolyShapeNew(cpSpaceGetStaticBody(space), static_cast<int>(points.size()),
                                                      points.data(), cpTransformIdentity, 0);
                        cpShapeSetFriction(box, 0.8);
                        cpSpaceAddShape(space, box);
                        ++count;
                    }
                }
            }
    }
    return count;
}

void free_shape(cpBody*, cpShape* shape, void* space) {
    cpSpaceRemoveShape(static_cast<cpSpace*>(space), shape);
    cpShapeFree(shape);
}

Result run(const dg::World& world, const dg::Merge& merged, bool on_chains, bool ball, double speed) {
    cpSpace* space = cpSpaceNew();
    cpSpaceSetGravity(space, cpv(0, -9.81));
    cpSpaceSetCollisionSlop(space, 0.005);   // metres: Chipmunk's own default is meant for px
    Result result;
    {
        std::unique_ptr<dg::chipmunk::Ground> ground;
        if (on_chains) {
            ground = std::make_unique<dg::chipmunk::Ground>(space, world, merged);
            result.shapes = ground->shapes().size();
        } else {
            result.shapes = add_tile_boxes(space, world, world.map(merged.map));
        }
        const Flat flat = longest_flat(world, merged);
        constexpr double half = 0.3;
        cpBody* body =
            cpBodyNew(1, ball ? cpMomentForCircle(1, 0, half, cpvzero) : cpMomentForBox(1, 2 * half, 2 * half));
        cpShape* shape = ball ? cpCircleShapeNew(body, half, cpvzero) : cpBoxShapeNew(body, 2 * half, 2 * half, 0);
        // The ball rolls; the box slides like a player's body, whose speed the game sets: without friction.
        cpShapeSetFriction(shape, ball ? 0.8 : 0);
        const double start = flat.from + 1, end = flat.to - 1;
        cpBodySetPosition(body, cpv(start, flat.y + half + drop_m));
        cpSpaceAddBody(space, body);
        cpSpaceAddShape(space, shape);
        cpBodySetVelocity(body, cpv(speed, 0));
        if (ball) cpBodySetAngularVelocity(body, -speed / half);
        const double rest = flat.y + half;
        bool landed = false;
        double before = speed;
        int steps = 0, quiet = 0;
        const int most_steps = static_cast<int>((end - start) / speed / step_s * 2);
        const auto clock_start = std::chrono::steady_clock::now();
        for (; steps < most_steps && cpBodyGetPosition(body).x < end; ++steps) {
            cpSpaceStep(space, step_s);
            const double now = cpBodyGetVelocity(body).x;
            // Nothing on level ground may slow a ball that rolls, or a box that slides without friction.
            const double height = cpBodyGetPosition(body).y - rest;
            const bool lost_speed = before - now > 0.01 * speed, hopped = landed && height > 0.01;
            landed = landed || height < 0.001;
            if ((lost_speed || hopped) && quiet == 0) {
                ++result.snags;
                quiet = 6;   // one snag lasts some steps
            } else if (quiet > 0) {
                --quiet;
            }
            before = now;
        }
        const std::chrono::duration<double, std::micro> spent = std::chrono::steady_clock::now() - clock_start;
        result.step_us = spent.count() / std::max(steps, 1);
        result.distance = cpBodyGetPosition(body).x - start;
        cpSpaceRemoveShape(space, shape);
        cpSpaceRemoveBody(space, body);
        cpShapeFree(shape);
        cpBodyFree(body);
    }
    cpBodyEachShape(cpSpaceGetStaticBody(space), free_shape, space);
    cpSpaceFree(space);
    return result;
}

}   // namespace

int main(int argc, char** argv) {
    const dg::Result<dg::World> loaded = dg::load_world(argc > 1 ? argv[1] : DRYGROUND_DEMO_WORLD);
    if (!loaded) {
        fmt::print(stderr, "{}", dg::text(loaded.report()));
        return 1;
    }
    const dg::World& world = *loaded;
    const dg::MapId id = world.find_map(argc > 2 ? argv[2] : "slipway");
    if (id == dg::MapId::none) {
        fmt::print(stderr, "the world has no map '{}'\n", argv[2]);
        return 2;
    }
    const dg::Map& map = world.map(id);
    const dg::Merge merged = dg::merge(world, map);
    const Flat flat = longest_flat(world, merged);
    if (flat.to - flat.from < 4) {
        fmt::print(stderr, "map '{}' has no level ground of 4 m or more\n", map.name);
        return 1;
    }
    cpSpaceFree(cpSpaceNew());   // Chipmunk greets once, which should not stand in the table
    fmt::print("{}: {:.1f} m of level ground\n", map.title, flat.to - flat.from);
    fmt::print("{:<6}{:>8}   {:<14}{:>8}{:>10}{:>8}{:>10}\n", "body", "m/s", "ground", "shapes", "metres", "snags",
               "us/step");
    int snags_on_chains = 0, snags_on_boxes = 0;
    for (const bool ball : {true, false})
        for (const double speed : {1.0, 2.0, 4.0, 7.0, 11.0})
            for (const bool on_chains : {true, false}) {
                const Result r = run(world, merged, on_chains, ball, speed);
                fmt::print("{:<6}{:>8.0f}   {:<14}{:>8}{:>10.2f}{:>8}{:>10.2f}\n", ball ? "ball" : "box", speed,
                           on_chains ? "merged chains" : "box per tile", r.shapes, r.distance, r.snags, r.step_us);
                (on_chains ? snags_on_chains : snags_on_boxes) += r.snags;
            }
    fmt::print("snags in all: {} on merged chains, {} on one box per tile\n", snags_on_chains, snags_on_boxes);
    return 0;
}

// A crowd of crabs on the quay: spawned from the map and by hand, they walk, and turn round when they meet each other
// or a wall.
//
// usage: crabs [HOW_MANY]      (2 to 14, which is what the quay has room for; default: 12)
#include <chipmunk/chipmunk.h>
#include <fmt/format.h>
#include <dryground/chipmunk_play.hpp>
#include <dryground/dryground.hpp>

#include <algorithm>
#include <cmath>

#include "in_memory.hpp"

namespace dg = dryground;

namespace {

const std::map<std::string, std::string> files{
    {"world.toml", R"(format = "dryground/world/1"
title = "Crabs"
player = "crab"
start = "quay/first"
tilesets = ["quay.toml"]
maps = ["quay.map.toml"]
[barriers]
earth = {}
[movers.crab]
body = { box = [10, 8], at = [0, -4] }
stopped_by = ["earth"]
meets = ["crab"]
moves = "side"
[kinds.silt_crab]
role = "spawn"
mover = "crab"
motion = "moving"
stands = "feet"
props.speed_px = { type = "number", default = 24 }
)"},
    {"quay.toml",
     "format = \"dryground/tiles/1\"\nname = \"quay\"\ncell = [16, 16]\n[tiles.stone]\nunseen = true\nbarrier = "
     "\"earth\"\nshapes = [\"cell\"]\n"},
    {"quay.map.toml", R"(format = "dryground/map/1"
name = "quay"
cell = [16, 16]
size = [30, 5]
rim = "earth"
tilesets = ["quay"]
legend = { "#" = "stone", "c" = { kind = "silt_crab" } }
[[layers]]
name = "ground"
rows = '''
..............................
..............................
..............................
..............#..............#
##############################
'''
[[layers]]
name = "crabs"
objects = [{ name = "first", kind = "silt_crab", cell = [3, 3] }, { kind = "silt_crab", cell = [20, 3], props = { speed_px = 40 } }]
)"}};

struct Crab {
    cpBody* body;
    cpShape* shape;
    double speed;   // m/s, with its direction
    int turns = 0;
};

// A crab that runs into something turns round: the engine reports in which direction it is pushed.
cpBool meet(cpArbiter* arbiter, cpSpace*, cpDataPointer) {
    cpBody *a = nullptr, *b = nullptr;
    cpArbiterGetBodies(arbiter, &a, &b);
    const cpVect normal = cpArbiterGetNormal(arbiter);   // from the first to the second
    for (const auto& [body, away] : {std::pair{a, -normal.x}, std::pair{b, normal.x}}) {
        auto* crab = static_cast<Crab*>(cpBodyGetUserData(body));
        if (crab == nullptr || std::abs(normal.x) < 0.7 || crab->speed * away >= 0) continue;
        crab->speed = -crab->speed;
        ++crab->turns;
    }
    return cpTrue;
}

}   // namespace

int main(int argc, char** argv) {
    const dg::Result<dg::World> loaded = load_from(files);
    if (!loaded) {
        fmt::print(stderr, "{}", dg::text(loaded.report()));
        return 1;
    }
    const dg::Play play(*loaded, "quay");
    cpSpace* space = cpSpaceNew();
    cpSpaceSetGravity(space, cpv(0, -10));
    cpSpaceSetCollisionSlop(space, 0.005);
    std::vector<std::unique_ptr<Crab>> crabs;
    dg::Spawners spawners;
    spawners.on("silt_crab", [&](const dg::Spawned& spawned) {
        cpBody* body = dg::chipmunk::add_body(space, play.world(), spawned.kind(), spawned.at_px());
        cpShape* shape = dg::chipmunk::add_mover(space, body, play.world(), spawned.kind().mover).front();
        cpShapeSetFriction(shape, 0);
        crabs.push_back(
            std::make_unique<Crab>(Crab{body, shape, spawned.metres("speed_px") * (crabs.size() % 2 == 0 ? 1 : -1)}));
        cpBodySetUserData(body, crabs.back().get());
        cpBodySetVelocityUpdateFunc(body, [](cpBody* it, cpVect gravity, cpFloat damping, cpFloat dt) {
            cpBodyUpdateVelocity(it, gravity, damping, dt);
            cpBodySetVelocity(it, cpv(static_cast<Crab*>(cpBodyGetUserData(it))->speed, cpBodyGetVelocity(it).y));
        });
        return true;
    });
    const dg::SpawnReport report = spawners.spawn(play);
    fmt::print("{} crabs from the map\n{}", report.made.at("silt_crab"), dg::text(report));
    const int many = argc > 1 ? std::clamp(std::atoi(argv[1]), 2, 14) : 12;
    for (int i = 2; i < many; ++i)
        spawners.make(play, "silt_crab", {80.0 + 24 * i + (i > 5 ? 48 : 0), 64}, {{"speed_px", dg::Value{16.0 + i}}});
    {
        const dg::chipmunk::LiveGround ground(space, play);
        cpSpaceAddDefaultCollisionHandler(space)->preSolveFunc = meet;
        for (int frame = 0; frame < 1200; ++frame) cpSpaceStep(space, 1.0 / 60);
        int turned = 0, turns = 0, on_quay = 0;
        for (const auto& crab : crabs) {
            turned += crab->turns > 0, turns += crab->turns;
            on_quay += std::abs(cpBodyGetPosition(crab->body).y + 4) < 0.05;
        }
        fmt::print("{} of {} turned round, {} times in all; {} are on the quay\n", turned, crabs.size(), turns,
                   on_quay);
    }
    for (const auto& crab : crabs) {
        cpSpaceRemoveShape(space, crab->shape), cpShapeFree(crab->shape);
        cpSpaceRemoveBody(space, crab->body), cpBodyFree(crab->body);
    }
    cpSpaceFree(space);
    return 0;
}

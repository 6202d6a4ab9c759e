// A warden jumps under a row of crates: those that are hit from below break, those that are run into do not.
//
// usage: crates
//
// The tile declares what happens (`reacts = [{ fires = "bump", from = ["bottom"], turns_into = "" }]`); the physics
// engine reports that two shapes touch; Play finds which tile that was, TriggerTracker what follows, and the bridge
// replaces the ground.
#include <chipmunk/chipmunk.h>
#include <fmt/format.h>
#include <dryground/chipmunk_play.hpp>
#include <dryground/dryground.hpp>

#include "in_memory.hpp"

namespace dg = dryground;

namespace {

const std::map<std::string, std::string> files{{"world.toml", R"(format = "dryground/world/1"
title = "Crates"
player = "warden"
start = "quay/landing"
tilesets = ["quay.toml"]
maps = ["quay.map.toml"]
[barriers]
earth = {}
[events]
splinters = "a crate breaks"
[movers.warden]
body = { box = [10, 14], at = [0, -7] }
stopped_by = ["earth"]
moves = "side"
)"},
                                               {"quay.toml", R"(format = "dryground/tiles/1"
name = "quay"
cell = [16, 16]
[[for]]
tiles = ["*"]
set = { unseen = true, barrier = "earth", shapes = ["cell"] }
[tiles.stone]
[tiles.crate]
reacts = [{ fires = "bump", from = ["bottom"], turns_into = "", runs = "splinters" }]
)"},
                                               {"quay.map.toml", R"(format = "dryground/map/1"
name = "quay"
cell = [16, 16]
size = [16, 6]
rim = "earth"
tilesets = ["quay"]
legend = { "#" = "stone", "x" = "crate" }
[[layers]]
name = "ground"
rows = '''
................
................
......xx........
...............x
...............x
################
'''
[[layers]]
name = "people"
objects = [{ name = "landing", kind = "spawn", at = [24, 80] }]
)"}};

// What the engine's handler fills, to be dealt with after the step.
struct Bumps {
    const dg::Play* play;
    std::vector<dg::Touch> touches;
};

cpBool note_touches(cpArbiter* arbiter, cpSpace*, cpDataPointer data) {
    Bumps& bumps = *static_cast<Bumps*>(data);
    for (const dg::Touch& touch : dg::chipmunk::touched(*bumps.play, arbiter)) bumps.touches.push_back(touch);
    return cpTrue;
}

}   // namespace

int main() {
    const dg::Result<dg::World> loaded = load_from(files);
    if (!loaded) {
        fmt::print(stderr, "{}", dg::text(loaded.report()));
        return 1;
    }
    cpSpace* space = cpSpaceNew();
    cpSpaceSetGravity(space, cpv(0, -20));
    cpSpaceSetCollisionSlop(space, 0.005);
    dg::Play play(*loaded, "quay", {.chunk_cells = 4});
    dg::TriggerTracker tracker(play);
    {
        dg::chipmunk::LiveGround ground(space, play);
        Bumps bumps{&play, {}};
        cpCollisionHandler* handler = cpSpaceAddDefaultCollisionHandler(space);
        handler->preSolveFunc = note_touches, handler->userData = &bumps;
        cpBody* warden = cpSpaceAddBody(space, cpBodyNew(1, INFINITY));
        const dg::Object& landing = play.map().objects[0];
        const auto [x, y] = play.to_metres({dg::to_px(landing.position.x), dg::to_px(landing.position.y)});
        cpBodySetPosition(warden, cpv(x, y));
        const std::vector<cpShape*> shapes = dg::chipmunk::add_mover(space, warden, play.world(), play.map().player);
        // What the player wants is set where the engine asks for it: set between steps it would go through walls.
        cpVect wish = cpv(4, 0);
        cpBodySetUserData(warden, &wish);
        cpBodySetVelocityUpdateFunc(warden, [](cpBody* body, cpVect gravity, cpFloat damping, cpFloat dt) {
            cpVect& wanted = *static_cast<cpVect*>(cpBodyGetUserData(body));
            cpBodyUpdateVelocity(body, gravity, damping, dt);
            cpBodySetVelocity(body, cpv(wanted.x, wanted.y > 0 ? wanted.y : cpBodyGetVelocity(body).y));
            wanted.y = 0;
        });
        bool jumped = false;
        for (int frame = 0; frame < 300; ++frame) {
            const cpVect at = cpBodyGetPosition(warden);
            const bool on_floor = at.y < -4.98;
            if (on_floor && at.x > 6.4 && !jumped) wish.y = 7, jumped = true;   // below the crates overhead
            bumps.touches.clear();
            cpSpaceStep(space, 1.0 / 60);
            const dg::PointPx feet = play.from_metres(at.x, at.y);
            for (const dg::Touch& touch : bumps.touches)
                for (const dg::Firing& firing : tracker.bumped({1, play.map().player, feet}, touch)) {
                    fmt::print("crate at ({}, {}) hit from below: {}\n", firing.cell.column, firing.cell.row,
                               play.world().event(firing.event).name);
                    ground.replace(play, firing.changed.chunks);
                }
        }
        int left = 0;
        for (int r = 0; r < play.map().rows; ++r)
            for (int c = 0; c < play.map().columns; ++c)
                if (const dg::Tile* tile = play.find_tile(dg::LayerId{0}, {c, r})) left += tile->name == "crate";
        fmt::print("{} crates are left, the warden stands at {:.1f} m\n", left, cpBodyGetPosition(warden).x);
        for (cpShape* shape : shapes) cpSpaceRemoveShape(space, shape), cpShapeFree(shape);
        cpSpaceRemoveBody(space, warden), cpBodyFree(warden);
    }
    cpSpaceFree(space);
    return 0;
}

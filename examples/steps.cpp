// Walking by steps, seen from above: walls, a turnstile, a lever in the next cell, stairs to a loft.
//
// usage: steps [WAY]      (n e s w: a step; u: use what is next to one; default: a way that shows all of it)
#include <fmt/format.h>
#include <dryground/dryground.hpp>

#include "in_memory.hpp"

namespace dg = dryground;

namespace {

const std::map<std::string, std::string> files{{"world.toml", R"(format = "dryground/world/1"
title = "Steps"
player = "warden"
start = "store/landing"
tilesets = ["store.toml"]
maps = ["store.map.toml"]
[barriers]
earth = {}
[flags]
walk = "on foot"
[storeys]
loft = { base_px = 32, height_px = 32 }
[movers.warden]
body = { box = [10, 10] }
stopped_by = ["earth"]
needs = ["walk"]
moves = "steps"
[facts]
lever_down = "the lever is down"
)"},
                                               {"store.toml", R"(format = "dryground/tiles/1"
name = "store"
cell = [16, 16]
[[for]]
tiles = ["*"]
set = { unseen = true, barrier = "earth", flags = ["walk"], shapes = [] }
[tiles.floor]
[tiles.wall]
flags = []
shapes = ["cell"]
[tiles.turnstile]
sides = { right = "out" }
[tiles.stairs]
leads = "loft"
)"},
                                               {"store.map.toml", R"(format = "dryground/map/1"
name = "store"
cell = [16, 16]
size = [7, 4]
rim = "earth"
tilesets = ["store"]
legend = { "f" = "floor", "#" = "wall", ">" = "turnstile", "^" = "stairs" }
[[layers]]
name = "ground"
rows = '''
#######
#ff>ff#
#f###^#
#######
'''
[[layers]]
name = "loft"
storey = "loft"
rows = '''
.......
...fff.
.....f.
.......
'''
[[layers]]
name = "things"
objects = [
  { name = "landing", kind = "spawn", cell = [1, 1] },
  { name = "lever", kind = "trigger", cell = [1, 2], fires = "use", gives = ["lever_down"] },
]
)"}};

}   // namespace

int main(int argc, char** argv) {
    const dg::Result<dg::World> loaded = load_from(files);
    if (!loaded) {
        fmt::print(stderr, "{}", dg::text(loaded.report()));
        return 1;
    }
    dg::Play play(*loaded, "store");
    dg::TriggerTracker tracker(play);
    const dg::MoverId warden = play.map().player;
    dg::Cell at{1, 1};
    dg::StoreyId storey = dg::StoreyId::ground;
    for (const char way : std::string(argc > 1 ? argv[1] : "nueeewesww")) {
        const dg::Cell to{at.column + (way == 'e') - (way == 'w'), at.row + (way == 's') - (way == 'n')};
        std::string told;
        if (to != at) {
            const bool may = play.may_step(warden, at, to, storey);
            told = may ? fmt::format("to ({}, {})", to.column, to.row)
                       : fmt::format("may not go to ({}, {})", to.column, to.row);
            if (may) at = to;
        }
        const dg::BodyNow body{1, warden, play.middle_of(at), storey, way == 'u'};
        for (const dg::Firing& firing : tracker.update(0.2, std::span(&body, 1))) {
            if (firing.object != dg::ObjectId::none)
                told += fmt::format("{}{} '{}'", told.empty() ? "" : ", ", dg::name_of(firing.fires),
                                    play.map().object(firing.object).name);
            if (firing.to_storey != dg::StoreyId::none) {
                storey = firing.to_storey;
                told += fmt::format(", up to the {}", play.world().storey(storey).name);
            }
        }
        fmt::print("{}: {}\n", way, told.empty() ? "nothing" : told);
    }
    fmt::print("the lever is {}\n", play.holds("lever_down") ? "down" : "up");
    return 0;
}

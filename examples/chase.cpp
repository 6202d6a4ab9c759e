// A crab comes after the warden over whatever the warden breaks: it asks for a way again after each change. What it can
// get to at all, with all keys and doors, is followed too.
#include <fmt/format.h>
#include <dryground/dryground.hpp>

#include "in_memory.hpp"

namespace dg = dryground;

namespace {

const std::map<std::string, std::string> files{
    {"world.toml", R"(format = "dryground/world/1"
title = "Chase"
player = "crab"
start = "quay/hole"
tilesets = ["quay.toml"]
maps = ["quay.map.toml"]
[barriers]
earth = {}
[movers.crab]
body = { box = [10, 8], at = [0, -4] }
stopped_by = ["earth"]
moves = "side"
jump_px = 20
leap_px = 24
)"},
    {"quay.toml",
     "format = \"dryground/tiles/1\"\nname = \"quay\"\ncell = [16, 16]\n[[for]]\ntiles = [\"*\"]\nset = { unseen = "
     "true, "
     "barrier = \"earth\", shapes = [\"cell\"] }\n[tiles.stone]\n[tiles.crate]\n"},
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
.......x........
.......x........
.......x........
.......x........
##########..####
################
'''
[[layers]]
name = "crabs"
objects = [{ name = "hole", kind = "spawn", at = [24, 64] }]
)"}};

constexpr dg::PointPx hole{24, 64}, warden{232, 64};

void tell(const dg::Play& play, dg::MoverId crab) {
    const auto route = play.route(crab, hole, warden);
    if (!route) {
        fmt::print("no way\n");
        return;
    }
    for (const dg::RouteStep& step : *route)
        fmt::print("{} to ({:.0f}, {:.0f})\n", dg::name_of(step.going), step.to.at.x, step.to.at.y);
}

}   // namespace

int main() {
    const dg::Result<dg::World> loaded = load_from(files);
    if (!loaded) {
        fmt::print(stderr, "{}", dg::text(loaded.report()));
        return 1;
    }
    dg::Play play(*loaded, "quay");
    const dg::MoverId crab = play.world().find_mover("crab");
    const auto ground = play.find_layer("ground");
    dg::Reach reach = dg::reach(play.world());
    const auto tell_reached = [&] {
        const dg::Spot spot{play.map_id(), dg::StoreyId::ground, warden};
        fmt::print("the warden is in reach: {}\n", dg::name_of(reach.reached(spot)));
    };
    tell(play, crab);
    tell_reached();
    fmt::print("the warden breaks the lowest crate\n");
    play.clear(ground, {7, 3});
    tell(play, crab);
    reach.update(play.map_id(), play.map());
    tell_reached();
    fmt::print("and closes it again\n");
    play.set_tile(ground, {7, 3}, "crate");
    tell(play, crab);
}

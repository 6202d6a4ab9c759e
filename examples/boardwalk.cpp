// The warden crosses the pump house's pool: the brine stops it, the boardwalk that carves the brine lets it pass.
//
// usage: boardwalk [WORLD]      (default: the demo world)
#include <fmt/format.h>
#include <dryground/dryground.hpp>

namespace dg = dryground;

namespace {

// Walks straight to the other shore, and prints what is in the way.
void cross(const dg::Play& play, const char* where, double y) {
    const dg::PointPx from{100, y}, to{220, y};
    const dg::Blocked way = play.blocked(play.map().player, from, to);
    if (!way) {
        fmt::print("{}: across, {:.0f} px\n", where, to.x - from.x);
        return;
    }
    const std::string what = way.by == dg::Blocked::By::tile    ? play.world().tile(way.touch.tile).name
                             : way.by == dg::Blocked::By::flags ? "a cell without footing"
                                                                : "something";
    fmt::print("{}: stopped by {} at ({}, {}), after {:.0f} px\n", where, what, way.cell.column, way.cell.row,
               way.place.x - from.x);
}

}   // namespace

int main(int argc, char** argv) {
    const dg::Result<dg::World> loaded = dg::load_world(argc > 1 ? argv[1] : DRYGROUND_DEMO_WORLD);
    if (!loaded) {
        fmt::print(stderr, "{}", dg::text(loaded.report()));
        return 1;
    }
    dg::Play play(*loaded, "pump_house");
    cross(play, "beside the boardwalk", 60);
    cross(play, "on the boardwalk", 107);
    // A plank rots away while somebody plays.
    const dg::LayerId bridge = play.find_layer("bridge");
    const dg::EditResult rotten = play.clear(bridge, {9, 6});
    fmt::print("a plank is gone: the ground of {} chunk{} is another\n", rotten.chunks.size(),
               rotten.chunks.size() == 1 ? "" : "s");
    cross(play, "on the boardwalk", 107);
    play.undo(rotten);
    cross(play, "mended", 107);
    return 0;
}

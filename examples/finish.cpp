// Whether a world can be finished, and how.
//
// usage: finish [WORLD]      (default: the demo)
#include <fmt/format.h>
#include <dryground/dryground.hpp>

namespace dg = dryground;

int main(int argc, char** argv) {
    const dg::Result<dg::World> loaded = dg::load_world(argc > 1 ? argv[1] : DRYGROUND_DEMO_WORLD);
    if (!loaded) {
        fmt::print(stderr, "{}", dg::text(loaded.report()));
        return 1;
    }
    const dg::World& world = *loaded;
    const dg::Reach reach = dg::reach(world);
    bool all = true;
    for (const dg::GoalReached& goal : reach.goals()) {
        const dg::MapId map = goal.map;
        const dg::ObjectId object = goal.object;
        all = all && goal.reached == dg::Reached::yes;
        if (object == dg::ObjectId::none) continue;
        if (const auto route = reach.route_to(map, object))
            fmt::print("{}", dg::text(world, *route));
        else
            fmt::print("{}\n", dg::text(world, reach.in_the_way(map, object)));
    }
    fmt::print("it {} be finished\n", all ? "can" : "cannot");
    return all ? 0 : 1;
}

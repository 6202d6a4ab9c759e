// All rules on a large map with many objects.
#include <fmt/format.h>

#include "caves.hpp"
#include "dryground/check.hpp"
#include "dryground/travel.hpp"
#include "peers.hpp"
#include "timing.hpp"
#include "works.hpp"

namespace bench {

using namespace dryground;

namespace {

// Measures finding where the player gets to.
void measure_walked(const Settings& settings, const Tell& tell) {
    for (const Moves moves : {Moves::steps, Moves::free, Moves::side})
        for (int side = 256; side <= std::min(1024, settings.most_side); side *= 2) {
            const std::string work = "check", input = fmt::format("walked caves {}, {}", side,
                                                                  moves == Moves::steps  ? "steps"
                                                                  : moves == Moves::free ? "free"
                                                                                         : "side");
            if (!wanted(settings, work, input)) continue;
            const World world = walked_world(side, Tiles::full, moves, 7);
            std::size_t findings = 0;
            const std::vector<double> times = alternate(
                {[&] { findings = check(world).findings().size(); }, [&] { keep(reach(world).goals().size()); }});
            Timing result{.work = work, .input = input, .seconds = times[0]};
            result.peers.push_back({"of that, where the player gets to", times[1]});
            result.note = fmt::format("all rules, {} findings", findings);
            tell(std::move(result));
        }
}

}   // namespace

void measure_checks(const Settings& settings, const Tell& tell) {
    measure_walked(settings, tell);
    for (const Tiles tiles : {Tiles::full, Tiles::mixed})
        for (int side = 256; side <= std::min(1024, settings.most_side); side *= 2) {
            const std::string work = "check",
                              input = fmt::format("{} {}",
                                                  tiles == Tiles::full ? "busy caves full" : "busy caves mixed", side);
            if (!wanted(settings, work, input)) continue;
            const int objects = 10'000 * side / 1024 * side / 1024;
            const World world = busy_world(side, tiles, objects, 7);
            std::size_t findings = 0;
            std::vector<std::function<void()>> ways{[&] { findings = check(world).findings().size(); }};
            Regions polygons;
            if (settings.peers) {
                polygons = tile_polygons(world);
                ways.emplace_back([&] { keep(boost_union(polygons).regions); });
            }
            const std::vector<double> times = alternate(ways);
            Timing result{.work = work, .input = input, .seconds = times[0]};
            if (settings.peers) result.peers.push_back({"Boost.Polygon, tiles united", times[1]});
            result.note = fmt::format("all rules, {} objects, {} findings", objects, findings);
            tell(std::move(result));
        }
}

}   // namespace bench

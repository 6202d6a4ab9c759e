// Polygons of any sort.
#include <fmt/format.h>

#include "caves.hpp"
#include "peers.hpp"
#include "timing.hpp"
#include "works.hpp"

namespace bench {

using namespace dryground;

void measure_booleans(const Settings& settings, const Tell& tell) {
    const auto one = [&](const std::string& input, auto make) {
        if (!wanted(settings, "general boolean", input)) return;
        const Regions polygons = make();
        Timing result{.work = "general boolean", .input = input};
        std::size_t regions = 0;
        const std::vector<double> times =
            alternate({[&] { regions = unite(polygons).size(); }, [&] { keep(boost_union(polygons).regions); },
                       [&] { keep(geos_union(polygons).regions); }});
        result.seconds = times[0];
        result.peers = {{"Boost.Polygon general", times[1]}, {"GEOS", times[2]}};
        result.note = fmt::format("{} regions", regions);
        tell(std::move(result));
    };
    one("1000 drawn, sparse", [] { return drawn_polygons(1000, 20, 1024 * 16 * steps_per_px, 3); });
    one("1000 drawn, dense", [] { return drawn_polygons(1000, 20, 256 * 16 * steps_per_px, 3); });
    one("tiles of caves 128", [] { return tile_polygons(cave_world(128, Tiles::mixed, 7)); });
    one("tiles of noise 128", [] { return tile_polygons(noise_world(128, Tiles::mixed, 7)); });
}

}   // namespace bench

// Regions cut up: boxes, triangles, pieces.
#include <fmt/format.h>

#include "caves.hpp"
#include "dryground/merge.hpp"
#include "figures.hpp"
#include "peers.hpp"
#include "timing.hpp"
#include "works.hpp"

namespace bench {

using namespace dryground;

namespace {

Regions ground_of(const World& world) { return merge(world, world.maps()[0], {.forms = {}}).group("earth").regions; }

void measure_shrinking(const Regions& figure, const std::string& input, int by_px, const Tell& tell) {
    constexpr double within_px = 0.25;
    const std::int32_t by = by_px * steps_per_px;
    double ours = 0, theirs = 0;
    const std::vector<double> times =
        alternate({[&] { ours = static_cast<double>(twice_area(grown(figure, -by, Corners::round, within_px))) / 2; },
                   [&] { theirs = geos_shrunk_area(figure, by, within_px * steps_per_px); }});
    tell({.work = "shrink",
          .input = input,
          .seconds = times[0],
          .peers = {{"GEOS buffer", times[1]}},
          .note = fmt::format("area {:.0f} px2, theirs {:.0f}", ours / steps_per_px / steps_per_px,
                              theirs / steps_per_px / steps_per_px)});
}

// Caves, from what a body takes up to what is left of the widest halls; a coast, from a part of an edge's length on.
void measure_all_shrinking(int side, const Settings& settings, const Tell& tell) {
    for (const int by_px : {4, 16, 64})
        if (const std::string input = fmt::format("caves mixed {} by {} px", side, by_px);
            wanted(settings, "shrink", input))
            measure_shrinking(ground_of(cave_world(side, Tiles::mixed, 7)), input, by_px, tell);
    for (const int by_px : {100, 1'000, 4'000, 16'000})
        if (const std::string input = fmt::format("coast, 16384 by {} px", by_px); wanted(settings, "shrink", input))
            measure_shrinking(coast(16'384), input, by_px, tell);
}

}   // namespace

void measure_forms(const Settings& settings, const Tell& tell) {
    const int side = std::min(512, settings.most_side);
    if (const std::string input = fmt::format("caves full {}", side); wanted(settings, "least boxes", input)) {
        const Regions ground = ground_of(cave_world(side, Tiles::full, 7));
        std::size_t ours = 0, theirs = 0;
        const std::vector<double> times =
            alternate({[&] { ours = least_boxes(ground).boxes.size(); }, [&] { theirs = boost_rectangles(ground); }});
        tell({.work = "least boxes",
              .input = input,
              .seconds = times[0],
              .peers = {{"Boost.Polygon right-angled", times[1]}},
              .note = fmt::format("{} boxes, theirs {}", ours, theirs)});
    }
    measure_all_shrinking(std::min(256, settings.most_side), settings, tell);
    const std::string input = fmt::format("caves mixed {}", side);
    if (!wanted(settings, "triangles", input) && !wanted(settings, "pieces", input)) return;
    const Regions ground = ground_of(cave_world(side, Tiles::mixed, 7));
    if (wanted(settings, "triangles", input)) {
        std::size_t ours = 0, theirs = 0;
        const std::vector<double> times = alternate(
            {[&] { ours = delaunay_triangles(ground).triangles.size(); }, [&] { theirs = geos_triangles(ground); }});
        tell({.work = "triangles",
              .input = input,
              .seconds = times[0],
              .peers = {{"GEOS constrained Delaunay", times[1]}},
              .note = fmt::format("{} triangles, theirs {}", ours, theirs)});
    }
    if (wanted(settings, "pieces", input)) {
        std::size_t ours = 0;
        const std::vector<double> times = alternate({[&] { ours = convex_pieces(ground, 8).size(); }});
        tell({.work = "pieces", .input = input, .seconds = times[0], .note = fmt::format("{} pieces", ours)});
    }
}

}   // namespace bench

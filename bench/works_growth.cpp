// How cost grows: figures that are hard for one part of the kernel each, at some size and doubled twice.
#include <fmt/format.h>

#include "figures.hpp"
#include "timing.hpp"
#include "works.hpp"

#include "dryground/geometry.hpp"

namespace bench {

using namespace dryground;

void measure_growth(const Settings& settings, const Tell& tell) {
    const auto one = [&](const std::string& work, const std::string& input, int size, auto make, auto use) {
        const std::string named = fmt::format("{}, {} at least", input, size);
        if (!wanted(settings, "growth: " + work, named)) return;
        std::vector<double> times;
        for (const int factor : {1, 2, 4}) {
            const auto figure = make(factor * size);
            times.push_back(alternate({[&] { keep(use(figure)); }}, 3, 0.2)[0]);
        }
        tell({.work = "growth: " + work,
              .input = named,
              .seconds = times[0],
              .note =
                  fmt::format("doubled: {:.1f} times as long, then {:.1f}", times[1] / times[0], times[2] / times[1])});
    };
    const auto united = [](const Regions& figure) { return unite(figure).size(); };
    const auto pieces = [](const Regions& figure) { return convex_pieces(figure, 8).size(); };
    one("unite", "sieve", 50'000, sieve, united);
    one("unite", "heap", 25'000, heap, united);
    one("unite", "comb", 12'500, comb, united);
    one("triangles", "comb", 12'500, comb, [](const Regions& figure) { return triangles(figure).size(); });
    one("pieces", "comb", 12'500, comb, pieces);
    one("pieces", "stairs", 12'500, stairs, pieces);
    const auto large_pieces = [](const Regions& figure) { return convex_pieces(figure, 1 << 30).size(); };
    one("pieces of any size", "disc", 4'000, disc, large_pieces);
    one("pieces of any size", "bowl", 4'000, bowl, large_pieces);
    one("stack", "coats", 4'000, coats,
        [](const std::vector<PaintLayer>& figure) { return stack(figure).regions.size(); });
    one("least boxes", "stairs", 12'500, stairs,
        [](const Regions& figure) { return least_boxes(figure).boxes.size(); });
    const auto boxes_and_rests = [](const Regions& figure) {
        const Boxes result = least_boxes(figure);
        return result.boxes.size() + result.rests.size();
    };
    one("least boxes", "disc", 8'000, disc, boxes_and_rests);
    one("triangles", "coast", 16'384, coast, [](const Regions& figure) { return triangles(figure).size(); });
    for (const int by_px : {4'000, 60'000, 250'000})
        one(fmt::format("shrink by {} px", by_px), "coast", 16'384, coast,
            [by_px](const Regions& figure) { return grown(figure, -by_px * steps_per_px, Corners::round).size(); });
    one("shrink", "sieve", 12'500, sieve,
        [](const Regions& figure) { return grown(figure, -2, Corners::round).size(); });
}

}   // namespace bench

// How cost grows: figures that are hard for one part of the kernel each, at some size and doubled twice.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <random>

#include "timing.hpp"
#include "works.hpp"

#include "dryground/geometry.hpp"

namespace bench {

using namespace dryground;

namespace {

Regions comb(int vertices) {   // long thin teeth
    Ring ring;
    for (int x = 0; x < vertices; x += 4)
        for (const Point p : {Point{x, 0}, Point{x + 2, 0}, Point{x + 2, 1'000'000}, Point{x + 4, 1'000'000}})
            ring.push_back(p);
    ring.push_back({vertices + 4, 2'000'000});
    ring.push_back({0, 2'000'000});
    return {{ring, {}}};
}

Regions stairs(int vertices) {
    Ring ring;
    for (int i = 0; i < vertices / 2; ++i) ring.insert(ring.end(), {{10 * i, 10 * i}, {10 * i + 10, 10 * i}});
    ring.insert(ring.end(), {{5 * vertices, 5 * vertices}, {0, 5 * vertices}});
    return {{ring, {}}};
}

Regions sieve(int vertices) {   // one outline, many holes
    const int side = static_cast<int>(std::sqrt(vertices / 4));
    Region sieve = box_region({0, 0}, {10 * side + 10, 10 * side + 10});
    for (int r = 0; r < side; ++r)
        for (int c = 0; c < side; ++c)
            sieve.holes.push_back(box_ring({10 * c + 5, 10 * r + 5}, {10 * c + 10, 10 * r + 10}));
    return {sieve};
}

Regions heap(int vertices) {   // many boxes near each other, and one far away
    std::mt19937 dice(1);
    const auto side = static_cast<unsigned>(100 * std::sqrt(vertices));
    Regions heap{box_region({500'000'000, 500'000'000}, {500'000'001, 500'000'001})};
    for (int i = 0; i < vertices / 4; ++i) {
        const Point at{static_cast<int>(dice() % side), static_cast<int>(dice() % side)};
        heap.push_back(box_region(at, {at.x + 60, at.y + 60}));
    }
    return heap;
}

// An outline with bays within bays: each edge's middle is moved, less and less.
Regions coast(int vertices) {
    std::mt19937 dice(1);
    std::vector<double> distances(4, 1);
    for (double most = 0.2; distances.size() < static_cast<std::size_t>(vertices); most *= 0.55) {
        std::vector<double> finer;
        for (std::size_t i = 0; i < distances.size(); ++i) {
            const double next = distances[(i + 1) % distances.size()];
            const double by = most * (static_cast<double>(dice() % 2001) / 1000 - 1);
            finer.insert(finer.end(), {distances[i], (distances[i] + next) / 2 + by});
        }
        distances = std::move(finer);
    }
    Ring ring;
    for (std::size_t i = 0; i < distances.size(); ++i) {
        const double angle = 2 * std::numbers::pi * static_cast<double>(i) / static_cast<double>(distances.size());
        const double radius = 400'000'000 * std::max(0.1, std::min(distances[i], 1.3));
        ring.push_back(
            {static_cast<std::int32_t>(radius * std::cos(angle)), static_cast<std::int32_t>(radius * std::sin(angle))});
    }
    return unite(Regions{{std::move(ring), {}}});
}

std::vector<PaintLayer> coats(int count) {   // each over a few others
    std::mt19937 dice(1);
    std::vector<PaintLayer> coats;
    for (int i = 0; i < count; ++i) {
        const Point at{static_cast<int>(dice() % (40u * static_cast<unsigned>(count))),
                       static_cast<int>(dice() % 4000)};
        coats.push_back({i % 3 != 0, i % 5, {box_region(at, {at.x + 400, at.y + 400})}});
    }
    return coats;
}

// Convex, or what is left of a box where one was taken out.
Ring circle(int vertices) {
    constexpr double radius = 400'000'000;
    std::vector<Point> points;
    for (int i = 0; i < vertices; ++i) {
        const double angle = 2 * std::numbers::pi * i / vertices;
        points.push_back(
            {static_cast<std::int32_t>(radius * std::cos(angle)), static_cast<std::int32_t>(radius * std::sin(angle))});
    }
    return convex_hull(std::move(points));
}
Regions disc(int vertices) { return {{circle(vertices), {}}}; }
Regions bowl(int vertices) {
    return subtract(Regions{box_region({-500'000'000, 0}, {500'000'000, 500'000'000})}, disc(vertices));
}

}   // namespace

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

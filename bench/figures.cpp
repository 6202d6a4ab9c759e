#include "figures.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <random>

namespace bench {

using namespace dryground;

Regions comb(int vertices) {
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

Regions sieve(int vertices) {
    const int side = static_cast<int>(std::sqrt(vertices / 4));
    Region sieve = box_region({0, 0}, {10 * side + 10, 10 * side + 10});
    for (int r = 0; r < side; ++r)
        for (int c = 0; c < side; ++c)
            sieve.holes.push_back(box_ring({10 * c + 5, 10 * r + 5}, {10 * c + 10, 10 * r + 10}));
    return {sieve};
}

Regions heap(int vertices) {
    std::mt19937 dice(1);
    const auto side = static_cast<unsigned>(100 * std::sqrt(vertices));
    Regions heap{box_region({500'000'000, 500'000'000}, {500'000'001, 500'000'001})};
    for (int i = 0; i < vertices / 4; ++i) {
        const Point at{static_cast<int>(dice() % side), static_cast<int>(dice() % side)};
        heap.push_back(box_region(at, {at.x + 60, at.y + 60}));
    }
    return heap;
}

// Each edge's middle is moved, less and less.
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

std::vector<PaintLayer> coats(int count) {
    std::mt19937 dice(1);
    std::vector<PaintLayer> coats;
    for (int i = 0; i < count; ++i) {
        const Point at{static_cast<int>(dice() % (40u * static_cast<unsigned>(count))),
                       static_cast<int>(dice() % 4000)};
        coats.push_back({i % 3 != 0, i % 5, {box_region(at, {at.x + 400, at.y + 400})}});
    }
    return coats;
}

namespace {

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
}   // namespace

Regions disc(int vertices) { return {{circle(vertices), {}}}; }
Regions bowl(int vertices) {
    return subtract(Regions{box_region({-500'000'000, 0}, {500'000'000, 500'000'000})}, disc(vertices));
}

}   // namespace bench

#include <catch2/catch.hpp>

#include <cmath>

#include "chance.hpp"
#include "dryground/geometry.hpp"
#include "oracles.hpp"

using namespace dryground;

namespace {

std::vector<char> pixels_of(const std::vector<std::string>& rows) {
    std::vector<char> set;
    for (const std::string& row : rows)
        for (const char c : row) set.push_back(c == '#');
    return set;
}

double away(Point p, const Regions& regions) {
    double least = 1e12;
    const auto look = [&](const Ring& ring) {
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i], b = ring[(i + 1) % ring.size()];
            const double dx = double{0} + b.x - a.x, dy = double{0} + b.y - a.y;
            const double t = std::clamp(
                ((double{0} + p.x - a.x) * dx + (double{0} + p.y - a.y) * dy) / (dx * dx + dy * dy), 0.0, 1.0);
            least = std::min(least, std::hypot(p.x - a.x - t * dx, p.y - a.y - t * dy));
        }
    };
    for (const Region& region : regions) {
        look(region.outline);
        for (const Ring& hole : region.holes) look(hole);
    }
    return least;
}

}   // namespace

TEST_CASE("pixels are traced as they are, or with fewer vertices") {
    const std::vector<char> square = pixels_of({"....", ".##.", ".##.", "...."});
    CHECK(trace_pixels(4, 4, square, 0.5) == Regions{box_region({256, 256}, {768, 768})});
    // a staircase becomes a slope
    const std::vector<char> stairs =
        pixels_of({"#.......", "##......", "###.....", "####....", "#####...", "######..", "#######.", "########"});
    CHECK(trace_pixels(8, 8, stairs, 0)[0].outline.size() == 18);
    CHECK(trace_pixels(8, 8, stairs, 0.75)[0].outline.size() <= 5);
    CHECK(trace_pixels(3, 3, pixels_of({"###", "#.#", "###"}), 0.5)[0].holes.size() == 1);
    CHECK(trace_pixels(4, 1, pixels_of({"...."}), 0.5).empty());
}

TEST_CASE("tracing stays valid and near, whatever the pixels") {
    for (int round = 0; round < 150; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(600'000 + static_cast<std::uint64_t>(round));
        const int width = dice.in(1, 24), height = dice.in(1, 24), percent = dice.in(10, 95);
        std::vector<char> set;
        const bool blobs = dice.once_in(2);
        const int cx = dice.in(0, width), cy = dice.in(0, height), r = dice.in(2, 12);
        for (int y = 0; y < height; ++y)
            for (int x = 0; x < width; ++x)
                set.push_back(blobs ? (x - cx) * (x - cx) + (y - cy) * (y - cy) < r * r || x + y > 30
                                    : dice.in(1, 100) <= percent);
        const double within = dice.in(0, 6) / 4.0;
        const Regions exact = trace_pixels(width, height, set, 0), traced = trace_pixels(width, height, set, within);
        CAPTURE(width, height, within, to_text(exact));
        REQUIRE(oracle::geos_fault(traced) == "");
        REQUIRE(traced.size() == exact.size());
        std::size_t exact_vertices = 0, vertices = 0, exact_holes = 0, holes = 0;
        const auto count = [](const Regions& regions, std::size_t& corners, std::size_t& gaps) {
            for (const Region& region : regions) {
                corners += region.outline.size();
                gaps += region.holes.size();
                for (const Ring& hole : region.holes) corners += hole.size();
            }
        };
        count(exact, exact_vertices, exact_holes);
        count(traced, vertices, holes);
        REQUIRE(vertices <= exact_vertices);
        REQUIRE(holes == exact_holes);
        for (const Region& region : exact)
            for (const Point p : region.outline) REQUIRE(away(p, traced) <= within * 256 + 1e-6);
    }
}

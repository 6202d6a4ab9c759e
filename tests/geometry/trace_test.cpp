// Also tests src/geometry: trace_ways
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
            for (const Point p : region.outline)
                REQUIRE(away(p, traced) <= (within < 0.5 ? within : std::max(within, std::sqrt(2.0))) * 256 + 1e-6);
    }
}

TEST_CASE("stairs of pixels that stand for a straight edge become that edge, whatever its slope") {
    for (int rise = 1; rise <= 5; ++rise)
        for (int run = 1; run <= 5; ++run) {
            const int width = 6 * run, height = 6 * rise;
            CAPTURE(rise, run);
            std::vector<char> set;
            for (int y = 0; y < height; ++y)
                for (int x = 0; x < width; ++x)   // more than half of the pixel lies under the line
                    set.push_back((2 * x + 1) * rise + (2 * y + 1) * run >= 2 * width * rise ? 1 : 0);
            const Regions traced = trace_pixels(width, height, set, 0.75);
            REQUIRE(traced.size() == 1);
            CHECK(traced[0].outline.size() <= 5);
            // All but its ends is one edge, that leans as the line does.
            double longest = 0, lean = 0;
            for (std::size_t i = 0; i < traced[0].outline.size(); ++i) {
                const Point a = traced[0].outline[i], b = traced[0].outline[(i + 1) % traced[0].outline.size()];
                if (a.x == b.x || a.y == b.y || std::abs(b.x - a.x) <= longest) continue;
                longest = std::abs(b.x - a.x), lean = std::abs(double{0} + b.y - a.y) / longest;
            }
            CHECK(longest >= (width - 2 * std::max(1, run / rise) - 2) * 256.0);
            CHECK(lean == Approx(static_cast<double>(rise) / run).epsilon(0.12));
        }
}

TEST_CASE("a slope that runs over several tiles goes on straight where each is traced by itself") {
    constexpr int cell = 16;
    for (const bool steep : {false, true})
        for (const bool falls : {false, true})
            for (int n = 1; n <= 5; ++n) {   // px up, on one aside or the other way round
                INFO((steep ? "steep, " : "flat, ") << n << (falls ? ", falls" : ", rises"));
                Regions slope;
                for (int k = 0; k < n; ++k) {
                    std::vector<char> set;
                    for (int y = 0; y < cell; ++y)
                        for (int x = 0; x < cell; ++x) {
                            const int up = cell - 1 - y, along = falls ? cell - 1 - x : x;
                            set.push_back(steep ? up + cell * k < n * along + n : up < (along + cell * k) / n + 1);
                        }
                    const int column = steep ? 0 : falls ? n - 1 - k : k, row = steep ? n - 1 - k : 0;
                    for (Region& region : moved(trace_pixels(cell, cell, set, 0.75),
                                                {column * cell * steps_per_px, row * cell * steps_per_px}))
                        slope.push_back(std::move(region));
                }
                slope = unite(slope);
                const int wide = (steep ? 1 : n) * cell * steps_per_px, high = (steep ? n : 1) * cell * steps_per_px;
                const Regions wanted = unite(Regions{{{{0, high}, {falls ? 0 : wide, 0}, {wide, high}}, {}}});
                const std::int64_t off = twice_area(subtract(slope, wanted)) + twice_area(subtract(wanted, slope));
                CHECK(off <= 4 * std::int64_t{std::max(wide, high)});   // two steps along the edge
            }
}

TEST_CASE("mirrored pixels have mirrored outlines") {
    for (int round = 0; round < 200; ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(650'000 + static_cast<std::uint64_t>(round));
        const int width = dice.in(3, 24), height = dice.in(3, 24);
        std::vector<int> tops;   // a hill: as high as it is in each column
        for (int x = 0; x < width; ++x)
            tops.push_back(std::clamp((tops.empty() ? height / 2 : tops.back()) + dice.in(-2, 2), 0, height - 1));
        std::vector<char> set, mirrored;
        for (int y = 0; y < height; ++y)
            for (int x = 0; x < width; ++x) {
                set.push_back(y >= tops[static_cast<std::size_t>(x)] ? 1 : 0);
                mirrored.push_back(y >= tops[static_cast<std::size_t>(width - 1 - x)] ? 1 : 0);
            }
        Regions other = trace_pixels(width, height, mirrored, 0.75);
        for (Region& region : other) {
            for (Point& p : region.outline) p.x = width * steps_per_px - p.x;
            std::reverse(region.outline.begin(), region.outline.end());
        }
        const Regions traced = trace_pixels(width, height, set, 0.75);
        REQUIRE(traced.size() == other.size());
        CHECK(unite(traced) == unite(other));
    }
}

TEST_CASE("a round stone stands on a flat foot, as wide below as above") {
    for (const double radius : {3.0, 4.0, 5.0, 6.0, 7.0, 8.0, 12.0, 16.0}) {
        const int size = static_cast<int>(2 * radius);
        CAPTURE(radius);
        std::vector<char> set;
        for (int y = 0; y < size; ++y)
            for (int x = 0; x < size; ++x) set.push_back(std::hypot(x + 0.5 - radius, y + 0.5 - radius) <= radius);
        const Ring ring = trace_pixels(size, size, set, 0.75)[0].outline;
        CHECK(ring.size() >= 8);
        const auto width_at = [&](std::int32_t y) {
            std::int32_t least = 1 << 20, most = 0;
            for (const Point p : ring)
                if (p.y == y) least = std::min(least, p.x), most = std::max(most, p.x);
            return most - least;
        };
        CHECK(width_at(size * steps_per_px) >= 2 * steps_per_px);
        CHECK(std::abs(width_at(size * steps_per_px) - width_at(0)) <= steps_per_px / 2);
    }
}

// Free areas beside what a general boolean says of them.
#include "travel/free_space_internal.hpp"

#include <catch2/catch.hpp>

#include <map>

#include "chance.hpp"
#include "dryground/merge.hpp"
#include "geometry/ring_internal.hpp"
#include "merging.hpp"

using namespace dryground;
using travel::FreeSpace;

namespace {

// Ground by chance: triangles, squares and bars of a coarse raster, which meet in corners all the time.
Regions random_ground(chance::Dice& dice, int cells) {
    constexpr std::int32_t cell = 16 * steps_per_px;
    Regions shapes;
    for (int r = 0; r < cells; ++r)
        for (int c = 0; c < cells; ++c) {
            const std::int32_t x = c * cell, y = r * cell;
            const Ring corners{{x, y}, {x + cell, y}, {x + cell, y + cell}, {x, y + cell}};
            const int sort = dice.in(0, 9);
            if (sort < 4) continue;
            Ring ring = corners;
            if (sort < 8) ring.erase(ring.begin() + (sort - 4));   // a triangle
            shapes.push_back({std::move(ring), {}});
        }
    return unite(shapes);
}

}   // namespace

TEST_CASE("free areas are those of the ground's complement", "[free_space]") {
    for (int round = 0; round < chance::rounds(200); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        const int cells = dice.in(2, 12);
        const Regions ground = random_ground(dice, cells);
        const FreeSpace space(detail::rings_of(ground));
        const std::int32_t side = cells * 16 * steps_per_px, more = 16 * steps_per_px;
        const Regions all{
            {{{-more, -more}, {side + more, -more}, {side + more, side + more}, {-more, side + more}}, {}}};
        const Regions free = subtract(all, ground);

        std::int64_t closed = 0;
        for (int i = 0; i < space.areas(); ++i) {
            const Region area = space.area(i);
            CHECK(twice_area({&area, 1}) == space.twice_size(i));
            closed += space.twice_size(i);
        }
        std::int64_t inner = 0;
        const auto region_at = [&](Point p) {
            for (std::size_t i = 0; i < free.size(); ++i)
                if (locate({&free[i], 1}, p) == Side::inside) return static_cast<int>(i);
            return -1;
        };
        const int around = region_at({-more + 1, -more + 1});
        for (std::size_t i = 0; i < free.size(); ++i)
            if (static_cast<int>(i) != around) inner += twice_area({&free[i], 1});
        CHECK(space.areas() + 1 == static_cast<int>(free.size()));
        CHECK(closed == inner);

        std::map<int, int> same;   // an area for each region of the boolean
        for (int i = 0; i < 60; ++i) {
            const Point p{dice.in(-more, side + more), dice.in(-more, side + more)};
            const int region = region_at(p);
            if (region < 0) {
                if (locate(ground, p) == Side::inside) CHECK(space.area_at(p) == FreeSpace::in_ground);
                continue;
            }
            INFO("at " << p.x << ", " << p.y);
            if (region == around) CHECK(space.area_at(p) == FreeSpace::outside);
            const auto [known, is_new] = same.emplace(region, space.area_at(p));
            CHECK(known->second == space.area_at(p));
            CHECK(known->second != FreeSpace::in_ground);
        }
    }
}

// Where a place of the map is in a picture.
#include <catch2/catch.hpp>

#include <cmath>
#include <set>

#include "chance.hpp"
#include "draw/picture_internal.hpp"
#include "random_worlds.hpp"

using namespace dryground;

TEST_CASE("diamonds are laid flat: each cell a square, the rest as the ground plane of merges has it", "[draw]") {
    int maps = 0, vertices = 0;
    for (int round = 0; round < 60; ++round) {
        DRYGROUND_ROUND(round);
        const Result<World> loaded = random_worlds::make(static_cast<std::uint64_t>(round)).build();
        if (!loaded) continue;
        for (const Map& map : loaded->maps()) {
            if (map.grid != GridSort::isometric) continue;
            ++maps;
            const std::int32_t side = map.cell_width / 2 * steps_per_px;
            for (int c = 0; c <= map.columns; ++c)
                for (int r = 0; r <= map.rows; ++r)
                    REQUIRE(drawing::laid_flat(map, map.corner(c, r)) ==
                            Point{(map.first_column + c) * side, (map.first_row + r) * side});
            MergeOptions flat;
            flat.plane = Plane::ground;
            const Merge seen = merge(*loaded, map), laid = merge(*loaded, map, flat);
            REQUIRE(seen.groups.size() == laid.groups.size());
            const double scale_x = 1.0 * side / laid.cell.x, scale_y = 1.0 * side / laid.cell.y;
            for (std::size_t g = 0; g < seen.groups.size(); ++g) {
                std::set<Point> ground;   // with the steps beside each: both are rounded
                for (const Chain& chain : laid.groups[g].chains)
                    for (const Point p : chain.points)
                        for (int beside = 0; beside < 9; ++beside)
                            ground.insert({static_cast<std::int32_t>(std::lround(p.x * scale_x)) + beside % 3 - 1,
                                           static_cast<std::int32_t>(std::lround(p.y * scale_y)) + beside / 3 - 1});
                for (const Chain& chain : seen.groups[g].chains)
                    for (const Point p : chain.points) {
                        CHECK(ground.count(drawing::laid_flat(map, p)) == 1);
                        ++vertices;
                    }
            }
        }
    }
    CHECK(maps > 10);
    CHECK(vertices > 200);
}

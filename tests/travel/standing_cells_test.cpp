// In which cells a body can stand, beside one query for each cell.
#include "travel/standing_cells_internal.hpp"

#include <catch2/catch.hpp>

#include <set>

#include "chance.hpp"
#include "geometry/bounds_internal.hpp"
#include "random_worlds.hpp"
#include "travel/obstacles_internal.hpp"

using namespace dryground;

namespace {

// Boxes of whole and of broken sizes, among them some that fit a cell exactly; triangles and diamonds.
Ring random_body(chance::Dice& dice, const Map& map) {
    const std::int32_t w = map.cell_width * steps_per_px, h = map.cell_height * steps_per_px;
    const Point at{dice.in(-w, w) / 2, dice.in(-h, h) / 2};
    const std::int32_t wide = dice.once_in(3) ? w : dice.in(16, 2 * w), high = dice.once_in(3) ? h : dice.in(16, 2 * h);
    const Point most{at.x + wide, at.y + high};
    if (dice.once_in(2)) return box_ring(at, most);
    if (dice.once_in(2)) return {{at.x, most.y}, {at.x + wide / 2, at.y}, most};
    return {{at.x + wide / 2, at.y}, {most.x, at.y + high / 2}, {at.x + wide / 2, most.y}, {at.x, at.y + high / 2}};
}

}   // namespace

TEST_CASE("a body stands in a cell where nothing is in the way of it there", "[travel]") {
    std::size_t stands = 0, cells = 0;
    for (std::uint64_t round = 0; round < static_cast<std::uint64_t>(chance::rounds(150)); ++round) {
        const Result<World> loaded = random_worlds::make(round).build();
        if (!loaded) continue;
        chance::Dice dice(round * 17 + 3);
        for (const Map& map : loaded->maps()) {
            const std::vector<Group> groups = merge(*loaded, map, {.forms = {}}).groups;
            std::vector<const Regions*> grounds;
            Regions all;
            for (const Group& group : groups)
                if (group.storey_id == StoreyId::ground && !group.regions.empty() && !dice.once_in(4)) {
                    grounds.push_back(&group.regions);
                    all = unite(all, group.regions);
                }
            Ring body = random_body(dice, map);
            if (twice_area(body) < 0) std::reverse(body.begin(), body.end());
            const std::vector<char> found = travel::standing_cells(map, {0, 0, map.columns, map.rows}, grounds, body);
            const travel::Obstacles obstacles(all, body);
            REQUIRE(found.size() == static_cast<std::size_t>(map.columns) * static_cast<std::size_t>(map.rows));
            for (int r = 0; r < map.rows; ++r)
                for (int c = 0; c < map.columns; ++c) {
                    const char now = found[static_cast<std::size_t>(r * map.columns + c)];
                    INFO("round " << round << " map " << map.name << " cell " << c << "," << r);
                    // Ground that overlaps other ground has edges within it.
                    const Point at = travel::middle_of(map, c, r);
                    if ((now != 0) != obstacles.may_be(at)) {   // which overlooks what is less than a step
                        Ring there;
                        for (const Point p : body) there.push_back(moved(p, at));
                        CHECK((now != 0) == intersect(all, Regions{{there, {}}}).empty());
                    }
                    stands += now != 0, ++cells;
                }
        }
    }
    CHECK(stands > cells / 20);
    CHECK(stands < cells - cells / 20);
}

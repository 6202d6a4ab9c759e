// Maps at the corners of the range, and growth that leaves it.
#include <catch2/catch.hpp>

#include <algorithm>
#include <stdexcept>

#include "dryground/merge.hpp"
#include "far_worlds.hpp"

using namespace dryground;
using far_worlds::far_cells;
using far_worlds::world_at;

namespace {

constexpr MergeForms every_form{MergeForm::chains, MergeForm::pieces, MergeForm::boxes, MergeForm::triangles};

Ring at_origin(Ring ring, Point by) {
    for (Point& p : ring) p = {p.x - by.x, p.y - by.y};
    return ring;
}

// Points are moved to the origin; they keep their order, and so does all that is sorted by them.
Group at_origin(Group group, Point by) {
    group.regions = moved(group.regions, {-by.x, -by.y});
    for (Ring& ring : group.lines) ring = at_origin(ring, by);
    for (Ring& ring : group.pieces) ring = at_origin(ring, by);
    for (Ring& ring : group.boxes.rests) ring = at_origin(ring, by);
    for (Bounds& box : group.boxes.boxes)
        box = {{box.least.x - by.x, box.least.y - by.y}, {box.most.x - by.x, box.most.y - by.y}};
    for (Point& p : group.triangles.points) p = {p.x - by.x, p.y - by.y};
    for (Chain& chain : group.chains) {
        chain.points = at_origin(chain.points, by);
        for (std::optional<Point>* end : {&chain.before, &chain.after})
            if (*end) **end = {(*end)->x - by.x, (*end)->y - by.y};
    }
    return group;
}

}   // namespace

TEST_CASE("a map at a corner of the range merges to what it merges to at the origin", "[merge][limits]") {
    const World near = world_at({0, 0});
    const MergeOptions options{.forms = every_form};
    const Merge wanted = merge(near, near.map("flat"), options);
    const ChunkedMerge wanted_chunks = merge_chunks(near, near.map("flat"), 4, options);
    for (const int x : {-far_cells, far_cells})
        for (const int y : {-far_cells, far_cells}) {
            INFO("first cell " << x << ", " << y);
            const World far = world_at({x, y});
            const Point by{x * 16 * steps_per_px, y * 16 * steps_per_px};
            const Merge merged = merge(far, far.map("flat"), options);
            REQUIRE(merged.groups.size() == wanted.groups.size());
            for (std::size_t g = 0; g < wanted.groups.size(); ++g)
                CHECK(at_origin(merged.groups[g], by) == wanted.groups[g]);
            Regions pieces, whole;
            for (const Chunk& chunk : merge_chunks(far, far.map("flat"), 4, options).chunks)
                for (const Group& group : chunk.groups)
                    pieces.insert(pieces.end(), group.regions.begin(), group.regions.end());
            for (const Chunk& chunk : wanted_chunks.chunks)
                for (const Group& group : chunk.groups)
                    whole.insert(whole.end(), group.regions.begin(), group.regions.end());
            CHECK(moved(unite(pieces), {-by.x, -by.y}) == unite(whole));
        }
}

TEST_CASE("growth that leaves the range is an error, and all that shrinks is well", "[merge][limits]") {
    const World far = world_at({far_cells, -far_cells});
    for (const Corners corners : {Corners::round, Corners::bevel, Corners::mitre, Corners::box}) {
        const auto grown_by = [&](std::int32_t by) {
            return merge(far, far.map("flat"), {.forms = every_form, .grow = by, .corners = corners});
        };
        for (const std::int32_t by : {coordinate_limit, coordinate_limit * 2 - 1})
            CHECK_THROWS_AS(grown_by(by), std::out_of_range);
        for (const std::int32_t by : {-1, -4096, -coordinate_limit}) CHECK_NOTHROW(grown_by(by));
    }
}

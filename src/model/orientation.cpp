// Flips and quarter turns of points, areas, lines, one-way directions and sides.
//
// Exact; the flip comes first.

#include "orientation_internal.hpp"

#include <algorithm>

namespace dryground::detail {

namespace {

Point oriented(Point p, std::int32_t width, std::int32_t height, const Orientation& o) {
    if (o.flip_x) p.x = width - p.x;
    if (o.flip_y) p.y = height - p.y;
    switch (o.turn) {
        case 90:
            return {height - p.y, p.x};
        case 180:
            return {width - p.x, height - p.y};
        case 270:
            return {p.y, width - p.x};
        default:
            return p;
    }
}

}   // namespace

Regions oriented(Regions area, std::int32_t width, std::int32_t height, const Orientation& o) {
    if (o == Orientation{}) return area;
    const auto apply = [&](Ring& ring) {
        for (Point& p : ring) p = oriented(p, width, height, o);
        if (o.flip_x != o.flip_y) std::reverse(ring.begin(), ring.end());   // one mirror turns the direction around
    };
    for (Region& region : area) {
        apply(region.outline);
        for (Ring& hole : region.holes) apply(hole);
    }
    return area;
}

Ring oriented_line(Ring line, std::int32_t width, std::int32_t height, const Orientation& o) {
    for (Point& p : line) p = oriented(p, width, height, o);
    return line;
}

OneWay oriented(OneWay one_way, const Orientation& o) {
    static constexpr std::array<OneWay, 4> around{OneWay::up, OneWay::right, OneWay::down, OneWay::left};
    const auto found = std::find(around.begin(), around.end(), one_way);
    if (found == around.end()) return one_way;
    auto place = found - around.begin();
    if (o.flip_x && place % 2 == 1) place = 4 - place;
    if (o.flip_y && place % 2 == 0) place = 2 - place;
    return around[static_cast<std::size_t>((place + o.turn / 90) % 4)];
}

Sides oriented(const Sides& sides, const Orientation& o) {
    Sides result = sides;
    if (o.flip_x) std::swap(result.of[1], result.of[3]);
    if (o.flip_y) std::swap(result.of[0], result.of[2]);
    std::rotate(result.of.begin(), result.of.end() - o.turn / 90,
                result.of.end());   // top goes right, right goes bottom
    return result;
}

}   // namespace dryground::detail

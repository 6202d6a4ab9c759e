// Which way one-way lines are passed, and from which side they stop.

#include "ground_internal.hpp"

namespace dryground::ground {

namespace {

// Returns the direction in which one passes a one-way line, y down.
Point direction_of(OneWay one_way) {
    switch (one_way) {
        case OneWay::up:
            return {0, -1};
        case OneWay::down:
            return {0, 1};
        case OneWay::left:
            return {-1, 0};
        case OneWay::right:
            return {1, 0};
        case OneWay::none:
            break;
    }
    return {0, 0};
}

Point left_of(Point from, Point to) { return {to.y - from.y, from.x - to.x}; }

}   // namespace

bool runs_backward(Point first, Point last, OneWay one_way) {
    const Point side = left_of(first, last), passes = direction_of(one_way);
    const std::int64_t along = std::int64_t{side.x} * passes.x + std::int64_t{side.y} * passes.y;
    return along == 0 ? last < first : along < 0;
}

Point stopped_side(Point from, Point to, OneWay one_way) {
    if (one_way == OneWay::none) return {0, 0};
    return runs_backward(from, to, one_way) ? left_of(to, from) : left_of(from, to);
}

}   // namespace dryground::ground

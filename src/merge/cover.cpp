// A cell's covered area, taken apart into what lies on its sides and what lies inside.

#include "cover_internal.hpp"

#include <algorithm>

#include "../geometry/arrangement_internal.hpp"

namespace dryground::detail {

namespace {

// The side on which both points lie; -1 for none.
int common_side(Point p, Point q, std::int32_t width, std::int32_t height) {
    if (p.y == 0 && q.y == 0) return top_side;
    if (p.x == width && q.x == width) return right_side;
    if (p.y == height && q.y == height) return bottom_side;
    if (p.x == 0 && q.x == 0) return left_side;
    return -1;
}

bool on_a_side(Point p, std::int32_t width, std::int32_t height) {
    return p.x == 0 || p.y == 0 || p.x == width || p.y == height;
}

class Taker {
public:
    Taker(std::int32_t width, std::int32_t height) : width_(width), height_(height) {}

    void take(const LabelledRing& ring) {
        const std::size_t n = ring.points.size();
        std::vector<int> spots(n, -1);
        for (std::size_t i = 0; i < n; ++i)
            if (!on_a_side(ring.points[i], width_, height_)) {
                spots[i] = static_cast<int>(cover_.spots.size());
                cover_.spots.push_back(spot(ring, i));
            }
        for (std::size_t i = 0; i < n; ++i) {
            const std::size_t j = i + 1 < n ? i + 1 : 0;
            const Point from = ring.points[i], to = ring.points[j];
            const int side = common_side(from, to, width_, height_);
            if (side < 0) {
                cover_.edges.push_back({from, to, ring.labels[i], spots[i], spots[j]});
                continue;
            }
            const bool across = side == top_side || side == bottom_side;
            const std::int32_t a = across ? from.x : from.y, b = across ? to.x : to.y;
            cover_.sides[static_cast<std::size_t>(side)].push_back({std::min(a, b), std::max(a, b), ring.labels[i]});
        }
    }

    Cover finish() {
        cover_.filling = Filling::mixed;
        for (std::size_t s = 0; s < cover_.sides.size(); ++s) std::sort(cover_.sides[s].begin(), cover_.sides[s].end());
        return std::move(cover_);
    }

private:
    static Spot spot(const LabelledRing& ring, std::size_t i) {
        const std::size_t n = ring.points.size();
        const Point before = ring.points[(i + n - 1) % n], at = ring.points[i], after = ring.points[(i + 1) % n];
        const Turn t = turn(before, at, after);
        return {at, t == Turn::straight, t == Turn::right && at < before && at < after};
    }

    std::int32_t width_, height_;
    Cover cover_;
};

}   // namespace

Cover empty_cover() { return {}; }

Cover full_cover(int label) {
    Cover cover;
    cover.filling = Filling::full;
    cover.label = label;
    return cover;
}

Cover make_cover(const std::vector<LabelledRing>& rings, std::int32_t width, std::int32_t height) {
    if (rings.empty()) return empty_cover();
    if (rings.size() == 1 && rings[0].points == box_ring({0, 0}, {width, height}) &&
        std::count(rings[0].labels.begin(), rings[0].labels.end(), rings[0].labels[0]) == 4)
        return full_cover(rings[0].labels[0]);
    Taker taker(width, height);
    for (const LabelledRing& ring : rings) taker.take(ring);
    return taker.finish();
}

int Cover::label_before(CellSide side, std::int32_t place) const {
    if (filling != Filling::mixed) return filling == Filling::full ? label : uncovered;
    for (const Stretch& stretch : sides[side])
        if (stretch.from < place && place <= stretch.to) return stretch.label;
    return uncovered;
}

int Cover::label_after(CellSide side, std::int32_t place) const {
    if (filling != Filling::mixed) return filling == Filling::full ? label : uncovered;
    for (const Stretch& stretch : sides[side])
        if (stretch.from <= place && place < stretch.to) return stretch.label;
    return uncovered;
}

int edge_to_the_left(const Cover& cover, Point p) {
    const AlongSweepLine before{};
    int nearest = -1;
    struct Upright {
        Point a, b;
    };
    Upright best{};
    for (std::size_t i = 0; i < cover.edges.size(); ++i) {
        const InnerEdge& edge = cover.edges[i];
        const Upright upright{std::min(edge.from, edge.to), std::max(edge.from, edge.to)};
        if (upright.a.y > p.y || upright.b.y <= p.y) continue;        // not there just below p
        if (turn(upright.a, upright.b, p) != Turn::right) continue;   // on its line, or to its other side
        if (nearest >= 0 && !before(best, upright)) continue;
        nearest = static_cast<int>(i);
        best = upright;
    }
    return nearest;
}

}   // namespace dryground::detail

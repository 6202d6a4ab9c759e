// A cell's covered area, separated into what lies on its sides and what lies inside.

#include "cover_internal.hpp"

#include <algorithm>

#include "../../geometry/arrangement_internal.hpp"

namespace dryground::detail {

namespace {

// Returns the side on which both points lie; -1 for none.
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
                cover_.spots.push_back({ring.points[i]});
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
        for (std::size_t s = 0; s < cover_.spots.size(); ++s) cut_at(cover_.spots[s].at);
        turn_spots(cover_.spots, cover_.edges);
        note_middles(cover_, width_, height_);
        return std::move(cover_);
    }

private:
    // Another ring may run straight on through a vertex. On the map these two may turn out to be one ring.
    void cut_at(Point p) {
        for (std::size_t e = 0; e < cover_.edges.size(); ++e) {
            const InnerEdge edge = cover_.edges[e];
            const bool between = (edge.from < p) != (edge.to < p) && p != edge.from && p != edge.to;
            if (!between || turn(edge.from, edge.to, p) != Turn::straight) continue;
            const auto spot = static_cast<int>(cover_.spots.size());
            cover_.spots.push_back({p});
            cover_.edges[e] = {edge.from, p, edge.label, edge.from_spot, spot};
            cover_.edges.push_back({p, edge.to, edge.label, spot, edge.to_spot});
        }
    }

    std::int32_t width_, height_;
    Cover cover_;
};

}   // namespace

bool leads_later(Point way) { return way.y > 0 || (way.y == 0 && way.x > 0); }

bool sooner_around(Point a, Point b) {
    if (leads_later(a) != leads_later(b)) return leads_later(a);
    return turn({0, 0}, a, b) == Turn::left;
}

namespace {

struct SpotSpoke {
    Point at, way;
    bool leaves;
    std::size_t edge;
};

}   // namespace

void turn_spots(std::vector<Spot>& spots, std::vector<InnerEdge>& edges) {
    std::vector<SpotSpoke> spokes;
    for (std::size_t e = 0; e < edges.size(); ++e) {
        const Point from = edges[e].from, to = edges[e].to;
        if (edges[e].from_spot >= 0) spokes.push_back({from, {to.x - from.x, to.y - from.y}, true, e});
        if (edges[e].to_spot >= 0) spokes.push_back({to, {from.x - to.x, from.y - to.y}, false, e});
    }
    std::sort(spokes.begin(), spokes.end(), [](const SpotSpoke& s, const SpotSpoke& t) {
        return s.at == t.at ? sooner_around(s.way, t.way) : s.at < t.at;
    });
    for (auto first = spokes.begin(), last = first; first != spokes.end(); first = last) {
        while (last != spokes.end() && last->at == first->at) ++last;
        for (auto out = first; out != last; ++out) {
            if (!out->leaves) continue;
            const auto in = out + 1 == last ? first : out + 1;
            const int number = edges[out->edge].from_spot;
            edges[in->edge].to_spot = number;
            const Turn t = turn(in->way, {0, 0}, out->way);
            spots[static_cast<std::size_t>(number)] = {
                out->at, t == Turn::straight, t == Turn::right && leads_later(in->way) && leads_later(out->way),
                last - first > 2};
        }
    }
}

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

void note_middles(Cover& cover, std::int32_t width, std::int32_t height) {
    const auto note = [&](CellSide side, bool there) {
        if (there) cover.middles = static_cast<std::uint8_t>(cover.middles | 1 << side);
    };
    for (const CellSide side : {top_side, right_side, bottom_side, left_side}) {
        const std::int32_t length = side == top_side || side == bottom_side ? width : height;
        for (const Stretch& stretch : cover.sides[side]) note(side, stretch.from > 0 || stretch.to < length);
    }
    for (const InnerEdge& edge : cover.edges)
        for (const Point p : {edge.from, edge.to}) {
            const bool in_width = p.x > 0 && p.x<width, in_height = p.y> 0 && p.y < height;
            note(top_side, in_width && p.y == 0);
            note(bottom_side, in_width && p.y == height);
            note(left_side, in_height && p.x == 0);
            note(right_side, in_height && p.x == width);
        }
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
        if (upright.a.y > p.y || upright.b.y <= p.y) continue;           // not there just below p
        if (turn(upright.a, upright.b, p) != Turn::right) continue;      // on its line, or to its other side
        const Turn before_cell = turn(upright.a, upright.b, {0, p.y});   // edges may reach out of the cell
        if (before_cell == Turn::right || (before_cell == Turn::straight && upright.b.x < 0)) continue;
        if (nearest >= 0 && !before(best, upright)) continue;
        nearest = static_cast<int>(i);
        best = upright;
    }
    return nearest;
}

}   // namespace dryground::detail

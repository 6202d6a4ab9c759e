// Outlines without short edges.
//
// Idea. A vertex may be removed without crossings exactly if no other vertex lies in the triangle that it forms with
// its two neighbours. Cost: O(n) for each removed vertex.

#include "../geometry/ring_internal.hpp"
#include "least_edge_internal.hpp"

#include <algorithm>
#include <set>

namespace dryground::detail {

namespace {

std::int64_t squared_length(Point a, Point b) {
    const std::int64_t dx = std::int64_t{a.x} - b.x, dy = std::int64_t{a.y} - b.y;
    return dx * dx + dy * dy;
}

bool in_triangle(Point a, Point b, Point c, Point p) {
    const Turn ab = turn(a, b, p), bc = turn(b, c, p), ca = turn(c, a, p);
    const auto goes = [&](Turn way) { return ab == way || bc == way || ca == way; };
    return !(goes(Turn::left) && goes(Turn::right));
}

class EdgeFuser {
public:
    EdgeFuser(std::vector<LabelledRing>& rings, std::int32_t least, const std::function<bool(Point)>& keeps)
        : rings_(rings), least_(std::int64_t{least} * least), keeps_(keeps) {
        for (const LabelledRing& ring : rings) vertices_.insert(ring.points.begin(), ring.points.end());
    }

    void run() {
        for (LabelledRing& ring : rings_) {
            while (fuse_shortest(ring)) {
            }
            drop_straight(ring);
            start_at_least(ring.points, ring.labels);
        }
        std::erase_if(rings_, [](const LabelledRing& ring) { return ring.points.size() < 3; });
        std::sort(rings_.begin(), rings_.end(),
                  [](const LabelledRing& a, const LabelledRing& b) { return a.points < b.points; });
    }

private:
    static std::size_t before(const Ring& points, std::size_t i) { return i > 0 ? i - 1 : points.size() - 1; }
    static std::size_t after(const Ring& points, std::size_t i) { return i + 1 < points.size() ? i + 1 : 0; }

    // Returns twice the area by which the outline changes without a vertex; -1 if the vertex has to stay.
    [[nodiscard]] std::int64_t cost(const Ring& points, std::size_t i) const {
        const Point a = points[before(points, i)], b = points[i], c = points[after(points, i)];
        if (vertices_.count(b) > 1 || (keeps_ && keeps_(b))) return -1;
        const std::int32_t least_y = std::min({a.y, b.y, c.y}), most_y = std::max({a.y, b.y, c.y});
        for (auto p = vertices_.lower_bound({INT32_MIN, least_y}); p != vertices_.end() && p->y <= most_y; ++p)
            if (*p != a && *p != b && *p != c && in_triangle(a, b, c, *p)) return -1;
        return std::abs(cross(a, b, c));
    }

    bool fuse_shortest(LabelledRing& ring) {
        const Ring& points = ring.points;
        std::vector<std::pair<std::int64_t, std::size_t>> edges;   // short ones, by their first vertex
        for (std::size_t i = 0; i < points.size(); ++i)
            if (const std::int64_t length = squared_length(points[i], points[after(points, i)]); length < least_)
                edges.emplace_back(length, i);
        std::sort(edges.begin(), edges.end());
        for (const auto& [length, i] : edges) {
            const std::size_t j = after(points, i);
            const std::int64_t first = cost(points, i), second = cost(points, j);
            if (first < 0 && second < 0) continue;
            if (second < 0 || (first >= 0 && first < second))
                remove(ring, i, ring.labels[before(points, i)]);
            else
                remove(ring, j, ring.labels[j]);
            return points.size() > 2;
        }
        return false;
    }

    // Keeps the label of the edge that replaces the two at the vertex.
    void remove(LabelledRing& ring, std::size_t i, int label) {
        vertices_.erase(vertices_.find(ring.points[i]));
        ring.labels[before(ring.points, i)] = label;
        ring.points.erase(ring.points.begin() + static_cast<std::ptrdiff_t>(i));
        ring.labels.erase(ring.labels.begin() + static_cast<std::ptrdiff_t>(i));
    }

    void drop_straight(LabelledRing& ring) {
        for (std::size_t i = 0; i < ring.points.size() && ring.points.size() > 2;) {
            const std::size_t b = before(ring.points, i), a = after(ring.points, i);
            if (ring.labels[b] == ring.labels[i] && vertices_.count(ring.points[i]) == 1 &&
                turn(ring.points[b], ring.points[i], ring.points[a]) == Turn::straight)
                remove(ring, i, ring.labels[i]);
            else
                ++i;
        }
    }

    std::vector<LabelledRing>& rings_;
    std::int64_t least_;
    const std::function<bool(Point)>& keeps_;
    std::multiset<Point> vertices_;   // by height
};

}   // namespace

void fuse_short_edges(std::vector<LabelledRing>& rings, std::int32_t least, const std::function<bool(Point)>& keeps) {
    EdgeFuser(rings, least, keeps).run();
}

Regions without_short_edges(const Regions& regions, std::int32_t least) {
    std::vector<LabelledRing> rings;
    const auto add = [&](const Ring& ring, std::size_t region) {   // the region's number is its label
        rings.push_back({ring, std::vector<int>(ring.size(), static_cast<int>(region))});
    };
    for (std::size_t r = 0; r < regions.size(); ++r) {
        add(regions[r].outline, r);
        for (const Ring& hole : regions[r].holes) add(hole, r);
    }
    fuse_short_edges(rings, least, {});
    Regions by_number(regions.size());
    for (LabelledRing& ring : rings) {   // sorted, so that holes stay sorted
        Region& region = by_number[static_cast<std::size_t>(ring.labels[0])];
        if (twice_area(ring.points) > 0)
            region.outline = std::move(ring.points);
        else
            region.holes.push_back(std::move(ring.points));
    }
    std::erase_if(by_number, [](const Region& region) { return region.outline.empty(); });
    std::sort(by_number.begin(), by_number.end(),
              [](const Region& a, const Region& b) { return a.outline < b.outline; });
    return by_number;
}

}   // namespace dryground::detail

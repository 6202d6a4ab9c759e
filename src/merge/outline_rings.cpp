// From a linked outline to regions.
//
// Idea. Vertices are already linked around their own solid, so that every walk bounds one region. A walk that comes
// back to a place (a solid that closes around a gap and touches itself there, or two gaps that touch) is split there;
// its parts belong to one region. A walk of gaps alone belongs where the outline to the left of its least vertex does.
//
// Guarantee: as in geometry/rings.cpp, whose result this equals. Cost: O(n), and sorting of what is not yet in order.

#include <algorithm>
#include <map>

#include "../geometry/arrangement_internal.hpp"
#include "grid_internal.hpp"
#include "outline_internal.hpp"

namespace dryground::detail {

namespace {

class RingMaker {
public:
    RingMaker(Outline outline, const Grid& grid, bool labelled)
        : outline_(std::move(outline)), grid_(grid), labelled_(labelled) {}

    Stacked run() {
        Vertices& vertices = outline_.vertices;
        for (std::int32_t v = 0; v < vertices.size(); ++v)
            if (vertices[v].next >= 0) take_walk(v);
        for (Hole& hole : holes_)
            result_.regions[static_cast<std::size_t>(region_of(hole.walk))].holes.push_back(std::move(hole.ring));
        sort();
        return std::move(result_);
    }

private:
    struct Walk {
        std::int32_t least;   // vertex, in flat coordinates
        std::int32_t region = -1;
    };
    struct Hole {
        Ring ring;
        std::size_t walk;
    };

    void take_walk(std::int32_t start) {
        Vertices& vertices = outline_.vertices;
        walk_.clear();
        int pinches = 0;
        std::int32_t least = start;
        const auto mark = static_cast<std::int32_t>(-2 - static_cast<std::int64_t>(walks_.size()));
        for (std::int32_t v = start; vertices[v].next >= 0;) {
            Vertex& vertex = vertices[v];
            walk_.push_back(v);
            pinches += vertex.pinched();
            const Point so_far = vertices[least].at;
            if (vertex.at < so_far || (vertex.at == so_far && vertex.starts_gap())) least = v;
            const std::int32_t next = vertex.next;
            vertex.next = mark;
            v = next;
        }
        walks_.push_back({least});
        if (pinches > 1)
            split();
        else
            take_ring(walk_, false);
    }

    // Cuts the walk where it comes back to a place.
    void split() {
        std::map<Point, std::size_t> open;   // pinched places of the rest, and where they stand in it
        std::vector<std::int32_t> rest;
        const auto close = [&](Point place) {
            const auto back = open.find(place);
            if (back == open.end()) return;
            const std::vector<std::int32_t> loop(rest.begin() + static_cast<std::ptrdiff_t>(back->second), rest.end());
            rest.resize(back->second);
            for (const std::int32_t v : loop)
                if (outline_.vertices[v].pinched()) open.erase(outline_.vertices[v].at);
            take_ring(loop, true);
        };
        for (const std::int32_t v : std::vector<std::int32_t>(walk_)) {
            const Vertex& vertex = outline_.vertices[v];
            if (vertex.pinched()) {
                close(vertex.at);
                open.emplace(vertex.at, rest.size());
            }
            rest.push_back(v);
        }
        take_ring(rest, true);
    }

    // Whether the ring bends at its i-th vertex. Where walks were split, the turn is another than it was.
    [[nodiscard]] bool bends(const std::vector<std::int32_t>& ring, std::size_t i, bool was_split) {
        Vertices& vertices = outline_.vertices;
        const Vertex& vertex = vertices[ring[i]];
        if (!was_split || !vertex.pinched()) return !vertex.straight();
        const Point before = vertices[ring[i > 0 ? i - 1 : ring.size() - 1]].at,
                    after = vertices[ring[i + 1 < ring.size() ? i + 1 : 0]].at;
        return turn(before, vertex.at, after) != Turn::straight;
    }

    void take_ring(const std::vector<std::int32_t>& ring, bool was_split) {
        Vertices& vertices = outline_.vertices;
        points_.clear();
        std::size_t least = 0;
        std::int64_t area = 0;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            if (!bends(ring, i, was_split)) continue;
            const Point p = grid_.steps(vertices[ring[i]].at);
            if (!points_.empty()) {
                if (p < points_[least]) least = points_.size();
                area += cross(points_[0], points_.back(), p);
            }
            points_.push_back(p);
        }
        Ring made;
        made.reserve(points_.size());
        made.insert(made.end(), points_.begin() + static_cast<std::ptrdiff_t>(least), points_.end());
        made.insert(made.end(), points_.begin(), points_.begin() + static_cast<std::ptrdiff_t>(least));
        if (labelled_) take_labels(ring, was_split);
        const std::size_t walk = walks_.size() - 1;
        if (area > 0) {
            walks_[walk].region = static_cast<std::int32_t>(result_.regions.size());
            result_.regions.push_back({std::move(made), {}});
        } else {
            holes_.push_back({std::move(made), walk});
        }
    }

    void take_labels(const std::vector<std::int32_t>& ring, bool was_split) {
        Vertices& vertices = outline_.vertices;
        LabelledRing made;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Vertex& vertex = vertices[ring[i]];
            const int label_before = vertices[ring[i > 0 ? i - 1 : ring.size() - 1]].label;
            if (!bends(ring, i, was_split) && label_before == vertex.label) continue;
            made.points.push_back(grid_.steps(vertex.at));
            made.labels.push_back(vertex.label);
        }
        const auto least = std::min_element(made.points.begin(), made.points.end()) - made.points.begin();
        std::rotate(made.points.begin(), made.points.begin() + least, made.points.end());
        std::rotate(made.labels.begin(), made.labels.begin() + least, made.labels.end());
        result_.rings.push_back(std::move(made));
    }

    // The region that a walk bounds: that of its own outline, or of the outline to the left of its least vertex, and so
    // on: each of these is further left, so that the way ends.
    std::int32_t region_of(std::size_t walk) {
        std::vector<std::size_t> way;
        while (walks_[walk].region < 0) {
            way.push_back(walk);
            const auto gap = std::lower_bound(outline_.gaps.begin(), outline_.gaps.end(), walks_[walk].least,
                                              [](const GapStart& g, std::int32_t v) { return g.vertex < v; });
            walk = static_cast<std::size_t>(-2 - static_cast<std::int64_t>(outline_.vertices[gap->left].next));
        }
        for (const std::size_t w : way) walks_[w].region = walks_[walk].region;
        return walks_[walk].region;
    }

    void sort() {
        const auto by_outline = [](const Region& a, const Region& b) { return a.outline < b.outline; };
        if (!std::is_sorted(result_.regions.begin(), result_.regions.end(), by_outline))
            std::sort(result_.regions.begin(), result_.regions.end(), by_outline);
        for (Region& region : result_.regions)
            if (!std::is_sorted(region.holes.begin(), region.holes.end()))
                std::sort(region.holes.begin(), region.holes.end());
        std::sort(result_.rings.begin(), result_.rings.end(),
                  [](const LabelledRing& a, const LabelledRing& b) { return a.points < b.points; });
    }

    Outline outline_;
    const Grid& grid_;
    bool labelled_;
    std::vector<Walk> walks_;
    std::vector<Hole> holes_;
    std::vector<std::int32_t> walk_;
    Ring points_;
    Stacked result_;
};

}   // namespace

Stacked rings_of(Outline outline, const Grid& grid, bool labelled) {
    return RingMaker(std::move(outline), grid, labelled).run();
}

}   // namespace dryground::detail

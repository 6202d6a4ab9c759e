// Triangles that cover a region exactly.
//
// Idea: Hertel & Mehlhorn, "Fast triangulation of simple polygons", FCT 1983, section 3, for regions with holes that
// may touch. A sweep visits the vertices from the least to the greatest. Every gap of the sweep line that is solid
// keeps the chain of vertices that the part ahead can still see, ordered from the edge before the gap to the edge after
// it; nothing of a chain can be cut off within itself. A new vertex cuts off what it sees from an end of the chain. A
// vertex in the middle of a gap sees the vertex that came to the chain last, and parts the chain there. A gap that
// closes is a fan.
//
// Guarantee: exact cover, edge to edge, no triangle without area. Cost: O(n log n).
// A hole that touches the middle of an edge makes a vertex there: the region's edges are arranged first.

#include <algorithm>
#include <set>

#include "arrangement_internal.hpp"
#include "triangulate_internal.hpp"

namespace dryground {

namespace {

struct Link {
    Point at;
    int previous = -1, next = -1;
};

struct Chain {
    int front = -1, back = -1, latest = -1;
    [[nodiscard]] bool solid() const { return front >= 0; }
};

class Chains {
public:
    Chains(std::vector<detail::Triangle>& out, std::size_t vertices) : out_(out) { links_.reserve(2 * vertices); }

    Chain start(Point p) {
        const int link = make(p);
        return {link, link, link};
    }

    // Cuts off what p sees from the back, then puts p there.
    void push_back(Chain& chain, Point p) {
        while (chain.back != chain.front && cut(at(previous(chain.back)), at(chain.back), p))
            chain.back = previous(chain.back);
        const int link = make(p);
        join(chain.back, link);
        chain.back = chain.latest = link;
    }

    void push_front(Chain& chain, Point p) {
        while (chain.back != chain.front && cut(p, at(chain.front), at(next(chain.front))))
            chain.front = next(chain.front);
        const int link = make(p);
        join(link, chain.front);
        chain.front = chain.latest = link;
    }

    // Parts a chain at the vertex that came last, which both parts keep.
    std::pair<Chain, Chain> part(const Chain& chain) {
        const int twin = make(at(chain.latest));
        if (chain.latest != chain.back) join(twin, next(chain.latest));
        const Chain before{chain.front, chain.latest, chain.latest};
        return {before, Chain{twin, chain.latest == chain.back ? twin : chain.back, twin}};
    }

    // Joins two chains, the first of which ends where the second starts.
    Chain joined(const Chain& before, const Chain& after) {
        if (after.front != after.back) join(before.back, next(after.front));
        return {before.front, after.front == after.back ? before.back : after.back, before.back};
    }

    void fan(const Chain& chain, Point p) {
        for (int link = chain.front; link != chain.back; link = next(link)) cut(at(link), at(next(link)), p);
    }

private:
    [[nodiscard]] Point at(int link) const { return links_[static_cast<std::size_t>(link)].at; }
    [[nodiscard]] int next(int link) const { return links_[static_cast<std::size_t>(link)].next; }
    [[nodiscard]] int previous(int link) const { return links_[static_cast<std::size_t>(link)].previous; }
    int make(Point p) {
        links_.push_back({p});
        return static_cast<int>(links_.size()) - 1;
    }
    void join(int a, int b) {
        links_[static_cast<std::size_t>(a)].next = b;
        links_[static_cast<std::size_t>(b)].previous = a;
    }
    bool cut(Point a, Point b, Point c) {
        if (turn(a, b, c) != Turn::left) return false;
        out_.push_back({a, b, c});
        return true;
    }

    std::vector<detail::Triangle>& out_;
    std::vector<Link> links_;
};

struct Wall {   // an edge on the sweep line, with the chain of the gap after it
    Point a, b;
    mutable Chain chain;
};

class Triangulation {
public:
    Triangulation(const Region& region, std::vector<detail::Triangle>& out) : chains_(out, region.outline.size()) {
        if (region.holes.empty()) {
            visit_ring(region.outline);
            return;
        }
        detail::add_regions(edges_, std::span(&region, 1), 0);
        edges_ = detail::arrange(std::move(edges_));
        std::vector<Point> points;
        for (const detail::Edge& edge : edges_) points.insert(points.end(), {edge.a, edge.b});
        std::sort(points.begin(), points.end());
        points.erase(std::unique(points.begin(), points.end()), points.end());
        for (const Point p : points) visit(p);
    }

private:
    // One ring touches nothing: its edges need no cutting, and sorting its vertices sorts them.
    void visit_ring(const Ring& ring) {
        struct Vertex {
            std::uint64_t order;   // as points are ordered, in one number: half the time of sorting
            std::uint32_t place;
        };
        const std::size_t n = ring.size();
        const auto unsigned_of = [](std::int32_t x) {
            return static_cast<std::uint32_t>(std::int64_t{x} + (1LL << 31));
        };
        std::vector<Vertex> vertices(n);
        for (std::size_t i = 0; i < n; ++i)
            vertices[i] = {(std::uint64_t{unsigned_of(ring[i].y)} << 32) + unsigned_of(ring[i].x),
                           static_cast<std::uint32_t>(i)};
        std::sort(vertices.begin(), vertices.end(), [](const Vertex& v, const Vertex& w) { return v.order < w.order; });
        const int along = twice_area(ring) < 0 ? 1 : -1;
        edges_.reserve(n);
        for (const auto& [order, i] : vertices) {
            const Point p = ring[i], before = ring[i == 0 ? n - 1 : i - 1], after = ring[i + 1 == n ? 0 : i + 1];
            const bool down = p < after, up = p < before;   // whether the edge to it starts here
            const bool after_first = down && (!up || turn(p, after, before) == Turn::right);
            if (up && !after_first) edges_.push_back({p, before, 0, -along});
            if (down) edges_.push_back({p, after, 0, along});
            if (up && after_first) edges_.push_back({p, before, 0, -along});
        }
        for (const Vertex& vertex : vertices) visit(ring[vertex.place]);
    }

    void visit(Point p) {
        auto [first, last] = walls_.equal_range(p);
        const bool has_before = first != walls_.begin();
        const auto wall_before = has_before ? std::prev(first) : walls_.end();
        Chain before = has_before ? wall_before->chain : Chain{}, after;
        if (first == last) {
            if (before.solid()) std::tie(before, after) = chains_.part(before);
        } else {
            for (auto wall = first; std::next(wall) != last; ++wall)
                if (wall->chain.solid()) chains_.fan(wall->chain, p);
            after = std::prev(last)->chain;
            last = walls_.erase(first, last);
        }
        if (before.solid()) chains_.push_back(before, p);
        if (after.solid()) chains_.push_front(after, p);

        const bool starts = next_ < edges_.size() && edges_[next_].a == p;
        if (!starts && before.solid()) before = chains_.joined(before, after);
        if (has_before) wall_before->chain = before;
        while (next_ < edges_.size() && edges_[next_].a == p) {
            const detail::Edge& edge = edges_[next_++];
            const bool more = next_ < edges_.size() && edges_[next_].a == p;
            const bool solid_after = edge.delta > 0;
            walls_.insert(last, Wall{p, edge.b,
                                     !solid_after    ? Chain{}
                                     : more          ? chains_.start(p)
                                     : after.solid() ? after
                                                     : chains_.start(p)});
        }
    }

    Chains chains_;
    std::vector<detail::Edge> edges_;
    std::size_t next_ = 0;
    std::set<Wall, detail::AlongSweepLine> walls_;
};

}   // namespace

namespace detail {

std::vector<Triangle> triangulated(const Region& region) {
    std::vector<Triangle> result;
    result.reserve(region.outline.size());
    const Triangulation whole(region, result);
    return result;
}

}   // namespace detail

std::vector<Ring> triangles(std::span<const Region> regions) {
    std::vector<detail::Triangle> all;
    for (const Region& region : regions)
        for (const auto& [a, b, c] : detail::triangulated(region))
            all.push_back(a < b && a < c ? detail::Triangle{a, b, c}
                          : b < c        ? detail::Triangle{b, c, a}
                                         : detail::Triangle{c, a, b});
    std::sort(all.begin(), all.end());
    std::vector<Ring> result;
    result.reserve(all.size());
    for (const detail::Triangle& triangle : all) result.emplace_back(triangle.begin(), triangle.end());
    return result;
}

}   // namespace dryground

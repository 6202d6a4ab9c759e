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

using Rank = std::uint32_t;   // of a vertex, from the least on
using Ranks = std::array<Rank, 3>;

struct Vertex {
    Point at;
    Rank rank = 0;
};

struct Link {
    Vertex of;
    int previous = -1, next = -1;
};

struct Chain {
    int front = -1, back = -1, latest = -1;
    [[nodiscard]] bool solid() const { return front >= 0; }
};

class Chains {
public:
    explicit Chains(std::size_t vertices) {
        links_.reserve(2 * vertices);
        triangles_.reserve(vertices);
    }
    [[nodiscard]] const std::vector<Ranks>& triangles() const { return triangles_; }

    Chain start(const Vertex& p) {
        const int link = make(p);
        return {link, link, link};
    }

    // Cuts off what p sees from the back, then appends p.
    void push_back(Chain& chain, const Vertex& p) {
        while (chain.back != chain.front && cut(at(previous(chain.back)), at(chain.back), p))
            chain.back = previous(chain.back);
        const int link = make(p);
        join(chain.back, link);
        chain.back = chain.latest = link;
    }

    void push_front(Chain& chain, const Vertex& p) {
        while (chain.back != chain.front && cut(p, at(chain.front), at(next(chain.front))))
            chain.front = next(chain.front);
        const int link = make(p);
        join(link, chain.front);
        chain.front = chain.latest = link;
    }

    // Splits a chain at the vertex that came last, which both parts keep.
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

    void fan(const Chain& chain, const Vertex& p) {
        for (int link = chain.front; link != chain.back; link = next(link)) cut(at(link), at(next(link)), p);
    }

private:
    [[nodiscard]] const Vertex& at(int link) const { return links_[static_cast<std::size_t>(link)].of; }
    [[nodiscard]] int next(int link) const { return links_[static_cast<std::size_t>(link)].next; }
    [[nodiscard]] int previous(int link) const { return links_[static_cast<std::size_t>(link)].previous; }
    int make(Vertex p) {
        links_.push_back({p});
        return static_cast<int>(links_.size()) - 1;
    }
    void join(int a, int b) {
        links_[static_cast<std::size_t>(a)].next = b;
        links_[static_cast<std::size_t>(b)].previous = a;
    }
    bool cut(const Vertex& a, const Vertex& b, const Vertex& c) {
        if (turn(a.at, b.at, c.at) != Turn::left) return false;
        triangles_.push_back({a.rank, b.rank, c.rank});
        return true;
    }

    std::vector<Link> links_;
    std::vector<Ranks> triangles_;
};

struct Wall {   // an edge on the sweep line, with the chain of the gap after it
    Point a, b;
    mutable Chain chain;
};

class Triangulation {
public:
    explicit Triangulation(const Region& region) : chains_(region.outline.size()) {
        if (region.holes.empty()) {
            sort_ring(region.outline);
        } else {
            detail::add_regions(edges_, std::span(&region, 1), 0);
            edges_ = detail::arrange(std::move(edges_));
            for (const detail::Edge& edge : edges_) points_.insert(points_.end(), {edge.a, edge.b});
            std::sort(points_.begin(), points_.end());
            points_.erase(std::unique(points_.begin(), points_.end()), points_.end());
        }
        for (std::size_t i = 0; i < points_.size(); ++i) visit({points_[i], static_cast<Rank>(i)});
    }
    // Vertices from the least on, and triangles of them in the order in which they are cut off.
    [[nodiscard]] const std::vector<Point>& points() const { return points_; }
    [[nodiscard]] const std::vector<Ranks>& triangles() const { return chains_.triangles(); }

private:
    // One ring touches nothing: its edges need no cutting, and sorting its vertices sorts them.
    void sort_ring(const Ring& ring) {
        struct Corner {
            std::uint64_t order;   // as points are ordered, in one number: half the time of sorting
            std::uint32_t place;
        };
        const std::size_t n = ring.size();
        const auto unsigned_of = [](std::int32_t x) {
            return static_cast<std::uint32_t>(std::int64_t{x} + (1LL << 31));
        };
        std::vector<Corner> corners(n);
        for (std::size_t i = 0; i < n; ++i)
            corners[i] = {(std::uint64_t{unsigned_of(ring[i].y)} << 32) + unsigned_of(ring[i].x),
                          static_cast<std::uint32_t>(i)};
        std::sort(corners.begin(), corners.end(), [](const Corner& c, const Corner& d) { return c.order < d.order; });
        const int along = twice_area(ring) < 0 ? 1 : -1;
        edges_.reserve(n);
        points_.reserve(n);
        for (const auto& [order, i] : corners) {
            points_.push_back(ring[i]);
            const Point p = ring[i], before = ring[i == 0 ? n - 1 : i - 1], after = ring[i + 1 == n ? 0 : i + 1];
            const bool down = p < after, up = p < before;   // whether the edge to it starts here
            const bool after_first = down && (!up || turn(p, after, before) == Turn::right);
            if (up && !after_first) edges_.push_back({p, before, 0, -along});
            if (down) edges_.push_back({p, after, 0, along});
            if (up && after_first) edges_.push_back({p, before, 0, -along});
        }
    }

    void visit(const Vertex& vertex) {
        const Point p = vertex.at;
        auto [first, last] = walls_.equal_range(p);
        const bool has_before = first != walls_.begin();
        const auto wall_before = has_before ? std::prev(first) : walls_.end();
        Chain before = has_before ? wall_before->chain : Chain{}, after;
        if (first == last) {
            if (before.solid()) std::tie(before, after) = chains_.part(before);
        } else {
            for (auto wall = first; std::next(wall) != last; ++wall)
                if (wall->chain.solid()) chains_.fan(wall->chain, vertex);
            after = std::prev(last)->chain;
            while (first != last) spare_.push_back(walls_.extract(first++));
        }
        if (before.solid()) chains_.push_back(before, vertex);
        if (after.solid()) chains_.push_front(after, vertex);

        const bool starts = next_ < edges_.size() && edges_[next_].a == p;
        if (!starts && before.solid()) before = chains_.joined(before, after);
        if (has_before) wall_before->chain = before;
        while (next_ < edges_.size() && edges_[next_].a == p) {
            const detail::Edge& edge = edges_[next_++];
            const bool more = next_ < edges_.size() && edges_[next_].a == p;
            const bool solid_after = edge.delta > 0;
            insert(last, Wall{p, edge.b,
                              !solid_after    ? Chain{}
                              : more          ? chains_.start(vertex)
                              : after.solid() ? after
                                              : chains_.start(vertex)});
        }
    }

    using Walls = std::set<Wall, detail::AlongSweepLine>;

    // Nodes of the tree are reused, which saves a tenth of the time.
    void insert(Walls::iterator before, const Wall& wall) {
        if (spare_.empty()) {
            walls_.insert(before, wall);
            return;
        }
        spare_.back().value() = wall;
        walls_.insert(before, std::move(spare_.back()));
        spare_.pop_back();
    }

    Chains chains_;
    std::vector<Point> points_;
    std::vector<detail::Edge> edges_;
    std::size_t next_ = 0;
    Walls walls_;
    std::vector<Walls::node_type> spare_;
};

// Sorts triangles that start at their least vertices, given the number of vertices.
void sort(std::vector<Ranks>& triangles, std::size_t vertices) {
    std::vector<Rank> ends(vertices + 1, 0);
    for (const Ranks& triangle : triangles) ++ends[triangle[0] + 1];
    for (std::size_t i = 1; i < ends.size(); ++i) ends[i] += ends[i - 1];
    std::vector<Ranks> sorted(triangles.size());
    for (const Ranks& triangle : triangles) sorted[ends[triangle[0]]++] = triangle;
    Rank begin = 0;
    for (const Rank end : ends) {
        if (end > begin + 1) std::sort(sorted.begin() + begin, sorted.begin() + end);
        begin = end;
    }
    triangles = std::move(sorted);
}

}   // namespace

namespace detail {

std::vector<Triangle> triangulated(const Region& region) {
    const Triangulation whole(region);
    std::vector<Triangle> result;
    result.reserve(whole.triangles().size());
    for (const auto& [a, b, c] : whole.triangles())
        result.push_back({whole.points()[a], whole.points()[b], whole.points()[c]});
    return result;
}

}   // namespace detail

std::vector<Triangle> triangles(std::span<const Region> regions) {
    std::vector<Triangle> result;
    std::size_t vertices = 0;
    for (const Region& region : regions) vertices += region.outline.size();
    result.reserve(vertices);
    for (const Region& region : regions) {
        const Triangulation whole(region);
        std::vector<Ranks> cut;
        cut.reserve(whole.triangles().size());
        for (const auto& [a, b, c] : whole.triangles())
            cut.push_back(a < b && a < c ? Ranks{a, b, c} : b < c ? Ranks{b, c, a} : Ranks{c, a, b});
        sort(cut, whole.points().size());
        for (const auto& [a, b, c] : cut) result.push_back({whole.points()[a], whole.points()[b], whole.points()[c]});
    }
    return result;
}

}   // namespace dryground

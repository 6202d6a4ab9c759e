// From boundary edges to regions.
//
// Idea. At a vertex where several boundary edges meet, each edge that leaves is paired with the edge that comes in
// across its own solid sector, so that solids which touch at a corner are parted. A ring that still comes back to a
// vertex (a solid that closes around a gap and touches itself, or two gaps that touch) is split there. Then every ring
// is simple; its sign tells outline from hole. A hole's first edge knows the boundary edge before it on the sweep line,
// with nothing but solid between the two: the hole belongs where that edge's ring belongs.
//
// Guarantee: valid according to the OGC simple features standard, and without needless vertices. Cost: O(n log n) for
// sorting by points.

#include <algorithm>
#include <unordered_map>

#include "arrangement_internal.hpp"
#include "ring_internal.hpp"

namespace dryground::detail {

namespace {

// Returns whether direction d (from the origin) lies in the upper half turn: used to sort directions all around.
bool first_half(Point d) { return d.y > 0 || (d.y == 0 && d.x > 0); }

struct Spoke {   // a boundary edge as seen from one of its ends
    Point at, other;
    int edge;
    bool leaves;
};

bool around(const Spoke& s, const Spoke& t) {
    if (s.at != t.at) return s.at < t.at;
    const Point ds{s.other.x - s.at.x, s.other.y - s.at.y}, dt{t.other.x - t.at.x, t.other.y - t.at.y};
    if (first_half(ds) != first_half(dt)) return first_half(ds);
    return turn(s.at, s.other, t.other) == Turn::left;
}

}   // namespace

Followers followers(std::span<const BoundaryEdge> edges, std::int32_t first_row, std::int32_t last_row) {
    std::vector<Spoke> spokes;
    spokes.reserve(2 * edges.size());
    const auto is_known = [&](Point p) { return p.y >= first_row && p.y <= last_row; };
    for (std::size_t i = 0; i < edges.size(); ++i) {
        if (is_known(edges[i].from)) spokes.push_back({edges[i].from, edges[i].to, static_cast<int>(i), true});
        if (is_known(edges[i].to)) spokes.push_back({edges[i].to, edges[i].from, static_cast<int>(i), false});
    }
    std::sort(spokes.begin(), spokes.end(), around);
    Followers result{std::vector<int>(edges.size(), -1), std::vector<char>(edges.size(), 0)};
    for (std::size_t i = 0; i < spokes.size();) {
        std::size_t end = i;
        while (end < spokes.size() && spokes[end].at == spokes[i].at) ++end;
        // Solid lies between a leaving spoke and the next one to its left, which therefore comes in.
        for (std::size_t s = i; s < end; ++s) {
            const Spoke& following = spokes[s + 1 < end ? s + 1 : i];
            if (!spokes[s].leaves) continue;
            result.next[static_cast<std::size_t>(following.edge)] = spokes[s].edge;
            result.parted[static_cast<std::size_t>(spokes[s].edge)] = end - i > 2;
        }
        i = end;
    }
    return result;
}

std::vector<Walk> simple_walks(const Followers& followers, std::span<const Point> from) {
    const auto& [next, parted] = followers;
    std::vector<char> seen(from.size(), 0);
    std::vector<Walk> walks;
    struct PointHash {
        std::size_t operator()(Point p) const {
            const auto x = static_cast<std::uint32_t>(p.x), y = static_cast<std::uint32_t>(p.y);
            return (std::uint64_t{x} << 32 | y) * 0x9E3779B97F4A7C15u;
        }
    };
    // Where in the walk a vertex is left: of those that a walk can come back to, which are where it starts and where
    // several edges leave.
    std::unordered_map<Point, std::size_t, PointHash> open;
    for (std::size_t start = 0; start < from.size(); ++start) {
        if (seen[start]) continue;
        Walk walk;   // which ends with all of its loops closed, and so with no vertex left open
        for (std::size_t e = start; !seen[e]; e = static_cast<std::size_t>(next[e])) {
            seen[e] = 1;
            const auto after = static_cast<std::size_t>(next[e]);
            if (walk.empty() || parted[e]) open.emplace(from[e], walk.size());
            walk.push_back(static_cast<int>(e));
            if (after != start && !parted[after]) continue;
            const auto back = open.find(from[after]);
            if (back == open.end()) continue;
            Walk& loop = walks.emplace_back(walk.begin() + static_cast<std::ptrdiff_t>(back->second), walk.end());
            for (const int closed : loop)
                if (closed == loop.front() || parted[static_cast<std::size_t>(closed)])
                    open.erase(from[static_cast<std::size_t>(closed)]);
            walk.resize(walk.size() - loop.size());
        }
    }
    return walks;
}

namespace {

// Returns the corners of a walk: vertices where the direction changes or, if requested, where the label changes.
LabelledRing corners(std::span<const BoundaryEdge> edges, const Walk& walk, bool keep_label_changes) {
    LabelledRing ring;
    const std::size_t n = walk.size();
    for (std::size_t i = 0; i < n; ++i) {
        const BoundaryEdge& coming = edges[static_cast<std::size_t>(walk[(i + n - 1) % n])];
        const BoundaryEdge& going = edges[static_cast<std::size_t>(walk[i])];
        const bool bends = turn(coming.from, coming.to, going.to) != Turn::straight;
        if (!bends && !(keep_label_changes && coming.label != going.label)) continue;
        ring.points.push_back(going.from);
        ring.labels.push_back(going.label);
    }
    start_at_least(ring.points, ring.labels);
    return ring;
}

}   // namespace

Stacked link(std::span<const BoundaryEdge> edges) {
    std::vector<Point> from;
    from.reserve(edges.size());
    for (const BoundaryEdge& edge : edges) from.push_back(edge.from);
    std::vector<Walk> walks = simple_walks(followers(edges), from);
    // Edges come in sweep order, so a walk's least edge is the first that the sweep met, and the ring of the edge
    // before a hole's first edge was met earlier than the hole.
    std::vector<std::pair<int, std::size_t>> order;
    std::vector<std::size_t> walk_of(edges.size(), 0);
    for (std::size_t w = 0; w < walks.size(); ++w) {
        order.emplace_back(*std::min_element(walks[w].begin(), walks[w].end()), w);
        for (const int e : walks[w]) walk_of[static_cast<std::size_t>(e)] = w;
    }
    std::sort(order.begin(), order.end());

    Stacked result;
    std::vector<std::size_t> region_of(walks.size(), 0);
    for (const auto& [first, w] : order) {
        Ring ring = corners(edges, walks[w], false).points;
        if (twice_area(ring) > 0) {
            region_of[w] = result.regions.size();
            result.regions.push_back({std::move(ring), {}});
        } else {
            const int before = edges[static_cast<std::size_t>(first)].before;
            region_of[w] = region_of[walk_of[static_cast<std::size_t>(before)]];
            result.regions[region_of[w]].holes.push_back(std::move(ring));
        }
        result.rings.push_back(corners(edges, walks[w], true));
    }
    for (Region& region : result.regions) std::sort(region.holes.begin(), region.holes.end());
    std::sort(result.regions.begin(), result.regions.end(),
              [](const Region& a, const Region& b) { return a.outline < b.outline; });
    std::sort(result.rings.begin(), result.rings.end(),
              [](const LabelledRing& a, const LabelledRing& b) { return a.points < b.points; });
    return result;
}

}   // namespace dryground::detail

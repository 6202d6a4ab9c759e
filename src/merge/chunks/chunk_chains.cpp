// Idea. A chunk's rings close along the chunk's sides, through ground that goes on behind them. There the chunk on the
// other side has the same part of the side in its rings. Such parts go; what is left of a ring are open runs. Where a
// run ends, another chunk's run goes on from the same point.

#include "chunk_chains_internal.hpp"

#include <algorithm>
#include <cmath>

namespace dryground::detail {

namespace {

// Parts of an edge: in turn what stays and what another chunk has too.
struct Cut {
    BorderEdge edge;
    bool stays;
};

void cut(const BorderEdge& edge, const SideParts& other, std::vector<Cut>& into) {
    const bool forward = edge.from < edge.to;
    const Point least = std::min(edge.from, edge.to), most = std::max(edge.from, edge.to);
    std::vector<Cut> cuts;
    Point at = least;
    const auto add = [&](Point to, bool stays) {
        if (at < to) cuts.push_back({{at, to, edge.label}, stays});
        at = std::max(at, to);
    };
    for (const auto& [a, b] : other) {
        if (b <= at || most <= a) continue;
        add(std::min(a, most), true);
        add(std::min(b, most), false);
    }
    add(most, true);
    if (!forward) {
        std::reverse(cuts.begin(), cuts.end());
        for (Cut& one : cuts) std::swap(one.edge.from, one.edge.to);
    }
    into.insert(into.end(), cuts.begin(), cuts.end());
}

BorderEdge edge_of(const LabelledRing& ring, std::size_t i) {
    return {ring.points[i], ring.points[i + 1 < ring.points.size() ? i + 1 : 0], ring.labels[i]};
}

std::vector<Cut> cut_ring(const LabelledRing& ring, const std::vector<int>& sides,
                          const std::array<const SideParts*, 4>& shared) {
    std::vector<Cut> cuts;
    cuts.reserve(ring.points.size() + 4);
    for (std::size_t i = 0; i < ring.points.size(); ++i) {
        const BorderEdge edge = edge_of(ring, i);
        const SideParts* other = sides[i] < 0 ? nullptr : shared[static_cast<std::size_t>(sides[i])];
        if (other == nullptr)
            cuts.push_back({edge, true});
        else
            cut(edge, *other, cuts);
    }
    return cuts;
}

double bend(Point before, Point at, Point after) {   // the cosine of the turn
    const double dx = double{0} + at.x - before.x, dy = double{0} + at.y - before.y, ex = double{0} + after.x - at.x,
                 ey = double{0} + after.y - at.y;
    return (dx * ex + dy * ey) / (std::hypot(dx, dy) * std::hypot(ex, ey));
}

}   // namespace

ChunkBorder border_of(const std::vector<LabelledRing>& rings, const Ring& chunk) {
    ChunkBorder border;
    const auto on_sides = [&](Point p) {   // a bit for each
        int bits = 0;
        for (std::size_t side = 0; side < 4; ++side)
            bits |= turn(chunk[side], chunk[(side + 1) % 4], p) == Turn::straight ? 1 << side : 0;
        return bits;
    };
    std::vector<int> sides;
    for (const LabelledRing& ring : rings) {
        sides.clear();
        bool lies_along = false;
        const int first = on_sides(ring.points[0]);
        int here = first;
        for (std::size_t i = 0; i < ring.points.size(); ++i) {
            const bool last = i + 1 == ring.points.size();
            const Point from = ring.points[i], to = ring.points[last ? 0 : i + 1];
            const int there = last ? first : on_sides(to), both = here & there;
            int side = -1;
            for (int s = 0; s < 4; ++s)
                if ((both >> s & 1) != 0) side = s;
            sides.push_back(side);
            lies_along = lies_along || side >= 0;
            if (side >= 0)
                border.parts[static_cast<std::size_t>(side)].emplace_back(std::min(from, to), std::max(from, to));
            else if (here != 0 || there != 0)
                border.ending.emplace_back(from, to);
            here = there;
        }
        border.sides.push_back(lies_along ? sides : std::vector<int>());
    }
    for (SideParts& parts : border.parts) std::sort(parts.begin(), parts.end());
    return border;
}

Runs runs_of(const std::vector<LabelledRing>& rings, const ChunkBorder& border,
             const std::array<const SideParts*, 4>& shared) {
    Runs runs;
    for (std::size_t r = 0; r < rings.size(); ++r) {
        if (border.sides[r].empty()) {
            runs.whole.push_back(r);
            continue;
        }
        std::vector<Cut> cuts = cut_ring(rings[r], border.sides[r], shared);
        const auto gap = std::find_if(cuts.begin(), cuts.end(), [](const Cut& c) { return !c.stays; });
        Run run;
        run.closed = gap == cuts.end();
        if (!run.closed) std::rotate(cuts.begin(), gap, cuts.end());
        const auto end_run = [&] {
            if (!run.edges.empty()) runs.cut.push_back(std::move(run));
            run = {{}, false};
        };
        for (const Cut& one : cuts) {
            if (one.stays)
                run.edges.push_back(one.edge);
            else
                end_run();
        }
        end_run();
    }
    return runs;
}

namespace {

// Finds the vertices next to the ends of an open run: of the runs that go on there, along the one that bends least.
void find_next(Chain& chain, const Run& run, const std::vector<const Run*>& open) {
    const BorderEdge &first = run.edges.front(), &last = run.edges.back();
    double best_before = -2, best_after = -2;
    for (const Run* other : open) {
        if (other->edges.back().to == first.from) {
            const Point before = other->edges.back().from;
            if (const double b = bend(before, first.from, first.to); b > best_before) {
                best_before = b;
                chain.before = before;
            }
        }
        if (other->edges.front().from == last.to) {
            const Point after = other->edges.front().to;
            if (const double b = bend(last.from, last.to, after); b > best_after) {
                best_after = b;
                chain.after = after;
            }
        }
    }
}

}   // namespace

std::vector<Chain> cut_chains(const Runs& runs, const std::vector<const Runs*>& near) {
    std::vector<const Run*> open;
    for (const Runs* others : near)
        for (const Run& run : others->cut)
            if (!run.closed) open.push_back(&run);
    std::vector<Chain> chains;
    chains.reserve(runs.cut.size());
    for (const Run& run : runs.cut) {
        Chain& chain = chains.emplace_back();
        chain.closed = run.closed;
        chain.points.reserve(run.edges.size() + 1);
        chain.surfaces.reserve(run.edges.size());
        for (const BorderEdge& edge : run.edges) {
            chain.points.push_back(edge.from);
            chain.surfaces.push_back(edge.label);
        }
        if (run.closed) continue;
        chain.points.push_back(run.edges.back().to);
        find_next(chain, run, open);
    }
    return chains;
}

std::vector<Chain> chains_of(const std::vector<LabelledRing>& rings, const Runs& runs,
                             const std::vector<Chain>& cut_chains) {
    std::vector<Chain> chains;
    chains.reserve(runs.whole.size() + cut_chains.size());
    for (const std::size_t ring : runs.whole) chains.push_back({rings[ring].points, rings[ring].labels});
    chains.insert(chains.end(), cut_chains.begin(), cut_chains.end());
    std::sort(chains.begin(), chains.end(), [](const Chain& a, const Chain& b) { return a.points < b.points; });
    return chains;
}

}   // namespace dryground::detail

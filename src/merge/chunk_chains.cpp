// Idea. A chunk's rings close along the chunk's sides, through ground that goes on behind them. There the chunk on the
// other side has the same part of the side in its rings. Such parts go; what is left of a ring are open runs. Where a
// run ends, another chunk's run goes on from the same point.

#include "chunk_chains_internal.hpp"

#include <algorithm>
#include <cmath>

namespace dryground::detail {

namespace {

bool lies_on(Point from, Point to, Point a, Point b) {
    return turn(a, b, from) == Turn::straight && turn(a, b, to) == Turn::straight;
}

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

std::vector<Cut> cut_ring(const LabelledRing& ring, const std::vector<ChunkSide>& shared) {
    std::vector<Cut> cuts;
    for (std::size_t i = 0; i < ring.points.size(); ++i) {
        const BorderEdge edge{ring.points[i], ring.points[(i + 1) % ring.points.size()], ring.labels[i]};
        const auto side = std::find_if(shared.begin(), shared.end(),
                                       [&](const ChunkSide& s) { return lies_on(edge.from, edge.to, s.a, s.b); });
        if (side == shared.end())
            cuts.push_back({edge, true});
        else
            cut(edge, side->parts, cuts);
    }
    return cuts;
}

double bend(Point before, Point at, Point after) {   // the cosine of the turn
    const double dx = double{0} + at.x - before.x, dy = double{0} + at.y - before.y, ex = double{0} + after.x - at.x,
                 ey = double{0} + after.y - at.y;
    return (dx * ex + dy * ey) / (std::hypot(dx, dy) * std::hypot(ex, ey));
}

}   // namespace

SideParts parts_along(const std::vector<LabelledRing>& rings, Point a, Point b) {
    SideParts parts;
    for (const LabelledRing& ring : rings)
        for (std::size_t i = 0; i < ring.points.size(); ++i) {
            const Point from = ring.points[i], to = ring.points[(i + 1) % ring.points.size()];
            if (lies_on(from, to, a, b)) parts.emplace_back(std::min(from, to), std::max(from, to));
        }
    std::sort(parts.begin(), parts.end());
    return parts;
}

std::vector<Run> runs_of(const std::vector<LabelledRing>& rings, const std::vector<ChunkSide>& shared) {
    std::vector<Run> runs;
    for (const LabelledRing& ring : rings) {
        std::vector<Cut> cuts = cut_ring(ring, shared);
        const auto gap = std::find_if(cuts.begin(), cuts.end(), [](const Cut& c) { return !c.stays; });
        Run run;
        run.closed = gap == cuts.end();
        if (!run.closed) std::rotate(cuts.begin(), gap, cuts.end());
        const auto end_run = [&] {
            if (!run.edges.empty()) runs.push_back(std::move(run));
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

std::vector<Chain> chains_of(const std::vector<Run>& runs, const std::vector<const std::vector<Run>*>& near) {
    std::vector<Chain> chains;
    for (const Run& run : runs) {
        Chain chain;
        chain.closed = run.closed;
        for (const BorderEdge& edge : run.edges) {
            chain.points.push_back(edge.from);
            chain.surfaces.push_back(edge.label);
        }
        if (!run.closed) {
            const BorderEdge &first = run.edges.front(), &last = run.edges.back();
            chain.points.push_back(last.to);
            double best_before = -2, best_after = -2;
            for (const std::vector<Run>* others : near)
                for (const Run& other : *others) {
                    if (other.closed) continue;
                    if (other.edges.back().to == first.from) {
                        const Point before = other.edges.back().from;
                        if (const double b = bend(before, first.from, first.to); b > best_before) {
                            best_before = b;
                            chain.before = before;
                        }
                    }
                    if (other.edges.front().from == last.to) {
                        const Point after = other.edges.front().to;
                        if (const double b = bend(last.from, last.to, after); b > best_after) {
                            best_after = b;
                            chain.after = after;
                        }
                    }
                }
        }
        chains.push_back(std::move(chain));
    }
    std::sort(chains.begin(), chains.end(), [](const Chain& a, const Chain& b) { return a.points < b.points; });
    return chains;
}

}   // namespace dryground::detail

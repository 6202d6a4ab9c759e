// The chains of chunks.
//
// Idea. A chunk's rings close along the chunk's sides, through ground that continues behind them. There the chunk on
// the other side has the same part of the side in its rings. Such parts are removed; what is left of a ring are open
// runs. Where a run ends, another chunk's run continues from the same point.
//
// Cost: O(n log n) in the edges along sides; rings within a chunk are runs as they are.

#include "chunk_chains_internal.hpp"

#include <algorithm>
#include <bit>
#include <cmath>
#include <cstdint>
#include <iterator>
#include <utility>

#include "../../geometry/bounds_internal.hpp"

namespace dryground::detail {

namespace {

// Cuts an edge: passes to `add`, in turn, what stays and what another chunk has too.
template <class Add>
void cut(const BorderEdge& edge, const SideParts& other, Add add) {
    const bool forward = edge.from < edge.to;
    const Point least = std::min(edge.from, edge.to), most = std::max(edge.from, edge.to);
    std::vector<std::pair<BorderEdge, bool>> cuts;   // from the least point on; whether it stays
    Point at = least;
    const auto go_to = [&](Point to, bool stays) {
        if (at < to) cuts.push_back({{at, to, edge.label}, stays});
        at = std::max(at, to);
    };
    for (const auto& [a, b] : other) {
        if (b <= at || most <= a) continue;
        go_to(std::min(a, most), true);
        go_to(std::min(b, most), false);
    }
    go_to(most, true);
    if (!forward) {
        std::reverse(cuts.begin(), cuts.end());
        for (auto& [part, stays] : cuts) std::swap(part.from, part.to);
    }
    for (const auto& [part, stays] : cuts) add(part, stays);
}

// Adds the runs of one ring, from its first gap on.
void add_runs(const LabelledRing& ring, const std::vector<int>& sides, const std::array<const SideParts*, 4>& shared,
              std::vector<Run>& into) {
    std::vector<BorderEdge> edges, first;   // of the current run; of that before the first gap
    bool any_gap = false;
    const auto end_run = [&] {
        if (!edges.empty()) into.push_back({.edges = edges, .closed = !any_gap});
        edges.clear();
    };
    const auto add = [&](const BorderEdge& edge, bool stays) {
        if (stays) {
            edges.push_back(edge);
        } else if (any_gap) {
            end_run();
        } else {
            any_gap = true;
            first.swap(edges);
        }
    };
    for (std::size_t i = 0; i < ring.points.size(); ++i) {
        const BorderEdge edge{ring.points[i], ring.points[i + 1 < ring.points.size() ? i + 1 : 0], ring.labels[i]};
        const SideParts* other = sides[i] < 0 ? nullptr : shared[static_cast<std::size_t>(sides[i])];
        if (other == nullptr)
            add(edge, true);
        else
            cut(edge, *other, add);
    }
    edges.insert(edges.end(), first.begin(), first.end());
    end_run();
}

double bend(Point before, Point at, Point after) {   // the cosine of the turn
    const double dx = double{0} + at.x - before.x, dy = double{0} + at.y - before.y, ex = double{0} + after.x - at.x,
                 ey = double{0} + after.y - at.y;
    return (dx * ex + dy * ey) / (std::hypot(dx, dy) * std::hypot(ex, ey));
}

}   // namespace

namespace {

// The lines along a chunk's sides, as a x + b y = c: a and b within 2^31, products within 2^61.
class SideLines {
public:
    explicit SideLines(const Ring& chunk) {
        for (std::size_t side = 0; side < 4; ++side) {
            const Point from = chunk[side], to = chunk[(side + 1) % 4];
            const std::int64_t a = std::int64_t{to.y} - from.y, b = std::int64_t{from.x} - to.x;
            lines_[side] = {from, a, b, a * from.x + b * from.y};
        }
        upright_ = lines_[0].a == 0 && lines_[1].b == 0 && lines_[2].a == 0 && lines_[3].b == 0;
    }
    // Returns a bit for each that a point lies on.
    [[nodiscard]] int through(Point p) const {
        if (upright_) {
            const auto& [top, right, bottom, left] = lines_;
            return static_cast<int>(p.y == top.at.y) | static_cast<int>(p.x == right.at.x) << 1 |
                   static_cast<int>(p.y == bottom.at.y) << 2 | static_cast<int>(p.x == left.at.x) << 3;
        }
        int bits = 0;
        for (std::size_t side = 0; side < 4; ++side)
            bits |= static_cast<int>(lines_[side].a * p.x + lines_[side].b * p.y == lines_[side].c) << side;
        return bits;
    }

private:
    struct Line {
        Point at;
        std::int64_t a, b, c;
    };
    std::array<Line, 4> lines_{};
    bool upright_ = false;   // top, right, bottom, left of a box
};

}   // namespace

ChunkBorder border_of(const std::vector<LabelledRing>& rings, const Ring& chunk) {
    ChunkBorder border;
    const SideLines lines(chunk);
    std::vector<int> through;   // of each vertex
    for (const LabelledRing& ring : rings) {
        const std::size_t n = ring.points.size();
        through.resize(n);
        int any = 0;
        for (std::size_t i = 0; i < n; ++i) any |= through[i] = lines.through(ring.points[i]);
        std::vector<int>& sides = border.sides.emplace_back();
        if (any == 0) continue;
        for (std::size_t i = 0; i < n; ++i) {
            const std::size_t next = i + 1 < n ? i + 1 : 0;
            if ((through[i] | through[next]) == 0) continue;
            const Point from = ring.points[i], to = ring.points[next];
            const auto both = static_cast<unsigned>(through[i] & through[next]);
            if (both == 0) {
                border.ending.emplace_back(from, to);
                continue;
            }
            const int side = static_cast<int>(std::bit_width(both)) - 1;
            if (sides.empty()) sides.assign(n, -1);
            sides[i] = side;
            border.parts[static_cast<std::size_t>(side)].emplace_back(std::min(from, to), std::max(from, to));
        }
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
        add_runs(rings[r], border.sides[r], shared, runs.cut);
    }
    return runs;
}

void find_ends(Runs& runs, const std::vector<const Runs*>& near) {
    std::vector<Point> places;
    for (const Run& run : runs.cut)
        if (!run.closed) places.insert(places.end(), {run.edges.front().from, run.edges.back().to});
    if (places.empty()) return;
    const Bounds around = box_around(places);   // where others are looked for
    std::vector<BorderEdge> starts, ends;       // the first and last edges of open runs
    for (const Runs* others : near)
        for (const Run& run : others->cut) {
            if (run.closed) continue;
            const BorderEdge &first = run.edges.front(), &last = run.edges.back();
            if (meet(around, {first.from, first.from})) starts.push_back(first);
            if (meet(around, {last.to, last.to})) ends.push_back(last);
        }
    for (Run& run : runs.cut) {
        if (run.closed) continue;
        run.before.reset(), run.after.reset();
        const BorderEdge &first = run.edges.front(), &last = run.edges.back();
        double best_before = -2, best_after = -2;   // of the runs that go on there, the one that bends least
        for (const BorderEdge& end : ends)
            if (end.to == first.from)
                if (const double b = bend(end.from, first.from, first.to); b > best_before) {
                    best_before = b;
                    run.before = end.from;
                }
        for (const BorderEdge& start : starts)
            if (start.from == last.to)
                if (const double b = bend(last.from, last.to, start.to); b > best_after) {
                    best_after = b;
                    run.after = start.to;
                }
    }
}

namespace {

Chain chain_of(const Run& run) {
    Chain chain{.points = {}, .closed = run.closed, .before = run.before, .after = run.after};
    chain.points.reserve(run.edges.size() + 1);
    chain.surfaces.reserve(run.edges.size());
    for (const BorderEdge& edge : run.edges) {
        chain.points.push_back(edge.from);
        chain.surfaces.push_back(edge.label);
    }
    if (!run.closed) chain.points.push_back(run.edges.back().to);
    return chain;
}

}   // namespace

std::vector<Chain> chains_of(const std::vector<LabelledRing>& rings, const Runs& runs) {
    std::vector<Chain> cut;
    cut.reserve(runs.cut.size());
    for (const Run& run : runs.cut) cut.push_back(chain_of(run));
    std::sort(cut.begin(), cut.end(), [](const Chain& a, const Chain& b) { return a.points < b.points; });
    std::vector<Chain> chains;
    chains.reserve(runs.whole.size() + cut.size());
    auto next = cut.begin();
    for (const std::size_t ring : runs.whole) {   // which are sorted
        for (; next != cut.end() && next->points < rings[ring].points; ++next) chains.push_back(std::move(*next));
        chains.push_back({rings[ring].points, rings[ring].labels});
    }
    chains.insert(chains.end(), std::make_move_iterator(next), std::make_move_iterator(cut.end()));
    return chains;
}

}   // namespace dryground::detail

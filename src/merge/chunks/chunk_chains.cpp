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
#include "../../geometry/ring_internal.hpp"

namespace dryground::detail {

namespace {

// Cuts rings where another chunk has the same part of a side.
class RunCutter {
public:
    RunCutter(const std::array<const SideParts*, 4>& shared, std::vector<Run>& into) : shared_(shared), into_(into) {}

    // Adds the runs of one ring, from its first gap on.
    void add(const LabelledRing& ring, const std::vector<int>& sides) {
        any_gap_ = false;
        for (std::size_t i = 0; i < ring.points.size(); ++i) {
            const BorderEdge edge{ring.points[i], ring.points[i + 1 < ring.points.size() ? i + 1 : 0], ring.labels[i]};
            const SideParts* other = sides[i] < 0 ? nullptr : shared_[static_cast<std::size_t>(sides[i])];
            if (other == nullptr)
                edges_.push_back(edge);
            else
                cut(edge, *other);
        }
        edges_.insert(edges_.end(), before_gap_.begin(), before_gap_.end());
        before_gap_.clear();
        end_run();
    }

private:
    // Keeps what the other chunk does not have of an edge.
    void cut(const BorderEdge& edge, const SideParts& other) {
        const bool forward = edge.from < edge.to;
        const auto [least, most] = std::minmax(edge.from, edge.to);
        parts_.clear();   // from the least point on
        Point at = least;
        const auto go_to = [&](Point to, bool stays) {
            if (at < to) parts_.push_back({at, to, stays});
            at = std::max(at, to);
        };
        // The other's parts do not overlap.
        auto part = std::upper_bound(other.begin(), other.end(), least,
                                     [](Point p, const auto& one) { return p < one.second; });
        for (; part != other.end() && part->first < most; ++part) {
            go_to(part->first, true);
            go_to(std::min(part->second, most), false);
        }
        go_to(most, true);
        if (!forward) std::reverse(parts_.begin(), parts_.end());
        for (const Part& one : parts_) {
            if (!one.stays)
                gap();
            else
                edges_.push_back({forward ? one.least : one.most, forward ? one.most : one.least, edge.label});
        }
    }
    void gap() {
        if (any_gap_) return end_run();
        any_gap_ = true;
        before_gap_.swap(edges_);
    }
    void end_run() {
        if (!edges_.empty()) into_.push_back({.edges = edges_, .closed = !any_gap_});
        edges_.clear();
    }

    struct Part {
        Point least, most;
        bool stays;
    };
    const std::array<const SideParts*, 4>& shared_;
    std::vector<Run>& into_;
    bool any_gap_ = false;
    std::vector<BorderEdge> edges_, before_gap_;   // of the current run; of that before the first gap
    std::vector<Part> parts_;
};

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
    runs.whole.reserve(rings.size());
    RunCutter cutter(shared, runs.cut);
    for (std::size_t r = 0; r < rings.size(); ++r) {
        if (border.sides[r].empty())
            runs.whole.push_back(r);
        else
            cutter.add(rings[r], border.sides[r]);
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

bool renew_chains(const std::vector<LabelledRing>& rings, const std::vector<char>& stays, const Runs& runs,
                  std::vector<Chain>& chains) {
    std::vector<Chain> cut;
    cut.reserve(runs.cut.size());
    for (const Run& run : runs.cut) cut.push_back(chain_of(run));
    std::sort(cut.begin(), cut.end(), [](const Chain& a, const Chain& b) { return begins_before(a.points, b.points); });
    std::vector<Chain> before = std::exchange(chains, {});
    chains.reserve(runs.whole.size() + cut.size());
    std::size_t known = 0, same = 0;
    // Returns the chain before that begins with the same edge, or null; asked in their order.
    const auto find = [&](const Ring& points) -> Chain* {
        while (known < before.size() && begins_before(before[known].points, points)) ++known;
        return known < before.size() && !begins_before(points, before[known].points) ? &before[known++] : nullptr;
    };
    const auto add_cut = [&](Chain& chain) {
        if (const Chain* const found = find(chain.points); found != nullptr) same += *found == chain;
        chains.push_back(std::move(chain));
    };
    auto next = cut.begin();
    for (const std::size_t r : runs.whole) {   // which are sorted
        const LabelledRing& ring = rings[r];
        for (; next != cut.end() && begins_before(next->points, ring.points); ++next) add_cut(*next);
        Chain* const found = find(ring.points);
        if (found != nullptr &&
            (stays[r] != 0 || (found->closed && found->points == ring.points && found->surfaces == ring.labels))) {
            chains.push_back(std::move(*found));
            ++same;
        } else {
            chains.push_back({ring.points, ring.labels});
        }
    }
    for (; next != cut.end(); ++next) add_cut(*next);
    return same != chains.size() || same != before.size();
}

}   // namespace dryground::detail

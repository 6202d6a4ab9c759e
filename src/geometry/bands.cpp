// What closed paths wind around, in bands.
//
// Idea. A sweep line that runs along the bands knows all windings from the edges that it crosses. So what is wound
// around within a band follows from the edges that pass through it, each taken whole. A band ends between two rows of
// the lattice: it has no vertex on its sides, and no edge along them. From one band to the next a boundary edge goes on
// where both, in their order along the side between them, have it. What lies in a band is kept as runs of vertices, so
// that all of them are linked in proportion to the runs, and not to the vertices.
//
// Rounding may bend an edge in one band and not in the next. If then two bands do not have the same edges on the side
// between them, everything is wound around at once.

#include "bands_internal.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <optional>
#include <utility>

#include "arrangement_internal.hpp"
#include "boolean_internal.hpp"
#include "ring_internal.hpp"
#include "same_ends_internal.hpp"

namespace dryground::detail {

namespace {

constexpr std::int64_t most_bands = 4096;
constexpr std::int64_t most_passed = 3;   // sides of bands that an edge passes, on average

std::int64_t band_of(std::int64_t y, std::int64_t height) { return y / height - (y % height < 0 ? 1 : 0); }

bool is_same_edge(const Edge& e, const Edge& f) { return e.a == f.a && e.b == f.b && e.delta == f.delta; }

}   // namespace

struct WoundInBands::Band {
    // Where a boundary edge crosses a side of the band.
    struct Crossing {
        double x;
        bool down;   // it leads to a greater y
        int run;     // that it begins, or ends, in this band
    };
    // Vertices of the boundary that follow each other.
    struct Run {
        std::vector<Point> points;   // may be none: it passes through the band
        bool parted = false;         // it begins at a vertex from which others lead, too: its first point
        int next = -1;               // the run of the same band that follows; -1: it leaves the band
    };
    std::vector<Run> runs;
    std::vector<Ring> rings;              // that lie in it whole
    std::vector<Crossing> above, below;   // on its sides, in their order
};

namespace {

using Band = WoundInBands::Band;
using Crossing = Band::Crossing;
using Run = Band::Run;

// Appends a vertex; the one before it goes if it lies in a straight run.
void add_vertex(Ring& points, Point p) {
    points.push_back(p);
    const std::size_t n = points.size();
    if (n > 2 && turn(points[n - 3], points[n - 2], p) == Turn::straight) points[n - 2] = p, points.pop_back();
}

// Takes out those of some vertices that lie in straight runs, and begins at the least one. `unsure`: sorted.
void tidy(Ring& ring, std::span<const std::size_t> unsure) {
    std::vector<std::size_t> needless;
    const std::size_t n = ring.size();
    for (const std::size_t i : unsure)
        if (turn(ring[i > 0 ? i - 1 : n - 1], ring[i], ring[i + 1 < n ? i + 1 : 0]) == Turn::straight)
            needless.push_back(i);
    if (!needless.empty()) {
        std::size_t kept = needless.front(), next = 0;
        for (std::size_t i = kept; i < n; ++i)
            if (next < needless.size() && needless[next] == i)
                ++next;
            else
                ring[kept++] = ring[i];
        ring.resize(kept);
    }
    start_at_least(ring);
}

class BandMaker {
public:
    BandMaker(std::int64_t number, std::int64_t height)
        : first_row_(static_cast<std::int32_t>(number * height)),
          last_row_(static_cast<std::int32_t>(
              std::min<std::int64_t>((number + 1) * height - 1, std::numeric_limits<std::int32_t>::max()))) {}

    // `edges`: that pass through it.
    Band make(std::vector<Edge> edges) && {
        find_boundary(std::move(edges));
        const Followers links = followers(boundary_, first_row_, last_row_);
        run_of_.assign(boundary_.size(), -1);
        seen_.assign(boundary_.size(), 0);
        for (std::size_t e = 0; e < boundary_.size(); ++e)
            if (!is_inside(boundary_[e].from) || links.parted[e] != 0) add_run(e, links);
        for (std::size_t r = 0; r < band_.runs.size(); ++r)
            if (last_of_[r] >= 0) band_.runs[r].next = run_of_[static_cast<std::size_t>(last_of_[r])];
        for (std::size_t e = 0; e < boundary_.size(); ++e)
            if (!seen_[e]) add_ring(e, links);
        for (std::vector<Crossing>* side : {&band_.above, &band_.below})
            std::sort(side->begin(), side->end(), [](const Crossing& p, const Crossing& q) { return p.x < q.x; });
        return std::move(band_);
    }

private:
    [[nodiscard]] bool is_inside(Point p) const { return p.y >= first_row_ && p.y <= last_row_; }

    void find_boundary(std::vector<Edge> edges) {
        edges = arrange(std::move(edges));
        std::erase_if(edges, [this](const Edge& edge) { return edge.a.y > last_row_; });
        const auto is_wound = [](std::span<const Winding> windings) { return windings.empty() ? nothing : 0; };
        for (const BoundaryEdge& edge : sweep(edges, is_wound, first_row_))
            if (std::min(edge.from.y, edge.to.y) <= last_row_ && std::max(edge.from.y, edge.to.y) >= first_row_)
                boundary_.push_back(edge);
    }
    void add_crossing(const BoundaryEdge& edge, bool above, std::size_t run) {
        const double y = above ? first_row_ - 0.5 : last_row_ + 0.5;
        const double x = edge.from.x + (y - edge.from.y) * (double{0} + edge.to.x - edge.from.x) /
                                           (double{0} + edge.to.y - edge.from.y);
        (above ? band_.above : band_.below).push_back({x, edge.from.y < edge.to.y, static_cast<int>(run)});
    }
    void add_run(std::size_t first, const Followers& links) {
        const std::size_t number = band_.runs.size();
        Run& run = band_.runs.emplace_back();
        run.parted = links.parted[first] != 0;
        run_of_[first] = static_cast<int>(number);
        if (run.parted)
            run.points.push_back(boundary_[first].from);
        else
            add_crossing(boundary_[first], boundary_[first].from.y < first_row_, number);
        for (std::size_t e = first;; e = static_cast<std::size_t>(links.next[e])) {
            seen_[e] = 1;
            const Point to = boundary_[e].to;
            if (!is_inside(to)) {
                add_crossing(boundary_[e], to.y < first_row_, number);
                last_of_.push_back(-1);
                return;
            }
            if (const int next = links.next[e]; links.parted[static_cast<std::size_t>(next)] != 0) {
                last_of_.push_back(next);
                return;
            }
            add_vertex(run.points, to);
        }
    }
    void add_ring(std::size_t first, const Followers& links) {
        Ring ring;
        for (std::size_t e = first; !seen_[e]; e = static_cast<std::size_t>(links.next[e]))
            seen_[e] = 1, add_vertex(ring, boundary_[e].from);
        tidy(ring, std::array{std::size_t{0}, ring.size() - 1});
        band_.rings.push_back(std::move(ring));
    }

    std::int32_t first_row_, last_row_;
    std::vector<BoundaryEdge> boundary_;
    std::vector<int> run_of_;    // by boundary edge: the run that begins with it; -1 for none
    std::vector<int> last_of_;   // by run: the boundary edge that begins the next one; -1: it leaves the band
    std::vector<char> seen_;
    Band band_;
};

using Bands = std::map<std::int64_t, std::shared_ptr<const Band>>;

// Runs of all bands, linked from one band to the next; nothing if two bands differ on the side between them.
class Linked {
public:
    static std::optional<std::vector<Ring>> rings(const Bands& bands) {
        Linked linked;
        for (const auto& [number, band] : bands) linked.add(*band);
        const std::vector<Crossing> none;
        std::size_t first = 0;   // run of the band
        for (auto here = bands.begin(); here != bands.end(); ++here) {
            const auto next = std::next(here);
            const bool follows = next != bands.end() && next->first == here->first + 1;
            const std::size_t first_of_next = first + here->second->runs.size();
            if ((here == bands.begin() || std::prev(here)->first + 1 != here->first) && !here->second->above.empty())
                return std::nullopt;
            if (!linked.join(here->second->below, first, follows ? next->second->above : none, first_of_next))
                return std::nullopt;
            first = first_of_next;
        }
        return std::move(linked).rings();
    }

private:
    void add(const Band& band) {
        const int first = static_cast<int>(runs_.size());
        for (const Run& run : band.runs) {
            // Of a run that begins on a side: any point outside of the range.
            from_.push_back(
                run.parted ? run.points.front()
                           : Point{std::numeric_limits<std::int32_t>::min(), static_cast<std::int32_t>(runs_.size())});
            links_.next.push_back(run.next < 0 ? -1 : first + run.next);
            links_.parted.push_back(run.parted ? 1 : 0);
            runs_.push_back(&run);
        }
        rings_.insert(rings_.end(), band.rings.begin(), band.rings.end());
    }
    bool join(const std::vector<Crossing>& above, std::size_t first_above, const std::vector<Crossing>& below,
              std::size_t first_below) {
        constexpr double near = 3;   // steps: of what is rounded twice
        if (above.size() != below.size()) return false;
        for (std::size_t i = 0; i < above.size(); ++i) {
            if (above[i].down != below[i].down || std::abs(above[i].x - below[i].x) > near) return false;
            const int up = static_cast<int>(first_above) + above[i].run,
                      low = static_cast<int>(first_below) + below[i].run;
            if (above[i].down)
                links_.next[static_cast<std::size_t>(up)] = low;
            else
                links_.next[static_cast<std::size_t>(low)] = up;
        }
        return true;
    }
    std::vector<Ring> rings() && {
        for (const Walk& walk : simple_walks(links_, from_)) {
            Ring ring;
            std::vector<std::size_t> unsure;   // what lies beside them is in other runs
            for (const int run : walk) {
                const std::vector<Point>& points = runs_[static_cast<std::size_t>(run)]->points;
                if (points.empty()) continue;
                unsure.push_back(ring.size());
                ring.insert(ring.end(), points.begin(), points.end());
                if (points.size() > 1) unsure.push_back(ring.size() - 1);
            }
            tidy(ring, unsure);
            if (ring.size() > 2) rings_.push_back(std::move(ring));
        }
        std::sort(rings_.begin(), rings_.end());
        return std::move(rings_);
    }

    std::vector<const Run*> runs_;
    std::vector<Point> from_;
    Followers links_;
    std::vector<Ring> rings_;
};

std::vector<Ring> rings_at_once(std::span<const Ring> ways) {
    std::vector<Ring> rings = rings_of(wound_around(ways));
    std::sort(rings.begin(), rings.end());
    return rings;
}

}   // namespace

WoundInBands::WoundInBands(std::span<const Ring> ways, std::int32_t height, const WoundInBands* before)
    : height_(height) {
    for (const Ring& way : ways) add_way(edges_, way, 0, false);
    if (edges_.empty()) return;
    std::int64_t least = edges_.front().a.y, most = least, length = 0;
    for (const Edge& edge : edges_) {
        least = std::min<std::int64_t>(least, edge.a.y), most = std::max<std::int64_t>(most, edge.b.y);
        length += std::int64_t{edge.b.y} - edge.a.y;
    }
    const auto count = static_cast<std::int64_t>(edges_.size());
    while ((most - least) / height_ > most_bands || length / height_ > most_passed * count) height_ *= 2;
    find_bands(band_of(least, height_), band_of(most, height_),
               before != nullptr && before->height_ == height_ ? before : nullptr);
    std::optional<std::vector<Ring>> linked = Linked::rings(bands_);
    rings_ = linked ? *std::move(linked) : rings_at_once(ways);
}

// Edges that both have at the beginning and the end of their lists are the same: bands that none of the others passes
// through are taken over.
void WoundInBands::find_bands(std::int64_t first, std::int64_t last, const WoundInBands* before) {
    std::vector<char> differs(static_cast<std::size_t>(last - first + 1), before == nullptr ? 1 : 0);
    const auto each_band = [&](const Edge& edge, auto action) {
        const std::int64_t begin = std::max(first, band_of(edge.a.y, height_)),
                           end = std::min(last, band_of(edge.b.y, height_));
        for (std::int64_t band = begin; band <= end; ++band) action(static_cast<std::size_t>(band - first));
    };
    if (before != nullptr) {
        const std::span<const Edge> old(before->edges_), now(edges_);
        const SameEnds same = same_ends(old, now, is_same_edge);
        for (const auto& all : {old, now})
            for (const Edge& edge : all.subspan(same.first, all.size() - same.first - same.last))
                each_band(edge, [&](std::size_t band) { differs[band] = 1; });
    }
    std::vector<std::vector<Edge>> edges(differs.size());   // of bands that differ
    const auto first_differing = std::find(differs.begin(), differs.end(), 1) - differs.begin(),
               behind_last = differs.rend() - std::find(differs.rbegin(), differs.rend(), 1);
    const std::int64_t first_row = (first + first_differing) * height_, end_row = (first + behind_last) * height_;
    for (const Edge& edge : edges_)
        if (edge.b.y >= first_row && edge.a.y < end_row)
            each_band(edge, [&](std::size_t band) {
                if (differs[band] != 0) edges[band].push_back(edge);
            });
    for (std::size_t band = 0; band < differs.size(); ++band) {
        const std::int64_t number = first + static_cast<std::int64_t>(band);
        if (!edges[band].empty()) {
            bands_.emplace(number,
                           std::make_shared<const Band>(BandMaker(number, height_).make(std::move(edges[band]))));
        } else if (differs[band] == 0) {
            if (const auto known = before->bands_.find(number); known != before->bands_.end()) bands_.insert(*known);
        }
    }
}

}   // namespace dryground::detail

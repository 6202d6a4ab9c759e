// Rules about the ground's outlines, on which bodies stand, slide and catch: gaps, narrow passages, small steps, slopes
// that end in the air. Edges that run along an axis are compared with those that face them, found by an index.
//
// Cost: in proportion to the outline, as long as few edges share a bucket.

#include <fmt/format.h>

#include <algorithm>
#include <set>
#include <unordered_map>

#include "../geometry/ring_internal.hpp"
#include "../ground/ground_internal.hpp"
#include "rules_internal.hpp"

namespace dryground::check_rules {

namespace {

// An edge along an axis: at a place across (x of a vertical one), from one place to another along it.
struct Edge {
    std::int32_t across, from, to;
    bool free_beyond;   // the free side is the one of larger `across`
};

struct Facing {
    std::int32_t gap, from, to, across;   // free from `across` to `across` + gap, between from and to
};

// Returns the vertical edges of regions, or the horizontal ones; what is solid is on their left, with y down.
std::vector<Edge> edges_along(const Regions& regions, bool upright) {
    std::vector<Edge> edges;
    detail::each_edge(regions, [&](Point a, Point b) {
        if (upright && a.x == b.x) edges.push_back({a.x, std::min(a.y, b.y), std::max(a.y, b.y), b.y > a.y});
        if (!upright && a.y == b.y) edges.push_back({a.y, std::min(a.x, b.x), std::max(a.x, b.x), b.x < a.x});
    });
    return edges;
}

// Returns pairs of edges that face each other over free space, nearer than `most`.
std::vector<Facing> facing(const std::vector<Edge>& edges, std::int32_t most) {
    std::vector<Edge> solid;
    std::vector<Bounds> boxes;
    for (const Edge& edge : edges)
        if (!edge.free_beyond) {
            solid.push_back(edge);
            boxes.push_back({{edge.from, edge.across}, {edge.to, edge.across}});
        }
    const detail::BoxIndex index(std::move(boxes));
    std::vector<Facing> result;
    for (const Edge& edge : edges) {
        if (!edge.free_beyond) continue;
        // Finds the nearest edge that faces it, for each stretch of it.
        std::vector<Facing> near;
        index.each_near({{edge.from, edge.across}, {edge.to, edge.across + most}}, [&](std::size_t i) {
            const Edge& other = solid[i];
            const std::int32_t gap = other.across - edge.across, from = std::max(edge.from, other.from),
                               to = std::min(edge.to, other.to);
            // A notch no deeper than wide does not count.
            if (gap > 0 && gap < most && to - from > gap) near.push_back({gap, from, to, edge.across});
        });
        std::sort(near.begin(), near.end(), [](const Facing& a, const Facing& b) {
            return std::tie(a.gap, a.from, a.to) < std::tie(b.gap, b.from, b.to);
        });
        std::vector<Facing> kept;
        for (const Facing& one : near)
            if (std::none_of(kept.begin(), kept.end(),
                             [&](const Facing& k) { return k.from < one.to && one.from < k.to; }))
                kept.push_back(one);
        result.insert(result.end(), kept.begin(), kept.end());
    }
    return result;
}

struct Size {
    std::int32_t wide, high;
};
Size size_of(const Mover& mover) {
    const Bounds box = *bounds(mover.body);
    return {box.most.x - box.least.x, box.most.y - box.least.y};
}

struct Ledge {   // the ends of a line
    Point left, right;
};

class OutlineChecker {
public:
    OutlineChecker(const World& world, Grounds& grounds, MapId map_id, const std::vector<MoverId>& movers,
                   Findings& findings)
        : world_(world),
          grounds_(grounds),
          map_id_(map_id),
          map_(world.map(map_id)),
          movers_(movers),
          findings_(findings) {}

    void run() {
        if (movers_.empty()) return;
        const MoverId first = movers_.front();
        for (const StoreyId storey : ground::storeys_of(map_)) {
            storey_ = storey;
            const Regions& regions = grounds_.of(map_id_, first, storey).regions();
            gaps(regions, first);
            ledges(grounds_.lines(map_id_, first, storey).from_above);
            // Where one mover swims another walks.
            std::vector<const Ground*> done;
            for (const MoverId mover : movers_) {
                const Ground& ground = grounds_.of(map_id_, mover, storey);
                if (std::find(done.begin(), done.end(), &ground) != done.end()) continue;
                done.push_back(&ground);
                count_corners(ground.regions());
                detail::each_ring(ground.regions(), [&](const Ring& ring) { along(ring); });
            }
        }
        for (auto& [words, finding] : by_words_) {
            if (const std::size_t more = places_[words].size(); more > 1)
                finding.details.push_back(fmt::format("there are {} such places; this is the first", more));
            findings_.add(std::move(finding));
        }
    }

private:
    // Adds one finding for all places that are alike.
    void tell(Rule rule, Point at, std::vector<std::string> arguments, Hint hint) {
        const std::string words =
            fmt::format("{} {} {}", static_cast<int>(rule), index(storey_), fmt::join(arguments, " "));
        const auto [column, row] = map_.data_cell_at(at);
        const Cell cell = map_.cell({column, row});
        if (!places_[words].insert(at).second) return;
        if (const auto known = by_words_.find(words); known != by_words_.end()) {
            known->second.cells.push_back(cell);
            return;
        }
        const PaintedCell spot = spot_of(world_, map_, column, row);
        Finding finding = findings_.start(rule, spot.place, fmt::format("map '{}'", map_.name), std::move(arguments));
        finding.map = map_.name, finding.layer = spot.layer, finding.cell = cell;
        finding.cells.push_back(cell);
        finding.details.push_back(fmt::format("at {} px, in cell ({}, {})", at_px(at), cell.column, cell.row));
        name_storey(world_, map_, storey_, finding);
        finding.hint = std::move(hint);
        by_words_.emplace(words, std::move(finding));
    }

    void gaps(const Regions& regions, MoverId mover_id) {
        const Mover& mover = world_.mover(mover_id);
        Size least = size_of(mover);
        for (const MoverId other : movers_) {
            const Size size = size_of(world_.mover(other));
            least = {std::min(least.wide, size.wide), std::min(least.high, size.high)};
        }
        const Size own = size_of(mover);
        for (const bool upright : {true, false}) {
            const std::int32_t narrowest = upright ? least.wide : least.high, needs = upright ? own.wide : own.high;
            const std::int32_t cell = (upright ? map_.cell_width : map_.cell_height) * steps_per_px;
            for (const Facing& one : facing(edges_along(regions, upright), std::max(narrowest, needs))) {
                const Point at = upright ? Point{one.across, one.from} : Point{one.from, one.across};
                if (one.gap >= cell && one.gap < needs)
                    tell(Rule::narrow, at, {px(one.gap), upright ? "narrow" : "low", mover.name, px(needs - one.gap)},
                         Hint{"make it wider, or the body smaller", ""});
                else if (one.gap < cell && one.gap < narrowest)
                    tell(Rule::crack, at, {px(one.gap), upright ? "beside each other" : "above each other"},
                         Hint{"close it, or make it wide enough for a body", ""});
            }
        }
    }

    // How often each corner occurs: twice where two rings touch.
    void count_corners(const Regions& regions) {
        corners_.clear();
        detail::each_vertex(regions, [&](Point p) { ++corners_[p]; });
    }

    // Reports ledges in a row that nearly meet: bodies that stand on one catch on the end of the next. A gap wider than
    // the narrowest body is there to fall through, on purpose.
    void ledges(const std::vector<Ring>& lines) {
        std::int32_t narrowest = size_of(world_.mover(movers_.front())).wide;
        for (const MoverId mover : movers_) narrowest = std::min(narrowest, size_of(world_.mover(mover)).wide);
        std::vector<Ledge> level;
        for (const Ring& line : lines)
            if (line.size() > 1 && line.front() != line.back())
                level.push_back(line.front().x < line.back().x ? Ledge{line.front(), line.back()}
                                                               : Ledge{line.back(), line.front()});
        std::sort(level.begin(), level.end(), [](const Ledge& a, const Ledge& b) {
            return std::tie(a.left.y, a.left.x) < std::tie(b.left.y, b.left.x);
        });
        for (std::size_t i = 0; i + 1 < level.size(); ++i) {
            const Point from = level[i].right, to = level[i + 1].left;
            const std::int32_t gap = to.x - from.x;
            if (from.y == to.y && gap > 0 && gap < std::min(narrowest, map_.cell_width * steps_per_px))
                tell(Rule::crack, from, {px(gap), "in a row"},
                     Hint{"let them meet, or make the gap wide enough for a body", ""});
        }
    }

    // Looks at corners of a ring: runs to the right have the solid below them.
    void along(const Ring& ring) {
        const std::size_t n = ring.size();
        const bool side = map_.player != MoverId::none && world_.mover(map_.player).moves == Moves::side;
        for (std::size_t i = 0; i < n; ++i) {
            const Point a = ring[i], b = ring[(i + 1) % n], c = ring[(i + 2) % n], d = ring[(i + 3) % n];
            small_step(a, b, c, d);
            if (side) slope(a, b, c, d);
        }
    }

    // A short edge between two that run on the same way.
    void small_step(Point a, Point b, Point c, Point d) {
        constexpr std::int32_t most = 2 * steps_per_px;
        const std::int64_t across = (std::int64_t{b.x} - a.x) * (std::int64_t{d.x} - c.x),
                           down = (std::int64_t{b.y} - a.y) * (std::int64_t{d.y} - c.y);
        // Surfaces may slope; walls are upright.
        const bool upright = b.x == c.x && across > 0, level = b.y == c.y && a.x == b.x && c.x == d.x && down > 0;
        const std::int32_t height = upright ? std::abs(c.y - b.y) : level ? std::abs(c.x - b.x) : most;
        const bool short_runs = std::max(std::abs(b.x - a.x), std::abs(b.y - a.y)) < most ||
                                std::max(std::abs(d.x - c.x), std::abs(d.y - c.y)) < most;
        if (height == 0 || height >= most || short_runs) return;   // many small edges are a curve
        tell(Rule::step, b, {px(height), upright ? "surfaces" : "walls"},
             Hint{"bring the shapes to the same height, or let merging fuse close corners", "least_edge_px = 2"});
    }

    // Reports a slope of which the upper end falls off to ground beside it that continues, by no more than a cell
    // (walked over, it is a wall from there), or the lower end to a slope that continues. A slope may end over a ditch
    // or at a shore.
    void slope(Point a, Point b, Point c, Point d) {
        const std::int32_t cell = map_.cell_height * steps_per_px;
        const auto is_slope = [](Point p, Point q) {
            return p.x != q.x && p.y != q.y && std::abs(q.x - p.x) >= steps_per_px * 4;
        };
        const auto falls = [&](Point top, Point bottom) {
            return top.x == bottom.x && bottom.y - top.y >= 2 * steps_per_px && bottom.y - top.y <= cell;
        };
        if (b.x <= a.x || d.x <= c.x) return;   // not both on top of the ground
        const bool down_left = falls(c, b), down_right = falls(b, c);
        // The upper end of a slope; or its lower end if another slope continues lower down.
        const auto ends = [&](Point from, Point to, Point p, Point q, bool is_upper) {
            return is_slope(from, to) && (is_upper || (is_slope(p, q) && (to.y > from.y) == (q.y > p.y)));
        };
        // Where other ground meets the upper corner the way continues over it.
        if (down_right && ends(a, b, c, d, b.y < a.y) && corners_[b] < 2) tell_slope(b, c);
        if (down_left && ends(c, d, a, b, d.y > c.y) && corners_[c] < 2) tell_slope(c, b);
    }
    void tell_slope(Point top, Point bottom) {
        tell(Rule::slope_end, top, {px(bottom.y - top.y)},
             Hint{"was it meant the other way around? let it meet ground of its height", "flip = \"x\""});
    }

    const World& world_;
    Grounds& grounds_;
    MapId map_id_;
    const Map& map_;
    const std::vector<MoverId>& movers_;
    StoreyId storey_ = StoreyId::ground;   // of the current storey
    std::map<Point, int> corners_{};       // of the current ground
    Findings& findings_;
    std::map<std::string, Finding> by_words_;
    std::map<std::string, std::set<Point>> places_;
};

}   // namespace

void check_outlines(const World& world, Grounds& grounds, Findings& findings) {
    for (std::size_t m = 0; m < world.maps().size(); ++m) {
        const std::vector<MoverId> movers = movers_of(world, id_of<MapId>(m));
        OutlineChecker(world, grounds, id_of<MapId>(m), movers, findings).run();
    }
}

}   // namespace dryground::check_rules

// The least number of boxes that cover a right-angled region without overlap.
//
// Idea (Ohtsuki 1982; Ferrari, Sankar and Sklansky 1984). Every corner that turns into the solid must be cut from. A
// cut between two such corners on one line (a chord) deals with both at once, so the most chords that neither cross nor
// share an end are drawn: a largest set without conflict, vertical chords against horizontal ones. From each corner
// that is left, one level cut runs to whatever it meets. Where two holes, or hole and outline, touch at a point,
// nothing turns into the solid there. Guarantee: exact cover; for right-angled regions no fewer boxes are possible.
// Where edges slant, the boxes around those edges are taken away first and cut into convex pieces (the rests). Cost:
// O(n log n) for chords, cuts and boxes, plus what choosing the chords takes (matching.cpp).

#include <algorithm>
#include <map>
#include <set>

#include "arrangement_internal.hpp"
#include "boolean_internal.hpp"
#include "matching_internal.hpp"
#include "ring_internal.hpp"

namespace dryground {

namespace {

// A corner that turns into the solid: in which directions the solid's two edges leave it.
struct Corner {
    Point at;
    bool right;   // a level cut runs to the right (its level edge lies to the left)
    bool down;    // an upright cut runs down
};

using Level = detail::AxisSegment;   // upright ones are mirrored
struct Chord {
    Level line;
    std::size_t first, second;   // corners at its ends
};

Point mirrored(Point p) { return {p.y, p.x}; }

// Horizontal cuts from corners: how far each runs over solid ground. Works on vertical edges sorted by x under a sweep.
class Cutter {
public:
    // Vertical segments that stop cuts: at x, over a range of y, ends included.
    void add_upright(std::int32_t x, std::int32_t from, std::int32_t to) { uprights_.push_back({x, from, to}); }

    // Finds for each start (by y) the nearest vertical segment in its direction. A start itself lies on the end of a
    // vertical segment.
    std::vector<std::int32_t> run(const std::vector<Corner>& starts) {
        std::vector<std::size_t> order(starts.size()), by_start(uprights_.size()), by_end(uprights_.size());
        for (std::size_t i = 0; i < order.size(); ++i) order[i] = i;
        for (std::size_t i = 0; i < by_start.size(); ++i) by_start[i] = by_end[i] = i;
        std::sort(order.begin(), order.end(), [&](auto a, auto b) { return starts[a].at < starts[b].at; });
        std::sort(by_start.begin(), by_start.end(),
                  [&](auto a, auto b) { return uprights_[a].from < uprights_[b].from; });
        std::sort(by_end.begin(), by_end.end(), [&](auto a, auto b) { return uprights_[a].to < uprights_[b].to; });
        std::vector<std::int32_t> stops(starts.size());
        std::multiset<std::int32_t> active;
        std::size_t s = 0, e = 0;
        for (const std::size_t i : order) {
            const Point at = starts[i].at;
            for (; s < by_start.size() && uprights_[by_start[s]].from <= at.y; ++s)
                active.insert(uprights_[by_start[s]].x);
            for (; e < by_end.size() && uprights_[by_end[e]].to < at.y; ++e)
                active.erase(active.find(uprights_[by_end[e]].x));
            stops[i] = starts[i].right ? *active.upper_bound(at.x) : *std::prev(active.lower_bound(at.x));
        }
        return stops;
    }

private:
    struct Upright {
        std::int32_t x, from, to;
    };
    std::vector<Upright> uprights_;
};

struct Edge {
    Point from, to;   // the solid on the left
    [[nodiscard]] bool level() const { return from.y == to.y; }
};

// Cuts up one right-angled region.
class Partition {
public:
    explicit Partition(const Region& region) {
        detail::each_ring({&region, 1}, [&](const Ring& ring) { add(ring); });
        drop_touching_corners();
    }

    void run(std::vector<Bounds>& boxes) {
        const std::vector<Chord> level = chords(false), upright = chords(true);
        const detail::Independent drawn = largest_set(level, upright);
        std::vector<bool> done(corners_.size(), false);
        std::vector<Level> uprights;   // drawn ones, mirrored
        const auto draw = [&](const Chord& chord, std::vector<Level>& into) {
            into.push_back(chord.line);
            done[chord.first] = done[chord.second] = true;
        };
        for (std::size_t i = 0; i < level.size(); ++i)
            if (drawn.levels[i]) draw(level[i], levels_);
        for (std::size_t i = 0; i < upright.size(); ++i)
            if (drawn.uprights[i]) draw(upright[i], uprights);
        cut_the_rest(done, uprights);
        collect(uprights, boxes);
    }

private:
    void add(const Ring& ring) {
        const std::size_t n = ring.size();
        for (std::size_t i = 0; i < n; ++i) {
            const Point before = ring[(i + n - 1) % n], at = ring[i], after = ring[(i + 1) % n];
            edges_.push_back({at, after});
            if (turn(before, at, after) != Turn::right) continue;
            const Point level_end = before.y == at.y ? before : after, upright_end = before.y == at.y ? after : before;
            corners_.push_back({at, level_end.x < at.x, upright_end.y < at.y});
        }
    }

    void drop_touching_corners() {
        std::sort(corners_.begin(), corners_.end(), [](const Corner& a, const Corner& b) { return a.at < b.at; });
        std::vector<Corner> kept;
        for (std::size_t i = 0; i < corners_.size();) {
            std::size_t j = i + 1;
            while (j < corners_.size() && corners_[j].at == corners_[i].at) ++j;
            if (j == i + 1) kept.push_back(corners_[i]);
            i = j;
        }
        corners_ = std::move(kept);
    }

    // Lists horizontal chords, or vertical ones, mirrored.
    [[nodiscard]] std::vector<Chord> chords(bool upright) const {
        std::vector<Corner> starts;
        std::map<Point, std::size_t> numbers;
        for (std::size_t i = 0; i < corners_.size(); ++i) {
            const Corner& c = corners_[i];
            starts.push_back(upright ? Corner{mirrored(c.at), c.down, c.right} : c);
            numbers.emplace(starts.back().at, i);
        }
        Cutter cutter;
        for (const Edge& edge : edges_) {
            const Point a = upright ? mirrored(edge.from) : edge.from, b = upright ? mirrored(edge.to) : edge.to;
            if (a.x == b.x) cutter.add_upright(a.x, std::min(a.y, b.y), std::max(a.y, b.y));
        }
        const std::vector<std::int32_t> stops = cutter.run(starts);
        std::vector<Chord> result;
        for (std::size_t i = 0; i < starts.size(); ++i) {
            if (!starts[i].right) continue;   // each chord from its lesser end
            const auto end = numbers.find(Point{stops[i], starts[i].at.y});
            if (end != numbers.end() && !starts[end->second].right)
                result.push_back({{starts[i].at.y, starts[i].at.x, stops[i]}, i, end->second});
        }
        return result;
    }

    // Chords conflict where they meet, ends included.
    static detail::Independent largest_set(const std::vector<Chord>& level, const std::vector<Chord>& upright) {
        const auto lines = [](const std::vector<Chord>& chords) {
            std::vector<Level> all;
            for (const Chord& chord : chords) all.push_back(chord.line);
            return all;
        };
        return detail::largest_independent_set(lines(level), lines(upright));
    }

    // Adds the horizontal cuts from corners that no chord deals with.
    void cut_the_rest(const std::vector<bool>& done, const std::vector<Level>& uprights) {
        std::vector<Corner> starts;
        for (std::size_t i = 0; i < corners_.size(); ++i)
            if (!done[i]) starts.push_back(corners_[i]);
        Cutter cutter;
        for (const Edge& edge : edges_)
            if (!edge.level())
                cutter.add_upright(edge.from.x, std::min(edge.from.y, edge.to.y), std::max(edge.from.y, edge.to.y));
        for (const Level& chord : uprights) cutter.add_upright(chord.at, chord.from, chord.to);
        const std::vector<std::int32_t> stops = cutter.run(starts);
        for (std::size_t i = 0; i < starts.size(); ++i)
            levels_.push_back({starts[i].at.y, std::min(starts[i].at.x, stops[i]), std::max(starts[i].at.x, stops[i])});
    }

    // Sweeps downwards: horizontal segments close the boxes above them and open those below.
    void collect(const std::vector<Level>& uprights, std::vector<Bounds>& boxes) const {
        struct Segment {
            Level line;
            bool opens;   // there is solid below
        };
        std::vector<Segment> segments;
        for (const Edge& edge : edges_)
            if (edge.level())
                segments.push_back({{edge.from.y, std::min(edge.from.x, edge.to.x), std::max(edge.from.x, edge.to.x)},
                                    edge.from.x < edge.to.x});
        for (const Level& cut : levels_) segments.push_back({cut, true});
        std::sort(segments.begin(), segments.end(), [](const Segment& a, const Segment& b) { return a.line < b.line; });
        struct Side {
            std::int32_t x, from, to;
        };
        std::vector<Side> sides;
        for (const Edge& edge : edges_)
            if (!edge.level())
                sides.push_back({edge.from.x, std::min(edge.from.y, edge.to.y), std::max(edge.from.y, edge.to.y)});
        for (const Level& chord : uprights) sides.push_back({chord.at, chord.from, chord.to});
        std::vector<std::size_t> by_start(sides.size()), by_end(sides.size());
        for (std::size_t i = 0; i < sides.size(); ++i) by_start[i] = by_end[i] = i;
        std::sort(by_start.begin(), by_start.end(), [&](auto a, auto b) { return sides[a].from < sides[b].from; });
        std::sort(by_end.begin(), by_end.end(), [&](auto a, auto b) { return sides[a].to < sides[b].to; });
        std::size_t started = 0, ended = 0;
        std::multiset<std::int32_t> walls;                                    // that go on below
        std::map<std::int32_t, std::pair<std::int32_t, std::int32_t>> open;   // left x: right x, top y
        for (std::size_t i = 0; i < segments.size();) {
            const std::int32_t y = segments[i].line.at;
            for (; started < by_start.size() && sides[by_start[started]].from <= y; ++started)
                walls.insert(sides[by_start[started]].x);
            for (; ended < by_end.size() && sides[by_end[ended]].to <= y; ++ended)
                walls.erase(walls.find(sides[by_end[ended]].x));
            std::size_t j = i;
            for (; j < segments.size() && segments[j].line.at == y; ++j)
                for (auto box = open.lower_bound(segments[j].line.from);
                     box != open.end() && box->first < segments[j].line.to;) {
                    boxes.push_back({{box->first, box->second.second}, {box->second.first, y}});
                    box = open.erase(box);
                }
            while (i < j) {   // runs of ground that opens
                if (!segments[i].opens) {
                    ++i;
                    continue;
                }
                std::int32_t left = segments[i].line.from, right = segments[i].line.to;
                for (++i; i < j && segments[i].opens && segments[i].line.from <= right; ++i)
                    right = std::max(right, segments[i].line.to);
                for (auto wall = walls.upper_bound(left); left < right; wall = walls.upper_bound(left)) {
                    const std::int32_t end = wall == walls.end() ? right : std::min(right, *wall);
                    open[left] = {end, y};
                    left = end;
                }
            }
        }
    }

    std::vector<Edge> edges_;
    std::vector<Corner> corners_;
    std::vector<Level> levels_;   // drawn chords and cuts
};

bool slants(const Ring& ring) {
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point a = ring[i], b = ring[(i + 1) % ring.size()];
        if (a.x != b.x && a.y != b.y) return true;
    }
    return false;
}

void add_boxes_around_slants(const Ring& ring, Regions& into) {
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point a = ring[i], b = ring[(i + 1) % ring.size()];
        if (a.x != b.x && a.y != b.y)
            into.push_back(
                box_region({std::min(a.x, b.x), std::min(a.y, b.y)}, {std::max(a.x, b.x), std::max(a.y, b.y)}));
    }
}

// Returns boxes for what lies outside the boxes around slanted edges. If such an edge crosses one of those off the
// lattice, rounding may push a box out of the region: such boxes are left out, so that the subtraction is exact.
std::vector<Bounds> boxes_beside(const Region& region, const Regions& around) {
    std::vector<Bounds> boxes;
    for (const Region& part : detail::subtract_proper({&region, 1}, around)) {
        bool right_angled = !slants(part.outline);
        for (const Ring& hole : part.holes) right_angled = right_angled && !slants(hole);
        if (right_angled) Partition(part).run(boxes);
    }
    Regions all;
    for (const Bounds& box : boxes) all.push_back(box_region(box.least, box.most));
    for (const Region& outside : detail::subtract_proper(all, {&region, 1})) {
        const Bounds out = *bounds({&outside, 1});
        std::erase_if(boxes, [&](const Bounds& box) {
            return box.least.x < out.most.x && out.least.x < box.most.x && box.least.y < out.most.y &&
                   out.least.y < box.most.y;
        });
    }
    return boxes;
}

}   // namespace

Boxes least_boxes(std::span<const Region> regions, int most_vertices) {
    Boxes result;
    for (const Region& region : regions) {
        Regions around;
        add_boxes_around_slants(region.outline, around);
        for (const Ring& hole : region.holes) add_boxes_around_slants(hole, around);
        if (around.empty()) {
            Partition(region).run(result.boxes);
            continue;
        }
        std::vector<Bounds> boxes = boxes_beside(region, around);
        Regions taken;
        for (const Bounds& box : boxes) taken.push_back(box_region(box.least, box.most));
        for (Ring& piece : convex_pieces(detail::subtract_proper({&region, 1}, taken), most_vertices))
            result.rests.push_back(std::move(piece));
        result.boxes.insert(result.boxes.end(), boxes.begin(), boxes.end());
    }
    std::sort(result.boxes.begin(), result.boxes.end(), [](const Bounds& a, const Bounds& b) {
        return a.least != b.least ? a.least < b.least : a.most < b.most;
    });
    std::sort(result.rests.begin(), result.rests.end());
    return result;
}

}   // namespace dryground

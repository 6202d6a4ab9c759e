// Cutting edges at each other, exactly where that can be and by snap rounding where it cannot.
//
// Idea. All pairs of edges that share a bin of a uniform grid are tested with exact predicates. A crossing on the
// lattice, and an end point on another edge, become exact nodes of the edges. A crossing off the lattice is rounded to
// the nearest lattice point; the unit square around it is a hot pixel in the sense of Hobby, "Practical segment
// intersection with finite precision output", Computational Geometry 13 (1999), section 3: every edge that passes
// through it goes through its centre afterwards.
//
// What we changed. In Hobby's paper all end points and crossings are hot, which bends an edge wherever it passes near
// some vertex without touching it. Here a pixel is hot only when it has to be: a pixel of a rounded crossing, and then
// every pixel of an end point or crossing that a bent edge passes off its centre. Edges that pass through a hot pixel
// off its centre are bent, and so on until nothing changes. An edge that no rounding reaches stays as it was drawn,
// so that input whose crossings lie on the lattice gives the exact result.
//
// Guarantee. Edges of the result meet only in common end points. Suppose a bent edge s and an unbent edge u crossed
// after snapping. They did not cross before (else both have a node there), so u would have to enter the sliver
// between s and its snapped course, which has no width at an unbent pixel: through a hot pixel of s (then u is bent
// too), or by ending inside (then u's end is a pixel that s passes off its centre, which makes it hot). Two bent
// edges are Hobby's case.
//
// Cost: O(n + pairs in bins + k log k) for k nodes. Memory: in proportion to n, the bins (about n) and k.
// Not done: a Bentley-Ottmann sweep. On maps and drawings the bins find the same crossings with far less work.

#include <algorithm>
#include <cmath>
#include <limits>

#include "arrangement_internal.hpp"
#include "bins_internal.hpp"
#include "ring_internal.hpp"
#include "widths_internal.hpp"

namespace dryground::detail {

namespace {

struct Node {   // a point that an edge goes through, or is rounded to go through
    std::size_t line = 0;
    Point at;
    bool rounded = false;
};

// ---- crossings --------------------------------------------------------------------------------------------------

bool within_box(const Line& line, Point p) {
    return p.y >= line.a.y && p.y <= line.b.y && p.x >= std::min(line.a.x, line.b.x) &&
           p.x <= std::max(line.a.x, line.b.x);
}

bool boxes_apart(const Line& s, const Line& t) {
    return s.b.y < t.a.y || t.b.y < s.a.y || std::max(s.a.x, s.b.x) < std::min(t.a.x, t.b.x) ||
           std::max(t.a.x, t.b.x) < std::min(s.a.x, s.b.x);
}

// Returns where a crossing is, exactly or rounded. The crossing is s.a + (s.b - s.a) * along / whole: a cross product,
// and the difference of two.
Node crossing(const Line& s, std::size_t si, std::int64_t along, std::int64_t whole) {
    static_assert(bits_of_cross + 1 + bits_of_difference + 2 <= bits_of_wide);   // twice, and twice the denominator
    Wide numerator = along, denominator = whole;
    if (denominator < 0) {
        numerator = -numerator;
        denominator = -denominator;
    }
    const Wide x = numerator * (s.b.x - s.a.x), y = numerator * (s.b.y - s.a.y);
    const bool exact = x % denominator == 0 && y % denominator == 0;
    const auto steps = [&](Wide value) { return static_cast<std::int32_t>(rounded(value, denominator)); };
    return {si, {s.a.x + steps(x), s.a.y + steps(y)}, !exact};
}

// Tests two lines that share a bin. Lines that run side by side share many bins: each node is taken only in its own
// bin.
void meet(std::span<const Line> lines, const Bins& bins, std::size_t bin, std::size_t si, std::size_t ti,
          std::vector<Node>& nodes) {
    const Line &s = lines[si], &t = lines[ti];
    if (boxes_apart(s, t)) return;
    const std::int64_t ta = cross(s.a, s.b, t.a), tb = cross(s.a, s.b, t.b);
    if ((ta > 0 && tb > 0) || (ta < 0 && tb < 0)) return;
    const std::int64_t sa = cross(t.a, t.b, s.a), sb = cross(t.a, t.b, s.b);
    if ((sa > 0 && sb > 0) || (sa < 0 && sb < 0)) return;
    if (ta != 0 && tb != 0 && sa != 0 && sb != 0) {
        const Node node = crossing(s, si, sa, sa - sb);
        if (bins.bin_of(node.at) != bin) return;
        nodes.push_back(node);
        nodes.push_back({ti, node.at, node.rounded});
        return;
    }
    const auto touch = [&](std::int64_t side, const Line& line, std::size_t index, Point end) {
        if (side == 0 && end != line.a && end != line.b && within_box(line, end) && bins.bin_of(end) == bin)
            nodes.push_back({index, end, false});
    };
    touch(ta, s, si, t.a);
    touch(tb, s, si, t.b);
    touch(sa, t, ti, s.a);
    touch(sb, t, ti, s.b);
}

// Tests all lines of a bin. Requires lines sorted by where they begin: a line does not meet those that begin below its
// end, nor any after them.
void meet_in(std::span<const Line> lines, const Bins& bins, std::size_t bin, std::vector<Node>& nodes) {
    const std::span<const std::size_t> in_bin = bins.lines_in(bin);
    for (std::size_t i = 0; i < in_bin.size(); ++i) {
        const std::int32_t bottom = lines[in_bin[i]].b.y;
        for (std::size_t j = i + 1; j < in_bin.size() && lines[in_bin[j]].a.y <= bottom; ++j)
            meet(lines, bins, bin, in_bin[i], in_bin[j], nodes);
    }
}

// ---- hot pixels -------------------------------------------------------------------------------------------------

struct Limit {   // a bound on the way along a line, as a fraction
    std::int64_t numerator, denominator;
    bool closed;
};

// Returns whether a line passes through the unit square around a point; the square includes its least sides, not its
// greatest. Numbers are doubled so that the sides of the square are whole. The numbers of a square near the line's box
// are hardly larger than those of the line.
bool passes(const Line& line, Point centre) {
    constexpr std::int64_t longest = std::int64_t{2} << bits_of_difference;
    static_assert(longest + 4 <= std::numeric_limits<std::int64_t>::max() / longest);
    Limit low{0, 1, true}, high{1, 1, true};
    const auto axis = [&](std::int64_t a, std::int64_t b, std::int64_t c) {
        const std::int64_t start = 2 * a, way = 2 * (b - a), least = 2 * c - 1, most = 2 * c + 1;
        if (way == 0) return start >= least && start < most;
        const std::int64_t size = way > 0 ? way : -way;
        const Limit enter = way > 0 ? Limit{least - start, size, true} : Limit{start - most, size, false};
        const Limit leave = way > 0 ? Limit{most - start, size, false} : Limit{start - least, size, true};
        const auto compare = [](const Limit& p, const Limit& q) {
            return p.numerator * q.denominator <=> q.numerator * p.denominator;
        };
        if (const auto order = compare(enter, low); order > 0 || (order == 0 && !enter.closed)) low = enter;
        if (const auto order = compare(leave, high); order < 0 || (order == 0 && !leave.closed)) high = leave;
        return true;
    };
    // Rules out distant squares by their boxes, which also keeps the products above within their width.
    if (centre.y < line.a.y - 1 || centre.y > line.b.y + 1 || centre.x < std::min(line.a.x, line.b.x) - 1 ||
        centre.x > std::max(line.a.x, line.b.x) + 1)
        return false;
    if (!axis(line.a.x, line.b.x, centre.x) || !axis(line.a.y, line.b.y, centre.y)) return false;
    const std::int64_t left = low.numerator * high.denominator, right = high.numerator * low.denominator;
    return left < right || (left == right && low.closed && high.closed);
}

struct Hit {   // a line passes through a pixel
    std::size_t line, pixel;
    bool centre;
};

std::vector<Point> pixels_of(std::span<const Line> lines, std::span<const Node> nodes) {
    std::vector<Point> pixels;
    pixels.reserve(2 * lines.size() + nodes.size());
    for (const Line& line : lines) pixels.insert(pixels.end(), {line.a, line.b});
    for (const Node& node : nodes) pixels.push_back(node.at);
    std::sort(pixels.begin(), pixels.end());
    pixels.erase(std::unique(pixels.begin(), pixels.end()), pixels.end());
    return pixels;
}

std::vector<Hit> hits_of(std::span<const Line> lines, const Bins& bins, std::span<const Point> pixels) {
    std::vector<Hit> hits;
    for (std::size_t p = 0; p < pixels.size(); ++p)
        for (const std::size_t l : bins.lines_in(bins.bin_of(pixels[p]))) {
            const Line& line = lines[l];
            if (line.a.y - 1 > pixels[p].y) break;   // and all after it
            if (pixels[p] == line.a || pixels[p] == line.b || !passes(line, pixels[p])) continue;
            hits.push_back({l, p, turn(line.a, line.b, pixels[p]) == Turn::straight});
        }
    return hits;
}

// Adds the nodes that snapping requires: see the head of this file.
void snap(std::span<const Line> lines, const Bins& bins, std::vector<Node>& nodes) {
    const std::vector<Point> pixels = pixels_of(lines, nodes);
    const std::vector<Hit> hits = hits_of(lines, bins, pixels);

    std::vector<std::vector<std::size_t>> by_line(lines.size()), by_pixel(pixels.size());
    for (std::size_t h = 0; h < hits.size(); ++h) {
        by_line[hits[h].line].push_back(h);
        by_pixel[hits[h].pixel].push_back(h);
    }
    std::vector<char> hot(pixels.size(), 0), bent(lines.size(), 0);
    std::vector<std::size_t> waiting;
    const auto heat = [&](std::size_t pixel) {
        if (hot[pixel]) return;
        hot[pixel] = 1;
        waiting.push_back(pixel);
    };
    for (const Node& node : nodes)
        if (node.rounded)
            heat(static_cast<std::size_t>(std::lower_bound(pixels.begin(), pixels.end(), node.at) - pixels.begin()));
    while (!waiting.empty()) {
        const std::size_t pixel = waiting.back();
        waiting.pop_back();
        for (const std::size_t h : by_pixel[pixel]) {
            nodes.push_back({hits[h].line, pixels[pixel], !hits[h].centre});
            if (hits[h].centre || bent[hits[h].line]) continue;
            bent[hits[h].line] = 1;
            for (const std::size_t other : by_line[hits[h].line])
                if (!hits[other].centre) heat(hits[other].pixel);
        }
    }
}

// ---- putting it together ----------------------------------------------------------------------------------------

void emit(std::vector<Edge>& out, Point from, Point to, const Edge& source) {
    if (from == to) return;
    if (from < to)
        out.push_back({from, to, source.operand, source.delta});
    else
        out.push_back({to, from, source.operand, -source.delta});
}

bool same_line(const Edge& e, const Edge& f) { return e.a == f.a && e.b == f.b; }

}   // namespace

void add_ring(std::vector<Edge>& edges, std::span<const Point> ring, int operand, bool hole) {
    add_way(edges, ring, operand, (twice_area(ring) < 0) != hole);
}

void add_way(std::vector<Edge>& edges, std::span<const Point> ring, int operand, bool turned) {
    each_edge_of_ring(ring, [&](Point from, Point to) {
        if (from == to) return;
        // The inside lies on the left; walking down the sweep, left is before: the winding falls by one after it.
        const int delta = (from < to) != turned ? -1 : 1;
        edges.push_back({std::min(from, to), std::max(from, to), operand, delta});
    });
}

void add_regions(std::vector<Edge>& edges, std::span<const Region> regions, int operand) {
    for (const Region& region : regions) {
        add_ring(edges, region.outline, operand, false);
        for (const Ring& hole : region.holes) add_ring(edges, hole, operand, true);
    }
}

void normalise(std::vector<Edge>& edges) {
    std::sort(edges.begin(), edges.end(), [](const Edge& e, const Edge& f) {
        if (e.a != f.a) return e.a < f.a;
        if (e.b != f.b) {
            const Turn t = turn(e.a, e.b, f.b);
            return t == Turn::straight ? e.b < f.b : t == Turn::right;
        }
        return e.operand < f.operand;
    });
    std::size_t kept = 0;
    for (std::size_t i = 0; i < edges.size();) {
        Edge sum = edges[i];
        for (++i; i < edges.size() && same_line(edges[i], sum) && edges[i].operand == sum.operand; ++i)
            sum.delta += edges[i].delta;
        if (sum.delta != 0) edges[kept++] = sum;
    }
    edges.resize(kept);
}

bool meets_itself(const Region& region) {
    std::vector<Line> lines;
    std::vector<Point> points;
    each_edge({&region, 1}, [&](Point a, Point b) {
        points.push_back(a);
        lines.push_back({std::min(a, b), std::max(a, b)});
    });
    std::sort(points.begin(), points.end());
    if (std::adjacent_find(points.begin(), points.end()) != points.end()) return true;
    if (lines.empty()) return false;
    std::sort(lines.begin(), lines.end(), [](const Line& s, const Line& t) { return s.a < t.a; });
    const Bins bins(lines);
    std::vector<Node> nodes;
    for (std::size_t bin = 0; bin < bins.count() && nodes.empty(); ++bin) meet_in(lines, bins, bin, nodes);
    return !nodes.empty();
}

std::vector<Edge> arrange(std::vector<Edge> edges) {
    normalise(edges);   // edges between equal neighbours go here, before any pair is looked at
    if (edges.empty()) return edges;

    std::vector<Line> lines;
    std::vector<std::size_t> first;   // the first edge of each line
    for (std::size_t i = 0; i < edges.size(); ++i)
        if (i == 0 || !same_line(edges[i], edges[i - 1])) {
            lines.push_back({edges[i].a, edges[i].b});
            first.push_back(i);
        }
    first.push_back(edges.size());

    const Bins bins(lines);
    std::vector<Node> nodes;
    for (std::size_t bin = 0; bin < bins.count(); ++bin) meet_in(lines, bins, bin, nodes);
    if (nodes.empty()) return edges;
    if (std::any_of(nodes.begin(), nodes.end(), [](const Node& node) { return node.rounded; }))
        snap(lines, bins, nodes);

    // Along its way a line only ever goes down, and only ever to one side; so do the centres of its pixels.
    std::sort(nodes.begin(), nodes.end(), [&](const Node& p, const Node& q) {
        if (p.line != q.line) return p.line < q.line;
        if (p.at.y != q.at.y) return p.at.y < q.at.y;
        return lines[p.line].a.x <= lines[p.line].b.x ? p.at.x < q.at.x : p.at.x > q.at.x;
    });
    std::vector<Edge> result;
    result.reserve(edges.size() + nodes.size());
    for (std::size_t l = 0, n = 0; l < lines.size(); ++l) {
        Point from = lines[l].a;
        const auto step = [&](Point to) {
            for (std::size_t e = first[l]; e < first[l + 1]; ++e) emit(result, from, to, edges[e]);
            from = to;
        };
        for (; n < nodes.size() && nodes[n].line == l; ++n) step(nodes[n].at);
        step(lines[l].b);
    }
    normalise(result);
    return result;
}

}   // namespace dryground::detail

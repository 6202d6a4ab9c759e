// Growing where edges are much shorter than the distance.
//
// Idea. Hundreds of edges lie within the distance of each other there, and what most of them sweep lies under what a
// few sweep that stand further out. A point within reach is nearest to some edge or corner, so no other has to sweep
// over it: an edge is left out when all that it sweeps beyond a part of the distance is nearer to a vertex nearby, and
// so are parts of arcs. What lies within that part of the distance is covered by discs around some of the vertices.
// What is left is united by halves of halves, so that what lies under others is gone before much is cut.
// Guarantee: on the side that is swept, all within reach is covered, less what chords of arcs leave (`within`), and
// nothing beyond. Rounding moves both by some steps: pieces overlap by more than unions take away.
// Which edges crowd is decided by squares of the plane, not by all that there is.
// Cost: O(n log n) and the boolean's for what is left.

#include <algorithm>
#include <array>
#include <numbers>
#include <span>

#include "boolean_internal.hpp"
#include "bounds_internal.hpp"
#include "ring_internal.hpp"
#include "swept_internal.hpp"

namespace dryground::detail {

namespace {

constexpr double overlap = 8;   // steps
constexpr std::array<std::size_t, 14> beside{1,  2,  3,  4,  6,  8,  12,
                                             16, 24, 32, 48, 64, 96, 128};   // how far along the ring to look
// As parts of the distance. A point of an edge that is left out lies within `apart` + `longest` of a disc's middle; the
// disc has 12 corners, so that it covers 0.96: together all within 0.59 of that point.
constexpr double near_part = 0.55, apart = 0.25, longest = 0.125;
constexpr int corners_of_disc = 12;

// Returns whether all that a point sweeps in a direction (for the length of the distance), from the near part on, is
// nearer to q.
bool buried(Point p, Far direction, double by, Point q) {
    const double x = double{0} + q.x - p.x, y = double{0} + q.y - p.y;
    return (x * direction.x + y * direction.y) / by >= (x * x + y * y) / (2 * near_part * by) + overlap;
}

struct Arc {   // from an angle to another
    double start, end;
};

// Shrinks an arc around p to what is left after removing what is nearer to q at its ends.
void take_buried(Arc& arc, Point p, Far from, double by, Point q) {
    const Far way{double{0} + q.x - p.x, double{0} + q.y - p.y};
    const double length = std::hypot(way.x, way.y);
    const double cosine = length > 0 ? length / (2 * near_part * by) + overlap / length : 1;
    if (cosine >= 1) return;
    const double half = std::acos(cosine), towards = angle(from, way);
    for (const double middle : {towards, towards + 2 * std::numbers::pi}) {
        if (middle - half <= arc.start) arc.start = std::max(arc.start, middle + half);
        if (middle + half >= arc.end) arc.end = std::min(arc.end, middle - half);
    }
}

// Splits them across the longer side of the box around their middles.
Regions united_by_halves(std::span<Region> pieces) {
    constexpr std::size_t few = 16;
    if (pieces.size() <= few) return unite_proper(pieces);
    const auto middle = [](const Region& piece) {
        const Bounds box = box_around(piece.outline);
        return Point{box.least.x / 2 + box.most.x / 2, box.least.y / 2 + box.most.y / 2};
    };
    std::vector<Point> middles;
    for (const Region& piece : pieces) middles.push_back(middle(piece));
    const Bounds box = box_around(middles);
    const bool across = double{0} + box.most.x - box.least.x > double{0} + box.most.y - box.least.y;
    const std::size_t half = pieces.size() / 2;
    std::nth_element(pieces.begin(), pieces.begin() + static_cast<std::ptrdiff_t>(half), pieces.end(),
                     [&](const Region& a, const Region& b) {
                         const Point p = middle(a), q = middle(b);
                         if (p != q) return across ? std::pair(p.x, p.y) < std::pair(q.x, q.y) : p < q;
                         return a.outline < b.outline;
                     });
    Regions both = united_by_halves(pieces.first(half));
    for (Region& region : united_by_halves(pieces.subspan(half))) both.push_back(std::move(region));
    return unite_proper(both);
}

}   // namespace

Crowds::Crowds(std::span<const Region> regions, double by, double within) : by_(by), within_(within) {
    constexpr std::size_t crowd = 40;
    std::map<Square, std::size_t> counts;
    detail::each_vertex(regions, [&](Point p) { ++counts[square_of(p)]; });
    for (const auto& [square, count] : counts)
        if (count >= crowd) squares_[square];
}

void Crowds::add_edge(const Way& way, std::size_t i) {
    const Point a = way[i], b = way[i + 1];
    const auto length = [](Point p, Point q) { return std::hypot(double{0} + q.x - p.x, double{0} + q.y - p.y); };
    if (!covered_ || length(*covered_, a) > apart * by_) {
        covered_ = a;
        std::vector<Far> disc;
        add_arc(disc, a, {by_, 0}, 0, 2 * std::numbers::pi, 2 * std::numbers::pi / corners_of_disc);
        add(a, std::move(disc));
    }
    const Far ab = offset(a, b, by_);
    if (length(a, b) <= longest * by_)
        for (const std::size_t steps : beside)
            for (const Point q : {way[i + 1 + steps], way[i + way.size() * steps - steps]})
                if (buried(a, ab, by_, q) && buried(b, ab, by_, q)) return;
    const double back = overlap / by_;
    const Far along{-ab.y * back, ab.x * back}, behind{-ab.x * back, -ab.y * back};
    add(a, {at(a, {behind.x - along.x, behind.y - along.y}), at(a, {ab.x - along.x, ab.y - along.y}),
            at(b, {ab.x + along.x, ab.y + along.y}), at(b, {behind.x + along.x, behind.y + along.y})});
}

void Crowds::add_corner(const Way& way, std::size_t i, Far from, Far to) {
    const Point p = way[i];
    Arc arc{0, angle(from, to)};
    for (const std::size_t steps : beside)
        for (const Point q : {way[i + steps], way[i + way.size() * steps - steps]}) {
            take_buried(arc, p, from, by_, q);
            if (arc.start >= arc.end) return;
        }
    const auto turned = [&](double by, double part) {
        const double c = std::cos(part) * by / by_, s = std::sin(part) * by / by_;
        return at(p, {from.x * c - from.y * s, from.x * s + from.y * c});
    };
    std::vector<Far> ring{turned(-overlap, (arc.start + arc.end) / 2), turned(by_, arc.start)};
    add_arc(ring, p, from, arc.start, arc.end, widest_chord(by_, within_));
    add(p, std::move(ring));
}

void Crowds::add(Point p, std::vector<Far> points) {
    if (std::optional<Ring> ring = ring_within_range(std::move(points)))
        squares_[square_of(p)].push_back({*std::move(ring), {}});
}

Regions Crowds::united() && {
    Regions all;
    for (auto& [square, pieces] : squares_)
        for (Region& region : united_by_halves(pieces)) all.push_back(std::move(region));
    return all;
}

}   // namespace dryground::detail

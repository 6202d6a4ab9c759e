// Inside the geometry room: pieces of the plane that edges and corners sweep when a region is grown.
#pragma once

#include <cmath>
#include <cstddef>
#include <map>
#include <optional>
#include <utility>
#include <vector>

#include "dryground/geometry.hpp"

namespace dryground::detail {

struct Far {   // steps, which may lie out of range
    double x, y;
};
[[nodiscard]] inline Far at(Point p, Far by) { return {std::round(p.x + by.x), std::round(p.y + by.y)}; }

// How a segment from a to b is moved to its right by a distance.
[[nodiscard]] inline Far offset(Point a, Point b, double by) {
    const double dx = double{0} + b.x - a.x, dy = double{0} + b.y - a.y, length = std::hypot(dx, dy);
    return {by * dy / length, -by * dx / length};
}
[[nodiscard]] inline double angle(Far from, Far to) {   // from -pi to pi
    return std::atan2(from.x * to.y - from.y * to.x, from.x * to.x + from.y * to.y);
}
// Returns the widest chord of a circle, as an angle, that stays within so many steps of it; at most a third of the
// circle.
[[nodiscard]] double widest_chord(double radius, double within);
// Adds points of an arc with equal chords, without its start: around a point, from a direction on, between two
// angles.
void add_arc(std::vector<Far>& ring, Point middle, Far from, double start, double end, double widest);

// Returns a convex piece, cut at the sides of the range; nothing if rounding made it flat or turned it over.
[[nodiscard]] std::optional<Ring> ring_within_range(std::vector<Far> points);
[[nodiscard]] double furthest(const std::vector<Far>& points);   // the greatest absolute coordinate

// The path around a ring, with what is swept on its right.
struct Way {
    const Ring& ring;
    bool turned;
    [[nodiscard]] std::size_t size() const { return ring.size(); }
    [[nodiscard]] Point operator[](std::size_t i) const {
        const std::size_t n = ring.size();
        return turned ? ring[n - 1 - i % n] : ring[i % n];
    }
};

// Sweeps the far part of what edges and corners sweep, round, where they crowd within the distance: most of it lies
// under that of others. See crowds.cpp.
class Crowds {
public:
    // Requires a distance of a px or more.
    Crowds(std::span<const Region> regions, double by, double within);

    [[nodiscard]] bool hold(Point p) const { return !squares_.empty() && squares_.contains(square_of(p)); }
    // Adds the edge from way[i] on. Requires that its start is held.
    void add_edge(const Way& way, std::size_t i);
    // Adds the corner way[i], where two offsets separate. Requires that it is held.
    void add_corner(const Way& way, std::size_t i, Far from, Far to);

    // Returns all pieces of each crowd united. They reach no further than the distance, but to both sides of the
    // boundary.
    [[nodiscard]] Regions united() &&;

private:
    using Square = std::pair<double, double>;
    [[nodiscard]] Square square_of(Point p) const { return {std::floor(p.x / (2 * by_)), std::floor(p.y / (2 * by_))}; }
    void add(Point p, std::vector<Far> points);

    double by_, within_;
    std::map<Square, Regions> squares_;   // pieces by where they start
    std::optional<Point> covered_;        // the middle of the last disc
};

}   // namespace dryground::detail

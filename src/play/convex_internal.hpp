// Inside the play room: convex shapes asked in doubles, which hold steps exactly; nothing here allocates.
#pragma once

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <span>

#include "dryground/geometry.hpp"

namespace dryground::play {

struct Vec {
    double x = 0, y = 0;
};
inline Vec operator+(Vec a, Vec b) { return {a.x + b.x, a.y + b.y}; }
inline Vec operator-(Vec a, Vec b) { return {a.x - b.x, a.y - b.y}; }
inline Vec operator*(Vec a, double k) { return {a.x * k, a.y * k}; }
inline double dot(Vec a, Vec b) { return a.x * b.x + a.y * b.y; }
inline Vec vec(Point p) { return {static_cast<double>(p.x), static_cast<double>(p.y)}; }

// The least box of lattice points around a box in steps; what is out of range comes to its end.
inline Bounds whole_box(Vec least, Vec most) {
    return {{step_at(least.x / steps_per_px), step_at(least.y / steps_per_px)},
            {-step_at(-most.x / steps_per_px), -step_at(-most.y / steps_per_px)}};
}

struct Span {   // from, to; empty when from > to
    double from = 0, to = -1;
    [[nodiscard]] bool empty() const { return from > to; }
    [[nodiscard]] double length() const { return to - from; }
};

// The part of start + t * way, t in [0, 1], that lies in a convex ring (inside on the left, moved by `at`). `strict`:
// not what only runs along an edge.
inline Span inside(std::span<const Point> ring, Vec at, Vec start, Vec way, bool strict) {
    Span span{0, 1};
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Vec a = vec(ring[i]) + at, b = vec(ring[i + 1 == ring.size() ? 0 : i + 1]) + at;
        const Vec in{-(b.y - a.y), b.x - a.x};   // toward the inside
        const double near = dot(in, start - a), rate = dot(in, way);
        if (rate == 0) {
            if (near < 0 || (strict && near == 0)) return {};
            continue;
        }
        const double t = -near / rate;
        if (rate > 0)
            span.from = std::max(span.from, t);
        else
            span.to = std::min(span.to, t);
    }
    return span;
}

// How long a convex ring or a segment is along x or y, inside of a box (steps).
inline Span clipped(std::span<const Point> ring, Vec at, Vec least, Vec most, bool along_x) {
    Span all{std::numeric_limits<double>::max(), std::numeric_limits<double>::lowest()};
    const auto take = [&](Vec p) {
        const double value = along_x ? p.x : p.y;
        all = {std::min(all.from, value), std::max(all.to, value)};
    };
    // Of the edges what lies in the box, and the box's corners that lie in the ring.
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Vec a = vec(ring[i]) + at, b = vec(ring[i + 1 == ring.size() ? 0 : i + 1]) + at, way = b - a;
        double from = 0, to = 1;
        const auto keep = [&](double start, double rate, double low, double high) {
            if (rate == 0) {
                if (start < low || start > high) to = -1;
                return;
            }
            const double s = (low - start) / rate, t = (high - start) / rate;
            from = std::max(from, std::min(s, t)), to = std::min(to, std::max(s, t));
        };
        keep(a.x, way.x, least.x, most.x);
        keep(a.y, way.y, least.y, most.y);
        if (from > to) continue;
        take(a + way * from);
        take(a + way * to);
    }
    if (ring.size() < 3) return all;
    for (const Vec corner : {least, Vec{most.x, least.y}, most, Vec{least.x, most.y}})
        if (!inside(ring, at, corner, {0, 0}, false).empty()) take(corner);
    return all;
}

// The nearest point of a convex ring or a segment.
inline Vec nearest(std::span<const Point> ring, Vec at, Vec p) {
    if (ring.size() > 2 && !inside(ring, at, p, {0, 0}, false).empty()) return p;
    Vec best;
    double best_square = std::numeric_limits<double>::max();
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Vec a = vec(ring[i]) + at, way = vec(ring[i + 1 == ring.size() ? 0 : i + 1]) + at - a;
        const double square = dot(way, way), t = square == 0 ? 0 : std::clamp(dot(p - a, way) / square, 0.0, 1.0);
        const Vec q = a + way * t, off = p - q;
        if (dot(off, off) < best_square) best_square = dot(off, off), best = q;
    }
    return best;
}

// When a straight way gets from one side of a segment to the other; 2 when it does not, and where it starts or ends on
// its line.
inline double crossing_at(Vec start, Vec way, std::span<const Point> segment, Vec at) {
    const Vec a = vec(segment[0]) + at, along = vec(segment[1]) + at - a;
    const auto side = [&](Vec p) { return along.x * (p.y - a.y) - along.y * (p.x - a.x); };
    const auto side_of_way = [&](Vec p) { return way.x * (p.y - start.y) - way.y * (p.x - start.x); };
    const double from = side(start), to = side(start + way);
    return from * to < 0 && side_of_way(a) * side_of_way(a + along) <= 0 ? from / (from - to) : 2;
}

// How far an edge faces a direction.
struct Faces {
    Vec direction;
    double by = 0;
};
// When a convex body that moves by `way` first overlaps a convex ring or segment: the part of the way that is free.
// Touching is no overlap. 2 when it never does. Separating axes, each with the times at which shadows overlap. `faces`,
// if there is one, is set for the edge over which it gets in; at a corner for the one that faces the direction more.
inline double first_overlap(std::span<const Point> body, Vec body_at, Vec way, std::span<const Point> ring, Vec at,
                            Faces* faces = nullptr) {
    Span overlap{-std::numeric_limits<double>::max(), std::numeric_limits<double>::max()};
    const auto test = [&](std::span<const Point> edges) {
        for (std::size_t i = 0; i < edges.size(); ++i) {
            const Point a = edges[i], b = edges[i + 1 == edges.size() ? 0 : i + 1];
            const Vec axis{-(static_cast<double>(b.y) - a.y), static_cast<double>(b.x) - a.x};
            const auto shadow = [&](std::span<const Point> points, Vec by) {
                Span s{std::numeric_limits<double>::max(), std::numeric_limits<double>::lowest()};
                for (const Point p : points) {
                    const double d = dot(axis, vec(p) + by);
                    s = {std::min(s.from, d), std::max(s.to, d)};
                }
                return s;
            };
            const Span own = shadow(body, body_at), other = shadow(ring, at);
            const double rate = dot(axis, way);
            if (rate == 0) {
                if (own.to <= other.from || own.from >= other.to) return false;
                continue;
            }
            const double s = (other.from - own.to) / rate, t = (other.to - own.from) / rate;
            const double from = std::min(s, t), later = from - overlap.from;
            if (faces != nullptr && later > -1e-12) {
                const double by = dot(axis, faces->direction) * (rate > 0 ? -1 : 1);   // against the way
                faces->by = later > 1e-12 ? by : std::max(faces->by, by);
            }
            overlap = {std::max(overlap.from, from), std::min(overlap.to, std::max(s, t))};
            if (overlap.from >= overlap.to) return false;
        }
        return true;
    };
    if (!test(body) || !test(ring) || overlap.to <= 0 || overlap.from >= 1) return 2;
    return std::max(overlap.from, 0.0);
}

}   // namespace dryground::play

// Inside the geometry room: cuts small polygons into few convex pieces, by trying all possibilities.
#pragma once

#include <utility>
#include <vector>

#include "dryground/geometry.hpp"

namespace dryground::detail {

// Finds cuts of a polygon with few corners into few convex pieces. Polygons are lists of corners, by number.
class SmallCutter {
public:
    using Corners = std::vector<int>;
    using Cut = std::pair<int, int>;   // between two corners

    SmallCutter(std::vector<Point> points, int most) : points_(std::move(points)), most_(most) {}

    // Returns whether `count` pieces are enough; then the cuts between them are kept, in an order in which each splits
    // a piece.
    bool cut(const Corners& polygon, int count) {
        int inward = 0, first = -1;
        const auto n = static_cast<int>(polygon.size());
        for (int i = 0; i < n; ++i)
            if (corner(polygon, i) == Turn::right) {
                ++inward;
                if (first < 0) first = i;
            }
        if (inward == 0 && n <= most_) return true;
        if (count == 1 || inward == 0 || inward > 2 * (count - 1)) return false;   // a cut fixes two corners at most
        for (int step = 2; step < n - 1; ++step) {
            const int other = (first + step) % n;
            if (!in_cone(polygon, first, other) || !in_cone(polygon, other, first) || !visible(polygon, first, other))
                continue;
            Corners one, two;
            for (int i = first;; i = (i + 1) % n) {
                one.push_back(polygon[static_cast<std::size_t>(i)]);
                if (i == other) break;
            }
            for (int i = other;; i = (i + 1) % n) {
                two.push_back(polygon[static_cast<std::size_t>(i)]);
                if (i == first) break;
            }
            const std::size_t kept = cuts_.size();
            for (int part = 1; part < count; ++part) {
                cuts_.emplace_back(one.front(), one.back());
                if (cut(one, part) && cut(two, count - part)) return true;
                cuts_.resize(kept);
            }
        }
        return false;
    }

    [[nodiscard]] const std::vector<Cut>& cuts() const { return cuts_; }

private:
    [[nodiscard]] Point at(const Corners& polygon, int i) const {
        const auto n = static_cast<int>(polygon.size());
        return points_[static_cast<std::size_t>(polygon[static_cast<std::size_t>((i + n) % n)])];
    }
    [[nodiscard]] Turn corner(const Corners& polygon, int i) const {
        return turn(at(polygon, i - 1), at(polygon, i), at(polygon, i + 1));
    }
    // Returns whether the segment from one corner to another starts inside.
    [[nodiscard]] bool in_cone(const Corners& polygon, int i, int to) const {
        const Point before = at(polygon, i - 1), p = at(polygon, i), after = at(polygon, i + 1), q = at(polygon, to);
        const bool left_of_out = turn(p, after, q) == Turn::left, left_of_in = turn(before, p, q) == Turn::left;
        return corner(polygon, i) == Turn::right ? left_of_out || left_of_in : left_of_out && left_of_in;
    }
    [[nodiscard]] bool visible(const Corners& polygon, int i, int j) const {
        const Point a = at(polygon, i), b = at(polygon, j);
        for (int k = 0; k < static_cast<int>(polygon.size()); ++k) {
            const Point p = at(polygon, k), q = at(polygon, k + 1);
            if (p == a || p == b || q == a || q == b) {
                // an edge at an end of the way: only its other end can be in it
                const Point far = p == a || p == b ? q : p;
                if (far != a && far != b && turn(a, b, far) == Turn::straight && between(a, b, far)) return false;
                continue;
            }
            const Turn s = turn(a, b, p), t = turn(a, b, q);
            if ((s == Turn::straight && between(a, b, p)) || (t == Turn::straight && between(a, b, q))) return false;
            if (s != t && s != Turn::straight && t != Turn::straight && turn(p, q, a) != turn(p, q, b)) return false;
        }
        return true;
    }
    [[nodiscard]] static bool between(Point a, Point b, Point p) { return (a < p) != (b < p); }

    std::vector<Point> points_;
    int most_;
    std::vector<Cut> cuts_;
};

}   // namespace dryground::detail

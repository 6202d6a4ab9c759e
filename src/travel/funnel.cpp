// The shortest way inside an area.
//
// Idea. A* over the triangles of the area, then the string pulled taut through the sides that it crosses: Lee and
// Preparata, "Euclidean shortest paths in the presence of rectilinear barriers", Networks 14, 1984; Chazelle, "A
// theorem on polygon cutting with applications", FOCS 1982.

#include "funnel_internal.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <queue>
#include <utility>

namespace dryground::travel {

namespace {

using Corners = std::array<std::uint32_t, 3>;

double distance(Point a, Point b) { return std::hypot(static_cast<double>(b.x) - a.x, static_cast<double>(b.y) - a.y); }

class Triangles {
public:
    explicit Triangles(const Region& area) : mesh_(delaunay_triangles({&area, 1})) {
        std::map<std::pair<std::uint32_t, std::uint32_t>, int> sides;   // from a corner to the next: whose
        beside_.assign(mesh_.triangles.size(), {-1, -1, -1});
        for (std::size_t t = 0; t < mesh_.triangles.size(); ++t)
            for (std::size_t k = 0; k < 3; ++k) sides[side(t, k)] = static_cast<int>(t);
        for (std::size_t t = 0; t < mesh_.triangles.size(); ++t)
            for (std::size_t k = 0; k < 3; ++k) {
                const auto [a, b] = side(t, k);
                if (const auto other = sides.find({b, a}); other != sides.end()) beside_[t][k] = other->second;
            }
    }
    [[nodiscard]] int at(Point p) const {
        for (std::size_t t = 0; t < mesh_.triangles.size(); ++t) {
            const Corners& c = mesh_.triangles[t];
            if (cross(mesh_.points[c[0]], mesh_.points[c[1]], p) >= 0 &&
                cross(mesh_.points[c[1]], mesh_.points[c[2]], p) >= 0 &&
                cross(mesh_.points[c[2]], mesh_.points[c[0]], p) >= 0)
                return static_cast<int>(t);
        }
        return -1;
    }
    struct Gate {   // a side that is crossed, its ends to the left and right of the way
        Point left, right;
    };
    // Returns nothing if no triangles lead there.
    [[nodiscard]] std::vector<Gate> gates(int first, int last, Point from, Point to) const {
        const std::size_t count = mesh_.triangles.size();
        std::vector<double> far(count, 1e300);
        std::vector<int> came(count, -1);
        std::vector<Point> entered(count);
        using Open = std::pair<double, int>;
        std::priority_queue<Open, std::vector<Open>, std::greater<>> open;
        far[static_cast<std::size_t>(first)] = 0, entered[static_cast<std::size_t>(first)] = from;
        open.emplace(distance(from, to), first);
        while (!open.empty()) {
            const auto t = static_cast<std::size_t>(open.top().second);
            const double estimate = open.top().first;
            open.pop();
            if (static_cast<int>(t) == last) break;
            if (estimate > far[t] + distance(entered[t], to) + 1e-9) continue;
            for (std::size_t k = 0; k < 3; ++k) {
                if (beside_[t][k] < 0) continue;
                const auto next = static_cast<std::size_t>(beside_[t][k]);
                const auto [a, b] = side(t, k);
                const Point p = mesh_.points[a], q = mesh_.points[b];
                const Point by{p.x + (q.x - p.x) / 2, p.y + (q.y - p.y) / 2};
                const double length = far[t] + distance(entered[t], by);
                if (length >= far[next]) continue;
                far[next] = length, came[next] = static_cast<int>(t), entered[next] = by;
                open.emplace(length + distance(by, to), static_cast<int>(next));
            }
        }
        std::vector<Gate> gates;
        for (int t = last; t != first; t = came[static_cast<std::size_t>(t)]) {
            const int before = came[static_cast<std::size_t>(t)];
            if (before < 0) return {};
            for (std::size_t k = 0; k < 3; ++k)
                if (beside_[static_cast<std::size_t>(before)][k] == t) {
                    const auto [a, b] = side(static_cast<std::size_t>(before), k);
                    // The triangle lies left of its sides: leaving across one, its end is on the left.
                    gates.push_back({mesh_.points[b], mesh_.points[a]});
                }
        }
        std::reverse(gates.begin(), gates.end());
        return gates;
    }

private:
    [[nodiscard]] std::pair<std::uint32_t, std::uint32_t> side(std::size_t t, std::size_t k) const {
        return {mesh_.triangles[t][k], mesh_.triangles[t][(k + 1) % 3]};
    }
    Mesh mesh_;
    std::vector<std::array<int, 3>> beside_;   // by side; -1: the area's edge
};

// Points on the left of a way, by the numbers, are those with cross > 0.
Ring taut(Point from, Point to, std::vector<Triangles::Gate> gates) {
    gates.push_back({to, to});
    Ring way{from};
    Point apex = from, left = from, right = from;
    std::size_t left_at = 0, right_at = 0;
    for (std::size_t i = 0; i < gates.size(); ++i) {
        const auto [l, r] = gates[i];
        if (cross(apex, right, r) >= 0) {   // narrower from the right
            if (apex == right || cross(apex, left, r) < 0) {
                right = r, right_at = i;
            } else {   // over to the left: its corner is on the way
                way.push_back(left);
                apex = right = left, i = right_at = left_at;
                continue;
            }
        }
        if (cross(apex, left, l) <= 0) {
            if (apex == left || cross(apex, right, l) > 0) {
                left = l, left_at = i;
            } else {
                way.push_back(right);
                apex = left = right, i = left_at = right_at;
                continue;
            }
        }
    }
    way.push_back(to);
    way.erase(std::unique(way.begin(), way.end()), way.end());
    return way;
}

}   // namespace

Ring way_inside(const Region& area, Point from, Point to) {
    if (from == to) return {from};
    const Triangles triangles(area);
    const int first = triangles.at(from), last = triangles.at(to);
    if (first < 0 || last < 0) return {};
    if (first == last) return {from, to};
    const std::vector<Triangles::Gate> gates = triangles.gates(first, last, from, to);
    return gates.empty() ? Ring{} : taut(from, to, gates);
}

}   // namespace dryground::travel

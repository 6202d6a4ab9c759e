// Constrained Delaunay triangles by flipping.
//
// Idea. Any triangulation becomes Delaunay when edges that two triangles share are flipped as long as one's far corner
// lies inside the circle around the other (Lawson 1977). Edges of the regions are never flipped. Tests are exact.
// Guarantee: the same area, the same points. Cost: O(n log n) to start with, then one step for each flip: about n of
// them where triangles come from pieces, n^2 at worst.

#include <algorithm>
#include <unordered_map>

#include "dryground/geometry.hpp"
#include "ring_internal.hpp"
#include "widths_internal.hpp"

namespace dryground {

namespace {

using detail::Wide;

// Returns whether d lies inside the circle through a, b, c, which turn left.
bool inside_circle(Point a, Point b, Point c, Point d) {
    // squares of differences summed are as wide as a cross; three products of the two
    static_assert(2 * detail::bits_of_cross + 2 <= detail::bits_of_wide);
    struct Away {
        std::int64_t x, y;
        [[nodiscard]] std::int64_t squared() const { return x * x + y * y; }
    };
    const auto away = [d](Point p) { return Away{std::int64_t{p.x} - d.x, std::int64_t{p.y} - d.y}; };
    const auto crossed = [](Away p, Away q) { return p.x * q.y - p.y * q.x; };
    const Away pa = away(a), pb = away(b), pc = away(c);
    return Wide{pa.squared()} * crossed(pb, pc) + Wide{pb.squared()} * crossed(pc, pa) +
               Wide{pc.squared()} * crossed(pa, pb) >
           0;
}

class Flipper {
public:
    explicit Flipper(Mesh mesh) : mesh_(std::move(mesh)), across_(mesh_.triangles.size(), {-1, -1, -1}) {}

    Mesh run() {
        find_neighbours();
        for (std::int32_t t = 0; t < static_cast<std::int32_t>(across_.size()); ++t)
            for (int side = 0; side < 3; ++side) suspects_.emplace_back(t, side);
        while (!suspects_.empty()) {
            const auto [t, side] = suspects_.back();
            suspects_.pop_back();
            look_at(t, side);
        }
        return std::move(mesh_);
    }

private:
    using Triangle = std::array<std::uint32_t, 3>;

    // Side s of a triangle leads from its corner s to the next.
    void find_neighbours() {
        std::unordered_map<std::uint64_t, std::pair<std::int32_t, int>> open;
        open.reserve(2 * mesh_.triangles.size());
        for (std::size_t t = 0; t < mesh_.triangles.size(); ++t)
            for (int side = 0; side < 3; ++side) {
                const std::uint64_t from = corner(t, side), to = corner(t, side + 1);
                const auto other = open.find(to << 32 | from);
                if (other == open.end()) {
                    open.emplace(from << 32 | to, std::pair{static_cast<std::int32_t>(t), side});
                    continue;
                }
                const auto [u, other_side] = other->second;
                across(static_cast<std::int32_t>(t), side) = u;
                across(u, other_side) = static_cast<std::int32_t>(t);
                open.erase(other);
            }
    }

    [[nodiscard]] std::uint32_t corner(std::size_t t, int side) const {
        return mesh_.triangles[t][static_cast<std::size_t>(side) % 3];
    }
    [[nodiscard]] Point at(std::uint32_t corner) const { return mesh_.points[corner]; }
    std::int32_t& across(std::int32_t t, int side) {
        return across_[static_cast<std::size_t>(t)][static_cast<std::size_t>(side) % 3];
    }

    // Flips the side a b that the triangles t: a b c and u: b a d share, if d lies inside the circle of t: they become
    // c a d and d b c.
    void look_at(std::int32_t t, int side) {
        const std::int32_t u = across(t, side);
        if (u < 0) return;
        const auto tt = static_cast<std::size_t>(t), uu = static_cast<std::size_t>(u);
        const int other = side_of(u, corner(tt, side + 1), corner(tt, side));
        const std::uint32_t a = corner(tt, side), b = corner(tt, side + 1), c = corner(tt, side + 2),
                            d = corner(uu, other + 2);
        if (!inside_circle(at(a), at(b), at(c), at(d))) return;
        const std::int32_t beyond_bc = across(t, side + 1), beyond_ca = across(t, side + 2),
                           beyond_ad = across(u, other + 1), beyond_db = across(u, other + 2);
        mesh_.triangles[tt] = {c, a, d};
        mesh_.triangles[uu] = {d, b, c};
        across_[tt] = {beyond_ca, beyond_ad, u};
        across_[uu] = {beyond_db, beyond_bc, t};
        put_behind(beyond_ad, t, d, a);
        put_behind(beyond_bc, u, c, b);
        suspects_.insert(suspects_.end(), {{t, 0}, {t, 1}, {u, 0}, {u, 1}});
    }
    [[nodiscard]] int side_of(std::int32_t t, std::uint32_t from, std::uint32_t to) const {
        for (int side = 0; side < 2; ++side)
            if (corner(static_cast<std::size_t>(t), side) == from &&
                corner(static_cast<std::size_t>(t), side + 1) == to)
                return side;
        return 2;
    }
    // Replaces the neighbour of t behind its side from `from` to `to`.
    void put_behind(std::int32_t t, std::int32_t now, std::uint32_t from, std::uint32_t to) {
        if (t >= 0) across(t, side_of(t, from, to)) = now;
    }

    Mesh mesh_;
    std::vector<std::array<std::int32_t, 3>> across_;   // the neighbour behind each side; -1 at the regions' edges
    std::vector<std::pair<std::int32_t, int>> suspects_;
};

}   // namespace

Mesh delaunay_triangles(std::span<const Region> regions) {
    // Corners that touch in a single point stay apart: a place counts once for each region.
    Mesh mesh;
    for (const Region& region : regions) {
        const auto first = static_cast<std::ptrdiff_t>(mesh.points.size());
        detail::each_vertex({&region, 1}, [&](Point p) { mesh.points.push_back(p); });
        std::sort(mesh.points.begin() + first, mesh.points.end());
        mesh.points.erase(std::unique(mesh.points.begin() + first, mesh.points.end()), mesh.points.end());
        for (const Triangle& triangle : triangles({&region, 1})) {
            std::array<std::uint32_t, 3> corners{};
            for (std::size_t i = 0; i < 3; ++i)
                corners[i] = static_cast<std::uint32_t>(
                    std::lower_bound(mesh.points.begin() + first, mesh.points.end(), triangle[i]) -
                    mesh.points.begin());
            mesh.triangles.push_back(corners);
        }
    }
    mesh = Flipper(std::move(mesh)).run();
    for (auto& triangle : mesh.triangles)
        std::rotate(triangle.begin(), std::min_element(triangle.begin(), triangle.end()), triangle.end());
    std::sort(mesh.triangles.begin(), mesh.triangles.end());
    return mesh;
}

}   // namespace dryground

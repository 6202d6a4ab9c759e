// Convex pieces: triangulate, then fuse across diagonals while the result stays convex and small enough.
//
// Source: Hertel & Mehlhorn 1983 (see triangulate.cpp), section 4: a diagonal goes when the angles at both its ends
// stay convex without it. We look at long diagonals first, which leaves fewer slivers. Cost: O(n log n).

#include <algorithm>
#include <map>

#include "arrangement_internal.hpp"

namespace dryground {

namespace {

struct HalfEdge {   // from `at` to the next one's `at`, its piece on the left
    Point at;
    int next, previous;
    int twin = -1;
    bool gone = false;
};

class Fuser {
public:
    Fuser(std::span<const Ring> triangles, int most_vertices) : most_(most_vertices) {
        for (const Ring& triangle : triangles) {
            const int base = static_cast<int>(halves_.size());
            for (int i = 0; i < 3; ++i)
                halves_.push_back({triangle[static_cast<std::size_t>(i)], base + (i + 1) % 3, base + (i + 2) % 3});
            owner_.push_back(static_cast<int>(owner_.size()));
            corners_.push_back(3);
        }
        find_twins();
    }

    void fuse() {
        std::vector<int> diagonals;
        for (int h = 0; h < static_cast<int>(halves_.size()); ++h)
            if (half(h).twin > h) diagonals.push_back(h);
        const auto length = [&](int h) {
            const Point a = half(h).at, b = half(half(h).next).at;
            const std::int64_t dx = std::int64_t{a.x} - b.x, dy = std::int64_t{a.y} - b.y;   // squares: 2^60 each
            return dx * dx + dy * dy;
        };
        std::stable_sort(diagonals.begin(), diagonals.end(), [&](int g, int h) { return length(g) > length(h); });
        for (const int h : diagonals) try_without(h);
    }

    [[nodiscard]] std::vector<Ring> pieces() const {
        std::vector<Ring> result;
        std::vector<char> seen(halves_.size(), 0);
        for (std::size_t start = 0; start < halves_.size(); ++start) {
            if (seen[start] || halves_[start].gone) continue;
            Ring ring;
            for (auto h = start; !seen[h]; h = static_cast<std::size_t>(halves_[h].next)) {
                seen[h] = 1;
                const Point before = half(halves_[h].previous).at, after = half(halves_[h].next).at;
                if (turn(before, halves_[h].at, after) != Turn::straight) ring.push_back(halves_[h].at);
            }
            detail::start_at_least(ring);
            result.push_back(std::move(ring));
        }
        std::sort(result.begin(), result.end());
        return result;
    }

private:
    [[nodiscard]] const HalfEdge& half(int h) const { return halves_[static_cast<std::size_t>(h)]; }
    HalfEdge& half(int h) { return halves_[static_cast<std::size_t>(h)]; }

    void find_twins() {
        std::map<std::pair<Point, Point>, int> open;
        for (int h = 0; h < static_cast<int>(halves_.size()); ++h) {
            const Point a = half(h).at, b = half(half(h).next).at;
            if (const auto other = open.find({b, a}); other != open.end()) {
                half(h).twin = other->second;
                half(other->second).twin = h;
            } else {
                open.emplace(std::pair{a, b}, h);
            }
        }
    }

    int owner(int h) {
        int piece = h / 3;
        while (owner_[static_cast<std::size_t>(piece)] != piece) {
            int& up = owner_[static_cast<std::size_t>(piece)];
            up = owner_[static_cast<std::size_t>(up)];
            piece = up;
        }
        return piece;
    }

    void try_without(int h) {
        const int t = half(h).twin;
        const int one = owner(h), other = owner(t);
        // The angle at each end of the diagonal, once it is gone.
        const auto angle = [&](int in, int out) { return turn(half(in).at, half(out).at, half(half(out).next).at); };
        const Turn at_start = angle(half(h).previous, half(t).next), at_end = angle(half(t).previous, half(h).next);
        if (one == other || at_start == Turn::right || at_end == Turn::right) return;
        const int corners = corners_[static_cast<std::size_t>(one)] + corners_[static_cast<std::size_t>(other)] - 2 -
                            (at_start == Turn::straight) - (at_end == Turn::straight);
        if (corners > most_) return;
        const auto join = [&](int in, int out) {
            half(in).next = out;
            half(out).previous = in;
        };
        join(half(h).previous, half(t).next);
        join(half(t).previous, half(h).next);
        half(h).gone = half(t).gone = true;
        owner_[static_cast<std::size_t>(other)] = one;
        corners_[static_cast<std::size_t>(one)] = corners;
    }

    int most_;
    std::vector<HalfEdge> halves_;
    std::vector<int> owner_, corners_;   // by triangle
};

}   // namespace

std::vector<Ring> convex_pieces(std::span<const Region> regions, int most_vertices) {
    std::vector<Ring> result;
    for (const Region& region : regions) {
        // Region by region: two that touch share no diagonal, and a corner of one is none of the other.
        Fuser fuser(triangles(std::span(&region, 1)), most_vertices);
        fuser.fuse();
        for (Ring& piece : fuser.pieces()) result.push_back(std::move(piece));
    }
    std::sort(result.begin(), result.end());
    return result;
}

}   // namespace dryground

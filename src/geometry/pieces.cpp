// Convex pieces: triangulate, fuse across diagonals while the result stays convex and small enough, then reduce their
// number.
//
// Source: Hertel & Mehlhorn 1983 (see triangulate.cpp), section 4: a diagonal goes when the angles at both its ends
// stay convex without it. We look at long diagonals first, which leaves fewer slivers. What that leaves is up to twice
// too many in theory and a sixth too many on maps, so that three neighbours at a time are then cut anew wherever two
// pieces do: few corners of so small a polygon turn inward, so that all ways to cut it are soon tried. (Keil & Snoeyink
// 2002 give the optimum for whole polygons without holes; too slow for maps, and no help with holes.) Cost: O(n log n)
// to fuse, O(pieces) to reduce: pieces of many corners, which stairs and curves make, stay as they are. Small polygons
// without holes are cut in all ways at last, which is what makes them least.

#include <algorithm>
#include <numeric>

#include "arrangement_internal.hpp"
#include "ring_internal.hpp"
#include "small_cutter_internal.hpp"
#include "triangulate_internal.hpp"

namespace dryground {

namespace {

struct HalfEdge {   // from `at` to the next one's `at`, its piece on the left
    Point at;
    int next, previous;
    int twin = -1;
    int piece = -1;   // once all are fused
    bool gone = false;
};

class Fuser {
public:
    Fuser(std::span<const Triangle> triangles, int most_vertices) : most_(most_vertices) {
        halves_.reserve(3 * triangles.size());
        for (const Triangle& triangle : triangles) {
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

    // Recuts neighbours where fewer pieces are possible.
    void reduce_pieces() {
        name_pieces();
        std::vector<int> open;
        for (int piece = static_cast<int>(starts_.size()) - 1; piece >= 0; --piece) open.push_back(piece);
        while (!open.empty()) {
            const int piece = open.back();
            open.pop_back();
            if (starts_[static_cast<std::size_t>(piece)] < 0) continue;
            for (const int made : cut_around(piece)) {
                open.push_back(made);
                each_edge(made, [&](int h) {
                    if (half(h).twin >= 0) open.push_back(half(half(h).twin).piece);
                });
            }
        }
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
        struct Side {
            Point least, most;
            int half;
        };
        std::vector<Side> sides;
        sides.reserve(halves_.size());
        for (int h = 0; h < static_cast<int>(halves_.size()); ++h) {
            const auto [least, most] = std::minmax(half(h).at, half(half(h).next).at);
            sides.push_back({least, most, h});
        }
        std::sort(sides.begin(), sides.end(), [](const Side& s, const Side& t) {
            return s.least != t.least ? s.least < t.least : s.most != t.most ? s.most < t.most : s.half < t.half;
        });
        for (std::size_t i = 0; i + 1 < sides.size(); ++i)   // no more than two are alike
            if (sides[i].least == sides[i + 1].least && sides[i].most == sides[i + 1].most)
                half(sides[i].half).twin = sides[i + 1].half, half(sides[i + 1].half).twin = sides[i].half;
    }

    void name_pieces() {
        for (int h = 0; h < static_cast<int>(halves_.size()); ++h) {
            if (half(h).gone || half(h).piece >= 0) continue;
            name_piece(h, static_cast<int>(starts_.size()));
            starts_.push_back(h);
        }
    }
    void name_piece(int start, int piece) {
        int h = start, count = 0;
        do {
            half(h).piece = piece, ++count;
            h = half(h).next;
        } while (h != start);
        edges_.push_back(count);
    }
    [[nodiscard]] bool is_large(int piece) const { return edges_[static_cast<std::size_t>(piece)] > 32; }

    template <class Action>
    void each_edge(int piece, Action action) const {
        const int start = starts_[static_cast<std::size_t>(piece)];
        int h = start;
        do {
            action(h);
            h = half(h).next;
        } while (h != start);
    }

    // Tries a piece with every two of its neighbours; returns the new pieces if two are enough.
    std::vector<int> cut_around(int piece) {
        std::vector<int> diagonals;
        if (is_large(piece)) return {};
        each_edge(piece, [&](int h) {
            if (half(h).twin >= 0 && !is_large(half(half(h).twin).piece)) diagonals.push_back(h);
        });
        for (std::size_t i = 0; i < diagonals.size(); ++i)
            for (std::size_t j = i + 1; j < diagonals.size(); ++j) {
                std::vector<int> set{piece, half(half(diagonals[i]).twin).piece, half(half(diagonals[j]).twin).piece};
                if (set[1] != set[2] && inward_without(diagonals[i], diagonals[j]) <= 2 && cut_anew(set)) return set;
            }
        return {};
    }

    // Returns how many corners turn inward once two diagonals of a piece are removed.
    [[nodiscard]] int inward_without(int g, int h) const {
        const auto inward = [&](int in, int out) {
            return turn(half(in).at, half(out).at, half(half(out).next).at) == Turn::right ? 1 : 0;
        };
        const auto start_of = [&](int a) { return half(half(a).twin).next; };     // what leaves its start then
        const auto end_of = [&](int a) { return half(half(a).twin).previous; };   // what comes to its end then
        int count = 0;
        for (const auto& [a, b] : {std::pair{g, h}, std::pair{h, g}}) {
            if (half(a).next == b)   // they share a corner
                count += inward(end_of(a), start_of(b));
            else
                count += inward(end_of(a), half(a).next);
            if (half(a).previous != b) count += inward(half(a).previous, start_of(a));
        }
        return count;
    }

    bool cut_anew(std::vector<int>& set) {
        const auto inside = [&](int h) {
            return half(h).twin >= 0 && std::find(set.begin(), set.end(), half(half(h).twin).piece) != set.end();
        };
        // Goes around the set, from any edge of its outline.
        int start = -1, edges = 0;
        std::vector<int> inner;
        for (const int piece : set) {
            int h = starts_[static_cast<std::size_t>(piece)];
            const int first = h;
            do {
                if (inside(h))
                    inner.push_back(h);
                else
                    start = h, ++edges;
                h = half(h).next;
            } while (h != first);
        }
        if (inner.size() != 2 * (set.size() - 1)) return false;   // around a hole
        std::vector<int> outline;
        std::vector<Point> points;
        detail::SmallCutter::Corners polygon;
        for (int h = start;;) {
            polygon.push_back(static_cast<int>(polygon.size()));
            outline.push_back(h);
            points.push_back(half(h).at);
            h = half(h).next;
            while (inside(h)) h = half(half(h).twin).next;
            if (h == start) break;
            if (static_cast<int>(outline.size()) > edges) return false;
        }
        if (static_cast<int>(outline.size()) != edges) return false;
        if (touches_itself(points)) return false;
        detail::SmallCutter cutter(std::move(points), most_);
        if (!cutter.cut(polygon, static_cast<int>(set.size()) - 1)) return false;
        for (const int h : inner) half(h).gone = true;
        for (std::size_t i = 0; i < outline.size(); ++i) join(outline[i], outline[(i + 1) % outline.size()]);
        std::vector<int> members{outline[0]};
        for (const auto& [a, b] : cutter.cuts()) add_cut(outline, a, b, members);
        for (const int piece : set) starts_[static_cast<std::size_t>(piece)] = -1;
        set.clear();
        for (const int h : members) {
            name_piece(h, static_cast<int>(starts_.size()));
            set.push_back(static_cast<int>(starts_.size()));
            starts_.push_back(h);
        }
        return true;
    }

    [[nodiscard]] static bool touches_itself(std::span<const Point> points) {   // few
        for (std::size_t i = 0; i < points.size(); ++i)
            if (std::find(points.begin() + static_cast<std::ptrdiff_t>(i) + 1, points.end(), points[i]) != points.end())
                return true;
        return false;
    }

    // Splits a piece by a cut between two corners of its outline.
    void add_cut(const std::vector<int>& outline, int a, int b, std::vector<int>& members) {
        // Lists the half edges of that piece that start at the corners: a corner may have several by now.
        const auto place = [&](int corner) { return half(outline[static_cast<std::size_t>(corner)]).at; };
        for (const int start : members) {
            int from_a = -1, from_b = -1, h = start;
            do {
                if (half(h).at == place(a)) from_a = h;
                if (half(h).at == place(b)) from_b = h;
                h = half(h).next;
            } while (h != start);
            if (from_a < 0 || from_b < 0 || half(from_a).next == from_b || half(from_b).next == from_a) continue;
            const auto one = static_cast<int>(halves_.size()), two = one + 1;
            const int before_a = half(from_a).previous, before_b = half(from_b).previous;
            halves_.push_back({place(a), from_b, before_a, two});
            halves_.push_back({place(b), from_a, before_b, one});
            join(before_a, one), join(one, from_b), join(before_b, two), join(two, from_a);
            for (int& member : members)
                if (member == start) member = one;
            members.push_back(two);
            return;
        }
    }
    void join(int in, int out) {
        half(in).next = out;
        half(out).previous = in;
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
        // The angle at each end of the diagonal, once it is removed.
        const auto angle = [&](int in, int out) { return turn(half(in).at, half(out).at, half(half(out).next).at); };
        const Turn at_start = angle(half(h).previous, half(t).next), at_end = angle(half(t).previous, half(h).next);
        if (one == other || at_start == Turn::right || at_end == Turn::right) return;
        const int corners = corners_[static_cast<std::size_t>(one)] + corners_[static_cast<std::size_t>(other)] - 2 -
                            (at_start == Turn::straight) - (at_end == Turn::straight);
        if (corners > most_) return;
        join(half(h).previous, half(t).next);
        join(half(t).previous, half(h).next);
        half(h).gone = half(t).gone = true;
        owner_[static_cast<std::size_t>(other)] = one;
        corners_[static_cast<std::size_t>(one)] = corners;
    }

    int most_;
    std::vector<HalfEdge> halves_;
    std::vector<int> owner_, corners_;   // by triangle
    std::vector<int> starts_;            // a half edge of each piece; -1 for one that is gone
    std::vector<int> edges_;             // of each piece, how many
};

// Splits the polygon that holds two non-adjacent corners between them.
void part_at(std::vector<std::vector<int>>& parts, int a, int b) {
    for (std::vector<int>& part : parts) {
        const auto from = std::find(part.begin(), part.end(), a);
        if (from == part.end() || std::find(part.begin(), part.end(), b) == part.end()) continue;
        std::rotate(part.begin(), from, part.end());
        const auto to = std::find(part.begin(), part.end(), b);
        if (to - part.begin() < 2 || part.end() - to < 2) continue;
        std::vector<int> rest(to, part.end());
        rest.push_back(a);
        part.erase(to + 1, part.end());
        parts.push_back(std::move(rest));
        return;
    }
}

// Cuts a small polygon into fewer pieces than given, if possible.
std::vector<Ring> least_pieces(const Region& region, std::vector<Ring> pieces, int most_vertices) {
    constexpr std::size_t few_corners = 14, few_pieces = 6;
    if (!region.holes.empty() || region.outline.size() > few_corners || pieces.size() > few_pieces) return pieces;
    std::size_t inward = 0;
    for (std::size_t i = 0, n = region.outline.size(); i < n; ++i)
        inward += turn(region.outline[i], region.outline[(i + 1) % n], region.outline[(i + 2) % n]) == Turn::right;
    if (pieces.size() <= (inward + 1) / 2 + 1) return pieces;   // a cut fixes two corners at most
    while (pieces.size() > 1) {
        detail::SmallCutter cutter(region.outline, most_vertices);
        std::vector<int> corners(region.outline.size());
        std::iota(corners.begin(), corners.end(), 0);
        if (!cutter.cut(corners, static_cast<int>(pieces.size()) - 1)) break;
        std::vector<std::vector<int>> parts{corners};
        for (const auto& [a, b] : cutter.cuts()) part_at(parts, a, b);
        pieces.clear();
        for (const std::vector<int>& part : parts) {
            Ring& ring = pieces.emplace_back();
            for (std::size_t i = 0; i < part.size(); ++i) {
                const auto at = [&](std::size_t k) {
                    return region.outline[static_cast<std::size_t>(part[k % part.size()])];
                };
                if (turn(at(i + part.size() - 1), at(i), at(i + 1)) != Turn::straight) ring.push_back(at(i));
            }
            detail::start_at_least(ring);
        }
        std::sort(pieces.begin(), pieces.end());
    }
    return pieces;
}

}   // namespace

std::vector<Ring> convex_pieces(std::span<const Region> regions, int most_vertices) {
    std::vector<Ring> result;
    for (const Region& region : regions) {
        // Works region by region: two that touch share no diagonal, and no corner.
        Fuser fuser(detail::triangulated(region), most_vertices);
        fuser.fuse();
        fuser.reduce_pieces();
        for (Ring& piece : least_pieces(region, fuser.pieces(), most_vertices)) result.push_back(std::move(piece));
    }
    std::sort(result.begin(), result.end());
    return result;
}

}   // namespace dryground

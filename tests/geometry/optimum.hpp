// The least number of convex pieces of a polygon without holes, cut between its own corners: by dynamic programming
// over all diagonals, slow and obvious (O(n^5)).
#pragma once

#include <algorithm>
#include <limits>
#include <map>
#include <optional>

#include "dryground/geometry.hpp"

namespace optimum {

class LeastPieces {
public:
    explicit LeastPieces(const dryground::Ring& ring) : ring_(ring), n_(static_cast<int>(ring.size())) {}
    // The whole polygon lies to the left of its edge from the last corner to the first.
    int run() { return behind(0, n_ - 1); }

private:
    static constexpr int never = 1'000'000;

    [[nodiscard]] dryground::Point at(int i) const { return ring_[static_cast<std::size_t>(i)]; }

    // Pieces of what lies between the corners i to j and the way from i to j.
    int behind(int i, int j) {
        if (j - i < 2) return 0;
        const auto known = least_.find({i, j});
        if (known != least_.end()) return known->second;
        // The piece at that way: a convex chain i … j. For each last step a → b of a chain, the least number so far.
        std::map<std::pair<int, int>, int> chains;
        int best = never;
        for (int b = i + 1; b <= j; ++b)
            for (int a = i; a < b; ++a) {
                if ((a == i && b == j) || !step(a, b)) continue;
                const int own = behind(a, b);
                int cost = never;
                if (a == i) {
                    if (turn(at(j), at(i), at(b)) != dryground::Turn::right) cost = own;
                } else {
                    for (int before = i; before < a; ++before) {
                        const auto chain = chains.find({before, a});
                        if (chain != chains.end() && turn(at(before), at(a), at(b)) != dryground::Turn::right)
                            cost = std::min(cost, chain->second + own);
                    }
                }
                if (cost >= never) continue;
                if (b == j) {
                    if (turn(at(a), at(j), at(i)) != dryground::Turn::right) best = std::min(best, cost + 1);
                } else {
                    chains[{a, b}] = cost;
                }
            }
        return least_[{i, j}] = best;
    }

    // Whether the way from a to b is an edge, or runs inside the polygon and meets nothing.
    bool step(int a, int b) {
        if (b == a + 1 || (a == 0 && b == n_ - 1)) return true;
        const auto known = steps_.find({a, b});
        if (known != steps_.end()) return known->second;
        bool good = inside(a, b) && inside(b, a);
        for (int k = 0; good && k < n_; ++k) {
            const dryground::Point p = at(k), q = at((k + 1) % n_);
            if (p != at(a) && p != at(b) && turn(at(a), at(b), p) == dryground::Turn::straight &&
                (p < at(a)) != (p < at(b)))
                good = false;
            if (p == at(a) || p == at(b) || q == at(a) || q == at(b)) continue;
            const auto s = turn(at(a), at(b), p), t = turn(at(a), at(b), q), u = turn(p, q, at(a)),
                       v = turn(p, q, at(b));
            if (s == opposite(t) && s != dryground::Turn::straight && u == opposite(v) &&
                u != dryground::Turn::straight)
                good = false;
        }
        return steps_[{a, b}] = good;
    }
    [[nodiscard]] bool inside(int i, int to) const {
        using dryground::Turn;
        const dryground::Point before = at((i + n_ - 1) % n_), p = at(i), after = at((i + 1) % n_);
        const bool out = turn(p, after, at(to)) == Turn::left, in = turn(before, p, at(to)) == Turn::left;
        return turn(before, p, after) == Turn::right ? out || in : out && in;
    }

    const dryground::Ring& ring_;
    int n_;
    std::map<std::pair<int, int>, int> least_;
    std::map<std::pair<int, int>, bool> steps_;
};

}   // namespace optimum

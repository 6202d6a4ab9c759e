// Which faces between arranged edges are covered.
//
// Idea. Points are visited from the least to the greatest. The edges that a point of the sweep line crosses stand in
// a balanced tree, ordered along the line from before to after. An edge's windings are those of its neighbour before
// it plus its own deltas, so that each edge knows what covers both its sides as soon as it is entered.
//
// Guarantee: exact; every comparison is one orientation test. Cost: O(n (log n + operands)); memory n * operands
// winding numbers. Requires arranged edges: two edges that cross would break the tree's order.

#include <algorithm>
#include <set>

#include "arrangement_internal.hpp"

namespace dryground::detail {

namespace {

struct Active {
    Point a, b;
    std::size_t windings = 0;   // where the windings after this edge start
    int boundary = -1;          // index of its boundary edge, or of the nearest one before it
};

}   // namespace

std::vector<BoundaryEdge> sweep(std::span<const Edge> edges, int operands, const Classify& classify) {
    std::vector<BoundaryEdge> result;
    const auto width = static_cast<std::size_t>(operands);
    std::vector<int> windings(width, 0);   // the first row: far away, nothing is wound around
    const auto label_of = [&](std::size_t row) { return classify(std::span(windings).subspan(row, width)); };

    std::set<Active, AlongSweepLine> active;
    struct Ending {
        Point at;
        std::set<Active, AlongSweepLine>::iterator edge;
    };
    const auto later = [](const Ending& p, const Ending& q) { return q.at < p.at; };
    std::vector<Ending> endings;   // a heap, the least on top

    const auto end_all_until = [&](Point p) {
        while (!endings.empty() && endings.front().at <= p) {
            std::pop_heap(endings.begin(), endings.end(), later);
            active.erase(endings.back().edge);
            endings.pop_back();
        }
    };

    for (std::size_t i = 0; i < edges.size();) {
        const Point p = edges[i].a;
        end_all_until(p);
        const auto after_p = active.upper_bound(p);
        std::size_t before = 0;
        int nearest = -1;
        if (after_p != active.begin()) {
            before = std::prev(after_p)->windings;
            nearest = std::prev(after_p)->boundary;
        }
        while (i < edges.size() && edges[i].a == p) {
            Active entry{p, edges[i].b, windings.size(), nearest};
            for (std::size_t w = 0; w < width; ++w) windings.push_back(windings[before + w]);
            for (; i < edges.size() && edges[i].a == p && edges[i].b == entry.b; ++i)
                windings[entry.windings + static_cast<std::size_t>(edges[i].operand)] += edges[i].delta;
            const int label_before = label_of(before), label_after = label_of(entry.windings);
            if ((label_before == nothing) != (label_after == nothing)) {
                entry.boundary = static_cast<int>(result.size());
                if (label_before != nothing)
                    result.push_back({p, entry.b, label_before, nearest});
                else
                    result.push_back({entry.b, p, label_after, nearest});
                nearest = entry.boundary;
            }
            before = entry.windings;
            const auto where = active.insert(after_p, entry);
            endings.push_back({entry.b, where});
            std::push_heap(endings.begin(), endings.end(), later);
        }
    }
    return result;
}

}   // namespace dryground::detail

// Which faces between arranged edges are covered.
//
// Idea. Points are visited from the least to the greatest. The edges that a point of the sweep line crosses stand in
// a balanced tree, ordered along the line from before to after. An edge's windings are those of its neighbour before
// it plus its own deltas, so that each edge knows what covers both its sides as soon as it is entered.
//
// Guarantee: exact; every comparison is one orientation test. Cost: O(n (log n + depth)), memory n * depth winding
// numbers, where depth is how many operands lie over one another at a place. Requires arranged edges: two edges that
// cross would break the tree's order.

#include <algorithm>
#include <set>

#include "arrangement_internal.hpp"

namespace dryground::detail {

namespace {

struct Row {   // of windings
    std::size_t begin = 0, count = 0;
};

struct Active {
    Point a, b;
    Row after{};         // the windings after this edge
    int boundary = -1;   // index of its boundary edge, or of the nearest one before it
};

// Winding numbers of all faces met so far, one row after another.
class Rows {
public:
    explicit Rows(const Classify& classify) : classify_(classify) {}

    [[nodiscard]] int label_of(const Row& row) const {
        return classify_(std::span(windings_).subspan(row.begin, row.count));
    }
    Row copy_of(const Row& row) {
        const Row made{windings_.size(), row.count};
        for (std::size_t i = 0; i < row.count; ++i) windings_.push_back(windings_[row.begin + i]);
        return made;
    }
    // Adds to the row that was made last.
    void add(Row& row, int operand, int delta) {
        const auto begin = windings_.begin() + static_cast<std::ptrdiff_t>(row.begin);
        const auto at =
            std::lower_bound(begin, windings_.end(), operand, [](const Winding& w, int o) { return w.operand < o; });
        if (at == windings_.end() || at->operand != operand) {
            windings_.insert(at, {operand, delta});
            ++row.count;
        } else if ((at->number += delta) == 0) {
            windings_.erase(at);
            --row.count;
        }
    }

private:
    const Classify& classify_;
    std::vector<Winding> windings_;
};

}   // namespace

std::vector<BoundaryEdge> sweep(std::span<const Edge> edges, const Classify& classify) {
    std::vector<BoundaryEdge> result;
    Rows rows(classify);

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
        Row before;   // far away all windings are 0
        int nearest = -1;
        if (after_p != active.begin()) {
            before = std::prev(after_p)->after;
            nearest = std::prev(after_p)->boundary;
        }
        while (i < edges.size() && edges[i].a == p) {
            Active entry{p, edges[i].b, rows.copy_of(before), nearest};
            for (; i < edges.size() && edges[i].a == p && edges[i].b == entry.b; ++i)
                rows.add(entry.after, edges[i].operand, edges[i].delta);
            const int label_before = rows.label_of(before), label_after = rows.label_of(entry.after);
            if ((label_before == nothing) != (label_after == nothing)) {
                entry.boundary = static_cast<int>(result.size());
                if (label_before != nothing)
                    result.push_back({p, entry.b, label_before, nearest});
                else
                    result.push_back({entry.b, p, label_after, nearest});
                nearest = entry.boundary;
            }
            before = entry.after;
            const auto where = active.insert(after_p, entry);
            endings.push_back({entry.b, where});
            std::push_heap(endings.begin(), endings.end(), later);
        }
    }
    return result;
}

}   // namespace dryground::detail

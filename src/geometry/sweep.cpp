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
#include <iterator>
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

std::vector<BoundaryEdge> sweep(std::span<const Edge> all, const Classify& classify, std::int32_t first_row) {
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

    Row before;         // far away all windings are 0
    int nearest = -1;   // boundary edge before
    // Enters edges that are equal, or differ by their operand: the next ones along the line.
    const auto enter = [&](std::span<const Edge> equal, auto where) {
        Active entry{equal.front().a, equal.front().b, rows.copy_of(before), nearest};
        for (const Edge& edge : equal) rows.add(entry.after, edge.operand, edge.delta);
        const int label_before = rows.label_of(before), label_after = rows.label_of(entry.after);
        if ((label_before == nothing) != (label_after == nothing)) {
            entry.boundary = static_cast<int>(result.size());
            if (label_before != nothing)
                result.push_back({entry.a, entry.b, label_before, nearest});
            else
                result.push_back({entry.b, entry.a, label_after, nearest});
            nearest = entry.boundary;
        }
        before = entry.after;
        endings.push_back({entry.b, active.insert(where, entry)});
        std::push_heap(endings.begin(), endings.end(), later);
    };
    const auto enter_all = [&](std::span<const Edge> in_order, auto where) {
        for (std::size_t i = 0; i < in_order.size();) {
            std::size_t end = i + 1;
            while (end < in_order.size() && in_order[end].a == in_order[i].a && in_order[end].b == in_order[i].b) ++end;
            enter(in_order.subspan(i, end - i), where);
            i = end;
        }
    };

    const auto first = std::partition_point(all.begin(), all.end(), [&](const Edge& e) { return e.a.y < first_row; });
    std::vector<Edge> from_above;
    std::copy_if(all.begin(), first, std::back_inserter(from_above), [&](const Edge& e) { return e.b.y >= first_row; });
    std::sort(from_above.begin(), from_above.end(), AlongSweepLine{});
    enter_all(from_above, active.end());

    const auto edges = all.subspan(static_cast<std::size_t>(first - all.begin()));
    for (std::size_t i = 0; i < edges.size();) {
        const Point p = edges[i].a;
        end_all_until(p);
        const auto after_p = active.upper_bound(p);
        before = {}, nearest = -1;
        if (after_p != active.begin()) {
            before = std::prev(after_p)->after;
            nearest = std::prev(after_p)->boundary;
        }
        std::size_t end = i + 1;
        while (end < edges.size() && edges[end].a == p) ++end;
        enter_all(edges.subspan(i, end - i), after_p);
        i = end;
    }
    return result;
}

}   // namespace dryground::detail

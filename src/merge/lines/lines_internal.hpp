// Inside the merge room: open lines, cut by areas and joined across tiles.
#pragma once

#include <optional>
#include <vector>

#include "dryground/merge.hpp"

namespace dryground::detail {

struct LinePiece {
    Point from, to;
    int label = 0;
};

// Removes what lies strictly inside an area; what runs along its edge stays. Cuts off the lattice are rounded. Cost:
// O((area + pieces) log area) if edges are short; a piece looks at the edges of the strips that it crosses.
[[nodiscard]] std::vector<LinePiece> cut_lines(std::vector<LinePiece> pieces, const Regions& away);

// Returns pieces so that each place of a straight line counts once: where pieces overlap the greatest label stays, and
// runs of one label are one piece. O(n log n).
[[nodiscard]] std::vector<LinePiece> without_doubles(const std::vector<LinePiece>& pieces);

// A line of pieces end to end; labels[i] belongs to the part from points[i] to the next.
struct JoinedLine {
    Ring points;
    std::vector<int> labels;
    bool closed = false;
    friend bool operator==(const JoinedLine&, const JoinedLine&) = default;
};
// Joins pieces: duplicates are removed (if they differ, the greatest label stays), pieces that meet end to end are one
// line; with vertices only where it bends, where the label changes or where three or more meet. Each piece of a one-way
// line runs as `ground::runs_backward` says; where two that meet stop from different sides, both lines end. Sorted.
// O(n log n).
[[nodiscard]] std::vector<JoinedLine> join_lines(const std::vector<LinePiece>& pieces, OneWay one_way);

using LineEdges = std::vector<std::pair<Point, Point>>;

// Finds where a line that ends continues: of the neighbours of its end, along lines and other edges, the one that bends
// least (of two that bend alike the lesser point); nothing if it ends there or turns back.
class Neighbours {
public:
    explicit Neighbours(const std::vector<JoinedLine>& lines);
    // Adds an edge besides those of the lines. O(log lines), less away from their ends.
    void add(Point a, Point b) {
        if (may_end(a)) add_beside(a, b);
        if (may_end(b)) add_beside(b, a);
    }
    [[nodiscard]] std::optional<Point> after(Point before, Point end) const;

private:
    [[nodiscard]] bool may_end(Point p) const {
        return p.x >= around_.least.x && p.x <= around_.most.x && p.y >= around_.least.y && p.y <= around_.most.y;
    }
    void add_beside(Point end, Point beside);

    std::vector<Point> ends_;                // of open lines, sorted
    std::vector<std::vector<Point>> next_;   // to each end: what is beside it
    Bounds around_{{1, 1}, {0, 0}};          // all ends
};

}   // namespace dryground::detail

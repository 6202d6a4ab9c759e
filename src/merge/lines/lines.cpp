// Open lines: one-way ones and walls without width.
//
// Idea. Pieces on one straight line are swept together, so that duplicates are removed and runs join; then pieces that
// meet end to end are followed. A piece is cut at each edge of an area that it crosses. How often areas wind around it
// is counted from its start on: along a line that lies to its left by less than anything (Edelsbrunner and Muecke,
// "Simulation of simplicity", ACM Transactions on Graphics 9, 1990), so that no vertex lies on it, and that runs on the
// same side of every edge as the piece does where the piece runs along none. Guarantee: every decision is exact; cuts
// off the lattice are rounded, halves up.

#include "lines_internal.hpp"

#include <algorithm>
#include <array>
#include <compare>
#include <map>
#include <numeric>
#include <optional>
#include <set>
#include <utility>

#include "../../geometry/bounds_internal.hpp"
#include "../../geometry/box_index_internal.hpp"
#include "../../geometry/ring_internal.hpp"
#include "../../geometry/widths_internal.hpp"
#include "../../ground/ground_internal.hpp"

namespace dryground::detail {

namespace {

struct SolidEdge {
    Point from, to;
};

// A place on the straight line of a piece, as a part of the piece: from 0 to 1 between its ends.
struct Place {
    std::int64_t part, whole;   // a cross, and the difference of two, at most; whole > 0
    static_assert(2 * (bits_of_cross + 1) <= bits_of_wide);
    friend bool operator<(const Place& a, const Place& b) { return Wide{a.part} * b.whole < Wide{b.part} * a.whole; }
};
struct Cut {
    Place at;
    int change = 0;   // of windings, from there on
};

Place place(std::int64_t part, std::int64_t whole) { return whole > 0 ? Place{part, whole} : Place{-part, -whole}; }

// Requires a point on the piece's line.
Place place_of(const LinePiece& piece, Point p) {
    const std::int64_t dx = std::int64_t{piece.to.x} - piece.from.x, dy = std::int64_t{piece.to.y} - piece.from.y;
    return std::abs(dx) > std::abs(dy) ? place(std::int64_t{p.x} - piece.from.x, dx)
                                       : place(std::int64_t{p.y} - piece.from.y, dy);
}

// Returns the nearest point of the lattice; halves are rounded up. Requires a place between the piece's ends.
Point point_at(const LinePiece& piece, const Place& place) {
    static_assert(bits_of_cross + 1 + bits_of_difference + 2 <= bits_of_wide);
    const auto between = [&](std::int32_t from, std::int32_t to) {
        return static_cast<std::int32_t>(from + rounded(Wide{place.part} * (std::int64_t{to} - from), place.whole));
    };
    return {between(piece.from.x, piece.to.x), between(piece.from.y, piece.to.y)};
}

class LineCutter {
public:
    LineCutter(const Regions& away, const std::vector<LinePiece>& pieces) {
        std::vector<Bounds> boxes;
        const std::vector<Bounds> seen = what_is_seen(pieces);
        each_edge(away, [&](Point from, Point to) {
            const Bounds box = box_around(std::array{from, to});
            if (std::none_of(seen.begin(), seen.end(), [&](const Bounds& one) { return meet(one, box); })) return;
            edges_.push_back({from, to});
            boxes.push_back(box);
        });
        near_ = BoxIndex(std::move(boxes));
    }

    void cut(const LinePiece& piece, std::vector<LinePiece>& kept) const {
        std::vector<Cut> cuts{{{0, 1}}, {{1, 1}}};
        std::vector<std::pair<Place, Place>> along;
        each_near(box_around(std::array{piece.from, piece.to}), [&](const SolidEdge& edge) {
            const Turn a = turn(piece.from, piece.to, edge.from), b = turn(piece.from, piece.to, edge.to);
            if (a == Turn::straight && b == Turn::straight) {
                const Place s = place_of(piece, edge.from), t = place_of(piece, edge.to);
                along.emplace_back(std::min(s, t), std::max(s, t));
                cuts.insert(cuts.end(), {{s}, {t}});
                return;
            }
            if (a == b) return;
            // What lies to the left of an edge is inside. A vertex on the piece lies to the right of where windings are
            // counted.
            const bool from_left = a == Turn::left, to_left = b == Turn::left;
            const int change = from_left == to_left ? 0 : from_left ? 1 : -1;
            if (a == Turn::straight) {
                cuts.push_back({place_of(piece, edge.from), change});
            } else if (b == Turn::straight) {
                cuts.push_back({place_of(piece, edge.to), change});
            } else {
                const std::int64_t before = cross(edge.from, edge.to, piece.from),
                                   after = cross(edge.from, edge.to, piece.to);
                cuts.push_back({place(before, before - after), change});
            }
        });
        std::sort(cuts.begin(), cuts.end(), [](const Cut& s, const Cut& t) { return s.at < t.at; });
        int windings = windings_at_start(piece);
        Point from;   // of the run that is kept, while one is
        bool keeps = false;
        const auto end_run = [&](Point to) {
            if (keeps && from != to) kept.push_back({from, to, piece.label});
            keeps = false;
        };
        for (std::size_t i = 0; i + 1 < cuts.size(); ++i) {
            const Place s = cuts[i].at, t = cuts[i + 1].at;
            if (Place{0, 1} < s) windings += cuts[i].change;
            if (s < Place{0, 1} || Place{1, 1} < t) continue;
            const Point start = point_at(piece, s);
            if (start == point_at(piece, t)) continue;
            const bool runs_along = std::any_of(along.begin(), along.end(),
                                                [&](const auto& run) { return !(s < run.first) && !(run.second < t); });
            if (!runs_along && windings != 0)
                end_run(start);
            else if (!std::exchange(keeps, true))
                from = start;
        }
        end_run(piece.to);
    }

private:
    // Returns boxes with all edges that cutting the pieces needs: beside them, and to their left (`inside`). For few
    // pieces that is a small part of a chunk's ground.
    static std::vector<Bounds> what_is_seen(const std::vector<LinePiece>& pieces) {
        constexpr std::size_t few = 8;
        std::vector<Bounds> seen;
        for (const LinePiece& piece : pieces) {
            Bounds box = box_around(std::array{piece.from, piece.to});
            box.least.x = -coordinate_limit;
            if (pieces.size() <= few || seen.empty())
                seen.push_back(box);
            else
                seen.front() = both(seen.front(), box);
        }
        return seen;
    }

    // Returns how often areas wind around the first counted place of a piece: right after its start, to its left. Edges
    // are crossed by a ray from there to the left of the map.
    [[nodiscard]] int windings_at_start(const LinePiece& piece) const {
        int windings = 0;
        const Point p = piece.from, way{piece.to.x - p.x, piece.to.y - p.y};
        if (near_.empty() || p.x < near_.all().least.x) return 0;
        const bool goes_down = way.y > 0 || (way.y == 0 && way.x > 0);   // from p's height, however little
        each_near({{near_.all().least.x, p.y}, p}, [&](const SolidEdge& edge) {
            const auto is_above = [&](Point q) { return q.y < p.y || (q.y == p.y && goes_down); };
            const bool from_above = is_above(edge.from), to_above = is_above(edge.to);
            if (from_above == to_above) return;
            std::int64_t side = cross(edge.from, edge.to, p);
            if (side == 0) side = cross(edge.from, edge.to, moved(edge.from, way));
            if (side == 0)   // it runs along: away from its left, or to its left
                side = cross(edge.from, edge.to, moved(edge.from, {-way.y, way.x}));
            // An edge that comes from above has on its left what lies right of it as seen on the map.
            if (from_above ? side < 0 : side > 0) windings += from_above ? -1 : 1;
        });
        return windings;
    }

    template <class Action>
    void each_near(const Bounds& box, Action action) const {
        near_.each_near(box, [&](std::size_t i) { action(edges_[i]); });
    }

    std::vector<SolidEdge> edges_;
    BoxIndex near_;
};

// A straight line through the lattice, in either direction.
struct Carrier {
    std::int32_t dx, dy;
    std::int64_t offset;
    friend auto operator<=>(const Carrier&, const Carrier&) = default;
};

Carrier carrier_of(const LinePiece& piece) {   // requires from < to
    const std::int32_t x = piece.to.x - piece.from.x, y = piece.to.y - piece.from.y, d = std::gcd(x, y);
    return {x / d, y / d, std::int64_t{piece.from.x} * (y / d) - std::int64_t{piece.from.y} * (x / d)};
}

// Merges pieces of one carrier: duplicates are removed, runs of one label join.
void sweep_carrier(std::vector<LinePiece>& pieces, std::vector<LinePiece>& into) {
    std::vector<Point> places;
    for (const LinePiece& piece : pieces) places.insert(places.end(), {piece.from, piece.to});
    std::sort(places.begin(), places.end());
    places.erase(std::unique(places.begin(), places.end()), places.end());
    std::sort(pieces.begin(), pieces.end(), [](const LinePiece& a, const LinePiece& b) { return a.from < b.from; });
    std::multiset<int> labels;
    std::multimap<Point, int> ends;
    std::size_t next = 0;
    for (std::size_t i = 0; i + 1 < places.size(); ++i) {
        for (; next < pieces.size() && pieces[next].from == places[i]; ++next) {
            labels.insert(pieces[next].label);
            ends.emplace(pieces[next].to, pieces[next].label);
        }
        for (auto end = ends.begin(); end != ends.end() && end->first == places[i]; end = ends.erase(end))
            labels.erase(labels.find(end->second));
        if (labels.empty()) continue;
        const int label = *labels.rbegin();
        if (!into.empty() && into.back().to == places[i] && into.back().label == label &&
            carrier_of(into.back()) == carrier_of({places[i], places[i + 1], label}))
            into.back().to = places[i + 1];
        else
            into.push_back({places[i], places[i + 1], label});
    }
}

}   // namespace

std::vector<LinePiece> without_doubles(const std::vector<LinePiece>& pieces) {
    std::map<Carrier, std::vector<LinePiece>> carriers;
    for (const LinePiece& piece : pieces) {
        if (piece.from == piece.to) continue;
        const LinePiece upright{std::min(piece.from, piece.to), std::max(piece.from, piece.to), piece.label};
        carriers[carrier_of(upright)].push_back(upright);
    }
    std::vector<LinePiece> swept;
    for (auto& [carrier, all] : carriers) sweep_carrier(all, swept);
    return swept;
}

namespace {

// Pieces of one-way lines are joined only where the one runs on from the other: else what folds back would stop from
// its other side.
class Joiner {
public:
    Joiner(const std::vector<LinePiece>& pieces, OneWay one_way)
        : pieces_(without_doubles(pieces)), is_one_way_(one_way != OneWay::none) {
        used_.assign(pieces_.size(), false);
        for (std::size_t i = 0; i < pieces_.size(); ++i) {
            if (is_one_way_ && ground::runs_backward(pieces_[i].from, pieces_[i].to, one_way))
                std::swap(pieces_[i].from, pieces_[i].to);
            at_[pieces_[i].from].push_back(i);
            at_[pieces_[i].to].push_back(i);
        }
    }

    std::vector<JoinedLine> run() {
        std::vector<JoinedLine> result;
        for (const auto& [place, pieces] : at_)
            if (!is_joint(place, pieces))
                for (const std::size_t piece : pieces)
                    if (!used_[piece] && (!is_one_way_ || pieces_[piece].from == place))
                        result.push_back(follow(place, piece));
        for (std::size_t i = 0; i < pieces_.size(); ++i)   // what is left are rings
            if (!used_[i]) {
                JoinedLine ring = follow(pieces_[i].from, i);
                ring.points.pop_back();
                ring.closed = true;
                result.push_back(std::move(ring));
            }
        return result;
    }

private:
    [[nodiscard]] bool is_joint(Point place, const std::vector<std::size_t>& pieces) const {
        return pieces.size() == 2 &&
               (!is_one_way_ || (pieces_[pieces[0]].from == place) != (pieces_[pieces[1]].from == place));
    }
    JoinedLine follow(Point from, std::size_t piece) {
        JoinedLine line{{from}, {}, false};
        for (Point at = from;;) {
            used_[piece] = true;
            const Point to = pieces_[piece].from == at ? pieces_[piece].to : pieces_[piece].from;
            const std::size_t n = line.points.size();
            if (n > 1 && line.labels.back() == pieces_[piece].label &&
                turn(line.points[n - 2], line.points[n - 1], to) == Turn::straight) {
                line.points.back() = to;
            } else {
                line.points.push_back(to);
                line.labels.push_back(pieces_[piece].label);
            }
            const std::vector<std::size_t>& here = at_[to];
            if (!is_joint(to, here)) return line;
            piece = here[0] == piece ? here[1] : here[0];
            if (used_[piece]) return line;
            at = to;
        }
    }

    std::vector<LinePiece> pieces_;
    bool is_one_way_;
    std::vector<bool> used_;
    std::map<Point, std::vector<std::size_t>> at_;
};

void begin_at_lesser_end(JoinedLine& line) {
    if (line.points.front() <= line.points.back()) return;
    std::reverse(line.points.begin(), line.points.end());
    std::reverse(line.labels.begin(), line.labels.end());
    if (line.closed) std::rotate(line.labels.begin(), line.labels.begin() + 1, line.labels.end());
}

}   // namespace

std::vector<LinePiece> cut_lines(std::vector<LinePiece> pieces, const Regions& away) {
    if (away.empty() || pieces.empty()) return pieces;
    const LineCutter cutter(away, pieces);
    std::vector<LinePiece> kept;
    for (const LinePiece& piece : pieces) cutter.cut(piece, kept);
    return kept;
}

std::vector<JoinedLine> join_lines(const std::vector<LinePiece>& pieces, OneWay one_way) {
    std::vector<JoinedLine> lines = Joiner(pieces, one_way).run();
    if (one_way == OneWay::none)
        for (JoinedLine& line : lines) begin_at_lesser_end(line);
    std::sort(lines.begin(), lines.end(), [](const JoinedLine& a, const JoinedLine& b) { return a.points < b.points; });
    return lines;
}

Neighbours::Neighbours(const std::vector<JoinedLine>& lines) {
    for (const JoinedLine& line : lines)
        if (!line.closed) ends_.insert(ends_.end(), {line.points.front(), line.points.back()});
    if (ends_.empty()) return;
    std::sort(ends_.begin(), ends_.end());
    ends_.erase(std::unique(ends_.begin(), ends_.end()), ends_.end());
    next_.resize(ends_.size());
    around_ = box_around(ends_);
    for (const JoinedLine& line : lines)
        for (std::size_t i = 0; i < line.labels.size(); ++i)
            add(line.points[i], line.points[(i + 1) % line.points.size()]);
}

void Neighbours::add_beside(Point end, Point beside) {
    const auto found = std::lower_bound(ends_.begin(), ends_.end(), end);
    if (found != ends_.end() && *found == end) next_[static_cast<std::size_t>(found - ends_.begin())].push_back(beside);
}

namespace {

struct Way {   // from a point to another: differences
    std::int64_t x, y;
};
Way way_between(Point from, Point to) { return {std::int64_t{to.x} - from.x, std::int64_t{to.y} - from.y}; }

// How much a direction bends from another, to either side; for comparing those that go forward.
struct Bend {
    Way from, to;
    friend std::strong_ordering operator<=>(const Bend& a, const Bend& b) {   // of one `from`
        const auto cross = [](const auto& p, const auto& q) { return Wide{p.x} * q.y - Wide{p.y} * q.x; };
        const bool a_left = cross(a.from, a.to) >= 0, b_left = cross(b.from, b.to) >= 0;
        if (a_left == b_left) return a_left ? Wide{0} <=> cross(a.to, b.to) : cross(a.to, b.to) <=> Wide{0};
        // Compares one of them mirrored at the direction that both bend from: two crosses times a difference; and again
        // times one.
        static_assert(bits_of_cross + 1 + bits_of_difference + 1 + bits_of_difference + 1 <= bits_of_wide);
        struct Long {
            Wide x, y;
        };
        const auto mirrored = [](const Bend& bend) {
            const Way &d = bend.from, &e = bend.to;
            const Wide along = 2 * (Wide{e.x} * d.x + Wide{e.y} * d.y), squared = Wide{d.x} * d.x + Wide{d.y} * d.y;
            return Long{along * d.x - squared * e.x, along * d.y - squared * e.y};
        };
        return a_left ? Wide{0} <=> cross(a.to, mirrored(b)) : cross(a.to, mirrored(b)) <=> Wide{0};
    }
};
Bend bends(const Way& from, const Way& to) { return {from, to}; }

}   // namespace

std::optional<Point> Neighbours::after(Point before, Point end) const {
    const auto found = std::lower_bound(ends_.begin(), ends_.end(), end);
    if (found == ends_.end() || *found != end) return std::nullopt;
    const Way way = way_between(before, end);
    std::optional<Point> best;
    for (const Point next : next_[static_cast<std::size_t>(found - ends_.begin())]) {
        if (next == before) continue;
        const Way on = way_between(end, next);
        if (way.x * on.x + way.y * on.y <= 0) continue;   // only what goes forward continues
        const auto order = best ? bends(way, on) <=> bends(way, way_between(end, *best)) : std::strong_ordering::less;
        if (order < 0 || (order == 0 && next < *best)) best = next;
    }
    return best;
}

}   // namespace dryground::detail

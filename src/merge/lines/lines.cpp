// Open lines: one-way ones and walls without width.
//
// Idea. Pieces on one straight line are swept together, so that doubles go and runs join; then pieces that meet end to
// end are followed. A piece is cut at each edge of an area that it crosses; what lies between two cuts is inside or not
// as its middle is, unless it runs along an edge.

#include "lines_internal.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <map>
#include <numeric>
#include <set>

#include "../../geometry/bounds_internal.hpp"
#include "../../geometry/box_index_internal.hpp"
#include "../../geometry/ring_internal.hpp"

namespace dryground::detail {

namespace {

struct SolidEdge {
    Point from, to;
};

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
        std::vector<double> cuts{0, 1};
        std::vector<std::pair<double, double>> along;
        const double dx = double{0} + piece.to.x - piece.from.x, dy = double{0} + piece.to.y - piece.from.y;
        const auto place_of = [&](Point p) {   // of a point on the piece's line
            return std::abs(dx) > std::abs(dy) ? (double{0} + p.x - piece.from.x) / dx
                                               : (double{0} + p.y - piece.from.y) / dy;
        };
        each_near(box_around(std::array{piece.from, piece.to}), [&](const SolidEdge& edge) {
            const Turn a = turn(piece.from, piece.to, edge.from), b = turn(piece.from, piece.to, edge.to);
            if (a == Turn::straight && b == Turn::straight) {
                const double s = place_of(edge.from), t = place_of(edge.to);
                along.emplace_back(std::min(s, t), std::max(s, t));
                cuts.insert(cuts.end(), {s, t});
            } else if (a == Turn::straight) {
                cuts.push_back(place_of(edge.from));
            } else if (b == Turn::straight) {
                cuts.push_back(place_of(edge.to));
            } else if (a != b) {
                const auto above = static_cast<double>(cross(edge.from, edge.to, piece.from)),
                           below = static_cast<double>(cross(edge.from, edge.to, piece.to));
                cuts.push_back(above / (above - below));
            }
        });
        std::sort(cuts.begin(), cuts.end());
        const auto at = [&](double place) {
            return Point{static_cast<std::int32_t>(std::lround(piece.from.x + place * dx)),
                         static_cast<std::int32_t>(std::lround(piece.from.y + place * dy))};
        };
        double from = -1;   // of the run that is kept
        const auto end_run = [&](double to) {
            if (from >= 0 && at(from) != at(to)) kept.push_back({at(from), at(to), piece.label});
            from = -1;
        };
        for (std::size_t i = 0; i + 1 < cuts.size(); ++i) {
            const double s = cuts[i], t = cuts[i + 1];
            if (s < 0 || t > 1 || at(s) == at(t)) continue;
            const double middle = (s + t) / 2;
            const bool runs_along = std::any_of(along.begin(), along.end(),
                                                [&](const auto& a) { return a.first < middle && middle < a.second; });
            if (!runs_along && inside(piece.from.x + middle * dx, piece.from.y + middle * dy))
                end_run(s);
            else if (from < 0)
                from = s;
        }
        end_run(1);
    }

private:
    // Boxes with all edges that cutting the pieces looks at: beside them, and to their left (`inside`). Where there are
    // few, that is a small part of a chunk's ground.
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

    [[nodiscard]] bool inside(double x, double y) const {
        int windings = 0;
        const auto row = static_cast<std::int32_t>(std::floor(y)), column = static_cast<std::int32_t>(std::ceil(x));
        if (near_.empty() || column < near_.all().least.x) return false;
        each_near({{near_.all().least.x, row}, {column, row}}, [&](const SolidEdge& edge) {
            const bool from_above = edge.from.y <= y, to_above = edge.to.y <= y;
            if (from_above == to_above) return;
            const double part = (y - edge.from.y) / (double{0} + edge.to.y - edge.from.y);
            if (edge.from.x + part * (double{0} + edge.to.x - edge.from.x) < x) windings += from_above ? 1 : -1;
        });
        return windings != 0;
    }

    template <class Action>
    void each_near(const Bounds& box, Action action) const {
        near_.each_near(box, [&](std::size_t i) { action(edges_[i]); });
    }

    std::vector<SolidEdge> edges_;
    BoxIndex near_;
};

// A straight line through the lattice, whichever way it runs.
struct Carrier {
    std::int32_t dx, dy;
    std::int64_t offset;
    friend auto operator<=>(const Carrier&, const Carrier&) = default;
};

Carrier carrier_of(const LinePiece& piece) {   // requires from < to
    const std::int32_t x = piece.to.x - piece.from.x, y = piece.to.y - piece.from.y, d = std::gcd(x, y);
    return {x / d, y / d, std::int64_t{piece.from.x} * (y / d) - std::int64_t{piece.from.y} * (x / d)};
}

// Pieces of one carrier: doubles go, runs of one label join.
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

class Joiner {
public:
    explicit Joiner(const std::vector<LinePiece>& pieces) : pieces_(without_doubles(pieces)) {
        used_.assign(pieces_.size(), false);
        for (std::size_t i = 0; i < pieces_.size(); ++i) {
            at_[pieces_[i].from].push_back(i);
            at_[pieces_[i].to].push_back(i);
        }
    }

    std::vector<JoinedLine> run() {
        std::vector<JoinedLine> result;
        for (const auto& [place, pieces] : at_)
            if (pieces.size() != 2)
                for (const std::size_t piece : pieces)
                    if (!used_[piece]) result.push_back(follow(place, piece));
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
            if (here.size() != 2) return line;
            piece = here[0] == piece ? here[1] : here[0];
            if (used_[piece]) return line;
            at = to;
        }
    }

    std::vector<LinePiece> pieces_;
    std::vector<bool> used_;
    std::map<Point, std::vector<std::size_t>> at_;
};

void reverse(JoinedLine& line) {
    std::reverse(line.points.begin(), line.points.end());
    std::reverse(line.labels.begin(), line.labels.end());
    if (line.closed) std::rotate(line.labels.begin(), line.labels.begin() + 1, line.labels.end());
}

// Bodies that a one-way line stops come from its right: those that fall onto a line that is passed going up come from
// above, so that it runs to greater x.
void direct(JoinedLine& line, OneWay one_way) {
    const Point first = line.points.front(), last = line.points.back();
    const bool turn_around = one_way == OneWay::up      ? last.x < first.x
                             : one_way == OneWay::down  ? last.x > first.x
                             : one_way == OneWay::left  ? last.y > first.y
                             : one_way == OneWay::right ? last.y < first.y
                                                        : last < first;
    if (turn_around) reverse(line);
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
    std::vector<JoinedLine> lines = Joiner(pieces).run();
    for (JoinedLine& line : lines) direct(line, one_way);
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

std::optional<Point> Neighbours::after(Point before, Point end) const {
    constexpr double alike = 1e-12;
    const auto found = std::lower_bound(ends_.begin(), ends_.end(), end);
    if (found == ends_.end() || *found != end) return std::nullopt;
    std::optional<Point> best;
    double best_bend = 0;   // cosine: only what goes forward goes on
    const double dx = double{0} + end.x - before.x, dy = double{0} + end.y - before.y;
    for (const Point next : next_[static_cast<std::size_t>(found - ends_.begin())]) {
        if (next == before) continue;
        const double ex = double{0} + next.x - end.x, ey = double{0} + next.y - end.y;
        const double bend = (dx * ex + dy * ey) / (std::hypot(dx, dy) * std::hypot(ex, ey));
        const bool bends_alike = best && std::abs(bend - best_bend) <= alike;
        if (bends_alike ? !(next < *best) : bend <= best_bend + alike) continue;
        best_bend = bend;
        best = next;
    }
    return best;
}

}   // namespace dryground::detail

// Where a body that is seen from the side can stand.
//
// Idea: the area of possible positions ends below in edges that run to the right, since solids lie on the left of their
// rings, which is below when y grows downward. Those no steeper than the mover walks follow each other in a ring;
// between two of them there may be a kerb.

#include "../geometry/ring_internal.hpp"
#include "stands_internal.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace dryground::travel {

namespace {

enum class Lie { floor, slide, other };

Lie lie_of(Point a, Point b, const Footing& footing) {
    if (b.x <= a.x) return Lie::other;
    const double rise = std::abs(static_cast<double>(b.y) - a.y);
    return rise <= footing.steepest * (static_cast<double>(b.x) - a.x) ? Lie::floor : Lie::slide;
}

class RingStands {
public:
    RingStands(const Ring& ring, const Footing& footing, std::vector<Stand>& into)
        : ring_(ring), footing_(footing), into_(into) {}

    void find() {
        const std::size_t n = ring_.size();
        // Begin behind something that no stand goes on over, so that none is parted where the ring is written down.
        std::size_t first = 0;
        while (first < n && (lie(first) != Lie::other || is_kerb(first))) ++first;
        if (first == n) first = 0;
        for (std::size_t done = 0; done < n;) {
            const std::size_t i = (first + done) % n;
            if (lie(i) == Lie::other) {
                ++done;
                continue;
            }
            done += lie(i) == Lie::slide && kerb_from(i) == 0 ? slide(i) : walk(i, n - done);
        }
    }

private:
    [[nodiscard]] Point at(std::size_t i) const {
        while (i >= ring_.size()) i -= ring_.size();   // once or twice: quicker than a division
        return ring_[i];
    }
    [[nodiscard]] Lie lie(std::size_t i) const { return lie_of(at(i), at(i + 1), footing_); }

    // Returns how many edges from the i-th on are a kerb that leads to a floor; 0 for no kerb.
    [[nodiscard]] std::size_t kerb_from(std::size_t i) const {
        const Point from = at(i);
        std::int32_t least = from.y, most = from.y;
        for (std::size_t k = 0; k < ring_.size(); ++k) {
            const Point p = at(i + k);
            least = std::min(least, p.y), most = std::max(most, p.y);
            if (most - least > footing_.kerb || std::abs(std::int64_t{p.x} - from.x) > footing_.kerb) return 0;
            if (k > 0 && lie(i + k) == Lie::floor) return k;
        }
        return 0;
    }
    [[nodiscard]] bool is_kerb(std::size_t i) const { return footing_.kerb > 0 && kerb_from(i) > 0; }

    std::size_t slide(std::size_t i) {
        into_.push_back({{at(i), at(i + 1)}, false, true});
        return 1;
    }
    std::size_t walk(std::size_t i, std::size_t left) {
        Stand stand{{at(i)}};
        std::size_t done = 0;
        while (done < left) {
            std::size_t count = 0;
            if (lie(i + done) == Lie::floor)
                count = 1;
            else if (footing_.kerb > 0)
                count = kerb_from(i + done);
            if (count == 0 || done + count > left) break;
            for (std::size_t k = 0; k < count; ++k) stand.points.push_back(at(i + ++done));
        }
        if (stand.points.size() < 2) return slide(i);
        into_.push_back(std::move(stand));
        return done;
    }

    const Ring& ring_;
    const Footing& footing_;
    std::vector<Stand>& into_;
};

// Returns whether one line ends on another.
bool ends_on(const Sum& sum, const Sum& other) {
    return std::any_of(sum.line.begin(), sum.line.end(), [&](Point end) {
        return cross(other.line[0], other.line[1], end) == 0 &&
               detail::meet(detail::box_around(other.line), {end, end});
    });
}

// Adds the parts of an edge where the position can be: outside all closed area; and of the rest of a line (`of`) or,
// for what stands on things that move, of lines that would catch the body.
void add_free_parts(const Obstacles& obstacles, Point a, Point b, bool on_line, const Sum* of,
                    std::vector<Stand>& into) {
    std::vector<Stretch> barred;
    obstacles.each_near(detail::box_around(std::array{a, b}), [&](const Sum& sum) {
        if (sum.is_one_way() && of != nullptr && !(sum.stops_above() && (ends_on(sum, *of) || ends_on(*of, sum))))
            return;
        const std::span<const Point> ring = sum.is_one_way() && of == nullptr ? sum.catches : sum.ring;
        if (const std::optional<Stretch> inside = inside_of(ring, a, b)) barred.push_back(*inside);
    });
    std::sort(barred.begin(), barred.end(), [](const Stretch& s, const Stretch& t) { return s.from < t.from; });
    barred.push_back({1, 1});
    const auto point = [&](double t) {
        return Point{static_cast<std::int32_t>(std::lround(a.x + t * (static_cast<double>(b.x) - a.x))),
                     static_cast<std::int32_t>(std::lround(a.y + t * (static_cast<double>(b.y) - a.y)))};
    };
    double free_from = 0;
    for (const Stretch& stretch : barred) {
        const Point from = point(free_from), to = point(stretch.from);
        // Deep inside of the ground no edge of it is near.
        if (from.x < to.x && stretch.from > free_from &&
            obstacles.may_be({from.x + (to.x - from.x) / 2, from.y + (to.y - from.y) / 2}))
            into.push_back({{from, to}, on_line, false});
        free_from = std::max(free_from, stretch.to);
    }
}

// Returns what is left of stands on a thing when the rest is in the way.
std::vector<Stand> free_parts(const Obstacles& obstacles, const std::vector<Stand>& stands) {
    std::vector<Stand> free;
    for (const Stand& stand : stands)
        for (std::size_t i = 0; !stand.slides && i + 1 < stand.points.size(); ++i)
            add_free_parts(obstacles, stand.points[i], stand.points[i + 1], stand.on_line, nullptr, free);
    return free;
}

// Splits a stand where a body that walks along it would get into a line against the direction in which that is passed:
// one walks on from there one way only, or not at all.
void cut_at_lines(const Obstacles& obstacles, Stand stand, std::vector<Stand>& into) {
    Ring rest;
    const auto end_here = [&](Point p) {
        if (rest.empty() || rest.back() != p) rest.push_back(p);
        if (rest.size() > 1) into.push_back({rest, stand.on_line, stand.slides});
        rest = {p};
    };
    for (std::size_t i = 0; i + 1 < stand.points.size(); ++i) {
        const Point a = stand.points[i], b = stand.points[i + 1];
        std::vector<double> cuts;
        obstacles.each_near(detail::box_around(std::array{a, b}), [&](const Sum& sum) {
            if (!sum.is_one_way()) return;
            // Where it stops a body that comes from outside, and one that has walked in.
            if (const std::optional<Stretch> inside = inside_of(sum.ring, a, b)) {
                if (sum.is_entered(a, b)) cuts.push_back(inside->from);
                if (sum.is_entered(b, a)) cuts.push_back(inside->to);
            }
            if (const std::optional<Stretch> caught = inside_of(sum.catches, a, b)) {
                if (runs_against(a, b, sum.stops_from)) cuts.push_back(caught->from);
                if (runs_against(b, a, sum.stops_from)) cuts.push_back(caught->to);
            }
        });
        std::sort(cuts.begin(), cuts.end());
        if (rest.empty() || rest.back() != a) rest.push_back(a);
        for (const double t : cuts) {
            const Point p{static_cast<std::int32_t>(std::lround(a.x + t * (static_cast<double>(b.x) - a.x))),
                          static_cast<std::int32_t>(std::lround(a.y + t * (static_cast<double>(b.y) - a.y)))};
            end_here(p);
        }
        if (rest.back() != b) rest.push_back(b);
    }
    if (rest.size() > 1) into.push_back({std::move(rest), stand.on_line, stand.slides});
}

}   // namespace

Footing footing_of(const Mover& mover) {
    constexpr double usual_slope_degrees = 45;   // the steepest that it walks if it declares none
    const double slope = mover.slope_degrees.value_or(usual_slope_degrees);
    Footing footing;
    // A hair more, for slopes whose ends are rounded to steps.
    footing.steepest = slope >= 89.9 ? 1e9 : std::tan(slope * std::numbers::pi / 180) * 1.0001 + 1e-6;
    // A figure as large as the lattice has the same effect as any larger one.
    footing.kerb = static_cast<std::int32_t>(
        std::min(mover.kerb_px.value_or(0), static_cast<double>(coordinate_limit) / steps_per_px) * steps_per_px);
    return footing;
}

std::vector<Stand> stands_of(const Obstacles& obstacles, const Footing& footing) {
    std::vector<Stand> stands;
    for (const Ring& ring : obstacles.closed()) RingStands(ring, footing, stands).find();
    if (obstacles.is_thing()) stands = free_parts(obstacles, stands);
    for (const Sum& sum : obstacles.lines()) {
        if (!sum.stops_above()) continue;
        detail::each_edge_of_ring(sum.ring, [&](Point a, Point b) {
            if (lie_of(a, b, footing) == Lie::floor) add_free_parts(obstacles, a, b, true, &sum, stands);
        });
    }
    if (!obstacles.has_one_way()) return stands;
    std::vector<Stand> cut;
    for (Stand& stand : stands) cut_at_lines(obstacles, std::move(stand), cut);
    return cut;
}

}   // namespace dryground::travel

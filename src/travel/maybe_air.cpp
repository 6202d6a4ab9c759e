// Jumps that may arrive, by the most generous reading. ¶ Idea: a body that rises to a height, or falls from one, passes
// all heights between; where it is to the side when it passes one is told by spans of x. Between two heights they grow
// by what the slowest body can do meanwhile, the one that jumps the least high, and lose what is in the way. Jumps are
// looked at in bands of height, so that the slowest of a band is not much slower than the others; what falls below the
// take-off is looked at together. A band that nothing holds up gets to everything that lower ones get to, so that bands
// are looked at from the highest on, down to the first such one. Rejected: moments of time, at which the bodies of a
// band are at many heights, so that nothing solid fills them all.

#include <algorithm>
#include <cmath>

#include "air_internal.hpp"

namespace dryground::travel {

namespace {

constexpr int bands = 12;
constexpr double margin = rounding_steps;
constexpr double most_strips = 4000, thinnest = 16;

class MaybeAir {
public:
    MaybeAir(const Obstacles& obstacles, const Flight& flight, Point a, Point b,
             const std::function<void(const Moment&)>& see)
        : obstacles_(obstacles),
          flight_(flight),
          see_(see),
          start_{std::min(a.x, b.x) - margin, std::max(a.x, b.x) + margin},
          highest_(std::min(a.y, b.y)),
          lowest_(std::max(a.y, b.y)) {
        // A line, grown by the body, must not lie between two heights without filling what is between two others.
        const Bounds body = detail::box_around(obstacles.body());
        thick_ = std::clamp(std::min(body.most.x - body.least.x, body.most.y - body.least.y) / 4.0, 1.0 * steps_per_px,
                            3.0 * steps_per_px);
    }

    void stand() { falling_.push_back(start_); }
    // Spreads from `low` to `high`, and down to where it began. Returns whether anything was in the way.
    bool jump(double low, double high) {
        spans_.assign(1, start_);
        is_barred_ = false;
        const int strips = static_cast<int>(std::ceil(low / thick_));
        const auto height = [&](int strip) { return low * strip / strips; };
        const auto time = [&](int strip) { return time_of(low - height(strip)) - time_of(low - height(strip + 1)); };
        for (int i = 0; i < strips; ++i) rise(height(i), height(i + 1), time(i));
        fall(high, low, 2 * time_of(high - low), high);
        for (int i = strips; i-- > 0;) fall(height(i + 1), height(i), time(i), high);
        falling_.insert(falling_.end(), spans_.begin(), spans_.end());
        return is_barred_;
    }
    // Spreads on from there, after jumps up to a height.
    void go_on_falling(double depth, double jumped) {
        spans_ = std::move(falling_);
        sort_and_join(spans_);
        const double thick = std::max(thick_, depth / most_strips);
        // Thin bands first: how far it leaps on level ground matters to the px.
        for (double at = 0, next = 0; at < depth && !spans_.empty(); at = next) {
            next = std::min({at + std::max(at, thinnest), at + thick, depth});
            fall(-at, -next, time_of(next) - time_of(at), jumped);
        }
    }

private:
    // Returns how long it takes to fall so deep, in flights.
    [[nodiscard]] double time_of(double fallen) const { return std::sqrt(std::max(0.0, fallen) / flight_.jump) / 2; }

    // Spreads from a height above the take-off to another, in at most some time.
    void rise(double from, double to, double time) {
        move(highest_ - to, lowest_ - from, false, flight_.leap * time, 1e18);
    }
    // Spreads likewise after jumps that were no higher than that: these take longest.
    void fall(double from, double to, double time, double jumped) {
        const double furthest = flight_.leap * (time_of(jumped) + time_of(jumped - to)) + margin;
        move(highest_ - from, lowest_ - to, true, flight_.leap * time, furthest);
    }
    void move(double top, double bottom, bool falls, double far, double furthest) {
        if (spans_.empty()) return;
        Moment& now = now_;
        now.top = top, now.bottom = bottom, now.falls = falls, now.far = far;
        std::swap(now.spans, spans_);
        barred_.clear(), caught_.clear();
        obstacles_.each_near(box_of(now), [&](const Sum& sum) {
            if (sum.stops_above() && sum.stops_from.x == 0) catch_by(sum, now);
            // Most do not fill it.
            if (sum.is_one_way() || sum.box.least.y >= now.top || sum.box.most.y <= now.bottom) return;
            const auto filled = filled_between(sum.ring, now.top, now.bottom);
            if (filled && (*filled)[1] - (*filled)[0] > 2 * margin)
                barred_.push_back({(*filled)[0] + margin, (*filled)[1] - margin});
        });
        is_barred_ = is_barred_ || !barred_.empty();
        spread(now.spans, barred_, now.far, spans_);
        for (Span& span : spans_)
            span = {std::max(span[0], start_[0] - furthest), std::min(span[1], start_[1] + furthest)};
        std::erase_if(spans_, [](const Span& span) { return span[0] > span[1]; });
        if (spans_.empty()) return;
        now.top -= margin, now.bottom += margin, now.far = margin;
        now.spans = spans_;
        see_(now);
        if (!caught_.empty()) spread(now.spans, caught_, 0, spans_);
    }
    // Handles a horizontal line that bodies pass going up: a body that has been above it all the time does not fall
    // through, but past its ends. Looked at in the last moment in which any body may be above it; by then those that
    // passed an end may have got so far below it.
    void catch_by(const Sum& line, const Moment& now) {
        const double level = line.box.least.y, passed = now.bottom - lowest_;
        if (!now.falls || level < lowest_ || level < now.top || level >= highest_ + passed) return;
        Span top{1e18, -1e18};
        for (const Point p : line.ring)
            if (p.y == line.box.least.y) top = {std::min<double>(top[0], p.x), std::max<double>(top[1], p.x)};
        const double ends = flight_.leap * (time_of(passed) - time_of(level - lowest_)) + margin;
        if (top[1] - top[0] > 2 * ends) caught_.push_back({top[0] + ends, top[1] - ends});
    }

    const Obstacles& obstacles_;
    const Flight& flight_;
    const std::function<void(const Moment&)>& see_;
    Span start_;
    double highest_, lowest_, thick_ = 1;
    bool is_barred_ = false;
    Moment now_;
    Spans spans_, falling_, barred_, caught_;
};

}   // namespace

void maybe_air(const Obstacles& obstacles, const Flight& flight, Point a, Point b, bool jumps, std::int32_t lowest,
               const std::function<void(const Moment&)>& see) {
    MaybeAir air(obstacles, flight, a, b, see);
    if (jumps)
        for (int band = bands; band-- > 0;) {
            if (!air.jump(flight.jump * band / bands, flight.jump * (band + 1) / bands)) break;
        }
    else
        air.stand();
    const double depth = std::min(double{0} + lowest - std::min(a.y, b.y), flight.drop.value_or(1e18));
    air.go_on_falling(depth, jumps ? flight.jump : 0);
}

}   // namespace dryground::travel

// Jumps that surely arrive.
//
// Idea: how high a body is at each moment of a jump follows from the height of the jump; it can only choose its
// position to the side, within its speed. So all jumps of a height are described by spans of x, moment by moment: they
// grow to both sides, and lose what is in the way. Forward this finds what may be reached; backward a way that gets
// there.

#include "air_internal.hpp"

#include <algorithm>
#include <cmath>

namespace dryground::travel {

namespace {

// Between two moments: of a flight, and how far it may fall meanwhile. Deep falls take longer steps, and so do jumps of
// thousands of px.
constexpr double longest_step = 0.025, shortest_step = 0.001;
constexpr double deepest_step = 3 * steps_per_px;

// Returns how high above the take-off a jump of some height is after some time, in flights.
double height_at(const Flight& flight, double high, double time) {
    return 4 * std::sqrt(flight.jump * high) * time - 4 * flight.jump * time * time;
}
double apex_at(const Flight& flight, double high) { return std::sqrt(high / flight.jump) / 2; }

double step_after(const Flight& flight, double high, double time) {
    const double speed = std::abs(4 * std::sqrt(flight.jump * high) - 8 * flight.jump * time);
    const double later = 1 + time;
    const double step =
        std::max(shortest_step, std::min(longest_step * later, deepest_step * later / std::max(speed, 1.0)));
    const double apex = apex_at(flight, high);
    return time < apex - 1e-9 ? std::min(step, apex - time) : step;
}

}   // namespace

Bounds box_of(const Moment& moment) {
    const auto step = [](double x) {
        return static_cast<std::int32_t>(std::clamp<double>(x, -coordinate_limit, coordinate_limit));
    };
    return {{step(moment.spans.front()[0] - moment.far - 1), step(moment.top - 1)},
            {step(moment.spans.back()[1] + moment.far + 1), step(moment.bottom + 1)}};
}

SureAir::SureAir(const Obstacles& obstacles, const Flight& flight, Point a, Point b, double high, std::int32_t lowest)
    : obstacles_(obstacles), start_y_(a.y) {
    const double deepest = std::min<double>(lowest, a.y + flight.drop.value_or(1e18));
    Moment now;
    now.spans = {{static_cast<double>(std::min(a.x, b.x)), static_cast<double>(std::max(a.x, b.x))}};
    if (a == b) now.spans.front()[0] -= 2, now.spans.front()[1] += 2;   // a slope bars its own side
    Spans barred;
    for (double time = 0; !now.spans.empty();) {
        const double step = step_after(flight, high, time);
        const double y = a.y - height_at(flight, high, time), next_y = a.y - height_at(flight, high, time + step);
        now.top = std::min(y, next_y), now.bottom = std::max(y, next_y);
        now.far = flight.leap * step, now.falls = next_y > y;
        barred.clear();
        obstacles.each_near(box_of(now), [&](const Sum& sum) {
            if (sum.stops_above() && !now.falls) return;
            const std::span<const Point> ring = sum.stops_above() ? sum.catches : sum.ring;
            // A step more to either side, since ways are rounded to the lattice.
            if (const auto x = between(ring, now.top, now.bottom)) barred.push_back({(*x)[0] - 1, (*x)[1] + 1});
        });
        Moment next;
        spread(now.spans, barred, now.far, next.spans);
        moments_.push_back(std::move(now));
        now = std::move(next);
        time += step;
        if (a.y - height_at(flight, high, time) > deepest) break;
    }
}

std::optional<Ring> SureAir::back_from(std::size_t moment, Point end) const {
    Ring way{end};
    double x = end.x;
    for (std::size_t k = moment + 1; k-- > 0;) {
        const Moment& at = moments_[k];
        std::optional<double> best;
        for (const auto& [least, most] : at.spans) {
            const double there = std::clamp(x, least, most);
            if (std::abs(there - x) <= at.far + 1 && (!best || std::abs(there - x) < std::abs(*best - x))) best = there;
        }
        if (!best) return std::nullopt;
        x = *best;
        const double y = k == 0 ? start_y_ : at.falls ? at.top : at.bottom;
        way.push_back({static_cast<std::int32_t>(std::lround(x)), static_cast<std::int32_t>(std::lround(y))});
    }
    std::reverse(way.begin(), way.end());
    way.erase(std::unique(way.begin(), way.end()), way.end());
    for (std::size_t i = 0; i + 1 < way.size(); ++i)
        if (!obstacles_.is_free(way[i], way[i + 1])) return std::nullopt;
    return way;
}

std::optional<Ring> SureAir::to_edge(std::size_t moment, Point c, Point d) const {
    const Moment& at = moments_[moment];
    const auto part = part_between(c, d, at.top, at.bottom);
    if (!at.falls || !part) return std::nullopt;
    for (const auto& [least, most] : at.spans) {
        const double from = std::max(least - at.far, (*part)[0]), to = std::min(most + at.far, (*part)[1]);
        if (from > to) continue;
        for (const double x : {(from + to) / 2, from, to}) {
            const double t = d.x == c.x ? 0 : (x - c.x) / (static_cast<double>(d.x) - c.x);
            const Point end{static_cast<std::int32_t>(std::lround(x)),
                            static_cast<std::int32_t>(std::lround(c.y + t * (static_cast<double>(d.y) - c.y)))};
            if (std::optional<Ring> way = back_from(moment, end)) return way;
        }
    }
    return std::nullopt;
}

std::optional<Ring> SureAir::into(std::size_t moment, const Ring& target) const {
    if (moment == 0) return std::nullopt;
    const Moment& at = moments_[moment];
    const double y = std::round(at.falls ? at.top : at.bottom);
    const auto x = between(target, y, y);
    if (!x) return std::nullopt;
    for (const auto& [least, most] : at.spans) {
        const double from = std::max(least, (*x)[0]), to = std::min(most, (*x)[1]);
        if (to - from < 2) continue;
        const Point end{static_cast<std::int32_t>(std::lround((from + to) / 2)), static_cast<std::int32_t>(y)};
        if (!inside_of(target, end, end)) continue;
        if (std::optional<Ring> way = back_from(moment - 1, end)) return way;
    }
    return std::nullopt;
}

bool may_land_on(const Moment& moment, Point c, Point d) {
    if (!moment.falls) return false;
    const auto part = part_between(c, d, moment.top, moment.bottom);
    return part && any_meets(moment.spans, *part);
}

bool may_touch(const Moment& moment, const Ring& target) {
    const auto x = between(target, moment.top, moment.bottom);
    return x && any_meets(moment.spans, *x);
}

}   // namespace dryground::travel

#include "flight_internal.hpp"

#include <algorithm>
#include <cmath>

namespace dryground::travel {

namespace {

Point rounded(double x, double y) {
    const double limit = coordinate_limit - 1;
    return {static_cast<std::int32_t>(std::lround(std::clamp(x, -limit, limit))),
            static_cast<std::int32_t>(std::lround(std::clamp(y, -limit, limit)))};
}

}   // namespace

double Flight::time_down_to(double high, double up) const {
    // up, then down: high = 4 jump t^2 each way
    return std::sqrt(high / (4 * jump)) + std::sqrt(std::max(0.0, high - up) / (4 * jump));
}

double Flight::too_high(double aside, double up) const {
    if (jump <= 0) return up;
    const double time = leap > 0 ? aside / leap : aside > 0 ? 1e9 : 0;   // the least that it takes
    const double top = time <= 0.5 ? jump : 4 * jump * time * (1 - time);
    return up - top;
}

bool Flight::can_be(double aside, double up) const {
    if (drop && -up > *drop) return false;
    return too_high(aside, up) <= 0;
}

std::optional<Ring> curve(const Flight& flight, Point from, Point to, double high, Steer steer) {
    const double aside = static_cast<double>(to.x) - from.x, up = static_cast<double>(from.y) - to.y;
    if (flight.jump <= 0 || high < up || high > flight.jump || (flight.drop && -up > *flight.drop)) return std::nullopt;
    const double time = flight.time_down_to(high, up);
    const double needs = flight.leap > 0 ? std::abs(aside) / flight.leap : aside != 0 ? 1e9 : 0;
    if (needs > time || time <= 0) return std::nullopt;
    double begins = 0, ends = time;
    if (steer == Steer::late) begins = time - needs;
    if (steer == Steer::early) ends = needs;
    const double speed = 4 * std::sqrt(flight.jump * high);
    const auto at = [&](double t) {
        const double part = ends > begins ? std::clamp((t - begins) / (ends - begins), 0.0, 1.0) : (t >= ends ? 1 : 0);
        return rounded(from.x + aside * part, from.y - (speed * t - 4 * flight.jump * t * t));
    };
    // A piece of the parabola that takes dt is jump dt^2 high above its chord.
    const auto parts = static_cast<int>(std::ceil(time / std::sqrt(flight.within / flight.jump))) + 1;
    std::vector<double> times{begins, ends};
    for (int i = 0; i <= parts; ++i) times.push_back(time * i / parts);
    std::sort(times.begin(), times.end());
    Ring points{from};
    for (const double t : times)
        if (t > 0 && t < time && at(t) != points.back()) points.push_back(at(t));
    if (points.back() != to) points.push_back(to);
    return points;
}

Ring envelope(const Flight& flight, Point a, Point b, bool jumps, std::int32_t lowest) {
    constexpr int parts = 24;   // of a flight; a tangent is at most jump / (4 * parts^2) above its curve
    std::vector<Point> points;
    for (const Point p : {a, b}) {
        const double top = jumps ? flight.jump : 0;
        double depth = std::max(0.0, static_cast<double>(lowest) - p.y);
        if (flight.drop) depth = std::min(depth, *flight.drop);
        const double bottom = p.y + depth;
        if (flight.jump <= 0 || flight.leap <= 0) {
            // Without figures of a jump nothing is known of how it drifts as it falls: it may get anywhere below.
            const double far = flight.jump <= 0 && depth > 0 ? coordinate_limit / 4.0 : 0;
            for (const double side : {-1.0, 1.0})
                for (const double y : {p.y - top - 1, bottom + 1}) points.push_back(rounded(p.x + side * (far + 1), y));
            continue;
        }
        // From the apex it goes down by 4 jump t^2, to the side by leap t: corners where tangents of that meet.
        const double apex = jumps ? 0.5 : 0;   // when
        const double end = apex + std::sqrt((depth + top) / (4 * flight.jump));
        for (const double side : {-1.0, 1.0}) {
            points.push_back(rounded(p.x + side * flight.leap * apex, p.y - top - 1));
            double t = 0;
            for (const double step = 1.0 / parts; t < end - apex; t += step) {
                const double next = std::min(t + step, end - apex);
                // two tangents meet halfway in time, at 4 jump t next below the apex
                points.push_back(rounded(p.x + side * (flight.leap * (apex + (t + next) / 2) + 1),
                                         p.y - top + 4 * flight.jump * t * next - 1));
            }
            points.push_back(rounded(p.x + side * (flight.leap * end + 1), bottom + 1));
        }
    }
    return convex_hull(std::move(points));
}

}   // namespace dryground::travel

// Times and curves of jumps and falls.
//
// All curves are parabolas of one gravity; they are made straight with as many points as keep them within a given
// distance. Doubles; positions are rounded to the lattice at the end.

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

}   // namespace dryground::travel

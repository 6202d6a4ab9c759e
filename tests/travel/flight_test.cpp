// Jumps as curves.
// Also tests src/travel: maybe_air
#include "travel/flight_internal.hpp"

#include <catch2/catch.hpp>

#include <cmath>

#include "chance.hpp"

using namespace dryground;
using travel::Flight;
using travel::Steer;

namespace {

Flight random_flight(chance::Dice& dice) {
    Flight flight;
    flight.jump = dice.in(1, 80) * steps_per_px;
    flight.leap = dice.in(0, 120) * steps_per_px;
    if (dice.once_in(2)) flight.drop = dice.in(0, 200) * steps_per_px;
    return flight;
}

}   // namespace

TEST_CASE("a curve begins and ends where it is to, is as high as its apex, and no faster than a leap", "[travel]") {
    chance::Dice dice(1);
    int found = 0;
    for (int round = 0; round < 3000; ++round) {
        const Flight flight = random_flight(dice);
        const Point from{0, 0}, to{dice.in(-150, 150) * steps_per_px, dice.in(-90, 90) * steps_per_px};
        const double high = flight.jump * dice.in(0, 4) / 4;
        const Steer steer =
            std::array{Steer::evenly, Steer::late, Steer::early}[static_cast<std::size_t>(dice.in(0, 2))];
        const auto way = travel::curve(flight, from, to, high, steer);
        const double aside = std::abs(static_cast<double>(to.x)), up = -static_cast<double>(to.y);
        const bool can = high >= up && (!flight.drop || -up <= *flight.drop) && high + std::abs(up) > 0 &&
                         aside <= flight.leap * flight.time_down_to(high, up);
        INFO(flight.jump << " " << flight.leap << " to " << to.x << "," << to.y << " high " << high);
        REQUIRE(way.has_value() == can);
        if (!way) continue;
        ++found;
        CHECK(way->front() == from);
        CHECK(way->back() == to);
        CHECK(flight.can_be(aside, up));
        double top = 0;
        for (const Point p : *way) top = std::max(top, -static_cast<double>(p.y));
        CHECK(top <= high + 1);
        CHECK(top >= std::max(0.0, high - flight.within - 1));   // made straight
    }
    CHECK(found > 300);
}

TEST_CASE("a jump is a parabola: level it is one leap long, and twice as deep takes it further", "[travel]") {
    const Flight flight{.jump = 40 * 256, .leap = 56 * 256, .drop = {}, .within = 64};
    CHECK(flight.can_be(56 * 256, 0));
    CHECK_FALSE(flight.can_be(56 * 256 + 1, 0));
    CHECK(flight.can_be(28 * 256, 40 * 256));
    CHECK_FALSE(flight.can_be(28 * 256, 40 * 256 + 1));
    CHECK_FALSE(flight.can_be(29 * 256, 40 * 256));
    CHECK(flight.can_be(70 * 256, -40 * 256 * 25 / 16));   // a quarter longer
    CHECK(flight.too_high(28 * 256, 41 * 256) == Approx(256));
    CHECK(flight.time_down_to(40 * 256, 0) == Approx(1));
    CHECK(flight.time_down_to(10 * 256, 0) == Approx(0.5));
}

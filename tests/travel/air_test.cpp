// Everywhere that a body may get to through the air: surely, and perhaps.
// Also tests src/travel: maybe_air spans
#include "travel/air_internal.hpp"

#include <catch2/catch.hpp>

#include <cmath>

#include "chance.hpp"

using namespace dryground;
using travel::Flight;
using travel::Span;
using travel::Spans;

namespace {

constexpr int px = steps_per_px;

Mover body_of(int wide, int high) {
    Mover mover;
    mover.name = "warden";
    mover.body.push_back(box_region({-wide * px / 2, -high * px}, {wide * px / 2, 0}));
    return mover;
}
travel::Obstacles obstacles_of(const Regions& ground, const Mover& mover) {
    Group group;
    group.regions = ground;
    return {std::span(&group, 1), 0, mover};
}
Region box_px(int left, int top, int right, int bottom) {
    return box_region({left * px, top * px}, {right * px, bottom * px});
}
bool may_be_at(const std::vector<travel::Moment>& moments, Point p) {
    return std::any_of(moments.begin(), moments.end(), [&](const travel::Moment& moment) {
        return p.y >= moment.top && p.y <= moment.bottom &&
               travel::any_meets(moment.spans, {p.x - moment.far, p.x + moment.far});
    });
}
// A wall of boxes that leaves gaps, here and there.
Regions random_ground(chance::Dice& dice) {
    Regions boxes;
    for (int i = dice.in(2, 12); i > 0; --i) {
        const int left = dice.in(-120, 100), top = dice.in(-110, 150);
        boxes.push_back(box_px(left, top, left + dice.in(2, 60), top + dice.in(2, 60)));
    }
    return unite(boxes, Regions{});
}

}   // namespace

TEST_CASE("spans spread to both sides, and through nothing that is barred", "[travel]") {
    const Spans spread = travel::spread({{0, 10}, {100, 110}}, {{14, 20}, {18, 22}, {108, 130}}, 15);
    CHECK(spread == Spans{{-15, 14}, {85, 108}});
    CHECK(travel::spread({{0, 10}}, {{-5, 12}}, 50).empty());
    CHECK(travel::spread({{0, 1}, {5, 6}}, {}, 2) == Spans{{-2, 8}});
    CHECK(travel::any_meets(spread, {14, 15}));
    CHECK_FALSE(travel::any_meets(spread, {15, 84}));
}

TEST_CASE("what of a ring lies between two heights, and fills all between them", "[travel]") {
    const Ring diamond{{0, -10}, {20, 0}, {0, 10}, {-20, 0}};
    CHECK(travel::between(diamond, -5, -5) == Span{-10, 10});
    CHECK(travel::between(diamond, -5, 30) == Span{-20, 20});
    CHECK_FALSE(travel::between(diamond, 10, 12));   // touches it
    CHECK_FALSE(travel::between(diamond, 11, 11));
    CHECK(travel::filled_between(diamond, -5, 8) == Span{-4, 4});
    CHECK_FALSE(travel::filled_between(diamond, -5, 12));
    CHECK(travel::part_between({0, 0}, {100, 50}, 10, 20) == Span{20, 40});
    CHECK_FALSE(travel::part_between({0, 0}, {100, 50}, 60, 70));
}

TEST_CASE("jumps may get as far and as high as their figures say in free air, and no further", "[travel]") {
    chance::Dice dice(5);
    const Mover mover = body_of(10, 14);
    const travel::Obstacles nothing = obstacles_of({}, mover);
    int inside = 0;
    for (int round = 0; round < chance::rounds(60); ++round) {
        const Flight flight{.jump = 1.0 * dice.in(4, 80) * px, .leap = 1.0 * dice.in(0, 120) * px, .drop = {}};
        const auto moments = travel::maybe_air(nothing, flight, {0, 0}, {0, 0}, true, 400 * px);
        for (int i = 0; i < 200; ++i) {
            const Point p{dice.in(-200 * px, 200 * px), dice.in(-90 * px, 400 * px)};
            const double aside = std::abs(static_cast<double>(p.x)), up = -static_cast<double>(p.y);
            INFO(flight.jump / px << " " << flight.leap / px << " at " << p.x / px << "," << p.y / px);
            if (flight.can_be(aside, up)) {
                ++inside;
                CHECK(may_be_at(moments, p));
            } else if (!flight.can_be(std::max(0.0, aside - px), up - 3 * px)) {
                // The highest and the lowest jump of a band are not told apart.
                CHECK_FALSE(may_be_at(moments, p));
            }
        }
    }
    CHECK(inside > chance::rounds(60) * 10);
}

TEST_CASE("whatever a jump surely gets to, it may get to", "[travel]") {
    chance::Dice dice(6);
    const Mover mover = body_of(10, 14);
    int ways = 0;
    for (int round = 0; round < chance::rounds(150); ++round) {
        const travel::Obstacles obstacles = obstacles_of(random_ground(dice), mover);
        const Flight flight{.jump = 1.0 * dice.in(4, 80) * px, .leap = 1.0 * dice.in(0, 120) * px, .drop = {}};
        const Point a{0, 0}, b{dice.in(0, 40) * px, 0};
        if (!obstacles.is_free(a, b) || !obstacles.may_be(a)) continue;
        const auto maybe = travel::maybe_air(obstacles, flight, a, b, true, 200 * px);
        for (const double part : {1.0, 0.6, 0.2}) {
            const travel::SureAir air(obstacles, flight, a, b, flight.jump * part, 200 * px);
            for (std::size_t k = 1; k < air.moments().size(); ++k) {
                const travel::Moment& moment = air.moments()[k];
                for (const Span& span : moment.spans) {
                    const auto x = static_cast<std::int32_t>((span[0] + span[1]) / 2);
                    const auto y = static_cast<std::int32_t>(moment.falls ? moment.top : moment.bottom);
                    ++ways;
                    INFO("round " << round << " at " << x / px << "," << y / px);
                    CHECK(may_be_at(maybe, {x, y}));
                }
            }
        }
    }
    CHECK(ways > chance::rounds(150) * 10);
}

TEST_CASE("nothing may get through a wall, however thin", "[travel]") {
    const Mover mover = body_of(10, 14);
    const Flight flight{.jump = 40.0 * px, .leap = 400.0 * px, .drop = {}};
    // A shaft with walls of a px around the start, closed above and below.
    const Regions shaft{{{{-60 * px, -100 * px}, {61 * px, -100 * px}, {61 * px, 301 * px}, {-60 * px, 301 * px}},
                         {{{-59 * px, -99 * px}, {-59 * px, 300 * px}, {60 * px, 300 * px}, {60 * px, -99 * px}}}}};
    const travel::Obstacles obstacles = obstacles_of(shaft, mover);
    const auto moments = travel::maybe_air(obstacles, flight, {0, 0}, {0, 0}, true, 1000 * px);
    CHECK(may_be_at(moments, {50 * px, 250 * px}));
    for (const travel::Moment& moment : moments) {
        for (const Span& span : moment.spans) {
            CHECK(span[0] >= -54.2 * px);
            CHECK(span[1] <= 55.2 * px);
        }
        if (!moment.spans.empty()) CHECK(moment.top <= 300.2 * px);
    }
}

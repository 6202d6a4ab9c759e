// Everywhere that a body may get to through the air: surely, and perhaps.
// Also tests src/travel: maybe_air perhaps spans
#include "travel/air_internal.hpp"

#include <catch2/catch.hpp>

#include <cmath>

#include "chance.hpp"

using namespace dryground;
using travel::Flight;
using travel::Span;
using travel::Spans;

namespace {

constexpr int one_px = steps_per_px;

Mover body_of(int wide, int high) {
    Mover mover;
    mover.name = "warden";
    mover.body.push_back(box_region({-wide * one_px / 2, -high * one_px}, {wide * one_px / 2, 0}));
    return mover;
}
// And lines that are passed going up, if any.
travel::Obstacles obstacles_of(const Regions& ground, const Mover& mover, std::vector<Ring> lines = {}) {
    std::vector<Group> groups(2);
    groups[0].regions = ground;
    groups[1].one_way = OneWay::up;
    groups[1].lines = std::move(lines);
    return {groups, StoreyId::ground, mover};
}
Ring line_px(int left, int right, int y) { return {{left * one_px, y * one_px}, {right * one_px, y * one_px}}; }
Region box_px(int left, int top, int right, int bottom) {
    return box_region({left * one_px, top * one_px}, {right * one_px, bottom * one_px});
}
bool may_be_at(const std::vector<travel::Moment>& moments, Point p) {
    return std::any_of(moments.begin(), moments.end(), [&](const travel::Moment& moment) {
        return p.y >= moment.top && p.y <= moment.bottom &&
               travel::any_meets(moment.spans, {p.x - moment.far, p.x + moment.far});
    });
}
std::vector<travel::Moment> maybe_air(const travel::Obstacles& obstacles, const Flight& flight, Point a, Point b,
                                      std::int32_t lowest) {
    std::vector<travel::Moment> moments;
    travel::maybe_air(obstacles, flight, a, b, true, lowest,
                      [&](const travel::Moment& moment) { moments.push_back(moment); });
    return moments;
}
Spans spread(const Spans& spans, Spans barred, double far) {
    Spans reached{{7, 8}};   // of before
    travel::spread(spans, barred, far, reached);
    return reached;
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
    const Spans reached = spread({{0, 10}, {100, 110}}, {{14, 20}, {18, 22}, {108, 130}}, 15);
    CHECK(reached == Spans{{-15, 14}, {85, 108}});
    CHECK(spread({{0, 10}}, {{-5, 12}}, 50).empty());
    CHECK(spread({{0, 1}, {5, 6}}, {}, 2) == Spans{{-2, 8}});
    CHECK(travel::any_meets(reached, {14, 15}));
    CHECK_FALSE(travel::any_meets(reached, {15, 84}));
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
        const Flight flight{.jump = 1.0 * dice.in(4, 80) * one_px, .leap = 1.0 * dice.in(0, 120) * one_px, .drop = {}};
        const auto moments = maybe_air(nothing, flight, {0, 0}, {0, 0}, 400 * one_px);
        for (int i = 0; i < 200; ++i) {
            const Point p{dice.in(-200 * one_px, 200 * one_px), dice.in(-90 * one_px, 400 * one_px)};
            const double aside = std::abs(static_cast<double>(p.x)), up = -static_cast<double>(p.y);
            INFO(flight.jump / one_px << " " << flight.leap / one_px << " at " << p.x / one_px << "," << p.y / one_px);
            if (flight.can_be(aside, up)) {
                ++inside;
                CHECK(may_be_at(moments, p));
            } else if (!flight.can_be(std::max(0.0, aside - one_px), up - 3 * one_px - flight.jump / 12)) {
                // Jumps of one of the twelve bands are looked at together, and so are heights within 3 px.
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
        std::vector<Ring> lines;
        for (int i = dice.in(0, 6); i > 0; --i) {
            const int left = dice.in(-120, 100), y = dice.in(0, 2) == 0 ? 0 : dice.in(-110, 150);
            lines.push_back(line_px(left, left + dice.in(4, 80), y));
        }
        const travel::Obstacles obstacles = obstacles_of(random_ground(dice), mover, std::move(lines));
        const Flight flight{.jump = 1.0 * dice.in(4, 80) * one_px, .leap = 1.0 * dice.in(0, 120) * one_px, .drop = {}};
        const Point a{0, 0}, b{dice.in(0, 40) * one_px, 0};
        if (!obstacles.is_free(a, b) || !obstacles.may_be(a)) continue;
        const auto maybe = maybe_air(obstacles, flight, a, b, 200 * one_px);
        for (const double part : {1.0, 0.6, 0.2}) {
            const travel::SureAir air(obstacles, flight, a, b, flight.jump * part, 200 * one_px);
            for (std::size_t k = 1; k < air.moments().size(); ++k) {
                const travel::Moment& moment = air.moments()[k];
                for (const Span& span : moment.spans) {
                    const auto x = static_cast<std::int32_t>((span[0] + span[1]) / 2);
                    const auto y = static_cast<std::int32_t>(moment.falls ? moment.top : moment.bottom);
                    ++ways;
                    INFO("round " << round << " at " << x / one_px << "," << y / one_px);
                    CHECK(may_be_at(maybe, {x, y}));
                }
            }
        }
    }
    CHECK(ways > chance::rounds(150) * 10);
}

TEST_CASE("nothing may get through a wall, however thin", "[travel]") {
    const Mover mover = body_of(10, 14);
    const Flight flight{.jump = 40.0 * one_px, .leap = 400.0 * one_px, .drop = {}};
    // A shaft with walls of a px around the start, closed above and below.
    const Regions shaft{{{{-60 * one_px, -100 * one_px},
                          {61 * one_px, -100 * one_px},
                          {61 * one_px, 301 * one_px},
                          {-60 * one_px, 301 * one_px}},
                         {{{-59 * one_px, -99 * one_px},
                           {-59 * one_px, 300 * one_px},
                           {60 * one_px, 300 * one_px},
                           {60 * one_px, -99 * one_px}}}}};
    const travel::Obstacles obstacles = obstacles_of(shaft, mover);
    const auto moments = maybe_air(obstacles, flight, {0, 0}, {0, 0}, 1000 * one_px);
    CHECK(may_be_at(moments, {50 * one_px, 250 * one_px}));
    for (const travel::Moment& moment : moments) {
        for (const Span& span : moment.spans) {
            CHECK(span[0] >= -54.2 * one_px);
            CHECK(span[1] <= 55.2 * one_px);
        }
        if (!moment.spans.empty()) CHECK(moment.top <= 300.2 * one_px);
    }
}

TEST_CASE("nobody falls through a plank, but past its ends", "[travel]") {
    const Mover mover = body_of(10, 14);
    const Flight flight{.jump = 40.0 * one_px, .leap = 56.0 * one_px, .drop = {}};
    const auto falls_to = [&](int left, int right, Point from, Point to) {
        const travel::Obstacles obstacles =
            obstacles_of({box_px(-80, 0, 0, 100), box_px(64, 0, 200, 100)}, mover, {line_px(left, right, 0)});
        return may_be_at(maybe_air(obstacles, flight, from, from, 90 * one_px), to);
    };
    const Point bank{-10 * one_px, 0}, plank{30 * one_px, 0}, below{30 * one_px, 50 * one_px};
    CHECK_FALSE(falls_to(0, 64, bank, below));   // from bank to bank
    CHECK_FALSE(falls_to(0, 64, plank, below));
    CHECK_FALSE(falls_to(8, 60, bank, below));   // gaps that are narrower than the body
    CHECK(falls_to(14, 64, bank, below));
    CHECK(falls_to(14, 64, plank, below));
    const auto from_slope = [&](int left, int right) {   // down to the bank's height
        const travel::Obstacles obstacles =
            obstacles_of({box_px(-80, 0, 0, 100), box_px(64, 0, 200, 100)}, mover, {line_px(left, right, 0)});
        return may_be_at(maybe_air(obstacles, flight, {-30 * one_px, -2 * one_px}, {-28 * one_px, 0}, 90 * one_px),
                         below);
    };
    CHECK_FALSE(from_slope(0, 64));
    CHECK(from_slope(20, 64));
    CHECK(falls_to(0, 64, below, below));
    CHECK(falls_to(0, 64, {30 * one_px, 12 * one_px}, plank));   // from below, and onto it
}

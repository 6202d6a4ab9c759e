// Where lines are overlapped, point by point; and after changes, beside the same made anew.
// Also tests src/travel: overlaps
#include "travel/overlaps_internal.hpp"

#include <catch2/catch.hpp>

#include <algorithm>

#include "chance.hpp"
#include "geometry/ring_internal.hpp"

using namespace dryground;
using travel::Overlap;

namespace {

constexpr std::int32_t unit = 512;

travel::Line random_line(chance::Dice& dice) {
    const Point a{dice.in(0, 30) * unit, dice.in(0, 30) * unit};
    const std::int32_t along = dice.in(1, 5) * unit;
    if (dice.once_in(4)) return {{a, moved(a, {along, along / 2})}, OneWay::up};
    return dice.once_in(2) ? travel::Line{{a, moved(a, {along, 0})}, OneWay::up}
                           : travel::Line{{a, moved(a, {0, along})}, OneWay::left};
}

Region random_ground(chance::Dice& dice) {
    const Point p{dice.in(0, 30) * unit + 100, dice.in(0, 30) * unit + 100};
    const std::int32_t r = dice.in(1, 6) * unit;
    if (dice.once_in(3)) return {{p, moved(p, {r, r}), moved(p, {0, r})}, {}};
    return box_region(p, moved(p, {r, dice.in(1, 6) * unit}));
}

struct Scene {
    std::vector<travel::Line> lines;
    Regions ground;

    [[nodiscard]] std::vector<Ring> closed() const { return detail::rings_of(unite(ground)); }
};

Scene random_scene(chance::Dice& dice) {
    Scene scene;
    for (int left = dice.in(1, 40); left > 0; --left) scene.lines.push_back(random_line(dice));
    for (int left = dice.in(0, 30); left > 0; --left) scene.ground.push_back(random_ground(dice));
    return scene;
}

const Ring body = box_ring({-300, -700}, {300, 0});

// Puts another thing in the place of one, or at the end, or takes one away.
template <class Thing>
void change(chance::Dice& dice, std::vector<Thing>& things, const Thing& now) {
    const int at = dice.in(0, static_cast<int>(things.size()));
    if (at == static_cast<int>(things.size()))
        things.push_back(now);
    else if (dice.once_in(3))
        things.erase(things.begin() + at);
    else
        things[static_cast<std::size_t>(at)] = now;
}

}   // namespace

TEST_CASE("each place where lines are overlapped is that of just these lines, outside of ground", "[travel]") {
    for (int round = 0; round < chance::rounds(60); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        const Scene scene = random_scene(dice);
        const travel::Sums sums(scene.lines, body);
        const std::vector<Overlap> overlaps = travel::overlaps_of(sums.all(), scene.closed());
        for (int left = 400; left > 0; --left) {
            const Point p{dice.in(-1, 36 * unit), dice.in(-1, 36 * unit)};
            std::vector<int> lines;
            bool near_an_edge = false;
            const auto look = [&](const Regions& regions) {
                bool inside = false;
                for (const Region& region : regions) {
                    inside = inside || locate({&region, 1}, p) == Side::inside;
                    const Regions point{box_region(moved(p, {-3, -3}), moved(p, {3, 3}))};
                    const Regions cut = intersect({&region, 1}, point);
                    near_an_edge = near_an_edge || (!cut.empty() && cut != point);
                }
                return inside;
            };
            const bool in_ground = look(scene.ground);
            for (std::size_t i = 0; i < sums.all().size(); ++i)
                if (look({{ring_of(sums.all()[i]), {}}})) lines.push_back(static_cast<int>(i));
            if (near_an_edge) continue;
            std::vector<std::vector<int>> found;
            for (const Overlap& overlap : overlaps)
                if (locate(overlap.area, p) == Side::inside) found.push_back(overlap.lines);
            if (in_ground || lines.empty())
                REQUIRE(found.empty());
            else
                REQUIRE(found == std::vector<std::vector<int>>{lines});
        }
    }
}

TEST_CASE("overlaps that follow a change are those that are made anew", "[travel]") {
    for (int round = 0; round < chance::rounds(150); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        Scene scene = random_scene(dice);
        auto sums = std::make_unique<travel::Sums>(scene.lines, body);
        std::vector<Overlap> overlaps = travel::overlaps_of(sums->all(), scene.closed());
        for (int step = 0; step < 4; ++step) {
            if (dice.once_in(2)) change(dice, scene.lines, random_line(dice));
            travel::OverlapsBefore before{sums->all(), overlaps, {}};
            if (dice.once_in(2)) {
                const Regions was = scene.ground;
                change(dice, scene.ground, random_ground(dice));
                for (const Regions& other : {subtract(was, scene.ground), subtract(scene.ground, was)})
                    for (const Region& region : other)
                        before.changed.push_back(detail::grown(detail::box_around(region.outline), 2));
            }
            auto now = std::make_unique<travel::Sums>(scene.lines, body);
            std::vector<Overlap> followed = travel::overlaps_of(now->all(), scene.closed(), &before);
            const std::vector<Overlap> anew = travel::overlaps_of(now->all(), scene.closed());
            REQUIRE(followed.size() == anew.size());
            for (std::size_t i = 0; i < anew.size(); ++i) {
                REQUIRE(followed[i].lines == anew[i].lines);
                REQUIRE(followed[i].area == anew[i].area);
            }
            sums = std::move(now), overlaps = std::move(followed);
        }
    }
}

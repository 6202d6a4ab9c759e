#include <catch2/catch.hpp>

#include "chance.hpp"
#include "geometry/box_index_internal.hpp"

using namespace dryground;
using detail::BoxIndex;

namespace {

std::vector<std::size_t> found(const BoxIndex& index, const Bounds& near) {
    std::vector<std::size_t> all;
    index.each_near(near, [&](std::size_t i) { all.push_back(i); });
    std::sort(all.begin(), all.end());
    return all;
}

std::vector<std::size_t> by_looking_at_all(const std::vector<Bounds>& boxes, const Bounds& near) {
    std::vector<std::size_t> all;
    for (std::size_t i = 0; i < boxes.size(); ++i)
        if (detail::meet(boxes[i], near)) all.push_back(i);
    return all;
}

}   // namespace

TEST_CASE("an index gives each box that meets a place, once") {
    for (int round = 0; round < chance::rounds(400); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        const int wide = dice.once_in(3) ? 0 : dice.in(1, 4000), high = dice.once_in(3) ? 0 : dice.in(1, 4000);
        const int largest = dice.once_in(2) ? 0 : dice.in(1, 2000);
        const auto any = [&] {
            const Point at{dice.in(-wide, wide), dice.in(-high, high)};
            return Bounds{at, {at.x + dice.in(0, largest), at.y + dice.in(0, largest)}};
        };
        std::vector<Bounds> boxes(static_cast<std::size_t>(dice.in(0, 60)));
        for (Bounds& box : boxes) box = any();
        const BoxIndex index(boxes);
        CHECK(index.empty() == boxes.empty());
        for (int i = 0; i < 40; ++i) {
            const Bounds near = any();
            REQUIRE(found(index, near) == by_looking_at_all(boxes, near));
        }
        for (const Bounds& box : boxes) REQUIRE(found(index, box) == by_looking_at_all(boxes, box));
    }
}

TEST_CASE("an index holds boxes at the corners of the range", "[limits]") {
    const std::int32_t far = coordinate_limit;
    const std::vector<Bounds> boxes{{{-far, -far}, {-far, -far}}, {{far, far}, {far, far}}, {{-far, far}, {far, far}},
                                    {{-far, -far}, {far, far}},   {{0, 0}, {1, 1}},         {{far, -far}, {far, far}}};
    const BoxIndex index(boxes);
    for (const Bounds& near : boxes) CHECK(found(index, near) == by_looking_at_all(boxes, near));
    for (const std::int32_t off : {-2 * far, 2 * far - 1})   // places may lie beyond it
        CHECK(found(index, {{off, off}, {off, off}}).empty());
    CHECK(found(index, {{-2 * far, -2 * far}, {2 * far - 1, 2 * far - 1}}).size() == boxes.size());
}

TEST_CASE("a search ends with the first box that passes the test") {
    const BoxIndex index({{{0, 0}, {4, 4}}, {{2, 2}, {8, 8}}, {{90, 90}, {99, 99}}});
    int asked = 0;
    CHECK(index.any_near({{3, 3}, {3, 3}}, [&](std::size_t) { return ++asked == 1; }));
    CHECK(asked == 1);
    CHECK_FALSE(index.any_near({{3, 3}, {3, 3}}, [&](std::size_t i) { return i == 2; }));
    CHECK_FALSE(index.any_near({{50, 50}, {60, 60}}, [](std::size_t) { return true; }));
}

// Rings that come again after an edit are the same ones, in the same memory, and nothing else is taken for them.
#include "merge/cells/rings_before_internal.hpp"

#include <catch2/catch.hpp>

#include <algorithm>

#include "chance.hpp"
#include "geometry/bounds_internal.hpp"

using namespace dryground;

namespace {

// Boxes with surfaces on a lattice, over each other; some touch at corners, some leave holes.
std::vector<PaintLayer> random_layers(chance::Dice& dice) {
    std::vector<PaintLayer> layers;
    for (int i = 0; i < dice.in(1, 14); ++i) {
        const Point least{dice.in(0, 9) * 8, dice.in(0, 9) * 8};
        const Ring box = box_ring(least, {least.x + dice.in(1, 4) * 8, least.y + dice.in(1, 4) * 8});
        layers.push_back({.adds = !dice.once_in(4), .label = dice.in(0, 2), .area = {{box, {}}}});
    }
    return layers;
}

int number_in(const Regions& all, const Region& one) {
    const auto found = std::find(all.begin(), all.end(), one);
    return found == all.end() ? -1 : static_cast<int>(found - all.begin());
}

}   // namespace

TEST_CASE("rings that come again are taken from before, and all others are made") {
    int taken = 0, made = 0;
    for (int round = 0; round < chance::rounds(400); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(590'000 + static_cast<std::uint64_t>(round));
        std::vector<PaintLayer> layers = random_layers(dice);
        const Stacked before = stack(layers);
        if (dice.once_in(2)) layers.erase(layers.begin() + dice.in(0, static_cast<int>(layers.size()) - 1));
        for (PaintLayer& more : random_layers(dice))
            if (dice.once_in(8)) layers.push_back(std::move(more));
        const Stacked now = stack(layers);

        Stacked known = before, made_anew = now;
        detail::RingsBefore rings(known.regions, known.rings);
        rings.put_into(made_anew);
        REQUIRE(made_anew.regions == now.regions);
        REQUIRE(made_anew.rings == now.rings);
        for (const LabelledRing& ring : made_anew.rings) {
            const bool was_there = std::find(before.rings.begin(), before.rings.end(), ring) != before.rings.end();
            REQUIRE(rings.gave(ring) == was_there);
            (was_there ? taken : made) += 1;
        }
        const std::vector<int> numbers = rings.numbers_in(made_anew.regions);
        REQUIRE(numbers.size() == before.regions.size());
        for (std::size_t i = 0; i < numbers.size(); ++i)
            REQUIRE(numbers[i] == number_in(now.regions, before.regions[i]));
    }
    REQUIRE(taken > chance::rounds(400));
    REQUIRE(made > chance::rounds(400) / 4);
}

TEST_CASE("a ring is known again wherever its points begin, and not with another surface") {
    const Ring box = box_ring({0, 0}, {8, 8});
    const std::vector<int> labels{1, 2, 3, 4};
    for (std::ptrdiff_t i = 0; i < 4; ++i) {
        Regions regions{{box, {}}};
        std::vector<LabelledRing> rings{{box, labels}};
        const Point* const data = regions[0].outline.data();
        detail::RingsBefore before(regions, rings);
        Ring turned = box;
        std::vector<int> turned_labels = labels;
        std::rotate(turned.begin(), turned.end() - i, turned.end());
        std::rotate(turned_labels.begin(), turned_labels.end() - i, turned_labels.end());
        std::vector<int> others = turned_labels;
        others.back() += 1;
        const LabelledRing other = before.ring(turned, others, i);
        CHECK(other.points == box);
        CHECK_FALSE(before.gave(other));
        const detail::RingsBefore::Both both = before.both(turned, turned_labels, i);
        CHECK(both.ring == box);
        CHECK(both.ring.data() == data);
        CHECK(both.labelled == LabelledRing{box, labels});
        CHECK(before.gave(both.labelled));
    }
}

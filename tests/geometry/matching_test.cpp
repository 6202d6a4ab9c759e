#include "geometry/matching_internal.hpp"

#include <catch2/catch.hpp>

#include <algorithm>

#include "chance.hpp"

using dryground::detail::AxisSegment;
using dryground::detail::Independent;
using dryground::detail::largest_independent_set;

namespace {

// By listing all meetings and making one pair more at a time (Kuhn 1955).
class SlowTwin {
public:
    SlowTwin(const std::vector<AxisSegment>& levels, const std::vector<AxisSegment>& uprights)
        : levels_(levels),
          uprights_(uprights),
          mate_of_level_(levels.size(), -1),
          mate_of_upright_(uprights.size(), -1) {
        for (std::size_t level = 0; level < levels.size(); ++level) {
            tried_.assign(uprights.size(), false);
            (void)pair_up(static_cast<int>(level));
        }
        stays_.assign(levels.size(), false);
        tried_.assign(uprights.size(), false);
        for (std::size_t level = 0; level < levels.size(); ++level)
            if (mate_of_level_[level] < 0) reach(static_cast<int>(level));
    }
    [[nodiscard]] bool stays(std::size_t level) const { return stays_[level]; }
    [[nodiscard]] bool upright_stays(std::size_t upright) const { return !tried_[upright]; }

    static bool meet(const AxisSegment& level, const AxisSegment& upright) {
        return level.from <= upright.at && upright.at <= level.to && upright.from <= level.at && level.at <= upright.to;
    }

private:
    [[nodiscard]] bool meet(int level, std::size_t upright) const {
        return meet(levels_[static_cast<std::size_t>(level)], uprights_[upright]);
    }
    bool pair_up(int level) {
        for (std::size_t upright = 0; upright < uprights_.size(); ++upright) {
            if (tried_[upright] || !meet(level, upright)) continue;
            tried_[upright] = true;
            if (mate_of_upright_[upright] >= 0 && !pair_up(mate_of_upright_[upright])) continue;
            mate_of_upright_[upright] = level;
            mate_of_level_[static_cast<std::size_t>(level)] = static_cast<int>(upright);
            return true;
        }
        return false;
    }
    void reach(int level) {
        stays_[static_cast<std::size_t>(level)] = true;
        for (std::size_t upright = 0; upright < uprights_.size(); ++upright) {
            if (tried_[upright] || !meet(level, upright)) continue;
            tried_[upright] = true;
            reach(mate_of_upright_[upright]);
        }
    }

    const std::vector<AxisSegment>&levels_, &uprights_;
    std::vector<int> mate_of_level_, mate_of_upright_;
    std::vector<bool> tried_, stays_;
};

// On lines of their own, so that no two meet.
std::vector<AxisSegment> random_segments(chance::Dice& dice, int count, int size, int least_length) {
    std::vector<AxisSegment> segments;
    for (int i = 0; i < count; ++i) {
        const int from = dice.in(0, size - least_length - 1);
        segments.push_back({i * size / count, from, dice.in(from + least_length, size)});
    }
    return segments;
}

void check_against_the_slow_twin(chance::Dice& dice, int size, int least_length) {
    const auto levels = random_segments(dice, dice.in(1, size), size, least_length),
               uprights = random_segments(dice, dice.in(1, size), size, least_length);
    const Independent set = largest_independent_set(levels, uprights);
    const SlowTwin twin(levels, uprights);
    for (std::size_t i = 0; i < levels.size(); ++i) REQUIRE(set.levels[i] == twin.stays(i));
    for (std::size_t i = 0; i < uprights.size(); ++i) REQUIRE(set.uprights[i] == twin.upright_stays(i));
}

}   // namespace

TEST_CASE("the most segments that are apart are those of a slow twin, where few meet") {
    for (int round = 0; round < chance::rounds(400); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        check_against_the_slow_twin(dice, dice.in(4, 40), 1);
    }
}

TEST_CASE("the most segments that are apart are those of a slow twin, where each meets hundreds") {
    for (int round = 0; round < chance::rounds(40); ++round) {
        DRYGROUND_ROUND(round);
        chance::Dice dice(static_cast<std::uint64_t>(round));
        check_against_the_slow_twin(dice, 400, dice.in(50, 300));
    }
}

TEST_CASE("segments of one direction alone are all apart") {
    const std::vector<AxisSegment> some{{0, 0, 10}, {5, 0, 10}};
    CHECK(largest_independent_set(some, {}).levels == std::vector<bool>{true, true});
    CHECK(largest_independent_set({}, some).uprights == std::vector<bool>{true, true});
}

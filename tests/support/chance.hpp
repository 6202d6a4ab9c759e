// Chance that can be replayed: one seed for the whole run, from DRYGROUND_SEED or fixed, told on failure.
#pragma once

#include <cstdint>
#include <cstdlib>
#include <random>
#include <string>

namespace chance {

inline std::uint64_t seed() {
    const char* given = std::getenv("DRYGROUND_SEED");
    return given ? std::strtoull(given, nullptr, 10) : 20240607;
}

// How many rounds of a slow random test to play: an eighth under the address sanitizer, which takes many times as long.
#if defined(__SANITIZE_ADDRESS__)   // GCC
inline constexpr bool sanitized = true;
#elif defined(__has_feature)   // clang
inline constexpr bool sanitized = __has_feature(address_sanitizer);
#else
inline constexpr bool sanitized = false;
#endif
inline int rounds(int optimised) { return sanitized ? (optimised + 7) / 8 : optimised; }

class Dice {
public:
    explicit Dice(std::uint64_t round) : engine_(seed() * 1'000'003 + round) {}
    // A whole number of [least, most]; the same on every platform.
    int in(int least, int most) {
        return least + static_cast<int>(engine_() % static_cast<std::uint64_t>(most - least + 1));
    }
    bool once_in(int n) { return in(1, n) == 1; }

private:
    std::mt19937_64 engine_;
};

}   // namespace chance

// Where a random test failed, and how to replay it.
#define DRYGROUND_ROUND(round) INFO("round " << (round) << " of DRYGROUND_SEED=" << chance::seed())

// Inside the library: how wide numbers get, by their role, and numbers that hold products of products. Code that
// multiplies coordinates checks its bit budget by these: a magnitude of n bits is at most 2^n.
#pragma once

#include <cstdint>

#include "dryground/geometry.hpp"

namespace dryground::detail {

__extension__ using Wide = __int128;

inline constexpr int bits_of_coordinate = 29;
inline constexpr int bits_of_difference = bits_of_coordinate + 1;   // of two coordinates
inline constexpr int bits_of_cross = 2 * bits_of_difference + 1;    // the sum of two products of differences
inline constexpr int bits_of_long = 63, bits_of_wide = 127;         // that std::int64_t and Wide can hold
static_assert(coordinate_limit == std::int32_t{1} << bits_of_coordinate);
static_assert(bits_of_cross + 1 <= bits_of_long);   // and the difference of two of them

// Returns the whole number nearest to a fraction; halves are rounded up. Requires denominator > 0, and room for twice
// both.
[[nodiscard]] constexpr Wide rounded(Wide numerator, Wide denominator) {
    const Wide twice = 2 * numerator + denominator, whole = twice / (2 * denominator);
    return twice % (2 * denominator) < 0 ? whole - 1 : whole;
}

}   // namespace dryground::detail

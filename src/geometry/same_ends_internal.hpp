// Inside the library: what two lists have in common at their beginnings and ends.
#pragma once

#include <algorithm>
#include <cstddef>
#include <iterator>
#include <span>

namespace dryground::detail {

// How many elements are the same at the beginning of two lists, and how many of the others at their ends.
struct SameEnds {
    std::size_t first = 0, last = 0;
};
template <class T, class Same>
[[nodiscard]] SameEnds same_ends(std::span<const T> a, std::span<const T> b, Same same) {
    const auto [a_end, b_end] = std::mismatch(a.begin(), a.end(), b.begin(), b.end(), same);
    const auto [a_rest, b_rest] = std::mismatch(a.rbegin(), std::make_reverse_iterator(a_end), b.rbegin(),
                                                std::make_reverse_iterator(b_end), same);
    return {static_cast<std::size_t>(a_end - a.begin()), static_cast<std::size_t>(a_rest - a.rbegin())};
}

}   // namespace dryground::detail

// Inside the merge room: one row of a grid of covered cells, as the tracer keeps it.
#pragma once

#include <bit>
#include <cstdint>
#include <vector>

#include "cover_internal.hpp"

namespace dryground::detail {

struct Row {
    std::vector<std::uint64_t> full, mixed;
    std::vector<std::uint32_t> ids;
    std::vector<std::int32_t> slots;        // of inner edges: the vertex at the end that is known; -1 for none yet
    std::vector<const Cover*> covers;       // of mixed cells
    std::vector<std::int32_t> first_slot;   // of a mixed cell; -1 when its edges are those of a larger whole
    std::vector<std::int32_t> first_spot;   // of a mixed cell: its first inner vertex

    explicit Row(int columns) {
        const auto words = static_cast<std::size_t>(columns) / 64 + 1;
        full.assign(words, 0);
        mixed.assign(words, 0);
        ids.assign(static_cast<std::size_t>(columns) + 1, 0);
        covers.assign(ids.size(), nullptr);
        first_slot.assign(ids.size(), 0);
        first_spot.assign(ids.size(), 0);
    }
    [[nodiscard]] static bool bit(const std::vector<std::uint64_t>& mask, int c) {
        return c >= 0 && (mask[static_cast<std::size_t>(c) / 64] >> (c & 63) & 1) != 0;
    }
    [[nodiscard]] bool is_full(int c) const { return bit(full, c); }
    [[nodiscard]] bool is_mixed(int c) const { return bit(mixed, c); }
    // Returns the last cell at or before c that is not full; -1 for none.
    [[nodiscard]] int last_not_full(int c) const {
        auto w = static_cast<std::size_t>(c) / 64;
        std::uint64_t gaps = ~full[w] & (~std::uint64_t{0} >> (63 - (c & 63)));
        while (gaps == 0) {
            if (w == 0) return -1;
            gaps = ~full[--w];
        }
        return static_cast<int>(64 * w) + 63 - std::countl_zero(gaps);
    }
};

}   // namespace dryground::detail

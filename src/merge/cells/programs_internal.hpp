// Inside the merge room: programs of sites, remembered by the covers that they were made for.
#pragma once

#include <algorithm>
#include <array>
#include <bit>
#include <cstdint>
#include <vector>

#include "outline_internal.hpp"
#include "site_internal.hpp"

namespace dryground::detail {

struct Covers {   // around a place: up to four numbers of covers
    std::uint64_t first, second;

    Covers(std::uint32_t a, std::uint32_t b, std::uint32_t c = 0, std::uint32_t d = 0)
        : first(std::uint64_t{a} << 32 | b), second(std::uint64_t{c} << 32 | d) {}
    [[nodiscard]] std::uint32_t operator[](int i) const {
        return static_cast<std::uint32_t>((i < 2 ? first : second) >> (i % 2 == 0 ? 32 : 0));
    }
    friend bool operator==(const Covers& a, const Covers& b) = default;
};

template <class Program>
class Remembered {
public:
    // Programs of places with a cover from `first_lone` on are made anew each time.
    template <class Make>
    const Program& get(const Covers& key, std::uint32_t first_lone, Make make) {
        if (key[0] >= first_lone || key[1] >= first_lone || key[2] >= first_lone || key[3] >= first_lone) {
            lone_ = make();
            return lone_;
        }
        if (is_small(key)) {
            std::vector<std::int32_t>& row = small_[pair_of(key.first)];
            if (row.empty()) row.assign(small_.size(), -1);
            return programs_[static_cast<std::size_t>(remember(row[pair_of(key.second)], key, make))];
        }
        if (2 * programs_.size() >= slots_.size()) grow();
        return programs_[static_cast<std::size_t>(remember(slots_[find(key)], key, make))];
    }

private:
    // Few maps mix more than 14 covers: four small numbers select a row of a table, and an entry in it.
    static bool is_small(const Covers& key) { return ((key.first | key.second) & 0xFFFF'FFF0'FFFF'FFF0u) == 0; }
    static std::size_t pair_of(std::uint64_t two) { return (two >> 28 | two) & 0xFF; }
    template <class Make>
    std::int32_t remember(std::int32_t& slot, const Covers& key, Make make) {
        if (slot < 0) {
            slot = static_cast<std::int32_t>(programs_.size());
            keys_.push_back(key);
            programs_.push_back(make());
        }
        return slot;
    }

    [[nodiscard]] std::size_t find(const Covers& key) const {
        std::uint64_t hash = key.first * 0x9E3779B97F4A7C15u;
        hash = (hash ^ (hash >> 29) ^ key.second) * 0xBF58476D1CE4E5B9u;
        std::size_t at = hash >> 20 & (slots_.size() - 1);
        while (slots_[at] >= 0 && !(keys_[static_cast<std::size_t>(slots_[at])] == key))
            at = (at + 1) & (slots_.size() - 1);
        return at;
    }
    void grow() {
        slots_.assign(std::bit_ceil(std::max<std::size_t>(256, 8 * programs_.size())), -1);
        for (std::size_t i = 0; i < keys_.size(); ++i) slots_[find(keys_[i])] = static_cast<std::int32_t>(i);
    }

    // Numbers of programs; -1 for none yet. Rows of the table are made when they are first needed: small maps need few.
    std::array<std::vector<std::int32_t>, 256> small_;
    std::vector<std::int32_t> slots_;
    std::vector<Covers> keys_;
    std::vector<Program> programs_;
    Program lone_;
};

struct CornerPrograms {
    SiteProgram corner;
    std::vector<MiddleSite> to_the_right;   // along the side from the corner to the next one
};

struct Programs::Parts {
    Remembered<CornerPrograms> corners;
    Remembered<std::vector<MiddleSite>> downs;
};

}   // namespace dryground::detail

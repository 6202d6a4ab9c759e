// What meets what: barriers and movers compiled to the category and mask bits that physics engines filter by.
//
// Bits: one for each barrier, then one for each mover, then one for all triggers. Two shapes touch when each one's
// category is in the other's mask. Threads: a pure function of an immutable world.
#pragma once

#include <cstdint>
#include <vector>

#include "dryground/world.hpp"

namespace dryground {

struct ContactBits {
    std::uint64_t category = 0, mask = 0;

    friend bool operator==(const ContactBits&, const ContactBits&) = default;
};

struct ContactTable {
    std::vector<ContactBits> barriers, movers;   // by id
    ContactBits triggers;
    int bits = 0;   // how many are used
};

// Throws std::length_error when barriers and movers together are more than 63. O(barriers * movers).
[[nodiscard]] ContactTable contact_table(const World& world);

// Whether two shapes with these bits meet.
[[nodiscard]] constexpr bool meet(const ContactBits& a, const ContactBits& b) {
    return (a.category & b.mask) != 0 && (b.category & a.mask) != 0;
}

}   // namespace dryground

// Contact filters: barriers and movers as the category and mask bits by which physics engines filter.
//
// Bits: one for each barrier, then one for each mover, then one for all triggers. Two shapes collide if the category of
// each is in the mask of the other. Threads: a pure function of an immutable world.
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
    int bits = 0;   // number of bits in use
};

// Computes the bits of all barriers and movers. Throws std::length_error if there are more than 63 of both together.
// O(barriers * movers).
[[nodiscard]] ContactTable contact_table(const World& world);

// Returns whether two shapes with these bits collide.
[[nodiscard]] constexpr bool meet(const ContactBits& a, const ContactBits& b) {
    return (a.category & b.mask) != 0 && (b.category & a.mask) != 0;
}

}   // namespace dryground

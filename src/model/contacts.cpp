// Which bits say what meets what: one for each barrier, then for each mover, then one for all triggers.

#include "dryground/contacts.hpp"

#include <fmt/format.h>

#include <stdexcept>

namespace dryground {

ContactTable contact_table(const World& world) {
    const std::size_t barriers = world.barriers().size(), movers = world.movers().size();
    if (barriers + movers > 63)
        throw std::length_error(
            fmt::format("contact_table: {} barriers and {} movers need more than 64 bits", barriers, movers));
    const auto bit = [](std::size_t n) { return std::uint64_t{1} << n; };
    ContactTable table;
    table.bits = static_cast<int>(barriers + movers + 1);
    table.triggers.category = bit(barriers + movers);
    for (std::size_t b = 0; b < barriers; ++b) table.barriers.push_back({bit(b), 0});
    for (std::size_t m = 0; m < movers; ++m) {
        const Mover& mover = world.movers()[m];
        ContactBits& bits = table.movers.emplace_back(ContactBits{bit(barriers + m), table.triggers.category});
        table.triggers.mask |= bits.category;
        for (const BarrierId barrier : mover.stopped_by) {
            bits.mask |= bit(index(barrier));
            table.barriers[index(barrier)].mask |= bits.category;
        }
        for (const MoverId other : mover.meets) bits.mask |= bit(barriers + index(other));
    }
    return table;
}

}   // namespace dryground

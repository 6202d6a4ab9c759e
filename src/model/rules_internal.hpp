// Inside the model room: what the tables of rules have in common.
#pragma once

#include <cstddef>

#include "dryground/report.hpp"

namespace dryground {

// Whether a table has one row for each rule, in the order of Rule, so that a rule's row is found by its number.
template <class Row, std::size_t count>
constexpr bool rows_follow_rules(const Row (&table)[count]) {
    for (std::size_t i = 0; i < count; ++i)
        if (static_cast<std::size_t>(table[i].rule) != i) return false;
    return count == rule_count;
}

}   // namespace dryground

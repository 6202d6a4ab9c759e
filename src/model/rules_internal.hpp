// Inside the model room: a row of the table of rules.
#pragma once

#include "dryground/report.hpp"

namespace dryground {

struct RuleRow {
    Rule rule;
    std::string_view name;
    Severity severity;
    std::string_view sentence;
    std::size_t arguments;   // how many {} are in the sentence
    // What the rule means, its effect in the game, the smallest world that breaks it, and how to fix that.
    std::string_view means, effect, example, fix;
};

// The rows of the tables.
namespace rules {
using enum Severity;
}

}   // namespace dryground

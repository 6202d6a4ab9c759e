// Inside the model room: reads one of several words, with a hint if it is another.
#pragma once

#include <fmt/format.h>
#include <fmt/ranges.h>

#include "maker_internal.hpp"

namespace dryground {

template <class Choice>
Choice WorldMaker::choose(const Located<std::string>& said, const std::string& what) {
    if (const auto choice = choice_of<Choice>(said.value)) return *choice;
    const auto all = words_of<Choice>();
    const std::vector<std::string> words(all.begin(), all.end());
    const auto nearest = nearest_name(said.value, words);
    add(Rule::out_of_range, said.place,
        {what, fmt::format("'{}'", said.value), fmt::format("one of {}", fmt::join(words, ", "))},
        nearest ? std::optional(Hint{"did you mean", *nearest}) : std::nullopt);
    return *choice_of<Choice>(words.front());
}

}   // namespace dryground

// Inside the model room: one of a few words, as the value it stands for.
#pragma once

#include <fmt/format.h>

#include "maker_internal.hpp"

namespace dryground {

template <class Choice, std::size_t n>
Choice WorldMaker::choose(const Said<std::string>& said, const std::string& what,
                          const std::array<std::pair<const char*, Choice>, n>& of) {
    std::vector<std::string> words;
    for (const auto& [word, value] : of) {
        if (said.value == word) return value;
        words.emplace_back(word);
    }
    const auto nearest = nearest_name(said.value, words);
    add(Rule::out_of_range, said.place,
        {what, fmt::format("'{}'", said.value), fmt::format("one of {}", fmt::join(words, ", "))},
        nearest ? std::optional(Hint{"did you mean", *nearest}) : std::nullopt);
    return of[0].second;
}

}   // namespace dryground

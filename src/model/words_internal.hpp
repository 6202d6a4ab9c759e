// Inside the library: the words that files use for choices, in the order of the choice's numbers. Defined only here.
#pragma once

#include <algorithm>
#include <array>
#include <optional>
#include <span>
#include <string_view>

#include "dryground/world.hpp"

namespace dryground {

template <class Choice>
struct WordsOf;

template <>
struct WordsOf<Severity> {
    static constexpr std::array<std::string_view, 4> words{"off", "note", "warning", "error"};
};
template <>
struct WordsOf<Moves> {
    static constexpr std::array<std::string_view, 3> words{"steps", "free", "side"};
};
template <>
struct WordsOf<Role> {
    static constexpr std::array<std::string_view, 5> words{"spawn", "trigger", "link", "solid", "entity"};
};
template <>
struct WordsOf<Motion> {
    static constexpr std::array<std::string_view, 3> words{"fixed", "driven", "moving"};
};
template <>
struct WordsOf<Stands> {
    static constexpr std::array<std::string_view, 2> words{"middle", "feet"};
};
template <>
struct WordsOf<FieldType> {
    static constexpr std::array<std::string_view, 13> words{
        "yes_no", "whole", "number", "text", "choice", "colour", "place", "ref", "map", "tile", "fact", "list", "file"};
};
template <>
struct WordsOf<Fires> {
    static constexpr std::array<std::string_view, 7> words{"enter", "inside", "leave", "use",
                                                           "bump",  "defeat", "start"};
};
template <>
struct WordsOf<OneWay> {   // none has no word: the key is left out
    static constexpr std::array<std::string_view, 5> words{"", "up", "down", "left", "right"};
};
template <>
struct WordsOf<Passage> {
    static constexpr std::array<std::string_view, 4> words{"open", "shut", "in", "out"};
};
template <>
struct WordsOf<Band> {
    static constexpr std::array<std::string_view, 3> words{"behind", "with", "front"};
};
template <>
struct WordsOf<GridSort> {
    static constexpr std::array<std::string_view, 2> words{"square", "isometric"};
};
template <>
struct WordsOf<Growth::Corner> {
    static constexpr std::array<std::string_view, 2> words{"round", "box"};
};
template <>
struct WordsOf<MergeForm> {
    static constexpr std::array<std::string_view, 6> words{"regions", "lines", "chains",
                                                           "pieces",  "boxes", "triangles"};
};
enum class Joins { sides, corners, around };   // how the tiles of a family meet
template <>
struct WordsOf<Joins> {
    static constexpr std::array<std::string_view, 3> words{"sides", "corners", "around"};
};

// Returns those that can be written in a file.
template <class Choice>
[[nodiscard]] constexpr std::span<const std::string_view> words_of() {
    const std::span<const std::string_view> all = WordsOf<Choice>::words;
    return all.front().empty() ? all.subspan(1) : all;
}
template <class Choice>
[[nodiscard]] constexpr std::string_view word_of(Choice choice) {
    return WordsOf<Choice>::words[static_cast<std::size_t>(choice)];
}
template <class Choice>
[[nodiscard]] std::optional<Choice> choice_of(std::string_view word) {
    const auto& words = WordsOf<Choice>::words;
    const auto found = std::find(words.begin(), words.end(), word);
    if (word.empty() || found == words.end()) return std::nullopt;
    return static_cast<Choice>(found - words.begin());
}

}   // namespace dryground

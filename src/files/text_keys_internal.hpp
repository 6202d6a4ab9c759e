// Inside the files room: keys whose values are given as bare text, as in drawings and on command lines.
#pragma once

#include <charconv>
#include <cmath>
#include <sstream>

#include "keys/world_keys_internal.hpp"

namespace dryground::files {

// Returns all of a text as a finite number, whatever the host's locale.
[[nodiscard]] inline std::optional<double> number_of(std::string_view text) {
    double number = 0;
    const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), number);
    const bool whole = error == std::errc() && end == text.data() + text.size() && !text.empty();
    return whole && std::isfinite(number) ? std::optional(number) : std::nullopt;
}

// Returns the words of a text, with spaces or commas between them.
[[nodiscard]] inline std::vector<std::string> words_in(std::string text) {
    std::replace(text.begin(), text.end(), ',', ' ');
    std::istringstream in(std::move(text));
    std::vector<std::string> words;
    for (std::string word; in >> word;) words.push_back(std::move(word));
    return words;
}

class KeyFromText {
public:
    enum class Result { no_such_key, done, wrong };

    KeyFromText(std::string_view key, const std::string& text, Place place)
        : key_(key), text_(text), place_(std::move(place)) {}

    // Sets a key that takes a text, a number, yes or no, or a list of texts; other keys cannot be set this way.
    template <class Draft>
    Result set(Draft& draft) {
        keys::each_key(keys::Of<Draft>{}, [&](const auto& key, auto member) {
            if constexpr (!std::is_same_v<std::decay_t<decltype(key)>, keys::Group>)
                if (key.name == key_) take(draft.*member);
        });
        return result_;
    }
    [[nodiscard]] const char* should_be() const { return should_be_; }   // of a wrong one

private:
    template <class T>
    void take(T&) {}   // no such key
    void take(std::string& into) { done(into = text_); }
    void take(Name& into) { done(into = Name(text_, place_)); }
    void take(Names& into) {
        into.clear();
        for (std::string& word : words_in(text_)) into.emplace_back(std::move(word), place_);
        result_ = Result::done;
    }
    void take(std::vector<std::string>& into) { done(into = words_in(text_)); }
    void take(bool& into) {
        const bool yes = text_.empty() || text_ == "true" || text_ == "1" || text_ == "yes";
        if (!yes && text_ != "false" && text_ != "0" && text_ != "no") return wrong("true or false");
        done(into = yes);
    }
    void take(double& into) {
        const auto number = number_of(text_);
        if (!number) return wrong("a number");
        done(into = *number);
    }
    template <class T>
    void take(Located<T>& into) {
        take(into.value);
        if (result_ == Result::done) into.place = place_;
    }
    template <class T>
    void take(std::optional<T>& into) {
        T value{};
        take(value);
        if (result_ == Result::done) into = std::move(value);
    }
    template <class T>
    void done(const T&) {
        result_ = Result::done;
    }
    void wrong(const char* should_be) {
        result_ = Result::wrong;
        should_be_ = should_be;
    }

    std::string_view key_;
    const std::string& text_;
    Place place_;
    Result result_ = Result::no_such_key;
    const char* should_be_ = "";
};

}   // namespace dryground::files

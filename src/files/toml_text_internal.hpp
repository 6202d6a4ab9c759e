// Inside the files room: how we write TOML. Canonical: the same data gives the same bytes, defaults are left out, one
// table a line.
#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "dryground/builder.hpp"

namespace dryground::files::toml_text {

[[nodiscard]] std::string in_quotes(std::string_view text);              // a basic string
[[nodiscard]] std::string key(std::string_view name);                    // bare where it can be
[[nodiscard]] std::string number(double value);                          // 16, not 16.0: where files take either
[[nodiscard]] std::string value(const Value& value);                     // keeps its type: 16.0 where it is a number
[[nodiscard]] std::string list(const std::vector<std::string>& items);   // of values that are TOML already
[[nodiscard]] std::string list_by_line(const std::vector<std::string>& items);   // the same, one a line
[[nodiscard]] std::string names(const Names& names);
[[nodiscard]] std::string texts(const std::vector<std::string>& texts);
[[nodiscard]] std::string numbers(std::initializer_list<double> numbers);
[[nodiscard]] std::string points(const std::vector<std::array<double, 2>>& points);
[[nodiscard]] std::string rows(const std::vector<std::string_view>& rows);   // a multi-line text

// Keys and values, in the order in which they were added: as lines, or as an inline table.
class Pairs {
public:
    void add(std::string_view name, std::string toml) { pairs_.emplace_back(key(name), std::move(toml)); }
    // Each adds nothing if the value is what a reader assumes anyway.
    void add(std::string_view name, const std::optional<Name>& said) {
        if (said) add(name, in_quotes(said->value));
    }
    void add_names(std::string_view name, const Names& said) {
        if (!said.empty()) add(name, names(said));
    }
    void add_number(std::string_view name, double said, double standard) {
        if (said != standard) add(name, number(said));
    }
    void add_number(std::string_view name, const std::optional<double>& said) {
        if (said) add(name, number(*said));
    }
    void add_yes_no(std::string_view name, bool said, bool standard = false) {
        if (said != standard) add(name, std::string(said ? "true" : "false"));
    }
    // In a table of the key `before`, if that is not empty: before.name = toml.
    void add_path(const std::string& before, std::string_view name, std::string toml) {
        pairs_.emplace_back(before.empty() ? key(name) : before + "." + key(name), std::move(toml));
    }
    void add_properties(const SaidProperties& props);
    void add_all(const Pairs& more) { pairs_.insert(pairs_.end(), more.pairs_.begin(), more.pairs_.end()); }

    [[nodiscard]] bool empty() const { return pairs_.empty(); }
    [[nodiscard]] std::size_t size() const { return pairs_.size(); }
    [[nodiscard]] std::string lines() const;
    [[nodiscard]] std::string table() const;   // { a = 1, b = 2 }

private:
    std::vector<std::pair<std::string, std::string>> pairs_;
};

}   // namespace dryground::files::toml_text

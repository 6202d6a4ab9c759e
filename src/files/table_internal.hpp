// Inside the files room: reads the keys of a TOML table, each with its place; wrong types, missing and unknown keys
// become findings.
#pragma once

#include <fmt/format.h>

#include <optional>
#include <string>
#include <vector>

#include "dryground/builder.hpp"
#include "long_rows_internal.hpp"
#include "toml_internal.hpp"

namespace dryground::files {

// The file that is being read, and where its findings go.
struct Source {
    std::string file;                      // relative to the world's folder
    std::vector<std::string_view> lines;   // of its text, without line ends
    Report& report;
    LongRows rows{};   // that the parser has not seen

    [[nodiscard]] Place at(const toml::source_position& position) const {
        return {file, static_cast<int>(position.line), static_cast<int>(position.column), {}};
    }
    [[nodiscard]] Place of(const toml::node& node) const { return at(node.source().begin); }
    void add(Rule rule, const Place& place, std::vector<std::string> arguments, std::optional<Hint> hint = {}) const;
};

struct Entry {   // a key of a table with its value
    Name key;
    const toml::node* node;
};

void add_wrong_type(const Source& source, const toml::node& node, const std::string& subject,
                    const std::string& should_be);

class Table {
public:
    // `what` names the table in messages: "tile 'peat_a'".
    Table(const Source& source, const toml::table& table, std::string what)
        : source_(source), table_(table), what_(std::move(what)) {}

    [[nodiscard]] const Source& source() const { return source_; }
    [[nodiscard]] const std::string& what() const { return what_; }
    // Calls it "SORT 'NAME'" from here on, if it has a name.
    void call_by_name(const std::string& sort);
    [[nodiscard]] Place place() const { return source_.of(table_); }
    [[nodiscard]] bool has(const char* key) const { return table_.contains(key); }

    // Each returns nothing if the key is missing or has another type; the latter with a finding.
    std::optional<Located<std::string>> text(const char* key);
    std::optional<Located<bool>> yes_no(const char* key);
    std::optional<Located<double>> number(const char* key);
    std::optional<Located<std::int64_t>> whole(const char* key);
    std::optional<Located<std::vector<double>>> numbers(const char* key, std::size_t count);
    std::optional<Located<std::vector<int>>> wholes(const char* key, std::size_t count);
    std::optional<Names> names(const char* key);   // a list of texts
    std::optional<std::vector<std::string>> texts(const char* key);
    std::optional<Table> table(const char* key, std::string what);
    const toml::array* list(const char* key, const std::string& should_be);   // any list; null when there is none
    // Calls action with each table of a list; other items are findings, with the example in them. Returns false if
    // there is no list.
    template <class Action>   // called with one table after another
    bool each(const char* key, const std::string& what, const char* example, Action action) {
        const toml::array* items = list(key, fmt::format("a list of tables {}", example));
        if (items == nullptr) return false;
        for (const toml::node& item : *items) {
            if (const auto* inner = item.as_table())
                action(Table(source_, *inner, what));
            else
                add_wrong_type(source_, item, what, fmt::format("a table {}", example));
        }
        return true;
    }
    [[nodiscard]] const toml::table& tree() const { return table_; }
    const toml::node* node(const char* key);   // anything; null if it is missing

    Name required_text(const char* key, const char* example);
    // Returns all keys in file order.
    [[nodiscard]] std::vector<Entry> entries() const;
    // Returns keys as written, for tables whose keys are names chosen by the designer.
    void missing(const char* key, std::string example);

    // Reports keys that were never read.
    void finish();

private:
    const toml::node* take(const char* key);
    void wrong(const toml::node& node, const std::string& subject, const std::string& should_be) const;
    // Returns, for a list that should hold so many numbers, the first item that is not one, else the list itself.
    void wrong_list(const toml::node& node, const char* key, std::size_t count, bool whole) const;

    const Source& source_;
    const toml::table& table_;
    std::string what_;
    std::vector<std::string> asked_;
};

[[nodiscard]] std::string sort_of(const toml::node& node);             // "a text", "a list"
[[nodiscard]] std::optional<Value> value_of(const toml::node& node);   // nothing for tables and dates

}   // namespace dryground::files

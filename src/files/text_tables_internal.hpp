// Inside the files room: whole tables and list items of a TOML text, added and removed with the lines that they stand
// on.
#pragma once

#include <string>
#include <vector>

#include "text_edits_internal.hpp"

namespace dryground::files {

// From `begin` to before `end`, in bytes.
struct TextSpan {
    std::size_t begin = 0, end = 0;
};
using TablePath = std::vector<std::string>;   // names; of lists of tables the number from 0: layers, 2, objects, 0

// The text by its headers: each part is from a [header], with the comments directly above it, to before the next.
class TextTables {
public:
    TextTables(const TextEdits& text, const toml::table& root);

    // Returns the parts of a table and of all that is inside it, one after another.
    [[nodiscard]] std::vector<TextSpan> parts(const TablePath& path) const;
    [[nodiscard]] bool has_header(const TablePath& path) const;   // [a.b] itself, not only [a.b.c]

private:
    struct Part {
        TablePath path;
        TextSpan span;
    };
    std::vector<Part> parts_;
};

// Adds one more key to a table: in an inline table before its brace, else on a line below the last.
void append_entry(TextEdits& text, const toml::table& table, const std::string& entry);
// Adds one more item to a list in a table: at its end, on a line of its own if the last one is; a new list, below the
// key `after`, if the table has no list yet.
void append_item(TextEdits& text, const toml::table& table, const std::string& list, const std::string& item,
                 const std::string& after);
// Adds a file to a world's list `maps` or `tilesets`; returns false if it is listed already, or that is not a list.
[[nodiscard]] bool enter_in_list(TextEdits& text, const toml::table& world, const std::string& list,
                                 const std::string& file);
// Removes an item from a list, with its comma; with its line, if nothing else is on it except a comment.
void drop_item(TextEdits& text, const toml::node& item);
// Removes parts, with the empty lines behind them.
void drop_parts(TextEdits& text, const std::vector<TextSpan>& parts);
// Removes tree.table.name, however it is written; returns false if its keys are lines among those of others.
[[nodiscard]] bool drop_named(TextEdits& text, const toml::table& tree, const std::string& table,
                              const std::string& name);
// Inserts a part before a place: its lines, separated by an empty line from those above and below.
void insert_part(TextEdits& text, std::size_t at, const std::string& part);
// Removes empty lines at its end.
[[nodiscard]] std::string part_text(const TextEdits& text, const TextSpan& part);
// Returns lines with this text's line ends.
[[nodiscard]] std::string with_line_breaks(const TextEdits& text, std::string lines);

}   // namespace dryground::files

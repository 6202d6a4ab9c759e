// Inside the files room: whole tables and list items of a TOML text, put in and taken out with the lines that they
// stand on.
#pragma once

#include <string>
#include <vector>

#include "text_edits_internal.hpp"

namespace dryground::files {

// From here to before there, in bytes.
struct TextSpan {
    std::size_t begin = 0, end = 0;
};
using TablePath = std::vector<std::string>;   // names; of lists of tables the number from 0: layers, 2, objects, 0

// The text by its headers: each part is from a [header], with the comments directly above it, to before the next.
class TextTables {
public:
    TextTables(const TextEdits& text, const toml::table& root);

    // The parts of a table and of all that is inside of it, one after another.
    [[nodiscard]] std::vector<TextSpan> parts(const TablePath& path) const;
    [[nodiscard]] bool has_header(const TablePath& path) const;   // [a.b] itself, not only [a.b.c]

private:
    struct Part {
        TablePath path;
        TextSpan span;
    };
    std::vector<Part> parts_;
};

// Behind the last thing that a table says, as one more: in an inline table before its brace, else on a line below.
void append_entry(TextEdits& text, const toml::table& table, const std::string& entry);
// One more item of a list in a table: at its end, on a line of its own where the last one is; a list of its own, below
// the key `after`, where there is no list yet.
void append_item(TextEdits& text, const toml::table& table, const std::string& list, const std::string& item,
                 const std::string& after);
// A file into a world's list `maps` or `tilesets`; false where it is in it already, or that is no list.
[[nodiscard]] bool enter_in_list(TextEdits& text, const toml::table& world, const std::string& list,
                                 const std::string& file);
// Takes an item out of a list, with its comma; with its line, where nothing else is on it but a comment.
void drop_item(TextEdits& text, const toml::node& item);
// Takes parts out, with the empty lines behind them.
void drop_parts(TextEdits& text, const std::vector<TextSpan>& parts);
// Takes tree.table.name out, however it is written; false where its keys are lines among those of others.
[[nodiscard]] bool drop_named(TextEdits& text, const toml::table& tree, const std::string& table,
                              const std::string& name);
// Puts a part in before a place: its lines, parted by an empty line from what is above and below.
void insert_part(TextEdits& text, std::size_t at, const std::string& part);
// Without what is empty at its end.
[[nodiscard]] std::string part_text(const TextEdits& text, const TextSpan& part);
// Lines as this text ends them.
[[nodiscard]] std::string with_line_breaks(const TextEdits& text, std::string lines);

}   // namespace dryground::files

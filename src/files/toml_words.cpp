// Translates the TOML parser's errors to words that help people who write the files.

#include "toml_words_internal.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>

namespace dryground::files {

namespace {

bool has(std::string_view text, std::string_view part) { return text.find(part) != std::string_view::npos; }

// Returns the line of a place, from 1.
std::string_view line_at(std::string_view text, int line) {
    for (int n = 1; n < line; ++n) {
        const std::size_t end = text.find('\n');
        if (end == std::string_view::npos) return {};
        text.remove_prefix(end + 1);
    }
    return text.substr(0, text.find_first_of("\r\n"));
}

// Returns what stands after the last `=` before a column (in characters, from 1) up to the next blank, comma or
// bracket.
std::string_view value_at(std::string_view line, int column) {
    std::size_t at = 0;
    for (int n = 1; n < column && at < line.size(); ++n) do
            ++at;
        while (at < line.size() && (static_cast<unsigned char>(line[at]) & 0xC0) == 0x80);
    const std::size_t before = at == 0 ? std::string_view::npos : line.find_last_of("=,[{", at - 1);
    line.remove_prefix(before == std::string_view::npos ? 0 : before + 1);
    const std::size_t first = line.find_first_not_of(" \t");
    line.remove_prefix(first == std::string_view::npos ? line.size() : first);
    return line.substr(0, line.find_first_of(" \t,]}#"));
}

// Returns the first text between single quotes in the parser's message.
std::string_view quoted(std::string_view description) {
    const std::size_t from = description.find('\'');
    if (from == std::string_view::npos) return {};
    const std::size_t to = description.find('\'', from + 1);
    return to == std::string_view::npos ? std::string_view() : description.substr(from + 1, to - from - 1);
}

// Returns what the parser met: the text between quotes after "saw".
std::string_view seen(std::string_view description) {
    const std::size_t saw = description.find("saw '");
    return saw == std::string_view::npos ? std::string_view() : quoted(description.substr(saw));
}

SyntaxWords no_value(std::string_view value) {
    for (const std::string_view curly : {"“", "”", "‘", "’", "„"})
        if (has(value, curly)) return {fmt::format("{} is not a quote in TOML", curly), {"use straight quotes", "\""}};
    const bool word =
        !value.empty() && std::none_of(value.begin(), value.end(), [](char c) { return c == '"' || c == '\''; });
    if (!word) return {"there is no value here", {"a value is a text in quotes, a number, true or false", ""}};
    if (value == "yes" || value == "Yes" || value == "True")
        return {fmt::format("'{}' is not a value", value), {"write", "true"}};
    if (value == "no" || value == "No" || value == "False")
        return {fmt::format("'{}' is not a value", value), {"write", "false"}};
    return {fmt::format("'{}' is neither a text in quotes nor a number, true or false", value),
            {"write texts in quotes", fmt::format("\"{}\"", value)}};
}

// Recognises a colour that is taken for a comment.
SyntaxWords comment_for_value(std::string_view line) {
    std::string_view colour = line.substr(std::min(line.size(), line.find('#')));
    colour = colour.substr(0, colour.find_first_of(" \t,]}"));
    return {"no value: # starts a comment", {"write colours in quotes", fmt::format("\"{}\"", colour)}};
}

// Recognises more than a value in its line.
SyntaxWords too_much(std::string_view description, std::string_view value) {
    const std::string_view next = seen(description);
    if (next == "," && !value.empty() && value.find_first_not_of("+-0123456789") == std::string_view::npos)
        return {"a comma within a number", {"write a point", value.empty() ? "" : fmt::format("{}.5", value)}};
    if (next == "}" || next == "]") return {fmt::format("one {} too many", next), {"remove it", ""}};
    return {"there is more text after the value",
            {"each key has a line of its own; a text with ' in it stands between \"…\", one with \" in it between '…'",
             ""}};
}

struct Known {
    std::array<std::string_view, 2> parts;   // of the parser's message
    std::string_view what, hint, set;
};
// The first that fits counts.
constexpr Known known[] = {
    {{"unescaped control char", ""},
     "closing quote missing",
     "a text ends on its line; a longer one stands between '''",
     ""},
    {{"string", "end-of-file"}, "closing quotes missing: the text does not end", "end it as it began", "'''"},
    {{"unicode scalar", ""},
     "a backslash between double quotes starts a special character",
     "use / in paths, or single quotes",
     ""},
    {{"escape", ""},
     "a backslash between double quotes starts a special character",
     "use / in paths, or single quotes",
     ""},
    {{"array", "end-of-file"}, "closing ] missing: the list does not end", "add it", "]"},
    {{"array", "expected comma"}, "a comma or ] is missing in a list", "separate values by commas", ""},
    {{"table header", "expected ']'"}, "closing ] missing after the table's name", "add it", "]"},
    {{"table header", "blank bare keys"}, "a table without a name", "write its name between the brackets", ""},
    {{"dangling comma", ""}, "a comma before }", "remove it", ""},
    {{"inline table", "end-of-file"}, "closing } missing", "add it", "}"},
    {{"inline table", "saw '\\n'"},
     "closing } missing: a table between { and } is one line",
     "write it in one line, or as a table of its own",
     ""},
    {{"inline table", "expected"}, "a comma or } is missing between { and }", "separate keys by commas", ""},
    {{"expected '='", ""}, "= missing after the key", "a line is: key = value", ""},
    {{"expected value", ""}, "no value after =", "write one, or remove the line", ""},
    {{"root table", "saw '/'"}, "/ cannot start a line", "comments start with #", ""},
    {{"root table", "expected keys"},
     "this cannot start a line",
     "a line is: key = value, or [table], or # comment",
     ""},
    {{"leading zeroes", ""}, "a number starts with 0", "remove the 0, or write a text in quotes", ""},
    {{"not representable", ""}, "this number is too large", "", ""},
    {{"floating-point", "expected decimal digit"}, "digits missing after the point", "", ""},
};

bool fits(const Known& one, std::string_view description) {
    return has(description, one.parts[0]) && (one.parts[1].empty() || has(description, one.parts[1]));
}

}   // namespace

SyntaxWords syntax_words(std::string_view description, std::string_view text, const Place& at) {
    const std::string_view line = line_at(text, at.line), value = value_at(line, at.column);
    if (has(description, "could not determine value type") || has(description, "parsing boolean"))
        return no_value(value);
    if (has(description, "cannot redefine"))
        return {has(description, "table header") ? fmt::format("table [{}] is there already", quoted(description))
                                                 : fmt::format("'{}' is set twice", quoted(description)),
                {"keep one of them", ""}};
    if (has(description, "expected a comment or whitespace")) return too_much(description, value);
    if (has(description, "expected value, saw '#'")) return comment_for_value(line);
    for (const Known& one : known)
        if (fits(one, description)) return {std::string(one.what), {std::string(one.hint), std::string(one.set)}};
    constexpr std::string_view start = "Error while parsing ";
    if (description.rfind(start, 0) == 0) description.remove_prefix(start.size());
    return {std::string(description)};
}

void report_syntax(const Source& source, const toml::parse_error& error, std::string_view text) {
    const Place place = source.at(error.source().begin);
    SyntaxWords words = syntax_words(error.description(), text, place);
    source.add(Rule::syntax, place, {std::move(words.what)},
               words.hint.text.empty() ? std::nullopt : std::optional(std::move(words.hint)));
}

}   // namespace dryground::files

// Keeps the rows of large maps from the TOML parser: follows TOML only far enough to know where a key, a comment or a
// text begins and ends.
//
// Cost: a look at each byte.

#include "long_rows_internal.hpp"

#include <algorithm>

#include "../model/utf8_internal.hpp"

namespace dryground::files {

namespace {

constexpr std::size_t least_length = 1024;   // of what is worth it

bool is_plain(std::string_view content) {
    return std::none_of(content.begin(), content.end(), [](char c) {
        return (static_cast<unsigned char>(c) < 0x20 && c != '\n' && c != '\t') || c == 0x7f;
    });
}

// Returns where a text ends that begins at the quotes there; npos if it does not end.
std::size_t text_end(std::string_view text, std::size_t at) {
    const char quote = text[at];
    const std::string three(3, quote);
    const bool many_lines = text.compare(at, 3, three) == 0;
    if (many_lines && quote == '\'') {
        const std::size_t end = text.find(three, at + 3);
        return end == std::string_view::npos ? end : end + 3;
    }
    for (std::size_t i = at + (many_lines ? 3 : 1); i < text.size(); ++i) {
        if (text[i] == '\\' && quote == '"')
            ++i;
        else if (many_lines ? text.compare(i, 3, three) == 0 : text[i] == quote)
            return i + (many_lines ? 3 : 1);
        else if (text[i] == '\n' && !many_lines)
            return std::string_view::npos;   // a mistake: the parser reports it
    }
    return std::string_view::npos;
}

// Returns whether all that stands before a place in its line is `rows =`.
bool is_rows_key(std::string_view line_before) {
    const auto trimmed = [](std::string_view part) {
        const std::size_t first = part.find_first_not_of(" \t");
        return first == std::string_view::npos ? std::string_view()
                                               : part.substr(first, part.find_last_not_of(" \t") + 1 - first);
    };
    const std::string_view all = trimmed(line_before);
    return !all.empty() && all.back() == '=' && trimmed(all.substr(0, all.size() - 1)) == "rows";
}

}   // namespace

Lightened lighten(std::string_view text) {
    Lightened result;
    std::size_t copied = 0, line = 1, line_start = text.substr(0, 3) == "\xEF\xBB\xBF" ? 3 : 0, at = line_start;
    while ((at = text.find_first_of("#\"'\n", at)) != std::string_view::npos) {
        if (text[at] == '\n') {
            ++line;
            line_start = ++at;
            continue;
        }
        if (text[at] == '#') {
            at = std::min(text.find('\n', at), text.size());
            continue;
        }
        const std::size_t end = text_end(text, at);
        if (end == std::string_view::npos) break;
        const std::string_view whole = text.substr(at, end - at);
        if (whole.size() >= least_length && whole.substr(0, 4) == "'''\n" && text.substr(end, 1) != "'" &&
            is_rows_key(text.substr(line_start, at - line_start))) {
            const std::string_view content = whole.substr(4, whole.size() - 7);
            if (is_plain(content)) {
                result.text.append(text, copied, at + 4 - copied);
                result.text.append(static_cast<std::size_t>(std::count(content.begin(), content.end(), '\n')), '\n');
                copied = end - 3;
                result.rows[{line, 1 + utf8::count(text.substr(line_start, at - line_start))}] = content;
            }
        }
        line += static_cast<std::size_t>(std::count(whole.begin(), whole.end(), '\n'));
        if (const std::size_t last = whole.rfind('\n'); last != std::string_view::npos) line_start = at + last + 1;
        at = end;
    }
    result.text.append(text, copied, std::string_view::npos);
    return result;
}

}   // namespace dryground::files

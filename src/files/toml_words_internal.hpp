// Inside the files room: what is wrong with a text that is not TOML, in words for people who are not programmers.
#pragma once

#include <string>
#include <string_view>

#include "table_internal.hpp"

namespace dryground::files {

struct SyntaxWords {
    std::string what;   // "closing quote missing"
    Hint hint{};        // empty if only the parser's own words are known
};
// Returns the error in words. `text` is the whole file, `description` the parser's message at a place there. Common
// mistakes are recognised by the parser's words; for others these are returned, shortened.
[[nodiscard]] SyntaxWords syntax_words(std::string_view description, std::string_view text, const Place& at);

// Reports a parser's error as a finding.
void report_syntax(const Source& source, const toml::parse_error& error, std::string_view text);

}   // namespace dryground::files

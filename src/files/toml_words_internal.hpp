// Inside the files room: what is wrong with a text that is no TOML, in words for people who are no programmers.
#pragma once

#include <string>
#include <string_view>

#include "table_internal.hpp"

namespace dryground::files {

struct SyntaxWords {
    std::string what;   // "closing quote missing"
    Hint hint{};        // empty where the parser's own words are all that is known
};
// `text` is the whole file, `description` what the parser says of it at a place there. Mistakes that people make are
// recognised by the parser's words; of others it says these, shortened.
[[nodiscard]] SyntaxWords syntax_words(std::string_view description, std::string_view text, const Place& at);

// Reports a parser's error as a finding.
void report_syntax(const Source& source, const toml::parse_error& error, std::string_view text);

}   // namespace dryground::files

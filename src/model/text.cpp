#include "dryground/text.hpp"

#include "utf8_internal.hpp"

namespace dryground {

bool matches_pattern(std::string_view pattern, std::string_view name) {
    // On a mismatch the last star takes one character more.
    std::size_t p = 0, n = 0, star = std::string_view::npos, mark = 0;
    while (n < name.size()) {
        if (p < pattern.size() && pattern[p] == '*') {
            star = p++;
            mark = n;
        } else if (p < pattern.size() && pattern[p] == name[n]) {
            ++p, ++n;
        } else if (star != std::string_view::npos) {
            p = star + 1;
            n = ++mark;
        } else {
            return false;
        }
    }
    while (p < pattern.size() && pattern[p] == '*') ++p;
    return p == pattern.size();
}

std::size_t count_characters(std::string_view text) { return utf8::count(text); }

}   // namespace dryground

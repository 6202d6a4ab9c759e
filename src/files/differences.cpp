// Where two texts differ.

#include <fmt/format.h>

#include <algorithm>

#include "../model/utf8_internal.hpp"
#include "differences_internal.hpp"
#include "dryground/edit.hpp"

namespace dryground {

namespace {

std::vector<std::string_view> lines_of(std::string_view text) {
    std::vector<std::string_view> lines;
    while (!text.empty()) {
        const std::size_t end = std::min(text.find('\n'), text.size() - 1) + 1;
        lines.push_back(text.substr(0, end));
        text.remove_prefix(end);
    }
    return lines;
}

// Returns pairs of lines that both texts have, in order: the longest common subsequence of what is between their equal
// first and last lines. If that is long it counts as one change: nobody reads it line by line.
std::vector<std::pair<std::size_t, std::size_t>> common_lines(const std::vector<std::string_view>& a,
                                                              const std::vector<std::string_view>& b) {
    std::vector<std::pair<std::size_t, std::size_t>> pairs;
    std::size_t begin = 0, ends = 0;
    while (begin < std::min(a.size(), b.size()) && a[begin] == b[begin]) pairs.emplace_back(begin, begin), ++begin;
    while (ends < std::min(a.size(), b.size()) - begin && a[a.size() - 1 - ends] == b[b.size() - 1 - ends]) ++ends;
    const std::size_t n = a.size() - begin - ends, m = b.size() - begin - ends;
    if (n > 0 && m > 0 && n * m <= 4'000'000) {
        std::vector<std::vector<std::uint32_t>> longest(n + 1, std::vector<std::uint32_t>(m + 1));
        for (std::size_t i = n; i-- > 0;)
            for (std::size_t j = m; j-- > 0;)
                longest[i][j] = a[begin + i] == b[begin + j] ? longest[i + 1][j + 1] + 1
                                                             : std::max(longest[i + 1][j], longest[i][j + 1]);
        for (std::size_t i = 0, j = 0; i < n && j < m;) {
            if (a[begin + i] == b[begin + j])
                pairs.emplace_back(begin + i++, begin + j++);
            else
                longest[i + 1][j] >= longest[i][j + 1] ? ++i : ++j;
        }
    }
    for (std::size_t i = 0; i < ends; ++i) pairs.emplace_back(a.size() - ends + i, b.size() - ends + i);
    return pairs;
}

}   // namespace

namespace {

// Adds where two lines differ: character by character if they have equally many, else from the first to the last
// difference.
void add_changes_of_line(std::string_view before, std::string_view after, std::size_t at,
                         std::vector<TextChange>& changes) {
    if (before == after) return;
    if (utf8::count(before) == utf8::count(after)) {
        for (std::size_t i = 0, j = 0; i < before.size();) {
            const std::string_view was = before.substr(i, utf8::length(before[i]));
            const std::string_view is = after.substr(j, utf8::length(after[j]));
            if (was != is) changes.push_back({at + i, at + i + was.size(), std::string(is)});
            i += was.size(), j += is.size();
        }
        return;
    }
    const std::size_t shorter = std::min(before.size(), after.size());
    std::size_t begin = 0, ends = 0;
    while (begin < shorter && before[begin] == after[begin]) ++begin;
    while (ends < shorter - begin && before[before.size() - 1 - ends] == after[after.size() - 1 - ends]) ++ends;
    changes.push_back(
        {at + begin, at + before.size() - ends, std::string(after.substr(begin, after.size() - begin - ends))});
}

}   // namespace

std::vector<TextChange> text_changes(std::string_view before, std::string_view after) {
    const std::vector<std::string_view> old_lines = lines_of(before), new_lines = lines_of(after);
    std::vector<TextChange> changes;
    std::size_t i = 0, j = 0, at = 0;
    const auto up_to = [&](std::size_t a, std::size_t b) {
        if (a - i == b - j) {
            for (; i < a; ++i, ++j) {
                add_changes_of_line(old_lines[i], new_lines[j], at, changes);
                at += old_lines[i].size();
            }
            return;
        }
        TextChange change{at, at, {}};
        for (; i < a; ++i) change.end += old_lines[i].size();
        for (; j < b; ++j) change.with += new_lines[j];
        at = change.end;
        changes.push_back(std::move(change));
    };
    for (const auto& [a, b] : common_lines(old_lines, new_lines)) {
        up_to(a, b);
        at += old_lines[i].size();
        ++i, ++j;
    }
    up_to(old_lines.size(), new_lines.size());
    return changes;
}

std::string line_differences(std::string_view before, std::string_view after) {
    constexpr std::size_t around = 3;
    const std::vector<std::string_view> old_lines = lines_of(before), new_lines = lines_of(after);
    struct Line {
        char sign;
        std::string_view text;
        std::size_t number;   // in the new text
    };
    std::vector<Line> all;
    std::size_t i = 0, j = 0;
    const auto up_to = [&](std::size_t a, std::size_t b) {
        while (i < a) all.push_back({'-', old_lines[i++], j + 1});
        while (j < b) all.push_back({'+', new_lines[j], j + 1}), ++j;
    };
    for (const auto& [a, b] : common_lines(old_lines, new_lines)) {
        up_to(a, b);
        all.push_back({' ', new_lines[j], j + 1});
        ++i, ++j;
    }
    up_to(old_lines.size(), new_lines.size());
    std::string out;
    std::size_t told = 0;
    for (std::size_t line = 0; line < all.size(); ++line) {
        bool near = false;
        for (std::size_t k = line < around ? 0 : line - around; k <= std::min(line + around, all.size() - 1); ++k)
            near = near || all[k].sign != ' ';
        if (!near) continue;
        if (told != line || line == 0) out += fmt::format("line {}\n", all[line].number);
        told = line + 1;
        const std::string_view text = all[line].text.substr(0, all[line].text.find_last_not_of("\r\n") + 1);
        out += fmt::format("{} {}\n", all[line].sign, text);
    }
    return out;
}

}   // namespace dryground

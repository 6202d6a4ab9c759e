// Applies two changes of one text together.
//
// Idea. Both are found as differences from the common text; they are applied together unless they touch the same
// characters. Cost: that of the differences.

#include <algorithm>

#include "../files/differences_internal.hpp"
#include "dryground/work.hpp"

namespace dryground {

namespace {

// Returns whether two changes touch the same characters, or insert something at the same place.
bool meet(const TextChange& a, const TextChange& b) {
    if (a.begin == b.begin) return true;
    return a.begin < b.begin ? a.end > b.begin : b.end > a.begin;
}

bool same(const TextChange& a, const TextChange& b) { return a.begin == b.begin && a.end == b.end && a.with == b.with; }

}   // namespace

Merged3 merge_changes(std::string_view was, std::string_view theirs, std::string_view ours) {
    Merged3 result;
    std::vector<TextChange> changes = text_changes(was, theirs);
    const std::size_t theirs_end = changes.size();
    for (TextChange& change : text_changes(was, ours)) {
        const auto end = changes.begin() + static_cast<std::ptrdiff_t>(theirs_end);
        const auto met = std::find_if(changes.begin(), end, [&](const TextChange& one) { return meet(one, change); });
        if (met == end)
            changes.push_back(std::move(change));
        else if (!same(*met, change))
            result.left_out.push_back(1 +
                                      static_cast<std::size_t>(std::count(
                                          was.begin(), was.begin() + static_cast<std::ptrdiff_t>(change.begin), '\n')));
    }
    std::sort(changes.begin(), changes.end(),
              [](const TextChange& a, const TextChange& b) { return a.begin < b.begin; });
    std::size_t at = 0;
    for (const TextChange& change : changes) {
        result.text.append(was, at, change.begin - at);
        result.text += change.with;
        at = change.end;
    }
    result.text.append(was, at, std::string_view::npos);
    result.left_out.erase(std::unique(result.left_out.begin(), result.left_out.end()), result.left_out.end());
    return result;
}

}   // namespace dryground

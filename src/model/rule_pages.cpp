// The documentation's page of rules.

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <iterator>

#include "dryground/report.hpp"

namespace dryground {

std::string_view subject_of(Rule rule) {
    struct Subject {
        Rule first;
        std::string_view name;
    };
    static constexpr std::array<Subject, 7> subjects{{{Rule::syntax, "Reading"},
                                                      {Rule::sheet_cut, "Tile sets"},
                                                      {Rule::svg_size, "Maps"},
                                                      {Rule::start_missing, "Objects"},
                                                      {Rule::link_target, "Links"},
                                                      {Rule::fact_never_true, "Facts, events, names"},
                                                      {Rule::goal_unreachable, "Walking"}}};
    static_assert(std::is_sorted(subjects.begin(), subjects.end(),
                                 [](const Subject& a, const Subject& b) { return a.first < b.first; }));
    if (rule == Rule::waiver_unused) return "Waivers";
    const auto next = std::upper_bound(subjects.begin(), subjects.end(), rule,
                                       [](Rule wanted, const Subject& subject) { return wanted < subject.first; });
    return std::prev(next)->name;
}

std::string text(const RulePage& page, int heading) {
    const RuleText& rule = rule_text(page.rule);
    return std::string(static_cast<std::size_t>(heading), '#') +
           fmt::format(" {}\n\n{} ({})\n\nEffect: {}\n\nExample: `{}`  \nFix: `{}`\n", rule.name, page.means,
                       name_of(rule.severity), page.effect, page.example, page.fix);
}

}   // namespace dryground

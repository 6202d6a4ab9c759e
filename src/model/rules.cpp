// The one table of rules: rules_of_*_internal.hpp, one after another, in the order of Rule.

#include <algorithm>
#include <array>

#include "dryground/report.hpp"
#include "rules_of_files_internal.hpp"
#include "rules_of_maps_internal.hpp"
#include "rules_of_play_internal.hpp"
#include "words_internal.hpp"

namespace dryground {

namespace {

template <class Row, class MakeRow>
constexpr std::array<Row, rule_count> each_rule(MakeRow make_row) {
    std::array<Row, rule_count> rows{};
    std::size_t next = 0;
    const auto add = [&](const auto& table) {
        for (const RuleRow& row : table) rows[next++] = make_row(row);   // more rows than rules do not compile
    };
    add(rules::of_files);
    add(rules::of_maps);
    add(rules::of_play);
    return rows;
}

constexpr auto texts = each_rule<RuleText>([](const RuleRow& row) {
    return RuleText{row.rule, row.name, row.severity, row.sentence, row.arguments};
});
constexpr auto pages = each_rule<RulePage>([](const RuleRow& row) {
    return RulePage{row.rule, row.means, row.effect, row.example, row.fix};
});

// Checks that a rule's row is found by its number.
constexpr bool rows_follow_rules() {
    for (std::size_t i = 0; i < rule_count; ++i)
        if (static_cast<std::size_t>(texts[i].rule) != i || texts[i].name.empty()) return false;
    return true;
}
static_assert(rows_follow_rules(), "a row for each rule, in the order of Rule");

}   // namespace

std::span<const RuleText> all_rules() { return texts; }

const RuleText& rule_text(Rule rule) { return texts[static_cast<std::size_t>(rule)]; }

const RulePage& rule_page(Rule rule) { return pages[static_cast<std::size_t>(rule)]; }

const RuleText* find_rule(std::string_view name) {
    const auto row = std::find_if(texts.begin(), texts.end(), [name](const RuleText& r) { return r.name == name; });
    return row == texts.end() ? nullptr : &*row;
}

std::string_view name_of(Severity severity) { return word_of(severity); }

std::optional<Severity> severity_from(std::string_view name) {
    for (const Severity severity : {Severity::off, Severity::note, Severity::warning, Severity::error})
        if (name_of(severity) == name) return severity;
    return std::nullopt;
}

}   // namespace dryground

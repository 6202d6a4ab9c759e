// Findings in order, their sentences, and the nearest of some names.
//
// Cost: reports are kept sorted; adding at the end is quick.

#include <fmt/args.h>
#include <fmt/format.h>

#include <algorithm>
#include <numeric>
#include <set>
#include <stdexcept>
#include <tuple>

#include "dryground/result.hpp"
#include "dryground/text.hpp"
#include "report_internal.hpp"

namespace dryground {

void detail::refuse_missing_value(const Failure& failure) {
    const std::string why = !failure.fault.empty()   ? failure.fault
                            : failure.report.empty() ? "nothing says why"
                                                     : text(failure.report.findings().front());
    throw std::logic_error("Result: there is no value; test it first, and show why: " + why);
}

std::string message(const Finding& finding) {
    fmt::dynamic_format_arg_store<fmt::format_context> arguments;
    for (const std::string& argument : finding.arguments) arguments.push_back(argument);
    return fmt::vformat(rule_text(finding.rule).sentence, arguments);
}

bool detail::comes_first(const Finding& a, const Finding& b) {
    const auto key = [](const Finding& f) {
        return std::tie(f.place.file, f.place.line, f.place.column, f.place.thing);
    };
    if (key(a) != key(b)) return key(a) < key(b);
    return std::pair(rule_text(a.rule).name, message(a)) < std::pair(rule_text(b.rule).name, message(b));
}

void Report::add(Finding finding) {
    if (finding.severity == Severity::off) return;
    const auto where = std::upper_bound(findings_.begin(), findings_.end(), finding, detail::comes_first);
    findings_.insert(where, std::move(finding));
}

void Report::add(const Report& other) {
    if (&other == this) return add(Report(other));
    const auto own = static_cast<std::ptrdiff_t>(findings_.size());
    findings_.insert(findings_.end(), other.findings_.begin(), other.findings_.end());
    std::inplace_merge(findings_.begin(), findings_.begin() + own, findings_.end(), detail::comes_first);
    waived_ += other.waived_;
}

bool Report::has(Severity at_least) const {
    return std::any_of(findings_.begin(), findings_.end(),
                       [at_least](const Finding& finding) { return finding.severity >= at_least; });
}

Counts Report::counts() const {
    Counts counts;
    counts.waived = waived_;
    for (const Finding& finding : findings_)
        ++(finding.severity == Severity::error     ? counts.error
           : finding.severity == Severity::warning ? counts.warning
                                                   : counts.note);
    return counts;
}

std::string text(const Place& place) {
    if (place.file.empty()) return place.thing;
    if (place.line == 0) return place.thing.empty() ? place.file : fmt::format("{}: {}", place.file, place.thing);
    return fmt::format("{}:{}:{}", place.file, place.line, place.column);
}

std::string text(const Finding& finding) {
    std::string result = fmt::format("{}: {}: {} [{}]\n", text(finding.place), name_of(finding.severity),
                                     message(finding), rule_text(finding.rule).name);
    for (const std::string& detail : finding.details) result += fmt::format("    {}\n", detail);
    for (const Related& related : finding.related)
        result += fmt::format("    {}: {}\n", text(related.place), related.message);
    if (finding.hint) {
        result += "    " + finding.hint->text;
        if (!finding.hint->set.empty()) result += ": " + finding.hint->set;
        result += "\n";
    }
    return visible(result);
}

std::string text(const Report& report) {
    std::string result;
    for (const Finding& finding : report.findings()) result += text(finding);
    return result + text(report.counts()) + "\n";
}

std::string text(const Counts& counts) {
    const std::string waived = counts.waived > 0 ? fmt::format(", {} waived", counts.waived) : "";
    if (counts.error + counts.warning + counts.note == 0) return "no findings" + waived;
    return fmt::format("{}, {}, {}{}", counted(counts.error, "error"), counted(counts.warning, "warning"),
                       counted(counts.note, "note"), waived);
}

namespace {

// Returns the edit distance with swaps of neighbours counted once (optimal string alignment).
std::size_t distance(std::string_view a, std::string_view b) {
    std::vector<std::size_t> before_last, last(b.size() + 1), row(b.size() + 1);
    std::iota(last.begin(), last.end(), std::size_t{0});
    for (std::size_t i = 1; i <= a.size(); ++i) {
        row[0] = i;
        for (std::size_t j = 1; j <= b.size(); ++j) {
            row[j] = std::min({row[j - 1] + 1, last[j] + 1, last[j - 1] + (a[i - 1] != b[j - 1])});
            if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1])
                row[j] = std::min(row[j], before_last[j - 2] + 1);
        }
        before_last = last;
        last = row;
    }
    return last[b.size()];
}

}   // namespace

Report findings_only_in(const Report& one, const Report& other) {
    std::multiset<std::string> known;
    for (const Finding& finding : other.findings()) known.insert(message(finding));
    Report rest;
    for (const Finding& finding : one.findings())
        if (const auto at = known.find(message(finding)); at != known.end())
            known.erase(at);
        else
            rest.add(finding);
    return rest;
}

std::optional<std::string> nearest_name(std::string_view written, std::span<const std::string> names) {
    if (written.empty() || written.size() > 200) return std::nullopt;
    std::optional<std::string> best;
    std::size_t least = std::max<std::size_t>(1, written.size() / 3) + 1;
    for (const std::string& name : names) {
        if (name.size() > written.size() + least || written.size() > name.size() + least) continue;
        if (const std::size_t d = distance(written, name); d < least) {
            least = d;
            best = name;
        }
    }
    return best;
}

}   // namespace dryground

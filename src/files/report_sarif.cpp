// Writes SARIF 2.1.0 (OASIS): the findings as code hosts and editors show them, each rule with its page.

#include <fmt/format.h>

#include <algorithm>

#include "dryground/files.hpp"
#include "dryground/version.hpp"
#include "json_internal.hpp"

namespace dryground {

namespace {

using files::Json;

const char* level_of(Severity severity) {
    return severity == Severity::error ? "error" : severity == Severity::warning ? "warning" : "note";
}

// Returns a path as a URI reference: characters that are not allowed in one are written as %XX.
std::string uri(const std::string& path) {
    std::string text;
    for (const char c : path) {
        const bool plain = (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') ||
                           std::string_view("/._-~").find(c) != std::string_view::npos;
        text += plain ? std::string(1, c) : fmt::format("%{:02X}", static_cast<unsigned char>(c));
    }
    return text;
}

Json location(const Place& place) {
    Json json = Json::object();
    if (!place.file.empty()) {
        json["physicalLocation"]["artifactLocation"] = {{"uri", uri(place.file)}, {"uriBaseId", "WORLD"}};
        if (place.line > 0)
            json["physicalLocation"]["region"] = {{"startLine", place.line},
                                                  {"startColumn", std::max(place.column, 1)}};
    }
    if (!place.thing.empty()) json["logicalLocations"] = Json::array({{{"fullyQualifiedName", place.thing}}});
    return json;
}

Json result(const Finding& finding, std::size_t rule) {
    std::string text = message(finding);
    for (const std::string& detail : finding.details) text += "\n" + detail;
    if (finding.hint) text += "\n" + finding.hint->text + (finding.hint->set.empty() ? "" : ": " + finding.hint->set);
    Json json{{"ruleId", rule_text(finding.rule).name},
              {"ruleIndex", rule},
              {"level", level_of(finding.severity)},
              {"message", {{"text", text}}},
              {"locations", Json::array({location(finding.place)})}};
    if (!finding.related.empty()) {
        Json related = Json::array();
        for (const Related& one : finding.related) {
            Json place = location(one.place);
            place["id"] = related.size();
            place["message"] = {{"text", one.message}};
            related.push_back(std::move(place));
        }
        json["relatedLocations"] = std::move(related);
    }
    return json;
}

}   // namespace

std::string report_sarif(const Report& report) {
    Json rules = Json::array(), results = Json::array();
    std::vector<Rule> numbers;
    for (const RuleText& rule : all_rules()) {
        const RulePage& page = rule_page(rule.rule);
        numbers.push_back(rule.rule);
        rules.push_back({{"id", rule.name},
                         {"shortDescription", {{"text", page.means}}},
                         {"fullDescription", {{"text", fmt::format("{} {}", page.means, page.effect)}}},
                         {"help", {{"text", fmt::format("Example: {}\nFix: {}", page.example, page.fix)}}},
                         {"defaultConfiguration", {{"level", level_of(rule.severity)}}}});
    }
    for (const Finding& finding : report.findings())
        results.push_back(result(
            finding,
            static_cast<std::size_t>(std::find(numbers.begin(), numbers.end(), finding.rule) - numbers.begin())));
    const Json root{
        {"$schema", "https://json.schemastore.org/sarif-2.1.0.json"},
        {"version", "2.1.0"},
        {"runs",
         Json::array(
             {{{"tool",
                {{"driver", {{"name", "Dry Ground"}, {"semanticVersion", version}, {"rules", std::move(rules)}}}}},
               {"columnKind", "unicodeCodePoints"},
               {"results", std::move(results)}}})}};
    return files::json_text(root);
}

}   // namespace dryground

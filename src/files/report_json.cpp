// Writes `dryground/report/1`. What does not apply is left out.

#include "dryground/files.hpp"
#include "json_internal.hpp"

namespace dryground {

namespace {

using files::Json;

void put_place(Json& json, const Place& place) {
    if (!place.file.empty()) json["file"] = place.file;
    if (place.line > 0) json["line"] = place.line;
    if (place.column > 0) json["column"] = place.column;
    if (!place.thing.empty()) json["thing"] = place.thing;
}

Json pair(Cell cell) { return {cell.column, cell.row}; }

Json finding_json(const Finding& finding) {
    Json json{{"rule", rule_text(finding.rule).name}, {"severity", name_of(finding.severity)}};
    put_place(json, finding.place);
    if (!finding.map.empty()) json["map"] = finding.map;
    if (!finding.storey.empty()) json["storey"] = finding.storey;
    if (!finding.layer.empty()) json["layer"] = finding.layer;
    if (finding.cell) json["cell"] = pair(*finding.cell);
    if (!finding.object.empty()) json["object"] = finding.object;
    json["message"] = message(finding);
    if (!finding.details.empty()) json["details"] = finding.details;
    if (finding.hint) {
        json["hint"]["text"] = finding.hint->text;
        if (!finding.hint->set.empty()) json["hint"]["set"] = finding.hint->set;
    }
    for (const Cell cell : finding.cells) json["cells"].push_back(pair(cell));
    if (!finding.outline.empty()) json["outline"] = finding.outline;
    for (const Related& related : finding.related) {
        Json one = Json::object();
        put_place(one, related.place);
        one["message"] = related.message;
        json["related"].push_back(std::move(one));
    }
    return json;
}

}   // namespace

std::string report_json(const Report& report, std::string_view world_title) {
    const Counts counts = report.counts();
    Json findings = Json::array();
    for (const Finding& finding : report.findings()) findings.push_back(finding_json(finding));
    const Json root{
        {"format", "dryground/report/1"},
        {"world", world_title},
        {"counts",
         {{"error", counts.error}, {"warning", counts.warning}, {"note", counts.note}, {"waived", counts.waived}}},
        {"findings", std::move(findings)}};
    return files::json_text(root);
}

}   // namespace dryground

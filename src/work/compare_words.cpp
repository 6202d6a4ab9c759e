// A comparison in words, and as JSON (schema/compare.schema.json).

#include <fmt/format.h>

#include <algorithm>

#include "../files/json_internal.hpp"
#include "dryground/compare.hpp"

namespace dryground {

namespace {

std::string words_of(const CellArea& area) {
    return area.columns == 1 && area.rows == 1
               ? fmt::format("({}, {})", area.column, area.row)
               : fmt::format("({}, {}) {} x {}", area.column, area.row, area.columns, area.rows);
}

std::string line_of(const ThingChanged& thing) {
    if (thing.name.empty()) return fmt::format("unnamed {} {}", thing.words, name_of(thing.difference));
    std::string line = thing.map == thing.name && !thing.map.empty()
                           ? fmt::format("{} {}", thing.sort, name_of(thing.difference))
                           : fmt::format("{} '{}' {}", thing.sort, thing.name, name_of(thing.difference));
    if (!thing.words.empty()) line += ": " + thing.words;
    return line;
}

std::string line_of(const CellsChanged& cells) {
    constexpr std::size_t most = 8;
    std::vector<std::string> places;
    for (const CellArea& place : cells.places) {
        if (places.size() == most) {
            places.push_back(fmt::format("and {} more", cells.places.size() - most));
            break;
        }
        places.push_back(words_of(place));
    }
    return fmt::format("layer '{}': {} {} at {}", cells.layer, cells.count, cells.count == 1 ? "cell" : "cells",
                       fmt::join(places, ", "));
}

std::string line_of(const GroundChanged& ground) {
    return fmt::format("{} on storey {}: {:g} px² became {:g} ({:+g})", ground.barrier, ground.storey, ground.before,
                       ground.after, ground.after - ground.before);
}

}   // namespace

std::vector<std::string> changed_maps(const Comparison& comparison) {
    std::vector<std::string> maps;
    const auto note = [&](const auto& all) {
        for (const auto& one : all)
            if (!one.map.empty() && std::find(maps.begin(), maps.end(), one.map) == maps.end()) maps.push_back(one.map);
    };
    note(comparison.things), note(comparison.cells), note(comparison.ground);
    return maps;
}

std::vector<std::string> lines_of_map(const Comparison& comparison, std::string_view map) {
    std::vector<std::string> lines;
    const auto add = [&](const auto& all) {
        for (const auto& one : all)
            if (one.map == map) lines.push_back(line_of(one));
    };
    add(comparison.things), add(comparison.cells), add(comparison.ground);
    return lines;
}

std::string text(const Comparison& comparison) {
    if (comparison.empty()) return "no difference\n";
    std::string out;
    for (const ThingChanged& thing : comparison.things)
        if (thing.map.empty()) out += line_of(thing) + "\n";
    for (const std::string& map : changed_maps(comparison)) {
        out += fmt::format("map '{}'\n", map);
        for (const std::string& line : lines_of_map(comparison, map)) out += fmt::format("  {}\n", line);
    }
    if (!comparison.new_findings.empty()) out += "new findings:\n" + text(comparison.new_findings);
    if (!comparison.fixed_findings.empty()) out += "fixed findings:\n" + text(comparison.fixed_findings);
    return out;
}

std::string compare_json(const Comparison& comparison) {
    using files::Json;
    Json json{{"format", "dryground/compare/1"},
              {"things", Json::array()},
              {"cells", Json::array()},
              {"ground", Json::array()}};
    for (const ThingChanged& thing : comparison.things) {
        Json one{{"difference", name_of(thing.difference)}, {"sort", thing.sort}};
        if (!thing.name.empty()) one["name"] = thing.name;
        if (!thing.map.empty()) one["map"] = thing.map;
        if (!thing.words.empty()) one["words"] = thing.words;
        json["things"].push_back(std::move(one));
    }
    for (const CellsChanged& cells : comparison.cells) {
        Json places = Json::array();
        for (const CellArea& area : cells.places)
            places.push_back(Json::array({area.column, area.row, area.columns, area.rows}));
        json["cells"].push_back(
            {{"map", cells.map}, {"layer", cells.layer}, {"count", cells.count}, {"places", std::move(places)}});
    }
    for (const GroundChanged& ground : comparison.ground)
        json["ground"].push_back({{"map", ground.map},
                                  {"storey", ground.storey},
                                  {"barrier", ground.barrier},
                                  {"before", ground.before},
                                  {"after", ground.after}});
    json["new_findings"] = Json::parse(report_json(comparison.new_findings, ""))["findings"];
    json["fixed_findings"] = Json::parse(report_json(comparison.fixed_findings, ""))["findings"];
    return files::json_text(json);
}

}   // namespace dryground

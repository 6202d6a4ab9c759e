// Runs all rules on a world, and brings their findings in order.
//
// Each group of rules is a function of its own (rules_internal.hpp); they share what is worked out once: ground by
// mover, map and storey, and what is reached. Waivers are applied at the end.

#include "dryground/check.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "../ground/ground_internal.hpp"
#include "../model/report_internal.hpp"
#include "rules_internal.hpp"

namespace dryground {

namespace check_rules {

Finding Findings::start(Rule rule, Place place, std::string thing, std::vector<std::string> arguments) const {
    Finding finding;
    finding.rule = rule;
    finding.severity = world_.severity(rule);
    finding.place = std::move(place);
    if (finding.place.file.empty()) finding.place.thing = thing;
    finding.about = std::move(thing);
    finding.arguments = std::move(arguments);
    return finding;
}

std::string px(std::int64_t steps) { return fmt::format("{}", to_px(steps)); }

std::string at_px(Point p) { return fmt::format("[{}, {}]", px(p.x), px(p.y)); }

std::string words_of(const World& world, const Object& object) {
    const std::string& kind = world.kind(object.kind).name;
    return object.name.empty() ? fmt::format("an unnamed {}", kind) : fmt::format("{} '{}'", kind, object.name);
}

std::string thing_of(const Map& map, const Object& object) {
    const std::string& layer = map.layer(object.layer).name;
    return object.name.empty()
               ? fmt::format("map '{}', layer '{}', object at {}", map.name, layer, at_px(object.position))
               : fmt::format("map '{}', object '{}'", map.name, object.name);
}

std::string thing_of(const TileSet& set, const Tile& tile) {
    return fmt::format("tile set '{}', tile '{}'", set.name, tile.name);
}

namespace {

bool is_in(const Finding& finding, const CellArea& cells) {
    const auto inside = [&](Cell cell) {
        return cell.column >= cells.column && cell.row >= cells.row && cell.column < cells.column + cells.columns &&
               cell.row < cells.row + cells.rows;
    };
    if (!finding.cells.empty()) return std::all_of(finding.cells.begin(), finding.cells.end(), inside);
    return finding.cell && inside(*finding.cell);
}

bool silences(const Waiver& waiver, const Finding& finding) {
    return waiver.rule == finding.rule &&
           (waiver.about.empty() || finding.about.compare(0, waiver.about.size(), waiver.about) == 0) &&
           (waiver.map.empty() || waiver.map == finding.map) &&
           (waiver.layer.empty() || waiver.layer == finding.layer) &&
           (waiver.object.empty() || waiver.object == finding.object) &&
           (!waiver.cells || is_in(finding, *waiver.cells));
}

}   // namespace

namespace {

// Returns the storey of a finding's object, else of its layer; none if it has neither.
StoreyId storey_of(const Map& map, const Finding& finding) {
    const ObjectId object = map.find_object(finding.object);
    if (object != ObjectId::none) return map.object(object).storey;
    for (const Layer& layer : map.layers)
        if (!finding.layer.empty() && layer.name == finding.layer) return layer.storey;
    return StoreyId::none;
}

}   // namespace

void name_storey(const World& world, const Map& map, StoreyId storey, Finding& finding) {
    if (ground::storeys_of(map).size() < 2) return;
    finding.storey = world.storey(storey).name;
    finding.details.push_back(fmt::format("on storey '{}'", world.storey(storey).name));
}

Report Findings::take() {
    for (const Map& map : world_.maps()) {   // where there are several, each says on which it is
        if (ground::storeys_of(map).size() < 2) continue;
        for (Finding& finding : findings_)
            if (const StoreyId storey = finding.map == map.name ? storey_of(map, finding) : StoreyId::none;
                storey != StoreyId::none && finding.storey.empty())
                name_storey(world_, map, storey, finding);
    }
    std::stable_sort(findings_.begin(), findings_.end(), detail::comes_first);
    Report report;
    for (Finding& finding : findings_) report.add(std::move(finding));   // each at the end
    findings_.clear();
    return report;
}

Report waived(const World& world, const Findings& findings, const Report& all) {
    Report rest;
    std::vector<bool> used(world.waivers().size());
    std::size_t count = 0;
    for (const Finding& finding : all.findings()) {
        bool silent = false;
        for (std::size_t i = 0; i < used.size(); ++i)
            if (silences(world.waivers()[i], finding)) silent = used[i] = true;
        silent ? static_cast<void>(++count) : rest.add(finding);
    }
    for (std::size_t i = 0; i < used.size(); ++i)
        if (!used[i]) {
            const Waiver& waiver = world.waivers()[i];
            Finding finding = findings.start(Rule::waiver_unused, waiver.place, "a waiver",
                                             {std::string(rule_text(waiver.rule).name)});
            finding.hint = Hint{"remove it: what it was for is fixed, or it stands in the wrong place", ""};
            rest.add(std::move(finding));
        }
    rest.add_waived(count);
    return rest;
}

}   // namespace check_rules

Report check(const World& world, const CheckOptions& options) {
    check_rules::Findings findings(world);
    check_rules::Grounds grounds(world);
    std::map<std::string, std::optional<Image>> images;
    const check_rules::LookAt look = [&](const std::string& file) -> const Image* {
        if (!options.pictures) return nullptr;
        const auto [known, is_new] = images.try_emplace(file);
        if (is_new) known->second = options.pictures(file);
        return known->second ? &*known->second : nullptr;
    };
    using namespace check_rules;
    const bool whole = options.map.empty();
    std::vector<std::function<void()>> groups;
    if (whole)
        groups = {[&] { check_tiles(world, findings); }, [&] { check_tile_shapes(world, findings); },
                  [&] { check_drawn(world, findings); }, [&] { check_firing(world, findings); },
                  [&] { check_art(world, look, findings); }};
    groups.insert(
        groups.end(),
        {[&] { check_maps(world, findings); }, [&] { check_layers(world, findings); },
         [&] { check_limits(world, findings); }, [&] { check_solid_art(world, look, findings); },
         [&] { check_outlines(world, grounds, findings); }, [&] { check_space(world, grounds, findings); },
         [&] { check_objects(world, grounds, findings); }, [&] { check_object_places(world, grounds, findings); }});
    if (whole)
        groups.insert(groups.end(),
                      {[&] { check_links(world, grounds, findings); }, [&] { check_facts(world, findings); },
                       [&] { check_walking(world, grounds, findings); }});
    for (std::size_t i = 0; i < groups.size(); ++i) {
        groups[i]();
        if (options.progress) options.progress(i + 1, groups.size());
    }
    Report all = waived(world, findings, findings.take());
    if (whole) return all;
    Report of_map;
    for (const Finding& finding : all.findings())
        if (finding.map == options.map) of_map.add(finding);
    return of_map;
}

}   // namespace dryground

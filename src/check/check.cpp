#include "dryground/check.hpp"

#include <fmt/format.h>

#include "rules_internal.hpp"

namespace dryground {

namespace check_rules {

Finding Findings::start(Rule rule, Place place, std::string thing, std::vector<std::string> arguments) const {
    Finding finding;
    finding.rule = rule;
    finding.severity = world_.severity(rule);
    finding.place = std::move(place);
    if (finding.place.file.empty()) finding.place.thing = std::move(thing);
    finding.arguments = std::move(arguments);
    return finding;
}

std::string px(std::int64_t steps) { return fmt::format("{}", to_px(steps)); }

std::string at_px(Point p) { return fmt::format("[{}, {}]", px(p.x), px(p.y)); }

std::string words_of(const World& world, const Object& object) {
    const std::string& kind = world.kinds()[static_cast<std::size_t>(object.kind)].name;
    return object.name.empty() ? fmt::format("an unnamed {}", kind) : fmt::format("{} '{}'", kind, object.name);
}

std::string thing_of(const Map& map, const Object& object) {
    const std::string& layer = map.layers[static_cast<std::size_t>(object.layer)].name;
    return object.name.empty()
               ? fmt::format("map '{}', layer '{}', object at {}", map.name, layer, at_px(object.position))
               : fmt::format("map '{}', object '{}'", map.name, object.name);
}

}   // namespace check_rules

Report check(const World& world) {
    check_rules::Findings findings(world);
    check_rules::Grounds grounds(world);
    check_rules::check_tiles(world, findings);
    check_rules::check_maps(world, findings);
    check_rules::check_objects(world, grounds, findings);
    check_rules::check_links(world, grounds, findings);
    return findings.take();
}

}   // namespace dryground

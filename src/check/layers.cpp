// Rules about layers: decor that would collide, layers that do nothing, directions without lines.

#include <fmt/format.h>

#include <algorithm>

#include "../ground/ground_internal.hpp"
#include "rules_internal.hpp"

namespace dryground::check_rules {

Finding start_layer(const Findings& findings, Rule rule, const Map& map, const Layer& layer,
                    std::vector<std::string> arguments) {
    Finding finding = findings.start(rule, layer.place, fmt::format("map '{}', layer '{}'", map.name, layer.name),
                                     std::move(arguments));
    finding.map = map.name, finding.layer = layer.name;
    return finding;
}

namespace {

bool collides(const Tile& tile) {
    const std::vector<ground::Meaning> meanings = ground::meanings_of(tile);
    return std::any_of(meanings.begin(), meanings.end(), [](const ground::Meaning& meaning) {
        return !meaning.adds || meaning.shape->fault == ShapeFault::none;
    });
}

bool does_anything(const Tile& tile) {
    return collides(tile) || (tile.flags && *tile.flags != 0) || tile.sides || !tile.reacts.empty() ||
           !tile.gives.empty() || tile.leads != StoreyId::none || !tile.decided;
}

// Returns the numbers of the palette that stand in a layer.
std::vector<std::uint32_t> numbers_in(const Map& map, const Layer& layer) {
    std::vector<std::uint32_t> numbers;
    for (std::uint32_t n = 0; n < std::min(layer.counts.size(), map.palette.size()); ++n)
        if (layer.counts[n] > 0 && map.palette[n].tile >= 0) numbers.push_back(n);
    return numbers;
}

void check_purpose(const World& world, const Map& map, const Layer& layer, Findings& findings) {
    const std::vector<std::uint32_t> numbers = numbers_in(map, layer);
    if (numbers.empty()) return;
    if (!ground::may_count(layer)) {
        std::vector<std::string> colliding;
        for (const std::uint32_t n : numbers)
            if (const Tile& tile = world.tile(map.palette[n]);
                collides(tile) && std::find(colliding.begin(), colliding.end(), tile.name) == colliding.end())
                colliding.push_back(tile.name);
        if (colliding.empty()) return;
        Finding finding = start_layer(findings, Rule::decor_with_shapes, map, layer,
                                      {layer.name, fmt::format("{}", fmt::join(colliding, ", "))});
        finding.hint = Hint{"set decor = false if they should, or use tiles without shapes", ""};
        findings.add(std::move(finding));
        return;
    }
    const bool says = layer.barrier != BarrierId::none || !layer.trigger.empty() || layer.flags;
    if (says || std::any_of(numbers.begin(), numbers.end(),
                            [&](std::uint32_t n) { return does_anything(world.tile(map.palette[n])); }))
        return;
    Finding finding = start_layer(findings, Rule::layer_without_shapes, map, layer, {layer.name});
    finding.hint = Hint{"declare that it is for looks only", "decor = true"};
    findings.add(std::move(finding));
}

// Reports a direction for lines where there are none.
void check_one_way(const World& world, const Map& map, std::size_t number, Findings& findings) {
    const Layer& layer = map.layers[number];
    if (!ground::directs_lines(layer)) return;
    for (const std::uint32_t n : numbers_in(map, layer))
        for (const Shape& shape : world.tile(map.palette[n]).shapes)
            if (!shape.line.empty()) return;
    for (const Object& object : map.objects)
        if (object.layer == id_of<LayerId>(number) && !object.line.empty()) return;
    Finding finding = start_layer(findings, Rule::one_way_nothing, map, layer, {layer.name});
    finding.hint = Hint{"only lines can be passed one way: give its tiles lines, or take one_way out", ""};
    findings.add(std::move(finding));
}

}   // namespace

void check_layers(const World& world, Findings& findings) {
    for (const Map& map : world.maps()) {
        for (std::size_t l = 0; l < map.layers.size(); ++l) {
            if (!map.layers[l].holds_objects) check_purpose(world, map, map.layers[l], findings);
            check_one_way(world, map, l, findings);
        }
    }
}

}   // namespace dryground::check_rules

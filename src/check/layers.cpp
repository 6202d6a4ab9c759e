// Rules about layers and sizes: decor that would collide, layers that do nothing, solids and art that do not go
// together, and what the target game can take.

#include <fmt/format.h>

#include <algorithm>

#include "../ground/ground_internal.hpp"
#include "dryground/contacts.hpp"
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

// The numbers of the palette that stand in a layer.
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

// ---- what the target can take ----

class Limits {
public:
    Limits(const World& world, Findings& findings) : world_(world), findings_(findings) {}

    void run() {
        const auto count = [](const auto& list) { return static_cast<std::int64_t>(list.size()); };
        at_most("maps", count(world_.maps()), world_.place_of_limit("maps"), "world", "the world has {} maps");
        at_most("facts", count(world_.facts()), world_.place_of_limit("facts"), "world", "the world has {} facts");
        at_most("events", count(world_.events()), world_.place_of_limit("events"), "world", "the world has {} events");
        at_most("piece_vertices", world_.merging().most_vertices, world_.place_of_limit("piece_vertices"), "world",
                "pieces have up to {} vertices");
        for (const TileSet& set : world_.tilesets()) {
            const std::string thing = fmt::format("tile set '{}'", set.name);
            at_most("tiles_per_set", count(set.tiles), set.place, thing, thing + " has {} tiles");
            if (set.sheet)
                at_most("sheet_px", std::max(set.sheet->width, set.sheet->height),
                        set.sheet->place.line > 0 ? set.sheet->place : set.place, thing,
                        "the sheet of " + thing + " is {} px long");
        }
        for (const Map& map : world_.maps()) of_map(map);
        contact_bits();
    }

private:
    void of_map(const Map& map) {
        const std::string thing = fmt::format("map '{}'", map.name);
        at_most("layers", static_cast<std::int64_t>(map.layers.size()), map.place, thing, thing + " has {} layers");
        at_most("columns", map.columns, map.place, thing, thing + " has {} columns");
        at_most("rows", map.rows, map.place, thing, thing + " has {} rows");
        at_most("objects_per_map", static_cast<std::int64_t>(map.objects.size()), map.place, thing,
                thing + " has {} objects");
        std::vector<KindId> kinds;
        for (const Object& object : map.objects) kinds.push_back(object.kind);
        std::sort(kinds.begin(), kinds.end());
        at_most("kinds_per_map", std::unique(kinds.begin(), kinds.end()) - kinds.begin(), map.place, thing,
                thing + " has objects of {} kinds");
        if (world_.limits().count("chain_points") == 0) return;
        std::int64_t longest = 0;
        for (const Group& group : merge(world_, map, {.pieces = false}).groups)
            for (const Chain& chain : group.chains)
                longest = std::max(longest, static_cast<std::int64_t>(chain.points.size()));
        at_most("chain_points", longest, map.place, thing, "the longest chain of " + thing + " has {} points");
    }

    void at_most(const char* limit, std::int64_t is, const Place& place, const std::string& thing,
                 const std::string& words) {
        const auto most = world_.limits().find(limit);
        if (most == world_.limits().end() || is <= most->second) return;
        std::string start = words.substr(0, words.find("{}")), end = words.substr(words.find("{}") + 2);
        Finding finding = findings_.start(Rule::limit, place, thing,
                                          {fmt::format("{}{}{}", start, is, end), "", fmt::format("{}", most->second)});
        finding.arguments[0] = start.substr(0, start.size() - 1), finding.arguments[1] = fmt::format("{}{}", is, end);
        finding.details.push_back(fmt::format("[limits] sets {} = {}", limit, most->second));
        findings_.add(std::move(finding));
    }

    void contact_bits() {
        const auto needed = static_cast<std::int64_t>(world_.barriers().size() + world_.movers().size() + 1);
        const auto said = world_.limits().find("contact_bits");
        const std::int64_t most = said == world_.limits().end() ? 64 : std::min<std::int64_t>(64, said->second);
        if (needed <= most) return;
        Finding finding = findings_.start(Rule::contact_bits, world_.place_of_limit("contact_bits"), "world",
                                          {fmt::format("{}", needed), fmt::format("{}", most)});
        finding.details.push_back(fmt::format("{} barriers, {} movers, and one bit for all triggers",
                                              world_.barriers().size(), world_.movers().size()));
        finding.hint = Hint{"let barriers that stop the same movers be one", ""};
        findings_.add(std::move(finding));
    }

    const World& world_;
    Findings& findings_;
};

// A direction for lines, where there are none.
void check_one_way(const World& world, const Map& map, std::size_t number, Findings& findings) {
    const Layer& layer = map.layers[number];
    if (!ground::directs_lines(layer)) return;
    for (const std::uint32_t n : numbers_in(map, layer))
        for (const Shape& shape : world.tile(map.palette[n]).shapes)
            if (!shape.line.empty()) return;
    for (const Object& object : map.objects)
        if (object.layer == static_cast<int>(number) && !object.line.empty()) return;
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
    Limits(world, findings).run();
}

}   // namespace dryground::check_rules

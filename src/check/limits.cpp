// What a world uses of what its target game can take at most ([limits]): counted here, for checks and for lists.

#include <fmt/format.h>

#include <algorithm>
#include <stdexcept>

#include "dryground/merge.hpp"
#include "rules_internal.hpp"

namespace dryground {

namespace {

std::int64_t count(std::size_t things) { return static_cast<std::int64_t>(things); }

std::int64_t kinds_on(const Map& map) {
    std::vector<KindId> kinds;
    for (const Object& object : map.objects) kinds.push_back(object.kind);
    std::sort(kinds.begin(), kinds.end());
    return std::unique(kinds.begin(), kinds.end()) - kinds.begin();
}

std::int64_t longest_chain(const World& world, const Map& map) {
    std::size_t longest = 0;
    for (const Group& group : merge(world, map, {.forms = {MergeForm::chains}}).groups)
        for (const Chain& chain : group.chains) longest = std::max(longest, chain.points.size());
    return count(longest);
}

// "{}" stands for the name of a map or tile set.
struct OfWorld {
    std::string_view limit, subject, unit;
    std::int64_t (*used)(const World&);
};
struct OfMap {
    std::string_view limit, subject, unit;
    std::int64_t (*used)(const World&, const Map&);
};
struct OfTileSet {
    std::string_view limit, subject, unit;
    std::int64_t (*used)(const TileSet&);
};

constexpr OfWorld of_world[] = {
    {"maps", "the world has", "maps", [](const World& world) { return count(world.maps().size()); }},
    {"facts", "the world has", "facts", [](const World& world) { return count(world.facts().size()); }},
    {"events", "the world has", "events", [](const World& world) { return count(world.events().size()); }},
    {"contact_bits", "the world needs", "contact bits",   // one of them for all triggers
     [](const World& world) { return count(world.barriers().size() + world.movers().size() + 1); }},
    {"piece_vertices", "pieces have up to", "vertices",
     [](const World& world) { return std::int64_t{world.merging().most_vertices}; }},
};
constexpr OfMap of_maps[] = {
    {"layers", "map '{}' has", "layers", [](const World&, const Map& map) { return count(map.layers.size()); }},
    {"columns", "map '{}' has", "columns", [](const World&, const Map& map) { return std::int64_t{map.columns}; }},
    {"rows", "map '{}' has", "rows", [](const World&, const Map& map) { return std::int64_t{map.rows}; }},
    {"objects_per_map", "map '{}' has", "objects",
     [](const World&, const Map& map) { return count(map.objects.size()); }},
    {"kinds_per_map", "map '{}' has objects of", "kinds", [](const World&, const Map& map) { return kinds_on(map); }},
    {"chain_points", "the longest chain of map '{}' has", "points", longest_chain},
};
constexpr OfTileSet of_tilesets[] = {
    {"tiles_per_set", "tile set '{}' has", "tiles", [](const TileSet& set) { return count(set.tiles.size()); }},
    {"sheet_px", "the sheet of tile set '{}' is", "px long",
     [](const TileSet& set) { return std::int64_t{set.sheet ? std::max(set.sheet->width, set.sheet->height) : 0}; }},
};

}   // namespace

std::vector<LimitUse> limit_uses(const World& world, std::string_view limit) {
    for (const OfWorld& one : of_world)
        if (one.limit == limit)
            return {{one.used(world), MapId::none, TileSetId::none, std::string(one.subject), std::string(one.unit)}};
    std::vector<LimitUse> uses;
    for (const OfMap& one : of_maps)
        for (std::size_t m = 0; one.limit == limit && m < world.maps().size(); ++m)
            uses.push_back({one.used(world, world.maps()[m]), id_of<MapId>(m), TileSetId::none,
                            fmt::format(fmt::runtime(one.subject), world.maps()[m].name), std::string(one.unit)});
    for (const OfTileSet& one : of_tilesets)
        for (std::size_t t = 0; one.limit == limit && t < world.tilesets().size(); ++t)
            uses.push_back({one.used(world.tilesets()[t]), MapId::none, id_of<TileSetId>(t),
                            fmt::format(fmt::runtime(one.subject), world.tilesets()[t].name), std::string(one.unit)});
    const std::span<const std::string_view> names = limit_names();
    if (std::find(names.begin(), names.end(), limit) == names.end())
        throw std::out_of_range(fmt::format("dryground::limit_uses: there is no limit '{}'", limit));
    return uses;
}

namespace check_rules {

namespace {

// Where a finding about a use is placed, and what it is about.
std::pair<Place, std::string> place_of(const World& world, std::string_view limit, const LimitUse& use) {
    if (use.map != MapId::none) {
        const Map& map = world.map(use.map);
        return {map.place, fmt::format("map '{}'", map.name)};
    }
    if (use.tileset != TileSetId::none) {
        const TileSet& set = world.tileset(use.tileset);
        const bool at_sheet = limit == "sheet_px" && set.sheet->place.line > 0;
        return {at_sheet ? set.sheet->place : set.place, fmt::format("tile set '{}'", set.name)};
    }
    return {world.place_of_limit(std::string(limit)), "world"};
}

// At most 64, whatever the world declares.
void check_contact_bits(const World& world, Findings& findings) {
    const std::int64_t needed = limit_uses(world, "contact_bits").front().used;
    const auto said = world.limits().find("contact_bits");
    const std::int64_t most = said == world.limits().end() ? 64 : std::min<std::int64_t>(64, said->second);
    if (needed <= most) return;
    Finding finding = findings.start(Rule::contact_bits, world.place_of_limit("contact_bits"), "world",
                                     {fmt::format("{}", needed), fmt::format("{}", most)});
    finding.details.push_back(fmt::format("{} barriers, {} movers, and one bit for all triggers",
                                          world.barriers().size(), world.movers().size()));
    finding.hint = Hint{"let barriers that stop the same movers be one", ""};
    findings.add(std::move(finding));
}

}   // namespace

void check_limits(const World& world, Findings& findings) {
    for (const auto& [limit, most] : world.limits()) {
        if (limit == "contact_bits") continue;
        for (const LimitUse& use : limit_uses(world, limit)) {
            if (use.used <= most) continue;
            const auto [place, thing] = place_of(world, limit, use);
            Finding finding =
                findings.start(Rule::limit, place, thing,
                               {use.subject, fmt::format("{} {}", use.used, use.unit), fmt::format("{}", most)});
            finding.details.push_back(fmt::format("[limits] sets {} = {}", limit, most));
            findings.add(std::move(finding));
        }
    }
    check_contact_bits(world, findings);
}

}   // namespace check_rules

}   // namespace dryground

// Compares two versions of a world: cells, objects, named things, ground, findings.
//
//     const auto before = dg::load_version("old/world.toml"), after = dg::load_version("new/world.toml");
//     if (before && after) fmt::print("{}", dg::text(dg::compare(*before, *after)));
//
// Only content counts: comments, order of keys, quotes and line ends are ignored. Threads: free functions without
// shared state.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "dryground/draw.hpp"
#include "dryground/files.hpp"

namespace dryground {

// A world, its drafts, and what `check` finds in it.
struct Version {
    World world;
    WorldBuilder drafts;
    Report report;
};
[[nodiscard]] Result<Version> load_version(const std::string& world_file, const FileReader& reader = read_file);

enum class Difference { added, removed, moved, changed };
[[nodiscard]] std::string_view name_of(Difference difference);

// Changed cells of a layer: how many, and the boxes around connected ones.
struct CellsChanged {
    std::string map, layer;
    std::size_t count = 0;
    std::vector<CellArea> places{};   // row by row
};
struct ThingChanged {
    Difference difference = Difference::changed;
    std::string map;          // empty for things outside maps
    std::string sort, name;   // "object", "layer", "map", "tile", "kind", "fact" …; for keys of the world: the key
    std::string words{};      // what changed: "from [24, 48] to [40, 48]"; "patrol_px, mood"
};
// The area that a barrier covers on a storey of a map, in px².
struct GroundChanged {
    std::string map, storey, barrier;
    double before = 0, after = 0;
};

struct Comparison {
    std::vector<ThingChanged> things{};
    std::vector<CellsChanged> cells{};
    std::vector<GroundChanged> ground{};
    Report new_findings{}, fixed_findings{};   // ignoring lines

    [[nodiscard]] bool empty() const;
};

// Cost: merging each map of both versions, and comparing all cells.
[[nodiscard]] Comparison compare(const Version& before, const Version& after);

[[nodiscard]] std::string text(const Comparison& comparison);
// Return the maps with changes, each once, and the changes of a map, a line each.
[[nodiscard]] std::vector<std::string> changed_maps(const Comparison& comparison);
[[nodiscard]] std::vector<std::string> lines_of_map(const Comparison& comparison, std::string_view map);
// `dryground/compare/1` (schema/compare.schema.json).
[[nodiscard]] std::string compare_json(const Comparison& comparison);

// Draws a map before and after, as SVG 1.1: changed cells, ground and objects are marked in both pictures and listed
// below them. A map that only one version has is drawn once. Of the options all apply except what shows findings.
// Throws std::out_of_range if neither version has the map. Part of DryGround::draw. Cost: drawing and merging both.
[[nodiscard]] std::string draw_comparison(const Version& before, const Version& after, const Comparison& comparison,
                                          std::string_view map, const ArtSource& art_before, const ArtSource& art_after,
                                          const DrawOptions& options = {});

}   // namespace dryground

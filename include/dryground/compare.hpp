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
// `dryground/compare/1` (schema/compare.schema.json).
[[nodiscard]] std::string compare_json(const Comparison& comparison);

}   // namespace dryground

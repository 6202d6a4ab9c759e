// What changed between two versions of a world: cells, objects, what is named, the ground, findings.
//
//     const auto before = dg::load_version("old/world.toml"), after = dg::load_version("new/world.toml");
//     if (before && after) fmt::print("{}", dg::text(dg::compare(*before, *after)));
//
// How files are written does not matter, only what they say: comments, order of keys, quotes and line ends are no
// change. Threads: free functions without shared state.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "dryground/files.hpp"

namespace dryground {

// A world with what its files say, and what `check` finds in it.
struct Version {
    World world;
    WorldBuilder drafts;
    Report report;
};
[[nodiscard]] Result<Version> load_version(const std::string& world_file, const FileReader& reader = read_file);

enum class Difference { added, removed, moved, changed };
[[nodiscard]] std::string_view name_of(Difference difference);

// Cells of a layer that hold something else: how many, and the boxes around those that hang together.
struct CellsChanged {
    std::string map, layer;
    std::size_t count = 0;
    std::vector<CellArea> places{};   // row by row
};
struct ThingChanged {
    Difference difference = Difference::changed;
    std::string map;          // where it is one; else empty
    std::string sort, name;   // "object", "layer", "map", "tile", "kind", "fact" …; of the world's own keys the key
    std::string words{};      // what of it: "from [24, 48] to [40, 48]"; "patrol_px, mood"
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
    Report new_findings{}, fixed_findings{};   // wherever they stand

    [[nodiscard]] bool empty() const;
};

// Cost: that of merging each map of both, and of comparing all cells.
[[nodiscard]] Comparison compare(const Version& before, const Version& after);

[[nodiscard]] std::string text(const Comparison& comparison);
// `dryground/compare/1` (schema/compare.schema.json).
[[nodiscard]] std::string compare_json(const Comparison& comparison);

}   // namespace dryground

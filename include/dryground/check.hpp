// Checks a whole world: finds every mistake that can be found before anyone plays.
//
// Findings are sorted by file, line, column and rule; severities are those the world sets. Threads: free functions
// without shared state. Cost: about that of merging every map, plus a search around each object that is blocked.
#pragma once

#include <cstddef>
#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "dryground/report.hpp"
#include "dryground/world.hpp"

namespace dryground {

struct CheckOptions {
    // The source of pictures, for rules that compare shapes with art; without it they are skipped.
    std::function<std::optional<Image>(const std::string& file)> pictures{};
    // Checks this map alone, by the rules that look at single maps: for worlds of many maps of which only this one was
    // changed or even read. What movers from other maps do there is unknown then. Empty: the whole world, all rules.
    std::string map{};
    std::function<void(std::size_t done, std::size_t all)> progress{};   // called between groups of rules
};

[[nodiscard]] Report check(const World& world, const CheckOptions& options = {});

// How much of a limit of the target game ([limits]) is used.
struct LimitUse {
    std::int64_t used = 0;
    MapId map = MapId::none;   // the map or tile set it belongs to; neither: the world
    TileSetId tileset = TileSetId::none;
    std::string subject, unit;   // "map 'slipway' has", "layers"
};
// Returns the use by each map, each tile set, or the world. Throws std::out_of_range for a name that is not in
// `limit_names()`. Cost: counting; for "chain_points" merging every map.
[[nodiscard]] std::vector<LimitUse> limit_uses(const World& world, std::string_view limit);

}   // namespace dryground

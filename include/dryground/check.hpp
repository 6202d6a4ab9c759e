// Checks of a whole world: every mistake that can be found before anyone plays.
//
// Findings are sorted by file, line, column, rule; severities are the world's. Threads: free functions without shared
// state. Cost: about that of merging every map, plus a search around each object that stands in the way.
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
    // Where to look at pictures by their files, for what compares shapes with art; without it that is passed over.
    std::function<std::optional<Image>(const std::string& file)> pictures{};
    // The one map that is looked at, by the rules that look at maps one by one: where a world of many maps was changed
    // in one of them, say, and the others were not even read; what movers from other maps do there is then unknown.
    // Empty: all of the world, by all rules.
    std::string map{};
    std::function<void(std::size_t done, std::size_t all)> progress{};   // called between groups of rules
};

[[nodiscard]] Report check(const World& world, const CheckOptions& options = {});

// How much of what the target game can take ([limits]) something uses.
struct LimitUse {
    std::int64_t used = 0;
    MapId map = MapId::none;   // whose it is; neither: the world's
    TileSetId tileset = TileSetId::none;
    std::string subject, unit;   // "map 'slipway' has", "layers"
};
// By each map, each tile set, or the world. Throws std::out_of_range for a name that is not in `limit_names()`. Cost:
// counting; for "chain_points" merging every map.
[[nodiscard]] std::vector<LimitUse> limit_uses(const World& world, std::string_view limit);

}   // namespace dryground

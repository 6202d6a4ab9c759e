// Checks of a whole world: every mistake that can be found before anyone plays.
//
// Findings are sorted by file, line, column, rule; severities are the world's. Threads: free functions without shared
// state. Cost: about that of merging every map, plus a search around each object that stands in the way.
#pragma once

#include "dryground/report.hpp"
#include "dryground/world.hpp"

namespace dryground {

[[nodiscard]] Report check(const World& world);

}   // namespace dryground

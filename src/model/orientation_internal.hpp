// Flips and quarter turns about the middle of a cell: flip first, then turn clockwise as seen with y down. Exact.
#pragma once

#include "dryground/world.hpp"

namespace dryground::detail {

// Returns rings turned and flipped. Requires a square cell for turns by 90 and 270. The result's rings run as the
// input's did.
[[nodiscard]] Regions oriented(Regions area, std::int32_t width, std::int32_t height, const Orientation& orientation);
[[nodiscard]] Ring oriented_line(Ring line, std::int32_t width, std::int32_t height, const Orientation& orientation);
[[nodiscard]] OneWay oriented(OneWay one_way, const Orientation& orientation);
[[nodiscard]] Sides oriented(const Sides& sides, const Orientation& orientation);

}   // namespace dryground::detail

// The same work done by general-purpose libraries, from what a caller has (polygons) to what a caller wants (polygons
// with holes). What is given back is how much there is, so that nothing is optimised away and results can be compared.
#pragma once

#include "dryground/geometry.hpp"

namespace bench {

struct Tally {
    std::size_t regions = 0, vertices = 0;
};

[[nodiscard]] Tally boost_union(const dryground::Regions& polygons);
// Requires boxes.
[[nodiscard]] Tally boost_right_angled_union(const dryground::Regions& boxes);
[[nodiscard]] Tally geos_union(const dryground::Regions& polygons);
// In square steps, with round corners; by and within in steps.
[[nodiscard]] double geos_shrunk_area(const dryground::Regions& regions, double by, double within);
// Rectangles that cover right-angled regions.
[[nodiscard]] std::size_t boost_rectangles(const dryground::Regions& regions);
[[nodiscard]] std::size_t geos_triangles(const dryground::Regions& regions);

}   // namespace bench

// Slow and obvious code, or that of other libraries: what our geometry is compared with.
#pragma once

#include <string>

#include "dryground/geometry.hpp"

namespace oracle {

// GEOS: returns why regions are not a valid multipolygon according to the OGC simple features standard; empty if they
// are.
std::string geos_fault(const dryground::Regions& regions);
// GEOS: the union of polygons: its area in square steps, and how many polygons and holes it has.
struct Tally {
    double area = 0;
    std::size_t regions = 0, holes = 0;
};
Tally geos_union(const dryground::Regions& polygons);
// GEOS: the area in which two sets of regions differ, in square steps.
double geos_difference(const dryground::Regions& a, const dryground::Regions& b);

// GEOS: the area of a geometry in well-known text; -1 if it is not one, or not valid.
double geos_area_of_text(const std::string& wkt);

// Boost.Polygon: exact area of the union, or of a less b, in square steps. For polygons whose crossings are on the
// lattice.
double boost_union_area(const dryground::Regions& polygons);
double boost_difference_area(const dryground::Regions& a, const dryground::Regions& b);

// Checks our own guarantees, one by one: returns what is broken, empty if nothing is.
std::string broken_promise(const dryground::Regions& regions);

}   // namespace oracle

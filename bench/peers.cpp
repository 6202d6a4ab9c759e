#include "peers.hpp"

#include <geos_c.h>

#include <algorithm>
#include <cmath>
#include <numbers>

#include <boost/polygon/polygon.hpp>

namespace bench {

using dryground::Point;
using dryground::Region;
using dryground::Regions;
using dryground::Ring;

namespace {

using BoostPolygon = boost::polygon::polygon_with_holes_data<int>;

boost::polygon::polygon_data<int> to_boost(const Ring& ring) {
    std::vector<boost::polygon::point_data<int>> points;
    points.reserve(ring.size());
    for (const Point p : ring) points.emplace_back(p.x, p.y);
    boost::polygon::polygon_data<int> polygon;
    polygon.set(points.begin(), points.end());
    return polygon;
}

template <class Set>
void insert(Set& set, const Regions& regions) {
    for (const Region& region : regions) {
        set.insert(to_boost(region.outline), false);
        for (const Ring& hole : region.holes) set.insert(to_boost(hole), true);
    }
}

template <class Polygon>
Tally tally(const std::vector<Polygon>& polygons) {
    Tally result;
    for (const Polygon& polygon : polygons) {
        ++result.regions;
        result.vertices += polygon.size();
        for (auto hole = polygon.begin_holes(); hole != polygon.end_holes(); ++hole) result.vertices += hole->size();
    }
    return result;
}

GEOSContextHandle_t geos() {
    static const struct Context {
        GEOSContextHandle_t handle = GEOS_init_r();
        ~Context() { GEOS_finish_r(handle); }
    } context;
    return context.handle;
}

GEOSGeometry* to_geos(const Ring& ring) {
    GEOSCoordSequence* points = GEOSCoordSeq_create_r(geos(), static_cast<unsigned>(ring.size() + 1), 2);
    for (std::size_t i = 0; i <= ring.size(); ++i)
        GEOSCoordSeq_setXY_r(geos(), points, static_cast<unsigned>(i), ring[i % ring.size()].x,
                             ring[i % ring.size()].y);
    return GEOSGeom_createLinearRing_r(geos(), points);
}

GEOSGeometry* to_geos(const Regions& regions) {
    std::vector<GEOSGeometry*> polygons;
    for (const Region& region : regions) {
        std::vector<GEOSGeometry*> holes;
        for (const Ring& hole : region.holes) holes.push_back(to_geos(hole));
        polygons.push_back(GEOSGeom_createPolygon_r(geos(), to_geos(region.outline), holes.data(),
                                                    static_cast<unsigned>(holes.size())));
    }
    return GEOSGeom_createCollection_r(geos(), GEOS_MULTIPOLYGON, polygons.data(),
                                       static_cast<unsigned>(polygons.size()));
}

}   // namespace

Tally boost_union(const Regions& polygons) {
    boost::polygon::polygon_set_data<int> set;
    insert(set, polygons);
    std::vector<BoostPolygon> result;
    set.get(result);
    return tally(result);
}

Tally boost_right_angled_union(const Regions& boxes) {
    boost::polygon::polygon_90_set_data<int> set(boost::polygon::HORIZONTAL);
    for (const Region& box : boxes) {
        const auto bounds = dryground::bounds({&box, 1});
        set.insert(
            boost::polygon::rectangle_data<int>(bounds->least.x, bounds->least.y, bounds->most.x, bounds->most.y));
    }
    std::vector<boost::polygon::polygon_90_with_holes_data<int>> result;
    set.get(result);
    return tally(result);
}

Tally geos_union(const Regions& polygons) {
    GEOSGeometry* all = to_geos(polygons);
    GEOSGeometry* united = GEOSUnaryUnion_r(geos(), all);
    const Tally result{static_cast<std::size_t>(GEOSGetNumGeometries_r(geos(), united)),
                       static_cast<std::size_t>(GEOSGetNumCoordinates_r(geos(), united))};
    GEOSGeom_destroy_r(geos(), all);
    GEOSGeom_destroy_r(geos(), united);
    return result;
}

std::size_t boost_rectangles(const Regions& regions) {
    boost::polygon::polygon_90_set_data<int> set(boost::polygon::HORIZONTAL);
    for (const Region& region : regions) {
        boost::polygon::polygon_90_with_holes_data<int> polygon;
        const auto outline = to_boost(region.outline);
        polygon.set(outline.begin(), outline.end());
        std::vector<boost::polygon::polygon_90_data<int>> holes;
        for (const Ring& ring : region.holes) {
            const auto hole = to_boost(ring);
            holes.emplace_back().set(hole.begin(), hole.end());
        }
        polygon.set_holes(holes.begin(), holes.end());
        set.insert(polygon);
    }
    std::vector<boost::polygon::rectangle_data<int>> result;
    boost::polygon::get_rectangles(result, set);
    return result.size();
}

// Region by region: it gives nothing for some of those with many holes.
double geos_shrunk_area(const Regions& regions, double by, double within) {
    const double widest = 2 * std::acos(std::max(0.5, 1 - within / by));
    GEOSGeometry* all = to_geos(regions);
    GEOSBufferParams* params = GEOSBufferParams_create_r(geos());
    GEOSBufferParams_setQuadrantSegments_r(geos(), params, static_cast<int>(std::ceil(std::numbers::pi / 2 / widest)));
    GEOSGeometry* shrunk = GEOSBufferWithParams_r(geos(), all, params, -by);
    double area = 0;
    GEOSArea_r(geos(), shrunk, &area);
    GEOSBufferParams_destroy_r(geos(), params);
    GEOSGeom_destroy_r(geos(), shrunk);
    GEOSGeom_destroy_r(geos(), all);
    return area;
}

std::size_t geos_triangles(const Regions& regions) {
    std::size_t count = 0;
    for (const Region& region : regions) {
        GEOSGeometry* polygon = to_geos(Regions{region});
        if (GEOSGeometry* triangles = GEOSConstrainedDelaunayTriangulation_r(geos(), polygon)) {
            count += static_cast<std::size_t>(GEOSGetNumGeometries_r(geos(), triangles));
            GEOSGeom_destroy_r(geos(), triangles);
        }
        GEOSGeom_destroy_r(geos(), polygon);
    }
    return count;
}

}   // namespace bench

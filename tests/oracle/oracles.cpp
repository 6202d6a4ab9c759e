#include "oracles.hpp"

#include <fmt/format.h>
#include <geos_c.h>

#include <boost/polygon/polygon.hpp>
#include <memory>
#include <set>

namespace oracle {

using dryground::Point;
using dryground::Region;
using dryground::Regions;
using dryground::Ring;

namespace {

struct Geos {
    Geos() : handle(GEOS_init_r()) {}
    ~Geos() { GEOS_finish_r(handle); }
    Geos(const Geos&) = delete;
    Geos& operator=(const Geos&) = delete;
    GEOSContextHandle_t handle;
};

GEOSContextHandle_t geos() {
    static const Geos one;
    return one.handle;
}

struct Destroy {
    void operator()(GEOSGeometry* g) const { GEOSGeom_destroy_r(geos(), g); }
};
using Geometry = std::unique_ptr<GEOSGeometry, Destroy>;

GEOSGeometry* ring_of(const Ring& ring) {
    GEOSCoordSequence* points = GEOSCoordSeq_create_r(geos(), static_cast<unsigned>(ring.size() + 1), 2);
    for (std::size_t i = 0; i <= ring.size(); ++i)
        GEOSCoordSeq_setXY_r(geos(), points, static_cast<unsigned>(i), ring[i % ring.size()].x,
                             ring[i % ring.size()].y);
    return GEOSGeom_createLinearRing_r(geos(), points);
}

Geometry polygons_of(const Regions& regions) {
    std::vector<GEOSGeometry*> polygons;
    for (const Region& region : regions) {
        std::vector<GEOSGeometry*> holes;
        for (const Ring& hole : region.holes) holes.push_back(ring_of(hole));
        polygons.push_back(GEOSGeom_createPolygon_r(geos(), ring_of(region.outline), holes.data(),
                                                    static_cast<unsigned>(holes.size())));
    }
    return Geometry(GEOSGeom_createCollection_r(geos(), GEOS_MULTIPOLYGON, polygons.data(),
                                                static_cast<unsigned>(polygons.size())));
}

Geometry unary_union(const Regions& polygons) {
    return Geometry(GEOSUnaryUnion_r(geos(), polygons_of(polygons).get()));
}

using BoostSet = boost::polygon::polygon_set_data<int>;

BoostSet boost_set(const Regions& regions) {
    BoostSet set;
    for (const Region& region : regions) {
        const auto to_polygon = [](const Ring& ring) {
            std::vector<boost::polygon::point_data<int>> points;
            for (const Point p : ring) points.emplace_back(p.x, p.y);
            boost::polygon::polygon_data<int> polygon;
            polygon.set(points.begin(), points.end());
            return polygon;
        };
        set.insert(to_polygon(region.outline), false);
        for (const Ring& hole : region.holes) set.insert(to_polygon(hole), true);
    }
    return set;
}

}   // namespace

std::string geos_fault(const Regions& regions) {
    const Geometry g = polygons_of(regions);
    if (GEOSisValid_r(geos(), g.get()) == 1) return {};
    char* reason = GEOSisValidReason_r(geos(), g.get());
    std::string text = reason;
    GEOSFree_r(geos(), reason);
    return text;
}

double geos_area_of_text(const std::string& wkt) {
    GEOSWKTReader* reader = GEOSWKTReader_create_r(geos());
    GEOSGeometry* geometry = GEOSWKTReader_read_r(geos(), reader, wkt.c_str());
    GEOSWKTReader_destroy_r(geos(), reader);
    double area = -1;
    if (geometry != nullptr && GEOSisValid_r(geos(), geometry) == 1) GEOSArea_r(geos(), geometry, &area);
    GEOSGeom_destroy_r(geos(), geometry);
    return area;
}

Tally geos_union(const Regions& polygons) {
    const Geometry sum = unary_union(polygons);
    Tally tally;
    GEOSArea_r(geos(), sum.get(), &tally.area);
    const int parts = GEOSGetNumGeometries_r(geos(), sum.get());
    for (int i = 0; i < parts; ++i) {
        const GEOSGeometry* part = GEOSGetGeometryN_r(geos(), sum.get(), i);
        if (GEOSGeomTypeId_r(geos(), part) != GEOS_POLYGON) continue;
        ++tally.regions;
        tally.holes += static_cast<std::size_t>(GEOSGetNumInteriorRings_r(geos(), part));
    }
    return tally;
}

double geos_difference(const Regions& a, const Regions& b) {
    const Geometry ga = unary_union(a), gb = unary_union(b);
    const Geometry difference(GEOSSymDifference_r(geos(), ga.get(), gb.get()));
    double area = 0;
    GEOSArea_r(geos(), difference.get(), &area);
    return area;
}

double boost_union_area(const Regions& polygons) {
    return static_cast<double>(boost::polygon::area(boost_set(polygons)));
}

double boost_difference_area(const Regions& a, const Regions& b) {
    using namespace boost::polygon::operators;
    BoostSet left = boost_set(a);
    const BoostSet right = boost_set(b);
    left -= right;
    return static_cast<double>(boost::polygon::area(left));
}

namespace {

std::string ring_fault(const Ring& ring, bool hole) {
    if (ring.size() < 3) return "a ring of fewer than three points";
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point a = ring[i], b = ring[(i + 1) % ring.size()], c = ring[(i + 2) % ring.size()];
        if (a == b) return fmt::format("a repeated point {},{}", a.x, a.y);
        if (turn(a, b, c) == dryground::Turn::straight)
            return fmt::format("a vertex in a straight run at {},{}", b.x, b.y);
        if (a < ring[0]) return "a ring that does not start at its least point";
    }
    if (std::set<Point>(ring.begin(), ring.end()).size() != ring.size()) return "a ring that touches itself";
    if ((dryground::twice_area(ring) < 0) != hole)
        return hole ? "a hole that runs the wrong way" : "an outline that runs the wrong way";
    return {};
}

}   // namespace

std::string broken_promise(const Regions& regions) {
    for (std::size_t i = 0; i < regions.size(); ++i) {
        if (std::string fault = ring_fault(regions[i].outline, false); !fault.empty()) return fault;
        for (const Ring& hole : regions[i].holes)
            if (std::string fault = ring_fault(hole, true); !fault.empty()) return fault;
        if (!std::is_sorted(regions[i].holes.begin(), regions[i].holes.end())) return "holes out of order";
        if (i > 0 && regions[i].outline < regions[i - 1].outline) return "regions out of order";
    }
    return geos_fault(regions);
}

}   // namespace oracle

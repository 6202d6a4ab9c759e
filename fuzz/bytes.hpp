// What fuzz targets share: bytes as numbers, and promises that results must keep.
#pragma once

#include <cstdint>
#include <cstdlib>

#include "dryground/geometry.hpp"

namespace fuzz {

class Bytes {
public:
    Bytes(const std::uint8_t* data, std::size_t size) : data_(data), left_(size) {}
    [[nodiscard]] bool any() const { return left_ > 0; }
    int next() {
        if (left_ == 0) return 0;
        --left_;
        return *data_++;
    }

private:
    const std::uint8_t* data_;
    std::size_t left_;
};

inline void must(bool holds) {
    if (!holds) std::abort();   // what a fuzzer looks for
}

inline void check_promises(const dryground::Regions& regions) {
    using namespace dryground;
    for (const Region& region : regions) {
        must(inspect(region.outline).fault == RingFault::none && twice_area(region.outline) > 0);
        for (const Ring& hole : region.holes) must(inspect(hole).fault == RingFault::none && twice_area(hole) < 0);
    }
    must(unite(regions) == regions);
    std::int64_t area = 0;
    for (const Ring& piece : convex_pieces(regions, 6)) {
        must(twice_area(piece) > 0);
        area += twice_area(piece);
    }
    must(area == twice_area(regions));
    area = 0;
    const Mesh mesh = delaunay_triangles(regions);
    for (const auto& t : mesh.triangles) {
        const std::int64_t one = cross(mesh.points[t[0]], mesh.points[t[1]], mesh.points[t[2]]);
        must(one > 0);
        area += one;
    }
    must(area == twice_area(regions));
    area = 0;
    const Boxes boxes = least_boxes(regions, 6);
    for (const Bounds& box : boxes.boxes) area += twice_area(box_ring(box.least, box.most));
    for (const Ring& rest : boxes.rests) area += twice_area(rest);
    must(area == twice_area(regions));
}

}   // namespace fuzz

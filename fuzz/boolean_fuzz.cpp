// Booleans of any polygons: results keep their promises, and doing them again changes nothing.
//
// Input: bytes as polygons. The first byte chooses the size of coordinates; each polygon is a count of points, then two
// bytes a point.
#include <cstdint>
#include <cstdlib>

#include "dryground/geometry.hpp"

using namespace dryground;

namespace {

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

void must(bool holds) {
    if (!holds) std::abort();   // what a fuzzer looks for
}

void check_promises(const Regions& regions) {
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
}

}   // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size > 200) return 0;   // pairs of edges are looked at closely: keep inputs small
    Bytes bytes(data, size);
    constexpr int scales[] = {1, 1, 3, 257, 40'000, 4'000'000};
    const int scale = scales[bytes.next() % 6];
    Regions sides[2];
    for (int turn_of = 0; bytes.any(); turn_of ^= 1) {
        Ring ring;
        for (int count = 3 + bytes.next() % 6; count > 0; --count) {
            const int x = bytes.next(), y = bytes.next();
            ring.push_back({(x - 128) * scale, (y - 128) * scale});
        }
        if (inspect(ring).fault == RingFault::none) sides[turn_of].push_back({ring, {}});
    }
    check_promises(unite(sides[0], sides[1]));
    check_promises(subtract(sides[0], sides[1]));
    check_promises(intersect(sides[0], sides[1]));
    return 0;
}

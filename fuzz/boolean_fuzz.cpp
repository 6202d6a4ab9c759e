// Booleans of any polygons: results keep their promises, and doing them again changes nothing.
//
// Input: bytes as polygons. The first byte chooses the size of coordinates; each polygon is a count of points, then two
// bytes a point.
#include "bytes.hpp"

using namespace dryground;
using fuzz::check_promises;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size > 200) return 0;   // pairs of edges are looked at closely: keep inputs small
    fuzz::Bytes bytes(data, size);
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

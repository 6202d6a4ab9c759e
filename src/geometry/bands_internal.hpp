// Inside the library: what closed paths wind around, found in bands, so that a change costs about what it touches.
#pragma once

#include <cstdint>
#include <map>
#include <memory>
#include <span>
#include <vector>

#include "arrangement_internal.hpp"

namespace dryground::detail {

// The rings around what closed paths wind around, all together: the same area as `wound_around`, with what is wound
// around on the left of each ring. Rings are simple, without needless vertices, and in order.
//
// Each horizontal band of the plane is a value of the paths' edges that pass through it, and of nothing else. Where
// corners are rounded, they may lie a step from where `wound_around` rounds them.
class WoundInBands {
public:
    WoundInBands() = default;
    // `height`: of a band, steps, 1 or more; higher ones are used if there would be very many,
    // or if most paths would pass several. Bands away from where
    // the paths differ from those of `before` are taken from it: then the cost is about that of reading the paths.
    WoundInBands(std::span<const Ring> ways, std::int32_t height, const WoundInBands* before = nullptr);

    [[nodiscard]] const std::vector<Ring>& rings() const { return rings_; }

    struct Band;

private:
    void find_bands(std::int64_t first, std::int64_t last, const WoundInBands* before);

    std::vector<Ring> rings_;
    std::vector<Edge> edges_;                                     // of the paths, in their order
    std::map<std::int64_t, std::shared_ptr<const Band>> bands_;   // by their number; that with row 0 has number 0
    std::int64_t height_ = 0;
};

}   // namespace dryground::detail

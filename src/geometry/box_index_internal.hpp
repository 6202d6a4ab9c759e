// Inside the library: which boxes are near a place? The only spatial index; rooms that look for what is near use it.
//
// Idea: a raster over all boxes, about as many buckets as boxes and none smaller than most of them. A box stands in
// every bucket that it meets, and is told from the first one that it shares with the place that is asked about: once,
// and without any memory of what was told.
// Cost: making it O(n) time and memory where few boxes are much larger than most; asking about in proportion to the
// buckets that the place meets and what stands in them.
// Rejected: trees, which need no buckets of a size, but are slower to make and to ask where boxes are alike, as here.
#pragma once

#include <cstddef>
#include <cstdint>
#include <vector>

#include "bounds_internal.hpp"

namespace dryground::detail {

class BoxIndex {
public:
    BoxIndex() = default;
    explicit BoxIndex(std::vector<Bounds> boxes);

    [[nodiscard]] bool empty() const { return boxes_.empty(); }
    // The box around all of them. Requires one or more.
    [[nodiscard]] const Bounds& all() const { return all_; }
    // About as large as most of them, at least a step.
    [[nodiscard]] std::int32_t bucket() const { return bucket_; }

    // Calls test(i) for each box, by its position, that meets `near`, edges included, until it gives true.
    template <class Test>
    bool any_near(const Bounds& near, Test test) const {
        if (empty() || !meet(all_, near)) return false;
        const std::int64_t c0 = column(near.least.x), r0 = row(near.least.y), c1 = column(near.most.x),
                           r1 = row(near.most.y);
        for (std::int64_t r = r0; r <= r1; ++r)
            for (std::int64_t c = c0; c <= c1; ++c) {
                const auto b = static_cast<std::size_t>(r * columns_ + c);
                for (std::uint32_t k = begins_[b]; k < begins_[b + 1]; ++k) {
                    const std::uint32_t i = in_buckets_[k];
                    const Bounds& box = boxes_[i];
                    if (meet(box, near) && c == std::max(c0, column(box.least.x)) &&
                        r == std::max(r0, row(box.least.y)) && test(std::size_t{i}))
                        return true;
                }
            }
        return false;
    }
    // Calls action(i) for all of them.
    template <class Action>
    void each_near(const Bounds& near, Action action) const {
        (void)any_near(near, [&](std::size_t i) {
            action(i);
            return false;
        });
    }

private:
    [[nodiscard]] std::int64_t column(std::int32_t x) const { return number(x, all_.least.x, columns_); }
    [[nodiscard]] std::int64_t row(std::int32_t y) const { return number(y, all_.least.y, rows_); }
    [[nodiscard]] std::int64_t number(std::int32_t at, std::int32_t least, std::int64_t count) const {
        return std::clamp<std::int64_t>((std::int64_t{at} - least) / bucket_, 0, count - 1);
    }

    std::vector<Bounds> boxes_;
    Bounds all_{{0, 0}, {0, 0}};
    std::int32_t bucket_ = 1;
    std::int64_t columns_ = 0, rows_ = 0;
    std::vector<std::uint32_t> begins_, in_buckets_;   // those of bucket b: from begins_[b] to begins_[b + 1]
};

}   // namespace dryground::detail

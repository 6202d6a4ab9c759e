// Inside the library: finds the boxes near a place. The only spatial index; all rooms that look for what is near use
// it.
//
// Idea: a raster over all boxes, with about as many buckets as boxes and none smaller than most of them. A box is
// listed in every bucket that it meets, and is reported from the first bucket that it shares with the query: once, and
// without remembering what was reported. Cost: building takes O(n) time and memory if few boxes are much larger than
// most; a query is proportional to the buckets that it meets and their content. Rejected: trees, which need no bucket
// size, but are slower to build and to query if boxes are of similar size, as here.
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
    // Returns the box around all of them. Requires one or more.
    [[nodiscard]] const Bounds& all() const { return all_; }
    // Returns a size about that of most of them, at least one step.
    [[nodiscard]] std::int32_t bucket() const { return std::int32_t{1} << shift_; }

    // Calls test(i) for each box, by its position in the list, that meets `near`, edges included, until it returns
    // true.
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
        if (at <= least) return 0;
        const std::uint32_t away = static_cast<std::uint32_t>(at) - static_cast<std::uint32_t>(least);   // it fits
        return std::min<std::int64_t>(away >> shift_, count - 1);
    }

    std::vector<Bounds> boxes_;
    Bounds all_{{0, 0}, {0, 0}};
    int shift_ = 0;   // of a bucket's size
    std::int64_t columns_ = 0, rows_ = 0;
    std::vector<std::uint32_t> begins_, in_buckets_;   // those of bucket b: from begins_[b] to begins_[b + 1]
};

}   // namespace dryground::detail

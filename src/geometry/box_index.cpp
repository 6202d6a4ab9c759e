// Builds the raster of boxes: see box_index_internal.hpp.

#include "box_index_internal.hpp"

#include <cmath>
#include <numeric>

namespace dryground::detail {

BoxIndex::BoxIndex(std::vector<Bounds> boxes) : boxes_(std::move(boxes)) {
    if (boxes_.empty()) return;
    all_ = boxes_.front();
    const double count = static_cast<double>(boxes_.size());
    double sides = 0;   // the longer one of each
    for (const Bounds& box : boxes_) {
        all_ = both(all_, box);
        sides += std::max(double{0} + box.most.x - box.least.x, double{0} + box.most.y - box.least.y);
    }
    const double wide = double{0} + all_.most.x - all_.least.x, high = double{0} + all_.most.y - all_.least.y;
    // About as many buckets as boxes, whether these are spread over an area or along a line. Their size is a power of
    // two, since a shift is quicker than a division.
    const double size = std::max({1.0, sides / count, std::sqrt(wide * high / count), std::max(wide, high) / count});
    shift_ = std::clamp(static_cast<int>(std::lround(std::log2(size))), 0, 30);
    columns_ = (static_cast<std::int64_t>(wide) >> shift_) + 1, rows_ = (static_cast<std::int64_t>(high) >> shift_) + 1;
    begins_.assign(static_cast<std::size_t>(columns_ * rows_) + 1, 0);
    const auto each_bucket = [this](const Bounds& box, auto action) {
        const std::int64_t c0 = column(box.least.x), c1 = column(box.most.x), r1 = row(box.most.y);
        for (std::int64_t r = row(box.least.y); r <= r1; ++r)
            for (std::int64_t c = c0; c <= c1; ++c) action(static_cast<std::size_t>(r * columns_ + c));
    };
    // Counts, sums up, then fills from the end.
    for (const Bounds& box : boxes_) each_bucket(box, [this](std::size_t b) { ++begins_[b]; });
    std::partial_sum(begins_.begin(), begins_.end(), begins_.begin());
    in_buckets_.resize(begins_.back());
    for (std::uint32_t i = static_cast<std::uint32_t>(boxes_.size()); i-- > 0;)
        each_bucket(boxes_[i], [&](std::size_t b) { in_buckets_[--begins_[b]] = i; });
}

}   // namespace dryground::detail

#include "free_space_internal.hpp"

#include <algorithm>
#include <numeric>

namespace dryground::check_rules {

FreeSpace::FreeSpace(const Regions& ground) {
    for (const Region& region : ground) {
        add(region.outline, -1 - static_cast<int>(outlines_.size()));
        outlines_.push_back(&region.outline);
        for (const Ring& hole : region.holes) {
            add(hole, static_cast<int>(holes_.size()));
            holes_.push_back(&hole);
        }
    }
    regions_in_.resize(holes_.size());
    around_.resize(outlines_.size(), outside);
    if (edges_.empty()) return;
    put_in_buckets();
    // Rings begin at their topmost, then leftmost point: the ring left of it begins no later, and is known when they
    // are asked in that order.
    std::vector<std::size_t> order(outlines_.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::sort(order.begin(), order.end(), [this](std::size_t a, std::size_t b) {
        const Point p = outlines_[a]->front(), q = outlines_[b]->front();
        return p.y != q.y ? p.y < q.y : p.x < q.x;
    });
    for (const std::size_t region : order) {
        const Point first = outlines_[region]->front();
        const Edge* edge = left_of({first.x - 1, first.y});
        around_[region] = edge == nullptr ? outside : resolved(edge->bounds);
        if (around_[region] >= 0) regions_in_[static_cast<std::size_t>(around_[region])].push_back(static_cast<int>(region));
    }
}

void FreeSpace::add(const Ring& ring, int bounds) {
    for (std::size_t i = 0; i < ring.size(); ++i)
        if (const Point a = ring[i], b = ring[(i + 1) % ring.size()]; a.y != b.y) edges_.push_back({a, b, bounds});
}

void FreeSpace::put_in_buckets() {
    Point most = least_ = edges_.front().from;
    for (const Edge& edge : edges_)
        for (const Point p : {edge.from, edge.to}) {
            least_ = {std::min(least_.x, p.x), std::min(least_.y, p.y)};
            most = {std::max(most.x, p.x), std::max(most.y, p.y)};
        }
    const std::int64_t wide = std::int64_t{most.x} - least_.x, high = std::int64_t{most.y} - least_.y;
    bucket_ = static_cast<std::int32_t>(std::max({std::int64_t{32 * steps_per_px}, wide / 1024 + 1, high / 1024 + 1}));
    columns_ = static_cast<int>(wide / bucket_ + 1), rows_ = static_cast<int>(high / bucket_ + 1);
    begins_.assign(static_cast<std::size_t>(columns_) * static_cast<std::size_t>(rows_) + 1, 0);
    const auto for_each_bucket = [this](const Edge& edge, auto action) {
        const auto number = [this](std::int32_t value, std::int32_t least) {
            return static_cast<int>((std::int64_t{value} - least) / bucket_);
        };
        const auto [x0, x1] = std::minmax(edge.from.x, edge.to.x);
        const auto [y0, y1] = std::minmax(edge.from.y, edge.to.y);
        for (int r = number(y0, least_.y); r <= number(y1, least_.y); ++r)
            for (int c = number(x0, least_.x); c <= number(x1, least_.x); ++c)
                action(static_cast<std::size_t>(r) * static_cast<std::size_t>(columns_) + static_cast<std::size_t>(c));
    };
    for (const Edge& edge : edges_) for_each_bucket(edge, [this](std::size_t i) { ++begins_[i]; });
    std::partial_sum(begins_.begin(), begins_.end(), begins_.begin());
    in_buckets_.resize(begins_.back());
    for (std::uint32_t i = 0; i < edges_.size(); ++i)
        for_each_bucket(edges_[i], [&](std::size_t bucket) { in_buckets_[--begins_[bucket]] = i; });
}

// The edge whose crossing with the level of p is the nearest one left of p, or at p; each edge without its lower end.
const FreeSpace::Edge* FreeSpace::left_of(Point p) const {
    const std::int64_t row = p.y < least_.y ? -1 : (std::int64_t{p.y} - least_.y) / bucket_;
    if (row < 0 || row >= rows_ || p.x < least_.x) return nullptr;
    const std::int64_t last = std::min<std::int64_t>((std::int64_t{p.x} - least_.x) / bucket_, columns_ - 1);
    for (std::int64_t column = last; column >= 0; --column) {
        const std::size_t bucket = static_cast<std::size_t>(row * columns_ + column);
        const Edge* nearest = nullptr;
        double nearest_x = 0;
        for (std::uint32_t i = begins_[bucket]; i < begins_[bucket + 1]; ++i) {
            const Edge& edge = edges_[in_buckets_[i]];
            const Point top = edge.from.y < edge.to.y ? edge.from : edge.to, low = edge.from.y < edge.to.y ? edge.to : edge.from;
            if (p.y < top.y || p.y >= low.y || cross(top, low, p) > 0) continue;   // p lies left of it
            const double x = top.x + (static_cast<double>(low.x) - top.x) * (static_cast<double>(p.y) - top.y) / (static_cast<double>(low.y) - top.y);
            if (nearest == nullptr || x > nearest_x) nearest = &edge, nearest_x = x;
        }
        // What crosses further left may be in a bucket further left, too, but no nearer than this one's side.
        if (nearest != nullptr && nearest_x >= static_cast<double>(least_.x) + static_cast<double>(column) * bucket_) return nearest;
    }
    return nullptr;
}

int FreeSpace::area_at(Point p) const {
    const Edge* edge = left_of(p);
    if (edge == nullptr) return outside;
    return turn(edge->from, edge->to, p) == Turn::left ? in_ground : resolved(edge->bounds);
}

Region FreeSpace::area(int number) const {
    const auto turned = [](const Ring& ring) { return Ring(ring.rbegin(), ring.rend()); };
    Region region{turned(hole(number)), {}};
    for (const int inner : regions_in_[static_cast<std::size_t>(number)])
        region.holes.push_back(turned(*outlines_[static_cast<std::size_t>(inner)]));
    return region;
}

std::int64_t FreeSpace::twice_size(int number) const {
    std::int64_t size = std::abs(twice_area(hole(number)));
    for (const int inner : regions_in_[static_cast<std::size_t>(number)])
        size -= std::abs(twice_area(*outlines_[static_cast<std::size_t>(inner)]));
    return size;
}

}   // namespace dryground::check_rules

// The rings that a block of cells had before some of its cells changed.

#include "rings_before_internal.hpp"

#include <tuple>
#include <utility>

namespace dryground::detail {
namespace {

template <class T>
bool is_begun_at(const std::vector<T>& made, const std::vector<T>& all, std::ptrdiff_t i) {
    return made.size() == all.size() && std::equal(all.begin() + i, all.end(), made.begin()) &&
           std::equal(all.begin(), all.begin() + i, made.end() - i);
}

bool by_edge(const auto& a, const auto& b) { return std::tie(a.first, a.second) < std::tie(b.first, b.second); }

// Returns what has an edge, or null.
auto find(auto& all, Point first, Point second) -> decltype(all.data()) {
    const auto found = std::lower_bound(all.begin(), all.end(), std::pair(first, second),
                                        [](const auto& a, const auto& b) { return by_edge(a, b); });
    return found != all.end() && found->first == first && found->second == second ? &*found : nullptr;
}
auto find(auto& all, const Ring& points, std::ptrdiff_t i) {
    const auto at = static_cast<std::size_t>(i);
    return find(all, points[at], points[at + 1 < points.size() ? at + 1 : 0]);
}

}   // namespace

RingsBefore::RingsBefore(Regions& regions, std::vector<LabelledRing>& rings) {
    rings_.reserve(rings.size());
    for (std::size_t r = 0; r < regions.size(); ++r) {
        const auto add = [&](Ring& ring) {
            rings_.push_back({ring[0], ring[1], &ring, ring.data(), static_cast<int>(r)});
        };
        add(regions[r].outline);
        for (Ring& hole : regions[r].holes) add(hole);
        rings_of_region_.push_back(1 + regions[r].holes.size());
    }
    std::sort(rings_.begin(), rings_.end(), [](const auto& a, const auto& b) { return by_edge(a, b); });
    labelled_.reserve(rings.size());
    for (LabelledRing& ring : rings)
        labelled_.push_back({ring.points[0], ring.points[1], &ring, ring.points.data(), -1});
}

Ring RingsBefore::ring(const Ring& points, std::ptrdiff_t i) {
    const auto found = find(rings_, points, i);
    return found != nullptr && is_begun_at(*found->ring, points, i) ? std::move(*found->ring) : begun_at(points, i);
}

LabelledRing RingsBefore::ring(const Ring& points, const std::vector<int>& labels, std::ptrdiff_t i) {
    const auto found = find(labelled_, points, i);
    return found != nullptr && is_begun_at(found->ring->points, points, i) &&
                   is_begun_at(found->ring->labels, labels, i)
               ? std::move(*found->ring)
               : LabelledRing{begun_at(points, i), begun_at(labels, i)};
}

RingsBefore::Both RingsBefore::both(const Ring& points, const std::vector<int>& labels, std::ptrdiff_t i) {
    LabelledRing labelled = ring(points, labels, i);
    // It was part of a region already then, by the same points.
    if (const auto found = find(rings_, points, i); found != nullptr && gave(labelled))
        return {std::move(*found->ring), std::move(labelled)};
    return {ring(points, i), std::move(labelled)};
}

void RingsBefore::put_into(Stacked& stacked) {
    for (Region& region : stacked.regions) {
        region.outline = ring(region.outline, 0);
        for (Ring& hole : region.holes) hole = ring(hole, 0);
    }
    for (LabelledRing& one : stacked.rings) one = ring(one.points, one.labels, 0);
}

bool RingsBefore::gave(const LabelledRing& ring) const {
    const auto found = find(labelled_, ring.points, 0);
    return found != nullptr && found->data == ring.points.data();
}

std::vector<int> RingsBefore::numbers_in(const Regions& now) const {
    const auto region_of = [&](const Ring& ring) {
        const auto found = find(rings_, ring, 0);
        return found != nullptr && found->data == ring.data() ? found->region : -1;
    };
    std::vector<int> numbers(rings_of_region_.size(), -1);
    for (std::size_t i = 0; i < now.size(); ++i) {
        const int number = region_of(now[i].outline);
        if (number < 0 || rings_of_region_[static_cast<std::size_t>(number)] != 1 + now[i].holes.size()) continue;
        if (std::all_of(now[i].holes.begin(), now[i].holes.end(),
                        [&](const Ring& hole) { return region_of(hole) == number; }))
            numbers[static_cast<std::size_t>(number)] = static_cast<int>(i);
    }
    return numbers;
}

}   // namespace dryground::detail

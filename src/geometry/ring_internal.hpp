// Inside the library: helpers for rings and the rings of regions.
#pragma once

#include <algorithm>
#include <span>
#include <vector>

#include "dryground/geometry.hpp"

namespace dryground::detail {

// Calls action(from, to) for each edge of a ring of points of any type; the last leads back to the first point.
template <class Points, class Action>
void each_edge_of_ring(const Points& ring, Action action) {
    for (std::size_t i = 0; i < ring.size(); ++i) action(ring[i], ring[i + 1 < ring.size() ? i + 1 : 0]);
}

// Calls action(ring) for the outline and the holes of each region, one region after the other.
template <class Action>
void each_ring(std::span<const Region> regions, Action action) {
    for (const Region& region : regions) {
        action(region.outline);
        for (const Ring& hole : region.holes) action(hole);
    }
}

[[nodiscard]] inline std::vector<Ring> rings_of(std::span<const Region> regions) {
    std::vector<Ring> rings;
    each_ring(regions, [&](const Ring& ring) { rings.push_back(ring); });
    return rings;
}

template <class Action>
void each_edge(std::span<const Region> regions, Action action) {
    each_ring(regions, [&](const Ring& ring) { each_edge_of_ring(ring, action); });
}

template <class Action>
void each_vertex(std::span<const Region> regions, Action action) {
    each_ring(regions, [&](const Ring& ring) {
        for (const Point p : ring) action(p);
    });
}

// Returns whether a ring comes before another, by their points. Requires that they have no directed edge in common:
// then their first edges decide.
inline bool begins_before(const Ring& a, const Ring& b) { return a[0] != b[0] ? a[0] < b[0] : a[1] < b[1]; }

// Rotates a ring so that it starts at its least point, and what belongs to its points with it.
inline void start_at_least(Ring& ring) {
    std::rotate(ring.begin(), std::min_element(ring.begin(), ring.end()), ring.end());
}
inline void start_at_least(Ring& ring, std::vector<int>& labels) {
    const auto least = std::min_element(ring.begin(), ring.end()) - ring.begin();
    std::rotate(ring.begin(), ring.begin() + least, ring.end());
    std::rotate(labels.begin(), labels.begin() + least, labels.end());
}

}   // namespace dryground::detail

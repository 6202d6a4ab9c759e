// Inside the merge room: the rings that a block of cells had before some of its cells changed.
//
// Idea. An edit changes few of a block's rings. Those that come again are moved into the result as they are, so that an
// edit allocates little, and what is made of regions that are the same can be kept too.
#pragma once

#include <algorithm>
#include <cstddef>
#include <vector>

#include "dryground/geometry.hpp"

namespace dryground::detail {

// Rotates it so that its i-th item comes first, in no more memory than needed.
template <class T>
[[nodiscard]] std::vector<T> begun_at(const std::vector<T>& all, std::ptrdiff_t i) {
    std::vector<T> made;
    made.reserve(all.size());
    made.insert(made.end(), all.begin() + i, all.end());
    made.insert(made.end(), all.begin(), all.begin() + i);
    return made;
}

// Refers to what was before, which must outlive it and is used up.
class RingsBefore {
public:
    RingsBefore() = default;   // there was nothing
    RingsBefore(Regions& regions, std::vector<LabelledRing>& rings);

    // Return a ring that begins at its least point, the i-th: one from before if it is equal, else a new one. O(log n)
    // and its length.
    [[nodiscard]] Ring ring(const Ring& points, std::ptrdiff_t i);
    [[nodiscard]] LabelledRing ring(const Ring& points, const std::vector<int>& labels, std::ptrdiff_t i);
    // Returns both, of a ring that bends at each of its points.
    struct Both {
        Ring ring;
        LabelledRing labelled;
    };
    [[nodiscard]] Both both(const Ring& points, const std::vector<int>& labels, std::ptrdiff_t i);
    // Replaces rings by those from before that are equal.
    void put_into(Stacked& stacked);

    // Returns whether a ring is one from before. O(log n).
    [[nodiscard]] bool gave(const LabelledRing& ring) const;
    // Returns, for each region before, its number among regions made of such rings if it is the same, else -1.
    // O(n log n).
    [[nodiscard]] std::vector<int> numbers_in(const Regions& now) const;

private:
    template <class Of>
    struct Known {
        Point first, second;   // a directed edge belongs to one ring alone
        Of* ring;
        const Point* data;   // its points, also after it was moved
        int region;
    };
    std::vector<Known<Ring>> rings_;              // sorted by their edges
    std::vector<Known<LabelledRing>> labelled_;   // likewise
    std::vector<std::size_t> rings_of_region_;    // how many
};

}   // namespace dryground::detail

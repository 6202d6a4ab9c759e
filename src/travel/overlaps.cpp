// Where a body overlaps lines that stop one way only, by which of them.
//
// Idea: each line cuts what overlaps those near it that come after it, and takes what overlaps none of those before.

#include "overlaps_internal.hpp"

#include <algorithm>
#include <utility>

#include "../geometry/boolean_internal.hpp"

namespace dryground::travel {

namespace {

// Cuts each part in what overlaps one line more, and what does not.
std::vector<Overlap> parted(const std::vector<Overlap>& parts, const Ring& ring, int line) {
    const Regions more{{ring, {}}};
    std::vector<Overlap> result;
    for (const Overlap& part : parts) {
        if (Regions both = intersect(part.area, more); !both.empty()) {
            result.push_back({part.lines, std::move(both)});
            result.back().lines.push_back(line);
        }
        if (Regions rest = subtract(part.area, more); !rest.empty()) result.push_back({part.lines, std::move(rest)});
    }
    return result;
}

}   // namespace

std::vector<Overlap> overlaps_of(std::span<const Sum> lines, std::span<const Ring> closed) {
    std::vector<Overlap> all;
    if (lines.empty()) return all;
    Regions overlapped;
    std::vector<Bounds> boxes;
    for (const Sum& line : lines) overlapped.push_back({ring_of(line), {}}), boxes.push_back(line.box);
    const detail::BoxIndex near_lines(std::move(boxes));
    const Regions solid = detail::wound_around_in(closed, unite(overlapped));
    std::vector<Bounds> solid_boxes;
    for (const Region& region : solid) solid_boxes.push_back(detail::box_around(region.outline));
    const detail::BoxIndex near_solid(std::move(solid_boxes));
    for (std::size_t line = 0; line < lines.size(); ++line) {
        const Bounds& box = lines[line].box;
        std::vector<std::size_t> later;
        Regions without;
        near_lines.each_near(box, [&](std::size_t other) {
            if (other > line) later.push_back(other);
            if (other < line) without.push_back({ring_of(lines[other]), {}});
        });
        std::sort(later.begin(), later.end());
        near_solid.each_near(box, [&](std::size_t i) { without.push_back(solid[i]); });
        std::vector<Overlap> parts{
            {{static_cast<int>(line)}, subtract(Regions{{ring_of(lines[line]), {}}}, unite(without))}};
        for (const std::size_t other : later) parts = parted(parts, ring_of(lines[other]), static_cast<int>(other));
        all.insert(all.end(), std::make_move_iterator(parts.begin()), std::make_move_iterator(parts.end()));
    }
    return all;
}

}   // namespace dryground::travel

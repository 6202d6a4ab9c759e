// Where a body overlaps lines that stop one way only, by which of them.
//
// Idea: each line cuts what overlaps those near it that come after it, and takes what overlaps none of those before.
// After a change, lines whose boxes hang together are cut anew together, and only where one of them is at the change:
// so that the result is that of all anew.

#include "overlaps_internal.hpp"

#include <algorithm>
#include <utility>

#include "../geometry/boolean_internal.hpp"
#include "../geometry/same_ends_internal.hpp"

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

bool is_same(const Sum& a, const Sum& b) {
    return a.line == b.line && a.stops_from == b.stops_from && std::ranges::equal(a.ring, b.ring);
}

// Lines whose overlaps are not to be taken over, and those that are, by their numbers before.
struct Kept {
    std::vector<char> is_fresh;
    detail::SameEnds same{};

    // Returns a line's number now, given that before and how many there were; requires that it is still there.
    [[nodiscard]] int now(int line, std::size_t before) const {
        const auto number = static_cast<std::size_t>(line);
        return static_cast<int>(number < same.first ? number : number + is_fresh.size() - before);
    }
};

// Marks lines at a change, and all whose boxes hang together with theirs.
Kept kept_of(std::span<const Sum> lines, const detail::BoxIndex& near_lines, const OverlapsBefore* before) {
    Kept kept{std::vector<char>(lines.size(), before == nullptr ? 1 : 0)};
    if (before == nullptr) return kept;
    kept.same = detail::same_ends<Sum>(before->lines, lines, is_same);
    std::vector<Bounds> open = before->changed;
    const auto add_others = [&](std::span<const Sum> of) {
        for (std::size_t i = kept.same.first; i + kept.same.last < of.size(); ++i) open.push_back(of[i].box);
    };
    add_others(before->lines), add_others(lines);
    while (!open.empty()) {
        const Bounds box = open.back();
        open.pop_back();
        near_lines.each_near(box, [&](std::size_t i) {
            if (std::exchange(kept.is_fresh[i], 1) == 0) open.push_back(lines[i].box);
        });
    }
    return kept;
}

}   // namespace

std::vector<Overlap> overlaps_of(std::span<const Sum> lines, std::span<const Ring> closed,
                                 const OverlapsBefore* before) {
    std::vector<Overlap> all;
    if (lines.empty()) return all;
    std::vector<Bounds> boxes;
    for (const Sum& line : lines) boxes.push_back(line.box);
    const detail::BoxIndex near_lines(std::move(boxes));
    const Kept kept = kept_of(lines, near_lines, before);
    Regions overlapped;
    for (std::size_t i = 0; i < lines.size(); ++i)
        if (kept.is_fresh[i] != 0) overlapped.push_back({ring_of(lines[i]), {}});
    const Regions solid = overlapped.empty() ? Regions{} : detail::wound_around_in(closed, unite(overlapped));
    std::vector<Bounds> solid_boxes;
    for (const Region& region : solid) solid_boxes.push_back(detail::box_around(region.outline));
    const detail::BoxIndex near_solid(std::move(solid_boxes));
    const auto add_fresh = [&](std::size_t line) {
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
    };
    std::size_t next = 0;   // of those before
    for (std::size_t line = 0; line < lines.size(); ++line) {
        if (kept.is_fresh[line] != 0) {
            add_fresh(line);
            continue;
        }
        const std::size_t count = before->lines.size(),
                          was = line < kept.same.first ? line : line + count - lines.size();
        const auto first_of = [&] { return static_cast<std::size_t>(before->overlaps[next].lines.front()); };
        while (next < before->overlaps.size() && first_of() < was) ++next;
        for (; next < before->overlaps.size() && first_of() == was; ++next) {
            all.push_back(before->overlaps[next]);
            for (int& number : all.back().lines) number = kept.now(number, count);
        }
    }
    return all;
}

}   // namespace dryground::travel

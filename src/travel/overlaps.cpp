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

// Which lines are cut anew, and the numbers of the others.
struct Kept {
    std::vector<char> is_fresh;   // by line now
    detail::SameEnds same{};      // lines before and now, at the beginning and at the end
    int more_lines = 0;           // than before

    // Require a line that is there before and now.
    [[nodiscard]] int number_now(int before) const { return is_at_beginning(before) ? before : before + more_lines; }
    [[nodiscard]] int number_before(int now) const { return is_at_beginning(now) ? now : now - more_lines; }

private:
    [[nodiscard]] bool is_at_beginning(int number) const { return number < static_cast<int>(same.first); }
};

// Marks lines at a change, and all whose boxes hang together with theirs.
Kept kept_of(std::span<const Sum> lines, const detail::BoxIndex& near_lines, const OverlapsBefore* before) {
    Kept kept;
    kept.is_fresh.assign(lines.size(), before == nullptr ? 1 : 0);
    if (before == nullptr) return kept;
    kept.same = detail::same_ends<Sum>(before->lines, lines, is_same);
    kept.more_lines = static_cast<int>(lines.size()) - static_cast<int>(before->lines.size());
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

// Closed area below some lines, and all lines, to cut those.
class Cutter {
public:
    Cutter(std::span<const Sum> lines, const detail::BoxIndex& near_lines, std::span<const Ring> closed,
           const std::vector<char>& is_cut)
        : lines_(lines), near_lines_(near_lines) {
        Regions overlapped;
        for (std::size_t i = 0; i < lines.size(); ++i)
            if (is_cut[i] != 0) overlapped.push_back({ring_of(lines[i]), {}});
        if (overlapped.empty()) return;
        solid_ = detail::wound_around_in(closed, unite(overlapped));
        std::vector<Bounds> boxes;
        for (const Region& region : solid_) boxes.push_back(detail::box_around(region.outline));
        near_solid_ = detail::BoxIndex(std::move(boxes));
    }

    [[nodiscard]] std::vector<Overlap> parts_of(std::size_t line) const {
        const Bounds& box = lines_[line].box;
        std::vector<std::size_t> later;
        Regions without;
        near_lines_.each_near(box, [&](std::size_t other) {
            if (other > line) later.push_back(other);
            if (other < line) without.push_back({ring_of(lines_[other]), {}});
        });
        std::sort(later.begin(), later.end());
        near_solid_.each_near(box, [&](std::size_t i) { without.push_back(solid_[i]); });
        std::vector<Overlap> parts{
            {{static_cast<int>(line)}, subtract(Regions{{ring_of(lines_[line]), {}}}, unite(without))}};
        for (const std::size_t other : later) parts = parted(parts, ring_of(lines_[other]), static_cast<int>(other));
        return parts;
    }

private:
    std::span<const Sum> lines_;
    const detail::BoxIndex& near_lines_;
    Regions solid_;
    detail::BoxIndex near_solid_;
};

}   // namespace

std::vector<Overlap> overlaps_of(std::span<const Sum> lines, std::span<const Ring> closed,
                                 const OverlapsBefore* before) {
    std::vector<Overlap> all;
    if (lines.empty()) return all;
    std::vector<Bounds> boxes;
    for (const Sum& line : lines) boxes.push_back(line.box);
    const detail::BoxIndex near_lines(std::move(boxes));
    const Kept kept = kept_of(lines, near_lines, before);
    const Cutter cutter(lines, near_lines, closed, kept.is_fresh);
    std::size_t next = 0;   // of those before
    for (std::size_t line = 0; line < lines.size(); ++line) {
        if (kept.is_fresh[line] != 0) {
            std::vector<Overlap> parts = cutter.parts_of(line);
            all.insert(all.end(), std::make_move_iterator(parts.begin()), std::make_move_iterator(parts.end()));
            continue;
        }
        const int number = kept.number_before(static_cast<int>(line));
        for (; next < before->overlaps.size() && before->overlaps[next].lines.front() <= number; ++next) {
            if (before->overlaps[next].lines.front() < number) continue;   // cut anew, or gone
            all.push_back(before->overlaps[next]);
            for (int& other : all.back().lines) other = kept.number_now(other);
        }
    }
    return all;
}

}   // namespace dryground::travel

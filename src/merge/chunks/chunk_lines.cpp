// The part of a group's lines that a chunk holds.
//
// Idea. Lines near the chunk are cut by its ground and that of its neighbours along common sides; of what runs along
// such a side, one of the two chunks keeps it. Cost: that of cutting the lines near the chunk.

#include "chunk_lines_internal.hpp"

#include <algorithm>
#include <array>

#include "../../geometry/bounds_internal.hpp"

namespace dryground::detail {

namespace {

Regions regions_of(const std::vector<LabelledRing>& rings) {
    Regions regions;
    for (const LabelledRing& ring : rings) regions.push_back({ring.points, {}});   // holes wind the other way round
    return regions;
}

// Adds what is left of a piece without parts of the line that it lies on.
void subtract_parts(const LinePiece& piece, const SideParts& parts, std::vector<LinePiece>& into) {
    Point from = std::min(piece.from, piece.to);
    const Point to = std::max(piece.from, piece.to);
    for (const auto& [first, last] : parts) {
        if (last <= from || to <= first) continue;
        if (from < first) into.push_back({from, first, piece.label});
        from = std::max(from, last);
    }
    if (from < to) into.push_back({from, to, piece.label});
}

// Returns what two chunks both have along their common side.
SideParts common(const SideParts& a, const SideParts& b) {
    SideParts both;
    for (auto i = a.begin(), j = b.begin(); i != a.end() && j != b.end();) {
        const Point first = std::max(i->first, j->first), last = std::min(i->second, j->second);
        if (first < last) both.emplace_back(first, last);
        i->second < j->second ? ++i : ++j;
    }
    return both;
}

}   // namespace

std::vector<JoinedLine> lines_in(const LinesPlace& place, const std::vector<LinePiece>& near, OneWay one_way) {
    if (near.empty()) return {};
    const Ring& ring = place.chunk;
    Bounds box = box_around(ring);
    for (const LinePiece& piece : near) box = both(box, box_around(std::array{piece.from, piece.to}));
    box = grown(box, 1);   // around the chunk, which does not touch it
    Region around = box_region(box.least, box.most);
    around.holes.emplace_back(ring.rbegin(), ring.rend());
    const Regions ground = place.ground == nullptr ? Regions{} : regions_of(*place.ground);
    std::vector<LinePiece> kept;
    // Duplicates are removed first, and sides are handled first: cuts off the lattice are rounded.
    for (const LinePiece& piece : without_doubles(near)) {
        const auto along = [&](std::size_t side) {
            const Point from = ring[side], to = ring[(side + 1) % 4];
            return place.has_behind[side] && turn(from, to, piece.from) == Turn::straight &&
                   turn(from, to, piece.to) == Turn::straight;
        };
        if (along(1) || along(2)) continue;   // the other chunk's
        const std::size_t side = along(0) ? 0 : along(3) ? 3 : 4;
        if (side == 4 || place.behind[side] == nullptr)
            kept.push_back(piece);
        else
            subtract_parts(piece, common(place.border->parts[side], *place.behind[side]), kept);
    }
    kept = cut_lines(cut_lines(std::move(kept), ground), {around});
    return join_lines(kept, one_way);
}

}   // namespace dryground::detail

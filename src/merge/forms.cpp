// The forms of a group: chains, convex pieces, boxes, triangles.
//
// Idea. Each form is computed region by region, so that after an edit regions that did not change keep their pieces.
// Cost: that of the changed regions, and O(n log n) to find them.

#include "forms_internal.hpp"

#include <algorithm>
#include <iterator>
#include <utility>

#include "../geometry/ring_internal.hpp"
#include "least_edge_internal.hpp"

namespace dryground::detail {

Group named_group(const World& world, const GroupKey& key) {
    Group group;
    group.storey_id = key.storey;
    group.storey = world.storey(key.storey).name;
    group.barrier_id = key.barrier;
    if (key.barrier != BarrierId::none) group.barrier = world.barrier(key.barrier).name;
    group.trigger = key.trigger;
    group.one_way = key.one_way;
    return group;
}

std::int32_t least_edge(const World& world) { return to_steps(world.merging().least_edge_px); }

void add_plain_rings(Stacked& stacked) {
    stacked.rings.clear();
    const auto add = [&](const Ring& ring) { stacked.rings.push_back({ring, std::vector<int>(ring.size(), 0)}); };
    each_ring(stacked.regions, add);
    std::sort(stacked.rings.begin(), stacked.rings.end(),
              [](const LabelledRing& a, const LabelledRing& b) { return a.points < b.points; });
}

namespace {

// A convex piece, and the region that it is cut from.
using OwnedPiece = std::pair<Ring, std::size_t>;

int most_vertices(const World& world, const MergeOptions& options) {
    return options.most_vertices >= 3 ? options.most_vertices : world.merging().most_vertices;
}

// Returns the regions that convex pieces are cut from: others are made in `room` if short edges go.
const Regions& regions_of_pieces(const World& world, const Regions& regions, Regions& room) {
    const std::int32_t least = least_edge(world);
    return least > 0 ? room = without_short_edges(regions, least) : regions;
}

RegionNumbers numbers_in(const Regions& others, const Regions& regions) {
    const auto sooner = [](const Region* a, const Region* b) { return a->outline < b->outline; };
    std::vector<const Region*> sorted;
    for (const Region& other : others) sorted.push_back(&other);
    std::sort(sorted.begin(), sorted.end(), sooner);
    RegionNumbers numbers;
    for (const Region& region : regions) {
        const auto found = std::lower_bound(sorted.begin(), sorted.end(), &region, sooner);
        const bool same = found != sorted.end() && **found == region;
        numbers.push_back(same ? static_cast<int>(*found - others.data()) : -1);
    }
    return numbers;
}

void renew_pieces(Group& group, Group& before, PieceRegions& of_pieces, const std::optional<RegionNumbers>& known,
                  const World& world, int most) {
    const bool is_known = of_pieces.size() == before.pieces.size();   // else its share begins again
    Regions room, room_before;
    const Regions& now = regions_of_pieces(world, group.regions, room);
    RegionNumbers found;
    if (is_known && !known) found = numbers_in(now, regions_of_pieces(world, before.regions, room_before));
    const RegionNumbers& numbers = known ? *known : found;
    std::vector<OwnedPiece> kept, added, all;   // each sorted by piece
    std::vector<char> has_pieces(now.size(), 0);
    for (std::size_t i = 0; is_known && i < of_pieces.size(); ++i)
        if (numbers[of_pieces[i]] >= 0) {
            const auto region = static_cast<std::size_t>(numbers[of_pieces[i]]);
            has_pieces[region] = 1;
            kept.emplace_back(std::move(before.pieces[i]), region);
        }
    for (std::size_t region = 0; region < now.size(); ++region)
        if (!has_pieces[region])
            for (Ring& piece : convex_pieces({&now[region], 1}, most)) added.emplace_back(std::move(piece), region);
    std::sort(added.begin(), added.end());
    std::merge(std::make_move_iterator(kept.begin()), std::make_move_iterator(kept.end()),
               std::make_move_iterator(added.begin()), std::make_move_iterator(added.end()), std::back_inserter(all));
    of_pieces.clear();
    group.pieces.clear();
    for (auto& [piece, region] : all) {
        group.pieces.push_back(std::move(piece));
        of_pieces.push_back(region);
    }
}

void add_boxes_and_triangles(Group& group, const World& world, const MergeOptions& options) {
    if (options.forms.has(MergeForm::boxes)) group.boxes = least_boxes(group.regions, most_vertices(world, options));
    if (options.forms.has(MergeForm::triangles)) group.triangles = delaunay_triangles(group.regions);
}

}   // namespace

void add_area_forms(Group& group, const World& world, const MergeOptions& options) {
    Regions room;
    if (options.forms.has(MergeForm::pieces))
        group.pieces = convex_pieces(regions_of_pieces(world, group.regions, room), most_vertices(world, options));
    add_boxes_and_triangles(group, world, options);
}

void renew_area_forms(Group& group, Group& before, PieceRegions& of_pieces, const std::optional<RegionNumbers>& numbers,
                      const World& world, const MergeOptions& options) {
    if (options.forms.has(MergeForm::pieces))
        renew_pieces(group, before, of_pieces, numbers, world, most_vertices(world, options));
    add_boxes_and_triangles(group, world, options);
}

void add_line_forms(Group& group, const std::vector<JoinedLine>& lines, const Neighbours& neighbours, bool chains) {
    for (const JoinedLine& line : lines) {
        Ring points = line.points;
        if (line.closed) points.push_back(points.front());
        group.lines.push_back(std::move(points));
        if (!chains) continue;
        Chain chain{.points = line.points, .surfaces = line.labels};
        chain.closed = line.closed;
        chain.two_sided = group.one_way == OneWay::none;
        if (!line.closed) {
            const std::size_t n = line.points.size();
            chain.before = neighbours.after(line.points[1], line.points[0]);
            chain.after = neighbours.after(line.points[n - 2], line.points[n - 1]);
        }
        group.chains.push_back(std::move(chain));
    }
}

}   // namespace dryground::detail

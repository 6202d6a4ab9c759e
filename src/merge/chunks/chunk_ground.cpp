// What each chunk of a map holds: its shares of every plan, and the groups made of them.
//
// Idea. A chunk is the block of cells that it is made of, merged by itself. Its chains need what its neighbours have
// along their common sides, so rings are kept for each chunk. Lines are searched only in and around a chunk, so they
// too cost only what lies there.

#include "chunk_ground_internal.hpp"

#include <algorithm>
#include <utility>

#include "../../geometry/ring_internal.hpp"
#include "../cells/rings_before_internal.hpp"
#include "../ground_plane_internal.hpp"
#include "../least_edge_internal.hpp"

namespace dryground::detail {
namespace {

bool on_ring(const Ring& ring, Point p) {
    for (std::size_t i = 0; i < ring.size(); ++i)
        if (turn(ring[i], ring[(i + 1) % ring.size()], p) == Turn::straight) return true;
    return false;
}

// Returns the edges of lines that end on a chunk's ring.
LineEdges edges_at(const Ring& ring, const std::vector<JoinedLine>& lines) {
    LineEdges edges;
    for (const JoinedLine& line : lines)
        for (std::size_t i = 0; i < line.labels.size(); ++i) {
            const Point a = line.points[i], b = line.points[(i + 1) % line.points.size()];
            if (on_ring(ring, a) || on_ring(ring, b)) edges.emplace_back(a, b);
        }
    return edges;
}

bool is_of(const Group& group, const GroupKey& key) {
    return group.storey_id == key.storey && group.barrier_id == key.barrier && group.trigger == key.trigger &&
           group.one_way == key.one_way;
}

std::vector<Group>::iterator find_group(std::vector<Group>& groups, const GroupKey& key) {
    return std::find_if(groups.begin(), groups.end(), [&](const Group& group) { return is_of(group, key); });
}

// Returns whether regions are those from before, in the same order.
bool all_stay(const RegionNumbers& numbers, const Regions& now) {
    if (numbers.size() != now.size()) return false;
    for (std::size_t i = 0; i < numbers.size(); ++i)
        if (numbers[i] != static_cast<int>(i)) return false;
    return true;
}

bool sooner(const Group& a, const Group& b) {
    return std::tie(a.storey, a.barrier, a.trigger, a.one_way) < std::tie(b.storey, b.barrier, b.trigger, b.one_way);
}

}   // namespace

ChunkGround::ChunkGround(const World& w, const Map& m, int chunk_cells, const MergeOptions& o)
    : world(w),
      map(m),
      options(o),
      grid(m),
      flat(o.plane == Plane::ground && !grid.is_flat()),
      layout(map, chunk_cells),
      plans(world, map, options) {
    merge.map = map.name;
    merge.chunk_cells = layout.cells;
    merge.plane = options.plane;
    if (options.plane == Plane::ground) {
        test_flat_range(map, 0);
        merge.cell = {grid.width(), grid.height()};
    }
    for (int r = 0; r < layout.rows; ++r)
        for (int c = 0; c < layout.columns; ++c)
            merge.chunks.push_back({{layout.first_column + c, layout.first_row + r}, {}});
    make_all();
}

void ChunkGround::make_all() {
    merge.surfaces = plans.stacking().surfaces;
    merge.stats = plans.stacking().stats;
    layout.margin = plans.margin();
    make_room();
    for (std::size_t i = 0; i < merge.chunks.size(); ++i) merge_cells(i);
    for (std::size_t i = 0; i < merge.chunks.size(); ++i) find_runs(i);
    for (std::size_t i = 0; i < merge.chunks.size(); ++i) find_ends(i);
    for (std::size_t i = 0; i < merge.chunks.size(); ++i) static_cast<void>(find_lines(i));
    for (std::size_t i = 0; i < merge.chunks.size(); ++i) static_cast<void>(make_groups(i));
}

void ChunkGround::make_room() {
    for (PlanShares& plan : plans.plans) plan.shares.resize(merge.chunks.size());
}

void ChunkGround::merge_cells(std::size_t chunk) {
    const Ring ring = layout.ring_of(chunk);
    const std::int32_t least = least_edge(world);
    for (PlanShares& plan : plans.plans) {
        if (!plan.merge_block) continue;
        Share& share = plan.shares[chunk];
        const auto group = find_group(merge.chunks[chunk].groups, plan.key);
        // Regions laid on the ground have other points, and where short edges go, pieces are cut from other regions.
        const bool keeps = !flat && least <= 0 && group != merge.chunks[chunk].groups.end();
        RingsBefore before = keeps ? RingsBefore(group->regions, share.rings) : RingsBefore();
        Stacked stacked = plan.merge_block(layout.block_of(chunk), before);
        if (keeps) share.numbers = before.numbers_in(stacked.regions);
        if (least > 0) fuse_short_edges(stacked.rings, least, [&](Point p) { return on_ring(ring, p); });
        share.rings = std::move(stacked.rings);
        share.stays.clear();
        for (const LabelledRing& one : share.rings) share.stays.push_back(before.gave(one));
        share.border = border_of(share.rings, ring);
        share.regions = std::move(stacked.regions);
    }
}

ChunkGround::Behind ChunkGround::behind(const PlanShares& plan, std::size_t chunk) const {
    Behind parts{};
    for (std::size_t side = 0; side < 4; ++side)
        if (const int other = layout.behind(chunk, side); other >= 0)
            parts[side] = &plan.shares[static_cast<std::size_t>(other)].border.parts[(side + 2) % 4];
    return parts;
}

void ChunkGround::find_runs(std::size_t chunk) {
    for (PlanShares& plan : plans.plans) {
        Share& share = plan.shares[chunk];
        share.runs = runs_of(share.rings, share.border, behind(plan, chunk));
    }
}

void ChunkGround::find_ends(std::size_t chunk) {
    for (PlanShares& plan : plans.plans) {
        std::vector<const Runs*> near{&plan.shares[chunk].runs};
        for (const std::size_t other : layout.around(chunk)) near.push_back(&plan.shares[other].runs);
        detail::find_ends(plan.shares[chunk].runs, near);
    }
}

void ChunkGround::renew_runs(const std::vector<std::size_t>& chunks) {
    std::vector<std::vector<Run>> before;
    for (const std::size_t one : chunks)
        for (PlanShares& plan : plans.plans) before.push_back(std::move(plan.shares[one].runs.cut));
    for (const std::size_t one : chunks) find_runs(one);
    auto known = before.begin();
    for (const std::size_t one : chunks) {
        find_ends(one);
        for (PlanShares& plan : plans.plans) plan.shares[one].runs_changed |= plan.shares[one].runs.cut != *known++;
    }
}

LinesPlace ChunkGround::place_of_lines(const PlanShares& plan, std::size_t chunk) const {
    LinesPlace place;
    place.chunk = layout.ring_of(chunk);
    for (std::size_t side = 0; side < 4; ++side) place.has_behind[side] = layout.behind(chunk, side) >= 0;
    if (plan.ground >= 0) {
        const PlanShares& ground = plans.plans[static_cast<std::size_t>(plan.ground)];
        place.ground = &ground.shares[chunk].rings;
        place.border = &ground.shares[chunk].border;
        place.behind = behind(ground, chunk);
    }
    return place;
}

ChunkGround::Lines ChunkGround::find_lines(std::size_t chunk) {
    Lines result = Lines::same;
    for (PlanShares& plan : plans.plans) {
        if (!plan.lines_near) continue;
        const LinesPlace place = place_of_lines(plan, chunk);
        std::vector<JoinedLine> lines = lines_in(place, plan.lines_near(box_around(place.chunk)), plan.key.one_way);
        std::vector<JoinedLine>& known = plan.shares[chunk].lines;
        if (lines == known) continue;
        if (edges_at(place.chunk, lines) != edges_at(place.chunk, known))
            result = Lines::others_at_side;
        else if (result == Lines::same)
            result = Lines::others_inside;
        known = std::move(lines);
    }
    return result;
}

void ChunkGround::add_edges_near(const PlanShares& plan, std::size_t chunk, Neighbours& neighbours) const {
    const auto add = [&](Point a, Point b) { neighbours.add(flat ? grid.flat(a) : a, flat ? grid.flat(b) : b); };
    const Ring ring = layout.ring_of(chunk);
    const std::vector<JoinedLine>& lines = plan.shares[chunk].lines;
    const bool any_at_side = std::any_of(lines.begin(), lines.end(), [&](const JoinedLine& line) {
        return on_ring(ring, line.points.front()) || on_ring(ring, line.points.back());
    });
    std::vector<std::size_t> chunks;
    if (any_at_side) chunks = layout.around(chunk);
    chunks.push_back(chunk);
    for (const std::size_t one : chunks) {
        if (one != chunk)
            for (const JoinedLine& line : plan.shares[one].lines)
                for (std::size_t i = 0; i < line.labels.size(); ++i)
                    add(line.points[i], line.points[(i + 1) % line.points.size()]);
        if (plan.ground < 0) continue;
        const Share& ground = plans.plans[static_cast<std::size_t>(plan.ground)].shares[one];
        // Of rings within another chunk, only what comes up to its side is near enough.
        if (one == chunk)
            for (const std::size_t r : ground.runs.whole) each_edge_of_ring(ground.rings[r].points, add);
        else
            for (const auto& [a, b] : ground.border.ending) add(a, b);
        for (const Run& run : ground.runs.cut)
            for (const BorderEdge& edge : run.edges) add(edge.from, edge.to);
    }
}

Group ChunkGround::group_of(const PlanShares& plan) const {
    Group group = named_group(world, plan.key);
    if (options.mover != MoverId::none) group.mover = world.mover(options.mover).name;
    return group;
}

bool ChunkGround::make_edges(PlanShares& plan, std::size_t chunk, Group& group) const {
    const bool has_chains = options.forms.has(MergeForm::chains);
    Share& share = plan.shares[chunk];
    share.runs_changed = false;
    const std::vector<char> stays = std::exchange(share.stays, std::vector<char>(share.rings.size(), 1));
    if (!flat && share.lines.empty() && group.lines.empty())
        return has_chains && renew_chains(share.rings, stays, share.runs, group.chains);
    const std::vector<Chain> chains = std::exchange(group.chains, {});
    const std::vector<Ring> lines_before = std::exchange(group.lines, {});
    if (has_chains) {
        renew_chains(share.rings, stays, share.runs, group.chains);
        if (flat) lay_flat(grid, group.chains);
    }
    if (std::vector<JoinedLine> lines = share.lines; !lines.empty()) {
        if (flat) lay_flat(grid, lines);
        Neighbours neighbours(lines);
        add_edges_near(plan, chunk, neighbours);
        add_line_forms(group, lines, neighbours, has_chains);
    }
    return group.chains != chains || group.lines != lines_before;
}

bool ChunkGround::make_groups(std::size_t chunk) {
    std::vector<Group>& groups = merge.chunks[chunk].groups;
    std::vector<Group> before = std::exchange(groups, {});
    bool changed = false;
    for (PlanShares& plan : plans.plans) {
        Share& share = plan.shares[chunk];
        Regions regions = std::exchange(share.regions, {});
        const std::optional<RegionNumbers> numbers = std::exchange(share.numbers, std::nullopt);
        if (regions.empty() && share.lines.empty()) continue;
        if (flat) lay_flat(grid, regions);
        const auto found = find_group(before, plan.key);
        changed = changed || found == before.end();
        Group none;
        Group& known = found == before.end() ? none : *found;
        Group now = group_of(plan);
        now.chains = std::move(known.chains), now.lines = std::move(known.lines);
        now.regions = std::move(regions);
        changed = make_edges(plan, chunk, now) || changed;
        changed = changed || !(numbers ? all_stay(*numbers, now.regions) : known.regions == now.regions);
        renew_area_forms(now, known, share.of_pieces, numbers, world, options);
        groups.push_back(std::move(now));
    }
    std::sort(groups.begin(), groups.end(), sooner);
    return changed || groups.size() != before.size();
}

bool ChunkGround::renew_edges(std::size_t chunk) {
    std::vector<Group>& groups = merge.chunks[chunk].groups;
    bool changed = std::erase_if(groups, [&](const Group& group) {   // belongs to no plan any longer
                       return std::none_of(plans.plans.begin(), plans.plans.end(),
                                           [&](const auto& plan) { return is_of(group, plan.key); });
                   }) > 0;
    for (PlanShares& plan : plans.plans) {
        const auto known = find_group(groups, plan.key);
        const Share& share = plan.shares[chunk];
        if (known == groups.end()) {
            if (share.lines.empty()) continue;
            Group now = group_of(plan);
            make_edges(plan, chunk, now);
            groups.insert(std::upper_bound(groups.begin(), groups.end(), now, sooner), std::move(now));
            changed = true;
            continue;
        }
        // Rings within the chunk are unchanged.
        if (share.lines.empty() && known->lines.empty() && !share.runs_changed) continue;
        if (!make_edges(plan, chunk, *known)) continue;
        changed = true;
        if (known->regions.empty() && known->lines.empty()) groups.erase(known);
    }
    return changed;
}

}   // namespace dryground::detail

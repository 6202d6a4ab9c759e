// A map's geometry in chunks, and what one changed cell does to it.
//
// Idea. A chunk is the block of cells that it is made of, merged by itself. Its chains need what its neighbours have
// along their common sides, so that rings are kept for each chunk. A changed cell merges its chunk anew; neighbours
// only when what the chunk has along the common side, or which edges end there, is another than before. Lines are
// looked for in and around a chunk alone, so that they too cost what lies there.

#include <algorithm>
#include <stdexcept>
#include <utility>

#include "chunk_layout_internal.hpp"
#include "chunk_lines_internal.hpp"
#include "chunk_plans_internal.hpp"
#include "forms_internal.hpp"
#include "ground_plane_internal.hpp"
#include "least_edge_internal.hpp"

namespace dryground {

struct LiveMap::Parts {
    Parts(const World& w, const Map& m, int chunk_cells, const MergeOptions& o)
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
            detail::test_flat_range(map);
            merge.cell = {grid.width(), grid.height()};
        }
        for (int r = 0; r < layout.rows; ++r)
            for (int c = 0; c < layout.columns; ++c)
                merge.chunks.push_back({{layout.first_column + c, layout.first_row + r}, {}});
        begin();
    }

    // Everything anew.
    void restack() {
        plans.restack();
        begin();
    }
    void begin() {
        merge.surfaces = plans.stacking().surfaces;
        merge.stats = plans.stacking().stats;
        layout.margin = plans.margin();
        make_room();
        for (std::size_t i = 0; i < merge.chunks.size(); ++i) merge_cells(i);
        for (std::size_t i = 0; i < merge.chunks.size(); ++i) find_runs(i);
        for (std::size_t i = 0; i < merge.chunks.size(); ++i) static_cast<void>(find_lines(i));
        for (std::size_t i = 0; i < merge.chunks.size(); ++i) make_groups(i);
    }
    void make_room() {
        for (detail::PlanShares& plan : plans.plans) plan.shares.resize(merge.chunks.size());
    }

    // ---- a chunk's shares ----

    [[nodiscard]] static bool on_ring(const Ring& ring, Point p) {
        for (std::size_t i = 0; i < ring.size(); ++i)
            if (turn(ring[i], ring[(i + 1) % ring.size()], p) == Turn::straight) return true;
        return false;
    }

    void merge_cells(std::size_t chunk) {
        const Ring ring = layout.ring_of(chunk);
        for (detail::PlanShares& plan : plans.plans) {
            if (!plan.merge_block) continue;
            Stacked stacked = plan.merge_block(layout.block_of(chunk));
            if (const std::int32_t least = detail::least_edge(world); least > 0)
                detail::fuse_short_edges(stacked.rings, least, [&](Point p) { return on_ring(ring, p); });
            detail::Share& share = plan.shares[chunk];
            share.rings = std::move(stacked.rings);
            share.border = detail::border_of(share.rings, ring);
            share.regions = std::move(stacked.regions);
        }
    }

    // What another chunk has along the common side, by side.
    [[nodiscard]] std::array<const detail::SideParts*, 4> behind(const detail::PlanShares& plan,
                                                                 std::size_t chunk) const {
        std::array<const detail::SideParts*, 4> parts{};
        for (std::size_t side = 0; side < 4; ++side)
            if (const int other = layout.behind(chunk, side); other >= 0)
                parts[side] = &plan.shares[static_cast<std::size_t>(other)].border.parts[(side + 2) % 4];
        return parts;
    }

    void find_runs(std::size_t chunk) {
        for (detail::PlanShares& plan : plans.plans) {
            detail::Share& share = plan.shares[chunk];
            share.runs = detail::runs_of(share.rings, share.border, behind(plan, chunk));
        }
    }

    // Whether they are others than before.
    bool find_lines(std::size_t chunk) {
        bool changed = false;
        for (detail::PlanShares& plan : plans.plans) {
            if (!plan.lines_near) continue;
            detail::LinesPlace place;
            place.chunk = layout.ring_of(chunk);
            for (std::size_t side = 0; side < 4; ++side) place.has_behind[side] = layout.behind(chunk, side) >= 0;
            if (plan.ground >= 0) {
                const detail::PlanShares& ground = plans.plans[static_cast<std::size_t>(plan.ground)];
                place.ground = &ground.shares[chunk].rings;
                place.border = &ground.shares[chunk].border;
                place.behind = behind(ground, chunk);
            }
            const Region ring{place.chunk, {}};
            std::vector<detail::JoinedLine> lines =
                detail::lines_in(place, plan.lines_near(*bounds({&ring, 1})), plan.key.one_way);
            if (lines == plan.shares[chunk].lines) continue;
            plan.shares[chunk].lines = std::move(lines);
            changed = true;
        }
        return changed;
    }

    // ---- groups ----

    [[nodiscard]] std::vector<Chain> chains_of(const detail::PlanShares& plan, std::size_t chunk) const {
        std::vector<const std::vector<detail::Run>*> others{&plan.shares[chunk].runs};
        for (const std::size_t other : layout.around(chunk)) others.push_back(&plan.shares[other].runs);
        std::vector<Chain> chains = detail::chains_of(plan.shares[chunk].runs, others);
        if (flat) detail::lay_flat(grid, chains);
        return chains;
    }

    // What lines may go on along: edges of ground and lines in and around a chunk.
    [[nodiscard]] std::vector<std::pair<Point, Point>> edges_near(const detail::PlanShares& plan,
                                                                  std::size_t chunk) const {
        std::vector<std::pair<Point, Point>> edges;
        const auto add = [&](Point a, Point b) {
            edges.emplace_back(flat ? grid.flat(a) : a, flat ? grid.flat(b) : b);
        };
        std::vector<std::size_t> chunks = layout.around(chunk);
        chunks.push_back(chunk);
        for (const std::size_t one : chunks) {
            if (one != chunk)
                for (const detail::JoinedLine& line : plan.shares[one].lines)
                    for (std::size_t i = 0; i < line.labels.size(); ++i)
                        add(line.points[i], line.points[(i + 1) % line.points.size()]);
            if (plan.ground >= 0)
                for (const detail::Run& run : plans.plans[static_cast<std::size_t>(plan.ground)].shares[one].runs)
                    for (const detail::BorderEdge& edge : run.edges) add(edge.from, edge.to);
        }
        return edges;
    }

    // A group with its edges, given its regions.
    [[nodiscard]] Group group_of(const detail::PlanShares& plan, std::size_t chunk, Regions regions) const {
        Group group = detail::named_group(world, plan.key);
        if (options.mover >= 0) group.mover = world.movers()[static_cast<std::size_t>(options.mover)].name;
        group.regions = std::move(regions);
        if (options.chains && !plan.shares[chunk].runs.empty()) group.chains = chains_of(plan, chunk);
        std::vector<detail::JoinedLine> lines = plan.shares[chunk].lines;
        if (!lines.empty()) {
            if (flat) detail::lay_flat(grid, lines);
            detail::add_line_forms(group, lines, edges_near(plan, chunk), options.chains);
        }
        return group;
    }

    static bool sooner(const Group& a, const Group& b) {
        return std::tie(a.storey, a.barrier, a.trigger, a.one_way) <
               std::tie(b.storey, b.barrier, b.trigger, b.one_way);
    }

    void make_groups(std::size_t chunk) {
        std::vector<Group>& groups = merge.chunks[chunk].groups;
        groups.clear();
        for (detail::PlanShares& plan : plans.plans) {
            Regions regions = std::exchange(plan.shares[chunk].regions, {});
            if (regions.empty() && plan.shares[chunk].lines.empty()) continue;
            if (flat) detail::lay_flat(grid, regions);
            groups.push_back(group_of(plan, chunk, std::move(regions)));
            detail::add_area_forms(groups.back(), world, options);
        }
        std::sort(groups.begin(), groups.end(), sooner);
    }

    // Of a chunk whose regions stay; false when its lines and chains do too.
    bool renew_edges(std::size_t chunk) {
        bool changed = false;
        std::vector<Group>& groups = merge.chunks[chunk].groups;
        for (const detail::PlanShares& plan : plans.plans) {
            const auto known = std::find_if(groups.begin(), groups.end(), [&](const Group& group) {
                return group.storey_id == plan.key.storey && group.barrier_id == plan.key.barrier &&
                       group.trigger == plan.key.trigger && group.one_way == plan.key.one_way;
            });
            const bool is_known = known != groups.end();
            if (!is_known && plan.shares[chunk].lines.empty()) continue;
            Group now = group_of(plan, chunk, is_known ? known->regions : Regions{});
            if (is_known && now.chains == known->chains && now.lines == known->lines) continue;
            changed = true;
            if (is_known && now.regions.empty() && now.lines.empty()) {
                groups.erase(known);
            } else if (is_known) {
                known->chains = std::move(now.chains), known->lines = std::move(now.lines);
            } else {
                groups.insert(std::upper_bound(groups.begin(), groups.end(), now, sooner), std::move(now));
            }
        }
        return changed;
    }

    // ---- a changed cell ----

    // Those chunks that changed. `reach`: where lines may be others than before, if anywhere.
    std::vector<std::size_t> change(std::size_t chunk, const std::optional<Bounds>& reach) {
        std::vector<std::vector<std::pair<Point, Point>>> seen;
        for (detail::PlanShares& plan : plans.plans) seen.push_back(std::move(plan.shares[chunk].border.seen));
        merge_cells(chunk);
        bool seen_otherwise = false;
        for (std::size_t p = 0; p < plans.plans.size(); ++p)
            seen_otherwise = seen_otherwise || seen[p] != plans.plans[p].shares[chunk].border.seen;
        find_runs(chunk);
        std::vector<std::size_t> touched{chunk};   // those whose edges may be others
        const auto touch_around = [&](std::size_t one) {
            const std::vector<std::size_t> others = layout.around(one);
            touched.insert(touched.end(), others.begin(), others.end());
        };
        if (seen_otherwise) {
            touch_around(chunk);
            for (std::size_t i = 1; i < touched.size(); ++i) find_runs(touched[i]);
        }
        std::vector<std::size_t> with_lines = touched;
        if (reach) {
            const std::vector<std::size_t> others = layout.near(*reach);
            with_lines.insert(with_lines.end(), others.begin(), others.end());
        }
        for (const std::size_t one : each_once(with_lines))
            if (find_lines(one)) touched.push_back(one), touch_around(one);
        std::vector<std::size_t> changed;
        for (const std::size_t one : each_once(touched)) {
            if (one == chunk)
                make_groups(chunk), changed.push_back(chunk);
            else if (renew_edges(one))
                changed.push_back(one);
        }
        return changed;
    }
    static std::vector<std::size_t> each_once(std::vector<std::size_t> chunks) {
        std::sort(chunks.begin(), chunks.end());
        chunks.erase(std::unique(chunks.begin(), chunks.end()), chunks.end());
        return chunks;
    }

    std::vector<std::size_t> set_tile(std::size_t layer, int column, int row, const Placed& tile) {
        if (layer >= map.layers.size() || map.layers[layer].holds_objects)
            throw std::out_of_range("LiveMap::set_tile: no layer of cells has this number");
        if (!map.has(column, row)) throw std::out_of_range("LiveMap::set_tile: the map has no such cell");
        if (tile.tile >= 0 && (tile.tileset < 0 || static_cast<std::size_t>(tile.tileset) >= world.tilesets().size() ||
                               static_cast<std::size_t>(tile.tile) >=
                                   world.tilesets()[static_cast<std::size_t>(tile.tileset)].tiles.size()))
            throw std::out_of_range("LiveMap::set_tile: the world has no such tile");
        const std::size_t known = map.palette.size();
        const std::uint32_t before = map.put(layer, column, row, tile.tile < 0 ? Placed{} : tile),
                            now = map.number(map.layers[layer], column, row);
        if (before == now) return {};
        const bool keeps_to_cell = !plans.spreads(layer, before) && !plans.spreads(layer, now);
        if (keeps_to_cell && (map.palette.size() == known || plans.learn())) {
            make_room();
            std::optional<Bounds> reach;
            // For a mover any tile may decide which sides of its cell are shut.
            if (options.mover >= 0 || plans.lines().matters(layer, before) || plans.lines().matters(layer, now))
                reach = plans.lines().reach_of(layer, column, row);
            return change(layout.chunk_of(column, row), reach);
        }
        const std::vector<Chunk> all = merge.chunks;
        restack();
        std::vector<std::size_t> changed;
        for (std::size_t i = 0; i < all.size(); ++i)
            if (all[i].groups != merge.chunks[i].groups) changed.push_back(i);
        return changed;
    }

    const World& world;
    Map map;
    MergeOptions options;
    detail::Grid grid;
    bool flat;   // laid on the ground
    detail::ChunkLayout layout;
    detail::ChunkPlans plans;
    ChunkedMerge merge;
};

LiveMap::LiveMap(const World& world, const Map& map, int chunk_cells, const MergeOptions& options)
    : parts_(std::make_unique<Parts>(world, map, chunk_cells, options)) {}
LiveMap::~LiveMap() = default;
LiveMap::LiveMap(LiveMap&&) noexcept = default;
LiveMap& LiveMap::operator=(LiveMap&&) noexcept = default;

const Map& LiveMap::map() const { return parts_->map; }
const ChunkedMerge& LiveMap::merge() const { return parts_->merge; }

std::vector<std::size_t> LiveMap::set_tile(std::size_t layer, int column, int row, const Placed& tile) {
    return parts_->set_tile(layer, column, row, tile);
}

ChunkedMerge merge_chunks(const World& world, const Map& map, int chunk_cells, const MergeOptions& options) {
    return LiveMap(world, map, chunk_cells, options).merge();
}

}   // namespace dryground

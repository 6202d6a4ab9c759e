// A map's geometry in chunks, and what one changed cell does to it.
//
// Idea. A chunk is the block of cells that it is made of, merged by itself. Its chains need what its neighbours have
// along their common sides, so that rings are kept for each chunk. A changed cell merges its chunk anew; neighbours
// only when what the chunk has along the common side, or which edges end there, is another than before. Lines are
// looked for in and around a chunk alone, so that they too cost what lies there.

#include <algorithm>
#include <stdexcept>
#include <utility>

#include "../../geometry/ring_internal.hpp"
#include "../forms_internal.hpp"
#include "../ground_plane_internal.hpp"
#include "../least_edge_internal.hpp"
#include "chunk_facts_internal.hpp"
#include "chunk_layout_internal.hpp"
#include "chunk_lines_internal.hpp"
#include "chunk_plans_internal.hpp"

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
            detail::test_flat_range(map, 0);
            merge.cell = {grid.width(), grid.height()};
        }
        for (int r = 0; r < layout.rows; ++r)
            for (int c = 0; c < layout.columns; ++c)
                merge.chunks.push_back({{layout.first_column + c, layout.first_row + r}, {}});
        begin();
    }

    // Everything by the plans as they are.
    void begin() {
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
    // Of runs that other chunks have a part in.
    void find_ends(std::size_t chunk) {
        for (detail::PlanShares& plan : plans.plans) {
            std::vector<const detail::Runs*> near{&plan.shares[chunk].runs};
            for (const std::size_t other : layout.around(chunk)) near.push_back(&plan.shares[other].runs);
            detail::find_ends(plan.shares[chunk].runs, near);
        }
    }
    // Of some chunks, whose rings may be others or whose neighbours' are.
    void renew_runs(const std::vector<std::size_t>& chunks) {
        std::vector<std::vector<detail::Run>> before;
        for (const std::size_t one : chunks)
            for (detail::PlanShares& plan : plans.plans) before.push_back(std::move(plan.shares[one].runs.cut));
        for (const std::size_t one : chunks) find_runs(one);
        auto known = before.begin();
        for (const std::size_t one : chunks) {
            find_ends(one);
            for (detail::PlanShares& plan : plans.plans)
                plan.shares[one].runs_changed |= plan.shares[one].runs.cut != *known++;
        }
    }

    enum class Lines { same, others_inside, others_at_side };   // than before; the last where other chunks see them
    Lines find_lines(std::size_t chunk) {
        Lines result = Lines::same;
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
            std::vector<detail::JoinedLine>& known = plan.shares[chunk].lines;
            if (lines == known) continue;
            if (edges_at(place.chunk, lines) != edges_at(place.chunk, known))
                result = Lines::others_at_side;
            else if (result == Lines::same)
                result = Lines::others_inside;
            known = std::move(lines);
        }
        return result;
    }
    // The edges of lines that end on a chunk's ring.
    [[nodiscard]] static detail::LineEdges edges_at(const Ring& ring, const std::vector<detail::JoinedLine>& lines) {
        detail::LineEdges edges;
        for (const detail::JoinedLine& line : lines)
            for (std::size_t i = 0; i < line.labels.size(); ++i) {
                const Point a = line.points[i], b = line.points[(i + 1) % line.points.size()];
                if (on_ring(ring, a) || on_ring(ring, b)) edges.emplace_back(a, b);
            }
        return edges;
    }

    // ---- groups ----

    // What lines that end in a chunk may go on along: edges of ground and lines in and around it.
    void add_edges_near(const detail::PlanShares& plan, std::size_t chunk, detail::Neighbours& neighbours) const {
        const auto add = [&](Point a, Point b) { neighbours.add(flat ? grid.flat(a) : a, flat ? grid.flat(b) : b); };
        const Ring ring = layout.ring_of(chunk);
        const std::vector<detail::JoinedLine>& lines = plan.shares[chunk].lines;
        const bool any_at_side = std::any_of(lines.begin(), lines.end(), [&](const detail::JoinedLine& line) {
            return on_ring(ring, line.points.front()) || on_ring(ring, line.points.back());
        });
        std::vector<std::size_t> chunks;
        if (any_at_side) chunks = layout.around(chunk);
        chunks.push_back(chunk);
        for (const std::size_t one : chunks) {
            if (one != chunk)
                for (const detail::JoinedLine& line : plan.shares[one].lines)
                    for (std::size_t i = 0; i < line.labels.size(); ++i)
                        add(line.points[i], line.points[(i + 1) % line.points.size()]);
            if (plan.ground < 0) continue;
            const detail::Share& ground = plans.plans[static_cast<std::size_t>(plan.ground)].shares[one];
            // Of rings that lie within another chunk, what comes up to its side is near enough.
            if (one == chunk)
                for (const std::size_t r : ground.runs.whole) detail::each_edge_of_ring(ground.rings[r].points, add);
            else
                for (const auto& [a, b] : ground.border.ending) add(a, b);
            for (const detail::Run& run : ground.runs.cut)
                for (const detail::BorderEdge& edge : run.edges) add(edge.from, edge.to);
        }
    }

    // A group with its edges, without its regions.
    [[nodiscard]] Group group_of(detail::PlanShares& plan, std::size_t chunk) const {
        Group group = detail::named_group(world, plan.key);
        if (options.mover != MoverId::none) group.mover = world.mover(options.mover).name;
        detail::Share& share = plan.shares[chunk];
        share.runs_changed = false;
        if (options.forms.has(MergeForm::chains)) {
            group.chains = detail::chains_of(share.rings, share.runs);
            if (flat) detail::lay_flat(grid, group.chains);
        }
        std::vector<detail::JoinedLine> lines = share.lines;
        if (!lines.empty()) {
            if (flat) detail::lay_flat(grid, lines);
            detail::Neighbours neighbours(lines);
            add_edges_near(plan, chunk, neighbours);
            detail::add_line_forms(group, lines, neighbours, options.forms.has(MergeForm::chains));
        }
        return group;
    }

    static bool is_of(const Group& group, const detail::GroupKey& key) {
        return group.storey_id == key.storey && group.barrier_id == key.barrier && group.trigger == key.trigger &&
               group.one_way == key.one_way;
    }
    static std::vector<Group>::iterator find_group(std::vector<Group>& groups, const detail::GroupKey& key) {
        return std::find_if(groups.begin(), groups.end(), [&](const Group& group) { return is_of(group, key); });
    }
    static bool sooner(const Group& a, const Group& b) {
        return std::tie(a.storey, a.barrier, a.trigger, a.one_way) <
               std::tie(b.storey, b.barrier, b.trigger, b.one_way);
    }

    // Makes a chunk's groups anew; gives those that it had.
    std::vector<Group> make_groups(std::size_t chunk) {
        std::vector<Group>& groups = merge.chunks[chunk].groups;
        std::vector<Group> before = std::exchange(groups, {});
        static const Group none;
        for (detail::PlanShares& plan : plans.plans) {
            Regions regions = std::exchange(plan.shares[chunk].regions, {});
            if (regions.empty() && plan.shares[chunk].lines.empty()) continue;
            if (flat) detail::lay_flat(grid, regions);
            groups.push_back(group_of(plan, chunk));
            groups.back().regions = std::move(regions);
            const auto known = find_group(before, plan.key);
            detail::renew_area_forms(groups.back(), known == before.end() ? none : *known, plan.shares[chunk].of_pieces,
                                     world, options);
        }
        std::sort(groups.begin(), groups.end(), sooner);
        return before;
    }

    // Of a chunk whose regions stay; false when its lines and chains do too.
    bool renew_edges(std::size_t chunk) {
        std::vector<Group>& groups = merge.chunks[chunk].groups;
        bool changed = std::erase_if(groups, [&](const Group& group) {   // of no plan any more
                           return std::none_of(plans.plans.begin(), plans.plans.end(),
                                               [&](const auto& plan) { return is_of(group, plan.key); });
                       }) > 0;
        for (detail::PlanShares& plan : plans.plans) {
            const auto known = find_group(groups, plan.key);
            const bool is_known = known != groups.end();
            const detail::Share& share = plan.shares[chunk];
            if (!is_known && share.lines.empty()) continue;
            // Rings that lie within the chunk are as they were.
            if (is_known && share.lines.empty() && known->lines.empty() && !share.runs_changed) continue;
            Group now = group_of(plan, chunk);
            if (is_known && now.chains == known->chains && now.lines == known->lines) continue;
            changed = true;
            if (is_known && known->regions.empty() && now.lines.empty()) {
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

    // Merges some chunks anew; gives all that changed, sorted. Their sides count as others than before where `sides`
    // says so, or where they are. `with_lines`: chunks besides, in which lines may be others.
    std::vector<std::size_t> change(const std::vector<std::size_t>& chunks, bool sides,
                                    const std::vector<std::size_t>& with_lines) {
        std::vector<std::size_t> touched = chunks;   // those whose edges may be others
        const auto touch_around = [&](std::size_t one) {
            const std::vector<std::size_t> others = layout.around(one);
            touched.insert(touched.end(), others.begin(), others.end());
        };
        for (const std::size_t chunk : chunks) {
            std::vector<detail::ChunkBorder> before;
            for (detail::PlanShares& plan : plans.plans) before.push_back(std::move(plan.shares[chunk].border));
            merge_cells(chunk);
            bool seen_otherwise = sides;
            for (std::size_t p = 0; p < plans.plans.size(); ++p)
                seen_otherwise = seen_otherwise || !before[p].looks_like(plans.plans[p].shares[chunk].border);
            if (seen_otherwise) touch_around(chunk);
        }
        touched = each_once(std::move(touched));
        renew_runs(touched);
        std::vector<std::size_t> lined = touched;
        lined.insert(lined.end(), with_lines.begin(), with_lines.end());
        for (const std::size_t one : each_once(std::move(lined))) {
            const Lines lines = find_lines(one);
            if (lines != Lines::same) touched.push_back(one);
            if (lines == Lines::others_at_side) touch_around(one);
        }
        std::vector<std::size_t> changed;
        for (const std::size_t one : each_once(std::move(touched))) {
            if (std::binary_search(chunks.begin(), chunks.end(), one)) {
                const std::vector<Group> before = make_groups(one);
                if (merge.chunks[one].groups != before) changed.push_back(one);
            } else if (renew_edges(one)) {
                changed.push_back(one);
            }
        }
        return changed;
    }
    static std::vector<std::size_t> each_once(std::vector<std::size_t> chunks) {
        std::sort(chunks.begin(), chunks.end());
        chunks.erase(std::unique(chunks.begin(), chunks.end()), chunks.end());
        return chunks;
    }

    std::vector<std::size_t> set_tile(LayerId id, DataCell cell, const Placed& tile) {
        const std::size_t layer = index(id);
        const auto [column, row] = cell;
        if (layer >= map.layers.size() || map.layers[layer].holds_objects)
            throw std::out_of_range("LiveMap::set_tile: no layer of cells has this number");
        if (!map.has(cell)) throw std::out_of_range("LiveMap::set_tile: the map has no such cell");
        if (tile.tile >= 0 && (tile.tileset < 0 || static_cast<std::size_t>(tile.tileset) >= world.tilesets().size() ||
                               static_cast<std::size_t>(tile.tile) >=
                                   world.tilesets()[static_cast<std::size_t>(tile.tileset)].tiles.size()))
            throw std::out_of_range("LiveMap::set_tile: the world has no such tile");
        const std::size_t known = map.palette.size();
        const std::uint32_t before = map.put(id, cell, tile.tile < 0 ? Placed{} : tile),
                            now = map.number(map.layers[layer], column, row);
        if (before == now) return {};
        if (map.palette.size() > known && !plans.learn()) {
            plans.restack();
            return merge_all();
        }
        make_room();
        std::vector<std::size_t> chunks{layout.chunk_of(column, row)}, with_lines;
        for (const std::uint32_t number : {before, now})
            if (plans.spreads(layer, number)) {
                const auto more =
                    detail::chunks_of_tile(world, layout, map.layers[layer], map.palette[number], column, row);
                chunks.insert(chunks.end(), more.begin(), more.end());
            }
        // For a mover any tile may decide which sides of its cell are shut.
        if (options.mover != MoverId::none || plans.lines().matters(layer, before) || plans.lines().matters(layer, now))
            with_lines = layout.near(plans.lines().reach_of(layer, column, row));
        return change(each_once(std::move(chunks)), false, with_lines);
    }

    std::vector<std::size_t> set_facts(const Facts& facts) {
        const Facts before = std::exchange(options.facts, facts);
        return renew(detail::chunks_following(world, layout, before, facts));
    }
    std::vector<std::size_t> set_removed(std::size_t object, bool removed) {
        Object& one = map.objects.at(object);
        if (one.removed == removed) return {};
        one.removed = removed;
        const std::vector<std::size_t> chunks = detail::chunks_of_object(world, layout, one);
        return chunks.empty() ? chunks : renew(chunks);
    }

    // By new plans, which mean something else in some chunks only.
    std::vector<std::size_t> renew(const std::vector<std::size_t>& chunks) {
        const std::vector<detail::GroupKey> known = keys();
        if (!plans.renew()) return merge_all();
        make_room();
        std::vector<std::size_t> with_lines;   // lines between two chunks are in one of them
        for (const std::size_t chunk : chunks) {
            const std::vector<std::size_t> others = layout.around(chunk);
            with_lines.insert(with_lines.end(), others.begin(), others.end());
        }
        return change(chunks, keys() != known, with_lines);
    }

    [[nodiscard]] std::vector<detail::GroupKey> keys() const {
        std::vector<detail::GroupKey> all;
        for (const detail::PlanShares& plan : plans.plans) all.push_back(plan.key);
        return all;
    }

    // Everything anew by other plans; gives what changed.
    std::vector<std::size_t> merge_all() {
        const std::vector<Chunk> before = merge.chunks;
        begin();
        std::vector<std::size_t> changed;
        for (std::size_t i = 0; i < before.size(); ++i)
            if (before[i].groups != merge.chunks[i].groups) changed.push_back(i);
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

std::vector<std::size_t> LiveMap::set_tile(LayerId layer, DataCell cell, const Placed& tile) {
    return parts_->set_tile(layer, cell, tile);
}

std::vector<std::size_t> LiveMap::set_facts(const Facts& facts) { return parts_->set_facts(facts); }
std::vector<std::size_t> LiveMap::set_removed(ObjectId object, bool removed) {
    return parts_->set_removed(index(object), removed);
}

ChunkedMerge merge_chunks(const World& world, const Map& map, int chunk_cells, const MergeOptions& options) {
    return LiveMap(world, map, chunk_cells, options).merge();
}

}   // namespace dryground

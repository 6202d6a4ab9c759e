// A map's geometry in chunks, and what one changed cell does to it.
//
// Idea. A chunk is the block of cells that it is made of, merged by itself. Its chains need what its neighbours have
// along their common sides, so that rings are kept for each chunk. A changed cell merges its chunk anew; neighbours
// only when what the chunk has along the common side, or which edges end there, is another than before.

#include <algorithm>
#include <stdexcept>
#include <utility>

#include "../ground/ground_internal.hpp"
#include "chunk_chains_internal.hpp"
#include "forms_internal.hpp"
#include "ground_plane_internal.hpp"
#include "least_edge_internal.hpp"

namespace dryground {

namespace {

int floored(int a, int b) { return a / b - (a % b < 0 ? 1 : 0); }

}   // namespace

namespace detail {

// What one group is in one chunk.
struct Share {
    std::vector<LabelledRing> rings;
    ChunkBorder border;
    std::vector<Run> runs;
    Regions regions;   // until the chunk's group takes them
};

struct PlanShares {
    GroupKey key;
    std::function<Stacked(const Block&)> merge_block;
    std::vector<Share> shares{};   // by chunk
    std::vector<LinePiece> lines{};
    Regions solid{};   // that the lines may go on along
};

}   // namespace detail

struct LiveMap::Parts {
    Parts(const World& w, const Map& m, int chunk_cells, const MergeOptions& o)
        : world(w), map(m), options(o), grid(m), flat(o.plane == Plane::ground && !grid.is_flat()) {
        merge.map = map.name;
        merge.chunk_cells = std::max(1, chunk_cells);
        merge.plane = options.plane;
        if (options.plane == Plane::ground) {
            detail::test_flat_range(map);
            merge.cell = {grid.width(), grid.height()};
        }
        const int n = merge.chunk_cells;
        first_column = floored(map.first_column, n);
        first_row = floored(map.first_row, n);
        columns = floored(map.first_column + map.columns - 1, n) - first_column + 1;
        rows = floored(map.first_row + map.rows - 1, n) - first_row + 1;
        for (int r = 0; r < rows; ++r)
            for (int c = 0; c < columns; ++c) merge.chunks.push_back({{first_column + c, first_row + r}, {}});
        restack();
    }

    // Everything anew.
    void restack() {
        plans.clear();
        stacking = detail::stack_up(world, map, options.facts, true);
        merge.surfaces = stacking.surfaces;
        merge.stats = stacking.stats;
        local = true;
        margin = 0;
        for (const auto& [key, plan] : stacking.plans) {
            for (const detail::Step& step : plan.steps) margin = std::max(margin, cells_outside(step.loose.area));
            local = local && plan.lines.empty();
            if (plan.rim) margin = std::max(margin, 1);
        }
        options.mover >= 0 ? add_mover_plans() : add_plans();
        for (detail::PlanShares& plan : plans) plan.shares.resize(merge.chunks.size());
        for (std::size_t i = 0; i < merge.chunks.size(); ++i) merge_cells(i);
        for (std::size_t i = 0; i < merge.chunks.size(); ++i) find_runs(i);
        for (std::size_t i = 0; i < merge.chunks.size(); ++i) make_groups(i);
    }

    // How many cells an area reaches out of the map.
    [[nodiscard]] int cells_outside(const Regions& area) const {
        int most = 0;
        for (const Region& region : area)
            for (const Point p : region.outline) {
                const auto [c, r] = map.cell_at(p);
                most = std::max({most, 1 - c, 1 - r, c + 2 - map.columns, r + 2 - map.rows});
            }
        return most;
    }

    // Lines are found for the whole map, and cut to chunks.
    void add_plans() {
        for (const auto& [key, plan] : stacking.plans) {
            auto merger = std::make_shared<detail::CellMerger>(map, plan);
            detail::PlanShares& shares =
                add_shares(key, [merger](const detail::Block& block) { return merger->block(block, true); });
            if (plan.lines.empty()) continue;
            if (key.trigger.empty())
                if (const auto ground = stacking.plans.find({key.storey, key.barrier, {}, OneWay::none});
                    ground != stacking.plans.end())
                    shares.solid = detail::merge_cells(map, ground->second, false).regions;
            add_lines(shares, detail::lines_of(world, map, key, plan, shares.solid, options.facts));
        }
    }

    void add_mover_plans() {
        const Mover& mover = world.movers().at(static_cast<std::size_t>(options.mover));
        for (const int storey : ground::storeys_of(map)) {
            auto ground = std::make_shared<detail::MoverGround>(world, map, stacking, mover, storey, options.facts);
            detail::GroupKey key;
            key.storey = storey;
            add_shares(key, [ground](const detail::Block& block) {
                Stacked stacked{ground->block(block), {}};
                detail::add_plain_rings(stacked);
                return stacked;
            });
            const auto lines = detail::lines_for_mover(world, map, stacking, mover, storey, options.facts);
            if (lines.empty()) continue;
            local = false;
            const Regions solid = ground->whole();
            for (const auto& [one_way, pieces] : lines) {
                key.one_way = one_way;
                if (one_way != OneWay::none) add_shares(key, [](const detail::Block&) { return Stacked{}; });
                plans.back().solid = solid;
                add_lines(plans.back(), detail::join_lines(detail::cut_lines(pieces, solid), one_way));
            }
        }
    }

    detail::PlanShares& add_shares(const detail::GroupKey& key,
                                   std::function<Stacked(const detail::Block&)> merge_block) {
        detail::PlanShares& shares = plans.emplace_back();
        shares.key = key;
        shares.merge_block = std::move(merge_block);
        return shares;
    }

    static void add_lines(detail::PlanShares& shares, const std::vector<detail::JoinedLine>& lines) {
        for (const detail::JoinedLine& line : lines)
            for (std::size_t i = 0; i < line.labels.size(); ++i)
                shares.lines.push_back({line.points[i], line.points[(i + 1) % line.points.size()], line.labels[i]});
    }

    [[nodiscard]] detail::Block block_of(std::size_t chunk) const {
        const int n = merge.chunk_cells;
        const int column = static_cast<int>(chunk) % columns, row = static_cast<int>(chunk) / columns;
        const int c0 = column == 0 ? -margin : (first_column + column) * n - map.first_column,
                  r0 = row == 0 ? -margin : (first_row + row) * n - map.first_row,
                  c1 =
                      column + 1 == columns ? map.columns + margin : (first_column + column + 1) * n - map.first_column,
                  r1 = row + 1 == rows ? map.rows + margin : (first_row + row + 1) * n - map.first_row;
        return {c0, r0, c1 - c0, r1 - r0};
    }
    [[nodiscard]] Ring ring_of(std::size_t chunk) const {
        const detail::Block block = block_of(chunk);
        return map.block_ring(block.column, block.row, block.columns, block.rows);
    }

    // The chunk so many columns and rows away; -1 when there is none.
    [[nodiscard]] int beside(std::size_t chunk, int dc, int dr) const {
        const int column = static_cast<int>(chunk) % columns + dc, row = static_cast<int>(chunk) / columns + dr;
        return column < 0 || row < 0 || column >= columns || row >= rows ? -1 : row * columns + column;
    }

    [[nodiscard]] static bool on_ring(const Ring& ring, Point p) {
        for (std::size_t i = 0; i < ring.size(); ++i)
            if (turn(ring[i], ring[(i + 1) % ring.size()], p) == Turn::straight) return true;
        return false;
    }

    void merge_cells(std::size_t chunk) {
        const Ring ring = ring_of(chunk);
        for (detail::PlanShares& plan : plans) {
            Stacked stacked = plan.merge_block(block_of(chunk));
            if (const std::int32_t least = detail::least_edge(world); least > 0)
                detail::fuse_short_edges(stacked.rings, least, [&](Point p) { return on_ring(ring, p); });
            plan.shares[chunk].rings = std::move(stacked.rings);
            plan.shares[chunk].border = detail::border_of(plan.shares[chunk].rings, ring);
            plan.shares[chunk].regions = std::move(stacked.regions);
        }
    }

    void find_runs(std::size_t chunk) {
        static constexpr std::array<std::array<int, 2>, 4> behind{{{0, -1}, {1, 0}, {0, 1}, {-1, 0}}};
        for (detail::PlanShares& plan : plans) {
            std::array<const detail::SideParts*, 4> shared{};
            for (std::size_t side = 0; side < 4; ++side)
                if (const int other = beside(chunk, behind[side][0], behind[side][1]); other >= 0)
                    shared[side] = &plan.shares[static_cast<std::size_t>(other)].border.parts[(side + 2) % 4];
            detail::Share& share = plan.shares[chunk];
            share.runs = detail::runs_of(share.rings, share.border, shared);
        }
    }

    [[nodiscard]] std::vector<std::size_t> around(std::size_t chunk) const {
        std::vector<std::size_t> result;
        for (int dr = -1; dr <= 1; ++dr)
            for (int dc = -1; dc <= 1; ++dc)
                if (const int other = beside(chunk, dc, dr); other >= 0 && (dc != 0 || dr != 0))
                    result.push_back(static_cast<std::size_t>(other));
        return result;
    }

    [[nodiscard]] std::vector<Chain> chains_of(const detail::PlanShares& plan, std::size_t chunk) const {
        std::vector<const std::vector<detail::Run>*> others{&plan.shares[chunk].runs};
        for (const std::size_t other : around(chunk)) others.push_back(&plan.shares[other].runs);
        std::vector<Chain> chains = detail::chains_of(plan.shares[chunk].runs, others);
        if (flat) detail::lay_flat(grid, chains);
        return chains;
    }

    void make_groups(std::size_t chunk) {
        std::vector<Group>& groups = merge.chunks[chunk].groups;
        groups.clear();
        for (detail::PlanShares& plan : plans) {
            Group group = detail::named_group(world, plan.key);
            if (options.mover >= 0) group.mover = world.movers()[static_cast<std::size_t>(options.mover)].name;
            group.regions = std::exchange(plan.shares[chunk].regions, {});
            if (flat) detail::lay_flat(grid, group.regions);
            if (options.chains) group.chains = chains_of(plan, chunk);
            if (!plan.lines.empty()) add_lines_of(plan, chunk, group);
            if (group.regions.empty() && group.lines.empty()) continue;
            detail::add_area_forms(group, world, options);
            groups.push_back(std::move(group));
        }
        std::sort(groups.begin(), groups.end(), [](const Group& a, const Group& b) {
            return std::tie(a.storey, a.barrier, a.trigger, a.one_way) <
                   std::tie(b.storey, b.barrier, b.trigger, b.one_way);
        });
    }
    void add_lines_of(const detail::PlanShares& plan, std::size_t chunk, Group& group) const {
        const Regions inside{{ring_of(chunk), {}}};
        Regions all = inside;
        for (const detail::LinePiece& piece : plan.lines)
            for (const Point p : {piece.from, piece.to})
                all.push_back(box_region({p.x - 1, p.y - 1}, {p.x + 1, p.y + 1}));
        const Bounds box = *bounds(all);
        std::vector<detail::LinePiece> pieces =
            detail::cut_lines(plan.lines, subtract(Regions{box_region(box.least, box.most)}, inside));
        // What runs along a common side belongs to the chunk below or to the right of it.
        const Ring& ring = inside[0].outline;
        std::erase_if(pieces, [&](const detail::LinePiece& piece) {
            const auto along = [&](std::size_t side) {
                return turn(ring[side], ring[side + 1], piece.from) == Turn::straight &&
                       turn(ring[side], ring[side + 1], piece.to) == Turn::straight;
            };
            return (beside(chunk, 1, 0) >= 0 && along(1)) || (beside(chunk, 0, 1) >= 0 && along(2));
        });
        std::vector<detail::JoinedLine> lines = detail::join_lines(pieces, plan.key.one_way);
        Regions solid = plan.solid;
        if (flat) {
            detail::lay_flat(grid, lines);
            detail::lay_flat(grid, solid);
        }
        detail::add_line_forms(group, lines, solid, options.chains);
    }

    std::vector<std::size_t> changed_around(std::size_t chunk) {
        std::vector<std::vector<std::pair<Point, Point>>> seen;
        for (detail::PlanShares& plan : plans) seen.push_back(std::move(plan.shares[chunk].border.seen));
        merge_cells(chunk);
        bool seen_otherwise = false;
        for (std::size_t p = 0; p < plans.size(); ++p)
            seen_otherwise = seen_otherwise || seen[p] != plans[p].shares[chunk].border.seen;
        find_runs(chunk);
        std::vector<std::size_t> changed{chunk};
        if (seen_otherwise) {
            const std::vector<std::size_t> others = around(chunk);
            for (const std::size_t other : others) find_runs(other);
            for (const std::size_t other : others)
                if (renew_chains(other)) changed.push_back(other);
        }
        make_groups(chunk);
        std::sort(changed.begin(), changed.end());
        return changed;
    }
    // Of a chunk whose regions stay; false when its chains do too.
    bool renew_chains(std::size_t chunk) {
        bool changed = false;
        if (!options.chains) return changed;
        for (const detail::PlanShares& plan : plans)
            for (Group& group : merge.chunks[chunk].groups) {
                if (group.storey_id != plan.key.storey || group.barrier_id != plan.key.barrier ||
                    group.trigger != plan.key.trigger || group.one_way != plan.key.one_way)
                    continue;
                std::vector<Chain> chains = chains_of(plan, chunk);
                if (chains == group.chains) continue;
                group.chains = std::move(chains);
                changed = true;
            }
        return changed;
    }

    std::vector<std::size_t> set_tile(std::size_t layer_index, int column, int row, const Placed& tile) {
        if (layer_index >= map.layers.size() || map.layers[layer_index].holds_objects)
            throw std::out_of_range("LiveMap::set_tile: no layer of cells has this number");
        if (!map.has(column, row)) throw std::out_of_range("LiveMap::set_tile: the map has no such cell");
        if (tile.tile >= 0 && (tile.tileset < 0 || static_cast<std::size_t>(tile.tileset) >= world.tilesets().size() ||
                               static_cast<std::size_t>(tile.tile) >=
                                   world.tilesets()[static_cast<std::size_t>(tile.tileset)].tiles.size()))
            throw std::out_of_range("LiveMap::set_tile: the world has no such tile");
        Layer& layer = map.layers[layer_index];
        const Placed wanted = tile.tile < 0 ? Placed{} : tile;
        const auto found = std::find(map.palette.begin(), map.palette.end(), wanted);
        const auto number = static_cast<std::uint32_t>(found - map.palette.begin());
        const bool is_new = found == map.palette.end();
        if (is_new) map.palette.push_back(wanted);
        std::uint32_t& cell = layer.cells[static_cast<std::size_t>(row) * static_cast<std::size_t>(map.columns) +
                                          static_cast<std::size_t>(column)];
        if (cell == number) return {};
        const auto spreads = [&](std::uint32_t tile_number) {
            return stacking.spread.count({static_cast<int>(layer_index), tile_number}) > 0;
        };
        const bool keeps_to_chunk = local && !is_new && !spreads(cell) && !spreads(number);
        if (layer.counts.size() <= number) layer.counts.resize(number + std::size_t{1}, 0);
        if (cell < layer.counts.size()) --layer.counts[cell];
        ++layer.counts[number];
        cell = number;
        if (keeps_to_chunk) {
            const int n = merge.chunk_cells;
            const int c = floored(map.first_column + column, n) - first_column,
                      r = floored(map.first_row + row, n) - first_row;
            return changed_around(static_cast<std::size_t>(r) * static_cast<std::size_t>(columns) +
                                  static_cast<std::size_t>(c));
        }
        const std::vector<Chunk> before = merge.chunks;
        restack();
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
    detail::Stacking stacking;
    std::vector<detail::PlanShares> plans;
    ChunkedMerge merge;
    int first_column = 0, first_row = 0, columns = 0, rows = 0;   // of chunks
    int margin = 0;                                               // cells out of the map that the outer chunks reach
    bool local = true;                                            // there are no lines
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

// A map's geometry in chunks, and what one changed cell does to it.
//
// Idea. A changed cell renews its chunk; neighbours only if what the chunk has along the common side, or which edges
// end there, differs from before (chunk_ground.cpp).

#include <algorithm>
#include <stdexcept>
#include <utility>

#include "chunk_facts_internal.hpp"
#include "chunk_ground_internal.hpp"

namespace dryground {
namespace {

std::vector<std::size_t> each_once(std::vector<std::size_t> chunks) {
    std::sort(chunks.begin(), chunks.end());
    chunks.erase(std::unique(chunks.begin(), chunks.end()), chunks.end());
    return chunks;
}

}   // namespace

struct LiveMap::Parts : detail::ChunkGround {
    using ChunkGround::ChunkGround;

    // Renews some chunks; returns all that changed, sorted. Their sides count as changed where `sides` is set, or where
    // they differ. `with_lines`: further chunks, in which lines may have changed.
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
                if (make_groups(one)) changed.push_back(one);
            } else if (renew_edges(one)) {
                changed.push_back(one);
            }
        }
        return changed;
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
        std::vector<std::size_t> chunks{layout.chunk_of(column, row)}, with_lines;
        if (map.palette.size() > known) {
            const auto differing = plans.learn();
            if (!differing) {
                plans.restack();
                return merge_all();
            }
            add_near(*differing, chunks);
        }
        make_room();
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

    void add_near(const std::vector<Bounds>& boxes, std::vector<std::size_t>& chunks) const {
        for (const Bounds& box : boxes) {
            const std::vector<std::size_t> near = layout.near(box);
            chunks.insert(chunks.end(), near.begin(), near.end());
        }
    }

    // Applies new plans, which differ in some chunks only.
    std::vector<std::size_t> renew(std::vector<std::size_t> chunks) {
        const std::vector<detail::GroupKey> known = keys();
        const auto differing = plans.renew();
        if (!differing) return merge_all();
        add_near(*differing, chunks);
        chunks = each_once(std::move(chunks));
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

    // Renews everything by other plans; returns what changed.
    std::vector<std::size_t> merge_all() {
        const std::vector<Chunk> before = merge.chunks;
        make_all();
        std::vector<std::size_t> changed;
        for (std::size_t i = 0; i < before.size(); ++i)
            if (before[i].groups != merge.chunks[i].groups) changed.push_back(i);
        return changed;
    }
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

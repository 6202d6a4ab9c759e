// What is merged of a block of cells is that part of the whole.
#include "merge/merge_block_internal.hpp"

#include <catch2/catch.hpp>

#include <map>
#include <tuple>

#include "chance.hpp"
#include "geometry/bounds_internal.hpp"
#include "line_lengths.hpp"
#include "random_worlds.hpp"

using namespace dryground;

namespace {

struct Merged {
    Regions regions;
    std::vector<detail::LinePiece> lines;
};
using Groups = std::map<std::tuple<StoreyId, BarrierId, OneWay>, Merged>;
Groups by_key(const std::vector<Group>& groups) {
    Groups all;
    for (const Group& group : groups) {
        if (group.barrier_id == BarrierId::none) continue;   // it senses
        Merged& merged = all[{group.storey_id, group.barrier_id, group.one_way}];
        merged.regions.insert(merged.regions.end(), group.regions.begin(), group.regions.end());
        for (const Ring& line : group.lines)
            for (std::size_t i = 0; i + 1 < line.size(); ++i) merged.lines.push_back({line[i], line[i + 1], 0});
    }
    return all;
}

// The length of all edges: where they are cut off the lattice, they are rounded by a step at most.
double edges_of(const Regions& regions) {
    std::vector<detail::LinePiece> edges;
    for (const Region& region : regions) {
        const auto add = [&](const Ring& ring) {
            for (std::size_t i = 0; i < ring.size(); ++i) edges.push_back({ring[i], ring[(i + 1) % ring.size()], 0});
        };
        add(region.outline);
        for (const Ring& hole : region.holes) add(hole);
    }
    return line_lengths::of(edges);
}

}   // namespace

TEST_CASE("a block's groups are those of the map inside it") {
    std::size_t regions = 0, lines = 0;
    for (std::uint64_t round = 0; round < static_cast<std::uint64_t>(chance::rounds(150)); ++round) {
        DRYGROUND_ROUND(round);
        const Result<World> loaded = random_worlds::make(round, true).build();
        if (!loaded) continue;
        const World& world = *loaded;
        chance::Dice dice(570'000 + round);
        Facts facts;
        for (const FactId fact : ids<FactId>(world.facts()))
            if (dice.once_in(3)) facts.push_back(fact);
        for (const Map& map : world.maps()) {
            MergeOptions options;
            options.forms = {}, options.facts = facts;
            Groups whole = by_key(merge(world, map, options).groups);
            for (int k = 0; k < 4; ++k) {
                const detail::Block block{dice.in(-2, map.columns), dice.in(-2, map.rows), dice.in(1, 6),
                                          dice.in(1, 6)};
                INFO("map " << map.name << ", block " << block.column << "," << block.row << " " << block.columns << "x"
                            << block.rows);
                Groups own = by_key(detail::groups_in(world, map, facts, block));
                const Ring ring = map.block_ring(block.column, block.row, block.columns, block.rows);
                Region around = box_region({-coordinate_limit + 1, -coordinate_limit + 1},
                                           {coordinate_limit - 1, coordinate_limit - 1});
                around.holes.emplace_back(ring.rbegin(), ring.rend());
                for (const auto& [key, merged] : own) whole[key];
                for (const auto& [key, merged] : whole) {
                    const Regions wanted = intersect(merged.regions, Regions{{ring, {}}});
                    const Regions& found = own[key].regions;
                    const auto differing = twice_area(subtract(wanted, found)) + twice_area(subtract(found, wanted));
                    CHECK(static_cast<double>(differing) <= 4 * (edges_of(wanted) + edges_of(found)));
                    const std::vector<detail::LinePiece> pieces = detail::cut_lines(merged.lines, {around});
                    CHECK(line_lengths::beyond(pieces, own[key].lines) <= 64 + line_lengths::of(pieces) * 0.01);
                    CHECK(line_lengths::beyond(own[key].lines, pieces) <= 64 + line_lengths::of(pieces) * 0.01);
                    regions += !found.empty(), lines += !pieces.empty();
                }
            }
        }
    }
    CHECK(regions > static_cast<std::size_t>(chance::rounds(200)));
    CHECK(lines > static_cast<std::size_t>(chance::rounds(40)));
}

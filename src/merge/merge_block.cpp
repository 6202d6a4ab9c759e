// Merges what lies in a block of cells alone: for those that follow an edit without the whole map's geometry.

#include "merge_block_internal.hpp"

#include "chunks/chunk_lines_internal.hpp"
#include "forms_internal.hpp"
#include "lines/line_table_internal.hpp"

namespace dryground::detail {

std::vector<Group> groups_in(const World& world, const Map& map, const Facts& facts, const Block& block) {
    const Stacking stacking = stack_up(world, map, facts);
    LineTable table(world, map, facts);
    table.learn(stacking.surfaces);
    std::map<GroupKey, Stacked> merged;
    std::vector<Group> groups;
    for (const auto& [key, plan] : stacking.plans) {
        if (!key.trigger.empty()) continue;
        Stacked& stacked = merged[key] = CellMerger(map, plan).block(block, true);
        if (stacked.regions.empty()) continue;
        groups.push_back(named_group(world, key));
        groups.back().regions = std::move(stacked.regions);
    }
    LinesPlace place;
    place.chunk = map.block_ring(block.column, block.row, block.columns, block.rows);
    for (const GroupKey& key : table.keys()) {
        if (!key.trigger.empty()) continue;
        const auto ground = merged.find({key.storey, key.barrier, {}, OneWay::none});
        place.ground = ground == merged.end() ? nullptr : &ground->second.rings;
        const std::vector<JoinedLine> lines = lines_in(place, table.near(key, box_around(place.chunk)), key.one_way);
        if (lines.empty()) continue;
        groups.push_back(named_group(world, key));
        add_line_forms(groups.back(), lines, Neighbours(lines), false);
    }
    return groups;
}

}   // namespace dryground::detail

// Makes families, whose members are chosen by their neighbours, and blocks, patterns that are placed as one.
//
// Only their declarations: place_patterns.cpp places them.

#include <fmt/format.h>

#include <algorithm>

#include "choose_internal.hpp"
#include "utf8_internal.hpp"

namespace dryground {

const std::array<const char*, 8> WorldMaker::neighbour_names{"top",      "right",     "bottom",       "left",
                                                             "top_left", "top_right", "bottom_right", "bottom_left"};

void WorldMaker::make_patterns(const TileSetDraft& draft) {
    const int set = static_cast<int>(tiles_.size()) - 1;
    NameIndex& families = families_.emplace_back(NameIndex{"family", {}, {}, {}});
    NameIndex& blocks = blocks_.emplace_back(NameIndex{"block", {}, {}, {}});
    std::vector<Family>& family_list = family_list_.emplace_back();
    std::vector<Block>& block_list = block_list_.emplace_back();
    for (const FamilyDraft& family : draft.families) {
        const Within within(*this, fmt::format("family '{}'", family.name.value));
        if (declare(families, family.name)) family_list.push_back(make_family(family, tiles_.back()));
    }
    for (const BlockDraft& block : draft.blocks) {
        const Within within(*this, fmt::format("block '{}'", block.name.value));
        if (declare(blocks, block.name)) block_list.push_back(make_block(block, set));
    }
    std::vector<Tile>& tiles = parts_.tilesets[static_cast<std::size_t>(set)].tiles;
    for (const Family& family : family_list)
        for (const Family::Member& member : family.members)
            tiles[static_cast<std::size_t>(member.tile)].in_pattern = true;
    for (const Block& block : block_list)
        for (const Block::Part& part : block.parts) tiles[static_cast<std::size_t>(part.placed.tile)].in_pattern = true;
}

WorldMaker::Family WorldMaker::make_family(const FamilyDraft& draft, const NameIndex& tiles) {
    Family family;
    family.name = draft.name.value;
    family.joins = choose<Joins>(draft.joins, "'joins'");
    const std::size_t first = family.joins == Joins::corners ? 4 : 0, last = family.joins == Joins::sides ? 4 : 8;
    NameIndex places{"neighbour",
                     {neighbour_names.begin() + static_cast<std::ptrdiff_t>(first),
                      neighbour_names.begin() + static_cast<std::ptrdiff_t>(last)},
                     {},
                     {}};
    for (std::size_t i = first; i < last; ++i) places.ids.emplace(neighbour_names[i], static_cast<int>(i));
    for (const MemberDraft& member : draft.members) {
        Family::Member one;
        one.tile = look_up(tiles, member.tile);
        for (const int place : look_up(places, member.joined)) one.joined |= 1u << place;
        for (const int place : look_up(places, member.any)) one.any |= 1u << place;
        if ((one.joined & one.any) != 0)
            add(Rule::out_of_range, member.any.front().place,
                {"a member", "with a neighbour in both 'joined' and 'any'", "with each neighbour in one of them"});
        one.joined &= ~one.any;
        const auto twin = std::find_if(family.members.begin(), family.members.end(), [&](const Family::Member& other) {
            return other.joined == one.joined && other.any == one.any;
        });
        if (twin != family.members.end())
            add(Rule::duplicate_name, member.tile.place, {"a member for the same neighbours,", member.tile.value});
        else if (one.tile >= 0)
            family.members.push_back(one);
    }
    if (draft.members.empty())
        add(Rule::missing_key, draft.name.place, {fmt::format("family '{}'", family.name), "members"},
            Hint{"list its tiles, and at which neighbours each stands",
                 "members = [{ tile = \"…\", joined = [\"left\"] }]"});
    return family;
}

WorldMaker::Block WorldMaker::make_block(const BlockDraft& draft, int set) {
    Block block;
    block.name = draft.name.value;
    const NameIndex& tiles = tiles_[static_cast<std::size_t>(set)];
    std::map<std::string, Placed, std::less<>> legend;
    for (const LegendEntry& entry : draft.legend)
        if (!entry.tile.value.empty())
            legend[entry.key.value] = {static_cast<std::int16_t>(set), look_up(tiles, entry.tile), entry.orientation};
    int anchors = 0, anchor_column = 0, anchor_row = 0;
    for (std::size_t r = 0; r < draft.rows.size(); ++r) {
        const auto& [row, place] = draft.rows[r];
        const std::vector<std::string_view> characters = utf8::characters(row);
        for (std::size_t c = 0; c < characters.size(); ++c) {
            const auto column = static_cast<int>(c), line = static_cast<int>(r);
            if (characters[c] == draft.anchor.value && ++anchors == 1) anchor_column = column, anchor_row = line;
            const auto found = legend.find(characters[c]);
            if (found != legend.end()) {
                if (found->second.tile >= 0) block.parts.push_back({column, line, found->second});
            } else if (characters[c] != "." && characters[c] != " ") {
                Place at = place;
                if (at.line > 0) at.column += column;
                add(Rule::legend_missing, at, {std::string(characters[c])},
                    Hint{"add it to the block's legend", fmt::format("\"{}\" = \"…\"", characters[c])});
            }
        }
    }
    if (anchors != 1)
        add(Rule::missing_key, draft.anchor.place.file.empty() ? draft.name.place : draft.anchor.place,
            {fmt::format("block '{}'", block.name), "anchor"},
            Hint{fmt::format("one of its cells lies where it is painted: '{}' stands {} times in its rows",
                             draft.anchor.value, anchors),
                 ""});
    if (anchors != 1) block.parts.clear();
    for (Block::Part& part : block.parts) part.column -= anchor_column, part.row -= anchor_row;
    return block;
}

}   // namespace dryground

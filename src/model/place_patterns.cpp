// Places families and blocks in the cells of a layer.
//
// Cost: O(n log n) in the cells painted with them.

#include <fmt/format.h>

#include <array>
#include <bit>
#include <map>

#include "cells_internal.hpp"

namespace dryground {

// Counts at how many neighbours a member does not fit; then how many of them may be either, so that the most exact one
// wins.
std::array<int, 2> WorldMaker::CellFiller::misfit(const Family::Member& member, unsigned joined) {
    return {std::popcount((member.joined ^ joined) & ~member.any), std::popcount(member.any)};
}

void WorldMaker::CellFiller::place_families() {
    std::map<std::array<int, 2>, std::array<int, 2>> members;   // family by cell: row, column
    for (const Pattern& p : patterns_)
        if (meanings_[p.key]->family[1] >= 0) members[{p.row, p.column}] = meanings_[p.key]->family;
    std::map<std::pair<std::array<int, 2>, unsigned>, std::vector<Cell>> gaps;
    for (const auto& [cell, family] : members) {
        const Family& of =
            maker_.family_list_[static_cast<std::size_t>(family[0])][static_cast<std::size_t>(family[1])];
        const unsigned joined = joins_at(members, cell, family, of.joins);
        const Family::Member* best = nullptr;
        for (const Family::Member& member : of.members)
            if (best == nullptr || misfit(member, joined) < misfit(*best, joined)) best = &member;
        if (best == nullptr) continue;   // it has none, already reported
        set_cell(static_cast<std::size_t>(cell[1]), static_cast<std::size_t>(cell[0]),
                 number_of({static_cast<std::int16_t>(family[0]), best->tile, {}}));
        if (misfit(*best, joined)[0] > 0) gaps[{family, joined}].push_back(map_.cell({cell[1], cell[0]}));
    }
    for (const auto& [gap, cells] : gaps) report_gap(gap.first, gap.second, cells);
}

unsigned WorldMaker::CellFiller::joins_at(const std::map<std::array<int, 2>, std::array<int, 2>>& members,
                                          const std::array<int, 2>& cell, const std::array<int, 2>& family,
                                          Joins joins) {
    static constexpr std::array<std::array<int, 2>, 8> away{
        // rows and columns, as in neighbour_names
        {{-1, 0}, {0, 1}, {1, 0}, {0, -1}, {-1, -1}, {-1, 1}, {1, 1}, {1, -1}}};
    unsigned sides = 0, corners = 0;
    for (unsigned i = 0; i < 8; ++i) {
        const auto found = members.find({cell[0] + away[i][0], cell[1] + away[i][1]});
        if (found != members.end() && found->second == family) (i < 4 ? sides : corners) |= 1u << i;
    }
    // A corner joins only if both its sides do: top_left lies between left and top, and so on.
    for (unsigned i = 0; i < 4; ++i)
        if ((sides >> i & 1) == 0 || (sides >> (i + 3) % 4 & 1) == 0) corners &= ~(1u << (i + 4));
    return joins == Joins::sides ? sides : joins == Joins::corners ? corners : sides | corners;
}

void WorldMaker::CellFiller::report_gap(const std::array<int, 2>& family, unsigned joined,
                                        const std::vector<Cell>& cells) {
    std::vector<std::string> names;
    for (unsigned i = 0; i < 8; ++i)
        if ((joined >> i & 1) != 0) names.emplace_back(neighbour_names[i]);
    Finding finding = finding_at(Rule::family_gap, cells);
    finding.arguments = {
        maker_.families_[static_cast<std::size_t>(family[0])].names[static_cast<std::size_t>(family[1])],
        names.empty() ? "on no side" : fmt::format("{}", fmt::join(names, ", "))};
    finding.details.push_back("the member that is nearest to it stands there");
    finding.hint =
        Hint{"add a member", fmt::format("{{ tile = \"…\", joined = [{}] }}",
                                         names.empty() ? "" : fmt::format("\"{}\"", fmt::join(names, "\", \"")))};
    maker_.report_.add(std::move(finding));
}

void WorldMaker::CellFiller::place_blocks() {
    for (const Pattern& p : patterns_) {
        const std::array<int, 2>& number = meanings_[p.key]->block;
        if (number[1] < 0) continue;
        const Block& block =
            maker_.block_list_[static_cast<std::size_t>(number[0])][static_cast<std::size_t>(number[1])];
        for (const Block::Part& part : block.parts) {
            const int c = p.column + part.column, r = p.row + part.row;
            const bool free = map_.has(c, r) && map_.number(layer_, c, r) == 0;
            if (free) {
                set_cell(static_cast<std::size_t>(c), static_cast<std::size_t>(r), number_of(part.placed));
                continue;
            }
            maker_.add(
                Rule::out_of_range, map_.place_of(layer_, {p.column, p.row}),
                {fmt::format("cell ({}, {}) of block '{}'", map_.first_column + c, map_.first_row + r, block.name),
                 map_.has(c, r) ? "painted with something else too" : "outside the map",
                 map_.has(c, r) ? "left empty for it" : "inside"});
            break;   // the first says enough
        }
    }
}

}   // namespace dryground

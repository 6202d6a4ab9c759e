// Inside the travel room: in which cells of a storey a mover that steps can stand, and where each step leads.
#pragma once

#include <array>
#include <cstdint>
#include <vector>

#include "../geometry/box_index_internal.hpp"
#include "../merge/cells/stacking_internal.hpp"
#include "ways_internal.hpp"

namespace dryground::travel {

// The eight steps: right and down, then back; then those past the corners. Two on in its half, a step leads back.
inline constexpr std::array<DataCell, 8> steps_around{
    {{1, 0}, {0, 1}, {-1, 0}, {0, -1}, {1, 1}, {-1, 1}, {-1, -1}, {1, -1}}};
[[nodiscard]] inline constexpr unsigned step_back(unsigned way) { return way < 4 ? (way + 2) % 4 : 4 + (way + 2) % 4; }

// Returns the part of a block that lies in a map, after growing it by some cells.
[[nodiscard]] detail::Block block_in(const Map& map, detail::Block block, int more = 0);

// A mover stands in the middle of cells that grant what it needs, where no ground bars it; between cells beside each
// other lines and shut sides may stop it. Past corners it steps where both ways around are free, as `Play::may_step`
// does by default; a test holds the two against each other.
class StepCells {
public:
    // Makes them from the map's merged barriers.
    StepCells(const WaysOf& of, StoreyId storey, const std::vector<Group>& groups);

    // What a change of the map inside a box may concern.
    struct Near {
        detail::Block stands;   // cells in which the mover may stand now, or no longer
        detail::Block steps;    // cells from which steps may lead elsewhere
        detail::Block ground;   // all that a body there may touch: it may reach out of the map
    };
    [[nodiscard]] static Near near(const WaysOf& of, const Bounds& changed);
    // Follows it. `groups` are merged barriers in near.ground. Cost: that of the cells near, and O(lines) if lines are
    // near.
    void follow(const WaysOf& of, const Near& near, const std::vector<Group>& groups);

    [[nodiscard]] StoreyId storey() const { return storey_; }
    [[nodiscard]] bool has_stand(std::size_t cell) const { return stands_[cell] != 0; }
    // Returns which of the eight steps can be taken, by bit.
    [[nodiscard]] unsigned leads(std::size_t cell) const { return leads_[cell]; }
    // Returns whether something in or beside a block may let a step through but not back.
    [[nodiscard]] bool may_lead_one_way(const detail::Block& block) const;
    // Returns the cell that a step leads to. Requires that it is one of the map.
    [[nodiscard]] std::size_t next(std::size_t cell, unsigned way) const { return cell + away_[way]; }

private:
    struct Line {
        Point from, to;
        OneWay passes;
        Point stops_from;
        Ring sum;   // with the mirrored body
    };

    [[nodiscard]] std::size_t index(int column, int row) const {
        return static_cast<std::size_t>(row) * static_cast<std::size_t>(map_->columns) +
               static_cast<std::size_t>(column);
    }
    [[nodiscard]] std::vector<const Group*> stopping(const WaysOf& of, const std::vector<Group>& groups) const;
    [[nodiscard]] Line line_of(Point from, Point to, OneWay passes) const;
    void add_lines(const std::vector<const Group*>& groups);
    void replace_lines(const std::vector<const Group*>& groups, const detail::Block& ground);
    void index_lines();
    void find_stands(const WaysOf& of, const detail::Block& block, const std::vector<const Group*>& groups);
    void find_steps(const detail::Block& block);
    [[nodiscard]] unsigned straight_steps(int column, int row) const;
    [[nodiscard]] unsigned corner_steps(std::size_t cell) const;
    [[nodiscard]] bool lets_through(const DataCell& from, unsigned way) const;
    [[nodiscard]] bool passes(const DataCell& from, unsigned way) const;

    const Map* map_;
    StoreyId storey_;
    Ring body_;
    std::array<std::size_t, 8> away_{};   // how far each step leads among the cells; back to those before: it wraps
    std::vector<Line> lines_;
    detail::BoxIndex near_lines_;
    std::vector<char> has_lines_;       // by cell: whether any is near its middle or those around it; empty: none is
    std::vector<Sides> sides_;          // by cell; empty: all are open
    std::vector<char> stands_;          // by cell
    std::vector<std::uint8_t> leads_;   // likewise
};

}   // namespace dryground::travel

// Inside the merge room: where the ground and the lines of each group of a map in chunks come from.
#pragma once

#include <functional>
#include <optional>
#include <vector>

#include "../cells/stacking_internal.hpp"
#include "../forms_internal.hpp"
#include "../lines/line_table_internal.hpp"
#include "chunk_chains_internal.hpp"

namespace dryground::detail {

// What one group is in one chunk.
struct Share {
    std::vector<LabelledRing> rings;
    std::vector<char> stays{};   // of each ring: whether it is the same as when the chunk's group was made
    ChunkBorder border;
    Runs runs;
    bool runs_changed = true;   // since the chunk's group was made
    std::vector<JoinedLine> lines;
    Regions regions;                        // until the chunk's group takes them, and
    std::optional<RegionNumbers> numbers;   // of the group's until then among them; empty: they took no rings of these
    PieceRegions of_pieces;                 // of the chunk's group
};

struct PlanShares {
    GroupKey key;
    std::function<Stacked(const Block&, RingsBefore&)> merge_block{};    // null: lines alone
    std::function<std::vector<LinePiece>(const Bounds&)> lines_near{};   // null: ground alone
    int ground = -1;                                                     // the plan whose ground its lines keep out of
    std::vector<Share> shares{};                                         // by chunk
};

// The plans of a map whose cells change, for barriers or for one mover. Refers to world, map and options.
class ChunkPlans {
public:
    ChunkPlans(const World& world, const Map& map, const MergeOptions& options);
    ChunkPlans(const ChunkPlans&) = delete;
    ChunkPlans& operator=(const ChunkPlans&) = delete;

    // Makes everything again; shares are lost.
    void restack();
    // Makes plans again after the options' facts changed, with the shares that they had. Returns the boxes of loose
    // ground that a plan came to hold, or holds no longer: even if it adds and carves nothing, edges that it crosses
    // may have other vertices. Returns nothing, and loses all shares, if everything has to be merged again.
    [[nodiscard]] std::optional<std::vector<Bounds>> renew();
    // Learns the palette's last number, which the map did not hold before: what is merged stays, there may be more
    // plans. Returns the same boxes; nothing if that is not possible: if it reaches further out of its cell than
    // others, or brings a new surface or one-way direction.
    [[nodiscard]] std::optional<std::vector<Bounds>> learn();

    // Returns by how many cells area and lines extend beyond the map.
    [[nodiscard]] int margin() const;
    // Returns whether a number of the palette changes ground outside its cell in a layer.
    [[nodiscard]] bool spreads(std::size_t layer, std::uint32_t number) const;

    [[nodiscard]] const Stacking& stacking() const { return stacking_; }
    [[nodiscard]] const LineTable& lines() const { return *lines_; }
    std::vector<PlanShares> plans;

private:
    [[nodiscard]] int margin(const Stacking& stacking) const;
    void add_plans();
    void add_lines();
    void add_mover_plans();
    void merge_by(PlanShares& shares, const Plan& plan) const;
    void merge_for(const Mover& mover, PlanShares& shares) const;
    PlanShares& add_shares(const GroupKey& key);
    [[nodiscard]] int find_plan(const GroupKey& key) const;
    [[nodiscard]] bool knows_all_ways() const;
    [[nodiscard]] const Mover& mover() const { return world_.movers().at(index(options_.mover)); }

    const World& world_;
    const Map& map_;
    const MergeOptions& options_;
    Stacking stacking_;
    std::optional<LineTable> lines_;
};

}   // namespace dryground::detail

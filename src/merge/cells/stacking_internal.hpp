// Inside the merge room: what each group of a map is made of.
#pragma once

#include <algorithm>
#include <cstdint>
#include <iterator>
#include <map>
#include <memory>
#include <set>
#include <string>
#include <vector>

#include "../../ground/ground_internal.hpp"
#include "dryground/merge.hpp"
#include "loose_ground_internal.hpp"

namespace dryground::detail {

struct GroupKey {
    StoreyId storey = StoreyId::ground;
    BarrierId barrier = BarrierId::none;   // of a trigger group
    std::string trigger;                   // empty for a barrier group
    OneWay one_way = OneWay::none;         // of a group of one-way lines
    friend auto operator<=>(const GroupKey&, const GroupKey&) = default;
};

// Returns the group of a part on a storey.
[[nodiscard]] inline GroupKey key_of(StoreyId storey, const ground::Part& part) {
    return {storey, part.barrier, part.trigger, part.one_way};
}

// What a tile adds to a group, or carves out of it, inside its own cell: steps from the cell's first corner.
struct Part {
    bool adds = true;
    int label = 0;   // index into Stacking::surfaces
    Regions area;
};

// One step of a group's stack: either the cells of a layer, or ground that extends beyond its cells.
struct Step {
    // Cells: what each number of the map's palette means, 0 for nothing, else a position in `parts` plus one.
    const Layer* layer = nullptr;
    std::vector<std::uint32_t> meaning;
    std::vector<std::vector<Part>> parts;
    // Else:
    LooseGround loose;
    int order = 0;   // of the layer, from the bottom up
};

struct Plan {
    std::vector<Step> steps;   // from the bottom up
    bool holds_rim = false;    // a ring of cells around the map, above all else
};

// The solids of a layer that shrinks or grows them, before it does: the same, by barrier, and by barrier and surface.
struct ReshapedLayer {
    const Layer& layer;
    std::vector<Plan> plans{};
    std::vector<LooseGround> sorts{};
};

struct Stacking {
    std::map<GroupKey, Plan> plans;
    std::vector<Surface> surfaces{Surface{}};
    MergeStats stats;
    // Where tiles change ground outside their cells: layers, and numbers of the palette.
    std::set<std::pair<int, std::size_t>> spread;
};

// Makes the stacking of a map. `all_tiles`: also of tiles of the palette that stand nowhere yet.
[[nodiscard]] Stacking stack_up(const World& world, const Map& map, const Facts& facts, bool all_tiles = false);

[[nodiscard]] inline bool stops(const Mover& mover, BarrierId barrier) {
    return std::binary_search(mover.stopped_by.begin(), mover.stopped_by.end(), barrier);
}

inline void append(Regions& into, Regions from) {
    into.insert(into.end(), std::make_move_iterator(from.begin()), std::make_move_iterator(from.end()));
}

struct Block {   // of cells, counted from the data's top-left; it may reach out of the map
    int column = 0, row = 0, columns = 0, rows = 0;
};

// Returns a plan's region by the general boolean, every shape separately. Slow and obvious; for what the fast method
// cannot do, and to test it. O(n log n) in edges of shapes.
[[nodiscard]] Stacked merge_generally(const Map& map, const Plan& plan);
// Returns the same, cell by cell. Equal where all crossings lie on the lattice; valid and without needless vertices
// everywhere.
[[nodiscard]] Stacked merge_cells(const Map& map, const Plan& plan, bool labelled);

class RingsBefore;

// Does the same repeatedly: remembers what stacks cover. Map and plan must outlive it; cells may change in between.
class CellMerger {
public:
    CellMerger(const Map& map, const Plan& plan);
    ~CellMerger();
    CellMerger(CellMerger&&) noexcept;
    CellMerger& operator=(CellMerger&&) noexcept;
    [[nodiscard]] Stacked whole(bool labelled);
    [[nodiscard]] Stacked block(const Block& block, bool labelled);
    // Returns the same; rings from before that come again are taken from there.
    [[nodiscard]] Stacked block(const Block& block, bool labelled, RingsBefore& before);

private:
    struct Parts;
    std::unique_ptr<Parts> parts_;
};

// All area that stops a mover on a storey: barriers, and cells that grant it nothing. World and map must outlive it;
// cells may change in between.
class MoverGround {
public:
    MoverGround(const World& world, const Map& map, const Stacking& stacking, const Mover& mover, StoreyId storey,
                const Facts& facts);
    [[nodiscard]] Regions whole();
    [[nodiscard]] Regions block(const Block& block);

private:
    template <class AreaOf>
    [[nodiscard]] Regions united(const Block& block, AreaOf area_of);
    void add_closed(Regions& area, const Block& block) const;

    const World& world_;
    const Map& map_;
    FlagSet needs_;
    StoreyId storey_;
    const Facts facts_;
    std::vector<CellMerger> mergers_;
};

}   // namespace dryground::detail

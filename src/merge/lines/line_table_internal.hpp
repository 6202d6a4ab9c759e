// Inside the merge room: where a map's lines come from, and which of them lie near a place.
#pragma once

#include <optional>
#include <set>
#include <vector>

#include "../../geometry/bounds_internal.hpp"
#include "../../ground/ground_internal.hpp"
#include "../cells/stacking_internal.hpp"
#include "lines_internal.hpp"

namespace dryground::detail {

// What the tiles and objects of a map contribute of lines, and of carves that cut them. Refers to world and map, whose
// cells may change.
class LineTable {
public:
    LineTable(const World& world, const Map& map, const Facts& facts);

    // Learns what the palette holds since the last call. Lines are labelled with their surface's number in a sorted
    // list that holds it.
    void learn(const std::vector<Surface>& surfaces);

    // Returns the groups that have lines, or would have if every tile of the palette stood somewhere.
    [[nodiscard]] const std::set<GroupKey>& keys() const { return keys_; }
    // Returns whether a number of the palette brings lines in a layer, or carves that may cut some.
    [[nodiscard]] bool matters(std::size_t layer, std::uint32_t number) const;
    // Returns a box that contains all lines, wherever the palette's tiles stand; nothing if there are none.
    [[nodiscard]] std::optional<Bounds> box() const;
    // Returns where a cell's lines and carves, or any that they cut, may lie.
    [[nodiscard]] Bounds reach_of(std::size_t layer, int column, int row) const;
    // Returns a group's lines that come near a box, cut by the carves above them; otherwise whole. O(cells near the
    // box).
    [[nodiscard]] std::vector<LinePiece> near(const GroupKey& key, const Bounds& box) const;

private:
    struct Lines {
        GroupKey key;
        Ring points;
        int label;
    };
    struct Carves {
        BarrierId barrier;
        Regions area;
    };
    struct Number {
        std::vector<Lines> lines;
        std::vector<Carves> cuts;
    };
    struct OfLayer {
        bool counts = false, has_lines = false, has_carves = false;
        Bounds reach{{0, 0}, {0, 0}};   // how far lines and carves reach out of their cell's box
        std::vector<Number> numbers;    // from their cell's corner
    };
    struct OfObject {
        LayerId layer;
        StoreyId storey;
        ground::Part part;
        Bounds box;
        int label;
    };

    void learn(std::size_t layer, const Placed& placed, const std::vector<Surface>& surfaces);
    [[nodiscard]] Regions carved(std::size_t above, const GroupKey& key, const Bounds& box) const;
    // Calls action(number's meaning, corner) for the cells of a layer that may reach into a box.
    template <class Action>
    void each_near(std::size_t layer, const Bounds& box, Action action) const {
        const OfLayer& of = layers_[layer];
        const auto [c0, r0, c1, r1] = ground::cells_reaching(map_, of.reach, box);
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c)
                if (const Number& number = of.numbers[map_.number(map_.layers[layer], c, r)];
                    !number.lines.empty() || !number.cuts.empty())
                    action(number, map_.corner(c, r));
    }

    const World& world_;
    const Map& map_;
    const Facts facts_;
    std::vector<OfLayer> layers_;
    std::vector<OfObject> objects_;
    bool knows_objects_ = false;
    std::set<GroupKey> keys_;
};

// Returns which one-way groups stop a mover on a storey, or might: by lines of its barriers, or by sides of cells.
[[nodiscard]] std::set<OneWay> ways_for_mover(const World& world, const Map& map, const LineTable& table,
                                              const Mover& mover, StoreyId storey);
// Returns the part of such a group's lines near a box, not yet cut by the ground.
[[nodiscard]] std::vector<LinePiece> lines_for_mover(const World& world, const Map& map, const LineTable& table,
                                                     const Mover& mover, StoreyId storey, const Facts& facts,
                                                     OneWay one_way, const Bounds& box);

}   // namespace dryground::detail

// Inside the merge room: ground that extends beyond its cells, and the part of it near a place.
#pragma once

#include <array>
#include <functional>
#include <memory>
#include <vector>

#include "../../geometry/box_index_internal.hpp"
#include "dryground/world.hpp"

namespace dryground::detail {

struct ReshapedLayer;

// One kind of such ground in one layer, for example what its tiles add outside their cells. Refers to the map's layer,
// whose cells may change.
class LooseGround {
public:
    bool adds = true;
    int label = 0;   // index into Stacking::surfaces

    void add_objects(const Regions& areas);   // where they stand on the map. O(n) in all of them
    // Adds what one number of the palette brings in a layer, relative to its cell's corner. The same layer every time.
    void add_tile(const Map& map, const Layer& layer, std::size_t number, const Regions& area);
    void add_all_of(const Map& map, const LooseGround& other);
    // Sets what its layer makes of it: shrunk, and grown.
    void reshape(std::shared_ptr<const ReshapedLayer> with) { reshaped_ = std::move(with); }

    [[nodiscard]] Regions whole(const Map& map) const;
    // Returns the area, correct inside the box; outside it has no meaning. Empty if nothing comes near the box.
    [[nodiscard]] Regions near(const Map& map, const Bounds& box) const;
    // Returns whether anything of it comes near a box, before reshaping.
    [[nodiscard]] bool stands_near(const Map& map, const Bounds& box) const;
    // Calls action with boxes that together contain all of it, wherever the layer's tiles stand, with gaps between
    // them.
    void each_box(const Map& map, const std::function<void(const Bounds&)>& action) const;
    // Returns whether a number of the palette brings some.
    [[nodiscard]] bool has_tile(std::size_t number) const { return number < tiles_.size() && !tiles_[number].empty(); }

private:
    // Returns what comes near a box, before reshaping.
    [[nodiscard]] Regions standing_near(const Map& map, const Bounds& box) const;
    [[nodiscard]] Regions tiles_in(const Map& map, const DataCells& cells) const;

    Regions objects_;
    BoxIndex index_;   // of them
    const Layer* layer_ = nullptr;
    std::vector<Regions> tiles_;     // by number
    Bounds reach_{{0, 0}, {0, 0}};   // of tiles out of their cells' boxes
    std::shared_ptr<const ReshapedLayer> reshaped_;
};

}   // namespace dryground::detail

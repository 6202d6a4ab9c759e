// Inside the ground room: what every tile, layer, object and rim adds to the ground of a map and carves out of it. All
// other rooms use this; none of them reads the keys that shape the ground.
#pragma once

#include <array>
#include <cstddef>
#include <span>
#include <string>
#include <vector>

#include "dryground/ground.hpp"

namespace dryground::ground {

// What a tile or an object puts on the ground: an area or a line that blocks, senses or carves.
struct Part {
    bool adds = true;                      // else it carves what lies below its layer
    BarrierId barrier = BarrierId::none;   // -1: it senses
    std::string trigger;                   // then its name
    OneWay one_way = OneWay::none;         // of a line, as it lies on the map
    std::optional<Surface> surface;
    Regions area;   // one of these two
    Ring line;
};

// Returns whether a one-way line has to be turned round so that what it stops comes from its left as one sees it (y
// down): what is passed going up runs to greater x. A line along its own direction begins with its lesser end, as one
// that stops both ways does.
[[nodiscard]] bool runs_backward(Point first, Point last, OneWay one_way);
// Returns from which side a piece of a one-way line stops, as a direction square to it, of the piece's length: a slope
// that is passed going up stops what falls onto it and what walks up on it, not what comes from below or behind it;
// {0, 0} for none. It stops a body that first touches it there, and no other, as long as the two touch.
[[nodiscard]] Point stopped_side(Point from, Point to, OneWay one_way);

// Returns the box around a part that is not empty.
[[nodiscard]] Bounds box_of(const Part& part);
// Returns whether an area, in steps from a cell's corner, stays in the cell: of a diamond, not just in the box around
// it.
[[nodiscard]] bool keeps_to_cell(const Map& map, const Regions& area);

// How far a box, relative to a cell's corner, extends beyond the box around the cell: least is 0 or less, most 0 or
// more. And the cells of a map (as Map::cells_near) whose parts with such an extent may come near a box.
[[nodiscard]] Bounds reach_of(const Map& map, const Bounds& from_corner);
[[nodiscard]] inline DataCells cells_reaching(const Map& map, const Bounds& reach, const Bounds& box) {
    return map.cells_near({{box.least.x - reach.most.x, box.least.y - reach.most.y},
                           {box.most.x - reach.least.x, box.most.y - reach.least.y}});
}

// What a shape of a tile does: what the tile itself declares or, where it stands in a layer, also what that layer
// declares for shapes that leave it open.
struct Meaning {
    const Shape* shape = nullptr;          // of the tile
    bool adds = true;                      // else it carves
    BarrierId barrier = BarrierId::none;   // -1: none, or it senses
    std::string trigger;
    OneWay one_way = OneWay::none;   // of a line; as it lies on the map, with the tile's flips and turns
    std::optional<Surface> surface;
};
// Returns the meanings of all shapes of a tile, carves first, then in file order.
[[nodiscard]] std::vector<Meaning> meanings_of(const Tile& tile);
[[nodiscard]] std::vector<Meaning> meanings_of(const Tile& tile, const Layer& layer, const Orientation& orientation);

// Returns whether all that a tile needs holds, so that it no longer blocks.
[[nodiscard]] bool is_open(const Tile& tile, const Facts& facts);

// Returns whether a layer shapes the ground when it is present: decor does not.
[[nodiscard]] bool may_count(const Layer& layer);
// Returns whether a layer, or an object and its layer, is present and shapes the ground.
[[nodiscard]] bool counts(const Layer& layer, const Facts& facts);
[[nodiscard]] bool counts(const Map& map, const Object& object, const Facts& facts);
// Returns whether a solid moves while the game runs, as its kind declares: then it is a separate body and does not
// shape the ground.
[[nodiscard]] bool moves(const Object& object);

// Returns whether a fact decides if a layer, an object (or its layer) is present, or if a tile is open.
[[nodiscard]] bool names(const Layer& layer, FactId fact);
[[nodiscard]] bool names(const Map& map, const Object& object, FactId fact);
[[nodiscard]] bool names(const Tile& tile, FactId fact);

// Returns how far a layer's picture, and the objects of its file with it, is shifted; and how far its shapes are.
[[nodiscard]] Point shift_of(const Layer& layer);
[[nodiscard]] bool is_shifted(const Layer& layer);

// Returns whether something of a map that blocks, senses or carves depends on a fact.
[[nodiscard]] bool follows(const World& world, const Map& map, FactId fact);
// Returns whether anything of a map, including entities and spawns, depends on a fact.
[[nodiscard]] bool concerns(const World& world, const Map& map, FactId fact);

// Returns whether a tile on a storey may have sides of its own: else all cells are open.
[[nodiscard]] bool has_sides(const World& world, const Map& map, StoreyId storey, const Facts& facts);

// Returns the storeys that have ground: those of the map's layers except decor, and the first. Sorted.
[[nodiscard]] std::vector<StoreyId> storeys_of(const Map& map);
// Returns a map in which some layers, given by position, shape no ground and grant nothing, as decor does not.
[[nodiscard]] Map without_ground_of(Map map, std::span<const std::size_t> layers);

// Parts, carves first; and how many shapes were left out because of an error in them.
struct Parts {
    std::vector<Part> parts;
    std::size_t left_out = 0;
};
// Returns the parts of a tile on a cell of a layer that shapes the ground: in steps from the cell's `corner`, offsets
// included. If it is open, since all that it needs holds, nothing of it blocks.
[[nodiscard]] Parts parts_of(const World& world, const Map& map, const Layer& layer, const Placed& placed,
                             const Facts& facts);
// Returns the box of all that changes with a tile on a cell of a layer, in steps from the cell's corner: around the
// cell, and around what the tile adds to the ground or carves out of it, and what its layer's shrinking and growing
// makes of it.
[[nodiscard]] Bounds changed_by(const World& world, const Map& map, const Layer& layer, const Placed& placed);
// Returns the parts of an object that shapes the ground: in steps of the map.
[[nodiscard]] Parts parts_of(const Map& map, const Object& object);

// Returns whether a solid covers its shape, not what surrounds it.
[[nodiscard]] bool fills_shape(const Object& object);

// Returns whether a barrier stands around the map, on all its storeys, where nothing carves it; which one; and where:
// one cell thick, corners included.
[[nodiscard]] bool has_rim(const Map& map);
[[nodiscard]] BarrierId rim_barrier(const Map& map);
[[nodiscard]] Part rim_of(const Map& map);
// Returns whether a map declares what surrounds it: a barrier, or nothing on purpose.
[[nodiscard]] bool says_edge(const Map& map);

// Returns whether a layer declares in which direction movers pass its lines.
[[nodiscard]] bool directs_lines(const Layer& layer);

// Describes what a layer makes of its solids, all together: `sink` shrinks them, `grow` grows what is left, never
// between neighbours, `fill_holes` fills the small holes that they then have. Lines, triggers and carves stay.
[[nodiscard]] bool reshapes(const Layer& layer);
[[nodiscard]] bool fills_holes(const Layer& layer);
// Returns how far from a place its solids affect the result, and how far they extend beyond their original place; with
// filled holes, or without.
[[nodiscard]] std::int32_t reshaping_reach(const Layer& layer, bool with_holes = true);
[[nodiscard]] std::int32_t growth_reach(const Layer& layer, bool with_holes = true);
// Returns what becomes of some of a layer's solids. `all` is what they cover together, or the part of it nearer than
// `reshaping_reach` to the place of interest; `alone`: there are no others. Ground that grows does not take what others
// cover. A hole becomes ground of all solids around it.
[[nodiscard]] Regions reshaped(const Layer& layer, const Regions& own, const Regions& all, bool alone = false);
// Does the same in two steps, without holes and the holes alone, given what all solids become.
[[nodiscard]] Regions drawn_and_grown(const Layer& layer, const Regions& own, const Regions& all, bool alone = false);
[[nodiscard]] Regions small_holes(const Layer& layer, const Regions& shaped);
// Returns whether a ring, solid on its left, or its inside comes as near to a vertex of a hole as rounding may put it.
[[nodiscard]] bool stands_around(std::span<const Point> ring, const Region& hole);

}   // namespace dryground::ground

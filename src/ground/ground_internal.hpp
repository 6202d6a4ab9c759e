// Inside the ground room: what every tile, layer, object and rim adds to the ground of a map and carves out of it. All
// other rooms ask here: none of them reads the keys that shape it.
#pragma once

#include <array>
#include <cstddef>
#include <span>
#include <string>
#include <vector>

#include "dryground/ground.hpp"

namespace dryground::ground {

// What a tile or an object puts on the ground: area or a line, that blocks, senses or carves.
struct Part {
    bool adds = true;                      // else it carves what lies below its layer
    BarrierId barrier = BarrierId::none;   // -1: it senses
    std::string trigger;                   // then its name
    OneWay one_way = OneWay::none;         // of a line, as it lies on the map
    std::optional<Surface> surface;
    Regions area;   // one of these two
    Ring line;
};

// The box around a part that is not empty.
[[nodiscard]] Bounds box_of(const Part& part);

// How far a box, from a cell's corner, reaches out of the box around the cell: least 0 or less, most 0 or more. And the
// cells of a map (as Map::cells_near) whose parts of such a reach may come near a box.
[[nodiscard]] Bounds reach_of(const Map& map, const Bounds& from_corner);
[[nodiscard]] inline DataCells cells_reaching(const Map& map, const Bounds& reach, const Bounds& box) {
    return map.cells_near({{box.least.x - reach.most.x, box.least.y - reach.most.y},
                           {box.most.x - reach.least.x, box.most.y - reach.least.y}});
}

// What a shape of a tile does: what the tile itself declares, or, where it stands in a layer, also what that layer
// declares for shapes that leave it open.
struct Meaning {
    const Shape* shape = nullptr;          // of the tile
    bool adds = true;                      // else it carves
    BarrierId barrier = BarrierId::none;   // -1: none, or it senses
    std::string trigger;
    OneWay one_way = OneWay::none;   // of a line; as it lies on the map, with the tile's flips and turns
    std::optional<Surface> surface;
};
// The meanings of all shapes of a tile, carves first, then in the order of its file.
[[nodiscard]] std::vector<Meaning> meanings_of(const Tile& tile);
[[nodiscard]] std::vector<Meaning> meanings_of(const Tile& tile, const Layer& layer, const Orientation& orientation);

// Whether all that a tile needs holds, so that it blocks no more.
[[nodiscard]] bool is_open(const Tile& tile, const Facts& facts);

// Whether a layer has a say in the ground when it is there: decor has none.
[[nodiscard]] bool may_count(const Layer& layer);
// Whether a layer, or an object with its layer, is there and has a say.
[[nodiscard]] bool counts(const Layer& layer, const Facts& facts);
[[nodiscard]] bool counts(const Map& map, const Object& object, const Facts& facts);
// Whether a solid moves while the game runs, as its kind says: it is a body of its own then, and has no say.
[[nodiscard]] bool moves(const Object& object);

// How far a layer's picture, and with it the objects of its file, is shifted; and whether its shapes are.
[[nodiscard]] Point shift_of(const Layer& layer);
[[nodiscard]] bool is_shifted(const Layer& layer);

// Whether something of a map that blocks, senses or carves comes or goes with a fact.
[[nodiscard]] bool follows(const World& world, const Map& map, FactId fact);
// Whether anything of a map, its entities and spawns too, comes or goes with a fact.
[[nodiscard]] bool concerns(const World& world, const Map& map, FactId fact);

// The storeys that have ground: those of the map's layers, decor apart, and the first. Sorted.
[[nodiscard]] std::vector<StoreyId> storeys_of(const Map& map);
// A map of which some layers, by their positions, shape no ground and grant nothing, as decor does not.
[[nodiscard]] Map without_ground_of(Map map, std::span<const std::size_t> layers);

// Parts, carves first; and how many shapes were left out because of an error in them.
struct Parts {
    std::vector<Part> parts;
    std::size_t left_out = 0;
};
// Of a tile that stands on a cell of a layer that counts: in steps from the cell's `corner`, offsets included. Nothing
// of it blocks when it is open, as all that it needs holds.
[[nodiscard]] Parts parts_of(const World& world, const Map& map, const Layer& layer, const Placed& placed,
                             const Facts& facts);
// Of an object that counts: in steps of the map.
[[nodiscard]] Parts parts_of(const Map& map, const Object& object);

// Whether a solid covers its shape, and not what is around it.
[[nodiscard]] bool fills_shape(const Object& object);

// Whether a barrier stands around the map, on all its storeys, where nothing carves it; which; and where: one cell
// thick, corners included.
[[nodiscard]] bool has_rim(const Map& map);
[[nodiscard]] BarrierId rim_barrier(const Map& map);
[[nodiscard]] Part rim_of(const Map& map);
// Whether a map declares what is around it: a barrier, or nothing on purpose.
[[nodiscard]] bool says_edge(const Map& map);

// Whether a layer declares in which direction movers pass its lines.
[[nodiscard]] bool directs_lines(const Layer& layer);

// What a layer makes of its solids, all together: `sink` draws them in, `grow` grows what is left, never between
// neighbours, `fill_holes` fills what small holes they have then. Lines, triggers and carves stay.
[[nodiscard]] bool reshapes(const Layer& layer);
[[nodiscard]] bool fills_holes(const Layer& layer);
// How far from a place its solids have a say in what becomes of it, and how far they come out of where they stood; with
// the holes that are filled, or without.
[[nodiscard]] std::int32_t reshaping_reach(const Layer& layer, bool with_holes = true);
[[nodiscard]] std::int32_t growth_reach(const Layer& layer, bool with_holes = true);
// What becomes of some of a layer's solids: `all` is what they cover together, or what of that comes nearer than
// `reshaping_reach` to where one looks; `alone`: there are no others. Ground that grows leaves alone what others cover.
// A hole becomes ground of all that stand around it.
[[nodiscard]] Regions reshaped(const Layer& layer, const Regions& own, const Regions& all, bool alone = false);
// The same in two steps, without holes and the holes alone, given what all solids come to.
[[nodiscard]] Regions drawn_and_grown(const Layer& layer, const Regions& own, const Regions& all, bool alone = false);
[[nodiscard]] Regions small_holes(const Layer& layer, const Regions& shaped);
// Whether a ring, solid on its left, or what it holds, comes as near to a vertex of a hole as roundings may put it.
[[nodiscard]] bool stands_around(std::span<const Point> ring, const Region& hole);

}   // namespace dryground::ground

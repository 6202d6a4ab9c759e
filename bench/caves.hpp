// Worlds to measure with: caves grown by a cellular automaton, and noise.
#pragma once

#include "dryground/builder.hpp"

namespace bench {

enum class Tiles { full, mixed };

// A world of one square map, `side` cells a side, whose solid tiles are all full, or mixed with slopes, halves and
// round ones where the solid meets the open. Caves: 45 % filled, four rounds of the majority of nine.
// Solids, if any, are drawn over it.
[[nodiscard]] std::vector<char> cave_grid(int side, unsigned seed);   // row by row, 1 where it is solid
[[nodiscard]] dryground::World cave_world(int side, Tiles tiles, unsigned seed, const dryground::Regions& solids = {});

// The same caves with one-way lines in open cells, each passed going up: an ordinary platform game.
[[nodiscard]] dryground::World platform_world(int side, Tiles tiles, int lines, unsigned seed);

// The same caves with doors in a layer of their own, which is there until the fact 'open' holds.
[[nodiscard]] dryground::World door_world(int side, Tiles tiles, int doors, unsigned seed);

// The same caves, feet sinking 4 px into their floors.
[[nodiscard]] dryground::World sunk_world(int side, Tiles tiles, unsigned seed);
// The same caves, holes up to a cell filled.
[[nodiscard]] dryground::World filled_world(int side, Tiles tiles, unsigned seed);
// The same caves, grown by 2 px with round corners.
[[nodiscard]] dryground::World grown_world(int side, Tiles tiles, unsigned seed);

// The same caves with two movers, and objects in open cells: spawns, triggers, links, entities, with keys and locks.
[[nodiscard]] dryground::World busy_world(int side, Tiles tiles, int objects, unsigned seed);

// The same caves with one player, who begins in an open cell; one-way lines in others, lifts that go up 96 px, and nets
// to climb that hang four cells down.
struct Furniture {
    int lines = 0, lifts = 0, nets = 0;
};
[[nodiscard]] dryground::World walked_world(int side, Tiles tiles, dryground::Moves moves, unsigned seed,
                                            const Furniture& furniture = {});

// Rooms joined by links to and fro, each with keys: every key needs the one before, from room to room and around.
[[nodiscard]] dryground::World locked_world(int rooms, int keys);

// Half of the cells, at random.
[[nodiscard]] dryground::World noise_world(int side, Tiles tiles, unsigned seed);

// Closed outlines as people draw them: `count` rings of `vertices` points in a square of `side` steps.
[[nodiscard]] dryground::Regions drawn_polygons(int count, int vertices, int side, unsigned seed);

// Every shape of the map as a polygon of its own: what a general library is given.
[[nodiscard]] dryground::Regions tile_polygons(const dryground::World& world);

}   // namespace bench

// A small world whose map begins at any cell: for the corners of the range.
#pragma once

#include <catch2/catch.hpp>

#include "dryground/builder.hpp"

namespace far_worlds {

using namespace dryground;

inline constexpr int columns = 12, rows = 8;

// Slopes, a line, half a cell and a crate, on a map that begins at some cell; a mover that goes anywhere.
inline World world_at(Cell first) {
    WorldBuilder builder;
    MoverDraft warden{.name = "warden", .stopped_by = {"earth"}};
    warden.body.form = BoxPx{0, 0, 10, 14};
    builder.world({.title = "Sedge Point", .barriers = {{.name = "earth"}}, .movers = {warden}});
    const auto tile = [](const char* name, ShapeDraft shape) {
        return TileDraft{.name = name, .unseen = true, .barrier = "earth", .shapes = {{std::move(shape)}}};
    };
    ShapeDraft plank{LinePx{{{0, 0}, {16, 0}}}};
    plank.one_way = "up";
    builder.tileset(
        {.name = "marsh",
         .tiles = {tile("peat", {WholeCell{}}), tile("bank", {PolygonPx{{{0, 16}, {16, 0}, {16, 16}}}}),
                   tile("half", {BoxPx{0, 8, 16, 8}}), tile("plank", plank), tile("post", {EllipsePx{8, 8, 5, 5}})}});
    LayerDraft ground{.name = "ground"};
    ground.rows = {"............", "..____......", "............", "....../##...",
                   ".o..../###..", "....../####.", ".hh../#####.", "############"};
    builder.map({.name = "flat",
                 .size = std::array{columns, rows},
                 .first = first,
                 .rim = "earth",
                 .tilesets = {"marsh"},
                 .legend = {{.key = "#", .tile = "peat"},
                            {.key = "/", .tile = "bank"},
                            {.key = "h", .tile = "half"},
                            {.key = "_", .tile = "plank"},
                            {.key = "o", .tile = "post"}},
                 .layers = {ground}});
    Result<World> world = builder.build();
    INFO(text(world.report()));
    REQUIRE(world);
    return *std::move(world);
}

// As many cells out as maps reach, half as far as coordinates, less the map and what its rim needs.
inline constexpr int far_cells = coordinate_limit / 2 / steps_per_px / 16 - 40;

}   // namespace far_worlds

// The verbs that paint cells.

#include <algorithm>

#include "edit_internal.hpp"

namespace app {

namespace dg = dryground;

namespace {

// Cells and blocks of cells.
std::vector<dg::Cell> all_cells(const std::vector<std::string>& places) {
    std::vector<dg::Cell> cells;
    for (const std::string& place : places) {
        const bool block = std::count(place.begin(), place.end(), ',') == 3;
        for (const dg::Cell& cell : block ? dg::cells_of_box(cell_area(place)) : std::vector{cell_at(place)})
            cells.push_back(cell);
    }
    return cells;
}

CLI::Option* with_places(CLI::App* verb, const SharedOptions& o, const char* help, int count) {
    return verb->add_option("PLACE", o->places, help)->required()->expected(count)->type_name("");
}

// A verb with what it paints, and where.
void add_brush(CLI::App& app, const SharedOptions& o, const char* name, const char* help, const char* places, int count,
               MapEditMaker edit) {
    CLI::App* verb = add_map_verb(app, o, name, help, "cells", std::move(edit));
    verb->add_option("WHAT", o->tile, "A tile, as in bank or bank:x:90; a family, a block or a kind; '' for nothing")
        ->required()
        ->type_name("");
    with_places(verb, o, places, count);
    verb->footer(fmt::format("Example: dryground edit demo/maps/slipway.map.toml --layer ground --dry-run {} crate {}",
                             name,
                             count == 2                                       ? "3,4 9,4"
                             : count == 1 && std::string_view(name) != "fill" ? "3,4,4,2"
                                                                              : "3,4"));
}

dg::MapEdit copy(const EditOptions& o, bool move) {
    return dg::CopyCells{o.layer, cell_area(o.places[0]), cell_at(o.places[1]), o.to_layer, move};
}

}   // namespace

void add_cell_verbs(CLI::App& app, const SharedOptions& o) {
    add_brush(app, o, "set", "Put something on cells", "Cells, as in 3,4, or blocks, as in 3,4,2,2", -1,
              [](const EditOptions& p) {
                  return dg::PaintCells{p.layer, p.tile, all_cells(p.places)};
              });
    add_brush(app, o, "line", "Put something on a straight line of cells", "From a cell to a cell: 3,4 9,4", 2,
              [](const EditOptions& p) {
                  return dg::PaintCells{p.layer, p.tile, dg::cells_of_line(cell_at(p.places[0]), cell_at(p.places[1]))};
              });
    add_brush(app, o, "box", "Put something on a block of cells", "column,row,columns,rows", 1,
              [](const EditOptions& p) {
                  return dg::PaintCells{p.layer, p.tile, dg::cells_of_box(cell_area(p.places[0]))};
              });
    add_brush(app, o, "ring", "Put something on the outermost cells of a block", "column,row,columns,rows", 1,
              [](const EditOptions& p) {
                  return dg::PaintCells{p.layer, p.tile, dg::cells_of_ring(cell_area(p.places[0]))};
              });
    add_brush(app, o, "fill", "Fill a connected area of equal cells", "A cell: 3,4", 1, [](const EditOptions& p) {
        return dg::FillCells{p.layer, p.tile, cell_at(p.places[0])};
    });
    CLI::App* replace = add_map_verb(
        app, o, "replace", "Replace something by something else, wherever it is", "cells", [](const EditOptions& p) {
            return dg::ReplaceTile{p.layer, p.from, p.tile,
                                   p.area.empty() ? std::nullopt : std::optional(cell_area(p.area))};
        });
    replace->add_option("OLD", o->from, "What stands there; '' for nothing")->required()->type_name("");
    replace->add_option("WHAT", o->tile, "What is to stand there; '' for nothing")->required()->type_name("");
    replace->add_option("--area", o->area, "Only in this block: column,row,columns,rows")->type_name("AREA");
    replace->footer("Example: dryground edit demo/maps/slipway.map.toml --layer ground --dry-run replace crate ''");
    for (const bool move : {false, true}) {
        CLI::App* verb =
            add_map_verb(app, o, move ? "move" : "copy",
                         move ? "Move a block of cells to another place" : "Copy a block of cells to another place",
                         "cells", [move](const EditOptions& p) { return copy(p, move); });
        with_places(verb, o, "The block, and the cell its top-left one goes to: 3,4,2,2 8,4", 2);
        verb->add_option("--to-layer", o->to_layer, "Into this layer (default: the same)")->type_name("NAME");
        verb->footer(
            fmt::format("Example: dryground edit demo/maps/slipway.map.toml --layer ground --dry-run {} 3,4,2,2 8,4",
                        move ? "move" : "copy"));
    }
    CLI::App* erase = add_map_verb(app, o, "erase", "Clear cells", "cells", [](const EditOptions& p) {
        return dg::PaintCells{p.layer, "", all_cells(p.places)};
    });
    with_places(erase, o, "Cells, as in 3,4, or blocks, as in 3,4,2,2", -1);
    erase->footer("Example: dryground edit demo/maps/slipway.map.toml --layer ground --dry-run erase 3,4,2,2");
}

}   // namespace app

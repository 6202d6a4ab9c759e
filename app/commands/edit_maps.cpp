// The verbs that change whole maps, and their layers.

#include "edit_internal.hpp"

namespace app {

namespace dg = dryground;

namespace {

dg::Keep keep(const std::string& corner) {
    return corner == "top_right"      ? dg::Keep::top_right
           : corner == "bottom_left"  ? dg::Keep::bottom_left
           : corner == "bottom_right" ? dg::Keep::bottom_right
                                      : dg::Keep::top_left;
}

void with_order(CLI::App* verb, const SharedOptions& o) {
    CLI::Option* above = verb->add_option("--above", o->above, "Just above this layer")->type_name("NAME");
    verb->add_option("--below", o->below, "Just below this layer")->type_name("NAME")->excludes(above);
}

void with_cut(CLI::App* verb, const SharedOptions& o) {
    verb->add_flag("--cut", o->cut, "Let go of what is over the edge");
}

void add_layer_verbs(CLI::App& app, const SharedOptions& o) {
    CLI::App* layer = add_group(app, "layer", "Add, drop or order layers, or change keys of one (--layer)");
    CLI::App* add = add_map_verb(
        *layer, o, "add", "Add an empty layer, uppermost unless another place is given", "layers",
        [](const EditOptions& p) {
            return dg::AddLayer{p.name, p.objects, p.above, p.below, keys(p.values)};
        },
        added_to);
    with_name(add, o, "The layer's name");
    add->add_flag("--objects", o->objects, "A layer of objects, not of cells");
    with_order(add, o);
    with_values(add, o);
    add->footer(
        "Example: dryground edit demo/maps/slipway.map.toml --dry-run layer add reeds --above ground decor=true");
    CLI::App* drop = add_map_verb(
        *layer, o, "drop", "Remove a layer with all its content", "layers",
        [](const EditOptions& p) { return dg::DropLayer{p.name}; }, removed_from);
    with_name(drop, o, "The layer's name");
    drop->footer("Example: dryground edit demo/maps/slipway.map.toml --dry-run layer drop people");
    CLI::App* order =
        add_map_verb(*layer, o, "order", "Put a layer above or below another", "layers", [](const EditOptions& p) {
            return dg::OrderLayer{p.name, p.above, p.below};
        });
    with_name(order, o, "The layer's name");
    with_order(order, o);
    order->footer("Example: dryground edit demo/maps/slipway.map.toml --dry-run layer order grass --below ground");
    CLI::App* set =
        add_map_verb(*layer, o, "set", "Set keys and properties of a layer", "keys", [](const EditOptions& p) {
            return dg::GiveLayer{p.layer, keys(p.values)};
        });
    with_values(set, o)->required();
    set->footer("Example: dryground edit demo/maps/slipway.map.toml --layer ground --dry-run layer set opacity=0.5");
}

}   // namespace

void add_map_verbs(CLI::App& app, const SharedOptions& o) {
    CLI::App* size = add_map_verb(app, o, "size", "Give the map another size", "sizes", [](const EditOptions& p) {
        const std::vector<int> cells = wholes_in(p.size, 2, "a size: give columns,rows, as in 40,13");
        return dg::ResizeMap{cells[0], cells[1], keep(p.keep)};
    });
    size->add_option("SIZE", o->size, "columns,rows")->required()->type_name("");
    size->add_option("--keep", o->keep, "The corner that stays: top_left, top_right, bottom_left, bottom_right")
        ->check(one_of({"top_left", "top_right", "bottom_left", "bottom_right"}))
        ->type_name("CORNER");
    with_cut(size, o);
    size->footer("Example: dryground edit demo/maps/slipway.map.toml --dry-run size 44,13 --keep bottom_left");
    CLI::App* shift =
        add_map_verb(app, o, "shift", "Move all cells and objects of the map", "places", [](const EditOptions& p) {
            const dg::Cell by = cell_at(p.by_cells);
            return dg::ShiftMap{by.column, by.row};
        });
    shift->add_option("BY", o->by_cells, "By so many cells: columns,rows")->required()->type_name("");
    with_cut(shift, o);
    shift->footer("Example: dryground edit demo/maps/slipway.map.toml --dry-run shift 0,1");
    CLI::App* map = add_group(app, "map", "Add or drop maps, or change keys of one");
    CLI::App* add = add_verb(
        *map, o, "add", "Add a map, empty, in a file of its own", [](const EditOptions& p, const dg::FoundWorld&) {
            const std::vector<int> cells = wholes_in(p.size, 2, "a size: give columns,rows, as in 40,13");
            return Wanted{dg::AddMap{p.name, cells[0], cells[1], keys(p.values)}, "maps", added_to, "the world"};
        });
    with_name(add, o, "The map's name");
    add->add_option("SIZE", o->size, "columns,rows")->required()->type_name("");
    with_values(add, o);
    add->footer("Example: dryground edit demo/world.toml --dry-run map add cellar 20,12 title=\"The Cellar\"");
    CLI::App* drop = add_verb(*map, o, "drop", "Remove a map from the world's list; its file stays",
                              [](const EditOptions& p, const dg::FoundWorld&) {
                                  return Wanted{dg::DropMap{p.name}, "maps", removed_from, "the world"};
                              });
    with_name(drop, o, "The map's name");
    drop->footer("Example: dryground edit room/world.toml map drop cellar");
    CLI::App* set = add_map_verb(*map, o, "set", "Set keys and properties of the map", "keys",
                                 [](const EditOptions& p) { return dg::GiveMap{keys(p.values)}; });
    with_values(set, o)->required();
    set->footer("Example: dryground edit demo/maps/slipway.map.toml --dry-run map set rim=open");
    add_layer_verbs(app, o);
}

}   // namespace app

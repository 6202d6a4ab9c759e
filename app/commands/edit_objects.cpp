// The verbs that change objects.

#include <algorithm>

#include "edit_internal.hpp"

namespace app {

namespace dg = dryground;

namespace {

int given(std::initializer_list<const std::string*> options) {
    return static_cast<int>(
        std::count_if(options.begin(), options.end(), [](const std::string* one) { return !one->empty(); }));
}

// The keys that say what shape an object draws: it needs no other place then.
bool draws_a_shape(const EditOptions& o) {
    return std::any_of(o.values.begin(), o.values.end(), [](const std::string& value) {
        const std::string key = value.substr(0, value.find('='));
        return key == "box" || key == "polygon" || key == "circle" || key == "ellipse" || key == "capsule" ||
               key == "line";
    });
}

dg::MapEdit add_object(const EditOptions& o) {
    if (o.kind.find('=') != std::string::npos)
        stop(misuse, fmt::format("'{}' stands where the kind should: object add NAME KIND KEY=VALUE …", o.kind));
    const int places = given({&o.at, &o.cell, &o.cells});
    if (places == 0 && draws_a_shape(o)) return dg::AddObject{o.layer, o.name, o.kind, {}, o.to, keys(o.values)};
    if (places != 1) stop(misuse, "give its place: one of --at, --cell, --cells, or a shape, as in box=320,96,48,32");
    const dg::ObjectAt at = !o.at.empty()     ? dg::ObjectAt(point(o.at))
                            : !o.cell.empty() ? dg::ObjectAt(cell_at(o.cell))
                                              : dg::ObjectAt(cell_area(o.cells));
    return dg::AddObject{o.layer, o.name, o.kind, at, o.to, keys(o.values)};
}

dg::MapEdit move_object(const EditOptions& o) {
    if (given({&o.at, &o.cell, &o.by, &o.by_cells}) != 1)
        stop(misuse, "give where to, or how far: one of --at, --cell, --by, --by-cells");
    if (!o.at.empty()) return dg::MoveObject{o.name, point(o.at)};
    if (!o.cell.empty()) return dg::MoveObject{o.name, cell_at(o.cell)};
    if (!o.by.empty()) return dg::MoveObject{o.name, point(o.by), true};
    return dg::MoveObject{o.name, cell_at(o.by_cells), true};
}

void with_at(CLI::App* verb, const SharedOptions& o) {
    verb->add_option("--at", o->at, "Where: x,y px")->type_name("X,Y");
    verb->add_option("--cell", o->cell, "Where: on a cell")->type_name("C,R");
}

}   // namespace

void add_object_verbs(CLI::App& app, const SharedOptions& o) {
    CLI::App* object = add_group(app, "object", "Add, move, drop or change an object");
    CLI::App* add = add_map_verb(*object, o, "add", "Add an object", "objects", add_object, added_to);
    with_name(add, o, "The object's name");
    add->add_option("KIND", o->kind, "A kind of the world, or spawn, trigger, link, solid, entity")
        ->required()
        ->type_name("");
    with_at(add, o);
    add->add_option("--cells", o->cells, "Where: on a block of cells")->type_name("C,R,W,H");
    add->add_option("--to", o->to, "Where a link leads")->type_name("MAP/OBJECT");
    with_values(add, o);
    add->footer(
        "Examples: dryground edit demo/maps/slipway.map.toml --layer people --dry-run object add crab_z silt_crab --at "
        "64,48\n"
        "          dryground edit demo/maps/slipway.map.toml --layer people --dry-run object add pier solid "
        "polygon=\"[[0, 0], [32, 0], [16, 16]]\" barrier=earth");
    CLI::App* move = add_map_verb(*object, o, "move", "Move an object", "objects", move_object);
    with_name(move, o, "The object's name");
    with_at(move, o);
    move->add_option("--by", o->by, "How far: px")->type_name("X,Y");
    move->add_option("--by-cells", o->by_cells, "How far: cells")->type_name("C,R");
    move->footer("Example: dryground edit demo/maps/slipway.map.toml --dry-run object move crab_a --by-cells 1,0");
    CLI::App* turn =
        add_map_verb(*object, o, "turn", "Turn an object about its middle", "objects", [](const EditOptions& p) {
            return dg::GiveObject{p.name, {{"turn", p.at}}};
        });
    with_name(turn, o, "The object's name");
    turn->add_option("DEGREES", o->at, "Clockwise, from how it is drawn")->required()->type_name("");
    turn->footer("Example: dryground edit demo/maps/slipway.map.toml --dry-run object turn bell 90");
    CLI::App* drop = add_map_verb(
        *object, o, "drop", "Remove an object", "objects", [](const EditOptions& p) { return dg::DropObject{p.name}; },
        removed_from);
    with_name(drop, o, "The object's name");
    drop->footer("Example: dryground edit demo/maps/slipway.map.toml --dry-run object drop crab_a");
    CLI::App* give =
        add_map_verb(*object, o, "give", "Set keys and properties of an object", "keys", [](const EditOptions& p) {
            return dg::GiveObject{p.name, keys(p.values)};
        });
    with_name(give, o, "The object's name");
    with_values(give, o)->required();
    give->footer(
        "Examples: dryground edit demo/maps/slipway.map.toml --dry-run object give crab_a patrol_px=16\n"
        "          dryground edit demo/maps/slipway.map.toml --dry-run object give bell once=false box=320,96,48,32\n"
        "`dryground keys object` lists all keys.");
}

}   // namespace app

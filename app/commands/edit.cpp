// dryground edit: changes to maps, tiles and kinds, made in their files.

#include <fmt/format.h>

#include <algorithm>
#include <memory>

#include "../command.hpp"

namespace app {

namespace dg = dryground;
namespace fs = std::filesystem;

namespace {

struct EditOptions {
    WorldArguments world;
    std::string layer, tile, from, to, name, kind, set, keep = "top_left";
    std::vector<std::string> places, values;
    std::string at, cell, cells, by, by_cells, area;
    bool dry_run = false;
};

// Numbers parted by commas, just so many; throws Stop.
template <class Number, std::size_t n>
std::array<Number, n> numbers(const std::string& text, const char* what) {
    std::array<Number, n> result{};
    std::size_t begin = 0;
    bool good = true;
    for (std::size_t i = 0; i < n && good; ++i) {
        const std::size_t end = std::min(text.find(',', begin), text.size());
        const std::string part = text.substr(begin, end - begin);
        std::size_t used = 0;
        try {
            if constexpr (std::is_integral_v<Number>)
                result[i] = std::stoi(part, &used);
            else
                result[i] = std::stod(part, &used);
        } catch (const std::exception&) {
            used = 0;
        }
        good = used > 0 && used == part.size() && (i + 1 == n ? end == text.size() : end < text.size());
        begin = end + 1;
    }
    if (!good) stop(misuse, fmt::format("'{}' is no {}", text, what));
    return result;
}

dg::CellAt cell_at(const std::string& text) { return numbers<int, 2>(text, "cell: say column,row, as in 3,4"); }

dg::CellArea cell_area(const std::string& text) {
    const auto area = numbers<int, 4>(text, "block of cells: say column,row,columns,rows, as in 3,4,2,2");
    if (area[2] < 1 || area[3] < 1) stop(misuse, fmt::format("'{}' covers no cell", text));
    if (std::int64_t{area[2]} * area[3] > std::int64_t{1} << 26)
        stop(misuse, fmt::format("'{}' covers too many cells", text));
    return area;
}

dg::PointPx point(const std::string& text) {
    const auto [x, y] = numbers<double, 2>(text, "place: say x,y in px, as in 24,48.5");
    return {x, y};
}

// Cells and blocks of cells.
std::vector<dg::CellAt> all_cells(const std::vector<std::string>& places) {
    std::vector<dg::CellAt> cells;
    for (const std::string& place : places) {
        const bool block = std::count(place.begin(), place.end(), ',') == 3;
        for (const dg::CellAt& cell : block ? dg::cells_of_box(cell_area(place)) : std::vector{cell_at(place)})
            cells.push_back(cell);
    }
    return cells;
}

dg::GivenKeys keys(const std::vector<std::string>& values) {
    dg::GivenKeys given;
    for (const std::string& value : values) {
        const std::size_t equals = value.find('=');
        if (equals == std::string::npos || equals == 0)
            stop(misuse, fmt::format("'{}' is not KEY=VALUE, for example once=true", value));
        given.emplace_back(value.substr(0, equals), value.substr(equals + 1));
    }
    return given;
}

int given(std::initializer_list<const std::string*> options) {
    return static_cast<int>(
        std::count_if(options.begin(), options.end(), [](const std::string* one) { return !one->empty(); }));
}

dg::MapEdit add_object(const EditOptions& o) {
    if (given({&o.at, &o.cell, &o.cells}) != 1) stop(misuse, "say where it is: one of --at, --cell, --cells");
    const dg::ObjectAt at = !o.at.empty()     ? dg::ObjectAt(point(o.at))
                            : !o.cell.empty() ? dg::ObjectAt(cell_at(o.cell))
                                              : dg::ObjectAt(cell_area(o.cells));
    return dg::AddObject{o.layer, o.name, o.kind, at, o.to, keys(o.values)};
}

dg::MapEdit move_object(const EditOptions& o) {
    if (given({&o.at, &o.cell, &o.by, &o.by_cells}) != 1)
        stop(misuse, "say where to, or how far: one of --at, --cell, --by, --by-cells");
    if (!o.at.empty()) return dg::MoveObject{o.name, point(o.at)};
    if (!o.cell.empty()) return dg::MoveObject{o.name, cell_at(o.cell)};
    if (!o.by.empty()) return dg::MoveObject{o.name, point(o.by), true};
    return dg::MoveObject{o.name, cell_at(o.by_cells), true};
}

dg::Keep keep(const std::string& corner) {
    return corner == "top_right"      ? dg::Keep::top_right
           : corner == "bottom_left"  ? dg::Keep::bottom_left
           : corner == "bottom_right" ? dg::Keep::bottom_right
                                      : dg::Keep::top_left;
}

std::vector<dg::Finding> findings_in(const dg::FoundWorld& found) {
    const fs::path world = found.world;
    const dg::Loaded loaded = dg::load_world(world, found.reader);
    dg::Report report = loaded.report();
    if (loaded) report.add(dg::check(loaded.world(), {dg::pictures_of(world)}));
    return report.findings();
}

// What of the second list is not in the first, places apart: lines may have moved.
std::string that_came(const std::vector<dg::Finding>& before, const std::vector<dg::Finding>& after) {
    std::vector<std::string> old;
    for (const dg::Finding& finding : before) old.push_back(dg::message(finding));
    dg::Report came;
    for (const dg::Finding& finding : after) {
        const auto known = std::find(old.begin(), old.end(), dg::message(finding));
        if (known == old.end())
            came.add(finding);
        else
            old.erase(known);
    }
    return came.empty() ? std::string() : "after the edit `dryground check` also says:\n" + dg::text(came);
}

std::string counted(std::size_t count, const std::string& things) {
    return fmt::format("{} {}", count, count == 1 ? things.substr(0, things.size() - 1) : things);
}

dg::FoundWorld find_world(const EditOptions& options) {
    dg::FoundWorld found = options.world.find();
    if (found.report.empty()) return found;
    say(dg::text(found.report));
    stop(findings, fmt::format("'{}' cannot be read; nothing was changed", options.world.file));
}

// Writes what an edit gave, or shows it; says what `check` says now and did not before. `of`: what was changed.
void write_edit(const EditOptions& options, const dg::FoundWorld& found, const dg::Edited& edited, const char* what,
                const std::string& of) {
    if (!edited.fault.empty()) {
        if (!edited.report.empty()) say(dg::text(edited.report));
        stop(edited.report.empty() ? misuse : findings, fmt::format("{}; nothing was changed", edited.fault));
    }
    const fs::path folder = fs::path(found.world).parent_path();
    if (options.dry_run) {
        for (const dg::NamedBytes& file : edited.files) {
            const std::string old = dg::read_file(folder / file.file).bytes.value_or(std::string());
            const bool picture = fs::path(file.file).extension() == ".png";
            print(fmt::format("{}:\n{}", file.file,
                              picture ? "  pixels change\n" : dg::line_differences(old, file.bytes)));
        }
        say(fmt::format("{} of {} would change; nothing was written (--dry-run)\n", counted(edited.changed, what), of));
        return;
    }
    const std::vector<dg::Finding> before = findings_in(found);
    std::vector<dg::NamedBytes> files = edited.files;
    for (dg::NamedBytes& file : files) file.file = (folder / file.file).generic_string();
    if (const std::string fault = dg::write_files(files); !fault.empty())
        stop(misuse, fmt::format("cannot write {}", fault));
    for (const dg::NamedBytes& file : edited.files) print(fmt::format("{}\n", file.file));
    say(fmt::format("{} of {} changed\n", counted(edited.changed, what), of));
    say(that_came(before, findings_in(found)));
}

void make(const EditOptions& options, const dg::MapEdit& edit, const char* what) {
    const dg::FoundWorld found = find_world(options);
    if (options.world.maps.size() > 1) stop(misuse, "one map at a time: say --map once");
    if (!options.world.maps.empty() && !found.map.empty() && options.world.maps.front() != found.map)
        stop(misuse, fmt::format("'{}' is map '{}', but --map says '{}'; nothing was changed", options.world.file,
                                 found.map, options.world.maps.front()));
    std::string map = options.world.maps.empty() ? found.map : options.world.maps.front();
    if (map.empty()) {
        const dg::LoadedDrafts drafts = dg::load_drafts(found.world, found.reader);
        std::vector<std::string> names;
        if (drafts.builder)
            for (const dg::MapDraft& one : drafts.builder->map_drafts()) names.push_back(one.name.value);
        if (names.size() == 1)
            map = names.front();
        else if (drafts.builder)
            stop(misuse, fmt::format("which map? say --map NAME; the world has {}", fmt::join(names, ", ")));
    }
    write_edit(options, found, dg::edit_map(found.world, map, edit, found.reader), what, map);
}

void make_kind(const EditOptions& options) {
    const dg::FoundWorld found = find_world(options);
    write_edit(options, found, dg::edit_kind(found.world, options.name, keys(options.values), found.reader), "keys",
               fmt::format("kind '{}'", options.name));
}

void make_tiles(const EditOptions& options) {
    const dg::FoundWorld found = find_world(options);
    std::string set = options.set.empty() ? found.tileset : options.set;
    if (set.empty()) {
        const dg::LoadedDrafts drafts = dg::load_drafts(found.world, found.reader);
        std::vector<std::string> names;
        if (drafts.builder)
            for (const dg::TileSetDraft& one : drafts.builder->tileset_drafts()) names.push_back(one.name.value);
        if (names.size() == 1)
            set = names.front();
        else if (drafts.builder)
            stop(misuse, fmt::format("which tile set? say --set NAME; the world has {}", fmt::join(names, ", ")));
    }
    write_edit(options, found, dg::edit_tiles(found.world, set, options.name, keys(options.values), found.reader),
               "keys", fmt::format("tile set '{}'", set));
}

// A verb: its arguments and the edit that they mean.
template <class Edit>
CLI::App* add_verb(CLI::App& app, const std::shared_ptr<EditOptions>& options, const char* name, const char* help,
                   const char* what, Edit edit) {
    CLI::App* verb = app.add_subcommand(name, help);
    verb->callback([options, what, edit] { make(*options, edit(*options), what); });
    return verb;
}

void add_cell_verbs(CLI::App& app, const std::shared_ptr<EditOptions>& o) {
    const auto with_tile = [&](CLI::App* verb) {
        verb->add_option("TILE", o->tile, "A tile's name, as in bank or bank:x:90; '' for none")
            ->required()
            ->type_name("");
    };
    const auto with_places = [&](CLI::App* verb, const char* help, int count) {
        verb->add_option("PLACE", o->places, help)->required()->expected(count)->type_name("");
    };
    CLI::App* set = add_verb(app, o, "set", "Put a tile on cells", "cells", [](const EditOptions& p) {
        return dg::PaintCells{p.layer, p.tile, all_cells(p.places)};
    });
    with_tile(set);
    with_places(set, "Cells, as in 3,4, or blocks, as in 3,4,2,2", -1);
    CLI::App* line =
        add_verb(app, o, "line", "Put a tile on a straight line of cells", "cells", [](const EditOptions& p) {
            return dg::PaintCells{p.layer, p.tile, dg::cells_of_line(cell_at(p.places[0]), cell_at(p.places[1]))};
        });
    with_tile(line);
    with_places(line, "From a cell to a cell: 3,4 9,4", 2);
    CLI::App* box = add_verb(app, o, "box", "Put a tile on a block of cells", "cells", [](const EditOptions& p) {
        return dg::PaintCells{p.layer, p.tile, dg::cells_of_box(cell_area(p.places[0]))};
    });
    with_tile(box);
    with_places(box, "column,row,columns,rows", 1);
    CLI::App* ring =
        add_verb(app, o, "ring", "Put a tile on the outermost cells of a block", "cells", [](const EditOptions& p) {
            return dg::PaintCells{p.layer, p.tile, dg::cells_of_ring(cell_area(p.places[0]))};
        });
    with_tile(ring);
    with_places(ring, "column,row,columns,rows", 1);
    CLI::App* fill = add_verb(app, o, "fill", "Put a tile on a cell and all like it that hang together with it",
                              "cells", [](const EditOptions& p) {
                                  return dg::FillCells{p.layer, p.tile, cell_at(p.places[0])};
                              });
    with_tile(fill);
    with_places(fill, "A cell: 3,4", 1);
    CLI::App* replace =
        add_verb(app, o, "replace", "Put a tile wherever another one stands", "cells", [](const EditOptions& p) {
            return dg::ReplaceTile{p.layer, p.from, p.tile,
                                   p.area.empty() ? std::nullopt : std::optional(cell_area(p.area))};
        });
    replace->add_option("OLD", o->from, "The tile that stands there; '' for none")->required()->type_name("");
    with_tile(replace);
    replace->add_option("--area", o->area, "Only in this block: column,row,columns,rows")->type_name("AREA");
    CLI::App* copy =
        add_verb(app, o, "copy", "Copy a block of cells to another place", "cells", [](const EditOptions& p) {
            return dg::CopyCells{p.layer, cell_area(p.places[0]), cell_at(p.places[1])};
        });
    with_places(copy, "The block, and the cell its top-left one goes to: 3,4,2,2 8,4", 2);
    CLI::App* erase = add_verb(app, o, "erase", "Take away what stands on cells", "cells", [](const EditOptions& p) {
        return dg::PaintCells{p.layer, "", all_cells(p.places)};
    });
    with_places(erase, "Cells, as in 3,4, or blocks, as in 3,4,2,2", -1);
}

CLI::Option* with_values(CLI::App* verb, const std::shared_ptr<EditOptions>& o) {
    return verb->add_option("KEY=VALUE", o->values, "Keys and properties; lists as iron,rope, numbers as 0,8,16,8")
        ->type_name("");
}

void add_object_verbs(CLI::App& app, const std::shared_ptr<EditOptions>& o) {
    CLI::App* object = app.add_subcommand("object", "Add, move, drop or change an object");
    object->require_subcommand(1);
    const auto with_name = [&](CLI::App* verb) {
        verb->add_option("NAME", o->name, "The object's name")->required()->type_name("");
    };
    const auto with_at = [&](CLI::App* verb) {
        verb->add_option("--at", o->at, "Where: x,y px")->type_name("X,Y");
        verb->add_option("--cell", o->cell, "Where: on a cell")->type_name("C,R");
    };
    CLI::App* add = add_verb(*object, o, "add", "Add an object", "objects", add_object);
    with_name(add);
    add->add_option("KIND", o->kind, "A kind of the world, or spawn, trigger, link, solid, entity")
        ->required()
        ->type_name("");
    with_at(add);
    add->add_option("--cells", o->cells, "Where: on a block of cells")->type_name("C,R,W,H");
    add->add_option("--to", o->to, "Where a link leads")->type_name("MAP/OBJECT");
    with_values(add, o);
    CLI::App* move = add_verb(*object, o, "move", "Move an object", "objects", move_object);
    with_name(move);
    with_at(move);
    move->add_option("--by", o->by, "How far: px")->type_name("X,Y");
    move->add_option("--by-cells", o->by_cells, "How far: cells")->type_name("C,R");
    with_name(add_verb(*object, o, "drop", "Take an object away", "objects",
                       [](const EditOptions& p) { return dg::DropObject{p.name}; }));
    CLI::App* give =
        add_verb(*object, o, "give", "Set keys and properties of an object", "keys", [](const EditOptions& p) {
            return dg::GiveObject{p.name, keys(p.values)};
        });
    with_name(give);
    with_values(give, o)->required();
    give->footer(
        "Examples: dryground edit demo/maps/slipway.map.toml --dry-run object give crab_a patrol_px=16\n"
        "          dryground edit demo/maps/slipway.map.toml --dry-run object give bell once=false box=320,96,48,32\n"
        "`dryground keys object` lists all keys.");
}

// Keys of whole things: the map, a layer, a kind, tiles.
void add_key_verbs(CLI::App& app, const std::shared_ptr<EditOptions>& o) {
    CLI::App* map = app.add_subcommand("map", "Change keys of the map");
    map->require_subcommand(1);
    CLI::App* set_map = add_verb(*map, o, "set", "Set keys and properties of the map", "keys",
                                 [](const EditOptions& p) { return dg::GiveMap{keys(p.values)}; });
    with_values(set_map, o)->required();
    set_map->footer("Example: dryground edit demo/maps/slipway.map.toml --dry-run map set rim=open");
    CLI::App* layer = app.add_subcommand("layer", "Change keys of a layer (--layer)");
    layer->require_subcommand(1);
    CLI::App* set_layer =
        add_verb(*layer, o, "set", "Set keys and properties of a layer", "keys", [](const EditOptions& p) {
            return dg::GiveLayer{p.layer, keys(p.values)};
        });
    with_values(set_layer, o)->required();
    set_layer->footer(
        "Example: dryground edit demo/maps/slipway.map.toml --layer ground --dry-run layer set opacity=0.5");
    CLI::App* kind = app.add_subcommand("kind", "Change keys of a kind");
    kind->require_subcommand(1);
    CLI::App* set_kind = kind->add_subcommand("set", "Set keys of a kind, and defaults of its properties");
    set_kind->add_option("NAME", o->name, "The kind")->required()->type_name("");
    with_values(set_kind, o)->required();
    set_kind->callback([o] { make_kind(*o); });
    set_kind->footer("Example: dryground edit demo/world.toml --dry-run kind set silt_crab stands=middle");
    CLI::App* tile = app.add_subcommand("tile", "Change keys of tiles");
    tile->require_subcommand(1);
    CLI::App* set_tile = tile->add_subcommand("set", "Set keys and properties of all tiles that match");
    set_tile->add_option("PATTERN", o->name, "A tile's name, or a pattern: * for any characters")
        ->required()
        ->type_name("");
    with_values(set_tile, o)->required();
    set_tile->add_option("--set", o->set, "The tile set, where the world has several")->type_name("NAME");
    set_tile->callback([o] { make_tiles(*o); });
    set_tile->footer(
        "Example: dryground edit demo/tiles/marsh.tiles.toml --dry-run tile set \'peat*\' barrier=earth "
        "tags=soil,soft");
}

void add_map_verbs(CLI::App& app, const std::shared_ptr<EditOptions>& o) {
    CLI::App* size = add_verb(app, o, "size", "Give the map another size", "sizes", [](const EditOptions& p) {
        const auto [columns, rows] = numbers<int, 2>(p.places[0], "size: say columns,rows, as in 40,13");
        return dg::ResizeMap{columns, rows, keep(p.keep)};
    });
    size->add_option("SIZE", o->places, "columns,rows")->required()->expected(1)->type_name("");
    size->add_option("--keep", o->keep, "The corner that stays: top_left, top_right, bottom_left, bottom_right")
        ->check(CLI::IsMember({"top_left", "top_right", "bottom_left", "bottom_right"}))
        ->type_name("CORNER");
    CLI::App* shift =
        add_verb(app, o, "shift", "Move all cells and objects of the map", "places", [](const EditOptions& p) {
            const dg::CellAt by = cell_at(p.places[0]);
            return dg::ShiftMap{by[0], by[1]};
        });
    shift->add_option("BY", o->places, "By so many cells: columns,rows")->required()->expected(1)->type_name("");
}

}   // namespace

void add_edit(CLI::App& app) {
    auto options = std::make_shared<EditOptions>();
    CLI::App* command = app.add_subcommand(
        "edit", "Change a map, tiles or kinds in their files: just the characters that have to change");
    options->world.add_to(*command);
    command->add_option("--layer", options->layer, "The layer, where the map has several")->type_name("NAME");
    command->add_flag("--dry-run", options->dry_run, "Show what would change, and write nothing");
    command->require_subcommand(1);
    command->fallthrough();
    add_cell_verbs(*command, options);
    add_object_verbs(*command, options);
    add_map_verbs(*command, options);
    add_key_verbs(*command, options);
    command->footer(
        "Examples: dryground edit demo/maps/slipway.map.toml --layer ground --dry-run box crate 3,4,2,2\n"
        "          dryground edit demo/maps/slipway.map.toml --dry-run object move crab_a --by 16,0");
}

}   // namespace app

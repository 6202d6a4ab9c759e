// The verbs that change what a world declares: barriers, flags, movers, facts, kinds …; its tile sets and their tiles.

#include <fmt/format.h>

#include "edit_internal.hpp"

namespace app {

namespace dg = dryground;

namespace {

struct ThingHelp {
    const char *thing, *what, *add, *set;
};
constexpr ThingHelp things[] = {
    {"barrier", "what can stop a mover", "rope note=\"ropes across a path\" colour=#b08d57", "earth colour=#705030"},
    {"flag", "what a tile can grant", "swim note=\"can be swum through\"", "walk note=\"can be crossed\""},
    {"storey", "floors above each other", "cellar base_px=-32 height_px=32", "loft height_px=48"},
    {"mover", "what moves", "gull body=\"{ circle = 4 }\" moves=free stopped_by=earth", "crab jump_px=8"},
    {"fact", "what play can make true", "tide_is_out note=\"the slipway lies dry\"", "pump_running note=\"it turns\""},
    {"event", "what the game's code can be asked to do", "open_the_sluice note=\"lets the water out\"",
     "ring_bell note=\"it rings\""},
    {"kind", "what an object can be", "whelk like=shell_small props.spines=\"{ type = 'whole', default = 3 }\"",
     "silt_crab stands=middle"},
};

std::string with_article(const std::string& thing) {   // "a flag", "an event"
    return (std::string_view("aeiou").find(thing[0]) == std::string_view::npos ? "a " : "an ") + thing;
}

void add_world_thing(CLI::App& app, const SharedOptions& o, const ThingHelp& help) {
    const std::string thing = help.thing;
    CLI::App* group =
        add_group(app, help.thing, fmt::format("Add, drop or change {}: {}", with_article(thing), help.what).c_str());
    const std::string name_help = fmt::format("The {}'s name", thing);
    const auto example = [&](const char* verb, const char* words) {
        return fmt::format(
            "Example: dryground edit demo/world.toml --dry-run {} {} {}\n`dryground keys {}` lists all keys.", thing,
            verb, words, thing == "flag" || thing == "fact" || thing == "event" ? "world" : thing);
    };
    CLI::App* add =
        add_verb(*group, o, "add", fmt::format("Add {}", with_article(thing)).c_str(),
                 [thing](const EditOptions& p, const dg::FoundWorld&) {
                     return Wanted{dg::AddThing{thing, p.name, keys(p.values)}, thing + "s", added_to, "the world"};
                 });
    with_name(add, o, name_help.c_str());
    with_values(add, o);
    add->footer(example("add", help.add));
    CLI::App* set = add_verb(*group, o, "set", fmt::format("Set keys of {}", with_article(thing)).c_str(),
                             [thing](const EditOptions& p, const dg::FoundWorld&) {
                                 return Wanted{dg::GiveThing{thing, p.name, keys(p.values)}, "keys", changed_in,
                                               fmt::format("{} '{}'", thing, p.name)};
                             });
    with_name(set, o, name_help.c_str());
    with_values(set, o)->required();
    set->footer(example("set", help.set));
    CLI::App* drop = add_verb(*group, o, "drop", fmt::format("Remove {}", with_article(thing)).c_str(),
                              [thing](const EditOptions& p, const dg::FoundWorld&) {
                                  return Wanted{dg::DropThing{thing, p.name}, thing + "s", removed_from, "the world"};
                              });
    with_name(drop, o, name_help.c_str());
    drop->footer(fmt::format("Example: dryground edit room/world.toml {} drop NAME", thing));
}

// Returns a shape as typed: cell, a shared shape's name, trace, or box=0,8,16,8; of points 0,16,16,0,16,16.
std::string shape_toml(const std::string& said, const std::string& more) {
    const std::size_t equals = said.find('=');
    const std::string form = said.substr(0, equals);
    if (equals == std::string::npos) {
        if (form == "trace") return fmt::format("{{ trace = {{}}{} }}", more);
        if (more.empty()) return fmt::format("\"{}\"", form);
        return form == "cell" ? fmt::format("{{ cell = true{} }}", more)
                              : fmt::format("{{ shared = \"{}\"{} }}", form, more);
    }
    const std::vector<double> numbers =
        numbers_in(said.substr(equals + 1),
                   fmt::format("a {}: give numbers in px, as in box=0,8,16,8 or polygon=0,16,16,0,16,16", form));
    if (form != "polygon" && form != "line")
        return fmt::format("{{ {} = [{}]{} }}", form, fmt::join(numbers, ", "), more);
    if (numbers.size() % 2 != 0) stop(misuse, fmt::format("'{}' has an x without its y", said));
    std::vector<std::string> points;
    for (std::size_t i = 0; i < numbers.size(); i += 2)
        points.push_back(fmt::format("[{}, {}]", numbers[i], numbers[i + 1]));
    return fmt::format("{{ {} = [{}]{} }}", form, fmt::join(points, ", "), more);
}

dg::GivenKeys shape_keys(const EditOptions& p) {
    std::string more;
    if (!p.trigger.empty()) more += fmt::format(", trigger = \"{}\"", p.trigger);
    if (!p.one_way.empty()) more += fmt::format(", one_way = \"{}\"", p.one_way);
    std::vector<std::string> shapes;
    for (const std::string& shape : p.values)
        if (shape != "none") shapes.push_back(shape_toml(shape, more));
    if (shapes.size() + 1 == p.values.size() && p.values.size() > 1) stop(misuse, "'none' stands alone");
    dg::GivenKeys given{{"shapes", fmt::format("[{}]", fmt::join(shapes, ", "))}};
    if (!p.barrier.empty()) given.emplace_back("barrier", p.barrier);
    return given;
}

// Adds a verb for the tiles of a set.
template <class Make>
CLI::App* add_tile_verb(CLI::App& tile, const SharedOptions& o, const char* name, const char* help, const char* counts,
                        const char* done, const char* which, Make make) {
    CLI::App* verb =
        add_verb(tile, o, name, help, [counts, done, make](const EditOptions& p, const dg::FoundWorld& found) {
            const std::string set = tileset_meant(p, found);
            return Wanted{make(set, p), counts, done, fmt::format("tile set '{}'", set)};
        });
    verb->add_option(
            which, o->name,
            std::string_view(which) == "NAME" ? "The tile's name" : "A tile's name, or a pattern: * for any characters")
        ->required()
        ->type_name("");
    verb->add_option("--set", o->set, "The tile set, where the world has several")->type_name("NAME");
    return verb;
}

void add_tile_verbs(CLI::App& app, const SharedOptions& o) {
    CLI::App* tile = add_group(app, "tile", "Add or drop tiles, change their keys, give them shapes");
    CLI::App* add = add_tile_verb(*tile, o, "add", "Add a tile", "tiles", added_to, "NAME",
                                  [](const std::string& set, const EditOptions& p) {
                                      return dg::WorldEdit(dg::AddTile{set, p.name, keys(p.values)});
                                  });
    with_values(add, o);
    add->footer("Example: dryground edit demo/tiles/marsh.tiles.toml --dry-run tile add peat_low like=peat art=0,1");
    CLI::App* set = add_tile_verb(*tile, o, "set", "Set keys and properties of all tiles that match", "keys",
                                  changed_in, "PATTERN", [](const std::string& set_name, const EditOptions& p) {
                                      return dg::WorldEdit(dg::GiveTiles{set_name, p.name, keys(p.values)});
                                  });
    with_values(set, o)->required();
    set->footer(
        "Example: dryground edit demo/tiles/marsh.tiles.toml --dry-run tile set 'peat*' barrier=earth tags=soil,soft");
    CLI::App* shape = add_tile_verb(*tile, o, "shape", "Give all tiles that match their shapes", "keys", changed_in,
                                    "PATTERN", [](const std::string& set_name, const EditOptions& p) {
                                        return dg::WorldEdit(dg::GiveTiles{set_name, p.name, shape_keys(p)});
                                    });
    shape
        ->add_option("SHAPE", o->values,
                     "cell, none, trace, a shared shape's name; box=X,Y,W,H circle=X,Y,R ellipse=X,Y,RX,RY "
                     "capsule=X,Y,X,Y,R; polygon and line with a place after another: line=0,8,16,8")
        ->required()
        ->type_name("");
    shape->add_option("--barrier", o->barrier, "The barrier that they are made of")->type_name("NAME");
    shape->add_option("--trigger", o->trigger, "They sense, under this name, and block nothing")->type_name("NAME");
    shape->add_option("--one-way", o->one_way, "The direction in which movers pass lines: up, down, left, right")
        ->check(one_of({"up", "down", "left", "right"}))
        ->type_name("SIDE");
    shape->footer(
        "Examples: dryground edit demo/tiles/marsh.tiles.toml --dry-run tile shape bank polygon=0,16,16,4,16,16 "
        "--barrier earth\n"
        "          dryground edit demo/tiles/marsh.tiles.toml --dry-run tile shape 'reeds*' none");
    CLI::App* drop = add_tile_verb(*tile, o, "drop", "Remove all matching tiles", "tiles", removed_from, "PATTERN",
                                   [](const std::string& set_name, const EditOptions& p) {
                                       return dg::WorldEdit(dg::DropTiles{set_name, p.name});
                                   });
    drop->footer("Example: dryground edit room/tiles/shore.tiles.toml tile drop reeds");
}

}   // namespace

void add_thing_verbs(CLI::App& app, const SharedOptions& o) {
    CLI::App* world = add_group(app, "world", "Change keys of the world");
    CLI::App* give = add_verb(*world, o, "set", "Set keys of the world, and of its tables",
                              [](const EditOptions& p, const dg::FoundWorld&) {
                                  return Wanted{dg::GiveWorld{keys(p.values)}, "keys", changed_in, "the world"};
                              });
    with_values(give, o)->required();
    give->footer(
        "Example: dryground edit demo/world.toml --dry-run world set player=warden_side check.leak=warning "
        "merging.within_px=0.5");
    for (const ThingHelp& help : things) add_world_thing(app, o, help);
    CLI::App* tileset = add_group(app, "tileset", "Add tile sets to the world's list, or remove them from it");
    CLI::App* add =
        add_verb(*tileset, o, "add", "Enter a tile set's file in the world's list (`dryground tiles` makes one)",
                 [](const EditOptions& p, const dg::FoundWorld&) {
                     return Wanted{dg::AddFile{p.name}, "tile sets", added_to, "the world"};
                 });
    add->add_option("PATH", o->name, "The tile set's file, from the world's folder")->required()->type_name("");
    add->footer("Example: dryground edit room/world.toml tileset add tiles/jetty.tiles.toml");
    CLI::App* drop = add_verb(*tileset, o, "drop", "Remove a tile set from the world's list; its file stays",
                              [](const EditOptions& p, const dg::FoundWorld&) {
                                  return Wanted{dg::DropTileSet{p.name}, "tile sets", removed_from, "the world"};
                              });
    with_name(drop, o, "The tile set's name");
    drop->footer("Example: dryground edit room/world.toml tileset drop jetty");
    add_tile_verbs(app, o);
}

}   // namespace app

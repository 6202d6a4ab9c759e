// dryground walk: where a mover can get to, step by step, and what is in the way.

#include <algorithm>
#include <memory>
#include <sstream>

#include "../command.hpp"
#include "dryground/text.hpp"

namespace app {

namespace dg = dryground;

namespace {

struct WalkOptions {
    WorldArguments world;
    std::string mover, from, to, format, out;
    std::vector<std::string> given;
    std::size_t states = 100000;
};

// A place as typed: MAP/OBJECT, or MAP@X,Y in px, on the first storey.
struct Named {
    dg::Spot spot;
    dg::ObjectId object = dg::ObjectId::none;   // none: a place
};
Named place_from(const dg::World& world, const std::string& words, const char* option) {
    const std::size_t mark = words.find_first_of("/@");
    if (mark == std::string::npos)
        stop(misuse, fmt::format("{}: '{}' is neither MAP/OBJECT nor MAP@X,Y", option, words));
    const dg::MapId map = find_named<dg::MapId>(world.maps(), words.substr(0, mark), option, "map");
    const std::string rest = words.substr(mark + 1);
    const dg::Map& of = world.map(map);
    Named named;
    named.spot.map = map;
    if (words[mark] == '/') {
        named.object = of.find_object(rest);
        if (named.object == dg::ObjectId::none) {
            std::vector<std::string> names;
            for (const dg::Object& object : of.objects)
                if (!object.name.empty()) names.push_back(object.name);
            const auto nearest = dg::nearest_name(rest, names);
            stop(misuse, fmt::format("{}: map '{}' has no object '{}'{}", option, of.name, rest,
                                     nearest ? fmt::format("; did you mean '{}'?", *nearest) : ""));
        }
        const dg::Object& object = of.object(named.object);
        named.spot.storey = object.storey;
        named.spot.at = {dg::to_px(object.position.x), dg::to_px(object.position.y)};
        return named;
    }
    double x = 0, y = 0;
    char comma = 0;
    std::istringstream numbers(rest);
    if (!(numbers >> x >> comma >> y) || comma != ',' || !(numbers >> std::ws).eof() || !dg::in_range(x) ||
        !dg::in_range(y))
        stop(misuse, fmt::format("{}: '{}' is not a place; write MAP@X,Y in px", option, words));
    named.spot.at = {x, y};
    return named;
}

std::string words_of(const dg::World& world, const dg::GoalReached& goal) {
    if (goal.object == dg::ObjectId::none) return world.fact(goal.fact).name;
    const dg::Map& map = world.map(goal.map);
    return map.name + "/" + map.object(goal.object).name;
}

// Adds which line of a route's text reaches a goal: lines, as `text` numbers them, begin with their number.
void tell_goals(const dg::World& world, const dg::Reach& reach, std::string& text) {
    for (const dg::GoalReached& goal : reach.goals()) {
        text += fmt::format("goal {}: ", words_of(world, goal));
        switch (goal.reached) {
            case dg::Reached::yes:
                text += "reached\n";
                continue;
            case dg::Reached::no:
                text += "out of reach";
                break;
            case dg::Reached::not_decided:
                text += "not decided";
                break;
        }
        const dg::InTheWay way = goal.object != dg::ObjectId::none ? reach.in_the_way(goal.map, goal.object)
                                                                   : reach.in_the_way_of_fact(goal.fact);
        text += fmt::format(": {}\n", dg::text(world, way));
    }
}

std::string name_of(const dg::World& world, const dg::Object& object) {
    return object.name.empty() ? fmt::format("a {}", world.kind(object.kind).name) : object.name;
}

// Returns objects that something sets off, or that can be picked up: whatever is there to be touched.
bool matters(const dg::Object& object) {
    return object.role != dg::Role::solid && object.role != dg::Role::spawn && !object.area.empty();
}

void tell_rest(const dg::World& world, const dg::Reach& reach, std::string& text) {
    for (const dg::MapId id : dg::ids<dg::MapId>(world.maps())) {
        const dg::Map& map = world.map(id);
        if (reach.map_reached(id) == dg::Reached::no) {
            text += fmt::format("out of reach: map {}\n", map.name);
            continue;
        }
        for (const dg::ObjectId o : dg::ids<dg::ObjectId>(map.objects)) {
            const dg::Object& object = map.object(o);
            if (!matters(object)) continue;
            const dg::Reached reached = reach.reached(id, o);
            if (reached == dg::Reached::yes) continue;
            text += fmt::format("{}: {}/{} at ({:.0f}, {:.0f}): {}\n",
                                reached == dg::Reached::no ? "out of reach" : "not decided", map.name,
                                name_of(world, object), dg::to_px(object.position.x), dg::to_px(object.position.y),
                                dg::text(world, reach.in_the_way(id, o)));
        }
    }
    const auto spots = [&](const char* what, const std::vector<dg::Spot>& all) {
        for (const dg::Spot& spot : all)
            text += fmt::format("{}: {} at ({:.0f}, {:.0f})\n", what, world.map(spot.map).name, spot.at.x, spot.at.y);
    };
    for (const dg::Map& map : world.maps())
        for (const dg::ObjectId o : dg::moved_by_code(world, map))
            text += fmt::format("moved by the game's code alone, and not looked at: {}/{} (its kind has no path)\n",
                                map.name, name_of(world, map.object(o)));
    spots("dead end", reach.dead_ends());
    spots("falls out of the map", reach.bottomless());
    std::size_t undecided = 0;
    for (const dg::TravelPlace& place : reach.places()) undecided += place.reached == dg::Reached::not_decided ? 1 : 0;
    if (undecided > 0) text += fmt::format("not decided: {} of {} places\n", undecided, reach.places().size());
}

// Reports what is wrong with the world's start, and what to write in its place.
std::string why_no_start(const dg::World& world) {
    const dg::Start& start = world.start();
    if (start.words.empty())
        return "the world has no start; add start = \"MAP/OBJECT\" to its file, or use --from MAP/OBJECT";
    if (start.object == dg::ObjectId::none)
        return fmt::format(
            "the world's start '{}' does not exist; correct it (`dryground check` names the nearest), or use "
            "--from MAP/OBJECT",
            start.words);
    return fmt::format(
        "the world's start '{}' has no room for the mover's body, or its map has no player; move it "
        "(`dryground check` reports where), or use --from MAP@X,Y",
        start.words);
}

void run_walk(const WalkOptions& options) {
    const Opened opened = options.world.open();
    const dg::World& world = opened.world;
    dg::ReachOptions asked;
    asked.states = options.states;
    if (!options.mover.empty())
        asked.mover = find_named<dg::MoverId>(world.movers(), options.mover, "--mover", "mover");
    if (!options.from.empty()) asked.from = place_from(world, options.from, "--from").spot;
    for (const std::string& fact : options.given)
        asked.given.push_back(find_named<dg::FactId>(world.facts(), fact, "--given", "fact"));
    std::sort(asked.given.begin(), asked.given.end());
    const dg::Reach reach = dg::reach(world, asked);
    if (!reach.begins())
        stop(misuse, options.from.empty()
                         ? why_no_start(world)
                         : fmt::format("--from {}: no mover can be there; give a place where its body is "
                                       "free of ground",
                                       options.from));
    std::optional<dg::Route> route;
    bool reached = true;
    std::string text;
    if (!options.to.empty()) {
        const Named to = place_from(world, options.to, "--to");
        route = to.object != dg::ObjectId::none ? reach.route_to(to.spot.map, to.object) : reach.route_to(to.spot);
        reached = route.has_value();
        if (route) {
            text = dg::text(world, *route);
        } else {
            const dg::Reached is =
                to.object != dg::ObjectId::none ? reach.reached(to.spot.map, to.object) : reach.reached(to.spot);
            text = fmt::format("{}: {}", options.to, is == dg::Reached::no ? "out of reach" : "not decided");
            if (to.object != dg::ObjectId::none)
                text += fmt::format(": {}", dg::text(world, reach.in_the_way(to.spot.map, to.object)));
            text += "\n";
        }
    } else {
        route = reach.tour();
        if (route) text = dg::text(world, *route);
        if (world.goals().empty())
            text += "the world has no goals; declare them in its file: goals = { objects = [\"MAP/OBJECT\"] }\n";
        tell_goals(world, reach, text);
        tell_rest(world, reach, text);
        reached = std::all_of(reach.goals().begin(), reach.goals().end(),
                              [](const dg::GoalReached& goal) { return goal.reached == dg::Reached::yes; });
    }
    write_result(options.out, options.format == "json" ? dg::walk_json(world, reach, route) + "\n" : dg::visible(text));
    if (!reached) throw Stop{findings};
}

}   // namespace

void add_walk(CLI::App& app) {
    auto options = std::make_shared<WalkOptions>();
    CLI::App* command = app.add_subcommand("walk", "Show where a mover can get to, how, and what is in the way");
    options->world.add_to(*command, false);
    command->add_option("--mover", options->mover, "This mover, in place of each map's player")->type_name("NAME");
    command->add_option("--from", options->from, "Where it begins, in place of the world's start")
        ->type_name("MAP/OBJECT|MAP@X,Y");
    command->add_option("--to", options->to, "Only the way there, in place of all goals")
        ->type_name("MAP/OBJECT|MAP@X,Y");
    command->add_option("--given", options->given, "Facts that hold from the beginning")->type_name("FACT");
    command->add_option("--states", options->states, "How many states of facts are looked at")->capture_default_str();
    add_format(*command, options->format, options->out, {"text", "json"}, "text or json");
    command->add_option("--out", options->out, "Write to a file")->type_name("FILE");
    command->footer(
        "Exit code 1 where a goal, or --to, is not reached.\nExample: dryground walk demo/world.toml --to "
        "pump_house/valve");
    command->callback([options] { run_walk(*options); });
}

}   // namespace app

// dryground edit: changes to a world, made in its files, and undone.

#include <fmt/format.h>

#include <algorithm>

#include "edit_internal.hpp"

namespace app {

namespace dg = dryground;
namespace fs = std::filesystem;

namespace {

// Returns the one thing that is meant if none is given.
template <class Drafts>
std::string only_one(const Drafts& drafts, const char* sort, const char* option) {
    std::vector<std::string> names;
    for (const auto& one : drafts) names.push_back(one.name.value);
    if (names.size() == 1) return names.front();
    stop(misuse, names.empty()
                     ? fmt::format("the world has no {}", sort)
                     : fmt::format("which {}? use {} NAME; the world has {}", sort, option, fmt::join(names, ", ")));
}

dg::WorldBuilder drafts_of(const dg::FoundWorld& found) {
    dg::Result<dg::WorldDrafts> drafts = dg::load_drafts(found.world, found.reader);
    if (drafts) return std::move(drafts->builder);
    say(dg::text(drafts.report()));
    stop(findings, "the world cannot be read; nothing was changed");
}

std::string as_typed(const std::string& value) {
    if (!value.empty() && value.find_first_of(" \"'{}[]$*\\") == std::string::npos) return value;
    return value.find('\'') == std::string::npos ? "'" + value + "'" : '"' + value + '"';
}

// Returns the command line as typed: the history names edits so.
std::string words_of(const CLI::App& verb) {
    std::string words = verb.get_name();
    for (const CLI::App* group = verb.get_parent(); group != nullptr && group->get_name() != "edit";
         group = group->get_parent())
        words.insert(0, group->get_name() + " ");
    const CLI::App* edit = verb.get_parent();
    while (edit->get_name() != "edit") edit = edit->get_parent();
    std::vector<const CLI::Option*> options{edit->get_option("--map"), edit->get_option("--layer")};
    for (const CLI::Option* option : verb.get_options()) options.push_back(option);
    for (const CLI::Option* option : options) {
        if (option->count() == 0) continue;
        if (!option->get_positional()) words += " " + option->get_name();
        if (option->get_expected_max() == 0) continue;   // a switch
        for (const std::string& value : option->results()) words += " " + as_typed(value);
    }
    return words;
}

void show_plan(const fs::path& folder, const dg::Edited& planned, const std::string& counted) {
    for (const dg::NamedBytes& file : planned.files) {
        const auto old = dg::read_file((folder / file.file).generic_string());
        const bool picture = fs::path(file.file).extension() == ".png";
        print(fmt::format("{}:\n{}", file.file,
                          picture ? "  pixels change\n" : dg::line_differences(old ? *old : "", file.bytes)));
    }
    for (const std::string& lost : planned.lost) say(fmt::format("over the edge: {}\n", lost));
    say(fmt::format("{}; nothing was written (--dry-run)\n", counted));
}

// Prints the reason if nothing could be done.
template <class T>
void stop_at_fault(const dg::Result<T>& result) {
    if (result) return;
    if (!result.report().empty()) say(dg::text(result.report()));
    stop(result.report().empty() ? misuse : findings, fmt::format("{}; nothing was changed", result.fault()));
}

void run(const EditOptions& options, const EditMaker& maker, const CLI::App& verb) {
    const dg::FoundWorld found = find_world(options);
    const Wanted wanted = maker(options, found);
    dg::WorkOptions how{dg::history_folder(), found.reader};
    how.checking = checking_of(options, found);
    how.accept = [&](const dg::Edited& planned) {
        std::error_code error;
        for (const dg::NamedBytes& file : planned.files)
            if (file.file == fs::path(found.world).filename().generic_string() && !fs::exists(found.world, error))
                stop(misuse, "there is no world that this could be written in; nothing was changed");
        if (!planned.lost.empty() && !options.cut)
            stop(misuse, fmt::format("over the edge would go {}; use --cut to allow that; nothing was changed",
                                     fmt::join(planned.lost, "; ")));
        return true;
    };
    dg::EditSession session(found.world, std::move(how));
    const auto did = [&](std::size_t n, const char* is) {
        return fmt::format("{}{} {} {}", counted(n, wanted.things), is, wanted.done, wanted.where);
    };
    if (options.dry_run) {
        const dg::Result<dg::Edited> planned = session.plan(wanted.edit);
        stop_at_fault(planned);
        return show_plan(fs::path(found.world).parent_path(), *planned, did(planned->changed, " would be"));
    }
    const dg::Result<dg::Made> made = session.make(wanted.edit, words_of(verb));
    say_made(options, found, made, did(made ? made->changed : 0, ""));
}

}   // namespace

dg::Cell cell_at(const std::string& text) {
    const std::vector<int> cell = wholes_in(text, 2, "a cell: give column,row, as in 3,4");
    return {cell[0], cell[1]};
}

dg::CellArea cell_area(const std::string& text) {
    const std::vector<int> area = wholes_in(text, 4, "a block of cells: give column,row,columns,rows, as in 3,4,2,2");
    if (area[2] < 1 || area[3] < 1) stop(misuse, fmt::format("'{}' covers no cell", text));
    if (std::int64_t{area[2]} * area[3] > std::int64_t{1} << 26)
        stop(misuse, fmt::format("'{}' covers too many cells", text));
    return {area[0], area[1], area[2], area[3]};
}

dg::PointPx point(const std::string& text) {
    const std::string what = "a place: give x,y in px, as in 24,48.5";
    const std::vector<double> numbers = numbers_in(text, what);
    if (numbers.size() != 2) stop(misuse, fmt::format("'{}' is not {}", text, what));
    return {numbers[0], numbers[1]};
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

dg::Checking checking_of(const EditOptions& options, const dg::FoundWorld& found) {
    constexpr std::size_t many = 20;   // maps: beyond them checking all takes longer than anybody wants to wait
    if (options.check == "none") return dg::Checking::none;
    if (options.check == "map" || (options.check.empty() && dg::count_maps(found) > many)) return dg::Checking::map;
    return dg::Checking::world;
}

std::string counted(std::size_t count, const std::string& things) {
    return fmt::format("{} {}", count, count == 1 ? things.substr(0, things.size() - 1) : things);
}

dg::FoundWorld find_world(const EditOptions& options) { return options.world.find_or_stop("nothing was changed"); }

std::string map_meant(const EditOptions& options, const dg::FoundWorld& found) {
    const auto& maps = options.world.maps;
    if (maps.size() > 1) stop(misuse, "one map at a time: use --map once");
    if (!maps.empty() && !found.map.empty() && maps.front() != found.map)
        stop(misuse, fmt::format("'{}' is map '{}', but --map is '{}'; nothing was changed", options.world.file,
                                 found.map, maps.front()));
    if (!maps.empty()) return maps.front();
    return found.map.empty() ? only_one(drafts_of(found).map_drafts(), "map", "--map") : found.map;
}

std::string tileset_meant(const EditOptions& options, const dg::FoundWorld& found) {
    if (!options.set.empty()) return options.set;
    return found.tileset.empty() ? only_one(drafts_of(found).tileset_drafts(), "tile set", "--set") : found.tileset;
}

void say_made(const EditOptions& options, const dg::FoundWorld& found, const dg::Result<dg::Made>& made,
              const std::string& counted) {
    stop_at_fault(made);
    for (const std::string& file : made->files) print(fmt::format("{}\n", file));
    say(counted + "\n");
    for (const std::string& line : made->told) say(line + "\n");
    if (!made->new_findings.empty()) say("new findings:\n" + dg::text(made->new_findings));
    if (const std::size_t fixed = made->fixed_findings.findings().size(); fixed > 0)
        say(fmt::format("{} fixed\n", app::counted(fixed, "findings")));
    if (options.check.empty() && checking_of(options, found) == dg::Checking::map)
        say(made->checked ? "checked this map by itself; --check all checks the whole world\n"
                          : "not checked; --check all checks the whole world\n");
}

CLI::App* add_verb(CLI::App& app, const SharedOptions& options, const char* name, const char* help, EditMaker edit) {
    CLI::App* verb = app.add_subcommand(name, help);
    verb->callback([options, verb, edit = std::move(edit)] { run(*options, edit, *verb); });
    return verb;
}

CLI::App* add_map_verb(CLI::App& app, const SharedOptions& options, const char* name, const char* help,
                       const char* things, MapEditMaker edit, const char* done) {
    return add_verb(app, options, name, help,
                    [things, done, edit = std::move(edit)](const EditOptions& o, const dg::FoundWorld& found) {
                        const std::string map = map_meant(o, found);
                        return Wanted{dg::EditMap{map, edit(o)}, things, done, map};
                    });
}

CLI::App* add_group(CLI::App& app, const char* name, const char* help) {
    CLI::App* group = app.add_subcommand(name, help);
    group->require_subcommand(1);
    return group;
}

CLI::Option* with_values(CLI::App* verb, const SharedOptions& options) {
    return verb
        ->add_option("KEY=VALUE", options->values, "Keys and properties; lists as iron,rope, numbers as 0,8,16,8")
        ->type_name("");
}

void with_name(CLI::App* verb, const SharedOptions& options, const char* help) {
    verb->add_option("NAME", options->name, help)->required()->type_name("");
}

void add_edit(CLI::App& app) {
    auto options = std::make_shared<EditOptions>();
    CLI::App* command =
        app.add_subcommand("edit", "Change a world in its files; nothing but what has to change is touched");
    options->world.add_to(*command);
    command->add_option("--layer", options->layer, "The layer, where the map has several")->type_name("NAME");
    command->add_flag("--dry-run", options->dry_run, "Show what would change, and write nothing");
    command
        ->add_option("--check", options->check,
                     "What is checked before and after: all of the world (default, up to 20 maps), the map that "
                     "changes by itself (default, of larger worlds), or none")
        ->check(one_of({"all", "map", "none"}))
        ->type_name("WHAT");
    command->require_subcommand(1);
    command->fallthrough();
    add_cell_verbs(*command, options);
    add_object_verbs(*command, options);
    add_map_verbs(*command, options);
    add_thing_verbs(*command, options);
    add_history_verbs(*command, options);
    command->footer(
        "Examples: dryground edit demo/maps/slipway.map.toml --layer ground --dry-run box crate 3,4,2,2\n"
        "          dryground edit demo/maps/slipway.map.toml --dry-run object move crab_a --by-cells 1,0\n"
        "          dryground edit demo/world.toml --dry-run fact add tide_is_out note=\"the slipway lies dry\"");
}

}   // namespace app

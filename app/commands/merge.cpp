// dryground merge: geometry for a game.

#include <fmt/format.h>

#include <memory>

#include "../command.hpp"

namespace app {

namespace dg = dryground;

namespace {

struct Options {
    WorldArguments world;
    std::vector<std::string> forms;
    std::string unit = "px", y = "down", out;
    int most_vertices = 0;
};

void run(const Options& options) {
    const Opened opened = options.world.open();
    dg::MergeOutput output;
    output.unit = options.unit == "m" ? dg::Unit::m : dg::Unit::px;
    output.y = options.y == "up" ? dg::YAxis::up : dg::YAxis::down;
    const std::vector<std::string>& forms = options.forms.empty() ? opened.world.merging().forms : options.forms;
    const auto asked = [&](const char* form) { return std::find(forms.begin(), forms.end(), form) != forms.end(); };
    output.regions = asked("regions");
    output.chains = asked("chains");
    output.pieces = asked("pieces");
    std::vector<dg::Merge> merges;
    for (const std::string& map : opened.maps)
        merges.push_back(dg::merge(opened.world, opened.world.map(map),
                                   {.most_vertices = options.most_vertices, .pieces = output.pieces}));
    write_result(options.out, dg::merge_json(opened.world, merges, output));
    if (options.most_vertices > 0 && options.most_vertices != opened.world.merging().most_vertices)
        say(fmt::format("pieces of at most {} vertices for this run; the world says {}\n", options.most_vertices,
                        opened.world.merging().most_vertices));
    say_figures(opened.world, merges);
}

}   // namespace

void add_merge(CLI::App& app) {
    auto options = std::make_shared<Options>();
    CLI::App* command = app.add_subcommand("merge", "Merge the shapes of maps to physics geometry, as JSON");
    options->world.add_to(*command);
    command->add_option("--as", options->forms, "Forms to write: regions, chains, pieces (default: as the world says)")
        ->check(CLI::IsMember({"regions", "chains", "pieces"}))
        ->type_name("FORM");
    command->add_option("--unit", options->unit, "px or m (default: px)")
        ->check(CLI::IsMember({"px", "m"}))
        ->type_name("UNIT");
    command->add_option("--y", options->y, "Which way y points: down or up (default: down)")
        ->check(CLI::IsMember({"down", "up"}))
        ->type_name("WAY");
    command
        ->add_option("--most-vertices", options->most_vertices,
                     "The most vertices of a convex piece (default: as the world says)")
        ->check(CLI::Range(3, 1000))
        ->type_name("N");
    command->add_option("--out", options->out, "Write to a file")->type_name("FILE");
    command->footer("Example: dryground merge demo/world.toml --as chains --unit m --y up --out station.json");
    command->callback([options] { run(*options); });
}

}   // namespace app

// dryground merge: geometry for a game.

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <memory>

#include "../command.hpp"

namespace app {

namespace dg = dryground;

namespace {

struct Options {
    WorldArguments world;
    std::vector<std::string> forms, facts;
    std::string format = "json", unit = "px", y = "down", out, mover, corners = "round", plane = "screen";
    int most_vertices = 0, chunk_cells = 0;
    double grow_px = 0;
};

dg::MergeOutput output_of(const Options& options, const dg::World& world) {
    dg::MergeOutput output;
    output.unit = options.unit == "m" ? dg::Unit::m : dg::Unit::px;
    output.y = options.y == "up" ? dg::YAxis::up : dg::YAxis::down;
    output.format = options.format == "cbor"      ? dg::MergeFormat::cbor
                    : options.format == "geojson" ? dg::MergeFormat::geojson
                    : options.format == "wkt"     ? dg::MergeFormat::wkt
                                                  : dg::MergeFormat::json;
    const std::vector<std::string>& forms = options.forms.empty() ? world.merging().forms : options.forms;
    dg::ask_for(output, forms);
    return output;
}

// The id of a mover or fact by its name; ends the command when there is none.
template <class Things>
int find_named(const Things& things, const std::string& name, const char* option, const char* sort) {
    std::vector<std::string> names;
    for (const auto& thing : things) {
        if (thing.name == name) return static_cast<int>(names.size());
        names.push_back(thing.name);
    }
    const auto nearest = dg::nearest_name(name, names);
    stop(misuse, fmt::format("{}: the world has no {} '{}'{}; it has: {}", option, sort, name,
                             nearest ? fmt::format("; did you mean '{}'?", *nearest) : "", fmt::join(names, ", ")));
}

dg::MergeOptions merge_options(const Options& options, const dg::MergeOutput& output, const dg::World& world) {
    dg::MergeOptions merging = dg::options_for(output);
    merging.most_vertices = options.most_vertices;
    if (!options.mover.empty()) merging.mover = find_named(world.movers(), options.mover, "--mover", "mover");
    for (const std::string& fact : options.facts)
        merging.facts.push_back(find_named(world.facts(), fact, "--facts", "fact"));
    std::sort(merging.facts.begin(), merging.facts.end());
    merging.plane = options.plane == "ground" ? dg::Plane::ground : dg::Plane::screen;
    merging.grow = dg::to_steps(options.grow_px);
    merging.corners = options.corners == "bevel"   ? dg::Corners::bevel
                      : options.corners == "mitre" ? dg::Corners::mitre
                      : options.corners == "box"   ? dg::Corners::box
                                                   : dg::Corners::round;
    return merging;
}

void run(const Options& options) {
    const Opened opened = options.world.open();
    const dg::MergeOutput output = output_of(options, opened.world);
    const dg::MergeOptions merging = merge_options(options, output, opened.world);
    if (options.chunk_cells > 0) {
        if (merging.grow != 0)
            stop(misuse, "--chunk-cells: what grows would reach into other chunks; leave out --grow, or --chunk-cells");
        std::vector<dg::ChunkedMerge> chunked;
        for (const std::string& map : opened.maps)
            chunked.push_back(dg::merge_chunks(opened.world, opened.world.map(map), options.chunk_cells, merging));
        write_result(options.out, dg::merge_bytes(opened.world, chunked, output));
        std::vector<dg::Merge> figures;   // all chunks of a map together
        for (dg::ChunkedMerge& one : chunked) {
            say(fmt::format("{}: {} chunks of {} x {} cells\n", one.map, one.chunks.size(), one.chunk_cells,
                            one.chunk_cells));
            dg::Merge& figure = figures.emplace_back();
            figure.map = one.map;
            figure.stats = one.stats;
            for (dg::Chunk& chunk : one.chunks)
                for (dg::Group& group : chunk.groups) figure.groups.push_back(std::move(group));
        }
        say_figures(opened.world, figures);
        return;
    }
    std::vector<dg::Merge> merges;
    for (const std::string& map : opened.maps)
        merges.push_back(dg::merge(opened.world, opened.world.map(map), merging));
    write_result(options.out, dg::merge_bytes(opened.world, merges, output));
    if (options.most_vertices > 0 && options.most_vertices != opened.world.merging().most_vertices)
        say(fmt::format("pieces of at most {} vertices for this run; the world says {}\n", options.most_vertices,
                        opened.world.merging().most_vertices));
    if (merging.grow != 0)
        say(fmt::format("{} by {} px, corners {}\n", merging.grow > 0 ? "grown" : "shrunk", std::abs(options.grow_px),
                        options.corners));
    if (!options.facts.empty()) say(fmt::format("with {}\n", fmt::join(options.facts, ", ")));
    if (merging.plane == dg::Plane::ground) say("ground plane: numbers are cells, whatever the unit\n");
    say_figures(opened.world, merges);
}

}   // namespace

void add_merge(CLI::App& app) {
    auto options = std::make_shared<Options>();
    CLI::App* command = app.add_subcommand("merge", "Merge the shapes of maps to physics geometry");
    options->world.add_to(*command);
    const auto forms = dg::form_names();
    command
        ->add_option("--as", options->forms,
                     fmt::format("Forms to write: {} (default: as the world says)", fmt::join(forms, ", ")))
        ->check(CLI::IsMember(std::vector<std::string>(forms.begin(), forms.end())))
        ->type_name("FORM");
    command
        ->add_option("--format", options->format,
                     "json, cbor, geojson, or wkt: CSV with a column of WKT (default: json)")
        ->check(CLI::IsMember({"json", "cbor", "geojson", "wkt"}))
        ->type_name("FORMAT");
    command->add_option("--facts", options->facts, "Facts that are true: layers and objects come and go with them")
        ->type_name("NAME");
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
    command->add_option("--chunk-cells", options->chunk_cells, "Merge in square chunks of so many cells a side")
        ->check(CLI::Range(1, 65536))
        ->type_name("N");
    command
        ->add_option("--plane", options->plane,
                     "screen, or ground: laid flat, each cell a unit square (default: screen)")
        ->check(CLI::IsMember({"screen", "ground"}))
        ->type_name("PLANE");
    command->add_option("--mover", options->mover, "Merge all that stops this mover, in place of barriers")
        ->type_name("NAME");
    command->add_option("--grow", options->grow_px, "Grow regions by so many px, or shrink them by a negative number")
        ->check(CLI::Range(-4096.0, 4096.0))
        ->type_name("PX");
    command
        ->add_option("--corners", options->corners,
                     "Corners of what is grown: round, bevel, mitre, box (default: round)")
        ->check(CLI::IsMember({"round", "bevel", "mitre", "box"}))
        ->type_name("SORT");
    command->add_option("--out", options->out, "Write to a file")->type_name("FILE");
    command->footer("Example: dryground merge demo/world.toml --as chains --unit m --y up --out station.json");
    command->callback([options] { run(*options); });
}

}   // namespace app

// dryground merge: geometry for a game.

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <memory>

#include "../command.hpp"
#include "../merge_words.hpp"

namespace app {

namespace dg = dryground;

namespace {

struct MergeOptions {
    WorldArguments world;
    MergeWords merging;
    std::vector<std::string> forms;
    std::string format = "json", unit = "px", y = "down", out, plane = "screen";
    std::string storey;
    int chunk_cells = 0;
};

dg::MergeOutput output_of(const MergeOptions& options, const dg::World& world) {
    dg::MergeOutput output;
    output.unit = options.unit == "m" ? dg::Unit::m : dg::Unit::px;
    output.y = options.y == "up" ? dg::YAxis::up : dg::YAxis::down;
    output.format = options.format == "cbor"      ? dg::MergeFormat::cbor
                    : options.format == "geojson" ? dg::MergeFormat::geojson
                    : options.format == "wkt"     ? dg::MergeFormat::wkt
                    : options.format == "svg"     ? dg::MergeFormat::svg
                                                  : dg::MergeFormat::json;
    const std::vector<std::string>& forms = options.forms.empty() ? world.merging().forms : options.forms;
    dg::ask_for(output, forms);
    return output;
}

dg::MergeOptions merge_options(const MergeOptions& options, const dg::MergeOutput& output, const dg::World& world) {
    dg::MergeOptions merging = dg::options_for(output);
    options.merging.apply(merging, world);
    merging.plane = options.plane == "ground" ? dg::Plane::ground : dg::Plane::screen;
    return merging;
}

// --as cells: a grid of numbers or colours.
void run_cells(const MergeOptions& options, const Opened& opened) {
    if (options.forms.size() > 1) stop(misuse, "--as cells stands alone: it is a grid, the others are geometry");
    if (options.format != "csv" && options.format != "png")
        stop(misuse, "--as cells: say --format csv or --format png");
    if (opened.maps.size() != 1)
        stop(misuse,
             fmt::format("--as cells writes one map: say --map NAME; the world has {}", fmt::join(opened.maps, ", ")));
    const dg::World& world = opened.world;
    const int storey = options.storey.empty() ? 0 : find_named(world.storeys(), options.storey, "--storey", "storey");
    const dg::CellGround ground =
        dg::cell_ground(world, world.map(opened.maps[0]), merge_options(options, {}, world), storey);
    write_result(options.out, options.format == "csv" ? dg::csv_of(ground) : dg::png_of(ground, world));
    std::string bits;
    for (std::size_t b = 0; b < world.barriers().size() && options.merging.mover.empty(); ++b)
        bits += fmt::format("{}{} {}", bits.empty() ? "" : ", ", std::uint64_t{1} << b, world.barriers()[b].name);
    say(fmt::format("{}: {} x {} cells; numbers are {}\n", opened.maps[0], ground.columns, ground.rows,
                    bits.empty() ? "1 where the mover is stopped" : "sums of " + bits));
}

void run_merge(const MergeOptions& options) {
    const Opened opened = options.world.open(options.merging.within_px);
    const bool cells = std::find(options.forms.begin(), options.forms.end(), "cells") != options.forms.end();
    if (cells) {
        run_cells(options, opened);
        return;
    }
    if (options.format == "csv" || options.format == "png")
        stop(misuse, fmt::format("--format {} is for --as cells", options.format));
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
    options.merging.say_what_is_other(opened.world);
    if (merging.plane == dg::Plane::ground) say("ground plane: numbers are cells, whatever the unit\n");
    say_figures(opened.world, merges);
}

}   // namespace

void add_merge(CLI::App& app) {
    auto options = std::make_shared<MergeOptions>();
    CLI::App* command = app.add_subcommand("merge", "Merge the shapes of maps to physics geometry");
    options->world.add_to(*command);
    std::vector<std::string> forms(dg::form_names().begin(), dg::form_names().end());
    forms.emplace_back("cells");
    command
        ->add_option("--as", options->forms,
                     fmt::format("Forms to write: {} (default: as the world says)", fmt::join(forms, ", ")))
        ->check(CLI::IsMember(forms))
        ->type_name("FORM");
    command
        ->add_option("--format", options->format,
                     "json, cbor, geojson, svg, or wkt: CSV with a column of WKT (default: json); csv or png of cells")
        ->check(CLI::IsMember({"json", "cbor", "geojson", "svg", "wkt", "csv", "png"}))
        ->type_name("FORMAT");
    command->add_option("--unit", options->unit, "px or m (default: px)")
        ->check(CLI::IsMember({"px", "m"}))
        ->type_name("UNIT");
    command->add_option("--y", options->y, "Which way y points: down or up (default: down)")
        ->check(CLI::IsMember({"down", "up"}))
        ->type_name("WAY");
    command->add_option("--storey", options->storey, "The storey of --as cells (default: ground)")->type_name("NAME");
    command->add_option("--chunk-cells", options->chunk_cells, "Merge in square chunks of so many cells a side")
        ->check(CLI::Range(1, 65536))
        ->type_name("N");
    command
        ->add_option("--plane", options->plane,
                     "screen, or ground: laid flat, each cell a unit square (default: screen)")
        ->check(CLI::IsMember({"screen", "ground"}))
        ->type_name("PLANE");
    options->merging.add_to(*command);
    command->add_option("--out", options->out, "Write to a file")->type_name("FILE");
    command->footer("Example: dryground merge demo/world.toml --as chains --unit m --y up --out station.json");
    command->callback([options] { run_merge(*options); });
}

}   // namespace app

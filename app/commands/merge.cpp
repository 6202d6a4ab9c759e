// dryground merge: geometry for a game.

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <memory>

#include "../command.hpp"
#include "../merge_words.hpp"
#include "dryground/text.hpp"

namespace app {

namespace dg = dryground;

namespace {

struct MergeOptions {
    WorldArguments world;
    MergeWords merging;
    std::vector<std::string> forms;
    std::string format, unit = "px", y = "down", out, plane = "screen";
    std::string storey;
    std::vector<std::string> layers;
    bool numbers = false;
    int chunk_cells = 0;
    double height_px = 0;
    bool triggers = false, inward = false;
    CLI::Option *says_unit = nullptr, *says_y = nullptr;
};

dg::MergeOutput output_of(const MergeOptions& options, const dg::World& world) {
    dg::MergeOutput output;
    output.unit = options.unit == "m" ? dg::Unit::m : dg::Unit::px;
    output.y = options.y == "up" ? dg::YAxis::up : dg::YAxis::down;
    output.format = options.format == "cbor"      ? dg::MergeFormat::cbor
                    : options.format == "geojson" ? dg::MergeFormat::geojson
                    : options.format == "wkt"     ? dg::MergeFormat::wkt
                    : options.format == "svg"     ? dg::MergeFormat::svg
                    : options.format == "gltf"    ? dg::MergeFormat::gltf
                                                  : dg::MergeFormat::json;
    output.forms = options.forms.empty() ? world.merging().forms : dg::forms_named(options.forms);
    if (options.height_px > 0) output.height_px = options.height_px;
    output.inward = options.inward;
    return output;
}

dg::MergeOptions merge_options(const MergeOptions& options, const dg::MergeOutput& output, const dg::World& world) {
    dg::MergeOptions merging;
    merging.forms = output.forms;
    options.merging.apply(merging, world);
    merging.plane = options.plane == "ground" ? dg::Plane::ground : dg::Plane::screen;
    merging.triggers = options.triggers;
    return merging;
}

// Refuses options that exclude each other.
void refuse_what_contradicts(const MergeOptions& options, const Opened& opened) {
    const bool raised = options.format == "gltf";
    if (options.format == "csv" || options.format == "png")
        stop(misuse, fmt::format("{} is for cells and tiles: use --as cells or --as tiles, or another --format{}",
                                 options.format, options.format == "csv" ? ", wkt for example" : ""));
    if (!raised && options.height_px > 0) stop(misuse, "--height is for --format gltf");
    if (!raised && options.inward) stop(misuse, "--inward is for --format gltf");
    if (options.chunk_cells > 0 && options.triggers)
        stop(misuse, "--chunk-cells: objects' areas are not cut into chunks; leave out --triggers, or --chunk-cells");
    if (raised && options.chunk_cells > 0) stop(misuse, "--format gltf raises whole maps; leave out --chunk-cells");
    if (raised &&
        ((options.says_unit->count() > 0 && options.unit != "m") || (options.says_y->count() > 0 && options.y != "up")))
        stop(misuse, "--format gltf is in metres with y up; leave out --unit and --y");
    if (raised && (options.forms.size() > 1 || (options.forms.size() == 1 && options.forms[0] != "regions")))
        stop(misuse, "--format gltf holds raised regions; leave out --as");
    if (raised && !(options.height_px > 0))
        for (const dg::Storey& storey : opened.world.storeys())
            if (!(storey.height_px > 0))
                stop(misuse, fmt::format("storey '{}' has height_px = {}: nothing can be raised; use --height PX",
                                         storey.name, storey.height_px));
    if (options.plane != "ground" || raised || options.unit != "m") return;
    for (const std::string& map : opened.maps)
        if (opened.world.map(map).grid == dg::GridSort::isometric)
            stop(misuse, fmt::format("--plane ground: the isometric map '{}' is measured in cells, not in metres; "
                                     "leave out --unit m",
                                     map));
}

// Returns the name of one of several files, with its content in it: station.csv becomes station-slipway-ground.csv.
std::string path_for(const std::string& out, const std::string& part) {
    std::filesystem::path path = out;
    path.replace_filename(fmt::format("{}-{}{}", path.stem().string(), part, path.extension().string()));
    return path.string();
}

// --as tiles: the names or numbers of a layer's tiles, a file for each layer.
void run_tiles(const MergeOptions& options, const Opened& opened) {
    if (options.forms.size() > 1) stop(misuse, "--as tiles stands alone: it is a grid, the others are geometry");
    if (options.format != "csv") stop(misuse, "--as tiles: use --format csv");
    std::vector<std::pair<const dg::Map*, const dg::Layer*>> layers;
    std::vector<std::string> names;
    for (const std::string& name : opened.maps)
        for (const dg::Layer& layer : opened.world.map(name).layers) {
            if (layer.holds_objects) continue;
            names.push_back(layer.name);
            if (options.layers.empty() ||
                std::find(options.layers.begin(), options.layers.end(), layer.name) != options.layers.end())
                layers.emplace_back(&opened.world.map(name), &layer);
        }
    for (const std::string& layer : options.layers)
        if (std::find(names.begin(), names.end(), layer) == names.end())
            stop(misuse,
                 fmt::format("--layer: no layer of cells is named '{}'; there are {}", layer, fmt::join(names, ", ")));
    if (layers.empty()) stop(misuse, "--as tiles: there is no layer of cells");
    if (options.out.empty() && (layers.size() > 1 || options.numbers))
        stop(misuse,
             fmt::format("--as tiles writes a file for each layer{}: use --out FILE, or --map NAME --layer NAME",
                         options.numbers ? ", and a table of numbers for each map" : ""));
    const dg::TileCells as = options.numbers ? dg::TileCells::numbers : dg::TileCells::names;
    const dg::Map* last = nullptr;
    for (const auto& [map, layer] : layers) {
        const std::string out = layers.size() > 1 ? path_for(options.out, map->name + "-" + layer->name) : options.out;
        write_result(out, dg::csv_of_tiles(opened.world, *map, *layer, as));
        say(fmt::format("{}, layer {}: {} x {} cells{}\n", map->name, layer->name, map->columns, map->rows,
                        out.empty() ? "" : " in " + out));
        if (!options.numbers || map == last) continue;
        last = map;
        const std::string table =
            path_for(options.out, opened.maps.size() > 1 ? map->name + "-numbers" : std::string("numbers"));
        write_result(table, dg::csv_of_tile_numbers(opened.world, *map));
        say(fmt::format("{}: what the numbers mean is in {}\n", map->name, table));
    }
}

// --as cells: a grid of numbers or colours.
void run_cells(const MergeOptions& options, const Opened& opened) {
    if (options.forms.size() > 1) stop(misuse, "--as cells stands alone: it is a grid, the others are geometry");
    if (options.format != "csv" && options.format != "png")
        stop(misuse, "--as cells: use --format csv or --format png");
    if (opened.maps.size() != 1)
        stop(misuse,
             fmt::format("--as cells writes one map: use --map NAME; the world has {}", fmt::join(opened.maps, ", ")));
    const dg::World& world = opened.world;
    const dg::StoreyId storey = options.storey.empty()
                                    ? dg::StoreyId::ground
                                    : find_named<dg::StoreyId>(world.storeys(), options.storey, "--storey", "storey");
    const dg::CellGround ground =
        dg::cell_ground(world, world.map(opened.maps[0]), merge_options(options, {}, world), storey);
    write_result(options.out, options.format == "csv" ? dg::csv_of(ground) : dg::png_of(ground, world));
    std::string bits;
    for (std::size_t b = 0; b < world.barriers().size() && options.merging.mover.empty(); ++b)
        bits += fmt::format("{}{} {}", bits.empty() ? "" : ", ", std::uint64_t{1} << b, world.barriers()[b].name);
    say(fmt::format("{}: {} x {} cells; numbers are {}\n", opened.maps[0], ground.columns, ground.rows,
                    bits.empty() ? "1 where the mover is stopped" : "sums of " + bits));
}

void say_what_is_raised(const dg::World& world, const std::vector<dg::Merge>& merges, const dg::MergeOutput& output) {
    std::size_t lines = 0;
    for (const dg::Merge& merge : merges) {
        std::size_t raised = 0;
        for (const dg::Group& group : merge.groups) {
            raised += group.regions.size();
            lines += group.lines.size();
        }
        say(fmt::format("{}: {} raised, {}{}\n", merge.map, dg::counted(raised, "region"),
                        merge.plane == dg::Plane::ground ? "flat: y is up, z runs down the map"
                                                         : "upright: y is up, z is toward the viewer",
                        output.inward ? "; faces look inward" : ""));
    }
    for (const dg::Storey& storey : world.storeys()) {
        const dg::Heights heights = dg::heights_of(world, world.find_storey(storey.name), output.height_px);
        say(fmt::format("storey {}: from {} m to {} m\n", storey.name, heights.base, heights.base + heights.height));
    }
    if (lines > 0) say(fmt::format("{} left out: lines have no area\n", dg::counted(lines, "line")));
}

void run_merge(const MergeOptions& options) {
    const Opened opened = options.world.open(options.merging.within_px);
    const auto asks_for = [&](const char* form) {
        return std::find(options.forms.begin(), options.forms.end(), form) != options.forms.end();
    };
    if (asks_for("cells")) return run_cells(options, opened);
    if (asks_for("tiles")) return run_tiles(options, opened);
    if (options.numbers) stop(misuse, "--numbers is for --as tiles");
    if (!options.layers.empty()) stop(misuse, "--layer is for --as tiles");
    refuse_what_contradicts(options, opened);
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
    if (output.format == dg::MergeFormat::gltf) say_what_is_raised(opened.world, merges, output);
    if (merging.plane == dg::Plane::ground && output.unit == dg::Unit::px && output.format != dg::MergeFormat::gltf)
        say("ground plane: numbers are cells\n");
    say_figures(opened.world, merges);
}

}   // namespace

void add_merge(CLI::App& app) {
    auto options = std::make_shared<MergeOptions>();
    CLI::App* command = app.add_subcommand("merge", "Merge the shapes of maps to physics geometry");
    options->world.add_to(*command);
    std::vector<std::string> forms(dg::form_names().begin(), dg::form_names().end());
    forms.emplace_back("cells");
    forms.emplace_back("tiles");
    command
        ->add_option("--as", options->forms,
                     fmt::format("Forms to write: {} (default: the world's setting)", fmt::join(forms, ", ")))
        ->check(one_of(forms))
        ->type_name("FORM");
    add_format(*command, options->format, options->out, {"json", "cbor", "geojson", "svg", "wkt", "gltf", "csv", "png"},
               "json, cbor, geojson, svg; wkt: CSV with a column of WKT; gltf: regions raised to closed meshes; csv or "
               "png of cells; csv of tiles");
    options->says_unit = command->add_option("--unit", options->unit, "px or m (default: px)")
                             ->check(one_of({"px", "m"}))
                             ->type_name("UNIT");
    options->says_y = command->add_option("--y", options->y, "Which way y points: down or up (default: down)")
                          ->check(one_of({"down", "up"}))
                          ->type_name("WAY");
    command->add_option("--layer", options->layers, "The layers of --as tiles (default: all)")->type_name("NAME");
    command->add_flag("--numbers", options->numbers, "tiles: numbers, and a table of what they mean");
    command->add_option("--storey", options->storey, "The storey of --as cells (default: ground)")->type_name("NAME");
    command->add_option("--chunk-cells", options->chunk_cells, "Merge in square chunks of so many cells a side")
        ->check(CLI::Range(1, 65536))
        ->type_name("N");
    command
        ->add_option("--plane", options->plane,
                     "screen, or ground: laid flat, in cells; of square grids also --unit m (default: screen)")
        ->check(one_of({"screen", "ground"}))
        ->type_name("PLANE");
    command->add_flag("--triggers", options->triggers, "Also the areas of triggers and links, a group for each name");
    command->add_option("--height", options->height_px, "gltf: how high, px (default: the storey's height_px)")
        ->check(numbers_from(1.0 / 64, 1e6))
        ->type_name("PX");
    command->add_flag("--inward", options->inward, "gltf: faces look into the solid");
    options->merging.add_to(*command);
    command->add_option("--out", options->out, "Write to a file")->type_name("FILE");
    command->footer("Example: dryground merge demo/world.toml --as chains --unit m --y up --out station.json");
    command->callback([options] { run_merge(*options); });
}

}   // namespace app

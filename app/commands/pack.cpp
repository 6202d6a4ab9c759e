// dryground pack: everything that a game loads, in one file.

#include <fmt/format.h>

#include <algorithm>
#include <map>
#include <memory>

#include "../command.hpp"
#include "../progress.hpp"
#include "dryground/text.hpp"

namespace app {

namespace dg = dryground;
namespace fs = std::filesystem;

namespace {

struct PackOptions {
    WorldArguments world;
    std::string format, unit = "px", y = "down", plane = "screen", out, art, depfile, map;
    std::vector<std::string> join;
    int chunk_cells = 0, variants = 0;
    bool list_maps = false;
};

dg::PackOutput output_of(const PackOptions& options) {
    dg::PackOutput output;
    output.format = options.format == "cbor" ? dg::PackFormat::cbor : dg::PackFormat::json;
    output.unit = options.unit == "m" ? dg::Unit::m : dg::Unit::px;
    output.y = options.y == "up" ? dg::YAxis::up : dg::YAxis::down;
    output.plane = options.plane == "ground" ? dg::Plane::ground : dg::Plane::screen;
    output.chunk_cells = options.chunk_cells, output.variants = options.variants;
    return output;
}

// Prints how many states of its ground each map has; if more facts shape it than are packed as variants, that they are
// not.
void say_variants(const dg::World& world, int variants) {
    for (const dg::Map& map : world.maps()) {
        const std::size_t facts = dg::facts_of_ground(world, map).size();
        const bool packed = facts <= static_cast<std::size_t>(variants);
        say(fmt::format("map '{}': ground depends on {}, {}\n", map.name, dg::counted(facts, "fact"),
                        packed ? dg::counted((std::size_t{1} << facts) - 1, "variant") + " packed"
                               : fmt::format("more than --variants {}: no variants packed", variants)));
    }
}

// Copies only the pictures that the pack names, each to the same place in the folder.
void copy_art(const Opened& opened, const fs::path& to) {
    std::vector<dg::NamedBytes> copies;
    for (const std::string& file : dg::art_files(opened.world)) {
        dg::Result<std::string> bytes = dg::read_file(opened.folder / file);
        if (!bytes) stop(misuse, fmt::format("cannot copy '{}': {}", file, bytes.fault()));
        copies.push_back({(to / file).generic_string(), *std::move(bytes)});
    }
    if (const auto written = dg::write_files(copies); !written)
        stop(misuse, fmt::format("cannot write {}", written.fault()));
    say(fmt::format("{} pictures copied to {}\n", copies.size(), to.generic_string()));
}

// Returns a rule for make and ninja: spaces in paths are escaped, as are # and $.
std::string depfile_text(const fs::path& folder, const std::vector<std::string>& files, const std::string& out) {
    const auto escaped = [](const fs::path& path) {
        std::string text;
        for (const char c : path.generic_string())
            text += c == ' ' || c == '#' ? std::string{'\\', c} : c == '$' ? "$$" : std::string(1, c);
        return text;
    };
    std::string text = escaped(out) + ":";
    for (const std::string& file : files) text += " \\\n  " + escaped(folder / file);
    return text + "\n";
}

// Returns the content hash of a file of a world; empty if it cannot be read.
std::string hash_of(const fs::path& path) {
    const dg::Result<std::string> file = dg::read_file(path);
    return file ? dg::content_hash(*file) : std::string();
}

// Makes one map's part from only the world's file, the tile sets and the map's own files.
void make_part(const PackOptions& options) {
    if (options.out.empty()) stop(misuse, "--map needs --out: the file for the map's part");
    const dg::FoundWorld found = options.world.find_or_stop("nothing was made");
    const fs::path folder = fs::path(found.world).parent_path();
    const auto refuse = [&](const dg::Report& report) {
        say(dg::text(report));
        stop(findings, fmt::format("map '{}' cannot be read; nothing was made", options.map));
    };
    const dg::Result<dg::WorldDrafts> drafts = dg::load_map_drafts(found.world, options.map);
    if (!drafts) {
        const std::vector<std::string> names = dg::map_names(found.world);
        if (std::find(names.begin(), names.end(), options.map) == names.end()) stop_without_map(options.map, names);
        refuse(drafts.report());
    }
    const dg::Result<dg::World> loaded = drafts->builder.build();
    if (!loaded || loaded->find_map(options.map) == dg::MapId::none) refuse(loaded.report());
    std::vector<dg::InputFile> inputs;
    for (const std::string& file : drafts->files) inputs.push_back({file, hash_of(folder / file)});
    const std::string bytes = dg::part_bytes(*loaded, loaded->map(options.map), output_of(options), inputs);
    write_result(options.out, bytes);
    if (!options.depfile.empty()) write_result(options.depfile, depfile_text(folder, drafts->files, options.out));
    say(fmt::format("map '{}' as a part of a pack: {} bytes\n", options.map, bytes.size()));
}

// Makes the pack from its parts; nothing is merged again.
std::string joined(const PackOptions& options, const Opened& opened) {
    std::vector<dg::NamedBytes> parts;
    for (const std::string& file : options.join) {
        dg::Result<std::string> part = dg::read_file(file);
        if (!part) stop(misuse, fmt::format("cannot open '{}': {}", file, part.fault()));
        parts.push_back({file, *std::move(part)});
    }
    std::map<std::string, std::string> hashes;
    const auto hash_now = [&](const std::string& file) {
        const auto [known, is_new] = hashes.try_emplace(file);
        if (is_new) known->second = hash_of(opened.folder / file);
        return known->second;
    };
    dg::Result<std::string> pack = dg::join_parts(opened.world, parts, output_of(options), hash_now);
    if (pack) return *std::move(pack);
    say(pack.fault() + "\n");
    stop(misuse, "the parts do not make up the world; nothing was made");
}

// Prints the names of a world's maps as its files have them, whatever else is wrong with the world.
void list_maps(const PackOptions& options) {
    for (const std::string& name : dg::map_names(options.world.find_or_stop("nothing was listed").world))
        print(name + "\n");
}

void run_pack(const PackOptions& options) {
    if (options.list_maps) return list_maps(options);
    if (!options.depfile.empty() && options.out.empty())
        stop(misuse, "--depfile needs --out: it lists what that file is made from");
    if (!options.map.empty()) {
        if (!options.join.empty() || !options.art.empty())
            stop(misuse, "--map makes a part: --join and --art do not go with it");
        return make_part(options);
    }
    const Opened opened = options.world.open();
    const dg::Report report = all_findings(opened);
    if (report.has(dg::Severity::error)) {
        say(dg::text(report));
        stop(findings, "a world with errors is not packed; nothing was made");
    }
    const auto whole = [&] {
        dg::PackOutput output = output_of(options);
        output.progress = progress_of("packing");
        return dg::pack_bytes(opened.world, output);
    };
    const std::string bytes = options.join.empty() ? whole() : joined(options, opened);
    write_result(options.out, bytes);
    if (!options.depfile.empty()) write_result(options.depfile, depfile_text(opened.folder, opened.files, options.out));
    if (!options.art.empty()) copy_art(opened, options.art);
    if (options.join.empty()) {
        std::vector<dg::Merge> merges;
        for (const dg::Map& map : opened.world.maps()) merges.push_back(dg::merge(opened.world, map));
        say_figures(opened.world, merges);
        if (options.variants > 0) say_variants(opened.world, options.variants);
    }
    const dg::Counts counts = report.counts();
    if (counts.warning > 0)
        say(fmt::format("{}: `dryground check` lists them\n", dg::counted(counts.warning, "warning")));
    say(fmt::format("packed {}, {}, {}: {} bytes\n", dg::counted(opened.world.maps().size(), "map"),
                    dg::counted(opened.world.tilesets().size(), "tile set"),
                    dg::counted(opened.world.movers().size(), "mover"), bytes.size()));
}

}   // namespace

void add_pack(CLI::App& app) {
    auto options = std::make_shared<PackOptions>();
    CLI::App* command = app.add_subcommand("pack", "Everything a game loads, in one file; refuses a world with errors");
    options->world.add_to(*command, false);
    add_format(*command, options->format, options->out, {"json", "cbor"}, "json or cbor, the same tree");
    command->add_option("--unit", options->unit, "px or m, of merged geometry (default: px)")
        ->check(one_of({"px", "m"}))
        ->type_name("UNIT");
    command->add_option("--y", options->y, "Which way its y points: down or up (default: down)")
        ->check(one_of({"down", "up"}))
        ->type_name("WAY");
    command->add_option("--plane", options->plane, "screen, or ground: laid flat (default: screen)")
        ->check(one_of({"screen", "ground"}))
        ->type_name("PLANE");
    command
        ->add_option("--chunk-cells", options->chunk_cells, "Merged geometry in square chunks of so many cells a side")
        ->check(CLI::Range(1, 1'000'000))
        ->type_name("N");
    command
        ->add_option("--variants", options->variants,
                     "The ground for each state of the facts that shape it, where a map has at most N of them")
        ->check(CLI::Range(1, 6))
        ->type_name("N");
    command->add_option("--art", options->art, "Copy the pictures that the pack names to this folder")
        ->type_name("DIR");
    command->add_option("--depfile", options->depfile, "Write what the pack is made from, as a rule for make or ninja")
        ->type_name("FILE");
    command->add_option("--map", options->map, "Make only this map's part, for --join; needs --out")->type_name("NAME");
    command->add_option("--join", options->join, "Make the pack from the parts of all maps")->type_name("PART");
    command->add_flag("--list-maps", options->list_maps, "List the names of the maps, and make nothing");
    command->add_option("--out", options->out, "Write to a file")->type_name("FILE");
    command->footer("Example: dryground pack demo/world.toml --out station.pack.cbor");
    command->callback([options] { run_pack(*options); });
}

}   // namespace app

// dryground pack: everything that a game loads, in one file.

#include <fmt/format.h>

#include <algorithm>
#include <memory>

#include "../command.hpp"

namespace app {

namespace dg = dryground;
namespace fs = std::filesystem;

namespace {

struct PackOptions {
    WorldArguments world;
    std::string format = "json", unit = "px", y = "down", plane = "screen", out, art, depfile;
};

// Copies just the pictures that the pack names, each to the same place in the folder.
void copy_art(const Opened& opened, const fs::path& to) {
    std::vector<dg::NamedBytes> copies;
    for (const std::string& file : dg::art_files(opened.world)) {
        dg::FileBytes bytes = dg::read_file(opened.folder / file);
        if (!bytes.bytes) stop(misuse, fmt::format("cannot copy '{}': {}", file, bytes.fault));
        copies.push_back({(to / file).generic_string(), std::move(*bytes.bytes)});
    }
    if (const std::string fault = dg::write_files(copies); !fault.empty())
        stop(misuse, fmt::format("cannot write {}", fault));
    say(fmt::format("{} pictures copied to {}\n", copies.size(), to.generic_string()));
}

// A rule as make and ninja read it: spaces in paths are escaped, as are # and $.
std::string depfile_text(const Opened& opened, const std::string& out) {
    const auto escaped = [](const fs::path& path) {
        std::string text;
        for (const char c : path.generic_string())
            text += c == ' ' || c == '#' ? std::string{'\\', c} : c == '$' ? "$$" : std::string(1, c);
        return text;
    };
    std::string text = escaped(out) + ":";
    for (const std::string& file : opened.files) text += " \\\n  " + escaped(opened.folder / file);
    return text + "\n";
}

void run_pack(const PackOptions& options) {
    const Opened opened = options.world.open();
    const dg::Report report = all_findings(opened);
    if (report.has(dg::Severity::error)) {
        say(dg::text(report));
        stop(findings, "a world with errors is not packed; nothing was made");
    }
    if (!options.depfile.empty() && options.out.empty())
        stop(misuse, "--depfile needs --out: it says what that is made from");
    dg::PackOutput output;
    output.format = options.format == "cbor" ? dg::PackFormat::cbor : dg::PackFormat::json;
    output.unit = options.unit == "m" ? dg::Unit::m : dg::Unit::px;
    output.y = options.y == "up" ? dg::YAxis::up : dg::YAxis::down;
    output.plane = options.plane == "ground" ? dg::Plane::ground : dg::Plane::screen;
    const std::string bytes = dg::pack_bytes(opened.world, output);
    write_result(options.out, bytes);
    if (!options.depfile.empty()) write_result(options.depfile, depfile_text(opened, options.out));
    if (!options.art.empty()) copy_art(opened, options.art);
    std::vector<dg::Merge> merges;
    for (const dg::Map& map : opened.world.maps()) merges.push_back(dg::merge(opened.world, map));
    say_figures(opened.world, merges);
    const dg::Counts counts = report.counts();
    if (counts.warning > 0) say(fmt::format("{} warnings: `dryground check` tells them\n", counts.warning));
    say(fmt::format("packed {} maps, {} tile sets, {} movers: {} bytes\n", opened.world.maps().size(),
                    opened.world.tilesets().size(), opened.world.movers().size(), bytes.size()));
}

}   // namespace

void add_pack(CLI::App& app) {
    auto options = std::make_shared<PackOptions>();
    CLI::App* command = app.add_subcommand("pack", "Everything a game loads, in one file; refuses a world with errors");
    options->world.add_to(*command, false);
    command->add_option("--format", options->format, "json or cbor, the same tree (default: json)")
        ->check(CLI::IsMember({"json", "cbor"}))
        ->type_name("FORMAT");
    command->add_option("--unit", options->unit, "px or m, of merged geometry (default: px)")
        ->check(CLI::IsMember({"px", "m"}))
        ->type_name("UNIT");
    command->add_option("--y", options->y, "Which way its y points: down or up (default: down)")
        ->check(CLI::IsMember({"down", "up"}))
        ->type_name("WAY");
    command->add_option("--plane", options->plane, "screen, or ground: laid flat (default: screen)")
        ->check(CLI::IsMember({"screen", "ground"}))
        ->type_name("PLANE");
    command->add_option("--art", options->art, "Copy the pictures that the pack names to this folder")
        ->type_name("DIR");
    command->add_option("--depfile", options->depfile, "Write what the pack is made from, as a rule for make or ninja")
        ->type_name("FILE");
    command->add_option("--out", options->out, "Write to a file")->type_name("FILE");
    command->footer("Example: dryground pack demo/world.toml --format cbor --out station.pack.cbor");
    command->callback([options] { run_pack(*options); });
}

}   // namespace app

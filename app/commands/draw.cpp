// dryground draw: pictures of maps.

#include <fmt/format.h>

#include <memory>

#include "../command.hpp"

namespace app {

namespace dg = dryground;

namespace {

struct Options {
    WorldArguments world;
    std::vector<std::string> show;
    std::string out;
    int scale = 0;
};

// Of several maps each gets a file of its own: station.png becomes station-slipway.png.
std::filesystem::path path_for(const std::filesystem::path& out, const std::string& map, bool several) {
    if (!several) return out;
    std::filesystem::path path = out;
    return path.replace_filename(fmt::format("{}-{}{}", out.stem().string(), map, out.extension().string()));
}

void run(const Options& options) {
    const std::filesystem::path out = options.out;
    if (out.extension() != ".svg" && out.extension() != ".png")
        stop(misuse, fmt::format("--out must end in .svg or .png, but is '{}'", options.out));
    dg::DrawOptions draw;
    draw.scale = options.scale;
    if (!options.show.empty()) {
        std::string unknown;
        const auto show = dg::show_from(options.show, unknown);
        if (!show) {
            const auto nearest = dg::nearest_name(unknown, dg::show_names());
            stop(misuse, fmt::format("cannot show '{}'{}; there are {}", unknown,
                                     nearest ? fmt::format(", did you mean '{}'?", *nearest) : "",
                                     fmt::join(dg::show_names(), ", ")));
        }
        draw.show = *show;
    }
    const Opened opened = options.world.open();
    const dg::Report report = draw.show.findings ? all_findings(opened) : opened.warnings;
    std::vector<dg::Merge> merges;
    for (const std::string& name : opened.maps) {
        const dg::Map& map = opened.world.map(name);
        std::string picture = dg::draw_svg(opened.world, map, report, {opened.folder}, draw), fault;
        if (out.extension() == ".png") {
            picture = dg::png_from_svg(picture, fault);
            if (picture.empty()) stop(misuse, fmt::format("map '{}' cannot be drawn as PNG: {}", name, fault));
        }
        const std::filesystem::path path = path_for(out, name, opened.maps.size() > 1);
        write_result(path.string(), picture);
        say(fmt::format("wrote {}\n", path.string()));
        merges.push_back(dg::merge(opened.world, map));
    }
    say_figures(opened.world, merges);
}

}   // namespace

void add_draw(CLI::App& app) {
    auto options = std::make_shared<Options>();
    CLI::App* command = app.add_subcommand("draw", "Draw maps: art, grid, merged outlines, flags, objects, findings");
    options->world.add_to(*command);
    command
        ->add_option("--show", options->show,
                     "What to draw: art grid merged pieces flags objects findings (default: all but pieces and flags)")
        ->type_name("THING");
    command
        ->add_option("--scale", options->scale,
                     "Px of the picture to one px of the map, 1 to 16 (default: to fit 1300 px)")
        ->check(CLI::Range(1, 16))
        ->type_name("N");
    command->add_option("--out", options->out, "The picture's file, .svg or .png; several maps get one each")
        ->required()
        ->type_name("FILE");
    command->footer(
        "Example: dryground draw demo/world.toml --map slipway --show art merged objects --out slipway.png");
    command->callback([options] { run(*options); });
}

}   // namespace app

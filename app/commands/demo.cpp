// dryground demo: the whole job on the demo world, step by step.

#include <fmt/format.h>

#include <memory>

#include "../command.hpp"

namespace app {

namespace dg = dryground;
namespace fs = std::filesystem;

namespace {

// Returns the demo world beside this program, wherever that was moved: of an installed one in ../share, of one that was
// just built in a folder above it. Empty if it is not found.
std::string demo_folder() {
    std::error_code error;
    fs::path folder = fs::read_symlink("/proc/self/exe", error).parent_path();
    for (; !folder.empty(); folder = folder.parent_path()) {
        for (const fs::path& place : {folder / "share" / "dryground" / "demo", folder / "demo"})
            if (fs::exists(place / "world.toml", error)) return place.string();
        if (folder == folder.root_path()) break;
    }
    return {};
}

struct DemoOptions {
    std::string world, out = "dryground-demo";
};

std::size_t tiles_of(const dg::World& world) {
    std::size_t count = 0;
    for (const dg::TileSet& set : world.tilesets()) count += set.tiles.size();
    return count;
}

struct Read {
    dg::World world;
    dg::Report report;   // of reading and checking
};

Read read(const fs::path& file) {
    if (const dg::Result<std::string> bytes = dg::read_file(file); !bytes)
        stop(misuse, fmt::format("cannot open '{}': {}; name the demo world's folder with --world DIR", file.string(),
                                 bytes.fault()));
    const dg::Result<dg::World> loaded = dg::load_world(file);
    if (!loaded) {
        say(dg::text(loaded.report()));
        stop(findings, "the demo world cannot be read");
    }
    Read result{*loaded, loaded.report()};
    result.report.add(dg::check(result.world, {dg::pictures_of(file)}));
    return result;
}

// As one would type it: from the folder one stands in, where the path lies below it.
fs::path as_typed(const fs::path& path) {
    std::error_code error;
    const fs::path relative = fs::relative(path, error);
    return error || relative.empty() || *relative.begin() == ".." ? path : relative;
}

std::string indented(const std::string& text) {
    std::string result;
    bool at_start = true;
    for (const char c : text) {
        if (at_start) result += "        ";
        result += c;
        at_start = c == '\n';
    }
    return result;
}

void draw(const dg::World& world, const dg::Map& map, const dg::Report& report, const fs::path& folder,
          const fs::path& file) {
    const dg::ArtSource art{folder};
    const auto written = dg::write_file(file.string() + ".png", [&](const dg::ByteSink& sink) {
        return dg::draw_png(world, map, report, art, {}, sink);
    });
    if (!written) stop(misuse, fmt::format("cannot draw '{}.png': {}", file.string(), written.fault()));
    write_result(file.string() + ".svg", dg::draw_svg(world, map, report, art));
    print(fmt::format("        {0}.png and .svg: {1}, {2} findings marked\n", file.string(), map.title,
                      std::count_if(report.findings().begin(), report.findings().end(),
                                    [&](const dg::Finding& f) { return f.map == map.name; })));
}

// All maps of a world as one page.
void draw_page(const dg::World& world, const dg::Report& report, const fs::path& folder, const fs::path& file) {
    std::vector<std::string> maps;
    for (const dg::Map& map : world.maps()) maps.push_back(map.name);
    write_result(file.string(), dg::draw_page(world, maps, report, {folder}));
    print(fmt::format("        {}: a page for a browser, to look around, ask and search\n", file.string()));
}

void run_demo(const DemoOptions& options) {
    const std::string found = options.world.empty() ? demo_folder() : options.world;
    if (found.empty())
        stop(misuse, "the demo world is not where this program is installed; name its folder with --world DIR");
    const fs::path folder = as_typed(found), out = options.out;
    std::error_code error;
    fs::create_directories(out, error);
    if (error) stop(misuse, fmt::format("cannot make the folder '{}': {}", options.out, error.message()));

    const auto [world, report] = read(folder / "world.toml");
    print(fmt::format("read    {}: {} with {}, {}, {} of objects\n", world.title(),
                      dg::counted(world.tilesets().size(), "tile set"), dg::counted(tiles_of(world), "tile"),
                      dg::counted(world.maps().size(), "map"), dg::counted(world.kinds().size(), "kind")));
    print(report.empty() ? "check   no findings: every link leads somewhere, nobody stands in a wall\n"
                         : "check   " + dg::text(report));

    std::vector<dg::Merge> merges;
    for (const dg::Map& map : world.maps()) merges.push_back(dg::merge(world, map));
    for (const dg::Merge& merge : merges) {
        std::size_t chains = 0, pieces = 0;
        for (const dg::Group& group : merge.groups) chains += group.chains.size(), pieces += group.pieces.size();
        print(fmt::format("merge   {}: {} shapes become {} chains or {} convex pieces, in {} groups\n", merge.map,
                          merge.stats.shapes_in, chains, pieces, merge.groups.size()));
    }
    const fs::path json = out / "merge.json";
    write_result(json.string(),
                 dg::merge_bytes(world, merges,
                                 {.unit = dg::Unit::m,
                                  .y = dg::YAxis::up,
                                  .forms = {dg::MergeForm::regions, dg::MergeForm::chains, dg::MergeForm::pieces}}));
    print(fmt::format("        {}: in metres, y up, for a physics engine\n", json.string()));

    print("draw    art, grid, merged outlines, objects\n");
    for (const dg::Map& map : world.maps()) draw(world, map, report, folder, out / map.name);
    draw_page(world, report, folder, out / "station.html");

    const auto [broken, mistakes] = read(folder / "broken" / "world.toml");
    const dg::Counts counts = mistakes.counts();
    print(fmt::format("broken  the same world with mistakes in it: {} errors and {} warnings; the first of them:\n",
                      counts.error, counts.warning));
    for (std::size_t i = 0; i < std::min<std::size_t>(mistakes.findings().size(), 3); ++i)
        print(indented(dg::text(mistakes.findings()[i])));
    draw(broken, broken.maps().front(), mistakes, folder / "broken", out / "broken");
    draw_page(broken, mistakes, folder / "broken", out / "broken.html");
    print(fmt::format("next    open {} in a browser, then try: dryground check {}\n", (out / "broken.html").string(),
                      (folder / "broken" / "world.toml").string()));
}

}   // namespace

void add_demo(CLI::App& app) {
    auto options = std::make_shared<DemoOptions>();
    CLI::App* command =
        app.add_subcommand("demo", "Walk through the whole job on the demo world, a tidal field station");
    command->add_option("--out", options->out, "The folder for what it makes (default: dryground-demo)")
        ->type_name("DIR");
    command->add_option("--world", options->world, "The demo world's folder (default: found beside the program)")
        ->type_name("DIR");
    command->footer("Example: dryground demo --out dryground-demo");
    command->callback([options] { run_demo(*options); });
}

}   // namespace app

// dryground draw: pictures of maps and tile sets.

#include <sys/ioctl.h>
#include <unistd.h>

#include <algorithm>
#include <memory>

#include "../command.hpp"
#include "../merge_words.hpp"
#include "../progress.hpp"
#include "../watch.hpp"

namespace app {

namespace dg = dryground;

namespace {

constexpr std::int64_t most_cells_told = std::int64_t{1}
                                         << 20;   // figures of larger maps would need all of their merge

struct DrawOptions {
    WorldArguments world;
    MergeWords merging;
    std::vector<std::string> show, layers, storeys, fade, forms;
    std::string out, palette = "own", plane = "screen", tileset;
    int width = 0;
    bool watch = false, plain = false;
    std::vector<int> area;
    double scale = 0;
};

dg::Thing thing_of(const std::string& name, const char* option) {
    if (const auto thing = dg::thing_from(name)) return *thing;
    const std::vector<std::string> names(dg::thing_names().begin(), dg::thing_names().end());
    const auto nearest = dg::nearest_name(name, names);
    stop(misuse, fmt::format("{}: cannot show '{}'{}; there are {}", option, name,
                             nearest ? fmt::format(", did you mean '{}'?", *nearest) : "", fmt::join(names, ", ")));
}

// "art=0.4"
std::pair<dg::Thing, double> faded(const std::string& words) {
    const auto at = words.find('=');
    const std::string number = at == std::string::npos ? "" : words.substr(at + 1);
    char* end = nullptr;
    const double strength = std::strtod(number.c_str(), &end);
    if (number.empty() || *end != '\0' || !(strength >= 0 && strength <= 1))
        stop(misuse, fmt::format("--fade: '{}' is not a thing and a number from 0 to 1, as in art=0.4", words));
    return {thing_of(words.substr(0, at), "--fade"), strength};
}

void check_layers(const DrawOptions& options, const Opened& opened) {
    std::vector<std::string> names;
    for (const std::string& map : opened.maps)
        for (const dg::Layer& layer : opened.world.map(map).layers) names.push_back(layer.name);
    for (const std::string& layer : options.layers)
        if (std::find(names.begin(), names.end(), layer) == names.end()) {
            const auto nearest = dg::nearest_name(layer, names);
            stop(misuse, fmt::format("--layer: there is no layer '{}'{}", layer,
                                     nearest ? fmt::format("; did you mean '{}'?", *nearest) : ""));
        }
}

void check_area(const dg::CellArea& area, const dg::Map& map) {
    const std::array<std::int64_t, 4> wide{area.column, area.row, area.columns, area.rows};
    const auto [column, row, columns, rows] = wide;
    const bool meets = column < map.first_column + map.columns && column + columns > map.first_column &&
                       row < map.first_row + map.rows && row + rows > map.first_row;
    if (columns < 1 || rows < 1) stop(misuse, "--area: it must be 1 or more cells wide and high");
    if (!meets)
        stop(misuse, fmt::format("--area: map '{}' has the cells ({}, {}) to ({}, {}), and none of them is in it",
                                 map.name, map.first_column, map.first_row, map.first_column + map.columns - 1,
                                 map.first_row + map.rows - 1));
}

dg::DrawOptions draw_options(const DrawOptions& options, const Opened& opened) {
    dg::DrawOptions draw;
    draw.scale = options.scale;
    draw.palette = *dg::palette_from(options.palette);
    draw.plane = options.plane == "ground" ? dg::Plane::ground : dg::Plane::screen;
    draw.layers = options.layers;
    check_layers(options, opened);
    for (const std::string& storey : options.storeys)
        draw.storeys.push_back(find_named<dg::StoreyId>(opened.world.storeys(), storey, "--storey", "storey"));
    draw.plain = options.plain;
    if (options.plain) draw.show = {dg::Thing::art};
    if (!options.show.empty()) draw.show.clear();
    for (const std::string& name : options.show) draw.show.insert(thing_of(name, "--show"));
    for (const std::string& words : options.fade) draw.fade.insert(faded(words));
    options.merging.apply(draw.merging, opened.world);
    if (!options.forms.empty()) draw.merging.forms = dg::forms_named(options.forms);
    if (!options.area.empty()) {
        draw.area = dg::CellArea{options.area[0], options.area[1], options.area[2], options.area[3]};
        for (const std::string& map : opened.maps) check_area(*draw.area, opened.world.map(map));
    }
    draw.progress = progress_of("drawing");
    return draw;
}

void draw_map(const Opened& opened, const dg::Map& map, const dg::Report& report, const dg::DrawOptions& draw,
              const std::filesystem::path& path) {
    const dg::ArtSource art{opened.folder};
    if (path.extension() == ".svg") {
        write_result(path.string(), dg::draw_svg(opened.world, map, report, art, draw));
    } else {
        const auto written = dg::write_file(
            path, [&](const dg::ByteSink& sink) { return dg::draw_png(opened.world, map, report, art, draw, sink); });
        if (!written)
            stop(misuse, fmt::format("map '{}' cannot be drawn as '{}': {}", map.name, path.string(), written.fault()));
    }
    say(fmt::format("wrote {}\n", path.string()));
}

void draw_tileset(const Opened& opened, const std::string& name, const dg::DrawOptions& draw,
                  const std::filesystem::path& path) {
    const dg::World& world = opened.world;
    const int set = static_cast<int>(find_named<dg::TileSetId>(world.tilesets(), name, "--tileset", "tile set"));
    const dg::TileSet& tiles = world.tilesets()[static_cast<std::size_t>(set)];
    if (path.extension() == ".html") {
        write_result(path.string(), dg::draw_page(world, tiles, {opened.folder}, draw));
        say(fmt::format("wrote {}: {} tiles; open it in a browser\n", path.string(), tiles.tiles.size()));
        return;
    }
    std::string picture = dg::draw_svg(world, tiles, {opened.folder}, draw);
    if (path.extension() == ".png") {
        dg::Result<std::string> png = dg::png_from_svg(picture);
        if (!png) stop(misuse, fmt::format("tile set '{}' cannot be drawn as PNG: {}", name, png.fault()));
        picture = *std::move(png);
    }
    write_result(path.string(), picture);
    say(fmt::format("wrote {}: {} tiles\n", path.string(),
                    world.tilesets()[static_cast<std::size_t>(set)].tiles.size()));
}

void draw_page(const Opened& opened, const dg::Report& report, const dg::DrawOptions& draw,
               const DrawOptions& options) {
    std::vector<std::string> maps, left_out;
    for (const std::string& name : opened.maps) {
        const dg::Map& map = opened.world.map(name);
        const bool fits = draw.area || std::int64_t{map.columns} * map.rows <= most_cells_told;
        (fits ? maps : left_out).push_back(name);
    }
    for (const std::string& name : left_out)
        say(fmt::format("map '{}' is too large for a page and left out: --area shows a part of it\n", name));
    if (maps.empty()) stop(misuse, "no map is small enough for a page");
    const std::string page = dg::draw_page(opened.world, maps, report, {opened.folder}, draw, options.watch);
    write_result(options.out, page);
    say(fmt::format("wrote {}: {}, {:.1f} MB; open it in a browser\n", options.out, dg::counted(maps.size(), "map"),
                    static_cast<double>(page.size()) / 1e6));
}

void draw_on_terminal(const Opened& opened, const dg::Report& report, const dg::DrawOptions& draw,
                      const DrawOptions& options) {
    dg::CharacterOptions characters;
    characters.colours = ::isatty(STDOUT_FILENO) != 0 && std::getenv("NO_COLOR") == nullptr;
    winsize size{};
    if (::isatty(STDOUT_FILENO) != 0 && ::ioctl(STDOUT_FILENO, TIOCGWINSZ, &size) == 0 && size.ws_col >= 20)
        characters.width = size.ws_col;
    if (options.width > 0) characters.width = options.width;
    std::string all;
    for (const std::string& name : opened.maps)
        all += (all.empty() ? "" : "\n") +
               dg::draw_characters(opened.world, opened.world.map(name), report, {opened.folder}, draw, characters);
    print_bytes(all);   // with its colours
}

// What was asked for in words, and characters cannot show.
void refuse_on_terminal(const DrawOptions& options) {
    for (const std::string& name : options.show)
        for (const char* picture_only : {"shapes", "pieces", "sides", "links", "walk"})
            if (name == picture_only)
                stop(misuse,
                     fmt::format("the terminal cannot show {}: use --out FILE, ending in .svg, .png or .html", name));
}

void draw_once(const DrawOptions& options, const Opened& opened) {
    const std::filesystem::path out = options.out;
    const dg::DrawOptions draw = draw_options(options, opened);
    const std::string& set = options.tileset.empty() ? opened.tileset : options.tileset;
    if (!set.empty()) {
        if (out.empty()) stop(misuse, "a tile set is drawn as .svg, .png or .html: use --out FILE");
        draw_tileset(opened, set, draw, out);
        return;
    }
    if (opened.maps.empty()) stop(misuse, "the world has no maps: there is nothing to draw");
    const dg::Report report = draw.show.count(dg::Thing::findings) != 0 ? all_findings(opened) : opened.warnings;
    if (out.empty()) {
        refuse_on_terminal(options);
        draw_on_terminal(opened, report, draw, options);
        return;
    }
    if (out.extension() == ".html") draw_page(opened, report, draw, options);
    std::vector<dg::Merge> merges;
    for (const std::string& name : opened.maps) {
        const dg::Map& map = opened.world.map(name);
        if (out.extension() != ".html")
            draw_map(opened, map, report, draw, path_for(out, name, opened.maps.size() > 1));
        if (!draw.area && std::int64_t{map.columns} * map.rows <= most_cells_told)   // an area costs what it shows
            merges.push_back(dg::merge(opened.world, map, draw.merging));
    }
    options.merging.say_what_is_other(opened.world);
    if (!merges.empty()) say_figures(opened.world, merges);
}

// A page that is open says at its head what cannot be read, and where.
void tell_in_page(const DrawOptions& options) {
    const std::filesystem::path out = options.out;
    if (out.extension() != ".html") return;
    const dg::Result<std::string> page = dg::read_file(out.string());
    const dg::Result<dg::FoundWorld> found = options.world.find();
    const dg::Result<dg::World> loaded = found ? dg::load_world(found->world, found->reader) : found.failure();
    if (page && !loaded) write_result(options.out, dg::page_with_trouble(*page, dg::text(loaded.report())));
}

// Draws again whenever a file of the world is saved, until somebody ends it. What cannot be read is told, and the last
// picture stays.
[[noreturn]] void watch_draw(const DrawOptions& options) {
    Watch files;
    const std::filesystem::path folder =
        std::filesystem::path(options.world.find_or_stop("nothing was made").world).parent_path();
    for (bool first = true;; first = false) {
        try {
            const Opened opened = options.world.open(options.merging.within_px);
            std::vector<std::filesystem::path> paths{options.world.find_or_stop("nothing was made").world};
            for (const std::string& file : opened.files) paths.push_back(folder / file);
            files.look_at(paths);
            draw_once(options, opened);
        } catch (const Stop&) {   // it has said why
            if (first) throw;
            tell_in_page(options);
        }
        say("dryground: watching for changes; Ctrl-C to stop\n");
        (void)files.wait();
    }
}

void run_draw(const DrawOptions& options) {
    const std::string ending = std::filesystem::path(options.out).extension().string();
    if (options.plane == "ground" && ending != ".svg" && ending != ".png")
        stop(misuse, "--plane ground draws a picture of a map: use --out FILE, ending in .svg or .png");
    if (options.plain && ending != ".svg" && ending != ".png")
        stop(misuse, "--plain draws a picture of a map: use --out FILE, ending in .svg or .png");
    if (!options.out.empty() && ending != ".svg" && ending != ".png" && ending != ".html")
        stop(misuse, fmt::format("--out must end in .svg, .png or .html, but is '{}'", options.out));
    if (options.watch) {
        if (options.out.empty()) stop(misuse, "--watch draws into a file: use --out FILE");
        watch_draw(options);
    }
    draw_once(options, options.world.open(options.merging.within_px));
}

}   // namespace

void add_draw(CLI::App& app) {
    auto options = std::make_shared<DrawOptions>();
    CLI::App* command =
        app.add_subcommand("draw", "Draw maps and tile sets: art, grid, merged outlines, flags, objects, findings");
    options->world.add_to(*command);
    command->add_option("--tileset", options->tileset, "Draw this tile set in place of maps")->type_name("NAME");
    command
        ->add_option("--show", options->show,
                     fmt::format("What to draw: {} (default: art grid merged objects links findings)",
                                 fmt::join(dg::thing_names(), " ")))
        ->type_name("THING");
    command->add_option("--layer", options->layers, "Only the art, shapes, objects, ground and flags of these layers")
        ->type_name("NAME");
    command
        ->add_option(
            "--storey", options->storeys,
            "Only the ground, objects, flags, sides, reach and findings of these storeys; art of storeys below "
            "is faded, above them left out")
        ->type_name("NAME");
    command->add_flag("--plain", options->plain,
                      "What is shown alone (default: art), one px to a px, without frame, key, labels and marks");
    command->add_option("--area", options->area, "Only these cells: column, row, columns, rows")
        ->delimiter(',')
        ->expected(4)
        ->type_name("C,R,W,H");
    command->add_option("--fade", options->fade, "Draw a thing fainter: 0 to 1, as in art=0.4")->type_name("THING=N");
    command
        ->add_option("--scale", options->scale,
                     "Px of the picture to one px of the map, up to 16 (default: to fit 1300 px)")
        ->check(numbers_from(1.0 / 256, 16.0))
        ->type_name("N");
    command
        ->add_option("--palette", options->palette,
                     fmt::format("Colours of barriers: {} (default: own, those that the world names)",
                                 fmt::join(dg::palette_names(), ", ")))
        ->check(one_of(std::vector<std::string>(dg::palette_names().begin(), dg::palette_names().end())))
        ->type_name("NAME");
    command
        ->add_option("--plane", options->plane,
                     "screen, or ground: isometric maps laid flat, each cell a square, without art (default: screen)")
        ->check(one_of({"screen", "ground"}))
        ->type_name("PLANE");
    command->add_option("--as", options->forms, "What --show pieces draws: pieces, boxes, triangles (default: pieces)")
        ->check(one_of({"pieces", "boxes", "triangles"}))
        ->type_name("FORM");
    options->merging.add_to(*command);
    command->add_option("--width", options->width, "Characters a line (default: as the terminal has, else 80)")
        ->check(CLI::Range(20, 1000))
        ->type_name("N");
    command->add_flag("--watch", options->watch,
                      "Draw again whenever a file of the world is saved; a page that is open loads itself again");
    command
        ->add_option("--out", options->out,
                     "The file: .svg or .png, of several maps one each; .html, a page with all of them. Without it: in "
                     "characters")
        ->type_name("FILE");
    command->footer(
        "Examples: dryground draw demo/world.toml --map slipway --out slipway.png\n"
        "          dryground draw demo/world.toml --out station.html --watch\n"
        "          dryground draw demo/tiles/marsh.tiles.toml --out marsh.png");
    command->callback([options] { run_draw(*options); });
}

}   // namespace app

// dryground tiles: a tile set from art.

#include <fmt/format.h>

#include <algorithm>
#include <memory>

#include "../command.hpp"
#include "dryground/art.hpp"

namespace app {

namespace dg = dryground;
namespace fs = std::filesystem;

namespace {

struct TilesOptions {
    std::vector<std::string> from;
    std::string out, name, barrier, clear, pattern = "*";
    std::vector<std::string> names;
    std::vector<int> cell, margin, gap;
    bool trace = false, dry_run = false, no_list = false;
};

std::optional<std::array<int, 2>> pair(const std::vector<int>& numbers) {
    if (numbers.empty()) return std::nullopt;
    return std::array<int, 2>{numbers[0], numbers.size() > 1 ? numbers[1] : numbers[0]};
}

dg::Image picture(const fs::path& path, const std::optional<dg::Colour>& clear) {
    const dg::Result<std::string> bytes = dg::read_file(path);
    if (!bytes) stop(misuse, fmt::format("cannot open '{}': {}", path.string(), bytes.fault()));
    dg::Result<dg::Image> image = dg::decode_png(*bytes);
    if (!image) stop(misuse, fmt::format("'{}' cannot be read as a picture: {}", path.string(), image.fault()));
    if (clear)
        for (std::size_t i = 0; i + 3 < image->rgba.size(); i += 4)
            if (dg::Colour{image->rgba[i], image->rgba[i + 1], image->rgba[i + 2]} == *clear) image->rgba[i + 3] = 0;
    return *std::move(image);
}

std::optional<dg::Colour> colour(const std::string& text) {
    if (text.empty()) return std::nullopt;
    const auto colour = dg::colour_from(text);
    if (!colour) stop(misuse, fmt::format("--clear: '{}' is not a colour like #ff00ff", text));
    return colour;
}

// Returns the colour that means empty in a sheet, reported as a guess.
std::optional<dg::Colour> guessed_clear(const fs::path& sheet) {
    const auto clear = dg::guess_clear(picture(sheet, std::nullopt));
    if (clear)
        say(fmt::format(
            "guessed: #{:02x}{:02x}{:02x} means empty, since no pixel is transparent and it is in all corners; if "
            "not, use --clear none\n",
            clear->red, clear->green, clear->blue));
    return clear;
}

// Returns all PNG files that are named, and those in the folders that are, by name.
std::vector<fs::path> pictures_in(const std::vector<std::string>& from) {
    std::vector<fs::path> files;
    for (const std::string& one : from) {
        std::error_code error;
        if (!fs::is_directory(one, error)) {
            files.emplace_back(one);
            continue;
        }
        std::vector<fs::path> inside;
        for (fs::directory_iterator i(one, error), end; !error && i != end; i.increment(error))
            if (i->path().extension() == ".png") inside.push_back(i->path());
        std::sort(inside.begin(), inside.end());
        files.insert(files.end(), inside.begin(), inside.end());
    }
    return files;
}

// Returns the path as a tile set in `folder` names it.
std::string relative_to(const fs::path& file, const fs::path& folder) {
    std::error_code error;
    const fs::path path = fs::relative(file, folder.empty() ? "." : folder, error);
    return (error ? file : path).generic_string();
}

std::string stem_of(const fs::path& out) {
    std::string stem = out.filename().string();
    for (const char* ending : {".toml", ".tiles"})
        if (const std::string_view end(ending);
            stem.size() > end.size() && stem.compare(stem.size() - end.size(), end.size(), end) == 0)
            stem.resize(stem.size() - end.size());
    return stem;
}

// Adds a new file to the list of the world that it lies in, if there is one.
void enter_in_world(const fs::path& out) {
    const dg::Result<dg::FoundWorld> found = dg::find_world(out.generic_string());
    if (!found || found.report().empty()) return;   // one that lists it
    std::error_code error;
    if (!fs::exists(found->world, error)) return;   // it was only assumed around the file
    const fs::path folder = fs::weakly_canonical(fs::absolute(found->world, error), error).parent_path();
    const std::string file =
        fs::weakly_canonical(fs::absolute(out, error), error).lexically_relative(folder).generic_string();
    dg::EditSession session(found->world, {dg::history_folder()});
    const dg::Result<dg::Made> made = session.make(dg::AddFile{file}, "tileset add " + file);
    if (made)
        say(fmt::format("entered in the list `tilesets` of {}\n", fs::path(found->world).filename().generic_string()));
    else
        say(fmt::format("not entered in the world's list: {}\n", made.fault()));
}

void run_tiles(const TilesOptions& options) {
    const fs::path out = options.out, folder = out.parent_path();
    std::error_code error;
    const bool is_sheet = options.from.size() == 1 && !fs::is_directory(options.from[0], error);
    auto clear = options.clear == "none" ? std::nullopt : colour(options.clear);
    if (options.clear.empty() && is_sheet) clear = guessed_clear(options.from[0]);
    dg::TilesOptions how;
    how.name = options.name.empty() ? dg::tile_name(stem_of(out)) : options.name;
    how.barrier = options.barrier;
    how.trace = options.trace;
    how.clear = clear;
    how.names = options.names;
    how.pattern = options.pattern;
    how.known = {pair(options.cell), pair(options.margin), pair(options.gap)};
    std::string before;
    if (fs::exists(out, error)) {
        dg::Result<std::string> bytes = dg::read_file(out);
        if (!bytes) stop(misuse, fmt::format("cannot open '{}': {}", options.out, bytes.fault()));
        before = *std::move(bytes);
    }
    dg::Result<dg::TilesFromArt> made = dg::Failure{};
    std::vector<dg::NamedBytes> files;
    if (is_sheet) {
        how.sheet_file = relative_to(options.from[0], folder);
        made = dg::tiles_from_sheet(picture(options.from[0], clear), how, before);
    } else {
        const fs::path sheet = folder / (stem_of(out) + ".png");
        how.sheet_file = sheet.filename().string();
        std::vector<dg::NamedPicture> pictures;
        for (const fs::path& file : pictures_in(options.from))
            if (!fs::equivalent(file, sheet, error))
                pictures.push_back(
                    {dg::tile_name(file.filename().string()), relative_to(file, folder), picture(file, clear)});
        made = dg::tiles_from_pictures(pictures, how, before);
        if (made && made->sheet) files.push_back({sheet.generic_string(), dg::encode_png(*made->sheet)});
    }
    if (!made) stop(misuse, fmt::format("{}; nothing was made", made.fault()));
    for (const std::string& line : made->told) say(line + "\n");
    if (made->text != before) files.push_back({out.generic_string(), made->text});
    if (options.dry_run) {
        print_bytes(made->text);
        say("nothing was written (--dry-run)\n");
        return;
    }
    if (const auto written = dg::write_files(files); !written)
        stop(misuse, fmt::format("cannot write {}", written.fault()));
    for (const dg::NamedBytes& file : files) print(file.file + "\n");
    if (made->shaped > 0) say(fmt::format("shapes proposed for {} without any\n", dg::counted(made->shaped, "tile")));
    say(fmt::format("{} {} added{}\n", made->added, made->added == 1 ? "tile" : "tiles",
                    before.empty() ? "" : "; what was there is kept"));
    if (!options.no_list) enter_in_world(out);
    if (made->added > 0 && !options.trace)
        say("their shapes are not declared yet: write shapes = [\"cell\"], or [] for none; or propose them with "
            "--trace\n");
    if (made->added > 0 && options.trace && options.barrier.empty())
        say("their shapes need a barrier: use --barrier NAME, or write one in the file\n");
}

}   // namespace

void add_tiles(CLI::App& app) {
    auto options = std::make_shared<TilesOptions>();
    CLI::App* command = app.add_subcommand("tiles", "Make a tile set from a sheet, or from pictures");
    command->add_option("FROM", options->from, "A sheet; or pictures, or folders of them")->required()->type_name("");
    command->add_option("--out", options->out, "The tile set's file; what is in it is kept")
        ->required()
        ->type_name("FILE");
    command->add_option("--name", options->name, "The tile set's name (default: its file's)")->type_name("NAME");
    command->add_flag("--trace", options->trace,
                      "Propose shapes for tiles without a 'shapes' key: the cell, or the outline of the art");
    command->add_option("--names", options->names, "Names of a sheet's new tiles, row by row: floor,wall,reeds")
        ->delimiter(',')
        ->type_name("NAME,...");
    command->add_option("--tiles", options->pattern, "Only tiles whose names match: * for any characters")
        ->type_name("PATTERN");
    command->add_option("--barrier", options->barrier, "The barrier of the proposed shapes")->type_name("NAME");
    for (const auto& [name, into, help] :
         {std::tuple{"--cell", &options->cell, "Width and height of a cell, where it is known"},
          std::tuple{"--margin", &options->margin, "Margin around the cells, where it is known"},
          std::tuple{"--gap", &options->gap, "Gap between cells, where it is known"}})
        command->add_option(name, *into, help)
            ->expected(1, 2)
            ->delimiter(',')
            ->check(CLI::Range(0, 4096))
            ->type_name("W,H");
    command
        ->add_option("--clear", options->clear,
                     "The colour that means empty, where it is not transparent; none: no colour does (default: found)")
        ->type_name("COLOUR");
    command->add_flag("--no-list", options->no_list, "Do not enter it in the list of the world that it lies in");
    command->add_flag("--dry-run", options->dry_run, "Print the file, and write nothing");
    command->footer(
        "Example: dryground tiles demo/art/marsh.png --out marsh.tiles.toml --trace --barrier earth --dry-run");
    command->callback([options] { run_tiles(*options); });
}

}   // namespace app

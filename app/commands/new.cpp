// dryground new: a small world to start from.

#include <fmt/format.h>

#include <memory>

#include "../command.hpp"
#include "../starter.hpp"

namespace app {

namespace dg = dryground;
namespace fs = std::filesystem;

namespace {

struct NewOptions {
    std::string folder, title = "New Shore", view = "side", size;
    int cell = 16;
};

void run_new(const NewOptions& options) {
    const fs::path folder = options.folder;
    std::error_code error;
    if (fs::exists(folder, error) && (!fs::is_directory(folder, error) || !fs::is_empty(folder, error)))
        stop(misuse, fmt::format("'{}' already exists and is not empty", options.folder));
    StarterOptions starter;
    starter.view = options.view == "side"  ? StarterView::side
                   : options.view == "top" ? StarterView::top
                                           : StarterView::isometric;
    starter.cell = options.cell;
    if (!options.size.empty()) {
        const std::vector<int> size = wholes_in(options.size, 2, "a size: give columns,rows, as in 40,13");
        if (size[0] < least_columns || size[1] < least_rows || size[0] > 1000 || size[1] > 1000)
            stop(misuse, fmt::format("--size: from {},{} to 1000,1000, so that all of it has its place", least_columns,
                                     least_rows));
        starter.columns = size[0], starter.rows = size[1];
    }
    std::string title = "\"";
    for (const char c : options.title) {
        if (static_cast<unsigned char>(c) < 0x20) stop(misuse, "--title: a title is one line");
        title += c == '"' || c == '\\' ? std::string{'\\', c} : std::string(1, c);
    }
    starter.title = title + "\"";
    std::vector<dg::NamedBytes> files = starter_files(starter);
    for (dg::NamedBytes& file : files) file.file = (folder / file.file).generic_string();
    if (const auto written = dg::write_files(files); !written)
        stop(misuse, fmt::format("cannot write {}", written.fault()));
    // The history of a world that stood here before is not this one's.
    dg::EditSession((folder / "world.toml").generic_string(), {dg::history_folder()}).forget();
    for (const dg::NamedBytes& file : files) print(file.file + "\n");
    const std::string world = (folder / "world.toml").generic_string();
    say(fmt::format("next: dryground check {0}\n      dryground walk {0}\n      dryground draw {0} --out shore.png\n",
                    world));
}

}   // namespace

void add_new(CLI::App& app) {
    auto options = std::make_shared<NewOptions>();
    CLI::App* command = app.add_subcommand("new", "Make a small world to start from");
    command->add_option("DIR", options->folder, "The folder to make it in: not there yet, or empty")
        ->required()
        ->type_name("");
    command->add_option("--title", options->title, "The world's title (default: New Shore)")->type_name("TEXT");
    command->add_option("--view", options->view, "From where play is seen: side, top or isometric (default: side)")
        ->check(one_of({"side", "top", "isometric"}))
        ->type_name("VIEW");
    command->add_option("--cell", options->cell, "A cell's size in px, even; of diamonds their height (default: 16)")
        ->check(one_of({"8", "12", "16", "20", "24", "32", "48", "64"}))
        ->type_name("PX");
    command->add_option("--size", options->size, "columns,rows of its map (default: 24,10)")->type_name("SIZE");
    command->footer("Example: dryground new my_shore --view top");
    command->callback([options] { run_new(*options); });
}

}   // namespace app

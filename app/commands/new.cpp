// dryground new: a small world to start from.

#include <fmt/format.h>

#include <memory>

#include "../command.hpp"

namespace app {

namespace dg = dryground;
namespace fs = std::filesystem;

namespace {

struct NewOptions {
    std::string folder, title = "New Shore", view = "side";
};

constexpr const char* world_text = R"(format = "dryground/world/1"
title = {title}
per_metre = 16                              # px to one metre
player = "warden"                           # the mover that people play
start = "shore/landing"                     # map/object where play begins
tilesets = ["tiles/shore.tiles.toml"]
maps = ["maps/shore.map.toml"]

[barriers]                                  # what can stop a mover
earth = {{ note = "soil and stone", colour = "#7a5c3a" }}
brine = {{ note = "standing salt water", colour = "#2f7f93" }}

[flags]                                     # what a tile can grant
walk = "can be crossed on foot"

[movers.warden]
body = {{ box = {body} }}
stopped_by = ["earth", "brine"]
{moves}
)";

constexpr const char* side_moves = R"(moves = "side"                              # runs, falls and jumps
jump_px = 40
leap_px = 56
drop_px = 200
kerb_px = 2
slope_degrees = 46)";
constexpr const char* top_moves = R"(moves = "free"                              # any direction
needs = ["walk"]                            # cells without this flag are closed to it)";

constexpr const char* tiles_text = R"(format = "dryground/tiles/1"
name = "shore"
cell = [16, 16]
sheet = { file = "../art/shore.png" }

[tiles.peat]
art = [0, 0]                                # column and row in the sheet
barrier = "earth"
shapes = ["cell"]                           # solid all over

[tiles.bank]
art = [1, 0]
barrier = "earth"
shapes = [{ polygon = [[0, 16], [16, 0], [16, 16]] }]   # px, from the cell's top-left corner

[tiles.brine]
art = [2, 0]
barrier = "brine"
shapes = ["cell"]

[tiles.boardwalk]
art = [3, 0]
shapes = []                                 # nothing stops a body here …
flags = ["walk"]
carves = [{ barrier = "brine" }]            # … and the brine below it is bridged

[tiles.reeds]
art = [4, 0]
shapes = []
flags = ["walk"]
)";

constexpr const char* side_map = R"(format = "dryground/map/1"
name = "shore"
title = "The Shore"
cell = [16, 16]
size = [24, 10]                             # columns, rows
rim = "earth"                               # a ring of earth just outside keeps everybody in
tilesets = ["shore"]

[legend]                                    # what each character stands for; . is nothing
"#" = "peat"
"/" = "bank"
"\\" = { tile = "bank", flip = "x" }
"~" = "brine"
"=" = "boardwalk"
"'" = "reeds"

[[layers]]                                  # from the bottom up
name = "ground"
rows = '''
........................
........................
........................
........................
.................../####
................../#####
......'........./#######
####\..../##############
#####~~~~###############
########################
'''

[[layers]]
name = "deck"
rows = '''
........................
........................
........................
........................
........................
........................
........................
........................
.....====...............
........................
'''

[[layers]]
name = "people"
objects = [
  { name = "landing", kind = "spawn", at = [24, 112] },
]
)";

constexpr const char* top_map = R"(format = "dryground/map/1"
name = "shore"
title = "The Shore"
cell = [16, 16]
size = [24, 10]                             # columns, rows
rim = "earth"                               # a ring of earth just outside keeps everybody in
tilesets = ["shore"]

[legend]                                    # what each character stands for; . is nothing
"#" = "peat"
"~" = "brine"
"=" = "boardwalk"
"," = "reeds"

[[layers]]                                  # from the bottom up
name = "ground"
rows = '''
########################
#,,,,,,,,,~~~,,,,,,,,,,#
#,,,,,,,,,~~~,,,,,,,,,,#
#,,,,,,,,,~~~,,,,##,,,,#
#,,,,,,,,,~~~,,,,##,,,,#
#,,,,,,,,,~~~,,,,,,,,,,#
#,,,,,,,,,~~~,,,,,,,,,,#
#,,,,,,,,,~~~,,,,,,,,,,#
#,,,,,,,,,~~~,,,,,,,,,,#
########################
'''

[[layers]]
name = "deck"
rows = '''
........................
........................
........................
........................
..........===...........
........................
........................
........................
........................
........................
'''

[[layers]]
name = "people"
objects = [
  { name = "landing", kind = "spawn", at = [56, 72] },
]
)";

// Five tiles of plain colours with some grain, so that there is something to see until there is art.
dg::Image shore_art() {
    struct Paint {
        int red, green, blue;
    };
    static constexpr Paint paints[] = {{122, 92, 58}, {122, 92, 58}, {47, 127, 147}, {160, 102, 44}, {90, 130, 70}};
    dg::Image image;
    image.width = 80, image.height = 16;
    image.rgba.resize(4 * 80 * 16);
    for (int y = 0; y < 16; ++y)
        for (int x = 0; x < 80; ++x) {
            const int tile = x / 16, in = x % 16;
            const bool there = tile == 1 ? in + y >= 15 : tile == 4 ? (in % 5 == 2 && y > 4 + in % 3) : true;
            const bool plank = tile == 3 && in % 4 == 3;
            const int grain = (x * 7 + y * 13 + x * y) % 5 * 4 - 8 - (plank ? 40 : 0);
            unsigned char* p = image.rgba.data() + 4 * (y * 80 + x);
            const Paint& paint = paints[tile];
            p[0] = static_cast<unsigned char>(paint.red + grain);
            p[1] = static_cast<unsigned char>(paint.green + grain);
            p[2] = static_cast<unsigned char>(paint.blue + grain);
            p[3] = there ? 255 : 0;
        }
    return image;
}

// Seen from above there are no slopes.
std::string without_bank(std::string text) {
    const std::size_t begin = text.find("[tiles.bank]"), end = text.find("[tiles.brine]");
    return text.erase(begin, end - begin);
}

void run_new(const NewOptions& options) {
    const fs::path folder = options.folder;
    std::error_code error;
    if (fs::exists(folder, error) && (!fs::is_directory(folder, error) || !fs::is_empty(folder, error)))
        stop(misuse, fmt::format("'{}' is there already, and is no empty folder", options.folder));
    const bool side = options.view == "side";
    std::string title = "\"";
    for (const char c : options.title) {
        if (static_cast<unsigned char>(c) < 0x20) stop(misuse, "--title: a title is one line");
        title += c == '"' || c == '\\' ? std::string{'\\', c} : std::string(1, c);
    }
    const std::vector<dg::NamedBytes> files{
        {(folder / "art/shore.png").generic_string(), dg::encode_png(shore_art())},
        {(folder / "tiles/shore.tiles.toml").generic_string(),
         side ? std::string(tiles_text) : without_bank(tiles_text)},
        {(folder / "maps/shore.map.toml").generic_string(), side ? side_map : top_map},
        {(folder / "world.toml").generic_string(),
         fmt::format(fmt::runtime(world_text), fmt::arg("title", title + "\""),
                     fmt::arg("body", side ? "[10, 14], at = [0, -7]" : "[10, 6], at = [0, -3]"),
                     fmt::arg("moves", side ? side_moves : top_moves))}};
    if (const std::string fault = dg::write_files(files); !fault.empty())
        stop(misuse, fmt::format("cannot write {}", fault));
    dg::EditSession((folder / "world.toml").generic_string(), {dg::history_folder()}).forget();   // of one that stood here before
    for (const dg::NamedBytes& file : files) print(file.file + "\n");
    const std::string world = (folder / "world.toml").generic_string();
    say(fmt::format("next: dryground check {0}\n      dryground draw {0} --out shore.png\n", world));
}

}   // namespace

void add_new(CLI::App& app) {
    auto options = std::make_shared<NewOptions>();
    CLI::App* command = app.add_subcommand("new", "Make a small world to start from");
    command->add_option("DIR", options->folder, "The folder to make it in: not there yet, or empty")
        ->required()
        ->type_name("");
    command->add_option("--title", options->title, "The world's title (default: New Shore)")->type_name("TEXT");
    command->add_option("--view", options->view, "side, or top: from where play is seen (default: side)")
        ->check(CLI::IsMember({"side", "top"}))
        ->type_name("VIEW");
    command->footer("Example: dryground new my_shore --view top");
    command->callback([options] { run_new(*options); });
}

}   // namespace app

// Reading and packing, beside the parsers that lie below.
#include <fmt/format.h>

#include <map>

#include "caves.hpp"
#include "dryground/files.hpp"
#include "files/toml_internal.hpp"
#include "timing.hpp"
#include "works.hpp"

namespace bench {

using namespace dryground;

namespace {

using Files = std::map<std::string, std::string>;

constexpr const char* world_text = R"(format = "dryground/world/1"
tilesets = ["marsh.toml"]
maps = ["cave.toml"]

[barriers]
earth = {}

[movers.warden]
body = { box = [10, 14], at = [0, -7] }
stopped_by = ["earth"]

[kinds.crab]
role = "entity"
props.patrol_px = { type = "number", default = 32 }
)";
constexpr const char* tiles_text = R"(format = "dryground/tiles/1"
name = "marsh"
cell = [16, 16]

[[for]]
tiles = ["*"]
set = { unseen = true, barrier = "earth" }

[tiles.peat_top]
shapes = ["cell"]

[tiles.bank_left]
shapes = [{ polygon = [[0, 16], [16, 0], [16, 16]] }]

[tiles.stone_ledge]
shapes = [{ box = [0, 8, 16, 8] }]
)";

std::string map_text(int side, const std::string& layers) {
    return fmt::format(
        "format = \"dryground/map/1\"\nname = \"cave\"\ncell = [16, 16]\nsize = [{0}, {0}]\ntilesets = "
        "[\"marsh\"]\n\n{1}",
        side, layers);
}

FileReader reader_of(const Files& files) {
    return [&files](const std::string& path) {
        const auto found = files.find(path);
        return found == files.end() ? Result<std::string>(Failure{"there is no such file"})
                                    : Result<std::string>(found->second);
    };
}

World read(const Files& files) {
    const Result<World> loaded = load_world("world.toml", reader_of(files));
    if (!loaded) throw std::runtime_error(text(loaded.report()));
    return *loaded;
}

// What stands in a cell of a cave: nothing, or one of three tiles.
int cell_of(const std::vector<char>& cave, int side, int column, int row) {
    const auto at = static_cast<std::size_t>(row) * static_cast<std::size_t>(side) + static_cast<std::size_t>(column);
    return cave[at] == 0 ? 0 : 1 + (column * 7 + row * 13) % 3;
}

Files png_world(int side) {
    static constexpr std::array<std::array<unsigned char, 4>, 4> colours{
        {{0, 0, 0, 0}, {122, 92, 58, 255}, {90, 130, 70, 255}, {160, 102, 44, 255}}};
    const std::vector<char> cave = cave_grid(side, 5);
    Image image;
    image.width = image.height = side;
    for (int r = 0; r < side; ++r)
        for (int c = 0; c < side; ++c) {
            const auto& colour = colours[static_cast<std::size_t>(cell_of(cave, side, c, r))];
            image.rgba.insert(image.rgba.end(), colour.begin(), colour.end());
        }
    return {{"world.toml", world_text},
            {"marsh.toml", tiles_text},
            {"cave.png", encode_png(image)},
            {"cave.toml", map_text(side,
                                   "[[layers]]\nname = \"rock\"\npng = \"cave.png\"\nlegend = { \"#7a5c3a\" = "
                                   "\"peat_top\", \"#5a8246\" = \"bank_left\", \"#a0662c\" = \"stone_ledge\" }\n")}};
}

Files text_world(int side, bool csv) {
    static constexpr std::array names{"", "peat_top", "bank_left", "stone_ledge"};
    const std::vector<char> cave = cave_grid(side, 5);
    std::string cells;
    for (int r = 0; r < side; ++r) {
        for (int c = 0; c < side; ++c) {
            const int cell = cell_of(cave, side, c, r);
            if (csv)
                cells += fmt::format("{}{}", c > 0 ? "," : "", names[static_cast<std::size_t>(cell)]);
            else
                cells += ".#/_"[cell];
        }
        cells += '\n';
    }
    Files files{{"world.toml", world_text}, {"marsh.toml", tiles_text}};
    if (csv) files["cave.csv"] = cells;
    files["cave.toml"] = map_text(
        side,
        csv ? "[[layers]]\nname = \"rock\"\ncsv = \"cave.csv\"\n"
            : "legend = { \"#\" = \"peat_top\", \"/\" = \"bank_left\", \"_\" = \"stone_ledge\" }\n\n[[layers]]\nname = "
              "\"rock\"\nrows = '''\n" +
                  cells + "'''\n");
    return files;
}

Files object_world(int count) {
    std::string objects = "[[layers]]\nname = \"crabs\"\nobjects = [\n";
    for (int i = 0; i < count; ++i)
        objects +=
            fmt::format("  {{ name = \"crab_{}\", kind = \"crab\", at = [{}, {}], props = {{ patrol_px = {} }} }},\n",
                        i, i % 500 * 2, i / 500 * 16, 8 + i % 50);
    return {{"world.toml", world_text}, {"marsh.toml", tiles_text}, {"cave.toml", map_text(64, objects + "]\n")}};
}

double megabytes(const std::string& text) { return static_cast<double>(text.size()) / 1e6; }

void measure_cells(const Settings& settings, const Tell& tell) {
    if (const int side = std::min(4096, settings.most_side); wanted(settings, "read", "PNG layer")) {
        const Files files = png_world(side);
        const std::vector<double> times =
            alternate({[&] { keep(read(files)); }, [&] { keep(decode_png(files.at("cave.png"))); }});
        tell({"read", fmt::format("PNG layer {}", side), times[0], {{"libpng alone", times[1]}}, {}});
    }
    for (const bool csv : {true, false})
        if (const int side = std::min(2048, settings.most_side); wanted(settings, "read", csv ? "CSV layer" : "rows")) {
            const Files files = text_world(side, csv);
            const std::string& bytes = files.at(csv ? "cave.csv" : "cave.toml");
            const std::vector<double> times = alternate({[&] { keep(read(files)); },
                                                         [&] {
                                                             std::size_t lines = 0;
                                                             for (const char c : bytes) lines += c == '\n' || c == ',';
                                                             keep(lines);
                                                         }});
            tell({"read",
                  fmt::format("{} {}", csv ? "CSV layer" : "rows", side),
                  times[0],
                  {{"one look at each byte", times[1]}},
                  fmt::format("{:.0f} MB/s, {:.0f} million cells a second", megabytes(bytes) / times[0],
                              side * side / times[0] / 1e6)});
        }
}

}   // namespace

void measure_files(const Settings& settings, const Tell& tell) {
    measure_cells(settings, tell);
    if (wanted(settings, "read", "10,000 objects")) {
        const Files files = object_world(10'000);
        const std::vector<double> times = alternate({[&] { keep(read(files)); },
                                                     [&] {
                                                         const toml::parse_result parsed =
                                                             toml::parse(files.at("cave.toml"));
                                                         keep(parsed.succeeded());
                                                     }});
        tell({"read", "10,000 objects", times[0], {{"toml++ alone", times[1]}}, {}});
    }
    for (const int side : {256, 1024})
        if (side <= settings.most_side && wanted(settings, "load pack", "CBOR")) {
            const Files files = text_world(side, false);
            PackOutput output;
            output.format = PackFormat::cbor;
            const std::string pack = pack_bytes(read(files), output);
            const std::vector<double> times = alternate({[&] { keep(static_cast<bool>(read_pack(pack))); },
                                                         [&] {
                                                             const World world = read(files);
                                                             keep(merge(world, world.maps()[0]));
                                                         }});
            tell({"load pack",
                  fmt::format("CBOR {}", side),
                  times[0],
                  {{"reading and merging its text", times[1]}},
                  fmt::format("{:.1f} MB", megabytes(pack))});
        }
}

}   // namespace bench

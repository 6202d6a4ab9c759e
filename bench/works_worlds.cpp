// Worlds of many maps, and maps of many objects: one of them edited, and all of them checked.
#include <fmt/format.h>

#include <cmath>
#include <map>
#include <random>

#include "dryground/check.hpp"
#include "dryground/edit.hpp"
#include "timing.hpp"
#include "works.hpp"

namespace bench {

using namespace dryground;

namespace {

using Files = std::map<std::string, std::string>;

// The tile set and the names of all of these worlds.
WorldBuilder begun() {
    WorldBuilder builder;
    MoverDraft warden{.name = "warden", .stopped_by = {"earth"}};
    warden.body.form = BoxPx{0, 0, 10, 14};
    builder.world({.title = "Sedge Point",
                   .barriers = {{.name = "earth"}},
                   .movers = {warden},
                   .kinds = {{.name = "shell", .role = Located<std::string>("entity")}}});
    builder.tileset({.name = "marsh",
                     .tiles = {{.name = "peat", .unseen = true, .barrier = "earth", .shapes = {{{WholeCell{}}}}}}});
    return builder;
}
MapDraft map_of(const std::string& name, int columns, int rows, std::mt19937& dice) {
    LayerDraft ground{.name = "ground"};
    for (int r = 0; r < rows; ++r) {
        std::string row;
        for (int c = 0; c < columns; ++c) row += r + 1 == rows || dice() % 5 == 0 ? '#' : '.';
        ground.rows.emplace_back(row);
    }
    return {.name = name,
            .size = std::array{columns, rows},
            .rim = "earth",
            .tilesets = {"marsh"},
            .legend = {{.key = "#", .tile = "peat"}},
            .layers = {std::move(ground)}};
}
Files files_of(const WorldBuilder& builder) {
    Files files;
    for (NamedBytes& file : *world_files(builder)) files[file.file] = std::move(file.bytes);
    return files;
}
FileReader reader_of(const Files& files) {
    return [&files](const std::string& path) {
        const auto found = files.find(path);
        return found == files.end() ? Result<std::string>(Failure{"there is no such file"})
                                    : Result<std::string>(found->second);
    };
}

Files many_maps(int count) {
    std::mt19937 dice(7);
    WorldBuilder builder = begun();
    for (int i = 0; i < count; ++i) builder.map(map_of(fmt::format("map_{}", i), 20, 12, dice));
    return files_of(builder);
}

// In open cells of one map, each with a name.
WorldBuilder many_objects(int count, bool with_objects) {
    std::mt19937 dice(7);
    WorldBuilder builder = begun();
    const int side = 1 + static_cast<int>(std::sqrt(2.0 * count));
    MapDraft map = map_of("flat", side, side, dice);
    LayerDraft people{.name = "people", .holds_objects = true};
    int made = 0;
    for (int r = 0; r < side && with_objects; ++r)
        for (int c = 0; c < side && made < count; ++c)
            if (map.layers[0].rows[static_cast<std::size_t>(r)].value[static_cast<std::size_t>(c)] == '.')
                people.objects.push_back({.name = fmt::format("shell_{}", made++),
                                          .kind = "shell",
                                          .form = PointPx{16.0 * c + 8, 16.0 * r + 8}});
    map.layers.push_back(std::move(people));
    builder.map(std::move(map));
    return builder;
}

void measure_edit(const std::string& input, const Files& files, const EditMap& edit, const Tell& tell) {
    const FileReader reader = reader_of(files);
    std::size_t changed = 0;
    const std::vector<double> times = alternate({[&] { changed = make_edit("world.toml", edit, reader)->changed; },
                                                 [&] { keep(load_world("world.toml", reader)->maps().size()); }});
    tell({.work = "edit files",
          .input = input,
          .seconds = times[0],
          .peers = {{"reading the world", times[1]}},
          .note = fmt::format("{} changed", changed)});
}

}   // namespace

void measure_worlds(const Settings& settings, const Tell& tell) {
    for (const int maps : {200, 2'000})
        if (const std::string input = fmt::format("a cell of one of {} maps", maps);
            wanted(settings, "edit files", input))
            measure_edit(input, many_maps(maps), {"map_7", PaintCells{"ground", "peat", {{3, 3}, {4, 3}}}}, tell);
    for (const int objects : {2'000, 20'000, 200'000}) {
        if (const std::string input = fmt::format("one of {} objects", objects); wanted(settings, "edit files", input))
            measure_edit(input, files_of(many_objects(objects, true)), {"flat", MoveObject{"shell_7", PointPx{24, 24}}},
                         tell);
        const std::string input = fmt::format("{} objects", objects);
        if (!wanted(settings, "check", input)) continue;
        const World world = *many_objects(objects, true).build(), bare = *many_objects(objects, false).build();
        std::size_t findings = 0;
        const std::vector<double> times = alternate(
            {[&] { findings = check(world).findings().size(); }, [&] { keep(check(bare).findings().size()); }});
        tell(
            {.work = "check",
             .input = input,
             .seconds = times[0],
             .peers = {{"without them", times[1]}},
             .note = fmt::format("{:.1f} us an object, {} findings", (times[0] - times[1]) / objects * 1e6, findings)});
    }
}

}   // namespace bench

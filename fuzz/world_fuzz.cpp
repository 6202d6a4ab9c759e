// Reading, checking, merging, editing and saving any bytes: no crash, no hang; a world or errors, never both or
// neither.
//
// Input: files after each other, parted by lines of four dashes: the world, its tile set, its map, and what the map
// names as data.csv, data.png or data.svg.
#include <cstdint>
#include <cstdlib>
#include <filesystem>
#include <map>

#include "dryground/check.hpp"
#include "dryground/edit.hpp"

using namespace dryground;

namespace {

// Each sort of edit once, anywhere: what comes out must be read as well as what went in.
void edit_all(const World& world, const FileReader& reader, std::size_t seed) {
    const Map& map = world.maps().front();
    const int column = map.first_column + static_cast<int>(seed) % map.columns,
              row = map.first_row + static_cast<int>(seed / 7) % map.rows;
    const std::string tile = world.tilesets().empty() || world.tilesets()[0].tiles.empty()
                                 ? ""
                                 : world.tilesets()[0].name + "/" + world.tilesets()[0].tiles[0].name;
    const std::string object = map.objects.empty() ? "" : map.objects.back().name;
    for (const MapEdit& edit :
         std::initializer_list<MapEdit>{PaintCells{"", tile, {{column, row}}}, FillCells{"", tile, {column, row}},
                                        MoveObject{object, PointPx{16, 16}, true}, DropObject{object},
                                        ResizeMap{map.columns + 1, map.rows > 1 ? map.rows - 1 : 2, Keep::bottom_right},
                                        ShiftMap{1, -1}, AddObject{"", "another", "spawn", Cell{column, row}}}) {
        const Result<Edited> edited = make_edit("world.toml", EditMap{map.name, edit}, reader);
        if (!edited.fault().empty() && !edited->files.empty()) std::abort();
    }
}

}   // namespace

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size > 1 << 16) return 0;
    std::string_view rest(reinterpret_cast<const char*>(data), size);
    std::map<std::string, std::string> files;
    for (const char* name : {"world.toml", "tiles.toml", "map.toml", "data"}) {
        constexpr std::string_view mark = "\n----\n";
        const std::size_t end = rest.find(mark);
        files[name] = std::string(rest.substr(0, end));
        rest = end == std::string_view::npos ? std::string_view() : rest.substr(end + mark.size());
    }
    const FileReader reader = [&](const std::string& path) {
        const auto found = files.find(std::filesystem::path(path).stem() == "data" ? "data" : path);
        return found == files.end() ? Result<std::string>(Failure{"there is no such file"})
                                    : Result<std::string>(found->second);
    };
    const Result<WorldDrafts> drafts = load_drafts("world.toml", reader);
    const Result<World> loaded = drafts ? drafts->builder.build() : drafts.failure();
    if (static_cast<bool>(loaded) == loaded.report().has(Severity::error)) std::abort();
    if (!loaded) return 0;
    std::size_t cells = 0;
    for (const Map& map : loaded->maps())
        cells += static_cast<std::size_t>(map.columns) * static_cast<std::size_t>(map.rows);
    if (cells > 1 << 16) return 0;   // slow is not wrong
    const Report report = check(*loaded);
    std::vector<Merge> merges;
    for (const Map& map : loaded->maps()) merges.push_back(merge(*loaded, map));
    (void)text(report);
    (void)report_json(report, loaded->title());
    (void)merge_bytes(*loaded, merges, {.forms = {MergeForm::regions, MergeForm::chains, MergeForm::pieces}});
    if (cells > 1 << 10 || loaded->maps().empty()) return 0;
    if (const Result<std::vector<NamedBytes>> saved = world_files(drafts->builder);
        !saved && !saved.report().has(Severity::error))
        std::abort();
    edit_all(*loaded, reader, size);
    return 0;
}

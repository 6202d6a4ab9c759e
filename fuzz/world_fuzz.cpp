// Reading, checking and merging any bytes: no crash, no hang; a world or errors, never both or neither.
//
// Input: three files after each other, parted by lines of four dashes: the world, its tile set, its map.
#include <cstdint>
#include <cstdlib>
#include <map>

#include "dryground/check.hpp"
#include "dryground/files.hpp"

using namespace dryground;

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* data, std::size_t size) {
    if (size > 1 << 16) return 0;
    std::string_view rest(reinterpret_cast<const char*>(data), size);
    std::map<std::string, std::string> files;
    for (const char* name : {"world.toml", "tiles.toml", "map.toml"}) {
        constexpr std::string_view mark = "\n----\n";
        const std::size_t end = rest.find(mark);
        files[name] = std::string(rest.substr(0, end));
        rest = end == std::string_view::npos ? std::string_view() : rest.substr(end + mark.size());
    }
    const Loaded loaded = load_world("world.toml", [&](const std::filesystem::path& path) {
        const auto found = files.find(path.generic_string());
        return found == files.end() ? FileBytes{{}, "there is no such file"} : FileBytes{found->second, {}};
    });
    if (static_cast<bool>(loaded) == loaded.report().has(Severity::error)) std::abort();
    if (!loaded) return 0;
    std::size_t cells = 0;
    for (const Map& map : loaded.world().maps())
        cells += static_cast<std::size_t>(map.columns) * static_cast<std::size_t>(map.rows);
    if (cells > 1 << 16) return 0;   // slow is not wrong
    const Report report = check(loaded.world());
    std::vector<Merge> merges;
    for (const Map& map : loaded.world().maps()) merges.push_back(merge(loaded.world(), map));
    (void)text(report);
    (void)report_json(report, loaded.world().title());
    (void)merge_bytes(loaded.world(), merges, {.regions = true});
    return 0;
}

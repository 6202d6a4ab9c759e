// Pictures of maps: art, grid, merged outlines, flags, objects with names, findings. For people; nothing is told by
// colour alone (hatching, letters, marks and numbers say the same).
//
// Units: one px of the map is `scale` px of the picture. Threads: free functions without shared state.
#pragma once

#include <filesystem>
#include <optional>
#include <string>
#include <string_view>

#include "dryground/files.hpp"
#include "dryground/report.hpp"
#include "dryground/world.hpp"

namespace dryground {

struct Show {
    bool art = true, grid = true, merged = true, pieces = false, flags = false, objects = true, findings = true;
};
[[nodiscard]] std::optional<Show> show_from(const std::vector<std::string>& names,
                                            std::string& unknown);   // the first unknown name
[[nodiscard]] std::vector<std::string> show_names();

struct DrawOptions {
    Show show{};
    int scale = 0;   // 1 to 16; 0 picks one so that the picture is about 1300 px wide
};

// Where the pictures of tiles and kinds are: the world file's folder, and how to read there. A picture that cannot be
// read is left out.
struct ArtSource {
    std::filesystem::path folder;
    FileReader reader = read_file;
};

// One map as SVG 1.1, art included as data. Of `report` the findings of this map are marked and listed.
[[nodiscard]] std::string draw_svg(const World& world, const Map& map, const Report& report, const ArtSource& art,
                                   const DrawOptions& options = {});

// A picture of an SVG as PNG bytes; empty, with the reason in `fault`, when that cannot be made.
[[nodiscard]] std::string png_from_svg(std::string_view svg, std::string& fault);

}   // namespace dryground

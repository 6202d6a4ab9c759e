// Mistakes of meaning, as tables of single changes to the demo world.
#pragma once

#include "mistakes.hpp"

namespace mistakes {

inline constexpr const char* world = "world.toml";
inline constexpr const char* marsh = "tiles/marsh.tiles.toml";
inline constexpr const char* station = "tiles/station.tiles.toml";
inline constexpr const char* slipway = "maps/slipway.map.toml";
inline constexpr const char* pump_house = "maps/pump_house.map.toml";

// One change of one file, the rules that name it, and words of the line where it is to be reported: those of the new
// text unless given; "file|words" if it is in another file.
struct Row {
    const char* sort;
    const char* file;
    std::string from, to;
    std::vector<Rule> rules;
    std::vector<std::string> told_at{};
};

[[nodiscard]] std::vector<Row> of_shapes();
[[nodiscard]] std::vector<Row> of_art_and_grids();
[[nodiscard]] std::vector<Row> of_rows();
[[nodiscard]] std::vector<Row> of_objects();
[[nodiscard]] std::vector<Row> of_links_and_facts();

}   // namespace mistakes

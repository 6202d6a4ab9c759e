// Small worlds to start from: a shore with a pool, a boardwalk over it, shells to pick up and a beacon to reach.
#pragma once

#include <string>
#include <vector>

#include "dryground/files.hpp"

namespace app {

enum class StarterView { side, top, isometric };

struct StarterOptions {
    StarterView view = StarterView::side;
    std::string title;   // as TOML text, quotes included
    int cell = 16;       // px: a cell's height, and its width, of which a diamond has twice as much
    int columns = 24, rows = 10;
};
inline constexpr int least_columns = 20, least_rows = 8;   // large enough for everything

// Returns the files, relative to the world's folder. They check clean, and the beacon can be reached.
[[nodiscard]] std::vector<dryground::NamedBytes> starter_files(const StarterOptions& options);

// Returns its tiles' pictures side by side: columns of `cell` px (for diamonds twice as wide), in this order.
inline constexpr const char* starter_tiles[] = {"turf", "peat", "bank", "brine", "boardwalk", "reeds", "marsh"};
[[nodiscard]] dryground::Image starter_art(StarterView view, int cell);
[[nodiscard]] dryground::Image beacon_art(int cell);
[[nodiscard]] dryground::Image shell_art(int cell);
[[nodiscard]] dryground::Image warden_art(int cell);

}   // namespace app

// Tile sets from art: what a sheet's grid is, pictures packed into a sheet, and the tile set file that names them.
//
// Made once more for the same file, it keeps every character that somebody wrote: tiles are told by their place in the
// sheet, then by their name, and only what is new is added. Nothing is written here. Threads: free functions without
// shared state.
#pragma once

#include <array>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "dryground/result.hpp"
#include "dryground/vocabulary.hpp"

namespace dryground {

// How a sheet is cut into cells, px.
struct SheetGrid {
    std::array<int, 2> cell{}, margin{}, gap{};
    int columns = 0, rows = 0;
    std::string why;   // for people: what speaks for it
};

// What is known of a sheet's grid beforehand.
struct GridKnown {
    std::optional<std::array<int, 2>> cell{}, margin{}, gap{};
};

// The grid that fits a picture best: its cells fill it; margins and gaps are clear; and its colours change more across
// the cells' borders than elsewhere. Nothing when no grid of at least two cells fits. Cost: a few steps a pixel for
// each grid that could be.
[[nodiscard]] std::optional<SheetGrid> guess_grid(const Image& sheet, const GridKnown& known = {});

// The colour that means empty in a picture without any transparent pixel: one that is in all four corners, on a
// twentieth of the picture or more, and glaring (every channel empty or full, as in `#ff00ff`). Nothing where there is
// none.
[[nodiscard]] std::optional<Colour> guess_clear(const Image& image);

// Whether all of a cell's pixels are clear.
[[nodiscard]] bool is_empty_cell(const Image& sheet, const SheetGrid& grid, int column, int row);

struct NamedPicture {
    std::string name;   // of the tile: lower_snake_case
    std::string file;   // relative to the tile set's folder
    Image image;
};

struct TilesOptions {
    std::string name;         // of the tile set
    std::string sheet_file;   // relative to the tile set's folder
    std::string barrier{};    // of the new tiles; empty: they say none
    bool trace = false;       // propose shapes, for tiles that say none too: the cell for what fills it, else the
                              // outline of the art
    std::optional<Colour> clear{};   // that is written as the sheet's; its pixels are clear already
    GridKnown known{};
    std::vector<std::string> names{};   // of the new tiles of a sheet, row by row, empty cells passed over
    std::string pattern = "*";          // only tiles whose names match are added, or given shapes
};

struct TilesFromArt {
    std::string text;                    // of the tile set file
    std::optional<Image> sheet;          // of packed pictures
    std::vector<std::string> told;       // what was found, added, left out, and what went; for people
    std::size_t added = 0, shaped = 0;   // tiles that came; those that were there and got their shapes
};

// A tile for each cell of a sheet that is not empty. `before`: the tile set file as it is, empty where there is none.
// Where the size of a cell is known and the file says another, the file is corrected.
[[nodiscard]] Result<TilesFromArt> tiles_from_sheet(const Image& sheet, const TilesOptions& options,
                                                    const std::string& before = {});

// A tile for each picture. Those of the commonest size are packed into a sheet, each with its edge pixels once more
// around it, so that nothing of its neighbours shows when it is drawn scaled; each keeps its place when it is made
// again. Others are tiles with a picture of their own, and those that are sheets themselves are left out.
[[nodiscard]] Result<TilesFromArt> tiles_from_pictures(const std::vector<NamedPicture>& pictures,
                                                       const TilesOptions& options, const std::string& before = {});

// A tile's name made from a file's: "Wet Sand-2.png" to wet_sand_2.
[[nodiscard]] std::string tile_name(std::string_view file);

}   // namespace dryground

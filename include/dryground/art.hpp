// Tile sets from art: guesses the grid of a sheet, packs pictures into a sheet, and makes the tile set file that names
// them.
//
// Updating an existing file keeps all text that was written by hand: tiles are identified by their place in the sheet,
// then by name, and only new ones are added. Nothing is written to disk here. Threads: free functions without shared
// state.
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
    std::string why;   // for people: the reasons for it
};

// Known parts of a sheet's grid.
struct GridKnown {
    std::optional<std::array<int, 2>> cell{}, margin{}, gap{};
};

// Guesses the grid of a sheet: its cells fill the picture, margins and gaps are clear, and colours change more across
// the borders of cells than elsewhere. Returns nothing if no grid of at least two cells fits. Cost: a few steps per
// pixel for each possible grid.
[[nodiscard]] std::optional<SheetGrid> guess_grid(const Image& sheet, const GridKnown& known = {});

// Guesses the transparent colour of a picture without any transparent pixel: one that is in all four corners, covers a
// twentieth of the picture or more, and is glaring (every channel 0 or 255, as in `#ff00ff`). Returns nothing if no
// colour is like that.
[[nodiscard]] std::optional<Colour> guess_clear(const Image& image);

// Returns whether all pixels of a cell are clear.
[[nodiscard]] bool is_empty_cell(const Image& sheet, const SheetGrid& grid, int column, int row);

struct NamedPicture {
    std::string name;   // of the tile: lower_snake_case
    std::string file;   // relative to the tile set's folder
    Image image;
};

struct TilesOptions {
    std::string name;         // of the tile set
    std::string sheet_file;   // relative to the tile set's folder
    std::string barrier{};    // of new tiles; empty: none
    bool trace = false;       // propose shapes, also for existing tiles without: the cell if the art fills it, else
                              // the outline of the art
    std::optional<Colour> clear{};   // written as the transparent colour of the sheet; its pixels are already clear
    GridKnown known{};
    std::vector<std::string> names{};   // of new tiles of a sheet, row by row, without empty cells
    std::string pattern = "*";          // only tiles whose names match are added, or given shapes
};

struct TilesFromArt {
    std::string text;                    // of the tile set file
    std::optional<Image> sheet;          // of packed pictures
    std::vector<std::string> told;       // for people: what was found, added, skipped and removed
    std::size_t added = 0, shaped = 0;   // new tiles; existing tiles that got shapes
};

// Makes a tile for each cell of a sheet that is not empty. `before`: the existing tile set file; empty if there is
// none. If the cell size is given and the file has another, the file is corrected.
[[nodiscard]] Result<TilesFromArt> tiles_from_sheet(const Image& sheet, const TilesOptions& options,
                                                    const std::string& before = {});

// Makes a tile for each picture. Pictures of the most common size are packed into a sheet, each surrounded by a copy of
// its edge pixels, so that no neighbour shows when it is drawn scaled; each keeps its place in later runs. Others
// become tiles with a picture of their own; pictures that are themselves sheets are skipped.
[[nodiscard]] Result<TilesFromArt> tiles_from_pictures(const std::vector<NamedPicture>& pictures,
                                                       const TilesOptions& options, const std::string& before = {});

// Converts a file name to a tile name: "Wet Sand-2.png" to wet_sand_2.
[[nodiscard]] std::string tile_name(std::string_view file);

}   // namespace dryground

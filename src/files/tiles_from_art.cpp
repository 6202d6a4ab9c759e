// The tile set file for art: written from nothing, or new tiles added to the existing one.

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

#include "dryground/art.hpp"
#include "dryground/text.hpp"
#include "reading_internal.hpp"
#include "text_tables_internal.hpp"
#include "toml_words_internal.hpp"
#include "writing_internal.hpp"

namespace dryground {

namespace {

using files::TextEdits;
using Place2 = std::array<int, 2>;

// A tile that exists already.
struct Known {
    std::string name;
    std::optional<Place2> art;
    bool has_picture = false;
    const toml::table* undecided = nullptr;   // if it has neither shapes nor `like`
};

// The existing tile set file.
struct Before {
    std::optional<toml::table> tree;
    std::vector<Known> tiles;
    std::string fault;

    [[nodiscard]] const Known* by_art(const Place2& art) const {
        for (const Known& tile : tiles)
            if (tile.art == art) return &tile;
        return nullptr;
    }
    [[nodiscard]] const Known* by_name(const std::string& name) const {
        for (const Known& tile : tiles)
            if (tile.name == name) return &tile;
        return nullptr;
    }
};

Before parse(const std::string& text) {
    Before before;
    if (text.empty()) return before;
    toml::parse_result parsed = toml::parse(text);
    if (!parsed) {
        const toml::source_position& at = parsed.error().source().begin;
        const Place place{"", static_cast<int>(at.line), static_cast<int>(at.column), {}};
        before.fault = fmt::format("the tile set file has a mistake in line {}: {}", place.line,
                                   files::syntax_words(parsed.error().description(), text, place).what);
        return before;
    }
    before.tree = std::move(parsed).table();
    if ((*before.tree)["format"].value_or(std::string()) != "dryground/tiles/1") {
        before.fault = "the existing file is not a tile set";
        return before;
    }
    if (const toml::table* tiles = (*before.tree)["tiles"].as_table())
        for (const auto& [name, node] : *tiles) {
            Known tile{std::string(name.str()), {}, false};
            if (const toml::table* table = node.as_table()) {
                if (const toml::array* art = (*table)["art"].as_array(); art != nullptr && art->size() == 2)
                    tile.art = Place2{(*art)[0].value_or(-1), (*art)[1].value_or(-1)};
                tile.has_picture = table->contains("picture");
                if (!table->contains("shapes") && !table->contains("like")) tile.undecided = table;
            }
            before.tiles.push_back(std::move(tile));
        }
    return before;
}

// Returns what stands in a cell: nothing clear in it, or something.
bool is_full_cell(const Image& sheet, const SheetGrid& grid, const Place2& art) {
    const int left = grid.margin[0] + art[0] * (grid.cell[0] + grid.gap[0]);
    const int top = grid.margin[1] + art[1] * (grid.cell[1] + grid.gap[1]);
    for (int y = top; y < top + grid.cell[1]; ++y)
        for (int x = left; x < left + grid.cell[0]; ++x)
            if (sheet.rgba[4 * (static_cast<std::size_t>(y) * static_cast<std::size_t>(sheet.width) +
                                static_cast<std::size_t>(x)) +
                           3] < 128)
                return false;
    return true;
}

TileDraft new_tile(const std::string& name, const std::optional<Place2>& art, bool full, const TilesOptions& options) {
    TileDraft tile;
    tile.name = Name(name);
    if (art) tile.art = Located<Place2>(*art);
    if (!options.trace) return tile;
    if (!options.barrier.empty()) tile.barrier = Name(options.barrier);
    ShapeDraft shape;
    if (!full) shape.form = Traced{};
    tile.shapes = {shape};
    return tile;
}

std::string pair_toml(const Place2& pair) { return fmt::format("[{}, {}]", pair[0], pair[1]); }

// Returns the file with new tiles at its end, and its present sheet.
std::string with_tiles(const std::string& text, const Before& before, const TileSetDraft& set,
                       const std::vector<TileDraft>& shaped) {
    TextEdits edits(text);
    for (const TileDraft& tile : shaped) {
        const toml::table& table = *before.by_name(tile.name.value)->undecided;
        if (tile.barrier && !table.contains("barrier"))
            files::append_entry(edits, table,
                                fmt::format("barrier = {}", files::toml_text::in_quotes(tile.barrier->value)));
        files::append_entry(edits, table, "shapes = " + files::shapes_toml(*tile.shapes));
    }
    if (const toml::node* cell = before.tree->get("cell"); set.cell.value != Place2{0, 0} && cell != nullptr)
        if (const std::string now = pair_toml(set.cell.value),
            was = edits.text().substr(edits.offset(cell->source().begin),
                                      edits.offset(cell->source().end) - edits.offset(cell->source().begin));
            toml::parse("v = " + was).table() != toml::parse("v = " + now).table())
            edits.replace(*cell, now);
    TileSetDraft only_tiles;
    only_tiles.tiles = set.tiles;
    std::string more = files::tileset_toml(only_tiles, "");
    more = set.tiles.empty() ? "" : more.substr(more.find("\n[tiles."));   // what comes before is written already
    if (edits.line_break() != "\n")
        for (std::size_t at = 0; (at = more.find('\n', at)) != std::string::npos; at += 2) more.insert(at, "\r");
    const bool ends_its_line = text.empty() || text.back() == '\n';
    if (!more.empty()) edits.insert(text.size(), (ends_its_line ? "" : edits.line_break()) + more);
    if (!set.sheet) return edits.result();
    const toml::table* sheet = (*before.tree)["sheet"].as_table();
    if (sheet == nullptr) {
        const toml::node* cell = before.tree->get("cell");
        const std::string said =
            fmt::format("sheet = {{ file = {}, margin = {}, gap = {} }}", files::toml_text::in_quotes(set.sheet->file),
                        pair_toml(set.sheet->margin), pair_toml(set.sheet->gap));
        if (cell != nullptr) edits.insert(edits.line_end(edits.offset(cell->source().end)), edits.line_break() + said);
        return edits.result();
    }
    std::string missing;
    for (const auto& [key, pair] : {std::pair{"margin", set.sheet->margin}, std::pair{"gap", set.sheet->gap}}) {
        const toml::array* is = (*sheet)[key].as_array();
        const Place2 said =
            is != nullptr && is->size() == 2 ? Place2{(*is)[0].value_or(0), (*is)[1].value_or(0)} : Place2{};
        if (said == pair) continue;
        if (is != nullptr)
            edits.replace(*is, pair_toml(pair));
        else
            missing += fmt::format(", {} = {}", key, pair_toml(pair));
    }
    if (const toml::node* file = sheet->get("file"); !missing.empty() && file != nullptr && sheet->is_inline())
        edits.insert(edits.offset(file->source().end), missing);
    return edits.result();
}

// Puts the pieces together: the new tiles into the existing file, or into a new one.
void write(TilesFromArt& result, const std::string& text, const Before& before, const TileSetDraft& set,
           const std::vector<TileDraft>& shaped = {}) {
    result.added = set.tiles.size(), result.shaped = shaped.size();
    result.text = before.tree ? with_tiles(text, before, set, shaped) : files::tileset_toml(set, "");
    std::vector<std::string> names;
    for (const TileDraft& tile : set.tiles) names.push_back(tile.name.value);
    if (before.tree && !names.empty()) result.told.push_back(fmt::format("added: {}", fmt::join(names, ", ")));
}

std::string free_name(const Before& before, std::set<std::string>& taken, const std::string& wanted) {
    std::string name = wanted;
    for (int n = 2; before.by_name(name) != nullptr || taken.count(name) > 0; ++n)
        name = fmt::format("{}_{}", wanted, n);
    taken.insert(name);
    return name;
}

// Copies a picture, with its edge pixels repeated once around it, into the sheet.
void put(Image& sheet, const Image& picture, int left, int top) {
    for (int y = -1; y <= picture.height; ++y)
        for (int x = -1; x <= picture.width; ++x) {
            const int from_x = std::clamp(x, 0, picture.width - 1), from_y = std::clamp(y, 0, picture.height - 1);
            const std::size_t from = 4 * (static_cast<std::size_t>(from_y) * static_cast<std::size_t>(picture.width) +
                                          static_cast<std::size_t>(from_x));
            const std::size_t to = 4 * (static_cast<std::size_t>(top + y) * static_cast<std::size_t>(sheet.width) +
                                        static_cast<std::size_t>(left + x));
            std::copy_n(picture.rgba.begin() + static_cast<std::ptrdiff_t>(from), 4,
                        sheet.rgba.begin() + static_cast<std::ptrdiff_t>(to));
        }
}

Place2 commonest_size(const std::vector<NamedPicture>& pictures) {
    std::map<Place2, int> counts;
    for (const NamedPicture& picture : pictures) ++counts[{picture.image.width, picture.image.height}];
    // Of those equally common, the smallest: larger ones may be sheets of it.
    return std::max_element(counts.begin(), counts.end(),
                            [](const auto& a, const auto& b) { return a.second < b.second; })
        ->first;
}

// Returns the grid of a picture that is itself a sheet of such cells, with margin and gap or without: four of them or
// more.
std::optional<SheetGrid> sheet_of(const Image& image, const Place2& cell) {
    auto grid = guess_grid(image, {cell, {}, {}});
    return grid && grid->columns * grid->rows >= 4 ? std::move(grid) : std::nullopt;
}

// Where pictures lie in the sheet that is made of them.
class Packing {
public:
    Packing(const Before& before, const Place2& cell, std::size_t count) : before_(before) {
        grid.cell = cell;
        grid.margin = {1, 1};
        grid.gap = {2, 2};
        grid.columns = std::max(1, static_cast<int>(std::ceil(std::sqrt(static_cast<double>(count)))));
        for (const Known& tile : before.tiles)
            if (tile.art) {
                taken_.insert(*tile.art);
                grid.columns = std::max(grid.columns, (*tile.art)[0] + 1);
            }
    }
    Place2 place_of(const std::string& name) {
        const Known* known = before_.by_name(name);
        Place2 place = known != nullptr && known->art ? *known->art : next_free();
        grid.rows = std::max(grid.rows, place[1] + 1);
        return place;
    }

    SheetGrid grid;

private:
    Place2 next_free() {
        for (int n = 0;; ++n)
            if (const Place2 place{n % grid.columns, n / grid.columns}; taken_.insert(place).second) return place;
    }
    const Before& before_;
    std::set<Place2> taken_;
};

}   // namespace

std::string tile_name(std::string_view file) {
    file = file.substr(file.rfind('/') == std::string_view::npos ? 0 : file.rfind('/') + 1);
    file = file.substr(0, file.rfind('.'));
    std::string name;
    for (const char c : file) {
        const bool letter = (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9'), large = c >= 'A' && c <= 'Z';
        if (letter)
            name += c;
        else if (large)
            name += static_cast<char>(c - 'A' + 'a');
        else if (!name.empty() && name.back() != '_')
            name += '_';
    }
    while (!name.empty() && name.back() == '_') name.pop_back();
    if (name.empty() || (name[0] >= '0' && name[0] <= '9')) name = "tile_" + name;
    while (!name.empty() && name.back() == '_') name.pop_back();
    return name;
}

Result<TilesFromArt> tiles_from_sheet(const Image& sheet, const TilesOptions& options, const std::string& text) {
    TilesFromArt result;
    const Before before = parse(text);
    if (!before.fault.empty()) return Failure{before.fault};
    GridKnown sure = options.known;   // what the file declares is not a guess
    if (!sure.cell && before.tree)
        if (const toml::array* cell = (*before.tree)["cell"].as_array(); cell != nullptr && cell->size() == 2)
            sure.cell = Place2{(*cell)[0].value_or(0), (*cell)[1].value_or(0)};
    const auto grid = guess_grid(sheet, sure);
    if (!grid)
        return Failure{fmt::format("no grid fits a sheet of {} x {} px: use --cell, --margin and --gap", sheet.width,
                                   sheet.height)};
    result.told.push_back(grid->why);
    TileSetDraft set;
    set.name = Name(options.name);
    set.cell = Located<Place2>(grid->cell);
    set.sheet.emplace();
    set.sheet->file = options.sheet_file;
    set.sheet->margin = grid->margin, set.sheet->gap = grid->gap;
    set.sheet->clear = options.clear;
    std::set<std::string> taken;
    std::vector<TileDraft> shaped;
    std::size_t full_cells = 0;
    int empty = 0;
    for (int row = 0; row < grid->rows; ++row)
        for (int column = 0; column < grid->columns; ++column) {
            const Place2 art{column, row};
            const Known* known = before.by_art(art);
            if (is_empty_cell(sheet, *grid, column, row)) {
                ++empty;
                if (known != nullptr)
                    result.told.push_back(
                        fmt::format("gone: the art of '{}' at [{}, {}] is empty now", known->name, column, row));
                continue;
            }
            const std::string wanted =
                full_cells < options.names.size() ? options.names[full_cells] : fmt::format("tile_{}_{}", column, row);
            ++full_cells;
            const bool full = is_full_cell(sheet, *grid, art);
            if (known == nullptr && matches_pattern(options.pattern, wanted))
                set.tiles.push_back(new_tile(free_name(before, taken, wanted), art, full, options));
            else if (known != nullptr && known->undecided != nullptr && options.trace &&
                     matches_pattern(options.pattern, known->name))
                shaped.push_back(new_tile(known->name, art, full, options));
        }
    for (const Known& tile : before.tiles)
        if (tile.art && ((*tile.art)[0] >= grid->columns || (*tile.art)[1] >= grid->rows))
            result.told.push_back(fmt::format("gone: the art of '{}' at [{}, {}] lies outside the sheet now", tile.name,
                                              (*tile.art)[0], (*tile.art)[1]));
    if (empty > 0) result.told.push_back(fmt::format("{} empty cells are passed over", empty));
    if (!options.names.empty() && options.names.size() != full_cells)
        result.told.push_back(
            fmt::format("{} names were said for {} cells that are not empty", options.names.size(), full_cells));
    write(result, text, before, set, shaped);
    return result;
}

Result<TilesFromArt> tiles_from_pictures(const std::vector<NamedPicture>& pictures, const TilesOptions& options,
                                         const std::string& text) {
    TilesFromArt result;
    const Before before = parse(text);
    if (!before.fault.empty()) return Failure{before.fault};
    if (pictures.empty()) return Failure{"there are no pictures"};
    const Place2 cell = options.known.cell.value_or(commonest_size(pictures));
    Packing packing(before, cell, pictures.size());
    TileSetDraft set;
    set.name = Name(options.name);
    set.cell = Located<Place2>(cell);
    std::set<std::string> seen;
    std::vector<std::pair<const NamedPicture*, Place2>> packed;
    for (const NamedPicture& picture : pictures) {
        const Place2 size{picture.image.width, picture.image.height};
        if (const auto grid = size != cell ? sheet_of(picture.image, cell) : std::nullopt) {
            result.told.push_back(fmt::format("left out: '{}' is itself a sheet, of {} x {} cells", picture.file,
                                              grid->columns, grid->rows));
            continue;
        }
        if (!seen.insert(picture.name).second) {
            result.told.push_back(fmt::format("left out: '{}' would be another '{}'", picture.file, picture.name));
            continue;
        }
        const Known* known = before.by_name(picture.name);
        if (size == cell) {
            packed.emplace_back(&picture, packing.place_of(picture.name));
            if (known != nullptr && !known->art)
                result.told.push_back(fmt::format("'{}' has no art in its tile set: set art = {}", picture.name,
                                                  pair_toml(packed.back().second)));
            const SheetGrid alone{cell, {0, 0}, {0, 0}, 1, 1, ""};
            if (known == nullptr)
                set.tiles.push_back(
                    new_tile(picture.name, packed.back().second, is_full_cell(picture.image, alone, {0, 0}), options));
        } else if (known == nullptr) {
            set.tiles.push_back(new_tile(picture.name, std::nullopt, false, options));
            set.tiles.back().picture = Picture{picture.file, 0, 0, size[0], size[1]};
            result.told.push_back(
                fmt::format("'{}' is {} x {} px, other than the cells of {} x {}: a tile with its own picture",
                            picture.file, size[0], size[1], cell[0], cell[1]));
        }
    }
    for (const Known& tile : before.tiles)
        if ((tile.art || tile.has_picture) && seen.count(tile.name) == 0)
            result.told.push_back(fmt::format("gone: there is no picture for '{}' any more", tile.name));
    if (!packed.empty()) {
        const SheetGrid& grid = packing.grid;
        result.sheet.emplace();
        result.sheet->width = grid.columns * (cell[0] + 2), result.sheet->height = grid.rows * (cell[1] + 2);
        result.sheet->rgba.resize(4 * static_cast<std::size_t>(result.sheet->width) *
                                  static_cast<std::size_t>(result.sheet->height));
        for (const auto& [picture, place] : packed)
            put(*result.sheet, picture->image, 1 + place[0] * (cell[0] + 2), 1 + place[1] * (cell[1] + 2));
        set.sheet.emplace();
        set.sheet->file = options.sheet_file;
        set.sheet->margin = grid.margin, set.sheet->gap = grid.gap;
        result.told.insert(result.told.begin(),
                           fmt::format("{} pictures of {} x {} px packed into a sheet of {} x {} cells", packed.size(),
                                       cell[0], cell[1], grid.columns, grid.rows));
    }
    write(result, text, before, set);
    return result;
}

}   // namespace dryground

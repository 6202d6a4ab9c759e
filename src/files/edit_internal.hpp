// Inside the files room: a map's files, open for changes.
#pragma once

#include <map>
#include <optional>
#include <stdexcept>

#include "dryground/edit.hpp"
#include "reading_internal.hpp"
#include "text_edits_internal.hpp"
#include "toml_text_internal.hpp"

namespace dryground::files {

// Why an edit cannot be made; caught by the function that makes the edit.
struct EditFault : std::runtime_error {
    using std::runtime_error::runtime_error;
};

// The content of a file and its changes.
struct OpenMap {
    const MapDraft& draft;
    const std::vector<TileSetDraft>& tilesets;
    const WorldDraft& world;
    TextEdits text;       // of the map's own file
    toml::table tree;     // of the same
    std::string folder;   // of the map's file, relative to the world's; empty or ending in a slash
    std::function<std::string(const std::string& file)> read;   // a file beside; throws EditFault
    std::map<std::string, std::string> changed;                 // files beside, with their new bytes
    std::size_t count = 0;                                      // of changes
    std::vector<std::string> lost{};                            // what goes over the map's edge, in words

    [[nodiscard]] std::size_t layer(const std::string& name, bool of_objects) const;   // throws EditFault
    [[nodiscard]] const toml::table& layer_tree(std::size_t layer) const;
};

// ---- cells (edit_cells.cpp)

// The cells of one layer, as keys by number, whatever file they are in.
class CellGrid {
public:
    CellGrid(OpenMap& map, std::size_t layer);

    [[nodiscard]] const LayerDraft& draft() const { return draft_; }
    [[nodiscard]] CellTable::Sort sort() const { return table_.sort; }
    // Returns the key at a place, counted from the data's top-left; throws EditFault outside. The meaning of `key`'s
    // numbers.
    [[nodiscard]] std::uint32_t at(int column, int row) const;
    [[nodiscard]] bool has(int column, int row) const;
    // Returns what a key stands for, in words that are the same for the same meaning: "set/tile:x:90", "kind crab", ""
    // for nothing.
    [[nodiscard]] const std::string& meaning(std::uint32_t key) const { return meanings_[key]; }
    [[nodiscard]] std::string meaning_of(const std::string& name) const;   // of what a person names; throws EditFault
    // Returns the key for a name or a meaning, added to a legend if no entry has it yet.
    [[nodiscard]] std::uint32_t key_for(const std::string& name);
    [[nodiscard]] std::uint32_t key_for_meaning(const std::string& meaning);

    void set(int column, int row, std::uint32_t key);   // counts where it changes something
    // Makes the cells those of a map of another size, in which (column, row) is the old top-left cell.
    void resize(int columns, int rows, int column, int row);
    void write();   // into the map's edits, or its files beside

private:
    [[nodiscard]] std::string meaning_of_key(const std::string& key) const;
    [[nodiscard]] std::uint32_t key_for(const std::string& meaning, const std::string& name);
    [[nodiscard]] std::string free_key(const std::string& name) const;
    void add_to_legend(const std::string& key, const std::string& meaning, const std::string& name);
    void write_rows();
    void write_csv();
    void write_png();
    [[nodiscard]] std::string row_of_keys(std::size_t row) const;

    OpenMap& map_;
    std::size_t layer_;
    const LayerDraft& draft_;
    CellTable table_;
    std::vector<std::uint32_t> numbers_;   // as they are to be, of columns_ x rows_
    std::vector<std::string> meanings_;
    int columns_, rows_;                 // as they are to be
    int old_column_ = 0, old_row_ = 0;   // of the old top-left cell in the new grid
};

void edit(OpenMap& map, const PaintCells& paint);
void edit(OpenMap& map, const FillCells& fill);
void edit(OpenMap& map, const ReplaceTile& replace);
void edit(OpenMap& map, const CopyCells& copy);

// ---- objects (edit_objects.cpp)
void edit(OpenMap& map, const AddObject& add);
void edit(OpenMap& map, const MoveObject& move);
void edit(OpenMap& map, const DropObject& drop);
void edit(OpenMap& map, const GiveObject& give);
// Moves everything in a table of an object that concerns its place: by px, and by cells.
void move_numbers(OpenMap& map, const toml::table& object, const PointPx& by, const Cell& cells);
// A point, or a list of points, in px.
void move_points(OpenMap& map, const toml::node& node, const PointPx& by);

// ---- keys (edit_keys.cpp)

// Returns the properties that a thing may have, by name.
using PropertyTypes = std::map<std::string, const FieldDraft*>;
[[nodiscard]] bool holds_places(const FieldDraft& field);   // on the map, in px
// Sets keys of a thing, or properties, in its table; returns how many changed. `what` names it in faults.
std::size_t set_keys(TextEdits& text, const toml::table& table, std::string_view thing, const std::string& what,
                     const PropertyTypes& types, const GivenKeys& values);
// Returns a typed value as TOML: of a key of a thing, or of a property. Throws EditFault.
[[nodiscard]] std::string typed_key(std::string_view thing, const std::string& what, const PropertyTypes& types,
                                    const std::string& key, const std::string& value);
// Returns those of a kind, and of the kinds that it is like; of a list.
[[nodiscard]] PropertyTypes properties_of(const WorldDraft& world, const std::string& kind);
[[nodiscard]] PropertyTypes properties_of(const std::vector<FieldDraft>& fields);
// Returns the keys of a new thing, as they are written in its table.
[[nodiscard]] toml_text::Pairs new_keys(std::string_view thing, const std::string& what, const PropertyTypes& types,
                                        const GivenKeys& values, bool inline_table);
void edit(OpenMap& map, const GiveLayer& give);
void edit(OpenMap& map, const GiveMap& give);

// ---- layers (edit_layers.cpp)
void edit(OpenMap& map, const AddLayer& add);
void edit(OpenMap& map, const DropLayer& drop);
void edit(OpenMap& map, const OrderLayer& order);

// ---- the whole map (edit_size.cpp)
void edit(OpenMap& map, const ResizeMap& resize);
void edit(OpenMap& map, const ShiftMap& shift);

}   // namespace dryground::files

// Inside the files room: tables of the three TOML formats to drafts.
#pragma once

#include <fmt/format.h>

#include <functional>

#include "dryground/files.hpp"
#include "table_internal.hpp"

namespace dryground::files {

// Looks up a picture relative to the file that names it; returns the path relative to the world's folder and its size,
// or reports why not.
struct PictureSize {
    std::string file;
    int width = 0, height = 0;
};
using FindPicture = std::function<PictureSize(const Name& path)>;

// Any other file, looked up likewise. Nothing, and a finding, if it cannot be read.
struct FoundFile {
    std::string file, bytes;
};
using FindFile = std::function<std::optional<FoundFile>(const Name& path)>;

struct Reading {
    const Source& source;
    const FindPicture& picture;
    const FindFile& file;
    const WorldDraft& world;   // as far as it has been read
};

// ---- parts that several formats share (read_parts.cpp)
using PointsPx = std::vector<std::array<double, 2>>;
std::optional<PointsPx> read_points(const Source& source, const toml::node& node, const std::string& what);
std::optional<ShapeDraft> read_shape(const Source& source, const toml::node& node, const std::string& what);
// Reads what is removed of a barrier: a form, and nothing else.
std::optional<ShapeDraft> read_carve_shape(Table& carve);
std::optional<std::vector<ShapeDraft>> read_shapes(Table& table, const char* key);
// Reads a box, polygon, circle or ellipse, given by the key of that name.
using DrawnForm = std::variant<BoxPx, PolygonPx, EllipsePx, CapsuleBetween, LinePx>;
std::optional<DrawnForm> read_drawn(Table& table, const std::string& said);
std::optional<Surface> read_surface(Table& table, const char* key);
std::optional<Colour> read_colour(Table& table, const char* key);
// Returns the rows of a multi-line text, each with the place of its first character (read_map.cpp).
std::vector<Located<std::string>> read_rows(const Source& source, const Located<std::string>& text);
void read_orientation(Table& table, Orientation& orientation);
std::vector<FieldDraft> read_fields(Table& table, const char* key);
SaidProperties read_properties(Table& table, const char* key = "props");
std::optional<Picture> read_picture(const Reading& reading, Table& table, const char* key = "picture");
template <class T, class U>
void set(std::optional<T>& into, std::optional<U> from) {
    if (from) into = std::move(*from);
}
template <class T>
void set(T& into, std::optional<Located<T>> from) {
    if (from) into = std::move(from->value);
}

// Calls action with the tables in a table of names: [movers.warden].
template <class Action>
void each_table(Table& root, const char* key, const std::string& sort, Action action) {
    const auto table = root.table(key, key);
    if (!table) return;
    for (const Entry& entry : table->entries()) {
        if (const auto* inner = entry.node->as_table()) {
            Table one(root.source(), *inner, fmt::format("{} '{}'", sort, entry.key.value));
            action(entry.key, one);
        } else {
            add_wrong_type(root.source(), *entry.node, fmt::format("{} '{}'", sort, entry.key.value), "a table");
        }
    }
}

// ---- cells in files of their own (read_cells.cpp)
// Requires UTF-8. Fields that cannot be told apart are reported.
[[nodiscard]] CellTable cells_of_csv(std::string_view text, const std::string& file, Report& report);
[[nodiscard]] CellTable cells_of_picture(const Image& image, const std::string& file);
// What a drawing is laid over, and the settings of its layer.
struct Drawing {
    const WorldDraft& world;
    const MapDraft& map;   // its size, cell, grid, as far as they have been read
    const LayerDraft& layer;
};
// Returns objects from a drawing (read_svg.cpp). Requires UTF-8.
[[nodiscard]] std::vector<ObjectDraft> objects_of_svg(std::string_view text, const std::string& file,
                                                      const Drawing& drawing, Report& report);
// Returns the property of a kind, or of those that it is like; null if none of them declares it.
[[nodiscard]] const FieldDraft* field_of(const WorldDraft& world, const std::string& kind, const std::string& field);
// Returns a text as a value of the property's type, if it is one; else the text.
[[nodiscard]] Value value_from_text(const FieldDraft& field, const std::string& text);
// Returns whether the text is UTF-8; reports the first byte that is not.
bool is_text(const Source& source, std::string_view text);

// ---- the formats
struct WorldFile {
    WorldDraft draft;
    Names tilesets, maps;   // paths, as written
};
WorldFile read_world(const Reading& reading, const toml::table& root);
TileSetDraft read_tileset(const Reading& reading, const toml::table& root);
MapDraft read_map(const Reading& reading, const toml::table& root);
std::vector<LegendEntry> read_legend(Table& table);

}   // namespace dryground::files

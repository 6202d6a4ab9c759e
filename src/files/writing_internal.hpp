// Inside the files room: writes drafts as the three TOML formats. The readers are in reading_internal.hpp.
#pragma once

#include <string>
#include <vector>

#include "dryground/files.hpp"
#include "toml_text_internal.hpp"

namespace dryground::files {

// ---- parts that several formats share (write_parts.cpp)

[[nodiscard]] std::vector<std::array<double, 2>> points_px(const Ring& ring);
// Return a shape as TOML: a word or an inline table. An area that was made in code becomes as many polygons as it
// takes.
[[nodiscard]] std::vector<std::string> shapes_toml(const ShapeDraft& draft);
[[nodiscard]] std::string shapes_toml(const std::vector<ShapeDraft>& drafts);
void add_form(toml_text::Pairs& pairs, const Form& form);
void add_orientation(toml_text::Pairs& pairs, const Orientation& orientation);
[[nodiscard]] std::string surface_toml(const Surface& surface);
void add_place(toml_text::Pairs& pairs, const ObjectDraft& object);   // where it is and what it covers
void add_body(toml_text::Pairs& pairs, const BodyDraft& body);
[[nodiscard]] std::string carves_toml(const std::vector<ObjectCarve>& carves);
[[nodiscard]] std::string carve_toml(const CarveDraft& carve);
[[nodiscard]] std::string legend_toml(const std::string& table, const std::vector<LegendEntry>& legend);
[[nodiscard]] std::string colour_toml(const Colour& colour);
// `folder`: of the file that is written, relative to the world's.
[[nodiscard]] std::string picture_toml(const Picture& picture, const std::string& folder);
[[nodiscard]] std::string path_toml(const std::string& file, const std::string& folder);

// ---- the formats
[[nodiscard]] std::string world_toml(const WorldDraft& draft, const std::vector<std::string>& tilesets,
                                     const std::vector<std::string>& maps);
[[nodiscard]] std::string tileset_toml(const TileSetDraft& draft, const std::string& folder);
// Returns a map, and the files beside it that hold its cells.
[[nodiscard]] std::vector<NamedBytes> map_files(const MapDraft& draft, const std::string& folder,
                                                const std::string& name);
[[nodiscard]] std::string csv_field(const std::string& key);   // in quotes where it has to be
[[nodiscard]] std::string csv_text(const CellTable& cells);
[[nodiscard]] Image picture_of(const CellTable& cells);

}   // namespace dryground::files

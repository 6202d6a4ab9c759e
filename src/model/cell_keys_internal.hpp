// Inside the library: what stands in the cells of a layer, before anybody says what it means.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "dryground/builder.hpp"

namespace dryground {

// Rows of characters as cells by number.
[[nodiscard]] CellTable table_of(const std::vector<Located<std::string>>& rows);

// Whether it stands for nothing where no legend says otherwise.
[[nodiscard]] bool is_empty_key(CellTable::Sort sort, const std::string& key);

// A colour as cells hold it: #rrggbb in small letters, with two more digits where it is not opaque. Other keys as they
// are.
[[nodiscard]] std::string canonical_key(const std::string& key);

// What comes behind a tile's name, as in bank:x:90. Nothing when it is not one of these.
[[nodiscard]] std::optional<Orientation> orientation_from(std::string_view words);

// The same written: ":x:90"; empty for none.
[[nodiscard]] std::string words_of(const Orientation& orientation);

}   // namespace dryground

// Inside the library: what stands in the cells of a layer, before its meaning is looked up.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "dryground/builder.hpp"

namespace dryground {

// Returns rows of characters as cells by number.
[[nodiscard]] CellTable table_of(const std::vector<Located<std::string>>& rows);

// Returns whether it stands for nothing unless a legend declares it.
[[nodiscard]] bool is_empty_key(CellTable::Sort sort, const std::string& key);

// Returns a colour as cells hold it: #rrggbb in small letters, with two more digits if it is not opaque. Other keys are
// returned unchanged.
[[nodiscard]] std::string canonical_key(const std::string& key);

// Reads what comes after a tile's name, as in bank:x:90. Returns nothing if it is something else.
[[nodiscard]] std::optional<Orientation> orientation_from(std::string_view words);

// Writes the same: ":x:90"; empty for none.
[[nodiscard]] std::string words_of(const Orientation& orientation);

}   // namespace dryground

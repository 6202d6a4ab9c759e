// The keys of designers' files, for people and their editors: made from the one list that readers and writers use.
// Threads: free functions without shared state that changes.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace dryground {

// The things that have keys: "world", "tiles", "map", then "mover", "tile", "layer", "object" and so on.
[[nodiscard]] std::vector<std::string_view> things_with_keys();

// The keys of a thing as a table in Markdown: name, what it takes, what holds where it is left out, what it says.
// Requires one of things_with_keys().
[[nodiscard]] std::string key_page(std::string_view thing);

// The JSON Schema (draft 7) of a format: "world", "tiles" or "map". Requires one of them.
[[nodiscard]] std::string schema_text(std::string_view format);

}   // namespace dryground

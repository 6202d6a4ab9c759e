// The keys of designers' files, for documentation and editors, and the schemas of these and of packs: made from the
// lists that readers and writers use.
// Threads: free functions without mutable shared state.
#pragma once

#include <string>
#include <string_view>
#include <vector>

namespace dryground {

// Returns the things that have keys: "world", "tiles", "map", then "mover", "tile", "layer", "object" and so on.
[[nodiscard]] std::vector<std::string_view> things_with_keys();

// Returns the keys of a thing as a Markdown table: name, type, default, meaning. Requires one of things_with_keys().
[[nodiscard]] std::string key_page(std::string_view thing);

// Returns the JSON Schema (draft 7) of a format: "world", "tiles", "map" or "pack". Requires one of these. That of
// packs refers to that of merged geometry, schema/merge.schema.json, which has to lie beside it.
[[nodiscard]] std::string schema_text(std::string_view format);

}   // namespace dryground

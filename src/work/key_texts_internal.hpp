// Inside the work room: the content of a TOML text, key by key.
#pragma once

#include <map>
#include <string>
#include <vector>

namespace dryground::work {

// By path, as in kinds.crab.role: the value as it is written. Tables with lines of their own have an empty one.
using KeyTexts = std::map<std::string, std::string>;
[[nodiscard]] KeyTexts key_texts(const std::string& toml);

// Returns the keys in a table that differ between two texts, or are only in one of them, from that table.
[[nodiscard]] std::vector<std::string> changed_keys(const KeyTexts& before, const KeyTexts& after,
                                                    const std::string& of);
// Returns the names of what is in a table, sorted.
[[nodiscard]] std::vector<std::string> names_in(const KeyTexts& said, const std::string& table);

}   // namespace dryground::work

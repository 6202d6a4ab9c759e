// Inside the work room: what a TOML text says, key by key.
#pragma once

#include <map>
#include <string>
#include <vector>

namespace dryground::work {

// By path, as in kinds.crab.role: its value as it is written. Tables with lines of their own have an empty one.
using KeyTexts = std::map<std::string, std::string>;
[[nodiscard]] KeyTexts key_texts(const std::string& toml);

// The keys in a table that two texts say otherwise, or only one of them says, from that table.
[[nodiscard]] std::vector<std::string> changed_keys(const KeyTexts& before, const KeyTexts& after,
                                                    const std::string& of);
// The names of what is in a table, sorted.
[[nodiscard]] std::vector<std::string> names_in(const KeyTexts& said, const std::string& table);

}   // namespace dryground::work

// Inside the files room: the lists of keys as data, for uses without a draft: schemas, and pages for people.
#pragma once

#include <string>
#include <vector>

#include "key_internal.hpp"

namespace dryground::keys {

struct Entry {
    Key key;
    Sort sort = Sort::text;
    int count = 0;              // of wholes, numbers; of points: at least
    std::string standard{};     // default value, as TOML; empty without one
    std::string_view thing{};   // of tables: the thing whose keys they have
    int group = -1;             // exactly one of the entries with this number; -1: it stands for itself
};

// A kind of thing that has keys: "layer".
struct Thing {
    std::string_view name;
    std::string_view says;   // where it stands: "[[layers]] of a map"
    std::string_view of;     // the file whose schema knows it: "map", or "" for what several know
    std::vector<Entry> entries;
};

// Returns all of them, those that are files first.
[[nodiscard]] const std::vector<Thing>& all_things();
// Returns the thing of a name. Requires one of their names.
[[nodiscard]] const Thing& thing(std::string_view name);

// Returns the JSON Schema of packs (pack_schema.cpp), and its definitions that follow from no list.
[[nodiscard]] std::string pack_schema_text();
[[nodiscard]] std::string_view pack_schema_by_hand();

}   // namespace dryground::keys

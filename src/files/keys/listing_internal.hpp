// Inside the files room: the lists of keys as data, for what needs no draft: schemas, and pages for people.
#pragma once

#include <string>
#include <vector>

#include "key_internal.hpp"

namespace dryground::keys {

struct Entry {
    Key key;
    Sort sort = Sort::text;
    int count = 0;              // of wholes, numbers; of points: at least
    std::string standard{};     // what holds where it is left out, as TOML; empty where nothing does
    std::string_view thing{};   // of tables: the thing whose keys they have
    int group = -1;             // exactly one of the entries with this number; -1: it stands for itself
};

// A sort of thing that has keys: "layer".
struct Thing {
    std::string_view name;
    std::string_view says;   // where it stands: "[[layers]] of a map"
    std::string_view of;     // the file whose schema knows it: "map", or "" for what several know
    std::vector<Entry> entries;
};

// All of them, those that are files first.
[[nodiscard]] const std::vector<Thing>& all_things();
// Requires one of their names.
[[nodiscard]] const Thing& thing(std::string_view name);

// The JSON Schema of packs (pack_schema.cpp), and its definitions that follow from no list.
[[nodiscard]] std::string pack_schema_text();
[[nodiscard]] std::string_view pack_schema_by_hand();

}   // namespace dryground::keys

// Tables of a world's content, as text, CSV and JSON.
#pragma once

#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "dryground/world.hpp"

namespace app {

using Json = nlohmann::ordered_json;

struct Table {
    std::vector<std::string> columns;
    std::vector<std::vector<Json>> rows;
};

struct Filter {   // empty: everything
    std::string kind, tag, name;
};

[[nodiscard]] std::vector<std::string> table_names();
// Returns a table. Requires a name of table_names. Tables of layers, objects and links hold those of the named maps.
[[nodiscard]] Table make_table(const dryground::World& world, const std::string& what,
                               const std::vector<std::string>& maps, const Filter& filter);

[[nodiscard]] std::string as_text(const Table& table);
[[nodiscard]] std::string as_csv(const Table& table);   // RFC 4180, with a heading
[[nodiscard]] std::string as_json(const Table& table, const std::string& what);

}   // namespace app

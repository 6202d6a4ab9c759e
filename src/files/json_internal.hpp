// Inside the files room: how we write JSON. Numbers as the shortest decimals that read back to the same double, lists
// of plain values and points on one line.
#pragma once

#include <nlohmann/json.hpp>
#include <string>

namespace dryground::files {

using Json = nlohmann::ordered_json;

[[nodiscard]] std::string json_text(const Json& value);

}   // namespace dryground::files

// Inside the files room: how we write JSON. Numbers as the shortest decimals that read back to the same double, lists
// of plain values and points on one line; or, for programs, without a space.
#pragma once

#include <nlohmann/json.hpp>
#include <string>

namespace dryground::files {

using Json = nlohmann::ordered_json;

[[nodiscard]] std::string json_text(const Json& value);

// A number, as a whole one where it is: shorter in CBOR, the same in JSON.
[[nodiscard]] Json number_json(double number);

// The same added to a text, for a value that stands so many spaces deep.
enum class Spaces { some, none };
void add_json(std::string& text, const Json& value, int indent, Spaces spaces);

}   // namespace dryground::files

// Inside the files room: how we write JSON. Numbers as the shortest decimals that read back to the same double, lists
// of plain values and points on one line; or, for programs, without a space.
#pragma once

#include <nlohmann/json.hpp>
#include <string>

namespace dryground::files {

using Json = nlohmann::ordered_json;

[[nodiscard]] std::string json_text(const Json& value);

// Returns a number, as a whole one if it is one: shorter in CBOR, the same in JSON.
[[nodiscard]] Json number_json(double number);

// Appends the same to a text, for a value that is indented by so many spaces.
enum class Spaces { some, none };
void add_json(std::string& text, const Json& value, int indent, Spaces spaces);

}   // namespace dryground::files

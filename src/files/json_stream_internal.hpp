// Inside the files room: trees that are too large to be held at once. Some of their values are holes, which are made
// when they are written, one after the other, and then released.
#pragma once

#include <cstdint>
#include <functional>
#include <string>
#include <utility>
#include <vector>

#include "json_internal.hpp"

namespace dryground::files {

// The makers of a tree's holes. They are called once each, in the order in which the tree is written.
class Holes {
public:
    // Adds a maker; returns what stands in the tree for its result.
    [[nodiscard]] Json add(std::function<Json()> make) {
        makers_.push_back(std::move(make));
        return Json::binary({}, makers_.size() - 1);
    }
    [[nodiscard]] static bool is_hole(const Json& value) { return value.is_binary(); }
    [[nodiscard]] Json fill(const Json& hole) const { return makers_[hole.get_binary().subtype()](); }

private:
    std::vector<std::function<Json()>> makers_;
};

// Where a tree is written to: as JSON text, as CBOR, or as both at once.
struct TreeSinks {
    std::string* text = nullptr;
    std::function<void(const std::vector<std::uint8_t>&)> cbor{};
};

// Writes a tree with its holes filled. What fills a hole is written without spaces: it is for programs. The text begins
// at the present end of a line, indented by `indent` spaces.
void write_tree(const Json& tree, const Holes& holes, int indent, const TreeSinks& sinks);

// Returns the first bytes of a list or table of so many items in CBOR (RFC 8949, 3.1).
[[nodiscard]] std::vector<std::uint8_t> cbor_head(bool is_table, std::size_t count);

}   // namespace dryground::files

// Inside the files room: merged geometry in the formats that it can be written in, all made from the tree of
// dryground/merge/1, so that all say the same numbers; except meshes, which are made from the geometry itself.
#pragma once

#include "dryground/files.hpp"
#include "json_internal.hpp"

namespace dryground::files {

[[nodiscard]] std::string merge_text(const Json& tree, MergeFormat format);

// Merged regions raised, as glTF 2.0.
[[nodiscard]] std::string gltf_text(const World& world, const std::vector<Merge>& merges, const MergeOutput& output);

// The colour of a barrier: its own, or one of those that tell the first of a world apart at a glance.
[[nodiscard]] Colour colour_of(const World& world, BarrierId barrier);

}   // namespace dryground::files

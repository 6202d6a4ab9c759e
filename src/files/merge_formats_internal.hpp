// Inside the files room: merged geometry in all formats that it can be written in, all made from the tree of
// dryground/merge/1, so that their numbers agree; except meshes, which are made from the geometry itself.
#pragma once

#include "dryground/files.hpp"
#include "json_internal.hpp"

namespace dryground::files {

[[nodiscard]] std::string merge_text(const Json& tree, MergeFormat format);

// Returns merged regions raised, as glTF 2.0.
[[nodiscard]] std::string gltf_text(const World& world, const std::vector<Merge>& merges, const MergeOutput& output);

// Returns the colour of a barrier: its own, or one that distinguishes the first ones of a world at a glance.
[[nodiscard]] Colour colour_of(const World& world, BarrierId barrier);

}   // namespace dryground::files

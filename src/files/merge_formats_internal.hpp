// Inside the files room: merged geometry in the formats that it can be written in, all made from the tree of
// dryground/merge/1, so that all say the same numbers.
#pragma once

#include "dryground/files.hpp"
#include "json_internal.hpp"

namespace dryground::files {

[[nodiscard]] std::string merge_text(const Json& tree, MergeFormat format);

}   // namespace dryground::files

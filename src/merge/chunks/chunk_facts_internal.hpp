// Inside the merge room: which chunks of a map change with facts, objects and tiles.
#pragma once

#include <vector>

#include "chunk_layout_internal.hpp"

namespace dryground::detail {

// Returns all chunks that may change, sorted; others have at most edges that meet theirs. O(cells) of layers that come
// or go, or hold tiles that open or close.
[[nodiscard]] std::vector<std::size_t> chunks_following(const World& world, const ChunkLayout& layout,
                                                        const Facts& before, const Facts& after);
// Returns all chunks in which a fact decides about ground, in any state of the others. O(cells) of layers that name it,
// or whose tiles do.
[[nodiscard]] std::vector<std::size_t> chunks_of_fact(const World& world, const ChunkLayout& layout, FactId fact);
// Returns the same for an object that comes or goes. O(its area).
[[nodiscard]] std::vector<std::size_t> chunks_of_object(const World& world, const ChunkLayout& layout,
                                                        const Object& object);
// Returns the same for a tile that changes ground outside its cell and comes to a cell, or goes. O(its area).
[[nodiscard]] std::vector<std::size_t> chunks_of_tile(const World& world, const ChunkLayout& layout, const Layer& layer,
                                                      const Placed& placed, int column, int row);

}   // namespace dryground::detail

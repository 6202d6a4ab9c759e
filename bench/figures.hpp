// Figures with about a given number of vertices, each hard for one part of the kernel.
#pragma once

#include "dryground/geometry.hpp"

namespace bench {

[[nodiscard]] dryground::Regions comb(int vertices);     // long thin teeth
[[nodiscard]] dryground::Regions stairs(int vertices);   // square steps, all at one slope
[[nodiscard]] dryground::Regions sieve(int vertices);    // one outline, many holes
[[nodiscard]] dryground::Regions heap(int vertices);     // many boxes near each other, and one far away
[[nodiscard]] dryground::Regions coast(int vertices);    // an outline with bays within bays
[[nodiscard]] dryground::Regions disc(int vertices);
[[nodiscard]] dryground::Regions bowl(int vertices);   // what is left of a box without half a disc

// Boxes on each other, as many as `count`; each over a few others.
[[nodiscard]] std::vector<dryground::PaintLayer> coats(int count);

}   // namespace bench

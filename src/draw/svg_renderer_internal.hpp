// Inside the draw room: SVG to pixels.
#pragma once

#include <string_view>

#include "art_internal.hpp"
#include "dryground/result.hpp"

namespace dryground::drawing {

// Returns the whole document on a surface of its own size. Fails if it is not SVG, has no size or is larger than
// 32,000 px a side, or if librsvg is not installed.
[[nodiscard]] Result<Canvas> rendered(std::string_view svg);

}   // namespace dryground::drawing

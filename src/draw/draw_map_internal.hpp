// Inside the draw room: a laid out picture of a map, or a window of it, as an SVG document.
#pragma once

#include "picture_internal.hpp"

namespace dryground::drawing {

[[nodiscard]] std::string draw_window(MapPicture& picture, Art& art, const Box& window);

}   // namespace dryground::drawing

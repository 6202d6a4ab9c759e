// Inside the draw room: the colours of a picture, and how barriers are distinguished.
#pragma once

#include <array>
#include <string>

#include "dryground/draw.hpp"

namespace dryground::drawing {

// How a group is distinguished: a hatching, a dash and a colour.
struct Look {
    std::string colour, dash, hatch;   // SVG: a colour, a list of dashes, a path in a square of 8 by 8
    char letter = '#';                 // of its ground in a picture of characters
};

// Every colour that does not belong to a barrier, by purpose. Texts stand on `paper`, `ground` or `edge` with a
// contrast of at least 4.5 : 1, signs on `sign_text` likewise. `error` was found by the search that found the palettes:
// of the reds with that contrast the one that lies furthest from all other inks, for all kinds of vision (21 in
// CIELAB).
struct Inks {
    std::string text = "#10243a", soft = "#4a5963", paper = "#fffdf5", ground = "#eef4f5", edge = "#dfe6e8",
                lines = "#33414a", error = "#a03838", warning = "#8a5a00", note = "#1f5f8b", sign_text = "#ffffff",
                side = "#a03838", helper = "#554466", reach = "#5b2a86";
    std::array<std::string, 5> roles{"#1f5f8b", "#8a5a00", "#5b2a86", "#5a3d2b", "#2e6b34"};   // by Role
};
[[nodiscard]] Inks inks_of(Palette palette);

// Returns the look of a barrier by its id; for groups without one (triggers, a mover's ground) the numbers continue
// after the barriers.
[[nodiscard]] Look look_of(const World& world, BarrierId barrier, std::size_t otherwise, Palette palette);

[[nodiscard]] Colour grey_of(Colour colour);   // as light as it appears

}   // namespace dryground::drawing

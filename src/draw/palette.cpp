// Colours. Those of `own` are set by the designers; the others are six each, found by a search for colours that lie far
// apart both for normal and for colour-deficient vision (simulated after G. M. Machado, M. M. Oliveira, L. A. F.
// Fernandes, "A Physiologically-based Model for Simulation of Color Vision Deficiency", IEEE Transactions on
// Visualization and Computer Graphics 15(6), 2009), with a contrast of 3 : 1 or more to the pale ground. Tests check
// this.

#include "palette_internal.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace dryground {

namespace {

constexpr std::array<std::string_view, 12> things{"art",   "grid",    "shapes", "merged",   "pieces", "flags",
                                                  "sides", "objects", "links",  "findings", "reach",  "walk"};
constexpr std::array<std::string_view, 5> palettes{"own", "protan", "deutan", "tritan", "grey"};

template <class Enum, class Names>
std::optional<Enum> from(std::string_view name, const Names& names) {
    const auto found = std::find(names.begin(), names.end(), name);
    if (found == names.end()) return std::nullopt;
    return static_cast<Enum>(found - names.begin());
}

}   // namespace

std::span<const std::string_view> thing_names() { return things; }
std::optional<Thing> thing_from(std::string_view name) { return from<Thing>(name, things); }
std::span<const std::string_view> palette_names() { return palettes; }
std::optional<Palette> palette_from(std::string_view name) { return from<Palette>(name, palettes); }

namespace drawing {

namespace {

using Six = std::array<const char*, 6>;
constexpr std::array<Six, 5> colours{{
    {"#7a3f6d", "#2f6f4f", "#a8481f", "#2d4f9e", "#6d6a1f", "#8a2d3c"},   // own: those of barriers that name none
    {"#2000ff", "#40a000", "#a08080", "#200040", "#8080e0", "#002000"},
    {"#0000ff", "#e020a0", "#20a000", "#400000", "#6080ff", "#000040"},
    {"#ff0000", "#00a000", "#a020ff", "#600020", "#ff20c0", "#002020"},
    {"#111111", "#7d7d7d", "#3a3a3a", "#606060", "#252525", "#8a8a8a"},
}};
constexpr std::array<const char*, 4> dashes{"none", "7 3", "2 3", "9 3 2 3"};
constexpr std::array<const char*, 6> hatches{"M0 8L8 0", "M0 0L8 8",     "M0 4H8",
                                             "M4 0V8",   "M0 4H8M4 0V8", "M0 8L8 0M0 0L8 8"};
constexpr std::string_view letters = "#~%=&$+*";

}   // namespace

Colour grey_of(Colour colour) {
    const double light = 0.2126 * std::pow(colour.red / 255.0, 2.2) + 0.7152 * std::pow(colour.green / 255.0, 2.2) +
                         0.0722 * std::pow(colour.blue / 255.0, 2.2);
    const auto grey = static_cast<std::uint8_t>(std::lround(255 * std::pow(light, 1 / 2.2)));
    return {grey, grey, grey};
}

Inks inks_of(Palette palette) {
    Inks inks;
    if (palette != Palette::grey) return inks;
    const auto grey = [](std::string& ink) {
        const Colour colour = grey_of(*colour_from(ink));
        ink = fmt::format("#{0:02x}{0:02x}{0:02x}", colour.red);
    };
    for (std::string* ink : {&inks.text, &inks.soft, &inks.paper, &inks.ground, &inks.edge, &inks.lines, &inks.error,
                             &inks.warning, &inks.note, &inks.sign_text, &inks.side, &inks.helper, &inks.reach})
        grey(*ink);
    for (std::string& ink : inks.roles) grey(ink);
    return inks;
}

Look look_of(const World& world, BarrierId barrier, std::size_t otherwise, Palette palette) {
    const std::size_t number = barrier != BarrierId::none ? index(barrier) : world.barriers().size() + otherwise;
    Look look{colours[static_cast<std::size_t>(palette)][number % 6], dashes[number % dashes.size()],
              hatches[number % hatches.size()], letters[number % letters.size()]};
    if (barrier != BarrierId::none && palette == Palette::own)
        if (const auto& colour = world.barriers()[number].colour)
            look.colour = fmt::format("#{:02x}{:02x}{:02x}", colour->red, colour->green, colour->blue);
    return look;
}

}   // namespace drawing

}   // namespace dryground

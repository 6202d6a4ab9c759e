// Inside the files room: how drawings give sizes, and how elements look: what is visible of them, and in which colour.
#pragma once

#include <map>
#include <optional>
#include <pugixml.hpp>
#include <string>
#include <string_view>
#include <vector>

#include "svg_path_internal.hpp"

namespace dryground::files {

// Returns a length in px ("12", "12px", "4.5mm"; also cm, in, pt, pc, at 96 px to the inch as in CSS). Returns nothing
// for others.
[[nodiscard]] std::optional<double> svg_length(std::string_view text);

// Returns a colour as #rrggbb in small letters, from #rgb, #rrggbb, rgb(r, g, b); nothing for none and for others.
[[nodiscard]] std::optional<std::string> svg_colour(std::string_view text);

// What an element inherits from what contains it, and sets itself.
struct Look {
    std::string fill, stroke, visibility;   // as written; empty where nobody says them
    bool displayed = true;                  // else it is not there, nor is anything in it

    [[nodiscard]] bool is_filled() const { return !fill.empty() && fill != "none" && fill != "transparent"; }
    [[nodiscard]] bool is_seen() const { return displayed && visibility != "hidden" && visibility != "collapse"; }
};

// The rules of a drawing's <style> for single classes, which is how drawing programs write them.
class StyleSheet {
public:
    explicit StyleSheet(const pugi::xml_node& svg);
    [[nodiscard]] bool has(const std::string& name) const { return rules_.count(name) > 0; }
    [[nodiscard]] Look look_of(const pugi::xml_node& node, const Look& outer) const;

private:
    void read(std::string_view css);

    std::map<std::string, std::string> rules_;   // declarations by class
};

// Returns the words of a text separated by spaces.
[[nodiscard]] std::vector<std::string> svg_words(std::string_view text);

// How user units convert to the map.
struct Page {
    Matrix to_map = identity;
    bool fits = true;               // it is the map's size, or gives none
    double width = 0, height = 0;   // px, if it gives them
};
// `least`, `map_width`, `map_height`: the box around the map, px.
[[nodiscard]] Page page_of(const pugi::xml_node& svg, std::array<double, 2> least, double map_width, double map_height);

}   // namespace dryground::files

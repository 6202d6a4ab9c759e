// Inside the draw room: an SVG page in the making, and the parts of a map's picture.
#pragma once

#include <fmt/format.h>

#include <array>
#include <map>
#include <string>
#include <vector>

#include "dryground/draw.hpp"
#include "dryground/merge.hpp"

namespace dryground::drawing {

struct Box {   // px of the picture
    double x = 0, y = 0, width = 0, height = 0;
};

struct Mark {   // a finding on the map
    double x = 0, y = 0;
    int number = 0;
};

// How a group is told apart: a hatching, a dash and a colour, all by its number.
struct Look {
    std::string colour, dash;
    int hatch = 0;
};

class Page {
public:
    Page(const World& world_in, const Map& map_in, const DrawOptions& options);

    const World& world;
    const Map& map;
    Show show;
    int scale;
    double left, top;   // of the map's bounds in the picture
    std::string defs, body;

    [[nodiscard]] double x(std::int32_t steps) const { return left + to_px(steps - map.least().x) * scale; }
    [[nodiscard]] double y(std::int32_t steps) const { return top + to_px(steps - map.least().y) * scale; }
    [[nodiscard]] double width() const { return to_px(map.most().x - map.least().x) * scale; }
    [[nodiscard]] double height() const { return to_px(map.most().y - map.least().y) * scale; }

    template <class... Args>
    void put(fmt::format_string<Args...> format, Args&&... args) {
        fmt::format_to(std::back_inserter(body), format, std::forward<Args>(args)...);
    }
    // Text with a pale edge, so that it reads on any ground.
    void label(double at_x, double at_y, std::string_view text, double size = 12, std::string_view anchor = "start",
               std::string_view style = "");
    // A label near a point, above it if there is room, else where no other label is. One that is not needed is left out
    // where there is no room above or below.
    void label_near(double at_x, double at_y, double reach, const std::string& text, bool needed);
    [[nodiscard]] std::string path(const Regions& regions) const;
    [[nodiscard]] std::string path(const Ring& ring) const;

private:
    std::vector<Box> labels_;
};

[[nodiscard]] std::string escaped(std::string_view text);
[[nodiscard]] double text_width(std::string_view text, double size);
[[nodiscard]] Look look_of(const World& world, const Group& group, std::size_t number);

void draw_art(Page& page, const ArtSource& art);
void draw_grid(Page& page);
void draw_cell_numbers(Page& page);
void draw_merged(Page& page, const Merge& merge);
void draw_flags(Page& page);
void draw_objects(Page& page);
void draw_marks(Page& page, const std::vector<Mark>& marks, const std::vector<const Finding*>& findings);
void draw_mark(Page& page, double x, double y, int number, Severity severity);

}   // namespace dryground::drawing
